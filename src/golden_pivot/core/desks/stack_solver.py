"""Arrangements of real cards that do what they are asked, by the solver z3; or the smallest set that clashes.

Each position has a value, a whole number, and one of four suits, as Boolean variables. Values as numbers are what
makes sums quick: as Boolean variables too, the same stacks took hundreds of times as long.
"""

from __future__ import annotations

import threading
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass, replace

import z3

from ..budget import Budget
from ..cards import RANKS, SUITS
from ..faults import OutOfBudget
from .constraints import Constraint

JOKER = "joker"
RED = ("diamonds", "hearts")


@dataclass(frozen=True)
class Pack:
    """One real pack, or several shuffled together."""

    packs: int = 1
    jokers: int = 0
    without: tuple[str, ...] = ()
    """values that were taken out"""

    @property
    def ranks(self) -> tuple[str, ...]:
        return tuple(rank for rank in RANKS if rank not in self.without)

    @property
    def size(self) -> int:
        return self.packs * len(self.ranks) * len(SUITS) + self.jokers


class Model:
    """The positions 1 to `size` of a stack, as the solver knows them."""

    def __init__(self, size: int, pack: Pack) -> None:
        self.size, self.pack = size, pack
        self.ranks = (*pack.ranks, *((JOKER,) if pack.jokers else ()))
        self._value = [z3.Int(f"value at {i}") for i in self.positions]
        self._suit = {(i, suit): z3.Bool(f"{suit} at {i}") for i in self.positions for suit in SUITS}
        self._ranks: dict[tuple[int, str], z3.BoolRef] = {}
        self._cards: dict[tuple[int, str], z3.BoolRef] = {}
        self._same: dict[tuple[int, int, str], z3.BoolRef] = {}

    @property
    def positions(self) -> range:
        return range(1, self.size + 1)

    def rules(self) -> Iterator[z3.BoolRef]:
        """Every position has one card, and no card lies there more often than the pack has it."""
        packs = self.pack.packs
        for i in self.positions:
            yield self.any([self.is_rank(i, rank) for rank in self.ranks])
            yield z3.PbEq([(self._suit[i, suit], 1) for suit in SUITS], 1)
        for rank in self.pack.ranks:
            # The sums of values alone show soon that there are not enough of one.
            yield z3.PbLe([(self.is_rank(i, rank), 1) for i in self.positions], packs * len(SUITS))
            for suit in SUITS:
                yield z3.PbLe([(self.is_card(i, f"{rank} of {suit}"), 1) for i in self.positions], packs)
        if self.pack.jokers:
            yield z3.PbLe([(self.is_rank(i, JOKER), 1) for i in self.positions], self.pack.jokers)

    def value(self, i: int) -> z3.ArithRef:
        """From 1 for the ace to 13 for the king; 0 for a joker."""
        return self._value[i - 1]

    def is_card(self, i: int, card: str) -> z3.BoolRef:
        if (i, card) not in self._cards:
            rank, _, suit = card.partition(" of ")
            self._cards[i, card] = z3.And(self.is_rank(i, rank), self.is_suit(i, suit))
        return self._cards[i, card]

    def is_rank(self, i: int, rank: str) -> z3.BoolRef:
        if (i, rank) not in self._ranks:
            self._ranks[i, rank] = self.value(i) == (RANKS.index(rank) + 1 if rank in RANKS else 0)
        return self._ranks[i, rank]

    def is_suit(self, i: int, suit: str) -> z3.BoolRef:
        return z3.And(self._suit[i, suit], self.value(i) > 0) if self.pack.jokers else self._suit[i, suit]

    def is_red(self, i: int) -> z3.BoolRef:
        return self.any([self.is_suit(i, suit) for suit in RED])

    def is_black(self, i: int) -> z3.BoolRef:
        return self.any([self.is_suit(i, suit) for suit in SUITS if suit not in RED])

    def is_worth(self, i: int, low: int, high: int) -> z3.BoolRef:
        return z3.And(self.value(i) >= low, self.value(i) <= high)

    def sums(self, at: Sequence[int], total: int, how: str) -> z3.BoolRef:
        reached = z3.Sum([self.value(i) for i in at])
        return {"exactly": reached == total, "at least": reached >= total, "at most": reached <= total}[how]

    def agree(self, i: int, j: int, fact: str) -> z3.BoolRef:
        """Whether the cards there agree in value, suit or colour, or in value and colour."""
        if (i, j, fact) not in self._same:
            self._same[i, j, fact] = {
                "value": lambda: self.value(i) == self.value(j),
                "suit": lambda: self.any([z3.And(self.is_suit(i, s), self.is_suit(j, s)) for s in SUITS]),
                "colour": lambda: self.any([
                    z3.And(self.is_red(i), self.is_red(j)), z3.And(self.is_black(i), self.is_black(j))
                ]),
                "value and colour": lambda: z3.And(self.agree(i, j, "value"), self.agree(i, j, "colour")),
            }[fact]()  # fmt: skip
        return self._same[i, j, fact]

    def all(self, parts: Sequence[z3.BoolRef]) -> z3.BoolRef:
        return z3.And(*parts)

    def any(self, parts: Sequence[z3.BoolRef]) -> z3.BoolRef:
        return z3.Or(*parts)

    def no(self, part: z3.BoolRef) -> z3.BoolRef:
        return z3.Not(part)

    def read(self, found: z3.ModelRef) -> tuple[str, ...]:
        """The cards of a solution, from the top."""

        def card(i: int) -> str:
            value = found.eval(self.value(i), model_completion=True).as_long()
            suit = next(s for s in SUITS if z3.is_true(found.eval(self._suit[i, s], model_completion=True)))
            return f"{RANKS[value - 1]} of {suit}" if value else JOKER

        return tuple(map(card, self.positions))

    def differs(self, cards: Sequence[str]) -> z3.BoolRef:
        """Not this very arrangement."""
        same = [
            self.is_rank(i, JOKER) if card == JOKER else self.is_card(i, card)
            for i, card in enumerate(cards, start=1)
        ]
        return z3.Not(z3.And(*same))


