"""Rows as a spreadsheet reads them, with no cell that it would take for a formula."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Sequence

_FORMULA = ("=", "+", "-", "@", "\t", "\r")


def csv_text(rows: Iterable[Sequence[str | int | float]]) -> str:
    """A cell of text that a spreadsheet would take for a formula begins with an apostrophe."""
    text = io.StringIO()
    csv.writer(text).writerows([guarded(cell) if isinstance(cell, str) else cell for cell in row] for row in rows)
    return text.getvalue()


def guarded(cell: str) -> str:
    """One apostrophe more, also where there are some already, so that `unguarded` takes the right one away.

    >>> guarded("=1+1"), guarded("12 cards"), guarded("'=1+1")
    ("'=1+1", '12 cards', "''=1+1")
    """
    return f"'{cell}" if cell.lstrip("'").startswith(_FORMULA) else cell


def unguarded(cell: str) -> str:
    """The text as it was before `guarded`.

    >>> unguarded(guarded("=1+1")), unguarded("'tis"), unguarded(guarded("'=1+1"))
    ('=1+1', "'tis", "'=1+1")
    """
    return cell[1:] if cell.startswith("'") and cell.lstrip("'").startswith(_FORMULA) else cell
