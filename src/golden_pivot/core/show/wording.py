"""Whether what is said is so: numbers of cards, faces, positions and predictions in the patter, proved on every path.

A line that says so on purpose ends with “(untrue)” and is left alone.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass

from ..budget import Budget
from ..cards import ordinal
from ..faults import BadRoutine, DeadEnd, OutOfBudget
from ..language.parser import lines_of, read_routine
from ..language.phrases import list_text
from ..routine import PATTER, STEP, Line, Routine
from ..steps.declare import ENDING
from ..variants.edits import quiet
from ..verdicts import prove
from .predictions import predictions_of
from .sayings import ORDINALS, PLACE, POSITION, Saying, sayings_in

UNTRUE = "(untrue)"

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
    found: list[Finding] = list(_predicted(text, routine, budget))
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
        for saying in sayings_in(words):
            found += _tested(text, routine, line, saying, budget)
        if verdict.landing and verdict.landing.where:
            for match in POSITION.finditer(words):
                at = ORDINALS[match["at"].lower()]
                places = sorted({(where.place, where.position) for where in verdict.landing.where})
                if any(position != at for _, position in places):
                    where = " or ".join(ordinal(position) for _, position in places[:4])
                    more = " …" if len(places) > 4 else ""
                    found.append(Finding(line.number, match[0], f"{verdict.landing.card} can be {where}{more}."))
    return tuple(found)


def _predicted(text: str, routine: Routine, budget: Budget) -> Iterator[Finding]:
    """A prediction must be of a card that an ending speaks of; one made of cards must lie where it is said to lie."""
    endings = [line for line in routine.walk() if line.kind and line.kind.phase == ENDING]
    for one in predictions_of(routine):
        unspoken = [card for card in one.cards if not any(card in line.text for line in endings)]
        if unspoken:
            why = f"No ending speaks of {list_text(unspoken)}: nothing shows that it comes true."
            yield Finding(one.line, one.what, why)
        if one.place:
            # At the end, when it is shown.
            claims = (
                (f"Ends with: exactly {list_text(one.cards)} are reversed in {one.place}",)
                if one.reversed
                else (f"Ends with: the top card of {one.place} is {one.cards[0]}",)
            )
            line = next(line for line in routine.walk() if line.number == one.line)
            yield from _tested(text, routine, line, Saying(one.words, True, claims), budget)


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


def _tested(text: str, routine: Routine, line: Line, saying: Saying, budget: Budget) -> Iterator[Finding]:
    """The claims proved there, or at the end, for the place at which they are likeliest to be so."""
    rows = lines_of(text)
    keep = len(rows) if saying.later else line.number
    ends = {one.number for one in routine.walk() if one.kind and one.kind.phase == ENDING}
    body = [row for number, row in enumerate(rows[:keep], start=1) if number not in ends]
    why = None
    for place in _places(routine) if any(PLACE in claim for claim in saying.claims) else [""]:
        claims = [claim.replace(PLACE, place) for claim in saying.claims]
        probe = read_routine("\n".join([*body, *claims]) + "\n")
        try:
            found = prove(probe, quiet(budget))
        except DeadEnd as dead:
            why = why or dead.faults[0].message.partition(": ")[2]
            continue
        except (BadRoutine, OutOfBudget):
            continue
        if found.verdict == "proved":
            return
        if found.verdict == "refuted" and why is None:
            example = found.counterexample
            why = example.sentence if example else "It is not so on every path."
    if why:
        yield Finding(line.number, saying.words, why)


def _places(routine: Routine) -> list[str]:
    named = [
        line.text[start:end].strip()
        for line in routine.walk()
        if line.is_ == STEP
        for _, type_name, start, end in line.spans
        if type_name == "place"
    ]
    return list(dict.fromkeys([*reversed(named), "deck"]))
