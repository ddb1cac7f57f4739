"""What can go wrong, apart from a refuted claim, which is a result.

Fault           a finding about the text: where, what is the matter, what was expected, what to do
BadRoutine      raised by whoever needs a routine without faults; carries all of them
Impossible      raised while one path runs: this path cannot be carried out (not bad input by itself)
OutOfBudget     raised inside an exploration; always turned into the verdict *unsettled*
Cancelled       raised inside an exploration by the person waiting for it
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any


@dataclass(frozen=True)
class Fault:
    """Lines and columns count from 1; `end` is the column just behind the last character concerned."""

    line: int
    column: int
    end: int
    message: str
    expected: str
    remedy: str
    is_limit: bool = False
    """it could be done, but is more than the bench can follow"""

    def __str__(self) -> str:
        return f"line {self.line}, column {self.column}: {self.message} Expected {self.expected}. {self.remedy}"


class PivotError(Exception):
    """What goes wrong in a way we know of; each kind is also of the standard kind it resembles."""


class BadRoutine(PivotError, ValueError):
    """The text is not (yet) a routine that can be proved."""

    def __init__(self, faults: Sequence[Fault]) -> None:
        super().__init__("\n".join(map(str, faults)))
        self.faults = tuple(faults)

    def __reduce__(self) -> tuple[type[BadRoutine], tuple[Any, ...]]:
        return type(self), (self.faults,)

    @property
    def is_limit(self) -> bool:
        """Nothing is wrong but that it is more than the bench can follow: whether it works is not settled."""
        return bool(self.faults) and all(fault.is_limit for fault in self.faults)


class Impossible(Exception):
    """This path cannot be carried out; `reason` completes the sentence 'on this path …'."""

    def __init__(self, reason: str) -> None:
        super().__init__(reason)
        self.reason = reason


class OutOfBudget(PivotError):
    """`limit` names what ran out: states, transitions, orders, work, seconds or memory."""

    def __init__(self, limit: str, reached: str) -> None:
        super().__init__(f"{limit}: {reached}")
        self.limit, self.reached = limit, reached

    def __reduce__(self) -> tuple[type[OutOfBudget], tuple[Any, ...]]:
        return type(self), (self.limit, self.reached)


class Cancelled(PivotError):
    pass


class NoSuchPath(Exception):
    """These choices do not go together: nobody could have made them."""
