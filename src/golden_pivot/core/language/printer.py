"""Routine → text, in the one way the language writes it, and Routine ↔ JSON.

The text is the document; the JSON form is derived from it and carries the same: one object a line, tagged by
`step` (or `patter`, `remark`, `empty`, `unread`), blocks in `body`.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from typing import Any

from ..faults import PivotError
from ..steps import REGISTRY
from .routine import EMPTY, PATTER, REMARK, STEP, Line, Routine
from .slot_values import values_from_json, values_json
from .templates import sentence_of

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
        data: dict[str, Any] = {"step": line.kind.name, **values_json(line.kind.elements, line.values)}
        if line.kind.opens_block:
            data["body"] = [_line_json(inner) for inner in line.body]
        return data
    if line.is_ in (PATTER, REMARK):
        return {line.is_: line.values["text"]}
    return {EMPTY: True} if line.is_ == EMPTY else {"unread": line.text.strip()}


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
    return _one_row(sentence_of(kind.elements, values_from_json(kind.elements, line)))
