"""Routes: each reads its request, calls one function, shapes the reply."""

from __future__ import annotations

import logging
from dataclasses import replace
from functools import cache
from typing import Annotated, Any

from fastapi import APIRouter, Depends, Request
from fastapi.concurrency import run_in_threadpool
from fastapi.responses import JSONResponse, PlainTextResponse, Response
from pydantic import TypeAdapter

from .. import __version__
from ..core.answers.on_table import PlayOnTable
from ..core.language.exchange import document_of, text_of
from ..core.language.habits import Habits, habits_of
from ..core.language.parser import has_subject, read_routine
from ..core.language.schema import routine_schema
from ..core.language.sheet import sheet_lines
from ..core.language.suggest import suggestions
from ..core.reading import Page, ReadSheet, in_everyday_words, words_for
from ..core.steps import REGISTRY, StepKind
from ..core.variants.fields import blanks_of, numbers_of
from ..demo import demo_names, demo_text
from ..library import principle, principles
from ..store import Shelf, ShelfTrouble, Standings, Unknown, Version
from . import models as m
from . import variant_models as v
from .asking import JobsIn
from .downloads import attachment
from .rows import found_of, glimpse_kept, keep_glimpse, keep_proof, routine_out, rows_of

router = APIRouter(prefix="/api", responses=m.ERRORS)
_READ, _PAGE, _PLAY = TypeAdapter(ReadSheet), TypeAdapter(Page), TypeAdapter(PlayOnTable)
_ROWS = TypeAdapter(list[m.RoutineOut])
logger = logging.getLogger(__name__)


def _shelf(request: Request) -> Shelf:
    shelf: Shelf = request.app.state.shelf
    return shelf


ShelfIn = Annotated[Shelf, Depends(_shelf)]


def _version_out(version: Version) -> m.VersionOut:
    return m.VersionOut(
        number=version.number,
        name=version.name,
        reason=version.reason,
        text=version.text,
        created_at=version.created_at,
    )


@router.get("/health")
def health(shelf: ShelfIn) -> m.Health:
    try:
        return m.Health(version=__version__, shelf=shelf.uid)
    except ShelfTrouble:
        return m.Health(version=__version__, shelf=None)


@router.get("/language", response_model=list[m.StepKindOut])
def language() -> Response:
    """Every kind of step, in the order of the palette."""
    return Response(_language(), media_type="application/json")


@cache
def _language() -> bytes:
    """The same as long as the program runs, and every page waits for it."""
    kinds = [
        m.StepKindOut(
            name=kind.name,
            family=kind.family,
            phase=kind.phase,
            sentence=kind.sentence,
            summary=kind.summary,
            notes=kind.notes,
            example=kind.example,
            spectator=has_subject(kind),
            also=words_for(kind),
        )
        for kind in _by_use()
    ]
    return TypeAdapter(list[m.StepKindOut]).dump_json(kinds)


@cache
def _habits() -> Habits:
    """In which order our own routines are written."""
    return habits_of(map(read_routine, [*map(demo_text, demo_names()), *(one.text for one in principles())]))


def _by_use() -> list[StepKind]:
    """Family by family, in each those first that our own routines use most."""
    used = _habits().written
    shelves = list(dict.fromkeys(kind.family for kind in REGISTRY.values()))
    return sorted(REGISTRY.values(), key=lambda kind: (shelves.index(kind.family), -used[kind.example]))


# The shelf


@router.get("/routines", response_model=list[m.RoutineOut])
def list_routines(shelf: ShelfIn) -> Response:
    # As they were made: there may be a thousand, and to check them again takes as long as to find them.
    return Response(_ROWS.dump_json(rows_of(shelf)), media_type="application/json")


@router.post("/routines", status_code=201)
def add_routine(new: m.NewRoutine, shelf: ShelfIn) -> m.RoutineOut:
    return routine_out(shelf.add(new.text), shelf)


