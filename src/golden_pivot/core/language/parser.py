"""Text → Routine. Each line is read alone and cached by its text; indentation builds the blocks."""

from __future__ import annotations

import difflib
import re
from collections.abc import Iterator, Sequence
from dataclasses import replace
from functools import lru_cache
from itertools import takewhile

from ..faults import Fault
from ..steps import REGISTRY, StepKind
from .expressions import MAX_DEPTH, MAX_NUMBER, Expression, Number, depth, within
from .routine import (
    EMPTY,
    MAX_COLUMNS,
    MAX_LINES,
    MAX_NESTING,
    PATTER,
    REMARK,
    STEP,
    UNREAD,
    Line,
    Routine,
)
from .templates import Match, Reading, Who
from .values import expressions_in
from .words import RESERVED, Word, words_of

_MOST_EXPECTED = 4
_QUOTES = '"“”„«»'


READ_AT_ONCE = 32
"""texts that are remembered with what was built of them: a sheet asks many times for the same one"""


@lru_cache(READ_AT_ONCE)
def read_routine(text: str) -> Routine:
    """The routine this text says. Never raises for what is written: faults are found in the result.

    The same text gives the very same routine again. Limits: 500 lines of 500 characters, blocks 8 deep, expressions 20 deep, numbers to 1,000,000.
    """
    rows = lines_of(text)
    if len(rows) > MAX_LINES:
        fault = Fault(
            MAX_LINES + 1,
            1,
            2,
            f"The routine has {len(rows)} lines.",
            f"at most {MAX_LINES} lines",
            "Split it into two routines.",
        )
        return Routine((), (fault,))
    lines = [_numbered(_read_line(row), number) for number, row in enumerate(rows, start=1)]
    nested = _Nesting(lines).result()
    faults = tuple(fault for line in _flat(nested) for fault in line.faults)
    return Routine(nested, faults)


def lines_of(text: str) -> list[str]:
    """The lines of a text, whichever line breaks it has. A break at the very end begins no new line."""
    rows = text.replace("\r\n", "\n").replace("\r", "\n").split("\n")
    return rows[:-1] if rows[-1] == "" else rows


def _flat(lines: Sequence[Line]) -> list[Line]:
    return [found for line in lines for found in (line, *_flat(line.body))]


def _numbered(line: Line, number: int) -> Line:
    return replace(line, number=number, faults=tuple(replace(fault, line=number) for fault in line.faults))


@lru_cache(maxsize=4096)
def _read_line(text: str) -> Line:
    """One line by itself, as line 0."""
    bare = text.strip()
    if len(text) > MAX_COLUMNS:
        return _unread(
            text,
            MAX_COLUMNS,
            len(text),
            f"This line has {len(text)} characters.",
            f"at most {MAX_COLUMNS} characters",
            "Split it into two lines.",
        )
    if not bare:
        return Line(0, text, EMPTY)
    if bare.startswith("#"):
        return Line(0, text, REMARK, values={"text": bare[1:].strip()})
    if bare[0] in _QUOTES:
        return Line(0, text, PATTER, values={"text": bare[1:-1] if bare[1:] and bare[-1] in _QUOTES else bare[1:]})
    return _read_sentence(text)


def readings_of(text: str) -> Iterator[tuple[StepKind, Reading, Match | None]]:
    """The line tried by one kind of step after the other; a sentence of the language matches exactly one."""
    words = words_of(text)
    for kind in REGISTRY.values():
        reading = Reading(text, words)
        yield kind, reading, reading.match(kind.elements)


@lru_cache(maxsize=512)
def _tried(text: str) -> tuple[Line | None, tuple[tuple[StepKind, Reading, Match | None], ...]]:
    """The line as the first kind of step that says it; where none does, what all of them made of it."""
    tried = []
    for kind, reading, match in readings_of(text):
        if match:
            line = Line(0, text, STEP, kind=kind, values=match.values, spans=match.spans)
            return replace(line, faults=_limits(line)), ()
        tried.append((kind, reading, match))
    return None, tuple(tried)


def sentence(text: str) -> Line | None:
    """A line that some kind of step says; None where none does, without looking for what is the matter."""
    return _tried(text)[0]


