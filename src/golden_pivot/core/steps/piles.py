"""Dealing into piles, and putting piles together."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from itertools import combinations
from typing import TYPE_CHECKING, Any

from ..cards import index_of
from ..english import list_text
from ..faults import Impossible
from ..language.facets import Facet
from ..language.templates import SPECTATOR
from ..search.program import Cells, Reader
from .declare import freely, step

if TYPE_CHECKING:
    from ..building import Builder


@step(
    "{who} deal+s {from:place} into {piles:number} piles[, {each:number} {#each} each][, {way=face up|face down}]",
    family="Piles",
    does="the cards of a pile lay equally far apart, and turn round",
    example="Deal deck into 3 piles, face up",
    says="Deal {from} into {piles} piles, a card to each in turn[, {each} each][, {way}].",
    singly=True,
    facets=(Facet.DEALS_PILES,),
    domains={"piles": range(2, 11)},
    wordings=(
        "deal alternately (to|into|onto) {piles} (piles|heaps|packets) => from=deck; score=2",
        "DEAL [{from}] alternately (to|into|onto) {piles} (piles|heaps|packets) => score=2",
        "DEAL {from} [out] (in|into|to) {piles} (piles|heaps|hands|packets|columns) => score=1.5",
        "(share|distribute|deal) {from} [out] (among|between|into|to|amongst) {piles} (piles|heaps|packets|hands|people|players) => score=2",
        "(share|distribute|deal) out {from} (among|between|into|to) {piles} (piles|heaps|packets|hands|people|players) => score=2",
        "{each} [cards] each (in|into|to) {piles} (piles|heaps|hands|packets|columns) => score=2",
        "[deal] {each} [cards] (in|into|to) each of {piles} (piles|heaps|hands|packets|columns) => score=2",
        "(build|lay out|form|set out) {piles} (piles|heaps|packets|columns|hands) [of {each}] [cards] [each] => score=1.5",
        "DEAL {from} 1 by 1 into {piles} (pile|piles|heap|heaps|hands|columns) => score=2",
        "DEAL {from} (round|out) [in|into] {piles} (pile|piles|heap|heaps|hands|columns) [, 1 card at a time] => score=2",
        "DEAL {piles} (rows|piles|heaps|columns) of {each} => score=2",
        "{piles} (piles|heaps|hands) of {each} [be deal] => score=1",
        "DEAL cards into {piles} (pile|piles|heap|heaps) => from=deck; score=2",
        "split {from} into {piles} (pile|piles|heap|heaps) by deal => score=2",
        "DEAL round to {piles} (hands|people|players) => from=deck; score=2",
        "DEAL [{from}] into {piles} (piles|heaps|packets|hands|columns|rows|pile|heap|packet|hand|column) [of {each}] [cards] => score=2",
        "DEAL [out] {piles} [poker] (piles|heaps|packets|hands|columns|hand|pile|heap|packet|column) of {each} [cards] => score=2",
        "DEAL [out] {piles} (piles|heaps|packets|hands|columns|hand|pile|heap|packet|column) => score=2",
        "DEAL [out] {piles} poker (hand|hands) => each=5; score=3",
        "(distribute|divide|split|deal) {from} [round-robin|alternately|evenly|equally] (into|to|between|among) {piles} (pile|piles|heap|heaps|packet|packets|hands|columns) => score=2",
        "(build|form|make|build make) {piles} (pile|piles|heap|heaps|packet|packets) of {each} [cards] [by] [deal] [a card|1 card|1] [to each] [in turn] => score=2",
        "DEAL {from} (alternately|round) into {piles} (pile|piles|heap|heaps|packets) => score=2",
        "DEAL [cards] alternately into {piles} (pile|piles|heap|heaps) => from=deck; score=2",
    ),
)
def deal_piles(b: Builder) -> None:
    """Cards go one at a time onto pile 1, pile 2 and so on in turn, to the end of the heap or so many on each.

    Each goes onto the last, so that the order within a pile reverses.
    """
    source = b.source("from")
    piles = b.new_piles("piles", source)
    if source.cells & {cell for pile in piles for cell in pile.cells}:
        raise b.fault("from", "This heap is one of the piles.", "another heap", "Put it elsewhere first.")
    each = b.number("each") if b.given("each") else None
    laid, count = b.laid("way"), len(piles)

    def cards(cells: Sequence[Any]) -> int:
        return len(source.of(cells)) if each is None else each(cells) * count

    enough = b.enough_cards(source, cards)

    def run(cells: Cells) -> None:
        n, heap = enough(cells), source.of(cells)
        source.put(cells, heap[n:])
        block = laid(heap[:n])
        for i, pile in enumerate(piles):
            pile.put(cells, block[i::count][::-1] + pile.of(cells))

    def passing(cells: Sequence[Any]) -> bytes:
        heap = source.of(cells)[: max(0, cards(cells))]
        return heap + laid(heap)

    b.act(run, cards, passing)


Orders = Callable[[Sequence[Any]], Sequence[Sequence[int]]]
"""(state) → every order in which piles may be put together: their cells, from top to bottom"""


_SPAN = 100
"""more than there can be piles"""


def _as_one(numbers: Iterable[int]) -> int:
    """An order of piles as one number, which says by itself what it is.

    >>> _as_one([2, 1, 3]), _numbers(20103)
    (20103, [2, 1, 3])
    """
    code = 0
    for number in numbers:
        code = code * _SPAN + number
    return code


def _numbers(code: int) -> list[int]:
    found = []
    while code:
        code, number = divmod(code, _SPAN)
        found.append(number)
    return found[::-1]


def _gathers(b: Builder, orders: Orders, is_open: bool, secret: bool = False) -> None:
    """The common part; `is_open`: there may be more than one order."""
    piles = b.piles()
    to = b.destination("to", b.scope.piles_from or "deck")

    numbers = {cell: number for number, cell in enumerate(piles, start=1)}

    def say(cells: Sequence[Any], option: int) -> str:
        return f"{list_text(list(map(str, _numbers(option))) or ['nothing'])} from the top"

    def options(cells: Sequence[Any]) -> Sequence[int]:
        return [_as_one(numbers[cell] for cell in order) for order in orders(cells)]

    if is_open:
        label = f"order in line {b.line.number}"
        chosen = b.choose_unnamed(label, "the order of the piles", secret, options, say)
        b.act(b.gather(lambda cells: [piles[number - 1] for number in _numbers(chosen(cells))], to))
    else:
        b.act(b.gather(lambda cells: orders(cells)[0], to))


@step(
    "{who} {secretly?secretly} gather+s the piles in any order[ to {to:place}]",
    family="Piles",
    does="the piles keep their order",
    example="Spectator gathers the piles in any order",
    says="Gather the piles in any order{secretly}.",
    free=freely("You put the piles together in any order"),
    wordings=(
        "GATHER (piles|heaps|packets|them|all) [up] (as they please|as they like|how they please|however they please|just as they like) => score=2",
        "PUT 1 (pile|heap|half|packet) (on|ontop|onto) [of] other => score=1",
        "(1|either) (pile|heap|half|packet) (go|be put) (on|ontop) other => score=1",
        "GATHER (piles|heaps|packets|them|pile|heap|packet) [up] (haphazardly|at random|however they please|in no particular order|in any sequence) => score=2",
        "GATHER (piles|heaps|packets|pile|heap) [back] together [in any order] => score=0",
        "GATHER (piles|heaps|packets|pile|heap|packet|them|columns|column|stack) [up] (in any order|whichever way they like|whichever way you want|in whatever order|any way they like|in whatever order they like|as they like|any way|however they like|in any order they like|whichever way they want|whichever way you like|how they like) => score=2",
        "[1] half go on other [,] it do not matter which => score=2",
        "GATHER piles [up] => score=-2",
        "put (piles|heaps|packets) together in any order => score=2",
        "GATHER packet in whatever order => score=2",
    ),
)
def gather_any(b: Builder) -> None:
    """The piles that have cards are put together in whatever order, where they were dealt from unless the line says.

    Every order must work, of six piles at most. You see which, unless it is done secretly.
    """
    there = b.piles_there()
    b.few_enough_orders(len(b.scope.piles))

    def orders(cells: Sequence[Any]) -> Sequence[Sequence[int]]:
        lie = there(cells)
        return [[lie[i] for i in order] for order in b.every_order(len(lie))]

    _gathers(b, orders, True, b.flag("secretly"))


@step(
    "{who} gather+s the piles from {side=left to right|right to left|either side}, each {where=on|under} the last"
    "[, to {to:place}]",
    family="Piles",
    does="the piles keep their order",
    example="Gather the piles from left to right, each on the last",
    says="Gather the piles from {side}, each {where} the last.",
    wordings=(
        "GATHER [piles|heaps|them] [up] from left [,] each [pile|heap|1] (on|onto|ontop) next [1] => side=left to right; where=under; score=2",
        "GATHER [piles|heaps|them] [up] from right [,] each [pile|heap|1] (on|onto|ontop) next [1] => side=right to left; where=under; score=2",
        "GATHER [piles|heaps|them] [up] from left [,] each [pile|heap|1] (on|onto|ontop) last [1] => side=left to right; where=on; score=2",
        "GATHER [piles|heaps|them] [up] from right [,] each [pile|heap|1] (on|onto|ontop) last [1] => side=right to left; where=on; score=2",
        "GATHER [piles|heaps|packets|pile|heap|them|columns] [up] [from] left to right [,] each (on|onto|ontop) (1 before|previous 1|previous|1 before it) => side=left to right; where=on; score=2",
        "GATHER [piles|heaps|packets|pile|heap|them|columns] [up] [from] right to left [,] each (on|onto|ontop) (1 before|previous 1|previous|1 before it) => side=right to left; where=on; score=2",
        "GATHER [piles|heaps|packets|pile|heap|them|columns] [up] [from] right to left [,] each under (last|1 before|previous 1|previous) [1] => side=right to left; where=under; score=2",
        "GATHER [piles|heaps|packets|pile|heap|them|columns] [up] [from] left to right [,] each under (1 before|previous 1|previous) => side=left to right; where=under; score=2",
        "PUT each (pile|heap) on 1 to its right => side=left to right; where=under; score=2",
        "PUT each (pile|heap) on 1 to its left => side=right to left; where=under; score=2",
        "GATHER [piles|heaps|packets|pile|heap|them|columns] [up] [from] left to right [,] each (on|onto|ontop) last [1] => side=left to right; where=on; score=2",
        "GATHER [piles|heaps|packets|pile|heap|them|columns] [up] [from] right to left [,] each (on|onto|ontop) last [1] => side=right to left; where=on; score=2",
        "GATHER [piles|heaps|packets|pile|heap|them] [up] [from] left to right [,] each under last [1] => side=left to right; where=under; score=2",
        "GATHER [up] [piles] [from] (either end|either side) [,] each [packet|pile|heap] [go|going] (on|onto|ontop) last => side=either side; where=on; score=2",
        "pick up from either end , each packet go on last => side=either side; where=on; score=3",
        "GATHER [up] [piles|heaps] [from] left to right so [that] (leftmost|left|left 1|left pile) [1|pile] (end|ends|be|is|finish) [up] ontop => side=left to right; where=under; score=3",
        "GATHER [up] [piles] [from] left to right so [that] (rightmost|right|right pile) [1] (end|ends|be) [up] ontop => side=left to right; where=on; score=3",
    ),
)
def gather_side(b: Builder) -> None:
    """The piles are put together one after another, pile 1 being the leftmost. *Either side* leaves it open which."""
    there, side, under = b.piles_there(), b.phrase("side"), b.phrase("where") == "under"

    def orders(cells: Sequence[Any]) -> Sequence[Sequence[int]]:
        lie = there(cells)
        rightwards = lie if under else lie[::-1]
        if side == "either side":
            return [rightwards, rightwards[::-1]] if len(lie) > 1 else [rightwards]
        return [rightwards if side == "left to right" else rightwards[::-1]]

    _gathers(b, orders, side == "either side")


@step(
    "{who} gather+s the piles, {pile:place} {slot:position}, the others in any order[, to {to:place}]",
    family="Piles",
    does="the piles keep their order",
    example="Gather the piles, pile p 2nd, the others in any order",
    says="Gather the piles so that {pile} is {slot} from the top.",
    wordings=(
        "PUT {pile} (under|beneath|below|underneath) [other] (2|others|other 2|rest) => slot=at the bottom; score=3",
        "PUT {pile} (on|ontop|over) [of] (others|other 2|rest) => slot=on top; score=3",
        "{pile} (go|come) (in|into) (middle|centre) [when you (collect|gather|pick them up)|when collected] => slot=middle; score=3",
        "{pile} (go|be put|be place|come) ontop [of] (rest|others|other 2|all) => slot=on top; score=3",
        "{pile} (go|be put|be place|come) (under|underneath|below) [of] (rest|others|other 2|all) => slot=at the bottom; score=3",
        "{pile} (in middle|in centre|2nd) [,] GATHER [3|all|piles|heaps|them|rest] => slot=middle; score=3",
        "{pile} ontop [,] GATHER [3|all|piles|heaps|them|rest] => slot=on top; score=3",
        "GATHER (piles|heaps|packets|them|columns) [up] [,] [with|so that] {pile} [come|be|go|end up] [in|at|to] {slot} => score=2",
        "{pile} (go|be put|be place|be sandwich) (between|in middle of|in between) (others|other 2|2 others) => slot=middle; score=3",
        "GATHER (piles|heaps|packets|them|columns) [up] [,] [with] {pile} (in middle|in centre|between others|between other 2) => slot=middle; score=3",
        "GATHER (piles|heaps|packets|pile|heap|packet|them|columns) [up] [,] [with] {pile} (in middle|in centre|between others|between other 2|in between) => slot=middle; score=3",
        "GATHER (piles|heaps|packets|pile|heap|them|columns) [up] [,] [with] {pile} ontop => slot=on top; score=3",
        "PUT {pile} (at bottom of|under|beneath) others => slot=at the bottom; score=3",
        "PUT {pile} (between|in middle of) (others|other 2) => slot=middle; score=3",
        "PUT {pile} ontop others => slot=on top; score=3",
        "(sandwich|put) {pile} between other 2 => slot=middle; score=3",
        "GATHER (piles|heaps|them) [up] [,] keep {pile} in middle => slot=middle; score=3",
        "GATHER (piles|heaps|them) [up] [,] (so that|make sure) {pile} (go|be|end up|come) [in] (middle|centre) => slot=middle; score=3",
        "GATHER (piles|heaps|them|columns) [up] , put {pile} (in middle|between others|between other 2) => slot=middle; score=3",
        "GATHER (piles|heaps|packets|pile|heap|packet|them|columns) [up] with {pile} (between other 2|in middle|between others|in centre) => slot=middle; score=3",
        "GATHER (up) with {pile} in middle => slot=middle; score=3",
        "(pick up|gather|collect|assemble) with (that 1|{pile}|that pile) in middle => slot=middle; pile=told; score=3",
        "{pile} go ontop as you gather them => slot=on top; score=3",
        "{pile} (go|goes) (in middle|between others) => slot=middle; score=2",
        "GATHER (piles|heaps|packets|them) [up] with {pile} (ontop|ontop) => slot=on top; score=3",
        "GATHER (piles|heaps|packets|them) [up] with {pile} (at bottom|underneath|on bottom) => slot=at the bottom; score=3",
        "... see to it that {pile} (be|is|come|comes) {slot} [from top] when (piles|heaps|packets|they) (are|be) (collect|gather|pick up) => score=3",
        "GATHER (piles|heaps|packets|them) [up] [,] {pile} {slot} => score=2",
        "GATHER (piles|heaps|packets|them) so that {pile} (be|is|come) {slot} => score=2",
    ),
)
def gather_slot(b: Builder) -> None:
    """One pile goes to a stated place among the piles, counted from the top; the others around it as one likes."""
    piles, pile = b.piles(), b.looked_at("pile")
    if not pile.cells <= set(piles):
        raise b.fault(
            "pile", f"{pile.name} is none of the piles.", "one of the piles last dealt", "Name one of them."
        )
    slot, there = b.index("slot", b.line.values["slot"], pile), b.piles_there()
    b.few_enough_orders(len(b.scope.piles) - 1)

    def orders(cells: Sequence[Any]) -> Sequence[Sequence[int]]:
        told, lie = pile.find(cells), there(cells)
        rest = [cell for cell in lie if cell != told]
        at = slot(cells, len(rest) + 1)
        arranged = ([rest[i] for i in order] for order in b.every_order(len(rest)))
        return [[*around[:at], told, *around[at:]] for around in arranged]

    _gathers(b, orders, True)


@step(
    "{who} gather+s {piles:places} from top to bottom[, to {to:place}]",
    family="Piles",
    does="the piles keep their order",
    example="Gather pile 2, pile 1, pile 3 from top to bottom",
    wordings=(
        "[put] {p1} on {p2} [,] [then] [and] (all|these|pair|everything|lot|them all|that) on {p3} => score=3",
        "[put] {p2} on {p3} [,] [and] [then] {p1} (on everything|on all|on both|ontop|on them|ontop of both|ontop everything|on that|on those) => score=3",
        "[put] {p2} on {p3} [,] [and] [then] {p1} (goes ontop|go ontop|go on them|go on both) => score=3",
        "put {p1} on {p2} [,] [and] (both|those|all that|pair|these) [of them] on {p3} => score=3",
        "(stack|put|gather|pick up|assemble|collect) (them|piles|heaps) {order} (from top down|from top|from top to bottom|top down) => score=3",
        "put {p1} on {p2} and both [of them] on {p3} => score=3",
        "{p1} on {p2} [and|,] both on {p3} => score=3",
        "[chosen|choose|pick] pile ontop of other [,] [please] => piles=chosen; score=2",
        "choose pile ontop other => piles=chosen; score=2",
        "{a} ontop {b} [,] => piles=ab; score=-1",
    ),
)
def gather_order(b: Builder) -> None:
    """The piles are put together in this order, the first one named on top."""
    piles, named = b.piles(), b.several("piles")
    if any(not place.cells <= set(piles) for place in named):
        raise b.fault("piles", "These are not all piles.", "piles of those last dealt", "Name piles only.")

    def order(cells: Sequence[Any]) -> Sequence[int]:
        cells_of_piles = [place.find(cells) for place in named]
        if len(set(cells_of_piles)) < len(cells_of_piles):
            raise Impossible("a pile is gathered twice")
        return cells_of_piles

    _gathers(b, lambda cells: [order(cells)], False)


@step(
    "{who} deal+s a card from {from:place} onto each of {piles:places}[, {order=in any order}]",
    family="Piles",
    example="Deal a card from deck onto each of pile 1, pile 2, pile 3",
    singly=True,
    wordings=(
        "(deal|drop|put|add|deal out) (1|a) [further|more|card|further card|card more|extra] [card] (to|on|onto) {piles} => score=3",
        "(deal|drop|put|add) (1|a) (more|further|extra) [card] (to|on|onto) {piles} [,] in any order ... => order=in any order; score=3.5",
    ),
)
def deal_each(b: Builder) -> None:
    """One card goes onto each of these heaps, in the order in which they are named; from here on they are the piles.

    *In any order*, any of the cards may go onto any of the heaps, one onto each; every way must work.
    """
    source = b.source("from")
    piles = b.new_places("piles", source)
    count = len(piles)
    orders = b.free_orders(count) if b.given("order") else [tuple(range(count))]
    which: Reader | None = None
    if b.given("order"):

        def say(cells: Sequence[Any], option: int) -> str:
            return f"onto {list_text([piles[i].name for i in orders[option]])}"

        label = f"the cards dealt in line {b.line.number}"
        which = b.choose_unnamed(label, label, False, lambda cells: range(len(orders)), say)
    enough = b.enough_cards(source, lambda cells: count)

    def run(cells: Cells) -> None:
        n, heap = enough(cells), source.of(cells)
        source.put(cells, heap[n:])
        for i, pile in enumerate(orders[which(cells) if which else 0]):
            piles[pile].put(cells, heap[i : i + 1] + piles[pile].of(cells))

    b.act(run, lambda cells: count, lambda cells: source.of(cells)[:count])


@step(
    "Spectator points to {count:number} of the piles, and you keep those that {card:card} is among",
    family="Choices",
    example="Spectator points to 3 of the piles, and you keep those that FORCE is among",
    says="Point to {count} of the piles.",
    yours=("card",),
    finds=("card",),
    facets=(Facet.NARROWS,),
    free=freely("You pointed to whichever you liked"),
    by=SPECTATOR,
    wordings=(
        "have {count} (piles|heaps|packets) (point|point to|point out|touch|choose|pick|indicate) [out] [,] 1 with {card} (be|get) (keep|kept|stay) => who=spectator; score=3",
        "(point to|point at) {count} , again .... => card=target; who=spectator; score=2",
        "(point to|point at|touch|choose) {count} [of] [piles|heaps|packets] , (again|you|keep|take) ... {card} ... => who=spectator; score=2",
        "(point to|point at|touch|choose) {count} [of them|of these|of piles] , same (procedure|again|way|rule) => card=target; who=spectator; score=2",
        "(point to|point at|touch|choose|pick|indicate) [any] {count} [of] [piles|heaps|packets|pile|heap|packet|of piles] [they like] [,|and] .... (keep|keeps|survive|stay|in play|stays|win) .... => card=target; who=spectator; score=2",
        "(point to|point at|touch) [any] {count} [of] (piles|heaps|pile|heap|them) [,|and] ... {card} ... => who=spectator; score=2",
        "force of piles : {count} (heaps|piles|heap|pile) be (point at|touch|choose) .... => card=target; who=spectator; score=3",
    ),
)
def narrow(b: Builder) -> None:
    """Narrowing, or magician's choice: the piles pointed to are kept if the card is in one of them, else the others.

    The piles that go are put together on the heap *discard*; those that stay are numbered anew from the left.
    Every way of pointing must work; a line such as *If number of piles is 3:* has what you say in that case.
    """
    count, token, piles = b.number("count"), b.card("card"), b.piles()
    discard = b.destination("discard", "discard")
    b.touches |= set(piles)
    name = b.phrase("card")

    def there(cells: Sequence[Any]) -> int:
        return sum(bool(cells[cell]) for cell in piles)

    def options(cells: Sequence[Any]) -> Sequence[int]:
        left, pointed = there(cells), count(cells)
        if not 0 < pointed <= left:
            raise Impossible(f"{pointed} piles are to be pointed to, but there are {left}")
        return [sum(1 << i for i in group) for group in combinations(range(left), pointed)]

    def say(cells: Sequence[Any], option: int) -> str:
        return list_text([str(i + 1) for i in range(len(piles)) if option >> i & 1])

    label = f"the piles pointed to in line {b.line.number}"
    which = b.choose_unnamed(label, label, False, options, say)

    def run(cells: Cells) -> None:
        heaps = [cells[cell] for cell in piles if cells[cell]]
        inside = [i for i, heap in enumerate(heaps) if index_of(heap, token(cells)) >= 0]
        if not inside:
            raise Impossible(f"{name} is in none of the piles")
        pointed = which(cells)
        keeps = bool(pointed >> inside[0] & 1)
        kept = [heap for i, heap in enumerate(heaps) if bool(pointed >> i & 1) == keeps]
        gone = [heap for i, heap in enumerate(heaps) if bool(pointed >> i & 1) != keeps]
        for i, cell in enumerate(piles):
            cells[cell] = kept[i] if i < len(kept) else b""
        discard.put(cells, b"".join(gone[::-1]) + discard.of(cells))

    b.act(run)


@step(
    "{who} lay+s {from:place} down as a new pile",
    family="Piles",
    example="Lay packet down as a new pile",
    wordings=(
        "(table|lay|put|set|place|drop) {from} [down] (as a pile of its own|as a new pile|as another pile|down as a pile|on table as a pile|beside others) => score=3",
    ),
)
def new_pile(b: Builder) -> None:
    """The whole heap, as it lies, is the next pile: pile 1, pile 2 and so on as they come, behind those that lie there.

    Where a later line keeps only some of the piles, which these are is settled here, pile by pile, and every way
    to settle it is covered: the others go on top of each other, on the heap *spare*.
    """
    source = b.source("from")
    if b.needs.kept_piles:
        b.lay_or_reject(source)
        return
    lying = b.highest_pile()
    piles, count = b.growing_piles(), b.pile_count()
    b.reads.add(count)
    all_on_one = len(piles) == 1
    if source.cells & set(piles):
        raise b.fault("from", "This heap is one of the piles.", "another heap", "Put it elsewhere first.")

    def run(cells: Cells) -> None:
        heap, n = source.of(cells), max(cells[count], lying(cells))
        if not heap:
            raise Impossible(f"{source.name} is empty")
        if n == len(piles) and not all_on_one:
            raise Impossible(f"there are {n} piles already")
        to = piles[0 if all_on_one else n]
        source.put(cells, b"")
        cells[to] = heap + cells[to]
        cells[count] = n + 1

    b.act(run)


@step(
    "Spectator keeps {count:number} of the piles",
    family="Choices",
    example="Spectator keeps 2 of the piles",
    says="Keep {count} of the piles, whichever you like.",
    free=freely("You kept the piles you wanted"),
    by=SPECTATOR,
    wordings=("keep [any] {count} [of] (piles|heaps|packets|heap|pile|packet|them) => who=spectator",),
)
def keep_piles(b: Builder) -> None:
    """Of the piles laid down one by one, the spectator keeps these, whichever they are; every choice must work.

    They are pile 1, pile 2 and so on, from the smallest to the largest. The rest lie together on the heap *spare*,
    the later ones on the earlier.
    """
    count = b.constant("count")
    if not 1 <= count <= 12:
        raise b.fault("count", f"{count} piles cannot be kept.", "from 1 to 12", "Change the number.")
    b.kept_piles("count", count)
