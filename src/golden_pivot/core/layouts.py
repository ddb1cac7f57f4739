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

    @property
    def is_heap(self) -> bool:
        return self.across == 0

    @property
    def may_wrap(self) -> bool:
        """Whether it may go on in a further row where there is no room."""
        return self.across is None

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
        return f"{ordinal(position)} card from the {self.ends[0]}"

    def at(self, position: int, place: str) -> str:
        """Where a card lies, as a verdict says it: `3rd in row`, `2nd of the 3rd row of grid`."""
        if self.rows > 1:
            return f"{self.spoken(position).replace(' card', '')} of {place}"
        return f"{ordinal(position)} in {place}"

    def counted(self, position: str) -> str:
        """A position that is a formula, with where it is counted from: `n + 1 from the top`."""
        return f"{position} {'counted row by row' if self.is_fixed else f'from the {self.ends[0]}'}"


HEAP = Layout("in a heap", ("top", "bottom"), 0)
ROW = Layout("in a row", ("left", "right"), None)


def grid(rows: int, across: int) -> Layout:
    """So many rows of so many cards each."""
    return Layout(
        f"in {rows} {'row' if rows == 1 else 'rows'} of {across}", ("top", "bottom"), across, rows, is_fixed=True
    )
