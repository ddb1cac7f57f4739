"""Cards as bytes: the low seven bits are the card's token, the high bit says that it lies face up.

A heap is a `bytes` object, top card first. Positions shown to people count from 1 at the top of the heap
as it lies; indices into the bytes count from 0.
"""

from __future__ import annotations

FACE_UP = 0x80
TOKEN = 0x7F
MAX_CARDS = 120
"""Two packs with their jokers and a few to spare; every card can have a token of its own below 0x80."""

INDIFFERENT = 0
"""The token shared by all cards that no line of the routine tells apart."""

FLIP = bytes(byte ^ FACE_UP for byte in range(256))
"""Translation table that turns every card of a heap in place."""

RANKS = (
    "ace",
    "two",
    "three",
    "four",
    "five",
    "six",
    "seven",
    "eight",
    "nine",
    "ten",
    "jack",
    "queen",
    "king",
)
SUITS = ("clubs", "diamonds", "hearts", "spades")


UP = bytes(byte | FACE_UP for byte in range(256))
DOWN = bytes(byte & TOKEN for byte in range(256))
FACE_UP_BYTES = bytes(range(FACE_UP, 256))
"""Translation tables that make every card of a heap lie face up, face down."""


def turned_over(block: bytes) -> bytes:
    """The block turned over as a whole: its order reverses and every card shows its other side.

    >>> turned_over(bytes([1, 2, 3])).hex()
    '838281'
    """
    return block.translate(FLIP)[::-1]


def reversed_block(block: bytes) -> bytes:
    """`turned_over` for a proof in which nobody reads faces."""
    return block[::-1]


def index_of(heap: bytes, token: int) -> int:
    """Index (from 0) of the first card with this token, either way up; -1 when it is not there."""
    up, down = heap.find(token | FACE_UP), heap.find(token)
    if up < 0 or down < 0:
        return max(up, down)
    return min(up, down)


def card_value(name: str) -> int | None:
    """
    >>> card_value("queen of hearts"), card_value("FORCE")
    (12, None)
    """
    rank = name.partition(" of ")[0]
    return RANKS.index(rank) + 1 if rank in RANKS else None


def card_suit(name: str) -> str | None:
    suit = name.partition(" of ")[2]
    return suit if suit in SUITS else None


def card_colour(name: str) -> str | None:
    suit = card_suit(name)
    return None if suit is None else "red" if suit in ("diamonds", "hearts") else "black"


def mate_of(name: str) -> str | None:
    """The card of the same value and colour.

    >>> mate_of("queen of hearts")
    'queen of diamonds'
    """
    rank, _, suit = name.partition(" of ")
    other = {"clubs": "spades", "spades": "clubs", "hearts": "diamonds", "diamonds": "hearts"}.get(suit)
    return f"{rank} of {other}" if other else None
