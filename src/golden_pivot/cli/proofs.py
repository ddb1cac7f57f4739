"""Proofs: the verdict of a routine, why and when it holds, what breaks it, what works in its blanks."""

from __future__ import annotations

import json
from dataclasses import asdict
from typing import TYPE_CHECKING, Annotated

import typer

from ..core.answers.proving import prove
from ..core.answers.report import verdict_report
from ..core.answers.verdicts import Verdict
from ..core.budget import Budget
from ..core.english import counted
from ..core.faults import BadRoutine
from ..core.language.parser import read_routine
from .asked import AsJson, DataFile, Named, refuse, text_of
from .by_hand import SecondOpinion, played_too

if TYPE_CHECKING:
    from ..core.reading import Answer

app = typer.Typer()

EXIT_CODES = {"proved": 0, "fixed": 0, "rule": 0, "refuted": 1, "one-of": 1, "lost": 1, "unsettled": 3}
AS_FAR_AS_READ = 4
"""whatever the verdict is: sentences of the notes were not read, so that it is none of what they say"""


@app.command("prove")
def prove_routine(
    routine: Named,
    data: DataFile = None,
    as_json: AsJson = False,
    states: Annotated[int, typer.Option(help="Budget: different situations at one line.", min=1)] = 1_000_000,
    seconds: Annotated[float, typer.Option(help="Budget: seconds.", min=0.001)] = 60.0,
    read: Annotated[
        bool, typer.Option("--read", help="Read it as notes first, and tell what was understood.")
    ] = False,
    second_opinion: SecondOpinion = "",
) -> None:
    """Prove a routine for every choice the spectator has."""
    text = text_of(routine, data)
    unread: tuple[str, ...] = ()
    if read:
        from .notes import understood

        text, unread = understood(text)
    try:
        verdict = prove(read_routine(text), Budget(states=states, seconds=seconds))
    except BadRoutine as bad:
        if as_json:
            typer.echo(json.dumps({"verdict": None, "faults": list(map(asdict, bad.faults))}, ensure_ascii=False))
        from ..core.reading import read_sheet

        remedies = {one.line: one.answer for one in read_sheet(text).lines}
        told = [f"{routine}: {fault}{_remedy(remedies.get(fault.line))}" for fault in bad.faults]
        raise refuse("\n".join(told)) from None
    report, rows = asdict(verdict_report(verdict)), _told(verdict)
    opinion = played_too(text, {"verdict": report}, second_opinion)
    if opinion:
        report, rows = report | {"second_opinion": opinion}, [*rows, opinion["says"]]
    if unread:
        so_far = f"As far as it is read, {counted(len(unread), 'sentence')} of the notes left out: "
        report = report | {
            "verdict": "as-far-as-read",
            "verdict_without": verdict.verdict,
            "unread": unread,
            "headline": so_far + verdict.headline,
        }
        rows = [so_far + rows[0], *rows[1:], *(f"Not read: {said}" for said in unread)]
    if as_json:
        typer.echo(json.dumps(report, ensure_ascii=False, indent=2))
    else:
        for row in rows:
            typer.echo(row)
    raise typer.Exit(AS_FAR_AS_READ if unread else EXIT_CODES[verdict.verdict])


def _remedy(read: Answer | None) -> str:
    """What a line that is no sentence can be read as."""
    if read is None or not read.readings:
        return ""
    return " Read as: " + " or: ".join(" / ".join(one.lines) for one in read.readings[: 3 if read.asks else 1])


def _told(verdict: Verdict) -> list[str]:
    rows = [verdict.headline + "."]
    if verdict.landing and verdict.verdict in ("proved", "refuted"):
        rows.append(f"At the end {verdict.landing.card} is {verdict.landing.text}.")
    if verdict.holds_when and verdict.holds_when.text:
        rows.append(f"Holds exactly when {verdict.holds_when.text}.")
    if said := verdict.counted:
        widest = f"widest {verdict.states_widest:,}; " if verdict.states_widest else ""
        rows.append(f"{said[:1].upper()}{said[1:]}; {widest}{verdict.covers}; {verdict.seconds * 1000:.1f} ms.")
    return rows
