"""How long the show takes, as multiples of the proof of the routine: sheets, PDF, costs, other schools."""

from __future__ import annotations

import time
from collections.abc import Callable

from golden_pivot import demo
from golden_pivot.core.analysis import Analysis
from golden_pivot.core.answers.proving import prove
from golden_pivot.core.budget import Budget
from golden_pivot.core.faults import BadRoutine
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.show.costs import costs_of
from golden_pivot.core.show.schools import schools_of
from golden_pivot.sheets.pdf import pdf_of
from golden_pivot.sheets.sheets import SHEETS, shown


def _seconds(work: Callable[[], object]) -> float:
    begun = time.perf_counter()
    work()
    return time.perf_counter() - begun


def print_show() -> None:
    print("\nshow: routine, proof; cue sheet, its PDF, reset, costs, schools as multiples of the proof")
    for name in demo.demo_names():
        text = demo.demo_text(name)
        try:
            proof = min(_seconds(lambda text=text: prove(read_routine(text))) for _ in range(3))  # type: ignore[misc]
        except BadRoutine:
            continue
        it = shown(text, Budget())
        cues = SHEETS["cues"](it)
        works = (
            lambda it=it: SHEETS["cues"](it),
            lambda cues=cues: pdf_of(cues),
            lambda it=it: SHEETS["reset"](it),
            lambda text=text: costs_of(Analysis(text)),
            lambda text=text: schools_of(text, Budget()),
        )
        times = [_seconds(work) for work in works]  # type: ignore[arg-type]
        told = "  ".join(f"{seconds:5.2f} s ×{seconds / proof:4.0f}" for seconds in times)
        print(f"  {name:16} {proof * 1000:6.1f} ms  {told}")
