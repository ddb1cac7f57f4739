"""Programme and practice on the command line: the pack between two routines, and what must be known of one."""

from __future__ import annotations

from dataclasses import asdict

import typer

from ..core.analysis import Analysis
from ..core.budget import Budget
from ..core.faults import BadRoutine, OutOfBudget
from ..core.language.parser import read_routine
from ..core.practice.drills import drills_of
from ..core.programme.pack_between import pack_between
from .asked import AsJson, DataFile, Named, Seconds, answer, refuse, text_of

app = typer.Typer()


@app.command("between")
def between(
    first: Named, second: Named, data: DataFile = None, as_json: AsJson = False, seconds: Seconds = 60.0
) -> None:
    """How one pack lies after the first routine, and what the second needs done with it."""
    one, other = (read_routine(text_of(name, data)) for name in (first, second))
    try:
        found = pack_between(one, other, Budget(seconds=seconds))
    except BadRoutine as bad:
        raise refuse("\n".join(map(str, bad.faults))) from None
    answer(asdict(found), as_json, [found.says])


@app.command("drills")
def drills(routine: Named, data: DataFile = None, as_json: AsJson = False, seconds: Seconds = 60.0) -> None:
    """Every question that a routine asks of its performer, with the answer."""
    try:
        found = drills_of(Analysis(text_of(routine, data), Budget(seconds=seconds)))
    except BadRoutine as bad:
        raise refuse("\n".join(f"{routine}: {fault}" for fault in bad.faults)) from None
    except OutOfBudget as out:
        raise refuse(f"Not finished: {out}. Allow more --seconds.") from None
    rows = [f"{one.known}: {one.asks} {one.answer}" for drill in found for one in drill.questions]
    answer([asdict(one) for one in found], as_json, rows or ["Nothing in it needs to be known by heart."])
