"""The second opinion on a routine: its JSON, and what was told of it, given to the witness."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from ..core.answers.plays import play
from ..core.language.parser import read_routine
from ..core.language.printer import routine_json
from ..core.language.routine import STEP, Routine
from ..witness import Opinion, second_opinion
from ..witness.opinion import SECONDS

ANSWERS = ("verdict", "ledger", "limits", "odds")
"""that are held against it, by the names under which they are told"""


def opinion_on(
    text: str, told: Mapping[str, Any], most: int | None = None, seconds: float | None = SECONDS
) -> Opinion | None:
    """`told`: answers by name, each as it is told in JSON. None for a text with faults, and where nothing could be played."""
    routine = read_routine(text)
    if routine.faults:
        return None
    lines = [line.number for line in routine.walk() if line.is_ == STEP and line.kind]
    held = {name: told[name] for name in ANSWERS if told.get(name)}
    return second_opinion(routine_json(routine), lines, {**held, "example": _example(routine, held)}, most, seconds)


def _example(routine: Routine, told: Mapping[str, Any]) -> dict[str, Any] | None:
    """The choices of the path that is told to fail, as anybody makes them; None where two paths, or rounds without end, show it."""
    example = (told.get("verdict") or {}).get("counterexample")
    if not example or example.get("beside"):
        return None
    played = play(routine, example["choices"])
    if played.program.is_unlimited:
        return None
    classes = played.program.face_classes
    made = [
        {"face": one.value % len(classes), "barred": one.value >= len(classes)}
        if classes and one.key.startswith("face in line")
        else {"index": one.options.index(one.value)}
        for one in played.decisions
    ]
    return {"decisions": made, "classes": [list(one.names) for one in classes]}
