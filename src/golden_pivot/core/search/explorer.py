"""Exhaustive search: all paths of a program at once, in layers, equal states merged.

A layer is `dict[State, weight]` in order of first arrival. What a weight is depends on the question: the
number of paths (added when states merge), the least path that leads there, or the path that handles most
cards. One loop serves all three.
"""

from __future__ import annotations

import operator
from collections.abc import Callable, Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass, field
from itertools import zip_longest
from typing import Any

from ..budget import CHECK_EVERY, Budget
from ..faults import Impossible, NoSuchPath
from .abstraction import forgets
from .counted import Count
from .program import (
    FAILED,
    JUMP,
    MOST_TURNS,
    Act,
    AnyInstruction,
    Branch,
    Cells,
    Check,
    Choose,
    Closure,
    Dead,
    Leap,
    Loop,
    Program,
    State,
)

Layer = dict[State, Any]


@dataclass(frozen=True)
class Algebra:
    """How weights go along a path and meet where paths merge."""

    one: Any
    merge: Callable[[Any, Any], Any]
    times: Callable[[Any, int, int], Any] | None = None
    """weight times a fraction (numerator, denominator); None when there is no need to count"""
    share: Callable[[Any, int, int], Any] | None = None
    """weight of one option of a choice by chance: (weight, its share, all shares); None when nothing is weighed"""
    chosen: Callable[[Any, int, Any], Any] | None = None
    """weight after the option with this index and value; None when a choice does not change it"""
    handled: Callable[[Any, int], Any] | None = None
    """weight after so many cards were handled; None when that does not matter"""
    again: Callable[[Any, Any], Any] = lambda one, other: one
    """what is kept of two weights where a closure comes back to a state it has reached; the first by default"""
    rounds: Callable[[Any], Any] = lambda weight: weight
    """weight after another round of a closure"""