@router.post("/routines/demo", status_code=201)
def add_demo(shelf: ShelfIn) -> list[m.RoutineOut]:
    """Puts the routines of the demo programme on the shelf, those of which it has no copy."""
    there = {routine.text for routine in shelf.routines()}
    texts = [demo_text(name) for name in demo_names()]
    with shelf.database.transaction():
        return [routine_out(shelf.add(text), shelf) for text in texts if text not in there]


@router.post("/routines/import", status_code=201)
def import_routine(new: m.ImportRoutine, shelf: ShelfIn) -> m.RoutineOut:
    """Puts a routine given in the JSON form on the shelf. 422 where the document is not one."""
    return routine_out(shelf.add(text_of(new.document)), shelf)


@router.get("/routines/{routine_id}/routine.pivot")
def export_text(routine_id: int, shelf: ShelfIn) -> PlainTextResponse:
    return PlainTextResponse(shelf.routine(routine_id).text, headers=saved_as(routine_id, "pivot", shelf))


@router.get("/routines/{routine_id}/routine.json")
def export_json(routine_id: int, shelf: ShelfIn) -> JSONResponse:
    document = document_of(shelf.routine(routine_id).text)
    return JSONResponse(document, headers=saved_as(routine_id, "json", shelf))


def saved_as(routine_id: int, ending: str, shelf: Shelf) -> dict[str, str]:
    return attachment(routine_out(shelf.routine(routine_id), shelf).title, ending)


@router.get("/routine.schema.json")
def schema() -> dict[str, Any]:
    """The JSON Schema of the JSON form."""
    return routine_schema()


@router.get("/principles")
def list_principles() -> list[m.PrincipleOut]:
    """The library of principles, each with a short routine that works."""
    return [m.PrincipleOut.model_validate(one, from_attributes=True) for one in principles()]


@router.post("/principles/text")
def principle_text(asked: m.PrincipleIn) -> m.PrincipleText:
    """The routine of a principle with these numbers in it. 404 where there is no such principle."""
    return m.PrincipleText(text=principle(asked.name).text_with(asked.values))


@router.get("/routines/{routine_id}")
def get_routine(routine_id: int, shelf: ShelfIn) -> m.RoutineOut:
    return routine_out(shelf.routine(routine_id), shelf)


@router.get("/routines/{routine_id}/revision")
def get_revision(routine_id: int, shelf: ShelfIn) -> m.RevisionOut:
    """Whether a window still has the newest text; asked now and then."""
    return m.RevisionOut(revision=shelf.routine(routine_id).revision)


@router.put("/routines/{routine_id}")
def save_routine(routine_id: int, save: m.SaveRoutine, shelf: ShelfIn) -> m.RoutineOut:
    """409 with the shelf's text when someone else has saved since `revision`."""
    return routine_out(shelf.save(routine_id, save.text, save.revision), shelf)


@router.put("/routines/{routine_id}/standing")
def change_standing(routine_id: int, change: m.StandingIn, shelf: ShelfIn) -> m.RoutineOut:
    """Pins it, puts it away, gives it tags; neither its text nor its revision is touched."""
    standings = Standings(shelf.database)
    with shelf.database.transaction():
        routine = shelf.routine(routine_id)
        standings.put(routine_id, replace(standings.of(routine_id), **change.model_dump(exclude_none=True)))
    return routine_out(routine, shelf)


@router.delete("/routines/{routine_id}")
def remove_routine(routine_id: int, shelf: ShelfIn) -> m.Done:
    shelf.remove(routine_id)
    return m.Done(done=True)


@router.post("/routines/{routine_id}/bring-back")
def bring_back_routine(routine_id: int, shelf: ShelfIn) -> m.RoutineOut:
    return routine_out(shelf.bring_back(routine_id), shelf)


@router.get("/routines/{routine_id}/versions")
def list_versions(routine_id: int, shelf: ShelfIn) -> list[m.VersionOut]:
    return [_version_out(version) for version in shelf.versions(routine_id)]


