"""Loops over unknown cards in which their order makes no difference: the same numbers as draw by draw, and as the textbook has them."""

from __future__ import annotations

import os
import random
from fractions import Fraction
from math import comb
from typing import Any
from unittest.mock import patch

import pytest

from golden_pivot.core.answers.odds import odds_of
from golden_pivot.core.answers.proving import prove
from golden_pivot.core.budget import Budget
from golden_pivot.core.building import PROOF, compile_routine
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.search import frontiers
from golden_pivot.core.search.exchangeable import Exchangeable, NotExchangeable
from golden_pivot.core.search.explorer import explore
from tests.core.desks import PROCEDURES

MANY = int(os.environ.get("RANDOM_ROUTINES", "40"))
FIRST = random.randrange(10**9) if "RANDOM_ROUTINES" in os.environ else 0
TOP = "the top card of deck"


def _loop(seed: int) -> str:
    """Each time round some cards are dealt, how many and where to as the top card says, or what has been dealt so far."""
    draw = random.Random(seed)
    asked = [f"{TOP} is {sort}" for sort in ("a king", "red", "a court card", "an ace")]
    asked += [f"value of {TOP} is {test}" for test in ("at least 5", "odd", "less than 3")]
    small = [f"suit of {TOP} is 4 and value of {TOP} is {test}" for test in ("1", "at most 2", "odd", "more than 11")]
    asked += small
    asked += [
        "size of deck is less than 9 - (value of the top card of deck)",
        "size of table is at most 1",
        "size of hand is size of table",
    ]
    deals = [f"Deal {count} cards from deck to {place}" for place in ("table", "hand")
             for count in ("1", "min(2, size of deck)", f"min(size of deck, value of {TOP})")]  # fmt: skip
    first = [[f"Deal 1 card from deck to {place}"] for place in ("table", "hand")]
    for one in first:
        if draw.random() < 0.3:  # so that few cards are left of a class, or none
            one[:0] = [f"If {draw.choice(small)}:", "  Deal 1 card from deck to table"]
    condition = draw.choice(asked)
    is_small = condition in small or len(first[0]) + len(first[1]) > 2  # many classes: it takes long, draw by draw
    rows = [f"Pack: {draw.randint(3, 4 if is_small else 6)} cards, any order", "Turn deck over", *first[0], *first[1], "Until deck runs out:",
            f"  If {condition}:", f"    {draw.choice([*deals, 'Put deck on hand'])}", "  Otherwise:", f"    {draw.choice(deals)}"]  # fmt: skip
    if draw.random() < 0.2:
        rows.append(f"    {draw.choice(('Turn table over', 'Leave the loop'))}")
    return "\n".join(
        [
            *rows,
            f"Odds of size of {draw.choice(('table', 'hand'))}",
            f"Ends with: size of table is {draw.randint(1, 3)}",
            "",
        ]
    )


def _told(text: str) -> tuple[Any, ...]:
    routine = read_routine(text)
    assert not routine.faults, (text, routine.faults)
    found = prove(routine, Budget(seconds=None))
    counts = explore(compile_routine(routine, PROOF), Budget(seconds=None))
    told = found.verdict, found.paths, found.failing_paths
    return told, sorted(map(repr, counts.ends.items())), odds_of(routine, Budget(seconds=None)).chances


COUNTED = "Until deck runs out:\n  If the top card of deck is a king:\n    Deal 1 card from deck to table\n  Otherwise:\n    Deal 1 card from deck to hand\n"
AROUND = [
    # what has been seen before the loop
    f"Pack: 5 cards, any order\nTurn deck over\nIf {TOP} is a king:\n  Deal 1 card from deck to table\nOtherwise:\n  Deal 1 card from deck to hand\n"
    f"{COUNTED}Odds of size of table\nEnds with: size of hand is at least 3\n",
    # all there is of a class, the ace of spades, seen before the loop
    f"Pack: 3 cards, any order\nTurn deck over\nIf {TOP} is a spade:\n  Deal 1 card from deck to table\nOtherwise:\n  Deal 1 card from deck to hand\n"
    f"{COUNTED.replace('a king', 'an ace')}Odds of size of table\nEnds with: size of hand is at least 1\n",
    # what is looked at behind it
    f"Pack: 5 cards, any order\nTurn deck over\nDeal 2 cards from deck to side\n{COUNTED}If the top card of side is a king:\n  Put side on table\n"
    "Odds of size of table\nEnds with: size of table is at most 3\n",
]


@pytest.mark.parametrize("text", [*AROUND, *map(_loop, range(FIRST, FIRST + MANY))])
def test_the_same_as_draw_by_draw(text: str) -> None:
    (verdict, *paths), ends, odds = _told(text)
    with patch.object(frontiers, "draws_one_card", lambda *_: False):
        (its_verdict, *its_paths), its_ends, its_odds = _told(text)
    # Where it takes too much to count them, paths have no number.
    assert (verdict, ends, odds) == (its_verdict, its_ends, its_odds)
    assert paths == its_paths or its_paths == [None, None]


KINGS = ("Pack: {cards} cards, any order\nTurn deck over\nUntil deck runs out:\n  If the top card of deck is a king:\n"
         "    Deal 1 card from deck to table\n  Otherwise:\n    Deal 1 card from deck to hand\nOdds of size of table\n")  # fmt: skip


@pytest.mark.parametrize("cards", [5, 20, 51])
def test_kings_among_so_many_cards_are_hypergeometric(cards: int) -> None:
    """N. L. Johnson, S. Kotz, "Discrete Distributions", 1969, chapter 6."""
    with patch.object(frontiers._Search, "_looped", _only_at_once):
        found = odds_of(read_routine(KINGS.format(cards=cards)), Budget())
    wanted = {str(k): Fraction(comb(4, k) * comb(48, cards - k), comb(52, cards)) for k in range(5)}
    assert {chance.outcome: chance.least for chance in found.chances} == {k: p for k, p in wanted.items() if p}


def test_piles_of_a_whole_pack_are_counted_at_once() -> None:
    """Draw by draw it is a million situations, a minute and a half; tests/core/desks/test_odds.py reckons them so (`make random`)."""
    text = (PROCEDURES / "p15_pile_count.pivot").read_text(encoding="utf-8")
    with patch.object(frontiers._Search, "_looped", _only_at_once):
        found = {
            int(one.outcome): one.least for one in odds_of(read_routine(text), Budget(transitions=200_000)).chances
        }
    assert sorted(found) == list(range(4, 19)) and sum(found.values()) == 1 and round(float(found[7]), 4) == 0.2804


def _only_at_once(search: Any, stage: Any, loop: Any, layer: Any) -> Any:
    _, here = search._parted(stage, layer)
    return search._drawn_by_class(stage, loop, here)


def test_where_the_order_makes_a_difference_it_is_gone_through() -> None:
    """The first king ends it: what was dealt before that is not told by how many of each came."""
    text = (
        "Pack: 6 cards, any order\nTurn deck over\nDeal 1 card from deck to table\nUntil deck runs out:\n  If the top card of deck is a king and size of table is 1:\n"
        "    Deal min(2, size of deck) cards from deck to table\n  Otherwise:\n    Deal 1 card from deck to hand\nOdds of size of hand\n"
    )
    raised: list[bool] = []
    behind = Exchangeable.behind

    def watched(*given: Any) -> Any:
        try:
            return behind(*given)
        except NotExchangeable:
            raised.append(True)
            raise

    with patch.object(Exchangeable, "behind", watched):
        odds_of(read_routine(text), Budget())
    assert raised
