"""The same routine in another school: what each change of custom would do to it, proved.

See customs.py and reveals.py for the customs themselves.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from contextlib import suppress
from dataclasses import dataclass

from ..analysis import Analysis
from ..answers.plays import play
from ..answers.verdicts import PROVED
from ..budget import Budget
from ..faults import BadRoutine, OutOfBudget
from ..search.replay import Play
from . import reveals  # noqa: F401  its customs are declared there
from .customs import CUSTOMS, Page
from .exposure import exposure_of
from .reset import reset_of
from .wording import wording_of


@dataclass(frozen=True)
class School:
    """One option: what changes, the text it makes, and what that does."""

    label: str
    lines: tuple[int, ...]
    text: str
    headline: str
    verdict: str | None
    """None where the text then has a fault"""
    gained: tuple[str, ...]
    """badges"""
    lost: tuple[str, ...]
    repeat: str
    """whether it can then be done again at once, where that changes; empty where it does not"""
    shows: tuple[str, ...]
    """what is then in sight and was not: odd backs, writing, what must not show"""
    hides: tuple[str, ...]
    """what was in sight and then is not"""
    untrue: tuple[str, ...]
    """patter that is then no longer so"""


@dataclass(frozen=True)
class _Standing:
    """What a text comes to, beside its verdict."""

    badges: frozenset[str]
    repeat: str
    in_sight: frozenset[str]
    untrue: frozenset[str]


@dataclass(frozen=True)
class _Before:
    """What every option is compared with."""

    text: str
    target: str | None
    """the card it is about"""
    standing: _Standing
    choices: Mapping[str, int]
    """by key, with which it and every option are looked at"""


def schools_of(text: str, budget: Budget) -> tuple[School, ...]:
    """Every option that applies. Raises BadRoutine when the text has faults."""
    it = Analysis(text, budget.quiet())
    landing = it.bare_verdict.landing
    played = _played(it, {})
    before = _Before(text, landing.card if landing else None, _standing(it, played), played.choices if played else {})
    found = []
    for school in budget.executor.run(_carried_through, before, range(len(CUSTOMS)), budget):
        if school:
            budget.progress(school.label)
            found.append(school)
    return tuple(found)


def _carried_through(before: _Before, which: int, budget: Budget) -> School | None:
    """The custom of this number: of several ways to carry it through one that works, else the first."""
    custom, quiet = CUSTOMS[which], budget.quiet()
    page = Page(before.text, Analysis(before.text, quiet).routine, before.target, quiet)
    first: School | None = None
    for lines, other in custom.options(page):
        school = _judged(custom.label, lines, other, before, budget)
        if school.verdict == PROVED:
            return school
        first = first or school
    return first


def _judged(label: str, lines: tuple[int, ...], text: str, base: _Before, budget: Budget) -> School:
    it, before = Analysis(text, budget.quiet()), base.standing
    try:
        verdict, after = it.verdict, _standing(it, _played(it, base.choices))
    except BadRoutine as bad:
        return School(label, lines, text, str(bad.faults[0].message), None, (), (), "", (), (), ())
    return School(
        label,
        lines,
        text,
        verdict.headline,
        verdict.verdict,
        tuple(sorted(after.badges - before.badges)),
        tuple(sorted(before.badges - after.badges)),
        after.repeat if after.repeat != before.repeat else "",
        tuple(sorted(after.in_sight - before.in_sight)),
        tuple(sorted(before.in_sight - after.in_sight)),
        tuple(sorted(after.untrue - before.untrue)),
    )


def _played(it: Analysis, choices: Mapping[str, int]) -> Play | None:
    """The path of these choices; without, or where it is none to the end, the one that handles most cards. None for too large a
    routine. Raises BadRoutine."""
    played = play(it.routine, choices)
    with suppress(OutOfBudget):
        return played if choices and played.stuck_at is None else it.longest
    return None


def _standing(it: Analysis, played: Play | None) -> _Standing:
    try:
        plan = reset_of(it.routine, it.budget)
        in_sight = frozenset(_in_sight(it, played))
        untrue = frozenset(f"“{one.said}”: {one.why}" for one in wording_of(it))
    except OutOfBudget:
        return _Standing(frozenset(it.badges), "", frozenset(), frozenset())
    return _Standing(frozenset(it.badges), plan.repeatable if plan else "", in_sight, untrue)


def _in_sight(it: Analysis, played: Play | None) -> Iterator[str]:
    for moment in exposure_of(it, played=played).moments:
        yield from (f"the odd back of {card}" for card in moment.odd_backs)
        yield from moment.writing
        if moment.note:
            yield moment.note.removeprefix("Take care: ").rstrip(".")
