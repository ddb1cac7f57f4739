"""What patter can say that can be checked, and the endings of the language that would make it so."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass

from num2words import num2words

from ..cards import RANKS, SUITS
from ..english import ordinal

MOST_NAMED = 60

_CARDINALS = {str(num2words(n)): n for n in range(MOST_NAMED + 1)} | {"no": 0, "a": 1}
ORDINALS = {str(num2words(n, to="ordinal")): n for n in range(1, MOST_NAMED + 1)} | {
    ordinal(n): n for n in range(1, MOST_NAMED + 1)
}
_NUMBER = rf"(?P<number>{'|'.join(sorted(map(re.escape, _CARDINALS), key=len, reverse=True))}|\d+)"
_AT = rf"(?P<at>{'|'.join(sorted(map(re.escape, ORDINALS), key=len, reverse=True))})"
_HEAPS = {"pack": "deck", "deck": "deck", "hand": "hand", "table": "table", "pocket": "pocket", "box": "box"}
_IN = rf"(?:in|on) (?:the|your|my) (?P<heap>{'|'.join(_HEAPS)}|pile (?P<pile>\d+))"
_SPOTS = {
    "top card": "the top card of {place}",
    "bottom card": "the bottom card of {place}",
    "next card": "the next card",
    "last card": "the last card dealt",
}
_SPOT = rf"(?P<spot>the (?:{'|'.join(_SPOTS)})|your card)"
_CARD = rf"(?:the )?(?P<card>(?:{'|'.join(RANKS)}) of (?:{'|'.join(SUITS)}))"

PLACE = "{place}"
"""stands in a claim for whichever place it is likeliest to be so of"""


@dataclass(frozen=True)
class Saying:
    """Words of a line of patter that say something."""

    words: str
    later: bool
    """it is said of the end, not of now"""
    claims: tuple[str, ...]
    """endings that make it so, all of them"""


def sayings_in(patter: str) -> Iterator[Saying]:
    """Every saying that can be checked at the line at which it is said, or at the end where it speaks of later."""
    told: list[tuple[range, tuple[str, ...]]] = []
    for pattern, claims in _PATTERNS:
        for match in pattern.finditer(patter):
            said = claims(match)
            # The same, found once more in fewer words.
            if not any(match.start() in words and said == other for words, other in told):
                told.append((range(*match.span()), said))
                later = re.search(r"\b(will|end up)\b", match[0], re.IGNORECASE) is not None
                yield Saying(match[0], later, said)


POSITION = re.compile(rf"\bthe {_AT} card\b", re.IGNORECASE)
"""where the card ends up, said anywhere"""


def _number(match: re.Match[str]) -> int:
    word = match["number"].lower()
    return _CARDINALS[word] if word in _CARDINALS else int(word)


def _place(match: re.Match[str]) -> str:
    heap = match["heap"]
    return PLACE if heap is None else heap.lower() if match["pile"] else _HEAPS[heap.lower()]


def _so_many_facing(match: re.Match[str]) -> tuple[str, ...]:
    return (f"Ends with: {_number(match)} cards of {_place(match)} are {match['way'].lower()}",)


def _so_many(match: re.Match[str]) -> tuple[str, ...]:
    return (f"Ends with: size of {_place(match)} is {_number(match)}",)


def _spot(match: re.Match[str]) -> str:
    said = match["spot"].lower()
    return "their card" if said == "your card" else _SPOTS[said.removeprefix("the ")]


def _facing(match: re.Match[str]) -> tuple[str, ...]:
    return (f"Ends with: {_spot(match)} is {match['way'].lower()}",)


def _is_card(match: re.Match[str]) -> tuple[str, ...]:
    return (f"Ends with: {_spot(match)} is {match['card'].lower()}",)


def _is_theirs(match: re.Match[str]) -> tuple[str, ...]:
    return (f"Ends with: {_spot(match)} is their card",)


def _coloured(match: re.Match[str]) -> tuple[str, ...]:
    """Diamonds and hearts, 2 and 3, are red."""
    spot = _spot(match)
    suit = f"suit of {spot}" if spot == "their card" else f"(suit of {spot})"
    if match["colour"].lower() == "red":
        return f"Ends with: {suit} is at least 2", f"Ends with: {suit} is at most 3"
    return f"Ends with: {suit} is not 2", f"Ends with: {suit} is not 3"


_IS = r"(?:will be|is|are|lies|lie|will lie|ends up|end up)"

_PATTERNS: tuple[tuple[re.Pattern[str], Callable[[re.Match[str]], tuple[str, ...]]], ...] = tuple(
    (re.compile(rf"\b{pattern}\b", re.IGNORECASE), claims)
    for pattern, claims in (
        (rf"{_NUMBER} cards?(?: {_IN})? {_IS}(?: left)? (?P<way>face up|face down)", _so_many_facing),
        (rf"(?:there are|there is|you have|you hold|I have|I hold) {_NUMBER} cards?(?: left)? {_IN}", _so_many),
        (rf"{_NUMBER} cards? (?:(?:will be|are|is|lie|remain)(?: left)?|left) {_IN}", _so_many),
        (rf"{_SPOT} {_IS} (?P<way>face up|face down)", _facing),
        (rf"{_SPOT} {_IS} {_CARD}", _is_card),
        (rf"(?!your card){_SPOT} {_IS} (?:yours|your card)", _is_theirs),
        (rf"{_SPOT} {_IS} (?:a )?(?P<colour>red|black)", _coloured),
    )
)
