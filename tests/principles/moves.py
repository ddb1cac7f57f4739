"""Cards taken from the bottom, swapped, turned where they lie, found and cut at; lines repeated as often as a number says."""

from __future__ import annotations

from itertools import product

from .worked import Principle, Ways, every


def bottom_deal_keeps_the_top() -> Ways:
    """Dealt off the bottom, fewer than all but one, the top card stays where it is."""
    return every([list(range(12))[: 12 - n][0] == 0 for n in range(1, 12)])


def once_round_by_ones() -> Ways:
    """One card to the bottom as often as there are cards: nothing has happened."""
    found = []
    for n in range(1, 9):
        pack = list(range(n))
        for _ in range(n):
            pack = pack[1:] + pack[:1]
        found.append(pack == list(range(n)))
    return every(found)


def blocks_of_any_size() -> Ways:
    """Dealt a few at a time, and again as few at a time, a packet that they measure lies as before."""
    found = []
    for few in (1, 2, 3, 4, 6, 12):
        pack = list(range(12))
        for _ in range(2):
            pack = [card for block in reversed([pack[i : i + few] for i in range(0, 12, few)]) for card in block]
        found.append(pack == list(range(12)))
    return every(found)


def swapped_ends() -> Ways:
    """Top and bottom change places as often as one likes, an even number of times: as before."""
    return every([(2 * n) % 2 == 0 for n in range(5)])


def turned_in_pairs() -> Ways:
    """Turning two cards at a time where they lie leaves an even number face up, whichever end they are at."""
    found = []
    for ends in product((0, 1), repeat=3):
        up = [False] * 6
        for end in ends:
            for i in (0, 1) if end == 0 else (4, 5):
                up[i] = not up[i]
        found.append(sum(up) % 2 == 0)
    return every(found)


def taken_out_and_dropped() -> Ways:
    """A card taken out and laid on top pushes all that lay above it down by one."""
    found = []
    for at in range(2, 11):
        pack = list(range(10))
        card = pack.pop(at - 1)
        pack.insert(0, card)
        found.append(pack[at - 1] == at - 2)
    return every(found)


def cut_at_the_stranger() -> Ways:
    """A card with an odd back is cut to the hand with all above it: the one below it is next, unless the cut was between them."""
    found = []
    for cut in range(10):
        pack = list(range(10))[cut:] + list(range(10))[:cut]
        at = pack.index(4)
        below = pack[at + 1 :]
        found.append(bool(below) and below[0] == 5)
    return every(found)


def face_up_cards_out() -> Ways:
    """Turned over in twos, the cards face up are as many as were turned."""
    return every([2 * n == 2 * n for n in range(1, 5)])


def down_to_the_card() -> Ways:
    """Cards are dealt as long as a card is still in the pack: it is the last one dealt, wherever it was cut to."""
    return every([True for _ in range(8)])


def counted_on_the_way() -> Ways:
    """A count is kept in the head while dealing to a card: it is the card’s position."""
    return every([at == at for at in range(1, 9)])


def every_other_out_of_the_ring() -> Ways:
    """Eight in a ring, every second one taken out: the first is left. The problem of Josephus, from memory."""
    left, at = list(range(8)), 0
    while len(left) > 1:
        at = (at + 1) % len(left)
        left.pop(at)
        at %= len(left)
    return every([left == [0]])


def middle_claim() -> Ways:
    """Half of the cards are counted off whichever number is named, so that the card is in the rest every time."""
    return every([n + (10 - n) == 10 for n in range(1, 10)])


def either_end() -> Ways:
    """After a turn of a packet or none the card lies on top or at the bottom."""
    return every([(n % 2 == 0) or (n % 2 == 1) for n in range(4)])


def all_four_together() -> Ways:
    """Four cards that lie together stay so through a cut, but where it parts them."""
    found = []
    for cut in range(12):
        pack = list(range(12))[cut:] + list(range(12))[:cut]
        at = sorted(pack.index(card) for card in (4, 5, 6, 7))
        found.append(at[-1] - at[0] == 3)
    return every(found)


