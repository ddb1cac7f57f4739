"""What can still be read from a damaged file: row by row, leaving out those that cannot."""

from __future__ import annotations

import json
import secrets
import sqlite3
from collections.abc import Callable, Iterator
from contextlib import closing, suppress
from datetime import date
from pathlib import Path
from typing import Any, TypeVar

from ..core.book.performance import BadEntry, Performance, checked
from ..core.practice.kept import Answer, DeskDrill, Rehearsed
from .archive import Archive
from .book import COLUMNS, performance_of
from .practice import ANSWER, DESK_DRILL, REHEARSAL, answer_of, desk_drill_of, rehearsed_of
from .programmes import COLUMNS as PROGRAMME
from .programmes import Programme, programme_of
from .shelf import Archived, Version
from .standing import STANDS_AS_IT_CAME, Standing, standing_of

T = TypeVar("T")

FURTHEST = 100_000
"""ids are tried one by one up to the largest that can be found, and no further than this"""


def salvaged(path: Path) -> Archive:
    """Every routine whose row can be read, with the versions that can, and the book. Never raises for what is damaged."""
    routines: list[Archived] = []
    book: list[Performance] = []
    programmes: list[Programme] = []
    answers: list[Answer] = []
    rehearsals: list[Rehearsed] = []
    drills: list[DeskDrill] = []
    with suppress(sqlite3.Error), closing(sqlite3.connect(f"file:{path}?mode=ro", uri=True)) as connection:
        connection.text_factory = lambda data: data.decode("utf-8", "replace")
        versions: dict[int, list[Version]] = {}
        for routine_id, number, name, text, created_at, reason in _rows(
            connection, "version", "routine_id, number, name, text, created_at, reason"
        ):
            versions.setdefault(routine_id, []).append(Version(number, name, text, created_at, reason))
        stands: dict[int, Standing] = {}
        for routine_id, pinned, put_away, tags in _rows(connection, "standing", "routine_id, pinned, put_away, tags"):
            with suppress(ValueError, TypeError):
                told = {"pinned": pinned, "put_away": put_away, "tags": json.loads(tags)}
                stands[routine_id] = standing_of(told)
        for routine_id, text, revision, created_at, changed_at, removed_at in _rows(
            connection, "routine", "id, text, revision, created_at, changed_at, removed_at"
        ):
            kept = {one.number: one for one in versions.get(routine_id, []) if isinstance(one.number, int)}
            if isinstance(text, str):
                routines.append(
                    Archived(
                        secrets.token_hex(8), text, "", revision, created_at, changed_at, removed_at,
                        tuple(kept[number] for number in sorted(kept)), stands.get(routine_id, STANDS_AS_IT_CAME),
                    )
                )  # fmt: skip
        book = _whole(connection, "performance", COLUMNS, lambda row: checked(performance_of(row), date.max))
        programmes = _whole(connection, "programme", PROGRAMME, programme_of)
        answers = _whole(connection, "answer", ANSWER, lambda row: answer_of({**row, "right": row['"right"']}))
        rehearsals = _whole(connection, "rehearsal", REHEARSAL, rehearsed_of)
        drills = _whole(connection, "desk_drill", DESK_DRILL, desk_drill_of)
    return Archive(
        tuple(routines), book=tuple(book), programmes=tuple(programmes), answers=tuple(answers), rehearsals=tuple(rehearsals),
        desk_drills=tuple(drills),
    )  # fmt: skip


def _whole(connection: sqlite3.Connection, table: str, columns: str, read: Callable[[dict[str, Any]], T]) -> list[T]:
    """Of the rows of a table those that can still be read as a whole."""
    found = []
    for row in _rows(connection, table, columns):
        with suppress(BadEntry, ValueError, TypeError, AttributeError, KeyError):
            found.append(read(dict(zip(columns.split(", "), row, strict=True))))
    return found


def _rows(connection: sqlite3.Connection, table: str, columns: str) -> Iterator[tuple[Any, ...]]:
    """From the beginning as far as it goes, from the end as far as it goes, and one by one in between."""
    found: dict[int, tuple[Any, ...]] = {}
    for order in ("ASC", "DESC"):
        with suppress(sqlite3.Error):
            for rowid, *values in connection.execute(f"SELECT rowid, {columns} FROM {table} ORDER BY rowid {order}"):
                if rowid in found:
                    break
                found[rowid] = tuple(values)
    for rowid in range(1, min(max(found, default=0), FURTHEST) + 1):
        if rowid not in found:
            with suppress(sqlite3.Error):
                for values in connection.execute(f"SELECT {columns} FROM {table} WHERE rowid = ?", (rowid,)):
                    found[rowid] = tuple(values)
    return iter([found[rowid] for rowid in sorted(found)])
