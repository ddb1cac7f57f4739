"""What the face of a card decides."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import TYPE_CHECKING, Any

from ..language.facets import Facet
from ..language.sorts import BY_FACE, OF_ONE
from ..language.templates import SPECTATOR
from ..search.program import Cells
from .counting import deals
from .declare import ENDING, step

if TYPE_CHECKING:
    from ..building import Builder


HOW = "are mates|have the same value|have the same suit|have the same colour|differ in value|differ in suit|differ in colour"
"""for a template: how two cards go together, or do not"""


def fact_of_how(how: str) -> tuple[str, bool]:
    """(the fact two cards are compared by, whether it is to be the same)

    >>> fact_of_how("are mates"), fact_of_how("differ in suit")
    (('pair', True), ('suit', False))
    """
    return ("pair" if how == "are mates" else how.rsplit(" ", 1)[1]), not how.startswith("differ")


@step(
    "Spectator names {card:card}",
    family="Choices",
    example="Spectator names their card",
    says="Which card was it? Say it aloud.",
    facets=(Facet.FACE_NEEDED,),
    by=SPECTATOR,
    wordings=(
        "name their [own|favourite] card [aloud|out loud] => card=theirs; score=-1",
        "[ask for|get|hear|have|obtain] name of {card} => who=spectator; score=0.5",
        "(say|tell|tell you|give|call out|reveal|announce) name of {card} => who=spectator; score=1",
        "(say|tell|tell you|reveal|announce) what {card} (be|is|was) => who=spectator; score=1",
        "[ask] [them] what {card} (be|is|was) => who=spectator; score=1",
        "{card} be name [aloud|out loud|out] => who=spectator; score=1",
        "[ask for] name of {card}",
        "for name of {card}",
        "NAME {card} [out loud|aloud|out]",
        "call {card} out",
        "NAME it [out] [out loud|aloud]",
        "(say|tell|tell you|tell me) [what] {card} [be|is|was|what it is|what it was]",
        "ask for name of {card}",
        "reveal {card}",
        "(say|tell) (you|me) what {card} (be|is|was)",
    ),
)
def name_aloud(b: Builder) -> None:
    """You learn which card it is. From here on your lines may use its value, its suit and their letters."""
    b.card("card")
    b.scope.known_faces.add(b.phrase("card"))
    b.learns(b.phrase("card"))


def fact_of_card(b: Builder, slot: str, fact: str) -> Callable[[Sequence[Any]], int | None]:
    """A fact of the card in the slot, as a function of the state."""
    token, read = b.look_at_card(slot, b.phrase(slot), [fact]), b.fact_of(fact)
    return lambda cells: read(cells, token(cells))


@step(
    f"If {{card:card}} is {{what={BY_FACE}}}:",
    family="Order of events",
    example="If their card is red:",
    is_case=True,
    wordings=(
        "(if|should) {card} (be|is) [a] red [1|card] => what=red; score=1",
        "(if|should) {card} (be|is) [a] black [1|card] => what=black; score=1",
        "(if|should) {card} (be|is) a (court card|picture card|picture|court|face card) => what=a court card; score=1",
        "if {card} (be|is) a (club) => what=a club",
        "if {card} (be|is) a (diamond) => what=a diamond",
        "if {card} (be|is) a (heart) => what=a heart",
        "if {card} (be|is) a (spade) => what=a spade",
    ),
)
def if_card(b: Builder) -> None:
    """The lines indented below are carried out only where the card is such a one. *Otherwise:* may follow.

    Where lines of yours depend on it, you must know the card.
    """
    is_so = fact_of_card(b, "card", OF_ONE[b.phrase("what")].asked)
    b.only_if(lambda cells: bool(is_so(cells)))


def _together(b: Builder) -> Callable[[Sequence[Any]], bool]:
    """Whether the cards in the slots `card` and `other` go together as the line says. No card is its own mate."""
    fact, alike = fact_of_how(b.phrase("how"))
    tokens = [b.look_at_card(slot, b.phrase(slot), [fact]) for slot in ("card", "other")]
    read = b.fact_of(fact)

    def holds(cells: Sequence[Any]) -> bool:
        one, other = (token(cells) for token in tokens)
        found = read(cells, one)
        return (None is not found == read(cells, other)) == alike and (fact != "pair" or one != other)

    return holds


@step(
    f"If {{card:card}} and {{other:card}} {{how={HOW}}}:",
    family="Order of events",
    example="If P and Q are mates:",
    is_case=True,
    wordings=(
        "(if|when|should) (2 cards|cards|both|they|both cards) (be|have|be of) [of] [same|1] colour => card=last2; how=have the same colour; score=2",
        "(if|when|should) (2 cards|cards|both|they|both cards) (be|have|be of) [of] [same|1] value => card=last2; how=have the same value; score=2",
        "(if|when|should) (2 cards|cards|both|they|both cards) (be|have|be of) [of] [same|1] suit => card=last2; how=have the same suit; score=2",
        "(if|when|should) (cards|both|they|both cards) (match|be mates|be a pair) => card=last2; how=are mates; score=2",
        "(if|when|should) {card} and {other} (be mates|match|be a pair) => how=are mates; score=1",
        "(if|should|in case) 2 cards [happen to] (match|be mates|go together|are a pair|be a pair) => card=last2; how=are mates; score=2",
        "(if|should|in case) 2 cards [happen to] (be of|have|are of) [same|1] colour => card=last2; how=have the same colour; score=2",
        "(if|should|in case) 2 cards [happen to] (be of|have) [same|1] (value) => card=last2; how=have the same value; score=2",
    ),
)
def if_alike(b: Builder) -> None:
    """The lines indented below are carried out only where the two cards go together. *Otherwise:* may follow.

    Mates have the same value and colour. Where lines of yours depend on it, you must know both cards.
    """
    b.only_if(_together(b))


@step(
    "{who} spell+s {what=the name|the value|the suit|the value and the suit} of {card:card} from {from:place}"
    "[ {way=face up|face down}][ to {to:place}][, {row=from left to right|from right to left}]",
    family="Counting",
    does="a card a letter, so that their order turns round",
    example="Spectator spells the name of their card from deck",
    says="Spell {what} of {card} from {from}[ {>to}], a card for each letter.",
    singly=True,
    facets=(Facet.FACE_NEEDED,),
    wordings=(
        "spell its name [,] [a card|1 card|1] [for each letter|for every letter|a letter|per letter] => what=the name; card=theirs; score=1",
        "spell {card} [,] [a card|1 card|1] (for each|for every|per) letter => what=the name; score=1",
        "spell {card} [,] (deal|put down|count|thumb off) (a|1) card (for each|for every|per|a|each) letter => what=the name; score=1.5",
        "spell [only|just] value of {card} [only|alone] => what=the value; score=1",
        "spell [only|just] suit of {card} [only|alone] => what=the suit; score=1",
        "spell [out] name of {card} => what=the name; score=1",
        "spell [out] {card} 's name => what=the name; score=1",
        "spell [out] {card} [silently] [,] [deal] [1 card|a card|1] [for each letter|a letter|for every letter] => what=the name",
        "spell name of {card} => what=the name",
        "spell value and suit of {card} [,] [leave out of|without of] ... => what=the value and the suit",
        "spell value of {card} => what=the value",
        "spell suit of {card} => what=the suit",
    ),
)
def spell_name(b: Builder) -> None:
    """A card is dealt for each letter of a card's name: the value, *of*, and the suit in the plural.

    *The value and the suit* leaves out the word between them.
    """
    what = b.phrase("what")
    facts = ["letters of value"] if what != "the suit" else []
    facts += ["letters of suit"] if what != "the value" else []
    extra = len("of") if what == "the name" else 0
    numbers = [fact_of_card(b, "card", fact) for fact in facts]
    deals(b, lambda cells: extra + sum(number(cells) or 0 for number in numbers))


@step(
    "{who} take+s the mate of {card:card} from {from:place} to {to:place}: {name:card}",
    family="Cards",
    example="Take the mate of P from deck to hand: MATE",
    sees="the faces of {from}",
    facets=(Facet.DOER_SEES,),
    wordings=(
        "find {card} 's (twin|mate|partner) [in {from}] [and] [drop|put|lay|place|take] [it] [on|onto|to|in] [{to}] => name=MATE",
        "(take|find|pull out|remove) (mate|twin|partner) of {card} [from {from}] [and] [drop|put|lay|place] [it] [on|onto|to|in] [{to}] => name=MATE",
        "(find|take) [out] {card} 's (twin|mate|partner) => name=MATE",
    ),
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
    wordings=(
        "deal [{down}] [face up] [,] count (backwards|down) from {high} to {low} ... => tens=yes; cap=yes; names=new; to=table; score=3",
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
    f"Ends with: {{card:card}} and {{other:card}} {{how={HOW}}}",
    family="Endings",
    phase=ENDING,
    example="Ends with: FORCE and their card have the same colour",
    facets=(Facet.HAS_CASE,),
    wordings=(
        "(2 cards|cards|both|both cards) (match|agree) in value => card=last2; how=have the same value; score=2",
        "(2 cards|cards|both|both cards) (match|agree) in suit => card=last2; how=have the same suit; score=2",
        "(2 cards|cards|both|both cards) (match|agree) in colour => card=last2; how=have the same colour; score=2",
        "{card} and {other} (be mates|match|be a pair|be twins) => how=are mates; score=1",
        "{card} and {other} (be|have) [of] same value => how=have the same value; score=1",
        "{card} and {other} (be|have) [of] same suit => how=have the same suit; score=1",
        "{card} and {other} (be|have) [of] same colour => how=have the same colour; score=1",
        "2 cards (turn out to be|be|are|have) [of] (1|same|a single) colour => card=last2; how=have the same colour; score=2",
        "2 cards (turn out to be|be|are|have) [of] (1|same) value => card=last2; how=have the same value; score=2",
        "2 cards (turn out to be|be|are|have) [of] (1|same) suit => card=last2; how=have the same suit; score=2",
        "2 cards (match|turn out to match|are mates|be mates|are a pair) => card=last2; how=are mates; score=2",
    ),
)
def ends_together(b: Builder) -> None:
    """A claim: whatever the two cards are, they go together. Mates have the same value and colour."""
    how, cards = b.phrase("how"), (b.phrase("card"), b.phrase("other"))
    not_so = "go together" if how.startswith("differ") else "do not go together"
    b.check(_together(b), lambda cells: f"{cards[0]} and {cards[1]} {not_so}")
