"""A routine as it was read: lines of text, each with the step it says, nested in blocks."""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from typing import Any

from ..faults import Fault
from .facets import Facet
from .kinds import StepKind
from .templates import Span

MAX_LINES, MAX_COLUMNS, MAX_NESTING = 500, 500, 8

STEP, PATTER, REMARK, EMPTY, UNREAD = "step", "patter", "remark", "empty", "unread"


@dataclass(frozen=True)
class Line:
    number: int
    """from 1"""
    text: str
    """as it was typed, without the line break"""
    is_: str
    """STEP, PATTER, REMARK, EMPTY or UNREAD"""
    level: int = 0
    """how many blocks it stands in"""
    kind: StepKind | None = None
    values: Mapping[str, Any] = field(default_factory=dict)
    spans: tuple[Span, ...] = ()
    """columns from 0 into `text`"""
    faults: tuple[Fault, ...] = ()
    body: tuple[Line, ...] = ()

    def has(self, *facets: Facet) -> bool:
        """It is a step with one of these facets."""
        return self.kind is not None and not self.kind.facets.isdisjoint(facets)

    def blanks(self) -> Iterator[tuple[str, str, int]]:
        """(slot, its type, column) of each `?` that waits for a value. A question mark in a word is none."""
        for slot, type_name, start, end in self.spans:
            for found in _BLANK_OR_WORD.finditer(self.text, start, end) if type_name != "text" else ():
                if (inner := found[0].strip('“”" ')) == "?":
                    yield slot, type_name, found.start() + found[0].index(inner)


_BLANK_OR_WORD = re.compile(r"\?|[“\"][^“”\"]*[”\"]")


@dataclass(frozen=True)
class Aside:
    """Something that is said at a line, as endings that make it so."""

    line: int
    later: bool
    """it is said of the end of every path that comes by the line, not of what lies there now"""
    claims: tuple[Line, ...]


@dataclass(frozen=True)
class Routine:
    lines: tuple[Line, ...]
    """the outermost lines; blocks hold theirs in `body`"""
    faults: tuple[Fault, ...] = ()
    asides: tuple[Aside, ...] = ()
    """where there are any, these are judged instead of the endings"""
    programs: dict[Any, Any] = field(default_factory=dict, init=False, compare=False, repr=False)
    """those built of it so far, by what for; see building/builder.py"""

    def walk(self) -> Iterator[Line]:
        """Every line in the order of the page."""
        return _walk(self.lines)

    def below(self) -> dict[int, tuple[Line, ...]]:
        """Line of a step → the patter and remarks directly below it."""
        found: dict[int, tuple[Line, ...]] = {}
        at = None
        for line in self.walk():
            if line.is_ in (PATTER, REMARK):
                if at is not None:
                    found[at] += (line,)
            else:
                at = line.number
                found[at] = ()
        return found

    def having(self, *facets: Facet) -> list[Line]:
        """Every line with one of these facets."""
        return [line for line in self.walk() if line.has(*facets)]

    def said(self, facet: Facet) -> list[str]:
        """The words in the first slot of a facet, for every line that has it."""
        return [str(line.values[facet.slots[0]]) for line in self.having(facet)]

    @property
    def title(self) -> str | None:
        return next(iter(self.said(Facet.TITLE)), None)

    @property
    def note(self) -> str | None:
        """What it is about, in a sentence."""
        return next(iter(self.said(Facet.NOTE)), None)


def _walk(lines: tuple[Line, ...]) -> Iterator[Line]:
    for line in lines:
        yield line
        yield from _walk(line.body)
