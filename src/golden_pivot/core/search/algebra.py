"""Weights of paths: what is asked of all paths at once decides what a weight is, and how weights meet where paths do.

A layer is `dict[State, weight]` in order of first arrival.
"""

from __future__ import annotations

import operator
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from .program import State

Layer = dict[State, Any]


@dataclass(frozen=True)
class Algebra:
    """How weights go along a path and meet where paths merge."""

    one: Any
    merge: Callable[[Any, Any], Any]
    times: Callable[[Any, int, int], Any] | None = None
    """weight times a fraction (numerator, denominator); None when there is no need to count"""
    share: Callable[[Any, int, int], Any] | None = None
    """weight of one option of a choice by chance: (weight, its share, all shares); None when nothing is weighed"""
    chosen: Callable[[Any, int, Any], Any] | None = None
    """weight after the option with this index and value; None when a choice does not change it"""
    handled: Callable[[Any, int], Any] | None = None
    """weight after so many cards were handled, all at once or some after others; None when that does not matter"""
    again: Callable[[Any, Any], Any] = lambda one, other: one
    """what is kept of two weights where a closure comes back to a state it has reached; the first by default"""
    rounds: Callable[[Any], Any] = lambda weight: weight
    """weight after another round of a closure"""
    first_will_do: bool = False
    """of paths that differ only in which of several things that are alike was taken, the one that took the first counts"""

    def add(self, layer: dict[Any, Any], key: Any, weight: Any) -> None:
        """Paths with this weight come to where others may have come before."""
        layer[key] = self.merge(layer[key], weight) if key in layer else weight


COUNT_PATHS = Algebra(1, operator.add, times=lambda weight, ways, out_of: weight * ways // out_of)
"""number of paths; a face that is seen counts as many times as there are cards that it can be"""

LEAST_PATH = Algebra(
    (0, 0, (), ()),
    min,
    chosen=lambda path, index, value: (path[0], path[1] + 1, (*path[2], index), (*path[3], value)),
    again=min,
    rounds=lambda path: (path[0] + 1, *path[1:]),
    first_will_do=True,
)
"""(rounds of closures, number of choices, indices of the options taken, the options), compared in this order"""

_COUNT, _LEAST = COUNT_PATHS, LEAST_PATH
assert _COUNT.times and _LEAST.chosen
_times, _chosen = _COUNT.times, _LEAST.chosen

COUNT_AND_LEAST = Algebra(
    (_COUNT.one, _LEAST.one),
    lambda one, other: (one[0] + other[0], min(one[1], other[1])),
    times=lambda both, ways, out_of: (_times(both[0], ways, out_of), both[1]),
    chosen=lambda both, index, value: (both[0], _chosen(both[1], index, value)),
    again=lambda one, other: (one[0], min(one[1], other[1])),
    rounds=lambda both: (both[0], _LEAST.rounds(both[1])),
    first_will_do=True,
)
"""both of them, in one search"""

MOST_HANDLED = Algebra(
    (0, (), ()),
    # More cards first; among equals the least path, so that the answer does not depend on arrival.
    lambda one, other: (
        one if one[0] > other[0] or (one[0] == other[0] and [-i for i in one[1]] >= [-i for i in other[1]]) else other
    ),
    chosen=lambda path, index, value: (path[0], (*path[1], index), (*path[2], value)),
    handled=lambda path, cards: (path[0] + cards, *path[1:]),
    first_will_do=True,
)
"""(cards handled, indices of the options taken, the options)"""
