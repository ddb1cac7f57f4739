"""Two versions of a routine side by side: line by line, and what each costs and stands."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from difflib import SequenceMatcher

from ..analysis import Analysis
from ..budget import Budget
from ..faults import BadRoutine, OutOfBudget
from ..language.parser import lines_of
from ..variants.slips import ALL, ELSEWHERE, HARMLESS, SOME, fragility_of
from .effort import effort_of
from .paces import Paces

SAME, CHANGED, ADDED, REMOVED = "same", "changed", "added", "removed"


@dataclass(frozen=True)
class ComparedRow:
    """A line of each; empty where there is none. `how`: same, changed, added (only right) or removed (only left)."""

    how: str
    left: str
    right: str


@dataclass(frozen=True)
class Side:
    headline: str
    verdict: str | None
    """None while it is being written"""
    badges: tuple[str, ...]
    cards: int | None
    decisions: int | None
    seconds: float | None
    silent: int | None
    harmless: int | None
    """plausible slips that do no harm"""
    harmful: int | None
    """those after which it fails on some path or all, or the card is at another place"""


@dataclass(frozen=True)
class Comparison:
    rows: tuple[ComparedRow, ...]
    left: Side
    right: Side


def compared(left: str, right: str, budget: Budget, paces: Paces | None = None) -> Comparison:
    return Comparison(
        tuple(_rows(lines_of(left), lines_of(right))), side_of(left, budget, paces), side_of(right, budget, paces)
    )


def _rows(left: Sequence[str], right: Sequence[str]) -> Iterator[ComparedRow]:
    for how, a, b, c, d in SequenceMatcher(None, left, right, autojunk=False).get_opcodes():
        if how == "equal":
            yield from (ComparedRow(SAME, row, row) for row in left[a:b])
            continue
        for i in range(max(b - a, d - c)):
            one = left[a + i] if a + i < b else None
            other = right[c + i] if c + i < d else None
            kind = ADDED if one is None else REMOVED if other is None else CHANGED
            yield ComparedRow(kind, one or "", other or "")


def side_of(text: str, budget: Budget, paces: Paces | None = None) -> Side:
    """What one version comes to; numbers are None where they cannot be had."""
    it = Analysis(text, budget.quiet().afresh())
    nothing = (None,) * 6
    try:
        verdict = it.verdict
    except BadRoutine as bad:
        return Side(f"Still being written: {bad.faults[0]}", None, (), *nothing)
    try:
        effort = effort_of(Analysis(text, budget.afresh()), paces)
        outcomes = fragility_of(text, budget.afresh(), lambda words, _: budget.progress(words)).outcomes
        harmful = sum(one.kind in (SOME, ALL, ELSEWHERE) for one in outcomes)
        harmless = sum(one.kind == HARMLESS for one in outcomes)
    except OutOfBudget:
        return Side(verdict.headline, verdict.verdict, it.badges, *nothing)
    return Side(
        verdict.headline, verdict.verdict, it.badges, effort.cards, effort.decisions, effort.seconds,
        effort.silent, harmless, harmful,
    )  # fmt: skip
