"""The core for those who come to it from Python: a routine is read, and then asked. See docs/from_python.md."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from .analysis import Analysis
from .answers.verdicts import Verdict
from .budget import Budget
from .show.costs import Costs, costs_of
from .show.cues import CueSheet, cues_of
from .variants.blanks import Solution
from .variants.blanks import solve as _solve
from .variants.explain import Explanation, explain
from .variants.limits import Limits, limits_of
from .variants.slips import Fragility, fragility_of


class Read(Analysis):
    """A routine as it was read. Each question is answered when it is first asked; BadRoutine where the text has faults."""

    @property
    def faults(self) -> tuple[str, ...]:
        """What cannot be read, in words: where, what was expected, what to do."""
        return tuple(map(str, self.routine.faults))

    @property
    def why(self) -> Explanation:
        """What each line does to the card, so that it comes out."""
        return explain(self.routine, self.budget)

    @property
    def when(self) -> Limits:
        """With exactly which choices it holds, and what to do outside of them."""
        return limits_of(self.text, self.budget)

    @property
    def slips(self) -> Fragility:
        """What breaks it: every plausible slip of handling, proved as a routine of its own."""
        return fragility_of(self.text, self.budget)

    @property
    def costs(self) -> Costs:
        return costs_of(self)

    @property
    def cues(self) -> CueSheet:
        return cues_of(self)


def read(text: str, budget: Budget | None = None) -> Read:
    """Never raises, whatever is written; see Read.faults."""
    return Read(text, budget)


def prove(text: str, budget: Budget | None = None) -> Verdict:
    """The verdict over every path. Raises BadRoutine for a text with faults."""
    return read(text, budget).verdict


def solve(text: str, budget: Budget | None = None, domains: Mapping[int, Sequence[str]] | None = None) -> Solution:
    """What works in the blanks, written `?`; `domains` says what to try, by number of the blank from 1."""
    return _solve(text, budget or Budget(), domains)
