"""Where long searches are worked off: in the process that asks, on processes of this machine, or on a cluster."""

from __future__ import annotations

import os
from contextlib import AbstractContextManager, nullcontext
from dataclasses import dataclass
from typing import Any

from ..core.executor import IN_PROCESS, Executor
from .spread import Spread, Unavailable, Workers

ROOM = 768
"""megabytes of a worker beyond what a search may take up: the program itself, and what a library holds"""


@dataclass(frozen=True)
class Workplace:
    cluster: str | None = None
    """address of the scheduler of a cluster, such as tcp://192.168.1.20:8786"""
    workers: int | None = None
    """processes of this machine; None for all cores but one"""

    def executor(self, megabytes: int) -> AbstractContextManager[Executor]:
        """For one task, whose searches take up so much memory at most, in each process."""
        if self.cluster is None and self.many == 1:
            return nullcontext(IN_PROCESS)
        return Spread(lambda: self._workers(megabytes))

    @property
    def many(self) -> int:
        return self.workers or _cores_but_one()

    def told(self) -> dict[str, Any]:
        """{says, trouble}: where they are worked off as it stands now, and whether that is not where they should be."""
        if self.cluster is None:
            return {
                "says": "on this machine, by " + ("one process" if self.many == 1 else f"{self.many} processes"),
                "trouble": False,
            }
        try:
            workers = self._workers(0)
        except Unavailable as trouble:
            return {"says": str(trouble), "trouble": True}
        workers.close()
        return {"says": f"by {workers.says}", "trouble": False}

    def _workers(self, megabytes: int) -> Workers:
        if self.cluster:
            from .cluster import Cluster

            return Cluster(self.cluster)
        from .pool import Pool

        return Pool(self.many, megabytes + ROOM)


def _cores_but_one() -> int:
    """One is kept for the page."""
    return max(1, len(os.sched_getaffinity(0)) - 1 if hasattr(os, "sched_getaffinity") else (os.cpu_count() or 2) - 1)
