"""The one place where errors become a status and the one JSON shape."""

from __future__ import annotations

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from starlette.exceptions import HTTPException

from ..core.language.printer import NotARoutine
from ..jobs import Gone, Superseded
from ..store import StaleRevision, Unknown
from .models import ErrorOut, RoutineOut


def _reply(status: int, message: str, where: str, expected: str, remedy: str, **more: object) -> JSONResponse:
    shape = ErrorOut(message=message, where=where, expected=expected, remedy=remedy)
    return JSONResponse({**shape.model_dump(), **more}, status)


def install_error_handlers(app: FastAPI) -> None:
    @app.exception_handler(Unknown)
    async def unknown(request: Request, error: Unknown) -> JSONResponse:
        return _reply(
            404, f"{error}.".capitalize(), request.url.path, "something that is on the shelf", "Go to the shelf."
        )

    @app.exception_handler(StaleRevision)
    async def stale(request: Request, error: StaleRevision) -> JSONResponse:
        from .routes import routine_out

        current: RoutineOut = routine_out(error.current)
        return _reply(
            409,
            "This routine was changed in another window.",
            request.url.path,
            f"revision {current.revision}",
            "Your text is kept here: take the other one, or save yours over it.",
            current=current.model_dump(),
        )

    @app.exception_handler(Superseded)
    async def superseded(request: Request, error: Superseded) -> JSONResponse:
        return _reply(409, "A newer text took its place.", request.url.path, "the newest text", "Nothing to do.")

    @app.exception_handler(Gone)
    async def gone(request: Request, error: Gone) -> JSONResponse:
        return _reply(
            410, "The search was stopped.", request.url.path, "a search that runs to its end", "Start it again."
        )

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

    @app.exception_handler(Exception)
    async def broken(request: Request, error: Exception) -> JSONResponse:
        return _reply(
            500,
            "The server broke here.",
            request.url.path,
            "no error",
            "Your text is safe. Try again; report it if it stays.",
        )
