"""The shelf: the questions the rest of the program asks of the store, one function each."""

from __future__ import annotations

import json
import secrets
import sqlite3
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

from ..core.faults import PivotError
from .database import Database
from .findings import Findings
from .standing import STANDS_AS_IT_CAME, Standing, Standings


class Unknown(PivotError, LookupError):
    """There is no such routine or version."""


class StaleRevision(PivotError, RuntimeError):
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
    uid: str
    """the same on every shelf it comes to, and given to no other routine"""
    removed_at: str | None = None


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


def utc_now() -> str:
    return datetime.now(UTC).isoformat(timespec="milliseconds")


_COLUMNS = "id, text, revision, created_at, changed_at, uid, removed_at"
LARGEST_ID = 2**63 - 1


@dataclass(frozen=True)
class Archived:
    """A routine with all that belongs to it."""

    uid: str | None
    """None for a text that comes by itself"""
    text: str
    name: str = ""
    """the file it came in"""
    revision: int = 1
    created_at: str | None = None
    changed_at: str | None = None
    removed_at: str | None = None
    versions: tuple[Version, ...] = ()
    standing: Standing = STANDS_AS_IT_CAME


class Shelf:
    def __init__(self, database: Database) -> None:
        self._db = self.database = database

    @property
    def uid(self) -> str:
        """Which shelf this is: the same after a restart and in every copy, another for every other shelf."""
        row = self._db.row("SELECT uid FROM identity")
        assert row
        return str(row["uid"])

    # Routines

    def routines(self) -> list[Routine]:
        """All that are not removed, in the order in which they came."""
        rows = self._db.rows(f"SELECT {_COLUMNS} FROM routine WHERE removed_at IS NULL ORDER BY id")
        return [Routine(**row) for row in rows]

    def removed(self) -> list[Routine]:
        """What was taken off the shelf and not thrown away, the last first."""
        rows = self._db.rows(
            f"SELECT {_COLUMNS} FROM routine WHERE removed_at IS NOT NULL ORDER BY removed_at DESC, id"
        )
        return [Routine(**row) for row in rows]

    def all_routines(self) -> list[Routine]:
        """The removed ones too, in the order in which they came."""
        return [Routine(**row) for row in self._db.rows(f"SELECT {_COLUMNS} FROM routine ORDER BY id")]

    def routine(self, routine_id: int) -> Routine:
        row = None
        if 0 < routine_id <= LARGEST_ID:
            row = self._db.row(f"SELECT {_COLUMNS} FROM routine WHERE id = ? AND removed_at IS NULL", routine_id)
        if row is None:
            raise Unknown(f"there is no routine {routine_id} on the shelf")
        return Routine(**row)

    def add(self, text: str, uid: str | None = None) -> Routine:
        now = utc_now()
        with self._db.transaction() as c:
            added = c.execute(
                "INSERT INTO routine (text, created_at, changed_at, uid) VALUES (?, ?, ?, ?)",
                (text, now, now, uid or secrets.token_hex(8)),
            )
            return self.routine(_new_id(added))

    def save(self, routine_id: int, text: str, revision: int) -> Routine:
        """Replaces the text if `revision` is the one the shelf has; else raises StaleRevision and changes nothing."""
        with self._db.transaction() as c:
            current = self.routine(routine_id)
            if current.revision != revision:
                raise StaleRevision(current)
            c.execute(
                "UPDATE routine SET text = ?, revision = revision + 1, changed_at = ? WHERE id = ?",
                (text, utc_now(), routine_id),
            )
            return self.routine(routine_id)

    def remove(self, routine_id: int) -> None:
        """Takes it off the shelf; `bring_back` undoes that."""
        with self._db.transaction() as c:
            self.routine(routine_id)
            c.execute("UPDATE routine SET removed_at = ? WHERE id = ?", (utc_now(), routine_id))

    def bring_back(self, routine_id: int) -> Routine:
        with self._db.transaction() as c:
            if 0 < routine_id <= LARGEST_ID:
                c.execute("UPDATE routine SET removed_at = NULL WHERE id = ?", (routine_id,))
            return self.routine(routine_id)

    def throw_away_removed(self) -> int:
        """For good, with their versions; how many there were. Whoever asks keeps a back-up first."""
        with self._db.transaction() as c:
            thrown = c.execute("DELETE FROM routine WHERE removed_at IS NOT NULL").rowcount
            Findings(self._db).keep_only(routine.text for routine in self.routines())
            return thrown

    # Versions

    def versions(self, routine_id: int) -> list[Version]:
        """Newest first."""
        self.routine(routine_id)
        return self.versions_of(routine_id)

    def versions_of(self, routine_id: int) -> list[Version]:
        """Newest first; of a removed routine too."""
        rows = self._db.rows(
            "SELECT number, name, text, created_at, reason FROM version WHERE routine_id = ? ORDER BY number DESC",
            routine_id,
        )
        return [Version(**row) for row in rows]

    def keep_version(self, routine_id: int, name: str, reason: str = "", text: str | None = None) -> Version:
        """Keeps the text as it now stands under a name, or another text that belongs to the routine."""
        with self._db.transaction() as c:
            now = self.routine(routine_id).text
            text = now if text is None else text
            number = 1 + max((version.number for version in self.versions(routine_id)), default=0)
            version = Version(number, name, text, utc_now(), reason)
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

    # What comes from another shelf

    def add_whole(self, coming: Archived, uid: str | None) -> int:
        """A routine with its dates, its versions and whether it was removed; under a new uid without `uid`."""
        now = utc_now()
        with self._db.transaction() as c:
            added = c.execute(
                "INSERT INTO routine (text, revision, created_at, changed_at, removed_at, uid) VALUES (?, ?, ?, ?, ?, ?)",
                (
                    coming.text,
                    coming.revision,
                    coming.created_at or now,
                    coming.changed_at or now,
                    coming.removed_at,
                    uid or secrets.token_hex(8),
                ),
            )
            self._add_versions(_new_id(added), coming.versions, 0)
            if coming.standing != STANDS_AS_IT_CAME:
                Standings(self._db).put(_new_id(added), coming.standing)
            return _new_id(added)

    def take_theirs(self, mine: Routine, coming: Archived) -> None:
        """The text that comes takes the place of mine, which is kept as a version; versions and tags that are missing come too."""
        with self._db.transaction() as c:
            c.execute("UPDATE routine SET removed_at = NULL WHERE id = ?", (mine.id,))
            before = self.versions_of(mine.id)
            known = {(version.name, version.text) for version in before}
            missing = [version for version in coming.versions if (version.name, version.text) not in known]
            self._add_versions(mine.id, missing, max((version.number for version in before), default=0))
            if coming.text != mine.text:
                self.keep_version(mine.id, "before an import")
                self.save(mine.id, coming.text, mine.revision)
            standings = Standings(self._db)
            stood = standings.of(mine.id)
            if (stands := stood.with_those_of(coming.standing)) != stood:
                standings.put(mine.id, stands)
            c.execute("UPDATE routine SET removed_at = ? WHERE id = ?", (coming.removed_at, mine.id))

    def _add_versions(self, routine_id: int, versions: Sequence[Version], after: int) -> None:
        with self._db.transaction() as c:
            for nth, one in enumerate(versions, start=1):
                number = after + nth if after else one.number
                c.execute(
                    "INSERT INTO version (routine_id, number, name, text, created_at, reason) VALUES (?, ?, ?, ?, ?, ?)",
                    (routine_id, number, one.name, one.text, one.created_at, one.reason),
                )

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
