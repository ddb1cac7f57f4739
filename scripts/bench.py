"""How fast the core is, as ratios measured in one run: `make bench`.

For each routine: time of the proof (median of runs taken in turn with the reference, so that a busy machine
slows both), transitions, microseconds a transition, and how many times slower the reference interpreter is
when it plays every path (~: extrapolated from the first thousands). With BENCH_BROWSER=1 also the time from the last key to the verdict on the screen.
"""

from __future__ import annotations

import multiprocessing
import os
import statistics
import time
from collections.abc import Callable
from dataclasses import replace
from itertools import islice
from pathlib import Path

from golden_pivot import demo
from golden_pivot.core.answers.odds import odds_of
from golden_pivot.core.answers.proving import prove
from golden_pivot.core.budget import Budget
from golden_pivot.core.building import PROOF, compile_routine
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.language.printer import routine_json
from golden_pivot.core.language.routine import Routine
from golden_pivot.core.reading import read_line, read_page
from golden_pivot.core.search.explorer import explore
from golden_pivot.core.variants.blanks import solve
from golden_pivot.core.variants.slips import fragility_of
from golden_pivot.witness import each_path
from scripts.bench_desks import print_desks
from scripts.bench_load import print_load
from scripts.bench_rows import print_rows
from scripts.bench_searches import print_searches
from scripts.bench_show import print_show
from scripts.bench_sizes import print_sizes
from scripts.bench_spread import print_spread
from scripts.memory import peak

ROOT = Path(__file__).parents[1]
RUNS = 5
MOST_PLAYED = 6000
"""paths the reference plays; what more there are would take as long each (marked ~)"""


def _timed(work: Callable[[], object]) -> float:
    begun = time.perf_counter()
    work()
    return time.perf_counter() - begun


def measure(routine: Routine) -> tuple[float, float, float | None]:
    """Median seconds of (the exploration alone, the whole verdict, a path by the reference)."""
    document = routine_json(routine)
    program = compile_routine(routine, replace(PROOF, reorder=True))
    explored, proved, played = [], [], []
    for _ in range(RUNS):
        explored.append(_timed(lambda: explore(program, Budget())))
        proved.append(_timed(lambda: prove(routine)))
        # Without an end there is nothing to enumerate.
        if not program.is_unlimited and sum(played) < 2:
            begun = time.perf_counter()
            paths = sum(1 for _ in islice(each_path(document), MOST_PLAYED))
            played.append((time.perf_counter() - begun) / paths)
    return statistics.median(explored), statistics.median(proved), statistics.median(played) if played else None


def rows() -> list[tuple[str, str]]:
    # Of the first only the odds are asked for; the second has no proof within reach.
    files_large = set(LARGE) | {"p15_pile_count", "p23_kruskals_count"}
    shelf = [(f"demo:{name}", demo.demo_text(name)) for name in demo.demo_names()]
    files = sorted((ROOT / "tests" / "procedures").glob("*.pivot"))
    return shelf + [(path.stem, path.read_text(encoding="utf-8")) for path in files if path.stem not in files_large]


LARGE = ("p15_piles_to_thirteen", "p21_three_counts")
"""proved once each, in a process of its own, for the memory it takes"""


def large() -> None:
    print(f"\n{'large':24}{'verdict':>9}{'widest':>8}{'trans.':>10}{'seconds':>9}{'peak MB':>9}")
    for name in LARGE:
        _alone(_prove_large, name)
    print(f"\n{'odds':24}{'outcomes':>9}{'':>27}{'seconds':>9}{'peak MB':>9}")
    for name in ("p11_from_the_pack", "p21_matches", "p15_pile_count"):
        _alone(_odds_large, name)


def with_two_blanks() -> str:
    """A routine of the size of P13: one blank in the set-up, one in a line."""
    text = (ROOT / "tests" / "procedures" / "p13_digit_sum.pivot").read_text(encoding="utf-8")
    return text.replace("10th", "?th").replace("Deal digit sum of n cards", "Deal (digit sum of n) + ? cards")


def variants() -> None:
    print(f"\n{'slips':24}{'slips':>9}{'':>27}{'seconds':>9}")
    for name in demo.demo_names():
        text = demo.demo_text(name)
        if not read_routine(text).faults:
            begun = time.perf_counter()
            many = len(fragility_of(text, Budget()).outcomes)
            print(f"demo:{name:19}{many:>9}{'':>27}{time.perf_counter() - begun:>9.2f}")
    text = with_two_blanks()
    domains = {2: [str(n) for n in range(200)]}
    took = {}
    for known_first in (False, True):
        begun = time.perf_counter()
        found = solve(text, Budget(), domains, known_first=known_first)
        took[known_first] = time.perf_counter() - begun
    print(
        f"\nsolve: {found.fillings:,} fillings, {len(found.answers)} answers in {took[True]:.2f} s;"
        f" what has refuted others is tried first: {took[False] / took[True]:.1f} times faster than without"
    )