Holds = Callable[..., bool | None]
"""(indices of constraints, the most work) → whether they can all hold; None where that was not found out"""
MUCH, LITTLE = 600_000_000, 2_000_000
"""the solver's own units of work, some millions a second, for a question, and for one whose answer is not needed to be
right. Work is counted and no time, so that the same is found on every machine and on a busy one."""


@dataclass(frozen=True)
class Solved:
    arrangements: tuple[tuple[str, ...], ...]
    clash: tuple[int, ...]
    """indices of the constraints of the smallest set that cannot all hold; empty where there are arrangements"""
    clash_is_smallest: bool
    is_settled: bool
    """False: out of budget before there was an answer"""


@contextmanager
def _stoppable(solver: z3.Solver, budget: Budget) -> Iterator[None]:
    """The solver sees the cancel flag while it thinks."""
    done = threading.Event()
    # Progress is told by the thread that searches alone: two would talk into each other.
    quiet = replace(budget, progress=lambda words: None, seconds=None)

    def watch() -> None:
        while not done.wait(0.05):
            try:
                quiet.look(0, 0)
            except Exception:
                # What is asked of the solver next finds the same, and raises it where it can be seen.
                solver.interrupt()
                return

    watcher = threading.Thread(target=watch, daemon=True)
    watcher.start()
    try:
        yield
    finally:
        done.set()
        watcher.join()


