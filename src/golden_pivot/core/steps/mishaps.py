"""Plausible slips of handling: what each kind of slot can be taken for, and what a sentence can be heard as.

A kind of step has the slips of its slots, can be left out or done twice, and may be heard as another sentence; see
`step` for how a kind says more, or less.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import replace
from typing import Any

from ..language.expressions import Binary, Expression, Number, expression_text
from ..language.phrases import position_text, spot_text
from ..language.slots import SLOT_TYPES
from ..language.templates import Element, phrases_of
from ..language.values import NewNumber, Position, Spot

Slip = tuple[str, str]
"""(what went wrong, the words that then stand in the slot)"""

SLIPPERY_PHRASES = ("where", "way", "side", "end", "row", "which")
"""slots for a phrase that a hand may get wrong; in others it is what the routine says, such as who decides"""


def _shifted(number: Expression, by: int) -> Expression:
    if isinstance(number, Number):
        return Number(number.value + by)
    return Binary("+" if by > 0 else "-", number, Number(abs(by)))


def _number(number: Expression) -> Iterator[Slip]:
    yield "one more", expression_text(_shifted(number, 1))
    if not isinstance(number, Number) or number.value > 1:
        yield "one fewer", expression_text(_shifted(number, -1))


OTHER_END = {"top": "bottom", "bottom": "top", "left": "right", "right": "left"}


def _position(position: Position) -> Iterator[Slip]:
    for by, words in ((1, "one place further"), (-1, "one place nearer")):
        if not (isinstance(position.at, Number) and position.at.value + by < 1):
            yield words, position_text(Position(_shifted(position.at, by), position.end))
    yield "counted from the other end", position_text(Position(position.at, OTHER_END[position.end]))


def _spot(spot: Spot) -> Iterator[Slip]:
    if spot.kind in ("next", "last"):
        other = "last" if spot.kind == "next" else "next"
        yield f"the {other} card instead of the {spot.kind}", spot_text(Spot(other))
    elif spot.steps:
        for by, words in ((1, "one card further"), (-1, "one card nearer")):
            yield words, spot_text(replace(spot, steps=(*spot.steps[:-1], _shifted(spot.steps[-1], by))))
    elif spot.position is not None:
        shifts = (1,) if isinstance(spot.position.at, Number) and spot.position.at.value == 1 else (1, -1)
        for by in shifts:
            moved = Position(_shifted(spot.position.at, by), spot.position.end)
            yield ("one card further" if by > 0 else "one card nearer"), spot_text(Spot(spot.kind, moved, spot.place))


def _word(word: str) -> Iterator[Slip]:
    if word.endswith("s") and len(word) > 2:
        yield "the singular", f"“{word[:-1]}”"
    else:
        yield "the plural", f"“{word}s”"


def _places(places: Sequence[Any]) -> Iterator[Slip]:
    write = SLOT_TYPES["places"].write
    if len(places) > 1:
        yield "in the opposite order", write(tuple(reversed(places)))
    if len(places) > 2:
        yield "the first one last", write((*places[1:], places[0]))
        yield "the first two exchanged", write((places[1], places[0], *places[2:]))


def _range(new: NewNumber) -> Iterator[Slip]:
    write = SLOT_TYPES["range"].write
    yield "one above the range", write(NewNumber(new.name, new.low, _shifted(new.high, 1)))
    if not (isinstance(new.low, Number) and new.low.value == 0):
        yield "one below the range", write(NewNumber(new.name, _shifted(new.low, -1), new.high))


_OF_TYPE: Mapping[str, Callable[[Any], Iterator[Slip]]] = {
    "number": _number, "position": _position, "spot": _spot, "word": _word, "places": _places, "range": _range,
}  # fmt: skip


def slips_of_slot(elements: Sequence[Element], slot: str, type_name: str, value: Any) -> list[Slip]:
    """What the words in a slot can be taken for."""
    if type_name == "phrase":
        options = [" ".join(phrase) for phrase in phrases_of(elements, slot)] if slot in SLIPPERY_PHRASES else []
        return [(f"{option} instead of {value}", option) for option in options if option != value]
    return list(_OF_TYPE[type_name](value)) if type_name in _OF_TYPE else []


def heard_as(sentence: str, who: str, texts: Mapping[str, str]) -> str | None:
    """The sentence with the words of the slots filled in; None where it needs a slot that is left out.

    >>> heard_as("{who} cut+s off {count} cards of {from} to table", "Spectator", {"count": "5", "from": "deck"})
    'Spectator cuts off 5 cards of deck to table'
    """
    if any(not texts.get(slot) for slot in re.findall(r"\{(\w+)\}", sentence) if slot != "who"):
        return None
    filled = re.sub(r"\{(\w+)\}", lambda slot: who if slot[1] == "who" else texts[slot[1]], sentence).strip()
    filled = re.sub(r"(\w+)\+(\w+)", r"\1\2" if who else r"\1", filled)
    return filled[:1].upper() + filled[1:]
