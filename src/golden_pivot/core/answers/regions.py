"""For exactly which choices a claim holds, in the routine's own names."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass

from ..budget import Budget
from ..building import REGION, compile_routine
from ..english import runs_text
from ..faults import OutOfBudget
from ..language.kinds import CHANCE
from ..language.routine import Routine
from ..search.counted import Count
from ..search.explorer import count_of, explore
from ..search.faces import FaceClass, Faces, cards_text
from ..search.program import FAILED, Choose, State
from .shapes import shape_text

MOST_PATHS = 20_000
MOST_STEPS = 300_000
MOST_PARTS = 3
"""parts of a region that is told thoroughly"""

Point = tuple[int | None, ...]
"""what was taken at each choice, in order; None where a path does not come to it"""


@dataclass(frozen=True)
class Region:
    text: str | None
    """`n is 10 to 19 and m is 3`; None when the exact region has no such short form"""
    fails: str | None
    """the same of the choices with which it fails, where only these have a short form"""
    count: Count
    values: Mapping[str, tuple[int, ...]]
    """for each choice that matters, the values with which it can hold; exact together when there is a text"""

    @property
    def passing(self) -> int:
        """paths that hold"""
        return (self.count.paths or 0) - (self.count.failing or 0)

    @property
    def paths(self) -> int:
        return self.count.paths or 0

    @property
    def says(self) -> str:
        """In a sentence: with which choices it holds, and on how many paths."""
        if not self.count.failing:
            return f"It holds, whatever they choose: {self.count.text}."
        on = f"{self.count.text[:1].upper()}{self.count.text[1:]}."
        if not self.passing:
            return on
        when = (
            f"Holds exactly when {self.text}."
            if self.text
            else f"Fails exactly when {self.fails}."
            if self.fails
            else "The choices with which it holds have no short description."
        )
        return f"{when} {on}"


@dataclass(frozen=True)
class Choices:
    """Every path of a routine by what was chosen on it."""

    chooses: tuple[Choose, ...]
    faces: tuple[FaceClass, ...]
    passing: frozenset[Point]
    """with which all claims hold"""
    failing: frozenset[Point]
    count: Count

    @property
    def lines(self) -> tuple[int, ...]:
        return tuple(choose.line for choose in self.chooses)


def choices_of(routine: Routine, budget: Budget) -> Choices | None:
    """None when there are too many paths to list, or no end of them. Raises BadRoutine, Cancelled."""
    program = compile_routine(routine, REGION)
    if program.is_unlimited:
        return None
    try:
        found = explore(program, budget.narrowed(MOST_PATHS, MOST_STEPS))
    except OutOfBudget:
        return None
    chooses = program.choices()

    def point(state: State) -> Point:
        return tuple(state[choose.cell] for choose in chooses)

    ended = (*found.ends, *found.again)
    passing = frozenset(point(state) for state in ended if not state[FAILED])
    failing = frozenset(
        point(state) for state in (*(s for s in ended if s[FAILED]), *(one.state for one in found.stuck))
    )
    return Choices(chooses, program.face_classes, passing, failing, count_of(program, found, exact=True))


def region_of(routine: Routine, budget: Budget, thorough: bool = False) -> Region | None:
    """The region of choices in which every claim holds; None when there are too many paths to list, or no end of them.

    It is stated as a product of one set of values for each choice, or by bounds on numbers, their sums and differences
    (see shapes.py; `thorough` also tries several such parts). Either is checked against every path.
    """
    found = choices_of(routine, budget)
    if found is None:
        return None
    good, bad = found.passing, found.failing
    holds, telling = _product(found, good, bad)
    parts = MOST_PARTS if thorough else 1
    holds = holds or _shape(found, good, bad, parts)
    fails = None
    if holds is None and good:
        fails = _product(found, bad, good)[0] or _shape(found, bad, good, parts)
    values = {key: tuple(sorted(v for v in values if v is not None)) for key, values in telling.items()}
    return Region(holds, fails, found.count, values)


def _product(
    found: Choices, good: frozenset[Point], bad: frozenset[Point]
) -> tuple[str | None, dict[str, set[int | None]]]:
    """(the good points as one set of values for each choice, in words; the choices that matter, with these values)"""
    keys = [choose.key for choose in found.chooses]
    columns = {key: ({p[i] for p in good}, {p[i] for p in good | bad}) for i, key in enumerate(keys)}
    # A choice that holds with every value it can have need not be named.
    telling = {key: some for key, (some, every) in columns.items() if some != every}
    inside = {
        p for p in good | bad if all(v in telling[key] for key, v in zip(keys, p, strict=True) if key in telling)
    }
    if not good or good & bad or inside != good:
        return None, telling
    said = [
        _said(choose, telling[choose.key], columns[choose.key][1], found.faces)
        for choose in found.chooses
        if choose.key in telling
    ]
    return None if None in said else " and ".join(filter(None, said)) or None, telling


def _shape(found: Choices, good: frozenset[Point], bad: frozenset[Point], parts: int) -> str | None:
    numbers = [i for i, choose in enumerate(found.chooses) if choose.plain]
    return shape_text(
        [found.chooses[i].key for i in numbers], [tuple(p[i] for i in numbers) for p in good],
        [tuple(p[i] for i in numbers) for p in bad], parts,
    )  # fmt: skip


def _said(choose: Choose, good: set[int | None], every: set[int | None], classes: Sequence[FaceClass]) -> str | None:
    """`n is 10 to 19`, `their card is a club`; None where it cannot be put in a few words."""
    if choose.plain:
        return f"{choose.key} is {runs_text(v for v in good if v is not None)}"
    if choose.by != CHANCE or not classes:
        return None
    faces = Faces(tuple(classes))

    def cards(options: Collection[int | None]) -> frozenset[str]:
        return frozenset().union(*(faces.names(option) for option in options if option is not None))

    mine, others = cards(good), cards(every - good)
    if mine & others:  # what was asked of it differs from path to path
        return None
    ways = (
        f"is {cards_text(mine)}" if cards_text(mine) else "",
        f"is not {cards_text(others)}" if cards_text(others) else "",
    )
    shortest = min(filter(None, ways), key=len, default=None)
    return shortest and f"{choose.label} {shortest}"
