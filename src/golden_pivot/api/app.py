"""The application: API under /api, the built front end everywhere else."""

from __future__ import annotations

from collections.abc import AsyncIterator
from contextlib import asynccontextmanager, suppress
from pathlib import Path

from fastapi import FastAPI
from fastapi.responses import FileResponse, PlainTextResponse, Response
from starlette.exceptions import HTTPException

from .. import __version__
from ..jobs import Jobs
from ..jobs.workplace import Workplace
from ..store import Backups, Database, Findings, Shelf, ShelfTrouble
from .book_routes import router as book_router
from .desk_drill_routes import router as desk_drill_router
from .desk_routes import router as desk_router
from .errors import install_error_handlers
from .guard import Guard
from .keep_routes import router as keep_router
from .practice_routes import router as practice_router
from .programme_routes import router as programme_router
from .routes import router
from .show_routes import router as show_router
from .workplace_routes import router as workplace_router

ROUTERS = (
    router, desk_router, show_router, keep_router, book_router, programme_router, practice_router, desk_drill_router,
    workplace_router,
)  # fmt: skip
WEB = Path(__file__).parents[3] / "web" / "dist"


def create_app(database: Database, web: Path = WEB, workplace: Workplace | None = None) -> FastAPI:
    """The server over this shelf, which it closes. Worker processes start and end with the application's lifespan."""

    workplace = workplace or Workplace()

    @asynccontextmanager
    async def lifespan(app: FastAPI) -> AsyncIterator[None]:
        app.state.jobs = Jobs(workplace)
        with suppress(ShelfTrouble):  # whoever asks for the shelf is told
            Findings(database).keep_only(routine.text for routine in Shelf(database).routines())
        yield
        app.state.jobs.close()
        database.close()

    app = FastAPI(
        title="Golden Pivot",
        version=__version__,
        lifespan=lifespan,
        openapi_url="/api/openapi.json",
        docs_url=None,
        redoc_url=None,
    )
    app.state.shelf, app.state.database = Shelf(database), database
    app.state.backups = Backups(database) if database.path else None
    app.state.coming = {}
    app.state.workplace = workplace
    app.add_middleware(Guard)
    install_error_handlers(app)
    for part in ROUTERS:  # as they are: to include them is to build every route again for every application
        app.router.routes.extend(part.routes)

    @app.get("/api/{rest:path}", include_in_schema=False)
    async def no_such_address(rest: str) -> Response:
        raise HTTPException(404, f"There is nothing at /api/{rest}.")

    @app.get("/{path:path}", include_in_schema=False)
    async def front_end(path: str) -> Response:
        """A file of the front end, or its page, which knows all other addresses itself."""
        if "\0" in path:
            raise HTTPException(404, "There is nothing at this address.")
        file = (web / path).resolve()
        if path and file.is_file() and file.is_relative_to(web.resolve()):
            cached = "public, max-age=31536000, immutable" if path.startswith("assets/") else "no-cache"
            return FileResponse(file, headers={"cache-control": cached})
        if "." in path.rpartition("/")[2]:  # a file, not one of the pages
            raise HTTPException(404, f"There is no file /{path}.")
        page = web / "index.html"
        if not page.is_file():
            return PlainTextResponse("The front end is not built yet. Run: make setup", 503)
        return FileResponse(page, headers={"cache-control": "no-cache"})

    return app
