"""What must come out on every path."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from ..cards import TOKEN, ordinal
from .declare import ENDING, step

if TYPE_CHECKING:
    from ..builder import Builder


@step(
    "Ends with: {spot:spot} is {card:card}",
    family="Endings",
    phase=ENDING,
    example="Ends with: the last card dealt is FORCE",
)
def ends_with(b: Builder) -> None:
    """A claim: on every path this card lies there. *The last card dealt* ends a count, *the next card* follows it.

    A claim is proved when it holds whatever the spectator chooses; else the shortest way in which it fails
    is told and can be played.
    """
    spot, token, card = b.spot("spot"), b.card("card"), b.text("card")

    def holds(cells: Sequence[Any]) -> bool:
        place, index = spot.find(cells)
        return bool(cells[place][index] & TOKEN == token)

    def explain(cells: Sequence[Any]) -> str:
        if spot.kind == "at":
            return f"{card} is {b.whereabouts(cells, token)}, not {spot.text}"
        counted, came = spot.counted(cells), spot.order_of(cells, token)
        if came is None:
            return f"{card} is {b.whereabouts(cells, token)}, not among the cards counted"
        if spot.kind == "last":
            return f"{card} is {ordinal(came)} but the count ends at {counted}"
        return f"{card} is {ordinal(came)} but the next card is the {ordinal(counted + 1)}"

    b.check(holds, explain)
