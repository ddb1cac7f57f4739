"""What a routine costs: cards handled, seconds, silent counting, memory, arithmetic, time to think."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ..analysis import Analysis
from ..language.expressions import (
    Binary,
    Expression,
    Extreme,
    Figures,
    Half,
    Number,
    Quotient,
    Remainder,
    expression_text,
)
from ..language.kinds import CHANCE
from ..language.routine import PATTER, STEP, Line, Routine
from ..language.values import expressions_in
from ..search.program import Act
from ..search.replay import Play
from .paces import Paces


@dataclass(frozen=True)
class Sum:
    """A number reckoned in the head, at this line."""

    line: int
    words: str
    operations: int
    hard: str
    """easy, middling or hard: one operation, two or three, or more or a product of unknowns"""


@dataclass(frozen=True)
class Thinking:
    """Between learning something and needing it: seconds, and the lines that cover it."""

    name: str
    learned: int
    needed: int
    seconds: float
    lines: int


@dataclass(frozen=True)
class LineCost:
    line: int
    cards: int
    seconds: float
    remembers: tuple[str, ...]
    """what must be in the head here"""


@dataclass(frozen=True)
class Effort:
    """Of one path; where none is named, of the one that handles most cards."""

    cards: int
    deals: int
    """lines in which cards are dealt or counted singly"""
    decisions: int
    """choices of the spectator's"""
    seconds: float
    silent: int
    """cards of the longest stretch in which nothing is said"""
    sums: tuple[Sum, ...]
    thinking: tuple[Thinking, ...]
    lines: tuple[LineCost, ...]


def effort_of(it: Analysis, paces: Paces | None = None, played: Play | None = None) -> Effort:
    """Of this path instead, where one is given. Raises BadRoutine, OutOfBudget."""
    paces, routine, played = paces or Paces(), it.routine, played or it.longest
    cards, rounds = _handled(played)
    lines = {line.number: line for line in routine.walk()}
    said = _said(routine)
    kept = it.notes.remembered
    choices: dict[int, int] = {}
    for decision in played.decisions:
        if decision.by != CHANCE and not decision.is_round:
            choices[decision.line] = choices.get(decision.line, 0) + 1
    costs, sums = [], tuple(_sums(routine))
    for number, line in lines.items():
        if line.is_ != STEP or not line.kind:
            continue
        count, times = cards.get(number, 0), rounds.get(number, 0)
        if not times and number not in choices and not line.kind.bold:
            continue
        times = max(1, times)
        seconds = times * (paces.word * len(said.get(number, "").split()))
        seconds += paces.card * count if line.kind.singly else 0.0
        seconds += times * (paces.step if line.kind.is_handled else 0.0)
        seconds += paces.decision * choices.get(number, 0) + paces.sum * sum(
            s.operations for s in sums if s.line == number
        )
        needs = tuple(one.name for one in kept if one.learned < number <= max(one.needed))
        costs.append(LineCost(number, count, round(seconds, 1), needs))
    return Effort(
        sum(cards.values()),
        sum(rounds.get(n, 0) for n, line in lines.items() if line.kind and line.kind.singly),
        sum(choices.values()),
        round(sum(cost.seconds for cost in costs), 1),
        _silent(costs, said),
        sums,
        tuple(_thinking(kept, costs)),
        tuple(costs),
    )


def _handled(played: Play) -> tuple[dict[int, int], dict[int, int]]:
    """(line → cards that pass through the hands there, line → how often it is carried out)."""
    cards: dict[int, int] = {}
    rounds: dict[int, set[tuple[int, ...]]] = {}
    for before, frame in zip(played.frames, played.frames[1:], strict=False):
        step = played.program.instructions[frame.instruction]
        rounds.setdefault(frame.line, set()).add(frame.round)
        if isinstance(step, Act):
            cards[frame.line] = cards.get(frame.line, 0) + step.handled(before.state)
    return cards, {line: len(those) for line, those in rounds.items()}


def _said(routine: Routine) -> dict[int, str]:
    """Line of a step → the patter below it."""
    found: dict[int, str] = {}
    at = 0
    for line in routine.walk():
        if line.is_ == STEP:
            at = line.number
        elif line.is_ == PATTER:
            found[at] = f"{found.get(at, '')} {line.values['text']}".strip()
    return found


def _silent(costs: list[LineCost], said: dict[int, str]) -> int:
    longest = run = 0
    for cost in costs:
        run = cost.cards if said.get(cost.line) else run + cost.cards
        longest = max(longest, run)
    return longest


def _sums(routine: Routine) -> Iterator[Sum]:
    """Numbers that the performer's lines reckon from others."""
    for line in routine.walk():
        if line.is_ == STEP and line.kind and not line.kind.is_question and line.values.get("who") != "spectator":
            for expression in _expressions(line):
                if many := operations(expression):
                    unknown = isinstance(expression, Binary) and expression.op == "*" and not any(
                        isinstance(side, Number) for side in (expression.left, expression.right)
                    )  # fmt: skip
                    hard = "hard" if many > 3 or unknown else "middling" if many > 1 else "easy"
                    yield Sum(line.number, expression_text(expression), many, hard)


def _expressions(line: Line) -> Iterator[Expression]:
    for slot, type_name, _, _ in line.spans:
        if type_name not in ("range", "text"):
            yield from expressions_in(line.values[slot])


def operations_at(routine: Routine, line: int) -> int:
    """How many operations are reckoned in the head at this line."""
    return sum(one.operations for one in _sums(routine) if one.line == line)


def operations(expression: Expression) -> int:
    """How many operations it takes in the head."""
    match expression:
        case Binary(_, left, right) | Extreme(_, left, right):
            return 1 + operations(left) + operations(right)
        case Half(of, _) | Figures(_, of):
            return 1 + operations(of)
        case Remainder(of, by) | Quotient(of, by):
            return 1 + operations(of) + operations(by)
    return 0


def _thinking(kept: tuple, costs: list[LineCost]) -> Iterator[Thinking]:  # type: ignore[type-arg]
    for one in kept:
        needed = min((line for line in one.needed if line > one.learned), default=one.learned)
        between = [cost for cost in costs if one.learned < cost.line < needed]
        yield Thinking(one.name, one.learned, needed, round(sum(cost.seconds for cost in between), 1), len(between))
