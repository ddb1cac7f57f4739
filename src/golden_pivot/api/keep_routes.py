"""What keeps the shelf: back-ups, the archive, what was removed, and what to do when the file is in trouble."""

from __future__ import annotations

import json
import secrets
from dataclasses import replace
from pathlib import Path
from typing import Annotated, Literal

from fastapi import APIRouter, Query, Request
from fastapi.responses import Response
from pydantic import Field

from ..core.language.exchange import text_of
from ..core.language.parser import read_routine
from ..store import (
    Archive,
    Archived,
    Backup,
    Backups,
    Database,
    Shelf,
    Unknown,
    archive_of,
    packed,
    preview,
    read_archive,
    salvaged,
    take_in,
)
from ..store.backups import EMPTYING, HAND, IMPORT
from ..store.trouble import DAMAGED, GONE
from . import models as m
from .downloads import attachment
from .models import ERRORS, Shape, Text
from .routes import ShelfIn
from .rows import routine_out

router = APIRouter(prefix="/api", responses=ERRORS)

MOST_AT_ONCE = 2000
"""texts in one import"""


class BackupOut(Shape):
    name: str
    made_at: str
    why: str
    bytes: int


class TroubleOfShelf(Shape):
    kind: str
    message: str
    saved: str
    remedy: str


class KeepOut(Shape):
    shelf: str | None = Field(description="which shelf it is; null while it cannot be read")
    file: str | None = Field(description="null for a shelf that lies in memory only")
    folder: str | None = Field(description="where the back-ups lie")
    bytes: int
    routines: int
    removed: int
    backups: list[BackupOut] = Field(description="newest first")
    newest_sound: str | None = Field(description="the newest back-up that can be restored")
    trouble: TroubleOfShelf | None


class FileIn(Shape):
    name: Text = Field(max_length=400)
    text: Text


class FilesIn(Shape):
    """Texts, or routines in the JSON form, as they lie in files."""

    files: list[FileIn] = Field(max_length=MOST_AT_ONCE)


class ComingRoutine(Shape):
    number: int
    title: str
    name: str = Field(description="the file it came in")
    state: Literal["new", "same", "different"]
    text: str
    mine: str | None = Field(description="the text that is here")
    versions: int
    removed: bool


class ComingOut(Shape):
    token: str
    routines: list[ComingRoutine]
    refused: list[str] = Field(description="files that are no routines, and why")
    settings: bool = Field(description="whether settings come with it")


class TakeIn(Shape):
    default: Literal["both", "theirs", "mine"] = Field(default="both", description="where two texts differ")
    decisions: dict[int, Literal["both", "theirs", "mine"]] = Field(default={}, description="by number, otherwise")
    leave: list[int] = Field(default=[], description="numbers of those that shall not come")
    settings: bool = Field(default=False, description="whether my settings give way to those that come")


class TakenOut(Shape):
    added: list[int] = Field(description="the routines that are on the shelf since")
    new: int
    same: int
    both: int
    theirs: int
    mine: int


class ThrownAway(Shape):
    number: int


def _backups(request: Request) -> Backups:
    backups: Backups | None = request.app.state.backups
    if backups is None:
        raise Unknown("this shelf lies in memory only; there are no back-ups")
    return backups


def _database(request: Request) -> Database:
    database: Database = request.app.state.database
    return database


def _backup_out(backup: Backup) -> BackupOut:
    return BackupOut(name=backup.name, made_at=backup.made_at, why=backup.why, bytes=backup.bytes)


def _trouble(database: Database) -> TroubleOfShelf | None:
    found = database.state_of_file()
    if found is None:
        return None
    return TroubleOfShelf(kind=found.kind, message=found.message, saved=found.saved, remedy=found.remedy)


def _size(path: Path) -> int:
    """Of the file and of what is not written into it yet."""
    files = (path, path.with_name(f"{path.name}-wal"))
    return sum(file.stat().st_size for file in files if file.exists())


@router.get("/keep")
def keep(request: Request, shelf: ShelfIn) -> KeepOut:
    """What there is, where it lies, and whether something is the matter with it."""
    database, backups = _database(request), request.app.state.backups
    trouble = _trouble(database)
    usable = trouble is None or trouble.kind != DAMAGED
    known = backups.all() if backups else []
    return KeepOut(
        shelf=shelf.uid if usable else None,
        file=None if database.path is None else str(database.path),
        folder=None if backups is None else str(backups.folder),
        bytes=_size(database.path) if database.path else 0,
        routines=len(shelf.routines()) if usable else 0,
        removed=len(shelf.removed()) if usable else 0,
        backups=[_backup_out(one) for one in known],
        newest_sound=None if backups is None or (sound := backups.newest_sound()) is None else sound.name,
        trouble=trouble,
    )


@router.post("/keep/backups", status_code=201)
def make_backup(request: Request) -> BackupOut:
    return _backup_out(_backups(request).make(HAND))


