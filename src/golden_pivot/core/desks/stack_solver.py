"""Arrangements of real cards that do what they are asked, by the solver z3; or the smallest set that clashes."""

from __future__ import annotations

import threading
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass, replace

import z3

from ..budget import Budget
from ..faults import OutOfBudget
from .constraints import Constraint
from .stack_model import Model, Pack

Holds = Callable[..., bool | None]
"""(indices of constraints, the most work) → whether they can all hold; None where that was not found out"""
MUCH, LITTLE = 600_000_000, 2_000_000
"""the solver's own units of work, some millions a second, for a question, and for one whose answer is not needed to be
right. Work is counted and no time, so that the same is found on every machine and on a busy one."""


@dataclass(frozen=True)
class Solved:
    arrangements: tuple[tuple[str, ...], ...]
    clash: tuple[int, ...]
    """indices of the constraints of the smallest set that cannot all hold; empty where there are arrangements"""
    clash_is_smallest: bool
    is_settled: bool
    """False: out of budget before there was an answer"""


@contextmanager
def _stoppable(solver: z3.Solver, budget: Budget) -> Iterator[None]:
    """The solver sees the cancel flag while it thinks."""
    done = threading.Event()
    # Progress is told by the thread that searches alone: two would talk into each other.
    quiet = replace(budget, progress=lambda words: None, seconds=None)

    def watch() -> None:
        while not done.wait(0.05):
            try:
                quiet.look(0, 0)
            except Exception:
                # What is asked of the solver next finds the same, and raises it where it can be seen.
                solver.interrupt()
                return

    watcher = threading.Thread(target=watch, daemon=True)
    watcher.start()
    try:
        yield
    finally:
        done.set()
        watcher.join()


def solve(constraints: Sequence[Constraint], size: int, pack: Pack, wanted: int, seed: int, budget: Budget) -> Solved:
    """Up to `wanted` different arrangements. Raises Cancelled, Misread for a constraint that makes no sense."""
    model = Model(size, pack)
    solver = z3.Solver()
    solver.set("random_seed", seed)
    solver.add(*model.rules())
    lines = [z3.Bool(f"line {i}") for i in range(len(constraints))]
    meanings = [one.kind.means(model, one.values) for one in constraints]
    for line, meaning in zip(lines, meanings, strict=True):
        solver.add(z3.Implies(line, meaning))

    def holds(some: Sequence[int], work: int = MUCH) -> bool | None:
        solver.set("rlimit", work)
        with _stoppable(solver, budget):
            answer = solver.check(*(lines[i] for i in some))
        if answer == z3.unknown:
            replace(budget, seconds=None).look(0, 0)
            return None
        return bool(answer == z3.sat)

    def also() -> set[int]:
        """What holds in the arrangement just found."""
        found = solver.model()
        return {i for i, meaning in enumerate(meanings) if z3.is_true(found.eval(meaning, model_completion=True))}

    found: list[tuple[str, ...]] = []
    everyone = range(len(constraints))
    try:
        while len(found) < wanted and (answer := holds(everyone)) is not False:
            if answer is None:
                raise OutOfBudget("work", "the solver gave up")
            found.append(model.read(solver.model()))
            solver.add(model.differs(found[-1]))
            budget.progress(f"{len(found)} found")
    except OutOfBudget:
        return Solved(tuple(found), (), False, bool(found))
    if found:
        return Solved(tuple(found), (), False, True)
    core = tuple(sorted(int(str(line).split()[1]) for line in solver.unsat_core()))
    try:
        core = _reduced(core, holds)
        return Solved((), *smallest_clash(core, len(constraints), holds, also, budget), True)
    except OutOfBudget:
        return Solved((), core, False, True)


def _reduced(clash: Sequence[int], holds: Holds) -> tuple[int, ...]:
    """A part of it from which nothing can be left out."""
    left = list(clash)
    for one in clash:
        without = [i for i in left if i != one]
        if holds(without, LITTLE) is False:
            left = without
    return tuple(sorted(left))


def smallest_clash(
    known: tuple[int, ...],
    many: int,
    holds: Holds,
    also: Callable[[], set[int]],
    budget: Budget,
) -> tuple[tuple[int, ...], bool]:
    """(the smallest set of constraints that cannot all hold, whether it is sure that none is smaller).

    Every clash meets every set whose leaving out makes the rest hold. The smallest set that meets all of these known so
    far is therefore no larger than the smallest clash, and is it as soon as it clashes itself (A. Ignatiev, A. Previti,
    M. Liffiton, J. Marques-Silva, "Smallest MUS extraction with minimal hitting set dualization", 2015). `also` tells all
    that hold in what made the last question true.
    """
    to_meet: list[frozenset[int]] = []
    while True:
        budget.progress(f"looking for the smallest clash, {len(to_meet)} ways out so far")
        some = _meeting(to_meet, many)
        if len(some) >= len(known):
            return known, True
        if (answer := holds(some)) is not True:
            return (known, False) if answer is None else (some, True)
        # More that hold with them: what is then left out must be met by every clash. Where it takes long to find out
        # whether one more holds it counts as left out, which is right as well.
        holding = set(some) | also()
        for i in range(many):
            if i not in holding and holds([*holding, i], LITTLE):
                holding |= also()
        to_meet.append(frozenset(range(many)) - holding)


def _meeting(sets: Sequence[frozenset[int]], many: int) -> tuple[int, ...]:
    """A smallest set that has a member in each of these."""
    if not sets:
        return ()
    optimize = z3.Optimize()
    taken = [z3.Bool(f"take {i}") for i in range(many)]
    for one in sets:
        optimize.add(z3.Or(*(taken[i] for i in one)))
    optimize.minimize(z3.Sum([z3.If(line, 1, 0) for line in taken]))
    optimize.check()
    found = optimize.model()
    return tuple(i for i in range(many) if z3.is_true(found.eval(taken[i])))
