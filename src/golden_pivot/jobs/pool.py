"""Batches on several processes of this machine."""

from __future__ import annotations

import signal
from concurrent.futures import Future, ProcessPoolExecutor
from ctypes import c_longlong
from typing import Any

from .belonging import end_with_parent, hold_at_most, start_context
from .spread import Limits, answered


class Pool:
    """`megabytes` is all the memory that each process may ever hold."""

    def __init__(self, many: int, megabytes: int) -> None:
        self.many, self._megabytes = many, megabytes
        self.says = f"{many} processes"
        self._round = 1
        """of searches; what belongs to one that is over is not wanted any more"""
        self._start()

    def _start(self) -> None:
        context = start_context()
        self._over = context.RawValue("q", 0)
        self._pool = ProcessPoolExecutor(
            self.many, mp_context=context, initializer=_begin, initargs=(self._over, self._megabytes)
        )

    def replace_lost(self) -> None:
        self.close()
        self._start()

    def hand_out(self, batch: Any, shared: Any, piece: Any, limits: Limits) -> Future[tuple[bool, Any]]:
        return self._pool.submit(_work, self._round, batch, shared, piece, limits)

    def look(self) -> None:
        """A future of the pool fails by itself when a process is lost."""

    def stop(self) -> None:
        self._over.value = self._round
        self._round += 1

    def close(self) -> None:
        self._over.value = self._round
        self._pool.shutdown(wait=False, cancel_futures=True)


_over: c_longlong
"""the last round that is over, in a process of the pool"""


def _begin(over: c_longlong, megabytes: int) -> None:
    global _over
    _over = over
    signal.signal(signal.SIGINT, signal.SIG_IGN)  # who asks ends its pool itself
    end_with_parent()
    hold_at_most(megabytes)


def _work(search: int, batch: Any, shared: Any, piece: Any, limits: Limits) -> tuple[bool, Any]:
    return answered(batch, shared, piece, limits, lambda: _over.value >= search)
