"""How the cards of a place lie: one on another, side by side, in rows. Whatever depends on it asks here.

Cards of a place have positions from 1, in the order in which their bytes stand: from the top of a heap, from the left of
a row, row by row in a grid. A new layout is a value made here; what draws and measures goes by its spots alone.
"""

from __future__ import annotations

from dataclasses import dataclass

from .english import ordinal


@dataclass(frozen=True)
class Layout:
    lies: str
    """how the cards lie, behind *8 cards*: `in a row`"""
    ends: tuple[str, ...]
    """what positions may be counted from; the first of them is where position 1 is"""
    across: int | None
    """cards side by side: none in a heap (0), any number in a row (None), so many in each row of a grid"""
    rows: int = 1
    is_fixed: bool = False
    """each card keeps its spot: they are taken up together"""
    is_round: bool = False
    """the first card lies next to the last one"""

    @property
    def is_heap(self) -> bool:
        return self.across == 0

    @property
    def may_wrap(self) -> bool:
        """Whether it may go on in a further row where there is no room."""
        return self.across is None and not self.is_round

    @property
    def most(self) -> int | None:
        """How many cards can lie in it."""
        return self.across * self.rows if self.across else None

    def spots(self, cards: int) -> tuple[tuple[int, int], ...]:
        """(cards to the left of it, rows above it) for each of so many cards; every card of a heap at one spot.

        >>> grid(2, 3).spots(4)
        ((0, 0), (1, 0), (2, 0), (0, 1))
        """
        if self.is_heap:
            return ((0, 0),) * cards
        return tuple(self._spot(index, cards) for index in range(cards))

    def _spot(self, index: int, cards: int) -> tuple[int, int]:
        if self.is_round:
            return _around(index, cards)
        across = self.across or max(1, cards)
        return index % across, index // across

    def in_sight(self, heap: bytes) -> bytes:
        """The cards that one sees the upper side of."""
        return heap[:1] if self.is_heap else heap

    def row_of(self, position: int) -> int:
        """From 1, of a position in a grid."""
        return self._spot(position - 1, position)[1] + 1

    def spoken(self, position: int) -> str:
        """Behind *the … of*, as one says it to a spectator: `3rd card from the left`, `top card`, `2nd card of the 3rd row`."""
        if self.across and self.rows > 1:
            left, above = self._spot(position - 1, position)
            return f"{ordinal(left + 1)} card of the {ordinal(above + 1)} row"
        if self.is_heap:
            return "top card" if position == 1 else f"{ordinal(position)} card"
        if self.is_round:
            return f"{ordinal(position)} card in the round"
        return f"{ordinal(position)} card from the {self.ends[0]}"

    def at(self, position: int, place: str) -> str:
        """Where a card lies, as a verdict says it: `3rd in row`, `2nd of the 3rd row of grid`."""
        if self.rows > 1:
            return f"{self.spoken(position).replace(' card', '')} of {place}"
        return f"{ordinal(position)} in {place}"

    def counted(self, position: str) -> str:
        """A position that is a formula, with where it is counted from: `n + 1 from the top`."""
        if self.is_round:
            return f"{position} in the round"
        return f"{position} {'counted row by row' if self.is_fixed else f'from the {self.ends[0]}'}"

    def neighbours(self, position: int, cards: int) -> tuple[int, ...]:
        """Positions beside this one, of so many cards: in the order of positions, in rows above and below as well.

        >>> grid(2, 3).neighbours(2, 6), RING.neighbours(1, 5), ROW.neighbours(1, 5)
        ((1, 3, 5), (2, 5), (2,))
        """
        if self.is_round:
            found = {(position - 2) % cards + 1, position % cards + 1} - {position}
        elif self.rows > 1:
            here = self._spot(position - 1, cards)
            found = {
                other + 1 for other in range(cards)
                if sum(abs(a - b) for a, b in zip(self._spot(other, cards), here, strict=True)) == 1
            }  # fmt: skip
        else:
            found = {position - 1, position + 1} & set(range(1, cards + 1))
        return tuple(sorted(found))


def _around(index: int, cards: int) -> tuple[int, int]:
    """Clockwise around an oblong that is wider than it is high, from its upper left corner."""
    down = 2 if cards < 8 else 3 + (cards - 1) // 24
    across = max(2, (cards + 1) // 2 - down + 2)
    for side, length in enumerate((across - 1, down - 1, across - 1, down - 1)):
        if index < length:
            return ((index, 0), (across - 1, index), (across - 1 - index, down - 1), (0, down - 1 - index))[side]
        index -= length
    raise ValueError("more cards than the oblong has room for")


HEAP = Layout("in a heap", ("top", "bottom"), 0)
ROW = Layout("in a row", ("left", "right"), None)
RING = Layout("in a ring", ("top", "bottom"), None, is_round=True)


def grid(rows: int, across: int) -> Layout:
    """So many rows of so many cards each."""
    return Layout(
        f"in {rows} {'row' if rows == 1 else 'rows'} of {across}", ("top", "bottom"), across, rows, is_fixed=True
    )
