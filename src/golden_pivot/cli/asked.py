"""What every verb asks for: a routine by its name, the shelf, a budget; and how it refuses."""

from __future__ import annotations

import json
import sys
from collections.abc import Iterable, Iterator
from contextlib import closing, contextmanager
from dataclasses import replace
from pathlib import Path
from typing import Annotated, Any

import platformdirs
import typer

from .. import demo
from ..core.budget import Budget

BAD_INPUT = 2

Named = Annotated[
    str, typer.Argument(help="A .pivot file, demo:NAME, shelf:NUMBER, or - for standard input.", metavar="routine")
]
AsJson = Annotated[bool, typer.Option("--json", help="Answer in JSON.")]
DataFile = Annotated[Path | None, typer.Option("--data", help="The shelf's file. Default: in your data folder.")]
Cluster = Annotated[
    str | None, typer.Option(help="Work it off on a cluster of Dask distributed: tcp://… of its scheduler.")
]
Processes = Annotated[
    int | None, typer.Option("--workers", help="Processes of this machine. Default: all cores but one.", min=1)
]
Seconds = Annotated[float, typer.Option(help="Budget: seconds.", min=0.001)]


def default_data() -> Path:
    return platformdirs.user_data_path("golden-pivot", appauthor=False) / "shelf.sqlite3"


def refuse(message: str) -> typer.Exit:
    typer.echo(message, err=True)
    return typer.Exit(BAD_INPUT)


@contextmanager
def spread(seconds: float, cluster: str | None, workers: int | None) -> Iterator[Budget]:
    """The budget of a long search, worked off where one says. Where that cannot be, one is told."""
    from ..jobs.workplace import Workplace

    budget = Budget(seconds=seconds)
    with Workplace(cluster, workers).executor(budget.megabytes or 0) as executor:
        yield replace(budget, executor=executor)
        if executor.trouble:
            typer.echo(f"Worked off {executor.where}.", err=True)


def answer(told: Any, as_json: bool, rows: Iterable[str]) -> None:
    if as_json:
        typer.echo(json.dumps(told, ensure_ascii=False, indent=2))
        return
    for row in rows:
        typer.echo(row)


def text_of(name: str, data: Path | None) -> str:
    kind, _, rest = name.partition(":")
    if kind == "demo":
        try:
            return demo.demo_text(rest)
        except KeyError:
            raise refuse(f"There is no demo routine “{rest}”. There are: {', '.join(demo.demo_names())}.") from None
    if kind == "shelf" and rest.isascii() and rest.isdigit() and len(rest) < 20:
        path = data or default_data()
        if not path.exists():
            raise refuse(f"There is no shelf at {path}.")
        from ..store import Database, Shelf

        with bad_shelf():
            try:
                with closing(Database(path, read_only=True)) as database:
                    return Shelf(database).routine(int(rest)).text
            except LookupError as error:
                raise refuse(f"{error}. See: golden-pivot list") from error
    if name == "-":
        try:
            return sys.stdin.buffer.read().decode("utf-8-sig")
        except UnicodeDecodeError as error:
            raise refuse("What comes on standard input is not a routine: it is not text.") from error
    try:
        text = Path(name).read_text(encoding="utf-8-sig")
    except (OSError, ValueError) as error:
        if isinstance(error, UnicodeDecodeError):
            raise refuse(f"{name} is not a routine: it is not text. Give a .pivot file or demo:NAME.") from error
        raise refuse(f"{name} cannot be read: {error}. Give a .pivot file or demo:NAME.") from error
    return text


@contextmanager
def bad_shelf() -> Iterator[None]:
    """A file that cannot be used, or is in use, is bad input like any other."""
    from ..store import ShelfTrouble, Taken

    try:
        yield
    except (ShelfTrouble, Taken) as error:
        raise refuse(str(error)) from error
    except OSError as error:
        raise refuse(f"The shelf cannot be opened: {error}.") from error
