"""Checks against things outside the project; each names its source."""

from __future__ import annotations

import random
from fractions import Fraction
from math import comb, factorial
from pathlib import Path

import pytest
from sympy import n_order
from sympy.combinatorics import Permutation

from golden_pivot.core.answers.odds import odds_of
from golden_pivot.core.answers.proving import prove
from golden_pivot.core.budget import Budget
from golden_pivot.core.building import REPLAY, Purpose, compile_routine
from golden_pivot.core.cards import FACE_UP, RANKS, TOKEN
from golden_pivot.core.desks.riffles import chance_of_order, distance
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.search.algebra import Algebra
from golden_pivot.core.search.explorer import explore


def permutation(size: int, *lines: str) -> Permutation:
    """Index before → index after, of the cards of the deck, all of which are together again at the end."""
    rows = [f"Pack: {size} cards, any order", "Place A on top", *lines]
    (state,) = explore(compile_routine(read_routine("\n".join(rows)), REPLAY), Budget()).ends
    (heap,) = [cell for cell in state if isinstance(cell, bytes) and cell]
    return Permutation([(byte & TOKEN) - 1 for byte in heap]) ** -1


@pytest.mark.parametrize("size", range(2, 105, 2))
def test_faro_orders(size: int) -> None:
    """P. Diaconis, R. L. Graham, W. M. Kantor, "The mathematics of perfect shuffles", Adv. Appl. Math. 4 (1983): the
    out-shuffle of 2n cards has the order of 2 modulo 2n − 1, the in-shuffle that of 2 modulo 2n + 1. Orders of
    permutations and modulo a number by SymPy (general-purpose reference library)."""
    out, into = permutation(size, "Give deck an out faro"), permutation(size, "Give deck an in faro")
    assert out.order() == (n_order(2, size - 1) if size > 2 else 1)
    assert into.order() == n_order(2, size + 1)
    # The reverse faro undoes either.
    back = "Push every second card out of deck and put the {} ones on top"
    assert permutation(size, "Give deck an out faro", back.format("first")).is_Identity
    assert permutation(size, "Give deck an in faro", back.format("second")).is_Identity


@pytest.mark.parametrize("size", range(1, 53))
def test_down_under_deal_against_the_josephus_recurrence(size: int) -> None:
    """J(1) = 1, J(n) = (J(n − 1) + 1) mod n + 1 for every second one going (R. L. Graham, D. E. Knuth, O. Patashnik,
    "Concrete Mathematics", 1.3, after Josephus; the recurrence from memory). *Under and down* is that; *down and
    under* begins one place earlier."""
    last = 1
    for n in range(2, size + 1):
        last = (last + 1) % n + 1
    for way, at in (("under and down", last), ("down and under", (last - 2) % size + 1)):
        text = f"Pack: {size} cards\nPlace A at position {at}\nDeal deck {way} to table\nEnds with: the last card dealt is A"
        assert prove(read_routine(text)).verdict == "proved", (size, way)


@pytest.mark.parametrize(("size", "identity"), [(28, True), (27, False), (52, True), (51, False)])
def test_an_opening_mix_that_changes_nothing(size: int, identity: bool) -> None:
    """Klondike, two piles with the second on the first, half counted down: common practice, no published source."""
    mix = permutation(
        size,
        "Draw the top and bottom cards of deck together onto table, the top card on",
        "Deal table into 2 piles",
        "Put pile 2 on pile 1",
        f"Deal {size // 2} cards from pile 1 to table",
        "Drop the rest on top",
    )
    assert mix.is_Identity == identity


FORGETS_NOTHING = Purpose(forget_places=False, forget_faces=False)


def test_cut_and_turn_over_reaches_what_a_plain_search_reaches() -> None:
    """The states of one closure, against a breadth-first search over tuples of (card, face up)."""
    moves = [
        lambda heap: heap[1:] + heap[:1],  # every cut is some of these
        lambda heap: tuple((card, not up) for card, up in reversed(heap[:2])) + heap[2:],
        lambda heap: tuple((card, not up) for card, up in reversed(heap)),
    ]
    for size in (4, 6, 8):
        start = tuple((card if card in (1, 2) else 0, False) for card in (0, 1, *[0] * (size - 3), 2))
        reached, waiting = {start}, [start]
        while waiting:
            heap = waiting.pop()
            for move in moves:
                if (new := move(heap)) not in reached:
                    reached.add(new)
                    waiting.append(new)
        rows = [
            f"Pack: {size} cards", "Place P 2nd", "Place Q at the bottom", "As often as the spectator likes, one of:",
            "  Spectator cuts deck and completes the cut", "  Spectator turns over the top 2 cards of deck as a block",
            "  Spectator turns deck over", "Ends with: exactly P and Q are reversed in deck",
        ]  # fmt: skip
        found = explore(compile_routine(read_routine("\n".join(rows)), FORGETS_NOTHING), Budget())
        decks = {cell for state in found.ends for cell in state if isinstance(cell, bytes)}
        assert {tuple((byte & TOKEN, byte >= FACE_UP) for byte in deck) for deck in decks} == reached


def riffled(size: int, riffles: int) -> dict[tuple[int, ...], Fraction]:
    """Order of the pack after so many riffles → its chance, by going through every way they can fall."""
    rows = [f"Pack: {size} cards, any order", "Place A on top", *["Spectator riffles deck together once"] * riffles]
    program = compile_routine(read_routine("\n".join([*rows, "Odds: every choice is equally likely"])), REPLAY)
    algebra = Algebra(
        Fraction(1), lambda one, other: one + other, share=lambda w, part, whole: w * Fraction(part, whole)
    )
    found: dict[tuple[int, ...], Fraction] = {}
    for state, chance in explore(program, Budget(), algebra).ends.items():
        (heap,) = [cell for cell in state if isinstance(cell, bytes) and cell]
        order = tuple(byte & TOKEN for byte in heap)
        found[order] = found.get(order, Fraction(0)) + chance
    return found


