"""A number as a formula in the choices, found by elimination and verified on every row it was given."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import combinations, islice

from ..language.arithmetic import digit_sum
from ..language.expressions import Binary, Expression, Figures, Half, Name, Number, Quotient

MOST_ROWS = 20_000
_DIVISORS = (2, 3, 4, 5)
_SAMPLE = 24
"""rows a candidate is solved on before it is checked on all of them"""

_PRIME, _LARGEST = 2**31 - 1, 10**6

MOST_NAMES = 4
"""of which a formula is made when not all are needed"""


@dataclass(frozen=True)
class Term:
    """What a formula adds multiples of."""

    text: str
    """for people, such as `⌊n/2⌋`"""
    expression: Expression
    column: Sequence[int]
    """its value on every row"""


@dataclass(frozen=True)
class Formula:
    """A constant and multiples of terms."""

    constant: int
    factors: tuple[int, ...]
    terms: tuple[Term, ...]

    @property
    def text(self) -> str:
        """As people write it: `⌊n/2⌋ + 1`, `a + 3b + 9c + 1`, `21 − n`."""
        return _written((self.constant, *self.factors), [term.text for term in self.terms])

    @property
    def expression(self) -> Expression:
        """The same in the language of the sheet."""
        found: Expression = Number(self.constant)
        for factor, term in zip(self.factors, self.terms, strict=True):
            many = Binary("*", Number(abs(factor)), term.expression) if abs(factor) > 1 else term.expression
            found = Binary("+" if factor > 0 else "-", found, many)
        return found


def fit(names: Sequence[str], rows: Sequence[tuple[Sequence[int | None], int]]) -> str | None:
    """The formula of `fitted`, as people write it."""
    found = fitted(names, rows)
    return found.text if found else None


def fitted(names: Sequence[str], rows: Sequence[tuple[Sequence[int | None], int]]) -> Formula | None:
    """A formula in `names` that gives the right number on every row, or None.

    Each row is (value of each name, number); a name that is not settled on every row (None) is left out. Tried in
    this order: a sum of multiples of at most four names, or of all of them; the same with one more term, a name halved
    (or thirded …) to a whole number, or its digit sum. No row is left unchecked: a formula returned holds on all of them.
    """
    if not rows or len(rows) > MOST_ROWS:
        return None
    numbers = [number for _, number in rows]
    columns = ((name, [values[i] for values, _ in rows]) for i, name in enumerate(names))
    settled = ((name, [v for v in column if v is not None]) for name, column in columns if None not in column)
    # What never varies says no more than the constant does.
    plain = [Term(name, Name(name), column) for name, column in settled if len(set(column)) > 1]
    return next((found for terms in _sums(plain) if (found := _solved(terms, numbers))), None)


def _sums(names: Sequence[Term]) -> Iterator[tuple[Term, ...]]:
    """What a formula may add multiples of, fewest names first."""
    kept = [some for size in range(min(len(names), MOST_NAMES) + 1) for some in combinations(names, size)]
    if len(names) > MOST_NAMES:
        kept.append(tuple(names))
    yield from kept
    terms = list(_terms(names))
    yield from ((*some, term) for some in kept for term in terms)


def _terms(plain: Sequence[Term]) -> Iterator[Term]:
    for name in plain:
        for q in _DIVISORS:
            for up, brackets in ((False, "⌊⌋"), (True, "⌈⌉")):
                part = _divided(name.expression, q, up)
                yield Term(
                    f"/{q}".join((brackets[0] + name.text, brackets[1])),
                    part,
                    [(v + up * (q - 1)) // q for v in name.column],
                )
        yield Term(
            f"digit sum of {name.text}", Figures("digit sum", name.expression), list(map(digit_sum, name.column))
        )


def _divided(of: Expression, by: int, up: bool) -> Expression:
    if by == 2:
        return Half(of, "up" if up else "down")
    return Quotient(Binary("+", of, Number(by - 1)) if up else of, Number(by))


def _solved(terms: Sequence[Term], numbers: Sequence[int]) -> Formula | None:
    """The formula in exactly these terms, solved on a sample and checked on every row."""
    step = max(1, len(numbers) // _SAMPLE)
    weights = _weights(terms, numbers, range(0, len(numbers), step))
    if weights == "undetermined":
        weights = _weights(terms, numbers, range(len(numbers)))
    if isinstance(weights, str):
        return None
    constant, *factors = weights
    columns = [term.column for term in terms]
    for i, number in enumerate(numbers):
        if constant + sum(f * column[i] for f, column in zip(factors, columns, strict=True)) != number:
            return None
    return Formula(constant, tuple(factors), tuple(terms))


def _weights(terms: Sequence[Term], numbers: Sequence[int], sample: range) -> list[int] | str:
    """Gaussian elimination modulo a prime, stopping at the first contradiction: weights to be checked exactly.

    `none` when no small whole weights solve it, `undetermined` when these rows leave a weight open.
    """
    width = len(terms) + 1
    pivots: dict[int, list[int]] = {}
    for at in sample:
        row = [1, *(term.column[at] % _PRIME for term in terms), numbers[at] % _PRIME]
        for column, pivot in pivots.items():
            if factor := row[column]:
                row = [(a - factor * b) % _PRIME for a, b in zip(row, pivot, strict=True)]
        lead = next((c for c in range(width) if row[c]), None)
        if lead is None:
            if row[width]:
                return "none"
            continue
        scale = pow(row[lead], -1, _PRIME)
        row = [a * scale % _PRIME for a in row]
        for column, pivot in pivots.items():
            if factor := pivot[lead]:
                pivots[column] = [(a - factor * b) % _PRIME for a, b in zip(pivot, row, strict=True)]
        pivots[lead] = row
    if len(pivots) < width:
        return "undetermined"
    weights = [(pivots[c][width] + _LARGEST) % _PRIME - _LARGEST for c in range(width)]
    if any(weight > _LARGEST for weight in weights) or not all(weights[1:]):
        return "none"
    return weights


def _written(weights: Sequence[int], names: Sequence[str]) -> str:
    constant, *factors = weights
    pieces = [(f, _multiple(abs(f), name)) for f, name in zip(factors, names, strict=True)]
    pieces.sort(key=lambda piece: piece[0] < 0)
    # 21 − n reads better than −n + 21, n − 9 better than −9 + n.
    if constant or not pieces:
        first = not pieces or pieces[0][0] < 0
        pieces.insert(0 if first else sum(f > 0 for f, _ in pieces), (constant, str(abs(constant))))
    text = ("" if pieces[0][0] >= 0 else "−") + pieces[0][1]
    return text + "".join(f" {'+' if sign > 0 else '−'} {what}" for sign, what in islice(pieces, 1, None))


def _multiple(factor: int, name: str) -> str:
    if factor == 1:
        return name
    return f"{factor}{name}" if len(name) == 1 else f"{factor} × {name}"
