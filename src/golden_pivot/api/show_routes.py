"""From the bench to the show: sheets on the screen and as files, costs, two versions side by side."""

from __future__ import annotations

import base64
from typing import Annotated, Any, Literal

from fastapi import APIRouter, Query
from fastapi.responses import Response
from pydantic import Field, TypeAdapter

from ..core.show.compare import Comparison
from ..core.show.costs import Costs
from ..core.show.exposure import THICK
from ..core.show.requests import filled_in
from ..core.show.schools import School
from ..sheets.document import Document
from .asking import JobsIn
from .models import ERRORS, Shape, Text, TextIn
from .routes import ShelfIn, get_settings, saved_as

router = APIRouter(prefix="/api", responses=ERRORS)

_DOCUMENT, _COMPARISON = TypeAdapter(Document), TypeAdapter(Comparison)

Kind = Literal["setup", "cues", "reset"]


class SheetIn(Shape):
    text: Text
    kind: Kind
    job: Text = ""


class SurfaceIn(Shape):
    """Lengths in millimetres."""

    size: Literal["poker", "bridge"] = "poker"
    overlap: float = Field(default=0.0, ge=0, le=0.9, description="how much of a card its neighbour in a row covers")
    table: float = Field(default=600.0, ge=100, le=5000, description="width of the table")
    depth: float = Field(default=400.0, ge=90, le=3000, description="depth of the table that is free in front of you")
    rows: int = Field(default=1, ge=1, le=6, description="heaps and cards go on in the next row")


class CostsIn(Shape):
    text: Text
    surface: SurfaceIn = SurfaceIn()
    thick: int = Field(default=THICK, ge=2, le=120, description="cards from which a packet off the table looks thick")
    job: Text = ""


class CostsOut(Shape):
    costs: Costs | None = Field(description="null while the text has faults, or where it takes too long")


class SchoolsIn(Shape):
    text: Text
    job: Text = ""


class SchoolsOut(Shape):
    schools: list[School] | None = Field(description="null while the text has faults")


class PatterOut(Shape):
    text: str


class CompareIn(Shape):
    text: Text
    other: Text
    job: Text = ""


def own_paces(shelf: ShelfIn) -> dict[str, Any]:
    return get_settings(shelf).paces.model_dump()


@router.post("/sheet")
async def sheet(asked: SheetIn, jobs: JobsIn, shelf: ShelfIn) -> Document:
    """A sheet as plain parts, for the screen."""
    request = {**asked.model_dump(exclude={"job"}), "paces": own_paces(shelf)}
    return _DOCUMENT.validate_python(await jobs.run("long", asked.job, "sheet", request))


@router.get("/routines/{routine_id}/sheets/{kind}.{form}")
async def sheet_file(
    routine_id: int, kind: Kind, form: Literal["md", "pdf"], jobs: JobsIn, shelf: ShelfIn,
    size: Annotated[Literal["page", "letter", "pocket"], Query(description="A4, Letter, or A6 for the pocket")] = "page",
) -> Response:  # fmt: skip
    """A sheet of what the shelf has, as a file."""
    request = {
        "text": shelf.routine(routine_id).text,
        "kind": kind,
        "format": form,
        "size": size,
        "paces": own_paces(shelf),
    }
    content = base64.b64decode((await jobs.run("long", "", "sheet_file", request))["file"])
    media = "application/pdf" if form == "pdf" else "text/markdown; charset=utf-8"
    return Response(content, media_type=media, headers=saved_as(routine_id, f"{kind}.{form}", shelf))


@router.post("/costs")
async def costs(asked: CostsIn, jobs: JobsIn, shelf: ShelfIn) -> CostsOut:
    """What a routine costs, what shows when, whether it fits on the table, and what is said that is not so."""
    request = {**asked.model_dump(exclude={"job"}), "paces": own_paces(shelf)}
    return CostsOut.model_validate(await jobs.run("long", asked.job, "costs", request))


@router.post("/patter")
def patter(asked: TextIn) -> PatterOut:
    """The routine with a line of patter wherever something can be said and is not."""
    return PatterOut(text=filled_in(asked.text))


@router.post("/schools")
async def schools(asked: SchoolsIn, jobs: JobsIn) -> SchoolsOut:
    """The routine as performers of other habits would do it, each proved."""
    return SchoolsOut.model_validate(await jobs.run("long", asked.job, "schools", {"text": asked.text}))


@router.post("/compare")
async def compare(asked: CompareIn, jobs: JobsIn, shelf: ShelfIn) -> Comparison:
    """Two texts line by line, with their verdicts, effort and slips."""
    request = {**asked.model_dump(exclude={"job"}), "paces": own_paces(shelf)}
    return _COMPARISON.validate_python(await jobs.run("long", asked.job, "compare", request))
