"""Faces of unknown cards: what they can be, and in how many ways.

A card of which nothing is known can be any card of the pack that is not placed. A routine asks only some facts
of such cards (their value, the letters of their suit, …), and cards that agree in all of these form a **class**:
a proof knows a card that has been seen by its class alone.

Bytes for cards that have been seen: class c has the token TOKEN − c. A card that was only found *not* to be
of class c has the token TOKEN − (number of classes) − c; these are set aside only where such a thing is asked.
"""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache
from math import comb, perm
from typing import Any

from ..cards import DOWN, FACE_UP, RANKS, SUITS, TOKEN, card_colour, mate_of
from ..english import list_text
from ..language.expressions import CARD_FACTS

FACTS: Mapping[str, Callable[[str], int | None]] = {
    **CARD_FACTS,
    "colour": lambda card: {"black": 1, "red": 2}.get(card_colour(card) or ""),
    "court": lambda card: (2 if value > 10 else 1) if (value := CARD_FACTS["value"](card)) else None,
    "value up to ten": lambda card: min(value, 10) if (value := CARD_FACTS["value"](card)) else None,
    "card": lambda card: PACK.index(card) + 1 if card in PACK else None,
    "pair": lambda card: min(PACK.index(card), PACK.index(mate_of(card) or card)) + 1 if card in PACK else None,
}
"""What can be asked of a card: what numbers can speak of, its colour, whether it is a court card, which it is, and which pair of mates it is of."""

TESTS: Mapping[str, Callable[[int, int], int]] = {
    "is": lambda number, wanted: int(number == wanted),
    "at least": lambda number, wanted: int(number >= wanted),
    "modulo": lambda number, divisor: number % divisor,
}
"""What a line can want to know of such a number: with fewer answers than it has values, so that fewer classes are told apart."""


@lru_cache(1000)
def fact_by_name(name: str) -> Callable[[str], int | None]:
    """Card by name → one of FACTS, or a test of one.

    >>> [fact_by_name(asked)("queen of hearts") for asked in ("value", "value is 12", "value is 13", "suit at least 3")]
    [12, 1, 0, 1]
    """
    fact = without_test(name)
    test, _, number = name.removeprefix(fact).strip().rpartition(" ")
    if not test:
        return FACTS[fact]
    asked, answer, wanted = FACTS[fact], TESTS[test], int(number)
    return lambda card: None if (found := asked(card)) is None else answer(found, wanted)


def without_test(name: str) -> str:
    """
    >>> without_test("value up to ten is 10"), without_test("suit")
    ('value up to ten', 'suit')
    """
    return max((fact for fact in FACTS if name.startswith(fact)), key=len)


OF_PAIRS = frozenset(["card", "pair"])
"""facts that are asked to find mates alone: what pair it is makes no difference"""

PACK: tuple[str, ...] = tuple(f"{rank} of {suit}" for suit in SUITS for rank in RANKS)


@dataclass(frozen=True)
class FaceClass:
    """Cards that no line tells apart."""

    names: tuple[str, ...]
    facts: Mapping[str, int]
    """name of each fact that is asked, as in `fact_by_name` → its number for all of them"""
    total: int
    """how many there are"""

    @property
    def text(self) -> str:
        """
        >>> face_classes(frozenset(["value"]), 1)[7].text
        'an eight'
        """
        return cards_text(self.names) or f"{self.names[0]} or one of {len(self.names) - 1} others"


MOST_PIECES = 3
"""ranks of suits in which a set of cards is told at most"""
MOST_LEFT_OUT = 2
"""a card that can be of all ranks but so many is told by what it is not"""


