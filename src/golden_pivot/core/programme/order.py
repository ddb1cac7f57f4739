"""The best order of a programme by stated wishes, by the solver z3; and which wishes clash.

A pack goes from one routine to the next that uses it, so the packs are paths through the programme: each routine has at
most one that takes its pack over, and at most one that it has it from.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from itertools import pairwise, permutations

import z3

from ..english import counted, list_text
from .occasion import Wish

MOST_ORDERED = 8
"""routines for which an order is sought"""
WORK = 400_000_000
"""the solver's own units for one question, some millions a second; no time, so that the same is found everywhere"""


@dataclass(frozen=True)
class Costs:
    """Of n routines, 0 to n − 1."""

    seconds: tuple[float, ...]
    """each by itself"""
    between: Mapping[tuple[int, int], float]
    """seconds to make the pack of the first ready for the second; a pair is missing where another pack is needed"""
    alike: Mapping[tuple[int, int], float]
    """0 to 1, of two side by side"""
    warned: Mapping[tuple[int, int], int] = field(default_factory=dict)
    """warnings about two side by side, the second behind the first"""


@dataclass(frozen=True)
class Order:
    order: tuple[int, ...]
    pack: tuple[int, ...]
    """of each place in the order: which pack, from 1"""
    resetting: float
    """seconds"""
    packs: int
    variety: float
    """sum of likenesses side by side; the less the more various"""


@dataclass(frozen=True)
class Best:
    found: Order | None
    """None where the wishes cannot all be had, or where nothing was settled"""
    clash: tuple[Wish, ...]
    """of the wishes that must be had, a smallest set that cannot; with the packs at hand"""
    gives: tuple[str, ...]
    """what the earlier wishes cost the later ones, in sentences"""
    settled: bool


def best_order(costs: Costs, wishes: Sequence[Wish], uids: Sequence[str], packs: int, minutes: int | None) -> Best:
    """Up to MOST_ORDERED routines. In an order that stands giving_out.py gives out the packs."""
    if not uids:
        return Best(Order((), (), 0.0, 0, 0.0), (), (), True)
    model = _Model(costs, packs)
    must = {wish: rule for wish in wishes if (rule := model.must(wish, uids, minutes)) is not None}
    hard = list(must.values())
    goals = [(wish, model.goal(wish)) for wish in wishes if wish.kind in GOALS]
    if not goals:
        goals = [(Wish("least resetting"), model.goal(Wish("least resetting")))]
    best = model.least([goal for _, goal in goals], hard)
    if best is None:
        return Best(None, (), (), False)
    if not best:
        return Best(None, tuple(model.clash(must)), (), True)
    gives = list(_gives(model, goals, hard, best))
    return Best(model.read(best, [goal for _, goal in goals], hard), (), tuple(gives), True)


GOALS = ("least resetting", "fewest packs", "fewest warnings", "variety")


def _gives(
    model: _Model, goals: Sequence[tuple[Wish, z3.ArithRef]], hard: list[z3.BoolRef], best: list[int]
) -> Iterator[str]:
    """What each later wish would be by itself."""
    for nth, (wish, goal) in enumerate(goals[1:], start=1):
        alone = model.least([goal], hard)
        if alone and alone[0] < best[nth]:
            before = list_text([earlier.kind for earlier, _ in goals[:nth]])
            yield f"{wish.kind.capitalize()} gives way to {before}: {_amount(wish, best[nth])}, where {_amount(wish, alone[0])} could be had."


def _amount(wish: Wish, value: int) -> str:
    if wish.kind in ("fewest packs", "fewest warnings"):
        return counted(value, wish.kind.removeprefix("fewest ")[:-1])
    return f"{value / 10:.0f} seconds" if wish.kind == "least resetting" else f"a likeness of {value / 100:.2f}"