def _alone(work: Callable[[str], None], name: str) -> None:
    process = multiprocessing.get_context("spawn").Process(target=work, args=(name,))
    process.start()
    process.join()


def _read(name: str) -> Routine:
    return read_routine((ROOT / "tests" / "procedures" / f"{name}.pivot").read_text(encoding="utf-8"))


def _prove_large(name: str) -> None:
    before, found = peak(), prove(_read(name))
    print(
        f"{name:24}{found.verdict:>9}{found.states_widest:>8,}{found.transitions:>10,}{found.seconds:>9.2f}"
        f"{peak() - before:>9.0f}",
        flush=True,
    )


def _odds_large(name: str) -> None:
    before = peak()
    begun = time.perf_counter()
    found = odds_of(_read(name), Budget(seconds=None))
    print(
        f"{name:24}{len(found.chances):>9}{'':>27}{time.perf_counter() - begun:>9.2f}{peak() - before:>9.0f}",
        flush=True,
    )


BEHIND = "\n".join(["Pack: 52 cards, any order", *["Cut deck at 5 and complete the cut"] * 29])
SAID = (
    "Deal ten cards on the table", "She lifts about a quarter of the deck and puts it in her pocket", "Ace of clubs second from top",
    "Have someone cut the pack anywhere they like", "They look at the bottom card and remember it", "Count off ten", "Act surprised",
)  # fmt: skip
NOTES = (
    "They name a number in the teens. Deal that many onto the table and put them back on the pack. Turn the deck over. Wink at the steward. "
    * 5
)


def print_reading() -> None:
    """A line of notes behind thirty others, and a page of twenty sentences; each for the first time."""
    read_line(BEHIND, "Shuffle")  # the wordings are compiled once
    lines = sorted(_timed(lambda said=said: read_line(f"{BEHIND}\n# {said}", said)) for said in SAID)  # type: ignore[misc]
    page = _timed(lambda: read_page(NOTES))
    print(
        f"\nnotes: a line {lines[len(lines) // 2] * 1000:.0f} ms (at most {lines[-1] * 1000:.0f}), twenty sentences {page:.2f} s"
    )


def bare() -> float:
    """Seconds for a cut of 52 bytes that is looked up among states like it, by hand and with nothing else told."""
    heaps = [bytes(range(i, 52)) + bytes(range(i)) for i in range(52)]

    def every_cut() -> None:
        after: dict[tuple[int, bytes], int] = {}
        for heap in heaps:
            for at in range(52):
                key = at % 4, heap[at:] + heap[:at]
                after[key] = after.get(key, 0) + 1

    return min(_timed(every_cut) for _ in range(20)) / 52**2


def main() -> None:
    print(
        f"{'':24}{'paths':>9}{'widest':>8}{'explore ms':>12}{'verdict ms':>12}{'trans.':>9}{'µs/tr.':>8}{'× ref':>9}"
    )
    for name, text in rows():
        routine = read_routine(text)
        if routine.faults:
            print(f"{name:24}  still being written")
            continue
        verdict = prove(routine)
        explored, proved, played = measure(routine)
        about = "~" if (verdict.paths or 0) > MOST_PLAYED else " "
        times = played * verdict.paths / explored if played and verdict.paths else 0
        ratio = f"{about}{times:8,.1f}" if 0 < times < 10**7 else f"{about}{times:8.0e}" if times else "        –"
        paths = (
            "–"
            if verdict.paths is None
            else f"{verdict.paths:,}"
            if verdict.paths < 10**8
            else f"{verdict.paths:.1e}"
        )
        print(
            f"{name:24}{paths:>9}{verdict.states_widest:>8,}{explored * 1e3:>12.2f}{proved * 1e3:>12.2f}"
            f"{verdict.transitions:>9,}{explored * 1e6 / max(1, verdict.transitions):>8.1f}{ratio}"
        )
    print(f"\na bare operation on bytes, its state merged: {bare() * 1e6:.2f} µs")
    variants()
    print_desks()
    print_searches()
    print_show()
    print_load()
    print_reading()
    large()
    print_sizes()
    print_rows()
    print_spread()
    if os.environ.get("BENCH_BROWSER"):
        from scripts.bench_before import print_beside
        from scripts.bench_shelf import print_shelf
        from scripts.keystrokes import print_times

        print_times()
        print_shelf()
        print_beside(os.environ.get("BEFORE"))


if __name__ == "__main__":
    main()