def cards_text(names: Collection[str]) -> str | None:
    """What a card is that is one of these: in few words, to stand behind *is*; None where it would take many.

    >>> cards_text(["ace of clubs", "ace of diamonds", "ace of hearts", "ace of spades"])
    'an ace'
    >>> cards_text([name for name in PACK if name.endswith("hearts") or name.endswith("diamonds")])
    'red'
    >>> cards_text(["two of clubs", "three of clubs", "nine of hearts"])
    'two or three of clubs or nine of hearts'
    >>> cards_text([name for name in PACK if not name.startswith("king")])
    'no king'
    """
    ranks_of = {suit: tuple(rank for rank in RANKS if f"{rank} of {suit}" in names) for suit in SUITS}
    pieces: dict[tuple[str, ...], list[str]] = {}
    for suit, ranks in ranks_of.items():
        if ranks:
            pieces.setdefault(ranks, []).append(suit)
    if not pieces or len(pieces) > MOST_PIECES:
        return None
    return " or ".join(_piece(ranks, suits) for ranks, suits in pieces.items())


def _piece(ranks: tuple[str, ...], suits: Sequence[str]) -> str:
    """All cards of these ranks and suits."""
    if len(ranks) == len(RANKS):
        colours = {card_colour(f"ace of {suit}") for suit in suits}
        if len(suits) == len(SUITS):
            return "any card"
        if len(suits) == 2 and len(colours) == 1:
            return str(*colours)
        return list_text([f"a {suit.removesuffix('s')}" for suit in suits], "or")
    if len(suits) == len(SUITS):
        run = ranks == RANKS[(first := RANKS.index(ranks[0])) : first + len(ranks)]
        if ranks == RANKS[10:]:
            return "a court card"
        if len(ranks) >= len(RANKS) - MOST_LEFT_OUT:
            return f"no {list_text([rank for rank in RANKS if rank not in ranks], 'or')}"
        named = [f"{'an' if rank[0] in 'ae' else 'a'} {rank}" for rank in ranks]
        return f"{named[0]} to {named[-1]}" if run and len(ranks) > 3 else list_text(named, "or")
    return f"{list_text(ranks, 'or')} of {list_text(suits, 'or')}"


def face_classes(asked: frozenset[str], packs: int) -> tuple[FaceClass, ...]:
    """The classes by the facts asked, in the order of the pack (clubs from ace to king, diamonds, hearts, spades).

    `packs` is how many packs of 52 the cards come from.
    """
    groups: dict[tuple[int | None, ...], list[str]] = {}
    facts = [fact_by_name(fact) for fact in sorted(asked)]
    for name in PACK:
        groups.setdefault(tuple(fact(name) for fact in facts), []).append(name)
    return tuple(
        FaceClass(
            tuple(names),
            {fact: number for fact, number in zip(sorted(asked), key, strict=True) if number is not None},
            packs * len(names),
        )
        for key, names in groups.items()
    )


@lru_cache(100_000)
def arrangements(totals: tuple[int, ...], are: tuple[int, ...], are_not: tuple[int, ...]) -> int:
    """In how many ways different cards can have been seen so.

    There are `totals[c]` cards of class c; `are[c]` seen cards are of class c, `are_not[c]` were found not to be.
    The cards barred from one class each are counted by inclusion and exclusion: the rook polynomial of the
    forbidden places (I. Kaplansky, J. Riordan, "The problem of the rooks and its applications", 1946).
    """
    ways = 1
    for total, seen in zip(totals, are, strict=True):
        ways *= perm(total, seen) if seen <= total else 0
    barred = sum(are_not)
    if not ways or not barred:
        return ways
    rooks = [1]
    """coefficient j: in how many ways j of the barred cards can be of the class they must not be of"""
    for total, seen, bars in zip(totals, are, are_not, strict=True):
        if bars:
            here = [comb(bars, j) * perm(total - seen, j) for j in range(min(bars, total - seen) + 1)]
            product = [0] * (len(rooks) + len(here) - 1)
            for i, a in enumerate(rooks):
                for j, b in enumerate(here):
                    product[i + j] += a * b
            rooks = product
    left = sum(totals) - sum(are)
    if barred > left:
        return 0
    signed = (-many if j % 2 else many for j, many in enumerate(rooks))
    return ways * sum(many * perm(left - j, barred - j) for j, many in enumerate(signed))


