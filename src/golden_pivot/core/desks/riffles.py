"""How well riffle shuffles mix: exact distances from a pack in perfectly random order."""

from __future__ import annotations

from fractions import Fraction
from math import comb, factorial


def rising_sequences(cards: int) -> list[int]:
    """Number of orders of `cards` cards with r rising sequences, for r from 1; the Eulerian numbers."""
    row = [1]
    for size in range(2, cards + 1):
        row = [(r + 1) * (row[r] if r < len(row) else 0) + (size - r) * (row[r - 1] if r else 0) for r in range(size)]
    return row


def chance_of_order(cards: int, riffles: int, rising: int) -> Fraction:
    """Chance that so many riffles make one given order with so many rising sequences.

    D. Bayer, P. Diaconis, "Trailing the dovetail shuffle to its lair", Ann. Appl. Probab. 2 (1992), theorem 1, for
    the riffle of Gilbert, Shannon and Reeds.
    """
    return Fraction(comb(2**riffles + cards - rising, cards), 2 ** (riffles * cards))


def distance(cards: int, riffles: int) -> Fraction:
    """Total variation distance, from 1 (in order) to 0 (every order equally likely), after so many riffles."""
    even = Fraction(1, factorial(cards))
    orders = enumerate(rising_sequences(cards), start=1)
    return sum((many * abs(chance_of_order(cards, riffles, r) - even) for r, many in orders), Fraction(0)) / 2
