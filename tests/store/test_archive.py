"""The shelf as one file: out, and in again to the same; and what comes is looked at first."""

from __future__ import annotations

import io
import json
import zipfile
from collections.abc import Callable
from pathlib import Path

import pytest

from golden_pivot.store import (
    Archive,
    Archived,
    Database,
    NotAnArchive,
    Shelf,
    archive_of,
    packed,
    preview,
    read_archive,
    take_in,
)
from golden_pivot.store.archive import BOTH, MINE, THEIRS


def shelf_with_history() -> tuple[Database, Shelf]:
    db = Database(":memory:")
    shelf = Shelf(db)
    for number in range(4):
        one = shelf.add(f"Title: Routine {number} ♠\nPack: 9 cards\r\n\t# odd\u2028layout {number}")
        shelf.keep_version(one.id, "first night", "the captain asked")
        one = shelf.save(one.id, one.text + "\nTurn deck over", one.revision)
        shelf.keep_version(one.id, "second night")
    shelf.remove(2)
    shelf.remove(3)
    shelf.throw_away_removed()
    shelf.remove(4)
    shelf.change_settings({"scheme": "dark"})
    return db, shelf


def test_export_wipe_import_gives_the_same_bytes_again(tmp_path: Path) -> None:
    _, shelf = shelf_with_history()
    first = packed(archive_of(shelf))
    wiped = Database(tmp_path / "new.sqlite3")
    done = take_in(wiped, read_archive(first), lambda _: MINE).done
    assert done["new"] == 2
    assert packed(archive_of(Shelf(wiped))) == first
    again = take_in(wiped, read_archive(first), lambda _: BOTH).done
    assert again["same"] == 2 and packed(archive_of(Shelf(wiped))) == first


def test_a_selection_comes_without_settings_and_removed_routines() -> None:
    _, shelf = shelf_with_history()
    found = read_archive(packed(archive_of(shelf, {1, 4})))
    assert [one.uid for one in found.routines] == [shelf.routine(1).uid] and found.settings == {}


@pytest.mark.parametrize("what", [BOTH, THEIRS, MINE])
def test_a_routine_that_is_here_in_another_wording(what: str) -> None:
    _, theirs = shelf_with_history()
    coming = read_archive(packed(archive_of(theirs)))
    db = Database(":memory:")
    take_in(db, coming, lambda _: MINE)
    mine = Shelf(db)
    changed = mine.save(1, "Title: mine", mine.routine(1).revision)
    states = [found.state for found in preview(mine, coming.routines)]
    assert states == ["different", "same"]
    take_in(db, coming, lambda _: what)
    texts = [one.text for one in mine.routines()]
    kept = {version.text for version in mine.versions(1)}
    their_text = theirs.routine(1).text
    assert texts == {BOTH: ["Title: mine", their_text], THEIRS: [their_text], MINE: ["Title: mine"]}[what]
    assert what != THEIRS or (changed.text in kept and len(kept) == 3)


def test_texts_that_come_alone_are_known_by_text_and_title() -> None:
    db = Database(":memory:")
    shelf = Shelf(db)
    shelf.add("Title: One\nPack: 9 cards")
    coming = [
        Archived(None, text) for text in ("Title: One\nPack: 9 cards", "Title: one\nPack: 8 cards", "Title: Two")
    ]
    assert [found.state for found in preview(shelf, coming)] == ["same", "different", "new"]
    assert take_in(db, Archive(tuple(coming)), lambda _: BOTH).done == {
        "new": 1,
        "same": 1,
        "both": 1,
        "theirs": 0,
        "mine": 0,
    }


def _zip(entries: dict[str, bytes]) -> bytes:
    packed_up = io.BytesIO()
    with zipfile.ZipFile(packed_up, "w", zipfile.ZIP_DEFLATED) as file:
        for name, data in entries.items():
            file.writestr(name, data)
    return packed_up.getvalue()


def _manifest(**changes: object) -> bytes:
    one = {
        "uid": "ab",
        "file": "routines/a.pivot",
        "revision": 1,
        "created_at": "",
        "changed_at": "",
        "removed_at": None,
        "versions": [],
    }
    return json.dumps({"format": "golden-pivot shelf", "version": 1, "routines": [{**one, **changes}]}).encode()


BAD: dict[str, Callable[[], bytes]] = {
    "no zip": lambda: b"Title: a routine",
    "cut short": lambda: packed(archive_of(shelf_with_history()[1]))[:-40],
    "no manifest": lambda: _zip({"a.txt": b""}),
    "another format": lambda: _zip({"manifest.json": b'{"format": "x", "version": 1, "routines": []}'}),
    "a later format": lambda: _zip({"manifest.json": b'{"format": "golden-pivot shelf", "version": 9, "routines": []}'}),
    "a list": lambda: _zip({"manifest.json": b"[]"}),
    "deeply nested": lambda: _zip({"manifest.json": b"[" * 100_000}),
    "a missing text": lambda: _zip({"manifest.json": _manifest()}),
    "no text": lambda: _zip({"manifest.json": _manifest(), "routines/a.pivot": b"\xff\xfe"}),
    "a foreign path": lambda: _zip({"manifest.json": _manifest(), "routines/a.pivot": b"", "../../evil.pivot": b""}),
    "an absolute path": lambda: _zip({"manifest.json": _manifest(), "routines/a.pivot": b"", "/etc/evil": b""}),
    "a strange uid": lambda: _zip({"manifest.json": _manifest(uid="../x"), "routines/a.pivot": b""}),
    "a large text": lambda: _zip({"manifest.json": _manifest(), "routines/a.pivot": b"x" * 1_000_001}),
    "a bomb": lambda: _zip({f"{n}": b"\0" * 10_000_000 for n in range(21)}),
    "too many": lambda: _zip({f"{n}": b"" for n in range(20_001)}),
}  # fmt: skip


@pytest.mark.parametrize("what", BAD)
def test_what_is_no_archive_of_ours_is_refused(what: str) -> None:
    with pytest.raises(NotAnArchive) as told:
        read_archive(BAD[what]())
    assert str(told.value)
