"""Where the followed card can be after each line: the margin of the sheet."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from contextlib import suppress
from dataclasses import dataclass, replace

from ..budget import Budget
from ..building import LEDGER, TABLE, Purpose, compile_routine
from ..english import runs_text
from ..faults import OutOfBudget
from ..language.routine import Routine
from ..search.algebra import Layer
from ..search.explorer import explore
from ..search.program import JUMP, Check, Loop, Program, State
from ..search.stages import Cut, Stage
from .cut_off import following_to_the_end, where_cut_off
from .formulas import MOST_ROWS, fit

STEPS_FOR_FORMULAS = 40_000
"""steps in which choices are kept, so that a formula may be found in them"""
FEW_STEPS = 20_000
"""steps that one beginning of the routine may take that is searched by itself"""


@dataclass(frozen=True)
class Entry:
    """The card after one line, on all paths."""

    line: int
    round: tuple[int, ...]
    where: tuple[tuple[str, tuple[int, ...]], ...]
    """place → positions from the top, from 1"""
    formula: str | None
    """the position in the numbers chosen so far, where the place is one and a formula fits every path"""

    @property
    def text(self) -> str:
        """As it stands in the margin: `11`, `n − 9`, `1 to 15`, `dealt 3`."""
        spans = [f"{_in(place)}{self.formula or runs_text(positions)}" for place, positions in self.where]
        return "; ".join(spans) if len(spans) <= 2 else f"{len(spans)} places"


def _in(place: str) -> str:
    """
    >>> _in("deck"), _in("hand"), _in("pile 4")  # pile 4: 8 to 24
    ('', 'hand ', 'pile 4: ')
    """
    return "" if place == "deck" else f"{place}: " if place[-1].isdigit() else f"{place} "


def end_layer(routine: Routine, budget: Budget) -> tuple[Program, Layer] | None:
    """(program, end states), for where the card lies at the end that the routine is about; None out of budget."""
    program = following_to_the_end(routine)
    if program.target is None:
        return None
    try:
        return program, explore(program, budget).ends
    except OutOfBudget:
        return None


@dataclass(frozen=True)
class Ledger:
    card: str | None
    """the card that is followed"""
    cards: tuple[str, ...]
    """those that could be"""
    entries: tuple[Entry, ...]


def ledger_of_card(routine: Routine, budget: Budget, card: str | None) -> Ledger:
    """The ledger of a card by name; of the one the routine is about where there is no such card.

    Raises BadRoutine for a text with faults, Cancelled.
    """
    program = compile_routine(routine, replace(LEDGER, follow=card))
    return Ledger(program.target, program.named, ledger_of(routine, budget, card))


def ledger_of(routine: Routine, budget: Budget, card: str | None = None) -> tuple[Entry, ...]:
    """An entry a line and round, in order.

    With few enough paths the choices are kept, so that formulas can be fitted and checked on each of them;
    else only the sets of positions are given. Out of budget: no entries.
    """
    with suppress(OutOfBudget):
        return _explored(routine, TABLE, budget.narrowed(MOST_ROWS, STEPS_FOR_FORMULAS), card)
    with suppress(OutOfBudget):
        return _cut_off(routine, budget, card) or _explored(routine, LEDGER, budget, card)
    return ()


def _explored(routine: Routine, purpose: Purpose, budget: Budget, card: str | None) -> tuple[Entry, ...]:
    program = compile_routine(routine, replace(purpose, follow=card))
    margin = _Margin(program, purpose)
    explore(program, budget, watch=margin.note, cut=Cut.BEHIND_A_LINE)
    return margin.complete()


def _cut_off(routine: Routine, budget: Budget, card: str | None) -> tuple[Entry, ...]:
    """Each beginning of the routine searched by itself; nothing where that cannot be done, or takes too many steps."""
    program = compile_routine(routine, replace(LEDGER, follow=card))
    try:
        found = where_cut_off(routine, budget.narrowed(budget.states or FEW_STEPS, FEW_STEPS), card)
    except OutOfBudget:
        return ()
    known = program.where_is(program.start, program.target)
    if found and known and program.target_line:
        found = {(program.target_line, ()): {known}, **found}
    return tuple(Entry(*turn, _by_place(program, where), None) for turn, where in (found or {}).items() if where)


def _by_place(program: Program, where: Iterable[tuple[str, int]]) -> tuple[tuple[str, tuple[int, ...]], ...]:
    """Positions in ascending order, place by place."""
    found: dict[str, list[int]] = {name: [] for _, name in program.places()}
    for place, position in sorted(set(where)):
        found[place].append(position)
    return tuple((place, tuple(positions)) for place, positions in found.items() if positions)


class _Margin:
    """Collects an entry for every line and round: what is so after the last of its instructions."""

    def __init__(self, program: Program, purpose: Purpose) -> None:
        self.program = program
        self.entries: dict[tuple[int, tuple[int, ...]], Entry] = {}
        numbered = [(i, cell.symbol) for i, cell in enumerate(program.cells) if cell.symbol]
        self.numbers = numbered if purpose == TABLE else []
        self.latest: tuple[int, tuple[int, ...], Layer] | None = None
        """of the line at hand, of which another instruction may follow"""
        if program.target_line:
            self._enter(program.target_line, (), {program.start: 1})

    def note(self, stage: Stage, layer: Layer) -> None:
        step = stage.first
        if stage.choose or (stage.acts and not isinstance(stage.closure, Loop)):
            if self.latest and self.latest[:2] != (step.line, step.round):
                self._enter(*self.latest)
            self.latest = (step.line, step.round, layer)

    def complete(self) -> tuple[Entry, ...]:
        """The entries, once all has been noted."""
        if self.latest:
            self._enter(*self.latest)
        return tuple(self.entries.values())

    def _enter(self, line: int, turn: tuple[int, ...], layer: Layer) -> None:
        rows: list[tuple[State, int]] = []
        found: set[tuple[str, int]] = set()
        for state in layer:
            here = state[JUMP] is None or self._is_within(state[JUMP], line, turn)
            where = self.program.where_is(state, self.program.target) if here else None
            if where:
                found.add(where)
                rows.append((state, where[1]))
        if not rows:
            return
        places = _by_place(self.program, found)
        formula = self._formula(rows) if len(places) == 1 and len(places[0][1]) > 1 else None
        self.entries[line, turn] = Entry(line, turn, places, formula)

    def _is_within(self, target: int, line: int, turn: tuple[int, ...]) -> bool:
        """Whether a path that goes on there has only left out a part of what the line does."""
        steps = self.program.instructions
        # A claim may have been moved up in front of it.
        following = next((step for step in steps[target:] if not isinstance(step, Check) or step.line == line), None)
        return following is not None and (following.line, following.round) == (line, turn)

    def _formula(self, rows: Sequence[tuple[State, int]]) -> str | None:
        named = [(cell, symbol) for cell, symbol in self.numbers if rows[0][0][cell] is not None]
        if not named or any(state[cell] is None for state, _ in rows for cell, _ in named):
            return None
        return fit([symbol for _, symbol in named], [([state[cell] for cell, _ in named], at) for state, at in rows])
