"""How routines stand on the shelf: pinned to its top, put away, under tags. Their texts know nothing of it."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Iterable
from dataclasses import asdict, dataclass, replace
from typing import Any

from .database import Database

MOST_TAGS, LONGEST_TAG = 20, 40


@dataclass(frozen=True)
class Standing:
    pinned: bool = False
    put_away: bool = False
    tags: tuple[str, ...] = ()
    """in the order in which they were given, none twice"""

    def with_those_of(self, other: Standing) -> Standing:
        """As it stands here, with the tags it has there too."""
        return replace(self, tags=as_tags((*self.tags, *other.tags)))


STANDS_AS_IT_CAME = Standing()


def as_tags(words: Iterable[str]) -> tuple[str, ...]:
    """As they are kept: without spare blanks, none empty, none twice whatever its capitals, and not too many."""
    found: dict[str, str] = {}
    for one in words:
        tag = " ".join(one.split())[:LONGEST_TAG].strip()
        if tag:
            found.setdefault(tag.casefold(), tag)
    return tuple(found.values())[:MOST_TAGS]


def standing_of(told: Any) -> Standing:
    """As an archive or a file tells it. Raises ValueError for what is none."""
    tags = told["tags"]
    if not isinstance(tags, list) or not all(isinstance(tag, str) for tag in tags):
        raise ValueError("tags are words")
    "".join(tags).encode()  # half a letter is no text, and raises
    return Standing(bool(told["pinned"]), bool(told["put_away"]), as_tags(tags))


_COLUMNS = "routine_id, pinned, put_away, tags"


def _kept(row: sqlite3.Row) -> Standing:
    """One that is spoiled must not hide the routines: it stands as it came."""
    try:
        return standing_of({**row, "tags": json.loads(row["tags"])})
    except (ValueError, TypeError):
        return STANDS_AS_IT_CAME


class Standings:
    def __init__(self, database: Database) -> None:
        self._db = database

    def all(self) -> dict[int, Standing]:
        """By the number of the routine; whatever is not among them stands as it came."""
        return {row["routine_id"]: _kept(row) for row in self._db.rows(f"SELECT {_COLUMNS} FROM standing")}

    def of(self, routine_id: int) -> Standing:
        row = self._db.row(f"SELECT {_COLUMNS} FROM standing WHERE routine_id = ?", routine_id)
        return _kept(row) if row else STANDS_AS_IT_CAME

    def put(self, routine_id: int, standing: Standing) -> None:
        """In place of how it stood. The routine is on the shelf."""
        told = asdict(replace(standing, tags=as_tags(standing.tags)))
        with self._db.transaction() as c:
            c.execute(
                f"INSERT OR REPLACE INTO standing ({_COLUMNS}) VALUES (?, ?, ?, ?)",
                (routine_id, told["pinned"], told["put_away"], json.dumps(told["tags"])),
            )
