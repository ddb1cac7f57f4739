"""Where a routine needs something from the performer’s head, and what is right there: read off a path that is played."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ..language.expressions import (
    CardFact,
    Expression,
    LookedUp,
    Name,
    Number,
    Reader,
    evaluator,
    expression_text,
    within,
)
from ..language.facets import Facet
from ..language.kinds import ENDING
from ..language.routine import STEP, Line, Routine
from ..language.templates import SPECTATOR
from ..language.values import expressions_in
from ..search.replay import Frame, Play
from ..show.effort import operations

IS = "is"
NO_CASE = "none of these: go on"


@dataclass(frozen=True)
class Needed:
    """Something to be known at a line of a path, from what is known by then."""

    line: int
    kind: str
    """sum, case, or pointing: the last is known only when the line is done"""
    known: tuple[str, ...]
    """what it follows from: `n is 34`"""
    asks: str
    answer: str
    options: tuple[str, ...]
    """to choose from; none where a number is to be said"""
    rule: str
    """why it is so, in the words of the routine"""


def needed_on(routine: Routine, played: Play) -> Iterator[Needed]:
    """In the order in which they come up on this path."""
    lines = {line.number: line for line in routine.walk() if line.is_ == STEP and line.kind}
    chains = list(_chains(routine.lines, 0))
    done: set[tuple[object, ...]] = set()
    before = played.frames[0]
    for at, frame in enumerate(played.frames[1:], start=1):
        # Which case it is must be known before what is done in it.
        for chain in chains:
            here = chain.first, frame.round[: chain.loops]
            if frame.line >= chain.first and len(frame.round) >= chain.loops and here not in done:
                done.add(here)
                gone = {one.line for one in played.frames[at:] if one.round[: chain.loops] == here[1]}
                yield from _case(chain, played, before, gone, len(chains) > 1)
        line = lines.get(frame.line)
        if line and (frame.line, frame.round) not in done:
            done.add((frame.line, frame.round))
            yield from _sums(line, played, before)
            if line.has(Facet.NARROWS):
                yield from _pointing(line, played, before, _done(played, at))
        before = frame


# Sums


def _sums(line: Line, played: Play, before: Frame) -> Iterator[Needed]:
    assert line.kind
    if line.kind.actor(line.values) == SPECTATOR or line.kind.is_case or line.kind.is_question:
        return
    for slot, type_name, _, _ in line.spans:
        for expression in expressions_in(line.values[slot]) if type_name not in ("range", "text") else ():
            if operations(expression) and (known := _numbers(expression, played, before)) is not None:
                value = _value(expression, known)
                if value is not None and known:
                    clauses = tuple(f"{name} is {number}" for name, number in known.items())
                    yield Needed(
                        line.number,
                        "sum",
                        clauses,
                        expression_text(expression),
                        str(value),
                        (),
                        f"{expression_text(expression)}, line {line.number}",
                    )


def _numbers(expression: Expression, played: Play, before: Frame) -> dict[str, int] | None:
    """Every number it is reckoned from, as it was; None where something else is needed."""
    cells = {cell.name: at for at, cell in enumerate(played.program.cells) if not cell.is_place and not cell.is_card}
    found: dict[str, int] = {}
    for part in within(expression):
        if isinstance(part, Name):
            number = before.state[cells[part.name]] if part.name in cells else None
            if not isinstance(number, int):
                return None
            found[part.name] = number
        elif isinstance(part, LookedUp):
            return None
    return found


def _value(expression: Expression, known: dict[str, int]) -> int | None:
    def look_up(part: LookedUp) -> Reader:
        assert isinstance(part, Name)
        return lambda _: known[part.name]

    try:
        return evaluator(expression, look_up)(())
    except ZeroDivisionError:
        return None


# Pointing

STAY, GO = "these stay", "these go"


def _done(played: Play, at: int) -> Frame:
    """The frame when the line is done that begins with this one."""
    here = played.frames[at]
    same = [one for one in played.frames[at:] if (one.line, one.round) == (here.line, here.round)]
    return same[-1]


def _pointing(line: Line, played: Play, before: Frame, after: Frame) -> Iterator[Needed]:
    """Whether the piles that are pointed to stay or go: by where the card is that must stay in play."""
    pointed = next((one for one in played.decisions if one.line == line.number and one.clause), None)
    card = str(line.values.get("card") or "")
    where = played.program.where_is(before.state, card) if card else None
    if pointed is None or where is None:
        return
    cells = {cell.name: at for at, cell in enumerate(played.program.cells)}
    shown = {
        before.state[cells[name]]
        for number in re.findall(r"\d+", pointed.said)
        if (name := f"pile {number}") in cells
    }
    left = {after.state[at] for name, at in cells.items() if name.startswith("pile ") and after.state[at]}
    known = (f"they point to {pointed.said}", f"{card} is in {where[0]}")
    yield Needed(line.number, "pointing", known, "What do you say of them?", STAY if left == shown else GO, (STAY, GO), f"{card} stays in play, line {line.number}")  # fmt: skip


# Cases


@dataclass(frozen=True)
class _Chain:
    """Cases that stand one below the other."""

    cases: tuple[Line, ...]
    loops: int
    """repetitions around them"""

    @property
    def first(self) -> int:
        return self.cases[0].number

    def parts(self) -> list[Expression]:
        """Everything that the conditions speak of."""
        return [
            part
            for case in self.cases
            for slot, *_ in case.spans
            for expression in expressions_in(case.values[slot])
            for part in within(expression)
        ]


def _chains(lines: Sequence[Line], loops: int) -> Iterator[_Chain]:
    run: list[Line] = []
    for line in lines:
        if line.is_ != STEP or not line.kind:
            continue
        is_case = line.kind.is_case and line.kind.actor(line.values) != SPECTATOR
        if run and not (is_case and _is_another_case(run[-1], line)):
            yield _Chain(tuple(run), loops)
            run = []
        if is_case:
            run.append(line)
        yield from _chains(line.body, loops + (line.kind.opens_block and not line.kind.is_case))
    if run:
        yield _Chain(tuple(run), loops)


def _is_another_case(before: Line, case: Line) -> bool:
    """Whether who goes the one does not come to the other, or only in its stead: what is done in both is two questions."""
    if before.has(Facet.OTHERWISE):
        return False
    ends = any(line.kind and line.kind.phase == ENDING for line in before.body)
    return ends or case.has(Facet.OTHERWISE) or _exclude_each_other(before, case)


def _exclude_each_other(one: Line, other: Line) -> bool:
    """Both ask whether the same number is another one."""
    if one.kind != other.kind or IS not in one.values.values():
        return False
    differ = [slot for slot, value in one.values.items() if other.values.get(slot) != value]
    return len(differ) == 1 and all(isinstance(line.values.get(differ[0]), Number) for line in (one, other))


def _case(chain: _Chain, played: Play, before: Frame, gone: set[int], several: bool) -> Iterator[Needed]:
    """`gone`: lines that this path comes to from here on; `several`: cases are told apart at other lines too."""
    taken = next((case for case in chain.cases if gone & {line.number for line in Routine(case.body).walk()}), None)
    clauses = _known(chain.parts(), played, before, chain.first)
    words = [_done_in(case) for case in chain.cases]
    certain = any(case.has(Facet.OTHERWISE) for case in chain.cases)
    options = tuple(words if certain else [*words, NO_CASE])
    answer = _done_in(taken) if taken else NO_CASE
    if clauses and answer in options:
        options = tuple(dict.fromkeys(options))
        asks = f"What do you do in line {chain.first}?" if several else "What do you do?"
        yield Needed(chain.first, "case", clauses, asks, answer, options, _rule(taken or chain.cases[0]))


def _known(parts: Sequence[Expression], played: Play, before: Frame, line: int) -> tuple[str, ...]:
    """What the conditions speak of, as it is on this path; where they speak of the table, what was done openly."""
    names = dict.fromkeys(part.name for part in parts if isinstance(part, Name))
    cards = {part.card for part in parts if isinstance(part, CardFact)}
    numbers = [(name, _number(name, played, before)) for name in names]
    found = [f"{name} is {number}" for name, number in numbers if number is not None]
    found += [one.clause for one in played.decisions if one.label in cards and one.clause]
    if found or names:
        return tuple(found) if len(found) == len(names) + len(cards) else ()
    return tuple(one.clause for one in played.decisions if one.line < line and not one.secret and one.clause)


def _number(name: str, played: Play, before: Frame) -> int | None:
    for at, cell in enumerate(played.program.cells):
        if cell.name == name and not cell.is_place and not cell.is_card and isinstance(before.state[at], int):
            return int(before.state[at])
    return None


def _done_in(case: Line) -> str:
    """What is done in a case, in the words of its lines."""
    inner = [line for line in Routine(case.body).walk() if line.is_ == STEP and line.kind]
    return "; ".join(line.text.strip().removeprefix("Ends with: ") for line in inner) or case.text.strip()


def _rule(case: Line) -> str:
    return f"{case.text.strip().rstrip(':')}, line {case.number}"
