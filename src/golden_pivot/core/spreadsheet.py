"""Cells that a spreadsheet would take for a formula."""

from __future__ import annotations

_FORMULA = ("=", "+", "-", "@", "\t", "\r")


def guarded(cell: str) -> str:
    """
    >>> guarded("=1+1"), guarded("12 cards")
    ("'=1+1", '12 cards')
    """
    return f"'{cell}" if cell.startswith(_FORMULA) else cell


def unguarded(cell: str) -> str:
    """The text as it was before `guarded`.

    >>> unguarded(guarded("=1+1")), unguarded("’tis")
    ('=1+1', '’tis')
    """
    return cell[1:] if cell.startswith("'") and cell[1:].startswith(_FORMULA) else cell
