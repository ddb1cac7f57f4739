"""The command line: a thin door to the core and the shelf.

`prove` exits 0 for proved, fixed and rule; 1 for refuted, one-of and lost; 2 for bad input, told on standard
error with line, column and remedy; 3 for unsettled; 70 where the program itself broke.
"""

from __future__ import annotations

import json
import os
import sys
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Annotated, Any

import typer

from .. import demo
from ..core.answers.report import fault_json, verdict_json
from ..core.answers.verdicts import Verdict, prove
from ..core.budget import Budget
from ..core.faults import BadRoutine
from ..core.language.parser import read_routine
from ..core.variants.blanks import solve
from ..core.variants.explain import explain
from ..core.variants.fields import NothingToFill
from ..core.variants.limits import limits_of
from ..core.variants.report_of_variants import (
    explanation_json,
    fragility_json,
    limits_json,
    solution_json,
    sweep_json,
)
from ..core.variants.slips import fragility_of
from ..core.variants.sweeps import sweep, with_blank
from ..store import Database, Shelf, ShelfFile, ShelfTrouble, Taken, open_shelf_file
from .desks import add_desks
from .keep import add_keep
from .show import add_show

EXIT_CODES = {"proved": 0, "fixed": 0, "rule": 0, "refuted": 1, "one-of": 1, "lost": 1, "unsettled": 3}
BAD_INPUT = 2

app = typer.Typer(no_args_is_help=True, add_completion=False, help="A bench for self-working card routines.")

AsJson = Annotated[bool, typer.Option("--json", help="Answer in JSON.")]
DataFile = Annotated[Path | None, typer.Option("--data", help="The shelf's file. Default: in your data folder.")]


def _default_data() -> Path:
    base = os.environ.get("XDG_DATA_HOME") or Path.home() / ".local" / "share"
    return Path(base) / "golden-pivot" / "shelf.sqlite3"


def _refuse(message: str) -> typer.Exit:
    typer.echo(message, err=True)
    return typer.Exit(BAD_INPUT)


@app.command()
def serve(
    demo_shelf: Annotated[bool, typer.Option("--demo", help="Put the demo routines on the shelf, once.")] = False,
    data: DataFile = None,
    port: Annotated[int, typer.Option(help="0 takes any free port.", min=0, max=65535)] = 8737,
) -> None:
    """Serve the bench on this machine only, and print its address."""
    import socket

    import uvicorn

    from ..api.app import create_app
    from ..api.serving import config_for

    path = data or _default_data()
    with bad_shelf():
        # A damaged shelf is served too: that is where one is told, and helped.
        file = open_shelf_file(path, even_damaged=True)
    try:
        if file.database.trouble:
            typer.echo(f"{file.database.trouble}", err=True)
        else:
            with bad_shelf():
                if demo_shelf:
                    file.shelf.seed_once("demo shelf", [demo.demo_text(name) for name in demo.demo_names()])
                _back_up_if_due(file)
        listener = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
        listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            listener.bind(("127.0.0.1", port))
        except OSError as error:
            raise _refuse(f"Port {port} is taken: {error}. Choose another with --port.") from error
        listener.listen(128)
        address = f"http://127.0.0.1:{listener.getsockname()[1]}"
        if file.writing:
            file.writing.serve_at(address)
        typer.echo(f"Golden Pivot is at {address}  (Ctrl+C ends it)")
        sys.stdout.flush()
        uvicorn.Server(config_for(create_app(file.database))).run(sockets=[listener])
    finally:
        file.close()


def _back_up_if_due(file: ShelfFile) -> None:
    """A disk without room for a copy does not keep one from working; it is told."""
    try:
        if file.backups:
            file.backups.make_if_due()
    except ShelfTrouble as trouble:
        typer.echo(f"No back-up could be made: {trouble}", err=True)


@app.command("list")
def list_routines(data: DataFile = None, as_json: AsJson = False) -> None:
    """The routines on the shelf and in the demo programme."""
    rows = [{"name": f"demo:{name}", "title": _title(demo.demo_text(name))} for name in demo.demo_names()]
    path = data or _default_data()
    if path.exists():
        with bad_shelf():
            shelf = Shelf(Database(path, read_only=True))
            rows += [{"name": f"shelf:{routine.id}", "title": _title(routine.text)} for routine in shelf.routines()]
    elif data:
        raise _refuse(f"There is no shelf at {data}.")
    if as_json:
        typer.echo(json.dumps(rows, ensure_ascii=False, indent=2))
    else:
        for row in rows:
            typer.echo(f"{row['name']:24} {row['title']}")


def _title(text: str) -> str:
    return read_routine(text).title or "Untitled"


