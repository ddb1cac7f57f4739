"""How often a routine comes out as what: exact chances, as one number or as a range where choices are left open.

Chance decides which cards unknown ones are, and what a line leaves to it. What the spectator decides has no
chance of its own, unless the routine says that all their choices are equally likely: then a thing happens at
least and at most so often, for the plans of choosing that make it rarest and most frequent.
"""

from __future__ import annotations

import math
import random
from collections.abc import Mapping
from dataclasses import dataclass, replace
from fractions import Fraction
from typing import Any

from ..budget import Budget
from ..building import ODDS, compile_routine
from ..faults import OutOfBudget
from ..language.kinds import CHANCE
from ..language.routine import Routine
from ..search.algebra import Algebra
from ..search.explorer import explore
from ..search.frontiers import Exploration, frontiers
from ..search.program import FAILED, Choose, Closure, Loop, Program, State
from ..search.replay import draw_path
from ..search.stages import Stage

MOST_PLANNED = 20_000
"""situations up to which the plans of a spectator are gone through"""
SAMPLES = 4_000
"""paths that are played where there are too many to go through"""
FIRST_STEPS, FIRST_DRAWN = 30_000, 300
"""steps in which most are told exactly; of others so many paths are drawn, for an estimate, before the search goes on"""
Event = tuple[str, str]
"""(what it is about, how it comes out): (`number of piles`, `7`), (`ending`, `line 12`)"""
FAILS: Event = ("ending", "fails")
WORKS: Event = ("success", "works")
"""told only beside failures"""


@dataclass(frozen=True)
class Chance:
    """How often one thing happens. Exact: `least` and `most` are what it is; sampled: the ends of an interval."""

    about: str
    outcome: str
    least: Fraction
    most: Fraction
    exact: bool = True
    seen: Fraction | None = None
    """sampled: the share of the paths drawn on which it happened"""


@dataclass(frozen=True)
class Odds:
    chances: tuple[Chance, ...]
    samples: int | None = None
    """paths that were drawn at random; None where the chances are exact"""
    assumes: str | None = None
    seed: int | None = None

    @property
    def says(self) -> str:
        """In a sentence, how sure the numbers are."""
        if self.samples is None:
            return "Exact."
        return (
            f"Not exact: from {self.samples:,} paths drawn at random (seed {self.seed}); each interval holds the true"
            " value 95 times in 100."
        )


def odds_of(routine: Routine, budget: Budget, seed: int = 1, samples: int = SAMPLES) -> Odds:
    """The chances of every ending, of starting again, and of the numbers asked for.

    Exact where that can be done within the budget; else from paths drawn at random with this seed, with an interval
    that holds the true value 95 times in 100 (E. B. Wilson, "Probable inference, the law of succession, and
    statistical inference", 1927).
    """
    return odds_of_program(compile_routine(routine, ODDS), budget, seed, samples)


def odds_of_program(program: Program, budget: Budget, seed: int = 1, samples: int = SAMPLES) -> Odds:
    """The same for a program made with the purpose ODDS, whose choices may have been given chances of their own."""
    undecided = not program.equally_likely and any(choose.by != CHANCE for choose in program.choices())
    undecided |= any(isinstance(step, Closure) for step in program.instructions)

    def exact(within: Budget) -> dict[Event, tuple[Fraction, Fraction]]:
        return _ranges(program, within.narrowed(MOST_PLANNED)) if undecided else _distribution(program, within)

    try:
        found = exact(budget.narrowed(FIRST_STEPS, FIRST_STEPS))
    except OutOfBudget:
        # While it takes its time, one is told what comes of the first paths that are drawn.
        draws = _Draws(program, seed, samples)
        draws.up_to(min(FIRST_DRAWN, samples), budget)
        told = draws.says
        try:
            found = exact(replace(budget, progress=lambda words: budget.progress(f"{told}; {words}")))
        except OutOfBudget:
            draws.up_to(samples, budget)
            return draws.odds
    if FAILS not in found:  # that it works is then said by the proof
        found.pop(WORKS, None)
    elif program.claims:
        found.setdefault(WORKS, (Fraction(0), Fraction(0)))
    return Odds(
        tuple(Chance(*event, least, most) for event, (least, most) in sorted(found.items(), key=_by_event)),
        assumes="every choice of the spectator’s is equally likely" if program.equally_likely else None,
    )


