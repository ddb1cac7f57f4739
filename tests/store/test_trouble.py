"""What is said and done when the shelf's file is full, locked, read-only, damaged, gone, or not ours."""

from __future__ import annotations

import os
import sqlite3
import subprocess
import sys
from collections.abc import Callable
from contextlib import closing
from pathlib import Path

import pytest

from golden_pivot.store import Database, Shelf, ShelfTrouble, Taken, database, open_shelf_file, salvaged
from golden_pivot.store.trouble import DAMAGED, FOREIGN, FULL, GONE, LOCKED, NEWER, READ_ONLY


def spoil(path: Path, begin: int = 4096) -> None:
    """Overwrites a part of the file, as a failing disk would."""
    with path.open("r+b") as file:
        file.seek(begin)
        file.write(b"\xa5" * (path.stat().st_size - begin))


def filled_shelf(path: Path, many: int = 60) -> None:
    db = Database(path)
    for number in range(many):
        Shelf(db).add(f"Title: {number}\nPack: 9 cards\n# {'x' * 400}\n")
    db.close()


def _full(db: Database, path: Path) -> None:
    (pages,) = db._use().execute("PRAGMA page_count").fetchone()
    db._use().execute(f"PRAGMA max_page_count = {pages}")


def _locked(db: Database, path: Path) -> None:
    other = sqlite3.connect(path, isolation_level=None)
    other.execute("BEGIN IMMEDIATE")
    db._use().execute("PRAGMA busy_timeout = 1")
    db.other = other  # type: ignore[attr-defined]  # held as long as the database is


def _read_only(db: Database, path: Path) -> None:
    db._use().execute("PRAGMA query_only = ON")


def _gone(db: Database, path: Path) -> None:
    path.unlink()


def _damaged(db: Database, path: Path) -> None:
    db._use().execute("PRAGMA wal_checkpoint(TRUNCATE)")
    spoil(path)


@pytest.mark.parametrize(
    ("befalls", "kind"),
    [(_full, FULL), (_locked, LOCKED), (_read_only, READ_ONLY), (_gone, GONE), (_damaged, DAMAGED)],
)
def test_a_save_that_fails_says_why_and_changes_nothing(
    tmp_path: Path, befalls: Callable[[Database, Path], None], kind: str
) -> None:
    path = tmp_path / "shelf.sqlite3"
    filled_shelf(path)
    db = Database(path, check_every=0)
    befalls(db, path)
    with pytest.raises(ShelfTrouble) as told:
        Shelf(db).save(1, "Title: lost\n" + "# " + "y" * 9000, 1)
    assert told.value.kind == kind
    assert {"not", "Nothing"} & set(told.value.saved.split())
    assert "safe" not in told.value.remedy and told.value.remedy
    if kind in (FULL, LOCKED, READ_ONLY):
        assert Shelf(db).routine(1).text.startswith("Title: 0")
    if kind == DAMAGED:  # and nothing is ever saved into it again
        with pytest.raises(ShelfTrouble):
            Shelf(db).add("Title: more")


def test_a_damaged_file_is_noticed_at_the_start(tmp_path: Path) -> None:
    path = tmp_path / "shelf.sqlite3"
    filled_shelf(path)
    spoil(path, 8192)
    with pytest.raises(ShelfTrouble) as told:
        Database(path)
    assert told.value.kind == DAMAGED
    held = Database(path, even_damaged=True)
    with pytest.raises(ShelfTrouble):
        Shelf(held).routines()