@app.command("prove")
def prove_routine(
    routine: Annotated[str, typer.Argument(help="A .pivot file, demo:NAME, shelf:NUMBER, or - for standard input.")],
    data: DataFile = None,
    as_json: AsJson = False,
    states: Annotated[int, typer.Option(help="Budget: different situations at one line.", min=1)] = 1_000_000,
    seconds: Annotated[float, typer.Option(help="Budget: seconds.", min=0.001)] = 60.0,
) -> None:
    """Prove a routine for every choice the spectator has."""
    text = _text_of(routine, data)
    try:
        verdict = prove(read_routine(text), Budget(states=states, seconds=seconds))
    except BadRoutine as bad:
        if as_json:
            typer.echo(
                json.dumps({"verdict": None, "faults": [fault_json(f) for f in bad.faults]}, ensure_ascii=False)
            )
        raise _refuse("\n".join(f"{routine}: {fault}" for fault in bad.faults)) from None
    if as_json:
        typer.echo(json.dumps(verdict_json(verdict), ensure_ascii=False, indent=2))
    else:
        for row in _told(verdict):
            typer.echo(row)
    raise typer.Exit(EXIT_CODES[verdict.verdict])


Named = Annotated[str, typer.Argument(help="A .pivot file, demo:NAME, shelf:NUMBER, or - for standard input.")]
Seconds = Annotated[float, typer.Option(help="Budget: seconds.", min=0.001)]
Tries = Annotated[
    list[str] | None, typer.Option("--try", help="What to try for a blank: 2=10..40, or 1=on,under. May be repeated.")
]


@contextmanager
def _bad_input(routine: str) -> Iterator[None]:
    try:
        yield
    except BadRoutine as bad:
        raise _refuse("\n".join(f"{routine}: {fault}" for fault in bad.faults)) from None
    except NothingToFill as trouble:
        raise _refuse(f"{routine}: {trouble}") from None


def _answer(told: dict[str, Any], as_json: bool, rows: Iterable[str]) -> None:
    if as_json:
        typer.echo(json.dumps(told, ensure_ascii=False, indent=2))
        return
    for row in rows:
        typer.echo(row)


@app.command("explain")
def explain_routine(routine: Named, data: DataFile = None, as_json: AsJson = False, seconds: Seconds = 60.0) -> None:
    """Why it works: what each line does with the card, and where it lands as a formula."""
    with _bad_input(routine):
        found = explain(read_routine(_text_of(routine, data)), Budget(seconds=seconds))
    rows = [f"{said.line:3}  {said.words}" for said in found.said]
    rows += [f"After line {kept.line} {kept.words}." for kept in found.kept]
    rows += [f"Each time round a card goes from x to {formula}." for _, formula in found.each_time]
    rows += [f"{f'If {case.when}, it' if case.when else 'It'} lands {case.text}." for case in found.cases]
    _answer(explanation_json(found), as_json, rows or ["No card is followed."])


@app.command("holds")
def holds_when(routine: Named, data: DataFile = None, as_json: AsJson = False, seconds: Seconds = 60.0) -> None:
    """For exactly which choices every claim holds."""
    with _bad_input(routine):
        found = limits_of(_text_of(routine, data), Budget(seconds=seconds))
    rows = [found.says]
    for limit in found.limits:
        rows.append(f"Line {limit.line}: say “{limit.steer}”")
        told = f"You can tell at line {limit.noticed}" if limit.noticed else "You never learn it"
        rows += [f"{told} if it was {numbers}: then {known}." for numbers, known in limit.outside]
    if found.narrowed:
        rows += ["Proved, if it is written so:", found.narrowed.rstrip()]
    _answer(limits_json(found), as_json, rows)


@app.command("slips")
def slips_of_routine(
    routine: Named, data: DataFile = None, as_json: AsJson = False, seconds: Seconds = 120.0
) -> None:
    """What breaks it: every plausible slip of handling, the worst first."""
    text = _text_of(routine, data)
    with _bad_input(routine):
        found = fragility_of(text, Budget(seconds=seconds))
    rows = [f"{o.kind:12} line {o.slip.line:3}  {o.slip.what:34} {o.says}" for o in found.outcomes]
    rows += [f"Line {line}: {words}." for line, words in found.advice]
    if found.untried:
        rows.append(f"{found.untried} more slips were not tried: the time was up.")
    _answer(fragility_json(found, text), as_json, rows or ["No slip is known for any of its lines."])


@app.command("solve")
def solve_blanks(
    routine: Named, data: DataFile = None, as_json: AsJson = False, tries: Tries = None, seconds: Seconds = 60.0
) -> None:
    """Fill the blanks: every way with which all claims hold."""
    text = _text_of(routine, data)
    with _bad_input(routine):
        found = solve(text, Budget(seconds=seconds), _domains(tries))
    rows = [f"{', '.join(values)}" for values in found.answers]
    rows.append(found.says)
    if found.relation:
        rows.append(f"In all of them {found.relation}.")
    _answer(solution_json(found, text), as_json, rows)
    raise typer.Exit(0 if found.answers else 3 if not found.complete else 1)


