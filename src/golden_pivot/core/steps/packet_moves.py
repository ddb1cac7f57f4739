"""Packets from the bottom, packets sent from one end to the other, and heaps that change places."""

from __future__ import annotations

from typing import TYPE_CHECKING

from .declare import step

if TYPE_CHECKING:
    from ..building import Builder
    from ..search.program import Cells


@step(
    "{who} take+s the bottom {count:number} {#count} of {from:place} to {to:place}",
    family="Blocks",
    does="a block keeps its order",
    example="Take the bottom 3 cards of deck to hand",
    says="Take the bottom {count} {#count} of {from} {>to}.",
    heard=(("from the top instead of the bottom", "{who} cut+s off {count} cards of {from} to {to}"),),
    wordings=(
        "(take|draw|slide|pull) bottom {count} cards [out|off|away] [of|from] [{from}] [to {to}] => score=2",
        "(take|draw|slide|pull) {count} cards (from|off) bottom [of {from}] [to {to}] => score=2",
    ),
)
def take_bottom(b: Builder) -> None:
    """The bottom cards are drawn off as a block and put, as they lie, on the cards at another place."""
    count, source = b.number("count"), b.source("from")
    to = b.destination("to", apart_from=source)
    enough = b.enough_cards(source, count)

    def run(cells: Cells) -> None:
        heap, there = source.of(cells), to.of(cells)
        left = len(heap) - enough(cells)
        source.put(cells, heap[:left])
        to.put(cells, heap[left:] + there)

    b.act(run, to=to)


@step(
    "{who} move+s the bottom {count:number} {#count} of {place:place} to the top",
    family="Blocks",
    does="a block keeps its order",
    example="Move the bottom 3 cards of deck to the top",
    says="Move the bottom {count} {#count} of {place} to the top.",
    heard=(("from the top to the bottom", "{who} cut+s {place} at {count} and complete+s the cut"),),
    wordings=(
        "MOVE bottom {count} [cards] [of {place}] (to top|ontop) => score=3",
        "MOVE {count} [cards] from bottom to top [of {place}] => score=2",
        "MOVE (bottom card|1 card from bottom|card from bottom) [of {place}] (to top|ontop) => count=1; score=3",
    ),
)
def raise_bottom(b: Builder) -> None:
    """The bottom cards go to the top as a block, as they lie. From top to bottom it is a cut at so many cards."""
    count, place = b.number("count"), b.source("place")
    enough = b.enough_cards(place, count)

    def run(cells: Cells) -> None:
        heap = place.of(cells)
        left = len(heap) - enough(cells)
        place.put(cells, heap[left:] + heap[:left])

    b.act(run)


@step(
    "{who} swap+s {one:place} and {other:place}",
    family="Blocks",
    does="both stay as they lie",
    example="Swap hand and table",
    says="Let {one} and {other} change places.",
    wordings=(
        "(exchange|switch|transpose) {one} and {other} => score=2",
        "{one} and {other} (change|trade|swap|exchange) places => score=2",
        "(exchange|switch|swap) {one} (with|for) {other} => score=2",
    ),
)
def swap(b: Builder) -> None:
    """Two whole heaps change places, each as it lies."""
    one, other = b.all_of("one"), b.all_of("other")
    if one.cells == other.cells and len(one.cells) == 1:
        raise b.fault("other", f"{other.name} cannot change places with itself.", "two heaps", "Name another heap.")

    if one.layout != other.layout or one.layout.is_fixed:
        raise b.fault(
            "other",
            f"{one.name} and {other.name} do not both lie as heaps, or as rows.",
            "two that lie alike",
            "Put one on a heap first.",
        )

    def run(cells: Cells) -> None:
        first, second = one.of(cells), other.of(cells)
        one.put(cells, second)
        other.put(cells, first)

    b.act(run)
