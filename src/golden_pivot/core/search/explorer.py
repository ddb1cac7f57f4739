"""Exhaustive search: every path of a program from its start to its ends, and how many there are."""

from __future__ import annotations

from collections.abc import Callable

from ..budget import Budget
from .algebra import COUNT_PATHS, Algebra, Layer
from .counted import Count
from .frontiers import Exploration, frontiers, goes_on
from .program import FAILED, JUMP, Program, State
from .stages import Cut, Stage
from .telling import untold


def explore(
    program: Program,
    budget: Budget,
    algebra: Algebra = COUNT_PATHS,
    watch: Callable[[Stage, Layer], None] | None = None,
    cut: Cut = Cut.EVERYWHERE,
) -> Exploration:
    """Every path from the start to the end of the program.

    `watch` is called with each stage and the layer behind it; the fewer stages the `cut` makes, the less it costs. In a layer states that went another way have a number in cell JUMP. Raises OutOfBudget and Cancelled.
    """
    result = Exploration()
    layer: Layer = {program.start: algebra.one}
    for frontier in frontiers(program, budget, algebra, result, Cut.NOWHERE if watch is None else cut):
        layer = frontier.layer
        if watch is not None:
            watch(frontier.stage, layer)
    for state, weight in layer.items():
        end = state if state[JUMP] is None else goes_on(state)
        algebra.add(result.again if program.again and end[program.again] else result.ends, end, weight)
    result.ends = with_what_is_told(program, result.ends, algebra)
    return result


def with_what_is_told(program: Program, ends: Layer, algebra: Algebra = COUNT_PATHS) -> Layer:
    """Marks the claims that what is seen settles something, where two paths can see the same and differ in it."""
    for claim, cell in program.tells.items():
        failing = untold(state[cell] for state in ends if state[cell])
        marked: Layer = {}
        for state, weight in ends.items():
            if state[cell] in failing:
                state = (state[FAILED] | 2 << claim, *state[1:])
            algebra.add(marked, state, weight)
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
