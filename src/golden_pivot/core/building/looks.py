"""Looking at faces: what an unknown card can be is settled where it is first asked, by chance."""

from __future__ import annotations

from collections.abc import Callable, Collection, Sequence
from dataclasses import replace
from functools import cached_property
from typing import Any

from ..cards import DOWN, FACE_UP, FACE_UP_BYTES, TOKEN, index_of, mate_of
from ..faults import Impossible
from ..language.expressions import CardFact, SpotFact
from ..language.kinds import ENDING
from ..language.phrases import spot_text
from ..language.sorts import Sort
from ..search.faces import PACK, Faces, faces_known_by, without_test
from ..search.program import ANY_FACE, Cell, Cells, Choose, Reader
from .card_names import PackCard
from .places import Place
from .spots import FoundSpot, Spots

Found = Callable[[Sequence[Any]], tuple[int | None, int, int]]
"""state → (cell of the place where the card lies or None, its index there, its token)"""
MaybeFound = Callable[[Sequence[Any]], tuple[int | None, int, int] | None]
"""the same, None where no card lies"""
FaceReader = Callable[[Sequence[Any]], int]
Possible = dict[int, tuple[int, int]]
"""class a card can be of (or class it is not of) → in how many ways, as a fraction of the ways so far"""


NO_CARD: Possible = {0: (1, 1)}
"""where nothing lies there is nothing to be settled"""


def _once_a_state(reckoned: Callable[[Sequence[Any]], Possible]) -> Callable[[Sequence[Any]], Possible]:
    """The explorer asks for the options of a state and then for the ways of each: they are reckoned once."""
    last: list[Any] = [None, {}]

    def possible(cells: Sequence[Any]) -> Possible:
        if cells is not last[0] or isinstance(cells, list):
            last[:] = [cells, reckoned(cells)]
        found: Possible = last[1]
        return found

    return possible


WATCHED = "the card watched"


