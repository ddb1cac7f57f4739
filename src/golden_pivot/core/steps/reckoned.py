"""Numbers that follow from others: reckoned by somebody, or kept under a name and set anew."""

from __future__ import annotations

from typing import TYPE_CHECKING

from ..language.templates import MOST_PEOPLE, SPECTATOR
from ..search.program import Cells
from .declare import step

if TYPE_CHECKING:
    from ..building import Builder


@step(
    "{who} {secretly?secretly} reckon+s {number:number}: {name:name}",
    family="Choices",
    example="Spectator reckons 2 * n + 5: t",
    says="Work out {number}{secretly}.",
    wordings=(
        "(work out|reckon|calculate|figure out|add up) {number} [in your head|in their head] => score=1",
        "add [up] {number} (together|up) [in their head] => score=0.5",
        "add [up|together] [2|both|its|their] (digits|figures) [of (it|number|their number|that number)] => number=digit sum of number; score=1",
        "(count|count up|count through) (it|cards|them|packet|pile|cards of packet|their cards|their packet|their hand|cards in hand|how many cards they have|how many they have) [in their head] => number=size of moved; secretly=yes; who=spectator; score=0.5",
        "(count|count up|count through) (it|cards|them|packet|pile|cards of packet|their cards|their packet|their hand|cards in hand) (aloud|out loud|loudly) => number=size of moved; who=spectator; score=2",
        "(tell|say|announce|give) (result|total|sum) of {number} => who=spectator; score=1",
    ),
)
def reckon(b: Builder) -> None:
    """A number is worked out from others and has a name from here on. You learn it, unless the line says *secretly*.

    What the spectator reckons may hang on numbers that you do not know; what you reckon, only on those you do.
    """
    number = b.number("number")
    cell = b.new_number("name", b.phrase("name"), secret=b.flag("secretly") and b.line.values["who"] == SPECTATOR)

    def run(cells: Cells) -> None:
        cells[cell] = number(cells)

    b.act(run)


@step(
    "Let {name:name} be {number:number}",
    family="Choices",
    example="Let t be a + b",
    wordings=("(call|name) {number} {name} => score=-3",),
)
def let(b: Builder) -> None:
    """A number that you keep in mind under a name. A later line like this may set it anew, from itself as well.

    So it can be counted on in a repetition, and be one number in one case and another in the other.
    """
    number = b.number("number")
    cell = b.kept_number("name", b.phrase("name"))

    def run(cells: Cells) -> None:
        cells[cell] = number(cells)

    b.act(run)


@step(
    "Spectator whispers {names:names} to spectator {other:number}",
    family="Choices",
    example="Spectator 1 whispers n to spectator 2",
    says="Whisper it to the other one.",
    by=SPECTATOR,
)
def whisper(b: Builder) -> None:
    """One spectator lets another one know numbers that were chosen secretly. You do not hear them."""
    other = b.constant("other")
    if not 1 <= other <= MOST_PEOPLE or other == b.person:
        raise b.fault(
            "other", "Nobody else is called so.", f"another spectator, from 1 to {MOST_PEOPLE}", "Change the number."
        )
    b.whisper("names", other)
