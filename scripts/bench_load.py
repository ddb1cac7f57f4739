"""How long small reads take while two heavy proofs run and fifty jobs wait; what the workers hold; what is left afterwards."""

from __future__ import annotations

import contextlib
import json
import statistics
import tempfile
import threading
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from pathlib import Path

from tests.browser.driving import server
from tests.core.test_prover import EXPLODING

WAITING, READS = 50, 100
SMALL = {
    "job": "",
    "text": "Pack: 9 cards\nPlace A 2nd\nSpectator names a number n from 1 to 3\nDeal n cards from deck\n",
}


def _ask(address: str, path: str, body: object = None) -> bytes:
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(address + path, data, {"content-type": "application/json"})
    with urllib.request.urlopen(request, timeout=300) as reply:
        found: bytes = reply.read()
        return found


def _left(address: str, path: str, body: object) -> None:
    """Nobody cares for the answer."""
    with contextlib.suppress(OSError, urllib.error.HTTPError):
        _ask(address, path, body)


def _progress(address: str, number: int) -> str:
    try:
        return str(json.loads(_ask(address, f"/api/jobs/heavy%20{number}"))["progress"])
    except urllib.error.HTTPError:
        return "ended before the last read: take fewer reads"


def _children(pid: int) -> Iterator[int]:
    for stat in Path("/proc").glob("[0-9]*/stat"):
        with contextlib.suppress(OSError):
            if int(stat.read_text().rpartition(")")[2].split()[1]) == pid:
                yield int(stat.parent.name)


def _megabytes(pid: int) -> int:
    rows = (Path("/proc") / str(pid) / "status").read_text().splitlines()
    return next((int(row.split()[1]) // 1024 for row in rows if row.startswith("VmRSS")), 0)


def print_load() -> None:
    with tempfile.TemporaryDirectory() as folder, server(Path(folder) / "shelf.sqlite3") as (address, process):
        for number in range(2):
            body = {"text": f"{EXPLODING}# {number}\n", "job": f"heavy {number}", "lane": "long"}
            threading.Thread(target=_left, args=(address, "/api/prove", body), daemon=True).start()
            while True:
                with contextlib.suppress(urllib.error.HTTPError):
                    if b"states" in _ask(address, f"/api/jobs/heavy%20{number}"):
                        break
                time.sleep(0.05)
        for number in range(WAITING):
            body = {**SMALL, "job": f"waiting {number}", "lane": "long"}
            threading.Thread(target=_left, args=(address, "/api/prove", body), daemon=True).start()
        _ask(address, "/api/play", SMALL)
        print(
            f"\nload: {READS} reads while 2 heavy proofs run and {WAITING} jobs wait; median, 99th percentile, slowest in ms"
        )
        for name, path, sent in (
            ("one routine", "/api/routines/1", None),
            ("the shelf", "/api/routines", None),
            ("reading a text", "/api/read", {"text": SMALL["text"]}),
            ("one path on the table", "/api/play", SMALL),
            ("the margin", "/api/ledger", SMALL),
        ):
            times = []
            for _ in range(READS):
                begun = time.perf_counter()
                _ask(address, path, sent)
                times.append((time.perf_counter() - begun) * 1000)
            times.sort()
            print(f"  {name:24}{statistics.median(times):8.1f}{times[int(READS * 0.99)]:8.1f}{times[-1]:8.1f}")
        still = [_progress(address, number) for number in range(2)]
        print(f"  the heavy proofs meanwhile: {'; '.join(still)}")
        workers = list(_children(process.pid))
        print(f"  workers hold {sorted(map(_megabytes, workers), reverse=True)} MB")
        process.kill()
        begun = time.perf_counter()
        while (
            any(Path(f"/proc/{pid}").exists() and _megabytes(pid) for pid in workers)
            and time.perf_counter() - begun < 30
        ):
            time.sleep(0.01)
        print(f"  after the server was killed its workers were gone in {(time.perf_counter() - begun) * 1000:.0f} ms")


if __name__ == "__main__":
    print_load()
