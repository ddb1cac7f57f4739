"""Checks against things outside the project; each names its source."""

from __future__ import annotations

import pytest
from sympy import n_order
from sympy.combinatorics import Permutation

from golden_pivot.core.budget import Budget
from golden_pivot.core.building import LEDGER, REPLAY, compile_routine
from golden_pivot.core.cards import FACE_UP, TOKEN
from golden_pivot.core.explorer import explore
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.verdicts import prove


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
            "  Spectator turns deck over", "Ends with: exactly P or Q are reversed in deck",
        ]  # fmt: skip
        found = explore(compile_routine(read_routine("\n".join(rows)), LEDGER), Budget())
        decks = {cell for state in found.ends for cell in state if isinstance(cell, bytes)}
        assert {tuple((byte & TOKEN, byte >= FACE_UP) for byte in deck) for deck in decks} == reached
