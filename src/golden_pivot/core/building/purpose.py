"""What a program is built for, and what the proof must be able to see."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Purpose:
    every_card: bool = False
    """each card has its own token, and its faces are followed"""
    every_name: bool = False
    """so that every card of the set-up can be found by its name, even one that no line asks for"""
    forget_places: bool = True
    """places that no later line reads are emptied"""
    forget_numbers: bool = True
    """numbers that no later line reads are dropped (told ones only when there is a claim)"""
    forget_unnamed: bool = True
    """so are numbers that no formula could speak of, such as the order in which piles were gathered"""
    forget_faces: bool = True
    """so are faces that no later line reads, and names of cards other than the one that is followed"""
    keep_cards: bool = False
    """which card of the set-up lies where at the end is asked for"""
    follow_faces: bool = False
    """which way up cards lie is followed, whether a line asks for it or not"""
    kept: frozenset[str] = frozenset()
    """numbers that are kept to the end all the same"""
    follow: str | None = None
    """the card whose way is asked for, instead of the one the routine is about"""
    odds: bool = False
    """numbers whose odds are asked for are kept to the end"""
    reorder: bool = False
    """things are done in another order where that makes no difference to the answer"""
    early_checks: bool = True
    """claims are settled as early as can be; not where paths that get stuck at a claim are counted"""
    limits: bool = True
    """a pack has so many cards of a kind; without limits more orders are covered than there are, in less time"""


PROOF = Purpose()
LEDGER = Purpose(forget_places=False)
REGION = Purpose(forget_numbers=False, forget_unnamed=False, early_checks=False)
TABLE = Purpose(forget_places=False, forget_numbers=False)
ODDS = Purpose(odds=True)
REPLAY = Purpose(every_card=True, forget_places=False, forget_numbers=False, forget_unnamed=False, forget_faces=False)


@dataclass(frozen=True)
class Exposure:
    """A side of a card that must not be seen: the `card` by name, or None for any card with an odd back."""

    claim: int
    card: str | None
    face: bool
    """its face; else its back"""


@dataclass(frozen=True)
class Needs:
    """What some line asks for and all lines must provide; known only once the whole routine has been read."""

    faces: bool = False
    """which way up cards lie"""
    exposures: tuple[Exposure, ...] = ()
    kept_piles: int = 0
    """how many of the piles laid down one by one a later line keeps"""
    pile_places: bool = False
    """some line speaks of one of the piles that are laid down one by one"""
    told_apart: frozenset[str] = frozenset()
    """cards with mates that need tokens of their own, where some line asks for all mates"""
    facts: frozenset[str] = frozenset()
    """what is asked of cards whose faces are unknown"""
    whether: bool = False
    """of some is only asked whether they are such and such"""

    def and_also(self, other: Needs) -> Needs:
        return Needs(
            self.faces or other.faces,
            other.exposures or self.exposures,
            max(self.kept_piles, other.kept_piles),
            self.pile_places or other.pile_places,
            self.told_apart | other.told_apart,
            self.facts | other.facts,
            other.whether,  # which follows from the facts
        )
