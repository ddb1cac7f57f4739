"""Many piles in any order: one after another, against the reference, which lists every order."""

from __future__ import annotations

from unittest.mock import patch

import pytest

from golden_pivot.core.answers.proving import prove
from golden_pivot.core.answers.verdicts import RULE
from golden_pivot.core.building.table import Table
from golden_pivot.core.language.parser import read_routine
from golden_pivot.witness import piles
from tests.core.test_three_ways import agree

FOUR = "Pack: 10 cards, any order\nPlace A 5th\nDeal deck into 4 piles\n"


@pytest.mark.parametrize(
    "rows",
    [
        "Spectator gathers the piles in any order\nEnds with: the 1st card of deck is A\n",
        "Spectator secretly gathers the piles in any order\n",
        "Spectator secretly gathers the piles in any order to table\n",
        "Gather the piles, pile 1 on top, the others in any order\n",
        "Gather the piles, pile 1 3rd, the others in any order\n",
        "Gather the piles, pile 1 2nd from the bottom, the others in any order\n",
        "Gather the piles, pile 2 at the bottom, the others in any order\nEnds with: the 1st card of deck is A\n",
        "Gather the piles, pile 1 4th, the others in any order\n",
        "Put pile 2 on table\nGather the piles, pile 2 2nd, the others in any order\nEnds with: the 1st card of deck is A\n",
        "Put pile 2 on table\nGather the piles, pile 1 2nd, the others in any order\nEnds with: the 4th card of deck is A\n",
        "Spectator gathers the piles in any order\nDeal deck into 3 piles\nSpectator secretly gathers the piles in any order\nEnds with: the 4th card of deck is A\n",
        "Spectator secretly gathers the piles in any order\nRepeat 2 times:\n  Deal deck into 4 piles\n  Spectator tells which pile holds A: p\n  Gather the piles, pile p 2nd, the others in any order\n",
    ],
)
def test_one_after_another(rows: str) -> None:
    with patch.object(Table, "is_one_choice", lambda table, count: count < 2), patch.object(piles, "MOST_AT_ONCE", 1):
        agree(FOUR + rows)


def test_as_many_as_there_are() -> None:
    """Seven piles, which are too many for one choice: 5,040 orders, each of them a path of the reference."""
    agree("Pack: 8 cards, any order\nPlace A 5th\nDeal deck into 7 piles\nSpectator gathers the piles in any order\nEnds with: the 1st card of deck is A\n")  # fmt: skip


def test_twenty_piles_of_which_one_is_told() -> None:
    """(2 − 1) · 20 + … : told twice it lies 22nd, whatever the others do; common practice, no published source."""
    told = "  Deal deck into 20 piles\n  Spectator tells which pile holds their card: p\n  Gather the piles, pile p 2nd, the others in any order\n"
    text = f"Pack: 60 cards\nSpectator thinks of a card in deck: their card\nRepeat 2 times:\n{told}Ends with: their card is in deck\n"
    verdict = prove(read_routine(text))
    assert verdict.verdict == "proved" and verdict.states_widest < 100


@pytest.mark.parametrize(
    "gathers", ["Spectator gathers the piles in any order", "Gather the piles, pile 1 3rd, the others in any order"]
)
def test_the_order_is_told_as_it_is_where_it_is_one_choice(gathers: str) -> None:
    text = f"{FOUR}{gathers}\nTake the top card of deck to hand\n"
    at_once = prove(read_routine(text))
    with patch.object(Table, "is_one_choice", lambda table, count: count < 2):
        verdict = prove(read_routine(text))
    assert (verdict.verdict, verdict.told, verdict.whereabouts) == (
        RULE,
        ("the order of the piles",),
        at_once.whereabouts,
    )
    assert verdict.landing and at_once.landing and verdict.landing.table == at_once.landing.table
    assert verdict.landing.table[0].words[0].startswith("the order of the piles is ")
