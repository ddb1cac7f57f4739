"""The shelf: the questions the rest of the program asks of the store, one function each."""

from __future__ import annotations

import json
import sqlite3
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

from .database import Database


class Unknown(LookupError):
    """There is no such routine or version."""


class StaleRevision(RuntimeError):
    """Someone has saved the routine since; `current` is what the shelf holds now."""

    def __init__(self, current: Routine) -> None:
        super().__init__(f"routine {current.id} is at revision {current.revision}")
        self.current = current


@dataclass(frozen=True)
class Routine:
    id: int
    text: str
    revision: int
    """counts saves, from 1"""
    created_at: str
    changed_at: str


@dataclass(frozen=True)
class Version:
    """A state of the text that was given a name."""

    number: int
    """within its routine, from 1"""
    name: str
    text: str
    created_at: str
    reason: str = ""
    """why it was made"""


def _now() -> str:
    return datetime.now(UTC).isoformat(timespec="milliseconds")


_COLUMNS = "id, text, revision, created_at, changed_at"


class Shelf:
    def __init__(self, database: Database) -> None:
        self._db = database

    # Routines

    def routines(self) -> list[Routine]:
        """All that are not removed, in the order in which they came."""
        rows = self._db.rows(f"SELECT {_COLUMNS} FROM routine WHERE removed_at IS NULL ORDER BY id")
        return [Routine(**row) for row in rows]

    def routine(self, routine_id: int) -> Routine:
        row = self._db.row(f"SELECT {_COLUMNS} FROM routine WHERE id = ? AND removed_at IS NULL", routine_id)
        if row is None:
            raise Unknown(f"there is no routine {routine_id} on the shelf")
        return Routine(**row)

    def add(self, text: str) -> Routine:
        now = _now()
        with self._db.transaction() as c:
            added = c.execute("INSERT INTO routine (text, created_at, changed_at) VALUES (?, ?, ?)", (text, now, now))
            return self.routine(_new_id(added))

    def save(self, routine_id: int, text: str, revision: int) -> Routine:
        """Replaces the text if `revision` is the one the shelf has; else raises StaleRevision and changes nothing."""
        with self._db.transaction() as c:
            current = self.routine(routine_id)
            if current.revision != revision:
                raise StaleRevision(current)
            c.execute(
                "UPDATE routine SET text = ?, revision = revision + 1, changed_at = ? WHERE id = ?",
                (text, _now(), routine_id),
            )
            return self.routine(routine_id)

    def remove(self, routine_id: int) -> None:
        """Takes it off the shelf; `bring_back` undoes that."""
        with self._db.transaction() as c:
            self.routine(routine_id)
            c.execute("UPDATE routine SET removed_at = ? WHERE id = ?", (_now(), routine_id))

    def bring_back(self, routine_id: int) -> Routine:
        with self._db.transaction() as c:
            c.execute("UPDATE routine SET removed_at = NULL WHERE id = ?", (routine_id,))
            return self.routine(routine_id)

    # Versions

    def versions(self, routine_id: int) -> list[Version]:
        """Newest first."""
        self.routine(routine_id)
        rows = self._db.rows(
            "SELECT number, name, text, created_at, reason FROM version WHERE routine_id = ? ORDER BY number DESC",
            routine_id,
        )
        return [Version(**row) for row in rows]

    def keep_version(self, routine_id: int, name: str, reason: str = "") -> Version:
        """Keeps the text as it now stands under a name."""
        with self._db.transaction() as c:
            text = self.routine(routine_id).text
            number = 1 + max((version.number for version in self.versions(routine_id)), default=0)
            version = Version(number, name, text, _now(), reason)
            c.execute(
                "INSERT INTO version (routine_id, number, name, text, created_at, reason) VALUES (?, ?, ?, ?, ?, ?)",
                (routine_id, version.number, version.name, version.text, version.created_at, version.reason),
            )
            return version

    def restore_version(self, routine_id: int, number: int, revision: int) -> Routine:
        """The routine has the text of that version again; what it had before is kept as a version first."""
        with self._db.transaction():
            found = {version.number: version for version in self.versions(routine_id)}
            if number not in found:
                raise Unknown(f"routine {routine_id} has no version {number}")
            current = self.routine(routine_id)
            if current.text not in {version.text for version in found.values()}:
                self.keep_version(routine_id, f"before going back to {found[number].name}")
            return self.save(routine_id, found[number].text, revision)

    # Settings

    def settings(self) -> dict[str, Any]:
        return {row["name"]: json.loads(row["value"]) for row in self._db.rows("SELECT name, value FROM setting")}

    def change_settings(self, changes: dict[str, Any]) -> dict[str, Any]:
        with self._db.transaction() as c:
            for name, value in changes.items():
                c.execute(
                    "INSERT INTO setting (name, value) VALUES (?, ?)"
                    " ON CONFLICT (name) DO UPDATE SET value = excluded.value",
                    (name, json.dumps(value)),
                )
            return self.settings()

    def seed_once(self, name: str, texts: list[str]) -> bool:
        """Puts these routines on the shelf unless that was done before; says whether it did."""
        with self._db.transaction():
            if f"seeded {name}" in self.settings():
                return False
            for text in texts:
                self.add(text)
            self.change_settings({f"seeded {name}": True})
            return True


def _new_id(cursor: sqlite3.Cursor) -> int:
    assert cursor.lastrowid is not None
    return cursor.lastrowid
