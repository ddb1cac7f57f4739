"""Drills of a routine, none written by hand: sums, cases, where the card is, the order of a stack, what to remember.

What is asked in them is read off paths that are played and off the verdict. A question that has two answers on these paths
is no question: something else is needed for it than what is told.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime
from itertools import groupby

from ..analysis import Analysis
from ..answers.verdicts import RULE
from ..english import list_text
from ..faults import OutOfBudget
from ..language.routine import STEP
from ..show.setup import setup_of
from ..show.sums import shortcuts_of
from ..to_learn import DrillQuestion, order_questions
from .asked import needed_on
from .imagined import some_paths
from .kept import Answer
from .schedule import standings

MOST_QUESTIONS = 160
"""of a drill, enough for every card of a pack in every direction; of more, so many that lie apart are taken"""
LEAST_STACK = 5
"""known cards one under the other from which on they are a stack to be learned"""


@dataclass(frozen=True)
class Drill:
    name: str
    says: str
    """what it is about, in a few words"""
    questions: tuple[DrillQuestion, ...]


def drills_of(it: Analysis) -> tuple[Drill, ...]:
    """Raises BadRoutine where the text has faults."""
    return tuple(drill for drill in _drills(it) if drill.questions)


def drill_of(name: str, says: str, questions: Iterable[DrillQuestion]) -> Drill:
    """Each question once, none that has two answers."""
    found: dict[str, DrillQuestion | None] = {}
    for one in questions:
        other = found.get(one.key, one)
        found[one.key] = one if other and other.answer == one.answer else None
    sure = [one for one in found.values() if one]
    step = max(1, -(-len(sure) // MOST_QUESTIONS))
    return Drill(name, says, tuple(sure[::step]))


def _drills(it: Analysis) -> Iterator[Drill]:
    sums = list(_worked_out(it))
    cases: list[DrillQuestion] = []
    for path in some_paths(it.routine):
        for moment in needed_on(it.routine, path):
            known = ", ".join(moment.known if moment.options else sorted(moment.known))
            one = DrillQuestion(
                f"{moment.line} {moment.asks} {known}", known, moment.asks, moment.answer, moment.options, moment.rule
            )
            (sums if moment.kind == "sum" else cases).append(one)
    yield drill_of("sums", "the number, before you turn round", sums)
    yield drill_of("cases", "what you do then", cases)
    yield drill_of("places", "where their card is", _places(it))
    yield drill_of("stack", "the order of the cards", _stack(it))
    yield drill_of("memory", "what you keep in your head", _memory(it))


def _worked_out(it: Analysis) -> Iterator[DrillQuestion]:
    """Sums of which all that is needed is a card’s: of numbers the paths tell."""
    for shortcut in shortcuts_of(it.routine):
        if any(" of " in name or name[:1].isupper() for name in shortcut.names):
            for values, result in shortcut.rows:
                known = ", ".join(f"{name} is {value}" for name, value in zip(shortcut.names, values, strict=True))
                yield DrillQuestion(
                    f"{shortcut.line} {shortcut.words} {known}", known, shortcut.words, str(result), (), f"{shortcut.words}, line {shortcut.line}"
                )  # fmt: skip


def _places(it: Analysis) -> Iterator[DrillQuestion]:
    try:
        verdict = it.verdict
    except OutOfBudget:
        return
    landing = verdict.landing
    if landing and verdict.verdict == RULE:
        rule = landing.formula or landing.text
        for row in landing.table:
            known = ", ".join(row.words)
            yield DrillQuestion(
                f"place {known}", known, f"Where is {landing.card}?", row.text, (), f"{landing.card}: {rule}"
            )


def _stack(it: Analysis) -> Iterator[DrillQuestion]:
    """Which card lies where, where a card lies, and which comes next."""
    inside = [one for one in setup_of(it.routine).lying if one.place == "deck"]
    runs = groupby(enumerate(inside), lambda pair: pair[1].position - pair[0])
    for _, run in runs:
        cards = [one for _, one in run]
        if len(cards) < LEAST_STACK:
            continue
        yield from order_questions([one.card for one in cards], cards[0].position)


def _memory(it: Analysis) -> Iterator[DrillQuestion]:
    lines = {line.number: line.text.strip() for line in it.routine.walk() if line.is_ == STEP}
    kept = it.notes.remembered
    names = list(dict.fromkeys(one.name for one in kept))
    if len(names) < 2:
        return
    for number in sorted({line for one in kept for line in one.needed}):
        needed = list_text([name for name in names if any(one.name == name and number in one.needed for one in kept)])
        learned = "; ".join(f"{one.name} from line {one.learned}" for one in kept if number in one.needed)
        everything = {needed, *names, list_text(names)}
        yield DrillQuestion(
            f"needs {number}", f"line {number}: {lines[number]}", "What do you need from before?", needed, tuple(sorted(everything)), learned
        )  # fmt: skip


# What is asked when


@dataclass(frozen=True)
class Due:
    """A question as it stands."""

    drill: str
    question: DrillQuestion
    due: str | None
    """ISO time; None: never asked"""
    asked: int
    right: int
    seconds: float | None
    """the middle one"""


def as_they_stand(drills: Sequence[Drill], answers: Iterable[Answer]) -> tuple[Due, ...]:
    """Every question, the hardest first: the most often wrong, then the slowest, then those never asked."""
    known = standings(answers)
    found = []
    for drill in drills:
        for one in drill.questions:
            now = known.get((drill.name, one.key))
            found.append(
                Due(drill.name, one, now.due.isoformat(), now.asked, now.right, now.seconds) if now
                else Due(drill.name, one, None, 0, 0, None)
            )  # fmt: skip
    return tuple(sorted(found, key=lambda due: (-(due.asked - due.right) / max(1, due.asked), -(due.seconds or 0))))


def now_due(standing: Sequence[Due], now: datetime, new: int = 12) -> tuple[Due, ...]:
    """What is to be asked today: what is due, the longest overdue first, and then so many new ones."""
    due = [one for one in standing if one.due and datetime.fromisoformat(one.due) <= now]
    fresh = [one for one in standing if one.due is None]
    return (*sorted(due, key=lambda one: one.due or ""), *fresh[: max(0, new)])
