"""All paths of a routine gone at once, in the way that costs least for what is asked."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import dataclass, replace
from functools import cached_property

from ..budget import Budget
from ..building import LEDGER, PROOF, Purpose, compile_routine
from ..faults import OutOfBudget
from ..language.routine import Routine
from ..search.explorer import explore
from ..search.frontiers import Exploration
from ..search.program import FAILED, Act, Branch, Choose, Leap, Loop, Program
from ..search.replay import Play
from .refuting import Shown, counted_with_least, failing_drawn, held_and_denied, least_failing
from .rules import FEWEST_TOLD, Rule, rule_by_formula, told_numbers
from .verdicts import Asked

FEW_TRANSITIONS = 20_000
"""steps up to which nothing is given up: every place is kept to the end, and the limits of a pack"""
FEW_WITHOUT_PLACES = 2_000
"""the same where these are hardly asked for"""
DRAWN_BEHIND = 5_000
"""further steps up to which no path is drawn at random: to draw some takes as long as these"""
DRAWN_WITHOUT_NUMBER = 1_000
"""the same where paths have no number, so that those drawn may tell all there is to tell"""


class _SomeFails(Exception):
    """A path drawn at random fails."""


class ToldByDrawn(Exception):
    """Paths drawn at random have told what there is to tell: of these some hold, and of some every claim fails."""

    def __init__(self, shown: Shown) -> None:
        self.shown = shown


@dataclass(frozen=True)
class Searched:
    program: Program
    found: Exploration
    exact: bool
    """exactly those paths that there are have been gone; else more"""
    least: Play | None = None
    """the least that fails, where it has been found on the way"""
    rule: Rule | None = None
    """where the card lies by what was told, where that is known without keeping what was told"""


@dataclass
class Drawn:
    """A failing path that is drawn at random, when one is first asked for."""

    routine: Routine
    budget: Budget

    @cached_property
    def failing(self) -> Play | None:
        return failing_drawn(self.routine, self.budget)

    def enough(self) -> None:
        """Raises ToldByDrawn where they tell as much as is told of paths that have no number."""
        if shown := held_and_denied(self.routine, self.budget):
            raise ToldByDrawn(shown)


def depends_on_order(searched: Searched) -> bool:
    """Whether some path gets stuck where choices may be made before in one order, and behind in another."""
    lines = {one.line for one in searched.found.stuck}
    steps = [step for step in searched.program.instructions if not (isinstance(step, Act) and step.reckons)]
    if not lines or any(isinstance(step, Branch | Leap | Loop) for step in steps):
        return bool(lines)
    begin = next(index for index, step in enumerate(steps) if step.line in lines)
    chosen_later = any(isinstance(step, Choose) for step in steps[begin + 1 :])
    return chosen_later or any(choose.line > min(lines) for choose in searched.program.choices())


def explored(
    routine: Routine,
    budget: Budget,
    drawn: Drawn,
    asked: Asked,
    reorder: bool = True,
) -> Searched:
    """All paths of a routine; with `reorder`, choices are made late.

    A small proof keeps every place, so that it also says where the card lies. Where unknown cards are looked at
    again and again, keeping count of what is still in the pack takes most of the work. So a larger proof is first
    tried without: it then covers more orders than there are. What fails there may be no real order, so a failure
    is looked for again among the real ones.

    Of a larger routine that is known to fail, by a path drawn at random, the paths are counted as far as is allowed for;
    where no example is asked for, as far as a small proof goes. Raises ToldByDrawn where paths drawn tell as much
    as is asked.
    """
    kept = frozenset(asked.told or ())
    proof, ledger = (replace(one, reorder=reorder, early_checks=reorder, kept=kept) for one in (PROOF, LEDGER))
    program = compile_routine(routine, ledger)
    if program.target and not program.claims:
        return _without_claim(routine, program, budget, by_formula=asked.told is None)
    few = FEW_TRANSITIONS if asked.places or program.faces else FEW_WITHOUT_PLACES
    small = budget.narrowed(budget.states or few, few)
    # Where the faces at the end must tell something, one path alone does not show that it holds.
    by_drawn = program.is_unlimited and program.again is None and not program.tells
    if by_drawn and not (asked.example or asked.places):
        small.beyond = (DRAWN_WITHOUT_NUMBER, drawn.enough)
    with suppress(OutOfBudget):
        return Searched(program, explore(program, small), True)
    large = replace(budget)

    def when_some_fail() -> None:
        if drawn.failing and asked.example:
            raise _SomeFails
        if drawn.failing:  # on how many is then of less use: it may take as much as a small proof
            large.transitions = min(FEW_TRANSITIONS, large.transitions or FEW_TRANSITIONS)

    large.beyond = (DRAWN_BEHIND, when_some_fail)
    try:
        return _larger(routine, proof, large, drawn, asked)
    except _SomeFails:
        budget = _to_count_failures(budget)
    with suppress(OutOfBudget):
        return _explored_for_the_least(routine, budget, bool(program.faces))
    return _larger(routine, proof, budget, drawn, asked)


def _without_claim(routine: Routine, program: Program, budget: Budget, by_formula: bool) -> Searched:
    """What is told is kept to the end, for a rule in it; where that takes much, the rule is first sought as a formula."""
    if len(told_numbers(program)) >= FEWEST_TOLD and by_formula:
        with suppress(OutOfBudget):
            few = budget.narrowed(budget.states or FEW_TRANSITIONS, FEW_TRANSITIONS)
            return Searched(program, explore(program, few), True)
        if rule := rule_by_formula(routine, budget):
            return Searched(rule.program, rule.found, True, rule=rule)
    return Searched(program, explore(program, budget), True)


def _larger(routine: Routine, proof: Purpose, budget: Budget, drawn: Drawn, asked: Asked) -> Searched:
    program = compile_routine(routine, proof)
    if program.faces is None:
        return Searched(program, explore(program, budget), True)
    wider = compile_routine(routine, replace(proof, limits=False))
    found = explore(wider, budget)
    fails = bool(found.stuck) or any(state[FAILED] for state in (*found.ends, *found.again))
    if found.ends and wider.reached is None:
        least = (
            least_failing(routine, replace(budget, beyond=None), limits=False) if fails and asked.example else None
        )
        if not fails or (drawn.failing if least is None else least.failures):
            return Searched(wider, found, False, least)
    return Searched(program, explore(program, budget), True)


def _to_count_failures(budget: Budget) -> Budget:
    """Where it is known already that some path fails."""
    told = replace(budget, progress=lambda words: budget.progress(f"it fails on some paths; counting them: {words}"))
    return told.narrowed(budget.states, budget.states) if budget.states else told


def _explored_for_the_least(routine: Routine, budget: Budget, faces: bool) -> Searched:
    """The same, and on the way the least path that fails. As things are written, which tells what path is the least."""
    if faces:
        program, found, least = counted_with_least(routine, budget, limits=False)
        if found.ends and program.reached is None and least and least.failures:
            return Searched(program, found, False, least)
    program, found, least = counted_with_least(routine, budget, limits=True)
    return Searched(program, found, True, least)
