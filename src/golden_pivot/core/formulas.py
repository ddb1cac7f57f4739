"""A number as a formula in the choices, found by exact elimination and verified on every row it was given."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from fractions import Fraction
from itertools import combinations

from .expressions import digit_sum

Term = tuple[str, Callable[[Sequence[int]], int]]

MOST_ROWS = 20_000


def fit(names: Sequence[str], rows: Sequence[tuple[Sequence[int], int]]) -> str | None:
    """A formula in `names` that gives the right number on every row, or None.

    Each row is (value of each name, number). Tried in this order: a sum of multiples of the names; the same
    with one more term, a half, the remainder by 2, or a digit sum. No row is left unchecked: a formula returned
    holds on all of them.
    """
    if not rows or len(rows) > MOST_ROWS:
        return None
    linear: list[Term] = [(name, lambda v, i=i: v[i]) for i, name in enumerate(names)]  # type: ignore[misc]
    for extra in ((), *((term,) for term in _terms(names))):
        for kept in _subsets(linear):
            if (found := _solve([*kept, *extra], rows)) is not None:
                return found
    return None


def _subsets(terms: Sequence[Term]) -> Iterable[tuple[Term, ...]]:
    """Fewest terms first, at most four of them."""
    for size in range(min(len(terms), 4) + 1):
        yield from combinations(terms, size)


def _terms(names: Sequence[str]) -> Iterable[Term]:
    for i, name in enumerate(names):
        yield f"half of {name} rounded down", lambda v, i=i: v[i] // 2  # type: ignore[misc]
        yield f"digit sum of {name}", lambda v, i=i: digit_sum(v[i])  # type: ignore[misc]


def _solve(terms: Sequence[Term], rows: Sequence[tuple[Sequence[int], int]]) -> str | None:
    """Exact Gaussian elimination over the rationals, stopping at the first contradiction."""
    width = len(terms) + 1
    pivots: dict[int, list[Fraction]] = {}
    for values, number in rows:
        row = [Fraction(1), *(Fraction(term(values)) for _, term in terms), Fraction(number)]
        for column, pivot in pivots.items():
            if row[column]:
                factor = row[column]
                row = [a - factor * b for a, b in zip(row, pivot, strict=True)]
        lead = next((c for c in range(width) if row[c]), None)
        if lead is None:
            if row[width]:
                return None
            continue
        scale = row[lead]
        row = [a / scale for a in row]
        for column, pivot in pivots.items():
            if pivot[lead]:
                factor = pivot[lead]
                pivots[column] = [a - factor * b for a, b in zip(pivot, row, strict=True)]
        pivots[lead] = row
    if len(pivots) < width:
        return None  # some term never varies by itself: a smaller set of terms says the same
    weights = [pivots[c][width] for c in range(width)]
    if any(weight.denominator != 1 for weight in weights) or not all(weights[1:]):
        return None
    return _written([int(w) for w in weights], [name for name, _ in terms])


def _written(weights: Sequence[int], names: Sequence[str]) -> str:
    constant, *factors = weights
    ahead = [(f, n) for f, n in zip(factors, names, strict=True) if f > 0]
    behind = [(f, n) for f, n in zip(factors, names, strict=True) if f < 0]
    pieces: list[tuple[int, str]] = [
        (1 if f > 0 else -1, n if abs(f) == 1 else f"{abs(f)} * {n}") for f, n in (*ahead, *behind)
    ]
    if constant:
        # 21 - n reads better than -n + 21, n - 9 better than -9 + n.
        pieces.insert(
            0 if constant > 0 and not ahead else len(ahead), (1 if constant > 0 else -1, str(abs(constant)))
        )
    if not pieces:
        return "0"
    text = pieces[0][1] if pieces[0][0] > 0 else f"0 - {pieces[0][1]}"
    return text + "".join(f" {'+' if sign > 0 else '-'} {what}" for sign, what in pieces[1:])