def rising(order: tuple[int, ...]) -> int:
    places = {card: i for i, card in enumerate(order)}
    return 1 + sum(places[card] > places[card + 1] for card in range(1, len(order)))


@pytest.mark.parametrize(("size", "riffles"), [(3, 1), (5, 1), (5, 2), (6, 1)])
def test_riffles_fall_as_bayer_and_diaconis_reckon(size: int, riffles: int) -> None:
    """D. Bayer, P. Diaconis, "Trailing the dovetail shuffle to its lair", Ann. Appl. Probab. 2 (1992), theorem 1."""
    found = riffled(size, riffles)
    assert sum(found.values()) == 1
    for order, chance in found.items():
        assert chance == chance_of_order(size, riffles, rising(order))
    even = Fraction(1, factorial(size))
    apart = sum(abs(chance - even) for chance in found.values()) + (factorial(size) - len(found)) * even
    assert apart / 2 == distance(size, riffles)


def test_distances_of_a_pack_after_one_to_ten_riffles() -> None:
    """The same paper, table 1, for 52 cards (as it stands there to three places; from memory)."""
    table = [1.000, 1.000, 1.000, 1.000, 0.924, 0.614, 0.334, 0.167, 0.085, 0.043]
    assert [round(float(distance(52, riffles)), 3) for riffles in range(1, 11)] == table


@pytest.mark.parametrize("size", [4, 8, 12])
def test_gilbreaths_first_principle(size: int) -> None:
    """N. L. Gilbreath, "Magnetic colors", The Linking Ring 38 (1958): of a pack in alternate colours, however many are
    dealt off and riffled into the rest, the cards lie in pairs of unlike colours."""
    names = [f"{rank} of {('clubs', 'hearts')[i % 2]}" for i, rank in enumerate(RANKS[:size])]
    found = prove(
        read_routine(
            f"Pack: {size} cards, any order\nPlace {', '.join(names)} in this order, the first on top\n"
            f"Spectator deals from deck to table until you say stop, after n from 0 to {size} cards\n"
            "Spectator riffles table into deck\n"
            "Ends with: in every 2 cards of deck from the top all colours are different\n"
        )
    )
    assert found.verdict == "proved" and found.paths == sum(comb(size, n) for n in range(size + 1))


@pytest.mark.parametrize("rounds", [2, 3])
def test_gilbreaths_second_principle(rounds: int) -> None:
    """The same author, "Second central principle", The Linking Ring 46 (1966): suits in rotation, some dealt off and
    riffled in: every four cards have four suits (from memory)."""
    suits = ["clubs", "hearts", "spades", "diamonds"]
    names = [f"{RANKS[i // 4]} of {suits[i % 4]}" for i in range(4 * rounds)]
    text = (
        f"Pack: {4 * rounds} cards, any order\nPlace {', '.join(names)} in this order, the first on top\n"
        f"Spectator deals from deck to table until you say stop, after n from 0 to {4 * rounds} cards\n"
        "Spectator riffles table into deck\n"
        "Ends with: in every 4 cards of deck from the top all suits are different\n"
    )
    assert prove(read_routine(text)).verdict == "proved"
    turned = text.replace("Spectator riffles", "Turn table over\nSpectator riffles")
    assert prove(read_routine(turned)).verdict == "refuted"


KRUSKAL = (Path(__file__).parents[1] / "procedures" / "p23_kruskals_count.pivot").read_text()


def test_kruskals_count() -> None:
    """J. C. Lagarias, E. Rains, R. J. Vanderbei, "The Kruskal count" (2001): with court cards as five, one of two who
    count through a pack meets the other about 85 times in 100 (from memory). Sampled with a seed, and played here."""
    found = odds_of(read_routine(KRUSKAL), Budget(transitions=20_000), seed=2, samples=600)
    assert found.samples == 600
    (fails,) = [chance for chance in found.chances if chance.outcome == "fails"]
    draw, met, rounds = random.Random(7), 0, 40_000
    for _ in range(rounds):
        pack = [value if value <= 10 else 5 for value in [i % 13 + 1 for i in range(52)]]
        draw.shuffle(pack)
        ends = []
        for at in (draw.randrange(10), 0):
            while at + pack[at] < 52:
                at += pack[at]
            ends.append(at)
        met += ends[0] == ends[1]
    assert abs(met / rounds - 0.85) < 0.02
    assert fails.least - Fraction(1, 100) <= Fraction(rounds - met, rounds) <= fails.most + Fraction(1, 100)


@pytest.mark.parametrize("hand", [1, 3, 5])
def test_hearts_in_a_hand_against_hypergeometric_counting(hand: int) -> None:
    """C(13, k) · C(39, hand − k) / C(52, hand): the hypergeometric distribution (textbook)."""
    rows = [
        "Pack: 52 cards, any order", f"Deal {hand} cards from deck face up to hand", "Until hand runs out:",
        "  If suit of the top card of hand is 3:", "    Cut off 1 card of hand to hearts", "  Otherwise:",
        "    Cut off 1 card of hand to remains", "Odds of size of hearts",
    ]  # fmt: skip
    found = odds_of(read_routine("\n".join(rows)), Budget())
    assert found.samples is None
    exact = {str(k): Fraction(comb(13, k) * comb(39, hand - k), comb(52, hand)) for k in range(hand + 1)}
    assert {chance.outcome: chance.least for chance in found.chances} == exact
