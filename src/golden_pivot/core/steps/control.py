"""Lines that say how often other lines are carried out."""

from __future__ import annotations

from typing import TYPE_CHECKING

from .declare import step

if TYPE_CHECKING:
    from ..builder import Builder


@step("Repeat {times:number} times:", family="Order of events", example="Repeat 3 times:")
def repeat(b: Builder) -> None:
    """The lines indented below are carried out this many times.

    A number that comes into being inside is chosen anew each time round.
    """
    times = b.constant("times")
    if times < 1:
        raise b.fault("times", f"Nothing can be done {times} times.", "1 or more", "Change it, or remove the block.")
    for turn in range(1, times + 1):
        b.body(turn)
