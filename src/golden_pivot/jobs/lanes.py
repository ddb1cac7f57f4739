"""Two worker processes: one for the text being typed, where the newest request wins, and one for long work."""

from __future__ import annotations

import asyncio
import contextlib
import multiprocessing
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, field
from itertools import count
from typing import Any, Literal

from .entry import CANCELLED, DONE, FAILED, PROGRESS, work

GRACE = 0.5
"""seconds a worker has to notice that it is cancelled before it is ended"""

LaneName = Literal["interactive", "long"]
LIMITS: dict[LaneName, dict[str, Any]] = {
    "interactive": {"states": 400_000, "seconds": 10.0},
    "long": {"states": 3_000_000, "seconds": 120.0},
}


class Superseded(Exception):
    """A newer request took this one's place."""


class Gone(Exception):
    """The request was cancelled, or its worker was lost."""


@dataclass
class _Job:
    ticket: int
    name: str
    superseded: bool = False
    progress: str = "waiting"
    answered: asyncio.Event = field(default_factory=asyncio.Event)


class _Lane:
    def __init__(self, newest_wins: bool, limits: dict[str, Any], threads: ThreadPoolExecutor) -> None:
        self.newest_wins, self.limits, self.threads = newest_wins, limits, threads
        self.waiting: list[_Job] = []
        self.running: _Job | None = None
        self._turn = asyncio.Lock()
        self._tickets = count(1)
        self._watchers: set[asyncio.Task[None]] = set()
        self._spawn()

    def _spawn(self) -> None:
        # Spawned, not forked: a fork would inherit the server's threads and locks.
        context = multiprocessing.get_context("spawn")
        self._pipe, theirs = context.Pipe()
        self._cancel = context.RawValue("q", 0)
        self._process = context.Process(target=work, args=(theirs, self._cancel), daemon=True)
        self._process.start()
        theirs.close()

    async def run(self, name: str, task: str, request: dict[str, Any]) -> dict[str, Any]:
        job = _Job(next(self._tickets), name)
        if self.newest_wins:
            for older in [*self.waiting, *([self.running] if self.running else [])]:
                older.superseded = True
                self.cancel(older)
        self.waiting.append(job)
        try:
            async with self._turn:
                if job.answered.is_set():
                    raise Superseded if job.superseded else Gone
                self.running = job
                return await self._ask(job, task, request)
        finally:
            self.waiting.remove(job)
            if self.running is job:
                self.running = None
            job.answered.set()

    async def _ask(self, job: _Job, task: str, request: dict[str, Any]) -> dict[str, Any]:
        loop = asyncio.get_running_loop()
        try:
            self._pipe.send((job.ticket, task, request, self.limits))
            while True:
                ticket, what, value = await loop.run_in_executor(self.threads, self._pipe.recv)
                if ticket == job.ticket and what == PROGRESS:
                    job.progress = value
                elif ticket == job.ticket:
                    break
        except (EOFError, OSError):
            self._process.join(1)
            self._spawn()
            raise (Superseded if job.superseded else Gone) from None
        if what == DONE:
            answer: dict[str, Any] = value
            return answer
        if what == FAILED:
            raise RuntimeError(value)
        assert what == CANCELLED
        raise Superseded if job.superseded else Gone

    def cancel(self, job: _Job) -> None:
        if job is not self.running:
            job.answered.set()
            return
        self._cancel.value = max(self._cancel.value, job.ticket)
        watcher = asyncio.get_running_loop().create_task(self._end_if_deaf(job))
        self._watchers.add(watcher)
        watcher.add_done_callback(self._watchers.discard)

    async def _end_if_deaf(self, job: _Job) -> None:
        """A worker that does not see the flag in time is ended; the next request finds a fresh one."""
        with contextlib.suppress(TimeoutError):
            await asyncio.wait_for(job.answered.wait(), GRACE)
        if not job.answered.is_set() and self.running is job:
            self._process.kill()

    def close(self) -> None:
        self._process.kill()
        self._process.join(1)
        self._pipe.close()


class Jobs:
    """Must be made and used within one event loop."""

    def __init__(self) -> None:
        self._threads = ThreadPoolExecutor(max_workers=4, thread_name_prefix="lane")
        self._lanes: dict[LaneName, _Lane] = {
            "interactive": _Lane(True, LIMITS["interactive"], self._threads),
            "long": _Lane(False, LIMITS["long"], self._threads),
        }

    async def run(self, lane: LaneName, name: str, task: str, request: dict[str, Any]) -> dict[str, Any]:
        """The task's answer. Raises Superseded, Gone, or RuntimeError when the task itself broke."""
        return await self._lanes[lane].run(name, task, request)

    def progress(self, name: str) -> str | None:
        """How far a job is, in words; None when there is none of that name."""
        job = self._find(name)
        return job[1].progress if job else None

    def cancel(self, name: str) -> bool:
        """Whether there was such a job to cancel."""
        if found := self._find(name):
            found[0].cancel(found[1])
        return found is not None

    def _find(self, name: str) -> tuple[_Lane, _Job] | None:
        for lane in self._lanes.values():
            for job in lane.waiting:
                if job.name == name:
                    return lane, job
        return None

    def close(self) -> None:
        for lane in self._lanes.values():
            lane.close()
        self._threads.shutdown(wait=False, cancel_futures=True)
