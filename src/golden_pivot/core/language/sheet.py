"""What the sheet needs to dress each line of a text: who acts, what is secret, where the slots are."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ..faults import Fault
from .routine import Line, Routine
from .templates import SPECTATOR

Knowledge = Literal["secret", "told"]


@dataclass(frozen=True)
class SlotOnSheet:
    name: str
    type: str
    start: int
    """column, from 0"""
    end: int


@dataclass(frozen=True)
class SheetLine:
    number: int
    what: str
    """what the line is: a step, patter, a remark …"""
    step: str | None
    phase: str | None
    spectator: bool
    """the spectator acts"""
    knowledge: Knowledge | None
    """for a line in which the spectator decides or speaks: whether the performer learns it"""
    level: int
    slots: tuple[SlotOnSheet, ...]
    faults: tuple[Fault, ...]


def sheet_lines(routine: Routine) -> tuple[SheetLine, ...]:
    return tuple(map(_sheet_line, routine.walk()))


def _sheet_line(line: Line) -> SheetLine:
    kind = line.kind
    return SheetLine(
        line.number,
        line.is_,
        kind.name if kind else None,
        kind.phase if kind else None,
        kind is not None and kind.actor(line.values) == SPECTATOR,
        _knowledge(line),
        line.level,
        tuple(SlotOnSheet(*span) for span in line.spans),
        tuple(line.faults),
    )


def _knowledge(line: Line) -> Knowledge | None:
    if line.kind is None or line.kind.family != "Choices":
        return None
    return "secret" if line.values.get("secretly") else "told"
