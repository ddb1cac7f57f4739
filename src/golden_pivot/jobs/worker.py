"""The worker process: takes one request after another off a pipe, looks at a cancel flag while it works."""

from __future__ import annotations

import contextlib
import signal
from ctypes import c_longlong
from multiprocessing.connection import Connection
from typing import Any

from ..core.budget import Budget
from ..core.faults import Cancelled
from .belonging import end_with_parent, give_way, hold_at_most
from .messages import CANCELLED, DONE, FAILED, NO_MEMORY, PROGRESS
from .tasks import TASKS
from .workplace import ROOM, Workplace


def work(pipe: Connection, cancel: c_longlong, megabytes: int, gives_way: int, workplace: Workplace) -> None:
    """Serves requests (ticket, task, request, limits) until the pipe closes.

    Answers (ticket, DONE | CANCELLED | FAILED | NO_MEMORY, value), with any number of (ticket, PROGRESS, text) before.
    A ticket is cancelled when `cancel` has reached its number.
    """
    signal.signal(signal.SIGINT, signal.SIG_IGN)  # the server stops its workers itself
    end_with_parent()
    hold_at_most(megabytes)
    give_way(gives_way)
    with contextlib.suppress(EOFError, OSError):
        while True:
            ticket, task, request, limits = pipe.recv()
            pipe.send((ticket, *_answer(pipe, cancel, ticket, task, request, limits, workplace)))


def _answer(
    pipe: Connection, cancel: c_longlong, ticket: int, task: str, request: Any, limits: dict[str, Any],
    workplace: Workplace,
) -> tuple[str, Any]:  # fmt: skip
    try:
        with workplace.executor(limits["megabytes"] or ROOM) as executor:

            def tell(message: str) -> None:
                pipe.send((ticket, PROGRESS, f"{message} · {executor.where}" if executor.where else message))

            budget = Budget(**limits, cancelled=lambda: cancel.value >= ticket, progress=tell, executor=executor)
            return DONE, TASKS[task](request, budget)
    except Cancelled:
        return CANCELLED, None
    except MemoryError:
        return NO_MEMORY, None
    except Exception as error:  # an answer of its own: the worker lives on
        return FAILED, f"{type(error).__name__}: {error}"
