"""Programmes in the store: what is to be shown at an occasion, under revisions as routines are."""

from __future__ import annotations

import json
from collections.abc import Iterable, Mapping
from dataclasses import asdict, dataclass
from typing import Any

from ..core.faults import PivotError
from ..core.programme.occasion import Occasion, occasion_of
from .database import Database
from .shelf import Unknown, utc_now


@dataclass(frozen=True)
class Programme:
    uid: str
    occasion: Occasion
    revision: int
    """counts saves, from 1"""
    changed_at: str


class StaleProgramme(PivotError, RuntimeError):
    """It was saved in another window since."""


def programme_of(row: Mapping[str, Any]) -> Programme:
    return Programme(row["uid"], occasion_of(json.loads(row["occasion"])), row["revision"], row["changed_at"])


COLUMNS = "uid, occasion, revision, changed_at"


class Programmes:
    def __init__(self, database: Database) -> None:
        self._db = database

    def all(self) -> list[Programme]:
        """In the order in which they came."""
        return [programme_of(dict(row)) for row in self._db.rows(f"SELECT {COLUMNS} FROM programme ORDER BY id")]

    def programme(self, uid: str) -> Programme:
        row = self._db.row(f"SELECT {COLUMNS} FROM programme WHERE uid = ?", uid)
        if row is None:
            raise Unknown(f"there is no programme {uid[:40]}")
        return programme_of(dict(row))

    def add(self, uid: str, occasion: Occasion) -> Programme:
        with self._db.transaction() as c:
            c.execute(
                "INSERT INTO programme (uid, occasion, changed_at) VALUES (?, ?, ?)",
                (uid, json.dumps(asdict(occasion)), utc_now()),
            )
            return self.programme(uid)

    def save(self, uid: str, occasion: Occasion, revision: int) -> Programme:
        """Raises StaleProgramme where it is no longer at that revision."""
        with self._db.transaction() as c:
            if self.programme(uid).revision != revision:
                raise StaleProgramme(f"it is at revision {self.programme(uid).revision}")
            c.execute(
                "UPDATE programme SET occasion = ?, revision = revision + 1, changed_at = ? WHERE uid = ?",
                (json.dumps(asdict(occasion)), utc_now(), uid),
            )
            return self.programme(uid)

    def strike(self, uid: str) -> Programme:
        """Takes it away; what it was is told, so that it can be put back."""
        with self._db.transaction() as c:
            gone = self.programme(uid)
            c.execute("DELETE FROM programme WHERE uid = ?", (uid,))
            return gone

    def take_in(self, coming: Iterable[Programme]) -> int:
        """Those that are not here yet; how many. What is here stays as it is."""
        into = f"INSERT INTO programme ({COLUMNS}) VALUES (?, ?, ?, ?) ON CONFLICT (uid) DO NOTHING"
        with self._db.transaction() as c:
            return sum(
                c.execute(into, (one.uid, json.dumps(asdict(one.occasion)), one.revision, one.changed_at)).rowcount
                for one in coming
            )