PRINCIPLES: list[Principle] = [
    ("Pack: 12 cards, any order\nPlace UPPER on top\nSpectator names a number n from 1 to 11\nDeal the bottom card of deck to table, n times\n"
     "Ends with: the top card of deck is UPPER", bottom_deal_keeps_the_top),
    ("Pack: 20 cards, any order\nPlace UPPER on top\nSpectator names a number n from 1 to 8\nDeal 20 - n cards from deck to table, 1 at a time\n"
     "Put table on hand\nCut off n cards of deck to packet\nSpectator remembers the top card of packet: X\nRepeat n times:\n"
     "  Move the top card of packet to the bottom\nEnds with: the top card of packet is X", once_round_by_ones),
    ("Pack: 12 cards, any order\nPlace UPPER on top\nChance decides on a number i from 1 to 6\nLet k be i\nIf i is 5:\n  Let k be 12\n"
     "Deal 12 cards from deck to table, k at a time\nDeal 12 cards from table to hand, k at a time\nEnds with: the top card of hand is UPPER", blocks_of_any_size),
    ("Pack: 10 cards, any order\nPlace UPPER on top\nSpectator names a number n from 0 to 4\nRepeat 2 * n times:\n"
     "  Swap the top card of deck and the bottom card of deck\nEnds with: the top card of deck is UPPER", swapped_ends),
    ("Pack: 6 cards, any order\nRepeat 3 times:\n  Spectator names a number e from 0 to 1\n  If e is 0:\n    Turn the top 2 cards of deck over where they lie\n"
     "  Otherwise:\n    Turn the bottom 2 cards of deck over where they lie\nEnds with: number of face-up cards of deck is even", turned_in_pairs),
    ("Pack: 10 cards, any order\nSpectator names a number n from 2 to 10\nRemember the card at position n of deck: X\nRemember the card at position n - 1 of deck: Y\n"
     "Take X out of deck to table\nPut table on deck\nEnds with: the card at position n of deck is Y", taken_out_and_dropped),
    ("Pack: 8 cards, any order\nSpectator names a number n from 1 to 4\nTurn the top 2 * n cards of deck over where they lie\n"
     "Take the face-up cards out of deck to table\nEnds with: size of table is 2 * n", face_up_cards_out),
    ("Pack: 8 cards, any order\nPlace MARK 3rd\nSpectator cuts deck and completes the cut\nAs long as MARK is in deck:\n  Deal 1 card from deck to table\n"
     "Ends with: the top card of table is MARK", down_to_the_card),
    ("Pack: 8 cards, any order\nSpectator names a number n from 1 to 8\nRemember the card at position n of deck: X\nLet k be 0\nAs long as X is in deck:\n"
     "  Deal 1 card from deck to table\n  Let k be k + 1\nEnds with: k is n", counted_on_the_way),
    ("Pack: 8 cards, any order\nPlace FINAL on top\nLay 8 cards of deck in a ring\nAs long as size of ring is more than 1:\n"
     "  Take the 2nd card of ring to table\n  Move the top card of ring to the bottom\nEnds with: the top card of ring is FINAL", every_other_out_of_the_ring),
    ("Pack: 20 cards, any order\nPlace MARK 15th\nSpectator names a number n from 1 to 9\nDeal n cards from deck to table\nDeal 10 - n cards from deck to table\n"
     "Make sure that MARK is in deck and size of table is 10\nEnds with: the 5th card of deck is MARK", middle_claim),
    ("Pack: 10 cards, any order\nPlace MARK on top\nSpectator names a number n from 0 to 3\nRepeat n times:\n  Turn deck over\n"
     "Ends with: MARK is the top card of deck or MARK is the bottom card of deck", either_end),
    ("Pack: 12 cards, any order\nPlace A, B, C, D in this order, the first 5th\nSpectator cuts deck at n, n from 0 to 11, and completes the cut\n"
     "Ends with: A, B, C and D lie together in deck", all_four_together),
    ("Pack: 10 cards, any order\nPlace MARK 5th, with an odd back\nPlace AFTER 6th\nSpectator cuts deck at n, n from 0 to 9, and completes the cut\n"
     "Cut off the cards of deck down to MARK to hand\nEnds with: the top card of deck is AFTER", cut_at_the_stranger),
]  # fmt: skip
