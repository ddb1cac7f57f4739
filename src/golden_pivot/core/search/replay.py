"""One path, played with every card its own token: what the table shows."""

from __future__ import annotations

import random
from collections.abc import Callable, Sequence
from contextlib import suppress
from dataclasses import dataclass
from typing import Any

from ..cards import FACE_UP, INDIFFERENT, TOKEN
from ..faults import Fault, Impossible, NoSuchPath, OutOfBudget
from ..language.kinds import CHANCE
from .program import (
    FAILED,
    NO_ENDING,
    Act,
    AnyInstruction,
    Branch,
    Cell,
    Check,
    Choose,
    Closure,
    Leap,
    Loop,
    Program,
    State,
)  # fmt: skip
from .semantics import begin_turn, carrying_out, measured, options_of

Decide = Callable[[str, tuple[int, ...], Sequence[int] | None], int]
"""(key of a choice, its options, how heavy each weighs) → the option that is taken"""


@dataclass(frozen=True)
class Decision:
    """A choice as it stood on this path, and what was taken."""

    key: str
    label: str
    line: int
    by: str
    secret: bool
    options: tuple[int, ...]
    words: tuple[str, ...]
    """the options in words, in the same order"""
    value: int
    is_round: bool = False
    """it is whether, and with what move, a repetition without a stated number goes on"""
    person: int = 1
    """which spectator decides, where there are several"""

    @property
    def said(self) -> str:
        return self.words[self.options.index(self.value)]

    @property
    def clause(self) -> str | None:
        """As it is told in a sentence: `n is 20`; None for the decision to go no further round."""
        if self.is_round:
            return self.said if self.value or self.label.endswith("round 1") else None
        return f"{self.label} is {self.said}"


@dataclass(frozen=True)
class Frame:
    """The table after an instruction. Frame 0 is the table before the first line."""

    line: int
    """from 1; 0 for the table before the first line"""
    round: tuple[int, ...]
    state: State
    instruction: int = -1
    """index in the program; -1 for the table before the first line"""


@dataclass(frozen=True)
class Play:
    program: Program
    frames: tuple[Frame, ...]
    decisions: tuple[Decision, ...]
    faults: tuple[Fault, ...]
    failures: tuple[str, ...]
    """why this path fails, a clause for each claim that does not hold, or for the line it got stuck at"""
    stuck_at: int | None
    """line that could not be carried out"""

    @property
    def choices(self) -> dict[str, int]:
        return {decision.key: decision.value for decision in self.decisions}


def draw_path(program: Program, draw: random.Random, tells: bool = True) -> Play:
    """A path at random: what chance decides by its weights, what anyone chooses with equal chances. See `played`.

    What is settled one by one but chosen together is tossed for, and only that anew where it does not go together: every
    way is as likely as another, and the rest of the path as likely as without it.
    """
    tossed = {choose.key for choose in program.choices() if choose.one_by_one}
    begun, coins = draw.getstate(), random.Random(draw.random()) if tossed else draw

    def decide(key: str, options: tuple[int, ...], weights: Sequence[int] | None = None) -> int:
        if key.partition(", round")[0] in tossed:
            if (side := coins.getrandbits(1)) not in options:
                raise NoSuchPath
            return side
        return draw.choices(options, weights)[0] if weights else draw.choice(options)

    for _ in range(MOST_TRIES if tossed else 0):
        draw.setstate(begun)
        with suppress(NoSuchPath):
            return played(program, (), decide, tells=tells)
    return first_possible(program, (), decide, tells)


def first_possible(program: Program, faults: tuple[Fault, ...], decide: Decide, tells: bool = True) -> Play:
    """A path whose choices go together, of some that are decided."""
    for _ in range(MOST_TRIES):
        with suppress(NoSuchPath):
            return played(program, faults, decide, tells=tells)
    return played(program, faults, decide, strict=False, tells=tells)


MOST_TRIES = 1000
"""paths that are drawn until one is found whose choices go together"""
MOST_ROUNDS = 40
"""rounds of a closure that are played at most; a path drawn at random might else never end"""


def played(
    program: Program, faults: tuple[Fault, ...], decide: Decide, strict: bool = True, tells: bool = True
) -> Play:
    """Raises NoSuchPath for choices that do not go together, where it is to be `strict`.

    Unless it `tells`, nothing is kept of what happens on the way, which takes a fraction of the time.
    """
    return _Player(program, decide, strict, tells).play(faults)


@dataclass
class _Round:
    """A closure or a loop that is being carried out."""

    start: int
    behind: int = -1
    """index at which the move ends that is being made"""
    number: int = 0
    left: int | None = None
    """measure of a loop when this round began"""


