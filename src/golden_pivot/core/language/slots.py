"""What may stand in the gaps of a sentence: numbers, places, cards, positions …

Each slot type reads its value from the words of a line, writes it back, and turns it into JSON and back. A
type is declared once here; sentences refer to it by name.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ..cards import RANKS, SUITS, ordinal
from ..expressions import (
    KEYWORDS,
    Blank,
    Expression,
    Number,
    expression_from_json,
    expression_json,
    expression_text,
    read_expression,
)
from .words import Word


class NotHere(Exception):
    """The words at `at` (an index into the line's words) do not go on as this slot needs."""

    def __init__(self, at: int, expected: str) -> None:
        super().__init__(expected)
        self.at, self.expected = at, expected


@dataclass(frozen=True)
class Position:
    """A position in a heap: the `at`-th from the top or from the bottom, counted from 1."""

    at: Expression
    end: str = "top"


@dataclass(frozen=True)
class Spot:
    """A card pointed out by where it is: the next card, the last card dealt, or one at a position in a place."""

    kind: str
    """next, last or at"""
    position: Position | None = None
    place: str | None = None


@dataclass(frozen=True)
class NewNumber:
    """A number that comes into being here, anything from `low` to `high`, both included."""

    name: str
    low: Expression
    high: Expression


@dataclass(frozen=True)
class SlotType:
    name: str
    label: str
    """how a person would call it, for error messages and the documentation"""
    read: Callable[[Sequence[Word], int], tuple[Any, int]]
    """(words, first) → (value, index behind it); raises NotHere"""
    write: Callable[[Any], str]
    to_json: Callable[[Any], Any]
    from_json: Callable[[Any], Any]
    fresh: str
    """what a new sentence has here until the designer fills it in"""


RESERVED = KEYWORDS | {
    "the",
    "spectator",
    "card",
    "cards",
    "top",
    "bottom",
    "from",
    "to",
    "on",
    "under",
    "over",
    "next",
    "last",
    "rest",
    "and",
    "or",
    "their",
    "each",
    "in",
    "with",
    "is",
    "times",
    "as",
}
"""Words of the sentences that cannot also be names, so that a sentence has one meaning."""


def _text_at(words: Sequence[Word], i: int) -> str:
    return words[i].lower if i < len(words) else ""


def _number(words: Sequence[Word], i: int) -> tuple[Expression, int]:
    found = read_expression([word.text for word in words[i:]])
    if isinstance(found, int):
        raise NotHere(i + found, "a number" if found == 0 else "the rest of the number")
    return found[0], i + found[1]


def _identifier(words: Sequence[Word], i: int, expected: str) -> str:
    if i < len(words) and words[i].kind == "word" and words[i].lower not in RESERVED:
        return words[i].text
    raise NotHere(i, expected)


def _place(words: Sequence[Word], i: int) -> tuple[str, int]:
    i += _text_at(words, i) == "the"
    name = _identifier(words, i, "a place, such as deck")
    if i + 1 < len(words) and words[i + 1].kind == "number" and name.islower():
        return f"{name} {words[i + 1].text}", i + 2
    return name, i + 1


_RANK_WORDS = {rank: rank for rank in RANKS} | {str(n): RANKS[n - 1] for n in range(2, 11)}
_PLURAL_OF = {suit: suit for suit in SUITS} | {suit[:-1]: suit for suit in SUITS}


def _card(words: Sequence[Word], i: int) -> tuple[str, int]:
    expected = "a card: a name in capitals such as FORCE, or one such as queen of hearts"
    start = i + (_text_at(words, i) == "the")
    if _text_at(words, start) == "their" and _text_at(words, start + 1) == "card":
        return "their card", start + 2
    rank = _RANK_WORDS.get(_text_at(words, start))
    if rank and _text_at(words, start + 1) == "of":
        suit = _PLURAL_OF.get(_text_at(words, start + 2))
        if not suit:
            raise NotHere(start + 2, "a suit: clubs, diamonds, hearts or spades")
        return f"{rank} of {suit}", start + 3
    name = _identifier(words, i, expected)
    if not name.isupper():
        raise NotHere(i, expected)
    return name, i + 1


def _new_name(words: Sequence[Word], i: int) -> tuple[str, int]:
    name = _identifier(words, i, "a name for the number, such as n")
    if not name[0].islower():
        raise NotHere(i, "a name for the number in small letters, such as n")
    return name, i + 1


def _names(words: Sequence[Word], i: int) -> tuple[tuple[str, ...], int]:
    name, i = _new_name(words, i)
    found = [name]
    while _text_at(words, i) in (",", "and"):
        name, i = _new_name(words, i + 1)
        found.append(name)
    return tuple(found), i


def _range(words: Sequence[Word], i: int) -> tuple[NewNumber, int]:
    name, i = _new_name(words, i)
    if _text_at(words, i) != "from":
        raise NotHere(i, "“from”")
    low, i = _number(words, i + 1)
    if _text_at(words, i) != "to":
        raise NotHere(i, "“to”")
    high, i = _number(words, i + 1)
    return NewNumber(name, low, high), i


def _end(words: Sequence[Word], i: int) -> tuple[str, int]:
    """`from the top`, `from the bottom`, or nothing, which means the top."""
    if _text_at(words, i) == "from" and _text_at(words, i + 1) == "the":
        end = _text_at(words, i + 2)
        if end not in ("top", "bottom"):
            raise NotHere(i + 2, "“top” or “bottom”")
        return end, i + 3
    return "top", i


def _counted(words: Sequence[Word], i: int) -> tuple[Expression, int] | None:
    """An ordinal such as `10th`, or `?th`."""
    if i < len(words) and words[i].kind == "ordinal":
        return Number(int(words[i].text[:-2])), i + 1
    if _text_at(words, i) == "?" and _text_at(words, i + 1) == "th":
        return Blank(), i + 2
    return None


def _position(words: Sequence[Word], i: int) -> tuple[Position, int]:
    first, second, third = (_text_at(words, i + k) for k in range(3))
    if first == "on" and second == "top":
        return Position(Number(1)), i + 2
    if first == "at" and second == "the" and third in ("top", "bottom"):
        return Position(Number(1), third), i + 3
    if first == "at" and second == "position":
        at, i = _number(words, i + 2)
    elif counted := _counted(words, i):
        at, i = counted
    else:
        raise NotHere(i, "a position, such as 10th, on top, at the bottom, or at position n")
    end, i = _end(words, i)
    return Position(at, end), i


def _position_text(position: Position) -> str:
    match position:
        case Position(Number(1), "top"):
            return "on top"
        case Position(Number(1), "bottom"):
            return "at the bottom"
    return f"{_at_text(position)}{'' if position.end == 'top' else ' from the bottom'}"


def _at_text(position: Position) -> str:
    match position.at:
        case Number(value):
            return ordinal(value)
        case Blank():
            return "?th"
    return f"at position {expression_text(position.at)}"


def _spot(words: Sequence[Word], i: int) -> tuple[Spot, int]:
    expected = "a card such as the next card, the last card dealt, the top card of deck, or the 5th card of deck"
    if _text_at(words, i) != "the":
        raise NotHere(i, expected)
    i += 1
    if _text_at(words, i) in ("next", "last"):
        kind = _text_at(words, i)
        wanted = ("next", "card") if kind == "next" else ("last", "card", "dealt")
        for offset, word in enumerate(wanted):
            if _text_at(words, i + offset) != word:
                raise NotHere(i + offset, f"“{word}”")
        return Spot(kind), i + len(wanted)
    if _text_at(words, i) in ("top", "bottom"):
        at: Expression | None = Number(1)
        end, i = _text_at(words, i), i + 1
    elif counted := _counted(words, i):
        at, i = counted
        end = "top"
    else:
        at, end = None, "top"
    if _text_at(words, i) != "card":
        raise NotHere(i, expected if at is None else "“card”")
    i += 1
    if at is None:
        if (_text_at(words, i), _text_at(words, i + 1)) != ("at", "position"):
            raise NotHere(i, "“at position”")
        at, i = _number(words, i + 2)
    if end == "top":
        end, i = _end(words, i)
    if _text_at(words, i) not in ("of", "in"):
        raise NotHere(i, "“of” and a place")
    place, i = _place(words, i + 1)
    return Spot("at", Position(at, end), place), i


def spot_text(spot: Spot) -> str:
    if spot.kind == "next":
        return "the next card"
    if spot.kind == "last":
        return "the last card dealt"
    assert spot.position is not None
    at, end = spot.position.at, spot.position.end
    tail = "" if end == "top" else " from the bottom"
    match at:
        case Number(1):
            return f"the {end} card of {spot.place}"
        case Number() | Blank():
            return f"the {_at_text(spot.position)} card{tail} of {spot.place}"
    return f"the card {_at_text(spot.position)}{tail} of {spot.place}"


def _text(words: Sequence[Word], i: int) -> tuple[str, int]:
    raise NotHere(i, "some words")  # read by the matcher, which has the line itself


def _position_json(position: Position) -> dict[str, Any]:
    return {"at": expression_json(position.at), "end": position.end}


def _position_from_json(data: Mapping[str, Any]) -> Position:
    return Position(expression_from_json(data["at"]), "bottom" if data["end"] == "bottom" else "top")


def _spot_json(spot: Spot) -> dict[str, Any]:
    if spot.position is None:
        return {"spot": spot.kind}
    return {"spot": spot.kind, "place": spot.place, **_position_json(spot.position)}


def _spot_from_json(data: Mapping[str, Any]) -> Spot:
    if data["spot"] in ("next", "last"):
        return Spot(data["spot"])
    return Spot("at", _position_from_json(data), str(data["place"]))


def _range_json(new: NewNumber) -> dict[str, Any]:
    return {"name": new.name, "low": expression_json(new.low), "high": expression_json(new.high)}


def _range_from_json(data: Mapping[str, Any]) -> NewNumber:
    return NewNumber(str(data["name"]), expression_from_json(data["low"]), expression_from_json(data["high"]))


def _range_text(new: NewNumber) -> str:
    return f"{new.name} from {expression_text(new.low)} to {expression_text(new.high)}"


SLOT_TYPES: Mapping[str, SlotType] = {
    slot.name: slot
    for slot in (
        SlotType("number", "a number", _number, expression_text, expression_json, expression_from_json, "?"),
        SlotType("place", "a place", _place, str, str, str, "deck"),
        SlotType("card", "a card", _card, str, str, str, "FORCE"),
        SlotType("names", "one or more numbers by name", _names, ", ".join, list, tuple, "n"),
        SlotType(
            "range",
            "a new number with its range",
            _range,
            _range_text,
            _range_json,
            _range_from_json,
            "n from ? to ?",
        ),
        SlotType("position", "a position", _position, _position_text, _position_json, _position_from_json, "?th"),
        SlotType("spot", "a card by where it is", _spot, spot_text, _spot_json, _spot_from_json, "the next card"),
        SlotType("text", "words", _text, str, str, str, "…"),
    )
}


def expressions_in(value: Any) -> tuple[Expression, ...]:
    """The expressions of a slot's value, whatever its type."""
    match value:
        case Position(at):
            return (at,)
        case Spot(_, Position(at)):
            return (at,)
        case NewNumber(_, low, high):
            return (low, high)
        case str() | tuple() | bool() | None | Spot():
            return ()
    return (value,)
