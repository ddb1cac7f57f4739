"""The HTTP server with a limit on how long the head of a request may take, so that nobody can hold it open."""

from __future__ import annotations

import asyncio
import socket
from typing import Any

import uvicorn
from uvicorn.protocols.http.h11_impl import H11Protocol

HEAD_SECONDS = 10.0
MOST_CONNECTIONS = 200


class PatientProtocol(H11Protocol):
    """Closes a connection that has begun a request and does not come to the end of its head in time."""

    _clock: asyncio.TimerHandle | None = None

    def connection_made(self, transport: Any) -> None:
        super().connection_made(transport)
        self._wait_for_head()

    def data_received(self, data: bytes) -> None:
        super().data_received(data)
        if self.cycle is not None and not self.cycle.response_complete:
            self._stop_waiting()
        elif self._clock is None:
            self._wait_for_head()

    def connection_lost(self, exc: Exception | None) -> None:
        self._stop_waiting()
        super().connection_lost(exc)

    def on_response_complete(self) -> None:
        super().on_response_complete()
        self._stop_waiting()  # from here on the server's own limit on idle connections holds

    def _wait_for_head(self) -> None:
        self._clock = self.loop.call_later(HEAD_SECONDS, self.transport.close)

    def _stop_waiting(self) -> None:
        if self._clock:
            self._clock.cancel()
            self._clock = None


def listener_at(port: int) -> socket.socket:
    """Takes connections of this machine only; 0 for any free port. Raises OSError where the port is taken.

    That it speaks TCP has to be said: asyncio then sends what is written at once. Else the second part of an answer
    waits up to 40 ms until the browser has acknowledged the first.
    """
    listener = socket.socket(socket.AF_INET, socket.SOCK_STREAM, socket.IPPROTO_TCP)
    listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listener.bind(("127.0.0.1", port))
    except OSError:
        listener.close()
        raise
    listener.listen(128)
    return listener


def config_for(app: Any) -> uvicorn.Config:
    """A search under way does not keep the server from ending."""
    return uvicorn.Config(
        app, log_level="warning", access_log=False, timeout_graceful_shutdown=1, http=PatientProtocol,
        limit_concurrency=MOST_CONNECTIONS,
    )  # fmt: skip
