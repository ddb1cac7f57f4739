"""Whether it fits on the table: the widest layout in millimetres, and what to do where it does not fit."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from math import ceil

from ..replay import Play

SIZES = {"poker": (63, 88), "bridge": (57, 88)}
"""millimetres, width and height of a card; the trade's sizes in round figures, common practice, no published source"""
GAP = 12
"""millimetres between heaps"""


@dataclass(frozen=True)
class Piece:
    """A heap or a row as it lies, in millimetres from the left of the layout."""

    name: str
    cards: int
    is_row: bool
    left: float
    width: float


@dataclass(frozen=True)
class Room:
    line: int
    """at which it is widest; 0: at the beginning"""
    width: float
    height: float
    pieces: tuple[Piece, ...]
    fits: bool
    remedy: str | None
    """what makes it fit, in a sentence"""


def widest(played: Play, size: str = "poker", overlap: float = 0.0, table: float = 600.0) -> Room:
    """The widest layout on this path; `overlap` is how much of a card its neighbour in a row covers, 0 to 0.9."""
    width, height = SIZES[size]
    program = played.program
    best: tuple[float, int, tuple[Piece, ...]] = (-1.0, 0, ())
    for frame in played.frames:
        heaps = [
            (cell.name, len(heap), cell.is_row)
            for cell, heap in zip(program.cells, frame.state, strict=False)
            if cell.is_place and heap and cell.name not in ("pocket", "hand", "box")
        ]
        pieces = tuple(_laid(heaps, width, overlap))
        whole = pieces[-1].left + pieces[-1].width if pieces else 0.0
        if whole > best[0]:
            best = (whole, frame.line, pieces)
    whole, line, pieces = best
    fits = whole <= table
    return Room(
        line, round(whole, 1), height, pieces, fits, None if fits else _remedy(pieces, width, overlap, whole, table)
    )


def _laid(heaps: list[tuple[str, int, bool]], width: float, overlap: float) -> Iterator[Piece]:
    left = 0.0
    for name, cards, is_row in heaps:
        wide = row_width(cards, width, overlap) if is_row else width
        yield Piece(name, cards, is_row, round(left, 1), round(wide, 1))
        left += wide + GAP


def row_width(cards: int, width: float, overlap: float) -> float:
    """
    >>> row_width(10, 63, 0), row_width(10, 63, 0.5)
    (630.0, 346.5)
    """
    return width + (cards - 1) * width * (1 - overlap)


def _remedy(pieces: tuple[Piece, ...], width: float, overlap: float, whole: float, table: float) -> str:
    row = max((piece for piece in pieces if piece.is_row), key=lambda piece: piece.width, default=None)
    if row is None:
        many = max(1, int((table + GAP) // (width + GAP)))
        return f"Lay the {len(pieces)} heaps in {ceil(len(pieces) / many)} rows of at most {many}."
    free = table - (whole - row.width)
    needed = 1 - (free - width) / (width * (row.cards - 1)) if row.cards > 1 else 1.0
    rows = ceil(row.width / free) if free >= width else 0
    snake = f", or lay it as a snake of {rows} rows" if 1 < rows <= 4 else ""
    if needed <= 0.85:
        return f"Overlap the cards of {row.name} by {ceil(100 * needed)} %{snake}."
    return (
        f"Lay {row.name} as a snake of {rows} rows." if rows > 1 else "Use a larger table, or fewer heaps at a time."
    )
