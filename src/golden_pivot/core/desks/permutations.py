"""Orders of a packet as permutations, and what a mix keeps of an order.

An **arrangement** is a `bytes`: at index i stands which card, by its old index, now lies there; both from 0 at the
top. The arrangement of a mix applied to an arrangement is that of both, one after the other.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from math import lcm

Arrangement = bytes


def identity(cards: int) -> Arrangement:
    return bytes(range(cards))


def after(arrangement: Arrangement, mix: Arrangement) -> Arrangement:
    """The order after this arrangement has been mixed.

    >>> list(after(bytes([2, 0, 1]), bytes([1, 0, 2])))
    [0, 2, 1]
    """
    return mix.translate(arrangement.ljust(256, b"\0"))


def inverse(arrangement: Arrangement) -> Arrangement:
    """Index i → where the card from there lies.

    >>> list(inverse(bytes([2, 0, 1])))
    [1, 2, 0]
    """
    found = bytearray(len(arrangement))
    for now, before in enumerate(arrangement):
        found[before] = now
    return bytes(found)


def cycles(arrangement: Arrangement) -> list[tuple[int, ...]]:
    """Positions (from 1) through which cards go round if the mix is repeated, fixed ones too."""
    to, seen, found = inverse(arrangement), set(), []
    for start in range(len(to)):
        at, cycle = start, []
        while at not in seen:
            seen.add(at)
            cycle.append(at + 1)
            at = to[at]
        if cycle:
            found.append(tuple(cycle))
    return found


def order(arrangement: Arrangement) -> int:
    """How often the mix must be made until the old order is back."""
    return lcm(*(len(cycle) for cycle in cycles(arrangement)))


def is_even(arrangement: Arrangement) -> bool:
    """An even number of exchanges of two cards makes it."""
    return (len(arrangement) - len(cycles(arrangement))) % 2 == 0


def _is_cut(a: Arrangement, step: int) -> bool:
    n = len(a)
    return all((a[(i + 1) % n] - a[i] - step) % n == 0 for i in range(n))


def _mirrored(a: Arrangement) -> Iterator[tuple[int, int]]:
    n = len(a)
    return ((a[i], a[n - 1 - i]) for i in range(n // 2))


def _adjacent(a: Arrangement) -> Iterator[tuple[int, int]]:
    return ((a[i], a[i + 1]) for i in range(0, len(a) - 1, 2))


def _are_mirrored(pairs: Iterator[tuple[int, int]], n: int) -> bool:
    return all(one + other == n - 1 for one, other in pairs)


def _are_adjacent(pairs: Iterator[tuple[int, int]]) -> bool:
    return all(one // 2 == other // 2 for one, other in pairs)


KEPT: dict[str, Callable[[Arrangement], bool]] = {
    "the old order": lambda a: a == identity(len(a)),
    "the old order, but for a cut": lambda a: a != identity(len(a)) and _is_cut(a, 1),
    "the order, reversed": lambda a: a == identity(len(a))[::-1],
    "the order reversed, but for a cut": lambda a: a != identity(len(a))[::-1] and len(a) > 2 and _is_cut(a, -1),
    "cards as far from the top as from the bottom stay such pairs": lambda a: _are_mirrored(_mirrored(a), len(a)),
    "pairs from the top, 1–2, 3–4 …, stay pairs": lambda a: len(a) % 2 == 0 and _are_adjacent(_adjacent(a)),
    "pairs from the top come to mirror each other, top and bottom": lambda a: (
        len(a) % 2 == 0 and len(a) > 2 and _are_adjacent(_mirrored(a))
    ),
    "pairs of top and bottom come together, two by two": lambda a: (
        len(a) % 2 == 0 and len(a) > 2 and _are_mirrored(_adjacent(a), len(a))
    ),
    "cards that alternate, such as in colour, still alternate": lambda a: (
        len({(i + card) % 2 for i, card in enumerate(a)}) == 1
    ),
}
"""What can be said of an order after a mix, as the end of “It keeps …”; each is true of the arrangement or not."""


def kept(arrangement: Arrangement) -> tuple[str, ...]:
    return tuple(words for words, holds in KEPT.items() if holds(arrangement))


def stock(arrangement: Arrangement) -> tuple[int, int]:
    """How many cards from the top, and from the bottom, lie where they lay."""
    n = len(arrangement)
    top = next((i for i, card in enumerate(arrangement) if card != i), n)
    bottom = next((i for i, card in enumerate(arrangement[::-1]) if card != n - 1 - i), n)
    return top, bottom
