"""The book as a table of text and back: a row a performance, the same on return."""

from __future__ import annotations

import csv
import io
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from datetime import date

from ..spreadsheet import guarded, unguarded
from .performance import BadEntry, Performance, checked

HEAD = ("day", "routine", "occasion", "audience", "ended", "chosen", "slip", "minutes", "went", "note", "uid", "text")
_NEEDED = ("day", "routine")
MOST_ROWS = 20_000


@dataclass(frozen=True)
class TableRow:
    """A row that was read: an entry, or what is the matter with it."""

    number: int
    """in the file, from 2: the first has the names of the columns"""
    entry: Performance | None
    trouble: str


def table_text(book: Iterable[Performance]) -> str:
    text = io.StringIO()
    writer = csv.writer(text)
    writer.writerow(HEAD)
    for one in book:
        chosen = "; ".join(f"{name}={number}" for name, number in one.chosen.items())
        minutes = "" if one.minutes is None else f"{one.minutes:g}"
        writer.writerow(
            [guarded(str(cell)) for cell in (one.played_on, one.title, one.occasion, one.audience, one.ended, chosen, one.slip, minutes,
             "" if one.went is None else one.went, one.note, one.uid, one.text)]
        )  # fmt: skip
    return text.getvalue()


def read_table(
    text: str, today: date, known: Callable[[str], tuple[str, str] | None], new_uid: Callable[[], str]
) -> list[TableRow]:
    """Every row of a table, with its errors by row. `known`: a title → (uid, text) of the routine on the shelf.

    Raises BadEntry where the table itself is none: other columns, too many rows.
    """
    rows = list(csv.reader(io.StringIO(text.removeprefix("\ufeff")), _dialect(text)))
    head = [cell.strip().lower() for cell in rows[0]] if rows else []
    if missing := [name for name in _NEEDED if name not in head]:
        raise BadEntry("columns", f"There is no column {' and no column '.join(missing)}.", f"The first row names the columns: {', '.join(HEAD[:-2])}.")  # fmt: skip
    if len(rows) > MOST_ROWS:
        raise BadEntry("columns", f"{len(rows):,} rows are too many.", f"Bring at most {MOST_ROWS:,} at a time.")
    return [
        _row(number, dict(zip(head, row, strict=False)), today, known, new_uid)
        for number, row in enumerate(rows[1:], start=2)
        if any(cell.strip() for cell in row)
    ]


def _dialect(text: str) -> type[csv.Dialect]:
    first = text.split("\n", 1)[0]
    dialect = csv.excel
    if first.count(";") > first.count(","):

        class Semicolons(csv.excel):
            delimiter = ";"

        dialect = Semicolons
    return dialect


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


def _chosen(words: str) -> dict[str, int]:
    found = {}
    for part in filter(None, (one.strip() for one in words.replace(",", ";").split(";"))):
        name, equals, number = part.rpartition("=")
        if not equals or not number.strip().isdigit() or not number.strip().isascii():
            raise BadEntry("chosen", f"“{part[:40]}” tells no number.", "Write n=12; m=3.")
        found[name.strip()] = int(number)
    return found


def _number(words: str, field: str) -> float | None:
    try:
        return float(words.replace(",", ".")) if words else None
    except ValueError:
        raise BadEntry(field, f"“{words[:40]}” is no number.", "Write it in figures, or leave it out.") from None


def _whole(words: str, field: str) -> int | None:
    found = _number(words, field)
    if found is not None and found != int(found):
        raise BadEntry(field, f"“{words[:40]}” is no whole number.", "Write 1 to 5, or leave it out.")
    return None if found is None else int(found)
