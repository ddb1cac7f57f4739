"""The book in the store: entries outlive their routines, travel with the archive, and are salvaged."""

from __future__ import annotations

import json
from dataclasses import replace
from pathlib import Path

import pytest

from golden_pivot.core.book.performance import Performance
from golden_pivot.store import (
    Book,
    Database,
    NotAnArchive,
    Shelf,
    Unknown,
    archive_of,
    packed,
    read_archive,
    salvaged,
    take_in,
)
from golden_pivot.store.archive import MINE
from tests.store.test_trouble import spoil

ENTRY = Performance(
    "1f",
    "2026-11-20",
    "aa",
    "Digits ♠",
    "Title: Digits\r\n",
    "supper",
    "a choir",
    chosen={"n": 12, "m": 3},
    minutes=4.5,
    went=4,
)
OTHER = replace(ENTRY, uid="2f", played_on="2026-11-21", chosen={}, minutes=None, went=None, note="=1+1")


def test_what_is_written_is_read_and_can_be_changed_and_struck_out() -> None:
    book = Book(Database(":memory:"))
    assert book.write(ENTRY) == ENTRY and book.write(OTHER) == OTHER
    assert (
        book.performances() == [OTHER, ENTRY]
        and book.performances("aa") == [OTHER, ENTRY]
        and book.performances("bb") == []
    )
    assert book.write(replace(ENTRY, went=5)).went == 5 and len(book.performances()) == 2
    assert book.strike("2f") == OTHER and [one.uid for one in book.performances()] == ["1f"]
    for ask in (book.performance, book.strike):
        with pytest.raises(Unknown):
            ask("2f")
    assert book.take_in([ENTRY, OTHER]) == 1 and book.performance("1f").went == 5  # what is here stays
    once = replace(ENTRY, uid="3f", note="first")
    assert book.take_in([once, replace(once, note="second")]) == 1 and book.performance("3f").note == "first"


def test_nothing_is_lost_with_a_routine() -> None:
    database = Database(":memory:")
    shelf, book = Shelf(database), Book(database)
    routine = shelf.add("Title: Digits")
    book.write(replace(ENTRY, routine=routine.uid))
    shelf.remove(routine.id)
    shelf.throw_away_removed()
    assert book.performances(routine.uid) == [replace(ENTRY, routine=routine.uid)]


def test_it_travels_with_the_shelf(tmp_path: Path) -> None:
    database = Database(":memory:")
    Shelf(database).add("Title: Digits")
    for one in (ENTRY, OTHER):
        Book(database).write(one)
    first = packed(archive_of(Shelf(database)))
    wiped = Database(tmp_path / "new.sqlite3")
    take_in(wiped, read_archive(first), lambda _: MINE)
    assert Book(wiped).performances() == [OTHER, ENTRY]
    assert packed(archive_of(Shelf(wiped))) == first
    take_in(wiped, read_archive(first), lambda _: MINE)
    assert len(Book(wiped).performances()) == 2
    assert read_archive(packed(archive_of(Shelf(database), {1}))).book == ()


@pytest.mark.parametrize(
    "change", [{"uid": "../x"}, {"played_on": "soon"}, {"chosen": {"n": "x;y"}}, {"chosen": {"n": [1]}}, {"ended": "well"}, {"chosen": 3}, {"minutes": "x"}]
)  # fmt: skip
def test_a_spoiled_book_in_an_archive_is_refused_whole(change: dict[str, object]) -> None:
    import io
    import zipfile

    database = Database(":memory:")
    Book(database).write(ENTRY)
    with zipfile.ZipFile(io.BytesIO(packed(archive_of(Shelf(database))))) as whole:
        manifest = json.loads(whole.read("manifest.json"))
    manifest["book"][0] |= change
    spoiled = io.BytesIO()
    with zipfile.ZipFile(spoiled, "w") as archive:
        archive.writestr("manifest.json", json.dumps(manifest))
    with pytest.raises(NotAnArchive):
        read_archive(spoiled.getvalue())


def test_it_is_salvaged_as_far_as_it_can_be_read(tmp_path: Path) -> None:
    path = tmp_path / "shelf.sqlite3"
    database = Database(path)
    Shelf(database).add("Title: Digits")
    for number in range(400):
        Book(database).write(replace(ENTRY, uid=f"{number:x}", note="x" * 200))
    database.close()
    assert len(salvaged(path).book) == 400
    spoil(path)
    found = salvaged(path).book
    assert all(one.text == ENTRY.text and one.chosen == ENTRY.chosen for one in found)
