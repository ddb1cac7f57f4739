"""A principle: a routine, and its paths, failing paths and odds worked out in a few lines that know nothing of the bench."""

from __future__ import annotations

from collections.abc import Callable
from fractions import Fraction

Ways = tuple[int, int, Fraction]
"""how many ways there are, in how many of them the claims do not hold, how often they hold if each choice is equally likely"""
Worked = Callable[[], Ways]
Principle = tuple[str, Worked]


def every(ways: list[bool]) -> Ways:
    """Of ways that are all equally likely."""
    return len(ways), ways.count(False), Fraction(ways.count(True), len(ways))
