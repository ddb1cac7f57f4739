"""Single cards and a few of them, moved or turned where they lie."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from ..cards import FACE_UP, FLIP, index_of
from ..faults import Impossible
from ..language.facets import Facet
from .cards_chosen import names_where_it_lies
from .declare import step

if TYPE_CHECKING:
    from ..building import Builder
    from ..search.program import Cells


def _one(cells: Sequence[Any]) -> int:
    return 1


@step(
    "{who} move+s the top[ {count:number}] {#count} of {place:place} to the bottom",
    family="Blocks",
    does="a block keeps its order",
    example="Move the top card of deck to the bottom",
    says="Move the top [{count} ]{#count} of {place} to the bottom.",
    heard=(("from the bottom to the top", "{who} move+s the bottom {count} cards of {place} to the top"),),
)
def lower_top(b: Builder) -> None:
    """The top card, or so many of them as a block, goes to the bottom. With a number this is a cut at that number."""
    place = b.source("place")
    enough = b.enough_cards(place, b.number("count") if b.given("count") else _one)

    def run(cells: Cells) -> None:
        heap, n = place.of(cells), enough(cells)
        place.put(cells, heap[n:] + heap[:n])

    b.act(run)


@step(
    "{who} swap+s {spot:spot} and {other:spot}",
    family="Cards",
    does="two cards change places",
    example="Swap the top card of hand and the top card of table",
    says="Let {spot} and {other} change places.",
    wordings=(
        "(exchange|switch|transpose) {spot} and {other} => score=3",
        "{spot} and {other} (change|trade|swap|exchange) places => score=3",
        "(exchange|switch|swap) {spot} (with|for) {other} => score=3",
    ),
)
def swap_cards(b: Builder) -> None:
    """Two cards change places, each as it lies; they may lie at one place or at two."""
    one, other = b.spot("spot"), b.spot("other")
    for spot in (one, other):
        b.touches |= spot.place.cells
        b.settled |= spot.place.cells

    def run(cells: Cells) -> None:
        (here, i), (there, j) = one.find(cells), other.find(cells)
        first, second = cells[here][i : i + 1], cells[there][j : j + 1]
        cells[here] = cells[here][:i] + second + cells[here][i + 1 :]
        cells[there] = cells[there][:j] + first + cells[there][j + 1 :]

    b.act(run)


@step(
    "{who} turn+s the {end=top|bottom} {count:number} {#count} of {place:place} over where they lie",
    family="Blocks",
    does="the order stays, the faces turn",
    example="Turn the top 3 cards of deck over where they lie",
    says="Turn the {end} {count} {#count} of {place} over, one by one, each where it lies.",
    heard=(("turned over as one block", "{who} turn+s over the top {count} cards of {place} as a block"),),
    wordings=(
        "TURN (top) {count} [cards] [of {place}] (over|face up|up) (where they lie|in place|1 by 1|singly) => end=top; score=3",
        "TURN (bottom) {count} [cards] [of {place}] (over|face up|up) (where they lie|in place|1 by 1|singly) => end=bottom; score=3",
    ),
)
def turn_some(b: Builder) -> None:
    """So many cards from one end are turned one by one and stay in their order: only the faces flip."""
    count, place, top = b.number("count"), b.looked_at("place"), b.phrase("end") == "top"
    b.changed_where_it_lies(place)
    enough, flips = b.enough_cards(place, count), b.follows_faces

    def run(cells: Cells) -> None:
        heap, n = place.of(cells), enough(cells)
        at = n if top else len(heap) - n
        above, below = heap[:at], heap[at:]
        if flips:
            above, below = (above.translate(FLIP), below) if top else (above, below.translate(FLIP))
        place.put(cells, above + below)

    def passing(cells: Sequence[Any]) -> bytes:
        heap = place.of(cells)
        turned = (heap if top else heap[::-1])[: max(0, count(cells))]
        return turned + turned.translate(FLIP)

    b.act(run, count, passing)


@step(
    "{who} take+s {card:card} out of {from:place} to {to:place}",
    family="Cards",
    does="one card goes, the others keep their order",
    example="Take FORCE out of deck to table",
    says="Take {card} out of {from} and put it {>to}.",
    finds=("card",),
    facets=(Facet.SEEKS,),
    wordings=(
        "(take|pick|pull|draw|remove|lift) {card} out [of {from}] [to {to}] => score=2",
        "(remove|take away|pull|fish) {card} from {from} => to=aside; score=1",
    ),
)
def take_out(b: Builder) -> None:
    """A card by name is looked for, taken out and laid, as it is, on the cards at another place."""
    token, source = b.card("card"), b.source("from")
    to, name = b.destination("to", apart_from=source), b.phrase("card")

    def run(cells: Cells) -> None:
        heap, card = source.of(cells), token(cells)
        at = index_of(heap, card)
        if at < 0:
            raise Impossible(f"{name} is not in {source.name}")
        source.put(cells, heap[:at] + heap[at + 1 :])
        to.put(cells, heap[at : at + 1] + to.of(cells))

    b.act(run, to=to)


@step(
    "Hold a break under {spot:spot}: {card:card}",
    family="Blocks",
    example="Hold a break under the 10th card of deck: BREAK",
    wordings=("(hold|keep|get|take) [a] break (under|below|beneath) {spot} => card=BREAK; score=2",),
)
def hold_break(b: Builder) -> None:
    """The fingers keep a break under the card that lies there, which has a name from here on though nobody sees its face.

    *Cut off the cards of deck down to BREAK* is then yours to do, as long as nobody else has had the cards in hand.
    """
    spot = names_where_it_lies(b)
    b.hold_break("card", spot.place.cells)


@step(
    "{who} cut+s off the cards of {place:place} {which=above|down to} {card:card} to {to:place}",
    family="Blocks",
    does="a block keeps its order",
    example="Cut off the cards of deck down to MARK to table",
    says="Cut {place} at {card} and put what is {which} it {>to}.",
    finds=("card",),
    facets=(Facet.SEEKS,),
    heard=(("the card left behind, or taken along", "{who} cut+s off the cards of {place} above {card} to {to}"),),
    wordings=(
        "(cut|break|split|lift off|cut off) [{place}] at {card} => which=above; to=table; score=2",
        "cut [{place}] [just|right] above {card} => which=above; to=table; score=2",
        "cut [{place}] [just|right] (below|under) {card} => which=down to; to=table; score=2",
    ),
)
def cut_at_card(b: Builder) -> None:
    """A heap is cut at a card that stands out or that you know: all above it goes, *down to* takes the card along."""
    token, source = b.card("card"), b.source("place")
    to, name, along = b.destination("to", apart_from=source), b.phrase("card"), b.phrase("which") == "down to"

    def run(cells: Cells) -> None:
        heap = source.of(cells)
        at = index_of(heap, token(cells))
        if at < 0:
            raise Impossible(f"{name} is not in {source.name}")
        at += along
        source.put(cells, heap[at:])
        to.put(cells, heap[:at] + to.of(cells))

    b.act(run, to=to)


@step(
    "{who} take+s the {side=face-up|face-down} cards out of {from:place} to {to:place}",
    family="Cards",
    does="both parts keep their order",
    example="Take the face-up cards out of deck to table",
    says="Take the {side} cards out of {from} and put them {>to}, in the order in which they lie.",
    wordings=(
        "(take|pick|pull|remove|strip) (all|) (face up) cards out [of {from}] [to {to}] => side=face-up; score=2",
        "(take|pick|pull|remove|strip) (all|) (face down) cards out [of {from}] [to {to}] => side=face-down; score=2",
    ),
)
def take_side(b: Builder) -> None:
    """All cards that show that side are taken out together, as they lie, and laid on the cards at another place."""
    source, up = b.source("from"), b.phrase("side") == "face-up"
    to = b.destination("to", apart_from=source)
    b.ask_faces()
    b.looks_in |= source.cells

    def run(cells: Cells) -> None:
        heap = source.of(cells)
        taken = bytes(byte for byte in heap if (byte >= FACE_UP) == up)
        source.put(cells, bytes(byte for byte in heap if (byte >= FACE_UP) != up))
        to.put(cells, taken + to.of(cells))

    b.act(run, to=to)


@step(
    "{who} deal+s the bottom card of {from:place} to {to:place}[, {times:number} times]",
    family="Counting",
    does="dealing turns the order round",
    example="Deal the bottom card of deck to table, 3 times",
    says="Deal the bottom card of {from} {>to}[, {times} times].",
    singly=True,
    heard=(("from the top instead of the bottom", "{who} deal+s {times} cards from {from} to {to}"),),
    wordings=(
        "(deal|draw|slide|take) {times} cards [1 by 1|1 at a time|singly] from (bottom) of {from} [to {to}] => score=2",
        "(bottom deal) {times} cards [of {from}] [to {to}] => score=2",
    ),
)
def deal_bottom(b: Builder) -> None:
    """Cards go one at a time from the bottom of a heap, each onto the last. They count as the cards dealt.

    *The next card* is the one that is then at the bottom.
    """
    source = b.source("from")
    to, count = b.destination("to", apart_from=source), b.number("times") if b.given("times") else _one
    enough = b.enough_cards(source, count)
    counted = b.now_dealt(source, to, last_at_end=False, from_bottom=True)

    def run(cells: Cells) -> None:
        cells[counted] = n = enough(cells)
        heap = source.of(cells)
        left = len(heap) - n
        source.put(cells, heap[:left])
        to.put(cells, heap[left:] + to.of(cells))

    def passing(cells: Sequence[Any]) -> bytes:
        return source.of(cells)[::-1][: max(0, count(cells))]

    b.act(run, count, passing, to)


@step(
    "{who} deal+s {count:number} {#count} from {from:place} to {to:place}, {size:number} at a time",
    family="Counting",
    does="each few keep their order, the few after each other do not",
    example="Deal 12 cards from deck to table, 3 at a time",
    says="Deal {count} {#count} from {from} {>to}, {size} at a time as they lie.",
    heard=(("one at a time", "{who} deal+s {count} cards from {from} to {to}"),),
    wordings=(
        "(deal|take off|push off|count off|thumb off) {count} cards [from {from}] [to {to}] [,] (in) (blocks|groups|packets|clumps|2s|3s) of {size} => score=3",
        "(deal|take off|push off|thumb off) {count} cards [from {from}] [to {to}] [,] {size} at a time => score=-2",
    ),
)
def deal_blocks(b: Builder) -> None:
    """Cards go a few at a time from the top, each few as they lie onto those before; what is over goes as the last few.

    The order within each few is kept, the order of these small blocks reverses.
    """
    source, count, size = b.source("from"), b.number("count"), b.number("size")
    to = b.destination("to", apart_from=source)
    enough = b.enough_cards(source, count)
    b.scope.deal = None  # which of a few is the last one is nobody's to say

    def run(cells: Cells) -> None:
        heap, n, few = source.of(cells), enough(cells), size(cells)
        if few < 1:
            raise Impossible(f"cards cannot be dealt {few} at a time")
        dealt = b"".join(heap[i : min(i + few, n)] for i in range((n - 1) // few * few, -1, -few)) if n else b""
        source.put(cells, heap[n:])
        to.put(cells, dealt + to.of(cells))

    def passing(cells: Sequence[Any]) -> bytes:
        few = size(cells)
        return source.of(cells)[: max(0, count(cells)) : few] if few > 0 else b""

    b.act(run, count, passing, to)
