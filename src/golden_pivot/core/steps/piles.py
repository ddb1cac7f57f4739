"""Putting piles together."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from ..faults import Impossible
from .declare import freely, step
from .gathering import gathers, gathers_freely

if TYPE_CHECKING:
    from ..building import Builder


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

    Every order must work. You see which, unless it is done secretly.
    """
    gathers_freely(b, b.piles_there(), secret=b.flag("secretly"))


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

    gathers(b, orders, side == "either side")


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

    def others(cells: Sequence[Any]) -> list[int]:
        told = pile.find(cells)
        return [cell for cell in there(cells) if cell != told]

    gathers_freely(b, others, (lambda cells: [pile.find(cells)], lambda cells: slot(cells, len(others(cells)) + 1)))


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

    gathers(b, lambda cells: [order(cells)], False)
