"""What a sentence carries in its gaps, as JSON and back."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from .expressions import Blank
from .slots import BLANK_JSON, SLOT_TYPES
from .templates import PERSON, Element, Flag, Phrases, Slot, Who, may_say_who, slots_in


def values_json(elements: Sequence[Element], values: Mapping[str, Any]) -> dict[str, Any]:
    """One entry for every gap that is filled, under its name."""
    found: dict[str, Any] = {}
    for element in slots_in(elements):
        match element:
            case Who():
                found["who"] = values["who"]
            case Flag(name, _):
                if values.get(name):
                    found[name] = True
            case Phrases(_, str(name)):
                if values.get(name) is not None:
                    found[name] = BLANK_JSON if isinstance(values[name], Blank) else values[name]
            case Slot(name, type_name):
                if values.get(name) is not None:
                    found[name] = SLOT_TYPES[type_name].to_json(values[name])
    if values.get(PERSON):
        found[PERSON] = values[PERSON]
    return found


def values_from_json(elements: Sequence[Element], data: Mapping[str, Any]) -> dict[str, Any]:
    """The inverse of `values_json`. Raises KeyError, TypeError or ValueError on anything it would not have written."""
    values: dict[str, Any] = {}
    for element in slots_in(elements):
        match element:
            case Slot(name, type_name) if name in data:
                values[name] = SLOT_TYPES[type_name].from_json(data[name])
            case Who():
                values["who"] = data["who"]
            case Flag(name, _):
                values[name] = bool(data.get(name))
            case Phrases(_, str(name)):
                values[name] = Blank() if data.get(name) == BLANK_JSON else data.get(name)
    if PERSON in data and may_say_who(elements):
        values[PERSON] = int(data[PERSON])
    return values
