"""Spectators who are not there: paths of a routine as somebody of a certain habit would choose them."""

from __future__ import annotations

import random
from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Literal, get_args

from ..building import REPLAY, compile_routine
from ..language.kinds import CHANCE
from ..language.routine import Routine
from ..search.program import Choose, Program
from ..search.replay import Play, first_possible, played

Habit = Literal["evenly", "about the middle", "awkward", "as in my book"]
HABITS: tuple[str, ...] = get_args(Habit)


def spectator(
    routine: Routine, habit: Habit, seed: int, book: Mapping[str, Sequence[int | str]] | None = None
) -> Play:
    """A path of this spectator’s. `book`: name of a choice → what was chosen so far. Raises BadRoutine."""
    program, draw = compile_routine(routine, REPLAY), random.Random(seed)
    if habit == "as in my book":
        program = _as_recorded(program, book or {})
    # Plain numbers have a middle and an end; of what has none everything is as likely.
    plain = {choose.key: choose.label for choose in program.choices() if choose.plain and choose.by != CHANCE}

    def decide(key: str, options: tuple[int, ...], weights: Sequence[int] | None = None) -> int:
        label = plain.get(key)
        if label is None or habit == "as in my book":
            return draw.choices(options, weights)[0] if weights else draw.choice(options)
        if habit == "evenly":
            return draw.choice(options)
        ordered = sorted(options)
        if habit == "awkward":
            return draw.choice([*ordered[:2], *ordered[-2:]])
        at = draw.triangular(0, len(ordered) - 1)
        return ordered[min(len(ordered) - 1, round(at))]

    return first_possible(program, (), decide)


def _as_recorded(program: Program, book: Mapping[str, Sequence[int | str]]) -> Program:
    """Choices that are in the book are made as often as there, as far as they are open."""

    def by_record(choose: Choose, known: Sequence[int | str]) -> Choose:
        words = [str(one) for one in known]

        def times(cells: Sequence[object], option: int) -> int:
            return words.count(str(option) if choose.plain else choose.say(cells, option))

        def options(cells: Sequence[object]) -> Sequence[int]:
            every = choose.options(cells)
            return [option for option in every if times(cells, option)] or every

        def odds(cells: Sequence[object], option: int) -> int:
            return times(cells, option) or 1

        return replace(choose, options=options, odds=odds)

    steps = tuple(
        by_record(step, book[step.label])
        if isinstance(step, Choose) and step.label in book and step.by != CHANCE
        else step
        for step in program.instructions
    )
    return replace(program, instructions=steps)


MOST_PATHS = 300
"""that are played to learn what must be known where"""


def some_paths(routine: Routine) -> list[Play]:
    """Every path where there are few; else the first ones, the awkward ones, and others drawn in the same way each time."""
    program = compile_routine(routine, REPLAY)
    found: dict[tuple[tuple[str, int], ...], Play] = {}
    script: tuple[int, ...] | None = ()
    while script is not None and len(found) <= MOST_PATHS:
        sizes: list[int] = []
        taken: list[int] = []

        def decide(
            key: str, options: tuple[int, ...], weights: Sequence[int] | None = None, script: tuple[int, ...] = script,
            sizes: list[int] = sizes, taken: list[int] = taken,
        ) -> int:  # fmt: skip
            index = script[len(taken)] if len(taken) < len(script) else 0
            sizes.append(len(options))
            taken.append(index)
            return options[index]

        one = played(program, (), decide, strict=False)
        if one.stuck_at is None:
            found[tuple(one.choices.items())] = one
        while taken and taken[-1] + 1 == sizes[len(taken) - 1]:
            taken.pop()
        script = (*taken[:-1], taken[-1] + 1) if taken else None
    if script is None:
        return list(found.values())
    found.clear()
    for seed in range(MOST_PATHS):
        one = spectator(routine, "awkward" if seed % 3 == 0 else "evenly", seed)
        if one.stuck_at is None:
            found.setdefault(tuple(one.choices.items()), one)
    return list(found.values())
