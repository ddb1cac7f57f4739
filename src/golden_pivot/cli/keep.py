"""Back-ups and the archive of a shelf on the command line."""

from __future__ import annotations

import json
from collections.abc import Iterator
from contextlib import closing
from pathlib import Path
from typing import Annotated

import typer

from ..core.language.exchange import text_of
from ..core.language.parser import read_routine
from ..store import (
    Archive,
    Archived,
    Backups,
    Database,
    NotAnArchive,
    Shelf,
    archive_of,
    joined,
    open_shelf_file,
    packed,
    preview,
    read_archive,
    salvaged,
    take_in,
)
from ..store.archive import BOTH, DIFFERENT, LARGEST_FILE, MINE, THEIRS
from ..store.backups import HAND, IMPORT
from .asked import AsJson, DataFile, bad_shelf, default_data, refuse
from .files import write_whole

app = typer.Typer()


def existing(data: Path | None) -> Path:
    path = data or default_data()
    if not path.is_file():
        raise refuse(f"There is no shelf at {path}.")
    return path


@app.command("backup")
def backup(data: DataFile = None, as_json: AsJson = False) -> None:
    """Make a back-up of the shelf now, beside it. It may be in use."""
    with bad_shelf(), closing(Database(existing(data), read_only=True)) as database:
        made = Backups(database).make(HAND)
    typer.echo(json.dumps({"name": made.name}) if as_json else f"Made {made.name}.")


@app.command("restore")
def restore(
    name: Annotated[str | None, typer.Argument(help="A back-up; none to list them.")] = None,
    data: DataFile = None,
    readable: Annotated[
        Path | None, typer.Option(help="Write what can still be read of a damaged shelf to this .zip, and end.")
    ] = None,
) -> None:
    """Put a back-up in the place of the shelf. What the shelf is now is kept first."""
    path = existing(data)
    if readable:
        found = salvaged(path)
        write_whole(readable, packed(found))
        typer.echo(f"{len(found.routines)} routines can be read; they are in {readable}.")
        return
    with bad_shelf():
        if name is None:
            with closing(Database(path, read_only=True, even_damaged=True)) as database:
                for one in Backups(database).all():
                    typer.echo(f"{one.name}  {one.why}")
            return
        file = open_shelf_file(path, even_damaged=True)
        try:
            assert file.backups
            file.backups.restore(name)
        except LookupError as error:
            raise refuse(f"{error}. See: golden-pivot restore") from None
        finally:
            file.close()
    typer.echo(f"The shelf is again as {name} has it.")


@app.command("export")
def export(
    out: Annotated[Path, typer.Argument(help="The .zip to write.")], data: DataFile = None,
    only: Annotated[list[int] | None, typer.Option(help="This routine alone; may be repeated.")] = None,
) -> None:  # fmt: skip
    """Write the shelf, or some of it, to one archive: texts, versions, removed routines, settings."""
    with bad_shelf(), closing(Database(existing(data), read_only=True)) as database:
        archive = archive_of(Shelf(database), set(only) if only else None)
    write_whole(out, packed(archive))
    typer.echo(f"{len(archive.routines)} routines are in {out}.")


@app.command("import")
def import_(
    what: Annotated[list[Path], typer.Argument(help="Archives, .pivot and .json files, and folders of them.")],
    data: DataFile = None,
    differing: Annotated[str, typer.Option(help="Where two texts differ: both, theirs or mine.")] = BOTH,
    settings: Annotated[bool, typer.Option(help="Let my settings give way to those that come.")] = False,
    look: Annotated[bool, typer.Option("--preview", help="Only say what would come.")] = False,
) -> None:
    """Bring routines onto the shelf. A back-up is made first."""
    if differing not in (BOTH, THEIRS, MINE):
        raise refuse(f"“{differing}” is nothing to do. Take both, theirs or mine.")
    coming = [_read(path) for path in _files(what)]
    together = joined(coming)
    with bad_shelf():
        file = open_shelf_file(data or default_data())
        try:
            if look:
                for found in preview(file.shelf, together.routines):
                    typer.echo(f"{found.state:10} {read_routine(found.archived.text).title or 'Untitled'}")
                return
            assert file.backups
            file.backups.make(IMPORT)
            done = take_in(file.database, together, lambda _: differing, settings).done
        finally:
            file.close()
    differ = (
        ""
        if done[BOTH] + done[THEIRS] + done[MINE] == 0
        else f", {done[BOTH] + done[THEIRS] + done[MINE]} {DIFFERENT} ({differing})"
    )
    typer.echo(f"{done['new']} new, {done['same']} here already{differ}.")


def _files(what: list[Path]) -> Iterator[Path]:
    for path in what:
        if path.is_dir():
            inside = sorted(one for one in path.rglob("*") if one.suffix in (".pivot", ".json") and one.is_file())
            if not inside:
                raise refuse(f"There is no .pivot or .json file in {path}.")
            yield from inside
        else:
            yield path


def _read(path: Path) -> Archive:
    try:
        data = path.read_bytes()
    except OSError as error:
        raise refuse(f"{path} cannot be read: {error.strerror}.") from error
    try:
        if path.suffix == ".zip":
            return read_archive(data)
        if len(data) > LARGEST_FILE:
            raise NotAnArchive(f"it is larger than {LARGEST_FILE:,} bytes")
        text = data.decode("utf-8-sig")
        if path.suffix == ".json":
            text = text_of(json.loads(text))
        return Archive((Archived(None, text, path.name),))
    except (ValueError, AttributeError, RecursionError) as error:
        raise refuse(f"{path} cannot be imported: {error}. Nothing was changed.") from error
