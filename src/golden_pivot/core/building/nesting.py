"""Lines with other lines under them: stated repetitions, cases, and repetitions without end."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from functools import reduce
from typing import Any

from ..faults import Impossible
from ..language.facets import Facet
from ..language.kinds import ENDING, HANDLING
from ..language.routine import STEP
from ..language.templates import PERFORMER, SPECTATOR
from ..search.program import END, Branch, Cell, Cells, Closure, Leap, Loop, changed
from .asking import LineFails
from .lines import Lines
from .places import Place
from .scope import REFERENTS, Again, Scope, after_cases


class Blocks(Lines):
    def __init__(self, *given: Any) -> None:
        super().__init__(*given)
        self._some_have_ended = False
        """some paths have come to an ending above"""
        self._cases = 0
        """how many cases stand around the line"""
        self._unlimited = 0
        """how many repetitions without end stand around the line"""
        self._open: tuple[int, Scope, Scope] | None = None
        """behind an If with an Otherwise: (index of its leap or -1, what was known before it, and behind it)"""
        self._left: list[list[tuple[int, Scope]]] = []
        """for each loop around the line: (index of a leap out of it, what is known there)"""

    @contextmanager
    def may_be_left(self) -> Iterator[None]:
        """A loop: lines inside may leave it, and what is known behind it is what is known on all ways there."""
        self._left.append([])
        try:
            yield
        finally:
            left = self._left.pop()
        for index, scope in left:
            self._aim(index)
            self.scope = after_cases(self.scope, scope)

    def leave_loop(self) -> None:
        """These paths go on behind the loop."""
        if not self._left or not self._cases:
            raise self.fault_at(
                self.line, "There is no loop to leave here." if not self._left else "Every path leaves the loop here.",
                "a case inside of lines that are repeated", "Indent it under an If in the lines of the loop.",
            )  # fmt: skip
        self._left[-1].append((len(self.instructions), self.scope.copy()))
        self.instructions.append(Leap(self.line.number, self.rounds, frozenset(), frozenset(), END))
        self.scope.ended = True

    def body(self, turn: int) -> None:
        """Carry out the lines of the block once; `turn` counts from 1."""
        if self.scope.ended and self._left and self._left[-1]:
            return  # every path has left the loop
        self.rounds = (*self.rounds, turn)
        self._inside(self.line.body)
        self.rounds = self.rounds[:-1]

    def inside(self) -> None:
        """Carry out the lines of the block as if they were not in one."""
        self._inside(self.line.body)

    def only_if(self, holds: Callable[[Sequence[Any]], bool]) -> None:
        """The lines of the block are carried out on the paths where this holds."""
        branch = len(self.instructions)
        self.instructions.append(Branch(**self.standing(), holds=holds, target=END))
        following = self._following
        before = self.scope.copy()
        inside = self._case()
        leap = -1
        if following is not None and following.has(Facet.OTHERWISE):
            if not inside.ended:
                leap = len(self.instructions)
                self.instructions.append(Leap(self.line.number, self.rounds, frozenset(), frozenset(), END))
            self._open = (leap, before, inside)
            self.scope = inside
            self.scope.ended = False
        else:
            self.scope = after_cases(inside, before)
        self._aim(branch)

    def otherwise(self) -> None:
        """The lines of the block are carried out on the paths where the If above does not hold."""
        if self._open is None:
            raise self.leans(
                lambda: self.fault_at(
                    self.line, "There is no If directly above.", "a block under “If …:” above this line", "Move it."
                )
            )
        (leap, before, inside), self._open = self._open, None
        inside.ended = leap < 0
        self.scope = before
        other = self._case()
        if leap >= 0:
            self._aim(leap)
        self.scope = after_cases(inside, other)
        self.scope.ended = inside.ended and other.ended

    def as_often_as_liked(self, one_of: bool) -> None:
        """The block, any number of times; with `one_of` each of its lines is a move of its own."""
        steps = [line for line in self.line.body if line.is_ == STEP and line.kind]
        head, by = len(self.instructions), PERFORMER if self.performer_acts() else SPECTATOR
        closure = Closure(self.line.number, self.rounds, frozenset(), frozenset(), (), (), by)
        self.instructions.append(closure)
        again, afters, ends = self._begin_again(), [], []
        self._unlimited += 1
        try:
            for move in [[step] for step in steps] if one_of else [self.line.body]:
                self.scope = again.before.copy()
                self._inside(move)
                afters.append(self.scope)
                ends.append(len(self.instructions))
        except LineFails:
            # What can be shown of it is shown once.
            self.instructions[head] = Leap(self.line.number, self.rounds, frozenset(), frozenset(), head + 1)
            raise
        finally:
            self._unlimited -= 1
            self.again.pop()
        says = [step.text.strip().lower() for step in steps] if one_of else ["once more"]
        self.instructions[head] = changed(closure, ends=tuple(ends), says=tuple(says))
        here = len(self.instructions)
        self.instructions.append(Leap(self.line.number, self.rounds, frozenset(), frozenset(), here + 1))
        self._the_same_again(again, afters)

    def _begin_again(self) -> Again:
        self.scope.comes_again()
        self.again.append(Again(self.scope.copy()))
        return self.again[-1]

    def _the_same_again(self, again: Again, afters: Sequence[Scope]) -> None:
        """What is known behind the block, which may be left after any round, or before the first."""
        for what in dict.fromkeys(what for after in afters for what in again.changed_by(after)):
            self.fault_at(
                again.leaned_on[what], f"{REFERENTS[what].says} is another the next time round, so that it is not settled on every path.",
                "the same every time round", "Say by name which cards or which place is meant.", is_limit=True,
            )  # fmt: skip
        self.scope = reduce(lambda known, after: after_cases(after, known), afters, again.before)

    def for_each(self, slot: str, turns: int, place_of: Callable[[int], Place]) -> None:
        """The block once for each turn from 0; in it the name in the slot is the place whose turn it is."""
        name = self.phrase(slot)
        self.new_name(slot, name, "place")
        with self.may_be_left():
            for turn in range(turns):
                self.scope.aliases[name] = place_of(turn)
                self.body(turn + 1)
        self.scope.aliases.pop(name, None)
        self.kinds_of_names.pop(name, None)
        self.where_named.pop(name, None)

    def loop(
        self,
        goes_on: Callable[[], Callable[[Sequence[Any]], bool]],
        measure: Callable[[Sequence[Any]], int] | None,
        body: Callable[[], None] | None = None,
    ) -> None:
        """The block, or what `body` adds, again and again as long as `goes_on` holds, which may look at cards first.

        `measure` gets smaller with each time round, if anything does. What `body` settles is not asked for behind the loop.
        """
        reads = set(self.reads)
        head = len(self.instructions)
        loop = Loop(self.line.number, self.rounds, frozenset(self.reads), frozenset(), END, measure)
        self.instructions.append(loop)
        again = self._begin_again()
        holds = goes_on()
        leave = len(self.instructions)
        self.instructions.append(Branch(**self.standing(), holds=holds, target=END))
        with self.may_be_left():
            try:
                (body or (lambda: self._inside(self.line.body)))()
            except LineFails:
                self.instructions[head] = Leap(self.line.number, self.rounds, frozenset(), frozenset(), head + 1)
                raise
            finally:
                self.again.pop()
            end = len(self.instructions)
            self.instructions.append(Leap(self.line.number, self.rounds, frozenset(), frozenset(), end + 1))
            self.instructions[head] = changed(loop, end=end)
            self._aim(leave)
            self._the_same_again(again, [self.scope])
        if body:
            self.reads = reads

    def repeat_as_told(self, slot: str) -> None:
        """The block as many times as a number says that differs from path to path."""
        times = self.number(slot)
        left = self.new_cell(Cell("times still to go", False))
        self.touches.add(left)

        def begin(cells: Cells) -> None:
            cells[left] = times(cells)
            if cells[left] < 0:
                raise Impossible(f"nothing can be done {cells[left]} times")

        def once(cells: Cells) -> None:
            cells[left] -= 1

        def body() -> None:
            self.reads, self.touches = {left}, {left}
            self.note(once, [left])
            self._inside(self.line.body)

        self.note(begin, [left])
        self.reads = {left}
        self.loop(lambda: lambda cells: cells[left] > 0, lambda cells: int(cells[left]), body)

    def new_name(self, slot: str, name: str, kind: str) -> None:
        if self._unlimited:
            raise self.fault(
                slot,
                f"{name} would be another one each time, without end.",
                "nothing that gets a name in lines repeated as often as one likes",
                "Settle it above these lines, or repeat them a stated number of times.",
            )
        super().new_name(slot, name, kind)

    def _case(self) -> Scope:
        """Builds the block as one case and returns what is known behind it."""
        self._cases += 1
        try:
            self._inside(self.line.body)
        except LineFails:
            self._phase = HANDLING  # what stands below the case is not behind its ending
            raise
        else:
            if self.purpose.every_card and not any(line.is_ == STEP for line in self.line.body):
                # Only something is said: the table stops there, so that it is heard.
                self.note(lambda cells: None, ())
        finally:
            self._cases -= 1
        if self._phase == ENDING:
            self.said_by_the_end()
            self.instructions.append(Leap(self.line.number, self.rounds, frozenset(), frozenset(), END))
            self.scope.ended = self._some_have_ended = True
        self._phase = HANDLING
        return self.scope

    def _aim(self, index: int) -> None:
        """The branch or leap at this index goes to the instruction that comes next."""
        step = self.instructions[index]
        assert isinstance(step, Branch | Leap)
        self.instructions[index] = changed(step, target=len(self.instructions))
