"""What stands in the gaps of a sentence once it is read: small frozen values, compared by content."""

from __future__ import annotations

from dataclasses import dataclass

from .expressions import Expression


@dataclass(frozen=True)
class Indexed:
    """One of several places by its number: `pile p`, `pile 3 - p`."""

    base: str
    index: Expression


PlaceName = str | Indexed
"""`deck`, `pile 2`, or a place whose number is reckoned"""


@dataclass(frozen=True)
class Position:
    """The `at`-th card, counted from 1 from an end: top, bottom, left or right."""

    at: Expression
    end: str = "top"


@dataclass(frozen=True)
class Spot:
    """A card pointed out by where it is.

    `kind` is next (the card after a count), last (the last one counted), back (counted back from the last one
    dealt, which is the 1st), face (the bottom card of a place), or at (a position in a place).
    """

    kind: str
    position: Position | None = None
    place: PlaceName | None = None


@dataclass(frozen=True)
class NewNumber:
    """A number that comes into being here, anything from `low` to `high`, both included."""

    name: str
    low: Expression
    high: Expression


def expressions_in(value: object) -> tuple[Expression, ...]:
    """The expressions of a slot's value, whatever its type."""
    match value:
        case Indexed(_, index):
            return (index,)
        case Position(at):
            return (at,)
        case Spot(_, position, place):
            return (*expressions_in(position), *expressions_in(place))
        case NewNumber(_, low, high):
            return (low, high)
        case tuple():
            return tuple(found for part in value for found in expressions_in(part))
        case str() | bool() | None:
            return ()
    return (value,)  # type: ignore[return-value]
