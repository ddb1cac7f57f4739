"""Where the followed card lies at the end: over all paths, and by what the performer has been told."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

from ..budget import Budget
from ..language.routine import Routine
from ..layouts import HEAP, Layout
from ..search.counted import Count
from ..search.frontiers import Exploration
from ..search.program import Program, State
from .formulas import fit
from .ledger import end_layer
from .rules import Rule, in_words, told_numbers

MOST_CANDIDATES = 6
"""places a card may be in, for one thing the performer knows, before it counts as lost"""
MOST_STEPS_FOR_PLACES = 100_000
"""transitions that a larger proof spends besides on where the card lies at the end"""
MOST_ROWS = 400
"""rows of a landing table that are handed out"""


class _Lies:
    """A card lies somewhere."""

    place: str
    position: int
    layout: Layout

    @property
    def text(self) -> str:
        return self.layout.at(self.position, self.place)


@dataclass(frozen=True)
class Where(_Lies):
    place: str
    position: int
    """from the top, from 1"""
    paths: int | None
    """how many paths end so; None where they have no number"""
    layout: Layout = HEAP
    """how the cards of the place lie"""


@dataclass(frozen=True)
class RuleRow(_Lies):
    """One line of a landing table: what the performer knows, and where the card then is."""

    known: tuple[int, ...]
    words: tuple[str, ...]
    """the same as one says it: `n is 3`, `the order of the piles is 2, 1 and 3 from the top`"""
    place: str
    position: int
    layout: Layout = HEAP


@dataclass(frozen=True)
class Landing:
    """Where the card that is followed lies at the end, over all paths that get there."""

    card: str
    where: tuple[Where, ...]
    """most paths first"""
    known: tuple[str, ...] = ()
    """numbers the performer has been told, which the rule goes by"""
    table: tuple[RuleRow, ...] = ()
    formula: str | None = None
    every_row: bool = True
    """of the table; else some of them"""
    claim: str | None = None
    """the formula as a line of the sheet, where it was sought without keeping what was told"""

    @property
    def text(self) -> str:
        if len(self.where) == 1:
            return self.where[0].text
        if self.formula:
            return f"position {self.formula} in {self.where[0].place}"
        named = " or ".join(where.text for where in self.where[:MOST_CANDIDATES])
        return named if len(self.where) <= MOST_CANDIDATES else f"one of {len(self.where)} places"


def landing_of(program: Program, ends: Mapping[State, int], numbered: bool) -> Landing | None:
    """Where the followed card lies; None where the proof did not need to keep that."""
    if program.target is None:
        return None
    tally: Counter[tuple[str, int]] = Counter()
    for state, weight in ends.items():
        where = program.where_is(state, program.target)
        if where is None:
            return None
        tally[where] += weight
    most_first = tally.most_common() if numbered else sorted((where, None) for where in tally)
    return Landing(
        program.target, tuple(Where(*where, paths, program.layouts[where[0]]) for where, paths in most_first)
    )


def end_places(
    routine: Routine, program: Program, found: Exploration, count: Count, budget: Budget
) -> Landing | None:
    """The landing where a claim is made: a larger proof has forgotten places nobody looks at, the ledger keeps them."""
    numbered = count.paths is not None
    if program.keeps_target or program.target is None:
        return landing_of(program, found.ends, numbered)
    kept = end_layer(routine, budget)
    return landing_of(*kept, numbered) if kept else None


def with_rule(
    program: Program, landing: Landing, names: Sequence[str], where: Mapping[tuple[int, ...], tuple[str, int]]
) -> Landing:
    told = told_numbers(program)
    words = in_words(program)
    # A formula is in numbers; an order of piles is none.
    in_numbers = len({place for place, _ in where.values()}) == 1 and words.keys().isdisjoint(told)
    formula = fit(names, [(known, position) for known, (_, position) in where.items()]) if in_numbers else None

    def said(known: Sequence[int]) -> Iterator[str]:
        for cell, name, value in zip(told, names, known, strict=True):
            if cell in words and value is not None:
                yield f"{name} is {words[cell](value)}"
            else:
                yield f"{name} {'is not settled' if value is None else value}"

    table = tuple(
        RuleRow(known, tuple(said(known)), *at, program.layouts[at[0]])
        for known, at in list(where.items())[:MOST_ROWS]
    )
    return Landing(landing.card, landing.where, tuple(names), table, formula, len(where) <= MOST_ROWS)


def by_formula(landing: Landing, rule: Rule) -> Landing:
    """The same for a rule that was sought as a formula; its table has some rows."""
    table = tuple(
        RuleRow(
            known,
            tuple(f"{name} {value}" for name, value in zip(rule.names, known, strict=True)),
            *at,
            rule.program.layouts[at[0]],
        )
        for known, at in rule.rows
    )
    return replace(
        landing, known=rule.names, table=table, formula=rule.formula.text, every_row=False, claim=rule.claim
    )
