"""What every part of the builder stands on: the cells, the line at hand, its slots, and how faults are noted."""

from __future__ import annotations

import difflib
from collections.abc import Callable, Iterable, Mapping, Set
from typing import Any

from ..faults import Fault
from ..language.kinds import ENDING
from ..language.routine import STEP, Line, Routine
from ..language.templates import PERFORMER, PERSON, SPECTATOR
from ..search.program import ANY_PLACE, Act, AnyInstruction, Cell, Cells, OneSpot
from .places import Place
from .purpose import Needs, Purpose
from .scope import Again, Scope


class LineFails(Exception):
    """The meaning of a line cannot be built; its fault has been noted."""


class Asking:
    def __init__(self, routine: Routine, purpose: Purpose, needs: Needs) -> None:
        self.routine, self.purpose, self.needs = routine, purpose, needs
        self.found_needs = Needs()
        self.faults: list[Fault] = list(routine.faults)
        self.cells: list[Cell] = [Cell("failed claims", False), Cell("goes on at", False)]
        self.start: list[Any] = [0, None]
        self.instructions: list[AnyInstruction] = []
        self.scope = Scope()
        self.kinds_of_names: dict[str, str] = {}
        self.where_named: dict[str, int] = {}
        self.rounds: tuple[int, ...] = ()
        self.again: list[Again] = []
        """the repetitions around the line of which every round is the same instructions, outermost first"""
        self.reads: set[int] = set()
        self.touches: set[int] = set()
        self.settled: set[int] = set()
        """places of fixed spots that the line may change: it leaves the cards where they lie, or takes them all"""
        self.looks_everywhere = False
        """which card is which matters to the line at hand, in every place it reads"""
        self.looks_in: set[int] = set()
        """places in which it does"""
        self.bags_in: set[int] = set()
        """the same, where it makes no difference in which order they lie"""
        self.spots_in: tuple[OneSpot, ...] = ()
        """spots at which it does"""
        self.facts_in: set[int] = set()
        """places in which the faces of cards matter to it that were unknown"""
        self.learned: dict[str, int] = {}
        """name of a number or a card → the line at which the performer has learned it"""
        self.needed: dict[str, dict[int, None]] = {}
        """the same → lines of the performer's that need it"""
        self.stopped = False
        """a line above is at fault: from here on lines are only looked at for faults"""
        self._line: Line | None = None

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
        return str(self.line.values.get(slot) or "")

    def performer_acts(self) -> bool:
        """Whether what the line needs to know, the performer must know. An ending is the performer's to reveal."""
        return _is_performers(self.line)

    @property
    def person(self) -> int:
        """Which spectator acts, from 1; of one alone it is the first."""
        return _person(self.line)

    @property
    def people(self) -> frozenset[int]:
        """The spectators who act in the line, or in the lines of its block."""
        return _people(self.line)

    def standing(self, touches: Iterable[int] = ()) -> dict[str, Any]:
        """What every instruction of the line at hand says of itself; see Instruction."""
        in_order = self._looks_in_order
        return {
            "line": self.line.number,
            "round": self.rounds,
            "reads": frozenset(self.reads),
            "touches": frozenset(touches),
            "looks": in_order.union(self.bags_in, self._places_of_spots),
            "bags": self._in_any_order(self.bags_in) - self._places_of_spots if self.bags_in else frozenset(),
            "reads_faces": self.reads_faces,
            **self.says,
        }

    def note(self, run: Callable[[Cells], None], touches: Iterable[int], reckons: bool = False) -> None:
        """Something comes to be known; no card moves. `reckons`: it only follows from numbers, and cannot fail."""
        self.instructions.append(
            Act(**self.standing(touches), run=run, handled=lambda cells: 0, fills=frozenset(), reckons=reckons)
        )

    def reckon(self, number: Callable[[Cells], Any], reads: Iterable[int], what: str) -> int:
        """The cell of a number, or of several, that follows from others and is kept from here on."""
        cell = self.new_cell(Cell(what, False))

        def run(cells: Cells) -> None:
            cells[cell] = number(cells)

        self.instructions.append(
            Act(
                self.line.number, self.rounds, frozenset(reads), frozenset([cell]),
                run=run, handled=lambda cells: 0, fills=frozenset(), reckons=True,
            )
        )  # fmt: skip
        return cell

    says: Mapping[str, Any] = {}
    """what the instructions at hand say of themselves besides"""
    facts_everywhere = False
    """so do the faces of cards that were unknown, in every place it reads"""

    @property
    def reads_faces(self) -> frozenset[int]:
        return frozenset(self.facts_in | (self.reads if self.facts_everywhere else set()))

    @property
    def _places_of_spots(self) -> frozenset[int]:
        return frozenset(one.place for one in self.spots_in) if self.spots_in else frozenset()

    def looking_at_spots(self, spots: tuple[OneSpot, ...]) -> dict[str, Any]:
        """What an instruction says of itself that moves no card, and of these places asks for the cards at the spots."""
        free = self._in_any_order({one.place for one in spots})
        return {
            "bags": self._in_any_order(self.bags_in) | free,
            "spots": tuple(one for one in spots if one.place in free),
        }

    def _in_any_order(self, places: Set[int]) -> frozenset[int]:
        in_order = self._looks_in_order
        return frozenset() if ANY_PLACE in in_order else frozenset(places) - in_order

    @property
    def _looks_in_order(self) -> frozenset[int]:
        return frozenset(self.looks_in | (self.reads if self.looks_everywhere else set()))

    def asks_which_are_in(self, place: Place) -> None:
        """Of places nothing matters to the line at hand but which cards this one has, however they lie."""
        self.looks_everywhere = False
        self.bags_in |= place.cells

    def learns(self, name: str) -> None:
        """From this line on the performer knows a number, or what card that is."""
        self.learned.setdefault(name, self.line.number)

    def needs_to_know(self, name: str) -> None:
        """The line at hand is one the performer can only carry out knowing this."""
        if self.performer_acts() and name in self.learned and self.learned[name] != self.line.number:
            self.needed.setdefault(name, {})[self.line.number] = None

    # Faults

    def fault(self, slot: str, message: str, expected: str, remedy: str, is_limit: bool = False) -> LineFails:
        """Notes a fault at a slot of the line and returns what to raise."""
        for name, _, start, end in self.line.spans:
            if name == slot:
                self.faults.append(Fault(self.line.number, start + 1, end + 1, message, expected, remedy, is_limit))
                return LineFails()
        return self.fault_at(self.line, message, expected, remedy, is_limit)

    def fault_at(self, line: Line, message: str, expected: str, remedy: str, is_limit: bool = False) -> LineFails:
        start = len(line.text) - len(line.text.lstrip())
        self.faults.append(Fault(line.number, start + 1, len(line.text) + 1, message, expected, remedy, is_limit))
        return LineFails()

    def goes_by(self, what: str) -> None:
        """The line at hand goes by something without a name, of REFERENTS: the last one before it."""
        for again in self.again:
            again.leans_on(what, self.scope, self.line)

    def leans(self, failure: Callable[[], LineFails]) -> LineFails:
        """A fault that may only come of a line above that could not be read is not worth a word of its own."""
        return LineFails() if self.stopped else failure()

    # Names

    def new_name(self, slot: str, name: str, kind: str) -> None:
        """One name stands for one thing; only a line in a loop may use its own name again, and a number’s name that was one case’s."""
        earlier = self.where_named.get(name)
        is_gone = kind == self.kinds_of_names.get(name) == "number" and name not in self.scope.numbers
        if earlier is not None and (earlier != self.line.number or not self.rounds) and not is_gone:
            raise self.fault(
                slot,
                f"The name {name} is used twice: line {earlier} has it for a {self.kinds_of_names[name]}.",
                "a name of its own",
                "Call it something else.",
            )
        self.kinds_of_names[name], self.where_named[name] = kind, self.line.number

    def unknown(self, slot: str, name: str, kind: str) -> LineFails:
        return self.leans(lambda: self._unknown_name(slot, name, kind))

    def _unknown_name(self, slot: str, name: str, kind: str) -> LineFails:
        known = [other for other, what in self.kinds_of_names.items() if what == kind]
        if (other := self.kinds_of_names.get(name)) and other != kind:
            return self.fault(
                slot,
                f"{name} is a {other}, not a {kind}.",
                f"a {kind}",
                f"Known here: {', '.join(known)}." if known else f"Name a {kind} first.",
            )
        if name in known:
            return self.fault(
                slot,
                f"{name} is not settled on every path that comes here: line {self.where_named[name]} is for one case.",
                f"a {kind} that every case has",
                "Move this line into that case, or settle it before the cases part.",
            )
        close = difflib.get_close_matches(name, known, n=1)
        remedy = (
            f"Did you mean {close[0]}?"
            if close
            else f"Known here: {', '.join(known)}."
            if known
            else f"No {kind} has been named above this line."
        )
        return self.fault(slot, f"There is no {kind} called {name} here.", f"a {kind} named above", remedy)

    def new_cell(self, cell: Cell) -> int:
        self.cells.append(cell)
        self.start.append(b"" if cell.is_place else None)
        return len(self.cells) - 1


def _is_performers(line: Line) -> bool:
    assert line.kind is not None
    if line.kind.opens_block:
        steps = [inner for inner in line.body if inner.is_ == STEP and inner.kind is not None]
        # A case in which only something is said: whoever says it must know.
        return not steps or any(map(_is_performers, steps))
    return line.kind.phase == ENDING or line.kind.actor(line.values) == PERFORMER


def _person(line: Line) -> int:
    return int(line.values.get(PERSON) or 1)


def _people(line: Line) -> frozenset[int]:
    if line.kind is None:
        return frozenset()
    if line.kind.opens_block:
        return frozenset().union(*(map(_people, line.body)))
    return frozenset([_person(line)]) if line.kind.actor(line.values) == SPECTATOR else frozenset()
