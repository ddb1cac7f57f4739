"""The worker process: takes one request after another off a pipe, looks at a cancel flag while it works."""

from __future__ import annotations

import contextlib
import signal
from ctypes import c_longlong
from multiprocessing.connection import Connection
from typing import Any

from ..core.budget import Budget
from ..core.faults import Cancelled
from .entry import CANCELLED, DONE, FAILED, PROGRESS
from .tasks import TASKS

_WARM_UP = "Pack: 9 cards\nPlace A 2nd\nSpectator names a number n from 1 to 2\nDeal n cards from deck\n"
"""proved once before the first request, which would otherwise pay for the loading of everything"""


def work(pipe: Connection, cancel: c_longlong) -> None:
    """Serves requests (ticket, task, request, limits) until the pipe closes.

    Answers (ticket, DONE | CANCELLED | FAILED, value), with any number of (ticket, PROGRESS, text) before. A
    ticket is cancelled when `cancel` has reached its number.
    """
    TASKS["prove"]({"text": _WARM_UP}, Budget())
    signal.signal(signal.SIGINT, signal.SIG_IGN)  # the server stops its workers itself
    with contextlib.suppress(EOFError, BrokenPipeError):
        while True:
            ticket, task, request, limits = pipe.recv()
            pipe.send((ticket, *_answer(pipe, cancel, ticket, task, request, limits)))


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
    except Exception as error:  # an answer of its own: the worker lives on
        return FAILED, f"{type(error).__name__}: {error}"
