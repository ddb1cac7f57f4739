"""How a process begins, and what it owes to the one that started it: to end with it, to take no more memory than given,
and to let go first what is more urgent."""

from __future__ import annotations

import contextlib
import multiprocessing
import multiprocessing.connection
import os
import threading
from multiprocessing.context import ForkServerContext, SpawnContext

PRELOADED = f"{__package__}.warm"


def start_context() -> SpawnContext | ForkServerContext:
    """Not forked from the server, which has threads and locks, but from a process that has loaded everything once for all."""
    if "forkserver" not in multiprocessing.get_all_start_methods():
        return multiprocessing.get_context("spawn")
    context = multiprocessing.get_context("forkserver")
    context.set_forkserver_preload([PRELOADED])
    return context


def end_with_parent() -> None:
    """One that is killed tells nobody; who works for it must not go on without it."""
    threading.Thread(target=_end_with_parent, daemon=True).start()


def _end_with_parent() -> None:
    parent = multiprocessing.parent_process()
    if parent:
        multiprocessing.connection.wait([parent.sentinel])
        os._exit(0)


def give_way(steps: int) -> None:
    """Where cores are few, who is less urgent by so many steps waits for others. Not every system knows such a thing."""
    if steps and hasattr(os, "nice"):
        os.nice(steps)


def hold_at_most(megabytes: int) -> None:
    """What asks for more memory gets a MemoryError. Not every system knows such a limit."""
    try:
        import resource
    except ImportError:
        return
    with contextlib.suppress(ValueError, OSError):
        resource.setrlimit(resource.RLIMIT_DATA, (megabytes << 20, megabytes << 20))
