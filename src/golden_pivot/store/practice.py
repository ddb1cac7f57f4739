"""Practice in the store: every answer of a drill, and every rehearsal. When a question is due follows from its answers."""

from __future__ import annotations

import json
from collections.abc import Iterable, Mapping
from dataclasses import asdict, fields
from typing import Any

from ..core.practice.kept import Answer, BeatDone, Rehearsed
from .database import Database

ANSWER = ", ".join('"right"' if field.name == "right" else field.name for field in fields(Answer))
_MARKS = ", ".join("?" * len(fields(Answer)))
REHEARSAL = "uid, routine, held_at, told"


def answer_of(row: Mapping[str, Any]) -> Answer:
    return Answer(**{field.name: row[field.name] for field in fields(Answer)} | {"right": bool(row["right"])})


def rehearsed_of(row: Mapping[str, Any]) -> Rehearsed:
    """Raises TypeError, ValueError, KeyError for what is none."""
    told = json.loads(row["told"])
    done = tuple(BeatDone(**one) for one in told.pop("done"))
    return Rehearsed(row["uid"], row["routine"], row["held_at"], done=done, **told)


def _told(one: Rehearsed) -> str:
    return json.dumps(
        {"level": one.level, "habit": one.habit, "done": list(map(asdict, one.done)), "finished": one.finished}
    )


class Practice:
    def __init__(self, database: Database) -> None:
        self._db = database

    def answers(self, routine: str | None = None) -> list[Answer]:
        """In the order in which they were given; of one routine, by its uid, or all."""
        where, values = ("", []) if routine is None else (" WHERE routine = ?", [routine])
        rows = self._db.rows(f"SELECT {ANSWER} FROM answer{where} ORDER BY id", *values)
        return [answer_of(dict(row)) for row in rows]

    def answered(self, new: Iterable[Answer]) -> int:
        """Written down, each once; how many are new."""
        into = f"INSERT INTO answer ({ANSWER}) VALUES ({_MARKS}) ON CONFLICT (uid) DO NOTHING"
        with self._db.transaction() as c:
            return sum(
                c.execute(into, [getattr(one, field.name) for field in fields(Answer)]).rowcount for one in new
            )

    def rehearsals(self, routine: str | None = None) -> list[Rehearsed]:
        """The last first."""
        where, values = ("", []) if routine is None else (" WHERE routine = ?", [routine])
        rows = self._db.rows(f"SELECT {REHEARSAL} FROM rehearsal{where} ORDER BY held_at DESC, id DESC", *values)
        return [rehearsed_of(dict(row)) for row in rows]

    def rehearse(self, one: Rehearsed) -> Rehearsed:
        """What was done so far; said again with more of it, it takes the place of what was said before."""
        with self._db.transaction() as c:
            c.execute(
                f"INSERT INTO rehearsal ({REHEARSAL}) VALUES (?, ?, ?, ?) ON CONFLICT (uid) DO UPDATE SET told = excluded.told",
                (one.uid, one.routine, one.held_at, _told(one)),
            )
            return one

    def take_in(self, answers: Iterable[Answer], rehearsals: Iterable[Rehearsed]) -> None:
        """Those that are not here yet; what is here stays as it is."""
        into = f"INSERT INTO rehearsal ({REHEARSAL}) VALUES (?, ?, ?, ?) ON CONFLICT (uid) DO NOTHING"
        with self._db.transaction() as c:
            self.answered(answers)
            for one in rehearsals:
                c.execute(into, (one.uid, one.routine, one.held_at, _told(one)))
