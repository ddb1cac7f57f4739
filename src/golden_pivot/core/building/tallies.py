"""Looking through a whole heap: how many of its cards are of a sort."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

from ..cards import FACE_UP, FACE_UP_BYTES, TOKEN
from ..english import ordinal
from ..faults import Impossible
from ..language.expressions import Count
from ..language.sorts import SORTS, Sort
from ..search.program import ANY_FACE, Reader
from .of_a_kind import KindsLeftOpen
from .places import Place


class Tallies(KindsLeftOpen):
    def counted_in(self, slot: str, node: Count) -> Reader:
        return self.tally(self._resolved(slot, node.place), SORTS[node.sort])

    def tally(self, place: Place, sort: Sort) -> Reader:
        """How many cards of the sort lie at a place."""
        is_so = self.of_sort(place, sort, in_any_order=True)
        return lambda cells: sum(is_so(cells, byte) for byte in place.of(cells))

    def of_sort(self, place: Place, sort: Sort, in_any_order: bool = False) -> Callable[[Sequence[Any], int], bool]:
        """(state, a card of the place as it lies) → whether it is of the sort.

        Where it goes by faces, all cards there must lie open, or be turned up at the end.
        """
        self.reads |= place.cells | place.reads
        if sort.is_by_side:
            (self.bags_in if in_any_order else self.looks_in).update(place.cells)
            self.ask_faces()
            return lambda cells, byte: (byte >= FACE_UP) == bool(sort.number)
        self.look_through(place, sort.asked, in_any_order)
        read = self.fact_of(sort.asked)
        return lambda cells, byte: bool(read(cells, byte & TOKEN))

    def look_through(self, place: Place, fact: str, in_any_order: bool = False) -> None:
        """Every card of a place is looked at; `in_any_order`: which is which matters to the line, and not where they lie."""
        self.ask_fact(fact)
        if open_ := self.must_lie_open():
            self.ask_faces()
        whole = (min(place.cells), None) if len(place.cells) == 1 else None
        is_new = not self.scope.has_looked(whole, open_)
        self.bags_in |= place.cells
        if is_new:
            self._must_all_be_open(open_, place)
        outer, touched = set(self.looks_in), set(self.touches)
        self.looks_in |= place.cells
        self.facts_in |= place.cells
        self.touches |= set(self.face_cells.values())
        self.changed_where_it_lies(place)
        self.reads.add(ANY_FACE)

        def found(index: int) -> Callable[[Sequence[Any]], tuple[int, int, int] | None]:
            def there(cells: Sequence[Any]) -> tuple[int, int, int] | None:
                cell = place.find(cells)
                if index >= len(cells[cell]):
                    return None
                byte = cells[cell][index]
                if open_ and self.follows_faces and byte < FACE_UP:
                    raise Impossible(f"a card of {place.name} lies face down, and nobody can see it")
                return cell, index, byte & TOKEN

            return there

        if is_new:
            for index in range(len(self.pack) + len(self.extras)):
                says = {"goes_through": (min(place.cells), index)} if len(place.cells) == 1 else {}
                self.look(f"the {ordinal(index + 1)} card of {place.name}", found(index), **says)
            self.scope.looks(whole, open_)
        self.touches = touched  # what the line itself does is another matter
        if in_any_order:
            self.looks_in = outer

    def _must_all_be_open(self, open_: bool, place: Place) -> None:
        def run(cells: Sequence[Any]) -> None:
            if place.of(cells).translate(None, FACE_UP_BYTES):
                raise Impossible(f"a card of {place.name} lies face down, and nobody can see it")

        self.must_be_open(open_, run)
