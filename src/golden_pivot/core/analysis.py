"""One routine, and each answer about it made once: whoever says several things about a text asks here.

What is asked for is made when it is first asked for. An answer that could not be had (a text with faults, a budget that
was used up) cannot be had the second time either, and says the same.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Generic, TypeVar

from .answers.ledger import Ledger, ledger_of_card
from .answers.notes import Notes, badges_of, notes_of
from .answers.plays import longest_path, play
from .answers.proving import prove
from .answers.strands import Strands, strands_of
from .answers.verdicts import WHETHER, Asked, Verdict
from .budget import Budget
from .faults import BadRoutine, OutOfBudget
from .language.parser import read_routine
from .language.routine import Routine
from .search.replay import Play

T = TypeVar("T")


class _once(Generic[T]):
    """An answer of an Analysis, made when it is first asked for; so is the trouble where it cannot be had."""

    def __init__(self, make: Callable[[Any], T]) -> None:
        self.make, self.__doc__ = make, make.__doc__

    def __get__(self, it: Analysis, owner: type[Analysis]) -> T:
        name = self.make.__name__
        if name not in it.made:
            try:
                it.made[name] = (self.make(it), None)
            except (BadRoutine, OutOfBudget) as trouble:
                it.made[name] = (None, trouble)
        answer, why_not = it.made[name]
        if why_not:
            raise why_not
        return answer  # type: ignore[no-any-return]


class Analysis:
    """Every answer but `routine` raises BadRoutine where the text has faults, OutOfBudget and Cancelled."""

    def __init__(self, text: str, budget: Budget | None = None) -> None:
        self.text, self.budget = text, budget or Budget()
        self.routine: Routine = read_routine(text)
        self.made: dict[str, tuple[Any, Exception | None]] = {}

    @_once
    def verdict(self) -> Verdict:
        """With what explains it: the least failing path."""
        return prove(self.routine, self.budget.quiet(), Asked(region=False))

    @_once
    def bare_verdict(self) -> Verdict:
        """Without; the other one where that is known already."""
        known = self.made.get("verdict")
        return known[0] if known and known[0] else prove(self.routine, self.budget.quiet(), WHETHER)

    @_once
    def notes(self) -> Notes:
        return notes_of(self.routine, self.budget)

    @property
    def badges(self) -> tuple[str, ...]:
        return badges_of(self.routine)

    @_once
    def longest(self) -> Play:
        """The path that handles most cards, played."""
        return play(self.routine, longest_path(self.routine, self.budget))

    @_once
    def ledger(self) -> Ledger:
        """Of the card the routine is about."""
        return ledger_of_card(self.routine, self.budget, None)

    @_once
    def strands(self) -> Strands | None:
        return strands_of(self.routine, self.budget)
