"""Judgement calls about an order: each a warning with its reason, which the performer may keep.

The limits in figures are common practice, no published source.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import combinations, pairwise

from ..english import list_text
from .known import Known
from .occasion import Occasion

ALIKE = 0.5
"""share of their kinds of lines from which two routines look like one principle"""
MUCH_COUNTING = 120
"""cards counted or dealt singly in two routines, one after the other"""


@dataclass(frozen=True)
class Call:
    key: str
    """names this warning, so that it can be kept"""
    about: tuple[int, ...]
    """places in the order, from 0"""
    says: str


def calls_of(order: Sequence[Known], occasion: Occasion, seconds: float) -> tuple[Call, ...]:
    """In the order of the programme. `seconds`: for all of it, resets included."""
    return tuple(_calls(order, occasion, seconds))


def likeness(first: Known, second: Known) -> float:
    """Share of the kinds of lines of both that they have in common, 0 to 1."""
    both = first.method | second.method
    return len(first.method & second.method) / len(both) if both else 0.0


def warnings_beside(first: Known, second: Known) -> int:
    """How much speaks against the second right behind the first."""
    return sum(1 for _ in _side_by_side((first, second), 0, first, second))


def _call(what: str, order: Sequence[Known], about: Sequence[int], says: str) -> Call:
    return Call(": ".join([what, *(order[at].uid for at in about)]), tuple(about), says)


def _calls(order: Sequence[Known], occasion: Occasion, seconds: float) -> Iterator[Call]:
    for at, one in enumerate(order):
        if one.trouble:
            yield _call("not proved", order, [at], f"{one.title} cannot be relied upon: {one.trouble}.")
        if missing := sorted(one.pockets - set(occasion.pockets)):
            yield _call("no pocket", order, [at], f"{one.title} needs {list_text(missing)}, which is not at hand.")
        if days := sorted(
            day for who, day in one.shown_to if _same(who, occasion.audience) and _before(day, occasion)
        ):
            yield _call("seen", order, [at], f"{one.title} was shown to {occasion.audience.strip()} on {days[-1]}.")
    for at, (first, second) in enumerate(pairwise(order)):
        yield from _side_by_side(order, at, first, second)
    for i, j in combinations(range(len(order)), 2):
        yield from _apart(order, i, j)
    for i in range(len(order) - 2):
        three = order[i : i + 3]
        for task in sorted(set.intersection(*(set(one.asks) for one in three))):
            yield _call(f"thrice {task}", order, [i, i + 1, i + 2], f"Three times running one is asked: {task}.")
    if occasion.minutes and seconds > 60 * occasion.minutes:
        over = (seconds - 60 * occasion.minutes) / 60
        yield Call("over time", (), f"It takes about {over:.0f} minutes more than the {occasion.minutes} allowed."
                   if over >= 1 else f"It takes a little more than the {occasion.minutes} minutes allowed.")  # fmt: skip


def _before(day: str, occasion: Occasion) -> bool:
    """What was shown at this occasion itself is no reason against it."""
    return not occasion.held_on or day < occasion.held_on


def _same(audience: str, other: str) -> bool:
    return bool(other.strip()) and audience.strip().lower() == other.strip().lower()


def _side_by_side(order: Sequence[Known], at: int, first: Known, second: Known) -> Iterator[Call]:
    here = [at, at + 1]
    if likeness(first, second) >= ALIKE:
        same, all_kinds = len(first.method & second.method), len(first.method | second.method)
        yield _call(
            "one principle", order, here,
            f"{first.title} and {second.title} look alike side by side: {same} of {all_kinds} kinds of lines are the same.",
        )  # fmt: skip
    elif same_tasks := [task for task in first.asks if task in second.asks]:
        yield _call(
            "same task", order, here,
            f"{first.title} and {second.title} ask the same of the spectator, one after the other: {list_text(same_tasks)}.",
        )  # fmt: skip
    if first.counting + second.counting > MUCH_COUNTING:
        yield _call(
            "counting", order, here,
            f"{first.counting + second.counting} cards are counted singly in a row, in {first.title} and {second.title}.",
        )  # fmt: skip
    if first.prepared and second.borrowed:
        yield _call(
            "borrowed after prepared", order, here,
            f"{second.title} would do with a borrowed pack; behind {first.title}, which is prepared, nobody will believe it."
            f" Show {second.title} before it.",
        )  # fmt: skip


def _apart(order: Sequence[Known], i: int, j: int) -> Iterator[Call]:
    first, second = order[i], order[j]
    if first.uid == second.uid:
        yield _call("twice", order, [i, j], f"{first.title} is shown twice: the same people see where it goes.")
        return
    for what in first.assumed:
        if what in second.assumed:
            yield _call(f"ruse {what}", order, [i, j], f"{what[:1].upper()}{what[1:]} bears one use before the same people: {first.title} and {second.title} both have it.")  # fmt: skip
    for card in sorted(first.shows & second.shows):
        yield _call(f"card {card}", order, [i, j], f"{card} has come out in {first.title} when {second.title} wants it to come out again.")  # fmt: skip
    for place in sorted(first.pockets & second.pockets):
        yield _call(f"pocket {place}", order, [i, j], f"{first.title} and {second.title} both want {place}: empty it in between, or take another.")  # fmt: skip
    for one in first.questions:
        for other in second.questions:
            if one.low is not None and (one.low, one.high) == (other.low, other.high):
                yield _call(f"number {one.low} {one.high}", order, [i, j], f"{first.title} and {second.title} both ask for a number from {one.low} to {one.high}.")  # fmt: skip
                return
