"""A routine played along one path: with choices by key, by a path as the search tells it, or at random."""

from __future__ import annotations

import random
from collections.abc import Callable, Iterator, Mapping, Sequence
from contextlib import suppress
from dataclasses import replace
from typing import Any

from ..budget import Budget
from ..building import PROOF, REPLAY, compile_routine, compile_what_can_be
from ..faults import Cancelled, NoSuchPath
from ..language.routine import Routine
from ..search.algebra import MOST_HANDLED
from ..search.explorer import explore
from ..search.replay import Decide, Play, first_possible, played

MOST_FOR_LONGEST = 100_000, 1_000_000
"""situations, and steps, in which the path that handles most cards is looked for"""


def play(routine: Routine, choices: Mapping[str, int] | None = None, seed: int | None = None) -> Play:
    """Play the path of these choices, by key; what is left open is drawn at random with a seed, else the first.

    A choice that is not possible is moved to the nearest one that is. Lines from the first fault on are
    left out; the faults are in the result.
    """
    program, faults = compile_what_can_be(routine, REPLAY)
    draw = random.Random(seed) if seed is not None else None
    wanted = choices or {}

    def decide(key: str, options: tuple[int, ...], weights: Sequence[int] | None = None) -> int:
        if key in wanted:
            return min(options, key=lambda option: abs(option - wanted[key]))
        if draw is None:
            return options[0]
        return draw.choices(options, weights)[0] if weights else draw.choice(options)

    if draw is None:
        return played(program, faults, decide, strict=False)
    return first_possible(program, faults, decide)


def play_path(routine: Routine, path: tuple[int, ...], by_index: bool = False) -> Play:
    """Play the path with these options, or options with these indices, one a choice, in order.

    The first one is taken where they end or do not fit.
    """
    program, faults = compile_what_can_be(routine, REPLAY)
    return played(program, faults, _in_order(path, by_index), strict=False)


def _in_order(path: Sequence[int], by_index: bool = False) -> Decide:
    left = iter(path)

    def decide(key: str, options: tuple[int, ...], weights: Sequence[int] | None = None) -> int:
        if by_index:
            return options[next(left, 0)]
        wanted = next(left, options[0])
        return wanted if wanted in options else options[0]

    return decide


def drawn_at_random(
    routine: Routine, paths: int, cancelled: Callable[[], bool], seed: int = 1
) -> Iterator[tuple[Play, Callable[[], Play]]]:
    """So many paths, less those whose choices do not go together: each with what plays it again and keeps what happens.

    Each option is as likely as another. Raises BadRoutine, Cancelled.
    """
    program, draw = compile_routine(routine, REPLAY), random.Random(seed)

    def decide(key: str, options: tuple[int, ...], weights: Sequence[int] | None = None) -> int:
        return draw.choice(options)

    for _ in range(paths):
        if cancelled():
            raise Cancelled
        begun = draw.getstate()

        def again(begun: Any = begun) -> Play:
            draw.setstate(begun)
            return played(program, (), decide)

        with suppress(NoSuchPath):
            yield played(program, (), decide, tells=False), again


def failing_at_random(routine: Routine, paths: int, cancelled: Callable[[], bool]) -> Play | None:
    """One of so many paths drawn at random that fails; None where none does. Raises BadRoutine, Cancelled."""
    for path, again in drawn_at_random(routine, paths, cancelled):
        if path.failures:
            return again()
    return None


def longest_path(routine: Routine, budget: Budget) -> dict[str, int]:
    """The choices, by key, of the path that handles most cards, the first that is found of equals. Raises OutOfBudget.

    How many cards are handled does not depend on when a choice is made that nobody uses yet, so choices are made late here; their
    keys say which is which in the order in which they are written.
    """
    program = compile_routine(routine, replace(PROOF, reorder=True))
    found = explore(program, budget.narrowed(*MOST_FOR_LONGEST), MOST_HANDLED)
    best = None
    for weight in found.ends.values():
        best = weight if best is None else MOST_HANDLED.merge(best, weight)
    return played(program, (), _in_order(best[2]), strict=False).choices if best else {}