def _by_event(item: tuple[Event, Any]) -> tuple[str, int, str]:
    about, outcome = item[0]
    return about, int(outcome) if outcome.lstrip("-").isdigit() else 0, outcome


def _events(program: Program, state: State, stuck: bool = False) -> list[Event]:
    if program.again and state[program.again]:
        return [("ending", "starts again")]
    found: list[Event] = [(text, str(state[cell])) for _, text, cell in program.odds if state[cell] is not None]
    fails = stuck or bool(state[FAILED])
    if program.claims and not fails:
        found.append(WORKS)
    if fails:
        found.append(FAILS)
    elif program.ending and state[program.ending]:
        found.append(("ending", f"line {state[program.ending]}"))
    return found


# All choices by chance: one distribution


def _share(weight: Any, part: int, whole: int) -> Any:
    product = weight * part
    return product // whole if product % whole == 0 else Fraction(product, whole)


def _distribution(program: Program, budget: Budget) -> dict[Event, tuple[Fraction, Fraction]]:
    # Begun with so many, most weights stay whole numbers, which add up faster than fractions.
    cards = max(program.cards_in_play, sum(one.total for one in program.face_classes))
    start = math.factorial(min(120, cards))
    algebra = Algebra(start, lambda one, other: one + other, share=_share)
    found = explore(program, budget, algebra)
    total: dict[Event, Fraction] = {}
    reached = [(state, weight, False) for state, weight in (*found.ends.items(), *found.again.items())]
    reached += [(stuck.state, weight, True) for stuck, weight in found.stuck.items()]
    for state, weight, stuck in reached:
        for event in _events(program, state, stuck):
            total[event] = total.get(event, Fraction(0)) + Fraction(weight) / start
    return {event: (chance, chance) for event, chance in total.items()}


# Choices left open: the rarest and the most frequent, by going backwards through the layers

Range = Mapping[Event, tuple[Fraction, Fraction]] | None
"""None where no path leads on: choices made before do not go together"""
_NOTHING = (Fraction(0), Fraction(0))
Ways = frozenset[tuple[int, int]]
"""(index of a state of the layer before, index of the option taken there)"""
_TRACE = Algebra(
    frozenset({(0, 0)}),
    lambda one, other: one | other,
    chosen=lambda ways, index, value: frozenset((origin, index) for origin, _ in ways),
)
"""weights that say from which states of the layer before, and with which options, a state was reached"""
Outcomes = list[list[tuple[frozenset[int], State, bool]]]
"""for each state of a layer: (options, the state they lead to, whether they got stuck there)"""


def _ranges(program: Program, budget: Budget) -> dict[Event, tuple[Fraction, Fraction]]:
    found = Exploration()
    walked: list[tuple[Stage, tuple[State, ...], Outcomes]] = []
    ends: tuple[State, ...] = (program.start,)
    for frontier in frontiers(program, budget, _TRACE, found):
        before = tuple(frontier.before)
        outcomes: Outcomes = [[] for _ in before]
        reached = [(state, ways, False) for state, ways in frontier.layer.items()]
        reached += [(stuck.state, ways, True) for stuck, ways in found.stuck.items()]
        for state, ways, stuck_there in reached:
            options: dict[int, set[int]] = {}
            for origin, index in ways:
                options.setdefault(origin, set()).add(index)
            for origin, mine in options.items():
                outcomes[origin].append((frozenset(mine), state, stuck_there))
        walked.append((frontier.stage, before, outcomes))
        ends = tuple(frontier.layer)
        frontier.layer = {state: frozenset({(i, 0)}) for i, state in enumerate(ends)}
        found.stuck = {}
    values: dict[State, Range] = {state: _certain(program, state) for state in ends}
    for stage, layer, outcomes in reversed(walked):
        values = {
            state: _weighed(
                program, stage, state,
                [(ways, _certain(program, one, stuck=True) if stuck else values[one]) for ways, one, stuck in leads],
            )
            for state, leads in zip(layer, outcomes, strict=True)
        }  # fmt: skip
    return dict(values[program.start] or {})


