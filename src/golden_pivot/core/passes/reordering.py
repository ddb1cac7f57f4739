"""Choices made as late, sums reckoned as early, heaps joined as early as the answer allows: fewer situations to tell apart.

Whether a claim holds, and on how many paths, does not depend on when a number is thought of that nobody uses yet.
It does where a path gets stuck in between, as it is then counted before the choice: see all_paths.depends_on_order.
"""

from __future__ import annotations

import itertools
from collections.abc import Callable, Sequence
from dataclasses import replace

from ..search.program import (
    END,
    Act,
    AnyInstruction,
    Branch,
    Cell,
    Cells,
    Check,
    Choose,
    Closure,
    Leap,
    Loop,
    Program,
)
from .check_hoisting import aimed, must_stay_behind, with_early_sums

Straight = list[AnyInstruction]
"""instructions that are always carried out one after the other"""


def reorder(program: Program) -> Program:
    """The same routine, stretch by stretch between the points where paths part or meet."""
    return replace(program, instructions=tuple(_reordered(program.instructions, program.cells)))


def _reordered(instructions: Sequence[AnyInstruction], cells: Sequence[Cell]) -> list[AnyInstruction]:
    instructions = with_early_sums(instructions)
    targets = {step.target for step in instructions if isinstance(step, Branch | Leap)}
    targets |= {end for step in instructions if isinstance(step, Closure) for end in step.ends}
    targets |= {step.end for step in instructions if isinstance(step, Loop)}
    rows = frozenset(index for index, cell in enumerate(cells) if not cell.layout.is_heap)
    moved: list[AnyInstruction] = []
    stretch: Straight = []
    new_index = {END: END}
    for index, step in enumerate(instructions):
        straight = isinstance(step, Act | Choose | Check)
        if index in targets or not straight:
            moved += _changed(stretch, rows)
            stretch = []
        new_index[index] = len(moved)
        if straight:
            stretch.append(step)
        else:
            moved.append(step)
    moved += _changed(stretch, rows)
    new_index[len(instructions)] = len(moved)
    return [aimed(step, new_index) for step in moved]


def _changed(stretch: Straight, rows: frozenset[int]) -> Straight:
    later = _with_early_notes(_late(stretch, _is_choice_or_note))
    # What was reckoned late has taken choices with it that may now come later by themselves.
    return _with_early_joins(_with_early_notes(_late(later, _is_choice)), rows)


def _is_choice(step: AnyInstruction) -> bool:
    return isinstance(step, Choose) and not step.ways


def _is_choice_or_note(step: AnyInstruction) -> bool:
    return _is_choice(step) or (isinstance(step, Act) and step.reckons)


def _late(stretch: Straight, moves: Callable[[AnyInstruction], bool]) -> Straight:
    """Some instructions moved down, each to the first one that needs it."""
    found = list(stretch)
    for index in range(len(found) - 1, -1, -1):
        step = found[index]
        if moves(step):
            behind = (at for at in range(index + 1, len(found)) if must_stay_behind(step, found[at]))
            found.insert(next(behind, len(found)) - 1, found.pop(index))
    return found


def _with_early_notes(stretch: Straight) -> Straight:
    """What is only reckoned, moved up to where its parts are settled."""
    found = list(stretch)
    for index, step in enumerate(found):
        if isinstance(step, Act) and step.reckons:
            before = (at for at in range(index - 1, -1, -1) if must_stay_behind(found[at], step))
            found.insert(next(before, -1) + 1, found.pop(index))
    return found


def _with_early_joins(stretch: Straight, rows: frozenset[int]) -> Straight:
    """Heaps that are only stacked, in a fixed order, are stacked once both are ready: only their sum matters then."""
    found = list(stretch)
    end = len(found)
    while end:
        begin = end
        while begin and _stacks(found[begin - 1], rows):
            begin -= 1
        for upper, lower in _neighbours(found[begin:end]):
            used = (at for at in range(begin - 1, -1, -1) if {upper, lower} & (found[at].reads | found[at].touches))
            at = next(used, -1) + 1
            if any(isinstance(step, Choose) for step in found[at:begin]):
                found.insert(at, _join(found[begin], upper, lower))
                begin += 1
        end = min(begin, end - 1)
    return found


def _stacks(step: AnyInstruction, rows: frozenset[int]) -> bool:
    return isinstance(step, Act) and step.stacks is not None and not rows & set(step.stacks[:2])


def _neighbours(stacking: Straight) -> list[tuple[int, int]]:
    """(cell of the heap above, of the one directly below it), of heaps as they lay before the stacking."""
    lies: dict[int, list[int]] = {}
    for step in stacking:
        assert isinstance(step, Act) and step.stacks
        source, to, on_top = step.stacks
        heap, there = lies.get(source, [source]), lies.get(to, [to])
        lies |= {source: [], to: heap + there if on_top else there + heap}
    return [pair for heaps in lies.values() for pair in itertools.pairwise(heaps)]


def _join(beside: AnyInstruction, upper: int, lower: int) -> Act:
    def run(cells: Cells) -> None:
        cells[lower], cells[upper] = cells[upper] + cells[lower], b""

    both = frozenset([upper, lower])
    return Act(beside.line, beside.round, both, both, run=run, handled=lambda cells: 0, fills=frozenset([lower]))
