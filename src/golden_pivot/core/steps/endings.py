"""What must come out on every path."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import TYPE_CHECKING, Any

from ..cards import FACE_UP, SUITS, TOKEN, index_of, ordinal
from ..expressions import Number, expression_text
from ..faults import Impossible
from ..language.phrases import list_text
from .control import COMPARISONS
from .declare import ENDING, step

if TYPE_CHECKING:
    from ..building import Builder


@step(
    "Ends with: {spot:spot} is {card:card}",
    family="Endings",
    phase=ENDING,
    example="Ends with: the last card dealt is FORCE",
)
def ends_with(b: Builder) -> None:
    """A claim: on every path this card lies there. *The last card dealt* ends a count, *the next card* follows it.

    A claim is proved when it holds whatever the spectator chooses; else the shortest way in which it fails
    is told and can be played. *The face of* a heap is its bottom card.
    """
    spot, token, card = b.spot("spot"), b.claimed_card("card"), b.phrase("card")

    def holds(cells: Sequence[Any]) -> bool:
        return spot.byte(cells) & TOKEN == token(cells)

    def explain(cells: Sequence[Any]) -> str:
        lies = b.whereabouts(cells, token(cells))
        if spot.kind in ("at", "face", "back"):
            return f"{card} is {lies}, not {spot.text}"
        counted, came = spot.counted(cells), spot.order_of(cells, token(cells))
        if came is None:
            return f"{card} is {lies}, not among the cards counted"
        if spot.kind == "last":
            return f"{card} is {ordinal(came)} but the count ends at {counted}"
        return f"{card} is {ordinal(came)} but the next card is the {ordinal(counted + 1)}"

    b.check(holds, explain)


@step(
    "Ends with: {card:card} is {other:card}", family="Endings", phase=ENDING, example="Ends with: their card is FORCE"
)
def ends_same(b: Builder) -> None:
    """A claim: the card that got one name on the way is the very card that has the other name."""
    # Of the two names the one given in the set-up can be followed from the beginning.
    other, token = b.claimed_card("other"), b.claimed_card("card")
    name, wanted = b.phrase("card"), b.phrase("other")

    def explain(cells: Sequence[Any]) -> str:
        return f"{name} is {b.named(token(cells))}, not {wanted}"

    b.check(lambda cells: token(cells) == other(cells), explain)


@step(
    "Ends with: {spot:spot} is the mate of {card:card}",
    family="Endings",
    phase=ENDING,
    example="Ends with: the next card is the mate of FORCE",
)
def ends_mate(b: Builder) -> None:
    """A claim: the card that lies there is the mate of this one: of the same value and colour, or declared so."""
    spot, mate, card = b.spot("spot"), b.mate("card"), b.phrase("card")

    def explain(cells: Sequence[Any]) -> str:
        return f"the mate of {card} is {b.whereabouts(cells, mate(cells))}, not {spot.text}"

    b.check(lambda cells: spot.byte(cells) & TOKEN == mate(cells), explain)


@step(
    "Ends with: {spot:spot} is {way=face up|face down}",
    family="Endings",
    phase=ENDING,
    example="Ends with: the top card of deck is face up",
)
def ends_facing(b: Builder) -> None:
    """A claim: the card that lies there shows its face, or its back."""
    spot, up = b.spot("spot"), b.phrase("way") == "face up"
    b.ask_faces()
    b.looks_everywhere = True

    def explain(cells: Sequence[Any]) -> str:
        return f"{spot.text} is face {'down' if up else 'up'}"

    b.check(lambda cells: (spot.byte(cells) >= FACE_UP) == up, explain)


@step(
    "Ends with: the top cards of {places:places} have the same {what=value|suit|colour}",
    family="Endings",
    phase=ENDING,
    example="Ends with: the top cards of pile 1, pile 2, pile 3 have the same value",
)
def ends_alike(b: Builder) -> None:
    """A claim: the top cards go together. A card of which nothing is known goes with no other."""
    places, what = b.several("places"), b.phrase("what")
    b.ask_fact(what)
    known = b.fact_of(what)
    b.looks_everywhere = b.facts_everywhere = True

    def tops(cells: Sequence[Any]) -> list[Any]:
        heaps = [place.of(cells) for place in places]
        for place, heap in zip(places, heaps, strict=True):
            if not heap:
                raise Impossible(f"{place.name} has no top card")
        return [known(cells, heap[0] & TOKEN) for heap in heaps]

    def explain(cells: Sequence[Any]) -> str:
        shown = list_text(["not known" if found is None else _named_fact(what, found) for found in tops(cells)])
        return f"the {what}s of the top cards are {shown}"

    b.check(lambda cells: None not in (found := tops(cells)) and len(set(found)) == 1, explain)


def _named_fact(what: str, number: int) -> str:
    return str(number) if what == "value" else (SUITS if what == "suit" else ("black", "red"))[number - 1]


@step(
    "Ends with: {places:places} have the same number of cards",
    family="Endings",
    phase=ENDING,
    example="Ends with: hand, table have the same number of cards",
)
def ends_equal(b: Builder) -> None:
    """A claim: equally many cards lie at each of these places."""
    places = b.several("places")

    def sizes(cells: Sequence[Any]) -> list[int]:
        return [len(place.of(cells)) for place in places]

    def explain(cells: Sequence[Any]) -> str:
        return f"{list_text([f'{p.name} has {n}' for p, n in zip(places, sizes(cells), strict=True)])}"

    b.check(lambda cells: len(set(sizes(cells))) == 1, explain)


@step(
    "Never shows: the {side=face|back} of {card:card}",
    family="Endings",
    phase=ENDING,
    example="Never shows: the back of FORCE",
)
def never_shows(b: Builder) -> None:
    """A claim: from the beginning to here that side of the card is never in sight.

    In sight are the top card of each heap and every card of a row, after each line and card by card during a
    deal, as they lie; and what a line shows. A line marked *shielded* is taken to hide what it does.
    """
    b.never_shows("card", face=b.phrase("side") == "face")


@step("Never shows: an odd back", family="Endings", phase=ENDING, example="Never shows: an odd back")
def never_odd(b: Builder) -> None:
    """A claim: from the beginning to here no card with an odd back is in sight with its back."""
    b.never_shows(None, face=False)


@step(
    "Ends with: {card:card} is {side=directly above|directly below|next to} {other:card}",
    family="Endings",
    phase=ENDING,
    example="Ends with: LOW is directly above their card",
)
def ends_beside(b: Builder) -> None:
    """A claim: both lie at the same place, one directly above the other; *next to* leaves open which."""
    token, other = b.claimed_card("card"), b.card("other")
    name, beside, side = b.phrase("card"), b.phrase("other"), b.phrase("side")
    allowed = {"directly above": (1,), "directly below": (-1,), "next to": (1, -1)}[side]
    places = b.every_place()

    def holds(cells: Sequence[Any]) -> bool:
        for cell in places:
            at, then = index_of(cells[cell], token(cells)), index_of(cells[cell], other(cells))
            if at >= 0 and then >= 0:
                return then - at in allowed
        return False

    def explain(cells: Sequence[Any]) -> str:
        lie = [b.whereabouts(cells, one(cells)) for one in (token, other)]
        return f"{name} is {lie[0]} and {beside} is {lie[1]}"

    b.check(holds, explain)


@step(
    "Ends with: exactly {cards:cards} are reversed in {place:place}",
    family="Endings",
    phase=ENDING,
    example="Ends with: exactly FORCE are reversed in deck",
)
def ends_reversed(b: Builder) -> None:
    """A claim: these cards face one way there and all others the other way, whichever way that is."""
    tokens, place = b.cards("cards"), b.looked_at("place")
    b.ask_faces()
    b.looks_everywhere = True

    def holds(cells: Sequence[Any]) -> bool:
        wanted = {token(cells) for token in tokens}
        heap = place.of(cells)
        mine = {byte >= FACE_UP for byte in heap if byte & TOKEN in wanted}
        others = {byte >= FACE_UP for byte in heap if byte & TOKEN not in wanted}
        there = sum(byte & TOKEN in wanted for byte in heap) == len(wanted)
        return there and len(mine) == 1 and len(others) <= 1 and not mine & others

    def explain(cells: Sequence[Any]) -> str:
        up = sum(byte >= FACE_UP for byte in place.of(cells))
        return (
            f"{up} of the {len(place.of(cells))} cards in {place.name} are face up, and not just these the other way"
        )

    b.check(holds, explain)


@step(
    "Ends with: {left:number} {is=is more than|is less than|is at least|is at most|is not|is} {right:number}",
    family="Endings",
    phase=ENDING,
    example="Ends with: size of deck is value of their card",
)
def ends_number(b: Builder) -> None:
    """A claim about numbers: sizes of heaps, values of cards, what was chosen. Nobody needs to know them yet."""
    left, right = b.truth("left"), b.truth("right")
    compare, said = COMPARISONS[b.phrase("is")], [_side(b, slot) for slot in ("left", "right")]

    def explain(cells: Sequence[Any]) -> str:
        return f"{said[0](left(cells))} but {said[1](right(cells))}"

    b.check(lambda cells: compare(left(cells), right(cells)), explain)


def _side(b: Builder, slot: str) -> Callable[[int], str]:
    expression = b.line.values[slot]
    text = expression_text(expression)
    return lambda number: text if isinstance(expression, Number) else f"{text} is {number}"


@step(
    "Ends with: the faces of {place:place} tell {names:names}",
    family="Endings",
    phase=ENDING,
    example="Ends with: the faces of deck tell v",
)
def ends_told(b: Builder) -> None:
    """A claim: whoever looks through the cards at the end can say these numbers, however secretly they were chosen.

    It fails where two ways of choosing leave the same faces in the same order and differ in one of the numbers.
    """
    place = b.looked_at("place")
    b.ask_fact("card")
    b.looks_everywhere = b.facts_everywhere = True
    token_of = b.face_token
    numbers = [b.number_by_name("names", name) for name in b.line.values["names"]]

    placed = b.tokens_of_set_up()

    def face(cells: Sequence[Any], token: int) -> int:
        return token_of(cells, token) or placed.get(token, 0)

    def seen(cells: Sequence[Any]) -> bytes:
        return bytes(face(cells, byte & TOKEN) | byte & FACE_UP for byte in place.of(cells))

    b.check_tells(seen, lambda cells: tuple(number(cells) for number in numbers))


@step(
    "Ends with: each column of {places:places} has one {what=value|suit|colour}",
    family="Endings",
    phase=ENDING,
    example="Ends with: each column of row 1, row 2, row 3 has one suit",
)
def ends_columns(b: Builder) -> None:
    """A claim: in rows laid below each other, the cards of each column go together."""
    places, what = b.several("places"), b.phrase("what")
    b.ask_fact(what)
    known = b.fact_of(what)
    b.looks_everywhere = b.facts_everywhere = True

    def columns(cells: Sequence[Any]) -> list[list[int | None]]:
        rows = [place.of(cells) for place in places]
        if len({len(row) for row in rows}) > 1:
            raise Impossible("the rows are not equally long")
        return [[known(cells, byte & TOKEN) for byte in column] for column in zip(*rows, strict=True)]

    def alike(column: list[int | None]) -> bool:
        return None not in column and len(set(column)) == 1

    def explain(cells: Sequence[Any]) -> str:
        at, column = next((i, c) for i, c in enumerate(columns(cells), start=1) if not alike(c))
        shown = list_text(["not known" if found is None else _named_fact(what, found) for found in column])
        return f"the {what}s in column {at} are {shown}"

    b.check(lambda cells: all(map(alike, columns(cells))), explain)


@step(
    "Ends with: the cards of {place:place}, two by two from the top, are mates",
    family="Endings",
    phase=ENDING,
    example="Ends with: the cards of deck, two by two from the top, are mates",
)
def ends_pairs(b: Builder) -> None:
    """A claim: the top two are mates, the next two, and so on to the end, whichever of a pair is on top."""
    place = b.looked_at("place")
    mates = b.all_mates()

    def strangers(cells: Sequence[Any]) -> int | None:
        heap = place.of(cells)
        pairs = [(heap[i] & TOKEN, heap[i + 1] & TOKEN if i + 1 < len(heap) else -1) for i in range(0, len(heap), 2)]
        return next((i for i, (one, other) in enumerate(pairs, start=1) if mates.get(one) != other), None)

    def explain(cells: Sequence[Any]) -> str:
        return f"the {ordinal(strangers(cells) or 0)} pair of {place.name} are no mates"

    b.check(lambda cells: strangers(cells) is None, explain)


@step(
    "Ends with: in every {size:number} cards of {place:place} from the top all {what=values|suits|colours} are"
    " {how=different|the same}",
    family="Endings",
    phase=ENDING,
    example="Ends with: in every 2 cards of deck from the top all colours are different",
)
def ends_groups(b: Builder) -> None:
    """A claim: the first so many cards, the next so many, and so on to the end, go together or are all unlike.

    The heap must be made up of whole groups. A card of which nothing is known is like no other and unlike none.
    """
    place, size, what = b.looked_at("place"), b.constant("size"), b.phrase("what").removesuffix("s")
    if size < 2:
        raise b.fault("size", f"Groups of {size} say nothing.", "2 or more", "Change the number.")
    b.ask_fact(what)
    known, alike = b.fact_of(what), b.phrase("how") == "the same"
    b.looks_everywhere = b.facts_everywhere = True

    def failing(cells: Sequence[Any]) -> int | None:
        facts = [known(cells, byte & TOKEN) for byte in place.of(cells)]
        if len(facts) % size:
            raise Impossible(f"the {len(facts)} cards of {place.name} are not groups of {size}")
        groups = [facts[i : i + size] for i in range(0, len(facts), size)]
        wanted = 1 if alike else size
        return next((i for i, group in enumerate(groups, 1) if None in group or len(set(group)) != wanted), None)

    how = b.phrase("how")

    def explain(cells: Sequence[Any]) -> str:
        return f"the {what}s of the {ordinal(failing(cells) or 0)} group of {place.name} are not all {how}"

    b.check(lambda cells: failing(cells) is None, explain)


@step(
    "Ends with: {place:place} is in the order noted",
    family="Endings",
    phase=ENDING,
    example="Ends with: deck is in the order noted",
)
def ends_in_order(b: Builder) -> None:
    """A claim: the cards there are those whose order was noted, each at the position it had, whichever way up."""
    place = b.looked_at("place")
    token, position = b.watched("place")
    b.looks_everywhere = True

    def now(cells: Sequence[Any]) -> int:
        return index_of(place.of(cells), token(cells)) + 1

    def explain(cells: Sequence[Any]) -> str:
        lies = f"is {ordinal(now(cells))} in {place.name}" if now(cells) else f"is not in {place.name}"
        return f"the card that was {ordinal(position(cells))} {lies}"

    b.check(lambda cells: now(cells) == position(cells), explain)


@step("Odds of {number:number}", family="Endings", phase=ENDING, example="Odds of number of piles")
def odds_of(b: Builder) -> None:
    """Not a claim: how often this number comes out as what is worked out beside the verdict.

    Exact where that can be done, else from many paths drawn at random, with an interval. What the spectator
    decides leaves a range from least to most, unless a line says that all choices are equally likely.
    """
    number = b.truth("number")
    b.ask_odds(expression_text(b.line.values["number"]), number)


@step(
    "Odds: every choice is equally likely",
    family="Endings",
    phase=ENDING,
    example="Odds: every choice is equally likely",
)
def odds_model(b: Builder) -> None:
    """For the odds, what the spectator decides is taken at random. The proof still covers every choice."""
    b.equally_likely = True
