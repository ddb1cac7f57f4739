"""Whether what is said is so: lines of patter that name a number of face-up cards, or a position, proved on every path.

A line that says so on purpose ends with “(untrue)” and is left alone.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass

from num2words import num2words

from ..budget import Budget
from ..cards import ordinal
from ..faults import BadRoutine, OutOfBudget
from ..language.parser import lines_of, read_routine
from ..routine import PATTER, STEP, Line, Routine
from ..steps.declare import ENDING
from ..variants.edits import quiet
from ..verdicts import prove

UNTRUE = "(untrue)"
MOST_NAMED = 60

_CARDINALS = {str(num2words(n)): n for n in range(MOST_NAMED + 1)} | {"no": 0, "a": 1}
_ORDINALS = {str(num2words(n, to="ordinal")): n for n in range(1, MOST_NAMED + 1)} | {
    ordinal(n): n for n in range(1, MOST_NAMED + 1)
}
_NUMBER = "|".join(sorted(map(re.escape, _CARDINALS), key=len, reverse=True)) + r"|\d+"
_PLACE = "|".join(sorted(map(re.escape, _ORDINALS), key=len, reverse=True))

_FACING = re.compile(
    rf"\b(?P<number>{_NUMBER}) cards? (?P<when>will be|are|is|lie|lies|will lie|end up)(?: left)? (?P<way>face up|face down)\b",
    re.IGNORECASE,
)
_POSITION = re.compile(rf"\bthe (?P<at>{_PLACE}) card\b", re.IGNORECASE)
_FIELD = re.compile(r"\{([^{}]*)\}")


def spoken(line: Line) -> str:
    """The words of a line of patter, without the mark of a deliberate untruth."""
    words = str(line.values["text"])
    return words.removesuffix(UNTRUE).rstrip().rstrip('”“"»') if words.endswith(UNTRUE) else words


@dataclass(frozen=True)
class Finding:
    """A line of patter that is not so on some path."""

    line: int
    said: str
    """the words concerned"""
    why: str
    """what is so instead, in a sentence"""


def wording_of(text: str, budget: Budget) -> tuple[Finding, ...]:
    """Every line of patter that says what is not so. Raises BadRoutine when the routine itself has faults."""
    routine = read_routine(text)
    verdict = prove(routine, quiet(budget), explain=False)
    numbers = _numbers(routine)
    found: list[Finding] = []
    for line in routine.walk():
        if line.is_ != PATTER or line.text.rstrip().endswith(UNTRUE):
            continue
        words = str(line.values["text"])
        for field in _FIELD.findall(words):
            if field not in numbers:
                known = ", ".join(sorted(numbers)) or "none"
                found.append(
                    Finding(line.number, f"{{{field}}}", f"Nothing here is called {field}. There are: {known}.")
                )
        for match in _FACING.finditer(words):
            number = _CARDINALS.get(match["number"].lower(), None)
            number = int(match["number"]) if number is None else number
            later = match["when"].lower().startswith(("will", "end"))
            claim = f"{number} cards of {{place}} are {match['way'].lower()}"
            found += _tested(text, routine, line, later, claim, match[0], budget)
        if verdict.landing and verdict.landing.where:
            for match in _POSITION.finditer(words):
                at = _ORDINALS[match["at"].lower()]
                places = sorted({(where.place, where.position) for where in verdict.landing.where})
                if any(position != at for _, position in places):
                    where = " or ".join(ordinal(position) for _, position in places[:4])
                    more = " …" if len(places) > 4 else ""
                    found.append(Finding(line.number, match[0], f"{verdict.landing.card} can be {where}{more}."))
    return tuple(found)


def _numbers(routine: Routine) -> set[str]:
    found: set[str] = set()
    for line in routine.walk():
        for slot, type_name, _, _ in line.spans:
            value = line.values[slot]
            if type_name == "range":
                found.add(value.name)
            elif type_name in ("name", "names"):
                found |= {value} if isinstance(value, str) else set(value)
    return found


def _tested(
    text: str, routine: Routine, line: Line, later: bool, claim: str, said: str, budget: Budget
) -> Iterator[Finding]:
    """The claim proved there, or at the end, for the place at which it is likeliest to be so."""
    rows = lines_of(text)
    keep = len(rows) if later else line.number
    ends = {one.number for one in routine.walk() if one.kind and one.kind.phase == ENDING}
    body = [row for number, row in enumerate(rows[:keep], start=1) if number not in ends]
    why = None
    for place in _places(routine):
        probe = read_routine("\n".join([*body, f"Ends with: {claim.format(place=place)}"]) + "\n")
        try:
            found = prove(probe, quiet(budget))
        except (BadRoutine, OutOfBudget):
            continue
        if found.verdict == "proved":
            return
        if found.verdict == "refuted" and why is None:
            example = found.counterexample
            why = example.sentence if example else "It is not so on every path."
    if why:
        yield Finding(line.number, said, why)


def _places(routine: Routine) -> list[str]:
    named = [
        line.text[start:end].strip()
        for line in routine.walk()
        if line.is_ == STEP
        for _, type_name, start, end in line.spans
        if type_name == "place"
    ]
    return list(dict.fromkeys([*reversed(named), "deck"]))
