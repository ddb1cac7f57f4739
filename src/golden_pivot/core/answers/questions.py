"""What spectators decide in a routine, so that it can be asked for afterwards."""

from __future__ import annotations

import random
from collections.abc import Iterator
from dataclasses import dataclass

from ..building import REPLAY, compile_what_can_be
from ..language.expressions import Number
from ..language.kinds import CHANCE
from ..language.parser import read_routine
from ..language.routine import Line
from ..language.templates import SPECTATOR
from ..language.values import NewNumber
from ..search.faces import PACK
from ..search.program import Choose, Program
from ..search.replay import draw_path


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


@dataclass(frozen=True)
class Pick:
    """Something that is no number and that is seen in the end: piles that are pointed to, an order, a card."""

    name: str
    line: int
    says: str
    """the line, as it stands"""
    options: tuple[str, ...]
    """in words, as far as they come up on the paths that are looked at; of a card all of a pack"""


PATHS_LOOKED_AT = 40


def picks_of(text: str) -> tuple[Pick, ...]:
    """What spectators choose beside numbers, in the order of the lines; what stays a secret cannot be noted."""
    routine = read_routine(text)
    program, _ = compile_what_can_be(routine, REPLAY)
    lines = {line.number: line for line in routine.walk()}
    cards = {cell.name for cell in program.cells if cell.is_card}
    asked = {one.label: one for one in program.choices() if _is_seen(one, cards) and one.line in lines}
    options = _words(program, {label for label in asked if label not in cards})
    return tuple(
        Pick(label, one.line, lines[one.line].text.strip(), tuple(PACK if label in cards else options[label]))
        for label, one in asked.items()
        if label in cards or options[label]
    )


def _is_seen(choose: Choose, cards: set[str]) -> bool:
    return choose.by == SPECTATOR and not choose.plain and (not choose.secret or choose.label in cards)


def _words(program: Program, labels: set[str]) -> dict[str, dict[str, None]]:
    """Every option in words that comes up for each, in order."""
    found: dict[str, dict[str, None]] = {label: {} for label in labels}
    for seed in range(PATHS_LOOKED_AT if labels else 0):
        for one in draw_path(program, random.Random(seed)).decisions:
            if one.label in found:
                found[one.label] |= dict.fromkeys(one.words)
    return found


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
