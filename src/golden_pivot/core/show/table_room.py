"""Whether it fits on the table: the widest layout in millimetres, and what to do where it does not fit."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from math import ceil, floor

from ..search.replay import Play
from .off_table import OFF_THE_TABLE

SIZES = {"poker": (63, 88), "bridge": (57, 88)}
"""millimetres, width and height of a card; the trade's sizes in round figures, common practice, no published source"""
GAP = 12
"""millimetres between heaps, and between rows"""

Heap = tuple[str, int, bool]
"""(its name, how many cards, whether they lie side by side)"""


@dataclass(frozen=True)
class Layout:
    """How one lays things out. Millimetres; `overlap` is how much of a card its neighbour in a row covers, 0 to 0.9."""

    size: str = "poker"
    overlap: float = 0.0
    table: float = 600.0
    """width of the table"""
    depth: float = 400.0
    """of the part of it that is free in front of you"""
    rows: int = 1
    """in so many rows at most: heaps go on in the next one, and a row of cards becomes a snake"""


@dataclass(frozen=True)
class Piece:
    """A heap, or a row of cards or a part of it, as it lies: millimetres from the left and the top of the layout."""

    name: str
    cards: int
    is_row: bool
    left: float
    width: float
    top: float = 0.0


@dataclass(frozen=True)
class Room:
    line: int
    """at which it is widest; 0: at the beginning"""
    width: float
    height: float
    """of the whole layout"""
    card_width: float
    card_height: float
    pieces: tuple[Piece, ...]
    fits: bool
    remedy: str | None
    """what makes it fit, in a sentence"""


def widest(played: Play, how: Layout | None = None) -> Room:
    """The layout that takes most room on this path."""
    how = how or Layout()
    width, height = SIZES[how.size]
    best: tuple[float, int, list[Heap]] = (-1.0, 0, [])
    for frame in played.frames:
        heaps = [
            (cell.name, len(heap), cell.is_row)
            for cell, heap in zip(played.program.cells, frame.state, strict=False)
            if cell.is_place and heap and cell.name not in OFF_THE_TABLE
        ]
        if (whole := _extent(_laid(heaps, width, how.overlap))) > best[0]:
            best = (whole, frame.line, heaps)
    _, line, heaps = best
    pieces = _in_rows(heaps, width, height, how.overlap, how.rows)
    across = _extent(pieces)
    down = max((piece.top + height for piece in pieces), default=0.0)
    fits = across <= how.table and down <= how.depth
    remedy = None if fits else _remedy(heaps, width, height, how)
    return Room(line, round(across, 1), round(down, 1), width, height, tuple(pieces), fits, remedy)


def _extent(pieces: Sequence[Piece]) -> float:
    return max((piece.left + piece.width for piece in pieces), default=0.0)


def _laid(heaps: Sequence[Heap], width: float, overlap: float) -> list[Piece]:
    """All side by side."""
    left, pieces = 0.0, []
    for name, cards, is_row in heaps:
        wide = row_width(cards, width, overlap) if is_row else width
        pieces.append(Piece(name, cards, is_row, round(left, 1), round(wide, 1)))
        left += wide + GAP
    return pieces


def _in_rows(heaps: Sequence[Heap], width: float, height: float, overlap: float, rows: int) -> list[Piece]:
    """As narrow as it can be in so many rows, to the millimetre."""
    pieces = _laid(heaps, width, overlap)
    if rows == 1 or not pieces:
        return pieces
    low, high = int(width), ceil(_extent(pieces))
    while low < high:
        middle = (low + high) // 2
        if _rows_of(list(_wrapped(heaps, width, height, overlap, middle))) <= rows:
            high = middle
        else:
            low = middle + 1
    return list(_wrapped(heaps, width, height, overlap, high))


def _rows_of(pieces: Sequence[Piece]) -> int:
    return len({piece.top for piece in pieces})


def _wrapped(heaps: Sequence[Heap], width: float, height: float, overlap: float, most: float) -> Iterator[Piece]:
    """One after the other, a new row begun where the next does not fit into `most` millimetres."""
    left = top = 0.0
    step = width * (1 - overlap)
    for name, cards, is_row in heaps:
        rest = cards
        while rest:
            # However narrow: one card at least.
            fit = 1 + floor((most - left - width) / step + 1e-9) if most - left >= width else 0
            if fit < 1 and left:
                left, top = 0.0, top + height + GAP
                continue
            now = min(rest, max(1, fit)) if is_row else rest
            wide = row_width(now, width, overlap) if is_row else width
            yield Piece(name, now, is_row, round(left, 1), round(wide, 1), top)
            left += wide + GAP
            rest -= now


def row_width(cards: int, width: float, overlap: float) -> float:
    """
    >>> row_width(10, 63, 0), row_width(10, 63, 0.5)
    (630, 346.5)
    """
    return width + (cards - 1) * width * (1 - overlap)


def _remedy(heaps: Sequence[Heap], width: float, height: float, how: Layout) -> str:
    """The overlap that makes it fit in these rows, or the number of rows that does, or what else there is."""
    found = []
    if any(is_row for _, _, is_row in heaps):
        for percent in range(ceil(100 * how.overlap), 86):
            if _fits(_in_rows(heaps, width, height, percent / 100, how.rows), height, how):
                found.append(f"overlap the cards by {percent} %")
                break
    for rows in range(2, 7):
        if rows != how.rows and _fits(_in_rows(heaps, width, height, how.overlap, rows), height, how):
            snake = any(is_row for _, _, is_row in heaps)
            found.append(f"lay {'the row as a snake' if snake else f'the {len(heaps)} heaps'} in {rows} rows")
            break
    if not found:
        return "Use a larger table, or fewer heaps at a time."
    said = ", or ".join(found)
    return f"{said[:1].upper()}{said[1:]}."


def _fits(pieces: Sequence[Piece], height: float, how: Layout) -> bool:
    return _extent(pieces) <= how.table and max(piece.top for piece in pieces) + height <= how.depth
