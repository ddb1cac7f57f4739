"""All the ways the followed card travels, as edges between columns; never as paths, of which there may be millions.

A column is a line of the routine, or one time round of a repetition. An edge says how many paths lead from
one position to another there, and whether some of them succeed and some fail in the end.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction

from ..budget import Budget
from ..building import LEDGER, compile_routine
from ..faults import OutOfBudget
from ..language.routine import Line, Routine
from ..search.algebra import Algebra, Layer
from ..search.frontiers import Exploration, frontiers
from ..search.program import FAILED, Program, State
from ..search.stages import Cut, stages

MOST_STATES = 20_000

Where = tuple[str, int]
"""(place, position from 1)"""


@dataclass(frozen=True)
class Edge:
    source: Where
    to: Where | None
    """None where these paths cannot go on"""
    paths: int
    can_succeed: bool
    can_fail: bool


@dataclass(frozen=True)
class Column:
    line: int
    """the line, or the one that opens the repetition or the case"""
    last: int
    """the last line of the block it opens; the line itself where it opens none"""
    turn: int | None
    """which time round, for a repetition"""
    edges: tuple[Edge, ...]
    """from the column before to this one"""


@dataclass(frozen=True)
class Beginning:
    """Where the card can be when it first has its name: in the set-up (line 0), or behind the line that names it."""

    line: int
    last: int
    turn: int | None
    where: tuple[Where, ...]


@dataclass(frozen=True)
class Strands:
    card: str
    beginning: Beginning
    columns: tuple[Column, ...]


Ways = dict[int, Fraction]
"""index of a state of the column before → in how many ways one comes from it, a face as often as there are such cards"""


def _merged(one: Ways, other: Ways) -> Ways:
    both = dict(one)
    for origin, ways in other.items():
        both[origin] = both.get(origin, Fraction(0)) + ways
    return both


def _times(weight: Ways, ways: int, out_of: int) -> Ways:
    if ways == out_of:
        return weight
    return {origin: many * ways / out_of for origin, many in weight.items()}


_BY_ORIGIN = Algebra({0: Fraction(1)}, _merged, times=_times, again=lambda known, more: {**more, **known})
"""weights that say from which states of the column before, and in how many ways, a state is reached"""


@dataclass(frozen=True)
class _Step:
    """What one column does: where each state behind it comes from."""

    line: int
    last: int
    turn: int | None
    moves: bool
    """something is done, rather than only decided or claimed"""
    before: tuple[State, ...]
    after: Layer
    stuck: frozenset[int]
    """indices of states before that cannot go on in some way"""


def strands_of(routine: Routine, budget: Budget) -> Strands | None:
    """The strands of the card the routine is about; None when there are too many situations to draw, or no card is followed."""
    program = compile_routine(routine, LEDGER)
    if program.target is None:
        return None
    try:
        steps = list(_steps(routine, program, budget.narrowed(MOST_STATES)))
    except OutOfBudget:
        return None
    fates = _fates(steps)
    paths = [Fraction(1)]
    at_start = program.where_is(program.start, program.target)
    beginning = Beginning(0, 0, None, (at_start,)) if at_start else None
    columns: list[Column] = []
    for step, fate in zip(steps, fates, strict=True):
        edges, paths = _edges(program, step, fate, paths)
        if beginning is None:
            named = {where for state in step.after if (where := program.where_is(state, program.target))}
            beginning = Beginning(step.line, step.last, step.turn, tuple(sorted(named))) if named else None
        elif step.moves and any(edge.source != edge.to for edge in edges):
            columns.append(Column(step.line, step.last, step.turn, edges))
    return Strands(program.target, beginning, tuple(columns)) if beginning else None


def _outermost(routine: Routine) -> Mapping[int, tuple[int, int]]:
    """Line number → (first, last) line of the outermost block it belongs to."""
    blocks = [(top.number, _last(top)) for top in routine.lines]
    return {line: block for block in blocks for line in range(block[0], block[1] + 1)}


def _last(line: Line) -> int:
    return _last(line.body[-1]) if line.body else line.number


def _steps(routine: Routine, program: Program, budget: Budget) -> Iterator[_Step]:
    keys = [*_keys(routine, program), None]
    found = Exploration()
    before: tuple[State, ...] = (program.start,)
    moves = False
    for i, frontier in enumerate(frontiers(program, budget, _BY_ORIGIN, found, Cut.BEHIND_A_LINE)):
        moves |= frontier.stage.acts
        key = keys[i]
        if key is None or key == keys[i + 1]:
            continue
        (line, last), turn = key
        stuck = frozenset(origin for weight in found.stuck.values() for origin in weight)
        yield _Step(line, last, turn, moves, before, frontier.layer, stuck)
        before = tuple(frontier.layer)
        frontier.layer = {state: {origin: Fraction(1)} for origin, state in enumerate(before)}
        found.stuck, moves = {}, False


def _keys(routine: Routine, program: Program) -> list[tuple[tuple[int, int], int | None]]:
    """For each stage the column it belongs to: (first and last line of the outermost block, time round of it)."""
    top_of = _outermost(routine)
    single = stages(program, Cut.BEHIND_A_LINE)
    keys = [(top_of[stage.first.line], stage.first.round[0] if stage.first.round else None) for stage in single]
    for i in range(1, len(single)):
        # A claim that was moved up into a block does not cut it in two.
        if single[i].only_checks and keys[i - 1] in keys[i + 1 :]:
            keys[i] = keys[i - 1]
    return keys


def _edges(
    program: Program, step: _Step, fate: Sequence[tuple[bool, bool]], paths: Sequence[Fraction]
) -> tuple[tuple[Edge, ...], list[Fraction]]:
    """(the edges of a step, the number of paths to each state behind it)"""
    found: dict[tuple[Where, Where | None], Edge] = {}
    places = [program.where_is(state, program.target) for state in step.before]

    def add(origin: int, to: Where | None, ways: Fraction, good: bool, bad: bool) -> None:
        source = places[origin]
        if source is not None:
            old = found.get((source, to), Edge(source, to, 0, False, False))
            found[source, to] = Edge(source, to, old.paths + int(ways), old.can_succeed or good, old.can_fail or bad)

    after = []
    for (state, origins), (good, bad) in zip(step.after.items(), fate, strict=True):
        to = program.where_is(state, program.target)
        after.append(sum((paths[origin] * ways for origin, ways in origins.items()), Fraction(0)))
        for origin, ways in origins.items():
            # Piles are chosen one by one as they come into being: what comes to no end was no way at all.
            if to is not None and (good or bad):
                add(origin, to, paths[origin] * ways, good, bad)
    for origin in step.stuck:
        add(origin, None, paths[origin], False, True)
    return tuple(found.values()), after


def _fates(steps: Sequence[_Step]) -> list[list[tuple[bool, bool]]]:
    """For each step (can succeed, can fail) of every state behind it, from the end backwards."""
    found: list[list[tuple[bool, bool]]] = []
    following: _Step | None = None
    for step in reversed(steps):
        if following is None:
            fate = [(not state[FAILED], bool(state[FAILED])) for state in step.after]
        else:
            succeeds = [False] * len(following.before)
            fails = [i in following.stuck for i in range(len(following.before))]
            for origins, (good, bad) in zip(following.after.values(), found[-1], strict=True):
                for origin in origins:
                    succeeds[origin] |= good
                    fails[origin] |= bad
            fate = list(zip(succeeds, fails, strict=True))
        found.append(fate)
        following = step
    return found[::-1]
