"""The book: entries, what a routine asks to be noted, one's own spectators, and the book as a table."""

from __future__ import annotations

from datetime import date
from typing import Annotated

from fastapi import APIRouter, Depends, Query
from fastapi.responses import Response
from pydantic import Field, TypeAdapter

from ..core.answers.questions import Pick, Question, picks_of, questions_of
from ..core.book.performance import Ending, Performance, checked
from ..core.book.spectators import OwnSpectators, SlipSeen, shown_of
from ..core.book.table_of_book import TableRow, read_json, read_table, table_text
from ..core.language.parser import read_routine
from ..core.variants.slips import slips_of
from ..store import Book, new_uid
from .asking import JobsIn
from .downloads import attachment
from .models import ERRORS, Done, Shape, Text
from .routes import ShelfIn

router = APIRouter(prefix="/api/book", responses=ERRORS)
_OWN = TypeAdapter(OwnSpectators)


def _book(shelf: ShelfIn) -> Book:
    return Book(shelf.database)


BookIn = Annotated[Book, Depends(_book)]


class HowItWent(Shape):
    """Of one routine that was shown."""

    ended: Ending = "as planned"
    chosen: dict[Text, int | Text] = Field(
        default={}, max_length=200, description="by choice: a number, or what it was in words"
    )
    slip: Text = ""
    minutes: float | None = None
    went: int | None = None
    note: Text = ""


class EntryIn(HowItWent):
    """What is written down; the text is the one that was played."""

    routine_id: int | None = Field(default=None, description="the routine on the shelf; its text unless one is given")
    text: Text | None = None
    played_on: Text = Field(max_length=40)
    occasion: Text = ""
    audience: Text = ""


class TableIn(Shape):
    text: Text = Field(max_length=900_000)


class WrittenOut(Shape):
    written: int


@router.get("")
def list_performances(
    book: BookIn, routine: Annotated[str | None, Query(description="its uid")] = None
) -> list[Performance]:
    """The last first."""
    return book.performances(routine)


def _entry(uid: str, new: EntryIn, shelf: ShelfIn, before: Performance | None = None) -> Performance:
    routine, title, text = (before.routine, before.title, before.text) if before else ("", "", "")
    if new.routine_id is not None:
        kept = shelf.routine(new.routine_id)
        routine, text = kept.uid, kept.text
    text = text if new.text is None else new.text
    if not before or text != before.text:
        title = read_routine(text).title or "Untitled"
    told = new.model_dump(exclude={"routine_id", "text"})
    return checked(Performance(uid, routine=routine, title=title, text=text, **told), date.today())


@router.post("", status_code=201)
def write_performance(new: EntryIn, book: BookIn, shelf: ShelfIn) -> Performance:
    """422 with the field where something cannot be so."""
    return book.write(_entry(new_uid(), new, shelf))


@router.put("/{uid}")
def change_performance(uid: str, new: EntryIn, book: BookIn, shelf: ShelfIn) -> Performance:
    """It keeps its text unless another is given."""
    return book.write(_entry(uid, new, shelf, book.performance(uid)))


@router.delete("/{uid}")
def strike_performance(uid: str, book: BookIn) -> Performance:
    """What it was, so that it can be put back."""
    return book.strike(uid)


@router.post("/put-back")
def put_back_performance(entry: Performance, book: BookIn) -> Done:
    return Done(done=book.take_in([checked(entry, date.today())]) == 1)


@router.get("/book.csv")
def export_table(book: BookIn) -> Response:
    return Response(
        table_text(book.performances()), media_type="text/csv; charset=utf-8", headers=attachment("book", "csv")
    )


@router.post("/coming")
def look_at_table(table: TableIn, shelf: ShelfIn) -> list[TableRow]:
    """Every row of a table, as an entry or with what is the matter; a book as JSON too. Nothing is written."""
    if table.text.lstrip("\ufeff \r\n\t").startswith("["):
        return read_json(table.text, date.today())
    titles = {read_routine(one.text).title: (one.uid, one.text) for one in reversed(shelf.routines())}
    return read_table(table.text, date.today(), titles.get, new_uid)


@router.post("/take-in")
def take_table_in(rows: list[Performance], book: BookIn) -> WrittenOut:
    """Entries that are not in the book yet, all or none."""
    return WrittenOut(written=book.take_in([checked(one, date.today()) for one in rows]))


@router.get("/questions/{routine_id}")
def list_questions(routine_id: int, shelf: ShelfIn) -> list[Question]:
    """The numbers that are chosen in a routine, so that they can be noted."""
    return list(questions_of(shelf.routine(routine_id).text))


@router.get("/picks/{routine_id}")
def list_picks(routine_id: int, shelf: ShelfIn) -> list[Pick]:
    """What else is chosen in it, with what may be chosen in words."""
    return list(picks_of(shelf.routine(routine_id).text))


@router.get("/slips/{routine_id}")
def list_slips(routine_id: int, shelf: ShelfIn, book: BookIn) -> list[SlipSeen]:
    """What can slip in a routine: what did so far, the most frequent first, and then what could, line by line."""
    routine = shelf.routine(routine_id)
    happened = {one.what: one for one in shown_of(book.performances(routine.uid)).slips}
    could = {
        what: SlipSeen(what, 0)
        for one in slips_of(routine.text)
        if (what := f"line {one.line}: {one.what}") not in happened
    }
    return [*happened.values(), *could.values()]


@router.get("/book.json")
def export_json(book: BookIn) -> Response:
    """The whole book as JSON, as it can be brought back."""
    whole = TypeAdapter(list[Performance]).dump_json(book.performances(), indent=1)
    return Response(whole, media_type="application/json", headers=attachment("book", "json"))


@router.get("/spectators/{routine_id}")
async def own_spectators(routine_id: int, shelf: ShelfIn, book: BookIn, jobs: JobsIn) -> OwnSpectators:
    """What spectators chose in it so far, against what is proved."""
    routine = shelf.routine(routine_id)
    asked = {
        "text": routine.text,
        "book": [TypeAdapter(Performance).dump_python(one) for one in book.performances(routine.uid)],
    }
    return _OWN.validate_python(await jobs.run("quick", "", "spectators", asked))
