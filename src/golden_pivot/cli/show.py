"""From the bench to the show on the command line: sheets, costs, other schools, two versions side by side."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import asdict
from pathlib import Path
from typing import Annotated, Any

import typer

from ..core.analysis import Analysis
from ..core.budget import Budget
from ..core.faults import BadRoutine, OutOfBudget
from ..core.show.compare import ADDED, CHANGED, REMOVED, SAME, ComparedRow, Side, compared
from ..core.show.costs import Costs, costs_of
from ..core.show.schools import schools_of
from .asked import AsJson, Cluster, DataFile, Named, Processes, Seconds, answer, refuse, spread, text_of
from .files import write_whole

app = typer.Typer()


@app.command("sheet")
def write_sheet(
    routine: Named, kind: Annotated[str, typer.Option(help="cues, setup or reset.")] = "cues", data: DataFile = None,
    out: Annotated[Path | None, typer.Option(help="A .pdf or .md file; else Markdown is printed.")] = None,
    size: Annotated[str, typer.Option(help="page (A4), letter or pocket (A6).")] = "page", seconds: Seconds = 60.0,
) -> None:  # fmt: skip
    """The set-up, cue or reset sheet of a routine."""
    _write_sheet(text_of(routine, data), kind, out, size, seconds)


@app.command("costs")
def costs(routine: Named, data: DataFile = None, as_json: AsJson = False, seconds: Seconds = 60.0) -> None:
    """What a routine costs, what shows when, and what is said that is not so."""
    text = text_of(routine, data)
    found = _tried(routine, lambda: costs_of(Analysis(text, Budget(seconds=seconds))))
    answer(asdict(found), as_json, _told(found))


@app.command("schools")
def schools(
    routine: Named, data: DataFile = None, as_json: AsJson = False, seconds: Seconds = 60.0,
    cluster: Cluster = None, workers: Processes = None,
) -> None:  # fmt: skip
    """The routine as performers of other habits would do it, each proved."""
    text = text_of(routine, data)
    with spread(seconds, cluster, workers) as budget:
        found = _tried(routine, lambda: schools_of(text, budget))
    answer([asdict(one) for one in found], as_json, [f"{one.label}: {one.headline}." for one in found])


@app.command("compare")
def compare(
    routine: Named, other: Named, data: DataFile = None, as_json: AsJson = False, seconds: Seconds = 60.0
) -> None:
    """Two routines, or two versions of one, line by line and in numbers."""
    found = compared(text_of(routine, data), text_of(other, data), Budget(seconds=seconds))
    rows = [row for one in found.rows for row in _compared(one)]
    rows += [_side(name, side) for name, side in ((routine, found.left), (other, found.right))]
    answer(asdict(found), as_json, rows)


def _tried(routine: str, answer: Callable[[], Any]) -> Any:
    try:
        return answer()
    except BadRoutine as bad:
        raise refuse("\n".join(f"{routine}: {fault}" for fault in bad.faults)) from None
    except OutOfBudget as out:
        raise refuse(f"Not finished: {out}. Allow more --seconds.") from None


def _told(found: Costs) -> list[str]:
    effort, room = found.effort, found.room
    return [
        f"{effort.seconds:.0f} seconds. Cards handled: {effort.cards}; deals: {effort.deals}; decisions of theirs:"
        f" {effort.decisions}; cards of the longest silence: {effort.silent}.",
        *(f"line {one.line}: you reckon {one.words}, {one.hard}." for one in effort.sums),
        f"{room.width:.0f} mm wide at line {room.line}. {room.remedy or ''}".rstrip(),
        *(f"line {moment.line}: {moment.note}" for moment in found.exposure.moments if moment.note),
        *(f"line {one.line} says “{one.said}”. {one.why}" for one in found.wording),
    ]


def _compared(row: ComparedRow) -> Iterator[str]:
    if row.how == SAME:
        yield f"  {row.left}"
    if row.how in (REMOVED, CHANGED):
        yield f"- {row.left}"
    if row.how in (ADDED, CHANGED):
        yield f"+ {row.right}"


def _side(name: str, side: Side) -> str:
    numbers = (
        ""
        if side.cards is None
        else f" {side.cards} cards, {side.seconds:.0f} seconds, {side.harmful} harmful slips."
    )
    return f"{name}: {side.headline}.{numbers}"


def _write_sheet(text: str, kind: str, out: Path | None, size: str, seconds: float) -> None:
    # What writes PDFs is large, and seldom asked for.
    from ..sheets.markdown import markdown_of
    from ..sheets.pdf import FORMATS, pdf_of
    from ..sheets.sheets import SHEETS, shown

    if kind not in SHEETS or size not in FORMATS:
        raise refuse(
            f"There is no {kind} sheet of size {size}. Kinds: {', '.join(SHEETS)}; sizes: {', '.join(FORMATS)}."
        )
    document = SHEETS[kind](shown(text, Budget(seconds=seconds)))
    if out is None:
        typer.echo(markdown_of(document), nl=False)
        return
    content = pdf_of(document, size) if out.suffix.lower() == ".pdf" else markdown_of(document).encode()
    write_whole(out, content)
