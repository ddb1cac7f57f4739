"""A set of points among others, in words: bounds on numbers, on their sums and differences, and whether they are even.

Every shape found is exact on the points given: all that pass lie inside, and none that fail.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import combinations

Point = tuple[int, ...]
MOST_NUMBERS = 5
MOST_BOUNDS = 5
FAR = 10**9
"""further than any number"""


@dataclass(frozen=True)
class _Bound:
    """`one` ± `other` (indices of numbers; None for a single one) is from `low` to `high`, or of one parity."""

    one: int
    other: int | None
    sign: int
    low: int
    high: int
    parity: int | None = None

    def of(self, point: Sequence[int]) -> int:
        return point[self.one] + (self.sign * point[self.other] if self.other is not None else 0)

    def holds(self, point: Sequence[int]) -> bool:
        value = self.of(point)
        return value % 2 == self.parity if self.parity is not None else self.low <= value <= self.high

    def text(self, names: Sequence[str], least: int, most: int) -> str:
        """`least` and `most` are what the points there are come to."""
        low, high = max(self.low, least), min(self.high, most)
        if self.other is not None and self.sign < 0 and self.parity is None:
            return self._beside(names[self.one], names[self.other], low, high, least, most)
        what = names[self.one]
        if self.other is not None:
            what += f" {'+' if self.sign > 0 else '−'} {names[self.other]}"
        if self.parity is not None:
            return f"{what} is {'odd' if self.parity else 'even'}"
        if low == high:
            return f"{what} is {low}"
        if low == least:
            return f"{what} is at most {high}"
        return f"{what} is at least {low}" if high == most else f"{what} is {low} to {high}"

    def _beside(self, one: str, other: str, low: int, high: int, least: int, most: int) -> str:
        """A difference, as how far one number is from the other: `b is a + 1`, `n is at least k`."""

        def shifted(by: int) -> str:
            return other if not by else f"{other} {'+' if by > 0 else '−'} {abs(by)}"

        if low == high:
            return f"{one} is {shifted(low)}"
        if low == least:
            return f"{one} is at most {shifted(high)}"
        if high == most:
            return f"{one} is at least {shifted(low)}"
        return f"{one} is from {shifted(low)} to {shifted(high)}"


def shape_text(
    names: Sequence[str],
    passing: Sequence[tuple[int | None, ...]],
    failing: Sequence[tuple[int | None, ...]],
    parts: int,
) -> str | None:
    """The passing points in words, in at most so many parts; None where there is no such short form.

    >>> grid = [(i, j) for i in range(6) for j in range(6)]
    >>> inside = [p for p in grid if p[0] >= 1 and sum(p) <= 5]
    >>> shape_text(["i", "j"], inside, [p for p in grid if p not in inside], 1)
    'i is at least 1 and i + j is at most 5'
    """
    if not passing or len(names) > MOST_NUMBERS or any(None in point for point in (*passing, *failing)):
        return None
    if set(passing) & set(failing):
        return None
    good, bad = (sorted({tuple(v for v in p if v is not None) for p in points}) for points in (passing, failing))
    found = next((shape for many in range(1, parts + 1) if (shape := _parts(good, bad, many))), None)
    if found is None:
        return None
    every = [*good, *bad]

    def said(bounds: Sequence[_Bound]) -> str:
        return " and ".join(b.text(names, min(map(b.of, every)), max(map(b.of, every))) for b in bounds)

    return ", or ".join(map(said, found))


def _parts(good: Sequence[Point], bad: Sequence[Point], parts: int) -> list[list[_Bound]] | None:
    if (whole := _hull(good, bad)) is not None:
        return [whole]
    if parts < 2:
        return None
    for left, right in _splits(good):
        first = _hull(left, bad)
        rest = _parts(right, bad, parts - 1) if first is not None else None
        if first is not None and rest is not None:
            return [first, *rest]
        last = _hull(right, bad) if first is None else None
        before = _parts(left, bad, parts - 1) if last is not None else None
        if last is not None and before is not None:
            return [*before, last]
    return None


def _splits(good: Sequence[Point]) -> Iterator[tuple[list[Point], list[Point]]]:
    """The points below some value of a number, and the others."""
    for i in range(len(good[0])):
        for value in sorted({point[i] for point in good})[1:]:
            yield [p for p in good if p[i] < value], [p for p in good if p[i] >= value]


def _hull(good: Sequence[Point], bad: Sequence[Point]) -> list[_Bound] | None:
    """The fewest bounds that keep all good points and no bad one, those on sums and differences left out first."""
    bounds = list(_bounds(good))
    if any(all(bound.holds(point) for bound in bounds) for point in bad):
        return None
    # The bad points each bound keeps out; a bound that no point needs is dropped.
    out = [frozenset(i for i, point in enumerate(bad) if not bound.holds(point)) for bound in bounds]
    kept = list(range(len(bounds)))
    for at in sorted(kept, key=lambda i: (bounds[i].other is None, bounds[i].parity is None, i)):
        without = [i for i in kept if i != at]
        if len(frozenset[int]().union(*(out[i] for i in without))) == len(bad):
            kept = without
    together = _together([bounds[i] for i in kept])
    return together if len(together) <= MOST_BOUNDS else None


def _together(bounds: Sequence[_Bound]) -> list[_Bound]:
    """The least and the most of the same number as one."""
    found: dict[tuple[int, int | None, int, int | None], _Bound] = {}
    for bound in bounds:
        about = (bound.one, bound.other, bound.sign, bound.parity)
        was = found.get(about, bound)
        found[about] = replace(bound, low=max(was.low, bound.low), high=min(was.high, bound.high))
    return list(found.values())


def _bounds(points: Sequence[Point]) -> Iterator[_Bound]:
    many = len(points[0])
    for one, other, sign in [
        *((i, None, 0) for i in range(many)),
        *((i, j, sign) for i, j in combinations(range(many), 2) for sign in (1, -1)),
    ]:
        bound = _Bound(one, other, sign, 0, 0)
        values = [bound.of(point) for point in points]
        yield _Bound(one, other, sign, min(values), FAR)
        yield _Bound(one, other, sign, -FAR, max(values))
        if other is None and len({value % 2 for value in values}) == 1:
            yield _Bound(one, other, sign, 0, 0, values[0] % 2)
