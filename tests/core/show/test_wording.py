"""Whether what is said is so."""

from __future__ import annotations

import pytest

from golden_pivot import demo
from golden_pivot.core.analysis import Analysis
from golden_pivot.core.answers.on_table import on_table
from golden_pivot.core.answers.plays import play
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.show.cues import cues_of
from golden_pivot.core.show.wording import wording_of
from tests.core.show import SHOWN, file_text


def test_two_cards_will_be_face_up_is_caught() -> None:
    """They are reversed; whether that is face up or face down depends on how the packet lies."""
    text = file_text("p11_cut_and_turn_over")
    assert wording_of(Analysis(text)) == ()
    said = text.rstrip() + "\n  “Two cards will be face up, and you know which.”\n"
    (finding,) = wording_of(Analysis(said))
    assert finding.said == "Two cards will be face up" and finding.line == len(said.splitlines())
    meant = said.replace("which.”", "which.” (untrue)")
    assert wording_of(Analysis(meant)) == ()
    (beat,) = (one for one in cues_of(Analysis(meant)).beats if one.says and "Two" in one.says[-1])
    assert beat.says[-1] == "Two cards will be face up, and you know which."


def test_the_eleventh_card_is_caught_where_it_can_be_the_twelfth() -> None:
    text = (
        "Pack: 30 cards, any order\nPlace A 11th\nPlace B in pocket\nSpectator names a number n from 0 to 1\n"
        "If n is 1:\n  Put pocket on deck\n“You find it at the eleventh card.”\n"
    )
    (finding,) = wording_of(Analysis(text))
    assert finding.said == "the eleventh card" and finding.why.startswith("Fails when n is 1: A is 12th")
    assert wording_of(Analysis(text.replace("from 0 to 1", "from 0 to 0"))) == ()


@pytest.mark.parametrize(
    ("patter", "caught"),
    [
        ("Three cards are face up.", None),
        ("2 cards are face up.", "2 cards are face up"),
        ("You said {n}.", None),
        ("You said {m}.", "{m}"),
        ("The 9th card waits.", "The 9th card"),
        ("The fifth card waits.", None),
        ("Sixteen cards are left in the pack.", "Sixteen cards are left in the pack"),
        ("There are 20 cards in the pack.", None),
        ("You hold two cards in your hand.", None),
        ("Between 3 cards on the table", None),
        ("There are nineteen cards left in the pack.", "There are nineteen cards left in the pack"),
        ("The top card is face up.", None),
        ("The top card is face down.", "The top card is face down"),
        ("The top card is red.", "The top card is red"),
        ("The bottom card is the queen of hearts.", None),
        ("The top card is the queen of hearts.", "The top card is the queen of hearts"),
        ("The top card is yours.", None),
        ("The bottom card is yours.", "The bottom card is yours"),
        ("Your card is black.", "Your card is black"),
        ("In the end the top card will be face down.", None),
    ],
)
def test_what_is_said_is_proved_where_it_is_said(patter: str, caught: str | None) -> None:
    text = (
        "Pack: 20 cards, any order\nPlace A 5th\nPlace queen of hearts at the bottom\nSpectator names a number n from 2 to 4\n"
        "Spectator remembers the 3rd card of deck: their card\nTurn over the top 3 cards of deck as a block\n"
        f"  “{patter}”\nTurn over the top 3 cards of deck as a block\nEnds with: the 5th card of deck is A\n"
    )
    assert [one.said for one in wording_of(Analysis(text))] == ([caught] if caught else [])


def test_what_is_said_in_one_case_is_judged_on_its_paths_alone() -> None:
    """By hand: of 2 or 3 cards dealt the case tells which; two more rounds lay 3, 4 or 5; only where n is 2 is A face up."""
    text = (
        "Pack: 20 cards, any order\nPlace A 2nd\nSpectator names a number n from 2 to 3\nDeal n cards from deck to table\nIf n is 3:\n"
        "  “Three cards are on the table.”\nOtherwise:\n  Turn the top card of table face up\n"
        "    “Two cards are on the table, and in the end the bottom card will be face up.”\n"
        "Repeat 2 times:\n  Deal 1 card from deck to table\n    “Four cards are on the table”\n“The bottom card is face up.”\n"
        "Turn table over\nTurn table over\nEnds with: the card at position 3 of table is A\n"
    )
    found = {(one.line, one.said) for one in wording_of(Analysis(text))}
    assert found == {
        (9, "the bottom card will be face up"),
        (12, "Four cards are on the table"),
        (13, "The bottom card is face up"),
    }
    deep = text.replace("the bottom card will be", "the 3rd card of table, you know, will be").replace(
        "the card at position 3 of table is A", "size of table is n + 2"
    )
    assert {one.line for one in wording_of(Analysis(deep))} == {12, 13}


def test_no_demo_routine_says_what_is_not_so() -> None:
    for name in SHOWN:
        assert wording_of(Analysis(demo.demo_text(name))) == (), name


def test_a_prediction_made_of_a_card_lies_where_it_is_said_to_lie() -> None:
    text = (
        "Pack: 20 cards, any order\nPlace MATE in pocket\nPlace FORCE 3rd, the mate of MATE\nPrediction: MATE, ready in pocket\n"
        "Deal 3 cards from deck to table\nEnds with: the last card dealt is the mate of MATE\n"
    )
    assert wording_of(Analysis(text)) == ()
    (finding,) = wording_of(Analysis(text.replace("Ends with", "Put pocket on deck\nEnds with")))
    assert finding.why.startswith("Fails every time: MATE is 1st in deck")


def test_the_table_has_what_is_said_with_its_numbers() -> None:
    text = (
        "Pack: 20 cards, any order\n  “At first.”\nSpectator names a number n from 3 to 4\n  “{n}, not {m}.”\n  # nod\n"
        "  “Well.” (untrue)\nDeal n cards from deck to table\n  “{n} it is.”\nTurn deck over\n"
    )
    first, *others = on_table(read_routine(text), play(read_routine(text), {"n": 4})).frames
    assert (first.done, first.said) == ("", ())
    assert [(one.done, one.said) for one in others] == [
        ("Spectator names a number n from 3 to 4", ("4, not {m}.", "Well.")),
        ("Deal n cards from deck to table", ("4 it is.",)),
        ("Turn deck over", ()),
    ]
