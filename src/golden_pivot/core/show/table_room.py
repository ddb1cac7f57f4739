"""Whether it fits on the table: what takes most room, in millimetres, and what to do where it does not fit."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import ceil, floor

from ..layouts import Layout
from ..search.replay import Play
from .off_table import OFF_THE_TABLE

SIZES = {"poker": (63, 88), "bridge": (57, 88)}
"""millimetres, width and height of a card; the trade's sizes in round figures, common practice, no published source"""
GAP = 12
"""millimetres between heaps, and between rows"""

Size = tuple[int, int]
"""width and height of a card"""
Laid = tuple[str, int, Layout]
"""(name of a place, how many cards, how they lie)"""


@dataclass(frozen=True)
class Surface:
    """What one lays things out on, and how close. Millimetres; `overlap` is how much of a card the next beside it covers, 0 to 0.9."""

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
    """The cards of a place, or a part of a row of them, as they lie: millimetres from the left and the top of all that lies there."""

    name: str
    cards: int
    spots: tuple[tuple[float, float], ...]
    """upper left corner of each card that can be seen, from that of the piece"""
    left: float
    width: float
    height: float
    top: float = 0.0


@dataclass(frozen=True)
class Room:
    line: int
    """at which it is widest; 0: at the beginning"""
    width: float
    height: float
    """of all that lies there"""
    card_width: float
    card_height: float
    pieces: tuple[Piece, ...]
    fits: bool
    remedy: str | None
    """what makes it fit, in a sentence"""


def widest(played: Play, how: Surface | None = None) -> Room:
    """What lies there when it takes most room on this path: a moment at which it does not fit before any at which it does."""
    how = how or Surface()
    size = SIZES[how.size]
    best: tuple[tuple[bool, float], int, list[Laid]] = ((False, -1.0), 0, [])
    for frame in played.frames:
        heaps = [
            (cell.name, len(heap), cell.layout)
            for cell, heap in zip(played.program.cells, frame.state, strict=False)
            if cell.is_place and heap and cell.name not in OFF_THE_TABLE
        ]
        beside = _side_by_side(heaps, size, how.overlap)
        if (takes := (_depth(beside) > how.depth, _extent(beside))) > best[0]:
            best = (takes, frame.line, heaps)
    _, line, heaps = best
    pieces = _in_rows(heaps, size, how.overlap, how.rows)
    across, down = _extent(pieces), _depth(pieces)
    fits = across <= how.table and down <= how.depth
    remedy = None if fits else _remedy(heaps, size, how)
    return Room(line, round(across, 1), round(down, 1), *size, tuple(pieces), fits, remedy)


def _extent(pieces: Sequence[Piece]) -> float:
    return max((piece.left + piece.width for piece in pieces), default=0.0)


def _depth(pieces: Sequence[Piece]) -> float:
    return max((piece.top + piece.height for piece in pieces), default=0.0)


def _piece(place: Laid, size: Size, overlap: float, left: float = 0.0, top: float = 0.0) -> Piece:
    name, cards, layout = place
    width, height = size
    seen = layout.spots(cards)[: 1 if layout.is_heap else None]
    spots = [(across * width * (1 - overlap), down * (height + GAP)) for across, down in seen]
    return Piece(
        name,
        cards,
        tuple((round(x, 1), round(y, 1)) for x, y in spots),
        round(left, 1),
        round(max(x for x, _ in spots) + width, 1),
        round(max(y for _, y in spots) + height, 1),
        round(top, 1),
    )


def _side_by_side(places: Sequence[Laid], size: Size, overlap: float) -> list[Piece]:
    left, pieces = 0.0, []
    for place in places:
        pieces.append(_piece(place, size, overlap, left))
        left += pieces[-1].width + GAP
    return pieces


def _in_rows(places: Sequence[Laid], size: Size, overlap: float, rows: int) -> list[Piece]:
    """As narrow as it can be in so many rows, to the millimetre."""
    pieces = _side_by_side(places, size, overlap)
    if rows == 1 or not pieces:
        return pieces
    low, high = int(size[0]), ceil(_extent(pieces))
    while low < high:
        middle = (low + high) // 2
        if len({piece.top for piece in _wrapped(places, size, overlap, middle)}) <= rows:
            high = middle
        else:
            low = middle + 1
    return _wrapped(places, size, overlap, high)


def _wrapped(places: Sequence[Laid], size: Size, overlap: float, most: float) -> list[Piece]:
    """One after the other, a new row begun where the next does not fit into `most` millimetres."""
    left = top = deep = 0.0
    pieces: list[Piece] = []
    step = size[0] * (1 - overlap)
    for name, cards, layout in places:
        rest = cards
        while rest:
            # However narrow: one card at least.
            room = most - left
            whole = _piece((name, rest, layout), size, overlap, left, top)
            fit = 1 + floor((room - size[0]) / step + 1e-9) if room >= size[0] else 0
            fits = fit >= 1 if layout.may_wrap else whole.width <= room
            if not fits and left:
                left, top, deep = 0.0, top + deep + GAP, 0.0
                continue
            now = min(rest, max(1, fit)) if layout.may_wrap else rest
            pieces.append(_piece((name, now, layout), size, overlap, left, top))
            left += pieces[-1].width + GAP
            deep = max(deep, pieces[-1].height)
            rest -= now
    return pieces


def row_width(cards: int, width: float, overlap: float) -> float:
    """
    >>> row_width(10, 63, 0), row_width(10, 63, 0.5)
    (630, 346.5)
    """
    return width + (cards - 1) * width * (1 - overlap)


def _remedy(places: Sequence[Laid], size: Size, how: Surface) -> str:
    """The overlap that makes it fit in these rows, or the number of rows that does, or what else there is."""
    found = []
    if not all(layout.is_heap for _, _, layout in places):
        for percent in range(ceil(100 * how.overlap), 86):
            if _fits(_in_rows(places, size, percent / 100, how.rows), how):
                found.append(f"overlap the cards by {percent} %")
                break
    for rows in range(2, 7):
        if rows != how.rows and _fits(_in_rows(places, size, how.overlap, rows), how):
            snake = any(layout.may_wrap for _, _, layout in places)
            found.append(f"lay {'the row as a snake' if snake else f'the {len(places)} heaps'} in {rows} rows")
            break
    if not found:
        return "Use a larger table, or fewer heaps at a time."
    said = ", or ".join(found)
    return f"{said[:1].upper()}{said[1:]}."


def _fits(pieces: Sequence[Piece], how: Surface) -> bool:
    return _extent(pieces) <= how.table and _depth(pieces) <= how.depth
