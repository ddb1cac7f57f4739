"""What to do when it goes another way: outside a limit, or after a slip that leaves the card at a known place."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace

from ..analysis import Analysis
from ..answers.landings import Landing
from ..answers.proving import prove
from ..answers.verdicts import PROVED, WHETHER
from ..budget import Budget
from ..english import ordinal
from ..faults import BadRoutine, OutOfBudget
from ..language.expressions import Number
from ..language.kinds import HANDLING
from ..language.parser import read_routine
from ..language.routine import Routine
from ..language.spoken import spoken_place
from ..language.values import NewNumber
from ..variants.edits import Edit, edited, with_range
from ..variants.slips import ALL, ELSEWHERE, SOME, Fragility, Outcome, fragility_of
from .requests import asks_spectator

MOST_PLACES = 3
"""the card can be in, for there to be something to say about it"""
MOST_SLIPS = 10
ROOM = 400_000
"""transitions for all slips together: a sheet is waited for"""


@dataclass(frozen=True)
class Recovery:
    line: int
    when: str
    """what went another way: `n is 29`, `one card fewer`"""
    then: str
    """where the card then is, or that nothing is amiss"""
    says: str
    """how to come to it all the same; empty where nothing need be said"""


def outside_limits(text: str, budget: Budget) -> Iterator[Recovery]:
    """For the number below and the one above each range that is written in figures.

    Everything else in the routine stays open; nothing is said where the card could then be in more than three places.
    """
    for line in read_routine(text).walk():
        for slot, type_name, _, _ in line.spans:
            new = line.values[slot]
            if type_name != "range" or not isinstance(new, NewNumber):
                continue
            if not (isinstance(new.low, Number) and isinstance(new.high, Number)):
                continue
            for number in (new.low.value - 1, new.high.value + 1):
                if number >= 0:
                    row = with_range(line, slot, new, (number, number))
                    changed = edited(text, Edit(line.number, line.number, (row,)))
                    yield from _come_to(changed, line.number, f"{new.name} is {number}", budget)


def after_slips(text: str, found: Fragility, budget: Budget) -> Iterator[Recovery]:
    """For slips in handling after which the card is at one known place."""
    handled = {line.number for line in read_routine(text).walk() if line.kind and line.kind.phase == HANDLING}
    told = [one.slip for one in found.outcomes if one.kind == ELSEWHERE and one.slip.line in handled]
    for slip in sorted(told, key=lambda slip: slip.line)[:MOST_SLIPS]:
        yield from _come_to(edited(text, slip.edit), slip.line, slip.what, budget)


def _come_to(text: str, line: int, when: str, budget: Budget) -> Iterator[Recovery]:
    try:
        found = prove(read_routine(text), budget.quiet(), replace(WHETHER, some_claim=False))
    except (BadRoutine, OutOfBudget):
        yield Recovery(line, when, "it cannot be carried out", "")
        return
    if found.count and found.count.some_stuck:
        yield Recovery(line, when, "it cannot always be carried out", "")
    elif found.verdict == PROVED and not (found.count and found.count.some_miss):
        yield Recovery(line, when, "it works all the same", "")
    elif found.landing and len(found.landing.where) <= MOST_PLACES:
        then = f"{found.landing.card} is {found.landing.text}"
        yield Recovery(line, when, then, _said(found.landing))


def _said(landing: Landing) -> str:
    if len(landing.where) != 1:
        return ""
    (where,) = landing.where
    if where.place == "dealt" and where.layout.is_heap and where.position == 1:
        return "Turn over the last card dealt."
    if where.place == "dealt" and where.layout.is_heap:
        return f"Turn over the {ordinal(where.position)} of {spoken_place(where.place)}."
    return f"Turn over the {where.layout.spoken(where.position)} of {spoken_place(where.place)}."


def slips_for_a_sheet(it: Analysis) -> Fragility:
    """What slips come to, as far as there is room for it. Raises BadRoutine."""
    return fragility_of(it.text, it.budget, lambda words, _: it.budget.progress(words), ROOM, it.verdict)


def _spoils(outcome: Outcome, line: int) -> bool:
    """A slip in the line itself, not in what went before it."""
    edit = outcome.slip.edit
    return outcome.slip.line == line and outcome.kind in (ALL, SOME) and edit.last >= edit.first


def cautions_of(routine: Routine, found: Fragility) -> Mapping[int, tuple[str, ...]]:
    """Line → what may be left to the spectator there, and the worst slip of a line that the spectator carries out."""
    cautions: dict[int, list[str]] = {}
    for one in found.advice:
        cautions.setdefault(one.line, []).append(one.words)
    for line in routine.walk():
        if asks_spectator(line):
            worst = next((one for one in found.outcomes if _spoils(one, line.number)), None)
            if worst and line.kind and line.kind.is_handled:
                cautions.setdefault(line.number, []).append(f"it must be right: {worst.slip.what} spoils it")
    return {number: tuple(words) for number, words in cautions.items()}
