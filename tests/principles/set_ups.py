"""Packs of which colours or suits are known, and packs that go round."""

from __future__ import annotations

from fractions import Fraction
from itertools import combinations, product
from math import perm

from .worked import Principle, Ways, every


def riffles(left: list[str], right: list[str]) -> list[list[str]]:
    """Every way in which two packets can fall into each other."""
    size, found = len(left) + len(right), []
    for places in combinations(range(size), len(left)):
        one, other = iter(left), iter(right)
        found.append([next(one) if i in places else next(other) for i in range(size)])
    return found


def gilbreath() -> Ways:
    """Colours alternate; some cards are dealt off and riffled in: every two from the top are one red and one black.

    N. Gilbreath, "Magnetic colors", The Linking Ring 38 (1958).
    """
    pack, found = ["R", "B"] * 5, []
    for n in range(1, 10):
        for mixed in riffles(pack[:n][::-1], pack[n:]):
            found.append(all(mixed[i] != mixed[i + 1] for i in range(0, 10, 2)))
    return every(found)


def gilbreath_of_four() -> Ways:
    """The same with suits in rotation: every four from the top are of all suits.

    N. Gilbreath, "Second color force", The Linking Ring (1966); P. Diaconis, R. Graham, Magical Mathematics (2012), chapter 5.
    """
    pack, found = list("CHSD") * 2, []
    for n in range(1, 8):
        for mixed in riffles(pack[:n][::-1], pack[n:]):
            found.append(all(len(set(mixed[i : i + 4])) == 4 for i in range(0, 8, 4)))
    return every(found)


def riffle_without_the_deal() -> Ways:
    """Cut and riffled without the deal that reverses it fails, but for the ways in which it happens to come out."""
    pack = ["R", "B"] * 3
    by_size = [
        [all(mixed[i] != mixed[i + 1] for i in range(0, 6, 2)) for mixed in riffles(pack[:n], pack[n:])]
        for n in range(1, 6)
    ]
    paths, failing, _ = every([held for found in by_size for held in found])
    return (
        paths,
        failing,
        sum(every(found)[2] for found in by_size) / len(by_size),
    )  # a size first, then a mixture of it


def cyclic(cut: int = 0) -> list[tuple[int, int]]:
    """Values 1 to 13 that go up by 3, suits 0 to 3 in turn."""
    pack = [((i * 3) % 13 + 1, i % 4) for i in range(52)]
    return pack[cut:] + pack[:cut]


def next_in_the_cycle() -> Ways:
    """In a cyclic stack the bottom card tells the top one, wherever it is cut. Common practice, no published source."""
    return every([(cyclic(n)[-1][0] + 3 - 1) % 13 + 1 == cyclic(n)[0][0] for n in range(52)])


def thirteen_on() -> Ways:
    """Thirteen cards on in it lies one of the same value. Common practice, no published source."""
    return every([cyclic(n)[13][0] == cyclic(n)[0][0] for n in range(52)])


def mates_half_way_round() -> Ways:
    """With suits red and black in turn the card half way round is the mate. Common practice, no published source."""
    colour = {0: 0, 1: 1, 2: 0, 3: 1}
    return every(
        [
            cyclic(n)[26][0] == cyclic(n)[0][0] and colour[cyclic(n)[26][1]] == colour[cyclic(n)[0][1]]
            for n in range(52)
        ]
    )


def four_on_same_suit() -> Ways:
    """Four cards on lies one of the same suit."""
    return every([cyclic(n)[4][1] == cyclic(n)[0][1] for n in range(52)])


def same_value_soon() -> Ways:
    """Twelve cards on never lies one of the same value."""
    return every([cyclic(n)[12][0] == cyclic(n)[0][0] for n in range(52)])


def one_colour_face_up() -> Ways:
    """Six cards of colours in turn, cut and the top two turned over as often as is said; every second one turned: all that show are of
    one colour. P. Diaconis, R. Graham, Magical Mathematics (2012), chapter 1."""
    ways = 0
    for cuts in product(range(6), repeat=2):
        pack = [(i % 2, False) for i in range(6)]
        for cut in cuts:
            pack = pack[cut:] + pack[:cut]
            pack = [(c, not up) for c, up in reversed(pack[:2])] + pack[2:]
        show = [c for i, (c, up) in enumerate(pack) if up != bool(i % 2)]
        assert len(set(show)) <= 1
        ways += perm(26, len(show))
    return ways, 0, Fraction(1)


def blocks_keep_apart() -> Ways:
    """Reds over blacks, dealt into two piles: each pile has its blacks on top. The two top cards are looked at."""
    return 26 * 25, 0, Fraction(1)


