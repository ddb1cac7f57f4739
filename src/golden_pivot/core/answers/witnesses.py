"""No verdict without its witness: what is said to fail is played with nothing forgotten, and must fail there.

A search forgets what nobody asks for any more (docs/forgetting.md). Were something forgotten that matters, it would go through
paths that do not exist. So a routine is refuted only by a path that fails when it is played on a pack in which every card is
its own; where the claim is that what is seen tells something, by two paths that end alike to the eye. Where the paths that a
search gives do not fail, less is forgotten and the search is made again (counterexample-guided abstraction refinement: E. Clarke,
O. Grumberg, S. Jha, Y. Lu, H. Veith, 2000).
"""

from __future__ import annotations

from dataclasses import dataclass

from ..budget import Budget
from ..building import PROOF, REPLAY, Purpose, compile_routine
from ..language.routine import Routine
from ..search.algebra import LEAST_PATH
from ..search.explorer import explore
from ..search.program import FAILED, State
from ..search.replay import Play
from ..search.telling import can_look_alike, untold
from .plays import play_path

KEEPS_NAMES = Purpose(forget_faces=False, early_checks=False)
FINER = KEEPS_NAMES, REPLAY
"""what forgets less and less; the last nothing"""
NONE_FAILS = "paths that fail were found, but none of them fails when it is played with nothing forgotten"


@dataclass(frozen=True)
class Witness:
    """A path that fails; or two of which neither tells from its end which it was."""

    path: Play
    beside: Play | None = None
    least: bool = True
    """of the paths that fail; else one drawn at random"""


def witness_of(routine: Routine, path: Play, budget: Budget) -> Witness | None:
    """What shows that the routine fails, by a path that a search says fails; None where it shows nothing.

    Raises OutOfBudget where another path is looked for beside it.
    """
    if path.failures:
        return Witness(path)
    return _two_alike(routine, budget) if path.program.tells else None


def _two_alike(routine: Routine, budget: Budget) -> Witness | None:
    """Two paths that end with the same to be seen, and differ in what that is to tell: the least, and the least beside it."""
    program = compile_routine(routine, PROOF)
    found = explore(program, budget, LEAST_PATH)
    for claim, cell in program.tells.items():
        ends = [(weight, state) for state, weight in found.ends.items() if state[cell]]
        failing = sorted(
            (one for one in ends if one[1][FAILED] >> (claim + 1) & 1), key=lambda one: one[0]
        )  # fmt: skip
        for weight, state in failing[:1]:
            beside = min(other for other, end in ends if _differ_unseen(state, end, cell))
            one, two = play_path(routine, weight[3]), play_path(routine, beside[3])
            ended = [path.frames[-1].state[path.program.tells[claim]] for path in (one, two)]
            if all(ended) and untold(ended):
                return Witness(one, two)
    return None


def _differ_unseen(one: State, other: State, cell: int) -> bool:
    (seen, told), (theirs, told_there) = one[cell], other[cell]
    same_way = len(seen[0]) == len(theirs[0]) and all(
        a >> 7 == b >> 7 for a, b in zip(seen[0], theirs[0], strict=True)
    )
    return told != told_there and same_way and can_look_alike(seen, theirs)
