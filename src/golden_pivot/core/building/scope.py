"""Which names are known at a line, and what they stand for."""

from __future__ import annotations

from collections.abc import Callable, Collection
from dataclasses import dataclass, field, replace
from typing import Any

from ..language.expressions import Expression
from ..language.routine import Line
from ..language.values import Spot
from .places import Deal, Gathering, Place

Total = tuple[frozenset[int], tuple[tuple[int, Expression], ...]]
"""(cells of the numbers, what is added up with its sign)"""


Looked = tuple[int, Spot | None]
"""(cell of a place, the card there that lies where no number decides; None for all that lie there). A look is remembered by
what it fell on, never by the words of a line: these mean another card when a number or the heap they speak of is another."""


@dataclass
class Scope:
    numbers: dict[str, int] = field(default_factory=dict)
    """name → the cell of its value"""
    told: set[int] = field(default_factory=set)
    """cells of numbers that the performer has learned"""
    kept_by: dict[int, frozenset[int]] = field(default_factory=dict)
    """cell of a number that was chosen secretly → the spectators who know it"""
    seen_by: dict[str, frozenset[int]] = field(default_factory=dict)
    """card by name → the spectators who have looked at it, or thought of it"""
    cards: set[str] = field(default_factory=set)
    """cards that have a name by now"""
    known_faces: set[str] = field(default_factory=set)
    """cards by name whose faces the performer knows"""
    held: dict[str, frozenset[int]] = field(default_factory=dict)
    """cards by name that your fingers keep a break at → the cells of where they lie"""
    looked_at: set[str] = field(default_factory=set)
    """cards by name whose faces have been asked for, so that they are settled"""
    looked_at_spots: set[tuple[Looked, bool]] = field(default_factory=set)
    """(cards by where they lie whose faces have been asked for, whether they had to lie open), while nothing moves there"""
    totals: dict[Total, int] = field(default_factory=dict)
    """sum of numbers that is kept as a running total → its cell, while none of them has changed"""
    filled: set[str] = field(default_factory=set)
    """places that cards have been put on"""
    aliases: dict[str, Place] = field(default_factory=dict)
    """what a loop over places calls the one whose turn it is"""
    piles: tuple[int, ...] = ()
    """cells of the piles last dealt, pile 1 first"""
    piles_from: str = ""
    pile_count: int | None = None
    dealt_piles: tuple[int, ...] = ()
    """cells of the piles that were dealt before the first was laid down"""
    """cell that counts the piles, where they are laid down one by one"""
    pointed: tuple[int, ...] = ()
    """cells of the numbers of piles that were pointed to, one after the other"""
    deal: Deal | None = None
    gathering: Gathering | None = None
    ended: bool = False
    """no path comes this far: every case above has its ending"""

    def has_looked(self, at: Looked | None, open_: bool) -> bool:
        """Whether these faces are settled; and, if that is asked, all of them lie open."""
        return (at, True) in self.looked_at_spots or (not open_ and (at, False) in self.looked_at_spots)

    def looks(self, at: Looked | None, open_: bool) -> None:
        """These faces are settled from here on; nothing is remembered of a place or a card that may be one or another."""
        if at:
            self.looked_at_spots.add((at, open_))

    def changes(self, cells: Collection[int]) -> None:
        """What has been found out of these cells before is not so any more."""
        self.looked_at_spots = {one for one in self.looked_at_spots if one[0][0] not in cells}
        self.totals = {total: cell for total, cell in self.totals.items() if not total[0] & set(cells)}

    def comes_again(self) -> None:
        """What follows is carried out again and again."""
        self.looked_at_spots, self.totals = set(), {}

    def copy(self) -> Scope:
        return replace(
            self,
            numbers=dict(self.numbers),
            told=set(self.told),
            cards=set(self.cards),
            filled=set(self.filled),
            aliases=dict(self.aliases),
            known_faces=set(self.known_faces),
            held=dict(self.held),
            kept_by=dict(self.kept_by),
            seen_by=dict(self.seen_by),
            looked_at=set(self.looked_at),
            looked_at_spots=set(self.looked_at_spots),
            totals=dict(self.totals),
        )


@dataclass
class Again:
    """A block that is carried out again and again: its lines are built once, and must mean the same every time round."""

    before: Scope
    """as it is when the block is first come to"""
    leaned_on: dict[str, Line] = field(default_factory=dict)
    """of REFERENTS, what lines of the block go by that they have from before it → the first of these lines"""

    def leans_on(self, what: str, scope: Scope, line: Line) -> None:
        kept_as = REFERENTS[what].kept_as
        if getattr(scope, kept_as) is getattr(self.before, kept_as):
            self.leaned_on.setdefault(what, line)

    def changed_by(self, after: Scope) -> list[str]:
        """Of these, what is another one when the block is come to again."""

        def meant(what: str, scope: Scope) -> object:
            return REFERENTS[what].meant(getattr(scope, REFERENTS[what].kept_as))

        return [what for what in self.leaned_on if meant(what, self.before) != meant(what, after)]


@dataclass(frozen=True)
class Referent:
    """What a line may go by without a name: the last one before it."""

    says: str
    kept_as: str
    """attribute of a scope"""
    meant: Callable[[Any], object] = lambda kept: kept
    """what of it matters"""


REFERENTS = {
    "next card": Referent("Which card is the next one", "deal", lambda deal: deal and (deal.source.cells, deal.from_bottom)),
    "last card": Referent("Which card was dealt last", "deal", lambda deal: deal and (deal.to.cells, deal.last_at_end)),
    "deal": Referent("What was dealt last", "deal", lambda deal: deal and (deal.source.cells, deal.to.cells, deal.from_bottom)),
    "gathering": Referent("What has just been gathered", "gathering"),
    "piles": Referent("Which piles are meant", "piles"),
    "pointed": Referent("Which piles have been pointed to", "pointed"),
}  # fmt: skip


def after_cases(one: Scope, other: Scope) -> Scope:
    """What is known behind two cases: what both know. A case that has its ending leads nowhere."""
    if one.ended or other.ended:
        return other if one.ended else one
    both = one.copy()
    both.numbers = {name: cell for name, cell in one.numbers.items() if other.numbers.get(name) == cell}
    both.told = one.told & other.told
    both.cards = one.cards & other.cards
    both.known_faces = one.known_faces & other.known_faces
    both.kept_by = {cell: by & other.kept_by[cell] for cell, by in one.kept_by.items() if cell in other.kept_by}
    both.seen_by = {name: by & other.seen_by[name] for name, by in one.seen_by.items() if name in other.seen_by}
    both.held = {name: cells for name, cells in one.held.items() if name in other.held}
    both.looked_at_spots = one.looked_at_spots & other.looked_at_spots
    both.totals = {total: cell for total, cell in one.totals.items() if other.totals.get(total) == cell}
    both.looked_at = one.looked_at & other.looked_at
    both.filled = one.filled | other.filled
    both.pointed = one.pointed if one.pointed == other.pointed else ()
    # Piles laid down one by one may be none in one case: their number is known all the same.
    growing = one if one.pile_count is not None else other
    both.pile_count = growing.pile_count
    both.dealt_piles = growing.dealt_piles
    both.piles = one.piles if one.piles == other.piles else growing.piles if both.pile_count is not None else ()
    both.deal = one.deal.or_also(other.deal) if one.deal and other.deal else None
    both.gathering = None
    return both
