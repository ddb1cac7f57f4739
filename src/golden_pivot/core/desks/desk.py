"""How a desk is declared: what it asks, what it answers, and how the answer is laid out in tables."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import Field, dataclass, field, fields
from typing import Any

from ..budget import Budget
from ..faults import PivotError
from ..to_learn import DrillQuestion


class Trouble(PivotError, ValueError):
    """What is asked makes no sense here: which field, what is the matter, what to do."""

    def __init__(self, field: str, message: str, remedy: str) -> None:
        super().__init__(f"{message} {remedy}")
        self.field, self.message, self.remedy = field, message, remedy


@dataclass(frozen=True)
class Table:
    """Rows of text and numbers under a head, for CSV and for the command line."""

    name: str
    head: tuple[str, ...]
    rows: tuple[tuple[str | int | float, ...], ...]


@dataclass(frozen=True)
class Send:
    """A result as lines of the routine language, for the routine that is open on the bench."""

    label: str
    """what the button says"""
    setup: tuple[str, ...] = ()
    """lines on the pack and what is placed in it; a line on the pack gives way to one that is there"""
    handling: tuple[str, ...] = ()
    ending: tuple[str, ...] = ()


@dataclass(frozen=True)
class Desk:
    name: str
    """its verb on the command line, and its address"""
    title: str
    about: str
    asks: type
    """a dataclass; its defaults are the worked example the desk opens on"""
    answers: type
    answer: Callable[[Any, Budget], Any]
    """raises Trouble for what makes no sense, OutOfBudget and Cancelled"""
    tables: Callable[[Any], Sequence[Table]]
    """of an answer"""
    is_long: bool = False
    """it may search for longer than one waits for while typing"""
    at_leisure: Mapping[str, Any] = field(default_factory=dict)
    """what is asked for where nobody is typing, on the command line, instead of the defaults"""
    exit_code: Callable[[Any], int] = lambda answer: 0
    """of the command line: 0 found, 1 there is none, 3 not settled within the budget"""

    to_learn: Callable[[Any, Any], Iterable[DrillQuestion]] | None = None
    """of what was asked and its answer: what a performer has to know by heart; None where there never is any"""

    @property
    def fields(self) -> dict[str, Field[Any]]:
        """What it asks, field by field; `metadata["description"]` says what each is."""
        return {one.name: one for one in fields(self.asks)}


DESKS: dict[str, Desk] = {}


def desk(declared: Desk) -> Desk:
    DESKS[declared.name] = declared
    return declared


def asked(default: Any, about: str) -> Any:
    """A field of what a desk asks, with the words that explain it."""
    about = " ".join(about.split())
    if isinstance(default, list):
        return field(default_factory=lambda: list(default), metadata={"description": about})
    return field(default=default, metadata={"description": about})


def within(asks: Any, **limits: tuple[int, int]) -> None:
    """Raises Trouble for a number outside its limits, or one of several."""
    for name, (low, high) in limits.items():
        value = getattr(asks, name)
        for one in value if isinstance(value, (list, tuple)) else [value]:
            if not low <= one <= high:
                words = _title(asks, name)
                raise Trouble(name, f"{words} cannot be {one:,}.", f"Take from {low:,} to {high:,}.")


def _title(asks: Any, name: str) -> str:
    about = next(one.metadata.get("description", name) for one in fields(asks) if one.name == name)
    return str(about).partition(":")[0].partition(";")[0].strip(".").capitalize()
