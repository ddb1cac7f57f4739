"""What a sentence of notes can refer to: what lies where, what has a name, what was done last."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import lru_cache
from typing import Any

from ..answers.plays import play
from ..faults import BadRoutine, OutOfBudget
from ..language.expressions import Number
from ..language.facets import Facet
from ..language.kinds import HANDLING, PAGE, SETUP
from ..language.parser import read_routine
from ..language.phrases import place_text
from ..language.routine import STEP, Line
from ..language.values import Indexed, NewNumber


@dataclass(frozen=True)
class Situation:
    """Behind the last line of a routine as far as it has been written."""

    sizes: Mapping[str, int] = field(default_factory=dict)
    """place → how many cards lie there on a path, in the order in which the places came to be"""
    rows: frozenset[str] = frozenset()
    """places whose cards lie side by side"""
    numbers: tuple[str, ...] = ()
    """by name, as they came"""
    secret: frozenset[str] = frozenset()
    """those of them that have not been told"""
    cards: tuple[str, ...] = ()
    """that have a name, as they came"""
    piles: tuple[str, ...] = ()
    told_pile: str | None = None
    """the number of the pile that was pointed to, or that holds their card"""
    dealt_from: str | None = None
    dealt_to: str | None = None
    moved_to: str | None = None
    """where the last cards went"""
    focus: str | None = None
    """the heap that the last line was about: shuffled, cut, turned over, or put together"""
    high: int | None = None
    """the highest that the last number can be"""
    spectator_moved: bool = False
    last: Line | None = None
    """the last step"""
    lines: tuple[Line, ...] = ()
    margin: str = ""
    """of the line that is read"""
    opened: str = ""
    """margin of the block that the last line opens"""
    has_pack: bool = False
    in_set_up: bool = True

    @property
    def names(self) -> frozenset[str]:
        return frozenset((*self.cards, *self.numbers, *self.sizes))

    @property
    def their_card(self) -> str | None:
        found = [card for card in self.cards if card.islower() and " of " not in card]
        return found[-1] if found else None

    @property
    def number(self) -> str | None:
        return self.numbers[-1] if self.numbers else None

    def has(self, place: str) -> bool:
        return self.sizes.get(place, 0) > 0


def numbers_of(line: Line) -> list[str]:
    """Those that get their names in it."""
    found: list[str] = []
    for slot, kind, _, _ in line.spans:
        value = line.values[slot]
        if isinstance(value, NewNumber):
            found.append(value.name)
        elif kind == "name" and isinstance(value, str):
            found.append(value)
        elif kind == "names" and isinstance(value, tuple) and not line.has(Facet.TELLS):
            found += value
    return found


def _cards_of(line: Line) -> list[str]:
    found: list[str] = []
    for slot, kind, _, _ in line.spans:
        value: Any = line.values[slot]
        if kind in ("card", "cards", "together", "listed"):
            found += value if isinstance(value, tuple) else [value] if isinstance(value, str) else []
    return found


@lru_cache(64)
def situation_of(text: str) -> Situation:
    """`text`: the routine before the sentence. What cannot be carried out yet is left aside; never raises."""
    routine = read_routine(text)
    steps = tuple(line for line in routine.walk() if line.is_ == STEP and line.kind)
    rows = text.rstrip().split("\n")
    last = rows[-1] if rows else ""
    opens = bool(steps) and steps[-1].kind is not None and steps[-1].kind.opens_block and last.rstrip().endswith(":")
    opened = " " * (len(last) - len(last.lstrip()) + 2) if opens else ""
    sizes: dict[str, int] = {}
    laid: set[str] = set()
    try:
        played = play(routine, {})
        for index, name in played.program.places():
            heap = played.frames[-1].state[index]
            if heap or name in ("deck",):
                sizes[name] = len(heap)
            if not played.program.layouts[name].is_heap:
                laid.add(name)
    except (BadRoutine, OutOfBudget, IndexError, ValueError):
        sizes = {"deck": 52} if steps else {}
    numbers: list[str] = []
    secret: set[str] = set()
    cards: list[str] = []
    told = dealt_from = dealt_to = moved = None
    by_spectator = False
    focus: str | None = None
    high: int | None = None
    for line in steps:
        values = line.values
        new = numbers_of(line)
        numbers += [name for name in new if name not in numbers]
        if values.get("secretly") or values.get("verb") in ("thinks of", "notes"):
            secret |= set(new)
        if line.has(Facet.TELLS):
            secret -= set(values.get("names") or ())
        cards += [card for card in _cards_of(line) if card not in cards]
        where = [
            place_text(values[slot])
            for slot, kind, _, _ in line.spans
            if kind == "place" and slot == "to" and values.get(slot)
        ]
        source = values.get("from")
        about = next(
            (place_text(values[slot]) for slot in ("place", "to") if isinstance(values.get(slot), str | Indexed)),
            None,
        )
        focus = (
            about
            if "place" in values or (line.kind and line.kind.family == "Blocks")
            else None
            if source is not None
            else focus
        )
        for value in values.values():
            if isinstance(value, NewNumber) and isinstance(value.high, Number):
                high = value.high.value
        if (line.kind and line.kind.phase == HANDLING) or "from" in values:
            by_spectator = values.get("who") == "spectator"
            if (
                line.kind
                and (line.kind.family == "Counting" or "deal+s" in line.kind.sentence)
                and source is not None
                and not line.has(Facet.DEALS_PILES)
            ):
                dealt_from, dealt_to = place_text(source), (where or ["row" if values.get("row") else "dealt"])[0]
                moved = dealt_to
            elif where:
                moved = where[0]
            elif line.kind and line.kind.family == "Piles" and values.get("to") is None and source is None:
                moved = "deck"
        if line.has(Facet.PILE_NUMBER) or (
            any(kind == "name" and slot == "name" for slot, kind, _, _ in line.spans) and values.get("which")
        ):
            told = new[-1] if new else told
    piles = [name for name in sizes if name.startswith("pile ") and sizes[name]]
    return Situation(
        sizes, frozenset(laid), tuple(numbers), frozenset(secret), tuple(cards), tuple(piles), told, dealt_from, dealt_to, moved, focus, high, by_spectator,
        steps[-1] if steps else None, steps, "", opened, any(line.has(Facet.PACK) for line in steps),
        all(not line.kind or line.kind.phase in (PAGE, SETUP) for line in steps),
    )  # fmt: skip
