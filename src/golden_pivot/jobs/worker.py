"""The worker process: takes one request after another off a pipe, looks at a cancel flag while it works."""

from __future__ import annotations

import contextlib
import multiprocessing
import multiprocessing.connection
import os
import signal
import threading
from ctypes import c_longlong
from multiprocessing.connection import Connection
from typing import Any

from ..core.budget import Budget
from ..core.faults import Cancelled
from .messages import CANCELLED, DONE, FAILED, NO_MEMORY, PROGRESS
from .tasks import TASKS


def work(pipe: Connection, cancel: c_longlong, megabytes: int) -> None:
    """Serves requests (ticket, task, request, limits) until the pipe closes.

    Answers (ticket, DONE | CANCELLED | FAILED | NO_MEMORY, value), with any number of (ticket, PROGRESS, text) before.
    A ticket is cancelled when `cancel` has reached its number.
    """
    signal.signal(signal.SIGINT, signal.SIG_IGN)  # the server stops its workers itself
    threading.Thread(target=_end_with_the_server, daemon=True).start()
    _hold_at_most(megabytes)
    with contextlib.suppress(EOFError, OSError):
        while True:
            ticket, task, request, limits = pipe.recv()
            pipe.send((ticket, *_answer(pipe, cancel, ticket, task, request, limits)))


def _end_with_the_server() -> None:
    """A server that is killed tells nobody; its workers must not go on without it."""
    parent = multiprocessing.parent_process()
    if parent:
        multiprocessing.connection.wait([parent.sentinel])
        os._exit(0)


def _hold_at_most(megabytes: int) -> None:
    """What asks for more memory gets a MemoryError. Not every system knows such a limit."""
    try:
        import resource
    except ImportError:
        return
    with contextlib.suppress(ValueError, OSError):
        resource.setrlimit(resource.RLIMIT_DATA, (megabytes << 20, megabytes << 20))


def _answer(
    pipe: Connection, cancel: c_longlong, ticket: int, task: str, request: Any, limits: dict[str, Any]
) -> tuple[str, Any]:
    budget = Budget(
        **limits,
        cancelled=lambda: cancel.value >= ticket,
        progress=lambda message: pipe.send((ticket, PROGRESS, message)),
    )
    try:
        return DONE, TASKS[task](request, budget)
    except Cancelled:
        return CANCELLED, None
    except MemoryError:
        return NO_MEMORY, None
    except Exception as error:  # an answer of its own: the worker lives on
        return FAILED, f"{type(error).__name__}: {error}"
