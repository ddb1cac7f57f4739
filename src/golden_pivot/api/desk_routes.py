"""The desks: one resource each, made from its declaration, and what they show as files."""

from __future__ import annotations

import json
from collections.abc import Awaitable, Callable
from typing import Annotated, Any, Literal

from fastapi import APIRouter, Query
from fastapi.responses import Response
from pydantic import Field, TypeAdapter, ValidationError, create_model
from starlette.exceptions import HTTPException

from ..core.desks import DESKS, Desk
from ..core.desks.sending import sent
from .asking import Asker, JobsIn
from .downloads import table_csv
from .models import ERRORS, Shape, Text

router = APIRouter(prefix="/api/desks", responses=ERRORS)


class TroubleOut(Shape):
    """What was asked makes no sense: in which field, what is the matter, what to do."""

    field: str
    message: str
    remedy: str


class TableOut(Shape):
    name: str
    head: list[str]
    rows: list[list[str | int | float]]


class SendIn(Shape):
    label: Text = ""
    setup: list[Text] = Field([])
    handling: list[Text] = Field([])
    ending: list[Text] = Field([])


class SentIn(Shape):
    text: Text
    send: SendIn


class SentOut(Shape):
    text: str


class DeskOut(Shape):
    name: str
    title: str
    about: str
    asks: dict[str, Any]
    """its fields as the desk opens"""
    fields: dict[str, str]
    """what each is, in words"""
    can_be_learned: bool
    """its answers have something that a performer has to know by heart"""


@router.get("")
async def list_desks() -> list[DeskOut]:
    """The six desks, with what each opens on."""
    return OPENING


OPENING = [
    DeskOut(
        name=desk.name,
        title=desk.title,
        about=desk.about,
        asks=TypeAdapter(desk.asks).dump_python(desk.asks()),
        fields={name: str(one.metadata.get("description", "")) for name, one in desk.fields.items()},
        can_be_learned=desk.to_learn is not None,
    )
    for desk in DESKS.values()
]


@router.post("/send")
def send(asked: SentIn) -> SentOut:
    """The routine with a result of a desk written into it. Nothing of what it has is lost."""
    from ..core.desks import Send

    wanted = asked.send
    return SentOut(
        text=sent(asked.text, Send(wanted.label, tuple(wanted.setup), tuple(wanted.handling), tuple(wanted.ending)))
    )


def _resource(desk: Desk) -> None:
    """POST /api/desks/{name}, typed by what this desk asks and answers."""
    word = desk.name.capitalize()
    asked: dict[str, Any] = {
        "asks": (desk.asks, ...),
        "job": (Text, ""),
        "lane": (Literal["interactive", "long"], "interactive"),
    }
    told: dict[str, Any] = {
        "answer": (desk.answers | None, ...),
        "tables": (list[TableOut], ...),
        "picture": (str | None, ...),
        "trouble": (TroubleOut | None, ...),
    }
    body = create_model(f"{word}In", __base__=Shape, **asked)
    reply = create_model(f"{word}Out", __base__=Shape, **told)

    async def ask(request: Any, jobs: JobsIn) -> Any:
        asks = TypeAdapter(desk.asks).dump_python(request.asks)
        answered = await jobs.run(request.lane, request.job, "desk", {"desk": desk.name, "asks": asks})
        return reply.model_validate(answered)

    ask.__annotations__ |= {"request": body, "return": reply}
    ask.__doc__ = desk.about
    router.add_api_route(f"/{desk.name}", ask, methods=["POST"], response_model=reply, name=f"desk {desk.name}")


for _desk in DESKS.values():
    _resource(_desk)


async def _answered(name: str, asks: str, jobs: Asker) -> dict[str, Any]:
    """The whole reply of a desk for what is asked as JSON. 404 without such a desk, 422 for what makes no sense."""
    if name not in DESKS:
        raise HTTPException(404, f"There is no desk called {name}. There are: {', '.join(DESKS)}.")
    desk = DESKS[name]
    try:
        plain = TypeAdapter(desk.asks).dump_python(TypeAdapter(desk.asks).validate_json(asks or "{}"))
    except ValidationError as error:
        raise HTTPException(422, f"This is not what the desk is asked: {error.errors()[0]['msg']}.") from None
    answered = await jobs.run("long", "", "desk", {"desk": name, "asks": plain})
    if trouble := answered["trouble"]:
        raise HTTPException(422, f"{trouble['message']} {trouble['remedy']}")
    return answered


AsksIn = Annotated[str, Query(description="what is asked, as JSON; what is left out is as the desk opens")]
FileOut = Callable[..., Awaitable[Response]]


@router.get("/{name}/table.csv")
async def table_file(name: str, jobs: JobsIn, asks: AsksIn = "{}", table: int = 0) -> Response:
    """One of the tables of an answer, the first unless another is asked for by its number from 0."""
    tables = (await _answered(name, asks, jobs))["tables"]
    if not 0 <= table < len(tables):
        raise HTTPException(404, f"There is no table {table}; this answer has {len(tables)}.")
    return _file(table_csv(tables[table]), "text/csv; charset=utf-8", f"{name}.csv")


@router.get("/{name}/picture.svg")
async def picture_file(name: str, jobs: JobsIn, asks: AsksIn = "{}") -> Response:
    """The picture of an answer."""
    picture = (await _answered(name, asks, jobs))["picture"]
    if picture is None:
        raise HTTPException(404, "This answer has no picture.")
    return _file(picture, "image/svg+xml", f"{name}.svg")


@router.get("/{name}/answer.json")
async def answer_file(name: str, jobs: JobsIn, asks: AsksIn = "{}") -> Response:
    """The whole answer."""
    answer = (await _answered(name, asks, jobs))["answer"]
    return _file(json.dumps(answer, ensure_ascii=False, indent=2), "application/json", f"{name}.json")


def _file(text: str, kind: str, name: str) -> Response:
    return Response(text, media_type=kind, headers={"content-disposition": f'attachment; filename="{name}"'})
