"""Routine → Program. The meanings of the steps are called with a Builder and add their instructions to it.

A program is built for one of two purposes. A **proof** gives a token only to cards that the claims look at
and forgets what is dead. A **replay** gives every card its own token and forgets nothing.
"""

from __future__ import annotations

import difflib
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

from .cards import INDIFFERENT, index_of, ordinal, reversed_block, turned_over
from .expressions import Blank, Expression, Remainder, evaluator, names_in, within
from .faults import BadRoutine, Fault, Impossible
from .language.slots import NewNumber, Position, Spot, expressions_in, spot_text
from .language.templates import PERFORMER, SPECTATOR
from .program import FAILED, Act, AnyInstruction, Cell, Cells, Check, Choose, Program, dead_after
from .routine import STEP, Line, Routine
from .steps.declare import ENDING, PAGE, SETUP

MAX_INSTRUCTIONS = 5000
DECK, THEIR_CARD = "deck", "their card"


@dataclass(frozen=True)
class Purpose:
    """What a program is built for."""

    every_card: bool = False
    """each card has its own token, and its faces are followed"""
    forget_places: bool = True
    """places that no later line reads are emptied"""
    forget_numbers: bool = True
    """numbers that no later line reads are dropped (told ones only when there is a claim)"""


PROOF = Purpose()
LEDGER = Purpose(forget_places=False)
REGION = Purpose(forget_numbers=False)
TABLE = Purpose(forget_places=False, forget_numbers=False)
REPLAY = Purpose(every_card=True, forget_places=False, forget_numbers=False)


@dataclass(frozen=True)
class Deal:
    """The count that *dealt cards*, *next card* and *last card dealt* refer to."""

    source: int
    to: int
    counted: int
    """cell that keeps how many cards it took, where nothing is forgotten"""
    last: str
    """where the last card counted lies in `to`: top or bottom"""


class _LineFails(Exception):
    """The meaning of a line cannot be built; its fault has been noted."""


def compile_routine(routine: Routine, purpose: Purpose = PROOF) -> Program:
    """Raises BadRoutine with every fault found, those of the parser first."""
    builder = Builder(routine, purpose)
    program = builder.build()
    if builder.faults:
        raise BadRoutine(builder.faults)
    return program


def compile_what_can_be(routine: Routine, purpose: Purpose) -> tuple[Program, tuple[Fault, ...]]:
    """The program up to the first line that cannot be carried out, and every fault."""
    builder = Builder(routine, purpose)
    return builder.build(), tuple(builder.faults)


