"""How a routine fails: the least failing path, and one drawn at random where going through all is too much."""

from __future__ import annotations

from collections.abc import Sequence
from contextlib import suppress
from dataclasses import dataclass, replace
from itertools import chain
from typing import Any

from ..budget import Budget
from ..building import PROOF, compile_routine
from ..faults import BadRoutine, OutOfBudget
from ..language.routine import Routine
from ..search.algebra import COUNT_AND_LEAST, LEAST_PATH
from ..search.explorer import explore
from ..search.frontiers import Exploration
from ..search.program import FAILED, Program
from ..search.replay import Play
from .in_hand import clauses
from .plays import drawn_at_random, failing_at_random, play, play_path
from .witnesses import Witness

MOST_DRAWN = 40
"""paths that are drawn at random: most routines that fail do so within the first twenty"""
MOST_TOLD = 5
"""choices that a sentence tells"""


@dataclass(frozen=True)
class Counterexample:
    """A path that fails."""

    choices: tuple[tuple[str, int], ...]
    labels: tuple[str, ...]
    sentence: str
    stuck_at: int | None
    least: bool = True
    """the least that fails: fewest choices, then the order of the options; else one drawn at random"""
    beside: tuple[tuple[str, int], ...] = ()
    """the choices of another path that ends alike to the eye, where it fails by that"""


def counterexample(routine: Routine, witness: Witness) -> Counterexample:
    played, beside = witness.path, witness.beside
    labels = clauses(routine, played.decisions)
    reason = " and ".join(played.failures)
    if beside:
        reason = f"the faces at the end can be the same as when {_told(clauses(routine, beside.decisions)) or 'nothing is chosen'}"
    when = f"Fails when {_told(labels)}" if labels else "Fails every time"
    choices = tuple(beside.choices.items()) if beside else ()
    return Counterexample(
        tuple(played.choices.items()), labels, f"{when}: {reason}", played.stuck_at, witness.least, choices
    )  # fmt: skip


def _told(labels: Sequence[str]) -> str:
    """A sentence with all of many choices in it is read by nobody; they are shown on the table."""
    if len(labels) <= MOST_TOLD + 1:
        return ", ".join(labels)
    return f"{', '.join(labels[:MOST_TOLD])} and {len(labels) - MOST_TOLD} more choices fall a certain way"


def failing_drawn(routine: Routine, budget: Budget) -> Play | None:
    """A failing path, of some drawn at random; None where there is none among them. Raises Cancelled."""
    with suppress(BadRoutine):  # more than the bench can follow
        return failing_at_random(routine, MOST_DRAWN, budget.cancelled)
    return None


def why_stuck(routine: Routine, line: int, budget: Budget) -> str | None:
    """Why paths get stuck at a line, in the words of one that forgets nothing: the plainest, or the first of some drawn. Raises Cancelled.

    A proof has forgotten where cards lie of which nobody asks any more, and would tell of them that they are out of play.
    """
    with suppress(BadRoutine):
        drawn = (path for path, _ in drawn_at_random(routine, MOST_DRAWN, budget.cancelled))
        for path in chain([play(routine)], drawn):
            if path.stuck_at == line:
                return path.failures[-1].removesuffix(f" (line {line})")
    return None


@dataclass(frozen=True)
class Shown:
    """What some paths show."""

    denied: int
    """claims that are not so, as in the cell FAILED"""
    stuck: bool


def held_and_denied(routine: Routine, budget: Budget) -> Shown | None:
    """Of some paths drawn at random, where one holds and of others each claim fails. Raises Cancelled."""
    held, denied, stuck = False, 0, False
    with suppress(BadRoutine):
        for path, _ in drawn_at_random(routine, MOST_DRAWN, budget.cancelled):
            every = (2 << len(path.program.claims)) - 2
            denied |= path.frames[-1].state[FAILED]
            held |= not path.failures
            stuck |= path.stuck_at is not None
            if held and (stuck or every & ~denied == 0):
                return Shown(denied, stuck)
    return None


def least_failing(routine: Routine, budget: Budget, limits: bool) -> Play:
    """The least failing path, played on a pack in which every card is its own. Raises OutOfBudget."""
    found = explore(compile_routine(routine, replace(PROOF, limits=limits)), budget, LEAST_PATH)
    if found.stuck:  # a check that was moved up gets stuck before choices that the path makes all the same
        as_written = replace(PROOF, limits=limits, reorder=False, early_checks=False)
        with suppress(OutOfBudget):
            found = explore(compile_routine(routine, as_written), budget, LEAST_PATH)
    return play_path(routine, min(_failing(found))[3])


def counted_with_least(routine: Routine, budget: Budget, limits: bool) -> tuple[Program, Exploration, Play | None]:
    """(program, all its paths with their number, the least that fails) in one search; the path may be no real one
    without `limits`, and there is none where some get stuck. Raises OutOfBudget."""
    program = compile_routine(routine, replace(PROOF, limits=limits))
    both = explore(program, budget, COUNT_AND_LEAST)

    def number(weights: dict[Any, Any]) -> dict[Any, Any]:
        return {key: weight[0] for key, weight in weights.items()}

    counted = replace(both, ends=number(both.ends), again=number(both.again), stuck=number(both.stuck))
    failing = [] if both.stuck else [weight[1] for weight in _failing(both)]
    return program, counted, play_path(routine, min(failing)[3]) if failing else None


def _failing(found: Exploration) -> list[Any]:
    reached = (*found.ends.items(), *found.again.items())
    return [weight for state, weight in reached if state[FAILED]] + list(found.stuck.values())
