"""Numbers of a line as functions of the state, and who may know them."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ..expressions import CARD_FACTS, CardFact, Expression, Name, Remainder, Size, evaluator, is_settled, within
from ..faults import Impossible
from ..language.values import Position
from ..program import Reader
from .cards import Cards
from .places import Place, fixed_place


class Numbers(Cards):
    def evaluate(self, slot: str, expression: Expression) -> Reader:
        """The number as a function of the state. A line of the performer's may use only what has been told."""
        value = evaluator(expression, lambda node: self._looked_up(slot, node))
        if not any(isinstance(node, Remainder) for node in within(expression)):
            return value

        def safe(cells: Sequence[Any]) -> int:
            try:
                return value(cells)
            except ZeroDivisionError:
                raise Impossible("a number is to be divided by 0") from None

        return safe

    def _looked_up(self, slot: str, node: Name | Size | CardFact) -> Reader:
        match node:
            case Name(name):
                return self._named(slot, name)
            case Size(place):
                return self._size(slot, place)
            case CardFact(what, card):
                return self._card_fact(slot, what, card)

    def _named(self, slot: str, name: str) -> Reader:
        cell = self.scope.numbers.get(name)
        if cell is None:
            raise self.unknown(slot, name, "number")
        self.reads.add(cell)
        if self.performer_acts() and cell not in self.scope.told:
            raise self.fault(
                slot,
                f"You do not know {name}: the spectator has kept it secret.",
                "a number you have been told",
                f"Let the spectator do this, or write “Spectator tells {name}” above.",
            )
        return lambda cells: int(cells[cell])

    def known_place(self, slot: str, name: str) -> Place:
        """A place that cards have been put on, by its plain name."""
        if name not in self.scope.filled:
            raise self.unknown(slot, name, "place")
        cell = self.place_cells[name]
        return fixed_place(name, cell, self.cells[cell].is_row)

    def _size(self, slot: str, name: str) -> Reader:
        place = self.known_place(slot, name)
        self.reads |= place.cells
        return lambda cells: len(place.of(cells))

    def _card_fact(self, slot: str, what: str, name: str) -> Reader:
        token, read = self.card_token(slot, name), CARD_FACTS[what]
        fact_of = {other: read(card) for other, card in self.known_cards().items()}

        def fact(cells: Sequence[Any]) -> int:
            found = fact_of.get(token(cells))
            if found is None:
                raise Impossible(f"nobody can say the {what} of {name}")
            return found

        if not self.is_named_on_the_way(name) and read(name) is None:
            raise self.fault(
                slot,
                f"Nobody can say the {what} of {name}.",
                "a card whose value is settled",
                "Place a card such as queen of hearts instead.",
            )
        return fact

    def number(self, slot: str) -> Reader:
        return self.evaluate(slot, self.line.values[slot])

    def _constant(self, slot: str, expression: Expression) -> int:
        if not is_settled(expression):
            raise self.fault(
                slot,
                "This must be settled before the routine begins.",
                "a number in figures",
                "Write the number itself.",
            )
        try:
            return evaluator(expression, lambda node: lambda cells: 0)(())
        except ZeroDivisionError:
            raise self.fault(slot, "A number cannot be divided by 0.", "another divisor", "Change it.") from None

    def constant(self, slot: str) -> int:
        return self._constant(slot, self.line.values[slot])

    def constant_position(self, slot: str) -> tuple[int, str]:
        """(position from 1, the end it is counted from)"""
        position: Position = self.line.values[slot]
        return self._constant(slot, position.at), position.end

    def tell(self, slot: str) -> None:
        """These secret numbers are known to the performer from here on."""
        for name in self.line.values[slot]:
            cell = self.scope.numbers.get(name)
            if cell is None:
                raise self.unknown(slot, name, "number")
            if cell in self.scope.told:
                raise self.fault(
                    slot,
                    f"You know {name} already.",
                    "a number chosen secretly",
                    "Leave the line out, or choose the number secretly.",
                )
            self.scope.told.add(cell)
            self.ever_told.add(cell)
