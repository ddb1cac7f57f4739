"""What a performer is asked in a drill, wherever it is read off: a routine, or the answer of a desk."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise

from .english import ordinal


@dataclass(frozen=True)
class DrillQuestion:
    key: str
    """the same for the same question of the same routine, or of what was asked at a desk"""
    known: str
    """what is told: `n is 34`"""
    asks: str
    answer: str
    options: tuple[str, ...]
    """to choose from; none where it is said or typed"""
    rule: str
    """to be learned from"""


def order_questions(cards: Sequence[str], first: int = 1) -> Iterator[DrillQuestion]:
    """Of cards one under the other, the topmost lying `first` from the top: which, where, and what comes next."""
    for at, card in enumerate(cards, start=first):
        rule = f"{card} lies {ordinal(at)}"
        yield DrillQuestion(f"at {at}", ordinal(at), "Which card?", card, (), rule)
        yield DrillQuestion(f"where {card}", card, "At which position?", str(at), (), rule)
    for card, following in pairwise(cards):
        rule = f"{following} lies under {card}"
        yield DrillQuestion(f"after {card}", card, "Which card comes next?", following, (), rule)
