"""A rule in the numbers one is told, sought as a formula: fitted to paths drawn at random, then proved of all of them.

To keep what was told beside where the card lies takes a situation for each way in which the numbers can fall together.
A claim that the card lies where the formula says keeps no more of them than the claim asks for, such as their sum.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from contextlib import suppress
from dataclasses import dataclass, replace
from functools import partial

from ..budget import Budget
from ..building import PROOF, REPLAY, compile_routine
from ..faults import BadRoutine, OutOfBudget
from ..language.expressions import expression_text
from ..language.parser import read_routine
from ..language.routine import Routine
from ..search.explorer import count_of, explore
from ..search.frontiers import Exploration
from ..search.program import Program
from .cut_off import following_to_the_end
from .formulas import Formula, fitted
from .plays import drawn_at_random

FEWEST_TOLD = 2
"""numbers that have to be told: with one, there is no more than its values to keep"""
MOST_DRAWN = 60
MOST_STEPS = 100_000
"""in which the formula is proved, and where the card lies is gone through"""

Row = tuple[tuple[int, ...], tuple[str, int]]
"""what was told, and the place and position where the card then lies"""


@dataclass(frozen=True)
class Rule:
    program: Program
    """of which only has to be known where the card lies at the end"""
    found: Exploration
    names: tuple[str, ...]
    """of the numbers that are told"""
    formula: Formula
    rows: tuple[Row, ...]
    """some, in ascending order"""
    claim: str
    """it, as a line of the sheet"""


def in_words(program: Program) -> dict[int, Callable[[int], str]]:
    """Cell → what a value of it says, where that is no plain number, such as an order of piles."""
    chosen = {choose.cell: partial(choose.say, program.start) for choose in program.choices() if not choose.plain}
    return {**chosen, **{i: cell.say for i, cell in enumerate(program.cells) if cell.say}}


def told_numbers(program: Program) -> list[int]:
    """Cells of what is told that says something about the card."""
    return [
        i for i, cell in enumerate(program.cells) if cell.told and not cell.is_place and i in program.wanted.at_end
    ]


def rule_by_formula(routine: Routine, budget: Budget) -> Rule | None:
    """For a routine without a claim; None where the card does not always lie at one place, no formula fits or too many
    steps would be needed. Raises Cancelled."""
    program = compile_routine(routine, PROOF)
    told = told_numbers(program)
    if len(told) < FEWEST_TOLD or not in_words(program).keys().isdisjoint(told):
        return None
    names = tuple(program.cells[i].name for i in told)
    rows = _drawn(routine, names, budget)
    if len({place for _, (place, _) in rows}) != 1:
        return None
    formula = fitted(names, [(known, position) for known, (_, position) in rows])
    with suppress(OutOfBudget, BadRoutine):
        few = budget.narrowed(budget.states or MOST_STEPS, MOST_STEPS)
        if formula is None:
            return None
        place, card = rows[0][1][0], program.target
        claim = f"Ends with: the card at position {expression_text(formula.expression)} of {place} is {card}"
        if _holds(routine, claim, few):
            alone = following_to_the_end(routine)
            return Rule(alone, explore(alone, few), names, formula, tuple(rows), claim)
    return None


def _drawn(routine: Routine, names: Sequence[str], budget: Budget) -> list[Row]:
    """Of paths that come to their end; nothing where one does not."""
    program = compile_routine(routine, REPLAY)
    named = {cell.name: i for i, cell in enumerate(program.cells)}
    rows: set[Row] = set()
    for played, _ in drawn_at_random(routine, MOST_DRAWN, budget.cancelled):
        state = played.frames[-1].state
        where = program.where_is(state, program.target)
        known = tuple(state[named[name]] for name in names)
        if played.failures or where is None or None in known:
            return []
        rows.add((known, where))
    return sorted(rows)


def _holds(routine: Routine, claim: str, budget: Budget) -> bool:
    """Whether every path that does not start again comes to the claim, and it is so. Raises OutOfBudget, BadRoutine."""
    last = max(line.number for line in routine.walk())
    said = tuple(replace(line, number=last + 1) for line in read_routine(claim).lines)
    claimed = compile_routine(replace(routine, lines=(*routine.lines, *said)), replace(PROOF, reorder=True))
    count = count_of(claimed, explore(claimed, budget), exact=True)
    return not (count.some_fail or count.some_miss)
