"""The pack and what is prepared in it before the routine begins."""

from __future__ import annotations

from typing import TYPE_CHECKING

from ..cards import MAX_CARDS
from .declare import SETUP, step

if TYPE_CHECKING:
    from ..builder import Builder


@step(
    "Pack: {count:number} {#count}[, {order=any order}]",
    family="Set-up",
    phase=SETUP,
    example="Pack: 52 cards, any order",
)
def pack(b: Builder) -> None:
    """The cards in play, as the heap called deck, face down. Every routine begins with its pack.

    From 1 to 120 cards. Nothing is known of their order; one proof covers every order as long as no line
    looks at the face of a card that was not placed.
    """
    count = b.constant("count")
    if not 1 <= count <= MAX_CARDS:
        raise b.fault(
            "count",
            f"A pack of {count} cards cannot be played.",
            f"from 1 to {MAX_CARDS} cards",
            "Two packs with their jokers make 108.",
        )
    b.lay_pack(count)


@step(
    "Place {card:card} {position:position}",
    family="Set-up",
    phase=SETUP,
    example="Place FORCE 10th from the top",
)
def place_card(b: Builder) -> None:
    """A card you know lies at this position of the pack when the routine begins.

    Positions count from 1 at the top, or from the bottom when the line says so.
    """
    at, end = b.constant_position("position")
    size = len(b.pack)
    if not 1 <= at <= size:
        raise b.fault(
            "position",
            f"The pack has {size} cards and no position {at}.",
            f"a position from 1 to {size}",
            "Change the position or the size of the pack.",
        )
    index = at - 1 if end == "top" else size - at
    if (there := b.pack[index]) is not None:
        raise b.fault(
            "position",
            f"{there} already lies there.",
            "a position that is still free",
            "Give one of the two cards another place.",
        )
    b.pack[index] = b.new_card("card")