def _read_sentence(text: str) -> Line:
    line, tried = _tried(text)
    return line or _not_understood(text, tried)


def _limits(line: Line) -> tuple[Fault, ...]:
    def too_much(expression: Expression) -> tuple[str, str] | None:
        if depth(expression) > MAX_DEPTH:
            return (
                "This number is worked out in too many steps.",
                f"at most {MAX_DEPTH} operations inside one another",
            )
        if any(isinstance(node, Number) and node.value > MAX_NUMBER for node in within(expression)):
            return "This number is too large.", f"at most {MAX_NUMBER:,}"
        return None

    return tuple(
        Fault(0, start + 1, end + 1, *problem, "Write a smaller number.")
        for name, _, start, end in line.spans
        for expression in expressions_in(line.values[name])
        if (problem := too_much(expression))
    )


_NAMED = ("a place", "a card:")
"""how what is expected begins where it can have any name"""
_UNCLEAR = (
    (
        re.compile(r"\bcounts? off\b|\bcounts? out\b|\bcounting off\b", re.IGNORECASE),
        "“Count off” does not say what happens to the order.",
        "the handling itself",
        "“Deal 5 cards from deck to table” reverses them, “Count 5 cards from deck to table, each under the last” and "
        "“Cut off 5 cards of deck to table” keep their order.",
    ),
    (
        re.compile(r"\bbetween\s+[\w?]+\s+and\s+[\w?]+", re.IGNORECASE),
        "“Between” does not say whether both ends are allowed.",
        "“n from 10 to 20”, where 10 and 20 may be chosen as well",
        "Write “from … to …” with the first and the last number that may be chosen.",
    ),
    (
        re.compile(r"\bflips?\b|\breverses? the (pack|packet|deck|cards)\b", re.IGNORECASE),
        "This does not say whether the cards turn over or change their order.",
        "the handling itself",
        "“Turn packet over” does both, “Turn the top card of packet over” turns one where it lies, dealing changes "
        "the order alone.",
    ),
)
"""everyday wording that hides the handling: what is unclear, what is expected, what can be written instead"""


def _unread(text: str, start: int, end: int, message: str, expected: str, remedy: str) -> Line:
    return Line(0, text, UNREAD, faults=(Fault(0, start + 1, end + 1, message, expected, remedy),))


def _is_begun(last: Sequence[Word], readings: Sequence[tuple[StepKind, Reading, Match | None]], at: int) -> bool:
    """Whether the last word, or nothing, may become one with which a sentence goes on there."""
    if not last:
        return True
    expected = {miss.expected.strip("“”") for _, reading, _ in readings for miss in reading.misses if miss.at == at}
    return any(word.lower().startswith(last[0].lower) for word in expected)


def _not_understood(text: str, readings: Sequence[tuple[StepKind, Reading, Match | None]]) -> Line:
    """Points at the word where the best template stopped, says what it expected there, and offers a sentence."""
    words = words_of(text)
    for pattern, unclear, instead, remedy in _UNCLEAR:
        if found := pattern.search(text):
            return _unread(text, found.start(), found.end(), unclear, instead, remedy)
    furthest = max(miss.at for _, reading, _ in readings for miss in reading.misses)
    # Only a template that got past its subject has understood anything of the line.
    subject = int(words[0].lower == "spectator") if words else 0
    subject += subject and len(words) > 1 and words[1].kind == "number"
    near = [kind for kind, reading, _ in readings if reading.misses and reading.misses[0].at == furthest]
    if furthest <= subject:
        start, end = (words[furthest].start, words[furthest].end) if furthest < len(words) else (0, len(text))
        guess = _closest(text, list(REGISTRY.values()))
        if furthest >= len(words) - 1 and _is_begun(words[furthest:], readings, furthest):
            what = "what the spectator does" if subject else "a sentence that goes on like this"
            example = f"For example: {guess.example}" if guess else "Type on to see the sentences there are."
            return _unread(text, start, end, "The sentence is not finished.", what, example)
        return _unread(
            text,
            start,
            end,
            f"No sentence begins with “{text[:end].strip()}”.",
            "a sentence such as those in the list of steps",
            f"Perhaps: {guess.example}" if guess else "Type a letter to see the sentences there are.",
        )
    expected = dict.fromkeys(
        miss.expected for _, reading, _ in readings for miss in reading.misses if miss.at == furthest
    )
    if len(expected) > 1:
        expected.pop("the end of the sentence", None)
    told = " or ".join(list(expected)[:_MOST_EXPECTED])
    guess = _closest(text, near)
    if furthest < len(words):
        word = words[furthest]
        start, end = word.start, word.end
        if word.lower in RESERVED and any(" name" in one or one.startswith(_NAMED) for one in expected):
            kept = f"“{word.text}” is a word of the sentences and cannot be a name."
            other = f"{word.text}X" if word.text.isupper() else f"{word.text.replace('-', '')}1"
            return _unread(text, start, end, kept, told, f"Call it something else, such as {other}.")
        message = f"“{word.text}” does not fit here."
    else:
        start, end = words[-1].start, words[-1].end
        message = "The sentence is not finished."
    return _unread(text, start, end, message, told, f"For example: {guess.example}" if guess else "")


