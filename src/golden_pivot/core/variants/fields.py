"""Blanks: the `?` in a routine, and what may stand there."""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import permutations

from ..english import ordinal
from ..faults import BadRoutine, PivotError
from ..language.expressions import Number
from ..language.facets import Facet
from ..language.parser import lines_of
from ..language.phrases import place_text
from ..language.routine import STEP, Line, Routine
from ..language.templates import phrases_of


class NothingToFill(PivotError, ValueError):
    """There is no blank, or one for which nothing can be tried; in words."""


@dataclass(frozen=True)
class Field:
    """One `?`: where it stands and what is tried for it, the simplest first."""

    number: int
    """which blank of the routine, from 1"""
    line: int
    slot: str
    start: int
    """column of the `?` from 0"""
    domain: tuple[str, ...]
    is_number: bool


def fields_of(routine: Routine, domains: Mapping[int, Sequence[str]] | None = None) -> list[Field]:
    """The blanks in the order of the text; `domains` says what to try for some, by number.

    Raises NothingToFill, and BadRoutine for a text with faults.
    """
    if routine.faults:
        raise BadRoutine(routine.faults)
    found: list[Field] = []
    size = _pack_size(routine)
    piles: list[str] = []
    for line in routine.walk():
        if line.is_ != STEP or line.kind is None:
            continue
        for slot, type_name, start in _marks(line):
            number = len(found) + 1
            given = [" ".join(words.split()) for words in (domains or {}).get(number, ())]
            tried = tuple(dict.fromkeys(filter(None, given))) or tuple(_usual(line, slot, type_name, size, piles))
            if not tried:
                raise NothingToFill(f"Blank {number}, in line {line.number}, needs a list of what to try.")
            is_number = all(re.fullmatch(r"\d+", text) for text in tried) and type_name not in ("phrase", "places")
            found.append(Field(number, line.number, slot, start, tried, is_number))
        if line.has(Facet.DEALS_PILES) and isinstance(count := line.values["piles"], Number):
            piles = [f"pile {i}" for i in range(1, count.value + 1)]
    if not found:
        raise NothingToFill("There is no blank: write “?” in place of a number, a position or an order.")
    return found


def _marks(line: Line) -> Iterator[tuple[str, str, int]]:
    """(slot, its type, column) of each `?` of a line."""
    for slot, type_name, start, end in line.spans:
        if type_name not in ("text",):
            for mark in re.finditer(r"\?", line.text[start:end]):
                yield slot, type_name, start + mark.start()


def _pack_size(routine: Routine) -> int:
    for line in routine.having(Facet.COUNTED_PACK):
        if isinstance(count := line.values["count"], Number):
            return count.value
    return 52


def _usual(line: Line, slot: str, type_name: str, size: int, piles: Sequence[str]) -> list[str]:
    assert line.kind
    if usual := line.kind.domains.get(slot):
        return list(map(str, usual))
    if type_name in ("position", "spot"):
        return list(map(str, range(1, size + 1)))
    if type_name in ("number", "range"):
        return list(map(str, range(size + 1)))
    if type_name == "phrase":
        return [" ".join(option) for option in phrases_of(line.kind.elements, slot)]
    if type_name == "places" and 2 <= len(piles) <= 5:
        return [", ".join(map(place_text, order)) for order in permutations(piles)]
    return []


def filled(text: str, fields: Sequence[Field], values: Sequence[str]) -> str:
    """The text with these words in place of the blanks; `1th` becomes `1st`."""
    rows = lines_of(text)
    for field, value in sorted(zip(fields, values, strict=True), key=lambda pair: -pair[0].start):
        row = rows[field.line - 1]
        tail = row[field.start + 1 :]
        rows[field.line - 1] = row[: field.start] + value + _ordinal_tail(value, tail)
    return "\n".join(rows) + "\n"


def _ordinal_tail(value: str, tail: str) -> str:
    if not tail.startswith("th") or not value.isdigit():
        return tail
    return ordinal(int(value))[len(value) :] + tail[2:]
