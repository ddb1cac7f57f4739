"""When it works: the region of choices in which all claims hold, and the routine kept inside it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..budget import Budget
from ..expressions import Number
from ..faults import BadRoutine
from ..language.parser import read_routine
from ..language.slots import SLOT_TYPES
from ..language.values import NewNumber
from ..regions import Region, region_of
from ..routine import Line
from ..verdicts import PROVED, prove
from .edits import Edit, edited, with_slots


@dataclass(frozen=True)
class Limits:
    region: Region | None
    """None where there are too many paths to list, or no end of them"""
    narrowed: str | None
    """the text with its ranges kept inside the region, where that alone makes every claim hold"""


def limits_of(text: str, budget: Budget) -> Limits:
    """Raises BadRoutine for a text with faults, Cancelled."""
    region = region_of(read_routine(text), budget, thorough=True)
    if region is None or not region.passing or region.passing == region.paths:
        return Limits(region, None)
    return Limits(region, _narrowed(text, region, budget))


def _narrowed(text: str, region: Region, budget: Budget) -> str | None:
    now = text
    for line in read_routine(text).walk():
        for slot, type_name, _, _ in line.spans:
            new = line.values[slot]
            values = region.values.get(new.name) if type_name == "range" and isinstance(new, NewNumber) else None
            if values and (run := _run(values)):
                now = edited(now, Edit(line.number, line.number, (_with_range(line, slot, new, run),)))
    try:
        return now if now != text and prove(read_routine(now), budget).verdict == PROVED else None
    except BadRoutine:
        return None


def _run(values: Sequence[int]) -> tuple[int, int] | None:
    whole = list(values) == list(range(values[0], values[-1] + 1))
    return (values[0], values[-1]) if whole else None


def _with_range(line: Line, slot: str, new: NewNumber, run: tuple[int, int]) -> str:
    narrower = NewNumber(new.name, Number(run[0]), Number(run[1]))
    return with_slots(line, [(slot, SLOT_TYPES["range"].write(narrower))])
