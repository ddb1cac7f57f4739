"""The positions of a stack as the solver z3 knows them.

Each position has a value, a whole number, and one of four suits, as Boolean variables. Values as numbers are what
makes sums quick: as Boolean variables too, the same stacks took hundreds of times as long.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import z3

from ..cards import RANKS, SUITS

JOKER = "joker"
RED = ("diamonds", "hearts")


@dataclass(frozen=True)
class Pack:
    """One real pack, or several shuffled together."""

    packs: int = 1
    jokers: int = 0
    without: tuple[str, ...] = ()
    """values that were taken out"""

    @property
    def ranks(self) -> tuple[str, ...]:
        return tuple(rank for rank in RANKS if rank not in self.without)

    @property
    def size(self) -> int:
        return self.packs * len(self.ranks) * len(SUITS) + self.jokers


class Model:
    """The positions 1 to `size` of a stack, as the solver knows them."""

    def __init__(self, size: int, pack: Pack) -> None:
        self.size, self.pack = size, pack
        self.ranks = (*pack.ranks, *((JOKER,) if pack.jokers else ()))
        self._value = [z3.Int(f"value at {i}") for i in self.positions]
        self._suit = {(i, suit): z3.Bool(f"{suit} at {i}") for i in self.positions for suit in SUITS}
        self._ranks: dict[tuple[int, str], z3.BoolRef] = {}
        self._cards: dict[tuple[int, str], z3.BoolRef] = {}
        self._same: dict[tuple[int, int, str], z3.BoolRef] = {}

    @property
    def positions(self) -> range:
        return range(1, self.size + 1)

    def rules(self) -> Iterator[z3.BoolRef]:
        """Every position has one card, and no card lies there more often than the pack has it."""
        packs = self.pack.packs
        for i in self.positions:
            yield self.any([self.is_rank(i, rank) for rank in self.ranks])
            yield z3.PbEq([(self._suit[i, suit], 1) for suit in SUITS], 1)
        for rank in self.pack.ranks:
            # The sums of values alone show soon that there are not enough of one.
            yield z3.PbLe([(self.is_rank(i, rank), 1) for i in self.positions], packs * len(SUITS))
            for suit in SUITS:
                yield z3.PbLe([(self.is_card(i, f"{rank} of {suit}"), 1) for i in self.positions], packs)
        if self.pack.jokers:
            yield z3.PbLe([(self.is_rank(i, JOKER), 1) for i in self.positions], self.pack.jokers)

    def value(self, i: int) -> z3.ArithRef:
        """From 1 for the ace to 13 for the king; 0 for a joker."""
        return self._value[i - 1]

    def is_card(self, i: int, card: str) -> z3.BoolRef:
        if (i, card) not in self._cards:
            rank, _, suit = card.partition(" of ")
            self._cards[i, card] = z3.And(self.is_rank(i, rank), self.is_suit(i, suit))
        return self._cards[i, card]

    def is_rank(self, i: int, rank: str) -> z3.BoolRef:
        if (i, rank) not in self._ranks:
            self._ranks[i, rank] = self.value(i) == (RANKS.index(rank) + 1 if rank in RANKS else 0)
        return self._ranks[i, rank]

    def is_suit(self, i: int, suit: str) -> z3.BoolRef:
        return z3.And(self._suit[i, suit], self.value(i) > 0) if self.pack.jokers else self._suit[i, suit]

    def is_red(self, i: int) -> z3.BoolRef:
        return self.any([self.is_suit(i, suit) for suit in RED])

    def is_black(self, i: int) -> z3.BoolRef:
        return self.any([self.is_suit(i, suit) for suit in SUITS if suit not in RED])

    def is_worth(self, i: int, low: int, high: int) -> z3.BoolRef:
        return z3.And(self.value(i) >= low, self.value(i) <= high)

    def sums(self, at: Sequence[int], total: int, how: str) -> z3.BoolRef:
        reached = z3.Sum([self.value(i) for i in at])
        return {"exactly": reached == total, "at least": reached >= total, "at most": reached <= total}[how]

    def agree(self, i: int, j: int, fact: str) -> z3.BoolRef:
        """Whether the cards there agree in value, suit or colour, or in value and colour."""
        if (i, j, fact) not in self._same:
            self._same[i, j, fact] = {
                "value": lambda: self.value(i) == self.value(j),
                "suit": lambda: self.any([z3.And(self.is_suit(i, s), self.is_suit(j, s)) for s in SUITS]),
                "colour": lambda: self.any([
                    z3.And(self.is_red(i), self.is_red(j)), z3.And(self.is_black(i), self.is_black(j))
                ]),
                "value and colour": lambda: z3.And(self.agree(i, j, "value"), self.agree(i, j, "colour")),
            }[fact]()  # fmt: skip
        return self._same[i, j, fact]

    def all(self, parts: Sequence[z3.BoolRef]) -> z3.BoolRef:
        return z3.And(*parts)

    def any(self, parts: Sequence[z3.BoolRef]) -> z3.BoolRef:
        return z3.Or(*parts)

    def no(self, part: z3.BoolRef) -> z3.BoolRef:
        return z3.Not(part)

    def read(self, found: z3.ModelRef) -> tuple[str, ...]:
        """The cards of a solution, from the top."""

        def card(i: int) -> str:
            value = found.eval(self.value(i), model_completion=True).as_long()
            suit = next(s for s in SUITS if z3.is_true(found.eval(self._suit[i, s], model_completion=True)))
            return f"{RANKS[value - 1]} of {suit}" if value else JOKER

        return tuple(map(card, self.positions))

    def differs(self, cards: Sequence[str]) -> z3.BoolRef:
        """Not this very arrangement."""
        same = [
            self.is_rank(i, JOKER) if card == JOKER else self.is_card(i, card)
            for i, card in enumerate(cards, start=1)
        ]
        return z3.Not(z3.And(*same))
