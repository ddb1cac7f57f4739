"""When it works: the region of choices in which all claims hold, and the routine kept inside it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import groupby

from ..answers.proving import prove
from ..answers.regions import Region, region_of
from ..answers.verdicts import PROVED, WHETHER, Verdict
from ..budget import Budget
from ..building import compile_routine
from ..faults import BadRoutine
from ..language.expressions import Number
from ..language.facets import Facet
from ..language.parser import read_routine
from ..language.routine import Line, Routine
from ..language.values import NewNumber
from .edits import Edit, edited, with_range

SOME_STUCK = "it cannot always be carried out"
MOST_EACH = 60
"""numbers outside a range that are told one by one"""


@dataclass(frozen=True)
class Outside:
    """Numbers outside a range, and what is known all the same."""

    numbers: str
    known: str


@dataclass(frozen=True)
class Limit:
    """A range that must be kept, and what to do about it."""

    line: int
    name: str
    low: int
    high: int
    steer: str
    """patter that leads the spectator inside; the designer may edit it"""
    noticed: int | None
    """the line at which you can tell that it was not kept; None: you never learn the number"""
    outside: tuple[Outside, ...]


@dataclass(frozen=True)
class Limits:
    region: Region | None
    """None where there are too many paths to list, or no end of them"""
    narrowed: str | None
    """the text with its ranges kept inside the region, where that alone makes every claim hold"""
    limits: tuple[Limit, ...] = ()
    says: str = ""
    """in sentences: when it holds, and on how many paths"""


def limits_of(text: str, budget: Budget) -> Limits:
    """Raises BadRoutine for a text with faults, Cancelled."""
    region = region_of(read_routine(text), budget, thorough=True)
    if region is None:
        routine = read_routine(text)
        verdict = prove(routine, budget.quiet(), WHETHER)
        return Limits(None, None, (), _without_region(verdict, compile_routine(routine).is_unlimited))
    if not region.passing or region.passing == region.paths:
        return Limits(region, None, (), region.says)
    narrowed = _narrowed(text, region, budget)
    return Limits(region, narrowed, tuple(_limits(text, region, budget)) if narrowed else (), region.says)


def _without_region(verdict: Verdict, unending: bool) -> str:
    """What can be said where paths are too many to list, or have no number."""
    if verdict.count is None:
        return f"{verdict.headline}."
    if not verdict.count.some_fail:
        return f"It holds, whatever they choose{f': {verdict.count.text}' if verdict.count.text else ''}."
    many = "Paths have no number here" if unending else "There are too many paths to list"
    return f"{verdict.count.failure} {many}, so that the choices with which it holds are not told."


def _limits(text: str, region: Region, budget: Budget) -> Iterator[Limit]:
    routine = read_routine(text)
    for line, slot, new, run in _ranges(routine, region):
        secret = bool(line.values.get("secretly"))
        told = next(
            (other.number for other in routine.having(Facet.TELLS) if new.name in other.values["names"]), None,
        )  # fmt: skip
        steer = f"Any number from {run[0]} to {run[1]}." if run[0] < run[1] else f"Let us take the number {run[0]}."
        yield Limit(
            line.number, new.name, *run, steer, told if secret else line.number,
            tuple(_outside(text, line, slot, new, run, budget)),
        )  # fmt: skip


def _outside(
    text: str, line: Line, slot: str, new: NewNumber, run: tuple[int, int], budget: Budget
) -> Iterator[Outside]:
    """What is known of their card when the number is below or above the range."""
    if not (isinstance(new.low, Number) and isinstance(new.high, Number)):
        return
    for low, high in ((new.low.value, run[0] - 1), (run[1] + 1, new.high.value)):
        if low > high:
            continue
        known = _known(text, line, slot, new, (low, high), budget)
        if known != SOME_STUCK:
            yield Outside(_numbers(low, high), known)
            continue
        # Where it can be carried out with some of the numbers, each is told by itself.
        each = [
            (n, _known(text, line, slot, new, (n, n), budget)) for n in range(low, min(high, low + MOST_EACH) + 1)
        ]
        for words, group in groupby(each, key=lambda one: one[1]):
            told = [n for n, _ in group]
            yield Outside(_numbers(told[0], told[-1]), words)
        if low + MOST_EACH < high:
            yield Outside(_numbers(low + MOST_EACH + 1, high), SOME_STUCK)


def _known(text: str, line: Line, slot: str, new: NewNumber, run: tuple[int, int], budget: Budget) -> str:
    """Where the card is when the number is one of these."""
    row = with_range(line, slot, new, run)
    changed = read_routine(edited(text, Edit(line.number, line.number, (row,))))
    try:
        found = prove(changed, budget.quiet(), replace(WHETHER, some_claim=False))
    except BadRoutine:
        return "it cannot be carried out"
    if found.count and found.count.some_stuck:
        return SOME_STUCK
    if found.count is None or not found.count.counted:
        return "nothing is settled"
    return f"{found.landing.card} is {found.landing.text}" if found.landing else "no card is followed"


def _numbers(low: int, high: int) -> str:
    return str(low) if low == high else f"{low} to {high}"


def _ranges(routine: Routine, region: Region) -> Iterator[tuple[Line, str, NewNumber, tuple[int, int]]]:
    """(line, slot, new number, the part of its range with which it can hold)."""
    for line in routine.walk():
        for slot, type_name, _, _ in line.spans:
            new = line.values[slot]
            values = region.values.get(new.name) if type_name == "range" and isinstance(new, NewNumber) else None
            if values and (run := _run(values)):
                yield line, slot, new, run


def _narrowed(text: str, region: Region, budget: Budget) -> str | None:
    now = text
    for line, slot, new, run in _ranges(read_routine(text), region):
        now = edited(now, Edit(line.number, line.number, (with_range(line, slot, new, run),)))
    try:
        return now if now != text and prove(read_routine(now), budget).verdict == PROVED else None
    except BadRoutine:
        return None


def _run(values: Sequence[int]) -> tuple[int, int] | None:
    whole = list(values) == list(range(values[0], values[-1] + 1))
    return (values[0], values[-1]) if whole else None
