"""What stands in the gaps of a sentence once it is read: small frozen values, compared by content."""

from __future__ import annotations

from dataclasses import dataclass

from .expressions import Expression, Indexed, PlaceName, expression_text

__all__ = ["Indexed", "NewNumber", "PlaceName", "Position", "Spot", "expressions_in"]


@dataclass(frozen=True)
class Position:
    """The `at`-th card, counted from 1 from an end: top, bottom, left or right."""

    at: Expression
    end: str = "top"

    @property
    def expressions(self) -> tuple[Expression, ...]:
        return (self.at,)


@dataclass(frozen=True)
class Spot:
    """A card pointed out by where it is.

    `kind` is next (the card after a count), last (the last one counted), back (counted back from the last one
    dealt, which is the 1st), face (the bottom card of a place), at (a position in a place), on or before (so many
    cards further, or nearer, than a position of a place, from its end to its beginning as in the round), or cell (by
    the row and the column of a grid).
    """

    kind: str
    position: Position | None = None
    place: PlaceName | None = None
    steps: tuple[Expression, ...] = ()
    """how many cards on or before; of a cell its row and its column"""

    @property
    def expressions(self) -> tuple[Expression, ...]:
        return (*expressions_in(self.position), *expressions_in(self.place), *self.steps)


@dataclass(frozen=True)
class NewNumber:
    """A number that comes into being here, anything from `low` to `high`, both included."""

    name: str
    low: Expression
    high: Expression

    @property
    def expressions(self) -> tuple[Expression, ...]:
        return (self.low, self.high)


def expressions_in(value: object) -> tuple[Expression, ...]:
    """The expressions of a slot's value, whatever its type."""
    match value:
        case Indexed() | Position() | Spot() | NewNumber():
            return value.expressions
        case tuple():
            return tuple(found for part in value for found in expressions_in(part))
        case str() | bool() | int() | None:
            return ()
    if not isinstance(value, Expression):  # claims, which stand on this module
        return tuple(value.expressions)  # type: ignore[attr-defined]
    return (value,)


def range_text(new: object) -> str:
    """` from 1 to 9`, to stand behind a noun; nothing for what is no new number."""
    return f" from {expression_text(new.low)} to {expression_text(new.high)}" if isinstance(new, NewNumber) else ""
