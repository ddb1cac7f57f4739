"""Numbers of a line as functions of the state, and who may know them."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from ..faults import Impossible
from ..language.arithmetic import LARGEST_POWER, TooLarge
from ..language.expressions import (
    CardFact,
    Count,
    Expression,
    LookedUp,
    Name,
    Piles,
    Size,
    SpotFact,
    can_fail,
    evaluator,
    is_of_numbers_alone,
    is_settled,
    terms,
    within,
)  # fmt: skip
from ..language.values import PlaceName, Position
from ..search.program import Cell, Cells, Reader
from .card_names import Cards
from .places import Place, fixed_place

LEAST_ADDED_UP = 3
"""numbers in a sum from which on it is kept as a running total"""


def _is_of_one_number(part: Expression) -> bool:
    """It depends on a number with a name, and on nothing that can change or fail."""
    return is_of_numbers_alone(part) and sum(isinstance(node, Name) for node in within(part)) == 1


class Numbers(Cards):
    def evaluate(self, slot: str, expression: Expression) -> Reader:
        """The number as a function of the state. A line of the performer's may use only what has been told."""
        value = (
            self._added_up(slot, expression)
            or self._faces_added_up(slot, expression)
            or self._value(slot, expression)
        )
        if not can_fail(expression):
            return value

        def safe(cells: Sequence[Any]) -> int:
            try:
                return value(cells)
            except ZeroDivisionError:
                raise Impossible("a number is to be divided by 0") from None
            except TooLarge:
                raise Impossible("a power is too large") from None

        return safe

    def _value(self, slot: str, expression: Expression) -> Reader:
        return evaluator(expression, lambda node: self._looked_up(slot, node))

    def _added_up(self, slot: str, expression: Expression) -> Reader | None:
        """A sum of several numbers, kept as a running total: the numbers themselves may then be forgotten.

        None where there is nothing to gain, or where a number is only settled by the line at hand.
        """
        parts = terms(expression)
        numbers = [part for part in parts if _is_of_one_number(part[1])]
        names = {node.name for _, part in numbers for node in within(part) if isinstance(node, Name)}
        settled = all(cell not in self.touches for name in names if (cell := self.scope.numbers.get(name)))
        assert self.line.kind is not None
        again = self.line.kind.opens_block and not self.line.kind.is_case
        if not self.purpose.reorder or len(numbers) < LEAST_ADDED_UP or not settled or again:
            return None
        sum_of = frozenset(self.scope.numbers.get(name, 0) for name in names), tuple(numbers)
        outer, total, known = self.reads, 0, self.scope.totals.get(sum_of)
        for sign, part in numbers:
            self.reads = {total} if total else set()
            value, before = self._value(slot, part), total

            def add(cells: Sequence[Any], sign: int = sign, value: Reader = value, before: int = before) -> int:
                return (cells[before] if before else 0) + sign * value(cells)

            total = self.reckon(add, self.reads, "sum") if known is None else known
        self.scope.totals[sum_of] = total
        self.reads = outer | {total}
        rest = [(sign, self._value(slot, part)) for sign, part in parts if (sign, part) not in numbers]
        return lambda cells: int(cells[total]) + sum(sign * value(cells) for sign, value in rest)

    def _faces_added_up(self, slot: str, expression: Expression) -> Reader | None:
        """The same for facts of cards by name. The card named last is asked first: its face is kept under no later name.

        None where there is nothing to gain.
        """
        parts = terms(expression)
        facts = [(sign, part) for sign, part in parts if isinstance(part, CardFact) and part.card in self.card_cells]
        assert self.line.kind is not None
        if not self.purpose.reorder or len(facts) < LEAST_ADDED_UP or self.line.kind.opens_block:
            return None
        for _, part in facts:
            self.must_know_fact(slot, part.card)
        named = list(self.card_cells)
        total, outer = self.new_cell(Cell("sum of faces", False)), self.reads
        for sign, part in sorted(facts, key=lambda one: -named.index(one[1].card)):
            self.reads = {total}
            value = self._value(slot, part)

            def run(cells: Cells, sign: int = sign, value: Reader = value) -> None:
                cells[total] = (cells[total] or 0) + sign * value(cells)

            self.note(run, [total])
        self.reads = outer | {total}
        rest = [(sign, self._value(slot, part)) for sign, part in parts if (sign, part) not in facts]
        return lambda cells: int(cells[total] or 0) + sum(sign * value(cells) for sign, value in rest)

    def _looked_up(self, slot: str, node: LookedUp) -> Reader:
        match node:
            case Name(name):
                return self._named(slot, name)
            case Size(place):
                return self._size(slot, place)
            case Count():
                return self.counted_in(slot, node)
            case CardFact() | SpotFact():
                return self.asked_of_card(slot, node)
            case Piles():
                return self.number_of_piles()

    if TYPE_CHECKING:  # of parts of the builder that stand on this one

        def asked_of_card(self, slot: str, node: CardFact | SpotFact) -> Reader: ...

        def must_know_fact(self, slot: str, name: str) -> None: ...

        def number_of_piles(self) -> Reader: ...

        def _resolved(self, slot: str, name: PlaceName) -> Place: ...

        def counted_in(self, slot: str, node: Count) -> Reader: ...

    def number_by_name(self, slot: str, name: str) -> Reader:
        """A number that has been named above, whoever knows it."""
        cell = self.scope.numbers.get(name)
        if cell is None:
            raise self.unknown(slot, name, "number")
        self.reads.add(cell)
        return lambda cells: int(cells[cell])

    def truth(self, slot: str) -> Reader:
        """The number in the slot as it is, whoever knows it."""
        outer, self.for_all_to_know = self.for_all_to_know, False
        try:
            return self.number(slot)
        finally:
            self.for_all_to_know = outer

    for_all_to_know = True
    """whoever carries out the line goes by its numbers and faces, and must know them"""

    def _named(self, slot: str, name: str) -> Reader:
        number, cell = self.number_by_name(slot, name), self.scope.numbers[name]
        self.needs_to_know(name)
        if self.for_all_to_know and self.performer_acts() and cell not in self.scope.told:
            raise self.fault(
                slot,
                f"You do not know {name}: the spectator has kept it secret.",
                "a number you have been told",
                f"Let the spectator do this, or write “Spectator tells {name}” above.",
            )
        others = self.scope.kept_by.get(cell, self.people)
        if self.for_all_to_know and cell not in self.scope.told and (ignorant := self.people - others):
            raise self.fault(
                slot,
                f"Spectator {min(ignorant)} does not know {name}: spectator {min(others)} keeps it secret.",
                "a number that this spectator knows",
                f"Let spectator {min(others)} do this, or write “Spectator {min(others)} tells {name}” above.",
            )
        return number

    def known_place(self, slot: str, name: str) -> Place:
        """A place that cards have been put on, by its plain name."""
        if name in self.scope.aliases:
            alias = self.scope.aliases[name]
            self.reads |= alias.reads
            return alias
        if name not in self.scope.filled:
            raise self.unknown(slot, name, "place")
        cell = self.place_cells[name]
        return fixed_place(name, cell, self.cells[cell].layout)

    def _size(self, slot: str, name: PlaceName) -> Reader:
        place = self._resolved(slot, name)
        self.reads |= place.cells | place.reads
        return lambda cells: len(place.of(cells))

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
        except TooLarge:
            raise self.fault(slot, "This power is too large.", f"at most {LARGEST_POWER:,}", "Change it.") from None
        except ZeroDivisionError:
            raise self.fault(slot, "A number cannot be divided by 0.", "another divisor", "Change it.") from None

    def constant(self, slot: str) -> int:
        return self._constant(slot, self.line.values[slot])

    def constant_position(self, slot: str) -> tuple[int, str]:
        """(position from 1, the end it is counted from)"""
        position: Position = self.line.values[slot]
        return self._constant(slot, position.at), position.end

    def check_position(self, slot: str, at: int, end: str) -> None:
        """A position of the pack, from the top or the bottom."""
        size = len(self.pack)
        if not 1 <= at <= size or end in ("left", "right"):
            tail = f" from the {end}" if end in ("left", "right") else ""
            raise self.fault(
                slot, f"The pack has {size} cards and no position {at}{tail}.", f"a position from 1 to {size}",
                "Change the position or the size of the pack.",
            )  # fmt: skip

    def tell(self, slot: str) -> None:
        """These secret numbers are known to the performer from here on."""
        for name in self.line.values[slot]:
            cell = self.scope.numbers.get(name)
            if cell is None:
                raise self.unknown(slot, name, "number")
            if self.person not in (others := self.scope.kept_by.get(cell, frozenset([self.person]))):
                raise self.fault(
                    slot, f"Spectator {self.person} does not know {name}.", "who knows it",
                    f"Write “Spectator {min(others)} tells {name}”.",
                )  # fmt: skip
            if cell in self.scope.told:
                raise self.fault(
                    slot,
                    f"You know {name} already.",
                    "a number chosen secretly",
                    "Leave the line out, or choose the number secretly.",
                )
            self.scope.told.add(cell)
            self.ever_told.add(cell)
            self.learns(name)

    def whisper(self, slot: str, to: int) -> None:
        """A spectator lets another one know numbers that were chosen secretly; the performer does not hear them."""
        for name in self.line.values[slot]:
            cell = self.scope.numbers.get(name)
            if cell is None:
                raise self.unknown(slot, name, "number")
            known = self.scope.kept_by.get(cell, frozenset())
            if self.person not in known or to in known or cell in self.scope.told:
                raise self.fault(
                    slot, f"{name} is not spectator {self.person}’s to whisper here.", "a number that only the one of them knows",
                    "Leave the line out, or let whoever knows it whisper it.",
                )  # fmt: skip
            self.scope.kept_by[cell] = known | {to}
