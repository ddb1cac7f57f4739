"""The bench itself, and what is on the shelf."""

from __future__ import annotations

import json
import sys
from contextlib import closing
from dataclasses import replace
from typing import Annotated

import typer

from .. import demo
from ..core.language.parser import read_routine
from ..store import Book, Database, Practice, Programmes, Shelf, ShelfFile, ShelfTrouble, new_uid, open_shelf_file
from .asked import AsJson, Cluster, DataFile, Processes, bad_shelf, default_data, refuse

app = typer.Typer()


@app.command()
def serve(
    demo_shelf: Annotated[bool, typer.Option("--demo", help="Put the demo routines on the shelf, once.")] = False,
    data: DataFile = None,
    port: Annotated[int, typer.Option(help="0 takes any free port.", min=0, max=65535)] = 8737,
    cluster: Cluster = None,
    workers: Processes = None,
) -> None:
    """Serve the bench on this machine only, and print its address."""
    import uvicorn

    from ..api.app import create_app
    from ..api.serving import config_for, listener_at
    from ..jobs.workplace import Workplace

    path = data or default_data()
    with bad_shelf():
        # A damaged shelf is served too: that is where one is told, and helped.
        file = open_shelf_file(path, even_damaged=True)
    try:
        if file.database.trouble:
            typer.echo(f"{file.database.trouble}", err=True)
        else:
            with bad_shelf():
                if demo_shelf:
                    _put_up_demo(file)
                _back_up_if_due(file)
        try:
            listener = listener_at(port)
        except OSError as error:
            raise refuse(f"Port {port} is taken: {error}. Choose another with --port.") from error
        address = f"http://127.0.0.1:{listener.getsockname()[1]}"
        if file.writing:
            file.writing.serve_at(address)
        typer.echo(f"Golden Pivot is at {address}  (Ctrl+C ends it)")
        sys.stdout.flush()
        bench = create_app(file.database, workplace=Workplace(cluster, workers))
        uvicorn.Server(config_for(bench)).run(sockets=[listener])
    finally:
        file.close()


def _put_up_demo(file: ShelfFile) -> None:
    """Once: the routines, the book of a season, the next evening, and what was practised for it."""
    from ..demo.book import season
    from ..demo.evening import LEARNED, evening, half_learned, rehearsed

    with file.database.transaction():
        if file.shelf.seed_once("demo shelf", [demo.demo_text(name) for name in demo.demo_names()]):
            uids = {one.text: one.uid for one in file.shelf.routines()}
            named = {name: uids[demo.demo_text(name)] for name in demo.demo_names()}
            Book(file.database).take_in(replace(one, routine=uids[one.text]) for one in season())
            Programmes(file.database).add(new_uid(), evening(named))
            Practice(file.database).take_in(half_learned(named[LEARNED]), rehearsed(named[LEARNED]))


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
    path = data or default_data()
    if path.exists():
        with bad_shelf(), closing(Database(path, read_only=True)) as database:
            shelf = Shelf(database)
            rows += [{"name": f"shelf:{routine.id}", "title": _title(routine.text)} for routine in shelf.routines()]
    elif data:
        raise refuse(f"There is no shelf at {data}.")
    if as_json:
        typer.echo(json.dumps(rows, ensure_ascii=False, indent=2))
    else:
        for row in rows:
            typer.echo(f"{row['name']:24} {row['title']}")


def _title(text: str) -> str:
    return read_routine(text).title or "Untitled"
