"""How piles are put together: every order one choice, or, of many piles, one pile chosen after another."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterable, Sequence
from functools import cache
from typing import TYPE_CHECKING, Any

from ..english import list_text
from ..search.program import Cell, Cells, Reader

if TYPE_CHECKING:
    from ..building import Builder

Piles = Callable[[Sequence[Any]], Sequence[int]]
"""(state) → cells of piles, pile 1 first"""
Orders = Callable[[Sequence[Any]], Sequence[Sequence[int]]]
"""(state) → every order in which piles may be put together: their cells, from top to bottom"""

_SPAN = 100
"""more than there can be piles"""


def as_one(numbers: Iterable[int]) -> int:
    """An order of piles as one number, which says by itself what it is.

    >>> as_one([2, 1, 3]), numbers_of(20103), said(20103)
    (20103, [2, 1, 3], '2, 1 and 3 from the top')
    """
    code = 0
    for number in numbers:
        code = code * _SPAN + number
    return code


def numbers_of(code: int) -> list[int]:
    found = []
    while code:
        code, number = divmod(code, _SPAN)
        found.append(number)
    return found[::-1]


def said(code: int) -> str:
    return f"{list_text(list(map(str, numbers_of(code))) or ['nothing'])} from the top"


def gathers(b: Builder, orders: Orders, is_open: bool, secret: bool = False) -> None:
    """In one of these orders; `is_open`: there may be more than one."""
    piles = b.piles()
    to = b.destination("to", b.scope.piles_from or "deck")
    numbers = {cell: number for number, cell in enumerate(piles, start=1)}

    # Orders are few and come again with every situation.
    @cache
    def number_of(order: tuple[int, ...]) -> int:
        return as_one(numbers[cell] for cell in order)

    @cache
    def order_of(number: int) -> tuple[int, ...]:
        return tuple(piles[nth - 1] for nth in numbers_of(number))

    def options(cells: Sequence[Any]) -> Sequence[int]:
        return [number_of(tuple(order)) for order in orders(cells)]

    if is_open:
        label = f"order in line {b.line.number}"
        chosen = b.choose_unnamed(
            label, "the order of the piles", secret, options, lambda cells, option: said(option)
        )
        b.act(b.gather(lambda cells: order_of(chosen(cells)), to))
    else:
        b.act(b.gather(lambda cells: orders(cells)[0], to))


def gathers_freely(b: Builder, free: Piles, fixed: tuple[Piles, Reader] | None = None, secret: bool = False) -> None:
    """The piles that are `free` in any order, and what is `fixed` (a pile, and at which index from the top) among them."""
    many = len(b.scope.piles) - (fixed is not None)
    if not b.is_one_choice(many):
        _one_after_another(b, free, fixed, secret)
        return

    def orders(cells: Sequence[Any]) -> Sequence[Sequence[int]]:
        lie = free(cells)
        arranged = ([lie[i] for i in order] for order in b.every_order(len(lie)))
        if fixed is None:
            return list(arranged)
        pile, at = fixed[0](cells), fixed[1](cells)
        return [[*around[:at], *pile, *around[at:]] for around in arranged]

    gathers(b, orders, True, secret)


def _one_after_another(b: Builder, free: Piles, fixed: tuple[Piles, Reader] | None, secret: bool) -> None:
    """From the top: which of the piles that are left comes next. Of piles that are alike, any stands for all."""
    piles, so_far = b.piles(), b.hidden_place("gathered")
    to = b.destination("to", b.scope.piles_from or "deck")
    gathering = b.gathering(to)
    sizes = gathering.sizes
    due = b.new_cell(Cell("where the pile goes that has a place of its own", False))
    number_of = {cell: number for number, cell in enumerate(piles, start=1)}
    b.touches.add(due)
    tells = _Order(b, None if secret else b.new_cell(Cell(f"the order of the piles{b.round_text}", False, say=said)))

    def fixed_next(cells: Sequence[Any], placed: int) -> Sequence[int]:
        """The pile that has a place of its own, where it comes next behind so many."""
        return fixed[0](cells) if fixed and placed == cells[due] else ()

    def put(cells: Cells, pile: int) -> None:
        so_far.put(cells, so_far.of(cells) + cells[pile])
        cells[sizes] = (*cells[sizes], len(cells[pile]))
        cells[pile] = b""

    def begin(cells: Cells) -> None:
        cells[sizes], cells[due] = (), fixed[1](cells) if fixed else None
        for pile in fixed_next(cells, 0):
            put(cells, pile)

    def by_heap(cells: Cells) -> None:
        left = free(cells)
        for pile, heap in zip(left, sorted(cells[pile] for pile in left), strict=True):
            cells[pile] = heap

    def groups(cells: Sequence[Any]) -> list[tuple[int, int]]:
        left = free(cells)
        many = Counter(cells[pile] for pile in left)
        first = {cells[pile]: number_of[pile] for pile in reversed(left)}
        return [(first[heap], times) for heap, times in many.items()]

    def next_ones(cells: Sequence[Any], pile: int) -> list[int]:
        return [pile, *fixed_next(cells, len(cells[sizes]) + 1)]

    b.act(begin)
    b.reads |= {sizes, due}
    tells.begin(lambda cells: [number_of[pile] for pile in fixed_next(cells, 0)])

    def body() -> None:
        chosen = b.choose_unnamed(
            f"pile in line {b.line.number}", "the next pile", secret,
            lambda cells: [number_of[pile] for pile in free(cells)], lambda cells, option: f"pile {option}",
            alike=by_heap, grouped=groups, is_told=False,
        )  # fmt: skip

        def coming(cells: Sequence[Any]) -> list[int]:
            return next_ones(cells, piles[chosen(cells) - 1])

        def run(cells: Cells) -> None:
            for pile in coming(cells):
                put(cells, pile)

        tells.more(lambda cells: [number_of[pile] for pile in coming(cells)])
        b.act(run)

    b.loop(lambda: lambda cells: len(free(cells)) > 1, lambda cells: len(free(cells)), body)

    def last(cells: Sequence[Any]) -> list[int]:
        return [one for pile in free(cells) for one in next_ones(cells, pile)]

    def end(cells: Cells) -> None:
        for pile in last(cells):
            put(cells, pile)
        to.put(cells, so_far.of(cells) + to.of(cells))
        so_far.put(cells, b"")

    tells.more(lambda cells: [number_of[pile] for pile in last(cells)])
    b.gathered = gathering
    b.act(end)


class _Order:
    """The order that is seen while it comes about; only for whoever asks for it."""

    def __init__(self, b: Builder, cell: int | None) -> None:
        self.b, self.cell = b, cell
        if cell is not None:
            b.ever_told.add(cell)

    def begin(self, numbers: Callable[[Sequence[Any]], list[int]]) -> None:
        if (cell := self.cell) is not None:
            self._note(cell, lambda cells: as_one(numbers(cells)))

    def more(self, numbers: Callable[[Sequence[Any]], list[int]]) -> None:
        if (cell := self.cell) is not None:
            self._note(cell, lambda cells: as_one([*numbers_of(cells[cell]), *numbers(cells)]))

    def _note(self, cell: int, order: Reader) -> None:
        def run(cells: Cells) -> None:
            cells[cell] = order(cells)

        # What else the line does does not go by it.
        self.b.reads.add(cell)
        self.b.note(run, [cell], reckons=True)
        self.b.reads.discard(cell)
