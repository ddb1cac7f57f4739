"""Principles outside of our own list: verdict, paths and odds, each worked out beside it in a few lines that know nothing of the bench."""

from __future__ import annotations

from collections.abc import Callable

import pytest

from golden_pivot.core.answers.odds import FAILS, odds_of
from golden_pivot.core.answers.proving import prove
from golden_pivot.core.budget import Budget
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.variants.blanks import solve

from . import FAMILIES
from .decoding import BLANKS
from .worked import Worked

PRINCIPLES = [principle for family in FAMILIES for principle in family.PRINCIPLES]


CASES = pytest.mark.parametrize(("text", "worked"), PRINCIPLES, ids=[worked.__name__ for _, worked in PRINCIPLES])


@CASES
def test_a_principle_comes_out_as_it_is_worked_out(text: str, worked: Worked) -> None:
    routine = read_routine(text)
    assert not routine.faults
    verdict = prove(routine)
    paths, failing, _ = worked()
    assert (verdict.paths, verdict.failing_paths) == (paths, failing)
    assert verdict.verdict == ("refuted" if failing else "proved")


@CASES
def test_it_comes_out_as_often_as_is_worked_out(text: str, worked: Worked) -> None:
    found = odds_of(read_routine(f"{text.rstrip()}\nOdds: every choice is equally likely\n"), Budget())
    fails = {(one.about, one.outcome): one for one in found.chances}.get(FAILS)
    *_, often = worked()
    assert found.samples is None  # exact
    assert (1 - fails.least, 1 - fails.most) == (often, often) if fails else often == 1


@pytest.mark.parametrize(("text", "tried", "worked"), BLANKS, ids=[worked.__name__ for *_, worked in BLANKS])
def test_blanks_are_filled_as_is_worked_out(
    text: str, tried: dict[int, list[str]], worked: Callable[[], list[tuple[str, ...]]]
) -> None:
    found = solve(text, Budget(), tried)
    assert found.complete and sorted(found.answers) == sorted(worked())
