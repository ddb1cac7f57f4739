"""Cards laid in a ring or spread in a row, and going from one card to a neighbour."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from ..cards import FACE_UP
from ..faults import Impossible
from ..language.templates import SPECTATOR
from ..layouts import RING, ROW
from ..search.program import Cells
from .declare import freely, step
from .grids import lays_out

if TYPE_CHECKING:
    from ..building import Builder

MOST_STEPS = 12
"""from a card to a neighbour, in one line"""


@step(
    "{who} lay+s {count:number} {#count} of {from:place} in a ring[ {way=face up|face down}][ to {to:place}]",
    family="Counting",
    example="Lay 12 cards of deck in a ring face down",
    says="Lay {count} {#count} from {from} in a ring[, {way}].",
    singly=True,
    wordings=(
        "(lay|deal|set|lay out|deal out|set out|arrange) [out] {count} cards (in|as) a (circle|clock|ring|clock face) => score=3",
        "(lay|deal|set|arrange) [out] {count} cards in a (circle|ring) like hours of [a] clock [face] => score=4",
        "(make|form) a (circle|clock|ring) of {count} cards => score=2",
    ),
)
def lay_ring(b: Builder) -> None:
    """Cards go one at a time from the top of a heap, clockwise in the round; the first one lies next to the last.

    Without a *to*, they make the place called *ring*. Its positions are counted clockwise from where it begins; *the
    card 3 on from position n of ring* counts on from there, round and round. Cards may be taken out of it and put in, before
    the first.
    """
    source, count = b.source("from"), b.number("count")
    to = b.destination("to", "ring", layout=RING, apart_from=source)
    lays_out(b, source, count, to)


@step(
    "{who} spread+s {from:place} in a row, the top card on the {side=left|right}[, to {to:place}]",
    family="Counting",
    does="the order stays",
    example="Spread deck in a row, the top card on the left",
    says="Spread {from} in a row, so that the top card is on the {side}.",
    wordings=(
        "(spread|ribbon spread) {from} from left to right => side=left; score=2",
        "(spread|ribbon spread) {from} from right to left => side=right; score=2",
    ),
)
def spread(b: Builder) -> None:
    """A whole heap is spread as it lies, so that every card is in sight. Without a *to*, it makes the row called *row*.

    Positions in a row count from the left. Put elsewhere, its leftmost card comes on top.
    """
    source = b.all_of("from")
    to, on_left = b.destination("to", "row", layout=ROW, apart_from=source), b.phrase("side") == "left"

    def run(cells: Cells) -> None:
        heap = source.of(cells)
        source.put(cells, b"")
        to.put(cells, (heap if on_left else heap[::-1]) + to.of(cells))

    def passing(cells: Sequence[Any]) -> bytes:
        return source.of(cells)

    b.act(run, passing=passing, to=to)


@step(
    "Spectator {secretly?secretly} goes from position {from:number} of {place:place} to a neighbour[, {count:number} times]"
    "[, {only=face-up cards only|face-down cards only}]: {name:name}",
    family="Choices",
    example="Spectator secretly goes from position p of grid to a neighbour, 3 times: q",
    says="Go from there to a neighbouring card[, {count} times][, {only}]{secretly}.",
    free=freely("You moved as you liked"),
    by=SPECTATOR,
    wordings=(
        "(move|go|step|travel) [{count} times] to a (neighbour|neighbouring card|next card) [in|of] {place} => score=1",
    ),
)
def go(b: Builder) -> None:
    """From a position to one beside it, again and again as often as is said; every way to go is covered.

    In a row the cards beside are those to the left and right, in a grid also those above and below, in a ring the last
    one is beside the first. *Face-up cards only*: one cannot go to a card that lies otherwise. The new number is the
    position where it ends.
    """
    start, place, layout = b.number("from"), b.looked_at("place"), b.looked_at("place").layout
    if layout.is_heap:
        raise b.fault(
            "place", f"The cards of {place.name} lie {layout.lies}: none is beside another.", "a row, a ring or a grid",
            "Lay the cards out first.",
        )  # fmt: skip
    times = b.constant("count") if b.given("count") else 1
    if not 1 <= times <= MOST_STEPS:
        raise b.fault("count", f"Nobody goes {times} times in one line.", f"from 1 to {MOST_STEPS}", "Change it.")
    only = b.phrase("only")
    if only:
        b.ask_faces()
        b.looks_in |= place.cells
    here, was = start, frozenset(b.reads)
    for nth in range(1, times + 1):
        b.reads = set(was)

        def options(cells: Sequence[Any], here: Any = here) -> Sequence[int]:
            heap, at = place.of(cells), here(cells)
            if not 1 <= at <= len(heap):
                raise Impossible(f"{place.name} has no card at position {at}")
            beside = layout.neighbours(at, len(heap))
            return [p for p in beside if not only or (heap[p - 1] >= FACE_UP) == only.startswith("face-up")]

        if nth == times:
            b.choose("name", b.phrase("name"), b.flag("secretly"), options)
            return
        label = f"where step {nth} leads"
        here = b.choose_unnamed(f"step {nth} in line {b.line.number}", label, True, options, lambda cells, p: str(p))
        was = frozenset(b.reads)
