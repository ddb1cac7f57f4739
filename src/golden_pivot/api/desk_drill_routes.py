"""What is learned from a desk: what was asked there is kept, and its questions are asked as those of a routine are."""

from __future__ import annotations

import json
from dataclasses import asdict
from datetime import UTC, datetime
from typing import Any

from fastapi import APIRouter
from fastapi.responses import Response
from pydantic import Field, TypeAdapter, ValidationError
from starlette.exceptions import HTTPException

from ..core.book.performance import mark
from ..core.desks import DESKS
from ..core.practice.drills import Drill, as_they_stand, now_due
from ..core.practice.kept import DeskDrill
from ..core.practice.schedule import standings
from ..core.to_learn import DrillQuestion
from ..store import Practice, new_uid
from ..store.practice import desk_drill_of
from .asking import JobsIn
from .downloads import attachment
from .models import ERRORS, Done, Shape, Text
from .practice_routes import AnswerIn, DrillOut, DrillsOut, PracticeIn, StandingOut, drills_table, written

router = APIRouter(prefix="/api/practice/desks", responses=ERRORS)


class DeskDrillIn(Shape):
    desk: Text = Field(max_length=40)
    title: Text = Field(default="", max_length=120)
    asks: dict[Text, Any] = Field(description="as the desk is asked; what is left out is as the desk opens")


class DeskDrillOut(Shape):
    """What is learned, and how much of it is due."""

    drill: DeskDrill
    due: int


@router.get("")
def list_desk_drills(practice: PracticeIn) -> list[DeskDrillOut]:
    return [_with_due(one, practice) for one in practice.desk_drills()]


def _with_due(one: DeskDrill, practice: Practice) -> DeskDrillOut:
    now = datetime.now(UTC)
    return DeskDrillOut(
        drill=one, due=sum(standing.due <= now for standing in standings(practice.answers(one.uid)).values())
    )


@router.post("", status_code=201)
async def learn_from_desk(new: DeskDrillIn, practice: PracticeIn, jobs: JobsIn) -> DeskDrillOut:
    """Kept, once however often it is sent. 422 where nothing has to be known by heart."""
    if new.desk not in DESKS:
        raise HTTPException(422, f"There is no desk called {new.desk}. There are: {', '.join(DESKS)}.")
    kind: TypeAdapter[Any] = TypeAdapter(DESKS[new.desk].asks)
    try:
        asks = json.dumps(kind.dump_python(kind.validate_python(new.asks)), ensure_ascii=False, sort_keys=True)
    except ValidationError as error:
        raise HTTPException(422, f"This is not what the desk is asked: {error.errors()[0]['msg']}.") from None
    kept = next((one for one in practice.desk_drills() if (one.desk, one.asks) == (new.desk, asks)), None)
    if kept is None:
        found = await jobs.run("long", "", "to_learn", {"desk": new.desk, "asks": json.loads(asks)})
        questions = TypeAdapter(tuple[DrillQuestion, ...]).validate_python(found["questions"])
        if not questions:
            raise HTTPException(422, "Nothing in this answer has to be known by heart. Let the desk find one first.")
        at = datetime.now(UTC).isoformat(timespec="milliseconds")
        kept = DeskDrill(new_uid(), new.desk, new.title.strip() or DESKS[new.desk].title, asks, questions, at)
        practice.keep([kept])
    return _with_due(kept, practice)


@router.post("/put-back")
def put_back_desk_drill(gone: DeskDrill, practice: PracticeIn) -> Done:
    """What was dropped, with the answers that were given to it."""
    try:
        return Done(done=practice.keep([desk_drill_of({**asdict(gone), "uid": mark(gone.uid)})]) == 1)
    except ValueError:
        raise HTTPException(422, "This is nothing that was learned from a desk.") from None


@router.delete("/{uid}")
def drop_desk_drill(uid: str, practice: PracticeIn) -> DeskDrill:
    """What it was, so that it can be put back; its answers stay."""
    return practice.drop(uid)


def _drills(one: DeskDrill, practice: Practice) -> DrillsOut:
    desk = DESKS.get(one.desk)
    drill = Drill(one.desk, desk.about if desk else "", one.questions)
    standing = as_they_stand([drill], practice.answers(one.uid))
    due = [(each.drill, each.question.key) for each in now_due(standing, datetime.now(UTC))]
    told = DrillOut(name=drill.name, says=drill.says, questions=len(drill.questions))
    return DrillsOut(drills=[told], standing=list(standing), due=due)


@router.get("/{uid}/drills")
def list_desk_questions(uid: str, practice: PracticeIn) -> DrillsOut:
    """Every question that followed from the answer of the desk, and which are due."""
    return _drills(practice.desk_drill(uid), practice)


@router.get("/{uid}/drills.csv")
def desk_drills_file(uid: str, practice: PracticeIn) -> Response:
    """The same as a table."""
    one = practice.desk_drill(uid)
    table = drills_table(_drills(one, practice))
    return Response(table, media_type="text/csv; charset=utf-8", headers=attachment(f"{one.title} drills", "csv"))


@router.post("/{uid}/answers", status_code=201)
def write_desk_answer(uid: str, new: AnswerIn, practice: PracticeIn) -> StandingOut:
    """Written down, once however often it is sent; when it is due again."""
    return written(practice, practice.desk_drill(uid).uid, new)
