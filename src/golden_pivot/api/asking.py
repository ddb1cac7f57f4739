"""Asking the workers on behalf of a request: whose window it is, and that the work ends when the window is gone."""

from __future__ import annotations

import asyncio
from typing import Annotated, Any

from fastapi import Depends, Header, Request

from ..jobs import Gone, Jobs, LaneName


class Asker:
    def __init__(self, request: Request, window: str) -> None:
        self._request, self._window = request, window
        self._jobs: Jobs = request.app.state.jobs

    async def run(self, lane: LaneName, name: str, task: str, asked: dict[str, Any]) -> dict[str, Any]:
        """As `Jobs.run`; the work is ended when nobody reads the reply any more."""
        work = asyncio.ensure_future(self._jobs.run(lane, name, task, asked, self._window))
        gone = asyncio.ensure_future(self._gone())
        try:
            await asyncio.wait({work, gone}, return_when=asyncio.FIRST_COMPLETED)
            if not work.done():
                raise Gone
            return work.result()
        finally:
            gone.cancel()
            work.cancel()
            work.add_done_callback(lambda done: done.cancelled() or done.exception())  # nobody else looks at it

    async def _gone(self) -> None:
        while (await self._request.receive())["type"] != "http.disconnect":
            pass

    def progress(self, name: str) -> str | None:
        return self._jobs.progress(name)

    def cancel(self, name: str) -> bool:
        return self._jobs.cancel(name)


def _asker(
    request: Request,
    window: Annotated[str, Header(alias="x-window", max_length=64, description="which window asks")] = "",
) -> Asker:
    return Asker(request, window)


JobsIn = Annotated[Asker, Depends(_asker)]
