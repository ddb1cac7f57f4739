"""What sort of card it is: a card by name or by where it lies, several of them, all cards of a heap."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import TYPE_CHECKING, Any

from ..cards import TOKEN
from ..english import counted
from ..language.facets import Facet
from ..language.sorts import BY_FACE, MANY_BY_FACE, OF_ONE, SORTS, sort_behind
from ..search.program import Cells
from .declare import ENDING, step
from .faces_decide import HOW, fact_of_card, fact_of_how

if TYPE_CHECKING:
    from ..building import Builder

Fact = Callable[[Sequence[Any]], int | None]


def _of_spot(b: Builder, slot: str, fact: str) -> Fact:
    spot = b.spot(slot)
    b.look_at_spot(spot, [fact])
    read = b.fact_of(fact)
    return lambda cells: read(cells, spot.byte(cells) & TOKEN)


@step(
    f"Ends with: {{card:card}} is {{sort={BY_FACE}}}",
    family="Endings",
    phase=ENDING,
    example="Ends with: their card is red",
    facets=(Facet.HAS_CASE,),
    wordings=(
        "{card} (be|is|turn out to be|prove to be) [a] red [1|card] => sort=red; score=2",
        "{card} (be|is|turn out to be|prove to be) [a] black [1|card] => sort=black; score=2",
        "{card} (be|is|turn out to be) a (court card|picture card|picture|court) => sort=a court card; score=2",
    ),
)
def ends_sort(b: Builder) -> None:
    """A claim about a card by name: its colour, its suit, its value, or that it is a court card."""
    sort, card = OF_ONE[b.phrase("sort")], b.phrase("card")
    is_so = fact_of_card(b, "card", sort.asked)
    b.check(lambda cells: bool(is_so(cells)), lambda cells: f"{card} is not {sort.one}")


@step(
    f"Ends with: {{spot:spot}} is {{sort={BY_FACE}}}",
    family="Endings",
    phase=ENDING,
    example="Ends with: the last card dealt is a court card",
    says="Turn over {spot}.",
    wordings=(
        "{spot} (be|is|turn out to be|prove to be|must be) [a] red [1|card] => sort=red; score=2",
        "{spot} (be|is|turn out to be|prove to be|must be) [a] black [1|card] => sort=black; score=2",
        "{spot} (be|is|turn out to be) a (court card|picture card|picture|court) => sort=a court card; score=2",
    ),
)
def ends_spot_sort(b: Builder) -> None:
    """A claim about the card that lies there: its colour, its suit, its value, or that it is a court card."""
    sort, spot = OF_ONE[b.phrase("sort")], b.spot("spot")
    is_so = _of_spot(b, "spot", sort.asked)
    b.check(lambda cells: bool(is_so(cells)), lambda cells: f"{spot.text} is not {sort.one}")


@step(
    f"Ends with: {{count:number}} {{#count}} of {{place:place}} (are|is) {{sort={MANY_BY_FACE}}}",
    family="Endings",
    phase=ENDING,
    example="Ends with: 5 cards of hand are red",
    wordings=(
        "[exactly] {count} [of] cards (in|of) {place} (be|are) red => sort=red; score=2",
        "[exactly] {count} [of] cards (in|of) {place} (be|are) black => sort=black; score=2",
        "{place} (hold|have|contain) [exactly] {count} red cards => sort=red; score=2",
        "{place} (hold|have|contain) [exactly] {count} black cards => sort=black; score=2",
    ),
)
def ends_so_many_sort(b: Builder) -> None:
    """A claim: exactly so many cards there are of this colour, suit or value, or court cards."""
    count, place, sort = b.truth("count"), b.looked_at("place"), sort_behind(b.phrase("sort"))
    tally = b.tally(place, sort)
    b.check(
        lambda cells: tally(cells) == count(cells),
        lambda cells: f"{place.name} has {tally(cells)} {sort.many}, not {count(cells)}",
    )


@step(
    f"Ends with: every card of {{place:place}} is {{sort={'|'.join(OF_ONE)}}}",
    family="Endings",
    phase=ENDING,
    example="Ends with: every card of hand is black",
    wordings=(
        "(all|all cards|all of cards|every card) (in|of|on) {place} (be|are|is) red => sort=red; score=2",
        "(all|all cards|all of cards|every card) (in|of|on) {place} (be|are|is) black => sort=black; score=2",
        "(all|all cards|all of cards|every card) (in|of|on) {place} (be|are|is|lie) face up => sort=face up; score=2",
        "(all|all cards|all of cards|every card) (in|of|on) {place} (be|are|is|lie) face down => sort=face down; score=2",
        "{place} (be|is) (all|entirely|wholly) red => sort=red; score=2",
        "{place} (be|is) (all|entirely|wholly) black => sort=black; score=2",
    ),
)
def ends_every_sort(b: Builder) -> None:
    """A claim: all cards there are of one sort, or lie one way. It is so where none lies there."""
    place, sort = b.looked_at("place"), OF_ONE[b.phrase("sort")]
    tally = b.tally(place, sort)

    def others(cells: Sequence[Any]) -> int:
        return len(place.of(cells)) - tally(cells)

    b.check(
        lambda cells: not others(cells),
        lambda cells: (
            f"{counted(others(cells), 'card')} of {place.name} {'is' if others(cells) == 1 else 'are'} not {sort.one}"
        ),
    )


@step(
    f"Ends with: {{spot:spot}} and {{other:spot}} {{how={HOW}}}",
    family="Endings",
    phase=ENDING,
    example="Ends with: the top card of hand and the top card of table have the same value",
    says="Turn over {spot} and {other}.",
    wordings=(
        "{spot} and {other} (be|have|are) [of] [the] same (value) => how=have the same value; score=2",
        "{spot} and {other} (be|have|are) [of] [the] same (suit) => how=have the same suit; score=2",
        "{spot} and {other} (be|have|are) [of] [the] same (colour) => how=have the same colour; score=2",
        "{spot} and {other} (be|are) [of] different colours => how=differ in colour; score=2",
        "{spot} and {other} (match|be mates|are mates|be a pair) => how=are mates; score=2",
    ),
)
def ends_spots_together(b: Builder) -> None:
    """A claim: whatever cards lie there, they go together, or differ. Mates have the same value and colour."""
    how, spots = b.phrase("how"), (b.spot("spot"), b.spot("other"))
    fact, alike = fact_of_how(how)

    def found(cells: Cells) -> None:
        for spot in spots:
            spot.find(cells)

    b.note(found, ())  # both, before either is turned over
    one, other = _of_spot(b, "spot", fact), _of_spot(b, "other", fact)
    not_so = "do not go together" if alike else "go together"

    def explain(cells: Sequence[Any]) -> str:
        if spots[0].find(cells) == spots[1].find(cells):
            return f"{spots[0].text} and {spots[1].text} are one card"
        return f"{spots[0].text} and {spots[1].text} {not_so}"

    def holds(cells: Sequence[Any]) -> bool:
        apart = spots[0].find(cells) != spots[1].find(cells)
        return (one(cells) == other(cells)) == alike and (apart or fact != "pair")

    b.check(holds, explain)


@step(
    "Ends with: {spot:spot} has the same {what=value|suit|colour} as {card:card}",
    family="Endings",
    phase=ENDING,
    example="Ends with: the last card dealt has the same value as their card",
    says="Turn over {spot}.",
    wordings=(
        "{spot} (match|agree with|be like|be of same) {card} in value => what=value; score=2",
        "{spot} (match|agree with|be like) {card} in suit => what=suit; score=2",
        "{spot} (match|agree with|be like) {card} in colour => what=colour; score=2",
    ),
)
def ends_spot_like(b: Builder) -> None:
    """A claim: the card that lies there goes with the card that has this name."""
    spot, card, what = b.spot("spot"), b.phrase("card"), b.phrase("what")
    one, other = _of_spot(b, "spot", what), fact_of_card(b, "card", what)
    b.check(lambda cells: one(cells) == other(cells), lambda cells: f"{spot.text} and {card} differ in {what}")


@step(
    "Ends with: the cards of {place:place} {how=alternate in colour|rotate in suit}",
    family="Endings",
    phase=ENDING,
    example="Ends with: the cards of deck alternate in colour",
    wordings=(
        "{place} (alternate|be alternating) [in] (colours|colour|red and black) => how=alternate in colour; score=2",
        "[cards] [of|in] {place} alternate in colour => how=alternate in colour; score=3",
        "(colours|reds and blacks) alternate [in {place}] => how=alternate in colour; score=2",
    ),
)
def ends_alternating(b: Builder) -> None:
    """A claim: no two cards next to each other there have the same colour; or every four in a row have all suits."""
    place, how = b.looked_at("place"), b.phrase("how")
    fact, group = ("colour", 2) if how.endswith("colour") else ("suit", 4)
    b.look_through(place, fact)
    read = b.fact_of(fact)

    def failing(cells: Sequence[Any]) -> int | None:
        facts = [read(cells, byte & TOKEN) for byte in place.of(cells)]
        runs = [facts[i : i + group] for i in range(max(1, len(facts) - group + 1))]
        return next((i for i, run in enumerate(runs, start=1) if len(set(run)) < len(run)), None)

    b.check(
        lambda cells: failing(cells) is None,
        lambda cells: f"{place.name} does not {how} at card {failing(cells)}",
    )


def _called(word: str) -> str:
    """A sort as a wording has it: the reader makes *aces* of *ace* or *aces*."""
    return f"({word}|{word.removesuffix('s')})"


@step(
    f"Ends with: all {{sort={'|'.join(sort.many for sort in SORTS.values())}}} of {{place:place}} lie together",
    family="Endings",
    phase=ENDING,
    example="Ends with: all aces of deck lie together",
    wordings=tuple(
        f"[all] [4] {_called(many)} (be|are|lie) together [,] [somewhere|anywhere|wherever] [in {{place}}] => sort={many}; score=3"
        for many in SORTS
        if " " not in many
    ),
)
def ends_sort_together(b: Builder) -> None:
    """A claim: the cards of a sort lie one directly after the other there, with no other between them."""
    place, sort = b.looked_at("place"), SORTS[b.phrase("sort")]
    is_so = b.of_sort(place, sort)

    def holds(cells: Sequence[Any]) -> bool:
        at = [i for i, byte in enumerate(place.of(cells)) if is_so(cells, byte)]
        return not at or at[-1] - at[0] == len(at) - 1

    b.check(holds, lambda cells: f"other cards lie between the {sort.many} of {place.name}")


@step(
    "Ends with: {place:place} has no two cards of the same {what=value|suit}",
    family="Endings",
    phase=ENDING,
    example="Ends with: hand has no two cards of the same value",
)
def ends_unlike(b: Builder) -> None:
    """A claim: among the cards there no two have the same value, or the same suit."""
    place, fact = b.looked_at("place"), b.phrase("what")
    b.look_through(place, fact, in_any_order=True)
    read = b.fact_of(fact)

    def repeated(cells: Sequence[Any]) -> bool:
        facts = [read(cells, byte & TOKEN) for byte in place.of(cells)]
        return len(set(facts)) < len(facts)

    b.check(lambda cells: not repeated(cells), lambda cells: f"two cards of {place.name} have the same {fact}")
