"""Mixes, against values worked out by hand, by plain simulation, or published."""

from __future__ import annotations

import random
from collections.abc import Sequence
from itertools import pairwise, product
from math import factorial

import pytest
from sympy.combinatorics import Permutation

from golden_pivot.core.budget import Budget
from golden_pivot.core.desks import Trouble, mix_lab
from golden_pivot.core.desks.permutations import KEPT, after, identity, inverse
from tests.core.desks import verdict

MIXES_TO_TRY = [name.replace(" n ", " 3 ").replace("Cut n", "Cut 3") for name in (mix.name for mix in mix_lab.MIXES)]
CHAIN = ["Klondike, top card on", "Deal into 2 piles, right on left", "Count half down, the rest on top"]


def mixed(**asks: object) -> mix_lab.MixAnswers:
    return mix_lab.answer(mix_lab.MixAsks(**asks), Budget(seconds=60))  # type: ignore[arg-type]


@pytest.mark.parametrize("name", MIXES_TO_TRY)
def test_orders_and_cycles_against_sympy(name: str) -> None:
    for cards in (6, 14, 52):
        found = mixed(cards=cards, chain=[name])
        known = Permutation([to - 1 for to in found.places])
        assert found.order == known.order() and found.even == known.is_even
        cycles = {frozenset(at + 1 for at in cycle) for cycle in known.cyclic_form}
        assert {frozenset(cycle) for cycle in found.cycles if len(cycle) > 1} == cycles
        assert found.fixed == tuple(i for i, to in enumerate(found.places, start=1) if i == to)


def test_two_mixes_by_hand() -> None:
    """Six cards, dealt out by hand: where each position goes."""
    assert mixed(cards=6, chain=["Klondike, top card on"]).places == (5, 3, 1, 2, 4, 6)
    assert mixed(cards=6, chain=["Deal into 3 piles, right on left"]).places == (6, 4, 2, 5, 3, 1)


def test_perfect_shuffles() -> None:
    """P. Diaconis, R. L. Graham, W. M. Kantor, "The mathematics of perfect shuffles", 1983: orders and groups.

    52 cards: all 26!·2^26 orders that keep mirrored pairs; 24 cards: 2^11 times the Mathieu group of 95,040; 16: 4·2^4.
    """
    both = ["Out faro", "In faro"]
    assert mixed(cards=52, chain=["Out faro"]).order == 8 and mixed(cards=52, chain=["In faro"]).order == 52
    for cards, size in ((52, factorial(26) * 2**26), (24, 2**11 * 95_040), (16, 4 * 2**4)):
        group = mixed(cards=cards, chain=[], moves=both, group=True).group
        assert group and group.size == f"{size:,}"


def test_a_chain_that_is_no_mix_for_28_cards_and_is_one_for_27() -> None:
    found = mixed(cards=28, chain=CHAIN)
    assert found.order == 1 and found.kept == ("the old order",) and verdict(found.send) == "proved"
    assert sorted((mixed(cards=28, chain=[], moves=CHAIN).search or pytest.fail()).chain or ()) == sorted(CHAIN)
    odd = [*CHAIN[:2], "Count 13 down, the rest on top"]
    assert (
        mixed(cards=27, chain=odd).order == 2
        and mixed(cards=27, chain=[*CHAIN[:2], "Count 14 down, the rest on top"]).order == 27
    )
    search = mixed(cards=27, chain=[], moves=odd, longest=3).search
    assert search and search.chain is None and search.is_complete
    with pytest.raises(Trouble, match="27 cards have no exact half"):
        mixed(cards=27, chain=CHAIN)


@pytest.mark.parametrize("wanted", ["identity", "reversal", "2 to 7", "1 and 8 together"])
def test_the_shortest_chain_against_trying_all(wanted: str) -> None:
    moves = ["Out faro", "Cut 3", "Klondike, bottom card on"]
    arranged = {move: mix_lab.arrangement_of(move, 8) for move in moves}

    def does(order: bytes) -> bool:
        to = inverse(order)
        return {
            "identity": order == identity(8), "reversal": order == identity(8)[::-1],
            "2 to 7": to[1] == 6, "1 and 8 together": abs(to[0] - to[7]) == 1,
        }[wanted]  # fmt: skip

    def apply(chain: Sequence[str]) -> bytes:
        order = identity(8)
        for move in chain:
            order = after(order, arranged[move])
        return order

    search = mixed(cards=8, chain=[], moves=moves, wanted=wanted, longest=6).search
    least = next((n for n in range(1, 7) if any(does(apply(chain)) for chain in product(moves, repeat=n))), None)
    assert search and (len(search.chain) if search.chain else None) == least
    assert search.chain is None or does(apply(search.chain))


def test_what_is_kept_against_labelled_packs() -> None:
    """Each property said in other words, of a pack whose cards carry it, for orders at random and for mix_lab."""

    def keeps(order: bytes) -> set[str]:
        n = len(order)
        now = list(order)
        mates = [(now[i], now[i + 1]) for i in range(0, n, 2)]
        around = [(now[i], now[-1 - i]) for i in range(n // 2)]
        doubled = now + now
        said = {
            "the old order": now == list(range(n)),
            "the old order, but for a cut": now != list(range(n))
            and any(doubled[k : k + n] == list(range(n)) for k in range(n)),
            "the order, reversed": now == list(range(n))[::-1],
            "the order reversed, but for a cut": now != list(range(n))[::-1]
            and any(doubled[k : k + n] == list(range(n))[::-1] for k in range(n)),
            "cards as far from the top as from the bottom stay such pairs": all(
                sum(pair) == n - 1 for pair in around
            ),
            "pairs from the top, 1–2, 3–4 …, stay pairs": all(
                sorted(pair)[0] % 2 == 0 and abs(pair[0] - pair[1]) == 1 for pair in mates
            ),
            "pairs from the top come to mirror each other, top and bottom": all(
                min(pair) % 2 == 0 and abs(pair[0] - pair[1]) == 1 for pair in around
            ),
            "pairs of top and bottom come together, two by two": all(sum(pair) == n - 1 for pair in mates),
            "cards that alternate, such as in colour, still alternate": all(a % 2 != b % 2 for a, b in pairwise(now)),
        }
        return {words for words, holds in said.items() if holds}

    draw = random.Random(3)
    orders = [bytes(draw.sample(range(6), 6)) for _ in range(400)]
    orders += [mix_lab.arrangement_of(name, 12) for name in MIXES_TO_TRY]
    seen: set[str] = set()
    for order in orders:
        assert {words for words, holds in KEPT.items() if holds(order)} == keeps(order)
        seen |= keeps(order)
    assert len(seen) >= 8


def test_the_freedom_inside_a_chain() -> None:
    """Four rows of three, dealt into three piles: whichever order, mirrored cards stay so only in two of six (by hand)."""
    found = mixed(cards=12, chain=["Deal deck into 3 piles", "Spectator gathers the piles in any order"])
    assert len(found.ways) == 6 and found.always == ()
    mirror = [way.choices for way in found.ways if any("as far" in words for words in way.kept)]
    assert [choice.rpartition("is ")[2] for choice in mirror] == [
        "1, 2 and 3 from the top",
        "3, 2 and 1 from the top",
    ]
