"""What sort of card it is, by the words for it."""

from __future__ import annotations

SUITS = ("clubs", "diamonds", "hearts", "spades")


VALUES = dict(
    zip("ace two three four five six seven eight nine ten jack queen king".split(), range(1, 14), strict=True)
)


NAMES = tuple(f"{value} of {suit}" for suit in SUITS for value in VALUES)
"""the cards of a pack, clubs first"""
WORDS: dict[str, frozenset[str]] = {
    "red": frozenset(["hearts", "diamonds"]),
    "black": frozenset(["clubs", "spades"]),
    "court": frozenset(["jack", "queen", "king"]),
    **{suit: frozenset([suit]) for suit in SUITS},
    **{value: frozenset([value]) for value in VALUES},
}
"""the suits, or the values, of which such a card is"""


def word_of(sort: str) -> str:
    """*an ace*, *aces*, *a club*, *clubs*, *court cards*, *red* → the word in WORDS."""
    words = [word for word in sort.split() if word not in ("a", "an", "card", "cards")]
    word = words[0]
    for found in (word, word + "s", word[:-1], word[:-2]):
        if found in WORDS:
            return found
    raise KeyError(sort)


def is_sort(rank: str, suit: str, sort: str) -> bool:
    return not WORDS[word_of(sort)].isdisjoint((rank, suit))
