"""What must come out on every path."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import TYPE_CHECKING, Any

from ..cards import FACE_UP, SUITS, TOKEN, index_of
from ..english import list_text, ordinal
from ..language.expressions import CardFact, Number, SpotFact, expression_text
from ..language.facets import Facet
from .comparing import COMPARISONS, compared
from .declare import ENDING, step

if TYPE_CHECKING:
    from ..building import Builder


@step(
    "Ends with: {spot:spot} is {card:card}",
    family="Endings",
    phase=ENDING,
    example="Ends with: the last card dealt is FORCE",
    says="Turn over {spot}.",
    facets=(Facet.CLAIMS_CARD_AT,),
    wordings=(
        "[you|they|deal|count] (finish|end|stop) (on|at|with) {card} => spot=the last card dealt; score=1",
        "{card} have (come|go|get|travel|rise) to {spot} => score=1",
        "{card} lie {spot} => score=0.5",
        "(end|finish|climax|reveal|finale) : {spot} be {card} => score=2",
        "(end|finish|climax|reveal|finale) : {card} be {spot} => score=2",
        "{card} be (look up|look) [up] at them => spot=its top; place=focus; score=1",
        "{card} {spot} => score=-1",
        "there be {card} {spot} => score=-1",
        "{spot} , {card} => score=-2",
        "{spot} (turn out to be|prove to be|be find to be) {card}",
        "{card} be (find|see) {spot}",
        "{spot} and it be {card}",
        "it be {card} => spot=turned; score=-5",
        "{card} (be|is|end up|finish|land) {spot}",
        "{card} (be|is|end up|finish|land) [on|at] {spot}",
        "{spot} (be|is|will be|turn out to be|have to be|must be) {card}",
        "{spot} [they put down] be {card}",
        "{card} [will] (be|is|lie) (on|at) {spot}",
        "only card (left|leave) (be|is) {card} => spot=the last card dealt; score=2",
        "{card} be on {place} => spot=its top; score=1",
        "{spot} (be|is) (theirs|their) => card=theirs; score=1",
        "{card} (look|be looking) up at them => spot=turned; score=-1",
    ),
)
def ends_with(b: Builder) -> None:
    """A claim: on every path this card lies there. *The last card dealt* ends a count, *the next card* follows it.

    A claim is proved when it holds whatever the spectator chooses; else the shortest way in which it fails
    is told and can be played. *The face of* a heap is its bottom card.
    """
    lies_at(b)


def lies_at(b: Builder) -> None:
    """The card lies at the spot; why not, by how the spot is told."""
    spot, token, card = b.spot("spot"), b.claimed_card("card"), b.phrase("card")

    def holds(cells: Sequence[Any]) -> bool:
        return spot.byte(cells) & TOKEN == token(cells)

    def explain(cells: Sequence[Any]) -> str:
        lies = b.whereabouts(cells, token(cells))
        if spot.kind not in ("next", "last"):
            return f"{card} is {lies}, not {spot.text}"
        counted, came = spot.counted(cells), spot.order_of(cells, token(cells))
        if came is None:
            return f"{card} is {lies}, not among the cards counted"
        if spot.kind == "last":
            return f"{card} is {ordinal(came)} but the count ends at {counted}"
        return f"{card} is {ordinal(came)} but the next card is the {ordinal(counted + 1)}"

    b.check(holds, explain)


@step(
    "Ends with: {card:card} is {other:card}",
    family="Endings",
    phase=ENDING,
    example="Ends with: their card is FORCE",
    wordings=(
        "{card} (be|is) [none other than] {other} => score=1",
        "{card} turn out to be {other} => score=1",
    ),
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
    says="Turn over {spot}.",
    wordings=(
        "{spot} match {card} [in value and colour] => score=2",
        "{spot} (be|is) (mate|twin|partner) of {card} => score=2",
        "{spot} (be|is) {card} 's (mate|twin|partner) => score=2",
    ),
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
    wordings=(
        "{spot} (be|is) (stare|staring|look|looking) up [at them] => way=face up; score=2",
        "{spot} (be|is|lie) face up => way=face up",
        "{spot} (be|is|lie) face down => way=face down",
    ),
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
    "Ends with: {count:number} {#count} of {place:place} (are|is) {way=face up|face down}",
    family="Endings",
    phase=ENDING,
    example="Ends with: 2 cards of deck are face up",
    wordings=(
        "(no|none|not a|not 1) card of {place} (be|is) face up => count=0; way=face up; score=2",
        "(no|none|not a|not 1) card of {place} (be|is) face down => count=0; way=face down; score=2",
        "{count} cards turn out [to be] face up [in {place}] => way=face up; score=1",
        "{count} cards (prove|turn out) to be (reverse|face up) [in {place}] => way=face up; score=1",
        "{count} cards (show|have) [their] (face|faces) [in|of] {place} => way=face up; score=1",
        "[spread] [:] [exactly] {count} cards be face up [in {place}] [, {n} face down] => way=face up; score=2",
        "[exactly] {count} [of] {place} be face up => way=face up; score=1",
        "[spread] [,] [exactly] {count} cards (be|are) (wrong way up|face up|upside down|reverse|reversed) [in {place}] [, {other} face down] => way=face up; score=1",
        "[exactly] {count} cards (be|are) face down [in {place}] => way=face down; score=1",
        "[exactly] {count} cards are face up , 4 face down => way=face up",
    ),
)
def ends_so_many_facing(b: Builder) -> None:
    """A claim: exactly so many cards there show their faces, or their backs."""
    count, place, up = b.truth("count"), b.looked_at("place"), b.phrase("way") == "face up"
    b.ask_faces()
    b.asks_which_are_in(place)

    def facing(cells: Sequence[Any]) -> int:
        return sum((card >= FACE_UP) == up for card in place.of(cells))

    def explain(cells: Sequence[Any]) -> str:
        return f"{facing(cells)} of {place.name} are face {'up' if up else 'down'}"

    b.check(lambda cells: facing(cells) == count(cells), explain)


@step(
    "Ends with: {places:places} have the same number of cards",
    family="Endings",
    phase=ENDING,
    example="Ends with: hand, table have the same number of cards",
    wordings=(
        "there be as many cards (in|on) hand as (in|on) table => places=hands; score=3",
        "there be as many cards (in|on) table as (in|on) hand => places=hands; score=3",
        "(2|both) (packets|heaps|piles|hands|halves) be equal [in] [number|size|cards] => places=hands; score=3",
        "(both|2) (packets|heaps|piles|hands|halves) (have|hold|contain|be) (same number|same number of cards|equally many|equally many cards|equal|as many cards) => places=hands; score=3",
        "{places} (have|hold|contain) (same number|equally many|as many as each other) => score=1",
        "both have same number of cards => places=hands; score=4",
        "(you both|both of you|you and they|they and you) have same number of cards => places=hands; score=2",
        "{places} (have|hold|contain) (same number of cards|equally many cards|as many cards) => score=2",
        "{places} are equal [in size]",
    ),
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
    facets=(Facet.FORBIDS,),
    wordings=(
        "never (let|allow) (them|anybody|anyone|people) [to] see face of {card} => side=face; score=2",
        "never (let|allow) (them|anybody|anyone|people) [to] see back of {card} => side=back; score=2",
        "(back|rear) of {card} (must not|be not to|may not|should not|cannot) (show|be see|be seen) => side=back; score=2",
        "face of {card} (must not|be not to|may not|should not|cannot) (show|be see|be seen) => side=face; score=2",
        "(do not|never) show (back) of {card} => side=back; score=2",
        "(do not|never) show (face) of {card} => side=face; score=2",
        "(at no time|never) (be|is) (back of {card}) (see|seen|in sight|show) => side=back; score=2",
        "at no time be back of {card} see => side=back; score=3",
        "at no time be face of {card} see => side=face; score=3",
        "nobody (ever|may|must) [ever] see (back) of {card} => side=back; score=2",
        "nobody (ever|may|must) [ever] see (face) of {card} => side=face; score=2",
        "back of {card} (be|is) never (see|seen|show) => side=back; score=2",
        "see back of {card} at no time => side=back",
    ),
)
def never_shows(b: Builder) -> None:
    """A claim: from the beginning to here that side of the card is never in sight.

    In sight are the top card of each heap and every card of a row, after each line and card by card during a
    deal, as they lie; and what a line shows. A line marked *shielded* is taken to hide what it does.
    """
    b.never_shows("card", face=b.phrase("side") == "face")


@step(
    "Never shows: an odd back",
    family="Endings",
    phase=ENDING,
    example="Never shows: an odd back",
    facets=(
        Facet.FORBIDS,
        Facet.FORBIDS_ODD_BACKS,
    ),
    wordings=(
        "no (off-coloured|odd|other|different|strange) back [be|is] ever (in sight|see|show|visible) => score=2",
        "no (off-coloured|odd) back (show|shows) => score=2",
    ),
)
def never_odd(b: Builder) -> None:
    """A claim: from the beginning to here no card with an odd back is in sight with its back."""
    b.never_shows(None, face=False)


@step(
    "Ends with: {card:card} is {side=directly above|directly below|next to} {other:card}",
    family="Endings",
    phase=ENDING,
    example="Ends with: LOW is directly above their card",
    wordings=(
        "{card} (be|is|lie|lies) [right|directly|immediately] (above|ontop|ontop of|ontop of) {other} => side=directly above; score=2",
        "{card} (be|is|lie|lies) [right|directly|immediately] (below|under|beneath) {other} => side=directly below; score=2",
        "{card} (be|is|lie|lies) [card] (right|directly|immediately) (after|behind|following) {other} => side=directly below; score=2",
        "card (right|directly|immediately) (after|behind|under|below|beneath|following) {other} (be|is) {card} => side=directly below; score=2",
        "card (right|directly|immediately) (before|above|over) {other} (be|is) {card} => side=directly above; score=2",
        "card (next to|beside) {other} (be|is) {card} => side=next to; score=2",
        "2 cards lie (next to 1 another|side by side|together|next to one another) => card=last2; side=next to; score=2",
        "{card} (be|is|lie|lies) (next to|beside) {other} => side=next to; score=2",
    ),
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
    "Ends with: exactly {cards:together} (are|is) reversed in {place:place}",
    family="Endings",
    phase=ENDING,
    example="Ends with: exactly FORCE are reversed in deck",
    says="Look through {place}. Which cards are reversed?",
    wordings=(
        "only {cards} (be|is|are) (wrong way round|reverse|reversed|face up|upside down|wrong way up) [in {place}] => score=2",
        "{cards} (be|is) only [1|card|reversed card] (wrong way round|reverse|reversed|card face up) [in {place}] => score=2",
        "exactly {cards} (be|is) reversed [in {place}]",
    ),
)
def ends_reversed(b: Builder) -> None:
    """A claim: these cards face one way there and all others the other way, whichever way that is."""
    tokens, place = b.cards("cards"), b.looked_at("place")
    names = b.line.values["cards"]
    b.ask_faces()
    b.asks_which_are_in(place)

    def holds(cells: Sequence[Any]) -> bool:
        wanted = {token(cells) for token in tokens}
        heap = place.of(cells)
        mine = {byte >= FACE_UP for byte in heap if byte & TOKEN in wanted}
        others = {byte >= FACE_UP for byte in heap if byte & TOKEN not in wanted}
        there = sum(byte & TOKEN in wanted for byte in heap) == len(wanted)
        return there and len(mine) == 1 and len(others) <= 1 and not mine & others

    def explain(cells: Sequence[Any]) -> str:
        up = sum(byte >= FACE_UP for byte in place.of(cells))
        lying = {byte & TOKEN for byte in place.of(cells)}
        if elsewhere := [name for name, token in zip(names, tokens, strict=True) if token(cells) not in lying]:
            return f"{list_text(elsewhere)} {'is' if len(elsewhere) == 1 else 'are'} not in {place.name}"
        return (
            f"{up} of the {len(place.of(cells))} cards in {place.name} are face up, and not just these the other way"
        )

    b.check(holds, explain)


@step(
    "Ends with: {left:number} {is=is more than|is less than|is at least|is at most|is not|is} {right:number}",
    family="Endings",
    phase=ENDING,
    example="Ends with: size of deck is value of their card",
    facets=(Facet.HAS_CASE, Facet.HAS_LIMIT),
    wordings=(
        "[there be] as many face up cards (in|on) {here} as (in|on) {there} => left=faces; is=is; score=4",
        "{here} have as many face up cards as {there} => left=faces; is=is; score=4",
        "{here} (have|hold|contain) as many reds as {there} (have|hold|contain) blacks => left=reds; is=is; score=4",
        "[there be] as many (reds|red cards) (in|on) {here} as [there be] (blacks|black cards) (in|on) {there} => left=reds; is=is; score=4",
        "(1 half|1 packet|1 heap) have as many reds as other [half|packet|heap] have blacks => left=reds; is=is; score=4",
        "{left} be (more than|over|above|greater than) {right} => is=is more than; score=0",
        "{left} be (less than|under|below|fewer than|smaller than) {right} => is=is less than; score=0",
        "{left} be at least {right} => is=is at least; score=0",
        "{left} be at most {right} => is=is at most; score=0",
        "[there be] (a single|only 1|1|just 1) (pile|heap|packet) [left] => left=number of piles; right=1; is=is; score=1",
        "they (hold|have) [exactly] {right} [cards] [, which be what pad say] => left=size of hand; is=is; score=1",
        "(be hold|hold) {right} [cards] ... => left=size of hand; is=is; score=0.5",
        "{place} (have|hold|contain) {right} cards => left=size; is=is; score=1",
        "[exactly] {right} cards (remain|remains|are left|be left|left) [in {place}] => left=size; is=is; score=1",
        "{place} (hold|have|contain) as many cards as (you|i) predict => left=size; is=is; right=prediction; score=2",
        "{place} (hold|have|contain|has) [exactly] {right} [cards] => left=size; is=is; score=1",
        "2 face up cards on piles add up to {right} => left=tops; is=is; score=3",
        "they (be|are|have|hold) [now] hold {right} [,] ... => left=size of hand; is=is; score=1",
        "{left} (be|is) {right} => is=is; score=-2",
    ),
)
def ends_number(b: Builder) -> None:
    """A claim about numbers: sizes of heaps, values of cards, what was chosen. Nobody needs to know them yet."""
    if b.goes_by_outcome:
        b.check(compared(b), lambda _: "")
        return
    left, right = b.truth("left"), b.truth("right")
    wanted = b.phrase("is")
    compare, must = COMPARISONS[wanted], "must not be" if wanted == "is not" else wanted.replace("is", "must be", 1)
    of_suits = any(
        isinstance(e, CardFact | SpotFact) and e.what == "suit" for e in map(b.line.values.get, ("left", "right"))
    )
    said = [_side(b, slot, joint, of_suits) for slot, joint in (("left", " is "), ("right", ", "))]

    def explain(cells: Sequence[Any]) -> str:
        return f"{said[0](left(cells))}, but {must} {said[1](right(cells))}"

    b.check(lambda cells: compare(left(cells), right(cells)), explain)


def _side(b: Builder, slot: str, joint: str, of_suits: bool) -> Callable[[int], str]:
    """One side of a comparison in words; suits by their names."""
    expression = b.line.values[slot]
    text = expression_text(expression)

    def shown(number: int) -> str:
        return SUITS[number - 1] if of_suits and 1 <= number <= len(SUITS) else str(number)

    return lambda number: shown(number) if isinstance(expression, Number) else f"{text}{joint}{shown(number)}"


@step(
    "Ends with: {place:place} is in the order noted",
    family="Endings",
    phase=ENDING,
    example="Ends with: deck is in the order noted",
    facets=(Facet.OF_ALL_PATHS,),
    wordings=(
        "{place} be in (order|same order) [that] it (have|be in) at (1st|first|start|beginning) => score=2",
        "{place} be in [its] (order|same order) as (before|at start|at first|at beginning) => score=2",
        "(whole deck|deck|pack|whole pack) (be|is) [back] (way it start|in order it start|in its [old|1st] order|as it be|in order note|as it was) => place=deck; score=2",
        "{place} be back in [its|their] [1st|old|original|starting] order => score=2",
        "deck be back way it start => place=deck; score=3",
        "every card be back where it (be|start) => place=deck",
    ),
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
