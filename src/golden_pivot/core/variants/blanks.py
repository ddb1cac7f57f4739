"""What would work: every way to fill the blanks of a routine that makes all its claims true.

Where they can be tried together or each by itself, it is found first which is the quicker (quicker_way.py). Then they are
tried in batches (see trying.py): the first few alone, to learn by which paths fillings fail, the others with what these
have taught, by whoever works them off.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import chain
from math import prod

from ..answers.formulas import fit
from ..budget import Budget
from ..executor import cut
from ..language.kinds import ENDING
from ..language.parser import read_routine
from .fields import Field, Filling, NothingToFill, fields_of
from .quicker_way import in_the_quicker_way
from .trying import Found, NearMiss, Task, at_once, proved_again, tried, tried_alone

MOST_FILLINGS = 500_000
MOST_ANSWERS = 400
"""answers that are proved once more and told"""
NEAR_MISSES = 3
LEARNED_FROM, LEARNED_FROM_AT_MOST = 50, 10
"""one in so many of what there is to try is tried first, to learn from; or of these, until one has taught something"""
BATCHES, MOST_IN_BATCH = 100, 200
"""about so many batches, of so many things to try at most"""
PROVED_AT_ONCE = 4
"""answers in a batch that is proved once more"""


@dataclass(frozen=True)
class Solution:
    fields: tuple[Field, ...]
    answers: tuple[Filling, ...]
    """the simplest first, or the widest range"""
    fillings: int
    """how many there are to try"""
    tried: int
    refuted_first: int
    """of these, refuted by a path that had refuted another"""
    near: tuple[NearMiss, ...]
    relation: str | None
    """the last blank as a formula in the others, where there is one for all answers"""
    complete: bool
    """every filling was tried and settled, and every answer is told"""
    open: int = 0
    """tried, and not settled"""
    stopped: str | None = None
    """what ran out before all were tried"""
    working: int = 0
    """that work, as far as they are settled; the first of them are told"""
    unread: int = 0
    """that make no sentence of the language"""
    unread_such_as: tuple[NearMiss, ...] = ()

    @property
    def says(self) -> str:
        unread = ""
        if self.unread_such_as:
            values, wrong = self.unread_such_as[0].values, self.unread_such_as[0].says
            which = f"{'None' if self.unread == self.fillings else f'{self.unread:,} of them'}"
            makes = "makes a sentence" if which == "None" else f"make{'s' if self.unread == 1 else ''} no sentence"
            unread = f" {which} {makes}, such as {', '.join(values)}: {wrong}"
        return self._settled + unread

    @property
    def _settled(self) -> str:
        if self.complete or (not self.stopped and not self.open):
            more = "" if self.working == len(self.answers) else f" The {len(self.answers):,} simplest are told."
            return f"{self.working:,} of {self.fillings:,} ways work.{more}"
        found = f"{self.working:,} work" if self.working else "None is known to work"
        settled = f"{found} of the {self.tried - self.open:,} that are settled, of {self.fillings:,} ways in all."
        if self.open:
            settled += f" {self.open:,} {'is' if self.open == 1 else 'are'} too large to be settled."
        return f"{settled} The search stopped: {self.stopped}." if self.stopped else settled


def solve(
    text: str,
    budget: Budget,
    domains: Mapping[int, Sequence[str]] | None = None,
    progress: Callable[[str], None] = lambda words: None,
    known_first: bool = True,
) -> Solution:
    """Every filling of the blanks with which all claims hold, each proved once more as the routine it makes.

    Raises NothingToFill, BadRoutine for other faults, Cancelled. Out of budget, the solution is not complete.
    """
    fields = fields_of(read_routine(text), domains)
    if not any(line.kind and line.kind.phase == ENDING for line in read_routine(text).walk()):
        raise NothingToFill(
            "There is nothing to make true: add an ending, such as “Ends with: the top card of deck is FORCE”."
        )
    many = prod(len(field.domain) for field in fields)
    if many > MOST_FILLINGS:
        raise NothingToFill(f"There are {many:,} ways to fill the blanks: narrow what is to be tried.")
    task = in_the_quicker_way(Task(text, tuple(fields), tuple(at_once(text, fields)), known_first), budget)
    way = "together" if task.at_once else "each by itself"
    found = Found()
    for some in chain(_searched(task, budget), _alone(task, found.left, budget)):
        found.take_in(some)
        progress(f"{found.tried:,} of {many:,} ways tried, {len(found.passing):,} work; {way}")
        if some.stopped:
            break
    ordered = sorted(found.passing, key=task.simplicity)
    answers = _proved(task, ordered[:MOST_ANSWERS], found, budget)
    working = len(ordered) - len(ordered[:MOST_ANSWERS]) + len(answers)
    return Solution(
        task.fields, tuple(answers), many, found.tried, found.refuted_first, tuple(found.near[:NEAR_MISSES]),
        _relation(fields, answers), not found.stopped and not found.open and len(ordered) <= MOST_ANSWERS,
        found.open, found.stopped, working, len(found.unread), tuple(found.unread[:1]),
    )  # fmt: skip


def _searched(task: Task, budget: Budget) -> Iterator[Found]:
    """What the batches come to: first those that are learned from, one after the other."""
    trials = task.trials()
    size = max(1, min(MOST_IN_BATCH, task.many_trials // BATCHES))
    known: tuple[Mapping[str, int], ...] = ()
    for done in range(task.many_trials):
        if done >= max(1, task.many_trials // (LEARNED_FROM if known else LEARNED_FROM_AT_MOST)):
            break
        some = tried(replace(task, learns=True, known=known), (next(trials),), budget)
        known = tuple(some.known)
        yield some
    yield from budget.executor.run(tried, replace(task, known=known), cut(trials, size), budget)


def _alone(task: Task, left: Sequence[Filling], budget: Budget) -> Iterator[Found]:
    """What those come to that were too large to be explored together; begun when these are known."""
    size = max(1, min(MOST_IN_BATCH, len(left) // BATCHES))
    yield from budget.executor.run(tried_alone, task, cut(left, size), budget)


def _proved(task: Task, fillings: Sequence[Filling], found: Found, budget: Budget) -> list[Filling]:
    """Those that are proved as the routines they make, as far as the budget goes."""
    answers = [filling for filling in fillings if filling in found.proved]
    others = cut((filling for filling in fillings if filling not in found.proved), PROVED_AT_ONCE)
    for some in budget.executor.run(proved_again, task, others, budget):
        answers += some.passing
        found.open += some.open
        found.stopped = found.stopped or some.stopped
        if some.stopped:
            break
    return sorted(answers, key=task.simplicity)


def _relation(fields: Sequence[Field], answers: Sequence[Filling]) -> str | None:
    if len(fields) < 2 or len(answers) < 4 or not all(field.is_number for field in fields):
        return None
    rows = [([int(v) for v in values[:-1]], int(values[-1])) for values in answers]
    if len({tuple(known) for known, _ in rows}) < len(rows):
        return None
    formula = fit([f"blank {field.number}" for field in fields[:-1]], rows)
    return formula and f"blank {fields[-1].number} is {formula}"
