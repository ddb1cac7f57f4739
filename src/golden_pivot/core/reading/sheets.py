"""A routine that is being written, some of it in everyday words: how each line outside the language can be read."""

from __future__ import annotations

from dataclasses import dataclass

from ..language.parser import lines_of, read_routine
from ..language.routine import UNREAD
from .reader import Answer, read_line


@dataclass(frozen=True)
class ReadLine:
    line: int
    """from 1, of the text as it stands"""
    answer: Answer


@dataclass(frozen=True)
class ReadSheet:
    lines: tuple[ReadLine, ...]
    """those that are no sentences of the language, and in which something was understood"""
    text: str | None
    """the routine with every reading that is sure in place; None where there is none"""
    sure: int
    """how many lines these are"""


def read_sheet(text: str) -> ReadSheet:
    """Each line is read behind those above it, with what is sure of them in place."""
    unread = {line.number for line in read_routine(text).walk() if line.is_ == UNREAD}
    found: list[ReadLine] = []
    rows: list[str] = []
    sure = 0
    for number, row in enumerate(lines_of(text), start=1):
        answer = read_line("\n".join(rows), row) if number in unread else None
        if answer and (answer.readings or answer.cannot):
            found.append(ReadLine(number, answer))
        if answer and answer.is_sure:
            margin = row[: len(row) - len(row.lstrip())]
            rows += [margin + line for line in answer.readings[0].lines]
            sure += 1
        else:
            rows.append(row)
    return ReadSheet(tuple(found), "".join(f"{row}\n" for row in rows) if sure else None, sure)
