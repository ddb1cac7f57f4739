"""Numbers the spectator decides on, and when the performer learns them."""

from __future__ import annotations

from typing import TYPE_CHECKING

from .declare import step

if TYPE_CHECKING:
    from ..builder import Builder


@step(
    "Spectator {secretly?secretly} {verb=names|chooses|thinks of} a number {number:range}",
    family="Choices",
    example="Spectator names a number n from 20 to 29",
)
def choose_number(b: Builder) -> None:
    """The spectator decides on a whole number, anything from the first to the second, both included.

    You learn it at once, unless the line says *secretly*: then no line of yours may use it until the
    spectator tells it.
    """
    b.choose_number("number", secret=b.flag("secretly"))


@step("Spectator tells {names:names}", family="Choices", example="Spectator tells n")
def tell(b: Builder) -> None:
    """You learn numbers that were chosen secretly before. From here on your lines may use them."""
    b.tell("names")