@app.command("sweep")
def sweep_number(
    routine: Named, data: DataFile = None, as_json: AsJson = False, tries: Tries = None, seconds: Seconds = 60.0,
    line: Annotated[int | None, typer.Option(help="The line whose number varies; else the text has blanks.")] = None,
    nth: Annotated[int, typer.Option(help="Which number of that line, from 1.")] = 1,
) -> None:  # fmt: skip
    """The verdict for every number that might stand at one place, or at two."""
    text = _text_of(routine, data)
    with _bad_input(routine):
        found = sweep(with_blank(text, line, nth) if line else text, Budget(seconds=seconds), _domains(tries))
    rows = [
        f"{', '.join(row.values):>10}  {row.verdict:10} {row.landing if row.share == 0 and row.landing else row.says}"
        for row in found.rows
    ]
    if found.formula:
        rows.append(f"The card is at {found.formula}.")
    _answer(sweep_json(found), as_json, rows)


def _domains(tries: list[str] | None) -> dict[int, list[str]]:
    """`2=10..40` and `1=on,under` as lists by the number of the blank."""
    found: dict[int, list[str]] = {}
    for one in tries or []:
        number, _, values = one.partition("=")
        low, dots, high = values.partition("..")
        if not number.isdigit() or not values or (dots and not (low.isdigit() and high.isdigit())):
            raise _refuse(f"“{one}” does not say what to try. Write 2=10..40, or 1=on,under.")
        found[int(number)] = list(map(str, range(int(low), int(high) + 1))) if dots else values.split(",")
    return found


def _told(verdict: Verdict) -> list[str]:
    rows = [verdict.headline + "."]
    if verdict.landing and verdict.verdict in ("proved", "refuted"):
        rows.append(f"At the end {verdict.landing.card} is {verdict.landing.text}.")
    if verdict.holds_when and verdict.holds_when.text:
        rows.append(f"Holds exactly when {verdict.holds_when.text}.")
    if verdict.paths is not None:
        said = verdict.count.text if verdict.count else ""
        rows.append(
            f"{said[:1].upper()}{said[1:]}; widest {verdict.states_widest:,}; {verdict.covers}; {verdict.seconds * 1000:.1f} ms."
        )
    return rows


def _text_of(name: str, data: Path | None) -> str:
    kind, _, rest = name.partition(":")
    if kind == "demo":
        try:
            return demo.demo_text(rest)
        except KeyError:
            raise _refuse(f"There is no demo routine “{rest}”. There are: {', '.join(demo.demo_names())}.") from None
    if kind == "shelf" and rest.isascii() and rest.isdigit() and len(rest) < 20:
        path = data or _default_data()
        if not path.exists():
            raise _refuse(f"There is no shelf at {path}.")
        with bad_shelf():
            try:
                return Shelf(Database(path, read_only=True)).routine(int(rest)).text
            except LookupError as error:
                raise _refuse(f"{error}. See: golden-pivot list") from error
    if name == "-":
        try:
            return sys.stdin.buffer.read().decode("utf-8-sig")
        except UnicodeDecodeError as error:
            raise _refuse("What comes on standard input is not a routine: it is not text.") from error
    try:
        text = Path(name).read_text(encoding="utf-8-sig")
    except (OSError, ValueError) as error:
        if isinstance(error, UnicodeDecodeError):
            raise _refuse(f"{name} is not a routine: it is not text. Give a .pivot file or demo:NAME.") from error
        raise _refuse(f"{name} cannot be read: {error}. Give a .pivot file or demo:NAME.") from error
    return text


@contextmanager
def bad_shelf() -> Iterator[None]:
    """A file that cannot be used, or is in use, is bad input like any other."""
    try:
        yield
    except (ShelfTrouble, Taken) as error:
        raise _refuse(str(error)) from error
    except OSError as error:
        raise _refuse(f"The shelf cannot be opened: {error}.") from error


add_desks(app, _text_of, _refuse)
add_keep(app, _default_data, bad_shelf, _refuse)
add_show(app, _text_of, _refuse)


BROKEN = 70
"""a fault of ours: EX_SOFTWARE of sysexits.h; never to be taken for an answer"""


def main() -> None:
    try:
        app()
    except Exception as error:
        typer.echo(f"Golden Pivot broke here ({type(error).__name__}: {error}). Please report it.", err=True)
        if os.environ.get("GOLDEN_PIVOT_DEBUG"):
            raise
        sys.exit(BROKEN)