@router.post("/routines/{routine_id}/versions", status_code=201)
def keep_version(routine_id: int, new: m.NewVersion, shelf: ShelfIn) -> m.VersionOut:
    return _version_out(shelf.keep_version(routine_id, new.name, new.reason, new.text))


@router.post("/routines/{routine_id}/versions/{number}/restore")
def restore_version(routine_id: int, number: int, at: m.RestoreVersion, shelf: ShelfIn) -> m.RoutineOut:
    return routine_out(shelf.restore_version(routine_id, number, at.revision), shelf)


@router.get("/settings")
def get_settings(shelf: ShelfIn) -> m.Settings:
    known = {name: value for name, value in shelf.settings().items() if name in m.Settings.model_fields}
    return m.Settings(**known)


@router.put("/settings")
def change_settings(settings: m.Settings, shelf: ShelfIn) -> m.Settings:
    shelf.change_settings(settings.model_dump())
    return settings


# The bench


@router.post("/read")
def read(text: m.TextIn) -> m.SheetOut:
    """How the text reads, line by line, without proving anything."""
    routine = read_routine(text.text)
    return m.SheetOut(
        title=routine.title,
        note=routine.note,
        lines=list(sheet_lines(routine)),
        faults=list(routine.faults),
        to_read=in_everyday_words(routine),
        blanks=list(blanks_of(routine)),
        numbers=list(numbers_of(routine)),
    )


@router.post("/suggest")
def suggest(at: m.SuggestIn) -> list[m.SuggestionOut]:
    """How the line at the cursor could go on; each suggestion is the whole line, without its margin."""
    rows = at.text.split("\n")
    typed = rows[at.line - 1][: at.column].lstrip() if at.line <= len(rows) else ""
    found = suggestions(typed, read_routine(at.text), at.line, _habits())
    return [m.SuggestionOut(text=s.text, family=s.family, summary=s.summary) for s in found]


@router.post("/prove")
async def prove(request: m.ProveIn, jobs: JobsIn) -> m.ProofOut:
    """The verdict over every path. 409 when a newer text took its place, 410 when cancelled."""
    return m.ProofOut.model_validate(await jobs.run(request.lane, request.job, "prove", {"text": request.text}))


@router.post("/find")
async def find(request: m.FindIn, jobs: JobsIn, shelf: ShelfIn) -> m.FoundOut:
    """What the shelf says of a text; it is kept for the next time the shelf is opened. 410 when cancelled."""
    proof = m.ProofOut.model_validate(await jobs.run("long", request.job, "prove", {"text": request.text}))
    await run_in_threadpool(keep_proof, shelf, request.text, proof)
    return found_of(proof)


@router.get("/glimpses/{routine_id}")
async def glimpse(routine_id: int, jobs: JobsIn, shelf: ShelfIn) -> m.GlimpseOut:
    """The ways of its card, small, for its row on the shelf; it is kept as long as the text stays."""
    text = shelf.routine(routine_id).text
    drawn = await run_in_threadpool(glimpse_kept, shelf, text)
    if drawn is None:
        drawn = m.GlimpseOut.model_validate(
            await jobs.run("long", f"glimpse {routine_id}", "glimpse", {"text": text})
        )
        await run_in_threadpool(keep_glimpse, shelf, text, drawn)
    return drawn


@router.post("/read-as")
async def read_as(request: m.ReadAsIn, jobs: JobsIn) -> ReadSheet:
    """How the lines outside the language can be read, the likeliest first, and what one has to ask."""
    return _READ.validate_python(await jobs.run("quick", request.job, "read", request.model_dump(exclude={"job"})))


@router.post("/notes-page")
async def read_notes(request: m.NotesPageIn, jobs: JobsIn) -> Page:
    """A page of notes, sentence by sentence, and the routine it makes."""
    return _PAGE.validate_python(await jobs.run("quick", request.job, "page", request.model_dump(exclude={"job"})))