class Builder:
    def __init__(self, routine: Routine, purpose: Purpose) -> None:
        self.routine, self.purpose = routine, purpose
        self.faults: list[Fault] = list(routine.faults)
        self.cells: list[Cell] = [Cell("failed claims", False)]
        self.start: list[Any] = [0]
        self.instructions: list[AnyInstruction] = []
        self.claims: list[str] = []
        self.pack: list[str | None] = []
        """names of the cards in the pack, top first; None for a card without a name"""
        self.tokens: dict[str, int] = {}
        self.flip: Callable[[bytes], bytes] = turned_over if purpose.every_card else reversed_block
        """turns a block of cards over"""
        self._cell_of: dict[str, int] = {}
        self._kinds_of_names: dict[str, str] = {}
        self._where_named: dict[str, int] = {}
        self._filled: set[str] = set()
        self._told: set[str] = set()
        self._deal: Deal | None = None
        self._line: Line | None = None
        self._rounds: tuple[int, ...] = ()
        self._reads: set[int] = set()
        self._touches: set[int] = set()
        self._keys: set[str] = set()
        self._phase = PAGE
        self._stopped = False
        self._sound: tuple[int | None, int | None] = (None, None)
        """how many instructions and claims there were before the first line at fault"""

    # Building

    def build(self) -> Program:
        self._lines(self.routine.lines)
        if not self.faults:
            self._whole_routine()
        self.faults.sort(key=lambda fault: (fault.line, fault.column))
        target = self._target()
        if target:
            self._token(target)
        self._lay_out()
        return self._program(target)

    def _lines(self, lines: Sequence[Line]) -> None:
        for line in lines:
            if line.faults:
                self._stop(len(self.instructions), len(self.claims))
            if line.is_ != STEP or line.kind is None:
                continue
            outer = self._line, self._reads, self._touches
            self._line, self._reads, self._touches = line, set(), set()
            emitted, claims = len(self.instructions), len(self.claims)
            try:
                self._refuse_blanks(line)
                self._in_order(line)
                line.kind.means(self)
            except _LineFails:
                self._stop(emitted, claims)
            self._line, self._reads, self._touches = outer

    def _stop(self, instructions: int, claims: int) -> None:
        """From here on lines are only looked at for faults."""
        if not self._stopped:
            self._stopped, self._sound = True, (instructions, claims)

    def body(self, turn: int) -> None:
        """Carry out the lines of the block once; `turn` counts from 1."""
        self._rounds = (*self._rounds, turn)
        faults = len(self.faults)
        self._lines(self.line.body)
        self._rounds = self._rounds[:-1]
        if len(self.faults) > faults:
            raise _LineFails  # the same faults every time round; once is enough
        if len(self.instructions) > MAX_INSTRUCTIONS:
            raise self._fault_at(
                self.line,
                f"This makes more than {MAX_INSTRUCTIONS} single actions.",
                "fewer repetitions",
                "Repeat fewer times.",
            )

    def _refuse_blanks(self, line: Line) -> None:
        for name, _, _, _ in line.spans:
            if any(isinstance(node, Blank) for e in expressions_in(line.values[name]) for node in within(e)):
                raise self.fault(name, "A blank waits here.", "a value", "Write a number in place of the “?”.")

    def _in_order(self, line: Line) -> None:
        assert line.kind is not None
        phase = line.kind.phase
        if phase != PAGE and not self.pack and line.kind.name != "pack":
            raise self._leans(
                lambda: self._fault_at(
                    line,
                    "The routine has no pack yet.",
                    "a line such as “Pack: 52 cards, any order”",
                    "Begin with the pack.",
                )
            )
        if phase == SETUP and self._phase not in (PAGE, SETUP):
            raise self._fault_at(
                line,
                "The routine has already begun.",
                "what lies ready before the first action",
                "Move this line up, to the set-up.",
            )
        if self._phase == ENDING and phase == "handling":
            raise self._fault_at(
                line,
                "The ending has already been claimed.",
                "nothing to be done after an ending",
                "Move the line above the ending.",
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
                    "a card to follow, such as “Place FORCE 10th from the top”",
                    "Place a card in the set-up.",
                )
            )

    def _target(self) -> str | None:
        """The first card a line asks for, else their card, else the first one placed."""
        claimed = next(iter(self.tokens), None)
        placed = [name for name in self.pack if name]
        first_named = min(placed, key=lambda name: self._where_named[name], default=None)
        return claimed or (THEIR_CARD if THEIR_CARD in placed else first_named)

    def _lay_out(self) -> None:
        """Puts the pack on the table as it lies when the routine begins."""
        if not self.pack:
            return
        if self.purpose.every_card:
            heap = bytes(range(1, len(self.pack) + 1))
        else:
            heap = bytes(self.tokens.get(name, INDIFFERENT) if name else INDIFFERENT for name in self.pack)
        self.start[self._cell_of[DECK]] = heap

    def _program(self, target: str | None) -> Program:
        instructions, claims = self.instructions[: self._sound[0]], self.claims[: self._sound[1]]
        end = {FAILED}
        if not claims:
            end |= {i for i, cell in enumerate(self.cells) if cell.is_place or cell.name in self._told}
        may_die = frozenset(
            i
            for i, cell in enumerate(self.cells)
            if i != FAILED and (self.purpose.forget_places if cell.is_place else self.purpose.forget_numbers)
        )
        cells = tuple(Cell(cell.name, cell.is_place, cell.name in self._told) for cell in self.cells)
        kills = dead_after(instructions, frozenset(end), may_die)
        return Program(
            cells,
            tuple(self.start),
            tuple(instructions),
            kills,
            dict(self.tokens),
            target,
            self._where_named.get(target or ""),
            tuple(claims),
            covers_every_order=True,
        )

    # What a line says

    @property
    def line(self) -> Line:
        assert self._line is not None
        return self._line

    def given(self, slot: str) -> bool:
        return self.line.values.get(slot) is not None

    def flag(self, slot: str) -> bool:
        return bool(self.line.values.get(slot))

    def phrase(self, slot: str) -> str:
        return str(self.line.values[slot])

    text = phrase

    def performer_acts(self) -> bool:
        """Whether what the line needs to know, the performer must know. An ending is the performer's to reveal."""
        assert self.line.kind is not None
        return self.line.values.get("who") == PERFORMER or self.line.kind.phase == ENDING

    def fault(self, slot: str, message: str, expected: str, remedy: str) -> _LineFails:
        """Notes a fault at a slot of the line and returns what to raise."""
        for name, _, start, end in self.line.spans:
            if name == slot:
                self.faults.append(Fault(self.line.number, start + 1, end + 1, message, expected, remedy))
                return _LineFails()
        return self._fault_at(self.line, message, expected, remedy)

    def _fault_at(self, line: Line, message: str, expected: str, remedy: str) -> _LineFails:
        start = len(line.text) - len(line.text.lstrip())
        self.faults.append(Fault(line.number, start + 1, len(line.text) + 1, message, expected, remedy))
        return _LineFails()

    def _leans(self, failure: Callable[[], _LineFails]) -> _LineFails:
        """A fault that may only come of a line above that could not be read is not worth a word of its own."""
        return _LineFails() if self._stopped else failure()

    # Names

    def _new_name(self, slot: str, name: str, kind: str) -> None:
        """One name stands for one thing; only a line in a loop may use its own name again."""
        earlier = self._where_named.get(name)
        if earlier is not None and (earlier != self.line.number or not self._rounds):
            raise self.fault(
                slot,
                f"The name {name} is used twice: line {earlier} has it for a {self._kinds_of_names[name]}.",
                "a name of its own",
                "Call it something else.",
            )
        self._kinds_of_names[name], self._where_named[name] = kind, self.line.number

    def _unknown(self, slot: str, name: str, kind: str) -> _LineFails:
        return self._leans(lambda: self._unknown_name(slot, name, kind))

    def _unknown_name(self, slot: str, name: str, kind: str) -> _LineFails:
        known = [other for other, what in self._kinds_of_names.items() if what == kind]
        if (other := self._kinds_of_names.get(name)) and other != kind:
            return self.fault(
                slot,
                f"{name} is a {other}, not a {kind}.",
                f"a {kind}",
                f"Known here: {', '.join(known)}." if known else f"Name a {kind} first.",
            )
        close = difflib.get_close_matches(name, known, n=1)
        remedy = (
            f"Did you mean {close[0]}?"
            if close
            else f"Known here: {', '.join(known)}."
            if known
            else (f"No {kind} has been named above this line.")
        )
        return self.fault(slot, f"There is no {kind} called {name} here.", f"a {kind} named above", remedy)

    def _new_cell(self, name: str, is_place: bool) -> int:
        self.cells.append(Cell(name, is_place))
        self.start.append(b"" if is_place else None)
        return len(self.cells) - 1

    # Numbers

    def _evaluator(self, slot: str, expression: Expression) -> Callable[[Sequence[Any]], int]:
        for name in names_in(expression):
            if self._kinds_of_names.get(name) != "number":
                raise self._unknown(slot, name, "number")
            self._reads.add(self._cell_of[name])
            if self.performer_acts() and name not in self._told:
                raise self.fault(
                    slot,
                    f"You do not know {name}: the spectator has kept it secret.",
                    "a number you have been told",
                    f"Let the spectator do this, or write “Spectator tells {name}” above.",
                )
        value = evaluator(expression, self._cell_of)
        if not any(isinstance(node, Remainder) for node in within(expression)):
            return value

        def safe(cells: Sequence[Any]) -> int:
            try:
                return value(cells)
            except ZeroDivisionError:
                raise Impossible("a number is to be divided by 0") from None

        return safe

    def number(self, slot: str) -> Callable[[Sequence[Any]], int]:
        """The number in a slot as a function of the state. A line of the performer's may use told ones only."""
        return self._evaluator(slot, self.line.values[slot])

    def _constant(self, slot: str, expression: Expression) -> int:
        if names_in(expression):
            raise self.fault(
                slot,
                "This must be settled before the routine begins.",
                "a number in figures",
                "Write the number itself.",
            )
        try:
            return evaluator(expression, {})(())
        except ZeroDivisionError:
            raise self.fault(slot, "A number cannot be divided by 0.", "another divisor", "Change it.") from None

    def constant(self, slot: str) -> int:
        return self._constant(slot, self.line.values[slot])

    def constant_position(self, slot: str) -> tuple[int, str]:
        """(position from 1, `top` or `bottom`)"""
        position: Position = self.line.values[slot]
        return self._constant(slot, position.at), position.end

    def tell(self, slot: str) -> None:
        """These secret numbers are known to the performer from here on."""
        for name in self.line.values[slot]:
            if self._kinds_of_names.get(name) != "number":
                raise self._unknown(slot, name, "number")
            if name in self._told:
                raise self.fault(
                    slot,
                    f"You know {name} already.",
                    "a number chosen secretly",
                    "Leave the line out, or choose the number secretly.",
                )
            self._told.add(name)

    # Choices

    def choose_number(self, slot: str, secret: bool) -> None:
        """A new number, whatever the spectator likes within its range."""
        new: NewNumber = self.line.values[slot]
        low, high = self._evaluator(slot, new.low), self._evaluator(slot, new.high)
        if not names_in(new.low) and not names_in(new.high) and low(()) > high(()):
            raise self.fault(
                slot,
                f"No number is from {low(())} to {high(())}.",
                "the smaller number first",
                "Exchange the two, or widen the range.",
            )
        self._new_name(slot, new.name, "number")
        cell = self._new_cell(new.name, is_place=False)
        self._cell_of[new.name] = cell
        if not secret:
            self._told.add(new.name)
        self._choose(cell, new.name, new.name, secret, lambda cells: range(low(cells), high(cells) + 1))

    def choose_depth(self, place: int) -> Callable[[Sequence[Any]], int]:
        """Nobody learns how deep the cut was: from 0 cards to all but one."""
        cell = self._new_cell("cut", is_place=False)
        # A cut of no cards and a cut of all of them leave the same heap: it counts once.
        self._choose(
            cell, f"cut in line {self.line.number}", "cards cut", True, lambda cells: range(max(1, len(cells[place])))
        )
        self._reads.add(cell)
        return lambda cells: int(cells[cell])

    def _choose(
        self, cell: int, key: str, label: str, secret: bool, options: Callable[[Sequence[Any]], Sequence[int]]
    ) -> None:
        round_text = "".join(f", time {turn}" for turn in self._rounds)
        unique = key + round_text
        while unique in self._keys:
            unique += "′"
        self._keys.add(unique)
        by = PERFORMER if self.performer_acts() else SPECTATOR
        self.instructions.append(
            Choose(
                self.line.number,
                self._rounds,
                frozenset(self._reads),
                frozenset({cell}),
                cell,
                unique,
                label + round_text,
                by,
                secret,
                options,
            )
        )

    # Places

    def lay_pack(self, count: int) -> None:
        if self.pack:
            raise self._fault_at(self.line, "There is a pack already.", "one pack", "Remove one of the two lines.")
        self.pack = [None] * count
        self._place_cell(DECK)
        self._filled.add(DECK)

    def _place_cell(self, name: str) -> int:
        if name not in self._cell_of:
            self._cell_of[name] = self._new_cell(name, is_place=True)
            self._kinds_of_names[name] = "place"
            self._where_named[name] = self.line.number
        return self._cell_of[name]

    def source(self, slot: str) -> int:
        """The cell of a place that cards have been put on; the line changes what lies there."""
        name = str(self.line.values[slot])
        if name not in self._filled:
            raise self._unknown(slot, name, "place")
        cell = self._cell_of[name]
        self._reads.add(cell)
        self._touches.add(cell)
        return cell

    def destination(self, slot: str, otherwise: str | None = None) -> int:
        """The cell of a place that cards go to; a new name is a new place."""
        name = str(self.line.values.get(slot) or otherwise)
        if self._kinds_of_names.get(name, "place") != "place":
            raise self._unknown(slot, name, "place")
        self._filled.add(name)
        cell = self._place_cell(name)
        self._touches.add(cell)
        return cell

    def moves(self, source: int, to: int) -> None:
        """The line takes all of `source` to `to`."""
        self._reads.add(source)
        self._touches |= {source, to}

    def enough_cards(self, place: int, count: Callable[[Sequence[Any]], int]) -> Callable[[Sequence[Any]], int]:
        """The count, checked against what lies there. A slice would clip it silently."""
        within_heap = self.within_heap

        def enough(cells: Sequence[Any]) -> int:
            n = count(cells)
            within_heap(place, n, len(cells[place]))
            return n

        return enough

    def within_heap(self, place: int, n: int, size: int) -> None:
        """Raises Impossible unless 0 ≤ n ≤ size."""
        if not 0 <= n <= size:
            name, cards = self.cells[place].name, "card" if size == 1 else "cards"
            raise Impossible(f"{n} cards are asked for, but {name} has {size} {cards}")

    def now_dealt(self, source: int, to: int, last: str) -> int:
        """From here on *the dealt cards* are those in `to`, *the next card* is the top one of `source`.

        Returns the cell in which the line keeps how many cards it took.
        """
        if source == to:
            raise self.fault(
                "to",
                "Cards cannot be counted onto the heap they come from.",
                "another place",
                "Name another place, or leave it out.",
            )
        self._deal = Deal(source, to, self._new_cell("cards counted", is_place=False), last)
        self._touches.add(self._deal.counted)
        return self._deal.counted

    def last_deal(self) -> tuple[int, int]:
        """(source, dealt cards) of the count that the line refers to."""
        deal = self._last_deal()
        return deal.source, deal.to

    def _last_deal(self) -> Deal:
        if self._deal is None:
            raise self._leans(
                lambda: self._fault_at(
                    self.line, "No cards have been dealt yet.", "a deal or a count above this line", "Deal first."
                )
            )
        return self._deal

    # Cards

    def new_card(self, slot: str) -> str:
        name = str(self.line.values[slot])
        self._new_name(slot, name, "card")
        return name

    def _token(self, name: str) -> int:
        if name not in self.tokens:
            self.tokens[name] = self.pack.index(name) + 1 if self.purpose.every_card else len(self.tokens) + 1
        return self.tokens[name]

    def card(self, slot: str) -> int:
        """The token of a named card; asking for it makes the proof follow that card."""
        name = str(self.line.values[slot])
        if self._kinds_of_names.get(name) != "card":
            raise self._unknown(slot, name, "card")
        return self._token(name)

    def whereabouts(self, cells: Sequence[Any], token: int) -> str:
        """Where a card lies, in words: `11th in deck`."""
        for index, cell in enumerate(self.cells):
            if cell.is_place and (at := index_of(cells[index], token)) >= 0:
                return f"{ordinal(at + 1)} in {cell.name}"
        return "out of play"

    def spot(self, slot: str) -> FoundSpot:
        """The card a line points at by where it lies."""
        spot: Spot = self.line.values[slot]
        if spot.kind == "at":
            assert spot.position is not None
            if spot.place not in self._filled:
                raise self._unknown(slot, str(spot.place), "place")
            place = self._cell_of[str(spot.place)]
            self._reads.add(place)
            return FoundSpot(self, spot, place, self._evaluator(slot, spot.position.at), None)
        deal = self._last_deal()
        place = deal.source if spot.kind == "next" else deal.to
        self._reads.add(place)
        return FoundSpot(self, spot, place, None, deal)

    # Instructions

    def act(self, run: Callable[[Cells], None], handled: Callable[[Sequence[Any]], int] | None = None) -> None:
        self.instructions.append(
            Act(
                self.line.number,
                self._rounds,
                frozenset(self._reads),
                frozenset(self._touches),
                run,
                handled or (lambda cells: 0),
            )
        )

    def check(self, holds: Callable[[Sequence[Any]], bool], explain: Callable[[Sequence[Any]], str]) -> None:
        text = self.line.text.strip()
        self.instructions.append(
            Check(
                self.line.number,
                self._rounds,
                frozenset(self._reads),
                frozenset({FAILED}),
                len(self.claims),
                text,
                holds,
                explain,
            )
        )
        self.claims.append(text)


