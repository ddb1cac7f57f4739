"""Sorts of cards by their names: red, a club, court cards, aces, face-up cards."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

from ..cards import RANKS, SUITS, card_colour, card_suit, card_value

PLURAL_RANKS = tuple(f"{rank}es" if rank.endswith("x") else f"{rank}s" for rank in RANKS)


@dataclass(frozen=True)
class Sort:
    """Cards of which a fact is this number. A way round is no fact of a card: `fact` is then the side that shows."""

    one: str
    """as it stands behind *is*"""
    many: str
    """as it is counted"""
    fact: str
    number: int

    @cached_property
    def names(self) -> frozenset[str]:
        """The cards of a pack that are of it."""
        pack = (f"{rank} of {suit}" for suit in SUITS for rank in RANKS)
        of_fact = {
            "colour": lambda card: 2 if card_colour(card) == "red" else 1,
            "suit": lambda card: SUITS.index(card_suit(card) or "") + 1,
            "court": lambda card: 2 if (card_value(card) or 0) > 10 else 1,
            "value": card_value,
        }
        return frozenset(card for card in pack if not self.is_by_side and of_fact[self.fact](card) == self.number)

    @property
    def asked(self) -> str:
        """The fact that is asked of a card where nothing but this sort matters; 1 for these, 0 for others."""
        return f"{self.fact} is {self.number}"

    @property
    def is_by_side(self) -> bool:
        return self.fact == "side"


def _declared() -> tuple[Sort, ...]:
    return (
        *(
            Sort(colour, f"{colour} cards", "colour", number)
            for number, colour in enumerate(("black", "red"), start=1)
        ),
        *(Sort(f"a {suit[:-1]}", suit, "suit", number) for number, suit in enumerate(SUITS, start=1)),
        Sort("a court card", "court cards", "court", 2),
        *(
            Sort(f"{'an' if rank[0] in 'ae' else 'a'} {rank}", many, "value", number)
            for number, (rank, many) in enumerate(zip(RANKS, PLURAL_RANKS, strict=True), start=1)
        ),
        Sort("face up", "face-up cards", "side", 1),
        Sort("face down", "face-down cards", "side", 0),
    )


SORTS: dict[str, Sort] = {sort.many: sort for sort in _declared()}
"""by the words in which they are counted"""
OF_ONE: dict[str, Sort] = {sort.one: sort for sort in SORTS.values()}
"""by the words that stand behind *is*"""
BY_FACE = "|".join(sort.one for sort in OF_ONE.values() if not sort.is_by_side)
"""for a template: what a card can be by its face"""
MANY_BY_FACE = "|".join(sort.many.removesuffix(" cards") for sort in SORTS.values() if not sort.is_by_side)


def sort_behind(adjective: str) -> Sort:
    """The sort that is said of several cards: *red*, *clubs*, *court*, *aces*."""
    return SORTS.get(adjective) or SORTS[f"{adjective} cards"]


def read_sort(words: Sequence[str]) -> tuple[str, int] | None:
    """The sort in whose name these words begin, in the plural, with how many words it took; None for none.

    >>> read_sort("face-up cards of table".split()), read_sort("clubs of hand".split()), read_sort(["table"])
    (('face-up cards', 2), ('clubs', 1), None)
    """
    text = [word.lower() for word in words[:3]]
    for sort in SORTS.values():
        for name in (sort.many.split(), sort.many.replace("-", " ").split()):
            if text[: len(name)] == name:
                return sort.many, len(name)
    return None