def solve(constraints: Sequence[Constraint], size: int, pack: Pack, wanted: int, seed: int, budget: Budget) -> Solved:
    """Up to `wanted` different arrangements. Raises Cancelled, Misread for a constraint that makes no sense."""
    model = Model(size, pack)
    solver = z3.Solver()
    solver.set("random_seed", seed)
    solver.add(*model.rules())
    lines = [z3.Bool(f"line {i}") for i in range(len(constraints))]
    meanings = [one.kind.means(model, one.values) for one in constraints]
    for line, meaning in zip(lines, meanings, strict=True):
        solver.add(z3.Implies(line, meaning))

    def holds(some: Sequence[int], work: int = MUCH) -> bool | None:
        solver.set("rlimit", work)
        with _stoppable(solver, budget):
            answer = solver.check(*(lines[i] for i in some))
        if answer == z3.unknown:
            replace(budget, seconds=None).look(0, 0)
            return None
        return bool(answer == z3.sat)

    def also() -> set[int]:
        """What holds in the arrangement just found."""
        found = solver.model()
        return {i for i, meaning in enumerate(meanings) if z3.is_true(found.eval(meaning, model_completion=True))}

    found: list[tuple[str, ...]] = []
    everyone = range(len(constraints))
    try:
        while len(found) < wanted and (answer := holds(everyone)) is not False:
            if answer is None:
                raise OutOfBudget("work", "the solver gave up")
            found.append(model.read(solver.model()))
            solver.add(model.differs(found[-1]))
            budget.progress(f"{len(found)} found")
    except OutOfBudget:
        return Solved(tuple(found), (), False, bool(found))
    if found:
        return Solved(tuple(found), (), False, True)
    core = tuple(sorted(int(str(line).split()[1]) for line in solver.unsat_core()))
    try:
        core = _reduced(core, holds)
        return Solved((), *smallest_clash(core, len(constraints), holds, also, budget), True)
    except OutOfBudget:
        return Solved((), core, False, True)


def _reduced(clash: Sequence[int], holds: Holds) -> tuple[int, ...]:
    """A part of it from which nothing can be left out."""
    left = list(clash)
    for one in clash:
        without = [i for i in left if i != one]
        if holds(without, LITTLE) is False:
            left = without
    return tuple(sorted(left))


def smallest_clash(
    known: tuple[int, ...],
    many: int,
    holds: Holds,
    also: Callable[[], set[int]],
    budget: Budget,
) -> tuple[tuple[int, ...], bool]:
    """(the smallest set of constraints that cannot all hold, whether it is sure that none is smaller).

    Every clash meets every set whose leaving out makes the rest hold. The smallest set that meets all of these known so
    far is therefore no larger than the smallest clash, and is it as soon as it clashes itself (A. Ignatiev, A. Previti,
    M. Liffiton, J. Marques-Silva, "Smallest MUS extraction with minimal hitting set dualization", 2015). `also` tells all
    that hold in what made the last question true.
    """
    to_meet: list[frozenset[int]] = []
    while True:
        budget.progress(f"looking for the smallest clash, {len(to_meet)} ways out so far")
        some = _meeting(to_meet, many)
        if len(some) >= len(known):
            return known, True
        if (answer := holds(some)) is not True:
            return (known, False) if answer is None else (some, True)
        # More that hold with them: what is then left out must be met by every clash. Where it takes long to find out
        # whether one more holds it counts as left out, which is right as well.
        holding = set(some) | also()
        for i in range(many):
            if i not in holding and holds([*holding, i], LITTLE):
                holding |= also()
        to_meet.append(frozenset(range(many)) - holding)


def _meeting(sets: Sequence[frozenset[int]], many: int) -> tuple[int, ...]:
    """A smallest set that has a member in each of these."""
    if not sets:
        return ()
    optimize = z3.Optimize()
    taken = [z3.Bool(f"take {i}") for i in range(many)]
    for one in sets:
        optimize.add(z3.Or(*(taken[i] for i in one)))
    optimize.minimize(z3.Sum([z3.If(line, 1, 0) for line in taken]))
    optimize.check()
    found = optimize.model()
    return tuple(i for i in range(many) if z3.is_true(found.eval(taken[i])))
