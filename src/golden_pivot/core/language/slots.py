"""What may stand in the gaps of a sentence: numbers, places, cards, positions …

Each slot type reads its value from the words of a line, writes it back, and turns it into JSON and back. A
type is declared once here; sentences refer to it by name.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from ..english import list_text
from . import phrases
from .expressions import (
    Blank,
    expression_from_json,
    expression_json,
    expression_text,
    place_from_json,
    place_json,
    spots_are_written,
)
from .phrases import ENDS, NotHere, place_text
from .values import NewNumber, PlaceName, Position, Spot
from .words import Word


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


def _text(words: Sequence[Word], i: int) -> tuple[str, int]:
    raise NotHere(i, "some words")  # read by the matcher, which has the line itself


def _position_json(position: Position) -> dict[str, Any]:
    return {"at": expression_json(position.at), "end": position.end}


def _position_from_json(data: Mapping[str, Any]) -> Position:
    if data["end"] not in ENDS:
        raise ValueError(f"a position counts from one of {', '.join(ENDS)}, not from {data['end']!r}")
    return Position(expression_from_json(data["at"]), data["end"])


SPOT_KINDS = ("next", "last", "back", "face", "at", "on", "before", "cell")


def _spot_json(spot: Spot) -> dict[str, Any]:
    found: dict[str, Any] = {"spot": spot.kind}
    if spot.place is not None:
        found["place"] = place_json(spot.place)
    if spot.steps:
        found["steps"] = [expression_json(one) for one in spot.steps]
    return found | (_position_json(spot.position) if spot.position else {})


def _spot_from_json(data: Mapping[str, Any]) -> Spot:
    if data["spot"] not in SPOT_KINDS:
        raise ValueError(f"unknown kind of spot {data['spot']!r}")
    place = place_from_json(data["place"]) if "place" in data else None
    steps = tuple(expression_from_json(one) for one in data.get("steps", ()))
    if len(steps) != {"cell": 2, "on": 1, "before": 1}.get(data["spot"], 0):
        raise ValueError(f"{len(steps)} steps are none of a spot of the kind {data['spot']!r}")
    return Spot(data["spot"], _position_from_json(data) if "at" in data else None, place, steps)


def _range_json(new: NewNumber) -> dict[str, Any]:
    return {"name": new.name, "low": expression_json(new.low), "high": expression_json(new.high)}


def _range_from_json(data: Mapping[str, Any]) -> NewNumber:
    return NewNumber(str(data["name"]), expression_from_json(data["low"]), expression_from_json(data["high"]))


def _places_text(where: Sequence[PlaceName]) -> str:
    return ", ".join(map(place_text, where))


def _places_json(where: Sequence[PlaceName]) -> list[Any]:
    return [place_json(one) for one in where]


def _places_from_json(data: Sequence[Any]) -> tuple[PlaceName, ...]:
    return tuple(place_from_json(one) for one in data)


def _words_text(words: Sequence[str]) -> str:
    return ", ".join(f"“{word}”" for word in words)


def _blocks_json(blocks: Sequence[tuple[int, str]]) -> list[Any]:
    return [{"many": many, "sort": sort} for many, sort in blocks]


def _blocks_from_json(data: Sequence[Any]) -> tuple[tuple[int, str], ...]:
    return tuple((int(one["many"]), str(one["sort"])) for one in data)


def _or_text(names: Sequence[str]) -> str:
    return list_text(list(names), "or")


_DECLARED = (
    SlotType("number", "a number", phrases.number, expression_text, expression_json, expression_from_json, "?"),
    SlotType("place", "a place", phrases.place, place_text, place_json, place_from_json, "deck"),
    SlotType("places", "several places", phrases.places, _places_text, _places_json, _places_from_json,
             "pile 1, pile 2"),
    SlotType("card", "a card", phrases.card, str, str, str, "FORCE"),
    SlotType("cards", "one or more cards", phrases.cards, _or_text, list, tuple, "FORCE"),
    SlotType("together", "one or more cards", phrases.cards, list_text, list, tuple, "FORCE"),
    SlotType("listed", "cards one after the other", phrases.cards, ", ".join, list, tuple, "FORCE"),
    SlotType("name", "a new name for a number", phrases.new_name, str, str, str, "n"),
    SlotType("names", "one or more numbers by name", phrases.names, ", ".join, list, tuple, "n"),
    SlotType("range", "a new number with its range", phrases.new_range, phrases.range_text, _range_json,
             _range_from_json, "n from ? to ?"),
    SlotType("position", "a position", phrases.position, phrases.position_text, _position_json,
             _position_from_json, "?th"),
    SlotType("spot", "a card by where it is", phrases.spot, phrases.spot_text, _spot_json, _spot_from_json,
             "the next card"),
    SlotType("suits", "one or more suits", phrases.suits, ", ".join, list, tuple, "clubs, hearts"),
    SlotType("sorts", "colours or suits", phrases.sorts, ", ".join, list, tuple, "red, black"),
    SlotType("blocks", "how many of each colour or suit", phrases.blocks, phrases.blocks_text, _blocks_json,
             _blocks_from_json, "26 red cards, 26 black cards"),
    SlotType("rank", "a value", phrases.rank, str, str, str, "ace"),
    SlotType("positions", "one or more positions", phrases.positions, phrases.positions_text, list, tuple, "1 to 4"),
    SlotType("word", "a word in quotation marks", phrases.quoted, lambda word: f"“{word}”", str, str, "“lantern”"),
    SlotType("words", "words in quotation marks", phrases.quoted_words, _words_text, list, tuple, "“yes”, “no”"),
    SlotType("text", "words", _text, str, str, str, "…"),
)  # fmt: skip


OF_CARDS = ("card", "cards", "together", "listed")
"""types of slots in which cards stand by their names"""
BLANK_JSON = expression_json(Blank())


def or_blank(slot: SlotType) -> SlotType:
    """The same, or a `?` by itself, for a blank."""

    def read(words: Sequence[Word], i: int) -> tuple[Any, int]:
        try:
            return slot.read(words, i)
        except NotHere:
            if i < len(words) and words[i].lower == "?":
                return Blank(), i + 1
            raise

    return replace(
        slot,
        read=read,
        write=lambda value: "?" if isinstance(value, Blank) else slot.write(value),
        to_json=lambda value: BLANK_JSON if isinstance(value, Blank) else slot.to_json(value),
        from_json=lambda data: Blank() if data == BLANK_JSON else slot.from_json(data),
    )


SLOT_TYPES: dict[str, SlotType] = {
    slot.name: slot if slot.name in ("number", "range", "text") else or_blank(slot) for slot in _DECLARED
}
"""claims.py adds those that stand for whole sentences"""

spots_are_written(SLOT_TYPES["spot"])
