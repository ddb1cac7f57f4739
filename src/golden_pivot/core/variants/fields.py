"""Blanks: the `?` in a routine, and what may stand there."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import permutations

from ..building import PROOF, compile_what_can_be
from ..cards import RANKS, SUITS
from ..english import ordinal
from ..faults import BadRoutine, PivotError
from ..language.expressions import Number
from ..language.facets import Facet
from ..language.parser import lines_of
from ..language.phrases import COLOURS_AND_SUITS, OPEN, place_text
from ..language.routine import STEP, Line, Routine
from ..language.slots import OF_CARDS
from ..language.templates import phrases_of

Filling = tuple[str, ...]
"""what stands in each blank, in the order of the text"""


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
    is_ordinal: bool = False
    """a number written here is a position by itself: 3 stands there as 3rd"""


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
        for slot, type_name, start in line.blanks():
            number = len(found) + 1
            given = [" ".join(words.split()) for words in (domains or {}).get(number, ())]
            tried = tuple(dict.fromkeys(filter(None, given))) or tuple(
                _usual(routine, line, slot, type_name, start, size, piles)
            )
            if not tried:
                raise NothingToFill(f"Blank {number}, in line {line.number}, needs a list of what to try.")
            is_number = all(re.fullmatch(r"\d+", text) for text in tried) and type_name not in ("phrase", "places")
            alone = type_name == "position" and any(
                span == (slot, type_name, start, start + 1) for span in line.spans
            )
            found.append(Field(number, line.number, slot, start, tried, is_number, alone))
        if line.has(Facet.DEALS_PILES) and isinstance(count := line.values["piles"], Number):
            piles = [f"pile {i}" for i in range(1, count.value + 1)]
    if not found:
        raise NothingToFill("There is no blank: write “?” in place of a number, a position or an order.")
    return found


_FIGURES = re.compile(r"(?<![\w.])\d+")


def _figures(line: Line) -> Iterator[re.Match[str]]:
    for _, type_name, start, end in line.spans:
        if type_name != "text":
            yield from _FIGURES.finditer(line.text, start, end)


@dataclass(frozen=True)
class NumberInText:
    """A number written in a slot, where one may stand for others."""

    line: int
    start: int
    """column from 0"""
    value: str
    label: str
    """the line with it in brackets"""


def numbers_of(routine: Routine) -> tuple[NumberInText, ...]:
    """In the order of the text."""
    return tuple(
        NumberInText(line.number, at.start(), at[0], f"line {line.number}: {_marked(line.text, at)}")
        for line in routine.walk()
        for at in _figures(line)
    )


def _marked(row: str, at: re.Match[str]) -> str:
    return f"{row[: at.start()].lstrip()}[{at[0]}]{row[at.end() :]}"


def blanks_of(routine: Routine) -> tuple[int, ...]:
    """The line of each `?`, in order."""
    return tuple(line.number for line in routine.walk() for _ in line.blanks())


def with_blanks(text: str, places: Iterable[tuple[int, int]]) -> str:
    """The text with a `?` for the number at each of these places, (line, column). Raises NothingToFill where there is none."""
    rows = lines_of(text)
    for line, start in sorted(places, reverse=True):
        row = rows[line - 1] if 1 <= line <= len(rows) else ""
        at = _FIGURES.match(row, start)
        if not at:
            raise NothingToFill(f"Line {line} has no number at column {start + 1} to be changed.")
        tail = re.sub(r"^(st|nd|rd|th)\b", "th", row[at.end() :])
        rows[line - 1] = f"{row[: at.start()]}?{tail}"
    return "\n".join(rows) + "\n"


def domain_of(words: str) -> list[str]:
    """What is to be tried, as one writes it: a run of numbers, or words with commas or semicolons between them.

    >>> domain_of("3 to 6"), domain_of("7..9"), domain_of("on, under"), domain_of(" ")
    (['3', '4', '5', '6'], ['7', '8', '9'], ['on', 'under'], [])

    Raises NothingToFill for a run that is empty or too long: what is not tried is never left out unsaid.
    """
    if run := _RUN.fullmatch(words):
        low, high = int(run[1]), int(run[2])
        if high < low:
            raise NothingToFill(f"“{words.strip()}” has no number in it: write {high} to {low}.")
        if high - low >= MOST_TRIED:
            raise NothingToFill(f"“{words.strip()}” is too much to try: at most {MOST_TRIED:,} numbers.")
        return list(map(str, range(low, high + 1)))
    return [word.strip() for word in re.split("[,;\n]", words) if word.strip()]


_RUN = re.compile(r"\s*([0-9]{1,15})\s*(?:to|-|–|\.\.)\s*([0-9]{1,15})\s*")
MOST_TRIED = 5000
"""numbers of a run"""


def _pack_size(routine: Routine) -> int:
    """Cards in play at the beginning; those of a whole pack while the pack itself is blank."""
    program, _ = compile_what_can_be(routine, PROOF)
    return program.cards_in_play or 52


def _usual(
    routine: Routine, line: Line, slot: str, type_name: str, start: int, size: int, piles: Sequence[str]
) -> list[str]:
    """`start`: the column of the blank."""
    assert line.kind
    if line.text[:start].rstrip().endswith(("“", '"')):
        return []  # a word: only its designer knows which
    if usual := line.kind.domains.get(slot):
        return list(map(str, usual))
    if type_name in ("position", "spot"):
        return list(map(str, range(1, size + 1)))
    if type_name in ("number", "range"):
        return list(map(str, range(size + 1)))
    if type_name == "phrase":
        options = [" ".join(option) for option in phrases_of(line.kind.elements, slot)]
        article = next((one for one in ("a ", "an ") if line.text[:start].endswith(f" {one}")), "")
        return [option.removeprefix(article) for option in options if option.startswith(article)]
    if type_name == "places" and 2 <= len(piles) <= 5:
        return [", ".join(map(place_text, order)) for order in permutations(piles)]
    if type_name in OF_CARDS:
        if line.text.startswith("? of", start):
            return list(RANKS)
        if line.text[:start].endswith(" of "):
            return list(SUITS)
    if type_name in ("place", *OF_CARDS):  # those that the routine speaks of
        return [
            name for name in _named(routine, ("place",) if type_name == "place" else OF_CARDS) if OPEN not in name
        ]
    return list(_PARTS.get(type_name, ()))


_PARTS: dict[str, Sequence[str]] = {
    "rank": RANKS, "suits": SUITS, "sorts": COLOURS_AND_SUITS, "blocks": ("red cards", "black cards", *SUITS),
}  # fmt: skip


def _named(routine: Routine, types: Sequence[str]) -> list[str]:
    """What stands in the slots of these types, each once, in the order of the text."""
    spans = [(line, start, end) for line in routine.walk() for _, one, start, end in line.spans if one in types]
    return list(dict.fromkeys(line.text[start:end] for line, start, end in spans))


def filled(text: str, fields: Sequence[Field], values: Sequence[str]) -> str:
    """The text with these words in place of the blanks; `1th` becomes `1st`."""
    rows = lines_of(text)
    for field, value in sorted(zip(fields, values, strict=True), key=lambda pair: -pair[0].start):
        row = rows[field.line - 1]
        tail = row[field.start + 1 :]
        if field.is_ordinal and value.isdigit() and not tail.startswith("th"):
            value = ordinal(int(value))
        rows[field.line - 1] = row[: field.start] + value + _ordinal_tail(value, tail)
    return "\n".join(rows) + "\n"


def _ordinal_tail(value: str, tail: str) -> str:
    if not tail.startswith("th") or not value.isdigit():
        return tail
    return ordinal(int(value))[len(value) :] + tail[2:]
