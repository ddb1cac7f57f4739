"""Small claims and packets that move."""

from __future__ import annotations

from itertools import product

from .worked import Principle, Ways, every


def parity_of_a_packet() -> Ways:
    """An even number is taken from an odd packet, so an odd one is left. Common knowledge, from memory."""
    return every([(15 - 2 * n) % 2 == 1 for n in range(1, 6)])


def bottom_stock() -> Ways:
    """What is dealt off the top never reaches the three cards at the bottom, which are drawn off as a block at the end."""
    kept = []
    for n in range(1, 11):
        pack = list(range(20))
        left = pack[n:]
        kept.append(left[-3:][0] == 17)
    return every(kept)


def swapped_twice() -> Ways:
    """Two packets that change places as often as somebody likes, from none to three times: back after an even number."""
    return every([times % 2 == 0 for times in range(4)])


def key_travels() -> Ways:
    """The bottom card goes to the top so many times: after as many moves as there are cards it lies where it lay."""
    found = []
    for n in range(1, 8):
        pack = list(range(8))
        for _ in range(n):
            pack.insert(0, pack.pop())
        found.append(pack[n - 1] == 7 and pack[n:] + pack[:n] == list(range(8)))
    return every(found)


def either_of_two() -> Ways:
    """Two cards on top; one or two cards are dealt; whichever lies on the table’s top is one of the two."""
    return every([[0, 1][n - 1] in (0, 1) for n in (1, 2)])


def never_the_top() -> Ways:
    """A card that lies second is never the top card of what is dealt from three cards on."""
    return every([n != 2 for n in range(3, 9)])


def within_the_half() -> Ways:
    """The top card of twelve: after a cut of one to six cards to the hand it is in the hand, and not in the pack."""
    return every([n > 0 for n in range(1, 7)])


def two_numbers_add_up() -> Ways:
    """Two who name numbers of one parity have an even sum; where one may be even and one odd it fails so often."""
    return every([(2 * a + 2 * b + 1) % 2 == 1 for a, b in product(range(1, 4), repeat=2)])


PRINCIPLES: list[Principle] = [
    ("Pack: 15 cards, any order\nSpectator names a number n from 1 to 5\nDeal 2 * n cards from deck to table\nEnds with: size of deck is odd",
     parity_of_a_packet),
    ("Pack: 20 cards, any order\nPlace STOCK 18th\nSpectator names a number n from 1 to 10\nDeal n cards from deck to table\n"
     "Take the bottom 3 cards of deck to hand\nEnds with: STOCK is the top card of hand", bottom_stock),
    ("Pack: 8 cards, any order\nPlace KEY on the bottom\nSpectator names a number n from 1 to 7\nMove the bottom n cards of deck to the top\n"
     "Ends with: the card at position n of deck is KEY", key_travels),
    ("Pack: 9 cards, any order\nPlace KEY on top\nPlace LOCK 2nd\nSpectator names a number n from 1 to 2\nDeal n cards from deck to table\n"
     "Ends with: the top card of table is one of KEY and LOCK", either_of_two),
    ("Pack: 12 cards, any order\nPlace KEY 2nd\nSpectator names a number n from 3 to 8\nDeal n cards from deck to table\n"
     "Ends with: the top card of table is not KEY", never_the_top),
    ("Pack: 12 cards, any order\nPlace KEY on top\nSpectator cuts off n cards of deck, n from 1 to 6, to hand\nEnds with: KEY is in hand\n"
     "Ends with: KEY is not in deck", within_the_half),
    ("Pack: 30 cards, any order\nSpectator names a number a from 1 to 3\nSpectator names a number b from 1 to 3\n"
     "Deal 2 * a + 2 * b + 1 cards from deck to table\nEnds with: size of table is odd", two_numbers_add_up),
    ("Pack: 12 cards, any order\nPlace KEY on top\nCut off 4 cards of deck to hand\nCut off 4 cards of deck to table\n"
     "Spectator names a number n from 0 to 3\nIf n is at least 1:\n  Swap hand and table\nIf n is at least 2:\n  Swap hand and table\n"
     "If n is at least 3:\n  Swap hand and table\nEnds with: KEY is the top card of hand", swapped_twice),
]  # fmt: skip
