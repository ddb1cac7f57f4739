"""A path that was played, as the table shows it: what lies where after each line, and what was decided.

Cards are numbers from 1, with 128 added when they lie face up; `names` has those that have one.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from ..faults import Fault
from ..language.patter import spoken, with_numbers
from ..language.routine import PATTER, Routine
from ..layouts import Layout
from ..search.program import Program, State
from ..search.replay import Decision, Frame, Play
from .in_hand import ChoicesOfLine, in_hand
from .report import PositionReport, position_report


@dataclass(frozen=True)
class HeapOnTable:
    name: str
    lies: str
    """how its cards lie, such as *in a row*"""
    spots: tuple[tuple[int, int], ...]
    """of each card: how many lie to its left, how many rows above it; none for a heap"""
    cards: tuple[int, ...]
    """top first; 128 is added to a card that lies face up"""


@dataclass(frozen=True)
class TableMoment:
    """The table when a line is done."""

    line: int
    round: tuple[int, ...]
    done: str
    """the line as it is written; nothing before the first"""
    said: tuple[str, ...]
    """the patter directly below it, with the numbers that were named filled in"""
    names: Mapping[str, str]
    """card number → what the card is called by now"""
    at: PositionReport | None
    """where the card is that the routine is about"""
    places: tuple[HeapOnTable, ...]
    numbers: Mapping[str, int]


@dataclass(frozen=True)
class PlayOnTable:
    target: str | None
    odd: tuple[int, ...]
    """cards with another back"""
    frames: tuple[TableMoment, ...]
    decisions: tuple[Decision, ...]
    in_hand: tuple[ChoicesOfLine, ...]
    """the same by line"""
    failures: tuple[str, ...]
    stuck_at: int | None
    faults: tuple[Fault, ...]


def on_table(routine: Routine, played: Play) -> PlayOnTable:
    program = played.program
    numbered = {choose.cell for choose in program.choices() if choose.plain} | {
        index for index, cell in enumerate(program.cells) if cell.told
    }
    written = _Written(routine)
    return PlayOnTable(
        program.target,
        tuple(sorted(program.odd_backs)),
        tuple(_moment(program, frame, numbered, written) for frame in _one_a_line(played.frames)),
        played.decisions,
        in_hand(routine, played.decisions),
        played.failures,
        played.stuck_at,
        played.faults,
    )


def _one_a_line(frames: Sequence[Frame]) -> Iterator[Frame]:
    """A line may take several instructions; the table shows it once, when it is done."""
    for frame, following in zip(frames, (*frames[1:], None), strict=True):
        if following is None or (following.line, following.round) != (frame.line, frame.round):
            yield frame


class _Written:
    """The lines of a text by number: as they are written, and the patter below."""

    def __init__(self, routine: Routine) -> None:
        self._lines = {line.number: line.text.strip() for line in routine.walk()}
        self._below = routine.below()

    def done(self, line: int) -> str:
        return self._lines.get(line, "")

    def said(self, line: int, numbers: Mapping[str, int]) -> tuple[str, ...]:
        below = self._below.get(line, ())
        return tuple(with_numbers(spoken(one), numbers) for one in below if one.is_ == PATTER)


def _moment(program: Program, frame: Frame, numbered: set[int], written: _Written) -> TableMoment:
    """`numbered`: the cells that hold a number worth showing."""
    state = frame.state
    numbers = {
        cell.name: state[index]
        for index, cell in enumerate(program.cells)
        if index in numbered and state[index] is not None
    }
    heaps = tuple(_heap(name, program.cells[index].layout, state[index]) for index, name in program.places())
    at = position_report(program.where_is(state, program.target))
    done, said = written.done(frame.line), written.said(frame.line, numbers)
    return TableMoment(frame.line, frame.round, done, said, _names(program, state), at, heaps, numbers)


def _names(program: Program, state: State) -> dict[str, str]:
    """Token → what the card is called by now: a card may have a name of its own and be their card as well."""
    found: dict[int, list[str]] = {}
    for name in (*program.tokens, *program.card_cells):
        token = program.token_of(state, name)
        if token is not None:
            found.setdefault(token, []).append(name)
    return {str(token): " = ".join(names) for token, names in found.items()}


def _heap(name: str, layout: Layout, cards: bytes) -> HeapOnTable:
    return HeapOnTable(name, layout.lies, () if layout.is_heap else layout.spots(len(cards)), tuple(cards))
