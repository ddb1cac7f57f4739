"""Which pack goes where in an order that stands: each routine has its pack from at most one other, and gives it to at most one.

That is a matching of those who give with those who take, made larger one pair at a time by the cheapest augmenting path
(successive shortest paths), so that each size has its least cost.
"""

from __future__ import annotations

from collections.abc import Mapping

Takes = dict[int, int]
"""place of the one that takes a pack → place of the one that gives it"""


def give_out(n: int, between: Mapping[tuple[int, int], float], packs: int, fewest: bool) -> tuple[int, ...]:
    """Of each of n places in order: which pack, from 1. `between`: (earlier, later) → seconds to make the pack ready.

    With no more packs than are at hand, where that can be, and then with the least resetting; with `fewest` as few packs as can
    be come first. Where they are too few, as few as it takes.
    """
    costs = {pair: round(10 * seconds) for pair, seconds in between.items() if pair[0] < pair[1]}
    takes: Takes = {}
    while (found := _cheapest(n, costs, takes)) is not None:
        cost, larger = found
        if cost > 0 and not fewest and n - len(takes) <= packs:
            break
        takes = larger
    given: list[int] = []
    for place in range(n):
        given.append(given[takes[place]] if place in takes else 1 + max(given, default=0))
    return tuple(given)


def _cheapest(n: int, costs: Mapping[tuple[int, int], int], takes: Takes) -> tuple[int, Takes] | None:
    """(what it costs more, the matching with one pair more), the least costly; None where there is none."""
    giving = set(takes.values())
    # The least cost to set a giver free, and by which change of hands: free ones are free.
    least = {i: 0 for i in range(n) if i not in giving}
    through: dict[int, tuple[int, int]] = {}
    for _ in range(n):
        changed = False
        for (i, j), cost in costs.items():
            other = takes.get(j)
            if i in least and other is not None and other != i:
                now = least[i] + cost - costs[other, j]
                if now < least.get(other, now + 1):
                    least[other], through[other], changed = now, (i, j), True
        if not changed:
            break
    ends = [(least[i] + cost, j, i) for (i, j), cost in costs.items() if j not in takes and i in least]
    if not ends:
        return None
    cost, j, i = min(ends)
    larger = {**takes, j: i}
    while i in through:
        before, taker = through[i]
        larger[taker] = before
        i = before
    return cost, larger