MOST_KEPT = 50_000
"""answers about what a card can be that are kept"""


class Faces:
    """The classes of a routine, and the bytes that stand for them."""

    def __init__(
        self, classes: tuple[FaceClass, ...], whether: bool = True, groups: Sequence[frozenset[str]] = ()
    ) -> None:
        """`whether`: some card may be known only by what it is not.

        `groups`: sorts of which every card of the pack is known to be one, such as all reds and all blacks; each is made up
        of whole classes, and no card is of two. There is no `whether` beside them.
        """
        self.classes = classes
        self.totals = tuple(one.total for one in classes)
        self.groups = tuple(
            frozenset(c for c, one in enumerate(classes) if one.names[0] in group) for group in groups
        )
        """the classes of each"""
        self._first_group = (2 if whether and not groups else 1) * len(classes)
        self.lowest = TOKEN + 1 - self._first_group - len(groups)
        """tokens from here on are of cards that have been seen, or of which is known what sort they are"""
        self._next: dict[tuple[bytes, int], dict[int, tuple[int, int]]] = {}
        self._whether: dict[tuple[bytes, int], dict[int, tuple[int, int]]] = {}
        self.unseen = bytes(byte for byte in range(256) if byte & TOKEN < self.lowest)
        """bytes of cards that have not been seen"""
        self._told_by: dict[str, dict[int, int]] = {}
        self.of_name = {name: c for c, one in enumerate(classes) for name in one.names}

    @cached_property
    def pairs(self) -> tuple[bytes, ...]:
        """The tokens of the classes that hold mates, pair by pair: two, or one that has both."""
        found: dict[tuple[int, ...], None] = {}
        for c, one in enumerate(self.classes):
            mate = self.of_name[mate_of(one.names[0]) or one.names[0]]
            found[tuple(sorted({c, mate}))] = None
        return tuple(bytes(map(self.byte, pair)) for pair in found)

    def group(self, j: int) -> int:
        """The number that stands for *one of group j*, beside the classes."""
        return self._first_group + j

    def can_be(self, number: int | None) -> list[int]:
        """The classes of a card of which no more is known than this number says; of any card for None."""
        size = len(self.classes)
        if number is None:
            return list(range(size))
        if self.groups and number >= self._first_group:
            return sorted(self.groups[number - self._first_group])
        return [c for c in range(size) if c + size != number]

    def told_by(self, fact: str) -> dict[int, int]:
        """Token of a card that has been seen, or of which the sort is known → the number of a fact, where that settles it."""
        if fact not in self._told_by:
            self._told_by[fact] = self._settled_by(fact)
        return self._told_by[fact]

    def _settled_by(self, fact: str) -> dict[int, int]:
        size = len(self.classes)
        numbers = [*range(size), *(self.group(j) for j in range(len(self.groups)))]
        found = {}
        for number in numbers:
            classes = self.can_be(number) if number >= size else [number]
            facts = {self.classes[c].facts.get(fact) for c in classes}
            if len(facts) == 1 and (only := facts.pop()) is not None:
                found[self.byte(number)] = only
        return found

    def names(self, number: int) -> frozenset[str]:
        """The cards of class c, or for c + (number of classes) all that are not of it."""
        size = len(self.classes)
        if number < size:
            return frozenset(self.classes[number].names)
        return frozenset(self.of_name) - frozenset(self.classes[number - size].names)

    def text(self, number: int) -> str:
        size = len(self.classes)
        return self.classes[number].text if number < size else f"not {self.classes[number - size].text}"

    def byte(self, number: int) -> int:
        """Class c, or c + (number of classes) for *not of class c* → token."""
        return TOKEN - number

    def number(self, token: int) -> int | None:
        """The inverse of `byte`; None for a token of another kind."""
        return TOKEN - token if token >= self.lowest else None

    def of_byte(self, token: int) -> int | None:
        """The class of a card that has been seen; None where that is not settled."""
        return TOKEN - token if TOKEN - token < len(self.classes) else None

    def next_ways(self, seen: bytes, known: int) -> dict[int, tuple[int, int]]:
        """Class a card can be of → in how many ways, as a fraction of the ways so far.

        `seen` has the tokens of all cards that were seen, in any order; `known` is that of the card itself where it is
        only known what it is not, else 0.
        """
        key = bytes(sorted(seen)), known
        if key not in self._next:
            if len(self._next) > MOST_KEPT:
                self._next.clear()
            self._next[key] = self._next_ways(*key)
        return self._next[key]

    def _next_ways(self, seen: bytes, known: int) -> dict[int, tuple[int, int]]:
        size = len(self.classes)
        counts = [seen.count(TOKEN - number) for number in range(2 * size)]
        if self.groups or not any(counts[size:]):
            left = [total - count for total, count in zip(self.totals, counts, strict=False)]
            return {c: (left[c], 1) for c in self.can_be(TOKEN - known if known else None) if left[c] > 0}
        before = self._ways(counts)
        found: dict[int, tuple[int, int]] = {}
        if known:
            counts[TOKEN - known] -= 1
        for c in range(size):
            counts[c] += 1
            if (many := self._ways(counts)) and c + size != TOKEN - known:
                found[c] = (many, before)
            counts[c] -= 1
        return found

    def is_or_not(self, seen: bytes, c: int) -> dict[int, tuple[int, int]]:
        """The same for a card that may be anything, of which only is asked whether it is of class c."""
        key = bytes(sorted(seen)), c
        if key not in self._whether:
            if len(self._whether) > MOST_KEPT:
                self._whether.clear()
            self._whether[key] = self._is_or_not(*key)
        return self._whether[key]

    def _is_or_not(self, seen: bytes, c: int) -> dict[int, tuple[int, int]]:
        size = len(self.classes)
        counts = [seen.count(TOKEN - number) for number in range(2 * size)]
        before = self._ways(counts)
        found: dict[int, tuple[int, int]] = {}
        for number in (c, c + size):
            counts[number] += 1
            if many := self._ways(counts):
                found[number] = (many, before)
            counts[number] -= 1
        return found

    def _ways(self, counts: Sequence[int]) -> int:
        size = len(self.classes)
        return arrangements(self.totals, tuple(counts[:size]), tuple(counts[size:]))


