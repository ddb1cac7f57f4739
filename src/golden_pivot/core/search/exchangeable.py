"""Loops that draw an unknown card each time round, where the order in which cards come makes no difference: counted without going through it.

A state at the head of such a loop is a **core** (all of it but the faces that have been seen) and how many cards of each class have
been seen. A round takes a core and a class to a core. Where drawing a and then b leads to the same core as b and then a, from every core,
the core follows from how many of each class were drawn, and so many draws n_c of class c out of t_c come about in

    N! · ∏ C(t_c, n_c)     ways, N = Σ n_c,

in every order there is. So what leads to a core is added up class by class instead of draw by draw: a card in one of 13 classes and 52 of them
make some thousand cores instead of a million multisets. Where the last draw, of class c, leaves the loop, (t_c − n_c) cards can be it: since
C(t, n) · (t − n) = t · C(t − 1, n), that is the same sum with one card of the class less.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from itertools import combinations
from math import comb, factorial, perm
from typing import Any

from ..cards import TOKEN
from ..faults import Impossible
from .algebra import Algebra, Layer
from .program import Loop, Program, State
from .semantics import measured
from .stages import Stage

MOST_CORES = 20_000
"""beyond these a loop is gone through draw by draw"""
MOST_ENTRIES = 8
"""ways into a loop, each of which is added up for itself"""

Origins = frozenset[tuple[int, int | None, int]]
"""(number of the core a round began with, class that was drawn or None, how many cards of it there are before any is drawn)"""


def _chosen(origins: Origins, index: int, option: Any) -> Origins:
    assert all(drawn is None for _, drawn, _ in origins)
    return frozenset((core, option, 0) for core, _, _ in origins)


def _counted(origins: Origins, ways: int, out_of: int) -> Origins:
    return frozenset((core, drawn, ways) for core, drawn, _ in origins)


TRACE = Algebra(frozenset(), lambda one, other: one | other, times=_counted, chosen=_chosen)
"""weights that say from which core a round began, and with which draw"""


class NotExchangeable(Exception):
    """The loop has to be gone through draw by draw."""


def draws_one_card(program: Program, stage: Stage) -> bool:
    """Whether a round of the loop chooses nothing but what an unknown card is."""
    if not isinstance(stage.closure, Loop) or stage.closure.measure is None or program.faces is None:
        return False
    ((_, passes),) = stage.moves
    choices = [one.choose for one in passes if one.choose]
    return len(choices) == 1 and choices[0].draws and all(one.closure is None for one in passes)


@dataclass
class _Rounds:
    """Every core that can be reached, and where a draw leads from each."""

    cores: list[State] = field(default_factory=list)
    number_of: dict[State, int] = field(default_factory=dict)
    on: list[dict[int, int]] = field(default_factory=list)
    """for each core: class → the core behind the round"""
    out: list[dict[int | None, State]] = field(default_factory=list)
    """for each core: class, or None where nothing is drawn → the state that has left the loop"""
    totals: dict[int, int] = field(default_factory=dict)
    """class → how many cards there are of it before any is drawn"""

    def on_with(self, core: int | None, drawn: int) -> int | None:
        """The core at which another card is drawn after this one; None where none is."""
        there = self.on[core].get(drawn) if core is not None else None
        return there if there is not None and None not in self.out[there] else None

    def out_with(self, core: int, drawn: int) -> State | None:
        """The state that has left the loop after this draw, at once or without another."""
        there = self.on[core].get(drawn)
        return self.out[core].get(drawn) if there is None else self.out[there].get(None)

    def core(self, state: State) -> int:
        if state not in self.number_of:
            self.number_of[state] = len(self.cores)
            self.cores.append(state)
            self.on.append({})
            self.out.append({})
        return self.number_of[state]


@dataclass(frozen=True)
class Exchangeable:
    """Goes through the cores of a loop with `round`, which takes a layer once round it with TRACE: (states that go on, states that left)."""

    program: Program
    loop: Loop
    round: Callable[[Layer], tuple[Layer, Layer]]
    work: Callable[[int], None]
    """told how much has been done"""

    def behind(self, layer: Layer, algebra: Algebra) -> Layer:
        """What has left the loop, of a layer that comes to it. Raises NotExchangeable, OutOfBudget and Cancelled."""
        assert self.program.faces
        seen_cell = self.program.faces.cell
        if (
            not 0 < len(layer) <= MOST_ENTRIES
            or algebra.chosen
            or algebra.handled
            or bool(algebra.times) == bool(algebra.share)
        ):
            raise NotExchangeable
        classes = range(TOKEN + 1 - len(self.program.face_classes), TOKEN + 1)
        if not all(byte in classes for state in layer for byte in state[seen_cell]):
            raise NotExchangeable
        rounds = self._every_round({self._core(state) for state in layer})
        gone: Layer = {}
        for state, weight in layer.items():
            seen = state[seen_cell]
            left = {drawn: many - seen.count(TOKEN - drawn) for drawn, many in rounds.totals.items()}
            for behind, ways, draws in self._added_up(rounds, rounds.number_of[self._core(state)], left):
                if ways and algebra.times:
                    algebra.add(gone, behind, algebra.times(weight, ways, 1))
                elif ways and algebra.share:
                    algebra.add(gone, behind, algebra.share(weight, ways, perm(sum(left.values()), draws)))
        return gone

    def _core(self, state: State) -> State:
        """Without the faces that have been seen. They must all lie where nobody asks for them any more."""
        assert self.program.faces
        store = self.program.faces
        if store.among([state[cell] for cell in self._where_faces_are]):
            raise NotExchangeable
        return (*state[: store.cell], b"", *state[store.cell + 1 :])

    @property
    def _where_faces_are(self) -> Sequence[int]:
        return [*(cell for cell, _ in self.program.places()), *self.program.face_cells.values()]

    def _every_round(self, entries: set[State]) -> _Rounds:
        found = _Rounds()
        fresh = [found.core(state) for state in sorted(entries, key=repr)]
        before: list[int] = []
        while fresh:
            known = len(found.cores)
            on, out = self.round({found.cores[i]: frozenset({(i, None, 0)}) for i in fresh})
            for state, origins in on.items():
                self._goes_on(found, state, origins)
            for state, origins in out.items():
                self._leaves(found, state, origins)
            _must_commute(found, before)
            before, fresh = fresh, list(range(known, len(found.cores)))
            if len(found.cores) > MOST_CORES:
                raise NotExchangeable
        _must_commute(found, before)
        return found

    def _goes_on(self, found: _Rounds, state: State, origins: Origins) -> None:
        assert self.program.faces
        seen = state[self.program.faces.cell]
        for origin, drawn, ways in origins:
            if drawn is None or seen != bytes([TOKEN - drawn]) or found.totals.setdefault(drawn, ways) != ways:
                raise NotExchangeable
            try:
                measured(self.loop, state, measured(self.loop, found.cores[origin], None))
            except Impossible as obstacle:
                raise NotExchangeable from obstacle
            found.on[origin][drawn] = found.core(self._core(state))

    def _leaves(self, found: _Rounds, state: State, origins: Origins) -> None:
        assert self.program.faces
        if state[self.program.faces.cell] is not None:  # what has been seen is still asked for
            raise NotExchangeable
        for origin, drawn, ways in origins:
            if drawn is not None and found.totals.setdefault(drawn, ways) != ways:
                raise NotExchangeable
            found.out[origin][drawn] = state

    def _added_up(self, rounds: _Rounds, begin: int, left: Mapping[int, int]) -> Iterator[tuple[State, int, int]]:
        """(a state behind the loop, in how many ways it comes about, how many cards have been drawn by then)"""
        if None in rounds.out[begin]:
            yield rounds.out[begin][None], 1, 0
            return
        for last, many in left.items():
            if many < 1:  # all of them were seen before the loop
                continue
            for (core, draws), ways in self._reached(rounds, begin, {**left, last: many - 1}).items():
                if behind := rounds.out_with(core, last):
                    yield behind, ways * factorial(draws) * many, draws + 1

    def _reached(self, rounds: _Rounds, begin: int, left: Mapping[int, int]) -> dict[tuple[int, int], int]:
        """(core, number of draws) → Σ ∏ C(left_c, n_c) over all that can have been drawn."""
        reached = {(begin, 0): 1}
        for drawn, most in left.items():
            after: dict[tuple[int, int], int] = {}
            choices = [comb(most, many) for many in range(most + 1)]
            for (core, draws), ways in reached.items():
                there: int | None = core
                for many, choice in enumerate(choices):
                    if many:
                        there = rounds.on_with(there, drawn)
                    if there is None:
                        break
                    after[there, draws + many] = after.get((there, draws + many), 0) + ways * choice
            self.work(len(after))
            reached = after
        return reached


def _must_commute(found: _Rounds, cores: Sequence[int]) -> None:
    """From these cores two draws lead to the same, whichever comes first; and both or neither can be made."""
    for core in cores:
        for one, other in combinations(found.totals, 2):
            if found.on_with(found.on_with(core, one), other) != found.on_with(found.on_with(core, other), one):
                raise NotExchangeable
