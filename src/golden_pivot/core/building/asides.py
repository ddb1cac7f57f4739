"""Claims made in passing: what is said at a line, judged on every path that comes by, which then goes on.

A routine that has asides is judged by these alone: its own endings end their paths and claim nothing.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

from ..faults import Impossible
from ..language.routine import Aside, Line
from ..search.program import FAILED, NO_ENDING, Cell, Cells, Reader
from ..search.telling import Seen, Told
from .acts import Acts, Judged


class Asides(Acts):
    def __init__(self, *given: Any) -> None:
        super().__init__(*given)
        self._passing: list[int] | None = None
        """while an aside is built: cells that tell whether this path has come by; none for one that is judged at once"""
        self._passed: dict[int, int] = {}
        """aside, by its place in the list → the cell that tells whether this path has come by"""

    # Where they are made

    def said_at(self, line: Line) -> None:
        outer, self._line = self._line, line
        for number, aside in enumerate(self.routine.asides):
            if aside.line == line.number and not aside.later:
                self._judge(aside, [])
            elif aside.line == line.number:
                self._come_by(number)
        self._line = outer

    def said_by_the_end(self) -> None:
        for number, cell in self._passed.items():
            self._judge(self.routine.asides[number], [cell])

    def _come_by(self, number: int) -> None:
        if number not in self._passed:
            self._passed[number] = self.new_cell(Cell("said", False))
        cell = self._passed[number]

        def run(cells: Cells) -> None:
            cells[cell] = 1

        self.note(run, [cell])

    def _judge(self, aside: Aside, passed: list[int]) -> None:
        self._passing = passed
        try:
            self.means_in_passing(aside.claims)
        finally:
            self._passing = None

    # What a line claims

    def _claimed(self, judged: Judged) -> None:
        if not self.routine.asides:
            super()._claimed(judged)
        elif self._passing is None:
            self._ends()
        else:
            cells_passed = tuple(self._passing)
            self.reads |= set(cells_passed)

            def so(cells: Sequence[Any]) -> bool:
                try:
                    return not all(cells[cell] for cell in cells_passed) or judged.holds(cells)
                except Impossible:
                    return False

            def why(cells: Sequence[Any]) -> str:
                try:
                    return judged.explain(cells)
                except Impossible as obstacle:
                    return obstacle.reason

            index = self._claim()
            self._settles(index, Judged(so, why))

    def check_tells(self, seen: Callable[[Sequence[Any]], Seen], told: Callable[[Sequence[Any]], Told]) -> None:
        if not self.routine.asides:
            super().check_tells(seen, told)
        else:
            self._ends()

    def never_shows(self, card_slot: str | None, face: bool) -> None:
        if not self.routine.asides:
            super().never_shows(card_slot, face)

    def ask_odds(self, text: str, number: Reader, settled: bool) -> None:
        if not self.routine.asides:
            super().ask_odds(text, number, settled)

    def _ends(self) -> None:
        def run(cells: Cells) -> None:
            cells[FAILED] &= ~NO_ENDING

        self.note(run, [FAILED])
