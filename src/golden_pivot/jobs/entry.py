"""Where a worker process begins. The server itself need not load what only its workers use."""

from __future__ import annotations

from ctypes import c_longlong
from multiprocessing.connection import Connection

DONE, PROGRESS, CANCELLED, FAILED, NO_MEMORY = "done", "progress", "cancelled", "failed", "no memory"
"""what a worker tells about a request"""


def work(pipe: Connection, cancel: c_longlong, megabytes: int) -> None:
    from .worker import work as serve

    serve(pipe, cancel, megabytes)
