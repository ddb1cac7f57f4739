"""In which order lines are written: what comes first, and what follows on what."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass, field

from .routine import Routine

BEGINNING = ""
"""what stands above the first line"""


@dataclass(frozen=True)
class Habits:
    followed: Counter[tuple[str, str]] = field(default_factory=Counter)
    """(kind of a line by its example, or BEGINNING; kind of the next) → how often"""
    written: Counter[str] = field(default_factory=Counter)

    def rank(self, before: str, kind: str) -> tuple[int, int]:
        """The smaller, the likelier a line of this kind is behind one of that."""
        return -self.followed[before, kind], -self.written[kind]


def habits_of(routines: Iterable[Routine]) -> Habits:
    """Lines of a block follow on the line that opens it; the first line behind a block follows on its last."""
    found = Habits()
    for routine in routines:
        before = BEGINNING
        for line in routine.walk():
            if line.kind:
                found.followed[before, line.kind.example] += 1
                found.written[line.kind.example] += 1
                before = line.kind.example
    return found


def kind_before(routine: Routine, line: int) -> str:
    """The kind of the last sentence above a line (from 1), by its example."""
    above = [one.kind.example for one in routine.walk() if one.kind and one.number < line]
    return above[-1] if above else BEGINNING
