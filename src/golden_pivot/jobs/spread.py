"""An executor that hands batches to workers: processes of this machine, or those of a cluster.

What is done quickly is done here. Of the rest a few batches for each worker are under way at a time, and their answers
are given in order. Workers that are lost are replaced, and what they had is done again; where none can be had, the rest
is done here, and `where` says why.
"""

from __future__ import annotations

import time
from collections import deque
from collections.abc import Callable, Iterable, Iterator
from concurrent.futures import Future, wait
from itertools import islice
from typing import Any, NamedTuple, Protocol

from ..core.budget import Budget
from ..core.executor import IN_PROCESS
from ..core.faults import Cancelled, PivotError

HERE_FIRST = 0.3
"""seconds of a search that are not worth handing out"""
AHEAD = 2
"""batches under way for each worker"""
LOOK_EVERY = 0.1
"""seconds between two looks at the cancel flag"""
MISSED = 2.0
"""seconds without an answer until it is seen whether there are still workers"""
LATE = 10.0
"""seconds behind the end of its budget after which a batch is not waited for any longer"""
MOST_LOSSES = 2
"""times that workers are replaced in one search"""


class Limits(NamedTuple):
    """Of a batch, as they can be sent."""

    states: int | None
    transitions: int | None
    seconds: float | None
    megabytes: int | None


class Unavailable(PivotError, RuntimeError):
    """Workers cannot be had; in words."""


class Workers(Protocol):
    many: int
    says: str
    """who they are: `3 processes`"""

    def hand_out(self, batch: Any, shared: Any, piece: Any, limits: Limits) -> Future[tuple[bool, Any]]:
        """The batch under way; see `answered`. The future fails only when a worker is lost."""
        ...

    def look(self) -> None:
        """Called now and then while nothing comes. Raises Unavailable where nothing can come any more."""
        ...

    def stop(self) -> None:
        """What is under way is not wanted any more."""
        ...

    def replace_lost(self) -> None:
        """Raises Unavailable."""
        ...

    def close(self) -> None: ...


def answered(batch: Any, shared: Any, piece: Any, limits: Limits, stopped: Callable[[], bool]) -> tuple[bool, Any]:
    """In the worker: (whether it has an answer, the answer or what was raised)."""
    try:
        return True, batch(shared, piece, Budget(*limits, cancelled=stopped))
    except Exception as error:
        return False, error


class Spread:
    """`start` makes the workers, when they are first needed; it raises Unavailable."""

    def __init__(self, start: Callable[[], Workers]) -> None:
        self._start = start
        self._workers: Workers | None = None
        self.where, self.trouble = "", False

    def __enter__(self) -> Spread:
        return self

    def __exit__(self, *_: object) -> None:
        if self._workers:
            self._workers.close()

    def run(self, batch: Any, shared: Any, pieces: Iterable[Any], budget: Budget) -> Iterator[Any]:
        left, began = iter(pieces), time.perf_counter()
        for piece in left:
            yield batch(shared, piece, budget)
            if time.perf_counter() - began > HERE_FIRST:
                break
        first = next(left, None)
        if first is None:
            return
        rest = deque([first])
        try:
            self._workers = self._workers or self._start()
            self.where, self.trouble = self._workers.says, False
            yield from self._handed_out(self._workers, batch, shared, rest, left, budget)
        except Unavailable as trouble:
            self.where, self.trouble = str(trouble), True
        yield from IN_PROCESS.run(batch, shared, (*rest, *left), budget)

    def _handed_out(
        self, workers: Workers, batch: Any, shared: Any, rest: deque[Any], left: Iterator[Any], budget: Budget
    ) -> Iterator[Any]:
        """Takes pieces from `left` into `rest` and out of it when they are answered. Raises Unavailable, Cancelled."""
        under_way: deque[Future[tuple[bool, Any]]] = deque()
        losses = 0

        def hand_out(piece: Any) -> Future[tuple[bool, Any]]:
            limits = Limits(budget.states, budget.transitions, budget.seconds_left, budget.megabytes)
            return workers.hand_out(batch, shared, piece, limits)

        try:
            while True:
                while len(rest) < AHEAD * workers.many and (piece := next(left, _NONE)) is not _NONE:
                    rest.append(piece)
                if not rest:
                    return
                try:
                    for piece in islice(rest, len(under_way), None):
                        under_way.append(hand_out(piece))
                    is_answer, answer = self._awaited(under_way[0], workers, budget)
                except (Cancelled, Unavailable):
                    raise
                except Exception as lost:
                    losses += 1
                    under_way.clear()
                    if losses > MOST_LOSSES:
                        raise Unavailable(
                            f"here: workers were lost again and again ({type(lost).__name__})"
                        ) from lost
                    workers.replace_lost()
                    continue
                under_way.popleft()
                rest.popleft()
                if not is_answer:
                    raise answer
                yield answer
        finally:
            for future in under_way:
                future.cancel()
            workers.stop()

    @staticmethod
    def _awaited(future: Future[tuple[bool, Any]], workers: Workers, budget: Budget) -> tuple[bool, Any]:
        missed = 0.0
        while not wait([future], LOOK_EVERY).done:
            if budget.cancelled():
                raise Cancelled
            left = budget.seconds_left
            if left is not None and left < -LATE:
                raise TimeoutError
            missed += LOOK_EVERY
            if missed > MISSED:
                workers.look()
                missed = 0.0
        return future.result()


_NONE = object()
