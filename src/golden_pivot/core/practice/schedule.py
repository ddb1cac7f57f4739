"""When a question of a drill is due again: by the library fsrs, from the answers alone."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import datetime
from functools import lru_cache
from statistics import median

from fsrs import Card, Rating, Scheduler

from .kept import Answer

SLOW, QUICK = 8.0, 2.5
"""seconds from which a right answer counts as hard, and up to which as easy; common practice, no published source"""


@dataclass(frozen=True)
class Standing:
    """How one question stands."""

    due: datetime
    asked: int
    right: int
    seconds: float
    """the middle one of all answers"""
    wrong_last: bool


@lru_cache(maxsize=1)
def scheduler() -> Scheduler:
    """No chance in it: the same answers give the same days everywhere."""
    return Scheduler(enable_fuzzing=False)


def rating_of(answer: Answer) -> Rating:
    if not answer.right:
        return Rating.Again
    return Rating.Hard if answer.seconds >= SLOW else Rating.Easy if answer.seconds <= QUICK else Rating.Good


def standings(answers: Iterable[Answer]) -> Mapping[tuple[str, str], Standing]:
    """(drill, question) → how it stands. A clock that went back counts as if no time had passed."""
    by_question: dict[tuple[str, str], list[Answer]] = defaultdict(list)
    for one in answers:
        by_question[one.drill, one.question].append(one)
    return {key: _standing(those) for key, those in by_question.items()}


def _standing(answers: list[Answer]) -> Standing:
    """In the order in which they were given."""
    card, last = Card(card_id=1), None
    for one in answers:
        at = datetime.fromisoformat(one.answered_at)
        last = at if last is None or at > last else last
        card, _ = scheduler().review_card(card, rating_of(one), last)
    return Standing(
        card.due, len(answers), sum(one.right for one in answers), median(one.seconds for one in answers), not answers[-1].right
    )  # fmt: skip
