"""Which way to try fillings is the quicker: all together, or each by itself. A few are tried both ways, and the clock decides.

Together they share what they have in common; by itself one that fails is refuted by a path or two. Neither is always the
quicker, and nothing in the text tells which: so it is measured. The answers are the same either way.
"""

from __future__ import annotations

import time
from collections.abc import Callable, Sequence
from dataclasses import replace
from itertools import islice
from math import prod

from ..budget import Budget
from .fields import Field
from .trying import Task, tried

FIRST_ALONE = 8
"""fillings that are tried by themselves, spread over all there are"""
PART_TOGETHER = 8
"""one in so many is among those that are tried together"""
GAIN = 0.8
"""so many times as many fillings together take about that many to this power times as long"""
PATIENCE = 1 / 3
"""of what all of them take by themselves: so long may trying a part of them together take"""
LEAST_SECONDS = 0.05
"""that it may take in any case"""


def in_the_quicker_way(task: Task, budget: Budget, clock: Callable[[], float] = time.perf_counter) -> Task:
    """The task, to be done together as far as it can be, or else each filling by itself. Raises Cancelled."""
    many = prod(len(field.domain) for field in task.fields)
    if not task.at_once or many <= 1:
        return task
    alone, part = replace(task, at_once=(), learns=True), _part(task)
    begun = clock()
    spread = list(islice(alone.trials(), 0, None, max(1, many // FIRST_ALONE)))[:FIRST_ALONE]
    learned = tried(alone, spread, budget)
    by_themselves = (clock() - begun) / len(spread) * many
    begun = clock()
    together = tried(
        replace(part, known=tuple(learned.known)), list(part.trials()), _for(max(by_themselves * PATIENCE, LEAST_SECONDS), budget)
    )  # fmt: skip
    taken = (clock() - begun) * (many / prod(len(field.domain) for field in part.fields)) ** GAIN
    if together.stopped or together.left or by_themselves < taken:
        return replace(task, at_once=())
    return task


def _for(seconds: float, budget: Budget) -> Budget:
    """The same, for so many seconds more at most."""
    left = budget.seconds_left
    return replace(budget.afresh(), seconds=seconds if left is None else min(seconds, left))


def _part(task: Task) -> Task:
    """The same with fewer fillings: a run out of the middle of what each blank may be that is filled at once."""
    each = PART_TOGETHER ** (1 / len(task.at_once))

    def middle(field: Field) -> Field:
        size = max(1, round(len(field.domain) / each))
        first = (len(field.domain) - size) // 2
        return replace(field, domain=field.domain[first : first + size])

    def one(field: Field) -> Field:
        return replace(field, domain=field.domain[:1])

    kept = {field.number: middle(field) for field in task.at_once}
    fields: Sequence[Field] = [kept.get(field.number) or one(field) for field in task.fields]
    return replace(task, fields=tuple(fields), at_once=tuple(kept.values()))
