"""Principles outside of our own list: verdict and paths, each worked out beside it in a few lines that know nothing of the bench."""

from __future__ import annotations

import pytest

from golden_pivot.core.answers.verdicts import prove
from golden_pivot.core.language.parser import read_routine

from . import FAMILIES
from .worked import Worked

PRINCIPLES = [principle for family in FAMILIES for principle in family.PRINCIPLES]


@pytest.mark.parametrize(("text", "worked"), PRINCIPLES, ids=[worked.__name__ for _, worked in PRINCIPLES])
def test_a_principle_comes_out_as_it_is_worked_out(text: str, worked: Worked) -> None:
    routine = read_routine(text)
    assert not routine.faults
    verdict = prove(routine)
    assert (verdict.paths, verdict.failing_paths) == worked()
    assert verdict.verdict == ("refuted" if worked()[1] else "proved")
