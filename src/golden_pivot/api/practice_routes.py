"""Practice: drills and when they are due, rehearsals and what came of them."""

from __future__ import annotations

from dataclasses import asdict
from datetime import UTC, datetime
from typing import Annotated, Any

from fastapi import APIRouter, Depends
from fastapi.responses import Response
from pydantic import Field, field_validator

from ..core.practice.drills import Due
from ..core.practice.imagined import Habit
from ..core.practice.kept import Answer, BeatDone, Rehearsed
from ..core.practice.rehearsal import LineTime, Rehearsal
from ..core.practice.schedule import standings
from ..core.show.paces import Paces
from ..core.spreadsheet import csv_text
from ..store import Book, Practice
from .asking import JobsIn
from .models import ERRORS, Shape, Text
from .routes import ShelfIn, saved_as
from .show_routes import own_paces

router = APIRouter(prefix="/api/practice", responses=ERRORS)


def _practice(shelf: ShelfIn) -> Practice:
    return Practice(shelf.database)


PracticeIn = Annotated[Practice, Depends(_practice)]


class DrillOut(Shape):
    name: str
    says: str
    questions: int


class DrillsOut(Shape):
    drills: list[DrillOut]
    standing: list[Due] = Field(description="every question, the hardest first")
    due: list[tuple[str, str]] = Field(description="(drill, key) of what is to be asked now, in that order")


class AnswerIn(Shape):
    uid: str = Field(
        pattern="^[0-9a-f]{1,64}$", description="made where it is answered, so that it is written down once"
    )
    drill: Text = Field(max_length=40)
    question: Text = Field(max_length=2000)
    right: bool
    seconds: float = Field(ge=0, le=3600, allow_inf_nan=False)


class StandingOut(Shape):
    due: str
    asked: int
    right: int


class RehearseIn(Shape):
    habit: Habit = "evenly"
    seed: int = Field(ge=0, le=2**31)
    job: Text = ""


class RehearsalOut(Shape):
    rehearsal: Rehearsal | None = Field(description="null while the text has faults")


class RehearsedIn(Shape):
    uid: str = Field(pattern="^[0-9a-f]{1,64}$")
    level: Text = Field(max_length=40)
    habit: Text = Field(max_length=40)
    done: list[BeatDone] = Field(max_length=1000)
    finished: bool

    @field_validator("done")
    @classmethod
    def _takes_a_time(cls, done: list[BeatDone]) -> list[BeatDone]:
        if not all(0 <= one.seconds <= 3600 for one in done):  # what is no number is not between them either
            raise ValueError("seconds from 0 to 3,600")
        return done


class TimesOut(Shape):
    rehearsals: int
    last: str | None
    lines: list[LineTime]
    paces: Paces | None = Field(description="one’s own, as they were measured; null where nothing was")


class PractisedOut(Shape):
    """Of a routine on the shelf."""

    routine: int
    due: int = Field(description="questions that were asked before and are due now")
    last_rehearsed: str | None
    last_shown: str | None


@router.get("")
def practised(practice: PracticeIn, shelf: ShelfIn) -> list[PractisedOut]:
    """For the shelf: what is due, when it was last rehearsed, and when it was last shown."""
    now = datetime.now(UTC)
    answers: dict[str, list[Answer]] = {}
    for answer in practice.answers():
        answers.setdefault(answer.routine, []).append(answer)
    rehearsed: dict[str, str] = {}
    for one in practice.rehearsals():
        rehearsed[one.routine] = max(one.held_at, rehearsed.get(one.routine, ""))
    shown: dict[str, str] = {}
    for entry in Book(shelf.database).performances():
        shown[entry.routine] = max(entry.played_on, shown.get(entry.routine, ""))
    return [
        PractisedOut(
            routine=routine.id,
            due=sum(standing.due <= now for standing in standings(answers.get(routine.uid, ())).values()),
            last_rehearsed=rehearsed.get(routine.uid),
            last_shown=shown.get(routine.uid),
        )
        for routine in shelf.routines()
    ]


async def _drills(routine_id: int, practice: Practice, shelf: ShelfIn, jobs: JobsIn, job: str = "") -> DrillsOut:
    routine = shelf.routine(routine_id)
    asked = {
        "text": routine.text,
        "answers": [asdict(one) for one in practice.answers(routine.uid)],
        "now": datetime.now(UTC).isoformat(),
    }
    return DrillsOut.model_validate(await jobs.run("quick", job, "drills", asked))


