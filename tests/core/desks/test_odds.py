"""Odds, against values worked out by hand, by plain simulation, or published."""

from __future__ import annotations

import os
from math import comb

import pytest

from golden_pivot.core.answers import odds as answered
from golden_pivot.core.answers.odds import odds_of
from golden_pivot.core.answers.proving import prove
from golden_pivot.core.budget import Budget
from golden_pivot.core.desks import odds_desk as odds
from golden_pivot.core.language.parser import read_routine
from tests.core.desks import PROCEDURES


def test_a_habit_gives_its_odds() -> None:
    """The binomial numbers themselves: a cut of 40 cards about the middle, kept from 15 to 25."""
    found = odds.answer(odds.OddsAsks(numbers=["n"]), Budget())
    inside = sum(comb(40, k) for k in range(15, 26))
    chances = {one.about: {o.outcome: o.least for o in one.outcomes} for one in found.distributions}
    assert chances["n"] == pytest.approx({str(k): comb(40, k) / inside for k in range(15, 26)})
    upper = sum(comb(40, k) for k in range(18, 26)) / inside
    assert sorted(chances["ending"].values()) == pytest.approx([1 - upper, upper])
    (limit,) = found.limits
    assert limit.broken == pytest.approx(1 - inside / 2**40)
    assert [out.words[:6] for out in found.outs] == ["line 7", "line 9"]
    # The safe range is the shortest that is kept 99 times in 100, and the routine with it is proved.
    kept = {w: sum(comb(40, k) for k in range(20 - w, 21 + w)) / 2**40 for w in (7, 8)}
    assert kept[7] < 0.99 <= kept[8] and (limit.safe_low, limit.safe_high) == (12, 28)
    assert prove(read_routine(limit.text)).verdict == "proved"


def test_records_and_open_choices() -> None:
    found = odds.answer(odds.OddsAsks(habits=["n: as recorded 18, 20, 20, 31"], numbers=["n"]), Budget())
    numbers = next(one for one in found.distributions if one.about == "n")
    assert [(o.outcome, o.least) for o in numbers.outcomes] == [
        ("18", pytest.approx(1 / 3)),
        ("20", pytest.approx(2 / 3)),
    ]
    assert found.limits[0].broken == 0.25
    left_open = odds.answer(odds.OddsAsks(habits=[], rest="open"), Budget())
    assert all((o.least, o.most) == (0, 1) for one in left_open.distributions for o in one.outcomes)


def test_too_much_to_reckon_is_drawn_at_random() -> None:
    found = odds.answer(odds.OddsAsks(steps=0, samples=400, habits=["n: evenly from 15 to 25"]), Budget())
    exact = odds.answer(odds.OddsAsks(habits=["n: evenly from 15 to 25"]), Budget())
    assert found.samples == 400 and exact.samples is None
    for drawn, known in zip(found.distributions[0].outcomes, exact.distributions[0].outcomes, strict=True):
        assert drawn.least < known.least < drawn.most and drawn.least < drawn.most


@pytest.mark.parametrize("cards", [30, *([52] if "RANDOM_ROUTINES" in os.environ else [])])
def test_how_many_piles_a_pack_makes(cards: int) -> None:
    """A card of value v starts a pile of 14 − v; exact to four digits against a count of its own, by multisets of starters.

    The whole pack takes more than a minute: `make random` has it.
    """
    chances: dict[int, float] = {}
    layer = {(0,) * 13: 1.0}
    while layer:
        following: dict[tuple[int, ...], float] = {}
        for used, chance in layer.items():
            piles, left = sum(used), cards - sum((13 - i) * n for i, n in enumerate(used))
            for i, n in enumerate(used):
                share = chance * (4 - n) / (52 - piles)
                if left == 0 or left < 13 - i:
                    chances[piles] = chances.get(piles, 0) + share
                elif n < 4:
                    more = (*used[:i], n + 1, *used[i + 1 :])
                    following[more] = following.get(more, 0) + share
        layer = following
    text = (PROCEDURES / "p15_pile_count.pivot").read_text(encoding="utf-8").replace("Pack: 52", f"Pack: {cards}")
    found = odds.answer(odds.OddsAsks(routine=text, habits=[], steps=10**8), Budget(seconds=None))
    (piles_made,) = found.distributions
    assert found.samples is None and sorted(chances) == list(range(min(chances), max(chances) + 1))
    known = {int(outcome.outcome): outcome.least for outcome in piles_made.outcomes}
    assert known == pytest.approx(chances, rel=1e-4)
    assert cards < 52 or (round(known[7], 4) == 0.2804 and (min(known), max(known)) == (4, 18))


def test_while_exact_odds_take_their_time_an_estimate_is_told(monkeypatch: pytest.MonkeyPatch) -> None:
    routine = read_routine(
        "Pack: 52 cards, any order\nRepeat 4 times:\n  Deal 1 card from deck\nOdds of value of the last card dealt\n"
    )
    at_once = odds_of(routine, Budget())
    monkeypatch.setattr(answered, "FIRST_STEPS", 3)
    said: list[str] = []
    assert odds_of(routine, Budget(progress=said.append)) == at_once and at_once.samples is None
    assert any(
        "300 of 4,000 paths drawn: value of the last card dealt" in words and "; line" in words for words in said
    )
