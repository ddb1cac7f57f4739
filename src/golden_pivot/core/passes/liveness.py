"""Liveness: what nobody asks for any more, after each instruction and at each place that paths leap to.

A cell that an instruction only touches (a heap that cards are dealt onto) is live before it exactly when it is live
after it. Of a place may matter how many cards lie there, which of them have names, and the faces of those without one:
these matter before an instruction when it looks at them, or when it moves cards to where they matter. Passes from the
end are repeated until nothing changes, for what goes round.

Live things are numbers: a cell by its index c, which cards lie there by −1 − c, their faces by −1 − c − (number of cells).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from ..search.program import END, Act, AnyInstruction, Branch, Choose, Closure, Dead, Leap, Loop, Program, changed

Live = frozenset[int]


def liveness(program: Program) -> Program:
    """The program with what is dead beside each instruction and at each target; see Program.wanted for what may die."""
    live = _Liveness(program)
    live.settle()
    return replace(
        program,
        instructions=tuple(
            _idle(step) if live.is_idle(index) else step for index, step in enumerate(program.instructions)
        ),
        kills=tuple(live.dead_after(index) for index in range(live.size)),
        kills_at={at: live.dead_at(at) for at in sorted(_targets(program.instructions))},
    )


def _idle(step: AnyInstruction) -> AnyInstruction:
    """In the place of what is only reckoned for nobody; what it goes by may be forgotten by then."""
    assert isinstance(step, Act)
    return changed(step, reads=frozenset(), touches=frozenset(), run=lambda cells: None)


def _targets(instructions: Sequence[AnyInstruction]) -> set[int]:
    targets = {step.target for step in instructions if isinstance(step, Branch | Leap)}
    return targets | {step.ends[-1] for step in instructions if isinstance(step, Closure)}


class _Liveness:
    def __init__(self, program: Program) -> None:
        self.instructions, self.wanted = program.instructions, program.wanted
        self.size, self.many = len(program.instructions), len(program.cells)
        self.places = frozenset(index for index, _ in program.places())
        self.seen = program.faces.cell if program.faces else None
        """the cell that counts the faces seen"""
        self.live_before: dict[int, Live] = {index: frozenset() for index in range(self.size)}
        self.live_before |= {END: self.wanted.at_end, self.size: self.wanted.at_end}
        # Behind a move comes its closure again, not the instruction that stands there.
        self.behind = {
            end: at for at, step in enumerate(self.instructions) if isinstance(step, Closure) for end in step.ends
        }
        self.behind |= {step.end: at for at, step in enumerate(self.instructions) if isinstance(step, Loop)}

    def settle(self) -> None:
        goes_round = any(isinstance(step, Closure | Loop) for step in self.instructions)
        settled = False
        while not settled:
            settled = True
            for index in range(self.size - 1, -1, -1):
                live = self._before(self.instructions[index], self._after(index))
                settled &= not goes_round or live == self.live_before[index]
                self.live_before[index] = live

    def _live_at(self, index: int) -> Live:
        return self.live_before[self.behind.get(index, index)]

    def _after(self, index: int) -> Live:
        step = self.instructions[index]
        match step:
            case Branch():
                return self._live_at(index + 1) | self._live_at(step.target)
            case Leap():
                return self._live_at(step.target)
            case Closure():
                moves = (self.live_before[first] for first, _ in step.moves(index))
                return self.live_before[step.ends[-1]].union(*moves)
        return self._live_at(index + 1)

    def is_idle(self, index: int) -> bool:
        return self._reckons_for_nobody(self.instructions[index], self._after(index))

    def _reckons_for_nobody(self, step: AnyInstruction, alive: Live) -> bool:
        return isinstance(step, Act) and step.reckons and step.touches <= self.wanted.may_be_dropped - alive

    def _before(self, step: AnyInstruction, alive: Live) -> Live:
        if self._reckons_for_nobody(step, alive):
            return alive
        places, many = self.places, self.many
        found = set(alive - {step.cell} if isinstance(step, Choose) else alive) | step.reads
        found |= {~cell for cell in step.looks & places} | {~cell - many for cell in step.reads_faces & places}
        if isinstance(step, Act):
            filled = places & (step.touches if step.fills is None else step.fills)
            for lower in (0, many):
                if any(~cell - lower in alive for cell in filled):
                    found |= {~cell - lower for cell in (step.reads | step.touches) & places}
        return frozenset(found)

    def dead_after(self, index: int) -> Dead:
        known, touched = self.live_before[index], self.instructions[index].touches
        looked_at = {~cell if cell >= -self.many else ~(cell + self.many) for cell in known if cell < 0}
        return self._dead(self._after(index), known | touched, frozenset(looked_at) | touched)

    def dead_at(self, target: int) -> Dead:
        droppable = self.wanted.may_be_dropped
        return self._dead(self._live_at(target), droppable, droppable)

    def _dead(self, alive: Live, candidates: Live, looked_at: Live) -> Dead:
        may_lose_faces, many = self.wanted.may_lose_faces, self.many
        gone = (candidates - alive) & self.wanted.may_be_dropped
        there = looked_at & self.places & (alive | may_lose_faces)
        blank = {cell for cell in (there & may_lose_faces) - gone if not alive & {~cell, ~cell - many}}
        faceless = {cell for cell in (there & may_lose_faces) - blank - gone if ~cell - many not in alive}
        if self.seen is None:
            faceless = set()
        return Dead(tuple(sorted(gone)), tuple(sorted(blank)), tuple(sorted(faceless)), self.seen in alive)
