"""A line in words that are spoken to a spectator: how it is asked for, and what whoever does it sees.

A kind of step declares `says` and `sees` with the words of its slots in braces:

{slot}      what stands there, in spoken words: places with an article, numbers the performer does not know as *your number*
{>to}       the same of a place, with *onto* or *into*
{#count}    card or cards
{secretly}  that it is to be kept from the performer, where the line says so
[ … ]       left out unless every slot inside is filled
"""

from __future__ import annotations

import re
from collections.abc import Set
from typing import Any

from ..english import list_text
from .expressions import Binary, Expression, Name, Number, expression_text, within
from .phrases import place_text, position_text, spot_text
from .routine import Line
from .slots import SLOT_TYPES
from .templates import PERFORMER, PERSON, sentence_of
from .values import Indexed, NewNumber, PlaceName, Position, Spot, expressions_in

SECRETLY = ", and keep it to yourself"
INTO = ("hand", "pocket", "box")
_SPOKEN = {"deck": "the pack", "hand": "your hand", "pocket": "your pocket"}
_VERBS = {"tells": "tell me", "notes": "note", "thinks of": "think of", "you say": "I say", "the spectator says": "you say"}  # fmt: skip


def seen_in(line: Line) -> str:
    """What only whoever does it sees in this line; empty for nothing."""
    said = _in_words(line, line.kind.sees, set()) if line.kind else ""
    return said.replace("your hand", "the hand").replace("your pocket", "the pocket")


def request_of(line: Line, hidden: Set[str]) -> str:
    """`hidden`: numbers by name that the performer does not know."""
    assert line.kind
    said = _in_words(line, line.kind.says, hidden) if line.kind.says else _imperative(line)
    return said[:1].upper() + said[1:]


def _imperative(line: Line) -> str:
    """The sentence itself, without its subject."""
    assert line.kind
    spoken = {slot: _place(line.values[slot]) for slot, type_name, _, _ in line.spans if type_name == "place"}
    said = sentence_of(
        line.kind.elements, {**line.values, **spoken, "who": PERFORMER, "secretly": False, PERSON: None}
    )
    return said.partition(":")[0].removeprefix("Spectator ").strip() + "."


def _in_words(line: Line, template: str, hidden: Set[str]) -> str:
    types = {slot: type_name for slot, type_name, _, _ in line.spans}
    new = next((value for value in line.values.values() if isinstance(value, NewNumber)), None)

    def words(slot: str) -> str | None:
        if slot == "secretly":
            return SECRETLY if line.values.get("secretly") else ""
        value = line.values.get(slot.lstrip(">#"))
        if value is None:
            return None
        if slot.startswith("#"):
            return "card" if value == Number(1) else "cards"
        if slot.startswith(">"):
            return f"{'into' if value in INTO else 'onto'} {_place(value, hidden)}"
        if new and value == Name(new.name):
            return "some"
        return _said(types.get(slot, "phrase"), value, hidden)

    return _filled(template, words)


def _filled(template: str, words: Any) -> str:
    def part(match: re.Match[str]) -> str:
        slots = re.findall(r"\{([^{}]+)\}", match[1])
        return match[1] if all(words(slot) is not None for slot in slots) else ""

    kept = re.sub(r"\[([^\[\]]*)\]", part, template)
    return re.sub(r"\{([^{}]+)\}", lambda slot: words(slot[1]) or "", kept)


def _said(type_name: str, value: Any, hidden: Set[str]) -> str:
    match value:
        case NewNumber(_, low, high):
            if low == high:
                return f"(only {_number(low, hidden)})"
            return f"from {_number(low, hidden)} to {_number(high, hidden)}"
        case Position():
            return _with_fields(position_text(value), value, hidden)
        case Spot():
            return _with_fields(_places_named(spot_text(value), value), value, hidden)
        case tuple() if type_name == "places":
            return list_text([_place(one, hidden) for one in value])
    match type_name:
        case "place":
            return _place(value, hidden)
        case "number":
            return _number(value, hidden)
        case "card":
            return "your card" if value == "their card" else str(value)
        case "phrase":
            return str(_VERBS.get(value, value.removesuffix("s") if value in ("names", "chooses") else value))
    return SLOT_TYPES[type_name].write(value)


def _place(where: PlaceName, hidden: Set[str] = frozenset()) -> str:
    match where:
        case Indexed(base, Binary("-", Number(3), Name())):
            return f"the other {base}"
    name = _with_fields(place_text(where), where, hidden)
    return _SPOKEN.get(name, name if re.search(r"[\d ]", name) else f"the {name}")


def spoken_place(name: str) -> str:
    """
    >>> spoken_place("deck"), spoken_place("dealt")
    ('the pack', 'the cards dealt')
    """
    return "the cards dealt" if name == "dealt" else _place(name)


def _places_named(text: str, spot: Spot) -> str:
    if spot.place is None:
        return text
    name = place_text(spot.place)
    named = "on the table" if name == "table" else f"of {spoken_place(name)}"
    return text.replace("the face of", "the bottom card of").replace(f"of {name}", named, 1)


def _number(number: Expression, hidden: Set[str]) -> str:
    if isinstance(number, Name) and number.name in hidden:
        return "your number of"
    return _with_fields(expression_text(number), number, hidden)


def _with_fields(text: str, value: Any, hidden: Set[str]) -> str:
    """Names of numbers as fields, or as *your number* where the performer does not know them."""
    names = {part.name for one in expressions_in(value) for part in within(one) if isinstance(part, Name)}
    for name in names:
        text = re.sub(rf"\b{name}\b", "your number" if name in hidden else f"{{{name}}}", text)
    return text
