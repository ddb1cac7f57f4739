"""What the face of a card decides."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import TYPE_CHECKING, Any

from ..cards import SUITS
from ..language.facets import Facet
from ..language.templates import SPECTATOR
from ..search.program import Cells
from .counting import deals
from .declare import ENDING, step

if TYPE_CHECKING:
    from ..building import Builder


@step(
    "Spectator names {card:card}",
    family="Choices",
    example="Spectator names their card",
    says="Which card was it? Say it aloud.",
    facets=(Facet.FACE_NEEDED,),
    by=SPECTATOR,
)
def name_aloud(b: Builder) -> None:
    """You learn which card it is. From here on your lines may use its value, its suit and their letters."""
    b.card("card")
    b.scope.known_faces.add(b.phrase("card"))
    b.learns(b.phrase("card"))


def _fact(b: Builder, slot: str, fact: str) -> Callable[[Sequence[Any]], int | None]:
    """A fact of the card in the slot, as a function of the state."""
    token, read = b.look_at_card(slot, b.phrase(slot), [fact]), b.fact_of(fact)
    return lambda cells: read(cells, token(cells))


@step(
    "If {card:card} is {what=red|black|a club|a diamond|a heart|a spade|a court card}:",
    family="Order of events",
    example="If their card is red:",
    is_case=True,
)
def if_card(b: Builder) -> None:
    """The lines indented below are carried out only where the card is such a one. *Otherwise:* may follow.

    Where lines of yours depend on it, you must know the card.
    """
    what = b.phrase("what")
    if what == "a court card":
        value = _fact(b, "card", "value")
        b.only_if(lambda cells: (value(cells) or 0) > 10)
        return
    fact = "colour" if what in ("red", "black") else "suit"
    wanted = {"black": 1, "red": 2}.get(what) or SUITS.index(f"{what[2:]}s") + 1
    number = _fact(b, "card", fact)
    b.only_if(lambda cells: number(cells) == wanted)


@step(
    "If {card:card} and {other:card} {how=are mates|have the same value|have the same suit|have the same colour}:",
    family="Order of events",
    example="If P and Q are mates:",
    is_case=True,
)
def if_alike(b: Builder) -> None:
    """The lines indented below are carried out only where the two cards go together. *Otherwise:* may follow.

    Mates have the same value and colour. Where lines of yours depend on it, you must know both cards.
    """
    how = b.phrase("how")
    facts = ["pair"] if how == "are mates" else [how.rsplit(" ", 1)[1]]
    pairs = [(_fact(b, "card", fact), _fact(b, "other", fact)) for fact in facts]
    b.only_if(lambda cells: all(one(cells) == other(cells) for one, other in pairs))


@step(
    "{who} spell+s {what=the name|the value|the suit|the value and the suit} of {card:card} from {from:place}"
    "[ {way=face up|face down}][ to {to:place}][, {row=from left to right|from right to left}]",
    family="Counting",
    does="a card a letter, so that their order turns round",
    example="Spectator spells the name of their card from deck",
    says="Spell {what} of {card} from {from}[ {>to}], a card for each letter.",
    singly=True,
    facets=(Facet.FACE_NEEDED,),
)
def spell_name(b: Builder) -> None:
    """A card is dealt for each letter of a card's name: the value, *of*, and the suit in the plural.

    *The value and the suit* leaves out the word between them.
    """
    what = b.phrase("what")
    facts = ["letters of value"] if what != "the suit" else []
    facts += ["letters of suit"] if what != "the value" else []
    extra = len("of") if what == "the name" else 0
    numbers = [_fact(b, "card", fact) for fact in facts]
    deals(b, lambda cells: extra + sum(number(cells) or 0 for number in numbers))


@step(
    "{who} take+s the mate of {card:card} from {from:place} to {to:place}: {name:card}",
    family="Cards",
    example="Take the mate of P from deck to hand: MATE",
    sees="the faces of {from}",
    facets=(Facet.DOER_SEES,),
)
def take_mate(b: Builder) -> None:
    """The card of the same value and colour is looked for, taken out and laid on the cards at another place.

    The heap must be certain to have it: whatever of the pack has not been seen lies there. You know its face.
    """
    source = b.source("from")
    at = b.mate_in("card", source)
    to = b.destination("to", apart_from=source)
    named = b.name_card("name")
    b.scope.looked_at.add(b.phrase("name"))

    def run(cells: Cells) -> None:
        heap, index = source.of(cells), at(cells)
        b.take_name(named, cells, source.find(cells), index)
        heap = source.of(cells)
        source.put(cells, heap[:index] + heap[index + 1 :])
        to.put(cells, heap[index : index + 1] + to.of(cells))

    b.act(run, lambda cells: 1, to=to)


@step(
    "{who} deal+s from {from:place} to {to:place}, counting down from {high:number} to {low:number}"
    " until the number is a card’s value{tens?, court cards as ten}{cap?, or else a card face down on top}: {names:names}",
    family="Counting",
    example="Deal from deck to table, counting down from 9 to 1 until the number is a card’s value, "
    "court cards as ten, or else a card face down on top: m",
    says="Deal from {from} {>to} and count down from {high}. When a card is the number you say, stop.",
    singly=True,
    shows=True,
    facets=(
        Facet.DOER_SEES,
        Facet.COUNTS_DOWN,
    ),
)
def count_down(b: Builder) -> None:
    """A card is dealt face up for each number; the count stops at the first card whose value is the number said.

    The new number is that value; where no card matches it is 0, and one card more may go on top, face down. Everyone
    sees all of this. The proof covers whatever the cards may be.
    """
    high, low = b.constant("high"), b.constant("low")
    if not 1 <= low <= high <= 13:
        raise b.fault("high", "Nobody counts down like that.", "from at most 13 down to at least 1", "Change it.")
    source = b.source("from")
    to = b.destination("to", apart_from=source)
    number = b.new_number("names", b.name_of_this_round("names"), secret=False)
    b.counts_down(source, to, number, range(high, low - 1, -1), b.flag("tens"), b.flag("cap"))


@step(
    "Ends with: {card:card} and {other:card} {how=are mates|have the same value|have the same suit|have the same colour}",
    family="Endings",
    phase=ENDING,
    example="Ends with: FORCE and their card have the same colour",
)
def ends_together(b: Builder) -> None:
    """A claim: whatever the two cards are, they go together. Mates have the same value and colour."""
    how, cards = b.phrase("how"), (b.phrase("card"), b.phrase("other"))
    facts = ["pair"] if how == "are mates" else [how.rsplit(" ", 1)[1]]
    pairs = [(_fact(b, "card", fact), _fact(b, "other", fact)) for fact in facts]

    def holds(cells: Sequence[Any]) -> bool:
        return all(None is not one(cells) == other(cells) for one, other in pairs)

    b.check(holds, lambda cells: f"{cards[0]} and {cards[1]} do not go together")
