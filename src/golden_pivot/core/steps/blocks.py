"""Blocks of cards that move or turn without being counted out one by one."""

from __future__ import annotations

from typing import TYPE_CHECKING

from ..program import Cells
from .declare import step

if TYPE_CHECKING:
    from ..builder import Builder


@step("{who} put+s {from:place} {where=on|under} {to:place}", family="Blocks", example="Put table on deck")
def put_heap(b: Builder) -> None:
    """A whole heap goes onto or under another, as it lies. An empty place to put it on is a new heap there."""
    source, on_top = b.source("from"), b.phrase("where") == "on"
    to = b.destination("to")
    if source == to:
        raise b.fault("to", "A heap cannot be put on itself.", "another place", "Name the place it goes to.")

    def run(cells: Cells) -> None:
        cells[to] = cells[source] + cells[to] if on_top else cells[to] + cells[source]
        cells[source] = b""

    b.act(run)


@step(
    "{who} {secretly?secretly} cut+s {place:place}[ at {depth:number}[, {choice:range},]] and complete+s the cut",
    family="Blocks",
    example="Spectator cuts deck and completes the cut",
)
def cut(b: Builder) -> None:
    """The top part of a heap goes to the bottom, as it lies.

    Without a depth, whoever cuts may cut anywhere: 0 cards to all but one, which leaves the round order as
    it is; nobody learns how deep. With *at n, n from 10 to 20,* the depth is a new number.
    """
    place = b.source("place")
    if b.given("choice"):
        b.choose_number("choice", secret=b.flag("secretly"))
    depth = b.number("depth") if b.given("depth") else b.choose_depth(place)

    def run(cells: Cells) -> None:
        heap, n = cells[place], depth(cells)
        b.within_heap(place, n, len(heap))
        cells[place] = heap[n:] + heap[:n]

    b.act(run)


@step(
    "{who} turn+s over the top {count:number} {#count} of {place:place} as a block",
    family="Blocks",
    example="Turn over the top 4 cards of deck as a block",
)
def turn_block(b: Builder) -> None:
    """The top cards are lifted together and turned over together: their order reverses, every face flips."""
    count, place = b.number("count"), b.source("place")
    enough, flip = b.enough_cards(place, count), b.flip

    def run(cells: Cells) -> None:
        n, heap = enough(cells), cells[place]
        cells[place] = flip(heap[:n]) + heap[n:]

    b.act(run)


@step("{who} turn+s {place:place} over", family="Blocks", example="Turn deck over")
def turn_over(b: Builder) -> None:
    """A whole heap is turned over: its order reverses and every face flips."""
    place, flip = b.source("place"), b.flip

    def run(cells: Cells) -> None:
        cells[place] = flip(cells[place])

    b.act(run)
