"""What the faces that are left tell about a secret; codes of two performers; and codes that the bench finds itself."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable, Hashable, Iterable
from fractions import Fraction
from itertools import permutations, product

from .worked import Principle, Ways, every


def told(ways: Iterable[tuple[Hashable, Hashable]]) -> Ways:
    """(what is seen, what it is to tell) of ways that are equally likely: it fails where another looks the same and tells otherwise."""
    all_ways = list(ways)
    told_by = defaultdict(set)
    for seen, secret in all_ways:
        told_by[seen].add(secret)
    return every([len(told_by[seen]) == 1 for seen, _ in all_ways])


def turned(pack: str, n: int) -> str:
    return pack[n % len(pack) :] + pack[: n % len(pack)]


def moved_to_the_bottom() -> Ways:
    """So many cards go to the bottom of a known packet: whoever looks through it can say how many. Common practice, no published source."""
    return told((turned("abcdefghij", n), n) for n in range(10))


def moved_by_two() -> Ways:
    """Two do it, one after the other: the faces tell how many both moved together, not how many each."""
    return told((turned("abcdefghij", n + k), n) for n, k in product(range(6), repeat=2))


def six_orders(most: int = 6) -> Ways:
    """Three cards tell one of six by their order: with a swap of the ends, and so many moved to the bottom."""
    return told((turned("cba" if n > 3 else "abc", n), n) for n in range(1, most + 1))


def seven_are_too_many() -> Ways:
    """Of seven two must look the same: there are but six orders."""
    return six_orders(7)


def bits_by_facing() -> Ways:
    """Four cards face up or face down tell a number from 0 to 15, a card for each power of two. Common knowledge."""
    return told((tuple(n // 2**k % 2 for k in range(4)), n) for n in range(16))


def gap_in_a_cycle() -> Ways:
    """A packet in cyclic order, cut, and its top card taken away: the neighbours at the ends tell which it was. From memory."""
    return told((turned("abcdef", cut)[1:], turned("abcdef", cut)[0]) for cut in range(6))


def missing_card() -> Ways:
    """Of a shuffled packet that is known the rest tells which card is gone, by what is not there."""
    return told((order[1:], order[0]) for order in permutations("abcde"))


def nothing_is_known() -> Ways:
    """Nine of ten cards from an unknown pack do not tell which is gone: every path looks like one with another card."""
    return 52, 52, Fraction(0)


def two_lie_alike() -> Ways:
    """Told by the order of two cards only whether a number is odd: the rest of it is not told."""
    return told((turned("ab", n), n) for n in range(1, 7))


def parity_is_told() -> Ways:
    """What is told there: whether it is odd."""
    return told((turned("ab", n), n % 2) for n in range(1, 7))


KNOWN = "Pack: hearts, each from ace to ten\n"
THREE = "Pack: hearts, each from ace to three\n"
SIX = "If n is more than 3:\n  Swap the top card of deck and the bottom card of deck\nRepeat n times:\n  Move the top card of deck to the bottom\n"
TAKEN = "Spectator deals 1 card from deck to pocket\nSpectator remembers the top card of pocket: X\nSpectator secretly reckons value of X: v\n"
PRINCIPLES: list[Principle] = [
    (KNOWN + "Spectator secretly names a number n from 0 to 9\nSpectator moves the top n cards of deck to the bottom\nEnds with: the faces of deck tell n",
     moved_to_the_bottom),
    (KNOWN + "Spectator secretly names a number n from 0 to 5\nSpectator 2 secretly names a number k from 0 to 5\n"
     "Spectator moves the top n cards of deck to the bottom\nSpectator 2 moves the top k cards of deck to the bottom\nEnds with: the faces of deck tell n",
     moved_by_two),
    (THREE + "Spectator names a number n from 1 to 6\n" + SIX + "Ends with: the faces of deck tell n", six_orders),
    (THREE + "Spectator names a number n from 1 to 7\n" + SIX + "Ends with: the faces of deck tell n", seven_are_too_many),
    ("Pack: 4 cards, any order\nPlace A, B, C, D in this order, the first 1st\nSpectator names a number n from 0 to 15\n"
     + "".join(f"If remainder of (quotient of n divided by {2**k}) divided by 2 is 1:\n  Turn the top card of deck face up\nMove the top card of deck to the bottom\n"
               for k in range(4))
     + "Ends with: the faces of deck tell n", bits_by_facing),
    ("Pack: hearts, each from ace to six\nSpectator cuts deck and completes the cut\n" + TAKEN + "Ends with: the faces of deck tell v", gap_in_a_cycle),
    ("Pack: hearts, each from ace to five\nSpectator shuffles deck\n" + TAKEN + "Ends with: the faces of deck tell v", missing_card),
    ("Pack: 10 cards, any order\n" + TAKEN + "Ends with: the faces of deck tell v", nothing_is_known),
    ("Pack: hearts, each from ace to two\nSpectator secretly names a number n from 1 to 6\nSpectator moves the top remainder of n divided by 2 cards of deck to the bottom\n"
     "Ends with: the faces of deck tell n", two_lie_alike),
    ("Pack: hearts, each from ace to two\nSpectator secretly names a number n from 1 to 6\nSpectator secretly reckons remainder of n divided by 2: r\n"
     "Spectator moves the top r cards of deck to the bottom\nEnds with: the faces of deck tell r", parity_is_told),
]  # fmt: skip


Filled = tuple[str, dict[int, list[str]], Callable[[], list[tuple[str, ...]]]]
"""a routine with blanks, what is tried for those that need a list, and every filling that works, worked out beside it"""


def code_of_four() -> list[tuple[str, ...]]:
    """Four numbers told by three cards: what is moved for the second and third number so that all four orders differ."""
    orders = {
        (a, b): {"abc", turned("abc", int(a)), turned("abc", int(b)), "bac"} for a, b in product("0123", repeat=2)
    }
    return [moved for moved, found in orders.items() if len(found) == 4]


def which_constant() -> list[tuple[str, ...]]:
    """Three figures reversed and taken away, reversed and added: the only number that comes out."""
    found = set()
    for a, b, c in product(range(3, 10), range(3), range(1, 8)):
        if a - c >= 2:
            d = (n := 100 * a + 10 * b + c) - int(str(n)[::-1])
            found.add(d + int(str(d).zfill(3)[::-1]))
    return [(str(one),) for one in found] if len(found) == 1 else []


def which_card_comes() -> list[tuple[str, ...]]:
    """A cycle of threes, twelve cards dealt: what card is next."""
    ranks = "ace two three four five six seven eight nine ten jack queen king".split()
    return [(ranks[12 * 3 % 13], "clubs hearts spades diamonds".split()[12 % 4])]


def words_that_fit() -> list[tuple[str, ...]]:
    """Of four words those of five letters spell to a card that lies fifth."""
    return [(word,) for word in ("harbour", "ferry", "night", "quay") if len(word) == 5]


def deals_that_keep() -> list[tuple[str, ...]]:
    """Into how many piles a packet of twelve may be dealt so that its bottom card comes to lie on the fourth."""
    return [(str(k),) for k in range(2, 11) if 11 % k == 3]


def colour_on_top() -> list[tuple[str, ...]]:
    """Colours in turn and an odd number dealt: what the top card can be called whatever the number is."""
    pack = ["red", "black"] * 5
    return [(sort,) for sort in ("black", "red") if all(pack[n] == sort for n in (1, 3, 5))]


BLANKS: list[Filled] = [
    (THREE + "Spectator names a number n from 1 to 4\nIf n is 2:\n  Move the top ? cards of deck to the bottom\nIf n is 3:\n"
     "  Move the top ? cards of deck to the bottom\nIf n is 4:\n  Swap the top card of deck and the 2nd card of deck\nEnds with: the faces of deck tell n\n",
     {}, code_of_four),
    ("Pack: 52 cards, any order\nSpectator names a number c from 1 to 7\nSpectator names a number b from 0 to 2\nSpectator names a number a from c + 2 to 9\n"
     "Spectator reckons 100 * a + 10 * b + c: n\nSpectator reckons n - reversal of n: d\nEnds with: d + reversal of d is ?\n",
     {1: [str(n) for n in range(1080, 1100)]}, which_constant),
    ("Pack: clubs, hearts, spades, diamonds in turn, each value 3 more than the last, from ace\nDeal 12 cards from deck\n"
     "Ends with: the next card is the ? of ?\n", {}, which_card_comes),
    ("Pack: 20 cards, any order\nPlace X 5th\nSpell “?” from deck\nEnds with: the last card dealt is X\n",
     {1: ["harbour", "ferry", "night", "quay"]}, words_that_fit),
    ("Pack: 12 cards, any order\nPlace LOW at the bottom\nDeal deck into ? piles\nEnds with: LOW is the top card of pile 4\n", {}, deals_that_keep),
    ("Pack: 10 cards, any order\nArrange the pack red, black in turn\nSpectator names a number n from 0 to 2\nDeal 2 * n + 1 cards from deck\n"
     "Ends with: the next card is ?\n", {}, colour_on_top),
]  # fmt: skip
