"""Which way to try fillings is the quicker: all together, or each by itself. A few are tried both ways, and the work decides.

Together they share what they have in common; by itself one that fails is refuted by a path or two. Neither is always the
quicker, and nothing in the text tells which: so it is measured, in work done, not by the clock, so that the same is found
whoever asks and however busy the machine is.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from itertools import islice
from math import prod

from ..budget import Budget
from .fields import Field
from .trying import AT_ONCE_STATES, AT_ONCE_STEPS, Task, tried

FIRST_ALONE = 6
"""fillings that are tried by themselves, spread over all there are"""
PART_TOGETHER = 12
"""one in so many is among those that are tried together"""
GAIN = 0.8
"""so many times as many fillings together take about that many to this power times as much"""
PATIENCE = 1 / 3
"""of what all of them take by themselves: so much may trying a part of them together take"""
LEAST_STEPS = 5_000
"""that it may take in any case"""


def in_the_quicker_way(task: Task, budget: Budget) -> Task:
    """The task, to be done together as far as it can be, or else each filling by itself. Raises Cancelled."""
    many = prod(len(field.domain) for field in task.fields)
    if not task.at_once or many <= FIRST_ALONE:
        return task
    alone, part = replace(task, at_once=(), learns=True), _part(task)
    spread = list(islice(alone.trials(), 0, None, many // FIRST_ALONE))[:FIRST_ALONE]
    learned = tried(alone, spread, budget)
    by_themselves = learned.work / len(spread) * many
    patience = max(LEAST_STEPS, int(by_themselves * PATIENCE))
    within = budget.narrowed(AT_ONCE_STATES, min(patience, AT_ONCE_STEPS))
    together = tried(replace(part, known=tuple(learned.known)), list(part.trials()), within)
    share = many / prod(len(field.domain) for field in part.fields)
    if together.stopped or together.left or by_themselves < together.work * share**GAIN:
        return replace(task, at_once=())
    return task


def _part(task: Task) -> Task:
    """The same with fewer fillings: a run out of the middle of what each blank may be that is filled at once."""
    each = PART_TOGETHER ** (1 / len(task.at_once))

    def middle(field: Field) -> Field:
        size = max(1, round(len(field.domain) / each))
        first = (len(field.domain) - size) // 2
        return replace(field, domain=field.domain[first : first + size])

    kept = {field.number: middle(field) for field in task.at_once}
    fields: Sequence[Field] = [
        kept.get(field.number) or replace(field, domain=field.domain[:1]) for field in task.fields
    ]
    return replace(task, fields=tuple(fields), at_once=tuple(kept.values()))
