"""The shelf as one file: a .zip of plain texts with a manifest. What is exported imports back to the same.

    manifest.json                     format, settings, book, programmes, practice, and what is known of each routine
    routines/<title>-<uid>.pivot      the text
    versions/<uid>/<number>.pivot     the texts that were given names

Nothing in it depends on the day it is made, so that two exports of the same shelf are the same bytes.
"""

from __future__ import annotations

import io
import json
import re
import zipfile
from collections.abc import Callable, Collection, Iterable, Mapping, Sequence
from dataclasses import asdict, dataclass, field, fields, replace
from datetime import UTC, date, datetime
from typing import Any, NamedTuple

from ..core.book.performance import BadEntry, Performance, checked, mark
from ..core.faults import PivotError
from ..core.practice.kept import Answer, BeatDone, DeskDrill, Rehearsed
from ..core.programme.occasion import checked as checked_occasion
from ..core.programme.occasion import occasion_of
from .book import Book
from .database import Database
from .practice import Practice, desk_drill_of
from .programmes import Programme, Programmes
from .shelf import Archived, Routine, Shelf, Version
from .standing import STANDS_AS_IT_CAME, Standings, standing_of

FORMAT, FORMAT_VERSION = "golden-pivot shelf", 1
MANIFEST = "manifest.json"
MOST_FILES, LARGEST_FILE, LARGEST_ALL = 20_000, 1_000_000, 200_000_000
"""entries, and bytes unpacked of one and of all"""
LARGEST_MANIFEST = 50_000_000
_UID = re.compile(r"[0-9a-f]{1,64}")
_SETTINGS_OF_OURS = "seeded "

NEW, SAME, DIFFERENT = "new", "same", "different"
BOTH, THEIRS, MINE = "both", "theirs", "mine"
"""what is done with a routine that is here in another wording"""


class NotAnArchive(PivotError, ValueError):
    """The file is not one of ours, or not as it was written; the message says what is the matter."""


@dataclass(frozen=True)
class Archive:
    routines: tuple[Archived, ...] = ()
    settings: Mapping[str, Any] = field(default_factory=dict)
    book: tuple[Performance, ...] = ()
    """performances, the last first"""
    programmes: tuple[Programme, ...] = ()
    answers: tuple[Answer, ...] = ()
    """of drills, in the order in which they were given"""
    rehearsals: tuple[Rehearsed, ...] = ()
    desk_drills: tuple[DeskDrill, ...] = ()

    @property
    def has_settings(self) -> bool:
        """Whether somebody set something; what the program notes for itself does not count."""
        return any(not name.startswith(_SETTINGS_OF_OURS) for name in self.settings)


@dataclass(frozen=True)
class Found:
    """A routine that comes, beside what the shelf has."""

    archived: Archived
    state: str
    """NEW, SAME or DIFFERENT"""
    mine: Routine | None


class Taken(NamedTuple):
    done: dict[str, int]
    """how many routines were NEW, SAME, or done with as it was decided"""
    added: list[int]
    """ids of those that are on the shelf since"""


def joined(archives: Sequence[Archive]) -> Archive:
    """Several as one, what comes later behind what comes before."""
    lists = {
        one.name: tuple(x for archive in archives for x in getattr(archive, one.name))
        for one in fields(Archive)
        if one.name != "settings"
    }
    return Archive(settings={name: value for one in archives for name, value in one.settings.items()}, **lists)


# Export


def archive_of(shelf: Shelf, only: Collection[int] | None = None) -> Archive:
    """The shelf with its removed routines and its settings, or only these routines of it."""
    chosen = [one for one in shelf.all_routines() if only is None or (one.id in only and not one.removed_at)]
    practice, standings = Practice(shelf.database), Standings(shelf.database).all()
    return Archive(
        tuple(
            Archived(
                one.uid, one.text, "", one.revision, one.created_at, one.changed_at, one.removed_at,
                tuple(reversed(shelf.versions_of(one.id))), standings.get(one.id, STANDS_AS_IT_CAME),
            )
            for one in chosen
        ),
        shelf.settings() if only is None else {},
        tuple(Book(shelf.database).performances()) if only is None else (),
        tuple(Programmes(shelf.database).all()) if only is None else (),
        tuple(practice.answers()) if only is None else (),
        tuple(practice.rehearsals()) if only is None else (),
        tuple(practice.desk_drills()) if only is None else (),
    )  # fmt: skip


