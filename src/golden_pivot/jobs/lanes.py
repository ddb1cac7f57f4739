"""Worker processes in lanes: small questions never wait for large ones, and nothing grows without bound.

    interactive   the text being typed: in each window the newest request wins
    quick         what is drawn beside it: table, ledger, strands, notes
    long          whatever takes its time, one after the other
    witness       the second opinion on what was told, behind everything else; the newest of a window wins as well

Work ends when nobody waits for it any more: its window is gone, it was cancelled, or the server is. A worker that is
lost is replaced, and what it was asked is tried once more, since every task is a pure question.
"""

from __future__ import annotations

import asyncio
import contextlib
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, field
from itertools import count
from typing import Any, Literal

from ..core.faults import PivotError
from .messages import CANCELLED, DONE, FAILED, NO_MEMORY, PROGRESS
from .process import Lost, Worker
from .workplace import ROOM, Workplace

GRACE = 0.5
"""seconds a worker has to notice that it is cancelled before it is ended"""
OVERTIME = 20.0
"""seconds beyond the budget of a search until its worker is ended from outside"""
MOST_WAITING = 64
"""requests that wait in a lane; the next one is told to come back"""

LaneName = Literal["interactive", "quick", "long", "witness"]
LIMITS: dict[LaneName, dict[str, Any]] = {
    "interactive": {"states": 400_000, "seconds": 10.0, "megabytes": 768},
    "quick": {"states": 400_000, "seconds": 30.0, "megabytes": 768},
    "long": {"states": 3_000_000, "seconds": 120.0, "megabytes": 2560},
    "witness": {"states": 400_000, "seconds": 120.0, "megabytes": 768},
}
NEWEST_WINS: tuple[LaneName, ...] = ("interactive", "witness")
WORKERS: dict[LaneName, int] = {"interactive": 2, "quick": 2, "long": 2, "witness": 1}
"""at most; the second is started when the first is busy"""
GIVES_WAY: dict[LaneName, int] = {"interactive": 0, "quick": 10, "long": 15, "witness": 12}
"""steps of urgency: on a machine with few cores the verdict comes first, and a long search takes what is left"""


class Superseded(PivotError):
    """A newer request took this one's place."""


class Gone(PivotError):
    """The request was cancelled."""


class Busy(PivotError):
    """Too many wait already."""


class TooMuch(PivotError):
    """The search was ended from outside: it took more memory or time than it may, or broke its worker twice."""


@dataclass(eq=False)
class _Job:
    ticket: int
    name: str
    window: str
    worker: Worker | None = None
    """None while it waits"""
    running: asyncio.Future[dict[str, Any]] | None = None
    superseded: bool = False
    cancelled: bool = False
    too_long: bool = False
    progress: str = "waiting"
    answered: asyncio.Event = field(default_factory=asyncio.Event)


