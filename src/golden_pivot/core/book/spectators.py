"""One's own spectators: what they chose in a routine, how often, and whether they stayed inside what was proved."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from statistics import median

from ..answers.odds import wilson
from ..answers.questions import Question, picks_of, questions_of
from ..budget import Budget
from ..english import counted
from ..faults import BadRoutine, OutOfBudget
from ..variants.limits import Limit, limits_of
from .performance import Performance


@dataclass(frozen=True)
class Seen:
    number: int
    times: int


@dataclass(frozen=True)
class Record:
    """One number of a routine, over all performances that have it."""

    name: str
    line: int | None
    """where the routine asks for it now; None where it does no longer"""
    low: int | None
    high: int | None
    """for which the routine is proved, or its range where that is all that is known"""
    seen: tuple[Seen, ...]
    """the smallest number first"""
    total: int
    outside: int
    """how many were not from low to high"""
    least: float
    most: float
    """of all spectators outside, 0 to 1: the ends of an interval that holds the true share 95 times in 100"""
    says: str
    habit: str
    """as the odds desk takes it"""


@dataclass(frozen=True)
class ChoiceSeen:
    choice: str
    times: int


@dataclass(frozen=True)
class PickRecord:
    """One choice of a routine that is no number, over all performances that have it."""

    name: str
    line: int | None
    """where the routine asks for it now; None where it does no longer"""
    seen: tuple[ChoiceSeen, ...]
    """the most frequent first"""
    total: int
    least: float
    most: float
    """of all spectators who choose the most frequent one, 0 to 1: the ends of an interval as above"""
    says: str


@dataclass(frozen=True)
class SlipSeen:
    what: str
    times: int


@dataclass(frozen=True)
class Shown:
    """How often a routine was shown, and how it ended."""

    times: int
    last: str | None
    """the day it was last shown"""
    as_planned: int
    another_way: int
    failed: int
    minutes: float | None
    """the middle one of those that were measured, or between the two middle ones"""
    measured: int
    """how many were"""
    slips: tuple[SlipSeen, ...]
    """that happened, the most frequent first"""


@dataclass(frozen=True)
class OwnSpectators:
    shown: Shown
    records: tuple[Record, ...]
    picks: tuple[PickRecord, ...]


def own_spectators(text: str, performances: Sequence[Performance], budget: Budget) -> OwnSpectators:
    """Of a routine as it now stands. Numbers that only older versions asked for are told as well, behind the others."""
    asked = {one.name: one for one in questions_of(text)}
    limits = _limits(text, budget)
    lines = {one.name: one.line for one in picks_of(text)}
    noted = {name for one in performances for name in one.chosen}
    words = {name for one in performances for name, choice in one.chosen.items() if isinstance(choice, str)} - set(
        asked
    )
    picked = [*lines, *sorted(words - set(lines))]
    names = [*asked, *sorted(noted - set(asked) - set(picked))]
    records = (_record(name, asked.get(name), limits.get(name), performances) for name in names)
    picks = (_pick(name, lines.get(name), performances) for name in picked)
    return OwnSpectators(
        shown_of(performances), tuple(one for one in records if one.total), tuple(one for one in picks if one.total)
    )


def _pick(name: str, line: int | None, performances: Iterable[Performance]) -> PickRecord:
    counts = Counter(str(one.chosen[name]) for one in performances if name in one.chosen)
    total, seen = sum(counts.values()), sorted(counts.items(), key=lambda one: (-one[1], one[0]))
    often = seen[0][1] if seen else 0
    least, most = wilson(often, total) if seen else (0, 0)
    says = f"{seen[0][0]}: {often} of {total}." if often > 1 else "Nothing came twice."
    return PickRecord(
        name,
        line,
        tuple(ChoiceSeen(*one) for one in seen),
        total,
        float(least),
        float(most),
        says,
    )


def _limits(text: str, budget: Budget) -> dict[str, Limit]:
    try:
        return {one.name: one for one in limits_of(text, budget).limits}
    except (BadRoutine, OutOfBudget):
        return {}


def _record(name: str, asked: Question | None, limit: Limit | None, performances: Iterable[Performance]) -> Record:
    counts = Counter(number for one in performances if isinstance(number := one.chosen.get(name), int))
    total = sum(counts.values())
    low, high = (limit.low, limit.high) if limit else (asked.low, asked.high) if asked else (None, None)
    outside = (
        0 if low is None or high is None else sum(n for number, n in counts.items() if not low <= number <= high)
    )
    least, most = wilson(outside, total) if total else (0, 0)
    numbers = ", ".join(str(number) for number in sorted(counts.elements()))
    return Record(
        name, asked.line if asked else None, low, high, tuple(Seen(number, counts[number]) for number in sorted(counts)), total, outside,
        float(least), float(most), _says(name, total, outside, low, high, asked), f"{name}: as recorded {numbers}",
    )  # fmt: skip


def _says(name: str, total: int, outside: int, low: int | None, high: int | None, asked: Question | None) -> str:
    if asked is None:
        return f"{name} is no longer asked for; {counted(total, 'time')} it was."
    if low is None or high is None:
        return f"{name} was noted {counted(total, 'time')}."
    if not outside:
        return (
            f"All {total} were from {low} to {high}."
            if total > 1
            else f"The one that was noted is from {low} to {high}."
        )
    were = "was" if outside == 1 else "were"
    return (
        f"{outside} of {total} {were} outside {low} to {high}: steer them at line {asked.line}, or narrow the range."
    )


def shown_of(performances: Sequence[Performance]) -> Shown:
    ended = Counter(one.ended for one in performances)
    minutes = [one.minutes for one in performances if one.minutes is not None]
    slips = Counter(one.slip for one in performances if one.slip)
    return Shown(
        len(performances), max((one.played_on for one in performances), default=None), ended["as planned"], ended["another way"],
        ended["failed"], median(minutes) if minutes else None, len(minutes), tuple(SlipSeen(*one) for one in sorted(slips.items(), key=lambda s: (-s[1], s[0]))),
    )  # fmt: skip
