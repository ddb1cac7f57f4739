"""Cards counted from heap to heap, one at a time."""

from __future__ import annotations

from typing import TYPE_CHECKING

from ..program import Cells
from .declare import step

if TYPE_CHECKING:
    from ..builder import Builder


@step(
    "{who} deal+s {count:number} {#count} from {from:place}[ to {to:place}]",
    family="Counting",
    example="Deal 10 cards from deck to table",
)
def deal(b: Builder) -> None:
    """Cards go one at a time from the top of a heap, each onto the last, so that their order reverses.

    Without a *to*, they make the heap called *dealt*. Cards already there stay underneath.
    """
    count, source = b.number("count"), b.source("from")
    to = b.destination("to", "dealt")
    enough = b.enough_cards(source, count)
    counted = b.now_dealt(source, to, last="top")

    def run(cells: Cells) -> None:
        cells[counted] = n = enough(cells)
        heap = cells[source]
        cells[source] = heap[n:]
        cells[to] = heap[:n][::-1] + cells[to]

    b.act(run, handled=count)


@step(
    "{who} count+s {count:number} {#count} from {from:place}[ to {to:place}], each under the last",
    family="Counting",
    example="Count 10 cards from deck to table, each under the last",
)
def count_under(b: Builder) -> None:
    """Cards go one at a time from the top of a heap, each beneath the last, so that their order is kept.

    Cards already at the place they go to stay on top.
    """
    count, source = b.number("count"), b.source("from")
    to = b.destination("to", "dealt")
    enough = b.enough_cards(source, count)
    counted = b.now_dealt(source, to, last="bottom")

    def run(cells: Cells) -> None:
        cells[counted] = n = enough(cells)
        heap = cells[source]
        cells[source] = heap[n:]
        cells[to] = cells[to] + heap[:n]

    b.act(run, handled=count)


@step(
    "{who} put+s the dealt cards {where=back on top|underneath}",
    family="Counting",
    example="Put the dealt cards back on top",
)
def put_dealt(b: Builder) -> None:
    """The heap that was just dealt goes back, as it lies, onto or under the heap it was dealt from."""
    source, dealt = b.last_deal()
    on_top = b.phrase("where") == "back on top"
    b.moves(dealt, source)

    def run(cells: Cells) -> None:
        cells[source] = cells[dealt] + cells[source] if on_top else cells[source] + cells[dealt]
        cells[dealt] = b""

    b.act(run)


@step("{who} drop+s the rest on top", family="Counting", example="Drop the rest on top")
def drop_rest(b: Builder) -> None:
    """The rest of the heap just dealt from goes on the dealt cards; together they are that heap again."""
    source, dealt = b.last_deal()
    b.moves(dealt, source)

    def run(cells: Cells) -> None:
        cells[source] = cells[source] + cells[dealt]
        cells[dealt] = b""

    b.act(run)
