"""What can be the matter with the file of a shelf: said by its name, with what was not saved and what to do."""

from __future__ import annotations

import sqlite3
from pathlib import Path

from ..core.faults import PivotError

FULL, READ_ONLY, LOCKED, DISK, DAMAGED, GONE, FOREIGN, NEWER = (
    "full", "read-only", "locked", "disk", "damaged", "gone", "foreign", "newer",
)  # fmt: skip

_KINDS = {
    sqlite3.SQLITE_FULL: FULL,
    sqlite3.SQLITE_READONLY: READ_ONLY,
    sqlite3.SQLITE_PERM: READ_ONLY,
    sqlite3.SQLITE_BUSY: LOCKED,
    sqlite3.SQLITE_LOCKED: LOCKED,
    sqlite3.SQLITE_IOERR: DISK,
    sqlite3.SQLITE_CORRUPT: DAMAGED,
    sqlite3.SQLITE_NOTADB: DAMAGED,
    sqlite3.SQLITE_CANTOPEN: GONE,
}

_SAYS = {
    FULL: (
        "The disk is full.",
        "This change was not saved. What was saved before is safe.",
        "Make room on the disk; the text in the window is then saved by itself.",
    ),
    READ_ONLY: (
        "The shelf’s file may not be written.",
        "This change was not saved. What was saved before is safe.",
        "Give yourself the right to write the file and its folder; the text in the window is then saved by itself.",
    ),
    LOCKED: (
        "Another program holds the shelf’s file.",
        "This change was not saved. What was saved before is safe.",
        "End the other program, or wait; the text in the window is then saved by itself.",
    ),
    DISK: (
        "The disk did not take it.",
        "This change was not saved. Whether the disk still has what was saved before is not sure.",
        "See whether the disk is still there; save a copy elsewhere.",
    ),
    DAMAGED: (
        "The shelf’s file is damaged.",
        "Nothing is saved any more, so that no good back-up is lost over it. The text in the window is only there.",
        "On the page Keep the newest back-up is restored, and what can still be read is saved.",
    ),
    GONE: (
        "The shelf’s file is not where it was.",
        "What is changed now is not saved. The program still holds what was saved before.",
        "On the page Keep the file is put back; or move it back yourself.",
    ),
    FOREIGN: (
        "This file belongs to another program.",
        "Nothing in it was changed.",
        "Name another file with --data.",
    ),
    NEWER: (
        "This shelf was written by a later version of Golden Pivot.",
        "Nothing in it was changed.",
        "Start that version, or name another file with --data.",
    ),
}  # fmt: skip


class ShelfTrouble(PivotError, RuntimeError):
    """`kind` as above; `saved` says what was and what was not saved, `remedy` what to do."""

    def __init__(self, kind: str, path: Path | str | None = None, detail: str = "") -> None:
        message, self.saved, self.remedy = _SAYS[kind]
        self.kind, self.path, self.detail = kind, path, detail
        self.message = f"{message[:-1]} ({detail})." if detail else message
        where = f" {path}" if path else ""
        super().__init__(f"{self.message} {self.saved} {self.remedy}{where and f' The file:{where}'}")


def trouble_of(error: Exception, path: Path | str | None) -> ShelfTrouble | None:
    """What an error of SQLite or of the system means for the shelf; None for a mistake of ours."""
    if isinstance(error, sqlite3.Error):
        code = getattr(error, "sqlite_errorcode", None)
        kind = None if code is None else _KINDS.get(code & 0xFF)
        if kind == GONE and path and Path(path).exists():
            kind = READ_ONLY
        return None if kind is None else ShelfTrouble(kind, path)
    if isinstance(error, FileNotFoundError):
        return ShelfTrouble(GONE, path)
    if isinstance(error, PermissionError):
        return ShelfTrouble(READ_ONLY, path)
    if isinstance(error, OSError):
        return ShelfTrouble(FULL if error.errno == 28 else DISK, path, error.strerror or "")
    return None
