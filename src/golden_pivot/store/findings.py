"""What was found out about texts of the shelf: what stands on their rows, and whether they are proved.

A finding belongs to a text and to the very program that found it; another one takes no notice of it.
"""

from __future__ import annotations

import hashlib
import json
from collections.abc import Iterable, Mapping
from functools import cache
from pathlib import Path
from typing import Any

from .database import Database

_CORE = Path(__file__).parents[1] / "core"


@cache
def program_mark() -> str:
    """The same for the same code of the core, and another for any other."""
    found = hashlib.sha256()
    for path in sorted(_CORE.rglob("*.py")):
        found.update(path.relative_to(_CORE).as_posix().encode() + b"\0" + path.read_bytes() + b"\0")
    return found.hexdigest()


def _mark(text: str) -> str:
    return hashlib.sha256(text.encode("utf-8", "surrogatepass")).hexdigest()


class Findings:
    def __init__(self, database: Database, program: str | None = None) -> None:
        self._db, self._program = database, program or program_mark()

    def of(self, what: str) -> Known:
        """All of one kind, by text: read once and asked many times."""
        rows = self._db.rows(
            "SELECT text_mark, value FROM finding WHERE what = ? AND program = ?", what, self._program
        )
        return Known({str(row["text_mark"]): str(row["value"]) for row in rows})

    def one(self, what: str, text: str) -> Any:
        """What was found of this text; None where nothing was."""
        where = "WHERE text_mark = ? AND what = ? AND program = ?"
        row = self._db.row(f"SELECT value FROM finding {where}", _mark(text), what, self._program)
        return row and json.loads(row["value"])

    def keep(self, what: str, found: Mapping[str, Any]) -> None:
        """Text → what was found of it, as JSON; in place of what was found before."""
        rows = [(_mark(text), what, self._program, json.dumps(value)) for text, value in found.items()]
        if rows:
            with self._db.transaction() as c:
                c.executemany(
                    "INSERT OR REPLACE INTO finding (text_mark, what, program, value) VALUES (?, ?, ?, ?)", rows
                )

    def keep_only(self, texts: Iterable[str]) -> None:
        """Of other texts, and by other programs, nothing is kept any more."""
        wanted = {_mark(text) for text in texts}
        rows = self._db.rows("SELECT text_mark, program FROM finding")
        gone = {row["text_mark"] for row in rows if row["text_mark"] not in wanted or row["program"] != self._program}
        if gone:
            with self._db.transaction() as c:
                c.executemany("DELETE FROM finding WHERE text_mark = ?", [(one,) for one in sorted(gone)])


class Known:
    def __init__(self, by_mark: Mapping[str, str]) -> None:
        self._by_mark = by_mark

    def get(self, text: str) -> Any:
        """What was found of this text; None where nothing was."""
        found = self._by_mark.get(_mark(text))
        return None if found is None else json.loads(found)
