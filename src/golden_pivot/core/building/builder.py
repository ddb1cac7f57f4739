"""Routine → Program. The meanings of the steps are called with a Builder and add their instructions to it.

A program is built for one of several purposes. A **proof** gives a token only to cards that some line asks
for and forgets what is dead. A **replay** gives every card its own token and forgets nothing. What one line
asks of all others (that faces are followed, that a back is not seen) is known only at the end of a first
building; a second one then provides it.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from itertools import zip_longest
from typing import Any

from ..cards import FACE_UP, INDIFFERENT, MAX_CARDS
from ..expressions import Blank, within
from ..faults import BadRoutine, Fault
from ..language.templates import PERFORMER, SPECTATOR
from ..language.values import expressions_in
from ..program import (
    END,
    FAILED,
    JUMP,
    NO_ENDING,
    Act,
    Branch,
    Cell,
    Cells,
    Check,
    ClaimLine,
    Closure,
    Leap,
    Program,
    Reader,
    dead_after,
)
from ..routine import STEP, Line, Routine
from ..steps.declare import ENDING, HANDLING, PAGE, SETUP
from .asking import LineFails
from .cards import DECK, THEIR_CARD, PackCard
from .purpose import PROOF, Exposure, Needs, Purpose
from .scope import Scope, after_cases
from .spots import Spots

MAX_INSTRUCTIONS = 5000


def compile_routine(routine: Routine, purpose: Purpose = PROOF) -> Program:
    """Raises BadRoutine with every fault found, those of the parser first."""
    program, faults = compile_what_can_be(routine, purpose)
    if faults:
        raise BadRoutine(faults)
    return program


def compile_what_can_be(routine: Routine, purpose: Purpose) -> tuple[Program, tuple[Fault, ...]]:
    """The program up to the first line that cannot be carried out, and every fault."""
    builder = Builder(routine, purpose, Needs())
    program = builder.build()
    if builder.found_needs != builder.needs:
        builder = Builder(routine, purpose, builder.found_needs)
        program = builder.build()
    return program, tuple(builder.faults)


class Builder(Spots):
    def __init__(self, routine: Routine, purpose: Purpose, needs: Needs) -> None:
        super().__init__(routine, purpose, needs)
        self.claims: list[ClaimLine] = []
        self._phase = PAGE
        self._cases = 0
        """how many cases stand around the line"""
        self.assumed: list[str] = []
        self._unlimited = 0
        """how many repetitions without end stand around the line"""
        self._following: Line | None = None
        self._open: tuple[int, Scope, Scope] | None = None
        """behind an If with an Otherwise: (index of its leap or -1, what was known before it, and behind it)"""
        self._sound: tuple[int | None, int | None] = (None, None)
        """how many instructions and claims there were before the first line at fault"""
        self._endings = self._endings_for_all = 0

    # Building

    def build(self) -> Program:
        self._lines(self.routine.lines)
        if not self.faults:
            self._whole_routine()
        self.faults.sort(key=lambda fault: (fault.line, fault.column))
        if self._endings and not self._endings_for_all:
            self.found_needs = replace(self.found_needs, endings_in_cases=True)
        target = self._target()
        if target and target not in self.card_cells:
            self.token(target)
        self._lay_out()
        return self._program(target)

    def _lines(self, lines: Sequence[Line]) -> None:
        steps = [line for line in lines if line.is_ == STEP and line.kind]
        following = {line.number: after for line, after in zip_longest(steps, steps[1:])}
        for line in lines:
            if line.faults:
                self._stop(len(self.instructions), len(self.claims))
            if line.is_ != STEP or line.kind is None:
                continue
            outer = self._line, self.reads, self.touches
            self._line, self.reads, self.touches = line, set(), set()
            self._following = following[line.number]
            emitted, claims = len(self.instructions), len(self.claims)
            try:
                self._refuse_blanks(line)
                self._in_order(line)
                line.kind.means(self)
            except LineFails:
                self._stop(emitted, claims)
            self._line, self.reads, self.touches = outer

    def _stop(self, instructions: int, claims: int) -> None:
        if not self.stopped:
            self.stopped, self._sound = True, (instructions, claims)

    def _refuse_blanks(self, line: Line) -> None:
        for name, _, _, _ in line.spans:
            if any(isinstance(node, Blank) for e in expressions_in(line.values[name]) for node in within(e)):
                raise self.fault(name, "A blank waits here.", "a value", "Write a number in place of the “?”.")

    def _in_order(self, line: Line) -> None:
        assert line.kind is not None
        phase = line.kind.phase
        if phase != PAGE and not self.pack and line.kind.name != "pack":
            raise self.leans(
                lambda: self.fault_at(
                    line,
                    "The routine has no pack yet.",
                    "a line such as “Pack: 52 cards, any order”",
                    "Begin with the pack.",
                )
            )
        if phase == SETUP and self._phase not in (PAGE, SETUP):
            raise self.fault_at(
                line,
                "The routine has already begun.",
                "what lies ready before the first action",
                "Move this line up, to the set-up.",
            )
        if self._phase == ENDING and phase == HANDLING:
            raise self.fault_at(
                line,
                "The ending has already been claimed.",
                "nothing to be done after an ending",
                "Move the line above the ending.",
            )
        if self.scope.ended and phase in (HANDLING, ENDING) and line.kind.name != "otherwise":
            raise self.fault_at(
                line,
                "No path comes as far as this line.",
                "a case above that has no ending",
                "Move the line up, or into one of the cases.",
            )
        self._phase = self._phase if phase == PAGE else phase

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
        elif not self._target():
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
        if self.claimed_cards:
            return next((name for name in self.claimed_cards[:2] if name in placed), self.claimed_cards[0])
        return THEIR_CARD if THEIR_CARD in named else min(named, key=self.where_named.__getitem__, default=None)

    def _lay_out(self) -> None:
        """Puts the pack on the table as it lies when the routine begins."""
        if not self.pack:
            return
        if self.purpose.every_card:
            for card, _ in self.extras:
                self.token(card.name or "")
        heap = bytearray()
        for index, card in enumerate(self.pack):
            token = self.tokens.get(card.name, INDIFFERENT) if card.name else INDIFFERENT
            token = index + 1 if self.purpose.every_card else token
            heap.append(token | FACE_UP if card.face_up and self.follows_faces else token)
        self.start[self.place_cells[DECK]] = bytes(heap)
        if self._endings and not self._endings_for_all:
            self.start[FAILED] |= NO_ENDING
        for card, place in self.extras:
            byte = self.tokens.get(card.name or "", INDIFFERENT) | (
                FACE_UP if card.face_up and self.follows_faces else 0
            )
            cell = self.place_cells[place]
            self.start[cell] = bytes([byte]) + self.start[cell]
        tops = {self.start[cell][0] for cell in self.place_cells.values() if self.start[cell]}
        for exposure in self.needs.exposures:
            if tops & self._seen_as(exposure):
                self.start[FAILED] |= 2 << exposure.claim

    def _program(self, target: str | None) -> Program:
        instructions, claims = self.instructions[: self._sound[0]], self.claims[: self._sound[1]]
        instructions = [
            replace(step, target=min(step.target, len(instructions)) if step.target != END else END)
            if isinstance(step, Branch | Leap)
            else step
            for step in instructions
        ]
        end = {FAILED, JUMP}
        if not claims:
            end |= {i for i, cell in enumerate(self.cells) if cell.is_place or i in self.ever_told}
            end |= {self.card_cells[target]} if target in self.card_cells else set()
        may_die = frozenset(i for i, cell in enumerate(self.cells) if i > JUMP and self._may_be_forgotten(cell))
        kills, kills_at = dead_after(instructions, frozenset(end), may_die)
        return Program(
            tuple(replace(cell, told=i in self.ever_told) for i, cell in enumerate(self.cells)),
            tuple(self.start),
            tuple(instructions),
            kills,
            kills_at,
            dict(self.tokens),
            dict(self.card_cells),
            dict(self._own_tokens),
            self.follows_faces,
            target,
            self.where_named.get(target or "") if target in self.tokens else None,
            tuple(claims),
            covers_every_order=True,
            assumed=tuple(self.assumed),
            odd_backs=frozenset(self._odd_backs()) if self.purpose.every_card else frozenset(),
        )

    def _may_be_forgotten(self, cell: Cell) -> bool:
        if cell.is_place or cell.is_card:
            return self.purpose.forget_places
        return self.purpose.forget_numbers or (self.purpose.forget_unnamed and cell.symbol is None)

    def assume(self, what: str) -> None:
        """The verdict will say that this was taken on trust."""
        if what not in self.assumed:
            self.assumed.append(what)

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
        self.extras.append((PackCard(name, face_up, odd_back), place.name))
        if face_up:
            self.ask_faces()

    # Blocks

    def body(self, turn: int) -> None:
        """Carry out the lines of the block once; `turn` counts from 1."""
        self.rounds = (*self.rounds, turn)
        self._inside(self.line.body)
        self.rounds = self.rounds[:-1]

    def _inside(self, lines: Sequence[Line]) -> None:
        faults = len(self.faults)
        self._lines(lines)
        if len(self.faults) > faults:
            raise LineFails  # the same faults every time round; once is enough
        if len(self.instructions) > MAX_INSTRUCTIONS:
            raise self.fault_at(
                self.line,
                f"This makes more than {MAX_INSTRUCTIONS} single actions.",
                "fewer repetitions",
                "Repeat fewer times.",
            )

    def only_if(self, holds: Callable[[Sequence[Any]], bool]) -> None:
        """The lines of the block are carried out on the paths where this holds."""
        branch = len(self.instructions)
        self.instructions.append(
            Branch(self.line.number, self.rounds, frozenset(self.reads), frozenset(), holds, END)
        )
        following = self._following
        before = self.scope.copy()
        inside = self._case()
        leap = -1
        if following is not None and following.kind and following.kind.name == "otherwise":
            if not inside.ended:
                leap = len(self.instructions)
                self.instructions.append(Leap(self.line.number, self.rounds, frozenset(), frozenset(), END))
            self._open = (leap, before, inside)
            self.scope = inside
            self.scope.ended = False
        else:
            self.scope = after_cases(inside, before)
        self._aim(branch)

    def otherwise(self) -> None:
        """The lines of the block are carried out on the paths where the If above does not hold."""
        if self._open is None:
            raise self.leans(
                lambda: self.fault_at(
                    self.line, "There is no If directly above.", "a block under “If …:” above this line", "Move it."
                )
            )
        (leap, before, inside), self._open = self._open, None
        inside.ended = leap < 0
        self.scope = before
        other = self._case()
        if leap >= 0:
            self._aim(leap)
        self.scope = after_cases(inside, other)
        self.scope.ended = inside.ended and other.ended

    def as_often_as_liked(self, one_of: bool) -> None:
        """The block, any number of times; with `one_of` each of its lines is a move of its own."""
        steps = [line for line in self.line.body if line.is_ == STEP and line.kind]
        head, by = len(self.instructions), PERFORMER if self.performer_acts() else SPECTATOR
        closure = Closure(self.line.number, self.rounds, frozenset(), frozenset(), (), (), by)
        self.instructions.append(closure)
        before = self.scope.copy()
        ends = []
        self._unlimited += 1
        try:
            for move in [[step] for step in steps] if one_of else [self.line.body]:
                self._inside(move)
                ends.append(len(self.instructions))
        except LineFails:
            # What can be shown of it is shown once.
            self.instructions[head] = Leap(self.line.number, self.rounds, frozenset(), frozenset(), head + 1)
            raise
        finally:
            self._unlimited -= 1
        says = [step.text.strip().lower() for step in steps] if one_of else ["once more"]
        self.instructions[head] = replace(closure, ends=tuple(ends), says=tuple(says))
        here = len(self.instructions)
        self.instructions.append(Leap(self.line.number, self.rounds, frozenset(), frozenset(), here + 1))
        self.scope = after_cases(self.scope, before)

    def new_name(self, slot: str, name: str, kind: str) -> None:
        if self._unlimited:
            raise self.fault(
                slot,
                f"{name} would be another one each time, without end.",
                "nothing that gets a name in lines repeated as often as one likes",
                "Settle it above these lines, or repeat them a stated number of times.",
            )
        super().new_name(slot, name, kind)

    def _case(self) -> Scope:
        """Builds the block as one case and returns what is known behind it."""
        self._cases += 1
        try:
            self._inside(self.line.body)
        finally:
            self._cases -= 1
        if self._phase == ENDING:
            self.instructions.append(Leap(self.line.number, self.rounds, frozenset(), frozenset(), END))
            self.scope.ended = True
        self._phase = HANDLING
        return self.scope

    def _aim(self, index: int) -> None:
        """The branch or leap at this index goes to the instruction that comes next."""
        step = self.instructions[index]
        assert isinstance(step, Branch | Leap)
        self.instructions[index] = replace(step, target=len(self.instructions))

    # Instructions

    def act(
        self,
        run: Callable[[Cells], None],
        handled: Reader | None = None,
        passing: Callable[[Sequence[Any]], bytes] | None = None,
    ) -> None:
        """The line does this. `passing` gives the cards that are seen one by one meanwhile, as they lie then."""
        if self.flag("shielded"):
            self.assume(f"line {self.line.number} is shielded")
        elif self.needs.exposures:
            run = self._watched(run, passing)
            self.reads |= {i for i, cell in enumerate(self.cells) if cell.is_place}
        gathering = self.scope.gathering
        if gathering and self.touches & (gathering.to.cells | {gathering.sizes}):
            self.scope.gathering = None
        self.scope.gathering, self.gathered = self.gathered or self.scope.gathering, None
        self.instructions.append(
            Act(
                self.line.number,
                self.rounds,
                frozenset(self.reads),
                frozenset(self.touches) | ({FAILED} if self.needs.exposures else set()),
                run,
                handled or (lambda cells: 0),
            )
        )

    def learn(self, slot: str, value: Reader, secret: bool) -> None:
        """The line settles a number from what lies there, rather than by a choice."""
        cell = self.new_number(slot, self.name_of_this_round(slot), secret)

        def run(cells: Cells) -> None:
            cells[cell] = value(cells)

        self.act(run)

    def check(self, holds: Callable[[Sequence[Any]], bool], explain: Callable[[Sequence[Any]], str]) -> None:
        """The line claims this."""
        self._endings += 1
        self._endings_for_all += not self._cases
        index = self._claim()
        self.instructions.append(
            Check(self.line.number, self.rounds, frozenset(self.reads), frozenset({FAILED}), index, holds, explain)
        )

    def _claim(self) -> int:
        self.claims.append(ClaimLine(self.line.number, self.line.text.strip(), self._cases > 0))
        return len(self.claims) - 1

    # What must not be seen

    def never_shows(self, card_slot: str | None, face: bool) -> None:
        """A side of a card (by slot; None: any odd back) is not seen before the end."""
        name = self.phrase(card_slot) if card_slot else None
        if name is not None and name not in self.scope.cards:
            raise self.unknown(card_slot or "", name, "card")
        if name in self.card_cells:
            raise self.fault(
                card_slot or "",
                f"{name} is named on the way: what it shows before cannot be followed.",
                "a card that is placed in the set-up",
                "Place the card in the set-up.",
            )
        if name is None and not self._odd_backs():
            raise self.fault_at(
                self.line,
                "No card has an odd back.",
                "a card placed “with an odd back”",
                "Place one, or leave it out.",
            )
        exposure = Exposure(self._claim(), name, face)
        self.ask_faces()
        self.found_needs = replace(self.found_needs, exposures=(*self.found_needs.exposures, exposure))
        self._seen_as(exposure)

    def _odd_backs(self) -> list[int]:
        return [self.token(card.name) for card in self._set_up() if card.odd_back and card.name]

    def _seen_as(self, exposure: Exposure) -> frozenset[int]:
        """The bytes at which the side shows."""
        tokens = self._odd_backs() if exposure.card is None else [self.token(exposure.card)]
        return frozenset(token | FACE_UP if exposure.face else token for token in tokens)

    def _watched(
        self, run: Callable[[Cells], None], passing: Callable[[Sequence[Any]], bytes] | None
    ) -> Callable[[Cells], None]:
        """Marks the claim as failed when a side shows: on a card that passes, or that lies open afterwards."""
        heaps = [i for i, cell in enumerate(self.cells) if cell.is_place]
        rows = {i for i in heaps if self.cells[i].is_row}
        bad = [(2 << exposure.claim, exposure) for exposure in self.needs.exposures]
        seen_as: list[tuple[int, frozenset[int]]] = []

        def watched(cells: Cells) -> None:
            if not seen_as:  # only now is every card of the set-up known
                seen_as.extend((bit, self._seen_as(exposure)) for bit, exposure in bad)
            seen = passing(cells) if passing else b""
            run(cells)
            for place in heaps:
                seen += cells[place] if place in rows else cells[place][:1]
            for bit, sides in seen_as:
                if not sides.isdisjoint(seen):
                    cells[FAILED] |= bit

        return watched
