"""The shortest chain of mixes with a wanted effect, from both ends at once."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from ..budget import CHECK_EVERY, Budget
from ..faults import OutOfBudget
from .permutations import Arrangement, after, identity, inverse

MOST_ORDERS = 1_500_000
"""orders kept from both ends together"""


@dataclass(frozen=True)
class Found:
    chain: tuple[str, ...]
    """names of the mixes, the first first; no shorter chain does it"""
    seen: int


@dataclass(frozen=True)
class Unfound:
    tried: int
    """no chain of at most so many mixes does it; less than was asked for where the budget ran out"""
    seen: int


Layer = dict[Arrangement, None]
Trail = dict[Arrangement, tuple[Arrangement | None, str]]
"""order → (the order a mix earlier, the mix); (None, ) at the beginning"""


def shortest_chain(
    mixes: Mapping[str, Arrangement], goal: Arrangement, longest: int, budget: Budget
) -> Found | Unfound:
    """The first of the shortest chains of one mix or more that brings the packet into this order.

    Breadth first from the order at the beginning and, with the mixes undone, from the goal, a layer in turn. A
    beginning of a shortest chain is a shortest chain itself, so that layers which meet for the first time do so at the
    least length; for the identity too, whose empty chain does not count. Raises Cancelled.
    """
    start = identity(len(goal))
    undone = {name: inverse(mix) for name, mix in mixes.items()}
    forward: Trail = {start: (None, "")}
    backward: Trail = {goal: (None, "")}
    front: Layer = {start: None}
    back: Layer = {goal: None}
    for length in range(1, longest + 1):
        budget.progress(f"chains of {length} mixes, {len(forward) + len(backward):,} orders so far")
        try:
            if length % 2:
                front = _grown(front, mixes, forward, budget)
            else:
                back = _grown(back, undone, backward, budget)
        except OutOfBudget:
            return Unfound(length - 1, len(forward) + len(backward))
        smaller, larger = sorted((front, back), key=len)
        if meeting := next((order for order in smaller if order in larger), None):
            chain = (*_walked(forward, meeting)[::-1], *_walked(backward, meeting))
            return Found(chain, len(forward) + len(backward))
    return Unfound(longest, len(forward) + len(backward))


def _grown(layer: Layer, mixes: Mapping[str, Arrangement], trail: Trail, budget: Budget) -> Layer:
    following: Layer = {}
    for many, here in enumerate(layer):
        if many % CHECK_EVERY == 0:
            budget.look(len(trail), 0)
            if len(trail) > MOST_ORDERS:
                raise OutOfBudget("orders", f"{len(trail):,}")
        for name, mix in mixes.items():
            order = after(here, mix)
            if order not in trail:
                trail[order] = (here, name)
                following[order] = None
    return following


def _walked(trail: Trail, order: Arrangement) -> list[str]:
    names: list[str] = []
    before, name = trail[order]
    while before is not None:
        names.append(name)
        before, name = trail[before]
    return names


def moved_to(
    mixes: Mapping[str, Arrangement],
    start: tuple[int, ...],
    arrived: Callable[[tuple[int, ...]], bool],
    longest: int,
    budget: Budget,
) -> Found | Unfound:
    """The same for where a few cards come to, by their indices from 0; the others may lie as they like."""
    places = {name: inverse(mix) for name, mix in mixes.items()}
    trail: dict[tuple[int, ...], tuple[tuple[int, ...] | None, str]] = {start: (None, "")}
    layer = [start]
    for _length in range(1, longest + 1):
        following: list[tuple[int, ...]] = []
        budget.look(len(trail), 0)
        for here in layer:
            for name, to in places.items():
                at = tuple(to[i] for i in here)
                # Who asks for what is there already wants a chain all the same.
                if arrived(at):
                    chain = [name]
                    before: tuple[int, ...] | None = here
                    while before is not None and trail[before][0] is not None:
                        chain.append(trail[before][1])
                        before = trail[before][0]
                    return Found(tuple(chain[::-1]), len(trail))
                if at not in trail:
                    trail[at] = (here, name)
                    following.append(at)
        layer = following
        if not layer:
            # Every place that can be reached has been seen: no longer chain does it either.
            return Unfound(longest, len(trail))
    return Unfound(longest, len(trail))
