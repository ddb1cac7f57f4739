"""Puts a defect into a copy of the product, one at a time, and shows that the tests against the reference go red.

`defects.py [WORD …]` takes only those whose name has one of these words. Exits 1 when a defect is not noticed.
"""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
import tempfile
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).parents[1]


@dataclass(frozen=True)
class Defect:
    name: str
    module: str
    """below src/golden_pivot/core"""
    was: str
    now: str
    tests: str
    """what is run, below tests/core, as pytest takes it"""


AROUND = "test_around_the_proof.py::"
FACES = "test_faces_forgotten.py"
DEFECTS = (
    Defect("a face is forgotten", "search/faces.py", "if len(before) > len(after):", "if False:", FACES),
    Defect("a face goes out of sight where a name is given anew", "building/card_names.py", "        if becomes and not lies:", "        if False:",
           "test_faults.py"),
    Defect("a look is remembered by its words", "building/spots.py", "        return (fixed.place, replace(self.spot, place=None)) if fixed else None",
           "        return (min(self.place.cells), self.spot)", "test_looks.py"),
    Defect("a path is told to fail that does not", "answers/witnesses.py", "    if path.failures:", "    if True:", "../witness"),
    Defect("a claim reached by no path of some is refuted", "variants/trying.py", "if every_path else set()", "if True else set()", "test_faults.py"),
    Defect("ways of keeping are as likely as their halves", "building/keeping.py", "lambda cells: 2 ** int(cells[halves]),", "lambda cells: 1,", "test_faults.py"),
    Defect("one card has one name", "building/builder.py", "{ANY_FACE: frozenset(self.face_cells.values()),", "{ANY_FACE: frozenset(),", FACES),
    Defect("a secret may be used", "building/reckoning.py", "if self.for_all_to_know and self.performer_acts() and cell not in self.scope.told:",
           "if False:", FACES),
    Defect("a card may be known by magic", "building/looks.py", "if name in self.scope.cards and name not in self.scope.known_faces:", "if False:", FACES),
    Defect("every path comes to every claim", "building/acts.py", "marked = not throughout and (self._cases > 0 or self._some_have_ended)",
           "marked = False", FACES),
    Defect("odds count classes", "search/program.py", "return [self.ways(state, option)[0] if self.ways else 1 for option in options]",
           "return [1 for option in options]", "test_true_words.py"),
    Defect("stuck where a claim was moved to", "answers/all_paths.py", "early_checks=reorder", "early_checks=True", "test_true_words.py"),
    Defect("slips by sets of places", "variants/slips.py", "if place not in plain.whereabouts.get(tuple(known[i] for i in goes_by), {})",
           "if place not in {p for found in plain.whereabouts.values() for p in found}", f"{AROUND}test_what_comes_of_a_slip"),
    Defect("a slip is harmless where most paths hold", "variants/slips.py", "    if not count.some_fail:\n", "    if (count.share or 0) < 0.5:\n",
           f"{AROUND}test_what_comes_of_a_slip"),
    Defect("regions count states", "search/explorer.py", "whole = sum(w for _, w in ended)", "whole = len(ended)", FACES),
    Defect("a filling is never tried", "variants/trying.py", "        refuted |= {key(state) for state in layer if state[FAILED]}",
           "        refuted |= {max(alive)} | {key(state) for state in layer if state[FAILED]}", f"{AROUND}test_what_a_blank_can_be"),
    Defect("strands count classes", "answers/strands.py", "times=_times, ", "", f"{AROUND}test_the_ways_a_card_travels"),
    Defect("a reset that does not look at faces", "show/reset.py", "keep_cards=True, follow_faces=True", "keep_cards=True",
           f"{AROUND}test_a_reset_brings_back_how_every_card_lay"),
    Defect("the margin leaves out the last place", "answers/ledger.py", "tuple(positions)) for place, positions in found", "tuple(positions)[:2]) for place, positions in found",
           f"{AROUND}test_the_margin_says_where_a_card_can_be"),
    Defect("a share of what holds", "search/counted.py", "return self.failing / self.paths", "return 1 - self.failing / self.paths",
           f"{AROUND}test_other_numbers"),
    Defect("sayings judged on one path", "show/wording.py", "if found.claims and not any(claim.denied for claim in found.claims):",
           "if found.claims and found.verdict != 'unsettled':", f"{AROUND}test_what_is_said_of_the_number_of_cards"),
    Defect("the fewest cards handled", "search/algebra.py", "one if one[0] > other[0] or (one[0] == other[0] and [-i for i in one[1]] >= [-i for i in other[1]]) else other",
           "other if one[0] >= other[0] else one", f"{AROUND}test_the_most_cards_that_any_path_handles"),
)  # fmt: skip


def has_its_place(defect: Defect) -> bool:
    return (ROOT / "src" / "golden_pivot" / "core" / defect.module).read_text("utf-8").count(defect.was) == 1


def is_noticed(defect: Defect, folder: Path) -> bool:
    copy = folder / "src"
    shutil.rmtree(copy, ignore_errors=True)
    shutil.copytree(ROOT / "src", copy)
    module = copy / "golden_pivot" / "core" / defect.module
    source = module.read_text(encoding="utf-8")
    if source.count(defect.was) != 1:
        raise SystemExit(f"“{defect.name}” has no place any more in {defect.module}")
    module.write_text(source.replace(defect.was, defect.now), encoding="utf-8")
    run = subprocess.run(
        [sys.executable, "-m", "pytest", "-x", "-q", "-p", "no:cacheprovider", f"tests/core/{defect.tests}"],
        cwd=ROOT, env={**os.environ, "PYTHONPATH": str(copy)}, capture_output=True, text=True, check=False,
    )  # fmt: skip
    return run.returncode == 1


def main(words: list[str]) -> None:
    missed = 0
    with tempfile.TemporaryDirectory() as folder:
        for defect in DEFECTS:
            if words and not any(word in defect.name for word in words):
                continue
            noticed = is_noticed(defect, Path(folder))
            missed += not noticed
            print(f"{'noticed ' if noticed else 'SURVIVES'}  {defect.name}", flush=True)
    sys.exit(1 if missed else 0)


if __name__ == "__main__":
    main(sys.argv[1:])
