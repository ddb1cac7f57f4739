"""How long things take in one pair of hands: the performer's own paces, to be measured in rehearsal."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Paces:
    """Seconds. The defaults are rough: common practice, no published source."""

    card: float = 0.8
    """for a card dealt, counted or taken singly"""
    count: float = 0.4
    """for a card counted in the hands, for oneself"""
    look: float = 0.25
    """for a card looked at in passing"""
    step: float = 2.0
    """for an action as such: picking up, putting down, turning over"""
    decision: float = 4.0
    """for a choice of the spectator's"""
    word: float = 0.4
    """for a word that is said"""
    sum: float = 3.0
    """for one operation in the head"""
