"""Cards by name: those placed in the set-up, those named on the way, and the tokens that stand for them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

from ..cards import FACE_UP, INDIFFERENT, TOKEN, card_value, index_of, mate_of, ordinal
from ..program import Cell, Cells, Reader
from .asking import Asking

DECK, THEIR_CARD = "deck", "their card"


@dataclass
class PackCard:
    """A card of the pack as it lies at the beginning."""

    name: str | None = None
    face_up: bool = False
    odd_back: bool = False


class Cards(Asking):
    def __init__(self, *given: Any) -> None:
        super().__init__(*given)
        self.pack: list[PackCard] = []
        """top first"""
        self.extras: list[tuple[PackCard, str]] = []
        """cards beside the pack, each with the place it lies at"""
        self.tokens: dict[str, int] = {}
        """of cards placed in the set-up that some line asks for"""
        self.card_cells: dict[str, int] = {}
        """of cards named on the way: the cell of their token"""
        self._own_tokens: dict[str, int] = {}
        """of cards named on the way, for when the card had none before"""
        self.mates: dict[str, str] = {}
        self.claimed_cards: list[str] = []
        self.ever_told: set[int] = set()
        self.place_cells: dict[str, int] = {}

    # Placed in the set-up

    def place_in_pack(self, slot: str, index: int, face_up: bool, odd_back: bool) -> None:
        """A named card lies at this index (from 0) of the pack."""
        name = self.phrase(slot)
        self.new_name(slot, name, "card")
        self.scope.cards.add(name)
        self.pack[index] = PackCard(name, face_up, odd_back)
        if face_up:
            self.ask_faces()

    def declare_mates(self, slot: str, other: str) -> None:
        """The card in the slot and this one are mates."""
        name = self.phrase(slot)
        if other not in self.scope.cards:
            raise self.unknown("mate", other, "card")
        self.mates[name], self.mates[other] = other, name

    def ask_faces(self) -> None:
        """From now on the proof follows which way up cards lie."""
        self.found_needs = replace(self.found_needs, faces=True)

    @property
    def follows_faces(self) -> bool:
        return self.purpose.every_card or self.needs.faces

    def _set_up(self) -> list[PackCard]:
        """Every card of the set-up: those of the pack, then those beside it."""
        return [*self.pack, *(card for card, _ in self.extras)]

    def _index_in_set_up(self, name: str) -> int:
        return next(i for i, card in enumerate(self._set_up()) if card.name == name)

    def token(self, name: str) -> int:
        """The token of a card of the set-up; asking for it makes the proof follow that card."""
        if name not in self.tokens:
            self.tokens[name] = self._index_in_set_up(name) + 1 if self.purpose.every_card else self._free_token()
        return self.tokens[name]

    def _free_token(self) -> int:
        return len(self.tokens) + len(self.card_cells) + 1

    # Named on the way

    def name_card(self, slot: str) -> int:
        """A card gets this name here: the cell for its token. Fill it with `take_name`."""
        name = self.phrase(slot)
        earlier = self.where_named.get(name)
        if earlier == self.line.number and self.rounds[-1:] != (1,):
            raise self.fault(
                slot,
                f"Each time round another card is called {name}.",
                "one card for one name",
                "Name the card before the repetition, or after it.",
            )
        self.new_name(slot, name, "card")
        self.scope.cards.add(name)
        self._own_tokens[name] = self._free_token()
        self.card_cells[name] = self.new_cell(Cell(name, False, is_card=True))
        self.touches.add(self.card_cells[name])
        return self.card_cells[name]

    def take_name(self, cell: int, cells: Cells, place: int, index: int) -> None:
        """The card at an index (from 0) of a place is the one named. An indifferent card becomes one to follow."""
        heap = cells[place]
        token = heap[index] & TOKEN
        if token == INDIFFERENT:
            token = self._own_tokens[self.cells[cell].name]
            cells[place] = heap[:index] + bytes([token | heap[index] & FACE_UP]) + heap[index + 1 :]
        cells[cell] = token

    def is_named_on_the_way(self, name: str) -> bool:
        return name in self.card_cells

    # Either

    def card_token(self, slot: str, name: str) -> Reader:
        """The token of a card as a function of the state."""
        if name not in self.scope.cards:
            raise self.unknown(slot, name, "card")
        if name in self.card_cells:
            cell = self.card_cells[name]
            self.reads.add(cell)
            return lambda cells: int(cells[cell])
        token = self.token(name)
        return lambda cells: token

    def card(self, slot: str) -> Reader:
        return self.card_token(slot, self.phrase(slot))

    def cards(self, slot: str) -> list[Reader]:
        return [self.card_token(slot, name) for name in self.line.values.get(slot) or ()]

    def claimed_card(self, slot: str) -> Reader:
        """`card`, for a claim: the first card claimed is the one the routine is about."""
        token = self.card(slot)
        self.claimed_cards.append(self.phrase(slot))
        return token

    def mate(self, slot: str) -> Reader:
        """The token of the mate of the card in the slot."""
        name = self.phrase(slot)
        mate = self.mates.get(name) or mate_of(name)
        if mate is None or mate not in self.scope.cards:
            raise self.fault(
                slot,
                f"No mate of {name} is in the pack.",
                "a card with a mate",
                f"Place its mate: “Place MATE 21st, the mate of {name}”.",
            )
        return self.card_token(slot, mate)

    def known_cards(self) -> dict[int, str]:
        """Token → name of every card of the set-up that has a value and a suit; the proof then follows them."""
        return {self.token(card.name): card.name for card in self._set_up() if card.name and card_value(card.name)}

    def named(self, token: int) -> str:
        """The name of a token, for sentences; one shared by many cards has none."""
        return next((name for name, other in self.tokens.items() if other == token), "another card")

    def whereabouts(self, cells: Sequence[Any], token: int) -> str:
        """Where a card lies, in words: `11th in deck`."""
        for index, cell in enumerate(self.cells):
            if cell.is_place and (at := index_of(cells[index], token)) >= 0:
                return f"{ordinal(at + 1)} in {cell.name}"
        return "out of play"
