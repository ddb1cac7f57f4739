"""Going through the lines of a routine in order, each with a meaning of its own; what is at fault is noted."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from itertools import zip_longest
from typing import Any

from ..language.facets import Facet
from ..language.kinds import ENDING, HANDLING, PAGE, SETUP
from ..language.routine import STEP, Line, Routine
from ..language.slots import OF_CARDS
from ..search.program import ClaimLine
from .asking import LineFails
from .purpose import Needs, Purpose
from .tallies import Tallies

MAX_INSTRUCTIONS = 5000
MAX_ROUNDS = 20_000
"""times that lines in blocks are gone through, whether or not anything is done in them"""


class Lines(Tallies):
    def __init__(self, routine: Routine, purpose: Purpose, needs: Needs) -> None:
        super().__init__(routine, purpose, needs)
        self.claims: list[ClaimLine] = []
        self._phase = PAGE
        self._following: Line | None = None
        """the step behind the line at hand, in the same block"""
        self._blocks_entered = 0
        self._sound: tuple[int | None, int | None] = (None, None)
        """how many instructions and claims there were before the first line at fault"""

    def _lines(self, lines: Sequence[Line]) -> None:
        steps = [line for line in lines if line.is_ == STEP and line.kind]
        following = {line.number: after for line, after in zip_longest(steps, steps[1:])}
        for line in lines:
            if line.faults:
                self._stop(len(self.instructions), len(self.claims))
            if line.is_ != STEP or line.kind is None:
                self.said_at(line)
                continue
            with self._at(line):
                self._following = following[line.number]
                self._refuse_blanks(line)
                self._in_order(line)
                self._knows_the_cards(line)
                line.kind.means(self)
            self.said_at(line)

    @contextmanager
    def _at(self, line: Line) -> Iterator[None]:
        """While the meaning of a line is built; where that fails, the program is sound up to here."""
        outer = self._line, self._needs_of_line()
        self._line = line
        self._set_needs_of_line((set(), set(), False, set(), set(), (), False, set()))
        self.settled = set()
        emitted, claims = len(self.instructions), len(self.claims)
        try:
            yield
        except LineFails:
            self._stop(emitted, claims)
        self._line = outer[0]
        self._set_needs_of_line(outer[1])

    def said_at(self, line: Line) -> None:
        """What is said at a line is judged in asides.py; here it means nothing."""

    def said_by_the_end(self) -> None:
        """The same of what was said of the end, where paths come to it."""

    def means_in_passing(self, claims: Sequence[Line]) -> None:
        """The meaning of claims that are no lines of the routine."""
        for line in claims:
            assert line.kind
            with self._at(line):
                line.kind.means(self)

    def _needs_of_line(self) -> tuple[Any, ...]:
        """What the line at hand depends on and changes, as far as it has said so."""
        looks = (self.looks_everywhere, self.looks_in, self.bags_in, self.spots_in)
        return (self.reads, self.touches, *looks, self.facts_everywhere, self.facts_in)

    def _set_needs_of_line(self, needs: tuple[Any, ...]) -> None:
        self.reads, self.touches, *looks, self.facts_everywhere, self.facts_in = needs
        self.looks_everywhere, self.looks_in, self.bags_in, self.spots_in = looks

    def _stop(self, instructions: int, claims: int) -> None:
        if not self.stopped:
            self.stopped, self._sound = True, (instructions, claims)

    def _refuse_blanks(self, line: Line) -> None:
        for name, _, _ in line.blanks():
            raise self.fault(
                name, "A blank waits here.", "a value", "Write one in place of the “?”, or ask what would work."
            )

    def _knows_the_cards(self, line: Line) -> None:
        """Whatever a line does: a card that somebody is to find or go by must be one that they know."""
        assert line.kind is not None
        if line.kind.phase != HANDLING:
            return
        for slot, name in self.cards_by_name():
            self.must_have_seen(slot, name)
            if not (self.performer_acts() or slot in line.kind.yours):
                continue
            if slot not in line.kind.finds or name not in self.scope.cards - self.scope.known_faces:
                self.must_know(slot, name)
            elif name not in self.scope.held:
                self.must_find(slot, name)

    def cards_by_name(self) -> Iterator[tuple[str, str]]:
        """(slot, name) of every card that stands in the line by its name."""
        for slot, type_name, _, _ in self.line.spans:
            if type_name in OF_CARDS:
                value = self.line.values[slot]
                yield from ((slot, name) for name in ((value,) if isinstance(value, str) else value or ()))

    def _in_order(self, line: Line) -> None:
        assert line.kind is not None
        phase = line.kind.phase
        if phase != PAGE and not self.pack and not line.has(Facet.PACK):
            raise self.leans(
                lambda: self.fault_at(
                    line,
                    "The routine has no pack yet.",
                    "a line such as “Pack: 52 cards, any order”",
                    "Begin with the pack.",
                )
            )
        if phase == SETUP and self._phase not in (PAGE, SETUP):
            raise self.fault_at(
                line,
                "The routine has already begun.",
                "what lies ready before the first action",
                "Move this line up, to the set-up.",
            )
        if self._phase == ENDING and phase == HANDLING:
            raise self.fault_at(
                line,
                "The ending has already been claimed.",
                "nothing to be done after an ending",
                "Move the line above the ending.",
            )
        if self.scope.ended and phase in (HANDLING, ENDING) and not line.has(Facet.OTHERWISE):
            raise self.fault_at(
                line,
                "No path comes as far as this line.",
                "a case above that has no ending",
                "Move the line up, or into one of the cases.",
            )
        self._phase = self._phase if phase == PAGE else phase

    def _inside(self, lines: Sequence[Line]) -> None:
        faults = len(self.faults)
        self._lines(lines)
        if len(self.faults) > faults:
            raise LineFails  # the same faults every time round; once is enough
        self._blocks_entered += 1
        if len(self.instructions) > MAX_INSTRUCTIONS or self._blocks_entered > MAX_ROUNDS:
            many = (
                f"more than {MAX_INSTRUCTIONS} single actions"
                if len(self.instructions) > MAX_INSTRUCTIONS
                else f"more than {MAX_ROUNDS} times round"
            )
            raise self.fault_at(
                self.line,
                f"This makes {many}.",
                "fewer repetitions",
                "Repeat fewer times.",
                is_limit=True,
            )
