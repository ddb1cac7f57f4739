"""Practice in the store: every answer of a drill, every rehearsal, and what is learned from desks.

When a question is due follows from its answers.
"""

from __future__ import annotations

import json
from collections.abc import Iterable, Mapping
from dataclasses import asdict, fields
from typing import Any

from ..core.practice.kept import Answer, BeatDone, DeskDrill, Rehearsed
from ..core.to_learn import DrillQuestion
from .database import Database
from .shelf import Unknown

ANSWER = ", ".join('"right"' if field.name == "right" else field.name for field in fields(Answer))
_MARKS = ", ".join("?" * len(fields(Answer)))
REHEARSAL = "uid, routine, held_at, told"
DESK_DRILL = ", ".join(field.name for field in fields(DeskDrill))


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


def desk_drill_of(row: Mapping[str, Any]) -> DeskDrill:
    """Raises TypeError, ValueError, KeyError for what is none."""
    told = json.loads(row["questions"]) if isinstance(row["questions"], str) else row["questions"]
    questions = tuple(DrillQuestion(**{**one, "options": tuple(one["options"])}) for one in told)
    if not isinstance(json.loads(row["asks"]), dict) or not all(
        isinstance(words, str)
        for one in questions
        for words in (one.key, one.known, one.asks, one.answer, one.rule, *one.options)
    ):
        raise ValueError("this is nothing that is learned from a desk")
    uid, desk, title, asks, at = (str(row[name]) for name in ("uid", "desk", "title", "asks", "kept_at"))
    return DeskDrill(uid, desk, title, asks, questions, at)


def _columns(one: DeskDrill) -> tuple[str, ...]:
    return one.uid, one.desk, one.title, one.asks, json.dumps(list(map(asdict, one.questions))), one.kept_at


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

    def desk_drills(self) -> list[DeskDrill]:
        """In the order in which they were kept."""
        return [desk_drill_of(dict(row)) for row in self._db.rows(f"SELECT {DESK_DRILL} FROM desk_drill ORDER BY id")]

    def desk_drill(self, uid: str) -> DeskDrill:
        row = self._db.row(f"SELECT {DESK_DRILL} FROM desk_drill WHERE uid = ?", uid)
        if row is None:
            raise Unknown(f"there is no drill {uid[:40]} of a desk")
        return desk_drill_of(dict(row))

    def keep(self, new: Iterable[DeskDrill]) -> int:
        """Each once; how many are new."""
        into = f"INSERT INTO desk_drill ({DESK_DRILL}) VALUES (?, ?, ?, ?, ?, ?) ON CONFLICT (uid) DO NOTHING"
        with self._db.transaction() as c:
            return sum(c.execute(into, _columns(one)).rowcount for one in new)

    def drop(self, uid: str) -> DeskDrill:
        """What it was; its answers stay, for when it is put back."""
        with self._db.transaction() as c:
            gone = self.desk_drill(uid)
            c.execute("DELETE FROM desk_drill WHERE uid = ?", (uid,))
            return gone

    def take_in(self, answers: Iterable[Answer], rehearsals: Iterable[Rehearsed]) -> None:
        """Those that are not here yet; what is here stays as it is."""
        into = f"INSERT INTO rehearsal ({REHEARSAL}) VALUES (?, ?, ?, ?) ON CONFLICT (uid) DO NOTHING"
        with self._db.transaction() as c:
            self.answered(answers)
            for one in rehearsals:
                c.execute(into, (one.uid, one.routine, one.held_at, _told(one)))
