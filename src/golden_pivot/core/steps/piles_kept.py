"""Piles one by one: laid down, pointed to, kept."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import combinations
from typing import TYPE_CHECKING, Any

from ..cards import index_of
from ..english import list_text
from ..faults import Impossible
from ..language.facets import Facet
from ..language.templates import SPECTATOR
from ..search.program import Cells
from .declare import freely, step

if TYPE_CHECKING:
    from ..building import Builder


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
    name, so_many = b.phrase("card"), b.numbered_anew()

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
        so_many(cells, len(kept))
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
