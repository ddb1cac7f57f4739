"""The book in the store: performances, each with the text that was played."""

from __future__ import annotations

import json
import secrets
import sqlite3
from collections.abc import Iterable, Mapping
from dataclasses import asdict, fields
from typing import Any

from ..core.book.performance import Performance
from .database import Database
from .shelf import Unknown

_NAMES = tuple(field.name for field in fields(Performance))
COLUMNS = ", ".join(_NAMES)
_MARKS = ", ".join("?" * len(_NAMES))


def new_uid() -> str:
    return secrets.token_hex(8)


def performance_of(row: sqlite3.Row | Mapping[str, Any]) -> Performance:
    return Performance(**{**row, "chosen": json.loads(row["chosen"])})


def _values(entry: Performance) -> list[object]:
    known = asdict(entry)
    return [json.dumps(known[name]) if name == "chosen" else known[name] for name in _NAMES]


class Book:
    def __init__(self, database: Database) -> None:
        self._db = database

    def performances(self, routine: str | None = None) -> list[Performance]:
        """The last first; of one routine, by its uid, or all."""
        where, values = ("", []) if routine is None else (" WHERE routine = ?", [routine])
        rows = self._db.rows(f"SELECT {COLUMNS} FROM performance{where} ORDER BY played_on DESC, id DESC", *values)
        return [performance_of(row) for row in rows]

    def performance(self, uid: str) -> Performance:
        row = self._db.row(f"SELECT {COLUMNS} FROM performance WHERE uid = ?", uid)
        if row is None:
            raise Unknown(f"there is no entry {uid[:40]} in the book")
        return performance_of(row)

    def write(self, entry: Performance) -> Performance:
        """A new entry, or a change of the one with its uid."""
        with self._db.transaction() as c:
            changes = ", ".join(f"{name} = excluded.{name}" for name in _NAMES if name != "uid")
            c.execute(
                f"INSERT INTO performance ({COLUMNS}) VALUES ({_MARKS}) ON CONFLICT (uid) DO UPDATE SET {changes}",
                _values(entry),
            )
            return self.performance(entry.uid)

    def strike(self, uid: str) -> Performance:
        """Takes an entry out; what it was is told, so that it can be written again."""
        with self._db.transaction() as c:
            gone = self.performance(uid)
            c.execute("DELETE FROM performance WHERE uid = ?", (uid,))
            return gone

    def take_in(self, coming: Iterable[Performance]) -> int:
        """Those that are not here yet; how many. What is here stays as it is."""
        into = f"INSERT INTO performance ({COLUMNS}) VALUES ({_MARKS}) ON CONFLICT (uid) DO NOTHING"
        with self._db.transaction() as c:
            return sum(c.execute(into, _values(one)).rowcount for one in coming)
