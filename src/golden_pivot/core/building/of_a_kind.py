"""Four cards of one value, whichever value that is: the performer settles it, and what is known of every face follows."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ..cards import FACE_UP, INDIFFERENT, RANKS, TOKEN, card_value
from ..language.sorts import PLURAL_RANKS, Sort, sort_behind
from ..search.faces import PACK
from ..search.program import ANY_FACE, Cells, Reader
from .card_names import DECK
from .looks import Looks

OF_A_KIND = 4
"""cards of each value in a pack"""
ONE_OF_THEM = Sort("one of four of a kind", "of a kind", "value", 0)
"""what is known of such a card before its value is settled; no named card is of it"""
VALUES = tuple(sort_behind(many) for many in PLURAL_RANKS)


class KindsLeftOpen(Looks):
    @property
    def groups_known(self) -> list[frozenset[str]]:
        """Where four of a kind lie: the cards of each value from ace to king, then those not of each of these values."""
        if ONE_OF_THEM not in self.sorts_known:
            return super().groups_known
        return [*(sort.names for sort in VALUES), *(frozenset(PACK) - sort.names for sort in VALUES)]

    def four_of_a_kind(self, slot: str, first: int) -> None:
        """The cards of the pack from this index (from 0) on are of one value, and no other card is of it."""
        there = self.pack[max(0, first) : first + OF_A_KIND]
        if first < 0 or len(there) < OF_A_KIND:
            raise self.fault(
                slot, f"Four cards do not fit there: the pack has {len(self.pack)}.", "room for four cards",
                "Change the position or the size of the pack.",
            )  # fmt: skip
        if len(self.pack) > len(PACK):
            raise self.fault(
                slot, "In two packs there are eight of each value.", f"a pack of at most {len(PACK)} cards",
                "Say it of one pack.", is_limit=True,
            )  # fmt: skip
        if self.sorts_known:
            raise self.fault_at(
                self.line, "The pack is arranged already.", "one such line", "Remove one of the two lines."
            )
        if taken := next((card.name for card in there if self.is_real(card.name or "")), None):
            raise self.fault(
                slot, f"{taken} already lies there.", "four positions that are still free",
                "Give the four, or that card, another place.",
            )  # fmt: skip
        for card in there:
            card.sort = ONE_OF_THEM
        self._settle_value("name" if self.given("name") else None, first)

    def _settle_value(self, slot: str | None, first: int) -> None:
        if self.needs.facts:
            self.ask_fact("value")

        def options(cells: Sequence[Any]) -> Sequence[int]:
            placed = {card_value(card.name or "") for card in self._set_up()}
            return [value for value in range(1, len(RANKS) + 1) if value not in placed]

        def say(cells: Sequence[Any], value: int) -> str:
            return PLURAL_RANKS[value - 1]

        label = "the value of the four of a kind"
        if slot:
            value = self.choose(slot, self.phrase(slot), False, options, say)
            self.reads.add(self.scope.numbers[self.phrase(slot)])
        else:
            value = self.choose_unnamed(f"kind in line {self.line.number}", label, True, options, say)
        if self.needs.facts:
            self._know_faces(first, value)

    def _know_faces(self, first: int, value: Reader) -> None:
        """From here on the four are known to be of this value, all others not to be."""
        deck = self.place_cells[DECK]
        self.reads |= {deck, self.seen_cell, ANY_FACE}
        self.touches |= {deck, self.seen_cell, ANY_FACE}
        self.settled.add(deck)
        four = range(first, first + OF_A_KIND)

        def run(cells: Cells) -> None:
            one, other = (bytes([self.faces.byte(self.faces.group(value(cells) - 1 + k))]) for k in (0, len(RANKS)))
            for index, byte in enumerate(cells[deck]):
                self._know(cells, index, byte, one if index in four else other)

        self.note(run, self.touches)

    def _know(self, cells: Cells, index: int, byte: int, face: bytes) -> None:
        """Of the card at an index of the pack this much is known from the beginning, unless more is."""
        token = byte & TOKEN
        if self.purpose.every_card:
            if token not in self.fixed_faces:
                cells[self.seen_cell] = cells[self.seen_cell][:token] + face + cells[self.seen_cell][token + 1 :]
        elif token == INDIFFERENT:
            heap = cells[self.place_cells[DECK]]
            known = bytes([face[0] | byte & FACE_UP])
            cells[self.place_cells[DECK]] = heap[:index] + known + heap[index + 1 :]
        elif token in self.face_cells and token not in self.fixed_faces:
            cells[self.face_cells[token]] = face
