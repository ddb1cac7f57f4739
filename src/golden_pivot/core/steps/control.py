"""Lines that say how often, and in which case, other lines are carried out."""

from __future__ import annotations

import operator
from collections.abc import Callable, Sequence
from typing import TYPE_CHECKING, Any

from ..english import list_text
from ..language.facets import Facet
from .declare import freely, step

if TYPE_CHECKING:
    from ..building import Builder


@step(
    "Repeat {times:number} times:",
    family="Order of events",
    example="Repeat 3 times:",
    domains={"times": range(1, 9)},
)
def repeat(b: Builder) -> None:
    """The lines indented below are carried out this many times.

    A number that comes into being inside is another one each time round.
    """
    times = b.constant("times")
    if times < 1:
        raise b.fault("times", f"Nothing can be done {times} times.", "1 or more", "Change it, or remove the block.")
    with b.may_be_left():
        for turn in range(1, times + 1):
            b.body(turn)


COMPARISONS = {
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
    firm=("left", "right"),
    example="If n is more than 10:",
    is_case=True,
)
def if_compared(b: Builder) -> None:
    """The lines indented below are carried out only where the comparison holds. *Otherwise:* may follow.

    An ending inside ends the routine for these paths. Where lines of yours depend on it, you must know the
    numbers compared.
    """
    left, right, compare = b.number("left"), b.number("right"), COMPARISONS[b.phrase("is")]
    b.only_if(lambda cells: compare(left(cells), right(cells)))


@step(
    "If {number:number} is {parity=even|odd}:",
    family="Order of events",
    firm=("number",),
    example="If n is even:",
    is_case=True,
)
def if_parity(b: Builder) -> None:
    """The lines indented below are carried out only where the number is even, or odd. *Otherwise:* may follow."""
    number, remainder = b.number("number"), int(b.phrase("parity") == "odd")
    b.only_if(lambda cells: number(cells) % 2 == remainder)


@step("Otherwise:", family="Order of events", example="Otherwise:", facets=(Facet.OTHERWISE,), is_case=True)
def otherwise(b: Builder) -> None:
    """Directly below an If: the lines indented here are carried out where it does not hold."""
    b.otherwise()


@step(
    "As often as {likes=the spectator likes|you like}[, {moves=one of}]:",
    family="Order of events",
    example="As often as the spectator likes:",
    free=freely("You went on as long as you liked"),
)
def as_often(b: Builder) -> None:
    """The lines indented below are carried out any number of times, or not at all; all of it is covered.

    With *one of*, each of the lines is a move by itself, and any sequence of these moves may be made. The proof
    goes on until no further round brings anything new, so nothing is sampled and there is no number of paths.
    Nothing can get a name inside.
    """
    b.as_often_as_liked(one_of=b.given("moves"))


@step("Until {place:place} runs out:", family="Order of events", example="Until deck runs out:")
def until_out(b: Builder) -> None:
    """The lines indented below again and again, as long as a card lies there.

    Each time round must take cards from there. A name given inside is another one each time round, and is not
    known behind the block.
    """
    place = b.looked_at("place")
    b.loop(lambda: lambda cells: bool(place.of(cells)), lambda cells: len(place.of(cells)))


@step(
    "As long as {left:number} {is=is more than|is less than|is at least|is at most|is not|is} {right:number}:",
    family="Order of events",
    firm=("left", "right"),
    example="As long as size of deck is at least 5:",
)
def as_long_as(b: Builder) -> None:
    """The lines indented below again and again, as long as the comparison holds.

    It is made anew before each time round. A name given inside is another one each time round, and is not known
    behind the block.
    """

    def holds() -> Callable[[Sequence[Any]], bool]:
        left, right, compare = b.number("left"), b.number("right"), COMPARISONS[b.phrase("is")]
        return lambda cells: compare(left(cells), right(cells))

    b.loop(holds, None)


@step("Start again", family="Order of events", example="Start again", facets=(Facet.RESTARTS,))
def start_again(b: Builder) -> None:
    """Inside a case: the routine begins anew with a shuffled pack. The verdict says how often that is.

    What follows on these paths is the routine itself once more, so nothing more needs to be shown of them.
    """
    b.start_again()


@step("Leave the loop", family="Order of events", example="Leave the loop")
def leave_loop(b: Builder) -> None:
    """Inside a case of repeated lines: these paths go on behind the repetition, whatever was still to come of it."""
    b.leave_loop()


@step("End here", family="Order of events", example="End here")
def end_here(b: Builder) -> None:
    """Inside a case: these paths are over, and nothing is claimed of them. The lines below are for the others."""
    b.end_here()


@step(
    "For each {name:name} of {places:places}[, {order=in any order}]:",
    family="Order of events",
    example="For each packet of hand, table, in any order:",
)
def for_each(b: Builder) -> None:
    """The lines indented below once for each of these places; inside, the new name is the one whose turn it is.

    They come in the order in which they are named; *in any order*, every order must work, and you see which.
    """
    places = b.several("places")
    count = len(places)
    if not b.given("order"):
        b.for_each("name", count, lambda turn: places[turn])
        return
    orders = b.free_orders(count)

    def say(cells: Sequence[Any], option: int) -> str:
        return list_text([places[i].name for i in orders[option]])

    label = f"the order in line {b.line.number}"
    chosen = b.choose_unnamed(label, label, False, lambda cells: range(len(orders)), say)
    b.for_each("name", count, lambda turn: b.one_of(places, lambda cells: orders[chosen(cells)][turn]))


@step("While demonstrating:", family="Order of events", example="While demonstrating:")
def demonstrating(b: Builder) -> None:
    """The lines indented below are done as if to explain something; they count like any others."""
    b.inside()
