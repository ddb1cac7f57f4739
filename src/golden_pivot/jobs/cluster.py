"""Batches on a cluster of Dask distributed: https://distributed.dask.org. An optional extra; see docs/scale.md.

A worker of the cluster must have the same version of this product: pieces and answers are sent as Python values.
"""

from __future__ import annotations

import hashlib
import socket
import sys
from collections.abc import Callable
from concurrent.futures import Future
from contextlib import suppress
from functools import cache
from pathlib import Path
from threading import Thread
from typing import Any
from urllib.parse import urlsplit
from uuid import uuid4

from .spread import Limits, Unavailable, answered

CONNECT = 5.0
"""seconds until a cluster that does not answer is given up"""
MOST_TO_TELL, MOST_TO_STOP = 20.0, 2.0
"""seconds until nobody waits any more for the workers to tell their version, and to hear that a search is over"""


class Cluster:
    def __init__(self, address: str) -> None:
        """Raises Unavailable: the extra is missing, nobody answers, no worker, or workers of another version."""
        self._address = address
        try:
            from distributed import Client
        except ImportError as error:
            raise Unavailable("here: clusters need an extra, pip install 'golden-pivot[cluster]'") from error
        try:
            _knock(address)
            self._client = Client(address, timeout=CONNECT, set_as_default=False)
        except Exception as error:
            raise Unavailable(f"here: the cluster at {address} does not answer") from error
        try:
            self._look_at_workers()
        except BaseException:
            self.close()
            raise
        self._executor = self._client.get_executor(pure=False)
        self._search = uuid4().hex
        """what belongs to another search is not wanted any more"""

    def _look_at_workers(self) -> None:
        try:
            theirs = _within(MOST_TO_TELL, lambda: self._client.run(version))
            theirs["scheduler"] = _within(MOST_TO_TELL, lambda: self._client.run_on_scheduler(version))
        except Exception as error:
            raise Unavailable(f"here: {self._address} cannot load this version of Golden Pivot") from error
        if any(one != version() for one in theirs.values()):
            raise Unavailable(f"here: {self._address} runs another version of Golden Pivot, or of Python")
        self.many = len(theirs) - 1
        self.look()
        self.says = f"{self.many} {'worker' if self.many == 1 else 'workers'} of {self._address}"

    def look(self) -> None:
        if self._client.status != "running":
            raise Unavailable(f"here: the cluster at {self._address} was lost")
        if not self._client.scheduler_info(n_workers=-1)["workers"]:
            raise Unavailable(f"here: the cluster at {self._address} has no workers")

    def hand_out(self, batch: Any, shared: Any, piece: Any, limits: Limits) -> Future[tuple[bool, Any]]:
        asked = version(), self._search, batch, shared, piece, limits
        future: Future[tuple[bool, Any]] = self._executor.submit(_work, *asked)
        return future

    def stop(self) -> None:
        over, self._search = self._search, uuid4().hex
        with suppress(Exception):  # a cluster that is gone does not go on either
            _within(MOST_TO_STOP, lambda: self._client.run(_end, over))

    def replace_lost(self) -> None:
        """By the cluster itself."""
        self.look()
        self._look_at_workers()

    def close(self) -> None:
        self._client.close(timeout=1)


def _knock(address: str) -> None:
    """Whether somebody is there at all, before a client is made, which would wait, and is not easily got rid of.

    Raises OSError and ValueError.
    """
    at = urlsplit(address)
    socket.create_connection((at.hostname or "", at.port or 0), CONNECT).close()


def _within(seconds: float, ask: Callable[[], Any]) -> Any:
    """What is answered. A client whose scheduler is gone tries for a minute to reach it. Raises TimeoutError."""
    answer: Future[Any] = Future()

    def wait() -> None:
        try:
            answer.set_result(ask())
        except Exception as error:
            answer.set_exception(error)

    Thread(target=wait, daemon=True).start()
    return answer.result(seconds)


_over: set[str] = set()
"""searches that are over, in a worker"""


def _end(search: str) -> None:
    _over.add(search)


def _work(theirs: str, search: str, batch: Any, shared: Any, piece: Any, limits: Limits) -> tuple[bool, Any]:
    if theirs != version():  # it came later than the others
        raise RuntimeError("another version")
    return answered(batch, shared, piece, limits, lambda: search in _over)


@cache
def version() -> str:
    """Of the rules and of Python: what has the same one gives the same answers."""
    digest = hashlib.sha256(".".join(map(str, sys.version_info[:2])).encode())
    core = Path(__file__).parents[1] / "core"
    for file in sorted(core.rglob("*.py")):
        digest.update(file.relative_to(core).as_posix().encode() + b"\0" + file.read_bytes())
    return digest.hexdigest()
