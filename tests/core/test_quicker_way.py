"""Blanks: the same answers together and each by itself, whichever is chosen; and blanks where one would write them."""

from __future__ import annotations

from dataclasses import replace
from unittest.mock import patch

import pytest
from scripts.bench_searches import searches

from golden_pivot.core.answers.proving import prove
from golden_pivot.core.answers.verdicts import PROVED
from golden_pivot.core.budget import Budget
from golden_pivot.core.faults import BadRoutine
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.language.printer import routine_json, routine_text, text_from_json
from golden_pivot.core.variants import blanks
from golden_pivot.core.variants.blanks import Solution, solve
from golden_pivot.core.variants.fields import fields_of, filled
from golden_pivot.core.variants.trying import Task

QUICK = (
    "two places on eight cards, cuts and turns",
    "a number told, and a place",
    "two piles",
    "how many of a shuffled packet",
)


def found(text: str, way: str) -> Solution:
    def chosen(task: Task, budget: Budget) -> Task:
        return task if way == "together" else replace(task, at_once=())

    if way == "as chosen":
        return solve(text, Budget())
    with patch.object(blanks, "in_the_quicker_way", chosen):
        return solve(text, Budget())


@pytest.mark.parametrize("name", QUICK)
def test_every_way_finds_the_same(name: str) -> None:
    text = searches()[name]
    ways = [found(text, way) for way in ("together", "each by itself", "as chosen")]
    assert len({(one.answers, one.fillings, one.working, one.complete) for one in ways}) == 1
    assert ways[0].tried == ways[0].fillings


@pytest.mark.parametrize("name", QUICK)
def test_what_is_chosen_does_not_hang_on_the_clock(name: str) -> None:
    assert solve(searches()[name], Budget()) == solve(searches()[name], Budget())


def test_each_filling_by_itself_is_what_its_routine_is() -> None:
    """Brute force: every filling written out and proved."""
    text = searches()["a number told, and a place"]
    fields = fields_of(read_routine(text))
    right = {
        (value,)
        for value in fields[0].domain
        if prove(read_routine(filled(text, fields, (value,)))).verdict == PROVED
    }
    for way in ("together", "each by itself", "as chosen"):
        assert set(found(text, way).answers) == right, way


CASES = """Pack: 9 cards, any order
Place FORCE on top
Spectator names a number n from 1 to 3
If n is not ?:
  End here
Deal n cards from deck to table
Ends with: the bottom card of table is FORCE
Ends with: size of table is 2
"""


def test_what_some_paths_never_come_to_is_an_answer_with_a_reservation() -> None:
    for way in ("together", "each by itself", "as chosen"):
        assert found(CASES, way).answers == (("2",),), way


# Blanks where one would write them

TOLD = """Pack: 21 cards, any order
Spectator thinks of a card in deck: their card
Deal deck into 3 piles
Spectator tells which pile holds their card: p
Gather the piles, pile p ?, the others in any order
Ends with: size of deck is 21
"""


def test_a_whole_position_takes_numbers() -> None:
    assert found(TOLD, "as chosen").answers == (("1",), ("2",), ("3",))
    routine = filled(TOLD, fields_of(read_routine(TOLD)), ("2",))
    assert "pile p 2nd," in routine and not read_routine(routine).faults


def test_what_makes_no_sentence_is_told_as_that() -> None:
    said = solve(TOLD, Budget(), {1: ["2", "sideways"]})
    assert said.answers == (("2",),) and said.unread == 1
    assert said.says.startswith("1 of 2 ways work. 1 of them makes no sentence, such as sideways: line 5")
    none = solve(TOLD, Budget(), {1: ["sideways", "over there"]})
    assert none.says.startswith("0 of 2 ways work. None makes a sentence, such as sideways: ")


FARO = "Pack: 8 cards, any order\nPlace FORCE on top\nGive deck {} faro\nEnds with: the top card of deck is FORCE\n"


@pytest.mark.parametrize(("blank", "answer"), [("?", "an out"), ("an ?", "out")])
def test_a_blank_may_stand_behind_an_article(blank: str, answer: str) -> None:
    said = solve(FARO.format(blank), Budget())
    assert said.answers == ((answer,),) and said.fillings == 2
    routine = read_routine(FARO.format(blank))
    assert text_from_json(routine_json(routine)) == routine_text(routine)


def test_only_what_begins_with_the_article_can_stand_behind_it() -> None:
    text = "Pack: clubs, hearts, each from ace to three\nPlace KEY 2nd\nEnds with: ace of clubs is a ?\n".replace(
        "Place KEY 2nd\n", ""
    )
    (field,) = fields_of(read_routine(text))
    assert "club" in field.domain and not any(one in ("red", "black") for one in field.domain)
    assert ("club",) in solve(text, Budget()).answers


# Places by number, in numbers


@pytest.mark.parametrize(
    ("claim", "holds"),
    [
        ("size of pile p is 4", True),
        ("size of pile (p) is 4", True),
        ("size of pile (4 - p) is 4", True),
        ("size of pile 1 + p is 4 + p", True),
        ("2 * size of pile p is 8", True),
        ("number of face-up cards of pile p is 0", True),
        ("number of face-down cards of pile (4 - p) is 4", True),
        ("size of pile p is 3", False),
    ],
)
def test_a_pile_by_its_number_is_counted(claim: str, holds: bool) -> None:
    text = f"Pack: 12 cards, any order\nDeal deck into 3 piles\nSpectator points to a pile: p\nEnds with: {claim}\n"
    routine = read_routine(text)
    assert not routine.faults and (prove(routine).verdict == PROVED) == holds
    assert read_routine(routine_text(routine)).faults == () and text_from_json(routine_json(routine)) == routine_text(
        routine
    )


def test_a_pile_that_is_not_there_gets_stuck_and_a_secret_number_is_not_known() -> None:
    piles = "Pack: 12 cards, any order\nDeal deck into 3 piles\n"
    verdict = prove(read_routine(f"{piles}Spectator names a number n from 1 to 4\nEnds with: size of pile n is 4\n"))
    assert (verdict.paths, verdict.failing_paths) == (4, 1)
    secret = f"{piles}Spectator secretly points to a pile: p\nDeal size of pile p cards from pile 1 to table\nEnds with: size of table is 4\n"
    with pytest.raises(BadRoutine, match="You do not know p"):
        prove(read_routine(secret))
