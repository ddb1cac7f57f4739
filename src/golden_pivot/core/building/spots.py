"""Cards that a line points at by where they lie."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from typing import Any

from ..cards import index_of
from ..faults import Impossible
from ..language.expressions import Number, is_settled
from ..language.phrases import spot_text
from ..language.values import Position, Spot
from ..search.program import OneSpot
from .choices import Choices
from .places import Deal, Place
from .scope import Looked


@dataclass(frozen=True)
class FoundSpot:
    """A spot of a line, ready to be looked up in a state."""

    spot: Spot
    place: Place
    index: Callable[[Sequence[Any], int], int]
    """(state, number of cards at the place) → index from 0"""
    deal: Deal | None

    @property
    def kind(self) -> str:
        return self.spot.kind

    @property
    def text(self) -> str:
        return spot_text(self.spot)

    def find(self, cells: Sequence[Any]) -> tuple[int, int]:
        """(cell of the place, index from 0). Raises Impossible where no card lies there."""
        place = self.place.find(cells)
        return place, self.index(cells, len(cells[place]))

    def byte(self, cells: Sequence[Any]) -> int:
        """The card there, with its face."""
        place, index = self.find(cells)
        return int(cells[place][index])

    @property
    def always_at(self) -> OneSpot | None:
        """Where it is, if that follows from the number of cards there alone."""
        fixed = self.deal is None and len(self.place.cells) == 1 and all(map(is_settled, self.spot.expressions))
        return OneSpot(min(self.place.cells), self.index) if fixed else None

    @property
    def looked_at(self) -> Looked | None:
        """What a look at it is remembered by; None where a number or a deal decides which card it is."""
        fixed = self.always_at
        return (fixed.place, replace(self.spot, place=None)) if fixed else None

    def counted(self, cells: Sequence[Any]) -> int:
        """How many cards the count took; for a program that forgets nothing."""
        assert self.deal is not None
        return self.deal.taken(cells)

    def order_of(self, cells: Sequence[Any], token: int) -> int | None:
        """The number at which a card would come, or came, in this count; None when it was not in it."""
        assert self.deal is not None
        n, dealt, rest = self.counted(cells), self.deal.to.of(cells), self.deal.source.of(cells)
        ahead = index_of(rest, token)
        if ahead >= 0:
            return n + (len(rest) - ahead if self.deal.from_bottom else ahead + 1)
        among = index_of(dealt, token)
        if among < 0:
            return None
        came = n - (len(dealt) - 1 - among) if self.deal.last_at_end else n - among
        return came if came >= 1 else None


class Spots(Choices):
    def spot(self, slot: str) -> FoundSpot:
        """The card a line points at by where it lies."""
        return self.found_spot(slot, self.line.values[slot])

    def found_spot(self, slot: str, spot: Spot) -> FoundSpot:
        if spot.place is not None:
            place = self._resolved(slot, spot.place)
            self.reads |= place.cells | place.reads
            if spot.steps:
                return FoundSpot(spot, place, self._stepped(slot, spot, place), None)
            position = spot.position or Position(Number(1), "bottom")
            return FoundSpot(spot, place, self.index(slot, position, place), None)
        deal = self.last_deal("next card" if spot.kind == "next" else "last card")
        place = deal.source if spot.kind == "next" else deal.to
        self.reads |= place.cells | place.reads
        if spot.kind == "next":
            return FoundSpot(spot, place, _last if deal.from_bottom else _first, deal)
        back = self.evaluate(slot, spot.position.at) if spot.position else lambda cells: 1

        def index(cells: Sequence[Any], size: int) -> int:
            number = back(cells)
            if not 1 <= number <= size:
                raise Impossible(
                    f"the {spot_text(spot).removeprefix('the ')} is asked for, but {size} cards lie there"
                    if spot.position
                    else "no card has been dealt"
                )
            return size - number if deal.last_at_end else number - 1

        return FoundSpot(spot, place, index, deal)

    def _stepped(self, slot: str, spot: Spot, place: Place) -> Callable[[Sequence[Any], int], int]:
        """(state, number of cards) → index of a card so many on from another, or at a row and a column."""
        steps = [self.evaluate(slot, one) for one in spot.steps]
        if spot.kind == "cell":
            across, rows = place.layout.across, place.layout.rows
            if not across:
                raise self.fault(
                    slot, f"The cards of {place.name} lie {place.layout.lies}: it has no rows and columns.",
                    "cards laid in rows", "Lay them in rows first, or say at which position.",
                )  # fmt: skip

            def in_grid(cells: Sequence[Any], size: int) -> int:
                row, column = (step(cells) for step in steps)
                index = (row - 1) * across + column - 1
                if not (1 <= row <= rows and 1 <= column <= across and index < size):
                    raise Impossible(f"{place.name} has no card at row {row}, column {column}")
                return index

            return in_grid
        assert spot.position is not None
        start, sign = self.index(slot, spot.position, place), 1 if spot.kind == "on" else -1
        return lambda cells, size: (start(cells, size) + sign * steps[0](cells)) % size


def _first(cells: Sequence[Any], size: int) -> int:
    if not size:
        raise Impossible("there is no next card")
    return 0


def _last(cells: Sequence[Any], size: int) -> int:
    return size - 1 + _first(cells, size)
