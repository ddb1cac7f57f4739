"""Long searches on workers: the same answers as in one process, whatever happens to the workers."""

from __future__ import annotations

import json
import os
import signal
import subprocess
import sys
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path

import pytest
from distributed import Client
from fastapi.testclient import TestClient

from golden_pivot.api.app import create_app
from golden_pivot.core.budget import Budget
from golden_pivot.core.executor import Executor
from golden_pivot.core.faults import BadRoutine, Cancelled, OutOfBudget
from golden_pivot.core.show.schools import schools_of
from golden_pivot.core.variants.blanks import solve
from golden_pivot.core.variants.slips import fragility_of
from golden_pivot.core.variants.sweeps import sweep, with_blank
from golden_pivot.demo import demo_text
from golden_pivot.jobs import cluster as cluster_of_dask
from golden_pivot.jobs import spread
from golden_pivot.jobs.workplace import Workplace
from golden_pivot.store import Database
from tests.api.test_jobs import is_alive, processes_below
from tests.jobs import batches

ROOT = Path(__file__).parents[2]
ENVIRONMENT = os.environ | {"PYTHONPATH": f"{ROOT / 'src'}{os.pathsep}{ROOT}"}
POOL = Workplace(workers=2)


@pytest.fixture(autouse=True)
def nothing_is_done_here(monkeypatch: pytest.MonkeyPatch) -> None:
    """But the first piece of each search."""
    monkeypatch.setattr(spread, "HERE_FIRST", 0.0)
    monkeypatch.setattr(cluster_of_dask, "CONNECT", 60.0)  # a busy machine takes its time


@contextmanager
def cluster_of(folder: Path, workers: int, preload: str = "") -> Iterator[tuple[str, int]]:
    """(address, process of the scheduler) of a real cluster of this machine."""
    told = folder / "scheduler.json"
    dask = [str(Path(sys.executable).with_name("dask"))]

    def start(*words: str) -> subprocess.Popen[bytes]:
        quiet = subprocess.DEVNULL
        return subprocess.Popen(
            [*dask, *words, "--scheduler-file", str(told)], env=ENVIRONMENT, stdout=quiet, stderr=quiet
        )

    running = [start("scheduler", "--host", "127.0.0.1", "--port", "0", "--no-dashboard")]
    try:
        while not told.exists() or not told.read_text().endswith("}"):
            time.sleep(0.05)
        if workers:
            more = ("--preload", preload) if preload else ()
            running.append(start("worker", "--nworkers", str(workers), "--nthreads", "1", "--no-dashboard", *more))
        address = json.loads(told.read_text())["address"]
        if workers:
            _wait_for(address, workers)
        yield address, running[0].pid
    finally:
        for process in reversed(running):
            process.terminate()
            process.wait()


def _wait_for(address: str, workers: int) -> None:
    while True:
        try:
            with Client(address, set_as_default=False, timeout=120) as client:
                client.wait_for_workers(workers, timeout=120)
                return
        except (AssertionError, OSError):  # a very busy machine: the client’s own loop has not begun in its time
            continue


@pytest.fixture(scope="module")
def cluster(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Workplace]:
    with cluster_of(tmp_path_factory.mktemp("cluster"), 2) as (address, _):
        yield Workplace(cluster=address)


@pytest.fixture(params=["pool", "cluster"])
def workplace(request: pytest.FixtureRequest) -> Workplace:
    return POOL if request.param == "pool" else request.getfixturevalue("cluster")


def answers_of(executor: Executor) -> list[object]:
    def budget() -> Budget:
        return Budget(seconds=600, executor=executor)

    lifeboat = demo_text("lifeboat_drill")
    blanks = "Pack: 9 cards\nPlace A ?th\nDeal ? cards from deck to pile\nEnds with: the top card of deck is A\n"
    return [
        solve(blanks, budget()), fragility_of(lifeboat, budget()), fragility_of(lifeboat, budget(), room=3000),
        sweep(with_blank("Pack: 9 cards\nPlace A 3rd\nDeal 4 cards from deck to pile\n", 3), budget()),
        schools_of(lifeboat, budget()),
    ]  # fmt: skip


def test_the_answers_do_not_depend_on_who_works_them_off(workplace: Workplace) -> None:
    with workplace.executor(1000) as executor:
        found = answers_of(executor)
        assert executor.where.startswith("2 ")  # type: ignore[attr-defined]
    assert found == answers_of(Budget().executor)


def test_pieces_are_done_by_several_and_answered_in_order(workplace: Workplace, tmp_path: Path) -> None:
    with workplace.executor(1000) as executor:
        found = list(executor.run(batches.together, tmp_path, range(40), Budget()))
    assert [piece for piece, _ in found] == list(range(40))
    assert len({who for _, who in found} - {os.getpid()}) == 2


def test_a_lost_worker_has_its_batch_done_again(workplace: Workplace, tmp_path: Path) -> None:
    with workplace.executor(1000) as executor:
        found = list(executor.run(batches.mortal, tmp_path, range(12), Budget()))
    assert (tmp_path / "killed").exists()
    assert [piece for piece, _ in found] == list(range(12))
    assert os.getpid() not in {who for _, who in found[1:]}