COUNT_PATHS = Algebra(1, operator.add, times=lambda weight, ways, out_of: weight * ways // out_of)
"""number of paths; a face that is seen counts as many times as there are cards that it can be"""

LEAST_PATH = Algebra(
    (0, 0, (), ()),
    min,
    chosen=lambda path, index, value: (path[0], path[1] + 1, (*path[2], index), (*path[3], value)),
    again=min,
    rounds=lambda path: (path[0] + 1, *path[1:]),
)
"""(rounds of closures, number of choices, indices of the options taken, the options), compared in this order"""

MOST_HANDLED = Algebra(
    (0, (), ()),
    # More cards first; among equals the least path, so that the answer does not depend on arrival.
    lambda one, other: (
        one if (one[0], tuple(-i for i in one[1])) >= (other[0], tuple(-i for i in other[1])) else other
    ),
    chosen=lambda path, index, value: (path[0], (*path[1], index), (*path[2], value)),
    handled=lambda path, cards: (path[0] + cards, *path[1:]),
)
"""(cards handled, indices of the options taken, the options)"""


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
    again: Layer = field(default_factory=dict)
    """paths that start again"""
    widest: int = 1
    transitions: int = 0


@dataclass(frozen=True)
class _Stage:
    """One choice at most, then everything up to the next choice or meeting point in a single pass.

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
    moves: tuple[tuple[int, tuple[_Stage, ...]], ...] = ()
    """for a closure, each move: the index behind it, and its passes; a loop has one"""

    @property
    def first(self) -> AnyInstruction:
        return self.closure or self.choose or self.then[0]


def stages(program: Program, fused: bool, begin: int = 0, end: int | None = None) -> list[_Stage]:
    """The program, or a range of it, cut into passes: as few as can be, or one an instruction."""
    found: list[_Stage] = []
    start = begin
    choose: Choose | None = None
    then: list[Act | Check | Branch | Leap] = []
    dead = Dead()
    beyond: dict[int, Dead] = {}

    def close() -> None:
        nonlocal choose, then, dead, beyond
        if choose or then:
            found.append(_Stage(start, choose, tuple(then), dead, beyond))
        choose, then, dead, beyond = None, [], Dead(), {}

    index, end = begin - 1, len(program.instructions) if end is None else end
    while (index := index + 1) < end:
        step = program.instructions[index]
        if isinstance(step, Choose) or not fused or index in program.kills_at:
            close()
        if isinstance(step, Closure | Loop):
            close()
            ranges = step.moves(index) if isinstance(step, Closure) else [(index + 1, step.end)]
            moves = tuple((behind, tuple(stages(program, fused, first, behind))) for first, behind in ranges)
            found.append(_Stage(index, None, (), Dead(), {}, step, moves))
            index = ranges[-1][1] - 1
            continue
        if not (choose or then):
            start = index
        match step:
            case Choose():
                choose = step
            case Act() | Check() | Branch() | Leap():
                then.append(step)
        dead |= program.kills[index]
        if isinstance(step, Branch | Leap):
            # What has died on the way here is dead there too; of several ways there, the first knows the least.
            beyond.setdefault(step.target, program.kills_at[step.target] | dead)
        if isinstance(step, Leap):
            close()
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
        ends = result.again if program.again and end[program.again] else result.ends
        ends[end] = algebra.merge(ends[end], weight) if end in ends else weight
    result.ends = _with_what_is_told(program, result.ends, algebra)
    return result


def _with_what_is_told(program: Program, ends: Layer, algebra: Algebra) -> Layer:
    """Marks the claims that what is seen settles something, where two paths see the same and differ in it."""
    for claim, cell in program.tells.items():
        told: dict[bytes, set[tuple[int, ...]]] = {}
        for state in ends:
            if state[cell]:
                told.setdefault(state[cell][0], set()).add(state[cell][1])
        marked: Layer = {}
        for state, weight in ends.items():
            if state[cell] and len(told[state[cell][0]]) > 1:
                state = (state[FAILED] | 2 << claim, *state[1:])
            marked[state] = algebra.merge(marked[state], weight) if state in marked else weight
        ends = marked
    return ends


def count_of(program: Program, found: Exploration, exact: bool) -> Count:
    """Its paths; `exact`: exactly those that there are have been searched, with COUNT_PATHS."""
    # What must not be seen must not be seen before a fresh start either.
    ended = (*found.ends.items(), *found.again.items())
    failing = sum(w for state, w in ended if state[FAILED]) + sum(found.stuck.values())
    whole = sum(w for _, w in ended) + sum(found.stuck.values())
    again = sum(found.again.values())
    asks = any(not claim.throughout for claim in program.claims)
    missing = sum(w for state, w in found.ends.items() if not _comes_to_a_claim(program, state)) if asks else 0
    numbered = exact and not program.is_unlimited
    return Count(
        whole if numbered else None, failing if numbered else None, whole - missing if numbered else None,
        again if numbered else None, bool(failing), failing == whole, bool(missing), bool(found.stuck),
    )  # fmt: skip


def _comes_to_a_claim(program: Program, state: State) -> bool:
    unmarked = any(not (claim.marked or claim.throughout) for claim in program.claims)
    return unmarked or program.reached is None or bool(state[program.reached])


Run = Callable[[Cells], int | None]
"""edits the cells; returns the index at which the path goes on, where it leaves here"""


def _running(step: Act | Check | Branch | Leap) -> Run:
    match step:
        case Act():
            return step.run
        case Check():
            return _settling(step)
        case Leap():
            target = step.target
            return lambda cells: target
        case Branch():
            holds, beyond = step.holds, step.target
            return lambda cells: None if holds(cells) else beyond


def _settling(step: Check) -> Run:
    def run(cells: Cells) -> None:
        step.settle(cells)

    return run


def _nothing_handled(_cells: Sequence[Any]) -> int:
    return 0


def take_stage(
    program: Program, stage: _Stage, layer: Layer, algebra: Algebra, budget: Budget, result: Exploration
) -> Layer:
    """The layer behind a stage; paths that cannot go on, and the transitions, are added to `result`."""
    if isinstance(stage.closure, Closure):
        return _closed(program, stage, layer, algebra, budget, result)
    if isinstance(stage.closure, Loop):
        return _looped(program, stage, layer, algebra, budget, result)
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
                moved[state] = algebra.chosen(algebra.rounds(weight), number, number) if algebra.chosen else weight
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
    forget = forgets(program, program.kills_at[stage.moves[-1][0]])
    for state, weight in reached.items():
        cells = list(state)
        if forget:
            forget(cells)
        key = tuple(cells)
        stopped = algebra.chosen(weight, 0, 0) if algebra.chosen else weight
        after[key] = algebra.merge(after[key], stopped) if key in after else stopped
    result.widest = max(result.widest, len(reached))
    return after


def _looped(
    program: Program, stage: _Stage, layer: Layer, algebra: Algebra, budget: Budget, result: Exploration
) -> Layer:
    """Every path, time after time round, until it has left.

    With a measure the paths that are furthest from the end go first, so that paths meet which come to the same
    in different numbers of rounds.
    """
    loop, ((behind, passes),) = stage.closure, stage.moves
    assert isinstance(loop, Loop)
    measure = loop.measure
    gone: Layer = {}
    waiting: dict[int, Layer] = {}

    def add(state: State, weight: Any, before: int | None) -> None:
        if state[JUMP] is not None and state[JUMP] > behind:
            gone[state] = algebra.merge(gone[state], weight) if state in gone else weight
            return
        here = _goes_on(state)
        rank = measure(here) if measure else -turn
        if measure and before is not None and rank >= before:
            stuck = Stuck(loop.line, "a time round changes nothing, and it would go on for ever", here)
            result.stuck[stuck] = algebra.merge(result.stuck[stuck], weight) if stuck in result.stuck else weight
            return
        level = waiting.setdefault(rank, {})
        level[here] = algebra.merge(level[here], weight) if here in level else weight

    turn = 0
    for state, weight in layer.items():
        if state[JUMP] is not None and state[JUMP] > stage.start:
            gone[state] = weight
        else:
            add(state, weight, None)
    while waiting:
        rank = max(waiting)
        moved = waiting.pop(rank)
        result.widest = max(result.widest, len(moved))
        turn += 1
        if turn > MOST_TURNS:
            for state, weight in moved.items():
                stuck = Stuck(loop.line, f"it does not come to an end in {MOST_TURNS} times round", state)
                result.stuck[stuck] = weight
            break
        for one in passes:
            moved = take_stage(program, one, moved, algebra, budget, result)
        for state, weight in moved.items():
            add(state, weight, rank)
        budget.look(len(gone) + sum(map(len, waiting.values())), loop.line)
    return gone


def _goes_on(state: State) -> State:
    return (*state[:JUMP], None, *state[JUMP + 1 :])


def _one_pass(
    program: Program, stage: _Stage, layer: Layer, algebra: Algebra, budget: Budget, result: Exploration
) -> Layer:
    choose, merge, chosen, handled = stage.choose, algebra.merge, algebra.chosen, algebra.handled
    runs = [_running(step) for step in stage.then]
    counts = [step.handled if isinstance(step, Act) else _nothing_handled for step in stage.then]
    forget = forgets(program, stage.dead)
    start, forked = stage.start, bool(program.kills_at)
    forget_beyond = {target: forgets(program, dead) for target, dead in stage.beyond.items()}
    ways = choose.ways if choose and algebra.times else None
    times, share = algebra.times, algebra.share
    line, cell = stage.first.line, choose.cell if choose else -1
    if _asks_only_where_it_leads(program, stage, algebra):
        layer = _met(stage, layer, merge)
    after: Layer = {}
    many, done, next_look = 0, 0, CHECK_EVERY

    def stop(state: State, weight: Any, line: int, reason: str) -> None:
        stuck = Stuck(line, reason, state)
        result.stuck[stuck] = merge(result.stuck[stuck], weight) if stuck in result.stuck else weight

    for state, weight in layer.items():
        if forked and state[JUMP] is not None:
            if state[JUMP] > start:  # it went another way, and meets the others further on
                after[state] = merge(after[state], weight) if state in after else weight
                many = len(after)
                continue
            state = _goes_on(state)
        try:
            options = choose.options(state) if choose else (None,)
        except Impossible as obstacle:
            stop(state, weight, line, obstacle.reason)
            continue
        shares = choose.shares(state, list(choose.options(state))) if choose and share else []
        whole = sum(shares)
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
                cells[cell] = option
                if chosen:
                    reached = chosen(weight, index, option)
                if share and choose:
                    if not shares[index]:
                        continue
                    reached = share(reached, shares[index], whole)
                if ways and times and option is not None:
                    reached = times(reached, *ways(state, option))
            leaves_for = None
            try:
                if handled:
                    for count, run in zip(counts, runs, strict=True):
                        reached = handled(reached, count(cells))
                        if leaves_for := run(cells):
                            break
                else:
                    for run in runs:
                        if leaves_for := run(cells):
                            break
            except NoSuchPath:
                continue
            except Impossible as obstacle:
                at = _line_of(stage, runs, counts if handled else (), state, option)
                stop(tuple(cells), reached, at, obstacle.reason)
                continue
            if leaves_for:
                cells[JUMP] = leaves_for
                if forget_there := forget_beyond[leaves_for]:
                    forget_there(cells)
            elif forget:
                forget(cells)
            # A long tuple takes its time to hash: once is enough for a state that is new.
            known = after.setdefault(key := tuple(cells), reached)
            if len(after) > many:
                many += 1
            else:
                after[key] = merge(known, reached)
    result.transitions += done
    budget.count(result.transitions, line)
    budget.look(len(after), line)
    return after


def _asks_only_where_it_leads(program: Program, stage: _Stage, algebra: Algebra) -> bool:
    """Whether states may be taken as one from which the options of the stage lead to the same states.

    Not where it matters which option was taken: to the algebra, to another step of the stage, or later.
    """
    choose = stage.choose
    if choose is None or choose.alike is None or choose.odds or algebra.chosen or algebra.handled:
        return False
    forgotten = all(choose.cell in dead.cells for dead in (stage.dead, *stage.beyond.values()))
    return forgotten and sum(choose.cell in step.reads for step in stage.then) <= 1


def _met(stage: _Stage, layer: Layer, merge: Callable[[Any, Any], Any]) -> Layer:
    """States that lead to the same, as one."""
    assert stage.choose and stage.choose.alike
    met: Layer = {}
    for state, weight in layer.items():
        if state[JUMP] is None or state[JUMP] <= stage.start:
            cells = list(state)
            # Where the choice cannot be made the path gets stuck, as it does when its options are asked for.
            with suppress(Impossible):
                stage.choose.alike(cells)
            state = tuple(cells)
        met[state] = merge(met[state], weight) if state in met else weight
    return met


def _line_of(
    stage: _Stage, runs: Sequence[Run], counts: Sequence[Callable[[Sequence[Any]], int]], state: State, option: Any
) -> int:
    """The line at which this path got stuck, found by going through the pass once more, step by step."""
    cells = list(state)
    if stage.choose:
        cells[stage.choose.cell] = option
    for step, run, count in zip_longest(stage.then, runs, counts, fillvalue=None):
        assert step and run
        try:
            if count:
                count(cells)
            run(cells)
        except Impossible:
            return step.line
    raise AssertionError("it went through the second time")
