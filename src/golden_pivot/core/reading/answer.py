"""What a line of notes is read as, and whether a routine may have that there."""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import lru_cache

from ..building import PROOF, compile_what_can_be
from ..language.kinds import HANDLING, SETUP
from ..language.parser import lines_of, read_routine
from ..language.printer import line_text
from ..language.routine import STEP, UNREAD, Line

_NOT_YET = ("No card is followed.", "There is no pack.")
"""what a routine that is being written may still lack"""


@dataclass(frozen=True)
class Reading:
    lines: tuple[str, ...]
    """sentences of the language; those of a block keep their margin"""
    taken: tuple[str, ...] = ()
    """what was taken for granted, in words of the language"""
    does: str = ""
    """what it does to the order of the cards, where readings differ in that"""


@dataclass(frozen=True)
class Answer:
    readings: tuple[Reading, ...] = ()
    asks: bool = False
    """which of the readings is meant is a question"""
    cannot: str = ""
    """what is missing in the language, where no sentence says it"""

    @property
    def is_sure(self) -> bool:
        return bool(self.readings) and not self.asks


NOTHING = Answer()


@lru_cache(4096)
def checked(before: str, lines: tuple[str, ...], margin: str) -> tuple[str, ...] | None:
    """The lines as the language writes them, where they can stand there; None where they cannot."""
    rows = [margin + line for line in lines]
    tail = []
    if rows[-1].rstrip().endswith(":"):
        pad = " " * (len(rows[-1]) - len(rows[-1].lstrip()) + 2)
        out = re.match(r"\s*Until (.+) runs out:", rows[-1])
        tail = [pad + (f"Deal 1 card from {out[1]} to bodyheap" if out else "Turn deck over")]
    above = lines_of(before) if before else []
    routine = read_routine("\n".join([*above, *rows, *tail]) + "\n")
    first = len(above) + 1
    mine = [line for line in routine.walk() if first <= line.number < first + len(rows)]
    if any(line.is_ == UNREAD for line in mine) or any(fault.line >= first for fault in routine.faults):
        return None
    begun = any(line.kind and line.kind.phase == HANDLING for line in routine.walk() if line.number < first)
    if begun and any(line.kind and line.kind.phase == SETUP for line in mine):
        return None  # also where a line above is not understood, so that nothing can be compiled
    if not routine.faults:
        faults = compile_what_can_be(routine, PROOF)[1]
        if any(fault.line >= first and fault.message not in _NOT_YET and not fault.is_limit for fault in faults):
            return None
    return tuple(
        line.text[: len(line.text) - len(line.text.lstrip())].removeprefix(margin) + _written(line) for line in mine
    )


def _written(line: Line) -> str:
    return line_text(line).strip() if line.is_ == STEP else line.text.strip()