@lru_cache(64)
def faces_known_by(facts: frozenset[str], packs: int, whether: bool, groups: tuple[frozenset[str], ...]) -> Faces:
    """The faces of all routines that ask these facts; what has been reckoned for one serves the next one."""
    return Faces(face_classes(facts, packs), whether, groups)


@dataclass(frozen=True)
class FaceStore:
    """Where a program keeps what is known of cards that no line can tell apart any more, while counts matter."""

    cell: int
    """tokens of cards that were seen, in ascending order"""
    lowest: int
    """tokens from here on are of cards that have been seen"""

    @cached_property
    def without_faces(self) -> bytes:
        """Translation table that makes cards indifferent which are known by their faces alone."""
        return bytes(byte & FACE_UP if byte & TOKEN >= self.lowest else byte for byte in range(256))

    @cached_property
    def _others(self) -> bytes:
        return bytes(byte for byte in range(256) if byte & TOKEN < self.lowest)

    def among(self, heaps: Iterable[bytes | None]) -> bytes:
        """The faces that have been seen, among these cards; in any order."""
        return b"".join([heap for heap in heaps if heap]).translate(DOWN, self._others)

    def keep(self, cells: list[Any], before: bytes, after: bytes) -> None:
        """What was shown before some cards were forgotten and is not after that stays known: which faces are out."""
        if len(before) > len(after):
            lost = bytearray(before)
            for face in after:
                lost.remove(face)
            cells[self.cell] = bytes(sorted(cells[self.cell] + lost))