def _certain(program: Program, state: State, stuck: bool = False) -> Range:
    return {event: (Fraction(1), Fraction(1)) for event in _events(program, state, stuck)}


def _weighed(program: Program, stage: Stage, state: State, reached: list[tuple[frozenset[int], Range]]) -> Range:
    outcomes = [(ways, values) for ways, values in reached if values is not None]
    if not outcomes:
        return None
    events = {event for _, values in outcomes for event in values}
    choose: Choose | None = stage.choose
    if isinstance(stage.closure, Loop):
        raise OutOfBudget("plans", "a choice is made again and again")
    by_chance = choose is not None and (choose.by == CHANCE or program.equally_likely)
    if choose is not None and by_chance and (len(reached) > 1 or choose.out_of):
        shares = choose.shares(state, choose.options(state))
        whole = choose.whole(state, shares)
        parts = [Fraction(sum(shares[i] for i in ways), whole) for ways, _ in outcomes]

        def mean(event: Event, end: int) -> Fraction:
            weighed = (p * values.get(event, _NOTHING)[end] for p, (_, values) in zip(parts, outcomes, strict=True))
            return sum(weighed, Fraction(0))

        return {event: (mean(event, 0), mean(event, 1)) for event in events}
    return {
        event: (
            min(values.get(event, _NOTHING)[0] for _, values in outcomes),
            max(values.get(event, _NOTHING)[1] for _, values in outcomes),
        )
        for event in events
    }


# Too many: drawn at random


class _Draws:
    """Paths drawn one after the other with one seed, and what came of them."""

    def __init__(self, program: Program, seed: int, samples: int) -> None:
        self.program, self.seed, self.samples = program, seed, samples
        self._draw = random.Random(seed)
        self._counts: dict[Event, int] = {}
        self._done = 0

    def up_to(self, many: int, budget: Budget) -> None:
        """Goes on until so many have been drawn. Raises Cancelled."""
        for done in range(self._done, many):
            if done % 100 == 0:
                if budget.cancelled():
                    budget.look(0, 0)
                budget.progress(self.says)
            played = draw_path(self.program, self._draw, tells=False)
            for event in _events(self.program, played.frames[-1].state, played.stuck_at is not None):
                self._counts[event] = self._counts.get(event, 0) + 1
            self._done = done + 1

    @property
    def says(self) -> str:
        """How many there are, and what is most frequent on them."""
        told = f"{self._done:,} of {self.samples:,} paths drawn"
        if not self._counts:
            return told
        (about, outcome), many = max(self._counts.items(), key=lambda item: item[1])
        least, most = wilson(many, self._done)
        return f"{told}: {about} {outcome}, {float(least):.0%} to {float(most):.0%} so far"

    @property
    def odds(self) -> Odds:
        counts, left_open = dict(self._counts), any(choose.by != CHANCE for choose in self.program.choices())
        if FAILS not in counts:
            counts.pop(WORKS, None)
        elif self.program.claims:
            counts.setdefault(WORKS, 0)
        return Odds(
            tuple(
                Chance(*event, *wilson(count, self._done), exact=False, seen=Fraction(count, self._done))
                for event, count in sorted(counts.items(), key=_by_event)
            ),
            self._done,
            "every choice left open is taken at random" if left_open else None,
            self.seed,
        )


def wilson(count: int, samples: int, z: float = 1.96) -> tuple[Fraction, Fraction]:
    """The interval for a share of which `count` of `samples` were seen; z standard deviations wide on each side."""
    share, spread = count / samples, z * z / samples
    middle = (share + spread / 2) / (1 + spread)
    half = z / (1 + spread) * math.sqrt(share * (1 - share) / samples + spread / (4 * samples))
    return Fraction(max(0.0, middle - half)), Fraction(min(1.0, middle + half))