def mates_from_both_ends() -> Ways:
    """Mates mirrored: so many dealt off the top end with the mate of the card that is as many from the bottom. Common practice, no
    published source."""
    pack = [(colour, value) for colour in "BR" for value in range(1, 5)]
    pack += pack[::-1]
    return every([pack[n - 1] == pack[-n] for n in range(1, 9)])


def four_alike(last: int, card: int) -> Ways:
    """Four of a kind on top, so many cards dealt, 3 to `last`: whether that card of those dealt is one of them. One card is looked at.
    Common practice, no published source."""
    paths = fails = 0
    share = Fraction(0)
    for n in range(3, last + 1):
        dealt = list(range(n))[::-1]
        is_one = dealt[card] < 4
        share += Fraction(is_one, last - 2)
        paths += 13 * (4 if is_one else 48)
        fails += 0 if is_one else 13 * 48
    return paths, fails, share


PRINCIPLES: list[Principle] = [
    ("Pack: 52 cards, any order\nPlace four of a kind on top, their value v\nSpectator names a number n from 3 to 20\n"
     "Deal n cards from deck to table\nEnds with: value of the bottom card of table is v", lambda: four_alike(20, -1)),
    ("Pack: 52 cards, any order\nPlace four of a kind on top, their value v\nSpectator names a number n from 3 to 6\n"
     "Deal n cards from deck to table\nEnds with: value of the top card of table is v", lambda: four_alike(6, 0)),
    ("Pack: 10 cards, any order\nArrange the pack red, black in turn\nSpectator names a number n from 1 to 9\nDeal n cards from deck to table\n"
     "Spectator riffles table into deck\nEnds with: in every 2 cards of deck from the top all colours are different", gilbreath),
    ("Pack: 8 cards, any order\nArrange the pack clubs, hearts, spades, diamonds in turn\nSpectator names a number n from 1 to 7\n"
     "Deal n cards from deck to table\nSpectator riffles table into deck\nEnds with: in every 4 cards of deck from the top all suits are different",
     gilbreath_of_four),
    ("Pack: 6 cards, any order\nArrange the pack red, black in turn\nSpectator names a number n from 1 to 5\nCut off n cards of deck to table\n"
     "Spectator riffles table into deck\nEnds with: in every 2 cards of deck from the top all colours are different", riffle_without_the_deal),
    ("Pack: clubs, hearts, spades, diamonds in turn, each value 3 more than the last, from ace\nSpectator cuts deck and completes the cut\n"
     "Ends with: (remainder of ((value of the bottom card of deck) + 2) divided by 13) + 1 is value of the top card of deck", next_in_the_cycle),
    ("Pack: clubs, hearts, spades, diamonds in turn, each value 3 more than the last, from ace\nSpectator cuts deck and completes the cut\n"
     "Ends with: the top card of deck and the 14th card of deck have the same value", thirteen_on),
    ("Pack: clubs, hearts, spades, diamonds in turn, each value 3 more than the last, from ace\nSpectator cuts deck and completes the cut\n"
     "Ends with: the top card of deck and the 27th card of deck are mates", mates_half_way_round),
    ("Pack: clubs, hearts, spades, diamonds in turn, each value 3 more than the last, from ace\nSpectator cuts deck and completes the cut\n"
     "Ends with: the top card of deck and the 5th card of deck have the same suit", four_on_same_suit),
    ("Pack: clubs, hearts, spades, diamonds in turn, each value 3 more than the last, from ace\nSpectator cuts deck and completes the cut\n"
     "Ends with: the top card of deck and the 13th card of deck have the same value", same_value_soon),
    ("Pack: 6 cards, any order\nArrange the pack red, black in turn\nRepeat 2 times:\n  Spectator cuts deck and completes the cut\n"
     "  Turn over the top 2 cards of deck as a block\nPush every second card out of deck and put the second ones on top\n"
     "Turn the top 3 cards of deck over where they lie\nTake the face-up cards out of deck to table\n"
     "Ends with: every card of table is red or every card of table is black", one_colour_face_up),
    ("Pack: 10 cards, any order\nArrange the pack, from the top: 5 red cards, 5 black cards\nDeal deck into 2 piles\n"
     "Ends with: the top card of pile 1 is black and the top card of pile 2 is black", blocks_keep_apart),
    ("Pack: clubs, hearts, each from ace to four, then their mates mirrored\nSpectator names a number n from 1 to 8\nDeal n cards from deck to table\n"
     "Take the bottom n cards of deck to hand\nEnds with: the top card of table and the top card of hand are mates", mates_from_both_ends),
]  # fmt: skip
