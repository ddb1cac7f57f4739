"""Programmes and practice in the store: they travel with the archive, are salvaged, and outlive a kill."""

from __future__ import annotations

import io
import json
import subprocess
import sys
import zipfile
from dataclasses import replace
from pathlib import Path

import pytest

from golden_pivot.core.practice.kept import Answer, BeatDone, DeskDrill, Rehearsed
from golden_pivot.core.programme.occasion import Occasion, Wish
from golden_pivot.core.to_learn import DrillQuestion
from golden_pivot.store import (
    Database,
    NotAnArchive,
    Practice,
    Programme,
    Programmes,
    Shelf,
    StaleProgramme,
    archive_of,
    packed,
    read_archive,
    salvaged,
    take_in,
)
from golden_pivot.store.archive import MINE
from golden_pivot.store.shelf import Unknown
from tests.store.test_trouble import spoil

OCCASION = Occasion(
    "Supper ♠",
    "2026-12-05",
    "20:30",
    minutes=30,
    routines=("a1", "b2"),
    wishes=(Wish("opener", "a1"),),
    kept=("over time",),
)
ANSWER = Answer("1f", "a1", "sums", "10 digit sum of n n is 31", "2026-11-28T09:00:00.000+00:00", False, 4.2)
HELD = Rehearsed(
    "2f",
    "a1",
    "2026-11-28T09:00:00.000+00:00",
    "memory",
    "awkward",
    (BeatDone(6, 7.0), BeatDone(10, 2.0, "n", True, "4")),
)


LEARNED = DeskDrill(
    "6f",
    "spell",
    "Names",
    '{"names": "Ann, Bob"}',
    (DrillQuestion("spell Ann", "Ann", "What?", "“ann”", ("“ann”", "x"), "3 letters"),),
    "2026-11-28T09:00:00.000+00:00",
)


def filled(path: Path | str = ":memory:") -> Database:
    database = Database(path)
    Shelf(database).add("Title: Digits")
    Programmes(database).add("3f", OCCASION)
    Practice(database).take_in([ANSWER, replace(ANSWER, uid="4f", right=True)], [HELD])
    Practice(database).keep([LEARNED])
    return database


def rooms(database: Database) -> object:
    return (
        Programmes(database).all(),
        Practice(database).answers(),
        Practice(database).rehearsals(),
        Practice(database).desk_drills(),
    )


def test_what_is_written_is_read_each_once() -> None:
    database = filled()
    programmes, practice = Programmes(database), Practice(database)
    (kept,) = programmes.all()
    assert (kept.occasion, kept.revision) == (OCCASION, 1)
    assert programmes.save("3f", replace(OCCASION, packs=3), 1).revision == 2
    with pytest.raises(StaleProgramme):
        programmes.save("3f", OCCASION, 1)
    assert programmes.take_in([kept]) == 0 and programmes.programme("3f").occasion.packs == 3
    assert practice.answered([ANSWER, replace(ANSWER, uid="5f")]) == 1 and len(practice.answers("a1")) == 3
    assert practice.answers("other") == []
    longer = replace(HELD, done=(*HELD.done, BeatDone(11, 1.0)), finished=False)
    practice.rehearse(longer)
    assert practice.rehearsals() == [longer]


def test_what_is_learned_from_a_desk_is_dropped_and_put_back_with_its_answers() -> None:
    practice = Practice(filled())
    practice.answered([replace(ANSWER, uid="7f", routine=LEARNED.uid)])
    assert practice.keep([LEARNED]) == 0 and practice.desk_drills() == [LEARNED]
    gone = practice.drop(LEARNED.uid)
    assert practice.desk_drills() == [] and len(practice.answers(LEARNED.uid)) == 1
    with pytest.raises(Unknown):
        practice.drop(LEARNED.uid)
    assert practice.keep([gone]) == 1 and practice.desk_drill(LEARNED.uid) == LEARNED


