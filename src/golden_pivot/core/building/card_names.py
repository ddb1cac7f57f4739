"""Cards by name: those placed in the set-up, those named on the way, and the tokens that stand for them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING, Any

from ..cards import FACE_UP, INDIFFERENT, TOKEN, card_value, index_of, mate_of
from ..english import ordinal
from ..language.sorts import Sort
from ..search.faces import Faces
from ..search.program import ANY_PLACE, Cell, Cells, Reader
from .asking import Asking

DECK, THEIR_CARD = "deck", "their card"


@dataclass
class PackCard:
    """A card of the pack as it lies at the beginning."""

    name: str | None = None
    face_up: bool = False
    odd_back: bool = False
    sort: Sort | None = None
    """what is known of its face, where no more is"""


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
        self.pairs: list[int] = []
        """tokens that two mates share, in a proof that tells no such pair from another"""
        self.told_apart: set[str] = set()
        """cards of the set-up that some line asks for by name"""
        self._paired: set[str] = set()
        """cards of the set-up that have mates, where some line asks for all of them"""
        self.claimed_cards: list[str] = []
        self.ever_told: set[int] = set()
        self.place_cells: dict[str, int] = {}
        self.face_cells: dict[int, int] = {}
        """token of a card that is followed by name → the cell that has the token of its face"""
        self.face_cells_by_name: dict[str, int] = {}
        self.fixed_faces: dict[int, int] = {}
        """token of a card that is followed → token of its face, for real cards of the set-up"""
        self._named_again: set[int] = set()
        """cells of cards that get their name in a repetition without a stated number, and may get it again"""
        self.faceless: set[int] = set()
        """tokens of cards beside the pack that may be anything"""

    # Placed in the set-up

    def place_in_pack(
        self,
        slot: str,
        index: int,
        face_up: bool = False,
        odd_back: bool = False,
        name: str | None = None,
        position_slot: str | None = None,
    ) -> None:
        """A named card, that in the slot unless it is given, lies at this index (from 0) of the pack."""
        at = position_slot or slot
        name = name or self.phrase(slot)
        if not 0 <= index < len(self.pack):
            raise self.fault(
                at, f"The pack has {len(self.pack)} cards and no position {index + 1}.",
                f"a position from 1 to {len(self.pack)}", "Change the position or the size of the pack.",
            )  # fmt: skip
        if (there := self.pack[index].name) is not None:
            raise self.fault(
                at, f"{there} already lies there.", "a position that is still free",
                "Give one of the two cards another place.",
            )  # fmt: skip
        self.new_name(slot, name, "card")
        self.scope.cards.add(name)
        self.scope.known_faces.add(name)
        sort = self.pack[index].sort
        self.fits_in(slot, name, index, sort)
        self.pack[index] = PackCard(name, face_up, odd_back, sort)
        if face_up:
            self.ask_faces()

    def fits_in(self, slot: str, name: str | None, index: int, sort: Sort | None) -> None:
        """Raises a fault for a card of the pack where one of another sort lies."""
        if sort and name and self.is_real(name) and name not in sort.names:
            raise self.fault(
                slot, f"{name} cannot lie {ordinal(index + 1)}: the card there is {sort.one}.", f"a card that is {sort.one}",
                "Place it elsewhere, or arrange the pack otherwise.",
            )  # fmt: skip

    def declare_mates(self, slot: str, other: str) -> None:
        """The card in the slot and this one are mates."""
        name = self.phrase(slot)
        if other not in self.scope.cards:
            raise self.unknown("mate", other, "card")
        self.mates[name], self.mates[other] = other, name

    def known_cards(self, slot: str) -> None:
        """Every card in the slot has come into the routine."""
        for name in self.line.values[slot]:
            if name not in self.scope.cards:
                raise self.unknown(slot, name, "card")

    def mark_back(self, slot: str) -> None:
        """The card of the set-up in the slot can be told from its back."""
        name = self.phrase(slot)
        card = next((card for card in self._set_up() if card.name == name), None)
        if card is None:
            raise self.fault(
                slot, f"{name} is not a card of the set-up.", "a card that is placed before the routine begins",
                "Place it in the set-up.",
            )  # fmt: skip
        card.odd_back = True

    def ask_faces(self) -> None:
        """From now on the proof follows which way up cards lie."""
        self.found_needs = replace(self.found_needs, faces=True)

    @property
    def follows_faces(self) -> bool:
        return self.purpose.every_card or self.purpose.follow_faces or self.needs.faces

    def _set_up(self) -> list[PackCard]:
        """Every card of the set-up: those of the pack, then those beside it."""
        return [*self.pack, *(card for card, _ in self.extras)]

    def _index_in_set_up(self, name: str) -> int:
        return next(i for i, card in enumerate(self._set_up()) if card.name == name)

    def token(self, name: str) -> int:
        """The token of a card of the set-up; asking for it makes the proof follow that card."""
        self.told_apart.add(name)
        return self._token(name)

    def _token(self, name: str) -> int:
        if name not in self.tokens:
            token = self._index_in_set_up(name) + 1 if self.purpose.every_card else self._free_token()
            self.tokens[name] = token
            if self.needs.facts:
                if self.is_real(name):
                    self.fixed_faces[token] = self.faces.byte(self.faces.of_name[name])
                elif self._index_in_set_up(name) >= len(self.pack):
                    self.faceless.add(token)
                else:
                    self._face_cell(name, token)
                    card = self._set_up()[self._index_in_set_up(name)]
                    if (known := self.sort_token(card)) and not self.purpose.every_card:
                        self.start[self.face_cells[token]] = bytes([known])
        return self.tokens[name]

    def is_real(self, name: str) -> bool:
        """A card of the pack by its value and suit."""
        return card_value(name) is not None

    def _face_cell(self, name: str, token: int) -> None:
        self.face_cells[token] = self.face_cells_by_name[name] = self.new_cell(Cell(f"face of {name}", False))

    if TYPE_CHECKING:  # of a part of the builder that stands on this one

        @property
        def faces(self) -> Faces: ...

        @property
        def seen_cell(self) -> int: ...

        def sort_token(self, card: PackCard) -> int: ...

    def _free_token(self) -> int:
        return len(self.tokens) + len(self.card_cells) + 1

    # Named on the way

    def name_card(self, slot: str, name: str | None = None) -> int:
        """A card gets the name in the slot here, or this one: the cell for its token. Fill it with `take_name`."""
        name = name or self.phrase(slot)
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
        if self.again:  # a card of an earlier time round may still go by this name
            self.touches.add(ANY_PLACE)
            if self.needs.facts:
                self.touches.add(self.seen_cell)
        if self.needs.facts:
            self._face_cell(name, self._own_tokens[name])
            self.touches.add(self.face_cells_by_name[name])
        if self.performer_acts():
            self.scope.known_faces.add(name)
            self.learns(name)
        else:
            self.scope.seen_by[name] = frozenset([self.person])
        self.looks_everywhere = self.facts_everywhere = True
        if self.again:
            self._named_again.add(self.card_cells[name])
        return self.card_cells[name]

    def hold_break(self, slot: str, place: frozenset[int]) -> None:
        """Your fingers keep a break at the card that has just got the name in the slot; you have not seen its face."""
        name = self.phrase(slot)
        self.scope.known_faces.discard(name)
        self.learned.pop(name, None)
        self.scope.held[name] = place

    def take_name(self, cell: int, cells: Cells, place: int, index: int) -> None:
        """The card at an index (from 0) of a place is the one named. An indifferent card becomes one to follow."""
        heap = cells[place]
        token = heap[index] & TOKEN
        face = self.needs.facts and not self.purpose.every_card and self.faces.number(token) is not None
        if token == INDIFFERENT or face:
            if cell in self._named_again:
                self._take_back(self._own_tokens[self.cells[cell].name], cells)
            heap = cells[place]
            if face:
                cells[self.face_cells_by_name[self.cells[cell].name]] = bytes([token])
            token = self._own_tokens[self.cells[cell].name]
            cells[place] = heap[:index] + bytes([token | heap[index] & FACE_UP]) + heap[index + 1 :]
        cells[cell] = token

    def _take_back(self, token: int, cells: Cells) -> None:
        """In a loop a card of an earlier time round may still go by this token: it is one like others again."""
        face = self.face_cells.get(token)
        becomes = cells[face][0] if face is not None and cells[face] else INDIFFERENT
        if face is not None:
            cells[face] = None
        old, new = bytes([token, token | FACE_UP]), bytes([becomes, becomes | FACE_UP])
        lies = [
            index for index in self.place_cells.values() if token in cells[index] or token | FACE_UP in cells[index]
        ]
        for index in lies:
            cells[index] = cells[index].translate(bytes.maketrans(old, new))
        if becomes and not lies:  # where it lies has been forgotten: that its face is out of the pack is not
            cells[self.seen_cell] = bytes(sorted([*(cells[self.seen_cell] or b""), becomes]))

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
        """The token of the card in the slot, to be looked for in the places that the line reads."""
        self.needs_to_know(self.phrase(slot))
        self.looks_everywhere = True
        return self.card_token(slot, self.phrase(slot))

    def cards(self, slot: str) -> list[Reader]:
        self.looks_everywhere = True
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
        self.looks_everywhere = True
        return self.card_token(slot, mate)

    @property
    def has_unknown_cards(self) -> bool:
        """Whether some card of the pack may be any card."""
        return any(card.name is None for card in self.pack)

    def tokens_of_set_up(self) -> dict[int, int]:
        """Token of every card placed by name, which the proof then follows → its number among them, from 1."""
        self.looks_everywhere = True
        names = [card.name for card in self._set_up() if card.name]
        return {self.token(name): number for number, name in enumerate(names, start=1)}

    def all_mates(self) -> dict[int, int]:
        """Token → token of its mate, for the cards of the set-up; the proof then follows each of them."""
        names = {card.name for card in self._set_up() if card.name}
        mates = {name: mate for name in sorted(names) if (mate := self.mates.get(name) or mate_of(name)) in names}
        self.looks_everywhere = True
        if self.purpose.forget_faces and not self.needs.facts:
            for name, mate in mates.items():
                if not {name, mate} & self.needs.told_apart and {name, mate}.isdisjoint(self.tokens):
                    self.tokens[name] = self.tokens[mate] = self._free_token()
                    self.pairs.append(self.tokens[name])
        self._paired |= set(mates)
        return {self._token(name): self._token(mate) for name, mate in mates.items()}

    def pairs_told_apart(self) -> None:
        """Settles which of the cards that have mates must have tokens of their own."""
        apart = self._paired if self.card_cells else self._paired & self.told_apart
        self.found_needs = replace(self.found_needs, told_apart=frozenset(apart))

    def named(self, token: int) -> str:
        """The name of a token, for sentences; one shared by many cards has none."""
        return next((name for name, other in self.tokens.items() if other == token), "another card")

    def whereabouts(self, cells: Sequence[Any], token: int) -> str:
        """Where a card lies, in words: `11th in deck`."""
        for index, cell in enumerate(self.cells):
            if cell.is_place and (at := index_of(cells[index], token)) >= 0:
                return cell.layout.at(at + 1, cell.name)
        return "out of play"
