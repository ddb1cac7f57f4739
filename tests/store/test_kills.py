"""What was acknowledged survives kill -9, whatever was going on: saves, imports, restores, the file brought up to date.

KILLS=n makes n trials.
"""

from __future__ import annotations

import json
import os
import random
import signal
import sqlite3
import subprocess
import sys
from contextlib import closing
from pathlib import Path

import pytest

from golden_pivot.store import Database, Shelf, database, open_shelf_file

KILLS = int(os.environ.get("KILLS", "6"))

WORK = """
import json, random, sys
from pathlib import Path
from golden_pivot.store import Archive, Archived, open_shelf_file, take_in

pick = random.Random(int(sys.argv[2]))
file = open_shelf_file(Path(sys.argv[1]))
shelf = file.shelf

def state():
    return {str(one.id): one.text for one in shelf.all_routines()}

def say(what, after):
    print(json.dumps([what, after]), flush=True)

say("done", state())
kept = {}
for turn in range(10_000):
    now = state()
    kind = pick.choice(["save", "save", "save", "add", "import", "backup", "restore"])
    if kind == "save" and now:
        one = pick.choice(shelf.routines())
        text = f"Title: {turn}" + "x" * pick.randrange(20_000)
        say("doing", {**now, str(one.id): text})
        shelf.save(one.id, text, one.revision)
        say("done", {**now, str(one.id): text})
    elif kind == "import":
        texts = [f"Title: import {sys.argv[2]} {turn} {n}" for n in range(20)]
        first = max(map(int, now), default=0) + 1
        after = {**now, **{str(first + n): text for n, text in enumerate(texts)}}
        say("doing", after)
        take_in(file.database, Archive(tuple(Archived(None, text) for text in texts)), lambda found: "both")
        say("done", after)
    elif kind == "backup":
        kept[file.backups.make("hand").name] = now
    elif kind == "restore" and kept:
        name, after = pick.choice(sorted(kept.items()))
        say("doing", after)
        file.backups.restore(name)
        say("done", after)
    else:
        text = f"Title: {turn}"
        after = {**now, str(max(map(int, now), default=0) + 1): text}
        say("doing", after)
        shelf.add(text)
        say("done", after)
"""


def _state(path: Path) -> dict[str, str]:
    file = open_shelf_file(path)
    try:
        return {str(one.id): one.text for one in file.shelf.all_routines()}
    finally:
        file.close()


def _difference(one: dict[str, str], other: dict[str, str]) -> dict[str, tuple[str | None, str | None]]:
    """By number, the beginnings of the texts that are not the same."""
    found = {number: (one.get(number), other.get(number)) for number in {*one, *other}}
    return {n: (a and a[:20], b and b[:20]) for n, (a, b) in found.items() if a != b}


def test_what_is_acknowledged_survives_a_kill(tmp_path: Path) -> None:
    for trial in range(KILLS):
        path = tmp_path / f"{trial // 10}" / "shelf.sqlite3"  # what comes in makes every later trial slower
        lines = random.Random(trial).randrange(2, 120)
        worker = subprocess.Popen(
            [sys.executable, "-c", WORK, str(path), str(trial)], stdout=subprocess.PIPE, text=True
        )
        assert worker.stdout
        told = [json.loads(worker.stdout.readline()) for _ in range(lines)]
        worker.send_signal(signal.SIGKILL)
        rest = worker.stdout.read()
        worker.wait()
        told += [json.loads(row) for row in rest.splitlines(keepends=True) if row.endswith("\n")]
        done = next(state for what, state in reversed(told) if what == "done")
        possible = [done] + ([told[-1][1]] if told[-1][0] == "doing" else [])
        now = _state(path)
        assert now in possible, (f"trial {trial}", told[-1][0], *(_difference(now, one) for one in possible))
        for left in (path.parent / "shelf-backups").glob("*"):
            left.unlink()


OPEN = """
import sys
from pathlib import Path
from golden_pivot.store import open_shelf_file
print("now", flush=True)
open_shelf_file(Path(sys.argv[1]))
"""


def test_a_file_is_brought_up_to_date_whole_or_not_at_all(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    early = tmp_path / "early.sqlite3"
    all_of_them = database.migrations()
    monkeypatch.setattr(database, "migrations", lambda: all_of_them[:2])
    shelf = Database(early)
    for number in range(500):
        shelf._use().execute(
            "INSERT INTO routine (text, created_at, changed_at) VALUES (?, '', '')", (f"Title: {number}",)
        )
    shelf.close()
    monkeypatch.setattr(database, "migrations", lambda: all_of_them)
    for trial in range(KILLS):
        path = tmp_path / f"{trial}.sqlite3"
        path.write_bytes(early.read_bytes())
        worker = subprocess.Popen([sys.executable, "-c", OPEN, str(path)], stdout=subprocess.PIPE, text=True)
        assert worker.stdout and worker.stdout.readline() == "now\n"
        try:
            worker.wait(random.Random(trial).random() * 0.03)
        except subprocess.TimeoutExpired:
            worker.kill()
            worker.wait()
        with closing(sqlite3.connect(path)) as connection:
            applied = [number for (number,) in connection.execute("SELECT number FROM migration ORDER BY number")]
        assert applied in ([1, 2], [number for number, _, _ in all_of_them])
        texts = [one.text for one in Shelf(Database(path)).routines()]
        assert texts == [f"Title: {number}" for number in range(500)]
