"""Principles outside of our own list: verdict and paths, each worked out beside it in a few lines that know nothing of the bench."""

from __future__ import annotations

import pytest

from golden_pivot.core.answers.verdicts import prove
from golden_pivot.core.language.parser import read_routine

from . import counts_and_faces, first_sentences, layouts, moves, numbers_and_words, set_ups
from .worked import Worked

PRINCIPLES = [
    *first_sentences.PRINCIPLES,
    *counts_and_faces.PRINCIPLES,
    *layouts.PRINCIPLES,
    *set_ups.PRINCIPLES,
    *numbers_and_words.PRINCIPLES,
    *moves.PRINCIPLES,
]


@pytest.mark.parametrize(("text", "worked"), PRINCIPLES, ids=[worked.__name__ for _, worked in PRINCIPLES])
def test_a_principle_comes_out_as_it_is_worked_out(text: str, worked: Worked) -> None:
    routine = read_routine(text)
    assert not routine.faults
    verdict = prove(routine)
    assert (verdict.paths, verdict.failing_paths) == worked()
    assert verdict.verdict == ("refuted" if worked()[1] else "proved")