class Looks(Spots):
    def __init__(self, *given: Any) -> None:
        super().__init__(*given)
        self._noted: dict[str, tuple[Reader, frozenset[int]]] = {}

    @cached_property
    def faces(self) -> Faces:
        """The classes of cards that this routine tells apart."""
        facts = self.needs.facts | {sort.asked for sort in self.sorts_known}
        return faces_known_by(frozenset(facts), self.packs, self.needs.whether, tuple(self.groups_known))

    @property
    def packs(self) -> int:
        """How many packs of 52 the cards come from."""
        return -(-len(self.pack) // 52)

    @cached_property
    def seen_cell(self) -> int:
        """Tokens of seen cards that are forgotten; in a replay, token of each card → token of its face."""
        cell = self.new_cell(Cell("faces seen", False))
        self.start[cell] = bytes(TOKEN + 1) if self.purpose.every_card else b""
        if self.purpose.every_card and self.sorts_known and self.needs.facts:
            known = [self.sort_token(card) for card in self.pack]
            self.start[cell] = bytes([0, *known, *bytes(TOKEN - len(known))])
        return cell

    @property
    def sorts_known(self) -> list[Sort]:
        """The sorts of which every card of the pack is known to be one; none where nothing is known."""
        return list(dict.fromkeys(card.sort for card in self.pack if card.sort))

    @property
    def groups_known(self) -> list[frozenset[str]]:
        """Cards of each sort of which something in the pack is known to be."""
        return [sort.names for sort in self.sorts_known]

    def sort_token(self, card: PackCard) -> int:
        """What is known of the face of a card of the pack from the beginning; 0 for nothing."""
        if not card.sort or card.sort.names not in self.groups_known:
            return 0  # it is settled by a line
        return self.faces.byte(self.faces.group(self.groups_known.index(card.sort.names)))

    def ask_fact(self, fact: str) -> None:
        if fact not in self.found_needs.facts:
            self.found_needs = replace(self.found_needs, facts=self.found_needs.facts | {fact})

    # What is known of a card

    def face_token(self, cells: Sequence[Any], token: int) -> int:
        """The token of the face of a card; 0 while it is unknown."""
        if not self.needs.facts:
            return 0
        if token in self.fixed_faces:
            return self.fixed_faces[token]
        if self.purpose.every_card:
            return int(cells[self.seen_cell][token])
        if token in self.face_cells:
            known = cells[self.face_cells[token]]
            return known[0] if known else 0
        return token if self.faces.number(token) is not None else 0

    def _faces_in(self, cells: Sequence[Any], heap: bytes) -> bytes:
        """The token of the face of each card of a heap; 0 where it is unknown."""
        table = bytearray(cells[self.seen_cell] * 2 if self.purpose.every_card else self._faces_alone)
        for token, face in self.fixed_faces.items():
            table[token] = table[token | FACE_UP] = face
        for token, cell in () if self.purpose.every_card else self.face_cells.items():
            if cells[cell] and token not in self.fixed_faces:
                table[token] = table[token | FACE_UP] = cells[cell][0]
        return heap.translate(table)

    @cached_property
    def _faces_alone(self) -> bytes:
        """Byte → token of the face, for cards that are known by their faces alone; 0 for others."""
        return bytes(token if (token := byte & TOKEN) >= self.faces.lowest else 0 for byte in range(256))

    def fact_of(self, fact: str, under: Collection[int] = (ANY_FACE,)) -> Callable[[Sequence[Any], int], int | None]:
        """(state, token) → the number; None where nothing is known of the card, or it has none.

        The card may be one with a name, or with several: its face is kept under one of them, and the line depends on
        all that it can be, which are those whose cells `under` has.
        """
        self.reads |= set(under)
        if fact not in self.needs.facts:  # the first building only finds out what is asked
            return lambda cells, token: None
        told_by = self.faces.told_by(fact)

        def read(cells: Sequence[Any], token: int) -> int | None:
            return told_by.get(self.face_token(cells, token))

        return read

    def _set_face(self, cells: Cells, found: tuple[int | None, int, int], face: int) -> None:
        place, index, token = found
        if token in self.fixed_faces:
            return
        if self.purpose.every_card:
            shown = bytearray(cells[self.seen_cell])
            shown[token] = face
            cells[self.seen_cell] = bytes(shown)
        elif token in self.face_cells:
            cells[self.face_cells[token]] = bytes([face])
        else:
            assert place is not None
            heap = cells[place]
            cells[place] = heap[:index] + bytes([face | heap[index] & FACE_UP]) + heap[index + 1 :]

    def _all_seen(self, cells: Sequence[Any]) -> bytes:
        """Tokens of every face that is known in this state."""
        seen = cells[self.seen_cell]
        if self.purpose.every_card:
            return bytes([*filter(None, seen), *self.fixed_faces.values()])
        places, named_cells, fixed = self._where_faces_are
        heaps = b"".join([cells[i] for i in places])
        named = b"".join([cells[cell] or b"" for cell in named_cells])
        return bytes(seen + heaps.translate(DOWN, self.faces.unseen) + named + fixed)

    @cached_property
    def _where_faces_are(self) -> tuple[list[int], list[int], bytes]:
        """(places, cells of faces, faces that never change); asked for only when the program is complete."""
        places = [i for i, cell in enumerate(self.cells) if cell.is_place]
        return places, list(self.face_cells.values()), bytes(self.fixed_faces.values())

    # Looking

    def look(self, label: str, found: MaybeFound, **says: Any) -> None:
        """From here on the card that lies there has a face: known before, or any that is still possible.

        `says`: what the instructions that find it out say of themselves besides.
        """
        if not self.needs.facts or self.every_face_is_known:
            return
        faces, limits = self.faces, self.purpose.limits or self.purpose.every_card
        self.touches |= {self.seen_cell, ANY_FACE}  # of whichever card it is, if it has a name
        if limits:
            self.reads |= {self.seen_cell}
        every = dict.fromkeys(range(len(faces.classes)), (1, 1))

        def reckoned(cells: Sequence[Any]) -> Possible:
            here = found(cells)
            if here is None:
                return NO_CARD
            token = here[2]
            if token in self.faceless:
                raise Impossible(f"nobody can say what {label} is")
            known = self.face_token(cells, token)
            if known and (settled := faces.of_byte(known)) is not None:
                return {settled: (1, 1)}
            if not limits:
                return every if not known else dict.fromkeys(faces.can_be(faces.number(known)), (1, 1))
            return faces.next_ways(self._all_seen(cells), known)

        possible = _once_a_state(reckoned)

        def options(cells: Sequence[Any]) -> Sequence[int]:
            return list(possible(cells))

        def ways(cells: Sequence[Any], option: int) -> tuple[int, int]:
            return possible(cells)[option]

        def say(cells: Sequence[Any], option: int) -> str:
            return faces.text(option)

        key = f"face in line {self.line.number}"
        self.says = says
        chosen = self.choose_by_chance(key, label, options, say, ways if limits else None, draws=limits)

        def run(cells: Cells) -> None:
            if (here := found(cells)) is not None:
                self._set_face(cells, here, faces.byte(chosen(cells)))

        self.note(run, self.touches)
        self.says = {}
        self._settled_in_the_face()

    @property
    def every_face_is_known(self) -> bool:
        """From the beginning, so that nothing is left to be found out."""
        return all(card.name and self.is_real(card.name) for card in self._set_up())

    def _settled_in_the_face(self) -> None:
        """What the line does from here on depends on the face of the card last chosen, not on the choice of it."""
        made = next(step for step in reversed(self.instructions) if isinstance(step, Choose))
        self.reads.discard(made.cell)

    def look_whether(self, label: str, found: Found, fact: str, number: int) -> Callable[[Sequence[Any]], bool]:
        """Whether a fact of the card is this number; what else it is stays open where that can be.

        The smallest question leaves the fewest situations.
        """
        self.ask_fact(fact)
        faces = self.faces
        alike = [c for c, one in enumerate(faces.classes) if one.facts.get(fact) == number]
        size, limits = len(faces.classes), self.purpose.limits or self.purpose.every_card
        read = self.fact_of(fact)

        def holds(cells: Sequence[Any]) -> bool:
            return read(cells, found(cells)[2]) == number

        # Before it is known what else is asked it is likely, and spares going through the lines once more.
        if (len(alike) == 1 or not self.needs.facts) and not faces.groups and not self.found_needs.whether:
            self.found_needs = replace(self.found_needs, whether=True)
        if len(alike) != 1 or faces.groups:
            self.look(label, found)
            return holds
        (c,) = alike
        self.touches |= {self.seen_cell, ANY_FACE}
        if limits:
            self.reads |= {self.seen_cell}

        def reckoned(cells: Sequence[Any]) -> Possible:
            token = found(cells)[2]
            if token in self.faceless:
                raise Impossible(f"nobody can say what {label} is")
            known = self.face_token(cells, token)
            settled = faces.of_byte(known) if known else None
            if settled is not None or faces.number(known) == c + size:
                return {faces.number(known) or 0: (1, 1)}
            if known:
                return faces.next_ways(self._all_seen(cells), known)
            return faces.is_or_not(self._all_seen(cells), c) if limits else {c: (1, 1), c + size: (1, 1)}

        possible = _once_a_state(reckoned)

        def say(cells: Sequence[Any], option: int) -> str:
            return faces.text(option)

        chosen = self.choose_by_chance(
            f"face in line {self.line.number}", label, lambda cells: list(possible(cells)), say,
            (lambda cells, option: possible(cells)[option]) if limits else None,
        )  # fmt: skip

        def run(cells: Cells) -> None:
            self._set_face(cells, found(cells), faces.byte(chosen(cells)))

        self.note(run, self.touches)
        self._settled_in_the_face()
        return holds

    def mate_in(self, card_slot: str, place: Place) -> Reader:
        """Index from 0 of the mate of the card in the slot, among the cards of a place: where it is, by chance."""
        if self.sorts_known:
            raise self.fault(
                card_slot, "In a pack of which the sorts are known no mate is looked for.", "a pack in any order, or in a known one",
                "Place the cards you look for.", is_limit=True,
            )  # fmt: skip
        mate_of_card = self._mate_class(card_slot)
        faces = self.faces
        name = self.phrase(card_slot)
        self.looks_in |= place.cells
        self.facts_in |= place.cells
        self.touches |= {self.seen_cell, ANY_FACE}
        self.changed_where_it_lies(place)
        self.reads |= {self.seen_cell, ANY_FACE}

        def options(cells: Sequence[Any]) -> Sequence[int]:
            if not self.needs.facts:
                return [0]
            mate, heap = faces.byte(mate_of_card(cells)), place.of(cells)
            shown = self._faces_in(cells, heap)
            if mate in shown:
                return [i for i, token in enumerate(shown) if token == mate]
            # Not those that lie somewhere: a place that nobody asks for has been emptied.
            every, seen = len(self.pack) + len(self.extras), self._all_seen(cells)
            unknown = shown.count(0)
            if mate in seen or every - len(seen) != unknown or every != sum(faces.totals):
                raise Impossible(f"it is not certain that the mate of {name} lies in {place.name}")
            # Among cards that are alike and lie together it makes no difference which one it is.
            above = bytes([TOKEN + FACE_UP]) + heap
            return [
                i for i, (byte, over) in enumerate(zip(heap, above, strict=False)) if byte != over and not shown[i]
            ]

        chosen = self.choose_by_chance(
            f"the mate in line {self.line.number}", f"the mate of {name}", options,
            lambda cells, option: place.layout.at(option + 1, place.name),
            lambda cells, option: (len(rest := place.of(cells)[option:]) - len(rest.lstrip(rest[:1])), 1),
        )  # fmt: skip

        def run(cells: Cells) -> None:
            if self.needs.facts:
                at, cell = chosen(cells), place.find(cells)
                token = cells[cell][at] & TOKEN
                if not self.face_token(cells, token):
                    self._set_face(cells, (cell, at, token), faces.byte(mate_of_card(cells)))

        self.note(run, self.touches)
        return chosen

    def _mate_class(self, card_slot: str) -> FaceReader:
        """The class of the one card that is the mate of the card in the slot."""
        token = self.look_at_card(card_slot, self.phrase(card_slot), ["card"])
        read, name = self.fact_of("card"), self.phrase(card_slot)

        def mate(cells: Sequence[Any]) -> int:
            number = read(cells, token(cells))
            if number is None:
                raise Impossible(f"nobody can say what {name} is")
            return self.faces.of_name[mate_of(PACK[number - 1]) or ""]

        return mate

    def look_at_card(self, slot: str, name: str, facts: Sequence[str]) -> Reader:
        """Asks facts of a card by name; returns its token."""
        token = self.card_token(slot, name)
        for fact in facts:
            self.ask_fact(fact)
        self.touches |= set(self.face_cells.values())
        self.reads |= self._face_may_be_in(name)
        if not self.is_real(name) and name not in self.scope.looked_at:
            self.look(name, lambda cells: (None, 0, token(cells)))
            self.scope.looked_at.add(name)
        return token

    def _face_may_be_in(self, name: str) -> set[int]:
        """Cells of faces in which that of a named card can be: under this name, or under one that the card had before.

        A card of the set-up that no line has asked for yet gets its cell only where one does.
        """
        to_come = any(card.name not in self.tokens for card in self.pack if card.name and not self.is_real(card.name))
        if self.again or self._named_again or to_come:
            return {ANY_FACE}
        names = list(self.card_cells)
        later = names[names.index(name) + 1 :] if name in self.card_cells else names
        return {cell for one, cell in self.face_cells_by_name.items() if one not in later}

    def look_at_spot(self, spot: FoundSpot, facts: Sequence[str]) -> None:
        """Asks facts of a card by where it lies. It must lie face up, else nobody could say them."""
        for fact in facts:
            self.ask_fact(fact)
        must_lie_open = self.must_lie_open()
        if must_lie_open:
            self.ask_faces()
        text = spot.text
        self.reads |= spot.place.cells | spot.place.reads
        if always := spot.always_at:
            self.spots_in = (*self.spots_in, always)
        else:
            self.looks_in |= spot.place.cells
        self.facts_in |= spot.place.cells
        self.touches |= set(self.face_cells.values())
        self.changed_where_it_lies(spot.place)
        self.reads.add(ANY_FACE)

        def found(cells: Sequence[Any]) -> tuple[int, int, int]:
            place, index = spot.find(cells)
            byte = cells[place][index]
            if must_lie_open and self.follows_faces and byte < FACE_UP:
                raise Impossible(f"{text} lies face down, and nobody can see it")
            return place, index, byte & TOKEN

        if not self.scope.has_looked(spot.looked_at, must_lie_open):
            says = self.looking_at_spots((always,)) if always else {}
            self.must_be_open(must_lie_open, found, **says)
            self.look(text, found, **says)
            self.scope.looks(spot.looked_at, must_lie_open)

    def must_be_open(self, must_lie_open: bool, found: Callable[[Sequence[Any]], object], **says: Any) -> None:
        """Where nothing is left to be found out of faces, that somebody must see them has to be said for itself."""
        if not (must_lie_open and self.follows_faces and self.every_face_is_known):
            return

        def run(cells: Cells) -> None:
            found(cells)

        self.says = says
        self.note(run, ())
        self.says = {}

    def must_lie_open(self) -> bool:
        """A face that somebody goes by must be seen; at the end it is turned up."""
        return self._phase_of_line() != ENDING and self.for_all_to_know

    # An order that is noted

    watched_name = WATCHED

    def note_number(self, name: str, number: Reader) -> None:
        """Keeps a number under a name that no line can write."""
        self._noted[name] = number, frozenset(self.reads)

    def watched(self, slot: str) -> tuple[Reader, Reader]:
        """(token of the card that is watched, the position it had) of the order noted above."""
        if WATCHED not in self.scope.cards:
            raise self.leans(
                lambda: self.fault(slot, "No order has been noted.", "a line such as “Note the order of deck” above",
                                   "Note the order where it is to be kept.")
            )  # fmt: skip
        position, reads = self._noted[WATCHED]
        self.reads |= reads
        return self.card_token(slot, WATCHED), position

    # Facts in numbers

    def asked_of_card(self, slot: str, node: CardFact | SpotFact, test: str = "") -> Reader:
        """The number that a card gives; with a test, such as `is 13`, no more than what that says of it (faces.TESTS)."""
        fact = f"{node.what} {test}".rstrip()
        if isinstance(node, SpotFact):
            spot = self.found_spot(slot, node.spot)
            self.look_at_spot(spot, [fact])
            read = self.fact_of(fact)

            text = spot_text(node.spot)

            def of_spot(cells: Sequence[Any]) -> int:
                found = read(cells, spot.byte(cells) & TOKEN)
                return found if found is not None else self._known_number(found, fact, text)

            return of_spot
        name = node.card
        self.must_know_fact(slot, name)
        token, read = self.look_at_card(slot, name, [fact]), self.fact_of(fact, self._face_may_be_in(name))
        return lambda cells: self._known_number(read(cells, token(cells)), fact, name)

    def must_find(self, slot: str, name: str) -> None:
        """The line at hand looks for a card of which you know no face: it must stand out where it lies."""
        self.ask_faces()
        outer, self.reads = (self.reads, self.looks_in), set()
        places = self.every_place()
        self.looks_in = set(places)
        token = self.card_token(slot, name)

        def run(cells: Cells) -> None:
            card = token(cells)
            heap = next((cells[cell] for cell in places if index_of(cells[cell], card) >= 0), b"")
            its_up, its_down = heap.count(card | FACE_UP), heap.count(card)
            down = len(heap.translate(None, FACE_UP_BYTES))
            if (its_down and down > its_down) or (its_up and len(heap) - down > its_up):
                raise Impossible(f"you do not know what {name} is and cannot tell it from the cards with it")

        self.note(run, ())
        self.reads, self.looks_in = outer

    def must_know_fact(self, slot: str, name: str) -> None:
        """Whoever goes by a fact of the card must know what it is."""
        if self._phase_of_line() != ENDING and self.for_all_to_know:
            self.must_have_seen(slot, name)
            if self.performer_acts():
                self.must_know(slot, name)

    def must_have_seen(self, slot: str, name: str) -> None:
        """A card that only other spectators have seen is not for those who act here to go by."""
        by = self.scope.seen_by.get(name, self.people)
        if name not in self.scope.known_faces and (ignorant := self.people - by):
            raise self.fault(
                slot, f"Spectator {min(ignorant)} does not know what {name} is: spectator {min(by)} has seen it.",
                "a card that this spectator has seen",
                f"Let spectator {min(by)} do this, or write “Spectator {min(by)} names {name}” above.",
            )  # fmt: skip

    def must_know(self, slot: str, name: str) -> None:
        """The line at hand is one that nobody can carry out who does not know what this card is."""
        self.needs_to_know(name)
        if name in self.scope.cards and name not in self.scope.known_faces:
            raise self.fault(
                slot,
                f"You do not know what {name} is.",
                "a card whose face you have seen or been told",
                f"Let the spectator do this, or write “Spectator names {name}” above.",
            )

    def _known_number(self, found: int | None, fact: str, card: str) -> int:
        if found is not None:
            return found
        if fact not in self.needs.facts:
            return 0  # the first building
        raise Impossible(f"nobody can say the {without_test(fact)} of {card}")

    def _phase_of_line(self) -> str:
        return self.line.kind.phase if self.line.kind else ""
