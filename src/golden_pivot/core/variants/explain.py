"""Why it works: what each line does with the card that is followed, in sentences to be read aloud."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations, pairwise

from ..answers.formulas import fit
from ..answers.ledger import Entry, ledger_of
from ..budget import Budget
from ..building import Purpose, compile_routine
from ..english import ordinal, runs_text
from ..faults import OutOfBudget
from ..language.routine import Line, Routine
from ..layouts import Layout
from ..search.algebra import Layer
from ..search.explorer import explore
from ..search.program import JUMP, Choose, Program, State
from ..search.stages import Stage
from .invariants import Kept, kept_orders

MOST_ROWS = 3000
EVERYTHING = Purpose(forget_places=False, forget_numbers=False, forget_unnamed=False)


@dataclass(frozen=True)
class LineSaid:
    line: int
    """0 for what stands above the first line"""
    words: str


@dataclass(frozen=True)
class Case:
    """Where the card lands, for the paths on which something happened."""

    when: str | None
    """None: on every path"""
    place: str
    formula: str
    """the position; a plain number where it is always the same"""
    text: str
    """both as one says it"""


def _case(when: str | None, place: str, formula: str, layout: Layout) -> Case:
    at_one = formula.isdigit()
    return Case(when, place, formula, layout.at(int(formula), place) if at_one else f"{formula} in {place}")


@dataclass(frozen=True)
class EachTime:
    """Where a card comes to that lay at x, each time round a repetition."""

    line: int
    """the last one of the repetition"""
    formula: str
    """in x"""


@dataclass(frozen=True)
class Explanation:
    card: str | None
    said: tuple[LineSaid, ...]
    cases: tuple[Case, ...]
    """empty where no formula fits every path"""
    each_time: tuple[EachTime, ...]
    """where one formula fits every time round"""
    kept: tuple[Kept, ...] = ()
    """what stays as it was at first, on every path"""
    short: tuple[str, ...] = ()
    """the two sentences in which it comes out: the last ones; without a card, what stays"""


SHORT = 2


def explain(routine: Routine, budget: Budget) -> Explanation:
    """Raises BadRoutine for a text with faults, Cancelled."""
    program = compile_routine(routine)
    card = program.target
    kept = kept_orders(routine, budget)
    if card is None:
        return Explanation(
            None, (), (), (), kept, tuple(f"{one.words[:1].upper()}{one.words[1:]}." for one in kept[-SHORT:])
        )
    entries = ledger_of(routine, budget)
    trace, cases = landing_cases(routine, budget)
    said = tuple(_sentences(routine, card, entries, program.layouts))
    return Explanation(
        card,
        said,
        cases,
        tuple(trace.each_time()) if trace else (),
        kept,
        tuple(one.words for one in said[-SHORT:]),
    )


def _sentences(
    routine: Routine, card: str, entries: Sequence[Entry], layouts: Mapping[str, Layout]
) -> list[LineSaid]:
    lines = {line.number: line for line in routine.walk()}
    said: list[LineSaid] = []
    before: Entry | None = None
    for entry in entries:
        there = _there(entry, layouts)
        if before is None:
            said.append(LineSaid(entry.line, f"At first {card} is {there}."))
        elif (entry.where, entry.formula) != (before.where, before.formula):
            said.append(LineSaid(entry.line, f"{_does(lines[entry.line])}{_turn(entry)}: now {card} is {there}."))
        before = entry
    return said


def _turn(entry: Entry) -> str:
    return f", time {', '.join(map(str, entry.round))}" if entry.round else ""


def _does(line: Line) -> str:
    does = line.kind.does if line.kind else ""
    return f"{line.text.strip()} ({does})" if does else line.text.strip()


def _there(entry: Entry, layouts: Mapping[str, Layout]) -> str:
    found = []
    for place, positions in entry.where:
        if entry.formula:
            found.append(f"{layouts[place].counted(entry.formula)} of {place}")
        elif len(positions) == 1:
            found.append(layouts[place].at(positions[0], place))
        else:
            found.append(f"somewhere from {ordinal(positions[0])} to {ordinal(positions[-1])} in {place}"
                         if list(positions) == list(range(positions[0], positions[-1] + 1))
                         else f"one of {runs_text(positions)} in {place}")  # fmt: skip
    return ", or ".join(found)


# The landing as formulas, by what happened to the card on the way


def landing_cases(routine: Routine, budget: Budget) -> tuple[_Trace | None, tuple[Case, ...]]:
    """Formulas in the choices for where the card lands, one for each case; each is checked on every path of its case.

    What tells the cases apart is where the card was after some line. Nothing where none fit, or there are too many paths.
    """
    program = compile_routine(routine, EVERYTHING)
    if program.target is None or program.is_unlimited:
        return None, ()
    trace = _Trace(program)
    try:
        ends = explore(program, budget.narrowed(MOST_ROWS), watch=trace.note).ends
    except OutOfBudget:
        return None, ()
    rows = [row for state in ends if (row := trace.row(state))]
    if not rows:
        return trace, ()
    names = [cell.symbol or cell.name for cell in trace.numbers]
    if whole := _fitted(names, rows):
        return trace, (_case(None, *whole, program.layouts[whole[0]]),)
    lines = [n for n in trace.lines if len({row.was.get(n) for row in rows}) > 1]
    for size in (1, 2):
        for split in combinations(lines, size):
            groups: dict[tuple[str | None, ...], list[_Row]] = {}
            for row in rows:
                groups.setdefault(tuple(row.was.get(n) for n in split), []).append(row)
            fitted = {key: _fitted(names, group) for key, group in groups.items()}
            if all(fitted.values()) and len(groups) > 1:
                in_case = {n for n in split if any(row.was.get(n) is None for row in rows)}
                return trace, tuple(
                    _case(_when(program.target, split, key, in_case), *found, program.layouts[found[0]])
                    for key, found in fitted.items()
                    if found
                )
    return trace, ()


def _when(card: str, lines: Sequence[int], places: Sequence[str | None], in_case: set[int]) -> str:
    return " and ".join(
        f"line {line} is{'' if place else ' not'} carried out"
        if line in in_case
        else f"{card} is in {place} after line {line}"
        for line, place in zip(lines, places, strict=True)
    )


@dataclass(frozen=True)
class _Row:
    values: tuple[int, ...]
    place: str
    position: int
    was: dict[int, str]
    """line → place after it"""


def _fitted(names: Sequence[str], rows: Sequence[_Row]) -> tuple[str, str] | None:
    """(place, formula) where the card is at one place and one formula fits."""
    places = {row.place for row in rows}
    if len(places) > 1:
        return None
    known = [i for i in range(len(names)) if all(row.values[i] is not None for row in rows)]
    formula = fit([names[i] for i in known], [([row.values[i] for i in known], row.position) for row in rows])
    return (places.pop(), formula) if formula else None


Point = tuple[int | None, ...]
"""the options taken up to somewhere, one for each choice of the routine"""


class _Trace:
    """Where the card was after each line, for each way the choices up to there can be made."""

    def __init__(self, program: Program) -> None:
        self.program = program
        self.cells = [choose.cell for choose in program.choices()]
        self.number_cells = [i for i, cell in enumerate(program.cells) if cell.symbol]
        self.numbers = [program.cells[i] for i in self.number_cells]
        self.made: set[int] = set()
        self.seen: dict[tuple[int, tuple[int, ...]], tuple[frozenset[int], dict[Point, tuple[str, int]]]] = {}
        """(line, time round) → choices made by then, and the card's (place, position) for each way to make them"""

    @property
    def lines(self) -> list[int]:
        return list(dict.fromkeys(line for line, _ in self.seen))

    def note(self, stage: Stage, layer: Layer) -> None:
        step = stage.first
        if isinstance(step, Choose):
            self.made.add(step.cell)
            return
        known: dict[Point, tuple[str, int]] = {}
        for state in layer:
            where = self.program.where_is(state, self.program.target) if state[JUMP] is None else None
            if where:
                known[self._point(state, self.made)] = where
        self.seen[step.line, step.round] = frozenset(self.made), known

    def _point(self, state: Sequence[int | None], made: set[int] | frozenset[int]) -> Point:
        return tuple(state[cell] if cell in made else None for cell in self.cells)

    def row(self, state: State) -> _Row | None:
        where = self.program.where_is(state, self.program.target)
        if where is None:
            return None
        was = {}
        for (line, _), (made, at) in self.seen.items():
            if found := at.get(self._point(state, made)):
                was[line] = found[0]
        return _Row(tuple(state[i] for i in self.number_cells), *where, was)

    def each_time(self) -> list[EachTime]:
        """For lines of a repetition, where the card is as a formula in x, where it was after the line a time before."""
        found = []
        for line in self.lines:
            rounds = [turn for other, turn in self.seen if other == line and turn]
            pairs = [pair for one, two in pairwise(rounds) for pair in self._moved((line, one), (line, two))]
            if len({x for x, _ in pairs}) > 2 and (formula := fit(["x"], [((x,), now) for x, now in pairs])):
                found.append(EachTime(line, formula))
        return found[-1:]

    def _moved(
        self, before: tuple[int, tuple[int, ...]], after: tuple[int, tuple[int, ...]]
    ) -> list[tuple[int, int]]:
        made, was = self.seen[before]
        spread = {i for i, cell in enumerate(self.cells) if cell in made}
        moved = []
        for point, (_, now) in self.seen[after][1].items():
            earlier = was.get(tuple(value if i in spread else None for i, value in enumerate(point)))
            if earlier:
                moved.append((earlier[1], now))
        return moved
