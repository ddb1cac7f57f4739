"""Dealing into piles, and putting piles together."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import TYPE_CHECKING, Any

from ..faults import Impossible
from ..language.phrases import list_text
from ..program import Cells
from .declare import step

if TYPE_CHECKING:
    from ..building import Builder


@step(
    "{who} deal+s {from:place} into {piles:number} piles[, {each:number} {#each} each][, {way=face up|face down}]",
    family="Piles",
    example="Deal deck into 3 piles, face up",
)
def deal_piles(b: Builder) -> None:
    """Cards go one at a time onto pile 1, pile 2 and so on in turn, to the end of the heap or so many on each.

    Each goes onto the last, so that the order within a pile reverses.
    """
    source = b.source("from")
    piles = b.new_piles("piles", source)
    if source.cells & {cell for pile in piles for cell in pile.cells}:
        raise b.fault("from", "This heap is one of the piles.", "another heap", "Put it elsewhere first.")
    each = b.number("each") if b.given("each") else None
    laid, count = b.laid("way"), len(piles)

    def cards(cells: Sequence[Any]) -> int:
        return len(source.of(cells)) if each is None else each(cells) * count

    enough = b.enough_cards(source, cards)

    def run(cells: Cells) -> None:
        n, heap = enough(cells), source.of(cells)
        source.put(cells, heap[n:])
        block = laid(heap[:n])
        for i, pile in enumerate(piles):
            pile.put(cells, block[i::count][::-1] + pile.of(cells))

    def passing(cells: Sequence[Any]) -> bytes:
        heap = source.of(cells)[: max(0, cards(cells))]
        return heap + laid(heap)

    b.act(run, cards, passing)


def _gathers(
    b: Builder, order: Callable[[Sequence[Any], int], Sequence[int]], how_many: int, secret: bool = False
) -> None:
    """The common part. `order` gives the cells of the piles from top to bottom, for one of `how_many` ways."""
    piles = b.piles()
    to = b.destination("to", b.scope.piles_from)

    def say(cells: Sequence[Any], option: int) -> str:
        return f"{list_text([str(piles.index(cell) + 1) for cell in order(cells, option)])} from the top"

    if how_many > 1:
        chosen = b.choose_unnamed(
            f"order in line {b.line.number}", "the order of the piles", secret, lambda cells: range(how_many), say
        )
        b.act(b.gather(lambda cells: order(cells, chosen(cells)), to, len(piles)))
    else:
        b.act(b.gather(lambda cells: order(cells, 0), to, len(piles)))


@step(
    "{who} {secretly?secretly} gather+s the piles in any order[ to {to:place}]",
    family="Piles",
    example="Spectator gathers the piles in any order",
)
def gather_any(b: Builder) -> None:
    """The piles are put together in whatever order, as they lie, where they were dealt from unless the line says.

    Every order must work. You see which, unless it is done secretly.
    """
    piles = b.piles()
    orders = [[piles[i] for i in order] for order in b.free_orders(len(piles))]
    _gathers(b, lambda cells, option: orders[option], len(orders), b.flag("secretly"))


@step(
    "{who} gather+s the piles from {side=left to right|right to left|either side}, each {where=on|under} the last"
    "[, to {to:place}]",
    family="Piles",
    example="Gather the piles from left to right, each on the last",
)
def gather_side(b: Builder) -> None:
    """The piles are put together one after another, pile 1 being the leftmost. *Either side* leaves it open which."""
    piles = b.piles()
    side = b.phrase("side")
    rightwards = piles if b.phrase("where") == "under" else piles[::-1]
    orders = {"left to right": [rightwards], "right to left": [rightwards[::-1]]}.get(
        side, [rightwards, rightwards[::-1]] if len(piles) > 1 else [rightwards]
    )
    _gathers(b, lambda cells, option: orders[option], len(orders))


@step(
    "{who} gather+s the piles, {pile:place} {slot:position}, the others in any order[, to {to:place}]",
    family="Piles",
    example="Gather the piles, pile p 2nd, the others in any order",
)
def gather_slot(b: Builder) -> None:
    """One pile goes to a stated place among the piles, counted from the top; the others around it as one likes."""
    piles, pile = b.piles(), b.looked_at("pile")
    if not pile.cells <= set(piles):
        raise b.fault(
            "pile", f"{pile.name} is none of the piles.", "one of the piles last dealt", "Name one of them."
        )
    slot, count = b.index("slot", b.line.values["slot"], pile), len(piles)
    arrangements = b.free_orders(count - 1)

    def order(cells: Sequence[Any], option: int) -> Sequence[int]:
        told, at = pile.find(cells), slot(cells, count)
        rest = [cell for cell in piles if cell != told]
        around = [rest[i] for i in arrangements[option]]
        return [*around[:at], told, *around[at:]]

    _gathers(b, order, len(arrangements))


@step(
    "{who} gather+s {piles:places} from top to bottom[, to {to:place}]",
    family="Piles",
    example="Gather pile 2, pile 1, pile 3 from top to bottom",
)
def gather_order(b: Builder) -> None:
    """The piles are put together in this order, the first one named on top."""
    piles, named = b.piles(), b.several("piles")
    if any(not place.cells <= set(piles) for place in named):
        raise b.fault("piles", "These are not all piles.", "piles of those last dealt", "Name piles only.")

    def order(cells: Sequence[Any], option: int) -> Sequence[int]:
        cells_of_piles = [place.find(cells) for place in named]
        if len(set(cells_of_piles)) < len(cells_of_piles):
            raise Impossible("a pile is gathered twice")
        return cells_of_piles

    _gathers(b, order, 1)
