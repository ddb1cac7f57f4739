"""The same routine in another school: last or next, marked or plain, courts as ten or not, counted from the other end.

Each option is a change of the text that a performer of the other habit would make, and what it does is proved.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ..budget import Budget
from ..cards import ordinal
from ..expressions import Number
from ..faults import BadRoutine
from ..language.parser import lines_of, read_routine
from ..language.slots import SLOT_TYPES
from ..language.values import Position, Spot
from ..notes import badges_of
from ..routine import Line, Routine
from ..steps.declare import ENDING
from ..variants.edits import quiet, slot_text, with_slots
from ..verdicts import PROVED, prove
from .wording import wording_of


@dataclass(frozen=True)
class School:
    """One option: what changes, the text it makes, and what that does."""

    label: str
    lines: tuple[int, ...]
    text: str
    headline: str
    verdict: str | None
    """None where the text then has a fault"""
    gained: tuple[str, ...]
    """badges"""
    lost: tuple[str, ...]
    untrue: tuple[str, ...]
    """patter that is then no longer so"""


def schools_of(text: str, budget: Budget) -> tuple[School, ...]:
    """Every option that applies. Raises BadRoutine when the text has faults."""
    routine = read_routine(text)
    prove(routine, quiet(budget), explain=False)
    found = []
    for label, options in _options(routine, text):
        judged = [_judged(label, lines, other, routine, budget) for lines, other in options if other != text]
        if judged:
            # Of several ways to carry it through, one that works.
            found.append(next((one for one in judged if one.verdict == PROVED), judged[0]))
    return tuple(found)


def _judged(label: str, lines: tuple[int, ...], text: str, before: Routine, budget: Budget) -> School:
    routine = read_routine(text)
    had, has = set(badges_of(before)), set(badges_of(routine))
    try:
        verdict = prove(routine, quiet(budget))
        untrue = tuple(f"line {one.line}: “{one.said}”" for one in wording_of(text, budget))
    except BadRoutine as bad:
        return School(label, lines, text, str(bad.faults[0].message), None, (), (), ())
    return School(
        label,
        lines,
        text,
        verdict.headline,
        verdict.verdict,
        tuple(sorted(has - had)),
        tuple(sorted(had - has)),
        untrue,
    )


Option = tuple[tuple[int, ...], str]


def _options(routine: Routine, text: str) -> Iterator[tuple[str, list[Option]]]:
    yield "next instead of last", _other_card(routine, text, "last", "next")
    yield "last instead of next", _other_card(routine, text, "next", "last")
    yield "marked: the placed card has another back", _backs(routine, text, True)
    yield "plain: no card with another back", _backs(routine, text, False)
    yield "court cards as ten", _courts(routine, text, True)
    yield "court cards as eleven to thirteen", _courts(routine, text, False)
    yield "positions counted from the face", _ends(routine, text)


def _rewritten(text: str, rows: dict[int, str]) -> str:
    return "\n".join(rows.get(number, row) for number, row in enumerate(lines_of(text), start=1)) + "\n"


def _steps(routine: Routine) -> list[Line]:
    return [line for line in routine.walk() if line.kind]


def _other_card(routine: Routine, text: str, now: str, other: str) -> list[Option]:
    """Endings on the other card of the count: with every placed card one higher or lower, or as they are."""
    ends: dict[int, str] = {}
    for line in _steps(routine):
        for slot, type_name, _, _ in line.spans if line.kind and line.kind.phase == ENDING else ():
            if type_name == "spot" and line.values[slot] == Spot(now):
                ends[line.number] = with_slots(line, [(slot, SLOT_TYPES["spot"].write(Spot(other)))])
    if not ends:
        return []
    found: list[Option] = []
    for shift in (1, -1):
        moved = dict(ends)
        for line in _steps(routine):
            position = line.values.get("position")
            if (
                line.kind
                and line.kind.name == "place_card"
                and isinstance(position, Position)
                and isinstance(position.at, Number)
            ) and (at := position.at.value + shift) >= 1:
                where = SLOT_TYPES["position"].write(Position(Number(at), position.end))
                moved[line.number] = with_slots(line, [("position", where)])
        if len(moved) > len(ends):
            found.append((tuple(sorted(moved)), _rewritten(text, moved)))
    return [*found, (tuple(ends), _rewritten(text, ends))]


def _backs(routine: Routine, text: str, marked: bool) -> list[Option]:
    odd = [line for line in _steps(routine) if line.values.get("odd")]
    placed = [line for line in _steps(routine) if line.kind and line.kind.name == "place_card"]
    if marked and placed and not odd:
        line = placed[0]
        # The words stand before a mate that is named.
        row, comma, mate = line.text.partition(", the mate of")
        return [((line.number,), _rewritten(text, {line.number: f"{row}, with an odd back{comma}{mate}"}))]
    if not marked and odd:
        rows = {line.number: line.text.replace(", with an odd back", "") for line in odd}
        return [(tuple(rows), _rewritten(text, rows))]
    return []


COURTS = ", court cards as ten"


def _courts(routine: Routine, text: str, as_ten: bool) -> list[Option]:
    counts = [line for line in _steps(routine) if line.kind and line.kind.name == "count_down"]
    rows = {
        line.number: line.text.replace("a card’s value", f"a card’s value{COURTS}")
        if as_ten
        else line.text.replace(COURTS, "")
        for line in counts
        if (COURTS in line.text) != as_ten
    }
    return [(tuple(rows), _rewritten(text, rows))] if rows else []


def _ends(routine: Routine, text: str) -> list[Option]:
    """Placed cards told from the bottom of the pack: the same places, counted from the face."""
    size = next(
        (
            line.values["count"].value
            for line in _steps(routine)
            if line.kind and line.kind.name == "pack" and isinstance(line.values["count"], Number)
        ),
        0,
    )
    rows = {}
    for line in _steps(routine):
        position = line.values.get("position")
        if (
            line.kind
            and line.kind.name == "place_card"
            and isinstance(position, Position)
            and isinstance(position.at, Number)
        ):
            at = size - position.at.value + 1
            if position.end == "top" and size and slot_text(line, "position") and at >= 1:
                rows[line.number] = with_slots(line, [("position", f"{ordinal(at)} from the bottom")])
    return [(tuple(rows), _rewritten(text, rows))] if rows else []
