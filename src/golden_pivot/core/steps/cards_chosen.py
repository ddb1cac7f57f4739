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
from .control import COMPARISONS
from .declare import freely, step

if TYPE_CHECKING:
    from ..building import Builder
    from ..building.places import Place


@step(
    "Spectator thinks of a card in {place:place}: {card:card}",
    family="Cards",
    example="Spectator thinks of a card in deck: their card",
    says="Think of one of the cards in {place}.",
    sees="the faces of {place}",
    facets=(Facet.FACE_NEEDED,),
    free=freely("You thought of any card you liked"),
    by=SPECTATOR,
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
)
def remember(b: Builder) -> None:
    """The card that lies there is looked at and gets a name. It stays where it is."""
    spot = b.spot("spot")
    named = b.name_card("card")
    b.changed_where_it_lies(spot.place)

    def run(cells: Cells) -> None:
        b.take_name(named, cells, *spot.find(cells))

    b.act(run)


@step(
    "{who} show+s {spot:spot}",
    family="Cards",
    example="Show the next card",
    says="Show us {spot}.",
    shows=True,
    facets=(Facet.DOER_SEES,),
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
