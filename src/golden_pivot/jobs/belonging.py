"""What a process owes to the one that started it: to end with it, and to take no more memory than it was given."""

from __future__ import annotations

import contextlib
import multiprocessing
import multiprocessing.connection
import os
import threading


def end_with_parent() -> None:
    """One that is killed tells nobody; who works for it must not go on without it."""
    threading.Thread(target=_end_with_parent, daemon=True).start()


def _end_with_parent() -> None:
    parent = multiprocessing.parent_process()
    if parent:
        multiprocessing.connection.wait([parent.sentinel])
        os._exit(0)


def hold_at_most(megabytes: int) -> None:
    """What asks for more memory gets a MemoryError. Not every system knows such a limit."""
    try:
        import resource
    except ImportError:
        return
    with contextlib.suppress(ValueError, OSError):
        resource.setrlimit(resource.RLIMIT_DATA, (megabytes << 20, megabytes << 20))