@dataclass(frozen=True)
class FoundSpot:
    """A spot of a line, ready to be looked up in a state."""

    builder: Builder
    spot: Spot
    place: int
    at: Callable[[Sequence[Any]], int] | None
    deal: Deal | None

    @property
    def kind(self) -> str:
        return self.spot.kind

    @property
    def text(self) -> str:
        return spot_text(self.spot)

    def find(self, cells: Sequence[Any]) -> tuple[int, int]:
        """(cell of the place, index from 0). Raises Impossible where no card lies there."""
        heap, name = cells[self.place], self.builder.cells[self.place].name
        if self.at is not None:
            assert self.spot.position is not None
            number = self.at(cells)
            if not 1 <= number <= len(heap):
                raise Impossible(f"{name} has {len(heap)} cards and no {ordinal(number)} one")
            return self.place, number - 1 if self.spot.position.end == "top" else len(heap) - number
        if not heap:
            raise Impossible("there is no next card" if self.kind == "next" else "no card has been dealt")
        assert self.deal is not None
        bottom = self.kind == "last" and self.deal.last == "bottom"
        return self.place, len(heap) - 1 if bottom else 0

    def counted(self, cells: Sequence[Any]) -> int:
        """How many cards the count took; for a program that forgets nothing."""
        assert self.deal is not None
        return int(cells[self.deal.counted])

    def order_of(self, cells: Sequence[Any], token: int) -> int | None:
        """The number at which a card would come, or came, in this count; None when it was not in it."""
        assert self.deal is not None
        n, dealt, rest = self.counted(cells), cells[self.deal.to], cells[self.deal.source]
        ahead = index_of(rest, token)
        if ahead >= 0:
            return n + ahead + 1
        among = index_of(dealt, token)
        if among < 0:
            return None
        came = n - among if self.deal.last == "top" else n - (len(dealt) - 1 - among)
        return came if came >= 1 else None


__all__ = [
    "LEDGER",
    "PROOF",
    "REGION",
    "REPLAY",
    "TABLE",
    "Builder",
    "Purpose",
    "compile_routine",
    "compile_what_can_be",
]
