"""Questions about routines next to one: why and when it holds, what breaks it, what works in its blanks."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import asdict
from typing import Annotated

import typer

from ..core.budget import Budget
from ..core.faults import BadRoutine
from ..core.language.parser import read_routine
from ..core.variants.blanks import solve
from ..core.variants.explain import explain
from ..core.variants.fields import NothingToFill, domain_of
from ..core.variants.limits import limits_of
from ..core.variants.report_of_variants import limits_report, slips_report, solution_report
from ..core.variants.slips import fragility_of
from ..core.variants.sweeps import sweep, with_blank
from .asked import AsJson, Cluster, DataFile, Named, Processes, Seconds, answer, refuse, spread, text_of
from .by_hand import SecondOpinion, played_too

app = typer.Typer()

Tries = Annotated[
    list[str] | None, typer.Option("--try", help="What to try for a blank: 2=10..40, or 1=on,under. May be repeated.")
]


@contextmanager
def _bad_input(routine: str) -> Iterator[None]:
    try:
        yield
    except BadRoutine as bad:
        raise refuse("\n".join(f"{routine}: {fault}" for fault in bad.faults)) from None
    except NothingToFill as trouble:
        raise refuse(f"{routine}: {trouble}") from None


@app.command("explain")
def explain_routine(routine: Named, data: DataFile = None, as_json: AsJson = False, seconds: Seconds = 60.0) -> None:
    """Why it works: what each line does with the card, and where it lands as a formula."""
    with _bad_input(routine):
        found = explain(read_routine(text_of(routine, data)), Budget(seconds=seconds))
    rows = [f"{said.line:3}  {said.words}" for said in found.said]
    rows += [f"After line {kept.line} {kept.words}." for kept in found.kept]
    rows += [f"Each time round a card goes from x to {one.formula}." for one in found.each_time]
    rows += [f"{f'If {case.when}, it' if case.when else 'It'} lands {case.text}." for case in found.cases]
    answer(asdict(found), as_json, rows or ["No card is followed."])


@app.command("holds")
def holds_when(
    routine: Named, data: DataFile = None, as_json: AsJson = False, seconds: Seconds = 60.0, second_opinion: SecondOpinion = "",
) -> None:  # fmt: skip
    """For exactly which choices every claim holds."""
    text = text_of(routine, data)
    with _bad_input(routine):
        found = limits_of(text, Budget(seconds=seconds))
    report = asdict(limits_report(found))
    opinion = played_too(text, {"limits": report}, second_opinion) if found.region else None
    rows = [found.says]
    for limit in found.limits:
        rows.append(f"Line {limit.line}: say “{limit.steer}”")
        told = f"You can tell at line {limit.noticed}" if limit.noticed else "You never learn it"
        rows += [f"{told} if it was {one.numbers}: then {one.known}." for one in limit.outside]
    if found.narrowed:
        rows += ["Proved, if it is written so:", found.narrowed.rstrip()]
    if opinion:
        report, rows = report | {"second_opinion": opinion}, [*rows, opinion["says"]]
    answer(report, as_json, rows)


@app.command("slips")
def slips_of_routine(
    routine: Named, data: DataFile = None, as_json: AsJson = False, seconds: Seconds = 120.0,
    cluster: Cluster = None, workers: Processes = None,
) -> None:  # fmt: skip
    """What breaks it: every plausible slip of handling, the worst first."""
    text = text_of(routine, data)
    with _bad_input(routine), spread(seconds, cluster, workers) as budget:
        found = fragility_of(text, budget)
    rows = [f"{o.kind:12} line {o.slip.line:3}  {o.slip.what:34} {o.says}" for o in found.outcomes]
    rows += [f"Line {one.line}: {one.words}." for one in found.advice]
    if found.untried:
        rows.append(f"{found.untried} more slips were not tried: the time was up.")
    answer(asdict(slips_report(found, text)), as_json, rows or ["No slip is known for any of its lines."])


@app.command("solve")
def solve_blanks(
    routine: Named, data: DataFile = None, as_json: AsJson = False, tries: Tries = None, seconds: Seconds = 60.0,
    cluster: Cluster = None, workers: Processes = None,
) -> None:  # fmt: skip
    """Fill the blanks: every way with which all claims hold."""
    text = text_of(routine, data)
    with _bad_input(routine), spread(seconds, cluster, workers) as budget:
        found = solve(text, budget, _domains(tries))
    rows = [f"{', '.join(values)}" for values in found.answers]
    rows.append(found.says)
    if found.relation:
        rows.append(f"In all of them {found.relation}.")
    answer(asdict(solution_report(found, text)), as_json, rows)
    raise typer.Exit(0 if found.answers else 3 if not found.complete else 1)


@app.command("sweep")
def sweep_number(
    routine: Named, data: DataFile = None, as_json: AsJson = False, tries: Tries = None, seconds: Seconds = 60.0,
    cluster: Cluster = None, workers: Processes = None,
    line: Annotated[int | None, typer.Option(help="The line whose number varies; else the text has blanks.")] = None,
    nth: Annotated[int, typer.Option(help="Which number of that line, from 1.")] = 1,
) -> None:  # fmt: skip
    """The verdict for every number that might stand at one place, or at two."""
    text = text_of(routine, data)
    with _bad_input(routine), spread(seconds, cluster, workers) as budget:
        found = sweep(with_blank(text, line, nth) if line else text, budget, _domains(tries))
    rows = [
        f"{', '.join(row.values):>10}  {row.verdict:10} {row.landing if row.share == 0 and row.landing else row.says}"
        for row in found.rows
    ]
    if found.formula:
        rows.append(f"The card is at {found.formula}.")
    answer(asdict(found), as_json, rows)


def _domains(tries: list[str] | None) -> dict[int, list[str]]:
    """`2=10..40` and `1=on,under` as lists by the number of the blank."""
    found: dict[int, list[str]] = {}
    for one in tries or []:
        number, _, values = one.partition("=")
        tried = domain_of(values)
        if not number.isdigit() or not tried or (".." in values and len(tried) == 1):
            raise refuse(f"“{one}” does not say what to try. Write 2=10..40, or 1=on,under.")
        found[int(number)] = tried
    return found