def test_cancelled_everywhere(workplace: Workplace, tmp_path: Path) -> None:
    def begun() -> bool:
        return len(list(tmp_path.glob("begun *"))) >= 2

    with workplace.executor(1000) as executor:
        with pytest.raises(Cancelled):
            list(executor.run(batches.endless, tmp_path, range(9), Budget(seconds=None, cancelled=begun)))
        while len(list(tmp_path.glob("ended *"))) < len(list(tmp_path.glob("begun *"))):
            time.sleep(0.05)


def test_what_is_raised_there_is_raised_here(workplace: Workplace) -> None:
    with workplace.executor(1000) as executor:
        with pytest.raises(BadRoutine) as bad:
            list(executor.run(batches.troubled, None, [0, 1], Budget()))
        assert bad.value.faults == (batches.FAULT,)
        with pytest.raises(OutOfBudget) as out:
            list(executor.run(batches.troubled, None, [0, 2], Budget()))
        assert (out.value.limit, out.value.reached) == ("states", "more than 3 at line 4")
        assert list(executor.run(batches.troubled, None, [0, 3, 4], Budget())) == [0, 3, 4]


def test_workers_that_are_lost_again_and_again_are_done_without() -> None:
    with POOL.executor(1000) as executor:
        assert list(executor.run(batches.deadly, os.getpid(), range(5), Budget())) == [0, 1, 2, 3, 4]
        assert executor.where.startswith("here: workers were lost")  # type: ignore[attr-defined]


def test_without_its_scheduler_the_rest_is_done_here(tmp_path: Path) -> None:
    with cluster_of(tmp_path, 2) as (address, scheduler), Workplace(cluster=address).executor(1000) as executor:
        found = []
        for one in executor.run(batches.whose, 0.02, range(40), Budget()):
            found.append(one)
            if len(found) == 10:
                os.kill(scheduler, signal.SIGKILL)
        assert [piece for piece, _ in found] == list(range(40))
        assert found[-1][1] == os.getpid() and executor.where == f"here: the cluster at {address} was lost"  # type: ignore[attr-defined]


def _silent(folder: Path) -> Iterator[str]:
    yield "tcp://127.0.0.1:9"


def _empty(folder: Path) -> Iterator[str]:
    with cluster_of(folder, 0) as (address, _):
        yield address


def _other_version(folder: Path) -> Iterator[str]:
    other = folder / "other.py"
    other.write_text("from golden_pivot.jobs import cluster\ncluster.version = lambda: 'another'\n")
    with cluster_of(folder, 1, str(other)) as (address, _):
        yield address


@pytest.mark.parametrize(
    ("made", "says"),
    [
        (lambda folder: _silent(folder), "does not answer"),
        (lambda folder: iter(["no address"]), "does not answer"),
        (_empty, "has no workers"),
        (_other_version, "another version"),
    ],
)
def test_a_cluster_that_cannot_be_used(made: Callable[[Path], Iterator[str]], says: str, tmp_path: Path) -> None:
    for address in made(tmp_path):
        with Workplace(cluster=address).executor(1000) as executor:
            assert list(executor.run(batches.whose, 0, range(3), Budget()))[2] == (2, os.getpid())
            assert executor.where.startswith("here: ") and says in executor.where  # type: ignore[attr-defined]


def test_the_bench_works_without_its_cluster() -> None:
    app = create_app(Database(":memory:"), workplace=Workplace(cluster="tcp://127.0.0.1:9"))
    with TestClient(app, base_url="http://127.0.0.1") as client:
        told = client.get("/api/workplace").json()
        assert told == {"says": "here: the cluster at tcp://127.0.0.1:9 does not answer", "trouble": True}
        blanks = {"text": "Pack: 9 cards\nPlace A ?th\nEnds with: the top card of deck is A\n"}
        assert client.post("/api/solve", json={**blanks, "job": "s"}).json()["solution"]["complete"]


def test_where_long_searches_go_is_told(cluster: Workplace) -> None:
    assert Workplace(workers=1).told() == {"says": "on this machine, by one process", "trouble": False}
    assert POOL.told() == {"says": "on this machine, by 2 processes", "trouble": False}
    assert cluster.told() == {"says": f"by 2 workers of {cluster.cluster}", "trouble": False}


def test_a_pool_ends_with_the_process_that_is_killed(tmp_path: Path) -> None:
    rows = [
        "from pathlib import Path", "from golden_pivot.core.budget import Budget", "from golden_pivot.jobs import spread",
        "from golden_pivot.jobs.workplace import Workplace", "from tests.jobs import batches", "spread.HERE_FIRST = 0.0",
        "with Workplace(workers=2).executor(1000) as executor:",
        f"    list(executor.run(batches.endless, Path({str(tmp_path)!r}), range(9), Budget(seconds=None)))",
    ]  # fmt: skip
    process = subprocess.Popen([sys.executable, "-c", "\n".join(rows)], env=ENVIRONMENT)
    while len(list(tmp_path.glob("begun *"))) < 2:
        time.sleep(0.05)
    workers = processes_below(process.pid)
    assert len(workers) >= 2
    process.kill()
    process.wait()
    while any(map(is_alive, workers)):
        time.sleep(0.05)