def _closest(text: str, kinds: Sequence[StepKind]) -> StepKind | None:
    """The kind whose example is most like this line."""

    def likeness(kind: StepKind) -> float:
        return difflib.SequenceMatcher(None, text.strip().lower(), kind.example.lower()).ratio()

    best = max(kinds, key=likeness, default=None)
    return best if best and (len(kinds) < len(REGISTRY) or likeness(best) > 0.5) else None


def has_subject(kind: StepKind) -> bool:
    """Whether the sentence can be the spectator's as well as the performer's."""
    return any(isinstance(element, Who) for element in kind.elements)


class _Nesting:
    """Puts lines into the blocks their indentation says; patter, remarks and empty lines never open or close one."""

    def __init__(self, lines: Sequence[Line]) -> None:
        self.lines, self.i = lines, 0

    def result(self) -> tuple[Line, ...]:
        return self._block(0, 0)

    def _block(self, indent: int, level: int) -> tuple[Line, ...]:
        found: list[Line] = []
        while self.i < len(self.lines):
            line = self.lines[self.i]
            if line.is_ in (PATTER, REMARK, EMPTY):
                found.append(replace(line, level=level))
                self.i += 1
                continue
            margin = _margin(line.text)
            if margin < indent:
                break
            if margin > indent:
                line = _with_fault(
                    line,
                    "This line is indented, but the line above does not open a block.",
                    "the same margin as the line above",
                    "Only lines that end with a colon have lines indented under them.",
                )
            self.i += 1
            found.append(self._with_body(line, margin, level))
        return tuple(found)

    def _with_body(self, line: Line, margin: int, level: int) -> Line:
        line = replace(line, level=level)
        if not (line.kind and line.kind.opens_block):
            return line
        following = next((row for row in self.lines[self.i :] if row.is_ in (STEP, UNREAD)), None)
        inner = _margin(following.text) if following else 0
        if inner <= margin:
            # In one case something else is said, and nothing else is done.
            if line.kind.is_case and (said := self._said(level + 1)):
                return replace(line, body=said)
            return _with_fault(
                line,
                "Nothing stands in this block.",
                "at least one line indented under it",
                "Indent the lines that belong to it by two spaces.",
            )
        if level + 1 > MAX_NESTING:
            line = _with_fault(
                line,
                "Blocks are nested too deeply here.",
                f"at most {MAX_NESTING} blocks deep",
                "Write some of the lines out one after another.",
            )
        return replace(line, body=self._block(inner, level + 1))

    def _said(self, level: int) -> tuple[Line, ...]:
        """The patter and remarks that come next, if something is said."""
        found = list(takewhile(lambda row: row.is_ in (PATTER, REMARK), self.lines[self.i :]))
        if not any(row.is_ == PATTER for row in found):
            return ()
        self.i += len(found)
        return tuple(replace(row, level=level) for row in found)


def _margin(text: str) -> int:
    return len(text.expandtabs(2)) - len(text.expandtabs(2).lstrip())


def _with_fault(line: Line, message: str, expected: str, remedy: str) -> Line:
    start = len(line.text) - len(line.text.lstrip())
    fault = Fault(line.number, start + 1, len(line.text.rstrip()) + 1, message, expected, remedy)
    return replace(line, faults=(*line.faults, fault))
