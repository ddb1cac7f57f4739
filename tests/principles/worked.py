"""A principle: a routine, and its paths and failing paths worked out in a few lines that know nothing of the bench."""

from __future__ import annotations

from collections.abc import Callable

Worked = Callable[[], tuple[int, int]]
"""() → (how many ways there are, in how many of them the claims do not hold)"""
Principle = tuple[str, Worked]


def every(ways: list[bool]) -> tuple[int, int]:
    return len(ways), ways.count(False)