class _Model:
    """at[i][p]: routine i has place p; takes[i, j]: j has its pack from i."""

    def __init__(self, costs: Costs, packs: int) -> None:
        self.costs, self.n = costs, len(costs.seconds)
        n = self.n
        self.at = [[z3.Bool(f"at {i} {p}") for p in range(n)] for i in range(n)]
        pairs = [(i, j) for i, j in costs.between if i != j]
        self.takes = {pair: z3.Bool(f"takes {pair}") for pair in pairs}
        self.rules: list[z3.BoolRef] = []
        for row in (which(i) for i in range(n) for which in (self._from, self._to)):
            if row:
                self.rules.append(z3.PbLe([(one, 1) for one in row], 1))
        place = [z3.Sum([z3.If(self.at[i][p], p, 0) for p in range(n)]) for i in range(n)]
        self.rules += [z3.Implies(takes, place[i] < place[j]) for (i, j), takes in self.takes.items()]
        for i in range(n):
            self.rules.append(z3.PbEq([(self.at[i][p], 1) for p in range(n)], 1))
            self.rules.append(z3.PbEq([(self.at[p][i], 1) for p in range(n)], 1))
        self.used = n - z3.Sum([z3.If(takes, 1, 0) for takes in self.takes.values()] or [z3.IntVal(0)])
        self.resetting = self._weighed({pair: round(10 * costs.between[pair]) for pair in self.takes}, self.takes)
        self.rules.append(self.used <= packs)

    def _from(self, i: int) -> list[z3.BoolRef]:
        return [one for (first, _), one in self.takes.items() if first == i]

    def _to(self, j: int) -> list[z3.BoolRef]:
        return [one for (_, second), one in self.takes.items() if second == j]

    def _weighed(
        self, weights: Mapping[tuple[int, int], int], which: Mapping[tuple[int, int], z3.BoolRef]
    ) -> z3.ArithRef:
        return z3.Sum([z3.If(which[pair], weight, 0) for pair, weight in weights.items() if weight] or [z3.IntVal(0)])

    def must(self, wish: Wish, uids: Sequence[str], minutes: int | None) -> z3.BoolRef | None:
        if wish.kind in ("opener", "closer"):
            place = 0 if wish.kind == "opener" else self.n - 1
            return z3.Or(
                [self.at[i][place] for i, uid in enumerate(uids) if uid == wish.routine] or [z3.BoolVal(False)]
            )
        if wish.kind == "within the minutes" and minutes:
            left = round(10 * (60 * minutes - sum(self.costs.seconds)))
            return self.resetting <= left
        return None

    def goal(self, wish: Wish) -> z3.ArithRef:
        if wish.kind == "fewest packs":
            return self.used
        if wish.kind == "least resetting":
            return self.resetting
        beside = {
            (i, j): z3.Or([z3.And(self.at[i][p], self.at[j][p + 1]) for p in range(self.n - 1)])
            for i, j in permutations(range(self.n), 2)
        }
        if wish.kind == "fewest warnings":
            return self._weighed({pair: self.costs.warned.get(pair, 0) for pair in beside}, beside)
        return self._weighed({pair: round(100 * self.costs.alike.get(pair, 0.0)) for pair in beside}, beside)

    def _solver(self, hard: Sequence[z3.BoolRef]) -> z3.Solver:
        solver = z3.Solver()
        solver.set("rlimit", WORK)
        solver.add(*self.rules, *hard)
        return solver

    def least(self, goals: Sequence[z3.ArithRef], hard: Sequence[z3.BoolRef]) -> list[int] | None:
        """The least of the first goal, then of the second …; nothing where it cannot be, None where it is not settled."""
        solver = self._solver(hard)
        found: list[int] = []
        for goal in goals:
            if (answer := solver.check()) != z3.sat:
                return None if answer == z3.unknown else []
            value = solver.model().eval(goal, model_completion=True).as_long()
            while True:
                solver.push()
                solver.add(goal < value)
                answer = solver.check()
                if answer == z3.sat:
                    value = solver.model().eval(goal, model_completion=True).as_long()
                solver.pop()
                if answer == z3.unknown:
                    return None
                if answer == z3.unsat:
                    break
            solver.add(goal == value)
            found.append(value)
        return found

    def clash(self, must: Mapping[Wish, z3.BoolRef]) -> list[Wish]:
        """A set of which none can be left out."""
        kept = dict(must)
        for wish in must:
            fewer = {one: rule for one, rule in kept.items() if one != wish}
            if self._solver(list(fewer.values())).check() == z3.unsat:
                kept = fewer
        return list(kept)

    def read(self, best: Sequence[int], goals: Sequence[z3.ArithRef], hard: Sequence[z3.BoolRef]) -> Order:
        """Of several that are as good the one that comes first when routines and packs are read from the left."""
        solver = self._solver([*hard, *(goal == value for goal, value in zip(goals, best, strict=True))])
        for p in range(self.n):
            _first_that_can(solver, [self.at[i][p] for i in range(self.n)])
        for takes in self.takes.values():
            _first_that_can(solver, [takes, z3.Not(takes)])
        solver.check()
        model = solver.model()
        order = [next(i for i in range(self.n) if z3.is_true(model.eval(self.at[i][p]))) for p in range(self.n)]
        before = {j: i for (i, j), takes in self.takes.items() if z3.is_true(model[takes])}
        pack: dict[int, int] = {}
        for i in order:
            pack[i] = pack[before[i]] if i in before else 1 + len(set(pack.values()))
        alike = sum(self.costs.alike.get(pair, 0.0) for pair in pairwise(order))
        resetting = sum(self.costs.between[i, j] for j, i in before.items())
        return Order(tuple(order), tuple(pack[i] for i in order), round(resetting, 1), len(set(pack.values())), alike)


def _first_that_can(solver: z3.Solver, options: Sequence[z3.BoolRef]) -> None:
    for option in options:
        if solver.check(option) == z3.sat:
            solver.add(option)
            return
