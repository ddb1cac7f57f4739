"""Routines on which an answer was once wrong, one file a class (tests/faults), each with what is right."""

from __future__ import annotations

from fractions import Fraction
from math import comb
from pathlib import Path

import pytest

from golden_pivot.core.analysis import Analysis
from golden_pivot.core.answers.odds import odds_of
from golden_pivot.core.answers.proving import prove
from golden_pivot.core.answers.verdicts import PROVED, REFUTED
from golden_pivot.core.budget import Budget
from golden_pivot.core.faults import BadRoutine
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.language.printer import routine_json
from golden_pivot.core.practice.drills import drills_of
from golden_pivot.core.variants.blanks import solve
from golden_pivot.core.variants.slips import fragility_of
from golden_pivot.witness import every_path

FOLDER = Path(__file__).parents[1] / "faults"
MOST_PATHS = 3_000
"""up to which the reference goes all of them too; it has a path for each card where the product has one for each class"""


def text_of(name: str) -> str:
    return (FOLDER / f"{name}.pivot").read_text(encoding="utf-8")


VERDICTS = {
    "false_proof": (REFUTED, 52, 52),
    "false_refutation_same_card_twice": (PROVED, 52, 0),
    "fifth_ace": (PROVED, 96, 0),
    "black_pack_red_card": (PROVED, 4, 0),
    "no_path_gets_past": (PROVED, None, None),
    "traceback_min_empty": (PROVED, 4, 0),
    "point_after_new_pile": (PROVED, 3, 0),
    "holds_after_new_pile": (PROVED, 1, 0),
    "slip_in_endless_block": (PROVED, None, None),
    "false_proof_repeat_with_let": (REFUTED, 52 * 51, 26 * 25),
    "false_proof_for_each": (REFUTED, 52 * 51 * 50, 26 * 25 * 24),
    "false_proof_number_set_anew": (REFUTED, 52 * 51, 26 * 25),
    "false_proof_spectators_number": (REFUTED, None, None),
    "false_fault_value": (REFUTED, 52 * 51, 28 * 27),
    "false_refutation_ring": (PROVED, 52 * 51 * 50, 0),
    "false_proof_two_kings": (REFUTED, 52 * 51, 4 * 3),
    "size_of_pile_p_not_read": (PROVED, 3, 0),
    "false_fails_red_black": (PROVED, None, None),
    "false_fails_colour_pairs": (PROVED, None, None),
    "count_keeps_piles": (REFUTED, 5, None),
    "count_stuck_in_repetition": (REFUTED, 135, None),
    "narrowing_laid_piles": (REFUTED, 6, 6),
    "fifth_ace_in_a_loop": (PROVED, None, None),
}


@pytest.mark.parametrize("name", VERDICTS)
def test_the_verdict_is_right(name: str) -> None:
    verdict, paths, failing = VERDICTS[name]
    found = prove(read_routine(text_of(name)))
    assert found.verdict == verdict
    assert paths is None or found.paths == paths
    assert failing is None or found.failing_paths == failing
    if verdict == REFUTED:
        assert found.counterexample and found.counterexample.sentence.rpartition(": ")[2]
    if (found.paths or MOST_PATHS) < MOST_PATHS:
        theirs = every_path(routine_json(read_routine(text_of(name))))
        assert (found.paths, found.failing_paths) == (len(theirs), sum(path.fails for path in theirs))


REFUSED = {
    "write_leaks_a_secret": "You do not know n",
    "cut_to_a_thought_card": "you do not know what their card is",
    "claim_nobody_reaches": "No path comes to this claim.",
    "another_spectators_card": "Spectator 2 does not know what A is",
    "another_spectators_card_told": "Spectator 2 does not know what A is",
}


@pytest.mark.parametrize("name", REFUSED)
def test_what_nobody_could_do_is_refused(name: str) -> None:
    with pytest.raises(BadRoutine, match=REFUSED[name]):
        prove(read_routine(text_of(name)))


def aces(many: int, of: int) -> Fraction:
    """Exactly so many aces among so many cards of a pack: hypergeometric."""
    return Fraction(comb(4, many) * comb(48, of - many), comb(52, of))


