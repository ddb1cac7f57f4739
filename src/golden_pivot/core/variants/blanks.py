"""What would work: every way to fill the blanks of a routine that makes all its claims true.

Blanks that stand for a number in a line are filled all at once: the routine is proved with the number as one that
is chosen at the beginning and kept, and a way to fill them is given up as soon as one path fails. Others, such as
positions of the set-up, are written into the text one after the other. What has refuted one filling is tried first
on the next ones.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import product
from math import prod

from ..answers.formulas import fit
from ..answers.plays import failing_at_random
from ..answers.verdicts import PROVED, UNSETTLED, prove
from ..budget import Budget
from ..building import PROOF, compile_routine
from ..faults import BadRoutine, OutOfBudget
from ..language.kinds import ENDING, PAGE, SETUP
from ..language.parser import lines_of, read_routine
from ..language.routine import STEP
from ..search.algebra import COUNT_PATHS, Layer
from ..search.explorer import with_what_is_told
from ..search.frontiers import Exploration, frontiers, goes_on
from ..search.program import FAILED, NO_ENDING, AnyInstruction, Choose, Closure, Leap, Program, State
from .fields import Field, NothingToFill, fields_of, filled

Filling = tuple[str, ...]
"""what stands in each blank, in the order of the text"""

MOST_FILLINGS = 500_000
MOST_ANSWERS = 400
"""answers that are proved once more and told"""
MOST_AT_ONCE = 4000
"""fillings that are explored together"""
AT_ONCE_STATES, AT_ONCE_STEPS = 200_000, 400_000
"""what fillings may cost together, before they are tried one by one"""
ONE_STATES, ONE_STEPS = 1_000_000, 1_500_000
"""what one may cost by itself before it is left open"""
DRAWN = 40
"""paths drawn at random that are tried on a large one first"""
MOST_KNOWN = 12
"""paths that have refuted something and are tried first"""
NEAR_MISSES = 3


@dataclass(frozen=True)
class NearMiss:
    """A simple filling that fails, and how."""

    values: Filling
    says: str


@dataclass(frozen=True)
class Solution:
    fields: tuple[Field, ...]
    answers: tuple[Filling, ...]
    """the simplest first, or the widest range"""
    fillings: int
    """how many there are to try"""
    tried: int
    refuted_first: int
    """of these, refuted by a path that had refuted another"""
    near: tuple[NearMiss, ...]
    relation: str | None
    """the last blank as a formula in the others, where there is one for all answers"""
    complete: bool
    """every filling was tried and settled, and every answer is told"""
    open: int = 0
    """tried, and not settled"""
    stopped: str | None = None
    """what ran out before all were tried"""
    working: int = 0
    """that work, as far as they are settled; the first of them are told"""

    @property
    def says(self) -> str:
        if self.complete or (not self.stopped and not self.open):
            more = "" if self.working == len(self.answers) else f" The {len(self.answers):,} simplest are told."
            return f"{self.working:,} of {self.fillings:,} ways work.{more}"
        found = f"{self.working:,} work" if self.working else "None is known to work"
        settled = f"{found} of the {self.tried - self.open:,} that are settled, of {self.fillings:,} ways in all."
        if self.open:
            settled += f" {self.open:,} {'is' if self.open == 1 else 'are'} too large to be settled."
        return f"{settled} The search stopped: {self.stopped}." if self.stopped else settled


def solve(
    text: str,
    budget: Budget,
    domains: Mapping[int, Sequence[str]] | None = None,
    progress: Callable[[str], None] = lambda words: None,
    known_first: bool = True,
) -> Solution:
    """Every filling of the blanks with which all claims hold, each proved once more as the routine it makes.

    Raises NothingToFill, BadRoutine for other faults, Cancelled. Out of budget, the solution is not complete.
    """
    fields = fields_of(read_routine(text), domains)
    if not any(line.kind and line.kind.phase == ENDING for line in read_routine(text).walk()):
        raise NothingToFill(
            "There is nothing to make true: add an ending, such as “Ends with: the top card of deck is FORCE”."
        )
    many = prod(len(field.domain) for field in fields)
    if many > MOST_FILLINGS:
        raise NothingToFill(f"There are {many:,} ways to fill the blanks: narrow what is to be tried.")
    search = _Search(text, fields, budget, progress, known_first)
    search.run()
    ordered = sorted(search.passing, key=search.simplicity)
    answers = search.proved_of(ordered[:MOST_ANSWERS])
    working = len(ordered) - len(ordered[:MOST_ANSWERS]) + len(answers)
    return Solution(
        tuple(fields), tuple(answers), many, search.tried, search.refuted_first, tuple(search.near),
        _relation(fields, answers), not search.stopped and not search.open and len(ordered) <= MOST_ANSWERS,
        search.open, search.stopped, working,
    )  # fmt: skip


def _relation(fields: Sequence[Field], answers: Sequence[Filling]) -> str | None:
    if len(fields) < 2 or len(answers) < 4 or not all(field.is_number for field in fields):
        return None
    rows = [([int(v) for v in values[:-1]], int(values[-1])) for values in answers]
    if len({tuple(known) for known, _ in rows}) < len(rows):
        return None
    formula = fit([f"blank {field.number}" for field in fields[:-1]], rows)
    return formula and f"blank {fields[-1].number} is {formula}"


class _Search:
    def __init__(
        self, text: str, fields: Sequence[Field], budget: Budget, progress: Callable[[str], None], known_first: bool
    ) -> None:
        self.text, self.fields, self.progress = text, fields, progress
        self.budget = budget.quiet()
        self.known_first = known_first
        self.passing: list[Filling] = []
        self.tried = self.refuted_first = 0
        self.near: list[NearMiss] = []
        self.known: list[dict[str, int]] = []
        """choices, by key, of paths that have refuted a filling"""
        self.stopped: str | None = None
        self.open = 0
        self.proved: set[Filling] = set()
        """of those that pass, the ones that were proved as the routines they make"""
        self.many = prod(len(field.domain) for field in fields)
        self.rank = [{value: i for i, value in enumerate(field.domain)} for field in fields]
        self.at_once = _at_once(text, fields)

    def simplicity(self, filling: Filling) -> tuple[int, tuple[int, ...]]:
        ranks = tuple(self.rank[i][value] for i, value in enumerate(filling))
        widths = [
            int(filling[i + 1]) - int(filling[i])
            for i in range(len(filling) - 1)
            if (self.fields[i].line, self.fields[i].slot) == (self.fields[i + 1].line, self.fields[i + 1].slot)
            and self.fields[i].is_number and self.fields[i + 1].is_number
        ]  # fmt: skip
        return -sum(widths) if widths else sum(ranks), ranks

    def run(self) -> None:
        written = [field for field in self.fields if field not in self.at_once]
        fields_line = self.fields[0].line
        try:
            for values in sorted(product(*(field.domain for field in written)), key=self._order(written)):
                told = dict(zip((field.number for field in written), values, strict=True))
                for block in self._blocks():
                    self.budget.look(0, fields_line)
                    self._try(told, block)
                    self.progress(f"{self.tried:,} of {self.many:,} ways tried, {len(self.passing):,} work")
        except OutOfBudget as out:
            self.stopped = out.reached

    @staticmethod
    def _order(fields: Sequence[Field]) -> Callable[[Filling], int]:
        return lambda values: sum(f.domain.index(v) for f, v in zip(fields, values, strict=True))

    def _blocks(self) -> Iterator[dict[int, tuple[str, ...]]]:
        """What each blank that is filled at once is to be, a few thousand ways at a time."""
        if not self.at_once:
            yield {}
            return
        first, *others = self.at_once
        each = max(1, MOST_AT_ONCE // prod(len(field.domain) for field in others))
        for begin in range(0, len(first.domain), each):
            yield {first.number: first.domain[begin : begin + each]} | {f.number: f.domain for f in others}

    def _try(self, told: Mapping[int, str], block: Mapping[int, tuple[str, ...]]) -> None:
        """All fillings with these words, and those of the block."""
        count = prod(map(len, block.values()))
        routine_text = _with_names(self.text, self.fields, told, block)
        routine = read_routine(routine_text)
        try:
            names = frozenset(_name(number) for number in block)
            program = compile_routine(routine, replace(PROOF, reorder=not block, kept=names))
        except BadRoutine as bad:
            self.tried += count
            self.open += count if bad.is_limit else 0
            return  # such as two cards at one position
        cells = [next(i for i, cell in enumerate(program.cells) if cell.name == _name(n)) for n in block]

        def whole(key: tuple[int, ...]) -> Filling:
            given = {**told, **dict(zip(block, map(str, key), strict=True))}
            return tuple(given[field.number] for field in self.fields)

        alive = set(product(*(map(int, values) for values in block.values())))
        if self.known_first and not self.known and count > 1:
            self._learn(whole(min(alive)))
        if self.known and self.known_first:
            quick = _only(program, self.known)
            refuted = self._refuted(quick, cells, alive)
            self.refuted_first += len(refuted)
            alive -= refuted
        self.tried += count - len(alive)
        if not alive:
            return
        try:
            refuted = self._refuted(program, cells, alive)
        except OutOfBudget as out:
            if out.limit in ("seconds", "memory"):
                raise
            for key in sorted(alive):
                self._one(whole(key))
            return
        self.tried += len(alive)
        self.passing += [whole(key) for key in sorted(alive - refuted)]
        for key in sorted(refuted)[:2]:
            if len(self.known) < MOST_KNOWN:
                self._learn(whole(key))

    def _one(self, filling: Filling) -> None:
        """A large one by itself: a few paths drawn at random, then the proof."""
        self.budget.look(0, self.fields[0].line)
        try:
            failing = failing_at_random(read_routine(filled(self.text, self.fields, filling)), DRAWN)
            passes = None if failing else self.holds(filling)
        except BadRoutine:
            passes = False
        self.tried += 1
        if passes:
            self.passing.append(filling)
        self.progress(f"{self.tried:,} of {self.many:,} ways tried, {len(self.passing):,} work")

    def proved_of(self, fillings: Sequence[Filling]) -> list[Filling]:
        """Those that are proved as the routines they make, as far as the budget goes."""
        found: list[Filling] = []
        try:
            for filling in fillings:
                if filling in self.proved or self.holds(filling):
                    found.append(filling)
        except OutOfBudget as out:
            self.stopped = self.stopped or out.reached
        return found

    def holds(self, filling: Filling) -> bool:
        """Whether it is proved as the routine it makes; left open where that is not settled."""
        text = filled(self.text, self.fields, filling)
        try:
            verdict = prove(read_routine(text), self.budget.narrowed(ONE_STATES, ONE_STEPS), explain=False)
        except BadRoutine:
            return False
        if verdict.limit in ("seconds", "memory"):
            raise OutOfBudget(verdict.limit, verdict.headline.removeprefix("Not settled: "))
        self.open += verdict.verdict == UNSETTLED
        if verdict.verdict == PROVED:
            self.proved.add(filling)
        return verdict.verdict == PROVED

    def _learn(self, filling: Filling) -> None:
        """The path by which a filling fails, for the others."""
        try:
            verdict = prove(
                read_routine(filled(self.text, self.fields, filling)),
                self.budget.narrowed(AT_ONCE_STATES, AT_ONCE_STEPS),
            )
        except BadRoutine:
            return
        if verdict.counterexample:
            self.known.append(dict(verdict.counterexample.choices))
            if len(self.near) < NEAR_MISSES:
                self.near.append(NearMiss(filling, verdict.counterexample.sentence))

    def _refuted(self, program: Program, cells: Sequence[int], alive: set[tuple[int, ...]]) -> set[tuple[int, ...]]:
        """Which of these fail on some path. A filling is given up as soon as one has."""
        refuted: set[tuple[int, ...]] = set()

        def key(state: State) -> tuple[int, ...]:
            return tuple(state[cell] for cell in cells)

        layer: Layer = {program.start: 1}
        found = Exploration()
        budget = self.budget.narrowed(AT_ONCE_STATES, AT_ONCE_STEPS)
        for frontier in frontiers(program, budget, COUNT_PATHS, found):
            layer = frontier.layer
            if cells:
                refuted |= {key(stuck.state) for stuck in found.stuck if stuck.state[cells[-1]] is not None}
                refuted |= {key(s) for s in layer if s[FAILED] & ~NO_ENDING and s[cells[-1]] is not None}
                layer = {
                    s: w for s, w in layer.items() if s[cells[-1]] is None or self._goes_on(key(s), alive, refuted)
                }
                frontier.layer = layer
            elif found.stuck or any(state[FAILED] & ~NO_ENDING for state in layer):
                return set(alive)
            if not layer:
                break
        refuted |= {key(state) for state in layer if state[FAILED]} | {key(stuck.state) for stuck in found.stuck}
        refuted |= self._untold(program, layer, key)
        return refuted | self._never_reached(program, layer, key, alive)

    @staticmethod
    def _untold(program: Program, ends: Layer, key: Callable[[State], tuple[int, ...]]) -> set[tuple[int, ...]]:
        """Fillings with which two paths end alike to the eye and differ in what it is to tell."""
        by_filling: dict[tuple[int, ...], Layer] = {}
        for state, weight in ends.items() if program.tells else ():
            by_filling.setdefault(key(state), {})[goes_on(state)] = weight
        return {
            filling
            for filling, states in by_filling.items()
            if any(s[FAILED] for s in with_what_is_told(program, states))
        }

    @staticmethod
    def _never_reached(
        program: Program, ends: Layer, key: Callable[[State], tuple[int, ...]], alive: set[tuple[int, ...]]
    ) -> set[tuple[int, ...]]:
        """Fillings with which no path comes to any claim: nothing is proved by these."""
        if program.reached is None or any(not claim.marked and not claim.throughout for claim in program.claims):
            return set()
        reached: dict[tuple[int, ...], int] = {}
        for state in ends:
            reached[key(state)] = reached.get(key(state), 0) | state[program.reached]
        return {one for one in alive if not reached.get(one, 0)}

    @staticmethod
    def _goes_on(key: tuple[int, ...], alive: set[tuple[int, ...]], refuted: set[tuple[int, ...]]) -> bool:
        return key in alive and key not in refuted


def _only(program: Program, known: Sequence[Mapping[str, int]]) -> Program:
    """The program with no other options than those of the paths known to refute something."""

    def narrowed(step: AnyInstruction) -> AnyInstruction:
        if isinstance(step, Closure) and not any(path.get(f"round 1 in line {step.line}") for path in known):
            # None of them did anything there.
            return Leap(step.line, step.round, frozenset(), frozenset(), step.ends[-1])
        if not isinstance(step, Choose) or step.key.startswith(NAME):
            return step
        wanted = {path[step.key] for path in known if step.key in path}
        every = step.options
        return replace(step, options=lambda cells: [o for o in every(cells) if o in wanted] or every(cells))

    return replace(program, instructions=tuple(map(narrowed, program.instructions)))


NAME = "blank"


def _name(number: int) -> str:
    """The name of the number that stands for a blank; no routine can have it, as it is a keyword to none."""
    return NAME + "abcdefghijklmnopqrstuvwxyz"[number - 1]


def _with_names(
    text: str, fields: Sequence[Field], told: Mapping[int, str], block: Mapping[int, Sequence[str]]
) -> str:
    """The text with words in some blanks, and in the others numbers that are chosen where the set-up ends."""
    words = [told.get(field.number) or _name(field.number) for field in fields]
    rows = lines_of(filled(text, fields, words))
    behind = _behind_set_up(text)
    chosen = [
        f"Spectator names a number {_name(number)} from {values[0]} to {values[-1]}"
        for number, values in block.items()
    ]
    return "\n".join([*rows[:behind], *chosen, *rows[behind:]]) + "\n"


def _behind_set_up(text: str) -> int:
    """How many rows there are up to the end of the set-up."""
    lines = [line for line in read_routine(text).walk() if line.is_ == STEP and line.kind]
    return max((line.number for line in lines if line.kind and line.kind.phase in (PAGE, SETUP)), default=0)


def _at_once(text: str, fields: Sequence[Field]) -> list[Field]:
    """Blanks for a number that can be one that is chosen: those with which the routine can still be built."""
    found = [f for f in fields if f.is_number and list(f.domain) == _run(f.domain)]
    while found:
        # Different ones, as two cards cannot lie at one position.
        told = {f.number: f.domain[i % len(f.domain)] for i, f in enumerate(fields) if f not in found}
        routine = read_routine(_with_names(text, fields, told, {f.number: f.domain for f in found}))
        try:
            if not compile_routine(routine).tells:
                return found
            return []
        except BadRoutine as bad:
            added, behind = len(found), _behind_set_up(text)
            at_fault = {fault.line - added if fault.line > behind else fault.line for fault in bad.faults}
            left = [field for field in found if field.line not in at_fault]
            if len(left) == len(found):
                return []
            found = left
    return found


def _run(domain: Sequence[str]) -> list[str]:
    return list(map(str, range(int(domain[0]), int(domain[-1]) + 1)))
