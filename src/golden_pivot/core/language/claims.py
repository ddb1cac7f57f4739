"""A claim inside another sentence: `If FORCE is in hand:`, `Ends with: FORCE is in hand and size of deck is even`.

Whatever an ending can claim of a path by itself can stand there. The sentences are those of the endings behind
*Ends with:*; steps/declare.py makes them known here.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from .expressions import Expression
from .facets import Facet
from .kinds import StepKind
from .phrases import NotHere, text_at
from .slot_values import values_from_json, values_json
from .slots import SLOT_TYPES, SlotType, or_blank
from .templates import Element, Reading, Span, clause_of
from .values import expressions_in
from .words import Word

PREFIX = "Ends with: "
_PREFIXED = 3
"""elements of a sentence that are the prefix"""
JOINTS = ("and", "or")
MOST_JOINED = 6


@dataclass(frozen=True)
class Claim:
    """One claim, read as the ending that makes it."""

    kind: StepKind
    values: Mapping[str, Any]
    spans: tuple[Span, ...] = field(default=(), compare=False)

    @property
    def elements(self) -> tuple[Element, ...]:
        return self.kind.elements[_PREFIXED:]

    @property
    def expressions(self) -> tuple[Expression, ...]:
        return tuple(found for value in self.values.values() for found in expressions_in(value))

    @property
    def text(self) -> str:
        return clause_of(self.elements, self.values)


@dataclass(frozen=True)
class Joined:
    """Several claims of which all hold, or of which one does."""

    how: str
    """one of JOINTS"""
    parts: tuple[Claim, ...]

    @property
    def expressions(self) -> tuple[Expression, ...]:
        return tuple(found for part in self.parts for found in part.expressions)

    @property
    def text(self) -> str:
        return f" {self.how} ".join(part.text for part in self.parts)


_kinds: dict[str, StepKind] = {}


def can_be_claimed(kind: StepKind) -> None:
    """An ending that speaks of one path by itself can stand inside of other sentences."""
    if kind.sentence.startswith(PREFIX) and not kind.facets & {Facet.OF_ALL_PATHS, Facet.JOINS_CLAIMS}:
        _kinds[kind.name] = kind


def kinds_of_claims() -> Mapping[str, StepKind]:
    """Name → kind, of all endings that can stand inside of other sentences."""
    return _kinds


def claims_in(value: object) -> tuple[Claim, ...]:
    """The claims a slot holds; none for a slot of another type."""
    return (value,) if isinstance(value, Claim) else value.parts if isinstance(value, Joined) else ()


def _read_one(words: Sequence[Word], i: int, end: int, barred: Facet | None = None) -> Claim:
    """The claim that these words say from first to last. Raises NotHere where they say none."""
    furthest, expected = 0, "a claim, such as FORCE is in hand"
    for kind in _kinds.values():
        if barred and barred in kind.facets:
            continue
        reading = Reading("", words[i:end])
        if match := reading.match(kind.elements[_PREFIXED:]):
            return Claim(kind, match.values, match.spans)
        for miss in reading.misses:
            if miss.at > furthest:
                furthest, expected = miss.at, miss.expected
    raise NotHere(i + furthest, expected)


def _end(words: Sequence[Word]) -> int:
    """Index behind the last word of a claim: it goes on to the end, or to the colon that opens a block."""
    return len(words) - (bool(words) and words[-1].text == ":")


def _reader(barred: Facet | None = None) -> Any:
    def read(words: Sequence[Word], i: int) -> tuple[Claim, int]:
        end = _end(words)
        return _read_one(words, i, end, barred), end

    return read


def _read_joined(words: Sequence[Word], i: int) -> tuple[Joined, int]:
    i += text_at(words, i) in ("both", "either")
    end = _end(words)
    joints = [k for k in range(i + 1, end) if text_at(words, k) in JOINTS]
    try:
        _read_one(words, i, end)
    except NotHere as miss:
        furthest = miss
    else:
        raise NotHere(end, "“and” or “or” and another claim")  # it is a single one
    for how in JOINTS:
        try:
            parts = _split(words, i, end, [k for k in joints if text_at(words, k) == how], MOST_JOINED)
        except NotHere as miss:
            furthest = max(furthest, miss, key=lambda one: one.at)
        else:
            return Joined(how, parts), end
    if {text_at(words, k) for k in joints} == set(JOINTS) and furthest.at in joints:
        raise NotHere(
            furthest.at, f"“{_other(text_at(words, furthest.at))}” as before, or the other claim in a line of its own"
        )
    raise furthest


def _other(joint: str) -> str:
    return JOINTS[1 - JOINTS.index(joint)]


def _split(words: Sequence[Word], i: int, end: int, joints: Sequence[int], most: int) -> tuple[Claim, ...]:
    """At least two claims from the first word to the end, parted at some of these words. Raises NotHere, the furthest."""
    furthest = NotHere(i, "a claim, such as FORCE is in hand")
    for n, k in enumerate(joints):
        try:
            first = _read_one(words, i, k)
            rest = joints[n + 1 :]
            try:
                return first, _read_one(words, k + 1, end)
            except NotHere as miss:
                furthest = max(furthest, miss, key=lambda one: one.at)
            if most > 2:
                return first, *_split(words, k + 1, end, rest, most - 1)
        except NotHere as miss:
            furthest = max(furthest, miss, key=lambda one: one.at)
    raise furthest


def _to_json(claim: Claim) -> dict[str, Any]:
    return {"step": claim.kind.name, **values_json(claim.elements, claim.values)}


def _from_json(data: Mapping[str, Any]) -> Claim:
    kind = _kinds[data["step"]]
    return Claim(kind, values_from_json(kind.elements, data))


def _joined_json(joined: Joined) -> dict[str, Any]:
    return {joined.how: [_to_json(part) for part in joined.parts]}


def _joined_from_json(data: Mapping[str, Any]) -> Joined:
    (how,) = data
    if how not in JOINTS or not 2 <= len(data[how]) <= MOST_JOINED:
        raise ValueError(f"claims are joined by one of {', '.join(JOINTS)}, 2 to {MOST_JOINED} of them")
    return Joined(how, tuple(_from_json(part) for part in data[how]))


def _text(value: Claim | Joined) -> str:
    return value.text


for _slot in (
    SlotType("asked", "a claim", _reader(Facet.HAS_CASE), _text, _to_json, _from_json, "FORCE is in hand"),
    SlotType("claim", "a claim", _reader(Facet.HAS_LIMIT), _text, _to_json, _from_json, "FORCE is in hand"),
    SlotType("anything", "a claim", _reader(), _text, _to_json, _from_json, "FORCE is in hand"),
    SlotType("claims", "several claims", _read_joined, _text, _joined_json, _joined_from_json,
             "FORCE is in hand and size of deck is even"),
):  # fmt: skip
    SLOT_TYPES[_slot.name] = or_blank(_slot)