ODDS = {
    "odds_two_names": {"1": Fraction(25, 102), "0": Fraction(77, 102)},
    "odds_two_tops": {"1": 1 - Fraction(39 * 38, 52 * 51), "0": Fraction(39 * 38, 52 * 51)},
    "wrong_exact_odds": {"0": Fraction(25, 102), "1": Fraction(52, 102), "2": Fraction(25, 102)},
    "odds_of_fifteen_aces": {str(many): aces(many, 15) for many in range(5)},
    "odds_of_keeps": {"1": Fraction(1, 2), "3": Fraction(1, 2)},
    "odds_of_keeps_three": {one: Fraction(1, 3) for one in "123"},
}


@pytest.mark.parametrize("name", ODDS)
def test_the_odds_are_right(name: str) -> None:
    found = odds_of(read_routine(text_of(name)), Budget())
    assert {one.outcome: one.least for one in found.chances} == ODDS[name] and found.samples is None
    assert all(one.least == one.most for one in found.chances)


def test_odds_where_keeping_is_left_open_are_what_a_plan_can_make_them() -> None:
    open_ = text_of("odds_of_keeps_three").replace("Odds: every choice is equally likely\n", "")
    found = odds_of(read_routine(open_), Budget())
    assert [(one.outcome, one.least, one.most) for one in found.chances] == [(one, 0, 1) for one in "123"]


def test_odds_drawn_at_random_keep_every_way_as_often() -> None:
    """Where the pack makes another number of piles each time, that number is drawn as if nothing were kept."""
    text = (
        "Pack: 6 cards, any order\nChance decides on a number n from 1 to 3\nRepeat n + 1 times:\n  Cut off 1 card of deck to packet\n"
        "  Lay packet down as a new pile\nSpectator keeps 2 of the piles\nOdds of n\nOdds: every choice is equally likely\n"
    )
    exact = odds_of(read_routine(text), Budget())
    assert {one.outcome: one.least for one in exact.chances} == {n: Fraction(1, 3) for n in "123"}
    drawn = odds_of(read_routine(text), Budget(transitions=1))
    assert drawn.samples and all(one.least <= Fraction(1, 3) <= one.most for one in drawn.chances)


def test_each_line_with_cases_is_a_question_of_its_own() -> None:
    (cases,) = (one for one in drills_of(Analysis(text_of("drill_of_two_lines"))) if one.name == "cases")
    right = {1: ("Deal 1 card from deck to table", "Deal 4 cards from deck to hand"),
             2: ("Deal 2 cards from deck to table", "Deal 3 cards from deck to hand"),
             3: ("Deal 2 cards from deck to table", "Deal 4 cards from deck to hand")}  # fmt: skip
    asked = {(one.known, one.asks): one.answer for one in cases.questions}
    assert asked == {
        (f"n is {n}", f"What do you do in line {line}?"): answer
        for n, answers in right.items()
        for line, answer in zip((4, 8), answers, strict=True)
    }


def test_a_rule_does_not_survive_its_slip() -> None:
    found = fragility_of(text_of("slips_of_a_rule"), Budget())
    assert any(one.kind != "harmless" and "place further" in one.slip.what for one in found.outcomes)


def test_what_would_finds_what_is_proved_on_the_paths_that_come_to_it() -> None:
    found = solve(text_of("solve_denies"), Budget(), {1: [str(n) for n in range(1, 10)]})
    assert found.answers == (("5",),) and found.complete


def test_three_places_of_ten_are_found_again() -> None:
    found = solve(text_of("lost_search"), Budget())
    assert (
        {frozenset(one) for one in found.answers} == {frozenset("379")} and len(found.answers) == 6 and found.complete
    )


def test_every_file_is_in_a_table() -> None:
    tried = {*VERDICTS, *REFUSED, *ODDS, "drill_of_two_lines", "slips_of_a_rule", "solve_denies", "lost_search"}
    assert {file.stem for file in FOLDER.glob("*.pivot")} == tried
