"""One worker process, as the server sees it."""

from __future__ import annotations

import atexit
import multiprocessing
from multiprocessing.context import ForkServerContext, SpawnContext
from multiprocessing.process import BaseProcess
from typing import Any

from ..core.faults import PivotError
from .entry import work
from .workplace import Workplace

PRELOADED = f"{__package__}.warm"


class Lost(PivotError):
    """The process ended without an answer."""


def start_context() -> SpawnContext | ForkServerContext:
    """Not forked from the server, which has threads and locks, but from a process that has loaded everything once for all."""
    if "forkserver" not in multiprocessing.get_all_start_methods():
        return multiprocessing.get_context("spawn")
    context = multiprocessing.get_context("forkserver")
    context.set_forkserver_preload([PRELOADED])
    return context


class Worker:
    """Takes one request at a time. `receive` blocks; it is for a thread."""

    def __init__(self, megabytes: int, workplace: Workplace) -> None:
        """`megabytes` is all the memory it may ever hold."""
        self._megabytes, self._workplace = megabytes, workplace
        self._process: BaseProcess | None = None
        self.start()

    def start(self) -> None:
        """A fresh process, in the place of one that is lost."""
        if self._process:
            self.close()
        context = start_context()
        self._pipe, theirs = context.Pipe()
        self._cancel = context.RawValue("q", 0)
        # Not a daemon, which may have no processes of its own; it ends with this one all the same: see belonging.py.
        self._process = context.Process(target=work, args=(theirs, self._cancel, self._megabytes, self._workplace))
        self._process.start()
        atexit.register(self._process.kill)
        theirs.close()

    def send(self, ticket: int, task: str, request: dict[str, Any], limits: dict[str, Any]) -> None:
        try:
            self._pipe.send((ticket, task, request, limits))
        except OSError as error:
            raise Lost from error

    def receive(self) -> tuple[int, str, Any]:
        try:
            found: tuple[int, str, Any] = self._pipe.recv()
        except (EOFError, OSError) as error:
            raise Lost from error
        return found

    def cancel(self, ticket: int) -> None:
        """A word to the process; it looks for it now and then."""
        self._cancel.value = max(self._cancel.value, ticket)

    def end(self) -> None:
        """At once; whoever waits for an answer finds it lost."""
        assert self._process
        self._process.kill()

    def close(self) -> None:
        assert self._process
        self._process.kill()
        self._process.join(1)
        atexit.unregister(self._process.kill)
        self._pipe.close()
