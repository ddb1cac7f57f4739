"""Exhaustive search: all paths of a program at once, in layers, equal states merged.

A layer is `dict[State, weight]` in order of first arrival. What a weight is depends on the question: the
number of paths (added when states merge), the least path that leads there, or the path that handles most
cards. One loop serves all three.
"""

from __future__ import annotations

import operator
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import Any

from .budget import CHECK_EVERY, Budget
from .faults import Impossible
from .program import (
    FAILED,
    JUMP,
    NO_ENDING,
    Act,
    AnyInstruction,
    Branch,
    Cells,
    Check,
    Choose,
    Closure,
    Leap,
    Program,
    State,
)

Layer = dict[State, Any]


@dataclass(frozen=True)
class Algebra:
    """How weights go along a path and meet where paths merge."""

    one: Any
    merge: Callable[[Any, Any], Any]
    chosen: Callable[[Any, int], Any] | None = None
    """weight after the option with this index; None when a choice does not change it"""
    handled: Callable[[Any, int], Any] | None = None
    """weight after so many cards were handled; None when that does not matter"""
    again: Callable[[Any, Any], Any] = lambda one, other: one
    """what is kept of two weights where a closure comes back to a state it has reached; the first by default"""
    rounds: Callable[[Any], Any] = lambda weight: weight
    """weight after another round of a closure"""


COUNT_PATHS = Algebra(1, operator.add)
"""number of paths"""

LEAST_PATH = Algebra(
    (0, 0, ()),
    min,
    chosen=lambda path, index: (path[0], path[1] + 1, (*path[2], index)),
    again=min,
    rounds=lambda path: (path[0] + 1, *path[1:]),
)
"""(rounds of closures, number of choices, indices of the options taken), compared in this order"""

MOST_HANDLED = Algebra(
    (0, ()),
    # More cards first; among equals the least path, so that the answer does not depend on arrival.
    lambda one, other: (
        one if (one[0], tuple(-i for i in one[1])) >= (other[0], tuple(-i for i in other[1])) else other
    ),
    chosen=lambda path, index: (path[0], (*path[1], index)),
    handled=lambda path, cards: (path[0] + cards, path[1]),
)
"""(cards handled, indices of the options taken)"""


@dataclass(frozen=True)
class Stuck:
    """Paths that could not go on: the line, why, and the state they were in."""

    line: int
    reason: str
    state: State


@dataclass
class Exploration:
    ends: Layer = field(default_factory=dict)
    stuck: dict[Stuck, Any] = field(default_factory=dict)
    widest: int = 1
    transitions: int = 0


@dataclass(frozen=True)
class _Stage:
    """One choice at most, then everything up to the next choice, case or meeting point in a single pass."""

    start: int
    """index of its first instruction"""
    choose: Choose | None
    then: tuple[Act | Check, ...]
    leave: Branch | Leap | None
    kills: tuple[int, ...]
    closure: Closure | None = None
    moves: tuple[tuple[int, tuple[_Stage, ...]], ...] = ()
    """for a closure, each move: the index behind it, and its passes"""

    @property
    def first(self) -> AnyInstruction:
        return self.closure or self.choose or (self.then[0] if self.then else self.leave)  # type: ignore[return-value]


def stages(program: Program, fused: bool, begin: int = 0, end: int | None = None) -> list[_Stage]:
    """The program, or a range of it, cut into passes: as few as can be, or one an instruction."""
    found: list[_Stage] = []
    start = begin
    choose: Choose | None = None
    then: list[Act | Check] = []
    kills: set[int] = set()

    def close(leave: Branch | Leap | None = None) -> None:
        nonlocal choose, then, kills
        if choose or then or leave:
            found.append(_Stage(start, choose, tuple(then), leave, tuple(sorted(kills))))
        choose, then, kills = None, [], set()

    index, end = begin - 1, len(program.instructions) if end is None else end
    while (index := index + 1) < end:
        step, dead = program.instructions[index], program.kills[index]
        if isinstance(step, Choose) or not fused or index in program.kills_at:
            close()
        if isinstance(step, Closure):
            close()
            moves = tuple(
                (behind, tuple(stages(program, fused, first, behind))) for first, behind in step.moves(index)
            )
            found.append(_Stage(index, None, (), None, (), step, moves))
            index = step.ends[-1] - 1
            continue
        if not (choose or then):
            start = index
        match step:
            case Choose():
                choose = step
            case Act() | Check():
                then.append(step)
        kills |= set(dead)
        if isinstance(step, Branch | Leap):
            close(step)
    close()
    return found


