"""Which names are known at a line, and what they stand for."""

from __future__ import annotations

from dataclasses import dataclass, field, replace

from .places import Deal, Gathering


@dataclass
class Scope:
    numbers: dict[str, int] = field(default_factory=dict)
    """name → the cell of its value"""
    told: set[int] = field(default_factory=set)
    """cells of numbers that the performer has learned"""
    cards: set[str] = field(default_factory=set)
    """cards that have a name by now"""
    filled: set[str] = field(default_factory=set)
    """places that cards have been put on"""
    piles: tuple[int, ...] = ()
    """cells of the piles last dealt, pile 1 first"""
    piles_from: str = ""
    deal: Deal | None = None
    gathering: Gathering | None = None
    ended: bool = False
    """no path comes this far: every case above has its ending"""

    def copy(self) -> Scope:
        return replace(
            self, numbers=dict(self.numbers), told=set(self.told), cards=set(self.cards), filled=set(self.filled)
        )


def after_cases(one: Scope, other: Scope) -> Scope:
    """What is known behind two cases: what both know. A case that has its ending leads nowhere."""
    if one.ended or other.ended:
        return other if one.ended else one
    both = one.copy()
    both.numbers = {name: cell for name, cell in one.numbers.items() if other.numbers.get(name) == cell}
    both.told = one.told & other.told
    both.cards = one.cards & other.cards
    both.filled = one.filled | other.filled
    both.piles = one.piles if one.piles == other.piles else ()
    both.deal = one.deal if one.deal == other.deal else None
    both.gathering = None
    return both
