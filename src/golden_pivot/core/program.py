"""A compiled routine: instructions that edit the cells of a state.

A **state** is a flat tuple of cells. Cell 0 holds the failed claims as a bit mask; every other cell is a
place (`bytes`, top card first) or a variable (a number, or None while it has no value or is dead). A
meaning edits a list of cells in place; the explorer copies, edits and freezes it again, so that states stay
immutable and equal states merge.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

State = tuple[Any, ...]
Cells = list[Any]

FAILED = 0
"""index of the cell with the failed claims, one bit a claim"""


@dataclass(frozen=True)
class Cell:
    name: str
    is_place: bool
    told: bool = False
    """a number that the performer learns, now or later"""


@dataclass(frozen=True)
class Instruction:
    """What every instruction knows: where it stands and which cells it depends on."""

    line: int
    """line of the text, from 1"""
    round: tuple[int, ...]
    """which time round, from 1, one number for each loop around the line, outermost first"""
    reads: frozenset[int]
    """cells whose content matters to it"""
    touches: frozenset[int]
    """cells it may change"""


@dataclass(frozen=True)
class Act(Instruction):
    run: Callable[[Cells], None]
    """edits the cells; raises Impossible"""
    handled: Callable[[Sequence[Any]], int]
    """how many cards pass through the hands, for the state before"""


@dataclass(frozen=True)
class Choose(Instruction):
    cell: int
    key: str
    """names this choice within the routine; the same on every path"""
    label: str
    by: str
    secret: bool
    options: Callable[[Sequence[Any]], Sequence[int]]
    """the values it may take in this state, in the order in which counterexamples prefer them"""


@dataclass(frozen=True)
class Check(Instruction):
    claim: int
    """index of the claim, from 0; sets its bit in cell FAILED"""
    text: str
    holds: Callable[[Sequence[Any]], bool]
    """raises Impossible where there is no such card"""
    explain: Callable[[Sequence[Any]], str]
    """why it does not hold in this state, as a clause; needs a program that forgets nothing"""


AnyInstruction = Act | Choose | Check


@dataclass(frozen=True)
class Program:
    cells: tuple[Cell, ...]
    start: State
    instructions: tuple[AnyInstruction, ...]
    kills: tuple[tuple[int, ...], ...]
    """beside each instruction, the cells that are dead after it"""
    tokens: Mapping[str, int]
    """card name → token"""
    target: str | None
    """the card whose landing is asked for"""
    target_line: int | None
    """line that names it"""
    claims: tuple[str, ...]
    covers_every_order: bool
    assumed: tuple[str, ...] = ()

    def choices(self) -> tuple[Choose, ...]:
        return tuple(step for step in self.instructions if isinstance(step, Choose))

    def places(self) -> tuple[tuple[int, str], ...]:
        return tuple((index, cell.name) for index, cell in enumerate(self.cells) if cell.is_place)


def dead_after(
    instructions: Sequence[AnyInstruction], live_at_end: frozenset[int], ever_dead: frozenset[int]
) -> tuple[tuple[int, ...], ...]:
    """For each instruction the cells that nobody reads any more once it has run.

    A cell that an instruction only touches (a heap that cards are dealt onto) is live before it exactly when
    it is live after it. Only cells in `ever_dead` are ever given up.
    """
    live, kills = live_at_end, []
    for step in reversed(instructions):
        before = (live - {step.cell} if isinstance(step, Choose) else live) | step.reads
        kills.append(tuple(sorted(((before | step.touches) - live) & ever_dead)))
        live = before
    return tuple(reversed(kills))
