"""A shelf's file opened to be written: the right to it, the database, its back-ups."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

from .backups import MIGRATION, Backups
from .database import Database
from .lock import Writing
from .shelf import Shelf


@dataclass(frozen=True)
class ShelfFile:
    database: Database
    backups: Backups | None
    """None for a shelf that lies in memory only"""
    writing: Writing | None = None

    @property
    def shelf(self) -> Shelf:
        return Shelf(self.database)

    def close(self) -> None:
        self.database.close()
        if self.writing:
            self.writing.release()


def open_shelf_file(path: Path, even_damaged: bool = False) -> ShelfFile:
    """Raises Taken where another program writes it, ShelfTrouble where it cannot be used.

    Before it is brought up to date it is copied.
    """
    writing = Writing(path)
    try:
        database = Database(path, even_damaged=even_damaged, before_migrating=lambda db: Backups(db).make(MIGRATION))
    except BaseException:
        writing.release()
        raise
    return ShelfFile(database, Backups(database), writing)
