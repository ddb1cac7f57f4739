"""Cards that are thought of, taken, remembered, shown."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from ..cards import FACE_UP, index_of
from ..english import ordinal
from ..faults import Impossible
from ..language.expressions import expression_text
from ..language.facets import Facet
from ..language.templates import SPECTATOR
from ..search.program import Cells
from .comparing import COMPARISONS
from .declare import freely, step

if TYPE_CHECKING:
    from ..building import Builder
    from ..building.places import Place
    from ..building.spots import FoundSpot


@step(
    "Spectator thinks of a card in {place:place}: {card:card}",
    family="Cards",
    example="Spectator thinks of a card in deck: their card",
    says="Think of one of the cards in {place}.",
    sees="the faces of {place}",
    facets=(Facet.FACE_NEEDED,),
    free=freely("You thought of any card you liked"),
    by=SPECTATOR,
    wordings=(
        "(peek at|peek|look at|note|remember) (any|a|1) card [in {place}|of {place}] [and] [remember it|leave it where it be] => who=spectator; card=new; score=0.5",
        "think of 1 [of them|of these|they see] => who=spectator; card=new; score=1",
        "(think of|think|think about|note) [of] (a card|any card|1 of cards|any 1|1|a card of their choice|1 of them|1 of these|1 of those) [they see] [as you spread {place}|as i spread {place}|as you spread them] => who=spectator; card=new",
        "think of 1 of {place} [of] => who=spectator; card=new; score=1",
        "think of (a|any|1) card (in|of|from|among) {place} => who=spectator; card=new; score=2",
        "think of 1 of (these|them|those) => who=spectator; card=new; place=moved; score=2",
        "think [of] 1 of cards in {place} [of] => who=spectator; card=new; score=2",
        "think of 1 of cards (they hold|in their hand|they see there) => who=spectator; card=new; place=moved; score=2",
        "(fix|settle) on a card in (mind|their mind) => who=spectator; card=new",
        "(have|keep) a card in mind => who=spectator; card=new",
    ),
)
def think_of(b: Builder) -> None:
    """Any card of the heap; nothing is touched, and you do not learn which. From here on it has a name."""
    place = b.source("place")
    position = b.choose_card(b.phrase("card"), place)
    named = b.name_card("card")

    def run(cells: Cells) -> None:
        b.take_name(named, cells, place.find(cells), position(cells) - 1)

    b.act(run)


def _lay_on(cells: Cells, place: int, at: int, to: Place) -> None:
    """The card at an index of a place goes, as it is, on the cards at another."""
    heap, there = cells[place], to.of(cells)
    cells[place] = heap[:at] + heap[at + 1 :]
    to.put(cells, heap[at : at + 1] + there)


@step(
    "Spectator takes a card from {from:place} to {to:place}: {card:card}[, not {others:cards}]",
    family="Cards",
    example="Spectator takes a card from deck to hand: their card",
    says="Take any card from {from} {>to}.",
    sees="the card taken",
    facets=(Facet.FACE_NEEDED,),
    free=freely("You took any card you liked"),
    by=SPECTATOR,
    wordings=(
        "TAKE (a|any) card [,] look at it [,] any card => who=spectator; card=new; score=1",
        "TAKE card [,] look [at it] => who=spectator; card=new; score=0.5",
        "TAKE (a|any) card they (wish|like|want|please|fancy) => who=spectator; card=new; score=1",
        "[in their mind|in thought|mentally] (pick|choose|select) a card they see [in {place}] => who=spectator; card=new; score=-3",
        "TAKE (a|any) card [,] look [at it] [and] [keep it|remember it|hold it] => who=spectator; card=new; score=1",
        "TAKE (a|any|1) [card] (from|out of|of) [a|fan|spread] [fan|spread|deck] [,] [and] [look at it|look at|remember it|note it] => who=spectator; card=new; score=1",
        "TAKE (a|any|1) [card] [,] [and] LOOK [at] [it] [,] [and] [keep it|put it away|lay it {down}|put it {down}|{down}] => who=spectator; card=new; score=1",
        "TAKE (a|any|1) [card] [,] [and] LOOK [at] [it] [,] [and] (put|lay|set|place) [it] {down} => who=spectator; card=new; score=2",
        "have (1|a card|card) TAKE [,] [and] [LOOK] [at] [it] [,] [and] [put|lay|set|place] [it] {down} => who=spectator; card=new; score=2",
        "have (1|a card|card) TAKE [,] [and] LOOK [at] [it] => who=spectator; card=new; score=1",
        "TAKE (a|any) card and LOOK [at] it => who=spectator; card=new; score=1",
        "(a|any|1) card (be|get) [freely] TAKE [from {from}] => who=spectator; card=new; score=1",
        "(fan|spread) {from} (for|so that|and have) a card [to be|can be] choose => who=spectator; card=new; score=1",
        "(offer|spread|fan) {from} and have a card (choose|take|select|pick) => who=spectator; card=new; score=1",
        "TAKE (a|any) card [,] [any card] [at all] [and look at it|and look at|and remember it|and look at it and remember it|and look] [from {from}] => who=spectator; card=new",
        "TAKE (a|any) card [from {from}] [and look at it|and look at] => who=spectator; card=new",
        "TAKE any card (except|but) {others} => who=spectator; card=new; score=1",
        "TAKE a card and (remember|look at|look at and remember) it => who=spectator; card=new",
        "have a card (select|choose|pick|take) => who=spectator; card=new",
    ),
)
def take_card(b: Builder) -> None:
    """Any card of the heap is taken out and laid, as it is, on the cards at another place. It gets a name.

    Cards named after *not* are never taken: they are yours to keep in play.
    """
    source = b.source("from")
    to = b.destination("to", apart_from=source)
    position = b.choose_card(b.phrase("card"), source, b.cards("others"))
    named = b.name_card("card")

    def run(cells: Cells) -> None:
        place, at = source.find(cells), position(cells) - 1
        b.take_name(named, cells, place, at)
        _lay_on(cells, place, at, to)

    b.act(run, handled=lambda cells: 1, to=to)


MOST_TAKEN = 12
"""cards that can be taken from anywhere in one line"""


@step(
    "{who} take+s any {count:number} {#count} of {from:place} to {to:place}",
    family="Cards",
    example="Spectator takes any 3 cards of deck to hand",
    says="Take any {count} {#count} from {from} {>to}.",
    free=freely("You took any cards you liked"),
    wordings=(
        "TAKE {count} cards [out of {from}|from {from}] (at random|anywhere|from anywhere|from different places) => score=1",
        "TAKE {count} cards from (different places|here and there|anywhere) [in {from}] => score=1",
        "TAKE any {count} [of] [cards|of them|them] [out of {from}|from {from}] => score=1",
        "TAKE {count} [cards|of them] => needs=any",
        "TAKE {count} [of] (cards|them|them ,) (they like|whichever they like|at random|from here and there|from anywhere|from wherever they like|, whichever they like) => score=1",
        "TAKE {count} cards (from here and there|from all over)",
        "TAKE {count} of {from} [,] whichever they like => score=1",
    ),
)
def take_any(b: Builder) -> None:
    """So many cards from anywhere in the heap are laid on the cards at another place; among them the order is kept.

    Whoever takes them, every selection must work.
    """
    count, source = b.constant("count"), b.source("from")
    to = b.destination("to", apart_from=source)
    if not 1 <= count <= MOST_TAKEN:
        raise b.fault("count", f"{count} cards cannot be taken so.", f"from 1 to {MOST_TAKEN}", "Change the number.")
    taken = b.hidden_place("taken")

    def said(cells: Sequence[Any], at: int) -> str:
        return f"{ordinal(at)} of those left in {source.name}"

    others, last = set(b.reads), None
    for left in range(count - 1, -1, -1):
        # Each lies further down than the one before, so that every selection comes once.
        def options(cells: Sequence[Any], left: int = left, last: int | None = last) -> Sequence[int]:
            size = len(source.of(cells))
            b.within_heap(source, left + 1, size)
            return range(cells[last] if last else 1, size - left + 1)

        b.reads = others | ({last} if last else set())
        b.choose_unnamed(f"card in line {b.line.number}", "the next card taken", True, options, said)
        (last,) = b.reads - others - {last}
        b.reads = others | {last}

        def run(cells: Cells, last: int = last) -> None:
            heap, index = source.of(cells), cells[last] - 1
            source.put(cells, heap[:index] + heap[index + 1 :])
            taken.put(cells, taken.of(cells) + heap[index : index + 1])

        b.act(run, lambda cells: 1)
    b.reads = others
    b.put_back(taken, to)


@step(
    "{who} take+s {spot:spot} to {to:place}[: {card:card}]",
    family="Cards",
    example="Spectator takes the 7th card of deck to hand: their card",
    says="Take {spot} {>to}.",
    wordings=(
        "(give|hand|pass) they {spot} => who=spectator; score=0",
        "(give|hand|pass) them {spot} => who=spectator; score=0",
        "(lay|put|set|place) aside {spot} [without anybody seeing it|without show it|unseen|without look at it] => to=aside; score=1",
        "(lay|put|set|place) {spot} aside [without anybody see it|without show it|unseen|without look at it] => to=aside; score=1",
        "TAKE {spot} (without show it|without showing it|unseen|without look at it) [and keep it|and hold it|and hold on to it|and put it aside] => score=1",
        "(put|slip|slide|drop) {spot} (in|into) {to} [,] [they|after they] (look at it|see it|remember it|note it) [1st|before] => card=new; who=spectator; score=2",
        "{spot} (go|be put|be slip|be place) (in|into|on|to) {to} [,] (they|they have) (look at|see|remember|note) it [1st|before] => card=new; who=spectator; score=2",
        "LOOK [at] {spot} and (put|slip|lay|place|hide|drop|keep) it (in|into|on|onto|to) {to} => card=new; score=2",
        "{spot} (go|be put|be slip|be place|be lay) (in|into|on|to|onto) {to} => score=0.5",
        "TAKE {spot} and (put|place|lay|set|drop) it (at|on|in|to|into|onto) {to} => score=1",
        "TAKE {spot} and (look at|remember|look at and remember|note) it => card=new; score=1",
        "(give|hand) {spot} to them => who=spectator; score=-1",
        "TAKE {spot} [and keep it]",
        "TAKE {spot} as (theirs|their) => card=new; score=1",
        "(keep|have) {spot} => score=0",
        "(put|place|lay|set|deal|slide|drop) {spot} (to|in|into|on|onto|at) {to} => score=-0.5",
        "(put|place|lay|set) {spot}",
        "{spot} (to|into|in) {to}",
        "{spot} (go|goes) (to|into|in|on|aside) [{to}]",
        "(hand|give|pass) them {spot} => who=spectator; card=new",
    ),
)
def take_from(b: Builder) -> None:
    """The card that lies there is taken out and laid, as it is, on the cards at another place. It may get a name."""
    spot = b.spot("spot")
    to = b.destination("to", apart_from=spot.place)
    named = b.name_card("card") if b.given("card") else None
    b.touches |= spot.place.cells

    def run(cells: Cells) -> None:
        place, at = spot.find(cells)
        if named is not None:
            b.take_name(named, cells, place, at)
        _lay_on(cells, place, at, to)

    b.act(run, handled=lambda cells: 1, to=to)


@step(
    "{who} remember+s {spot:spot}: {card:card}",
    family="Cards",
    example="Spectator remembers the bottom card of hand: their card",
    says="Look at {spot} and remember it.",
    sees="{spot}",
    facets=(
        Facet.DOER_SEES,
        Facet.SPECTATOR_SEES,
        Facet.GLIMPSE,
    ),
    wordings=(
        "LOOK [at] last deal card [and] [remember it|note it] => card=new; spot=the last card dealt; score=1",
        "LOOK [at] card (they|you) (stop|end|finish) (at|on|with) [and] [remember it] => card=new; spot=the last card dealt; score=1",
        "(sight|spot|know|learn|secure|register) {spot} => card=new",
        "LOOK [at] {spot} [and] [remember it|note it|keep it in mind|bear it in mind] => card=new",
        "(see|spot|learn|know|get|secure|catch) {spot} => card=new; score=-1",
        "LOOK [at] {spot} [,] [without] [anyone|anybody] [notice|see] => card=new; score=1",
        "LOOK {spot} and (remember|note) it as my (key|key card) => card=new; score=1",
        "LOOK {spot} as my key [card] => card=new; score=1",
        "(remember|note|memorise) what {spot} be => card=new",
        "{spot} be my key [card] => card=new; score=-1",
        "(take|sneak|steal) [a] (peek|look|glimpse) at {spot} => card=new; score=1",
        "learn {spot} => card=new",
        "lift {spot} and look at it => card=new; score=-1",
        "(take|have) [a] [good] look at {spot} [and remember it] => card=new; score=2",
        "see {spot} => card=new; score=-1",
        "LOOK {spot} [and remember it|and remember] => card=new",
        "LOOK at {spot} [and remember it] => card=new",
        "(look at|look) {spot} and (remember|note|memorise) it => card=new",
        "commit {spot} to memory => card=new",
        "{spot} commit to memory => card=new",
        "LOOK {spot} as (it pass|you pass) => card=new",
        "remember card that lie at {number} => card=new",
        "(remember|note|look at) {spot} [,] (their card|which be their card|that be their card) => card=new",
        "LOOK {card} at {spot}",
    ),
)
def remember(b: Builder) -> None:
    """The card that lies there is looked at and gets a name. It stays where it is."""
    names_where_it_lies(b)


def names_where_it_lies(b: Builder) -> FoundSpot:
    """The card at the spot of the line gets the name in the slot `card`; nothing moves."""
    spot = b.spot("spot")
    named = b.name_card("card")
    b.changed_where_it_lies(spot.place)

    def run(cells: Cells) -> None:
        b.take_name(named, cells, *spot.find(cells))

    b.act(run)
    return spot


@step(
    "{who} show+s {spot:spot}",
    family="Cards",
    example="Show the next card",
    says="Show us {spot}.",
    shows=True,
    facets=(Facet.DOER_SEES,),
    wordings=(
        "(let|have) all (see|look at) {spot} => score=1",
        "(let|have) (everybody|everyone|people|them|them all) (see|look at) {spot} => score=1",
        "(everybody|everyone|people|them all) (see|look at) {spot} => score=0.5",
        "SHOW {spot} (round|around|about|to all|to everyone|to everybody|to them|to people)",
        "(display|flash) {spot} [to] [all|everyone|everybody|them|people|audience]",
        "SHOW {spot} [so that all can see it]",
        "hold {spot} up [so that all can see it|for all to see|so all can see]",
        "show (everybody|everyone|people|them|them all|audience) {spot}",
        "show round {spot}",
        "show {spot} round",
    ),
)
def show(b: Builder) -> None:
    """Everyone sees the face of the card that lies there. It stays where it is, and nothing else changes."""
    spot = b.spot("spot")

    def passing(cells: Sequence[Any]) -> bytes:
        return bytes([spot.byte(cells) | FACE_UP])

    def run(cells: Cells) -> None:
        spot.find(cells)

    b.act(run, passing=passing)


@step(
    "Spectator {verb=notes|tells} which pile holds {card:card}: {names:names}",
    family="Piles",
    example="Spectator tells which pile holds their card: p",
    says="{verb} which pile {card} is in.",
    sees="the faces of the piles",
    facets=(
        Facet.SPECTATOR_SEES,
        Facet.PILE_NUMBER,
        Facet.NOTHING_MOVED,
    ),
    by=SPECTATOR,
    wordings=(
        "(tell me|tell you|show me|say) (pile|heap|packet|column|row) {card} be [in] => verb=tells; who=spectator; score=2",
        "(tell me|tell you|say) where {card} be => verb=tells; who=spectator; score=1",
        "say left [,] (centre|middle) or right => verb=tells; card=theirs; who=spectator; score=3",
        "(tap|touch|point to|point at|indicate|hold up|pick up) (pile|heap|packet|column|1) (with|that have) {card} => verb=tells; who=spectator; score=2",
        "(nod at|nod towards|push forward|look at|show|hand you) (pile|heap|packet|column|1) (that|which) (hold|contain|have) [it|{card}] => verb=tells; card=theirs; who=spectator; score=1.5",
        "(point to|point at|touch|indicate|tell|say) (pile|heap|packet|column|1) (that|which) (hold|contain|have) it => verb=tells; card=theirs; who=spectator; score=1.5",
        "(show|show you|show me) [you|me] (which|in which) (pile|heap|packet|column|row) (have|hold|contain) {card} => verb=tells; who=spectator; score=2",
        "(show|show you) [you|me] (pile|heap|packet|column|row) (with|that have|that hold|that contain) {card} => verb=tells; who=spectator; score=2",
        "(tell|tell you|tell me|say|name|indicate) [you|me] (pile|heap|packet|column|row) (with|hold|contain|that hold|that contain|that have) {card} => verb=tells; who=spectator; score=2",
        "which (pile|heap|packet|column|row) [?] [they tell you|they say|they tell me] => verb=tells; card=theirs; who=spectator; score=1",
        "(which|in which) (pile|heap|packet|column|row) [be it|be it in|be their card|hold it] [?] [ask] [they tell you|they say|they answer] => verb=tells; card=theirs; who=spectator; score=1",
        "(which|in which) [1] [of] [pile|heap|packet|column|piles|row] [it|{card}] (hold|have|contain) {card} => verb=tells; who=spectator; score=2",
        "(which|in which) (pile|heap|packet|column) {card} (be|lie|fall|is) [in] => verb=tells; who=spectator; score=2",
        "(tell|tell you|say) where {card} be => verb=tells; who=spectator",
        "(which|in which) (pile|heap|packet|column) (it|their) be [in] => verb=tells; card=theirs; who=spectator; score=2",
        "(point to|point at|touch|indicate) (pile|heap|packet|column) (that|which) (hold|contain|have) {card} => verb=tells; who=spectator; score=2",
        "(point out|tell you) {card} 's (pile|heap|column) => verb=tells; who=spectator; score=2",
        "(point to|point at|tell|tell you|indicate|say|touch|show you|name) (pile|heap|packet|column|row|hand|which|1) {card} be in => verb=tells; who=spectator; score=2",
        "(tell|tell you|say|point to|indicate) (which|in which) [1|pile|heap|packet|column] [pile|heap|packet|column] [they see] {card} [be|is|fall] [in] => verb=tells; who=spectator; score=2",
        "(tell|tell you) which (1|pile|heap|packet|column) (hold|have|contain) {card} => verb=tells; who=spectator; score=2",
        "say left , middle or right => verb=tells; card=theirs; who=spectator; score=3",
        "(say|tell you) (which|in which) [pile|heap|packet|column] it (be|is) [in] => verb=tells; card=theirs; who=spectator; score=2",
        "(note|remember|notice) (which|in which) (pile|heap|packet|column) {card} (fall|be|land|is|go) [in|into] => verb=notes; who=spectator; score=3",
        "tell [you] which [1] they see {card} in => verb=tells; who=spectator; score=2",
        "(point to|indicate|touch|point at) (pile|heap|packet|column|1) with {card} [in it] => verb=tells; who=spectator; score=2",
    ),
)
def which_pile(b: Builder) -> None:
    """The number of the pile, of those last dealt, in which the card lies; pile 1 is the first that was dealt to.

    Noted, it stays secret until it is told. In a repetition give one name, or one for each time round.
    """
    token, piles, name = b.card("card"), b.piles(), b.phrase("card")

    def number(cells: Sequence[Any]) -> int:
        card = token(cells)
        for i, cell in enumerate(piles, start=1):
            if index_of(cells[cell], card) >= 0:
                return i
        raise Impossible(f"{name} is in none of the piles")

    b.learn("names", number, secret=b.phrase("verb") == "notes")


@step(
    "Spectator {verb=notes|tells} how many piles went {side=under|over} the one with {card:card}: {names:names}",
    family="Piles",
    example="Spectator notes how many piles went under the one with their card: a",
    says="{verb} how many piles went {side} the one with {card}.",
    sees="the faces of the piles",
    facets=(
        Facet.SPECTATOR_SEES,
        Facet.PILES_BESIDE,
    ),
    by=SPECTATOR,
    wordings=(
        "count how many (piles|heaps|packets) (lie|be|go) (above|over|on|ontop) [of] (their|theirs|{card}) => verb=notes; side=over; card=theirs; who=spectator; score=3",
        "count how many (piles|heaps|packets) (lie|be|go) (below|under|beneath) (their|theirs|{card}) => verb=notes; side=under; card=theirs; who=spectator; score=3",
        "count [,] [without a word ,] how many (heaps|piles|packets|heap|pile|packet) (lie|be|go|are) (below|under|beneath) (1|pile|heap|packet) with {card} => verb=notes; side=under; who=spectator; score=3",
        "(note|count) how many (piles|heaps) (lie|go|be) (above|over|on) (1|pile) with {card} => verb=notes; side=over; who=spectator; score=3",
        "tell you how many (piles|heaps|packets) (lie|go|be) (under|below) (1|pile|heap) with {card} => verb=tells; side=under; who=spectator; score=3",
    ),
)
def piles_beside(b: Builder) -> None:
    """Directly after piles were gathered: 0 when the pile went to the bottom (to the top, for *over*), and so on.

    Noted, it stays secret until it is told. In a repetition give one name, or one for each time round.
    """
    token, gathering, under = b.card("card"), b.last_gathering(), b.phrase("side") == "under"
    name = b.phrase("card")

    def count(cells: Sequence[Any]) -> int:
        at = index_of(gathering.to.of(cells), token(cells))
        for over, size in enumerate(cells[gathering.sizes]):
            if 0 <= at < size:
                return len(cells[gathering.sizes]) - 1 - over if under else over
            at -= size
        raise Impossible(f"{name} is in none of the piles")

    b.learn("names", count, secret=b.phrase("verb") == "notes")


@step(
    "Note the order of {place:place}",
    family="Cards",
    example="Note the order of deck",
    sees="the order of {place}",
    wordings=(
        "(take note of|note|write down|remember|record) order [of {place}|{place} be in|in which {place} lie]",
        "take note of order whole deck be in => place=deck",
        "note order",
    ),
)
def note_order(b: Builder) -> None:
    """What the order is here can be claimed at the end: *Ends with: deck is in the order noted*.

    One card is watched, whichever it is: that each comes back to its place is that all do. Once in a routine.
    """
    place = b.source("place")
    position = b.choose_card(b.watched_name, place)
    named = b.name_card("place", b.watched_name)
    b.note_number(b.watched_name, position)

    def run(cells: Cells) -> None:
        b.take_name(named, cells, place.find(cells), position(cells) - 1)

    b.act(run)


@step(
    "Make sure that {left:number} {is=is more than|is less than|is at least|is at most|is not|is} {right:number}",
    family="Order of events",
    firm=("left", "right"),
    example="Make sure that size of hand is at most 15",
    wordings=(
        "(check|make sure|see|be sure|see to it) [that] they (have not|has not|do not have) [get|got] more than {right} [cards] => left=size of hand; is=is at most; score=2",
        "there must be at least {right} [cards] [leave|left] in {place} => left=size; is=is at least; score=2",
        "(check|make sure|see) [that] (there be|there are|at least) [at least] {right} [cards] [be|are] [left] in {place} => left=size; is=is at least; score=1",
        "{place} must have at least {right} cards => left=size; is=is at least; score=1",
    ),
)
def guard(b: Builder) -> None:
    """A limit that must be kept at this line on every path, such as enough cards, or a packet that is not too thick.

    Nobody needs to know the numbers. A path on which it is not so fails here.
    """
    left, right, said = b.truth("left"), b.truth("right"), b.phrase("is")
    compare = COMPARISONS[said]
    names = [expression_text(b.line.values[slot]) for slot in ("left", "right")]

    def run(cells: Cells) -> None:
        one, other = left(cells), right(cells)
        if not compare(one, other):
            limit = str(other) if names[1] == str(other) else f"{names[1]}, which is {other}"
            raise Impossible(f"{names[0]} is {one}, and it is to be {said.removeprefix('is ')} {limit}")

    b.act(run)
