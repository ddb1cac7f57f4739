"""The pack and what is prepared in it before the routine begins."""

from __future__ import annotations

from typing import TYPE_CHECKING

from ..cards import MAX_CARDS
from .declare import HANDLING, SETUP, step

if TYPE_CHECKING:
    from ..building import Builder


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
    "Place {card:card} {position:position}{up?, face up}{odd?, with an odd back}[, the mate of {mate:card}]",
    family="Set-up",
    phase=SETUP,
    example="Place FORCE 10th",
)
def place_card(b: Builder) -> None:
    """A card you know lies at this position of the pack when the routine begins.

    Positions count from 1 at the top, or from the bottom when the line says so. *Face up* turns it over where
    it lies; *with an odd back* makes it one that can be told from its back: a marker, or a card of another
    pack. A real card such as queen of hearts has its value and suit, and its mate is the card of the same
    value and colour; any two cards can be declared mates.
    """
    at, end = b.constant_position("position")
    size = len(b.pack)
    if not 1 <= at <= size or end in ("left", "right"):
        raise b.fault(
            "position",
            f"The pack has {size} cards and no position {at}{f' from the {end}' if end in ('left', 'right') else ''}.",
            f"a position from 1 to {size}",
            "Change the position or the size of the pack.",
        )
    index = at - 1 if end == "top" else size - at
    if (there := b.pack[index].name) is not None:
        raise b.fault(
            "position",
            f"{there} already lies there.",
            "a position that is still free",
            "Give one of the two cards another place.",
        )
    b.place_in_pack("card", index, face_up=b.flag("up"), odd_back=b.flag("odd"))
    if b.given("mate"):
        b.declare_mates("card", b.phrase("mate"))


@step(
    "Place {card:card} in {place:place}{up?, face up}{odd?, with an odd back}",
    family="Set-up",
    phase=SETUP,
    example="Place MARKER in pocket, with an odd back",
)
def place_extra(b: Builder) -> None:
    """A card beside the pack lies ready at another place, on those that are there already."""
    b.lay_extra("card", "place", face_up=b.flag("up"), odd_back=b.flag("odd"))


@step("Assumed: {what:text}", family="The page", phase=HANDLING, example="Assumed: a false cut")
def assumed(b: Builder) -> None:
    """Something you do that the proof takes on trust: a false cut, a glimpse, a force. Nothing moves.

    The verdict names it.
    """
    b.assume(b.phrase("what"))
