"""The book as a table of text and back: a row a performance, the same on return."""

from __future__ import annotations

import csv
import io
import json
import math
from collections.abc import Callable, Iterable
from dataclasses import dataclass, fields
from datetime import date
from types import NoneType

from ..spreadsheet import csv_text, unguarded
from .performance import BadEntry, Chosen, Performance, checked

HEAD = ("day", "routine", "occasion", "audience", "ended", "chosen", "slip", "minutes", "went", "note", "uid", "text")
_NEEDED = ("day", "routine")
MOST_ROWS = 20_000


@dataclass(frozen=True)
class TableRow:
    """A row that was read: an entry, or what is the matter with it."""

    number: int
    """in a table from 2, as the first row has the names of the columns; of a list from 1"""
    entry: Performance | None
    trouble: str


def table_text(book: Iterable[Performance]) -> str:
    return csv_text([HEAD, *map(_cells, book)])


def _cells(one: Performance) -> tuple[str, ...]:
    chosen = "; ".join(f"{name}={number}" for name, number in one.chosen.items())
    minutes = "" if one.minutes is None else str(one.minutes).removesuffix(".0")
    went = "" if one.went is None else str(one.went)
    return (one.played_on, one.title, one.occasion, one.audience, one.ended, chosen, one.slip, minutes, went, one.note, one.uid, one.text)  # fmt: skip


def read_table(
    text: str, today: date, known: Callable[[str], tuple[str, str] | None], new_uid: Callable[[], str]
) -> list[TableRow]:
    """Every row of a table, with its errors by row. `known`: a title → (uid, text) of the routine on the shelf.

    Raises BadEntry where the table itself is none: other columns, too many rows.
    """
    first = text.split("\n", 1)[0]
    between = ";" if first.count(";") > first.count(",") else ","
    try:
        rows = list(csv.reader(io.StringIO(text.removeprefix("\ufeff"), newline=""), delimiter=between))
    except csv.Error as error:
        raise BadEntry("columns", f"It is no table: {error}.", "Save it as CSV once more.") from error
    head = [cell.strip().lower() for cell in rows[0]] if rows else []
    if missing := [name for name in _NEEDED if name not in head]:
        raise BadEntry("columns", f"There is no column {' and no column '.join(missing)}.", f"The first row names the columns: {', '.join(HEAD[:-2])}.")  # fmt: skip
    if len(rows) > MOST_ROWS:
        raise BadEntry("columns", f"{len(rows):,} rows are too many.", f"Bring at most {MOST_ROWS:,} at a time.")
    found: list[TableRow] = []
    first_with: dict[str, int] = {}
    for number, row in enumerate(rows[1:], start=2):
        if not any(cell.strip() for cell in row):
            continue
        read = _row(number, dict(zip(head, row, strict=False)), today, known, new_uid)
        if read.entry and (before := first_with.setdefault(read.entry.uid, number)) != number:
            read = TableRow(
                number, None, f"Row {before} has the same uid. Leave the column uid empty for another entry."
            )
        found.append(read)
    return found


def _row(
    number: int,
    cells: dict[str, str],
    today: date,
    known: Callable[[str], tuple[str, str] | None],
    new_uid: Callable[[], str],
) -> TableRow:
    def cell(name: str) -> str:
        return unguarded(cells.get(name, "")).strip()

    try:
        title = cell("routine")
        if not title:
            raise BadEntry("routine", "There is no routine.", "Write its title.")
        routine, text = known(title) or ("", "")
        entry = Performance(
            cell("uid") or new_uid(), cell("day"), routine, title, unguarded(cells.get("text", "")) or text, cell("occasion"), cell("audience"),
            cell("ended") or "as planned",  # type: ignore[arg-type]
            _chosen(cell("chosen")), cell("slip"), _number(cell("minutes"), "minutes"), _whole(cell("went"), "went"), cell("note"),
        )  # fmt: skip
        return TableRow(number, checked(entry, today), "")
    except BadEntry as bad:
        return TableRow(number, None, f"{bad.message} {bad.remedy}")


def _chosen(words: str) -> dict[str, Chosen]:
    found: dict[str, Chosen] = {}
    for part in filter(None, (one.strip() for one in words.split(";"))):
        # A comma is also what parts them, unless it belongs to one of them.
        pieces = part.split(",")
        for each in pieces if all("=" in one for one in pieces) else [part]:
            name, equals, choice = (one.strip() for one in each.partition("="))
            if not equals or not choice:
                raise BadEntry("chosen", f"“{each.strip()[:40]}” tells no choice.", "Write n=12; m=3.")
            found[name] = choice
    return found


def _number(words: str, field: str) -> float | None:
    if not words:
        return None
    try:
        found = float(words.replace(",", "."))
    except ValueError:
        found = math.nan
    if not math.isfinite(found):
        raise BadEntry(field, f"“{words[:40]}” is no number.", "Write it in figures, or leave it out.")
    return found


def _whole(words: str, field: str) -> int | None:
    found = _number(words, field)
    if found is not None and found != int(found):
        raise BadEntry(field, f"“{words[:40]}” is no whole number.", "Write 1 to 5, or leave it out.")
    return None if found is None else int(found)


def read_json(text: str, today: date) -> list[TableRow]:
    """The same of a book as JSON: a list of entries, each with the names it has as a Performance. Raises BadEntry."""
    try:
        whole = json.loads(text.removeprefix("\ufeff"))
    except (ValueError, RecursionError) as error:
        raise BadEntry("columns", f"It is no JSON: {error}.", "Export the book once more.") from error
    if not isinstance(whole, list) or len(whole) > MOST_ROWS:
        raise BadEntry("columns", "It is no list of entries.", f"Bring a list of at most {MOST_ROWS:,}.")
    return [_told(number, one, today) for number, one in enumerate(whole, start=1)]


def _told(number: int, one: object, today: date) -> TableRow:
    try:
        if not isinstance(one, dict):
            raise BadEntry("row", "It is no entry.", "An entry has names and values.")
        known = {each.name for each in fields(Performance)}
        if missing := sorted({"uid", "played_on", "title", "routine", "text"} - set(one)):
            raise BadEntry(missing[0], f"It has no {' and no '.join(missing)}.", "Export the book once more.")
        told = {name: value for name, value in one.items() if name in known}
        words = {"uid", "played_on", "routine", "title", "text", "occasion", "audience", "ended", "slip", "note"}
        for name, value in told.items():
            if name in words and not isinstance(value, str):
                raise BadEntry(name, f"{name} is no text.", "Write it in quotation marks.")
        chosen = told.get("chosen", {})
        if not isinstance(chosen, dict) or not all(type(value) in (int, str) for value in chosen.values()):
            raise BadEntry("chosen", "What was chosen is no list of names and choices.", 'Write {"n": 12}.')
        for name, kinds in (("minutes", (int, float, NoneType)), ("went", (int, NoneType))):
            if type(told.get(name)) not in kinds:
                raise BadEntry(name, f"{name} is no number.", "Write it in figures, or leave it out.")
        return TableRow(number, checked(Performance(**told), today), "")
    except BadEntry as bad:
        return TableRow(number, None, f"{bad.message} {bad.remedy}")