def test_they_travel_with_the_shelf(tmp_path: Path) -> None:
    database = filled()
    first = packed(archive_of(Shelf(database)))
    wiped = Database(tmp_path / "new.sqlite3")
    take_in(wiped, read_archive(first), lambda _: MINE)
    assert rooms(wiped) == rooms(database)
    take_in(wiped, read_archive(first), lambda _: MINE)
    assert rooms(wiped) == rooms(database)
    one = read_archive(packed(archive_of(Shelf(database), {1})))
    assert (one.programmes, one.answers, one.rehearsals) == ((), (), ())


SPOILED = [
    ("programmes", {"uid": "../x"}), ("programmes", {"occasion": 3}), ("programmes", {"occasion": {"title": "x", "packs": 0}}),
    ("programmes", {"revision": "x"}), ("answers", {"answered_at": "soon"}), ("answers", {"seconds": "x"}), ("answers", {"uid": 3.5}),
    ("desk_drills", {"asks": "[1]"}), ("desk_drills", {"asks": "x"}), ("desk_drills", {"uid": "../x"}), ("desk_drills", {"questions": [{}]}), ("desk_drills", {"questions": 3}),
    ("rehearsals", {"done": 3}), ("rehearsals", {"done": [{"line": 3}]}),
]  # fmt: skip


@pytest.mark.parametrize(("room", "change"), SPOILED, ids=str)
def test_a_spoiled_room_in_an_archive_is_refused_whole(room: str, change: dict[str, object]) -> None:
    with zipfile.ZipFile(io.BytesIO(packed(archive_of(Shelf(filled()))))) as whole:
        files = {name: whole.read(name) for name in whole.namelist()}
    manifest = json.loads(files["manifest.json"])
    manifest[room][0] |= change
    spoiled = io.BytesIO()
    with zipfile.ZipFile(spoiled, "w") as archive:
        for name, content in {**files, "manifest.json": json.dumps(manifest).encode()}.items():
            archive.writestr(name, content)
    with pytest.raises(NotAnArchive):
        read_archive(spoiled.getvalue())


def test_they_are_salvaged_as_far_as_they_can_be_read(tmp_path: Path) -> None:
    path = tmp_path / "shelf.sqlite3"
    database = filled(path)
    before = Programmes(database).all()
    Practice(database).answered(replace(ANSWER, uid=f"{number:x}a", question="x" * 300) for number in range(400))
    database.close()
    found = salvaged(path)
    assert (
        list(found.programmes) == before
        and found.rehearsals == (HELD,)
        and found.desk_drills == (LEARNED,)
        and len(found.answers) == 402
    )
    assert found.answers[0] == ANSWER
    spoil(path)
    found = salvaged(path)
    assert all(isinstance(one, Programme) for one in found.programmes) and all(
        one.routine == "a1" for one in found.answers
    )


WORK = """
import sys
from pathlib import Path
from tests.store.test_rooms import ANSWER, HELD, OCCASION, filled, replace
from golden_pivot.core.practice.kept import BeatDone
from golden_pivot.store import Practice, Programmes
database = filled(Path(sys.argv[1]))
practice, programmes = Practice(database), Programmes(database)
for turn in range(10_000):
    practice.answered([replace(ANSWER, uid=f"{turn:x}b")])
    practice.rehearse(replace(HELD, done=tuple(BeatDone(line, 1.0) for line in range(turn))))
    programmes.save("3f", replace(OCCASION, people=turn + 1), turn + 1)
    print(turn, flush=True)
"""


def test_every_answer_beat_and_change_that_was_acknowledged_outlives_a_kill(tmp_path: Path) -> None:
    path = tmp_path / "shelf.sqlite3"
    worker = subprocess.Popen([sys.executable, "-c", WORK, str(path)], stdout=subprocess.PIPE, text=True)
    assert worker.stdout
    for _ in range(30):
        worker.stdout.readline()
    worker.kill()
    rows = [row for row in worker.stdout.read().splitlines(keepends=True) if row.endswith("\n")]
    worker.wait()
    last = int(rows[-1]) if rows else 29
    database = Database(path)
    assert last <= len(Practice(database).answers()) - 3 <= last + 1
    assert last <= len(Practice(database).rehearsals()[0].done) <= last + 1
    people = Programmes(database).programme("3f").occasion.people
    assert people is not None and last + 1 <= people <= last + 2
