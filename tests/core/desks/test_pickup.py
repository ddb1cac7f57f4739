"""Pick-up orders, against values worked out by hand, by plain simulation, or published."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import permutations, product
from math import ceil

import pytest

from golden_pivot.core.budget import Budget
from golden_pivot.core.desks import pickup
from tests.core.desks import verdict


def dealt(cards: Sequence[int], piles: int, order: Sequence[int], up: bool) -> list[int]:
    """By hand: dealt one at a time onto the piles, put together from top to bottom, turned over if dealt face up."""
    heaps: list[list[int]] = [[] for _ in range(piles)]
    for i, card in enumerate(cards):
        heaps[i % piles].insert(0, card)
    stack = [card for pile in order for card in heaps[pile]]
    return stack[::-1] if up else stack


@pytest.mark.parametrize("up", [True, False])
def test_a_round_against_dealing_it_out(up: bool) -> None:
    for cards, piles in product(range(4, 14), (2, 3, 4)):
        landed: dict[tuple[int, int], set[int]] = {}
        for order in permutations(range(piles)):
            after_it = dealt(range(cards), piles, order, up)
            for card in range(cards):
                landed.setdefault((card + 1, order.index(card % piles) + 1), set()).add(after_it.index(card) + 1)
        for (position, slot), where in landed.items():
            assert pickup.after_round(position, slot, piles, cards, up) == tuple(sorted(where))


@pytest.mark.parametrize(("piles", "rounds", "cards"), [(3, 3, 27), (4, 2, 16), (5, 2, 25), (7, 2, 49)])
def test_gergonnes_rule(piles: int, rounds: int, cards: int) -> None:
    """J. D. Gergonne, Annales de mathématiques 4, 1813: the slots are the digits, in base k, of the cards above.

    Face up and turned over, a pile at the bottom of the stack brings its cards to the top.
    """
    for wanted in range(1, cards + 1):
        found = pickup.answer(pickup.PickupAsks(piles=piles, rounds=rounds, cards=cards, wanted=wanted), Budget())
        digits = [(wanted - 1) // piles**i % piles for i in range(rounds)]
        assert [way.slots for way in found.ways] == [tuple(piles - digit for digit in digits)]
        assert found.fewest_rounds == rounds and found.unreached == ()


def test_21_cards_three_times_in_the_middle() -> None:
    """p goes to 7 + ⌈p/3⌉ and comes to the 11th place; common practice, no published source."""
    for p in range(1, 22):
        assert pickup.after_round(p, 2, 3, 21, True) == (7 + ceil(p / 3),)
    found = pickup.answer(pickup.PickupAsks(piles=3, rounds=3, cards=21, wanted=11), Budget())
    assert found.ways[0].slots == (2, 2, 2) and verdict(found.send) == "proved"
    # Odd multiples of three up to 27 land on one place, even ones on two.
    sizes = {size.cards: size.middle for size in found.sizes}
    assert [sizes[n] for n in (9, 15, 21, 27)] == [1] * 4 and [sizes[n] for n in (12, 18, 24)] == [2] * 3


def test_given_answers_lead_to_a_place() -> None:
    asks = pickup.PickupAsks(piles=4, rounds=2, cards=18, answers=[3, 1], gathered=[2, 4, 1, 3])
    lands = {dealt(dealt(range(18), 4, (1, 3, 0, 2), True), 4, (1, 3, 0, 2), True).index(card) + 1
             for card in range(2, 18, 4)
             if dealt(range(18), 4, (1, 3, 0, 2), True).index(card) % 4 == 0}  # fmt: skip
    answered = pickup.answer(asks, Budget()).answered
    assert answered and answered.lands == tuple(sorted(lands))


@pytest.mark.parametrize(
    "how", [{}, {"dealt": "face down"}, {"told": "stack"}, {"told": "stack", "dealt": "face down"}]
)
def test_pick_up_orders_are_proved(how: dict[str, str]) -> None:
    for piles, rounds, cards, wanted in ((4, 2, 16, 10), (3, 3, 27, 5), (5, 2, 25, 25)):
        found = pickup.answer(pickup.PickupAsks(piles, rounds, cards, wanted=wanted, **how), Budget())
        assert verdict(found.send) == "proved"
