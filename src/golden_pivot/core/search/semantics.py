"""What an instruction does to a state: said here once, for the search of all paths and for the replay of one.

    Act      edits the cells
    Check    notes in the cells whether the claim holds
    Branch   goes on elsewhere where its condition does not hold
    Leap     goes on elsewhere
    Choose   one of its options is put into its cell
    Loop     another time round, as long as that brings its end nearer
    Closure  one of its moves, or on behind it

The first four are **carried out**: each turns one state into one. A choice, a loop and a closure part paths; what
they allow in a state is asked here too, whoever goes on with it.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

from ..faults import Impossible
from .program import MOST_TURNS, Act, Branch, Cells, Check, Choose, Leap, Loop

Run = Callable[[Cells], int | None]
"""edits the cells; returns the index at which the path goes on, where it does not go on at the next instruction.
Raises Impossible where it cannot be carried out, NoSuchPath where choices made before do not go together."""


def carrying_out(step: Act | Check | Branch | Leap) -> Run:
    """What carries out an instruction that parts no paths."""
    match step:
        case Act():
            return step.run
        case Check():
            return _settling(step)
        case Branch():
            return _branching(step)
        case Leap():
            return _leaping(step)


def _settling(step: Check) -> Run:
    def run(cells: Cells) -> None:
        step.settle(cells)

    return run


def _branching(step: Branch) -> Run:
    holds, beyond = step.holds, step.target
    return lambda cells: None if holds(cells) else beyond


def _leaping(step: Leap) -> Run:
    target = step.target
    return lambda cells: target


def options_of(choose: Choose, state: Sequence[Any]) -> Sequence[int]:
    """What can be chosen in this state. Raises Impossible where that is nothing."""
    options = choose.options(state)
    if not options:
        raise Impossible("there is nothing to choose from")
    return options


def measured(loop: Loop, state: Sequence[Any], before: int | None) -> int | None:
    """The measure as a time round begins, given what it was the time `before`; None without one.

    Raises Impossible where it has not become smaller, as the loop would then not come to an end.
    """
    measure = loop.measure(state) if loop.measure else None
    if measure is not None and before is not None and measure >= before:
        raise Impossible("a time round changes nothing, and it would go on for ever")
    return measure


def begin_turn(turn: int) -> None:
    """Another time round of a loop, counted from 1. Raises Impossible where that is one too many."""
    if turn > MOST_TURNS:
        raise Impossible(f"it does not come to an end in {MOST_TURNS} times round")
