"""The second opinion behind an answer of the command line."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Annotated, Any

import typer

from .asked import refuse

DO_NOT_AGREE = 5
"""two ways of working it out do not agree"""
REPORT = "golden-pivot-disagreement.json"

SecondOpinion = Annotated[
    str,
    typer.Option(
        "--second-opinion",
        metavar="all|N|none",
        help="Paths that are also played by hand: all of them, at most so many, or none. Default: as many as a second or two allows.",
    ),
]


def played_too(text: str, told: dict[str, Any], how_many: str) -> dict[str, Any] | None:
    """The opinion on answers by name, as it is told; None where none was asked for. Refuses what is no number of paths.

    Where the two do not agree, a report is written that can be sent, and the program ends with a code of its own.
    """
    if how_many == "none":
        return None
    if how_many not in ("", "all") and not (how_many.isascii() and how_many.isdigit() and 0 < int(how_many) < 10**9):
        raise refuse(f"“{how_many}” is no number of paths: write all, none, or a number such as 500.")
    from dataclasses import asdict

    from ..jobs.by_hand import opinion_on
    from ..witness.opinion import SECONDS

    most = int(how_many) if how_many.isdigit() else None
    opinion = opinion_on(text, told, most, SECONDS if not how_many else None)
    if opinion is None:
        return None
    if not opinion.agrees:
        report = {"text": text, "told": told, "opinion": asdict(opinion)}
        Path(REPORT).write_text(json.dumps(report, ensure_ascii=False, indent=2), encoding="utf-8")
        typer.echo(f"{opinion.says}: {opinion.differs}.", err=True)
        for one in opinion.choices:
            typer.echo(f"  line {one.line}: {one.option}", err=True)
        typer.echo(f"All of it is in {REPORT}: please send it to whoever keeps this program.", err=True)
        raise typer.Exit(DO_NOT_AGREE)
    return asdict(opinion)
