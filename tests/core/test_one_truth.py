"""One truth for all who ask: what different answers say of the same routine is held against each other."""

from __future__ import annotations

import pytest

from golden_pivot.core.answers.odds import odds_of
from golden_pivot.core.answers.proving import prove
from golden_pivot.core.answers.regions import region_of
from golden_pivot.core.answers.verdicts import PROVED, REFUTED, UNSETTLED, WHETHER
from golden_pivot.core.budget import Budget
from golden_pivot.core.faults import BadRoutine
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.variants.blanks import solve
from golden_pivot.core.variants.edits import edited
from golden_pivot.core.variants.fields import filled, numbers_of, with_blanks
from golden_pivot.core.variants.limits import limits_of
from golden_pivot.core.variants.slips import fragility_of
from golden_pivot.core.variants.sweeps import UNREACHED, sweep
from tests.witness.telling import texts

FEW = {"states": 20_000, "transitions": 40_000, "seconds": None}
SOME = 3
"""slips, and numbers to be varied, of each routine"""


def budget() -> Budget:
    return Budget(**FEW)  # type: ignore[arg-type]


def claimed() -> list[str]:
    return [name for name, text in texts().items() if "\nEnds with" in text and not read_routine(text).faults]


def short() -> list[str]:
    """Those in which everything near is soon settled."""
    return [
        name
        for name in claimed()
        if len(texts()[name].splitlines()) < 14
        and "as long as" not in texts()[name].lower().replace("until", "as long as")
    ]


@pytest.mark.parametrize("name", claimed())
def test_verdict_region_and_odds_say_the_same(name: str) -> None:
    routine = read_routine(texts()[name])
    full, bare = prove(routine, budget()), prove(routine, budget(), WHETHER)
    if UNSETTLED in (full.verdict, bare.verdict):
        return
    assert full.verdict == bare.verdict
    if None not in (full.paths, bare.paths):
        assert (full.paths, full.failing_paths) == (bare.paths, bare.failing_paths)
    region = region_of(routine, budget())
    if region and full.paths is not None and full.failing_paths is not None:
        assert (region.paths, region.passing) == (full.paths, full.paths - full.failing_paths)
    said = limits_of(texts()[name], budget())
    assert (full.verdict == PROVED) == said.says.startswith("It holds, whatever") or region is not None
    if "Odds" in texts()[name]:
        odds = odds_of(routine, budget())
        fails = [one for one in odds.chances if (one.about, one.outcome) == ("ending", "fails")]
        assert odds.samples or (full.verdict == REFUTED) == any(one.most > 0 for one in fails)


@pytest.mark.parametrize("name", short())
def test_solve_and_sweep_say_of_a_number_what_the_verdict_says(name: str) -> None:
    """A filling that solve gives is proved, one that it does not give is not; the sweep says the same of each."""
    text = texts()[name]
    for number in numbers_of(read_routine(text))[:SOME]:
        blank = with_blanks(text, [(number.line, number.start)])
        if read_routine(blank).faults:
            continue
        value = int(number.value)
        domain = [str(one) for one in range(max(0, value - 1), value + 2)]
        try:
            found, swept = solve(blank, budget(), {1: domain}), sweep(blank, budget(), {1: domain})
        except BadRoutine:
            continue
        if found.open or found.stopped:
            continue
        for row in swept.rows:
            try:
                verdict = prove(read_routine(filled(blank, found.fields, row.values)), budget(), WHETHER).verdict
            except BadRoutine:
                verdict = "impossible"
            assert (row.values in found.answers) == (verdict == PROVED), (number.label, row)
            assert row.verdict in (verdict, UNSETTLED) or row.says == UNREACHED, (number.label, row)


@pytest.mark.parametrize("name", short())
def test_a_slip_comes_to_what_the_slipped_text_comes_to(name: str) -> None:
    text = texts()[name]
    for one in fragility_of(text, budget()).outcomes[:SOME]:
        try:
            verdict = prove(read_routine(edited(text, one.slip.edit)), budget(), WHETHER)
        except BadRoutine:
            continue
        if verdict.verdict == UNSETTLED or one.kind == "not settled" or verdict.count is None:
            continue
        assert (verdict.verdict == PROVED) == (one.kind == "harmless"), (one.slip.what, one.slip.line)
        assert one.share is None or verdict.count.share is None or one.share == pytest.approx(verdict.count.share)
