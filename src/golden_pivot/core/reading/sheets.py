"""A routine that is being written, some of it in everyday words: how each line outside the language can be read."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from rapidfuzz.distance import OSA

from ..language.parser import lines_of, read_routine
from ..language.routine import PATTER, STEP, UNREAD, Line, Routine
from .answer import Answer, Reading
from .kinds_of_line import claims_something, holds_handling, may_mislead
from .reader import read_line
from .situation import Situation, situation_of


@dataclass(frozen=True)
class ReadLine:
    line: int
    """from 1, of the text as it stands"""
    answer: Answer


@dataclass(frozen=True)
class ReadSheet:
    lines: tuple[ReadLine, ...]
    """those that are no sentences of the language and in which something was understood, and those that the language takes for
    something else than a person would"""
    text: str | None
    """the routine with every reading that is sure in place; None where there is none"""
    sure: int
    """how many lines these are"""


NOWHERE = Situation()
LONG_ENOUGH = 4
"""letters of a name in which one that is wrong is more likely a slip than a name of its own"""


def _in_question(before: str, row: str) -> Answer | None:
    """A sentence of the language that says something else to a person: both readings, to be asked; None where it does not."""
    if not may_mislead(row, situation_of(before)):
        return None
    found = read_line(before, row)
    meant = [one for one in found.readings if one.lines != (row.strip(),)]
    return Answer((*meant, Reading((row.strip(),))), asks=True) if meant else None


def in_everyday_words(routine: Routine) -> bool:
    """Whether some line is no sentence of the language, or may be one that a person would take for something else."""
    return any(map(_wants_reading, routine.walk())) or any(_misspelt_heaps(routine))


def _misspelt_heaps(routine: Routine) -> Iterator[tuple[int, str]]:
    """(line, the row as it was meant) where a new heap is called nearly as one that was there before."""
    known = ["deck"]
    for line in routine.walk():
        for slot, kind, start, end in line.spans:
            name = line.values.get(slot)
            if line.is_ != STEP or kind != "place" or not isinstance(name, str) or name in known:
                continue
            if meant := next((one for one in known if _is_slip(name, one)), None):
                yield line.number, line.text[:start] + meant + line.text[end:]
            known.append(name)


def _is_slip(name: str, known: str) -> bool:
    """One letter wrong, left out, too many, or two of them the other way round."""
    return len(name) >= LONG_ENOUGH and name.isalpha() and known.isalpha() and OSA.distance(name, known) == 1


def _wants_reading(line: Line) -> bool:
    row = line.text.strip()
    if line.is_ == PATTER:
        return holds_handling(row)
    if line.is_ == STEP:
        return may_mislead(row, NOWHERE) or (row.lower().startswith("note:") and claims_something(row))
    return line.is_ == UNREAD


def read_sheet(text: str, keep_words: bool = False) -> ReadSheet:
    """Each line is read behind those above it, with what is sure of them in place; the words may be kept as a remark above."""
    routine = read_routine(text)
    wanting = {line.number: line.is_ for line in routine.walk() if _wants_reading(line)}
    misspelt = dict(_misspelt_heaps(routine))
    found: list[ReadLine] = []
    rows: list[str] = []
    sure = 0
    for number, row in enumerate(lines_of(text), start=1):
        answer = None
        if number in wanting:
            answer = (read_line if wanting[number] == UNREAD else _in_question)("\n".join(rows), row)
        elif number in misspelt:
            answer = Answer((Reading((misspelt[number].strip(),)), Reading((row.strip(),))), asks=True)
        if answer and (answer.readings or answer.cannot):
            found.append(ReadLine(number, answer))
        if answer and answer.is_sure:
            margin = row[: len(row) - len(row.lstrip())]
            rows += [f"{margin}# {row.strip()}"] if keep_words else []
            rows += [margin + line for line in answer.readings[0].lines]
            sure += 1
        else:
            rows.append(row)
    return ReadSheet(tuple(found), "".join(f"{row}\n" for row in rows) if sure else None, sure)
