"""The choices of a path as one takes them in hand: where a line has many, such as a shuffle, they are one thing."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..language.facets import Facet
from ..language.routine import Routine
from ..search.replay import Decision

MANY = 4
"""choices in one line, from which on they are taken together"""


@dataclass(frozen=True)
class ChoicesOfLine:
    line: int
    text: str
    """the line, as it is written"""
    keys: tuple[str, ...]
    """of its choices, in order"""
    together: bool
    """they are many, and one thing to whoever looks on"""
    stands: str
    """how they stand, in a word or two: `shuffled`, `each the first`, `3 of 12 otherwise`"""


def in_hand(routine: Routine, decisions: Sequence[Decision]) -> tuple[ChoicesOfLine, ...]:
    """By line, in the order in which the first of each is made."""
    by_line: dict[int, list[Decision]] = {}
    for decision in decisions:
        by_line.setdefault(decision.line, []).append(decision)
    lines = {line.number: line for line in routine.walk()}
    return tuple(
        ChoicesOfLine(
            number, lines[number].text.strip().rstrip(":"), tuple(one.key for one in made), len(made) >= MANY,
            _stands(made, lines[number].has(Facet.SHUFFLES)),
        )
        for number, made in by_line.items()
    )  # fmt: skip


def clauses(routine: Routine, decisions: Sequence[Decision]) -> tuple[str, ...]:
    """What was decided, for a sentence: `n is 20`; the many choices of a mix are one clause."""
    mixes = {line.number for line in routine.having(Facet.SHUFFLES)}
    many = {line.line for line in in_hand(routine, decisions) if line.together and line.line in mixes}
    told = (
        f"the mix in line {one.line} comes out a certain way" if one.line in many else one.clause for one in decisions
    )
    return tuple(dict.fromkeys(filter(None, told)))


def _stands(made: Sequence[Decision], shuffles: bool) -> str:
    otherwise = sum(one.value != one.options[0] for one in made)
    if not otherwise:
        return "each the first"
    return "shuffled" if shuffles else f"{otherwise} of {len(made)} otherwise"
