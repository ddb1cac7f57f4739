"""Workers: bounded in number, time and memory; ended with their client and their server; small things never wait."""

from __future__ import annotations

import asyncio
import contextlib
import http.client
import json
import os
import signal
import time
from collections.abc import Awaitable, Callable
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any
from urllib.parse import urlsplit

import pytest

from golden_pivot.jobs import Busy, Gone, Jobs, Superseded, TooMuch, lanes
from tests.api.test_shelf import _progress, ask, refusal
from tests.browser.driving import server
from tests.core.test_prover import EXPLODING

SMALL = {"text": "Pack: 9 cards\nPlace A 2nd"}
HEAVY = {"text": EXPLODING}


def with_jobs(play: Callable[[Jobs], Awaitable[None]]) -> None:
    async def whole() -> None:
        jobs = Jobs()
        try:
            await play(jobs)
        finally:
            jobs.close()

    asyncio.run(whole())


def without_end(jobs: Jobs) -> None:
    """Searches that end only when they are ended."""
    for lane in jobs._lanes.values():
        lane.limits = {"states": None, "seconds": 10_000.0, "megabytes": None}


async def _running(jobs: Jobs, name: str) -> None:
    while "states" not in (jobs.progress(name) or ""):
        await asyncio.sleep(0.02)


def test_each_window_proves_for_itself() -> None:
    async def play(jobs: Jobs) -> None:
        without_end(jobs)
        one = asyncio.ensure_future(jobs.run("interactive", "a", "prove", HEAVY, "window 1"))
        await _running(jobs, "a")
        assert (await jobs.run("interactive", "b", "prove", SMALL, "window 2"))["verdict"]["verdict"] == "fixed"
        assert not one.done()
        assert (await jobs.run("interactive", "c", "prove", SMALL, "window 1"))["verdict"]["verdict"] == "fixed"
        with pytest.raises(Superseded):
            await one

    with_jobs(play)


def test_small_things_do_not_wait_for_large_ones_and_a_queue_has_an_end(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(lanes, "MOST_WAITING", 3)

    async def play(jobs: Jobs) -> None:
        without_end(jobs)
        heavy = [asyncio.ensure_future(jobs.run("long", f"h{n}", "prove", HEAVY)) for n in range(2)]
        await _running(jobs, "h0")
        await _running(jobs, "h1")
        waiting = [asyncio.ensure_future(jobs.run("long", f"w{n}", "prove", SMALL)) for n in range(3)]
        await asyncio.sleep(0)
        with pytest.raises(Busy):
            await jobs.run("long", "one more", "prove", SMALL)
        assert (await jobs.run("quick", "", "ledger", SMALL))["card"] == "A"
        assert not any(one.done() for one in (*heavy, *waiting))
        assert jobs.cancel("w0")  # it need not come to its turn
        with pytest.raises(Gone):
            await waiting[0]
        for one in heavy:
            one.cancel()  # nobody waits for these any more: the others come to their turn
        for answer in await asyncio.gather(*waiting[1:]):
            assert answer["verdict"]["verdict"] == "fixed"

    with_jobs(play)


def test_the_verdict_comes_before_what_takes_its_time_where_cores_are_few() -> None:
    async def play(jobs: Jobs) -> None:
        urgency = []
        for lane in ("interactive", "quick", "long"):
            await jobs.run(lane, "", "prove", SMALL)  # by then it has begun
            (worker,) = jobs._lanes[lane]._all
            assert worker._process and worker._process.pid
            urgency.append(os.getpriority(os.PRIO_PROCESS, worker._process.pid))
        own, least = os.getpriority(os.PRIO_PROCESS, 0), 19
        assert urgency[0] == own and urgency == sorted(urgency) and (urgency[-1] > own or own == least)

    with_jobs(play)


def test_a_lost_worker_is_replaced_and_the_question_tried_once_more() -> None:
    async def play(jobs: Jobs) -> None:
        lane = jobs._lanes["quick"]
        (worker,) = lane._all
        assert worker._process and worker._process.pid
        os.kill(worker._process.pid, signal.SIGKILL)
        assert (await jobs.run("quick", "", "ledger", SMALL))["card"] == "A"

    with_jobs(play)


def test_a_search_beyond_its_memory_or_time_is_ended(monkeypatch: pytest.MonkeyPatch) -> None:
    async def memory(jobs: Jobs) -> None:
        without_end(jobs)
        with pytest.raises(TooMuch, match="memory"):
            await jobs.run("long", "large", "prove", HEAVY)
        # The worker, or its successor, goes on.
        assert (await jobs.run("long", "", "prove", SMALL))["verdict"]["verdict"] == "fixed"

    async def overdue(jobs: Jobs) -> None:
        without_end(jobs)
        monkeypatch.setattr(lanes, "OVERTIME", -9_998.0)
        with pytest.raises(TooMuch):
            await jobs.run("long", "long", "prove", HEAVY)

    monkeypatch.setattr(lanes, "ROOM", 160 - lanes.LIMITS["long"]["megabytes"])
    with_jobs(memory)
    monkeypatch.setattr(lanes, "ROOM", 2000)
    with_jobs(overdue)


def processes_below(pid: int) -> list[int]:
    """Children, and theirs."""
    parents = {}
    for stat in Path("/proc").glob("[0-9]*/stat"):
        with contextlib.suppress(OSError):
            parents[int(stat.parent.name)] = int(stat.read_text().rpartition(")")[2].split()[1])
    found = [pid]
    for one in found:
        found += [child for child, parent in parents.items() if parent == one]
    return found[1:]


def is_alive(pid: int) -> bool:
    try:
        return Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()[0] != "Z"
    except OSError:
        return False


def test_workers_end_with_a_server_that_is_killed(tmp_path: Path) -> None:
    with server(tmp_path / "shelf.sqlite3", demo=False) as (address, process), ThreadPoolExecutor() as pool:
        for lane in ("interactive", "long"):
            pool.submit(_ignored, address, {**HEAVY, "job": lane, "lane": lane})
            while "states" not in _progress(address, lane):
                time.sleep(0.05)
        workers = processes_below(process.pid)
        assert len(workers) >= 3  # the two, and the one they are forked from
        process.kill()
        while any(map(is_alive, workers)):  # no limit of ours: the test run has one
            time.sleep(0.05)


def _ignored(address: str, body: dict[str, Any]) -> None:
    with contextlib.suppress(OSError, http.client.HTTPException):
        ask(address, "POST", "/api/prove", body)


def test_work_ends_with_the_window_that_asked_for_it(tmp_path: Path) -> None:
    with server(tmp_path / "shelf.sqlite3", demo=False) as (address, _):
        at = urlsplit(address)
        connection = http.client.HTTPConnection(at.hostname or "", at.port)
        body = json.dumps({"text": EXPLODING, "job": "left", "lane": "long"})
        connection.request("POST", "/api/prove", body, {"content-type": "application/json"})
        while "states" not in _progress(address, "left"):
            time.sleep(0.05)
        connection.close()
        while _progress(address, "left"):  # goes on until the job is gone
            time.sleep(0.05)
        assert refusal(address, "GET", "/api/jobs/left") == 404
