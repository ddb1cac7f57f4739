"""For exactly which choices a claim holds, in the routine's own names."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from .budget import Budget
from .building import REGION, compile_routine
from .building.choices import CHANCE
from .explorer import explore
from .faults import OutOfBudget
from .language.phrases import list_text
from .program import FAILED, Choose, State
from .routine import Routine
from .shapes import runs_text, shape_text

MOST_PATHS = 20_000
MOST_STEPS = 300_000
MOST_PARTS = 3
"""parts of a region that is told thoroughly"""


@dataclass(frozen=True)
class Region:
    text: str | None
    """`n is 10 to 19 and m is 3`; None when the exact region has no such short form"""
    passing: int
    """paths that hold"""
    paths: int
    values: Mapping[str, tuple[int, ...]]
    """for each choice that matters, the values with which it can hold; exact together when there is a text"""


def region_of(routine: Routine, budget: Budget, thorough: bool = False) -> Region | None:
    """The region of choices in which every claim holds; None when there are too many paths to list, or no end of them.

    It is stated as a product of one set of values for each choice, or by bounds on numbers, their sums and differences
    (see shapes.py; `thorough` also tries several such parts). Either is checked against every path.
    """
    program = compile_routine(routine, REGION)
    if program.is_unlimited:
        return None
    try:
        found = explore(program, budget.narrowed(MOST_PATHS, MOST_STEPS))
    except OutOfBudget:
        return None
    choices = [(choose.key, choose.cell, choose) for choose in program.choices()]

    def point(state: State) -> tuple[int | None, ...]:
        return tuple(state[cell] for _, cell, _ in choices)

    passing = {point(state) for state in found.ends if not state[FAILED]}
    failing = {point(state) for state in found.ends if state[FAILED]} | {point(stuck.state) for stuck in found.stuck}
    columns = {
        key: ({p[i] for p in passing}, {p[i] for p in passing | failing}) for i, (key, _, _) in enumerate(choices)
    }
    # A choice that holds with every value it can have need not be named.
    telling = {key: good for key, (good, every) in columns.items() if good != every}
    exact = bool(passing) and _is_product(passing, passing | failing, [key for key, _, _ in choices], telling)
    said = [
        _said(choose, telling[key], columns[key][1], program.start)
        for key, _, choose in choices if key in telling
    ]  # fmt: skip
    exact = exact and None not in said
    text: str | None = " and ".join(filter(None, said)) if exact else None
    if text is None and passing:
        numbers = [i for i, (key, _, choose) in enumerate(choices) if choose.plain]
        text = shape_text(
            [choices[i][0] for i in numbers], [tuple(p[i] for i in numbers) for p in passing],
            [tuple(p[i] for i in numbers) for p in failing], MOST_PARTS if thorough else 1,
        )  # fmt: skip
    return Region(
        text=text,
        passing=len(passing),
        paths=len(passing) + len(failing),
        values={key: tuple(sorted(v for v in good if v is not None)) for key, good in telling.items()},
    )


MOST_NAMED = 12
"""options in words that are listed at most"""


def _said(choose: Choose, good: set[int | None], every: set[int | None], start: State) -> str | None:
    """`n is 10 to 19`, `their card is a club or a heart`; None where it cannot be put in a few words."""
    if choose.plain:
        return f"{choose.key} is {runs_text(v for v in good if v is not None)}"
    if choose.by != CHANCE:
        return None
    bad = every - good
    options = sorted(v for v in (good if len(good) <= len(bad) else bad) if v is not None)
    if not options or len(options) > MOST_NAMED:
        return None
    words = list_text([choose.say(start, option) for option in options], "or")
    return f"{choose.label} is {words}" if len(good) <= len(bad) else f"{choose.label} is not {words}"


def _is_product(
    passing: set[tuple[int | None, ...]],
    every: set[tuple[int | None, ...]],
    keys: Sequence[str],
    telling: Mapping[str, set[int | None]],
) -> bool:
    """Whether a path holds exactly when each choice named in `telling` has one of its values."""
    inside = {
        p for p in every if all(value in telling[key] for key, value in zip(keys, p, strict=True) if key in telling)
    }
    return inside == passing
