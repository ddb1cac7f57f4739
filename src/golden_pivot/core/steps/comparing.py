"""Numbers compared where a line goes by the outcome alone."""

from __future__ import annotations

import operator
from collections.abc import Callable, Sequence
from typing import TYPE_CHECKING, Any

from ..language.expressions import CardFact, SpotFact, can_fail, is_settled

if TYPE_CHECKING:
    from ..building import Builder

COMPARISONS = {
    "is more than": operator.gt,
    "is less than": operator.lt,
    "is at least": operator.ge,
    "is at most": operator.le,
    "is not": operator.ne,
    "is": operator.eq,
}
TURNED_ROUND = {
    "is more than": "is less than",
    "is less than": "is more than",
    "is at least": "is at most",
    "is at most": "is at least",
}


def compared(b: Builder) -> Callable[[Sequence[Any]], bool]:
    """Whether the comparison of the line holds. What a card gives is asked no further than the comparison takes."""
    how = b.phrase("is")
    for slot, other, said in (("left", "right", how), ("right", "left", TURNED_ROUND.get(how, how))):
        node, by = b.line.values[slot], b.line.values[other]
        if isinstance(node, CardFact | SpotFact) and is_settled(by) and not can_fail(node) and not can_fail(by):
            number = b.constant(other)
            least = number + (said in ("is more than", "is at most"))
            is_so = b.asked_of_card(slot, node, f"is {number}" if said in ("is", "is not") else f"at least {least}")
            wanted = said in ("is", "is more than", "is at least")
            return lambda cells: bool(is_so(cells)) == wanted
    left, right = b.number("left"), b.number("right")
    return lambda cells: COMPARISONS[how](left(cells), right(cells))


def has_parity(b: Builder) -> Callable[[Sequence[Any]], bool]:
    """Whether the number of the line is even, or odd, as it says."""
    node, remainder = b.line.values["number"], int(b.phrase("parity") == "odd")
    of_card = isinstance(node, CardFact | SpotFact) and not can_fail(node)
    number = b.asked_of_card("number", node, "modulo 2") if of_card else b.number("number")
    return lambda cells: number(cells) % 2 == remainder
