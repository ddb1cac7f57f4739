"""A routine broken off behind each of its lines, in the order that takes least work: where a card then lies.

Behind a line it makes no difference in what order the lines before were carried out, so that each beginning of a
routine may be searched by itself with choices made late, sums kept as sums and heaps joined early.
"""

from __future__ import annotations

from dataclasses import replace

from ..budget import Budget
from ..building import LEDGER, lowered
from ..language.routine import Routine
from ..passes.pipeline import passes_for, run
from ..search.explorer import explore
from ..search.program import (
    END,
    FAILED,
    JUMP,
    Act,
    AnyInstruction,
    Branch,
    Check,
    Closure,
    Leap,
    Loop,
    Program,
)

Turn = tuple[int, tuple[int, ...]]
"""a line, and which time round"""


def following_alone(routine: Routine, card: str | None = None) -> Program:
    """The program before its passes, of which only has to be known where one card lies: the one it is about, or another.

    Heaps that nobody asks for any more are kept as far as it lies in them.
    """
    program, _ = lowered(routine, replace(LEDGER, follow=card, reorder=True))
    named = program.card_cells.get(program.target or "")
    at_end = {FAILED, JUMP, *([] if named is None else [named]), *filter(None, [program.again, program.reached])}
    places = frozenset(cell for cell, _ in program.places())
    wanted = replace(program.wanted, at_end=frozenset(at_end), may_be_dropped=program.wanted.may_be_dropped | places)
    return replace(program, wanted=wanted, keeps_target=program.target is not None)


def following_to_the_end(routine: Routine) -> Program:
    """The same, of the whole routine and in the order that takes least work."""
    return run(following_alone(routine), passes_for(True, True))


def where_cut_off(routine: Routine, budget: Budget, card: str | None) -> dict[Turn, set[tuple[str, int]]] | None:
    """Behind each line and time round, in order, where the card can be; None where some line ends within a block or a case.

    Raises OutOfBudget, Cancelled.
    """
    program = following_alone(routine, card)
    ends = _ends(program.instructions)
    if program.target is None or any(_goes_past(program.instructions, end) for end in ends.values()):
        return None
    found: dict[Turn, set[tuple[str, int]]] = {}
    for turn, end in ends.items():
        cut = run(replace(program, instructions=program.instructions[:end]), passes_for(True, False))
        ends_there = explore(cut, budget).ends
        found[turn] = {where for state in ends_there if (where := program.where_is(state, program.target))}
    return found


def _ends(instructions: tuple[AnyInstruction, ...]) -> dict[Turn, int]:
    """Index behind the last instruction of each line and time round that does something or lets somebody choose."""
    ends: dict[Turn, int] = {}
    for index, step in enumerate(instructions):
        turn = step.line, step.round
        only_told = isinstance(step, Branch | Leap | Check) or (isinstance(step, Act) and step.reckons)
        if turn in ends or not only_told:
            ends.pop(turn, None)
            ends[turn] = index + 1
    return ends


def _goes_past(instructions: tuple[AnyInstruction, ...], end: int) -> bool:
    """Whether some paths come by there that are elsewhere, or have come to an ending."""
    for step in instructions[:end]:
        if isinstance(step, Branch | Leap) and (step.target > end or step.target == END):
            return True
        if (isinstance(step, Closure) and step.ends[-1] > end) or (isinstance(step, Loop) and step.end > end):
            return True
    return False
