"""Putting a stack together from a pack, in few moves: from a known order, or from a shuffled pack in two deals."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import ceil, sqrt

from ..cards import RANKS, SUITS

NEW_PACK = "spades up, diamonds up, clubs down, hearts down"
"""how a new pack commonly lies, from the top, face down; common practice, no published source"""


def order_of(words: str) -> tuple[str, ...] | None:
    """The cards of `spades up, hearts down …`, from the top; None where it names not every suit once."""
    found: list[str] = []
    for part in words.lower().split(","):
        suit, _, way = part.strip().partition(" ")
        if suit not in SUITS or way not in ("up", "down"):
            return None
        found += [f"{rank} of {suit}" for rank in (RANKS if way == "up" else RANKS[::-1])]
    return tuple(found) if len(set(found)) == len(SUITS) * len(RANKS) else None


@dataclass(frozen=True)
class Block:
    """Cards that lie together in the pack and come together in the stack.

    `reverses`: they are dealt singly, so that their order turns round; else they are lifted as they lie.
    """

    first: str
    last: str
    cards: int
    reverses: bool


def blocks(order: Sequence[str], stack: Sequence[str]) -> tuple[Block, ...]:
    """The stack as few blocks of the pack as there can be, from the top of the stack.

    Each block is as long as it can be, which leaves fewest: a stack begun with a shorter one is never shorter on.
    """
    at = {card: i for i, card in enumerate(order)}
    found: list[Block] = []
    i = 0
    while i < len(stack):
        lengths = {}
        for step in (1, -1):
            j = i + 1
            while j < len(stack) and at[stack[j]] - at[stack[j - 1]] == step:
                j += 1
            lengths[step] = j - i
        step = max(lengths, key=lambda one: lengths[one])
        found.append(Block(stack[i], stack[i + lengths[step] - 1], lengths[step], step < 0))
        i += lengths[step]
    return tuple(found)


def assembled(order: Sequence[str], parts: Sequence[Block]) -> tuple[str, ...]:
    """The stack that these blocks make, each going under the ones before."""
    stack: list[str] = []
    for block in parts:
        first, last = order.index(block.first), order.index(block.last)
        stack += order[last : first + 1][::-1] if block.reverses else order[first : last + 1]
    return tuple(stack)


def passes(order: Sequence[str], stack: Sequence[str]) -> tuple[tuple[str, ...], ...]:
    """Going through the pack from its top, again and again: the cards to push out each time, in order.

    What is pushed out goes under what was before. As few passes as there can be.
    """
    at = {card: i for i, card in enumerate(order)}
    found: list[list[str]] = []
    for card in stack:
        if found and at[found[-1][-1]] < at[card]:
            found[-1].append(card)
        else:
            found.append([card])
    return tuple(map(tuple, found))


@dataclass(frozen=True)
class TwoDeals:
    """From any order: deal face up onto piles by this table, put pile 2 under pile 1 and so on, turn over; twice."""

    piles: int
    table: tuple[tuple[str, int, int], ...]
    """(card, its pile in the first deal, in the second), from the top of the stack; any other card goes aside"""


def two_deals(stack: Sequence[str]) -> TwoDeals:
    """A sort by two digits, the lower first (radix sort)."""
    piles = max(1, ceil(sqrt(len(stack))))
    return TwoDeals(piles, tuple((card, t % piles + 1, t // piles + 1) for t, card in enumerate(stack)))


def dealt_twice(order: Sequence[str], plan: TwoDeals) -> tuple[str, ...]:
    """What the two deals make of a pack in this order."""
    now = list(order)
    for deal in (0, 1):
        where = {card: (first, second)[deal] for card, first, second in plan.table}
        # A pile dealt face up and turned over has the card dealt first on top.
        now = [card for pile in range(1, plan.piles + 1) for card in now if where.get(card) == pile]
    return tuple(now)
