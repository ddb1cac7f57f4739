"""The book over HTTP: an entry in a few fields, one's own spectators, tables in and out."""

from __future__ import annotations

from typing import Any

import pytest
from fastapi.testclient import TestClient

DIGITS = (
    "Title: Digits\nPack: 52 cards, any order\nPlace FORCE 10th\nSpectator names a number n from 10 to 20\nDeal n cards from deck\n"
    "Put the dealt cards back on top\nDeal digit sum of n cards from deck\nEnds with: the last card dealt is FORCE\n"
)


@pytest.fixture
def routine(client: TestClient) -> dict[str, Any]:
    made: dict[str, Any] = client.post("/api/routines", json={"text": DIGITS}).json()
    return made


def entry(client: TestClient, routine: dict[str, Any], **told: Any) -> Any:
    return client.post("/api/book", json={"routine_id": routine["id"], "played_on": "2026-11-01", **told})


def test_an_entry_keeps_the_text_that_was_played(client: TestClient, routine: dict[str, Any]) -> None:
    assert client.get(f"/api/book/questions/{routine['id']}").json()[0]["name"] == "n"
    made = entry(client, routine, chosen={"n": 12}, minutes=4.5, went=4, occasion="supper")
    assert made.status_code == 201 and made.json()["text"] == DIGITS and made.json()["title"] == "Digits"
    client.put(f"/api/routines/{routine['id']}", json={"text": "Title: Other", "revision": 1})
    client.delete(f"/api/routines/{routine['id']}")
    (kept,) = client.get("/api/book").json()
    assert kept == made.json()
    changed = client.put(f"/api/book/{kept['uid']}", json={"played_on": "2.11.2026", "chosen": {"n": 13}}).json()
    assert (changed["played_on"], changed["chosen"], changed["text"]) == ("2026-11-02", {"n": 13}, DIGITS)


def test_what_cannot_be_is_refused_and_changes_nothing(client: TestClient, routine: dict[str, Any]) -> None:
    for told, where in (({"played_on": "2999-01-01"}, "played_on"), ({"played_on": "soon"}, "played_on"), ({"went": 9}, "went"),
                        ({"chosen": {"n": -1}}, "chosen"), ({"minutes": 0}, "minutes")):  # fmt: skip
        refused = entry(client, routine, **told)
        assert refused.status_code == 422 and refused.json()["where"] == where and refused.json()["remedy"]
    assert entry(client, {"id": 99}).status_code == 404
    assert client.put("/api/book/ff", json={"played_on": "2026-11-01"}).status_code == 404
    assert client.get("/api/book").json() == []


def test_an_entry_is_struck_out_and_put_back(client: TestClient, routine: dict[str, Any]) -> None:
    made = entry(client, routine, chosen={"n": 12}).json()
    gone = client.delete(f"/api/book/{made['uid']}").json()
    assert client.get("/api/book").json() == []
    assert client.post("/api/book/put-back", json=gone).json() == {"done": True}
    assert client.get("/api/book").json() == [made]
    assert client.post("/api/book/put-back", json=gone).json() == {"done": False}


def test_ones_own_spectators(client: TestClient, routine: dict[str, Any]) -> None:
    for n in (12, 15, 20):
        entry(client, routine, chosen={"n": n})
    told = client.get(f"/api/book/spectators/{routine['id']}").json()
    (record,) = told["records"]
    assert (record["low"], record["high"], record["outside"], record["total"]) == (10, 19, 1, 3)
    assert record["habit"] == "n: as recorded 12, 15, 20" and told["shown"]["times"] == 3


def test_the_book_as_a_table_out_and_in_again(client: TestClient, routine: dict[str, Any]) -> None:
    made = [entry(client, routine, chosen={"n": n}, note="=1+1, “loud”").json() for n in (12, 15)]
    table = client.get("/api/book/book.csv")
    assert table.headers["content-type"].startswith("text/csv") and "'=1+1" in table.text
    for one in made:
        client.delete(f"/api/book/{one['uid']}")
    (row,) = client.post("/api/book/coming", json={"text": "day,routine\n2026-11-01,Of a friend\n"}).json()
    assert client.post("/api/book/take-in", json=[row["entry"]]).json() == {"written": 1}
    # A routine that is on no shelf keeps its title when something else of it is changed.
    assert (
        client.put(f"/api/book/{row['entry']['uid']}", json={"played_on": "2026-11-02"}).json()["title"]
        == "Of a friend"
    )
    client.delete(f"/api/book/{row['entry']['uid']}")
    rows = client.post("/api/book/coming", json={"text": table.text + "2026-11-01,,,,,,,,,,,\n"}).json()
    assert [row["trouble"] for row in rows] == ["", "", "There is no routine. Write its title."]
    assert client.get("/api/book").json() == []
    taken = client.post("/api/book/take-in", json=[row["entry"] for row in rows if row["entry"]])
    assert taken.json() == {"written": 2}
    assert sorted(one["uid"] for one in client.get("/api/book").json()) == sorted(one["uid"] for one in made)
    other = client.post("/api/book/coming", json={"text": "a,b\n1,2\n"})
    assert other.status_code == 422 and other.json()["where"] == "columns"


def test_slips_that_happened_come_before_those_that_could(client: TestClient, routine: dict[str, Any]) -> None:
    for _ in range(2):
        entry(client, routine, slip="line 5: one card more")
    entry(client, routine, slip="the lamp fell")
    told = client.get(f"/api/book/slips/{routine['id']}").json()
    assert told[:2] == [{"what": "line 5: one card more", "times": 2}, {"what": "the lamp fell", "times": 1}]
    could = [one["what"] for one in told[2:]]
    assert len(could) > 10 and len(set(could)) == len(could) and "line 5: one card more" not in could
    assert all(one["times"] == 0 for one in told[2:]) and "line 5: one card fewer" in could