def packed(archive: Archive) -> bytes:
    """As a .zip; the same archive gives the same bytes."""
    manifest: dict[str, Any] = {"format": FORMAT, "version": FORMAT_VERSION, "routines": []}
    files: dict[str, str] = {}
    for one in archive.routines:
        name = f"routines/{_plain_title(one.text)}-{one.uid}.pivot"
        files[name] = one.text
        versions = []
        for version in one.versions:
            at = f"versions/{one.uid}/{version.number}.pivot"
            files[at] = version.text
            versions.append({"file": at, **{k: v for k, v in asdict(version).items() if k != "text"}})
        known = {k: getattr(one, k) for k in ("uid", "revision", "created_at", "changed_at", "removed_at")}
        stands = {} if one.standing == STANDS_AS_IT_CAME else {"standing": asdict(one.standing)}
        manifest["routines"].append({"file": name, **known, "versions": versions, **stands})
    if archive.settings:
        manifest["settings"] = dict(archive.settings)
    for room in _ROOMS:
        if kept := getattr(archive, room):
            manifest[room] = [asdict(one) for one in kept]
    whole = io.BytesIO()
    with zipfile.ZipFile(whole, "w", zipfile.ZIP_DEFLATED) as zipped:
        told = json.dumps(manifest, ensure_ascii=False, indent=1, sort_keys=True)
        for name, text in {MANIFEST: told, **files}.items():
            entry = zipfile.ZipInfo(name, (1980, 1, 1, 0, 0, 0))
            entry.compress_type, entry.external_attr = zipfile.ZIP_DEFLATED, 0o600 << 16
            zipped.writestr(entry, text.encode())
    return whole.getvalue()


def _plain_title(text: str) -> str:
    """For people who unpack it; what counts is the manifest."""
    found = re.search(r"^\s*title:(.*)$", text, re.IGNORECASE | re.MULTILINE)
    return re.sub(r"[^a-z0-9]+", "_", (found[1] if found else "untitled").lower()).strip("_")[:60] or "untitled"


# Import


def read_archive(data: bytes) -> Archive:
    """Raises NotAnArchive. Nothing is unpacked onto the disk, only what the manifest names is read, and no more of it
    than an honest archive holds."""
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            _refuse_what_is_too_large(archive.infolist())
            manifest = json.loads(_entry(archive, MANIFEST, LARGEST_MANIFEST))
            return _archive(manifest, lambda name: _entry(archive, name, LARGEST_FILE))
    except zipfile.BadZipFile as error:
        raise NotAnArchive(f"this is no .zip, or it is damaged: {error}") from error
    except (KeyError, TypeError, AttributeError, ValueError, RecursionError, OverflowError) as error:
        if isinstance(error, NotAnArchive):
            raise
        raise NotAnArchive(f"its {MANIFEST} is not as it is written: {error}") from error


def _refuse_what_is_too_large(entries: Sequence[zipfile.ZipInfo]) -> None:
    if len(entries) > MOST_FILES:
        raise NotAnArchive(f"it holds {len(entries):,} files; a shelf holds at most {MOST_FILES:,}")
    if sum(entry.file_size for entry in entries) > LARGEST_ALL:
        raise NotAnArchive(f"unpacked it would be larger than {LARGEST_ALL:,} bytes")
    for entry in entries:
        if (
            entry.filename.startswith(("/", "\\"))
            or ".." in re.split(r"[/\\]", entry.filename)
            or ":" in entry.filename
        ):
            raise NotAnArchive(f"it has a file outside its folder: {entry.filename[:80]}")


def _entry(archive: zipfile.ZipFile, name: str, most: int) -> str:
    try:
        opened = archive.open(name)
    except (KeyError, RuntimeError, NotImplementedError) as error:
        raise NotAnArchive(f"there is no {name[:80]} in it, or it cannot be opened") from error
    with opened:
        # The size that an entry tells need not be true.
        data = opened.read(most + 1)
    if len(data) > most:
        raise NotAnArchive(f"{name[:80]} is larger than {most:,} bytes")
    try:
        return data.decode("utf-8")
    except UnicodeDecodeError as error:
        raise NotAnArchive(f"{name[:80]} is not text") from error


def _archive(manifest: Any, entry: Callable[[str], str]) -> Archive:
    if manifest["format"] != FORMAT:
        raise NotAnArchive(f"its format is {manifest['format']!r}, expected {FORMAT!r}")
    if manifest["version"] != FORMAT_VERSION:
        raise NotAnArchive(f"its format has the number {manifest['version']!r}; this version reads {FORMAT_VERSION}")
    routines = []
    for one in manifest["routines"]:
        uid = str(one["uid"])
        if not _UID.fullmatch(uid):
            raise NotAnArchive(f"{uid[:80]!r} is not the name of a routine")
        versions = tuple(
            Version(int(v["number"]), str(v["name"]), entry(str(v["file"])), str(v["created_at"]), str(v["reason"]))
            for v in one["versions"]
        )
        if len({version.number for version in versions}) < len(versions):
            raise NotAnArchive(f"two versions of {uid} have one number")
        removed = one["removed_at"]
        routines.append(
            Archived(
                uid, entry(str(one["file"])), str(one["file"]), max(1, min(int(one["revision"]), 10**9)), str(one["created_at"]),
                str(one["changed_at"]), None if removed is None else str(removed), versions,
                standing_of(one["standing"]) if "standing" in one else STANDS_AS_IT_CAME,
            )
        )  # fmt: skip
    if len({one.uid for one in routines}) < len(routines):
        raise NotAnArchive("two routines in it have one name")
    settings = manifest.get("settings", {})
    if not isinstance(settings, dict):
        raise NotAnArchive("its settings are no settings")
    rooms = {room: tuple(_kept(room, one) for one in manifest.get(room, [])) for room in _ROOMS}
    return Archive(tuple(routines), settings, **rooms)


