"""What is learned from a desk, against counting by hand and cards that are dealt in lists."""

from __future__ import annotations

import random
import re
from itertools import pairwise
from typing import Any

import pytest

from golden_pivot.core.budget import Budget
from golden_pivot.core.desks import DESKS
from golden_pivot.core.desks.spelling import KEPT_OUT
from golden_pivot.core.practice.drills import drill_of
from golden_pivot.core.search.faces import PACK
from golden_pivot.core.to_learn import DrillQuestion


def learned(name: str, **asks: Any) -> list[DrillQuestion]:
    desk = DESKS[name]
    asked = desk.asks(**asks)
    assert desk.to_learn
    found = list(drill_of(name, "", desk.to_learn(asked, desk.answer(asked, Budget()))).questions)
    assert all(one.answer in one.options for one in found if one.options)
    return found


def reached_by(card: str) -> set[int]:
    """Cards, from the top, that any usual way to say its name comes to, with the last letter or behind it."""
    value, suit = card.split(" of ")
    own = len(value + suit)
    letters = {own, own + len("of"), own + len("theof"), own + len("the"), len(value)}
    letters |= {own - len("s"), own - len("s") + len("of")}
    return {one + more for one in letters for more in (0, 1)}


@pytest.mark.parametrize("names", ["", "Ann\nBartholomew\nChristopher\nBo"])
def test_every_letter_is_a_card_and_no_wrong_answer_would_do(names: str) -> None:
    """Letters are counted, nothing else: the right words come to the eleventh card, the others to none that is wanted."""
    questions = learned(
        "spell", names=names, wanted=[11], reveals=["last", "next"], **({"phrasings": ["{name}"]} if names else {})
    )
    assert len(questions) == (4 if names else 52)
    for one in questions:
        for words in one.options:
            if words != KEPT_OUT:
                spelled, card = re.fullmatch(r"“(.*)”, the (last|next) card.*", words).groups()  # type: ignore[union-attr]
                place = sum(letter.isalpha() for letter in spelled) + (card == "next")
                assert (place == 11) == (words == one.answer), one
    kept_out = {one.known for one in questions if one.answer == KEPT_OUT}
    assert kept_out == ({"Ann", "Bo"} if names else {card for card in PACK if 11 not in reached_by(card)})


@pytest.mark.parametrize("dealt", ["face up", "face down"])
def test_the_places_of_the_pile_take_the_card_where_it_is_said(dealt: str) -> None:
    """Sixteen cards in lists, twice dealt into four piles, the others put together in any order around the told one."""
    draw, places = random.Random(5), {"top": 0, "2nd from the top": 1, "3rd from the top": 2, "bottom": 3}
    questions = learned("pickup", piles=4, rounds=2, cards=16, dealt=dealt)
    sequences = {one.known: int(one.answer) for one in questions if one.asks == "Where does their card come to?"}
    assert sorted(sequences.values()) == list(range(1, 17))
    for words, position in sequences.items():
        for card in range(16):
            pack = list(range(16))
            for place in words.split(", "):
                piles: list[list[int]] = [[], [], [], []]
                for nth, one in enumerate(pack):
                    piles[nth % 4].insert(0, one)
                told = next(pile for pile in piles if card in pile)
                others = [pile for pile in piles if pile is not told]
                draw.shuffle(others)
                others.insert(places[place], told)
                stack = [one for pile in others for one in pile]
                pack = stack[::-1] if dealt == "face up" else stack
            assert pack.index(card) + 1 == position, (words, card)
    for one in questions:
        if one.options:
            assert [sequences[words] for words in one.options].count(sequences[one.answer]) == 1
            assert f"to the {sequences[one.answer]}" == re.sub(r"(?<=\d)\D+$", "", one.known)
    assert not any(one.options for one in learned("pickup", told="stack"))


def test_an_order_is_asked_in_every_direction() -> None:
    questions = {one.key: one.answer for one in learned("stack")}
    cards = [questions[f"at {nth}"] for nth in range(1, len(questions) // 3 + 2) if f"at {nth}" in questions]
    assert len(cards) == 9 and cards[8] == "king of hearts"
    assert all(questions[f"where {card}"] == str(nth) for nth, card in enumerate(cards, 1))
    assert all(questions[f"after {first}"] == second for first, second in pairwise(cards))


def test_what_is_said_goes_by_whether_the_right_one_is_among_them() -> None:
    questions = learned("narrow")
    assert {"is among" in one.known for one in questions} == {True, False}
    for one in questions:
        assert one.answer.endswith("the ones we use." if "is among" in one.known else "go back in the case."), one
    # With two of which either will do it is not that alone that decides.
    assert learned("narrow", objects=[6], targets=2) == []


def test_of_a_desk_without_an_answer_there_is_nothing_to_learn() -> None:
    assert learned("stack", constraints=["card 1 is king of hearts", "card 1 is ace of hearts"]) == []
    assert {name for name, desk in DESKS.items() if desk.to_learn} == {"spell", "pickup", "stack", "narrow"}
