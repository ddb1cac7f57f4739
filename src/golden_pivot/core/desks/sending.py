"""Putting a desk's result into a routine: each line where lines of its phase stand."""

from __future__ import annotations

from ..language.facets import Facet
from ..language.kinds import ENDING, PAGE, SETUP
from ..language.parser import lines_of, read_routine
from ..language.routine import Line
from .desk import Send


def sent(text: str, send: Send) -> str:
    """The text with the lines of a result in it: on the pack, after what is placed, before the endings, at the end.

    A pack that is there stays, and so does an ending of the routine, since nobody asked to lose them.
    """
    routine = read_routine(text)
    rows = lines_of(text)
    while rows and not rows[-1].strip():
        rows.pop()
    has_pack = bool(routine.having(Facet.PACK))
    setup = [row for row in send.setup if not (has_pack and row.startswith("Pack:"))]
    phases = (PAGE, SETUP)
    before = max((line.number for line in routine.lines if line.kind and line.kind.phase in phases), default=0)
    ends = [line.number - 1 for line in routine.lines if _ends(line)]
    after = max(before, min(ends, default=len(rows)))
    body = [*rows[:before], *setup, *rows[before:after], *send.handling, *rows[after:]]
    return "\n".join([*body, *(() if ends else send.ending)]) + "\n"


def _ends(line: Line) -> bool:
    """It is an ending, or there is one in its block."""
    return bool(line.kind and line.kind.phase == ENDING) or any(map(_ends, line.body))