def _kept(room: str, one: Any) -> Any:
    """One thing of a room. Raises NotAnArchive for what could not be written there."""
    try:
        return _ROOMS[room](one)
    except BadEntry as bad:
        raise NotAnArchive(f"something of its {room}: {bad}") from bad


def _performance(one: Any) -> Performance:
    entry = Performance(**{name: one[name] for name in (kept.name for kept in fields(Performance))})
    return checked(
        replace(entry, chosen={str(k): v if isinstance(v, str) else int(v) for k, v in entry.chosen.items()}),
        date.max,
    )


def _programme(one: Any) -> Programme:
    occasion = checked_occasion(occasion_of(one["occasion"]))
    return Programme(
        mark(str(one["uid"])), occasion, max(1, min(int(one["revision"]), 10**9)), str(one["changed_at"])
    )


def _answer(one: Any) -> Answer:
    seconds = min(3600.0, max(0.0, float(one["seconds"])))
    at = datetime.fromisoformat(str(one["answered_at"])).astimezone(UTC).isoformat(timespec="milliseconds")
    return Answer(
        mark(str(one["uid"])),
        str(one["routine"]),
        str(one["drill"]),
        str(one["question"]),
        at,
        bool(one["right"]),
        seconds,
    )


def _rehearsed(one: Any) -> Rehearsed:
    done = tuple(BeatDone(**beat) for beat in one["done"])
    return Rehearsed(
        mark(str(one["uid"])), str(one["routine"]), str(one["held_at"]), str(one["level"]), str(one["habit"]), done, bool(one["finished"])
    )  # fmt: skip


def _desk_drill(one: Any) -> DeskDrill:
    return desk_drill_of({**one, "uid": mark(str(one["uid"]))})


_ROOMS: Mapping[str, Callable[[Any], Any]] = {
    "book": _performance, "programmes": _programme, "answers": _answer, "rehearsals": _rehearsed, "desk_drills": _desk_drill,
}  # fmt: skip
"""what is kept beside routines, by the name it has in the manifest"""


def preview(shelf: Shelf, coming: Iterable[Archived]) -> list[Found]:
    """Each routine that comes, beside the one on the shelf that it is: by its uid, or by its text, or by its title."""
    here = shelf.all_routines()
    by_uid = {one.uid: one for one in here}
    by_text = {one.text: one for one in reversed(here)}
    by_title = {
        title: one for one in reversed(here) if not one.removed_at and (title := _plain_title(one.text)) != "untitled"
    }
    found = []
    for one in coming:
        mine = by_uid.get(one.uid or "") or (
            None if one.uid else by_text.get(one.text) or by_title.get(_plain_title(one.text))
        )
        alike = mine is not None and mine.text == one.text and bool(mine.removed_at) == bool(one.removed_at) and (
            not one.uid or _texts(shelf.versions_of(mine.id)) >= _texts(one.versions)
        )  # fmt: skip
        found.append(Found(one, NEW if mine is None else SAME if alike else DIFFERENT, mine))
    return found


def _texts(versions: Iterable[Version]) -> set[tuple[str, str]]:
    return {(version.name, version.text) for version in versions}


def take_in(
    database: Database, coming: Archive, decide: Callable[[Found], str], with_settings: bool = False
) -> Taken:
    """Puts what comes on the shelf, in one transaction. `decide` says what is done where two texts differ.

    BOTH adds the one that comes under a name of its own, THEIRS replaces mine and keeps it as a version, MINE leaves it.
    """
    shelf = Shelf(database)
    done = dict.fromkeys((NEW, SAME, BOTH, THEIRS, MINE), 0)
    added: list[int] = []
    with database.transaction():
        for one in preview(shelf, coming.routines):
            what = one.state if one.state != DIFFERENT else decide(one)
            done[what] += 1
            if what == NEW:
                added.append(shelf.add_whole(one.archived, one.archived.uid))
            elif what == BOTH:
                added.append(shelf.add_whole(one.archived, None))
            elif what == THEIRS:
                assert one.mine
                shelf.take_theirs(one.mine, one.archived)
        if coming.settings:
            mine = shelf.settings()
            internal = {k: v for k, v in coming.settings.items() if k.startswith(_SETTINGS_OF_OURS)}
            others = {
                k: v for k, v in coming.settings.items() if k not in internal and (with_settings or k not in mine)
            }
            shelf.change_settings({**internal, **others})
        Book(database).take_in(coming.book)
        Programmes(database).take_in(coming.programmes)
        Practice(database).take_in(coming.answers, coming.rehearsals)
        Practice(database).keep(coming.desk_drills)
    return Taken(done, added)