@router.post("/keep/backups/{name}/restore")
def restore_backup(name: str, request: Request) -> m.Done:
    """The shelf is again as the back-up has it; what it is now is kept as a back-up first."""
    try:
        _backups(request).restore(name)
    except LookupError as error:
        raise Unknown(str(error)) from None
    return m.Done(done=True)


@router.post("/keep/put-back")
def put_back(request: Request) -> m.Done:
    """Writes the file again that was taken away while the program held it open."""
    found = _database(request).state_of_file()
    if found is None or found.kind != GONE:
        raise Unknown("the file is where it was")
    _backups(request).put_back()
    return m.Done(done=True)


@router.get("/keep/readable.zip")
def readable(request: Request) -> Response:
    """What can still be read of a damaged shelf, as an archive."""
    path = _database(request).path
    if path is None:
        raise Unknown("this shelf lies in memory only")
    return _zip(packed(salvaged(path)), "readable")


@router.get("/keep/shelf.zip")
def export(
    shelf: ShelfIn,
    only: Annotated[list[int] | None, Query(description="these routines alone, without settings")] = None,
) -> Response:
    """The whole shelf, with versions, removed routines and settings, or a selection."""
    return _zip(packed(archive_of(shelf, None if only is None else set(only))), "shelf")


def _zip(data: bytes, name: str) -> Response:
    return Response(data, media_type="application/zip", headers=attachment(name, "zip"))


@router.post("/keep/coming")
def look_at_files(files: FilesIn, request: Request, shelf: ShelfIn) -> ComingOut:
    """A look at what files would bring. Nothing is changed."""
    refused: list[str] = []
    return _looked_at(_archive_of_files(files, refused), refused, request, shelf)


_ARCHIVE_BODY = {
    "requestBody": {
        "required": True,
        "content": {"application/zip": {"schema": {"type": "string", "format": "binary"}}},
    }
}


@router.post("/keep/coming/archive", openapi_extra=_ARCHIVE_BODY)
async def look_at_archive(request: Request, shelf: ShelfIn) -> ComingOut:
    """A look at what an archive would bring. Nothing is changed."""
    return _looked_at(read_archive(await request.body()), [], request, shelf)


def _looked_at(coming: Archive, refused: list[str], request: Request, shelf: Shelf) -> ComingOut:
    token = secrets.token_hex(8)
    request.app.state.coming = {token: coming}  # only the last one looked at can be taken in
    return ComingOut(
        token=token,
        routines=[
            ComingRoutine(
                number=number,
                title=_title(found.archived.text),
                name=found.archived.name,
                state=found.state,  # type: ignore[arg-type]
                text=found.archived.text,
                mine=found.mine.text if found.mine else None,
                versions=len(found.archived.versions),
                removed=found.archived.removed_at is not None,
            )
            for number, found in enumerate(preview(shelf, coming.routines))
        ],
        refused=refused,
        settings=coming.has_settings,
    )


def _title(text: str) -> str:
    try:
        return read_routine(text).title or "Untitled"
    except Exception:
        return "Untitled"


def _archive_of_files(files: FilesIn, refused: list[str]) -> Archive:
    found = []
    for one in files.files:
        text = one.text.removeprefix("\ufeff")
        if "\0" in text:
            refused.append(f"{one.name}: it is not text")
        elif text.lstrip().startswith("{"):
            try:
                found.append(Archived(None, text_of(json.loads(text)), one.name))
            except json.JSONDecodeError as error:
                refused.append(f"{one.name}: it begins like JSON but is broken in line {error.lineno}")
            except (ValueError, AttributeError, RecursionError) as error:
                refused.append(f"{one.name}: {error}")
        else:
            found.append(Archived(None, text, one.name))
    return Archive(tuple(found))


@router.post("/keep/coming/{token}/take-in")
def take_coming_in(token: str, how: TakeIn, request: Request, shelf: ShelfIn) -> TakenOut:
    """Brings it, as decided. A back-up is made first. 404 when something else was looked at since."""
    coming: Archive | None = request.app.state.coming.pop(token, None)
    if coming is None:
        raise Unknown("nothing waits to be imported under this name; look at the file again")
    if request.app.state.backups:
        request.app.state.backups.make(IMPORT)
    wanted = [(number, one) for number, one in enumerate(coming.routines) if number not in how.leave]
    numbers = {id(one): number for number, one in wanted}
    told = take_in(
        _database(request),
        replace(coming, routines=tuple(one for _, one in wanted)),
        lambda found: how.decisions.get(numbers[id(found.archived)], how.default),
        how.settings,
    )
    return TakenOut(**told.done, added=told.added)


@router.get("/removed")
def list_removed(shelf: ShelfIn) -> list[m.RoutineOut]:
    """What was taken off the shelf and not thrown away, the last first."""
    return [routine_out(routine, shelf) for routine in shelf.removed()]


@router.delete("/removed")
def throw_away_removed(request: Request, shelf: ShelfIn) -> ThrownAway:
    """For good, after a back-up."""
    if request.app.state.backups:
        request.app.state.backups.make(EMPTYING)
    return ThrownAway(number=shelf.throw_away_removed())