def test_what_can_be_read_of_a_damaged_file_is_read(tmp_path: Path) -> None:
    path = tmp_path / "shelf.sqlite3"
    filled_shelf(path)
    size = path.stat().st_size
    with path.open("r+b") as file:  # one page in the middle
        file.seek(size // 2 // 4096 * 4096)
        file.write(b"\xff" * 4096)
    found = {one.text for one in salvaged(path).routines}
    assert 30 <= len(found) <= 60
    assert all(text.startswith("Title: ") for text in found)
    (tmp_path / "none.sqlite3").write_bytes(b"nothing of ours" * 500)
    assert salvaged(tmp_path / "none.sqlite3").routines == ()


def test_files_of_others_and_of_later_versions_are_left_alone(tmp_path: Path) -> None:
    other = tmp_path / "other.sqlite3"
    with closing(sqlite3.connect(other)) as connection:
        connection.execute("CREATE TABLE recipe (name TEXT)")
    before = other.read_bytes()
    for read_only in (False, True):
        with pytest.raises(ShelfTrouble) as told:
            Database(other, read_only=read_only)
        assert told.value.kind == FOREIGN
    assert other.read_bytes() == before
    newer = tmp_path / "newer.sqlite3"
    Database(newer).close()
    with closing(sqlite3.connect(newer)) as connection:
        connection.execute("INSERT INTO migration VALUES (999, 'later')")
        connection.commit()
    for read_only in (False, True):
        with pytest.raises(ShelfTrouble) as told:
            Database(newer, read_only=read_only)
        assert told.value.kind == NEWER


def test_a_file_of_an_earlier_version_can_be_read_and_stays_as_it_is(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    path = tmp_path / "shelf.sqlite3"
    all_of_them = database.migrations()
    monkeypatch.setattr(database, "migrations", lambda: all_of_them[:2])
    early = Database(path)
    early._use().execute("INSERT INTO routine (text, created_at, changed_at) VALUES ('Title: old', '', '')")
    early.close()
    monkeypatch.setattr(database, "migrations", lambda: all_of_them)
    before = path.read_bytes()
    assert [one.text for one in Shelf(Database(path, read_only=True)).routines()] == ["Title: old"]
    assert path.read_bytes() == before
    file = open_shelf_file(path)
    assert file.backups and [one.why for one in file.backups.all()] == ["before the shelf was brought up to date"]
    file.close()


def test_a_row_that_is_no_text_hides_no_other(tmp_path: Path) -> None:
    db = Database(tmp_path / "shelf.sqlite3")
    Shelf(db).add("Title: good")
    Shelf(db).add("Title: bad")
    db._use().execute("UPDATE routine SET text = CAST(X'5469746c653a20ff0a' AS TEXT) WHERE id = 2")
    assert [one.text for one in Shelf(db).routines()] == ["Title: good", "Title: \ufffd\n"]


def test_the_file_is_its_owners_alone(tmp_path: Path) -> None:
    before = os.umask(0o022)
    try:
        path = tmp_path / "mine" / "shelf.sqlite3"
        file = open_shelf_file(path)
        Shelf(file.database).add("Title: secret")
        assert file.backups
        file.backups.make("hand")
        for one in [*path.parent.glob("shelf.sqlite3*"), *file.backups.folder.glob("*")]:
            assert one.stat().st_mode & 0o077 == 0, one
        file.close()
    finally:
        os.umask(before)


FIRST_START = """
import sys
from golden_pivot.store import Database, Shelf
Shelf(Database(sys.argv[1])).seed_once("demo shelf", ["Title: one"])
"""


def test_several_first_starts_at_once_make_one_shelf(tmp_path: Path) -> None:
    for trial in range(3):
        path = tmp_path / f"{trial}.sqlite3"
        started = [subprocess.Popen([sys.executable, "-c", FIRST_START, str(path)]) for _ in range(3)]
        assert [process.wait(60) for process in started] == [0, 0, 0]
        assert len(Shelf(Database(path)).routines()) == 1


def test_one_program_writes_a_file_at_a_time(tmp_path: Path) -> None:
    path = tmp_path / "shelf.sqlite3"
    file = open_shelf_file(path)
    assert file.writing
    file.writing.serve_at("http://127.0.0.1:1234")
    with pytest.raises(Taken, match=r"http://127\.0\.0\.1:1234"):
        open_shelf_file(path)
    file.close()
    open_shelf_file(path).close()
