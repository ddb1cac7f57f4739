"""Back-ups, archives and removed routines over HTTP, and the faces of failure."""

from __future__ import annotations

import json
from collections.abc import Iterator
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from golden_pivot.api.app import create_app
from golden_pivot.core.language import parser
from golden_pivot.store import ShelfFile, open_shelf_file
from tests.store.test_trouble import spoil


@pytest.fixture
def file(tmp_path: Path) -> Iterator[ShelfFile]:
    file = open_shelf_file(tmp_path / "shelf.sqlite3")
    file.database._check_every = 0
    yield file
    file.close()


@pytest.fixture
def kept(file: ShelfFile) -> Iterator[TestClient]:
    with TestClient(create_app(file.database), base_url="http://127.0.0.1") as client:
        yield client


def test_the_shelf_is_backed_up_and_restored(kept: TestClient) -> None:
    one = kept.post("/api/routines", json={"text": "Title: One"}).json()
    made = kept.post("/api/keep/backups").json()
    kept.put(f"/api/routines/{one['id']}", json={"text": "Title: Two", "revision": 1})
    told = kept.get("/api/keep").json()
    assert told["routines"] == 1 and told["trouble"] is None and told["newest_sound"] == made["name"]
    assert kept.post(f"/api/keep/backups/{made['name']}/restore").json() == {"done": True}
    back = kept.get(f"/api/routines/{one['id']}").json()
    assert back["title"] == "One" and back["shelf"] == one["shelf"] and back["uid"] == one["uid"]
    stale = kept.put(f"/api/routines/{one['id']}", json={"text": "Title: Two", "revision": 2})
    assert stale.status_code == 409
    assert kept.post("/api/keep/backups/none/restore").status_code == 404


def test_an_archive_is_looked_at_and_taken_in(kept: TestClient, client: TestClient) -> None:
    for title in ("One", "Two"):
        client.post("/api/routines", json={"text": f"Title: {title}"})
    zipped = client.get("/api/keep/shelf.zip")
    assert (
        zipped.headers["content-type"] == "application/zip" and "shelf.zip" in zipped.headers["content-disposition"]
    )
    kept.post("/api/routines", json={"text": "Title: Mine"})
    as_zip = {"content-type": "application/zip"}
    coming = kept.post("/api/keep/coming/archive", content=zipped.content, headers=as_zip).json()
    assert [(one["title"], one["state"]) for one in coming["routines"]] == [("One", "new"), ("Two", "new")]
    assert len(kept.get("/api/routines").json()) == 1  # only looked at
    taken = kept.post(f"/api/keep/coming/{coming['token']}/take-in", json={"leave": [1]}).json()
    assert taken["new"] == 1
    assert [one["title"] for one in kept.get("/api/routines").json()] == ["Mine", "One"]
    assert kept.post(f"/api/keep/coming/{coming['token']}/take-in", json={}).status_code == 404
    refused = kept.post("/api/keep/coming/archive", content=b"PK no", headers=as_zip)
    assert refused.status_code == 422 and "Nothing was changed" in refused.json()["remedy"]
    assert any("import" in one["why"] for one in kept.get("/api/keep").json()["backups"])


def test_files_are_taken_in_as_they_are(kept: TestClient) -> None:
    odd = "\tTitle:   Spaced \r\nPack: 9 cards\r\n"
    one = kept.post("/api/routines", json={"text": odd}).json()
    document = kept.get(f"/api/routines/{one['id']}/routine.json").json()
    kept.delete(f"/api/routines/{one['id']}")
    files = [
        {"name": "a.json", "text": json.dumps(document)},
        {"name": "b.pivot", "text": "Title: B"},
        {"name": "c.json", "text": "{"},
        {"name": "d.pdf", "text": "%PDF\0"},
    ]
    coming = kept.post("/api/keep/coming", json={"files": files}).json()
    assert [one["name"] for one in coming["routines"]] == ["a.json", "b.pivot"]
    assert [told.split(":")[0] for told in coming["refused"]] == ["c.json", "d.pdf"]
    kept.post(f"/api/keep/coming/{coming['token']}/take-in", json={"default": "both"})
    assert {one["text"] for one in kept.get("/api/routines").json()} == {odd, "Title: B"}


