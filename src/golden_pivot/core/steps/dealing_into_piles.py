"""Dealing into piles and onto piles."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from ..english import list_text
from ..language.facets import Facet
from ..search.program import Cells, Reader
from .declare import step

if TYPE_CHECKING:
    from ..building import Builder


@step(
    "{who} deal+s {from:place} into {piles:number} piles[, {from_end=from left to right|from right to left}][, {each:number} {#each} each][, {way=face up|face down}]",
    family="Piles",
    does="the cards of a pile lay equally far apart, and turn round",
    example="Deal deck into 3 piles, face up",
    says="Deal {from} into {piles} piles, a card to each in turn[, {from_end}][, {each} each][, {way}].",
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
        "DEAL {from} face up (in|into|to) {piles} (piles|heaps|packets) => way=face up; score=2",
        "DEAL {from} face down (in|into|to) {piles} (piles|heaps|packets) => way=face down; score=2",
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
        "DEAL {from} into {piles} (piles|heaps|packets) [,] [from] right to left => from_end=from right to left; score=3",
        "DEAL [cards] alternately into {piles} (pile|piles|heap|heaps) => from=deck; score=2",
    ),
)
def deal_piles(b: Builder) -> None:
    """Cards go one at a time onto pile 1, pile 2 and so on in turn, to the end of the heap or so many on each.

    Each goes onto the last, so that the order within a pile reverses. *From right to left* the first card goes onto the last pile;
    pile 1 is the leftmost all the same.
    """
    source = b.source("from")
    piles = b.new_piles("piles", source)
    if source.cells & {cell for pile in piles for cell in pile.cells}:
        raise b.fault("from", "This heap is one of the piles.", "another heap", "Put it elsewhere first.")
    each = b.number("each") if b.given("each") else None
    laid, count = b.laid("way"), len(piles)
    leftward = b.given("from_end") and b.phrase("from_end") == "from right to left"

    def cards(cells: Sequence[Any]) -> int:
        return len(source.of(cells)) if each is None else each(cells) * count

    enough = b.enough_cards(source, cards)

    def run(cells: Cells) -> None:
        n, heap = enough(cells), source.of(cells)
        source.put(cells, heap[n:])
        block = laid(heap[:n])
        for i, pile in enumerate(reversed(piles) if leftward else piles):
            pile.put(cells, block[i::count][::-1] + pile.of(cells))

    def passing(cells: Sequence[Any]) -> bytes:
        heap = source.of(cells)[: max(0, cards(cells))]
        return heap + laid(heap)

    b.act(run, cards, passing)


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
    "{who} deal+s a card from {from:place} onto each of the other piles",
    family="Piles",
    example="Deal a card from pile 2 onto each of the other piles",
    singly=True,
    wordings=(
        "(deal|drop|put|add) (1|a) [card] from {from} (to|on|onto) each [of] (other|others|rest) [pile|piles|heap|heaps|packet|packets] => score=4",
    ),
)
def deal_others(b: Builder) -> None:
    """One card of this pile goes onto each of the others, from the first to the last."""
    source, piles = b.source("from"), b.piles()
    if source.cells.isdisjoint(piles):
        raise b.fault(
            "from", f"{source.name} is none of the piles.", "one of the piles", "Name them: each of pile 1, pile 2."
        )

    b.touches |= set(piles)

    def others(cells: Sequence[Any]) -> list[int]:
        return [pile for pile in piles if pile != source.find(cells)]

    enough = b.enough_cards(source, lambda cells: len(others(cells)))

    def run(cells: Cells) -> None:
        n, heap = enough(cells), source.of(cells)
        source.put(cells, heap[n:])
        for i, pile in enumerate(others(cells)):
            cells[pile] = heap[i : i + 1] + cells[pile]

    b.act(run, lambda cells: len(others(cells)), lambda cells: source.of(cells)[: len(others(cells))])
