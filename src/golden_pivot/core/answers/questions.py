"""What spectators decide in a routine, so that it can be asked for afterwards."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ..building import REPLAY, compile_what_can_be
from ..language.expressions import Number
from ..language.kinds import CHANCE
from ..language.parser import read_routine
from ..language.routine import Line
from ..language.values import NewNumber


@dataclass(frozen=True)
class Question:
    """A number that someone chooses."""

    name: str
    line: int
    says: str
    """the line, as it stands"""
    low: int | None
    high: int | None
    """of the range, where it is written in figures"""


def questions_of(text: str) -> tuple[Question, ...]:
    """In the order of the lines; those above the first fault of a text that has one."""
    routine = read_routine(text)
    program, _ = compile_what_can_be(routine, REPLAY)
    lines = {line.number: line for line in routine.walk()}
    found: dict[str, Question] = {}
    for choose in program.choices():
        if choose.plain and choose.by != CHANCE and choose.label not in found and choose.line in lines:
            line = lines[choose.line]
            low, high = next(_ranges(line, choose.label), (None, None))
            found[choose.label] = Question(choose.label, choose.line, line.text.strip(), low, high)
    return tuple(found.values())


def _ranges(line: Line, name: str) -> Iterator[tuple[int, int]]:
    for slot, _, _, _ in line.spans:
        new = line.values.get(slot)
        if (
            isinstance(new, NewNumber)
            and new.name == name
            and isinstance(new.low, Number)
            and isinstance(new.high, Number)
        ):
            yield new.low.value, new.high.value
