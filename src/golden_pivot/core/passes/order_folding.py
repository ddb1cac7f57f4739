"""Where only matters which cards lie in a place, and not in which order, cards that come there are sorted as they come.

A **bag** is a place of which no more is asked from some point on. Two things put cards in every order there is: a shuffle, which is
drawn card by card, and the faces of unknown cards, looked at one after the other. Of both it is then kept what came, and not
when: 2ⁿ orders of n cards of two kinds become n + 1 bags.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import suppress
from dataclasses import dataclass, field, replace
from itertools import accumulate

from ..faults import Impossible
from ..search.program import (
    Act,
    AnyInstruction,
    Builds,
    Cells,
    Check,
    Choose,
    Closure,
    Leap,
    Loop,
    OneSpot,
    Program,
    Takes,
    changed,
)


def fold_orders(program: Program) -> Program:
    """The same program, in which no order is kept that nobody asks for.

    Choices keep their meaning: what is drawn next is said by its place among the cards that are left, and those stay as they are.
    """
    steps = program.instructions
    if not any(isinstance(step, Act) and (step.goes_through or step.builds) for step in steps):
        return program
    return replace(program, instructions=tuple(_folded(program, index, step) for index, step in enumerate(steps)))


def _folded(program: Program, index: int, step: AnyInstruction) -> AnyInstruction:
    if not isinstance(step, Act):
        return step
    if step.goes_through and _is_a_bag(program, index, step.goes_through[0]) and _comes_once(program, index):
        return changed(step, run=_sorted_so_far(step, *step.goes_through))
    if step.builds and (spread := _spread_behind(program, index, step.builds)):
        reads = step.reads.union(*(part.reads for part in spread.parts))
        return changed(step, run=_sorted_in_parts(step, step.builds, spread), reads=reads)
    return step


# Faces looked at in turn


def _comes_once(program: Program, index: int) -> bool:
    """No loop goes round it."""
    return not any(at < index < _end_of(step) for at, step in enumerate(program.instructions))


def _end_of(step: AnyInstruction) -> int:
    """Index behind what goes round; 0 for what does not."""
    return step.end if isinstance(step, Loop) else step.ends[-1] if isinstance(step, Closure) else 0


def _is_a_bag(program: Program, index: int, place: int) -> bool:
    """Whether from here on the place is only gone through to its end, and asked which cards it has."""
    for step in program.instructions[index + 1 :]:
        goes_on = step.goes_through is not None and step.goes_through[0] == place
        if not goes_on and place in step.touches | (step.looks - step.bags) | {one.place for one in step.spots}:
            return False
    wanted = program.wanted
    return place in wanted.may_be_dropped and not {place, ~place} & wanted.at_end and not program.keeps_target


def _sorted_so_far(step: Act, place: int, index: int) -> Callable[[Cells], None]:
    def run(cells: Cells) -> None:
        step.run(cells)
        heap = cells[place]
        cells[place] = bytes(sorted(heap[: index + 1])) + heap[index + 1 :]

    return run


# A shuffle, card by card


@dataclass
class _Spread:
    """Where the cards of a shuffled heap are by now."""

    rest: int | None
    """the place that still has what is left of it, in its order"""
    places: frozenset[int]
    """all places that have some of them"""
    changed: frozenset[int]
    """cells that have changed since the shuffle began"""
    parts: list[Takes] = field(default_factory=list)
    """what has been taken off the top of it, in turn"""
    spots: list[tuple[int, OneSpot]] = field(default_factory=list)
    """where a card of the rest is looked at: (how many parts have been taken by then, the spot)"""

    def goes_on(self, step: AnyInstruction, index: int, every_place: frozenset[int]) -> bool:
        """Follows an instruction, at its index; whether it makes no difference to it how the cards of each part lie."""
        if not isinstance(step, Act | Choose | Check) and not (isinstance(step, Leap) and step.target == index + 1):
            return False  # what is taken off would depend on the way
        if isinstance(step, Act) and step.splits is not None and self.places & step.touches:
            taken = [part for part in step.splits if part.place in self.places]
            if any(part.place != self.rest or part.reads & (self.changed | self.places) for part in taken):
                return False
            self.parts += taken
            self._moved(step, bool(taken))
            self.places |= step.touches & every_place
        elif self.places & ((step.touches - {one.place for one in step.spots}) | (step.looks - step.bags)):
            return False
        looked_at = [one for one in step.spots if one.place in self.places]
        if any(one.place != self.rest for one in looked_at):
            return False
        self.spots += [(len(self.parts), one) for one in looked_at]
        self.changed |= step.touches
        return True

    def _moved(self, step: Act, taken: bool) -> None:
        """Where the rest is after an act that moves cards."""
        if step.hands_over and step.hands_over[0] == self.rest:
            self.rest = step.hands_over[1]
        elif self.rest in (step.touches if not taken or step.fills is None else step.fills):
            self.rest = None


def _spread_behind(program: Program, index: int, builds: Builds) -> _Spread | None:
    """What becomes of a heap that is being built, where of each part of it only matters which cards it has; None where more does."""
    steps, wanted, every_place = program.instructions, program.wanted, frozenset(cell for cell, _ in program.places())
    around = [(at, _end_of(step)) for at, step in enumerate(steps) if at < index < _end_of(step)]
    if len(around) != 1 or program.keeps_target:
        return None
    begins, ends = around[0]
    drawn = frozenset().union(*(step.touches for step in steps[begins:ends]))
    spread = _Spread(builds.place, frozenset([builds.place]), drawn)
    if not all(spread.goes_on(step, at, every_place) for at, step in enumerate(steps[ends:], start=ends)):
        return None
    kept = spread.places - wanted.may_be_dropped | {cell for cell in wanted.at_end if cell < 0}
    return None if kept else spread


def _sorted_in_parts(step: Act, builds: Builds, spread: _Spread) -> Callable[[Cells], None]:
    place = builds.place

    def run(cells: Cells) -> None:
        step.run(cells)
        heap = cells[place]
        above = builds.to_come(cells)
        """how many cards of the heap will lie on those that are there"""
        size = min(end - above for end in _ends(cells, spread, above + len(heap)) if end > above)
        cells[place] = bytes(sorted(heap[:size])) + heap[size:]

    return run


def _ends(cells: Cells, spread: _Spread, whole: int) -> Iterator[int]:
    """Where parts of a heap of so many cards end, from the top."""
    taken = [0, *accumulate(max(0, part.number(cells)) for part in spread.parts)]
    yield from taken
    for parts, one in spread.spots:
        with suppress(Impossible):
            index = taken[parts] + one.index(cells, whole - taken[parts])
            yield from (index, index + 1)
    yield whole
