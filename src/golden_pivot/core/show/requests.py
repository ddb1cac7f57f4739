"""What one may say so that the spectator does what a line says, where the designer has not written it.

See language/spoken.py for the words.
"""

from __future__ import annotations

from ..language.expressions import Name, Number
from ..language.facets import Facet
from ..language.kinds import ENDING
from ..language.parser import lines_of, read_routine
from ..language.printer import INDENT
from ..language.routine import PATTER, STEP, Line, Routine
from ..language.spoken import request_of
from ..language.templates import SPECTATOR
from ..language.values import NewNumber, expressions_in


def asks_spectator(line: Line) -> bool:
    """The spectator acts or decides in this line."""
    return line.kind is not None and line.kind.actor(line.values) == SPECTATOR


def requests_of(routine: Routine) -> dict[int, str]:
    """Line → what one may say there: where the spectator acts or decides, and where an ending is to be shown."""
    hidden: set[str] = set()
    found: dict[int, str] = {}
    for line in routine.walk():
        if line.is_ != STEP or not line.kind:
            continue
        shown = line.kind.phase == ENDING and line.kind.says and not _is_reckoned(line)
        if asks_spectator(line) or shown:
            found[line.number] = request_of(line, hidden)
        if line.has(Facet.TELLS):
            hidden -= set(line.values["names"])
        elif line.values.get("secretly") or line.values.get("verb") == "notes":
            hidden |= new_numbers(line)
    return found


def _is_reckoned(line: Line) -> bool:
    """It speaks of sums, which nobody says aloud."""
    return any(
        not isinstance(one, Name | Number) for slot, *_ in line.spans for one in expressions_in(line.values[slot])
    )


def gaps_of(routine: Routine) -> dict[int, str]:
    """Line → what one may say, for those of `requests_of` below which nothing is said."""
    said = {number for number, below in routine.below().items() if any(one.is_ == PATTER for one in below)}
    return {number: words for number, words in requests_of(routine).items() if number not in said}


def filled_in(text: str) -> str:
    """The routine with a line of patter wherever something can be said and is not."""
    routine = read_routine(text)
    gaps, levels = gaps_of(routine), {line.number: line.level for line in routine.walk()}
    rows = []
    for number, row in enumerate(lines_of(text), start=1):
        rows.append(row)
        if number in gaps:
            rows.append(f"{INDENT * (levels[number] + 1)}“{gaps[number]}”")
    return "\n".join(rows) + "\n"


def new_numbers(line: Line) -> set[str]:
    """Numbers by name that come into being in a line."""
    found: set[str] = set()
    for slot, type_name, _, _ in line.spans:
        value = line.values[slot]
        if isinstance(value, NewNumber):
            found.add(value.name)
        elif type_name in ("name", "names") and value:
            found |= {value} if isinstance(value, str) else set(value)
    return found
