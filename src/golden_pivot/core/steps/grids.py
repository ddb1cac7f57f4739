"""Cards laid in rows of equal length, and what is claimed of a row."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from ..cards import index_of
from ..layouts import grid
from ..search.program import Cells, Reader
from .declare import ENDING, step

if TYPE_CHECKING:
    from ..building import Builder
    from ..building.places import Place

MOST = 10
"""rows, and cards in each"""


@step(
    "{who} lay+s {count:number} {#count} of {from:place} in {rows:number} rows of {columns:number}[ {way=face up|face down}][ to {to:place}]",
    family="Counting",
    example="Lay 9 cards of deck in 3 rows of 3 face up",
    says="Lay {count} {#count} from {from} in {rows} rows of {columns}[, {way}].",
    singly=True,
    domains={"rows": range(2, MOST + 1), "columns": range(2, MOST + 1)},
    wordings=(
        "(lay|deal|set|lay out|deal out|set out) [out] {count} cards in {rows} rows of {columns} => score=3",
        "(lay|deal|lay out|deal out|make) [out] {rows} rows of {columns} [cards] => count=product; score=2",
    ),
)
def lay_grid(b: Builder) -> None:
    """Cards go one at a time from the top of a heap, side by side, row by row from the top left.

    Without a *to*, they make the place called *grid*. Its positions are counted row by row. Each card keeps its place:
    they are turned and looked at where they lie, and are taken up together, the first that was laid on top.
    """
    source, count = b.source("from"), b.number("count")
    rows, across = b.constant("rows"), b.constant("columns")
    for slot, number in (("rows", rows), ("columns", across)):
        if not 1 <= number <= MOST:
            raise b.fault(slot, f"{number} is no number for a grid.", f"from 1 to {MOST}", "Change the number.")
    to = b.destination("to", "grid", layout=grid(rows, across), apart_from=source)
    lays_out(b, source, count, to)


def lays_out(b: Builder, source: Place, count: Reader, to: Place) -> None:
    """So many cards go one at a time from the top of a heap behind those that lie at the other place, facing as the line says."""
    enough, laid = b.enough_cards(source, count), b.laid("way")

    def run(cells: Cells) -> None:
        n, heap = enough(cells), source.of(cells)
        source.put(cells, heap[n:])
        to.put(cells, to.of(cells) + laid(heap[:n]))

    def passing(cells: Sequence[Any]) -> bytes:
        heap = source.of(cells)[: max(0, count(cells))]
        return heap + laid(heap)

    b.act(run, count, passing, to)


@step(
    "Ends with: {card:card} is in row {row:number} of {place:place}",
    family="Endings",
    phase=ENDING,
    example="Ends with: their card is in row 2 of grid",
    wordings=("{card} (be|is|lie) in {row} row [of {place}] => place=grid",),
)
def ends_in_row(b: Builder) -> None:
    """A claim: the card lies in that row of a grid; row 1 is the uppermost."""
    token, row, place = b.claimed_card("card"), b.truth("row"), b.looked_at("place")
    name, layout = b.phrase("card"), place.layout
    if layout.most is None:
        raise b.fault("place", f"The cards of {place.name} lie {layout.lies}.", "cards laid in rows", "Name a grid.")

    def explain(cells: Sequence[Any]) -> str:
        return f"{name} is {b.whereabouts(cells, token(cells))}, not in row {row(cells)}"

    def holds(cells: Sequence[Any]) -> bool:
        at = index_of(place.of(cells), token(cells))
        return at >= 0 and layout.row_of(at + 1) == row(cells)

    b.check(holds, explain)