@router.get("/{routine_id}/drills")
async def list_drills(routine_id: int, practice: PracticeIn, shelf: ShelfIn, jobs: JobsIn) -> DrillsOut:
    """Every question that the routine asks of the performer, and which are due."""
    return await _drills(routine_id, practice, shelf, jobs)


@router.get("/{routine_id}/drills.csv")
async def drills_file(routine_id: int, practice: PracticeIn, shelf: ShelfIn, jobs: JobsIn) -> Response:
    """Every question with its answer and how it stands, as a table."""
    found = drills_table(await _drills(routine_id, practice, shelf, jobs))
    return Response(
        found, media_type="text/csv; charset=utf-8", headers=saved_as(routine_id, "drills.csv", shelf)
    )  # fmt: skip


def drills_table(found: DrillsOut) -> str:
    rows: list[list[str | int | float]] = [
        [one.drill, one.question.known, one.question.asks, one.question.answer, one.question.rule, one.asked, one.right,
         "" if one.seconds is None else round(one.seconds, 1), one.due or ""]
        for one in found.standing
    ]  # fmt: skip
    head = ["drill", "known", "asks", "answer", "rule", "asked", "right", "seconds", "due"]
    return csv_text([head, *rows])


@router.post("/{routine_id}/answers", status_code=201)
def write_answer(routine_id: int, new: AnswerIn, practice: PracticeIn, shelf: ShelfIn) -> StandingOut:
    """Written down, once however often it is sent; when it is due again."""
    return written(practice, shelf.routine(routine_id).uid, new)


def written(practice: Practice, uid: str, new: AnswerIn) -> StandingOut:
    """`uid`: of the routine, or of what is learned from a desk."""
    answer = Answer(routine=uid, answered_at=datetime.now(UTC).isoformat(timespec="milliseconds"), **new.model_dump())
    practice.answered([answer])
    mine = [one for one in practice.answers(uid) if (one.drill, one.question) == (new.drill, new.question)]
    now = standings(mine)[new.drill, new.question]
    return StandingOut(due=now.due.isoformat(), asked=now.asked, right=now.right)


@router.post("/{routine_id}/rehearse")
async def rehearse(routine_id: int, asked: RehearseIn, shelf: ShelfIn, jobs: JobsIn) -> RehearsalOut:
    """A path of a spectator who is not there, as the performer sees and hears it."""
    routine = shelf.routine(routine_id)
    book: dict[str, list[int | str]] = {}
    for entry in Book(shelf.database).performances(routine.uid):
        for name, choice in entry.chosen.items():
            book.setdefault(name, []).append(choice)
    request: dict[str, Any] = {
        "text": routine.text, "habit": asked.habit, "seed": asked.seed, "book": book, "paces": own_paces(shelf)
    }  # fmt: skip
    return RehearsalOut.model_validate(await jobs.run("quick", asked.job, "rehearsal", request))


@router.put("/{routine_id}/rehearsals")
def write_rehearsal(routine_id: int, new: RehearsedIn, practice: PracticeIn, shelf: ShelfIn) -> Rehearsed:
    """What was done so far; sent after every beat, so that nothing is lost."""
    now = datetime.now(UTC).isoformat(timespec="milliseconds")
    told = new.model_dump(exclude={"done"})
    return practice.rehearse(
        Rehearsed(routine=shelf.routine(routine_id).uid, held_at=now, done=tuple(new.done), **told)
    )


@router.get("/{routine_id}/times")
async def times(routine_id: int, practice: PracticeIn, shelf: ShelfIn, jobs: JobsIn) -> TimesOut:
    """How long each line takes in rehearsal, and the paces that follow from it."""
    routine = shelf.routine(routine_id)
    held = practice.rehearsals(routine.uid)
    asked = {"text": routine.text, "rehearsals": [asdict(one) for one in held], "paces": own_paces(shelf)}
    found = await jobs.run("quick", "", "rehearsed", asked)
    return TimesOut.model_validate(
        {"rehearsals": len(held), "last": max((one.held_at for one in held), default=None), **found}
    )