def test_removed_routines_are_listed_brought_back_and_thrown_away_only_on_purpose(kept: TestClient) -> None:
    ids = [kept.post("/api/routines", json={"text": f"Title: {n}"}).json()["id"] for n in range(3)]
    for routine in ids:
        kept.delete(f"/api/routines/{routine}")
    assert [one["title"] for one in kept.get("/api/removed").json()] == ["2", "1", "0"]
    kept.post(f"/api/routines/{ids[1]}/bring-back")
    assert kept.delete("/api/removed").json() == {"number": 2}
    assert kept.get("/api/removed").json() == [] and len(kept.get("/api/routines").json()) == 1
    kept.post(f"/api/keep/backups/{kept.get('/api/keep').json()['backups'][0]['name']}/restore")
    assert len(kept.get("/api/removed").json()) == 2


def test_a_damaged_file_is_told_at_once_and_mended_from_the_page(kept: TestClient, file: ShelfFile) -> None:
    kept.post("/api/routines", json={"text": "Title: One\n" + f"# {'x' * 450}\n" * 60})
    name = kept.post("/api/keep/backups").json()["name"]
    file.database._use().execute("PRAGMA wal_checkpoint(TRUNCATE)")
    assert file.database.path
    spoil(file.database.path, 8192)
    refused = kept.post("/api/routines", json={"text": "Title: Two"})
    assert refused.status_code == 503 and refused.json()["kind"] == "damaged"
    assert "safe" not in json.dumps(refused.json())
    assert kept.get("/api/routines").status_code == 503
    told = kept.get("/api/keep").json()
    assert told["trouble"]["kind"] == "damaged" and told["newest_sound"] == name
    assert kept.get("/api/keep/readable.zip").content[:2] == b"PK"
    assert kept.post(f"/api/keep/backups/{name}/restore").status_code == 200
    assert [one["title"] for one in kept.get("/api/routines").json()] == ["One"]


def test_a_full_disk_is_507_and_a_file_taken_away_is_put_back(kept: TestClient, file: ShelfFile) -> None:
    kept.post("/api/routines", json={"text": "Title: One"})
    (pages,) = file.database._use().execute("PRAGMA page_count").fetchone()
    file.database._use().execute(f"PRAGMA max_page_count = {pages}")
    full = kept.post("/api/routines", json={"text": "x" * 100_000})
    assert full.status_code == 507 and full.json()["kind"] == "full" and "not saved" in full.json()["saved"]
    file.database._use().execute("PRAGMA max_page_count = 1000000")
    assert file.database.path
    file.database.path.unlink()
    gone = kept.post("/api/routines", json={"text": "Title: Two"})
    assert gone.status_code == 503 and gone.json()["kind"] == "gone"
    assert kept.get("/api/keep").json()["trouble"]["kind"] == "gone"
    assert kept.post("/api/keep/put-back").status_code == 200
    assert [one["title"] for one in kept.get("/api/routines").json()] == ["One"]


def test_one_text_that_breaks_the_reader_hides_no_other(kept: TestClient, monkeypatch: pytest.MonkeyPatch) -> None:
    from golden_pivot.api import rows

    real = parser.read_routine

    def broken(text: str) -> object:
        if "boom" in text:
            raise IndexError("boom")
        return real(text)

    monkeypatch.setattr(rows, "read_routine", broken)
    good = kept.post("/api/routines", json={"text": "Title: Good"}).json()
    bad = kept.post("/api/routines", json={"text": "Title: boom"})
    assert bad.status_code == 201 and bad.json()["unread"]
    assert [one["text"] for one in kept.get("/api/routines").json()] == ["Title: Good", "Title: boom"]
    at = f"/api/routines/{bad.json()['id']}"
    conflict = kept.put(at, json={"text": "Title: boom 2", "revision": 7})
    assert conflict.status_code == 409 and conflict.json()["current"]["text"] == "Title: boom"
    assert kept.put(at, json={"text": "Title: mended", "revision": 1}).json()["unread"] is None
    assert good["unread"] is None


def test_a_draft_is_kept_as_a_version(client: TestClient) -> None:
    one = client.post("/api/routines", json={"text": "Title: One"}).json()
    client.post(f"/api/routines/{one['id']}/versions", json={"name": "draft", "text": "Title: Draft"})
    (version,) = client.get(f"/api/routines/{one['id']}/versions").json()
    assert version["text"] == "Title: Draft" and client.get(f"/api/routines/{one['id']}").json()["title"] == "One"
