"""Piles that are laid down one by one, in a number that may differ from path to path."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from functools import cached_property
from math import comb
from typing import Any

from ..cards import MAX_CARDS
from ..faults import Impossible, NoSuchPath
from ..search.program import Cell, Cells, Reader
from .asides import Asides
from .card_names import DECK
from .places import Place, fixed_place
from .table import MOST_PILES

OTHERS = "spare"
LAID_DOWN = "piles laid down"
"""the one heap for all of them"""


class Keeping(Asides):
    def so_many_piles(self, count: int, piles_from: str = DECK) -> list[Place]:
        self.scope.pile_count = None
        return super().so_many_piles(count, piles_from)

    def growing_piles(self) -> tuple[int, ...]:
        """Cells of the piles to come, pile 1 first; a pile goes to the one numbered by `pile_count`.

        Where no line speaks of any of them, a proof needs only one heap for all.
        """
        if self.scope.pile_count is None:
            self.scope.dealt_piles = self.scope.piles
        self.scope.pile_count = self._pile_count
        if self.purpose.forget_places and not self.needs.pile_places:
            cell = self._place_cell(LAID_DOWN)
            self.scope.piles, self.scope.piles_from = (cell,), "deck"
            self.touches.add(cell)
            return self.scope.piles
        most = min(MOST_PILES, MAX_CARDS, len(self.pack) + len(self.extras))
        return self._piles_named(most)

    def _piles_named(self, count: int) -> tuple[int, ...]:
        names = [f"pile {i}" for i in range(1, count + 1)]
        cells = tuple(self._place_cell(name) for name in names)
        self.scope.filled |= set(names)
        self.scope.piles, self.scope.piles_from = cells, "deck"
        self.touches |= set(cells)
        return cells

    def highest_pile(self) -> Reader:
        """The highest number of a pile that has cards, however it came about; 0 where none has."""
        numbered = sorted(self._numbered_piles().items(), reverse=True)
        self.reads |= {cell for _, cell in numbered}
        return lambda cells: next((number for number, cell in numbered if cells[cell]), 0)

    def is_one_choice(self, count: int) -> bool:
        # How many are laid down is known on each path by itself.
        return self.scope.pile_count is not None or super().is_one_choice(count)

    def pile_count(self) -> int:
        """The cell that counts the piles laid down so far."""
        if self.scope.pile_count is None:
            self.scope.pile_count = self._pile_count
        self.touches.add(self.scope.pile_count)
        return self.scope.pile_count

    @property
    def _pile_count(self) -> int:
        if self._count_cell is None:
            self._count_cell = self._counter("number of piles")
        return self._count_cell

    _count_cell: int | None = None

    def number_of_piles(self) -> Reader:
        cell = self.scope.pile_count
        if cell is None:
            return super().number_of_piles()
        if (self.needs.pile_places or not self.purpose.forget_places) and not self.needs.kept_piles:
            piles = tuple(self._numbered_piles().values())  # lines may have taken, joined or renumbered some
            self.reads |= set(piles)
            return lambda cells: sum(bool(cells[pile]) for pile in piles)
        # As long as none has been laid down, those dealt before are the piles there are.
        dealt = self.scope.dealt_piles
        self.reads |= {cell, *dealt}
        return lambda cells: int(cells[cell]) or sum(bool(cells[pile]) for pile in dealt)

    def numbered_anew(self) -> Callable[[Cells, int], None]:
        """To be told how many piles are left where they are numbered anew from the left: the next one laid down comes behind them."""
        cell = self.scope.pile_count
        if cell is None:
            return lambda cells, left: None
        self.touches.add(cell)

        def so_many(cells: Cells, left: int) -> None:
            cells[cell] = left

        return so_many

    def piles(self) -> tuple[int, ...]:
        if self.scope.pile_count is not None:
            self.ask_pile_places()
        return super().piles()

    def every_place(self) -> tuple[int, ...]:
        if self.scope.pile_count is not None:
            self.ask_pile_places()
        return super().every_place()

    def ask_pile_places(self) -> None:
        """Each of the piles laid down one by one is a place of its own."""
        self.found_needs = replace(self.found_needs, pile_places=True)

    def own_places_beside_numbered_piles(self) -> None:
        """What another line deals to pile 1 goes on the pile 1 that has been laid down."""
        if LAID_DOWN in self.place_cells and any(name.startswith("pile ") for name in self.place_cells):
            self.ask_pile_places()

    def known_place(self, slot: str, name: str) -> Place:
        if name.startswith("pile ") and self.scope.pile_count is not None:
            self.ask_pile_places()
            if not self.needs.pile_places:
                return super().known_place(slot, "deck")  # the first building only finds out what is needed
        return super().known_place(slot, name)

    # Keeping some of them

    def kept_piles(self, slot: str, count: int) -> None:
        """From here on only the kept piles are the piles. Paths that have kept too few are none."""
        if self.scope.pile_count is None or (self.needs.kept_piles and self.needs.kept_piles != count):
            raise self.leans(
                lambda: self.fault(
                    slot, "There are no piles to keep here.", "piles laid down one by one above, and kept once",
                    "Write “Lay … down as a new pile” above.",
                )
            )  # fmt: skip
        self.found_needs = replace(self.found_needs, kept_piles=count)
        piles, enough = self._piles_named(count), self._enough_cell
        self.scope.pile_count = None
        self.reads |= {*piles, enough}

        if self.purpose.odds:
            # Settled pile by pile, a way comes about by as many halves as piles were settled while there was room.
            laid, halves = self._pile_count, self._halves_cell
            self.reads |= {laid, halves}
            self.makes_up_for(
                f"which piles are kept in line {self.line.number}", lambda cells: 2 ** int(cells[halves]),
                lambda cells: comb(int(cells[laid]), count) or 1,
            )  # fmt: skip

        def run(cells: Cells) -> None:
            kept = sum(bool(cells[cell]) for cell in piles)
            if kept < count:
                if kept < cells[enough]:
                    raise NoSuchPath
                raise Impossible(f"{count} piles are to be kept, but there are only {kept}")

        self.act(run, sifts=True)

    @cached_property
    def _enough_cell(self) -> int:
        return self._counter("piles to choose from")

    @cached_property
    def _halves_cell(self) -> int:
        return self._counter("piles settled while there was room")

    def _counter(self, name: str) -> int:
        """The cell of a number that begins with 0."""
        cell = self.new_cell(Cell(name, False))
        self.start[cell] = 0
        return cell

    def lay_or_reject(self, source: Place) -> None:
        """The heap is one of the piles that a later line keeps, or it goes on the others."""
        keep = self.needs.kept_piles
        piles, enough, count = self._piles_named(keep), self._enough_cell, self.pile_count()
        self.scope.filled.add(OTHERS)
        others = fixed_place(OTHERS, self._place_cell(OTHERS))
        self.reads |= set(piles)
        key = f"pile kept in line {self.line.number}"

        def room(cells: Cells) -> bool:
            return not cells[piles[-1]]

        def options(cells: Sequence[Any]) -> Sequence[int]:
            if not source.of(cells):  # there is nothing of which to settle it
                raise Impossible(f"{source.name} is empty")
            return [1, 0] if room(list(cells)) else [0]

        kept = self.choose_unnamed(
            key, "whether the new pile is kept", False, options,
            lambda cells, option: "yes" if option else "no",
            one_by_one=True,
        )  # fmt: skip
        halves = self._halves_cell if self.purpose.odds else None

        def run(cells: Cells) -> None:
            heap = source.of(cells)
            if not cells[enough] and any(cells[cell] for cell in piles):
                raise Impossible("other piles lie there already")
            if halves is not None:
                cells[halves] += room(cells)
            cells[enough] = min(keep, (cells[enough] or 0) + 1)
            cells[count] = (cells[count] or 0) + 1
            if kept(cells):
                source.put(cells, b"")
                heaps = sorted([*filter(None, (cells[cell] for cell in piles)), heap], key=len)
                for cell, one in zip(piles, heaps, strict=False):
                    cells[cell] = one

        def reject(cells: Cells) -> None:
            others.put(cells, source.of(cells) + others.of(cells))
            source.put(cells, b"")

        self.touches |= {enough, count} | ({halves} if halves is not None else set())
        self.act(run)
        self.touches |= others.cells
        self.act(reject, to=others)
