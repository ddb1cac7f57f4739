"""The one place where errors become a status and the one JSON shape."""

from __future__ import annotations

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from starlette.exceptions import HTTPException

from ..core.book.performance import BadEntry
from ..core.language.printer import NotARoutine
from ..jobs import Busy, Gone, Superseded, TooMuch
from ..library import NoSuchPrinciple
from ..store import NotAnArchive, ShelfTrouble, StaleProgramme, StaleRevision, Unknown
from ..store.trouble import FULL
from .models import ErrorOut, RoutineOut


def _reply(status: int, message: str, where: str, expected: str, remedy: str, **more: object) -> JSONResponse:
    shape = ErrorOut.model_validate(
        {"message": message, "where": where, "expected": expected, "remedy": remedy, **more}
    )
    return JSONResponse(shape.model_dump(exclude=None if shape.current else {"current"}), status)


def install_error_handlers(app: FastAPI) -> None:
    @app.exception_handler(Unknown)
    async def unknown(request: Request, error: Unknown) -> JSONResponse:
        return _reply(
            404, f"{error}.".capitalize(), request.url.path, "something that is on the shelf", "Go to the shelf."
        )

    @app.exception_handler(NoSuchPrinciple)
    async def no_principle(request: Request, error: NoSuchPrinciple) -> JSONResponse:
        return _reply(
            404, f"{error}.", request.url.path, "one of the library", "See /api/principles for all of them."
        )

    @app.exception_handler(StaleRevision)
    async def stale(request: Request, error: StaleRevision) -> JSONResponse:
        from .rows import routine_out

        current: RoutineOut = routine_out(error.current, request.app.state.shelf)
        return _reply(
            409,
            "This routine was changed in another window.",
            request.url.path,
            f"revision {current.revision}",
            "Your text is kept here: take the other one, or save yours over it.",
            current=current.model_dump(),
        )

    @app.exception_handler(StaleProgramme)
    async def stale_programme(request: Request, error: StaleProgramme) -> JSONResponse:
        return _reply(
            409, "This programme was changed in another window.", request.url.path, "the newest revision",
            "Yours is still here: open it again to see the other one.",
        )  # fmt: skip

    @app.exception_handler(Superseded)
    async def superseded(request: Request, error: Superseded) -> JSONResponse:
        return _reply(409, "A newer text took its place.", request.url.path, "the newest text", "Nothing to do.")

    @app.exception_handler(Gone)
    async def gone(request: Request, error: Gone) -> JSONResponse:
        return _reply(
            410, "The search was stopped.", request.url.path, "a search that runs to its end", "Start it again."
        )

    @app.exception_handler(Busy)
    async def busy(request: Request, error: Busy) -> JSONResponse:
        return _reply(
            503, "Too many searches wait already.", request.url.path, "fewer at once", "Stop one, or try again later."
        )

    @app.exception_handler(TooMuch)
    async def too_much(request: Request, error: TooMuch) -> JSONResponse:
        return _reply(
            503, f"The search was ended: {error}.", request.url.path, "a search within its limits", "Ask for less."
        )

    @app.exception_handler(ShelfTrouble)
    async def shelf_trouble(request: Request, error: ShelfTrouble) -> JSONResponse:
        status = 507 if error.kind == FULL else 503
        more = {"kind": error.kind, "saved": error.saved}
        return _reply(status, error.message, request.url.path, "a shelf that can be used", error.remedy, **more)

    @app.exception_handler(BadEntry)
    async def bad_entry(request: Request, error: BadEntry) -> JSONResponse:
        return _reply(422, error.message, error.field, "something that can have been", error.remedy)

    @app.exception_handler(NotAnArchive)
    async def not_an_archive(request: Request, error: NotAnArchive) -> JSONResponse:
        return _reply(
            422, f"This cannot be imported: {error}.", request.url.path, "an export of a shelf, or routines as text or JSON",
            "Nothing was changed. Choose another file.",
        )  # fmt: skip

    @app.exception_handler(NotARoutine)
    async def not_a_routine(request: Request, error: NotARoutine) -> JSONResponse:
        return _reply(
            422,
            f"{error}.",
            "document",
            "a routine in the JSON form",
            "See /api/routine.schema.json, or send the text.",
        )

    @app.exception_handler(RequestValidationError)
    async def malformed(request: Request, error: RequestValidationError) -> JSONResponse:
        first = error.errors()[0]
        where = ".".join(str(part) for part in first["loc"])
        return _reply(422, "The request is not in the right shape.", where, first["msg"], "See /api/openapi.json.")

    @app.exception_handler(HTTPException)
    async def refused(request: Request, error: HTTPException) -> JSONResponse:
        return _reply(
            error.status_code, str(error.detail), request.url.path, "an address of this API", "See /api/openapi.json."
        )
