"""The places of the table: heaps, rows, piles, and the counts and gatherings between them."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from functools import cache
from itertools import permutations
from typing import Any

from ..cards import DOWN, UP, index_of, reversed_block, turned_over
from ..english import counted
from ..faults import Impossible, OutOfBudget
from ..language.phrases import place_text
from ..language.sorts import Sort
from ..language.values import Indexed, PlaceName, Position
from ..layouts import HEAP, ROW, Layout
from ..search.program import Cell, Cells, Reader
from .asking import LineFails
from .card_names import DECK, PackCard
from .places import Deal, Gathering, Place, fixed_place, one_of, reckoned_place
from .reckoning import Numbers

MOST_PILES = 60
MOST_GATHERED_FREELY = 6
"""things whose every order is one choice: 720 of them"""


@cache
def _every_order(count: int) -> list[tuple[int, ...]]:
    """Of so many things numbered from 0. Raises OutOfBudget where these are too many for one choice."""
    if count > MOST_GATHERED_FREELY:
        raise OutOfBudget(
            "orders", f"{count} piles in any order are more than the {MOST_GATHERED_FREELY} that can be followed"
        )
    return list(permutations(range(count)))


class Table(Numbers):
    # Places

    def lay_pack(self, count: int) -> None:
        if self.pack:
            raise self.fault_at(self.line, "There is a pack already.", "one pack", "Remove one of the two lines.")
        self.pack = [PackCard() for _ in range(count)]
        self._place_cell(DECK)
        self.scope.filled.add(DECK)

    def arrange(self, slot: str, sorts: Sequence[Sort]) -> None:
        """Of each card of the pack, from the top, the sort is known."""
        if len({sort.fact for sort in sorts}) > 1:
            raise self.fault(
                slot, "These are colours and suits.", "colours alone, or suits alone", "Say it all in one of them."
            )
        if any(card.sort for card in self.pack):
            raise self.fault_at(
                self.line, "The pack is arranged already.", "one such line", "Remove one of the two lines."
            )
        for sort in dict.fromkeys(sorts):
            most = -(-len(sorts) // 52) * len(sort.names)
            if (many := sorts.count(sort)) > most:
                raise self.fault(
                    slot, f"There are {many} {sort.many} here.", f"at most {most}: a pack has no more", "Make them fewer.",
                )  # fmt: skip
        for index, (card, sort) in enumerate(zip(self.pack, sorts, strict=True)):
            self.fits_in(slot, card.name, index, sort)
            card.sort = sort

    def _place_cell(self, name: str, layout: Layout = HEAP) -> int:
        if name not in self.place_cells:
            self.place_cells[name] = self.new_cell(Cell(name, True, layout=layout))
            self.kinds_of_names[name] = "place"
            self.where_named[name] = self.line.number
        return self.place_cells[name]

    def _resolved(self, slot: str, name: PlaceName) -> Place:
        if isinstance(name, str):
            return self.known_place(slot, name)
        return self._reckoned(slot, name)

    def _reckoned(self, slot: str, name: Indexed) -> Place:
        known = {
            int(number): self.place_cells[place]
            for place in self.scope.filled
            if (number := place.removeprefix(f"{name.base} ")).isdigit() and place != number
        }
        if name.base == "pile" and self.scope.pile_count is not None:
            self.piles()
        if not known:
            raise self.unknown(slot, f"{name.base} 1", "place")
        before, self.reads = self.reads, set()
        index = self.evaluate(slot, name.index)
        reads = frozenset(self.reads)
        self.reads |= before
        rows = all(self.cells[cell].layout == ROW for cell in known.values())
        return reckoned_place(place_text(name), name.base, known, index, reads, ROW if rows else HEAP)

    def source(self, slot: str) -> Place:
        """A place that cards have been put on; the line changes what lies there."""
        place = self.looked_at(slot)
        self.touches |= place.cells
        return place

    def all_of(self, slot: str) -> Place:
        """A place all of whose cards leave it together; the line changes what lies there."""
        place = self.source(slot)
        self.settled |= place.cells
        return place

    def changed_where_it_lies(self, place: Place) -> None:
        """The line turns cards there, or finds out which they are; none goes to another spot."""
        self.touches |= place.cells
        self.settled |= place.cells

    def leaves_spots(self) -> None:
        """Raises a fault where the line would move some cards of a place in which each keeps its spot."""
        for cell in sorted(self.touches - self.settled):
            if cell > 0 and self.cells[cell].layout.is_fixed:
                name, layout = self.cells[cell].name, self.cells[cell].layout
                raise self.fault_at(
                    self.line,
                    f"The cards of {name} lie {layout.lies}, and each keeps its place.",
                    "all of them taken up together",
                    f"Put {name} on another heap first.",
                )

    def looked_at(self, slot: str) -> Place:
        """A place that cards have been put on; the line leaves it as it is."""
        place = self._resolved(slot, self.line.values[slot])
        self.reads |= place.cells | place.reads
        return place

    def several(self, slot: str) -> list[Place]:
        """Places that cards have been put on, each once."""
        places = [self._resolved(slot, name) for name in self.line.values[slot]]
        for place in places:
            self.reads |= place.cells | place.reads
        return places

    def destination(
        self, slot: str, otherwise: str | None = None, layout: Layout = HEAP, apart_from: Place | None = None
    ) -> Place:
        """A place that cards go to, not the one they come from; a new name is a new place."""
        name: PlaceName = self.line.values.get(slot) or otherwise or DECK
        if isinstance(name, Indexed):
            place = self._reckoned(slot, name)
            self.reads |= place.reads
        elif name in self.scope.aliases:
            place = self.known_place(slot, name)
        else:
            if self.kinds_of_names.get(name, "place") != "place":
                raise self.unknown(slot, name, "place")
            self.scope.filled.add(name)
            cell = self._place_cell(name, layout)
            place = fixed_place(name, cell, self.cells[cell].layout)
        onto_ring = layout.is_heap and place.layout.is_round  # there they come before the first
        if place.layout != layout and not onto_ring and (not layout.is_heap or not isinstance(name, Indexed)):
            raise self.fault(
                slot,
                f"The cards of {place.name} lie {place.layout.lies}, not {layout.lies}.",
                "a place whose cards lie as this line lays them",
                "Say “from left to right” or “from right to left” for a row, or name another place.",
            )
        self.touches |= place.cells
        if layout.is_fixed:
            self.settled |= place.cells
        return self._apart(slot, apart_from, place) if apart_from else place

    def _apart(self, slot: str, source: Place, to: Place) -> Place:
        """`to`, with a check that it is not the place the cards come from."""
        if not source.cells & to.cells:
            return to
        if len(source.cells) == len(to.cells) == 1:
            raise self.fault(
                slot,
                "Cards cannot go to the place they come from.",
                "another place",
                "Name another place, or leave it out.",
            )

        def of(cells: Sequence[Any]) -> bytes:
            if source.find(cells) == to.find(cells):
                raise Impossible("cards cannot go to the place they come from")
            return to.of(cells)

        return replace(to, of=of)

    def new_places(self, slot: str, source: Place) -> list[Place]:
        """Heaps that cards go to one by one; from here on they are *the piles*, in this order."""
        names = self.line.values[slot]
        places = []
        for name in names:
            if not isinstance(name, str):
                raise self.fault(
                    slot, f"{place_text(name)} is not settled.", "piles by their own names", "Name them."
                )
            self.scope.filled.add(name)
            places.append(fixed_place(name, self._place_cell(name)))
        cells = [cell for place in places for cell in place.cells]
        if (
            len(set(cells)) < len(cells)
            or source.cells & set(cells)
            or not all(self.cells[cell].layout.is_heap for cell in cells)
        ):
            raise self.fault(slot, "These are not different heaps.", "other heaps, each once", "Name other places.")
        self.scope.piles = tuple(cells)
        self.scope.piles_from = source.name if source.name in self.place_cells else DECK
        self.touches |= set(cells)
        return places

    def one_of(self, places: Sequence[Place], which: Reader) -> Place:
        """The place among these at an index that depends on what the line has read so far."""
        return one_of(places, frozenset(self.reads), which)

    def number_of_piles(self) -> Reader:
        """How many of the piles have cards."""
        piles = self.piles()
        return lambda cells: sum(bool(cells[cell]) for cell in piles)

    def hidden_place(self, name: str) -> Place:
        """Where cards are while a line is carried out; empty before and after. The line depends on it and changes it."""
        name = f"{name} in line {self.line.number}"
        place = fixed_place(name, self._place_cell(name))
        self.touches |= place.cells
        self.reads |= place.cells
        return place

    def moves(self, source: Place, to: Place) -> None:
        """The line takes all of `source` to `to`."""
        self.reads |= source.cells | source.reads | to.reads
        self.touches |= source.cells | to.cells

    def every_place(self) -> tuple[int, ...]:
        """Cells of every place cards have been put on so far; the line depends on all of them."""
        cells = tuple(self.place_cells[name] for name in self.place_cells if name in self.scope.filled)
        self.reads |= set(cells)
        return cells

    # Which way up

    @property
    def flip(self) -> Callable[[bytes], bytes]:
        """Turns a block of cards over."""
        return turned_over if self.follows_faces else reversed_block

    def laid(self, slot: str) -> Callable[[bytes], bytes]:
        """Lays cards face up or face down, as the phrase in the slot says; without one, as they are."""
        way = self.phrase(slot)
        if not way or not self.follows_faces:
            return lambda block: block
        table = UP if way == "face up" else DOWN
        return lambda block: block.translate(table)

    # Counts

    def enough_cards(self, place: Place, count: Reader) -> Reader:
        """The count, checked against what lies there. A slice would clip it silently."""
        within_heap = self.within_heap

        def enough(cells: Sequence[Any]) -> int:
            n, size = count(cells), len(place.of(cells))
            if not 0 <= n <= size:
                within_heap(place, n, size)
            return n

        return enough

    def within_heap(self, place: Place, n: int, size: int) -> None:
        """Raises Impossible unless 0 ≤ n ≤ size."""
        if not 0 <= n <= size:
            raise Impossible(f"{n} cards are asked for, but {place.name} has {counted(size, 'card')}")

    def now_dealt(self, source: Place, to: Place, last_at_end: bool, from_bottom: bool = False) -> int:
        """From here on *the dealt cards* are those in `to`, *the next card* is the top one of `source`.

        Returns the cell in which the line keeps how many cards it took.
        """
        counted = self.new_cell(Cell("cards counted", False))
        self.scope.deal = Deal(source, to, (counted,), last_at_end, from_bottom)
        self.touches.add(counted)
        return counted

    def last_deal(self, what: str = "deal") -> Deal:
        """The count that the line refers to, as a whole or with its `next card` or `last card`."""
        if self.scope.deal is None:
            raise self.leans(
                lambda: self.fault_at(
                    self.line,
                    "No cards have been dealt yet, or not to one place in every case that comes here.",
                    "a deal or a count above this line",
                    "Deal first.",
                )
            )
        self.goes_by(what)
        return self.scope.deal

    # Piles

    def new_piles(self, slot: str, source: Place) -> list[Place]:
        """As many piles as the slot says; pile 1 is dealt to first. Cards that lie there already stay."""
        count = self.constant(slot)
        if not 1 <= count <= MOST_PILES:
            raise self.fault(slot, f"There cannot be {count} piles.", f"from 1 to {MOST_PILES}", "Change the number.")
        return self.so_many_piles(count, source.name if source.name in self.place_cells else DECK)

    def so_many_piles(self, count: int, piles_from: str = DECK) -> list[Place]:
        """Pile 1, pile 2 and so on; gathered, they go to `piles_from` unless a line says otherwise."""
        names = [f"pile {i}" for i in range(1, count + 1)]
        piles = [fixed_place(name, self._place_cell(name)) for name in names]
        self.scope.filled |= set(names)
        self.scope.piles, self.scope.piles_from = tuple(cell for pile in piles for cell in pile.cells), piles_from
        self.touches |= set(self.scope.piles)
        return piles

    def piles(self) -> tuple[int, ...]:
        """Cells of the piles last dealt, pile 1 first."""
        piles = self.scope.piles or tuple(self._numbered_piles().values())
        if not piles:
            raise self.leans(
                lambda: self.fault_at(
                    self.line,
                    "There are no piles here.",
                    "a deal into piles above this line",
                    "Deal into piles first.",
                )
            )
        self.goes_by("piles")
        self.reads |= set(piles)
        return piles

    def piles_there(self) -> Callable[[Sequence[Any]], list[int]]:
        """(state) → cells of the piles that have cards, pile 1 first: only these can be pointed to or gathered."""
        piles = self.piles()
        return lambda cells: [cell for cell in piles if cells[cell]]

    def _numbered_piles(self) -> dict[int, int]:
        """Number → cell, for every heap called pile 1, pile 2, … that cards have been put on."""
        numbers = (name.removeprefix("pile ") for name in self.scope.filled if name.startswith("pile "))
        return {
            int(number): self.place_cells[f"pile {number}"]
            for number in sorted(filter(str.isdigit, numbers), key=int)
        }

    def gather(self, order: Callable[[Sequence[Any]], Sequence[int]], to: Place) -> Callable[[Cells], None]:
        """What puts the piles together at `to`, on what lies there; to be given to `act`.

        `order` gives the cells of the piles from top to bottom.
        """
        self.gathered = self.gathering(to)
        sizes = self.gathered.sizes

        def run(cells: Cells) -> None:
            together = order(cells)
            heaps = [cells[cell] for cell in together]
            for cell in together:
                cells[cell] = b""
            below = to.of(cells)
            to.put(cells, b"".join(heaps) + below)
            cells[sizes] = tuple(map(len, heaps))

        return run

    gathered: Gathering | None = None
    """what the line at hand gathers"""

    def gathering(self, to: Place) -> Gathering:
        """Of the piles, at this place, by the line at hand."""
        sizes = self.new_cell(Cell("sizes of the gathered piles", False))
        self.touches |= {sizes} | to.cells | set(self.piles())
        self.reads |= to.cells
        return Gathering(to, sizes)

    def free_orders(self, count: int) -> list[tuple[int, ...]]:
        """Every order of `count` things numbered from 0."""
        self._few_enough_orders(count)
        return _every_order(count)

    every_order = staticmethod(_every_order)

    def is_one_choice(self, count: int) -> bool:
        """Whether every order of so many piles is a single choice."""
        return count <= MOST_GATHERED_FREELY

    def _few_enough_orders(self, count: int) -> None:
        """So many things in any order can be a single choice."""
        if count > MOST_GATHERED_FREELY:
            raise self.fault_at(
                self.line,
                f"{count} things in any order are too many orders for one choice.",
                f"at most {MOST_GATHERED_FREELY} in any order",
                "Take some of them in a stated order.",
                is_limit=True,
            )

    def last_gathering(self) -> Gathering:
        """The piles as they were put together, undisturbed since."""
        if self.scope.gathering is None:
            raise self.leans(
                lambda: self.fault_at(
                    self.line,
                    "No piles have just been gathered.",
                    "this line directly below the one that gathers the piles",
                    "Move the line up.",
                )
            )
        self.goes_by("gathering")
        self.reads |= {self.scope.gathering.sizes} | self.scope.gathering.to.cells
        return self.scope.gathering

    def found_at(self, place: Place, cells: Sequence[Any], token: int) -> int:
        """Index from 0 of a card in a place; raises Impossible when it is not there."""
        at = index_of(place.of(cells), token)
        if at < 0:
            raise Impossible(f"the card that is looked for is not in {place.name}")
        return at

    # Positions

    def index(self, slot: str, position: Position, place: Place) -> Callable[[Sequence[Any], int], int]:
        """(state, number of cards) → index from 0; raises Impossible where no card lies there."""
        at = self.evaluate(slot, position.at)
        if position.end in ROW.ends and position.end not in place.layout.ends:
            raise self._no_row(slot, place)
        from_end = position.end in (HEAP.ends[1], ROW.ends[1])

        def found(cells: Sequence[Any], size: int) -> int:
            number = at(cells)
            if not 1 <= number <= size:
                raise Impossible(f"{place.name} has {size} cards and none at position {number}")
            return size - number if from_end else number - 1

        return found

    def _no_row(self, slot: str, place: Place) -> LineFails:
        return self.fault(
            slot,
            f"The cards of {place.name} lie {place.layout.lies}: it has no left and right.",
            "“from the top” or “from the bottom”",
            "Count from the top, or deal the cards into a row.",
        )
