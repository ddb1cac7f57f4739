"""What may happen to a pack that lies ready, and what would spoil it: each proved as a routine of its own."""

from __future__ import annotations

from dataclasses import dataclass, replace

from ..answers.proving import prove
from ..answers.verdicts import REFUTED, UNSETTLED, Asked
from ..budget import Budget
from ..faults import BadRoutine
from ..language.kinds import HANDLING
from ..language.parser import read_routine
from ..language.routine import STEP
from ..variants.edits import Edit
from ..variants.slips import HARMLESS, OPEN, Slip, outcome_of

_HAPPENINGS = (
    ("cut", "Spectator cuts deck and completes the cut"),
    ("shuffled", "Spectator shuffles deck"),
    ("turned over", "Turn deck over"),
)


@dataclass(frozen=True)
class InBetween:
    what: str
    """cut, shuffled, turned over"""
    harmless: bool | None
    """None: not settled"""
    says: str


def in_between(text: str, budget: Budget) -> tuple[InBetween, ...]:
    """Of the pack just before the first line that is carried out. None for a text with faults, or one that fails anyway."""
    lines = [line for line in read_routine(text).walk() if line.is_ == STEP and line.kind]
    first = next((line for line in lines if line.kind and line.kind.phase == HANDLING and line.level == 0), None)
    if first is None:
        return ()
    try:
        plain = prove(read_routine(text), budget.quiet(), Asked(some_claim=False))
    except BadRoutine:
        return ()
    if plain.verdict in (REFUTED, UNSETTLED):
        return ()
    found = []
    for what, row in _HAPPENINGS:
        slip = Slip(first.number, None, what, Edit(first.number, first.number - 1, (row,)))
        outcome = outcome_of(text, slip, budget, plain)
        if outcome is None:
            found.append(InBetween(what, False, "It cannot be carried out then."))
        else:
            found.append(InBetween(what, None if outcome.kind == OPEN else outcome.kind == HARMLESS, outcome.says))
    cut, shuffled, turned = found
    if cut.harmless is False and shuffled.harmless is None:  # a cut is one of the ways to shuffle
        shuffled = replace(cut, what=shuffled.what)
    return cut, shuffled, turned


def in_words(found: tuple[InBetween, ...]) -> str:
    """In one sentence; empty where nothing is known."""
    may = [one.what for one in found if one.harmless]
    spoils = [one.what for one in found if one.harmless is False]
    said = []
    if may:
        said.append(f"It may be {' or '.join(may)} before.")
    if spoils:
        said.append(f"It is spoilt when it is {' or '.join(spoils)}.")
    return " ".join(said)
