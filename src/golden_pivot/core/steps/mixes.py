"""Mixes that are not as free as they look: each is one fixed permutation of the heap."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from ..program import Cells
from .declare import step

if TYPE_CHECKING:
    from ..building import Builder


@step("{who} give+s {place:place} {way=an out|an in} faro", family="Mixes", example="Give deck an out faro")
def faro(b: Builder) -> None:
    """The heap is halved and the halves are interlaced card by card. *Out* leaves the top card on top, *in* puts it 2nd.

    With an odd number of cards the half that gives the top card is the larger one.
    """
    place, out = b.source("place"), b.phrase("way") == "an out"

    def run(cells: Cells) -> None:
        heap = place.of(cells)
        upper = (len(heap) + out) // 2
        first, second = (heap[:upper], heap[upper:]) if out else (heap[upper:], heap[:upper])
        mixed = bytearray(len(heap))
        mixed[::2], mixed[1::2] = first, second
        place.put(cells, bytes(mixed))

    b.act(run, lambda cells: len(place.of(cells)))


@step(
    "{who} push+es every second card out of {place:place} and put+s {which=the first ones|the second ones} on top",
    family="Mixes",
    example="Push every second card out of deck and put the first ones on top",
)
def reverse_faro(b: Builder) -> None:
    """A faro backwards: the 1st, 3rd, 5th … card are parted from the 2nd, 4th …, keeping their order."""
    place, first = b.source("place"), b.phrase("which") == "the first ones"

    def run(cells: Cells) -> None:
        heap = place.of(cells)
        place.put(cells, heap[::2] + heap[1::2] if first else heap[1::2] + heap[::2])

    b.act(run, lambda cells: len(place.of(cells)))


@step(
    "{who} draw+s the top and bottom cards of {from:place} together onto {to:place},"
    " {way=the top card on|the bottom card on}",
    family="Mixes",
    example="Draw the top and bottom cards of deck together onto table, the top card on",
)
def klondike(b: Builder) -> None:
    """Klondike or milk shuffle: top and bottom card come off as a pair, each pair onto the last, to the end.

    Within a pair *the top card on* the bottom card, or *the bottom card on* the top one. An odd card comes last.
    """
    source, top_on = b.source("from"), b.phrase("way") == "the top card on"
    to = b.destination("to", apart_from=source)

    def run(cells: Cells) -> None:
        heap, drawn = source.of(cells), to.of(cells)
        while len(heap) > 1:
            top, bottom, heap = heap[:1], heap[-1:], heap[1:-1]
            drawn = (top + bottom if top_on else bottom + top) + drawn
        source.put(cells, b"")
        to.put(cells, heap + drawn)

    def passing(cells: Sequence[Any]) -> bytes:
        return source.of(cells)

    b.act(run, lambda cells: len(source.of(cells)), passing)


@step(
    "{who} deal+s {from:place} {way=down and under|under and down} to {to:place}",
    family="Mixes",
    example="Deal packet down and under to table",
)
def down_under(b: Builder) -> None:
    """One card is dealt, the next goes to the bottom, in turn until all are dealt; or first under, then down.

    *The last card dealt* is the one that remained to the end.
    """
    source, down = b.source("from"), b.phrase("way") == "down and under"
    to = b.destination("to", apart_from=source)
    counted = b.now_dealt(source, to, last_at_end=False)

    def run(cells: Cells) -> None:
        heap, dealt = source.of(cells), to.of(cells)
        cells[counted] = len(heap)
        dealing = down
        while heap:
            card, heap = heap[:1], heap[1:]
            if dealing:
                dealt = card + dealt
            else:
                heap += card
            dealing = not dealing
        source.put(cells, heap)
        to.put(cells, dealt)

    def passing(cells: Sequence[Any]) -> bytes:
        return source.of(cells)

    b.act(run, lambda cells: 2 * len(source.of(cells)), passing)
