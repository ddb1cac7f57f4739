"""Where a worker process begins. The server itself need not load what only its workers use."""

from __future__ import annotations

from ctypes import c_longlong
from multiprocessing.connection import Connection
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from .workplace import Workplace


def work(pipe: Connection, cancel: c_longlong, megabytes: int, gives_way: int, workplace: Workplace) -> None:
    from . import warm  # noqa: F401  (loaded already where workers are forked from)
    from .worker import work as serve

    serve(pipe, cancel, megabytes, gives_way, workplace)
