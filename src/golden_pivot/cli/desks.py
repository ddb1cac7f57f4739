"""The desks on the command line: a verb for each, its options made from what the desk asks."""

from __future__ import annotations

import inspect
import json
import typing
from collections.abc import Callable
from dataclasses import asdict
from pathlib import Path
from typing import Annotated, Any

import typer

from ..core.budget import Budget
from ..core.desks import DESKS, Desk, Table, Trouble
from ..core.faults import OutOfBudget
from ..pictures import picture_of
from .asked import refuse, text_of

app = typer.Typer()


def _command(desk: Desk) -> Callable[..., None]:
    def run(**given: Any) -> None:
        as_json, table_file, picture_file, data = (given.pop(name) for name in ("as_json", "csv", "svg", "data"))
        seconds = given.pop("seconds")
        asks = {name: _from_file(value) for name, value in given.items()}
        if "routine" in asks:
            asks["routine"] = text_of(given["routine"], data)
        try:
            answer = desk.answer(desk.asks(**asks), Budget(seconds=seconds))
        except Trouble as trouble:
            raise refuse(f"{trouble.field}: {trouble}" if trouble.field else str(trouble)) from None
        except OutOfBudget as out:
            typer.echo(f"Not settled within the budget: {out.reached}.", err=True)
            raise typer.Exit(3) from None
        tables = desk.tables(answer)
        if table_file:
            _write(table_file, _csv(tables[0]))
        if picture_file:
            _write(picture_file, picture_of(answer) or "")
        if as_json:
            typer.echo(json.dumps(asdict(answer), ensure_ascii=False, indent=2))
        else:
            for table in tables:
                _show(table)
        raise typer.Exit(desk.exit_code(answer))

    run.__signature__ = inspect.Signature(_parameters(desk))  # type: ignore[attr-defined]
    run.__annotations__ = {parameter.name: parameter.annotation for parameter in _parameters(desk)}
    return run


def _parameters(desk: Desk) -> list[inspect.Parameter]:
    """An option for each field; a field called routine is named as everywhere on the command line."""
    found = []
    opening = desk.asks()
    types = typing.get_type_hints(desk.asks)
    for one in desk.fields.values():
        default = desk.at_leisure.get(one.name, getattr(opening, one.name))
        about = str(one.metadata["description"])
        if one.name == "routine":
            named = Annotated[
                str, typer.Argument(help="A .pivot file, demo:NAME, shelf:NUMBER, or - for standard input.")
            ]
            found.append(inspect.Parameter("routine", inspect.Parameter.POSITIONAL_OR_KEYWORD, annotation=named))
            continue
        hint: Any = types[one.name]
        if hint is str:
            about += "; @FILE for what is in a file"
        option: Any = typer.Option(f"--{one.name.replace('_', '-')}", help=about)
        found.append(
            inspect.Parameter(
                one.name, inspect.Parameter.KEYWORD_ONLY, default=default, annotation=Annotated[hint, option]
            )
        )
    more: list[tuple[str, Any, Any]] = [
        ("data", Annotated[Path | None, typer.Option("--data", help="The shelf’s file.")], None),
        ("seconds", Annotated[float, typer.Option("--seconds", help="Budget: seconds.", min=0.001)], 120.0),
        ("csv", Annotated[Path | None, typer.Option("--csv", help="Write the first table to this file.")], None),
        ("svg", Annotated[Path | None, typer.Option("--svg", help="Write the picture to this file.")], None),
        ("as_json", Annotated[bool, typer.Option("--json", help="Answer in JSON.")], False),
    ]
    found += [inspect.Parameter(n, inspect.Parameter.KEYWORD_ONLY, default=d, annotation=a) for n, a, d in more]
    return found


def _from_file(value: Any) -> Any:
    if not (isinstance(value, str) and value.startswith("@")):
        return value
    try:
        return Path(value[1:]).read_text(encoding="utf-8-sig")
    except (OSError, UnicodeDecodeError) as error:
        raise refuse(f"{value[1:]} cannot be read: {error}.") from None


def _write(path: Path, text: str) -> None:
    try:
        path.write_text(text, encoding="utf-8", newline="")
    except OSError as error:
        raise refuse(f"{path} cannot be written: {error.strerror}.") from None


def _csv(table: Table) -> str:
    from ..api.downloads import table_csv

    return table_csv(asdict(table))


def _show(table: Table) -> None:
    rows = [table.head, *(tuple(map(str, row)) for row in table.rows)]
    widths = [min(60, max(len(row[i]) for row in rows)) for i in range(len(table.head))]
    typer.echo(f"\n{table.name.capitalize()}")
    for row in rows:
        typer.echo("  ".join(f"{cell:{width}}" for cell, width in zip(row, widths, strict=True)).rstrip())


for _desk in DESKS.values():
    app.command(_desk.name, help=_desk.about)(_command(_desk))
