"""How many of a colour or facing lie where, and what the face of a card where it lies decides."""

from __future__ import annotations

from fractions import Fraction
from itertools import permutations
from math import perm

from .worked import Principle, Ways, every

HEARTS_CLUBS = [f"{suit}{value}" for suit in "HC" for value in range(1, 4)]


def reds_here_blacks_there() -> Ways:
    """Half red, half black, cut in the middle: as many reds in one half as blacks in the other. Common knowledge, from memory."""
    return every(
        [sum(c[0] == "H" for c in p[:3]) == sum(c[0] == "C" for c in p[3:]) for p in permutations(HEARTS_CLUBS)]
    )


def two_reds_in_a_half() -> Ways:
    """Of three cards out of three reds and three blacks exactly two are red in 9 of 20 cases."""
    return every([sum(c[0] == "H" for c in p[:3]) == 2 for p in permutations(HEARTS_CLUBS)])


def as_many_face_up() -> Ways:
    """Three of six cards lie face up; three are dealt off a shuffle and turned over: as many face up in both. From memory."""
    found = []
    for order in permutations([True] * 3 + [False] * 3):
        hand = [not up for up in order[:3]]
        found.append(sum(hand) == sum(order[3:]))
    return every(found)


def every_second_is_red() -> Ways:
    """Of n cards off a pack that alternates, red first, half are red, rounded up; a path for each set of faces."""
    ways = sum(perm(26, (n + 1) // 2) * perm(26, n // 2) for n in range(1, 5))
    return ways, 0, Fraction(1)


def suits_into_piles() -> Ways:
    """Suits in rotation dealt into four piles: each pile is of one suit. Three clubs are looked at."""
    return perm(13, 3), 0, Fraction(1)


def reds_stay_above() -> Ways:
    """Reds over blacks: a packet off the top of five of ten cards is red as long as it has at most five."""
    ways = [perm(26, min(n, 5)) * perm(26, max(0, n - 5)) for n in range(1, 8)]
    return sum(ways), sum(ways[5:]), Fraction(5, 7)


def red_goes_left() -> Ways:
    """A card is turned up and goes to one of two heaps by its colour: the heap of reds is red whatever the card is."""
    return every([True for _ in range(52)])


def court_or_not() -> Ways:
    """An unknown card is a court card in 12 of 52 cases."""
    return every([value > 10 for value in range(1, 14) for _ in range(4)])


def dealt_until_black() -> Ways:
    """From hearts over clubs face up cards are dealt as long as the top one is red: the count ends at the first club."""
    return 1, 0, Fraction(1)


def values_add_up() -> Ways:
    """Two cards of a suit from ace to four turned up: their values add up to more than five in so many cases."""
    return every([a + b > 5 for a, b, *_ in permutations(range(1, 5))])


def mates_meet() -> Ways:
    """Two hearts over their diamonds: the top cards of a packet of two dealt and of the rest are mates never, of one cut always."""
    return every([True])


def differ_in_colour() -> Ways:
    """In a pack that alternates two neighbours differ in colour, wherever it is cut, but for the joint of an odd packet."""
    # 26 reds and 26 blacks: cards 1, 3, 5, 7 are red. The top two after a cut of n are cards n + 1 and n + 2.
    failing = total = 0
    odds = Fraction(0)
    for n in range(7):
        one, other = n % 7, (n + 1) % 7
        ways = 26 * (25 if one % 2 == other % 2 else 26)
        total, failing = total + ways, failing + (ways if one % 2 == other % 2 else 0)
        odds += Fraction(one % 2 != other % 2, 7)
    return total, failing, odds


def no_two_alike() -> Ways:
    """Of five hearts and no more any two differ in value."""
    return every([True for _ in permutations(range(5))])


PRINCIPLES: list[Principle] = [
    ("Pack: hearts, clubs, each from ace to three\nSpectator shuffles deck\nCut off 3 cards of deck to hand\n"
     "Ends with: number of red cards of hand is number of black cards of deck", reds_here_blacks_there),
    ("Pack: hearts, clubs, each from ace to three\nSpectator shuffles deck\nCut off 3 cards of deck to hand\nEnds with: 2 cards of hand are red",
     two_reds_in_a_half),
    ("Pack: hearts, each from ace to six\nTurn the top 3 cards of deck over where they lie\nSpectator shuffles deck\nCut off 3 cards of deck to hand\n"
     "Turn hand over\nEnds with: number of face-up cards of hand is number of face-up cards of deck", as_many_face_up),
    ("Pack: 52 cards, any order\nArrange the pack red, black in turn\nSpectator names a number n from 1 to 4\nDeal n cards from deck to table\n"
     "Ends with: number of red cards of table is half of n rounded up", every_second_is_red),
    ("Pack: 12 cards, any order\nArrange the pack clubs, hearts, spades, diamonds in turn\nDeal deck into 4 piles\nEnds with: every card of pile 1 is a club",
     suits_into_piles),
    ("Pack: 10 cards, any order\nArrange the pack, from the top: 5 red cards, 5 black cards\nSpectator names a number n from 1 to 7\n"
     "Deal n cards from deck to table\nEnds with: every card of table is red", reds_stay_above),
    ("Pack: 52 cards, any order\nTurn the top card of deck face up\nIf the top card of deck is red:\n  Deal 1 card from deck to reds\n"
     "Otherwise:\n  Deal 1 card from deck to blacks\nEnds with: every card of reds is red and every card of blacks is black", red_goes_left),
    ("Pack: 52 cards, any order\nEnds with: the top card of deck is a court card", court_or_not),
    ("Pack: hearts, clubs, each from ace to five\nTurn every card of deck over where it lies\nAs long as the top card of deck is red:\n"
     "  Deal 1 card from deck to table\nEnds with: size of table is 5 and the top card of deck is an ace", dealt_until_black),
    ("Pack: hearts, each from ace to four\nSpectator shuffles deck\n"
     "Ends with: (value of the top card of deck) + (value of the 2nd card of deck) is more than 5", values_add_up),
    ("Pack: hearts, diamonds, each from ace to two\nCut off 2 cards of deck to hand\nEnds with: the top card of hand and the top card of deck are mates", mates_meet),
    ("Pack: 7 cards, any order\nArrange the pack red, black in turn\nSpectator cuts deck at n, n from 0 to 6, and completes the cut\n"
     "Ends with: the top card of deck and the 2nd card of deck differ in colour", differ_in_colour),
    ("Pack: hearts, each from ace to five\nSpectator shuffles deck\nEnds with: deck has no two cards of the same value", no_two_alike),
]  # fmt: skip