def explore(
    program: Program,
    budget: Budget,
    algebra: Algebra = COUNT_PATHS,
    watch: Callable[[AnyInstruction, Layer], None] | None = None,
) -> Exploration:
    """Every path from the start to the end of the program.

    `watch` is called with each instruction and the layer behind it, which costs the fusing of steps. In a layer
    behind an act, states that went another way have a number in cell JUMP.
    Cost: one transition for each state and option of a layer. Raises OutOfBudget and Cancelled.
    """
    result = Exploration()
    layer: Layer = {program.start: algebra.one}
    for stage in stages(program, fused=watch is None):
        layer = take_stage(program, stage, layer, algebra, budget, result)
        result.widest = max(result.widest, len(layer))
        if watch is not None:
            watch(stage.first, layer)
    for state, weight in layer.items():
        end = state if state[JUMP] is None else _goes_on(state)
        result.ends[end] = algebra.merge(result.ends[end], weight) if end in result.ends else weight
    return result


def _checking(step: Check) -> Callable[[Cells], None]:
    holds, bit = step.holds, 2 << step.claim

    def run(cells: Cells) -> None:
        cells[FAILED] &= ~NO_ENDING
        if not holds(cells):
            cells[FAILED] |= bit

    return run


def _never(_cells: Sequence[Any]) -> bool:
    return False


def _emptied(program: Program, dead: Sequence[int]) -> tuple[tuple[int, Any], ...]:
    """(cell, what stands for nothing there)"""
    return tuple((index, b"" if program.cells[index].is_place else None) for index in dead)


def _nothing_handled(_cells: Sequence[Any]) -> int:
    return 0


def take_stage(
    program: Program, stage: _Stage, layer: Layer, algebra: Algebra, budget: Budget, result: Exploration
) -> Layer:
    """The layer behind a stage; paths that cannot go on, and the transitions, are added to `result`."""
    if stage.closure:
        return _closed(program, stage, layer, algebra, budget, result)
    return _one_pass(program, stage, layer, algebra, budget, result)


def _closed(
    program: Program, stage: _Stage, layer: Layer, algebra: Algebra, budget: Budget, result: Exploration
) -> Layer:
    """Everything that any number of rounds can lead to: rounds are added until none brings anything new."""
    elsewhere: Layer = {}
    reached: Layer = {}
    for state, weight in layer.items():
        if state[JUMP] is not None and state[JUMP] > stage.start:
            elsewhere[state] = weight
        else:
            here = _goes_on(state)
            reached[here] = algebra.merge(reached[here], weight) if here in reached else weight
    fresh = dict(reached)
    while fresh:
        found: Layer = {}
        for number, (behind, passes) in enumerate(stage.moves, start=1):
            moved: Layer = {}
            for state, weight in fresh.items():
                moved[state] = algebra.chosen(algebra.rounds(weight), number) if algebra.chosen else weight
            for one in passes:
                moved = take_stage(program, one, moved, algebra, budget, result)
            for state, weight in moved.items():
                here = _goes_on(state) if state[JUMP] == behind else state
                found[here] = algebra.merge(found[here], weight) if here in found else weight
        fresh = {}
        for state, weight in found.items():
            if state[JUMP] is not None:  # it has left for good
                elsewhere[state] = algebra.again(elsewhere[state], weight) if state in elsewhere else weight
                continue
            known = reached.get(state)
            kept = weight if known is None else algebra.again(known, weight)
            if known is None or kept != known:
                reached[state] = fresh[state] = kept
        budget.look(len(reached), stage.first.line)
    after = elsewhere
    dead = _emptied(program, program.kills_at[stage.moves[-1][0]])
    for state, weight in reached.items():
        cells = list(state)
        for cell, empty in dead:
            cells[cell] = empty
        key = tuple(cells)
        stopped = algebra.chosen(weight, 0) if algebra.chosen else weight
        after[key] = algebra.merge(after[key], stopped) if key in after else stopped
    result.widest = max(result.widest, len(reached))
    return after