@router.post("/play")
async def play(request: m.PlayIn, jobs: JobsIn) -> PlayOnTable:
    """One path, with the table after every line."""
    asked = request.model_dump(exclude={"job"})
    return _PLAY.validate_python(await jobs.run("quick", request.job, "play", asked))


@router.post("/ledger")
async def ledger(request: m.LedgerIn, jobs: JobsIn) -> m.LedgerOut:
    """Where a card is after each line, for the margin of the sheet."""
    asked = request.model_dump(exclude={"job"})
    return m.LedgerOut.model_validate(await jobs.run("quick", request.job, "ledger", asked))


@router.post("/by-hand")
async def by_hand(request: m.SecondOpinionIn, jobs: JobsIn) -> m.SecondOpinionOut:
    """What was told of a routine, held against the same routine played by hand, card by card. 409 when a newer one took its place."""
    asked = request.model_dump(mode="json", exclude={"job"})
    return m.SecondOpinionOut.model_validate(await jobs.run("witness", request.job, "by_hand", asked))


@router.post("/strands")
async def strands(request: m.AnalysisIn, jobs: JobsIn) -> m.StrandsOut:
    """All the ways the card travels, as edges between columns: a line each, or a time round of a repetition."""
    return m.StrandsOut.model_validate(await jobs.run("quick", request.job, "strands", {"text": request.text}))


@router.post("/notes")
async def notes(request: m.AnalysisIn, jobs: JobsIn) -> m.NotesOut:
    """What to remember, what shows, what was free, and what the routine needs."""
    return m.NotesOut.model_validate(await jobs.run("quick", request.job, "notes", {"text": request.text}))


@router.post("/odds")
async def odds(request: m.AnalysisIn, jobs: JobsIn) -> m.OddsOut:
    """The chances of the endings, of starting again and of the numbers asked for: exact, or sampled with an interval."""
    return m.OddsOut.model_validate(await jobs.run("long", request.job, "odds", {"text": request.text}))


@router.post("/explain")
async def explain(request: m.AnalysisIn, jobs: JobsIn) -> v.ExplainOut:
    """What each line does with the card, in sentences; where it lands, as formulas by case."""
    return v.ExplainOut.model_validate(await jobs.run("long", request.job, "explain", {"text": request.text}))


@router.post("/holds")
async def holds(request: m.AnalysisIn, jobs: JobsIn) -> v.HoldsOut:
    """For exactly which choices all claims hold, and the routine kept inside."""
    return v.HoldsOut.model_validate(await jobs.run("long", request.job, "holds", {"text": request.text}))


@router.post("/slips")
async def slips(request: m.AnalysisIn, jobs: JobsIn) -> v.SlipsOut:
    """Every plausible slip of handling and what comes of it, the worst first."""
    return v.SlipsOut.model_validate(await jobs.run("long", request.job, "slips", {"text": request.text}))


@router.post("/solve")
async def solve(request: v.SolveIn, jobs: JobsIn) -> v.SolveOut:
    """Every filling of the blanks with which all claims hold."""
    return v.SolveOut.model_validate(
        await jobs.run("long", request.job, "solve", request.model_dump(exclude={"job"}))
    )


@router.post("/sweep")
async def sweep(request: v.SweepIn, jobs: JobsIn) -> v.SweepOut:
    """The verdict for every number that might stand at one place, or at two."""
    return v.SweepOut.model_validate(
        await jobs.run("long", request.job, "sweep", request.model_dump(exclude={"job"}))
    )


@router.get("/jobs/{name}")
async def job_progress(name: str, jobs: JobsIn) -> m.JobOut:
    progress = jobs.progress(name)
    if progress is None:
        raise Unknown("there is no such search")
    return m.JobOut(progress=progress)


@router.post("/jobs/{name}/cancel")
async def cancel_job(name: str, jobs: JobsIn) -> m.Done:
    return m.Done(done=jobs.cancel(name))
