"""Routine → Program. The meanings of the steps are called with a Builder and add their instructions to it.

A program is built for one of several purposes. A **proof** gives a token only to cards that some line asks
for and forgets what is dead. A **replay** gives every card its own token and forgets nothing. What one line
asks of all others (that faces are followed, that a back is not seen) is known only at the end of a
building; the next one then provides it, until none asks for more.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from ..cards import FACE_UP, INDIFFERENT, MAX_CARDS
from ..faults import BadRoutine, Fault
from ..language.routine import STEP, Routine
from ..passes.pipeline import passes_for, run
from ..search.faces import OF_PAIRS, FaceStore
from ..search.program import (
    ANY_FACE,
    ANY_PLACE,
    END,
    FAILED,
    JUMP,
    NO_ENDING,
    Act,
    AnyInstruction,
    Branch,
    Cell,
    Choose,
    Closure,
    Leap,
    Loop,
    Program,
    Wanted,
    changed,
)
from .card_names import DECK, THEIR_CARD, PackCard
from .judging import Judging
from .purpose import PROOF, Needs, Purpose

TOO_MANY = Fault(
    1, 1, 1, "More cards are told apart here, by name and by face, than can be followed.", "fewer cards by name",
    "Place fewer cards, or ask less of them.", is_limit=True,
)  # fmt: skip


def compile_routine(routine: Routine, purpose: Purpose = PROOF) -> Program:
    """Raises BadRoutine with every fault found, those of the parser first."""
    program, faults = compile_what_can_be(routine, purpose)
    if faults:
        raise BadRoutine(faults)
    return program


def compile_what_can_be(routine: Routine, purpose: Purpose) -> tuple[Program, tuple[Fault, ...]]:
    """The program up to the first line that cannot be carried out, and every fault. Built once for a purpose."""
    if purpose not in routine.programs:
        routine.programs[purpose] = _compiled(routine, purpose)
    return routine.programs[purpose]  # type: ignore[no-any-return]


def _compiled(routine: Routine, purpose: Purpose) -> tuple[Program, tuple[Fault, ...]]:
    program, faults = lowered(routine, purpose)
    in_order = purpose.forget_faces and not faults
    return run(program, passes_for(in_order and purpose.reorder, in_order and purpose.early_checks)), faults


def lowered(routine: Routine, purpose: Purpose) -> tuple[Program, tuple[Fault, ...]]:
    """The program as its lines say it, before any pass, and every fault."""
    needs = Needs()
    while True:
        builder = Builder(routine, purpose, needs)
        builder.go_through()
        # What one line is given may let another ask for more; needs only grow, or follow from such, so this comes to an end.
        if (more := needs.and_also(builder.found_needs)) == needs:
            return builder.program(), tuple(builder.faults)
        needs = more


def _beside_the_point(instructions: Sequence[AnyInstruction]) -> frozenset[int]:
    """Numbers that are freely named on every path and that no line goes by: they say nothing about any card."""
    if any(isinstance(step, Branch | Leap | Loop | Closure) for step in instructions):
        return frozenset()
    others = [step for step in instructions if not isinstance(step, Choose)]
    used = frozenset[int]().union(*(step.reads for step in instructions), *(step.touches for step in others))
    return frozenset(step.cell for step in instructions if isinstance(step, Choose) and not step.reads) - used


class Builder(Judging):
    def go_through(self) -> None:
        """Goes through the lines: their instructions, and what they ask of each other."""
        self._lines(self.routine.lines)
        self.said_by_the_end()
        if not self.faults:
            self._whole_routine()
        self.faults.sort(key=lambda fault: (fault.line, fault.column))
        self._followed = target = self._target()
        if target and not self.claims and self._count_cell is not None:
            self.ask_pile_places()  # the landing may be in any of them
        self.own_places_beside_numbered_piles()
        self._keeps_target = bool(target) and (
            not self.purpose.odds and (not self.claims or not self.purpose.forget_places)
        )
        if target and target not in self.card_cells and (self._keeps_target or not self.pairs):
            self.token(target)
        self.pairs_told_apart()

    def program(self) -> Program:
        """Of what has been gathered, with the pack as it lies at first."""
        self._lay_out()
        return self._assembled(self._followed)

    def _whole_routine(self) -> None:
        lines = [line for line in self.routine.walk() if line.is_ == STEP]
        if not self.pack:
            last = lines[-1].number if lines else 1
            self.faults.append(
                Fault(
                    last,
                    1,
                    1,
                    "There is no pack.",
                    "a line such as “Pack: 52 cards, any order”",
                    "Write the pack as the first line.",
                )
            )
        elif not self._target() and not self.claims and not self.odds_cells:
            self.faults.append(
                Fault(
                    lines[-1].number,
                    1,
                    len(lines[-1].text) + 1,
                    "No card is followed.",
                    "a card to follow, such as “Place FORCE 10th” or “Spectator thinks of a card in deck: their card”",
                    "Place a card in the set-up, or let the spectator think of one.",
                )
            )

    def _target(self) -> str | None:
        """The first card claimed, one of the set-up if it can be; else their card, else the first that got a name."""
        placed = [card.name for card in self._set_up() if card.name]
        named = [*placed, *self.card_cells]
        if self.purpose.follow in named:
            return self.purpose.follow
        if self.claimed_cards:
            return next((name for name in self.claimed_cards[:2] if name in placed), self.claimed_cards[0])
        return THEIR_CARD if THEIR_CARD in named else min(named, key=self.where_named.__getitem__, default=None)

    def _lay_out(self) -> None:
        """Puts the pack on the table as it lies when the routine begins."""
        if not self.pack:
            return
        for card, _ in self.extras:
            if self.purpose.every_card or (self.needs.facts and not self.is_real(card.name or "")):
                self.token(card.name or "")
        if self.purpose.every_card:
            for card in self.pack:
                if card.name and (self.purpose.every_name or self.is_real(card.name)):
                    self.token(card.name)
        heap = bytearray()
        for index, card in enumerate(self.pack):
            token = index + 1 if self.purpose.every_card else self._token_of(card)
            heap.append(token | FACE_UP if card.face_up and self.follows_faces else token)
        self.start[self.place_cells[DECK]] = bytes(heap)
        if self._endings and not self._endings_for_all:
            self.start[FAILED] |= NO_ENDING
        for card, place in self.extras:
            byte = self._token_of(card) | (FACE_UP if card.face_up and self.follows_faces else 0)
            cell = self.place_cells[place]
            self.start[cell] = bytes([byte]) + self.start[cell]
        tops = {self.start[cell][0] for cell in self.place_cells.values() if self.start[cell]}
        for exposure in self.needs.exposures:
            if tops & self._seen_as(exposure):
                self.start[FAILED] |= 2 << exposure.claim

    def _token_of(self, card: PackCard) -> int:
        """As it lies in the set-up: followed by name, known by its face, or indifferent."""
        if card.name in self.tokens:
            return self.tokens[card.name]
        if self.needs.facts and card.name and self.is_real(card.name):
            return self.faces.byte(self.faces.of_name[card.name])
        if self.needs.facts and card.sort:
            return self.sort_token(card)
        return INDIFFERENT

    def _assembled(self, target: str | None) -> Program:
        instructions, claims = self.instructions[: self._sound[0]], self.claims[: self._sound[1]]
        instructions = [
            changed(step, target=len(instructions))
            if isinstance(step, Branch | Leap) and len(instructions) < step.target < END
            else step
            for step in instructions
        ]
        instructions = [
            Leap(step.line, step.round, frozenset(), frozenset(), i + 1)
            if (isinstance(step, Loop) and step.end >= len(instructions))
            or (isinstance(step, Closure) and (not step.ends or step.ends[-1] >= len(instructions)))
            else step
            for i, step in enumerate(instructions)
        ]
        instructions = [self._whichever_resolved(step) for step in instructions]
        end = {FAILED, JUMP, *self.tells.values(), *filter(None, (self.again_cell, self.reached_cell))}
        if self.purpose.odds:
            end |= {cell for _, _, cell in self.odds_cells} | ({self.ending_cell} if self.ending_cell else set())
        if self._keeps_target and target in self.card_cells:
            end.add(self.card_cells[target])
        if not claims and not self.purpose.odds and target:
            end |= {i for i, cell in enumerate(self.cells) if cell.is_place}
            beside = {i for i in _beside_the_point(instructions) if self.cells[i].name not in self.purpose.kept}
            end |= self.ever_told - beside
        if self.purpose.keep_cards:
            end |= {~i for i, cell in enumerate(self.cells) if cell.is_place}
        faces = FaceStore(self.seen_cell, self.faces.lowest) if self.needs.facts else None
        highest = max((*self.tokens.values(), *self._own_tokens.values()), default=0)
        if faces and not self.purpose.every_card and highest >= self.faces.lowest:
            self.faults.append(TOO_MANY)
        may_die = frozenset(i for i, cell in enumerate(self.cells) if i > JUMP and self._may_be_forgotten(i, cell))
        places = frozenset(i for i, cell in enumerate(self.cells) if cell.is_place and self.purpose.forget_faces)
        return Program(
            tuple(replace(cell, told=i in self.ever_told) for i, cell in enumerate(self.cells)),
            tuple(self.start),
            tuple(instructions),
            dict(self.tokens),
            dict(self.card_cells),
            dict(self._own_tokens),
            dict(self.fixed_faces),
            dict(self.face_cells_by_name),
            self.follows_faces,
            target,
            tuple(dict.fromkeys([*(c.name for c in self._set_up() if c.name), *self.card_cells])),
            self.where_named.get(target or "") if target in self.tokens else None,
            tuple(claims),
            covers_every_order=sum(card.name is None for card in self.pack) > 1 and not self.sorts_known,
            covers=self._covers(),
            assumed=tuple(self.assumed),
            tells=dict(self.tells),
            again=self.again_cell,
            odds=tuple(self.odds_cells),
            ending=self.ending_cell,
            reached=self.reached_cell,
            keeps_target=self._keeps_target,
            interchangeable=tuple(bytes([token]) for token in self.pairs) or self._alike_faces(),
            remembered=tuple((name, self.learned[name], tuple(lines)) for name, lines in self.needed.items()),
            equally_likely=self.equally_likely,
            face_classes=self.faces.classes if self.needs.facts else (),
            faces=faces,
            wanted=Wanted(frozenset(end), may_die, places),
            odd_backs=self._odd_backs() if self.purpose.every_card else {},
        )

    def _covers(self) -> str:
        free, whole = sum(card.name is None for card in self.pack), len(self.pack)
        if self.sorts_known:
            return "every pack of these sorts in this order"
        if free < 2:
            return "this order of the pack only"
        return "every order of the pack" if free == whole else f"every order of the other {free} cards"

    def _whichever_resolved(self, step: AnyInstruction) -> AnyInstruction:
        """What is about any face, or any place, is about all there are, those named further down a loop too."""
        whichever = {ANY_FACE: frozenset(self.face_cells.values()), ANY_PLACE: frozenset(self.place_cells.values())}
        any_one = frozenset(whichever)
        if not (step.reads | step.touches) & any_one:
            return step

        def resolved(cells: frozenset[int]) -> frozenset[int]:
            return frozenset(cells - any_one).union(*(whichever[one] for one in any_one & cells))

        if isinstance(step, Act) and step.fills is None and ANY_PLACE in step.touches:
            step = changed(step, fills=step.touches - any_one)  # no card goes there
        return changed(
            step,
            reads=resolved(step.reads),
            touches=resolved(step.touches),
            looks=resolved(step.looks),
            reads_faces=step.reads_faces - any_one,
        )

    def _alike_faces(self) -> tuple[bytes, ...]:
        """Tokens of the faces of each pair of mates, where it makes no difference which pair it is."""
        apart = (
            self.fixed_faces or self.tells or any(card.name and self.is_real(card.name) for card in self._set_up())
        )
        apart = apart or bool(self.sorts_known)
        if not self.purpose.reorder or not self.needs.facts or not self.needs.facts <= OF_PAIRS or apart:
            return ()
        return self.faces.pairs

    def _may_be_forgotten(self, index: int, cell: Cell) -> bool:
        if cell.is_card or (self.needs.facts and (index == self.seen_cell or index in self.face_cells.values())):
            return self.purpose.forget_faces
        if cell.is_place:
            return self.purpose.forget_places
        if cell.name in self.purpose.kept:
            return False
        return self.purpose.forget_numbers or (self.purpose.forget_unnamed and cell.symbol is None)

    def lay_extra(self, card_slot: str, place_slot: str, face_up: bool, odd_back: bool) -> None:
        """A card beside the pack lies at a place when the routine begins, on those that are there."""
        name = self.phrase(card_slot)
        place = self.destination(place_slot)
        if place.name == DECK:
            raise self.fault(
                place_slot,
                "This card is beside the pack.",
                "another place than deck",
                "Give it a position in the pack instead.",
            )
        if len(self.pack) + len(self.extras) >= MAX_CARDS:
            raise self.fault(card_slot, f"There are {MAX_CARDS} cards already.", "fewer cards", "Leave one out.")
        self.new_name(card_slot, name, "card")
        self.scope.cards.add(name)
        self.scope.known_faces.add(name)
        self.extras.append((PackCard(name, face_up, odd_back), place.name))
        if face_up:
            self.ask_faces()