def _goes_on(state: State) -> State:
    return (*state[:JUMP], None, *state[JUMP + 1 :])


def _one_pass(
    program: Program, stage: _Stage, layer: Layer, algebra: Algebra, budget: Budget, result: Exploration
) -> Layer:
    choose, merge, chosen, handled = stage.choose, algebra.merge, algebra.chosen, algebra.handled
    runs = [step.run if isinstance(step, Act) else _checking(step) for step in stage.then]
    counts = [step.handled if isinstance(step, Act) else _nothing_handled for step in stage.then]
    dead = _emptied(program, stage.kills)
    leave, start, forked = stage.leave, stage.start, bool(program.kills_at)
    case = None if leave is None else leave.holds if isinstance(leave, Branch) else _never
    dead_beyond = _emptied(program, program.kills_at[leave.target]) if leave else ()
    line = stage.first.line
    after: Layer = {}
    done, next_look = 0, CHECK_EVERY

    def stop(state: State, weight: Any, line: int, reason: str) -> None:
        stuck = Stuck(line, reason, state)
        result.stuck[stuck] = merge(result.stuck[stuck], weight) if stuck in result.stuck else weight

    for state, weight in layer.items():
        if forked and state[JUMP] is not None:
            if state[JUMP] > start:  # it went another way, and meets the others further on
                after[state] = merge(after[state], weight) if state in after else weight
                continue
            state = _goes_on(state)
        try:
            options = choose.options(state) if choose else (None,)
        except Impossible as obstacle:
            stop(state, weight, line, obstacle.reason)
            continue
        if not options:
            stop(state, weight, line, "there is nothing to choose from")
        for index, option in enumerate(options):
            done += 1
            if done == next_look:
                next_look += CHECK_EVERY
                budget.look(len(after), line)
            cells = list(state)
            reached = weight
            if choose:
                cells[choose.cell] = option
                if chosen:
                    reached = chosen(weight, index)
            try:
                if handled:
                    for count, run in zip(counts, runs, strict=True):
                        reached = handled(reached, count(cells))
                        run(cells)
                else:
                    for run in runs:
                        run(cells)
                # A case is decided before what it alone reads is given up.
                goes_on = case is None or case(cells)
            except Impossible as obstacle:
                at = _line_of(stage, runs, state, option)
                stop(tuple(cells), reached, at, obstacle.reason)
                continue
            for cell, empty in dead:
                cells[cell] = empty
            if leave is not None and not goes_on:
                cells[JUMP] = leave.target
                for cell, empty in dead_beyond:
                    cells[cell] = empty
            key = tuple(cells)
            after[key] = merge(after[key], reached) if key in after else reached
    result.transitions += done
    budget.look(len(after), line)
    return after


def _line_of(stage: _Stage, runs: Sequence[Callable[[Cells], None]], state: State, option: Any) -> int:
    """The line at which this path got stuck, found by going through the pass once more, step by step."""
    cells = list(state)
    if stage.choose:
        cells[stage.choose.cell] = option
    for step, run in zip(stage.then, runs, strict=True):
        try:
            run(cells)
        except Impossible:
            return step.line
    assert stage.leave is not None
    return stage.leave.line