class _Player:
    def __init__(self, program: Program, decide: Decide, strict: bool, tells: bool) -> None:
        self.program, self.decide, self.strict, self.tells = program, decide, strict, tells
        self.cells = list(program.start)
        self.frames = [Frame(0, (), program.start)]
        self.decisions: list[Decision] = []
        self.failures = _shown(program, program.start[FAILED] & ~NO_ENDING, 0)
        self.stuck_at: int | None = None
        self.index = 0
        """of the instruction that comes next"""
        self.around: list[_Round] = []
        """closures and loops around it, outermost first"""

    def play(self, faults: tuple[Fault, ...]) -> Play:
        instructions = self.program.instructions
        while self.index < len(instructions) and self.stuck_at is None:
            self._come_round()
            here, step = self.index, instructions[self.index]
            self.index += 1
            try:
                if self._carry_out(step, here) and self.tells:
                    self.frames.append(Frame(step.line, step.round, tuple(self.cells), here))
            except NoSuchPath:
                if self.strict:
                    raise
                self._stop(step.line, "these choices do not go together")
            except OutOfBudget as limit:  # such as more orders of piles than can be followed
                self._stop(step.line, limit.reached)
            except Impossible as obstacle:
                self._stop(step.line, obstacle.reason)
        if self.stuck_at is None and self.cells[FAILED] & NO_ENDING:
            self.failures.append("this path comes to no ending")
        if not self.tells:
            self.frames.append(Frame(0, (), tuple(self.cells)))
        return Play(
            self.program, tuple(self.frames), tuple(self.decisions), faults, tuple(self.failures), self.stuck_at
        )

    def _stop(self, line: int, reason: str) -> None:
        self.stuck_at = line
        self.failures.append(f"{reason} (line {line})")

    def _come_round(self) -> None:
        """Behind a move its closure comes again; one that has been left is done with."""
        if self.around and self.index == self.around[-1].behind:
            self.index = self.around[-1].start
        while self.around and not self.around[-1].start <= self.index <= self.around[-1].behind:
            self.around.pop()

    def _carry_out(self, step: AnyInstruction, here: int) -> bool:
        """Whether there is something new to be seen."""
        match step:
            case Choose():
                self._choose(step)
            case Act():
                self._act(step)
            case Check():
                self._check(step)
            case Branch() | Leap():
                target = carrying_out(step)(self.cells)
                self.index = self.index if target is None else target
            case Loop():
                self._turn(step, here)
            case Closure():
                self._move(step, here)
        return isinstance(step, Choose | Act | Check)

    def _choose(self, step: Choose) -> None:
        options = tuple(options_of(step, self.cells))
        turn = "".join(f", round {one.number}" for one in self.around)
        value = self.decide(step.key + turn, options, step.shares(self.cells, options))
        before = tuple(self.cells) if self.tells else ()
        self.cells[step.cell] = value
        # A face that is known already is no decision.
        if self.tells and (step.by != CHANCE or step.plain or len(options) > 1):
            words = tuple(step.say(before, option) for option in options)
            self.decisions.append(
                Decision(
                    step.key + turn,
                    step.label + turn,
                    step.line,
                    step.by,
                    step.secret,
                    options,
                    words,
                    value,
                    person=step.person,
                )
            )

    def _act(self, step: Act) -> None:
        failed = self.cells[FAILED]
        step.run(self.cells)
        self.failures += _shown(self.program, self.cells[FAILED] & ~failed, step.line)

    def _check(self, step: Check) -> None:
        if not step.settle(self.cells):
            self.failures.append(step.explain(self.cells))

    def _enter(self, here: int, behind: int = -1) -> _Round:
        if not (self.around and self.around[-1].start == here):
            self.around.append(_Round(here, behind))
        self.around[-1].number += 1
        return self.around[-1]

    def _turn(self, step: Loop, here: int) -> None:
        one = self._enter(here, step.end)
        one.left = measured(step, self.cells, one.left)
        begin_turn(one.number)

    def _move(self, step: Closure, here: int) -> None:
        one = self._enter(here)
        decision = _another_round(step, one.number, self.decide)
        self.decisions.append(decision)
        if decision.value == 0:
            self.around.pop()
            self.index = step.ends[-1]
        else:
            self.index, one.behind = step.moves(here)[decision.value - 1]


def _another_round(step: Closure, number: int, decide: Decide) -> Decision:
    """0 to go on with the routine, else the number of a move."""
    options = tuple(range(len(step.ends) + 1)) if number <= MOST_ROUNDS else (0,)
    key, label = f"round {number} in line {step.line}", f"what is done, round {number}"
    nothing = f"nothing is done in line {step.line}" if number == 1 else "nothing more"
    words = tuple([nothing, *step.says][option] for option in options)
    return Decision(key, label, step.line, step.by, False, options, words, decide(key, options, None), is_round=True)


def _shown(program: Program, mask: int, line: int) -> list[str]:
    """What came into sight that should not, for the bits of the claims against it."""
    when = f"at line {line}" if line else "before the first line"
    texts = [claim.text.partition(":")[2].strip() for i, claim in enumerate(program.claims) if mask >> (i + 1) & 1]
    return [f"{text} shows {when}" for text in texts]


def projected(proof: Program, replayed: Program, state: State) -> State:
    """A state of the replay as the proof sees it: cards that it does not follow alike, what it forgets gone.

    Both programs must come from the same routine, and the proof must forget nothing for the two to be equal
    after every line. Faces are dropped where nobody reads them, as such a proof never turns one.
    """
    token_of = {replayed.tokens[name]: token for name, token in proof.tokens.items() if name in replayed.tokens}
    for name, cell in replayed.card_cells.items():
        if state[cell] is not None:
            token_of.setdefault(state[cell], proof.own_tokens[name])
    shown = {} if replayed.faces is None else {t: face for t, face in enumerate(state[replayed.faces.cell]) if face}
    faces = {**shown, **replayed.fixed_faces}
    see = bytes(
        token_of.get(byte & TOKEN, faces.get(byte & TOKEN, INDIFFERENT))
        | (byte & FACE_UP if proof.follows_faces else 0)
        for byte in range(256)
    )

    def seen(cell: Cell, content: Any) -> Any:
        if isinstance(content, bytes):
            return content.translate(see)
        return token_of[content] if cell.is_card and content is not None else content

    found = list(map(seen, replayed.cells, state))
    if proof.faces is not None:
        found[proof.faces.cell] = b""
    for name, cell in proof.face_cells.items():
        card = replayed.token_of(state, name)
        followed = card is not None and token_of.get(card) == proof.tokens.get(name, proof.own_tokens.get(name))
        found[cell] = bytes([faces[card]]) if followed and card in faces else None
    return tuple(found)
