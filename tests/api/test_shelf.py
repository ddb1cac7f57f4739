"""The shelf over HTTP, and what survives."""

from __future__ import annotations

import json
import sqlite3
import time
import urllib.error
import urllib.request
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient

from golden_pivot.store import Database, Findings, Shelf, ShelfTrouble, database
from tests.api.terminal import told
from tests.browser.driving import server
from tests.core.test_prover import EXPLODING


def ask(address: str, method: str, path: str, body: object = None) -> dict:  # type: ignore[type-arg]
    request = urllib.request.Request(
        address + path, None if body is None else json.dumps(body).encode(),
        {"content-type": "application/json"}, method=method,
    )  # fmt: skip
    with urllib.request.urlopen(request, timeout=30) as reply:
        return json.loads(reply.read())


def refusal(address: str, method: str, path: str, body: object = None) -> int:
    """The status of a request that is refused."""
    with pytest.raises(urllib.error.HTTPError) as refused:
        ask(address, method, path, body)
    return refused.value.code


def test_a_stale_save_gets_409_and_changes_nothing(client: TestClient) -> None:
    made = client.post("/api/routines", json={"text": "Title: One\nPack: 9 cards"}).json()
    at = f"/api/routines/{made['id']}"
    first = client.put(at, json={"text": "Title: Two", "revision": made["revision"]})
    stale = client.put(at, json={"text": "Title: Three", "revision": made["revision"]})
    assert first.status_code == 200 and stale.status_code == 409
    assert stale.json()["current"]["title"] == client.get(at).json()["title"] == "Two"


def test_what_was_found_of_a_text_stands_on_its_row_until_the_text_is_another(client: TestClient) -> None:
    text = "Title: One\nPack: 9 cards, any order\nPlace A 2nd\nDeal 1 card from deck\nEnds with: the next card is A\n"
    made = client.post("/api/routines", json={"text": text}).json()
    row = lambda: client.get("/api/routines").json()[0]  # noqa: E731
    assert row()["found"] is None
    found = client.post("/api/find", json={"text": text, "job": "1"}).json()
    assert found == {"verdict": "proved", "says": "Proved: the next card is A, every time"} == row()["found"]
    changed = text.replace("2nd", "3rd")
    client.put(f"/api/routines/{made['id']}", json={"text": changed, "revision": made["revision"]})
    assert row()["found"] is None and row()["title"] == "One"
    half = client.post("/api/find", json={"text": "Title: Two\nPack: 9 crads", "job": "2"}).json()
    assert half["verdict"] is None and half["says"].startswith("Still being written: line 2.")
    client.put(f"/api/routines/{made['id']}", json={"text": text.replace("One", "Three"), "revision": 2})
    assert row()["title"] == "Three"


def test_nothing_found_of_a_text_outlives_it(client: TestClient) -> None:
    made = client.post("/api/routines", json={"text": "Title: One\nPack: 9 cards, any order"}).json()
    client.post("/api/routines", json={"text": "Title: Two\nPack: 9 cards, any order"})
    client.get("/api/routines")
    database = client.app.state.database  # type: ignore[attr-defined]
    kept = lambda: len(database.rows("SELECT 1 FROM finding"))  # noqa: E731
    assert kept() == 2
    client.delete(f"/api/routines/{made['id']}")
    assert client.delete("/api/removed").status_code == 200
    assert kept() == 1


