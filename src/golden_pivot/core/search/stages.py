"""A program cut into stages, each of which takes all paths on in a single pass."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import Enum

from .program import Act, AnyInstruction, Branch, Check, Choose, Closure, Dead, Leap, Loop, Program


@dataclass(frozen=True)
class Stage:
    """One choice at most, then everything up to the next choice or meeting point.

    Paths leave on the way where a case parts them.
    """

    start: int
    """index of its first instruction"""
    choose: Choose | None
    then: tuple[Act | Check | Branch | Leap, ...]
    dead: Dead
    beyond: Mapping[int, Dead] = field(default_factory=dict)
    """for each place that paths leave for, what is dead there"""
    closure: Closure | Loop | None = None
    moves: tuple[tuple[int, tuple[Stage, ...]], ...] = ()
    """for a closure, each move: the index behind it, and its passes; a loop has one"""

    @property
    def first(self) -> AnyInstruction:
        return self.closure or self.choose or self.then[0]

    @property
    def acts(self) -> bool:
        """Something is done in it, or may be."""
        return self.closure is not None or any(isinstance(step, Act) for step in self.then)

    @property
    def only_checks(self) -> bool:
        return self.closure is None and self.choose is None and all(isinstance(step, Check) for step in self.then)


class Cut(Enum):
    """Where stages end besides where they must."""

    NOWHERE = "nowhere"
    BEHIND_A_LINE = "behind a line"
    """of a loop: behind it each time round"""
    EVERYWHERE = "everywhere"
    """one an instruction"""


def stages(program: Program, cut: Cut, begin: int = 0, end: int | None = None) -> list[Stage]:
    """The program, or a range of it, as few stages as can be."""
    return _Cutter(program, cut).cut(begin, len(program.instructions) if end is None else end)


class _Cutter:
    def __init__(self, program: Program, where: Cut) -> None:
        self.program, self.where = program, where
        self.found: list[Stage] = []
        self._open()

    def _open(self) -> None:
        self.start = 0
        self.choose: Choose | None = None
        self.then: list[Act | Check | Branch | Leap] = []
        self.dead = Dead()
        self.beyond: dict[int, Dead] = {}

    def _close(self) -> None:
        if self.choose or self.then:
            self.found.append(Stage(self.start, self.choose, tuple(self.then), self.dead, self.beyond))
        self._open()

    def cut(self, begin: int, end: int) -> list[Stage]:
        index = begin
        while index < end:
            step = self.program.instructions[index]
            if isinstance(step, Choose | Closure | Loop) or self._ends_before(step) or index in self.program.kills_at:
                self._close()
            if isinstance(step, Closure | Loop):
                index = self._round(step, index)
                continue
            self._take(step, index)
            index += 1
        self._close()
        return self.found

    def _ends_before(self, step: AnyInstruction) -> bool:
        if self.where == Cut.BEHIND_A_LINE:
            last = self.then[-1] if self.then else self.choose
            return last is not None and (last.line, last.round) != (step.line, step.round)
        return self.where == Cut.EVERYWHERE

    def _round(self, step: Closure | Loop, index: int) -> int:
        """A closure or a loop is a stage that has stages in it; returns the index behind it."""
        ranges = step.moves(index) if isinstance(step, Closure) else [(index + 1, step.end)]
        moves = tuple((behind, tuple(stages(self.program, self.where, first, behind))) for first, behind in ranges)
        self.found.append(Stage(index, None, (), Dead(), {}, step, moves))
        return ranges[-1][1]

    def _take(self, step: Act | Check | Branch | Leap | Choose, index: int) -> None:
        if not (self.choose or self.then):
            self.start = index
        if isinstance(step, Choose):
            self.choose = step
        else:
            self.then.append(step)
        self.dead |= self.program.kills[index]
        if isinstance(step, Branch | Leap):
            # What has died on the way here is dead there too; of several ways there, the first knows the least.
            self.beyond.setdefault(step.target, self.program.kills_at[step.target] | self.dead)
        if isinstance(step, Leap):
            self._close()
