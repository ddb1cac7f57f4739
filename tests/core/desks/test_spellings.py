"""Spellings, against values worked out by hand, by plain simulation, or published."""

from __future__ import annotations

import pytest

from golden_pivot.core.budget import Budget
from golden_pivot.core.desks import spelling
from tests.core.desks import verdict

LETTERS_BY_HAND = (3, 3, 5, 4, 4, 3, 5, 5, 4, 3, 4, 5, 4), (5, 8, 6, 6)
"""letters of ace, two … king, and of clubs, diamonds, hearts, spades; counted by hand"""


def spelled(**asks: object) -> spelling.SpellingAnswers:
    return spelling.answer(spelling.SpellingAsks(**asks), Budget())  # type: ignore[arg-type]


def test_the_letters_of_the_52_cards() -> None:
    found = spelled()
    values, suits = LETTERS_BY_HAND
    own = [value + suit for suit in suits for value in values]
    assert [row.letters for row in found.rows] == own
    # with the middle word; without; with the article; for one card of the suit
    more = {
        "{value} {of} {suit}": 2,
        "{value} {suit}": 0,
        "{article} {value} {of} {suit}": 5,
        "{value} {of} {one}": 1,
    }
    for template, extra in more.items():
        column = [phrasing.template for phrasing in found.phrasings].index(template)
        assert [row.counts[column].letters for row in found.rows] == [letters + extra for letters in own]


WITH_AND_WITHOUT = ["{value} {of} {suit}", "{value} {suit}", "~{value} {of} {one}", "~{value} {one}"]
"""with the middle word or without, in the plural or the singular"""


@pytest.mark.parametrize(
    ("position", "out_of_reach"),
    [
        # Two neighbouring counts, one with the last card and one with the next, reach five numbers of letters of the six.
        (12, ("ace of clubs", "two of clubs", "six of clubs", "ten of clubs")),
        (11, ("three of diamonds", "seven of diamonds", "eight of diamonds", "queen of diamonds")),
    ],
)
def test_two_neighbouring_counts_reach_48_of_52_at_best(position: int, out_of_reach: tuple[str, ...]) -> None:
    found = spelled(phrasings=WITH_AND_WITHOUT, wanted=[position])
    assert len(found.scripts) == 48 and found.unreached == out_of_reach
    assert [(one.position, one.reached) for one in found.best[:3]] == [(12, 48), (11, 48), (10, 43)]


def test_every_script_of_the_spelling_desk_is_proved() -> None:
    for found in (
        spelled(),
        spelled(reveals=["tabled"], packet=7, wanted=[3]),
        spelled(names="Odile\nBo", wanted=[5, 2]),
    ):
        for script in found.scripts[::5]:
            assert verdict(script.send) == "proved", script


def test_one_rule_for_all_cards_is_proved() -> None:
    """At the 13th place every card can be reached, so that the rule holds whatever card lies there."""
    found = spelled(wanted=[13])
    assert found.unreached == () and found.exceptions == () and verdict(found.send) == "proved"
    assert spelled().send is None, "four cards are to be kept out at the 11th place"


def test_the_smallest_set_of_scripts() -> None:
    found = spelled(phrasings=["{value} {of} {suit}", "{value} {suit}", "~{value}"], wanted=[11])
    # 43 cards need 8, 9 (with the middle word) or 10, 11 letters (without): four scripts, as each number needs its own.
    assert len(found.scripts) == 43 and len(found.fewest) == 4 and found.fewest_is_least


@pytest.mark.parametrize(
    ("pack", "name", "letters"),
    # Counted by hand.
    [
        ("spanish", "reina de corazones", 16), ("french", "as de cœur", 8), ("german", "Herz König", 9),
        ("german-32", "Schellen Ober", 12), ("italian", "sette di picche", 13), ("spanish-40", "sota de oros", 10),
    ],
)  # fmt: skip
def test_other_languages(pack: str, name: str, letters: int) -> None:
    counted = {count.spelled: count.letters for row in spelled(pack=pack).rows for count in row.counts}
    assert counted[name] == letters


def test_accents_count_once_however_they_are_written() -> None:
    (row,) = spelled(names="Zoe\u0308 d’Île-1").rows
    assert row.name == "Zoë d’Île-1" and row.letters == 7
