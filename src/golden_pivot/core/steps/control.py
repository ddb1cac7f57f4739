"""Lines that say how often, and in which case, other lines are carried out."""

from __future__ import annotations

import operator
from typing import TYPE_CHECKING

from .declare import step

if TYPE_CHECKING:
    from ..building import Builder


@step("Repeat {times:number} times:", family="Order of events", example="Repeat 3 times:")
def repeat(b: Builder) -> None:
    """The lines indented below are carried out this many times.

    A number that comes into being inside is another one each time round.
    """
    times = b.constant("times")
    if times < 1:
        raise b.fault("times", f"Nothing can be done {times} times.", "1 or more", "Change it, or remove the block.")
    for turn in range(1, times + 1):
        b.body(turn)


_COMPARISONS = {
    "is more than": operator.gt,
    "is less than": operator.lt,
    "is at least": operator.ge,
    "is at most": operator.le,
    "is not": operator.ne,
    "is": operator.eq,
}


@step(
    "If {left:number} {is=is more than|is less than|is at least|is at most|is not|is} {right:number}:",
    family="Order of events",
    example="If n is more than 10:",
)
def if_compared(b: Builder) -> None:
    """The lines indented below are carried out only where the comparison holds. *Otherwise:* may follow.

    An ending inside ends the routine for these paths. Where lines of yours depend on it, you must know the
    numbers compared.
    """
    left, right, compare = b.number("left"), b.number("right"), _COMPARISONS[b.phrase("is")]
    b.only_if(lambda cells: compare(left(cells), right(cells)))


@step("If {number:number} is {parity=even|odd}:", family="Order of events", example="If n is even:")
def if_parity(b: Builder) -> None:
    """The lines indented below are carried out only where the number is even, or odd. *Otherwise:* may follow."""
    number, remainder = b.number("number"), int(b.phrase("parity") == "odd")
    b.only_if(lambda cells: number(cells) % 2 == remainder)


@step("Otherwise:", family="Order of events", example="Otherwise:")
def otherwise(b: Builder) -> None:
    """Directly below an If: the lines indented here are carried out where it does not hold."""
    b.otherwise()


@step(
    "As often as {likes=the spectator likes|you like}[, {moves=one of}]:",
    family="Order of events",
    example="As often as the spectator likes:",
)
def as_often(b: Builder) -> None:
    """The lines indented below are carried out any number of times, or not at all; all of it is covered.

    With *one of*, each of the lines is a move by itself, and any sequence of these moves may be made. The proof
    goes on until no further round brings anything new, so nothing is sampled and there is no number of paths.
    Nothing can get a name inside.
    """
    b.as_often_as_liked(one_of=b.given("moves"))
