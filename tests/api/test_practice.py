"""Practice over HTTP: drills and what is due of them, rehearsals that are written down beat by beat."""

from __future__ import annotations

import csv
import io
from typing import Any

import pytest
from fastapi.testclient import TestClient

from golden_pivot.demo import demo_text


@pytest.fixture
def routine(client: TestClient) -> dict[str, Any]:
    made: dict[str, Any] = client.post("/api/routines", json={"text": demo_text("harbour_light")}).json()
    return made


def answer(client: TestClient, mark: str, **told: Any) -> Any:
    whole = {
        "uid": mark,
        "drill": "sums",
        "question": "10 digit sum of n n is 31",
        "right": True,
        "seconds": 2.0,
        **told,
    }
    return client.post("/api/practice/1/answers", json=whole)


def test_an_answer_is_written_down_once_and_what_is_due_follows(client: TestClient, routine: dict[str, Any]) -> None:
    before = client.get("/api/practice/1/drills").json()
    assert [one["name"] for one in before["drills"]] == ["sums"] and len(before["due"]) == 10
    first = answer(client, "a1")
    assert first.status_code == 201 and first.json() == answer(client, "a1").json()
    assert first.json()["asked"] == 1 and answer(client, "a2", right=False).json()["asked"] == 2
    after = client.get("/api/practice/1/drills").json()
    (asked,) = [one for one in after["standing"] if one["asked"]]
    assert (asked["question"]["answer"], asked["right"], asked["asked"]) == ("4", 1, 2)
    assert after["standing"][0] == asked, "the hardest first"
    assert len(after["due"]) == 9, "it is not due at once again"
    (shelf,) = client.get("/api/practice").json()
    assert (shelf["due"], shelf["last_shown"], shelf["last_rehearsed"]) == (0, None, None)
    for bad in ({"seconds": -1}, {"uid": "x"}, {"seconds": "soon"}):
        assert answer(client, "a3", **bad).status_code == 422
    assert client.post("/api/practice/9/answers", json={}).status_code in (404, 422)


def test_drills_are_taken_along_as_a_table(client: TestClient, routine: dict[str, Any]) -> None:
    answer(client, "a1")
    rows = list(csv.DictReader(io.StringIO(client.get("/api/practice/1/drills.csv").text)))
    assert len(rows) == 10 and {row["asks"] for row in rows} == {"digit sum of n"}
    assert [(row["known"], row["answer"], row["right"], row["seconds"]) for row in rows if row["asked"] == "1"] == [
        ("n is 31", "4", "1", "2.0")
    ]


def test_a_rehearsal_is_kept_beat_by_beat(client: TestClient, routine: dict[str, Any]) -> None:
    told = client.post("/api/practice/1/rehearse", json={"habit": "awkward", "seed": 5}).json()["rehearsal"]
    assert told == client.post("/api/practice/1/rehearse", json={"habit": "awkward", "seed": 5}).json()["rehearsal"]
    assert told["comes_out"] and told["choices"][0] in {f"n is {n}" for n in (30, 31, 38, 39)}
    beats = [
        {"line": 6, "seconds": 7.0},
        {"line": 10, "seconds": 9.0, "asked": "digit sum of n", "right": False, "answer": "3"},
    ]
    for many in (1, 2):
        whole = {"uid": "b1", "level": "memory", "habit": "awkward", "done": beats[:many], "finished": many == 2}
        assert client.put("/api/practice/1/rehearsals", json=whole).status_code == 200
    for seconds in ("NaN", "-1", "1e9"):
        beat = f'{{"line": 1, "seconds": {seconds}}}'
        body = f'{{"uid": "b2", "level": "x", "habit": "y", "finished": true, "done": [{beat}]}}'
        sent = client.put("/api/practice/1/rehearsals", content=body, headers={"content-type": "application/json"})
        assert sent.status_code == 422
    times = client.get("/api/practice/1/times").json()
    assert times["rehearsals"] == 1 and [(one["line"], one["seconds"], one["wrong"]) for one in times["lines"]] == [
        (6, 7.0, 0),
        (10, 9.0, 1),
    ]
    assert times["paces"]["sum"] == 9.0
    (shelf,) = client.get("/api/practice").json()
    assert shelf["last_rehearsed"] == times["last"]


def test_the_book_gives_the_spectator_a_habit(client: TestClient, routine: dict[str, Any]) -> None:
    client.post("/api/book", json={"routine_id": 1, "played_on": "2026-11-01", "chosen": {"n": 33}})
    for seed in range(5):
        told = client.post("/api/practice/1/rehearse", json={"habit": "as in my book", "seed": seed}).json()
        assert told["rehearsal"]["choices"] == ["n is 33"]


def test_a_text_with_faults_has_no_drills_and_no_rehearsal(client: TestClient) -> None:
    client.post("/api/routines", json={"text": "Pack: 52 cards, any order\nDeal ? cards from deck\n"})
    assert client.get("/api/practice/1/drills").json() == {"drills": [], "standing": [], "due": []}
    assert client.post("/api/practice/1/rehearse", json={"seed": 1}).json() == {"rehearsal": None}
