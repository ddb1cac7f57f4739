"""Sums that a performer would do in the head, worked out beforehand as small tables."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from itertools import product
from math import prod

from ..cards import RANKS, SUITS
from ..language.expressions import (
    CARD_FACTS,
    Binary,
    CardFact,
    Count,
    Expression,
    LookedUp,
    Name,
    Number,
    Piles,
    Reader,
    Size,
    SpotFact,
    evaluator,
    expression_text,
    within,
)
from ..language.facets import Facet
from ..language.routine import STEP, Line, Routine
from ..language.values import NewNumber, expressions_in
from .effort import operations

MOST_ROWS = 60
"""of a table of sums"""

Domain = Mapping[str, object]
"""what a thing may be, in words → what it then is: a number, or a card that stands for all like it"""


@dataclass(frozen=True)
class Shortcut:
    """A number that is reckoned at a line, worked out beforehand: (what was named, what it comes to)."""

    line: int
    words: str
    names: tuple[str, ...]
    """numbers, or cards by what of them counts: `value of their card`"""
    rows: tuple[tuple[tuple[str, ...], int], ...]


def shortcuts_of(routine: Routine) -> Iterator[Shortcut]:
    """For every sum of the performer's lines of which all that it needs is named in figures, or is a card's."""
    ranges = _ranges(routine)
    seen: set[str] = set()
    for line in routine.walk():
        if line.is_ != STEP or not line.kind or line.kind.is_question or line.values.get("who") == "spectator":
            continue
        for slot, type_name, _, _ in line.spans:
            for expression in expressions_in(line.values[slot]) if type_name not in ("range", "text") else ():
                words, domains = expression_text(expression), _domains(expression, ranges)
                if words in seen or not domains or not _is_work(expression):
                    continue
                if prod(map(len, domains.values())) <= MOST_ROWS:
                    seen.add(words)
                    yield Shortcut(line.number, words, tuple(domains), tuple(_worked_out(expression, domains)))


def _is_work(expression: Expression) -> bool:
    """Not a number that is simply known, and not the other one of two piles."""
    if isinstance(expression, Binary) and (expression.op, expression.left) == ("-", Number(3)):
        return False
    return bool(operations(expression)) or any(
        isinstance(part, CardFact) and part.what.startswith("letters") for part in within(expression)
    )


def _domains(expression: Expression, ranges: Mapping[str, range]) -> dict[str, Domain]:
    """What it is reckoned from; nothing where that is not known in figures, or a matter of what lies where."""
    found: dict[str, Domain] = {}
    facts: dict[str, set[str]] = {}
    for part in within(expression):
        match part:
            case Name(name) if name in ranges:
                found[name] = {str(number): number for number in ranges[name]}
            case CardFact(what, card) if " of " not in card:
                facts.setdefault(card, set()).add("suit" if "suit" in what else "value")
            case Name() | CardFact() | Size() | Count() | SpotFact() | Piles():
                return {}
    for card, about in facts.items():
        if about == {"value"}:
            found[f"value of {card}"] = {rank: f"{rank} of {SUITS[0]}" for rank in RANKS}
        elif about == {"suit"}:
            found[f"suit of {card}"] = {suit: f"{RANKS[0]} of {suit}" for suit in SUITS}
        else:
            names = [f"{rank} of {suit}" for suit in SUITS for rank in RANKS]
            found[card] = dict(zip(names, names, strict=True))
    return found


def _worked_out(expression: Expression, domains: Mapping[str, Domain]) -> Iterator[tuple[tuple[str, ...], int]]:
    index = {name.removeprefix("value of ").removeprefix("suit of "): i for i, name in enumerate(domains)}

    def look_up(part: LookedUp) -> Reader:
        if isinstance(part, CardFact):
            at, fact = index[part.card], CARD_FACTS[part.what]
            return lambda chosen: fact(chosen[at]) or 0
        assert isinstance(part, Name)
        at = index[part.name]
        return lambda chosen: int(chosen[at])

    value = evaluator(expression, look_up)
    for named in product(*domains.values()):
        result = value([domain[one] for domain, one in zip(domains.values(), named, strict=True)])
        if result >= 0:
            yield named, result


def _ranges(routine: Routine) -> dict[str, range]:
    """Numbers whose range is written in figures; the number of a pile, or of piles beside it, as dealt last."""
    found: dict[str, range] = {}
    piles = 0
    for line in routine.walk():
        if line.has(Facet.DEALS_PILES) and isinstance(line.values.get("piles"), Number):
            piles = line.values["piles"].value
        for slot, type_name, _, _ in line.spans:
            value = line.values[slot]
            if type_name == "range" and isinstance(value, NewNumber):
                if isinstance(value.low, Number) and isinstance(value.high, Number):
                    found[value.name] = range(value.low.value, value.high.value + 1)
            elif type_name in ("name", "names") and piles and (numbers := _numbers_of_piles(line, piles)):
                found |= dict.fromkeys([value] if isinstance(value, str) else value, numbers)
    return found


def _numbers_of_piles(line: Line, piles: int) -> range | None:
    if line.has(Facet.PILE_NUMBER):
        return range(1, piles + 1)
    return range(piles) if line.has(Facet.PILES_BESIDE) else None
