"""Routine → text, in the one way the language writes it, and Routine ↔ JSON.

The text is the document; the JSON form is derived from it and carries the same: one object a line, tagged by
`step` (or `patter`, `remark`, `empty`, `unread`), blocks in `body`.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from typing import Any

from ..faults import PivotError
from ..steps import REGISTRY, StepKind
from .expressions import Blank
from .routine import EMPTY, PATTER, REMARK, STEP, Line, Routine
from .slots import BLANK_JSON, SLOT_TYPES
from .templates import Flag, Phrases, Slot, Who, sentence_of, slots_in

FORMAT = "golden-pivot routine 1"
INDENT = "  "


def routine_text(routine: Routine) -> str:
    """The whole routine, a line break after every line; what could not be read stands as it was typed."""
    return "".join(f"{line_text(line)}\n" for line in routine.walk())


def line_text(line: Line) -> str:
    margin = INDENT * line.level
    if line.is_ == STEP and line.kind:
        return margin + sentence_of(line.kind.elements, line.values)
    if line.is_ == PATTER:
        return f"{margin}{INDENT}“{line.values['text']}”"
    if line.is_ == REMARK:
        return f"{margin}# {line.values['text']}".rstrip()
    return "" if line.is_ == EMPTY else margin + line.text.strip()


def routine_json(routine: Routine) -> dict[str, Any]:
    return {"format": FORMAT, "lines": [_line_json(line) for line in routine.lines]}


def _line_json(line: Line) -> dict[str, Any]:
    if line.is_ == STEP and line.kind:
        data: dict[str, Any] = {"step": line.kind.name, **_slots_json(line.kind, line.values)}
        if line.kind.opens_block:
            data["body"] = [_line_json(inner) for inner in line.body]
        return data
    if line.is_ in (PATTER, REMARK):
        return {line.is_: line.values["text"]}
    return {EMPTY: True} if line.is_ == EMPTY else {"unread": line.text.strip()}


def _slots_json(kind: StepKind, values: Mapping[str, Any]) -> dict[str, Any]:
    found: dict[str, Any] = {}
    for element in slots_in(kind.elements):
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
    return found


class NotARoutine(PivotError, ValueError):
    """The JSON is not the form of a routine; the message says where."""


def text_from_json(data: Mapping[str, Any]) -> str:
    """The text of a routine given as JSON. Raises NotARoutine naming the line that is not one of ours."""
    if data.get("format") != FORMAT:
        raise NotARoutine(f"this is not a routine: its format is {data.get('format')!r}, expected {FORMAT!r}")
    lines = data.get("lines")
    if not isinstance(lines, list):
        raise NotARoutine("this is not a routine: it has no list of lines")
    return "".join(f"{row}\n" for row in _rows_from_json(lines, 0, ""))


def _rows_from_json(lines: Sequence[Any], level: int, where: str) -> Iterator[str]:
    margin = INDENT * level
    for number, line in enumerate(lines, start=1):
        at = f"{where}{number}"
        try:
            if "step" in line:
                yield margin + _sentence_from_json(line)
                yield from _rows_from_json(line.get("body", []), level + 1, f"{at}.")
            elif "patter" in line:
                yield f"{margin}{INDENT}“{_one_row(line['patter'])}”"
            elif "remark" in line:
                yield f"{margin}# {_one_row(line['remark'])}".rstrip()
            elif "unread" in line:
                yield margin + _one_row(line["unread"])
            else:
                line["empty"]
                yield ""
        except NotARoutine:
            raise
        except (KeyError, TypeError, AttributeError, ValueError, RecursionError) as error:
            raise NotARoutine(f"line {at} of the JSON form is not a line of a routine: {error}") from error


def _one_row(text: Any) -> str:
    return " ".join(str(text).splitlines())


def _sentence_from_json(line: Mapping[str, Any]) -> str:
    kind = REGISTRY[line["step"]]
    values: dict[str, Any] = {}
    for element in slots_in(kind.elements):
        match element:
            case Slot(name, type_name) if name in line:
                values[name] = SLOT_TYPES[type_name].from_json(line[name])
            case Who():
                values["who"] = line["who"]
            case Flag(name, _):
                values[name] = bool(line.get(name))
            case Phrases(_, str(name)):
                values[name] = Blank() if line.get(name) == BLANK_JSON else line.get(name)
    return _one_row(sentence_of(kind.elements, values))
