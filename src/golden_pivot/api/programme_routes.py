"""Programmes: what is to be shown at an occasion, the running order that is computed, and what is printed of it."""

from __future__ import annotations

import base64
from dataclasses import asdict, replace
from datetime import date
from typing import Annotated, Any, Literal

from fastapi import APIRouter, Depends, Query
from fastapi.responses import Response
from pydantic import Field, TypeAdapter

from ..core.book.performance import BadEntry, Performance, mark
from ..core.book.performance import checked as checked_entry
from ..core.book.spectators import shown_of
from ..core.language.parser import read_routine
from ..core.programme.occasion import Occasion, checked
from ..core.programme.running_order import Proposal, RunningOrder
from ..store import Book, Programme, Programmes, new_uid
from .asking import JobsIn
from .book_routes import HowItWent
from .downloads import attachment
from .models import ERRORS, Done, Shape, Text
from .routes import ShelfIn
from .show_routes import own_paces

router = APIRouter(prefix="/api/programmes", responses=ERRORS)
_RUNNING, _PROPOSAL = TypeAdapter(RunningOrder), TypeAdapter(Proposal)


def _programmes(shelf: ShelfIn) -> Programmes:
    return Programmes(shelf.database)


ProgrammesIn = Annotated[Programmes, Depends(_programmes)]


class SaveIn(Shape):
    occasion: Occasion
    revision: int = Field(ge=1)


class RunningOut(Shape):
    running: RunningOrder
    missing: list[str] = Field(description="uids of routines that are no longer on the shelf")


class JobNameIn(Shape):
    job: Text = ""


class PlayedIn(Shape):
    """How it went: one entry for each routine, in their order."""

    played_on: Text = Field(default="", max_length=40, description="the day of the occasion unless another is given")
    entries: list[HowItWent] = Field(default=[], max_length=60)


@router.get("")
def list_programmes(programmes: ProgrammesIn) -> list[Programme]:
    """In the order in which they came."""
    return programmes.all()


@router.post("", status_code=201)
def write_programme(new: Occasion, programmes: ProgrammesIn) -> Programme:
    """422 with the field where something cannot be so."""
    return programmes.add(new_uid(), checked(new))


@router.get("/{uid}")
def get_programme(uid: str, programmes: ProgrammesIn) -> Programme:
    """One programme as it was saved."""
    return programmes.programme(uid)


@router.put("/{uid}")
def save_programme(uid: str, new: SaveIn, programmes: ProgrammesIn) -> Programme:
    """409 where it was saved in another window since."""
    return programmes.save(uid, checked(new.occasion), new.revision)


@router.delete("/{uid}")
def strike_programme(uid: str, programmes: ProgrammesIn) -> Programme:
    """What it was, so that it can be put back."""
    return programmes.strike(uid)


@router.post("/put-back")
def put_back_programme(gone: Programme, programmes: ProgrammesIn) -> Done:
    """After it was struck. 422 where something cannot be so."""
    return Done(done=programmes.take_in([replace(gone, uid=mark(gone.uid), occasion=checked(gone.occasion))]) == 1)


def _asked(occasion: Occasion, shelf: ShelfIn) -> tuple[dict[str, Any], list[str]]:
    """What a worker needs; and what is not on the shelf any more. Times in the book go before times that are reckoned."""
    texts = {one.uid: one.text for one in shelf.routines()}
    here = [uid for uid in occasion.routines if uid in texts]
    played = []
    for uid in here:
        mine = Book(shelf.database).performances(uid)
        shown = shown_of(mine)
        seen = [(one.audience, one.played_on) for one in mine]
        played.append(
            {"uid": uid, "text": texts[uid], "shown_to": seen, "minutes": shown.minutes, "measured": shown.measured}
        )
    request = {"occasion": {**asdict(occasion), "routines": here}, "played": played, "paces": own_paces(shelf)}
    return request, [uid for uid in occasion.routines if uid not in texts]


@router.post("/{uid}/running-order")
async def running_order(
    uid: str, asked: JobNameIn, programmes: ProgrammesIn, shelf: ShelfIn, jobs: JobsIn
) -> RunningOut:
    """Times, packs, what is to be done between, and what speaks against it; of the programme as it was saved."""
    request, missing = _asked(programmes.programme(uid).occasion, shelf)
    found = await jobs.run("long", asked.job, "programme", request)
    return RunningOut(running=_RUNNING.validate_python(found), missing=missing)


@router.post("/{uid}/best-order")
async def best_order(uid: str, asked: JobNameIn, programmes: ProgrammesIn, shelf: ShelfIn, jobs: JobsIn) -> Proposal:
    """The order that its wishes ask for."""
    request, _ = _asked(programmes.programme(uid).occasion, shelf)
    return _PROPOSAL.validate_python(await jobs.run("long", asked.job, "best_order", request))


@router.get("/{uid}/programme.{form}")
async def programme_file(
    uid: str, form: Literal["pdf", "ics"], programmes: ProgrammesIn, shelf: ShelfIn, jobs: JobsIn,
    size: Annotated[Literal["page", "letter", "pocket"], Query(description="A4, Letter, or A6 for the pocket")] = "page",
) -> Response:  # fmt: skip
    """Everything in one file: running order, packing list, set-ups, cue sheets; or its date for a calendar."""
    occasion = programmes.programme(uid).occasion
    if form == "ics" and not occasion.held_on:
        raise BadEntry("held_on", "No day is settled.", "Write down the day first.")
    request, _ = _asked(occasion, shelf)
    told = await jobs.run("long", "", "programme_file", {**request, "uid": uid, "format": form, "size": size})
    media = "application/pdf" if form == "pdf" else "text/calendar; charset=utf-8"
    return Response(base64.b64decode(told["file"]), media_type=media, headers=attachment(occasion.title, form))


@router.post("/{uid}/played", status_code=201)
def write_played(uid: str, how: PlayedIn, programmes: ProgrammesIn, shelf: ShelfIn) -> list[Performance]:
    """A finished programme into the book, all of it or nothing."""
    occasion = programmes.programme(uid).occasion
    here = {one.uid: one for one in shelf.routines()}
    day = how.played_on or occasion.held_on or date.today().isoformat()
    entries = []
    for nth, routine in enumerate(one for one in occasion.routines if one in here):
        went = how.entries[nth] if nth < len(how.entries) else HowItWent()
        text = here[routine].text
        entries.append(
            checked_entry(
                Performance(
                    new_uid(), day, routine, read_routine(text).title or "Untitled", text, occasion.title, occasion.audience,
                    **went.model_dump(),
                ),
                date.today(),
            )
        )  # fmt: skip
    Book(shelf.database).take_in(entries)
    return entries
