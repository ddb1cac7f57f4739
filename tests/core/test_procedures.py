"""Procedures of the trade with the results that must come out (common practice, no published source).

The results were worked out by hand-written simulation outside this project; everything here is computed.
"""

from __future__ import annotations

from pathlib import Path

import pytest

from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.language.printer import routine_json, routine_text, text_from_json
from golden_pivot.core.verdicts import prove

FOLDER = Path(__file__).parents[1] / "procedures"


def text_of(name: str) -> str:
    return (FOLDER / f"{name}.pivot").read_text(encoding="utf-8")


EXPECTED = [
    # file, verdict, paths, landing
    ("p13_digit_sum", "proved", 10, "1st in dealt"),
]


@pytest.mark.parametrize(("name", "verdict", "paths", "landing"), EXPECTED)
def test_procedure(name: str, verdict: str, paths: int, landing: str) -> None:
    found = prove(read_routine(text_of(name)))
    assert (found.verdict, found.paths) == (verdict, paths)
    assert found.landing and found.landing.text == landing
    assert found.covers_every_order and found.assumed == ()


@pytest.mark.parametrize("name", [row[0] for row in EXPECTED])
def test_text_and_json_say_the_same(name: str) -> None:
    text = text_of(name)
    routine = read_routine(text)
    assert routine_text(routine) == text
    assert text_from_json(routine_json(routine)) == text


def test_digit_sum_fails_at_exactly_20() -> None:
    verdict = prove(read_routine(text_of("p13_digit_sum").replace("to 19", "to 20")))
    assert verdict.verdict == "refuted" and verdict.counterexample and verdict.holds_when
    assert verdict.counterexample.choices == (("n", 20),)
    assert verdict.counterexample.sentence == "Fails when n is 20: TARGET is 11th but the count ends at 2"
    assert (verdict.paths, verdict.failing_paths) == (11, 1)
    assert verdict.holds_when.text == "n is 10 to 19"
