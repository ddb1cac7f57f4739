"""Small claims: where a card is or is not, whether it is one of several, whether a number is even."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from ..cards import TOKEN, index_of
from ..english import list_text
from ..language.expressions import expression_text
from ..language.facets import Facet
from .comparing import has_parity
from .declare import ENDING, step
from .endings import lies_at

if TYPE_CHECKING:
    from ..building import Builder


@step(
    "Ends with: {card:card} is {spot:spot}",
    family="Endings",
    phase=ENDING,
    example="Ends with: FORCE is the last card dealt",
    says="Turn over {spot}.",
    facets=(Facet.CLAIMS_CARD_AT,),
)
def ends_at(b: Builder) -> None:
    """A claim: on every path this card lies there. It may be said with the spot in front as well."""
    lies_at(b)


@step(
    "Ends with: {spot:spot} is not {card:card}",
    family="Endings",
    phase=ENDING,
    example="Ends with: the top card of deck is not FORCE",
    says="Turn over {spot}.",
    wordings=(
        "{spot} (be|is|will be) (anything but|any card but|never) {card} => score=2",
        "{spot} (be not|is not|will not be|cannot be) {card} => score=3",
        "{card} (be not|is not|will not be|cannot be) {spot} => score=3",
    ),
)
def ends_without(b: Builder) -> None:
    """A claim: on no path does this card lie there; another one does."""
    spot, token, card = b.spot("spot"), b.claimed_card("card"), b.phrase("card")
    b.check(
        lambda cells: spot.byte(cells) & TOKEN != token(cells),
        lambda cells: f"{card} is {b.whereabouts(cells, token(cells))}",
    )


@step(
    "Ends with: {card:card} is {whether=not in|in} {place:place}",
    family="Endings",
    phase=ENDING,
    example="Ends with: FORCE is in hand",
    wordings=(
        "{card} (be|is|lie|end up) (somewhere|anywhere) (in|among) {place} => whether=in; score=2",
        "{card} (be|is|lie|end up) in {place} => whether=in; score=1",
        "{card} (be|is|lie|end up) on table => place=table; whether=in; score=3",
        "{card} (be not|is not|be no longer|is no longer|be nowhere) in {place} => whether=not in; score=3",
        "{place} (hold|contain|have) {card} => whether=in; score=1",
    ),
)
def ends_in(b: Builder) -> None:
    """A claim: the card lies somewhere at that place, or does not."""
    token, place, within = b.claimed_card("card"), b.looked_at("place"), b.phrase("whether") == "in"
    card = b.phrase("card")
    b.asks_which_are_in(place)
    b.check(
        lambda cells: (index_of(place.of(cells), token(cells)) >= 0) == within,
        lambda cells: f"{card} is {b.whereabouts(cells, token(cells))}",
    )


@step(
    "Ends with: {spot:spot} is one of {cards:together}",
    family="Endings",
    phase=ENDING,
    example="Ends with: the top card of deck is one of FORCE and KEY",
    says="Turn over {spot}.",
    wordings=("{spot} (be|is) (either|1 of) {cards} => score=2",),
)
def ends_one_of(b: Builder) -> None:
    """A claim: whichever of these cards it is, one of them lies there."""
    spot, tokens = b.spot("spot"), b.cards("cards")
    names = b.line.values["cards"]

    def explain(cells: Sequence[Any]) -> str:
        lie = [f"{name} is {b.whereabouts(cells, token(cells))}" for name, token in zip(names, tokens, strict=True)]
        return list_text(lie)

    b.check(lambda cells: spot.byte(cells) & TOKEN in {token(cells) for token in tokens}, explain)


@step(
    "Ends with: {cards:together} lie together in {place:place}",
    family="Endings",
    phase=ENDING,
    example="Ends with: FORCE, KEY and LOCK lie together in deck",
    wordings=(
        "{cards} (be|are|lie) [all] together [,] [somewhere] [in {place}] => score=3",
        "{cards} (be|are|lie) next to (each other|one another) [,] [somewhere] [in {place}] => score=2",
    ),
)
def ends_block(b: Builder) -> None:
    """A claim: these cards lie one directly after the other there, in whatever order, with none between them."""
    tokens, place, names = b.cards("cards"), b.looked_at("place"), b.line.values["cards"]

    def where(cells: Sequence[Any]) -> list[int]:
        return sorted({index_of(place.of(cells), token(cells)) for token in tokens})

    def holds(cells: Sequence[Any]) -> bool:
        at = where(cells)
        return at[0] >= 0 and at[-1] - at[0] == len(at) - 1

    def explain(cells: Sequence[Any]) -> str:
        lie = [f"{name} is {b.whereabouts(cells, token(cells))}" for name, token in zip(names, tokens, strict=True)]
        return list_text(lie)

    b.check(holds, explain)


@step(
    "Ends with: {number:number} is {parity=even|odd}",
    family="Endings",
    phase=ENDING,
    example="Ends with: size of deck is even",
    facets=(Facet.HAS_CASE,),
    wordings=(
        "{place} (have|hold|contain) an even number of cards => number=size; parity=even; score=2",
        "{place} (have|hold|contain) an odd number of cards => number=size; parity=odd; score=2",
    ),
)
def ends_parity(b: Builder) -> None:
    """A claim about a number: that it is even, or odd. Nobody needs to know it yet."""
    if b.goes_by_outcome:
        b.check(has_parity(b), lambda _: "")
        return
    number, odd = b.truth("number"), b.phrase("parity") == "odd"
    said = expression_text(b.line.values["number"])
    b.check(lambda cells: bool(number(cells) % 2) == odd, lambda cells: f"{said} is {number(cells)}")