class _Lane:
    def __init__(self, name: LaneName, threads: ThreadPoolExecutor, workplace: Workplace) -> None:
        self.newest_wins, self.limits, self.threads = name in NEWEST_WINS, LIMITS[name], threads
        self._given = LIMITS[name]["megabytes"] + ROOM, GIVES_WAY[name], workplace
        self.jobs: list[_Job] = []
        """those that run and those that wait"""
        self._turns = asyncio.Semaphore(WORKERS[name])
        self._all: list[Worker] = []
        self._idle: list[Worker] = [self._new_worker()]
        self._tickets = count(1)
        self._watchers: set[asyncio.Task[None]] = set()

    def _new_worker(self) -> Worker:
        worker = Worker(*self._given)
        self._all.append(worker)
        return worker

    async def run(self, job: _Job, task: str, request: dict[str, Any]) -> dict[str, Any]:
        if sum(one.worker is None for one in self.jobs) >= MOST_WAITING:
            raise Busy
        if self.newest_wins:
            for older in [one for one in self.jobs if one.window == job.window]:
                older.superseded = True
                self.cancel(older)
        self.jobs.append(job)
        try:
            async with self._turns:
                self._still_wanted(job)
                with self._worker(job) as worker:
                    return await self._ask(worker, job, task, request)
        finally:
            self.jobs.remove(job)
            job.answered.set()

    @contextlib.contextmanager
    def _worker(self, job: _Job) -> Iterator[Worker]:
        job.worker = self._idle.pop() if self._idle else self._new_worker()
        try:
            yield job.worker
        finally:
            self._idle.append(job.worker)

    @staticmethod
    def _still_wanted(job: _Job) -> None:
        if job.cancelled:
            raise Superseded if job.superseded else Gone

    async def _ask(self, worker: Worker, job: _Job, task: str, request: dict[str, Any]) -> dict[str, Any]:
        for _ in range(2):
            job.ticket = next(self._tickets)
            clock = asyncio.get_running_loop().call_later(
                self.limits["seconds"] + OVERTIME, self._end_overdue, worker, job
            )
            try:
                what, value = await self._answer(worker, job, task, request)
            except Lost:
                worker.start()
                self._still_wanted(job)
                if job.too_long:
                    raise TooMuch("it went on for longer than it may") from None
                continue
            finally:
                clock.cancel()
            self._still_wanted(job)
            if what == DONE:
                answer: dict[str, Any] = value
                return answer
            if what == NO_MEMORY:
                raise TooMuch("it took more memory than it may")
            assert what in (FAILED, CANCELLED)
            raise RuntimeError(value)
        raise TooMuch("it broke its worker twice")

    async def _answer(self, worker: Worker, job: _Job, task: str, request: dict[str, Any]) -> tuple[str, Any]:
        loop = asyncio.get_running_loop()
        worker.send(job.ticket, task, request, self.limits)
        while True:
            ticket, what, value = await loop.run_in_executor(self.threads, worker.receive)
            if ticket == job.ticket and what == PROGRESS:
                job.progress = value
            elif ticket == job.ticket:
                return what, value

    @staticmethod
    def _end_overdue(worker: Worker, job: _Job) -> None:
        job.too_long = True
        worker.end()

    def cancel(self, job: _Job) -> None:
        job.cancelled = True
        if job.worker is None:
            if job.running:
                job.running.cancel()
            return
        job.worker.cancel(job.ticket)
        watcher = asyncio.get_running_loop().create_task(self._end_if_deaf(job))
        self._watchers.add(watcher)
        watcher.add_done_callback(self._watchers.discard)

    @staticmethod
    async def _end_if_deaf(job: _Job) -> None:
        """A worker that does not see the flag in time is ended; the next request finds a fresh one."""
        with contextlib.suppress(TimeoutError):
            await asyncio.wait_for(job.answered.wait(), GRACE)
        if not job.answered.is_set() and job.worker:
            job.worker.end()

    def close(self) -> None:
        for worker in self._all:
            worker.close()


class Jobs:
    """Must be made and used within one event loop."""

    def __init__(self, workplace: Workplace | None = None) -> None:
        """`workplace`: where the long lane’s searches are worked off. What is quick stays in its process."""
        self._threads = ThreadPoolExecutor(max_workers=sum(WORKERS.values()) + 2, thread_name_prefix="lane")
        alone, spread = Workplace(workers=1), workplace or Workplace()
        self._lanes: dict[LaneName, _Lane] = {
            name: _Lane(name, self._threads, spread if name == "long" else alone) for name in LIMITS
        }

    async def run(
        self, lane: LaneName, name: str, task: str, request: dict[str, Any], window: str = ""
    ) -> dict[str, Any]:
        """The task's answer. Raises Superseded, Gone, Busy, TooMuch, or RuntimeError when the task itself broke.

        Who stops waiting for it (by cancelling the coroutine) ends the work.
        """
        job = _Job(0, name, window)
        running = job.running = asyncio.ensure_future(self._lanes[lane].run(job, task, request))
        try:
            return await asyncio.shield(running)
        except asyncio.CancelledError:
            if job.cancelled and running.cancelled():  # while it waited for its turn
                raise (Superseded if job.superseded else Gone) from None
            self._lanes[lane].cancel(job)
            running.add_done_callback(lambda done: done.cancelled() or done.exception())
            raise

    def progress(self, name: str) -> str | None:
        """How far a job is, in words; None when there is none of that name."""
        return next((job.progress for _, job in self._find(name)), None)

    def cancel(self, name: str) -> bool:
        """Whether there was such a job to cancel."""
        found = list(self._find(name))
        for lane, job in found:
            lane.cancel(job)
        return bool(found)

    def _find(self, name: str) -> Iterator[tuple[_Lane, _Job]]:
        for lane in self._lanes.values():
            for job in lane.jobs:
                if job.name == name and name:
                    yield lane, job

    def close(self) -> None:
        for lane in self._lanes.values():
            lane.close()
        self._threads.shutdown(wait=False, cancel_futures=True)