def test_a_shelf_that_cannot_be_written_to_is_shown_all_the_same(
    client: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    client.post("/api/routines", json={"text": "Title: One\nPack: 9 cards, any order"})

    def full(*_: object) -> None:
        raise ShelfTrouble("full", None)

    monkeypatch.setattr("golden_pivot.store.Findings.keep", full)
    assert client.get("/api/routines").json()[0]["title"] == "One"
    assert client.post("/api/find", json={"text": "Title: Two", "job": "1"}).status_code == 200


def test_what_is_removed_can_be_brought_back(client: TestClient) -> None:
    at = f"/api/routines/{client.post('/api/routines', json={'text': 'Title: One'}).json()['id']}"
    assert client.delete(at).status_code == 200
    assert client.get(at).status_code == 404 and client.get("/api/routines").json() == []
    assert client.post(f"{at}/bring-back").json()["title"] == "One"


def test_versions_are_kept_and_restored_with_nothing_lost(client: TestClient) -> None:
    at = f"/api/routines/{client.post('/api/routines', json={'text': 'Title: One'}).json()['id']}"
    client.post(f"{at}/versions", json={"name": "first night", "reason": "the captain asked"})
    assert client.get(f"{at}/versions").json()[0]["reason"] == "the captain asked"
    saved = client.put(at, json={"text": "Title: Two", "revision": 1}).json()
    back = client.post(f"{at}/versions/1/restore", json={"revision": saved["revision"]}).json()
    assert back["title"] == "One"
    kept = {version["name"]: version["text"] for version in client.get(f"{at}/versions").json()}
    assert kept == {"first night": "Title: One", "before going back to first night": "Title: Two"}
    assert client.post(f"{at}/versions/9/restore", json={"revision": 3}).status_code == 404


def test_proving_over_http_gives_the_verdict_or_the_faults(client: TestClient) -> None:
    good = client.post("/api/prove", json={"text": "Pack: 9 cards\nPlace A 2nd\nDeal 1 card from deck", "job": "1"})
    assert good.json()["verdict"]["verdict"] == "fixed" and good.json()["faults"] == []
    bad = client.post("/api/prove", json={"text": "Pack: 9 crads", "job": "2"}).json()
    assert bad["verdict"] is None and bad["faults"][0]["line"] == 1


def test_kill9_no_acknowledged_save_is_lost(tmp_path: Path) -> None:
    routine: Any = None
    for _ in range(3):
        with server(tmp_path / "shelf.sqlite3", demo=False) as (address, process):
            if routine:
                assert ask(address, "GET", f"/api/routines/{routine['id']}")["text"] == "Title: 50"
            routine = ask(address, "POST", "/api/routines", {"text": "Title: 0"})
            for number in range(1, 51):
                body = {"text": f"Title: {number}", "revision": routine["revision"]}
                routine = ask(address, "PUT", f"/api/routines/{routine['id']}", body)
            process.kill()


def test_responsive_while_a_proof_explodes_and_a_cancel_frees_the_worker(tmp_path: Path) -> None:
    with server(tmp_path / "shelf.sqlite3", demo=False) as (address, _), ThreadPoolExecutor() as pool:
        body = {"text": EXPLODING, "job": "exploding", "lane": "interactive"}
        proof = pool.submit(refusal, address, "POST", "/api/prove", body)
        while "states" not in (progress := _progress(address, "exploding")):
            assert not proof.done(), progress
        for _ in range(20):
            ask(address, "GET", "/api/health")
            assert not proof.done()  # answered while the search goes on
        assert ask(address, "POST", "/api/jobs/exploding/cancel")["done"]
        assert proof.result(60) == 410
        small = {"text": "Pack: 9 cards\nPlace A 2nd", "job": "small"}
        assert ask(address, "POST", "/api/prove", small)["verdict"]["verdict"] == "fixed"


def _progress(address: str, job: str) -> str:
    try:
        return str(ask(address, "GET", f"/api/jobs/{job}")["progress"])
    except urllib.error.HTTPError:
        return ""


def test_a_newer_text_supersedes_the_one_being_proved(tmp_path: Path) -> None:
    with server(tmp_path / "shelf.sqlite3", demo=False) as (address, _), ThreadPoolExecutor() as pool:
        old = {"text": EXPLODING, "job": "old"}
        proof = pool.submit(refusal, address, "POST", "/api/prove", old)
        while not _progress(address, "old"):
            time.sleep(0.01)
        new = {"text": "Pack: 9 cards\nPlace A 2nd", "job": "new"}
        assert ask(address, "POST", "/api/prove", new)["verdict"]["verdict"] == "fixed"
        assert proof.result(5) == 409


def test_a_migration_that_fails_leaves_the_shelf_as_it_was(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    path = tmp_path / "shelf.sqlite3"
    Shelf(Database(path)).add("Title: One")
    real = database.migrations()
    bad = [*real, (99, "bad", "CREATE TABLE half (x);\nINSERT INTO nowhere VALUES (1);")]
    monkeypatch.setattr(database, "migrations", lambda: bad)
    with pytest.raises(sqlite3.OperationalError):
        Database(path)
    monkeypatch.setattr(database, "migrations", lambda: [*real, (99, "good", "CREATE TABLE half (x);")])
    assert [routine.text for routine in Shelf(Database(path)).routines()] == ["Title: One"]
    monkeypatch.setattr(database, "migrations", lambda: real)
    with pytest.raises(ShelfTrouble):
        Database(path)


def test_the_demo_shelf_is_put_up_once(tmp_path: Path) -> None:
    data = tmp_path / "shelf.sqlite3"
    with server(data) as (address, _):
        first = ask(address, "GET", "/api/routines")
        ask(address, "DELETE", f"/api/routines/{first[0]['id']}")  # type: ignore[index]
    with server(data) as (address, _):
        assert len(ask(address, "GET", "/api/routines")) == len(first) - 1


def test_what_is_generated_is_up_to_date() -> None:
    from scripts.generate import generated

    for path, content in generated().items():
        assert path.read_text(encoding="utf-8") == content, f"{path.name} is old: run make generated"


@pytest.mark.parametrize(
    ("rows", "code"),
    [
        ("Deal 2 cards from deck\nEnds with: the last card dealt is A", 0),
        ("Deal 2 cards from deck\nEnds with: the next card is A", 1),
        ("Spectator cuts deck and completes the cut", 1),
        ("Daels 2 cards", 2),
    ],
)
def test_exit_codes_of_prove(tmp_path: Path, rows: str, code: int) -> None:
    file = tmp_path / "routine.pivot"
    file.write_text(f"Pack: 30 cards\nPlace A 2nd\n{rows}\n")
    found = told("prove", file, "--json")
    assert found.returncode == code
    answer = json.loads(found.stdout)
    if code == 2:
        assert "line 3, column 1" in found.stderr.decode() and answer["faults"][0]["line"] == 3
    else:
        assert {"verdict", "landing", "claims", "paths", "states_widest", "covers_every_order", "seconds",
                "counterexample", "holds_when", "assumed"} <= set(answer)  # fmt: skip


def test_prove_out_of_budget_exits_3_and_bad_files_2(tmp_path: Path) -> None:
    file = tmp_path / "routine.pivot"
    file.write_text(EXPLODING)
    assert told("prove", file, "--states", "1000").returncode == 3
    file.write_bytes(b"\xff\xfe\x00\x80")
    assert told("prove", file).returncode == 2
    assert told("prove", tmp_path / "none.pivot").returncode == 2
    assert b"harbour_light" in told("prove", "demo:none").stderr


JSON = {"content-type": "application/json"}


def test_how_a_routine_stands_changes_neither_its_text_nor_its_revision(client: TestClient) -> None:
    made = client.post("/api/routines", json={"text": "Title: One\nPack: 9 cards"}).json()
    at = f"/api/routines/{made['id']}/standing"
    assert client.put(at, json={"pinned": True}).json() == {**made, "pinned": True}
    tagged = client.put(at, json={"tags": [" opener ", "Opener"], "put_away": True}).json()
    assert tagged == {**made, "pinned": True, "put_away": True, "tags": ["opener"]}
    assert client.get("/api/routines").json()[0] == {**tagged, "found": None}
    assert client.put("/api/routines/77/standing", json={"pinned": True}).status_code == 404
    assert client.put(at, content=b'{"tags": ["\\ud800"]}', headers=JSON).status_code == 422
    assert client.put(at, json={"tags": []}).json()["tags"] == []


def test_the_ways_of_its_card_are_drawn_once_for_each_text(client: TestClient) -> None:
    text = "Title: One\nPack: 9 cards, any order\nPlace A 2nd\nDeal 1 card from deck\nEnds with: the next card is A\n"
    made = client.post("/api/routines", json={"text": text}).json()
    at = f"/api/glimpses/{made['id']}"
    drawn = client.get(at).json()["picture"]
    assert drawn.startswith("<svg") and "All the ways A can go" in drawn
    findings = Findings(client.app.state.database)  # type: ignore[attr-defined]
    assert findings.one("glimpse", text) == {"picture": drawn}
    findings.keep("glimpse", {text: {"picture": "kept"}})
    assert client.get(at).json() == {"picture": "kept"}
    client.put(f"/api/routines/{made['id']}", json={"text": "Title: One\nPack: 9 crads", "revision": 1})
    assert client.get(at).json() == {"picture": None}
    assert client.get("/api/glimpses/77").status_code == 404
