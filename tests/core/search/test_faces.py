"""Unknown faces are told apart no further than a routine asks, so that a whole pack of them can be gone through."""

from __future__ import annotations

import pytest

from golden_pivot.core.answers.proving import prove
from golden_pivot.core.building import PROOF, compile_routine
from golden_pivot.core.language.parser import read_routine

TOP = "the top card of deck"
ASKED = [
    (f"{TOP} is a king", 4),
    (f"value of {TOP} is 13", 4),
    (f"11 is less than value of {TOP}", 8),
    (f"11 is at most value of {TOP}", 12),
    (f"value of {TOP} is odd", 28),
    (f"suit of {TOP} is not 4", 39),
    (f"letters of suit of {TOP} is 6", 26),
    (f"value of {TOP} is 0", 0),
]


TWO_ASKED = [
    (f"suit of {TOP} is 4 and value of {TOP} is 1", 1, (1, 3, 12, 36)),
    (f"value of {TOP} is odd or 11 is less than value of {TOP}", 32, (4, 4, 20, 24)),
    (f"{TOP} is red and value of {TOP} is even", 12, (12, 12, 14, 14)),
    (f"value of {TOP} is at least 5 and value of {TOP} is at most 8", 16, (16, 16, 20)),
]


@pytest.mark.parametrize("asked, so_many, classes", TWO_ASKED)
def test_so_do_two_questions_in_one_line(asked: str, so_many: int, classes: tuple[int, ...]) -> None:
    text = (f"Pack: 52 cards, any order\nTurn deck over\nUntil deck runs out:\n  If {asked}:\n    Deal 1 card from deck to table\n"
            "  Otherwise:\n    Deal 1 card from deck to hand\n")  # fmt: skip
    routine = read_routine(f"{text}Ends with: size of hand is {52 - so_many}\n")
    assert tuple(sorted(len(one.names) for one in compile_routine(routine, PROOF).face_classes)) == classes
    assert prove(routine).verdict == "proved"


@pytest.mark.parametrize("asked, so_many", ASKED)
def test_a_question_with_two_answers_makes_two_classes(asked: str, so_many: int) -> None:
    text = (f"Pack: 52 cards, any order\nTurn deck over\nUntil deck runs out:\n  If {asked}:\n    Deal 1 card from deck to table\n"
            "  Otherwise:\n    Deal 1 card from deck to hand\n")  # fmt: skip
    routine = read_routine(f"{text}Ends with: size of hand is {52 - so_many}\n")
    assert len(compile_routine(routine, PROOF).face_classes) == 1 + bool(so_many)
    assert prove(routine).verdict == "proved"
    assert prove(read_routine(f"{text}Ends with: size of hand is {51 - so_many}\n")).verdict == "refuted"
