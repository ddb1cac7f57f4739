"""Fillings of blanks tried: with which of them every path of the routine holds.

Blanks that stand for a number in a line can be filled all at once: the routine is proved with the number as one that
is chosen at the beginning and kept, and a way to fill them is given up as soon as one path fails. Or each filling is
written into the text and tried by itself: a path that has refuted another is played first, then some drawn at random, and
what these leave is proved. Others than numbers, and positions of the set-up, are always written. Which of the two is the
quicker is found on a few of them first (blanks.py).
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from contextlib import contextmanager
from dataclasses import dataclass, field, replace
from itertools import product
from math import prod

from ..answers.plays import failing_at_random, play
from ..answers.proving import prove
from ..answers.refuting import counterexample
from ..answers.verdicts import PROVED, UNSETTLED, WHETHER, Asked
from ..answers.witnesses import Witness
from ..budget import Budget
from ..building import PROOF, REPLAY, compile_routine
from ..faults import BadRoutine, OutOfBudget
from ..language.kinds import PAGE, SETUP
from ..language.parser import lines_of, read_routine
from ..language.routine import STEP, Routine
from ..search.algebra import COUNT_PATHS, Layer
from ..search.explorer import with_what_is_told
from ..search.frontiers import Exploration, Frontier, frontiers, goes_on
from ..search.program import FAILED, NO_ENDING, AnyInstruction, Choose, Closure, Leap, Program, State
from ..search.replay import Play
from .fields import Field, Filling, filled

MOST_AT_ONCE = 4000
"""fillings that are explored together"""
AT_ONCE_STATES, AT_ONCE_STEPS = 200_000, 400_000
"""what fillings may cost together, before they are tried one by one"""
ONE_STATES, ONE_STEPS = 1_000_000, 1_500_000
"""what one may cost by itself before it is left open"""
DRAWN = 40
"""paths drawn at random that are tried on a large one first"""
BUILT = 20
"""steps of a search for which one instruction of a program can be read, built and prepared"""
MOST_KNOWN = 12
"""paths that have refuted something and are tried first"""

Trial = tuple[Filling, int]
"""what is written in the blanks that are not filled all at once, and the number of the block of the others, from 0"""
Block = Mapping[int, tuple[str, ...]]
"""number of a blank that is filled at once → what it is to be, an unbroken run of numbers"""


@dataclass(frozen=True)
class NearMiss:
    """A simple filling that fails, and how."""

    values: Filling
    says: str


@dataclass(frozen=True)
class Task:
    """What all trials share."""

    text: str
    fields: tuple[Field, ...]
    at_once: tuple[Field, ...]
    """those that are filled all at once"""
    known_first: bool
    known: tuple[Mapping[str, int], ...] = ()
    """choices, by key, of paths that have refuted a filling"""
    learns: bool = False
    """whether more of them are looked for"""

    @property
    def written(self) -> list[Field]:
        return [field for field in self.fields if field not in self.at_once]

    @property
    def blocks(self) -> list[Block]:
        """What each blank that is filled at once is to be, a few thousand ways at a time."""
        if not self.at_once:
            return [{}]
        first, *others = self.at_once
        each = max(1, MOST_AT_ONCE // prod(len(field.domain) for field in others))
        return [
            {first.number: first.domain[begin : begin + each]} | {f.number: f.domain for f in others}
            for begin in range(0, len(first.domain), each)
        ]

    @property
    def many_trials(self) -> int:
        return prod(len(field.domain) for field in self.written) * len(self.blocks)

    def trials(self) -> Iterator[Trial]:
        """The simplest first."""
        domains, blocks = [field.domain for field in self.written], len(self.blocks)
        ranks = [{value: rank for rank, value in enumerate(domain)} for domain in domains]
        for words in sorted(product(*domains), key=lambda v: sum(r[one] for r, one in zip(ranks, v, strict=True))):
            for number in range(blocks):
                yield words, number

    def simplicity(self, filling: Filling) -> tuple[int, tuple[int, ...]]:
        """The simplest first, or the widest range."""
        ranks = tuple(field.domain.index(value) for field, value in zip(self.fields, filling, strict=True))
        widths = [
            int(filling[i + 1]) - int(filling[i])
            for i in range(len(filling) - 1)
            if (self.fields[i].line, self.fields[i].slot) == (self.fields[i + 1].line, self.fields[i + 1].slot)
            and self.fields[i].is_number and self.fields[i + 1].is_number
        ]  # fmt: skip
        return -sum(widths) if widths else sum(ranks), ranks


@dataclass
class Found:
    """What trials have come to."""

    passing: list[Filling] = field(default_factory=list)
    proved: set[Filling] = field(default_factory=set)
    """of these, the ones that were proved as the routines they make"""
    tried: int = 0
    refuted_first: int = 0
    """of these, refuted by a path that had refuted another"""
    near: list[NearMiss] = field(default_factory=list)
    known: list[Mapping[str, int]] = field(default_factory=list)
    left: list[Filling] = field(default_factory=list)
    """too large to be explored together: to be tried one by one"""
    open: int = 0
    """tried, and not settled"""
    unread: list[NearMiss] = field(default_factory=list)
    """those that make no sentence of the language, and what is wrong with it"""
    stopped: str | None = None
    """what ran out before all were tried"""
    work: int = 0
    """what it took, in steps of a search; what else there is to do is reckoned in these. No clock has a part in it"""

    def take_in(self, other: Found) -> None:
        self.passing += other.passing
        self.proved |= other.proved
        self.tried += other.tried
        self.refuted_first += other.refuted_first
        self.near += other.near
        self.left += other.left
        self.open += other.open
        self.unread += other.unread
        self.work += other.work
        self.stopped = self.stopped or other.stopped


def tried(task: Task, trials: Sequence[Trial], budget: Budget) -> Found:
    """A batch. Raises Cancelled."""
    blocks = task.blocks
    with _as_far_as_it_goes(task, budget) as trying:
        for words, number in trials:
            trying.budget.look(0, task.fields[0].line)
            trying.some(dict(zip((field.number for field in task.written), words, strict=True)), blocks[number])
    return trying.found


def tried_alone(task: Task, fillings: Sequence[Filling], budget: Budget) -> Found:
    """A batch of large ones, one by one. Raises Cancelled."""
    with _as_far_as_it_goes(task, budget) as trying:
        for filling in fillings:
            trying.one(filling)
    return trying.found


def proved_again(task: Task, fillings: Sequence[Filling], budget: Budget) -> Found:
    """Those that are proved as the routines they make. Raises Cancelled."""
    with _as_far_as_it_goes(task, budget) as trying:
        for filling in fillings:
            if trying.holds(filling):
                trying.found.passing.append(filling)
    return trying.found


@contextmanager
def _as_far_as_it_goes(task: Task, budget: Budget) -> Iterator[_Trying]:
    """What was found before the budget is used up is kept."""
    trying = _Trying(task, Found(known=list(task.known)), budget.quiet())
    try:
        yield trying
    except OutOfBudget as out:
        trying.found.stopped = out.reached


class _Trying:
    def __init__(self, task: Task, found: Found, budget: Budget) -> None:
        self.text, self.fields, self.task = task.text, task.fields, task
        self.found, self.budget = found, budget

    def some(self, told: Mapping[int, str], block: Block) -> None:
        """All fillings with these words, and those of the block."""
        if not block:
            self.one(tuple(told[field.number] for field in self.fields))
            return
        count = prod(map(len, block.values()))
        routine_text = _with_names(self.text, self.fields, told, block)
        routine = read_routine(routine_text)
        try:
            names = frozenset(_name(number) for number in block)
            program = compile_routine(routine, replace(PROOF, reorder=False, kept=names))
        except BadRoutine as bad:
            self.found.tried += count
            self.found.open += count if bad.is_limit else 0
            return  # such as two cards at one position
        cells = [next(i for i, cell in enumerate(program.cells) if cell.name == _name(n)) for n in block]

        def whole(key: tuple[int, ...]) -> Filling:
            given = {**told, **dict(zip(block, map(str, key), strict=True))}
            return tuple(given[field.number] for field in self.fields)

        alive = set(product(*(map(int, values) for values in block.values())))
        if self.task.learns and self.task.known_first and not self.found.known and count > 1:
            self._learn(whole(min(alive)))
        if self.found.known and self.task.known_first:
            refuted = self._refuted_by_known(program, cells, alive)
            self.found.refuted_first += len(refuted)
            alive -= refuted
        self.found.tried += count - len(alive)
        if not alive:
            return
        try:
            refuted = self._refuted(program, cells, alive)
        except OutOfBudget as out:
            if out.limit in ("seconds", "memory"):
                raise
            self.found.left += [whole(key) for key in sorted(alive)]
            return
        self.found.tried += len(alive)
        self.found.passing += [whole(key) for key in sorted(alive - refuted)]
        for key in sorted(refuted)[:2] if self.task.learns else ():
            if len(self.found.known) < MOST_KNOWN:
                self._learn(whole(key))

    def one(self, filling: Filling) -> None:
        """By itself: what is known to refute others, then a few paths drawn at random, then the proof."""
        self.budget.look(0, self.fields[0].line)
        self.found.tried += 1
        routine = read_routine(filled(self.text, self.fields, filling))
        if routine.faults:
            self.found.unread.append(NearMiss(filling, str(routine.faults[0])))
            return
        try:
            if self._fails_on_known(routine):
                self.found.refuted_first += 1
            elif failing := self._fails_at_random(routine):
                self._knows(filling, routine, failing)
            elif self.holds(filling):
                self.found.passing.append(filling)
        except BadRoutine as bad:  # such as two cards at one position
            self.found.open += bad.is_limit

    def _fails_at_random(self, routine: Routine) -> Play | None:
        failing = failing_at_random(routine, DRAWN, self.budget.cancelled)
        self.found.work += len(compile_routine(routine, REPLAY).instructions) * (BUILT + (1 if failing else DRAWN))
        return failing

    def _fails_on_known(self, routine: Routine) -> bool:
        """Whether it fails on a path that has refuted another, as far as it has the same choices; that one is then tried first."""
        for i, choices in enumerate(self.found.known if self.task.known_first else ()):
            played = play(routine, choices)
            self.found.work += len(played.program.instructions) * (1 + BUILT * (not i))
            if played.failures:
                self.found.known.insert(0, self.found.known.pop(i))
                return True
        return False

    def _knows(self, filling: Filling, routine: Routine, failing: Play) -> None:
        """Keeps the path by which a filling fails, for the others."""
        if len(self.found.known) < MOST_KNOWN:
            self.found.known.append(failing.choices)
        if self.task.learns:
            self.found.near.append(
                NearMiss(filling, counterexample(routine, Witness(failing, None, least=False)).sentence)
            )

    def holds(self, filling: Filling) -> bool:
        """Whether it is proved as the routine it makes; left open where that is not settled."""
        text = filled(self.text, self.fields, filling)
        try:
            verdict = prove(read_routine(text), self.budget.narrowed(ONE_STATES, ONE_STEPS), WHETHER)
        except BadRoutine:
            return False
        if verdict.limit in ("seconds", "memory"):
            raise OutOfBudget(verdict.limit, verdict.headline.removeprefix("Not settled: "))
        self.found.work += verdict.transitions or ONE_STEPS * (verdict.verdict == UNSETTLED)
        self.found.open += verdict.verdict == UNSETTLED
        if verdict.verdict == PROVED:
            self.found.proved.add(filling)
        return verdict.verdict == PROVED

    def _learn(self, filling: Filling) -> None:
        """The path by which a filling fails, for the others."""
        try:
            verdict = prove(
                read_routine(filled(self.text, self.fields, filling)),
                self.budget.narrowed(AT_ONCE_STATES, AT_ONCE_STEPS),
                Asked(region=False),
            )
        except BadRoutine:
            return
        if verdict.counterexample:
            self.found.known.append(dict(verdict.counterexample.choices))
            self.found.near.append(NearMiss(filling, verdict.counterexample.sentence))

    def _refuted_by_known(
        self, program: Program, cells: Sequence[int], alive: set[tuple[int, ...]]
    ) -> set[tuple[int, ...]]:
        """Which of these fail on a path that has refuted another; none where even these paths are too many together."""
        try:
            return self._refuted(_only(program, self.found.known), cells, alive, every_path=False)
        except OutOfBudget as out:
            if out.limit in ("seconds", "memory"):
                raise
            return set()

    def _refuted(
        self, program: Program, cells: Sequence[int], alive: set[tuple[int, ...]], every_path: bool = True
    ) -> set[tuple[int, ...]]:
        """Which of these fail on some path. A filling is given up as soon as one has.

        `every_path`: all paths are gone, so that one with which none comes to a claim is refuted too.
        """
        refuted: set[tuple[int, ...]] = set()

        def key(state: State) -> tuple[int, ...]:
            return tuple(state[cell] for cell in cells)

        layer: Layer = {program.start: 1}
        found = Exploration()
        budget = self.budget.narrowed(AT_ONCE_STATES, AT_ONCE_STEPS)
        self.found.work += BUILT * len(program.instructions)
        for frontier in self._counted(frontiers(program, budget, COUNT_PATHS, found), found):
            layer = frontier.layer
            refuted |= {key(stuck.state) for stuck in found.stuck if stuck.state[cells[-1]] is not None}
            refuted |= {key(s) for s in layer if s[FAILED] & ~NO_ENDING and s[cells[-1]] is not None}
            layer = {s: w for s, w in layer.items() if s[cells[-1]] is None or self._goes_on(key(s), alive, refuted)}
            frontier.layer = layer
            if not layer:
                break
        refuted |= {key(state) for state in layer if state[FAILED]} | {key(stuck.state) for stuck in found.stuck}
        refuted |= self._untold(program, layer, key)
        return refuted | (self._never_reached(program, layer, key, alive) if every_path else set())

    def _counted(self, through: Iterator[Frontier], found: Exploration) -> Iterator[Frontier]:
        """The same frontiers; what they took is counted, also where the search ends early."""
        try:
            yield from through
        finally:
            self.found.work += found.transitions

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


def at_once(text: str, fields: Sequence[Field]) -> list[Field]:
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
