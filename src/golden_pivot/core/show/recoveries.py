"""What to do when a limit is broken: where the card is if a number is just outside the range that was asked for."""

from __future__ import annotations

from collections.abc import Iterator

from ..budget import Budget
from ..expressions import Number
from ..faults import BadRoutine, OutOfBudget
from ..language.parser import read_routine
from ..language.values import NewNumber
from ..variants.edits import Edit, edited, quiet, with_range
from ..verdicts import PROVED, prove


def recoveries_of(text: str, budget: Budget) -> Iterator[str]:
    """A sentence for the number below and the one above each range that is written in figures.

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
                if number < 0:
                    continue
                row = with_range(line, slot, new, (number, number))
                try:
                    found = prove(
                        read_routine(edited(text, Edit(line.number, line.number, (row,)))),
                        quiet(budget),
                        explain=False,
                    )
                except (BadRoutine, OutOfBudget):
                    yield f"If {new.name} is {number}: it cannot be carried out."
                    continue
                if found.verdict == PROVED:
                    yield f"If {new.name} is {number}: it works all the same."
                elif found.landing and len(found.landing.where) <= 3:
                    yield f"If {new.name} is {number}: at the end {found.landing.card} is {found.landing.text}."
