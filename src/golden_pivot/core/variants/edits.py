"""A change of a routine's text, as the designer would make it by hand."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..language.expressions import Number
from ..language.parser import lines_of
from ..language.routine import Line
from ..language.slots import SLOT_TYPES
from ..language.values import NewNumber


@dataclass(frozen=True)
class Edit:
    """The lines from `first` to `last` (from 1, both included) become these rows; `last` = `first` − 1 only adds."""

    first: int
    last: int
    rows: tuple[str, ...]


def edited(text: str, edit: Edit) -> str:
    rows = lines_of(text)
    return "\n".join([*rows[: edit.first - 1], *edit.rows, *rows[edit.last :]]) + "\n"


def last_line(line: Line) -> int:
    """Number of the last line of its block, or its own."""
    return max([line.number, *(last_line(inner) for inner in line.body)])


def with_slots(line: Line, texts: Sequence[tuple[str, str]]) -> str:
    """The row with other words in some of its slots, given as (slot, text). A slot stands once in a row."""
    row = line.text
    wanted = dict(texts)
    for name, _, start, end in sorted(line.spans, key=lambda span: -span[2]):
        if name in wanted:
            row = row[:start] + wanted[name] + row[end:]
    return row


def slot_text(line: Line, slot: str) -> str:
    """The words in a slot as they stand in the row; empty where it is left out."""
    return next((line.text[start:end] for name, _, start, end in line.spans if name == slot), "")


def with_range(line: Line, slot: str, new: NewNumber, run: tuple[int, int]) -> str:
    """The row with another range, first and last, for the new number in this slot."""
    return with_slots(line, [(slot, SLOT_TYPES["range"].write(NewNumber(new.name, Number(run[0]), Number(run[1]))))])
