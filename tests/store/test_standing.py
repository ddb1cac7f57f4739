"""How routines stand on the shelf: it is kept, travels with them, and what is not well written of it harms nothing else."""

from __future__ import annotations

import io
import json
import zipfile
from dataclasses import replace
from pathlib import Path

import pytest

from golden_pivot.store import (
    Archived,
    Database,
    NotAnArchive,
    Shelf,
    Standing,
    Standings,
    archive_of,
    packed,
    read_archive,
    salvaged,
    take_in,
)
from golden_pivot.store.archive import BOTH, THEIRS

STANDS = Standing(pinned=True, put_away=True, tags=("opener", "für Kinder"))


def filled(path: Path | str = ":memory:") -> Database:
    database = Database(path)
    shelf = Shelf(database)
    shelf.add("Title: Digits")
    Standings(database).put(shelf.add("Title: Bells").id, STANDS)
    return database


def test_tags_are_kept_without_blanks_and_once_whatever_their_capitals() -> None:
    database = filled()
    Standings(database).put(1, Standing(tags=("  two   words ", "Opener", "", "opener", "x" * 99)))
    assert Standings(database).of(1) == Standing(tags=("two words", "Opener", "x" * 40))
    assert Standings(database).all()[2] == STANDS and Standings(database).of(3) == Standing()
    Standings(database).put(1, Standing(tags=tuple(map(str, range(50)))))
    assert len(Standings(database).of(1).tags) == 20


def test_it_travels_with_the_routine_and_goes_with_it(tmp_path: Path) -> None:
    database = filled()
    sent = packed(archive_of(Shelf(database)))
    new = Database(tmp_path / "new.sqlite3")
    take_in(new, read_archive(sent), lambda _: BOTH)
    assert [Standings(new).of(one.id) for one in Shelf(new).routines()] == [Standing(), STANDS]
    assert packed(archive_of(Shelf(new))) == sent
    Shelf(new).remove(2)
    Shelf(new).bring_back(2)
    assert Standings(new).of(2) == STANDS
    Shelf(new).remove(2)
    Shelf(new).throw_away_removed()
    assert Standings(new).all() == {}


def test_who_takes_their_text_has_their_tags_beside_his_own() -> None:
    database = filled()
    shelf = Shelf(database)
    mine = shelf.routine(2)
    coming = Archived(mine.uid, "Title: Bells and more", standing=Standing(tags=("Opener", "long")))
    take_in(database, replace(archive_of(shelf), routines=(coming,)), lambda _: THEIRS)
    assert Standings(database).of(2) == replace(STANDS, tags=("opener", "für Kinder", "long"))


@pytest.mark.parametrize(
    "spoiled",
    [
        3,
        {},
        {"pinned": True, "put_away": False, "tags": "x"},
        {"pinned": 1, "put_away": 0, "tags": [3]},
        {"pinned": 1, "put_away": 0, "tags": ["\ud800"]},
    ],
)
def test_a_standing_that_is_none_is_refused_and_none_is_no_fault(spoiled: object) -> None:
    with zipfile.ZipFile(io.BytesIO(packed(archive_of(Shelf(filled()))))) as whole:
        files = {name: whole.read(name) for name in whole.namelist()}
    manifest = json.loads(files["manifest.json"])

    def read(standing: object) -> Standing:
        manifest["routines"][0] = {**manifest["routines"][0], "standing": standing}
        if standing is None:
            del manifest["routines"][0]["standing"]
        sent = io.BytesIO()
        with zipfile.ZipFile(sent, "w") as archive:
            for name, content in {**files, "manifest.json": json.dumps(manifest).encode()}.items():
                archive.writestr(name, content)
        return read_archive(sent.getvalue()).routines[0].standing

    assert read(None) == Standing()
    with pytest.raises(NotAnArchive):
        read(spoiled)


def test_it_is_salvaged_where_it_can_be_read(tmp_path: Path) -> None:
    path = tmp_path / "shelf.sqlite3"
    database = filled(path)
    with database.transaction() as c:
        c.execute("INSERT INTO standing VALUES (1, 1, 0, 'no list')")
    assert Standings(database).of(1) == Standing(), "one that is spoiled hides no other"
    database.close()
    assert [(one.text, one.standing) for one in salvaged(path).routines] == [
        ("Title: Digits", Standing()),
        ("Title: Bells", STANDS),
    ]
