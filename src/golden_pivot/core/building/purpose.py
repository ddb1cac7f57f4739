"""What a program is built for, and what the proof must be able to see."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Purpose:
    every_card: bool = False
    """each card has its own token, and its faces are followed"""
    forget_places: bool = True
    """places that no later line reads are emptied"""
    forget_numbers: bool = True
    """numbers that no later line reads are dropped (told ones only when there is a claim)"""
    forget_unnamed: bool = True
    """so are numbers that no formula could speak of, such as the order in which piles were gathered"""


PROOF = Purpose()
LEDGER = Purpose(forget_places=False)
REGION = Purpose(forget_numbers=False, forget_unnamed=False)
TABLE = Purpose(forget_places=False, forget_numbers=False)
REPLAY = Purpose(every_card=True, forget_places=False, forget_numbers=False, forget_unnamed=False)


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
