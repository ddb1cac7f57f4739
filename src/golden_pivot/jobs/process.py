"""One worker process, as the server sees it."""

from __future__ import annotations

import atexit
from multiprocessing.process import BaseProcess
from typing import Any

from ..core.faults import PivotError
from .belonging import start_context
from .entry import work
from .workplace import Workplace


class Lost(PivotError):
    """The process ended without an answer."""


class Worker:
    """Takes one request at a time. `receive` blocks; it is for a thread."""

    def __init__(self, megabytes: int, gives_way: int, workplace: Workplace) -> None:
        """`megabytes` is all the memory it may ever hold; `gives_way` how much less urgent it is than the page, in steps."""
        self._given = megabytes, gives_way, workplace
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
        self._process = context.Process(target=work, args=(theirs, self._cancel, *self._given))
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
