"""How much faster a long search is on two workers than on one, with both kinds, and what a batch costs to hand out."""

from __future__ import annotations

import math
import os
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from golden_pivot.core.budget import Budget
from golden_pivot.core.executor import Executor
from golden_pivot.core.variants.sweeps import sweep
from golden_pivot.jobs import spread
from golden_pivot.jobs.cluster import Cluster
from golden_pivot.jobs.pool import Pool

ROOT = Path(__file__).parents[1]
TEXT = (ROOT / "tests" / "procedures" / "p18_two_numbers.pivot").read_text(encoding="utf-8")
BLANKS = TEXT.replace("a from 0 to 51", "a from 0 to ?").replace("b from 0 to 51", "b from 0 to ?")
RANGE = list(map(str, range(12, 50)))
MANY = 300
"""empty batches"""


def nothing(_: None, piece: int, budget: Budget) -> int:
    return piece


@contextmanager
def local_cluster(workers: int) -> Iterator[str]:
    """The address of a cluster on this machine."""
    dask = [str(Path(sys.executable).with_name("dask"))]
    environment = os.environ | {"PYTHONPATH": f"{ROOT / 'src'}{os.pathsep}{ROOT}"}
    with tempfile.TemporaryDirectory() as folder:
        told = ["--scheduler-file", f"{folder}/scheduler.json", "--no-dashboard"]
        begun = [
            subprocess.Popen([*dask, *words, *told], env=environment, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
            for words in (["scheduler", "--host", "127.0.0.1", "--port", "0"], ["worker", "--nworkers", str(workers), "--nthreads", "1"])
        ]  # fmt: skip
        try:
            from distributed import Client

            while not (file := Path(folder, "scheduler.json")).exists() or not file.stat().st_size:
                time.sleep(0.1)
            with Client(scheduler_file=str(file), set_as_default=False) as client:
                client.wait_for_workers(workers, timeout=60)
                address: str = client.scheduler.address
            yield address
        finally:
            for process in reversed(begun):
                process.terminate()
                process.wait()


def _searched(executor: Executor) -> float:
    begun = time.perf_counter()
    found = sweep(BLANKS, Budget(seconds=None, executor=executor), {1: RANGE, 2: RANGE})
    assert len(found.rows) == len(RANGE) ** 2
    return time.perf_counter() - begun


def _handed_out(executor: Executor) -> float:
    """Milliseconds a batch."""
    list(executor.run(nothing, None, range(8), Budget()))  # everybody is there
    begun = time.perf_counter()
    list(executor.run(nothing, None, range(MANY), Budget()))
    return (time.perf_counter() - begun) / MANY * 1000


def _on(what: str, many: int) -> tuple[float, float]:
    """(seconds of the search, milliseconds of an empty batch)"""
    if what == PROCESSES:
        with spread.Spread(lambda: Pool(many, 2000)) as executor:
            each = _handed_out(executor)
            return _searched(executor), each
    with local_cluster(many) as address, spread.Spread(lambda: Cluster(address)) as executor:
        each = _handed_out(executor)
        return _searched(executor), each


PROCESSES, CLUSTER = "processes", "workers of a cluster"
ROUNDS = 3
"""in turns; the best of each is told, since another program may have had the machine for a while"""


def print_spread() -> None:
    spread.HERE_FIRST = 0.0
    ways = [(what, many) for what in (PROCESSES, CLUSTER) for many in (1, 2)]
    alone, best = math.inf, dict.fromkeys(ways, (math.inf, math.inf))
    for _ in range(ROUNDS):
        alone = min(alone, _searched(Budget().executor))
        for way in ways:
            best[way] = tuple(map(min, best[way], _on(*way)))  # type: ignore[assignment]
    print(f"\n{'a search of ' + str(len(RANGE) ** 2) + ' proofs':32}{'seconds':>9}{'× one':>8}{'ms a batch':>12}")
    print(f"{'in the process that asks':32}{alone:>9.1f}")
    for (what, many), (took, each) in best.items():
        print(f"{f'{many} {what}':32}{took:>9.1f}{best[what, 1][0] / took:>8.2f}{each:>12.2f}", flush=True)


if __name__ == "__main__":
    print_spread()
