"""Copies of the shelf beside it: made by themselves and on demand, the oldest given up, any of them restored."""

from __future__ import annotations

import re
import sqlite3
from collections.abc import Iterable
from contextlib import closing
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

from .database import Database, is_sound
from .trouble import DAMAGED, ShelfTrouble

START, MIGRATION, HAND, RESTORE, EMPTYING, IMPORT = "start", "migration", "hand", "restore", "emptying", "import"
WHY = {
    START: "by itself at the start",
    MIGRATION: "before the shelf was brought up to date",
    HAND: "on demand",
    RESTORE: "before another back-up was restored",
    EMPTYING: "before removed routines were thrown away",
    IMPORT: "before an import",
}
BY_ITSELF = {START, MIGRATION}
"""only these are given up in turn"""
DAYS, WEEKS = 7, 8
"""of so many days, and of so many weeks, the newest is kept"""
OVERDUE = timedelta(days=1)
_NAME = re.compile(r"(\d{4}-\d\d-\d\dT\d\d-\d\d-\d\d)(?:-(\d+))?-([a-z]+)\.sqlite3")


@dataclass(frozen=True)
class Backup:
    name: str
    made_at: str
    """UTC, ISO 8601"""
    why: str
    bytes: int


def folder_of(path: Path) -> Path:
    return path.with_name(f"{path.stem}-backups")


class Backups:
    def __init__(self, database: Database) -> None:
        """Of a shelf with a file."""
        assert database.path
        self._db, self.path = database, database.path
        self.folder = folder_of(self.path)

    def all(self) -> list[Backup]:
        """Newest first; of several of one second the one with the highest number."""
        found: list[tuple[str, int, Backup]] = []
        for file in self.folder.glob("*.sqlite3") if self.folder.is_dir() else ():
            if named := _NAME.fullmatch(file.name):
                made = datetime.strptime(named[1], "%Y-%m-%dT%H-%M-%S").replace(tzinfo=UTC).isoformat()
                backup = Backup(file.name, made, WHY.get(named[3], named[3]), file.stat().st_size)
                found.append((made, int(named[2] or 1), backup))
        return [one for *_, one in sorted(found, key=lambda one: (one[0], one[1], one[2].name), reverse=True)]

    def _names(self) -> list[str]:
        return [file.name for file in self.folder.glob("*.sqlite3")]

    def make(self, why: str, now: datetime | None = None) -> Backup:
        """A copy of what the shelf has now; it counts only once it was read back sound. Raises ShelfTrouble."""
        now = now or datetime.now(UTC)
        self.folder.mkdir(mode=0o700, parents=True, exist_ok=True)
        stamp = now.strftime("%Y-%m-%dT%H-%M-%S")
        number = 1 + max(
            (int(n[2] or 1) for n in map(_NAME.fullmatch, self._names()) if n and n[1] == stamp), default=0
        )
        file = self.folder / f"{stamp}{f'-{number}' if number > 1 else ''}-{why}.sqlite3"
        self._db.copy_to(file)
        self._give_up_oldest()
        return next(one for one in self.all() if one.name == file.name)

    def make_if_due(self, now: datetime | None = None) -> Backup | None:
        """One a day, by itself."""
        now = now or datetime.now(UTC)
        made = max((datetime.fromisoformat(one.made_at) for one in self.all()), default=None)
        return self.make(START, now) if made is None or now - made > OVERDUE else None

    def _give_up_oldest(self) -> None:
        by_itself = [one for one in self.all() if (named := _NAME.fullmatch(one.name)) and named[3] in BY_ITSELF]
        for one in to_give_up(by_itself):
            (self.folder / one.name).unlink(missing_ok=True)

    def newest_sound(self) -> Backup | None:
        return next((one for one in self.all() if is_sound(self.folder / one.name)), None)

    def restore(self, name: str) -> None:
        """The shelf is again as this copy has it. What it is now is kept first. Raises LookupError and ShelfTrouble.

        Revisions go on above all that were ever given, so that a window with an older text cannot save over it unseen.
        """
        with self._db.alone():  # a save between the copy and the swap would be in neither
            self._restore(name)

    def _restore(self, name: str) -> None:
        if name not in {one.name for one in self.all()}:
            raise LookupError(f"there is no back-up {name}")
        if not is_sound(self.folder / name):
            raise ShelfTrouble(DAMAGED, self.folder / name)
        coming = self.path.with_name(f"{self.path.name}.restoring")
        for left in (coming, *(coming.with_name(coming.name + end) for end in ("-wal", "-shm"))):
            left.unlink(missing_ok=True)
        above, aside = 1000, None
        if self._db.trouble is None:
            above = max((row["revision"] for row in self._db.rows("SELECT revision FROM routine")), default=0)
            self.make(RESTORE)
        else:
            aside = self.path.with_name(f"{self.path.stem}.damaged-{datetime.now(UTC):%Y-%m-%dT%H-%M-%S}.sqlite3")
        with closing(sqlite3.connect(self.folder / name)) as source, closing(sqlite3.connect(coming)) as copy:
            source.backup(copy)
        restored = Database(coming)  # brings an older one up to date
        with restored.transaction() as c:
            c.execute("UPDATE routine SET revision = revision + ?", (above,))
        restored.close()
        self._db.swap(coming, aside)

    def put_back(self) -> None:
        """Writes the file again where it was taken away under the running program."""
        coming = self.path.with_name(f"{self.path.name}.restoring")
        self.path.parent.mkdir(parents=True, exist_ok=True)
        with self._db.alone():
            self._db.copy_to(coming)
            self._db.swap(coming, None)


def to_give_up(copies: Iterable[Backup], days: int = DAYS, weeks: int = WEEKS) -> list[Backup]:
    """Those that are neither the newest of one of the last days nor of one of the last weeks that have any."""
    newest_first = sorted(copies, key=lambda one: one.made_at, reverse=True)
    kept: set[str] = set()
    for period, many in (("%Y-%m-%d", days), ("%G-%V", weeks)):
        seen: dict[str, str] = {}
        for one in newest_first:
            seen.setdefault(datetime.fromisoformat(one.made_at).strftime(period), one.name)
        kept |= set(list(seen.values())[:many])
    return [one for one in newest_first if one.name not in kept]
