"""Places as a meaning uses them, and what a deal or a gathering leaves to refer to."""

from __future__ import annotations

import operator
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from ..faults import Impossible
from ..layouts import HEAP, ROW, Layout
from ..search.program import Cells, Reader


@dataclass(frozen=True)
class Place:
    """Where cards lie; which one of several it is may depend on a number (`pile p`)."""

    name: str
    cells: frozenset[int]
    """the cells it can be"""
    reads: frozenset[int]
    """cells of the numbers that decide which"""
    find: Reader
    """the cell it is in this state"""
    of: Callable[[Sequence[Any]], bytes]
    """the cards there"""
    put: Callable[[Cells, bytes], None]
    """these cards lie there from now on"""
    layout: Layout = HEAP


def fixed_place(name: str, cell: int, layout: Layout = HEAP) -> Place:
    def put(cells: Cells, heap: bytes) -> None:
        cells[cell] = heap

    def put_if_there_is_room(cells: Cells, heap: bytes) -> None:
        if len(heap) > (layout.most or 0):
            raise Impossible(f"{name} lies {layout.lies} and has no room for {len(heap)} cards")
        cells[cell] = heap

    return Place(
        name,
        frozenset([cell]),
        frozenset(),
        lambda cells: cell,
        operator.itemgetter(cell),
        put_if_there_is_room if layout.most else put,
        layout,
    )


def reckoned_place(
    name: str, base: str, cell_of: Mapping[int, int], index: Reader, reads: frozenset[int], layout: Layout
) -> Place:
    """The place `base i`, where i is the value of `index`; raises Impossible where there is none."""

    def find(cells: Sequence[Any]) -> int:
        number = index(cells)
        if number not in cell_of:
            raise Impossible(f"there is no {base} {number}")
        return cell_of[number]

    def put(cells: Cells, heap: bytes) -> None:
        cells[find(cells)] = heap

    return Place(name, frozenset(cell_of.values()), reads, find, lambda cells: cells[find(cells)], put, layout)


def one_of(places: Sequence[Place], reads: frozenset[int], which: Reader) -> Place:
    """The place among these at the index that `which` gives."""

    def put(cells: Cells, heap: bytes) -> None:
        places[which(cells)].put(cells, heap)

    return Place(
        "the one whose turn it is",
        frozenset().union(*(place.cells for place in places)),
        reads,
        lambda cells: places[which(cells)].find(cells),
        lambda cells: places[which(cells)].of(cells),
        put,
        ROW if all(place.layout == ROW for place in places) else HEAP,
    )


@dataclass(frozen=True)
class Deal:
    """The count that *dealt cards*, *next card* and *last card dealt* refer to."""

    source: Place
    to: Place
    counted: tuple[int, ...]
    """cells that keep how many cards it took, where nothing is forgotten: one for each case that may have dealt"""
    last_at_end: bool
    """the last card counted is the bottom one (or the rightmost) of `to`, not the top one"""
    from_bottom: bool = False
    """the next card is the bottom one of `source`"""

    def or_also(self, other: Deal) -> Deal | None:
        """The count behind two cases that both dealt from one place to another; None where these are others."""
        if self.from_bottom != other.from_bottom:
            return None
        if (self.source, self.to, self.last_at_end) != (other.source, other.to, other.last_at_end):
            same = (self.source.cells, self.to.cells) == (other.source.cells, other.to.cells)
            if (
                not same
                or len(self.source.cells) != 1
                or len(self.to.cells) != 1
                or self.last_at_end != other.last_at_end
            ):
                return None
        return replace(self, counted=tuple(dict.fromkeys((*self.counted, *other.counted))))

    def taken(self, cells: Sequence[Any]) -> int:
        """How many cards it took, by the case that was gone."""
        return next((int(cells[cell]) for cell in self.counted if cells[cell] is not None), 0)

    def last(self, heap: bytes, back: int = 1) -> int:
        """Index of the `back`-th card counted from the last one, which is the 1st."""
        return len(heap) - back if self.last_at_end else back - 1


@dataclass(frozen=True)
class Gathering:
    """Piles that were put together and have not been disturbed since."""

    to: Place
    sizes: int
    """cell that has the number of cards of each, top first"""
