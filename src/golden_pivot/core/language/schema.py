"""The JSON Schema of a routine's JSON form, written from the declarations."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ..cards import RANKS, SUITS
from ..steps import REGISTRY, StepKind
from .arithmetic import FIGURES
from .claims import JOINTS, MOST_JOINED, kinds_of_claims
from .expressions import CARD_FACTS
from .phrases import COLOURS_AND_SUITS, ENDS, OPEN
from .printer import FORMAT
from .slots import SPOT_KINDS
from .sorts import SORTS
from .templates import MOST_PEOPLE, PERFORMER, PERSON, SPECTATOR, Element, Flag, Optional, Person, Phrases, Slot, Who

_TEXT = {"type": "string"}
_EXPRESSION = {"$ref": "#/$defs/expression"}


def _object(properties: dict[str, Any], optional: Sequence[str] = ()) -> dict[str, Any]:
    required = [name for name in properties if name not in optional]
    return {"type": "object", "properties": properties, "required": required, "additionalProperties": False}


def _op(op: str, /, **parts: Any) -> dict[str, Any]:
    return _object({"op": {"const": op}, **parts})


_DEFS: dict[str, Any] = {
    "expression": {
        "oneOf": [
            _op("number", value={"type": "integer", "minimum": 0}),
            _op("blank"),
            _op("name", name=_TEXT),
            _op("letters", word=_TEXT),
            _op("size", place={"$ref": "#/$defs/place"}),
            *(_op(fact, card=_TEXT) for fact in CARD_FACTS),
            *(_op(fact, of={"$ref": "#/$defs/spot"}) for fact in CARD_FACTS),
            _op("piles"),
            _op("count", sort={"enum": list(SORTS)}, place={"$ref": "#/$defs/place"}),
            _op("half", of=_EXPRESSION, rounded={"enum": ["up", "down"]}),
            _op("remainder", of=_EXPRESSION, by=_EXPRESSION),
            _op("quotient", of=_EXPRESSION, by=_EXPRESSION),
            *(_op(what, of=_EXPRESSION) for what in FIGURES),
            *(_op(op, left=_EXPRESSION, right=_EXPRESSION) for op in ("+", "-", "*", "^", "min", "max")),
        ]
    },
    "place": {"oneOf": [_TEXT, _object({"base": _TEXT, "index": _EXPRESSION})]},
    "position": _object({"at": _EXPRESSION, "end": {"enum": list(ENDS)}}),
    "spot": _object(
        {
            "spot": {"enum": list(SPOT_KINDS)},
            "place": {"$ref": "#/$defs/place"},
            "at": _EXPRESSION,
            "end": {"enum": list(ENDS)},
            "steps": {"type": "array", "items": _EXPRESSION, "minItems": 1, "maxItems": 2},
        },
        optional=("place", "at", "end", "steps"),
    ),
    "range": _object({"name": _TEXT, "low": _EXPRESSION, "high": _EXPRESSION}),
}

_SORT = {"enum": [*COLOURS_AND_SUITS, OPEN]}


_SLOTS: dict[str, Any] = (
    {
        "number": _EXPRESSION,
        "places": {"type": "array", "items": {"$ref": "#/$defs/place"}, "minItems": 1},
        "cards": {"type": "array", "items": _TEXT, "minItems": 1},
        "suits": {"type": "array", "items": {"enum": [*SUITS, OPEN]}, "minItems": 1},
        "words": {"type": "array", "items": _TEXT, "minItems": 1},
        "sorts": {"type": "array", "items": _SORT, "minItems": 1},
        "blocks": {
            "type": "array",
            "items": _object({"many": {"type": "integer", "minimum": 0}, "sort": _SORT}),
            "minItems": 1,
        },
        "rank": {"enum": list(RANKS)},
        "listed": {"type": "array", "items": _TEXT, "minItems": 1},
        "together": {"type": "array", "items": _TEXT, "minItems": 1},
        "names": {"type": "array", "items": _TEXT, "minItems": 1},
        "claims": {
            "oneOf": [
                _object(
                    {
                        how: {
                            "type": "array",
                            "items": {"$ref": "#/$defs/claim"},
                            "minItems": 2,
                            "maxItems": MOST_JOINED,
                        }
                    }
                )
                for how in JOINTS
            ]
        },
    }
    | {key: {"$ref": "#/$defs/claim"} for key in ("claim", "asked", "anything")}
    | {name: {"$ref": f"#/$defs/{name}"} for name in ("place", "position", "spot", "range")}
)


_PERSON = (PERSON, {"type": "integer", "minimum": 1, "maximum": MOST_PEOPLE}, True)


def _values(elements: Sequence[Element], optional: bool = False) -> list[tuple[str, Any, bool]]:
    """(name, schema, may be left out) of everything a sentence carries."""
    found: list[tuple[str, Any, bool]] = []
    for element in elements:
        match element:
            case Optional(inside):
                found += _values(inside, optional=True)
            case Who():
                found.append(("who", {"enum": [PERFORMER, SPECTATOR]}, optional))
                found.append(_PERSON)
            case Person():
                found.append(_PERSON)
            case Flag(name, _):
                found.append((name, {"const": True}, True))
            case Phrases(options, str(name)):
                found.append((name, _blank_or({"enum": [" ".join(option) for option in options]}), optional))
            case Slot(name, type_name):
                schema = _SLOTS.get(type_name, _TEXT)
                found.append(
                    (name, schema if type_name in ("number", "range", "text") else _blank_or(schema), optional)
                )
    return found


def _blank_or(schema: Any) -> Any:
    return {"anyOf": [schema, _op("blank")]}


def _line(kind: StepKind) -> dict[str, Any]:
    values = _values(kind.elements)
    properties = {"step": {"const": kind.name}} | {name: schema for name, schema, _ in values}
    if kind.opens_block:
        properties["body"] = {"type": "array", "items": {"$ref": "#/$defs/line"}}
    return _object(properties, [name for name, _, optional in values if optional]) | {"description": kind.summary}


def routine_schema() -> dict[str, Any]:
    """JSON Schema (2020-12) of what `document_of` writes and `text_of` reads."""
    plain = [_object({name: _TEXT}) for name in ("patter", "remark", "unread")]
    lines = [*map(_line, REGISTRY.values()), *plain, _object({"empty": {"const": True}})]
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "A routine of Golden Pivot",
        **_object(
            {
                "format": {"const": FORMAT},
                "lines": {"type": "array", "items": {"$ref": "#/$defs/line"}},
                "as_written": {**_TEXT, "description": "the text, where its wording or layout is its own"},
            },
            ["as_written"],
        ),
        "$defs": {**_DEFS, "line": {"oneOf": lines}, "claim": {"oneOf": [*map(_line, kinds_of_claims().values())]}},
    }
