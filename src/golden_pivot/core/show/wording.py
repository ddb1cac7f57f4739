"""Whether what is said is so: numbers of cards, faces, positions and predictions in the patter, proved on every path.

A line that says so on purpose ends with “(untrue)” and is left alone.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, replace

from ..analysis import Analysis
from ..answers.landings import Landing
from ..answers.proving import prove
from ..answers.verdicts import Asked
from ..budget import Budget
from ..english import list_text, ordinal
from ..faults import BadRoutine, OutOfBudget
from ..language.kinds import ENDING
from ..language.parser import read_routine
from ..language.patter import UNTRUE, fields_of
from ..language.routine import PATTER, STEP, Aside, Line, Routine
from .prediction_sheet import predictions_of
from .requests import new_numbers
from .sayings import ORDINALS, PLACE, POSITION, Saying, sayings_in


@dataclass(frozen=True)
class Finding:
    """A line of patter that is not so on some path."""

    line: int
    said: str
    """the words concerned"""
    why: str
    """what is so instead, in a sentence"""


def wording_of(it: Analysis) -> tuple[Finding, ...]:
    """Every line of patter that says what is not so. Raises BadRoutine when the routine itself has faults."""
    routine, budget = it.routine, it.budget
    landing = it.bare_verdict.landing
    numbers = {name for line in routine.walk() for name in new_numbers(line)}
    found: list[Finding] = list(_predicted(routine, budget))
    for line in routine.walk():
        if line.is_ != PATTER or line.text.rstrip().endswith(UNTRUE):
            continue
        words = str(line.values["text"])
        for field in fields_of(words):
            if field not in numbers:
                known = ", ".join(sorted(numbers)) or "none"
                found.append(
                    Finding(line.number, f"{{{field}}}", f"Nothing here is called {field}. There are: {known}.")
                )
        for saying in sayings_in(words):
            found += _tested(routine, line, saying, budget)
        for match in POSITION.finditer(words):
            found += _placed(routine, landing, line, match, budget)
    return tuple(found)


def _placed(
    routine: Routine, landing: Landing | None, line: Line, match: re.Match[str], budget: Budget
) -> Iterator[Finding]:
    """A position is so where the card comes to it in the end, or lies at it when it is said."""
    at = ORDINALS[match["at"].lower()]
    if landing is None or not landing.where or {where.position for where in landing.where} == {at}:
        return
    claims = (f"Ends with: the card at position {at} of {PLACE} is {landing.card}",)
    now, later = (list(_tested(routine, line, Saying(match[0], when, claims), budget)) for when in (False, True))
    if now and later:
        places = sorted({where.position for where in landing.where})
        more = " …" if len(places) > 4 else ""
        said = f"{landing.card} can be {' or '.join(map(ordinal, places[:4]))}{more}."
        yield Finding(line.number, match[0], said if line.level == 0 else later[0].why)


def _predicted(routine: Routine, budget: Budget) -> Iterator[Finding]:
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
                (
                    f"Ends with: exactly {list_text(one.cards)} {'is' if len(one.cards) == 1 else 'are'} reversed in {one.place}",
                )
                if one.reversed
                else (f"Ends with: the top card of {one.place} is {one.cards[0]}",)
            )
            line = next(line for line in routine.walk() if line.number == one.line)
            yield from _tested(routine, line, Saying(one.words, True, claims), budget)


def _tested(routine: Routine, line: Line, saying: Saying, budget: Budget) -> Iterator[Finding]:
    """The claims judged on every path that comes by, for the place at which they are likeliest to be so."""
    why = None
    for place in _places(routine) if any(PLACE in claim for claim in saying.claims) else [""]:
        rows = [claim.replace(PLACE, place) for claim in saying.claims]
        claims = tuple(replace(one, number=line.number) for one in read_routine("\n".join(rows) + "\n").lines)
        if any(one.faults for one in claims):
            continue
        try:
            found = prove(
                replace(routine, asides=(Aside(line.number, saying.later, claims),)),
                budget.quiet(),
                Asked(region=False),
            )
        except (BadRoutine, OutOfBudget):
            continue
        if found.claims and not any(claim.denied for claim in found.claims):
            return  # a path that gets stuck further on makes nothing untrue that was said before
        if found.claims and why is None:
            example = found.counterexample
            why = example.sentence if example and example.stuck_at is None else "It is not so on every path."
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
