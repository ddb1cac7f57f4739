"""What the bench knows of one routine that is to stand between others."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ..analysis import Analysis
from ..answers.questions import Question, questions_of
from ..answers.verdicts import UNSETTLED
from ..budget import Budget
from ..faults import BadRoutine, OutOfBudget
from ..language.facets import Facet
from ..language.kinds import HANDLING
from ..language.routine import STEP, Routine
from ..show.effort import effort_of
from ..show.off_table import OFF_THE_TABLE
from ..show.paces import Paces
from ..show.prediction_sheet import predictions_of
from ..show.requests import asks_spectator
from ..show.setup import setup_of


@dataclass(frozen=True)
class Known:
    uid: str
    title: str
    text: str
    trouble: str
    """why it cannot be relied upon: faults, or its verdict; empty for nothing"""
    seconds: float
    measured: int
    """performances in the book of which `seconds` is the middle; 0: it is reckoned from effort"""
    counting: int
    """cards that pass singly, on the path that handles most"""
    method: frozenset[str]
    """kinds of lines in which cards are handled or something is decided"""
    asks: tuple[str, ...]
    """what the spectator is asked for, a kind a line, each once"""
    questions: tuple[Question, ...]
    assumed: tuple[str, ...]
    shows: frozenset[str]
    """cards by name that come to be seen in it: placed and foretold ones"""
    pockets: frozenset[str]
    """places off the table that it needs"""
    prepared: bool
    """a card lies at a known place, or something is odd"""
    borrowed: bool
    """it can be done with a pack of somebody else’s, shuffled"""
    shown_to: tuple[tuple[str, str], ...] = ()
    """(audience, day) of its performances in the book"""


def known_of(
    uid: str, text: str, budget: Budget, paces: Paces | None = None, minutes: tuple[float, int] | None = None
) -> Known:
    """`minutes`: the middle one of so many performances. A routine with faults is told as such. Raises Cancelled."""
    it = Analysis(text, budget)
    routine = it.routine
    title = routine.title or "Untitled"
    try:
        effort, lying = effort_of(it, paces), setup_of(routine).lying
        bad = it.bare_verdict.verdict in ("refuted", "lost", UNSETTLED)
        trouble = it.bare_verdict.headline if bad else ""
    except BadRoutine as faults:
        return _faulty(uid, title, text, str(faults.faults[0]))
    except OutOfBudget as over:
        return _faulty(uid, title, text, f"not settled: {over}")
    handled = [line for line in routine.walk() if line.is_ == STEP and line.kind and line.kind.phase == HANDLING]
    singly = {line.number for line in handled if line.kind and line.kind.singly}
    off = ({one.place for one in lying if one.place in OFF_THE_TABLE} | set(_waiting(routine))) - {"hand"}
    badges = it.badges
    return Known(
        uid, title, text, trouble, effort.seconds if minutes is None else 60 * minutes[0], minutes[1] if minutes else 0,
        sum(cost.cards for cost in effort.lines if cost.line in singly),
        frozenset(line.kind.title for line in handled if line.kind and (line.kind.is_handled or asks_spectator(line))),
        tuple(dict.fromkeys(line.kind.title for line in handled if line.kind and line.kind.family == "Choices" and asks_spectator(line))),
        questions_of(text), tuple(dict.fromkeys(routine.said(Facet.ASSUMPTION))),
        frozenset([one.card for one in lying] + [card for one in predictions_of(routine) for card in one.cards]),
        frozenset(off), "no set-up" not in badges, {"borrowed pack", "no set-up"} <= set(badges),
    )  # fmt: skip


def _waiting(routine: Routine) -> Iterator[str]:
    """Where predictions wait."""
    for one in predictions_of(routine):
        place = one.waits.rpartition(" in ")[2]
        if place in OFF_THE_TABLE:
            yield place


def _faulty(uid: str, title: str, text: str, trouble: str) -> Known:
    return Known(
        uid, title, text, trouble, 0.0, 0, 0, frozenset(), (), (), (), frozenset(), frozenset(), False, False
    )
