"""One path, played with every card its own token: what the table shows."""

from __future__ import annotations

import random
from collections.abc import Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass
from typing import Any

from ..building import REPLAY, compile_routine, compile_what_can_be
from ..cards import FACE_UP, INDIFFERENT, TOKEN
from ..faults import Fault, Impossible, NoSuchPath, OutOfBudget
from ..language.routine import Routine
from ..steps.declare import CHANCE
from .program import (
    FAILED,
    MOST_TURNS,
    NO_ENDING,
    Act,
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


def play(routine: Routine, choices: Mapping[str, int] | None = None, seed: int | None = None) -> Play:
    """Play the path of these choices, by key; what is left open is drawn at random with a seed, else the first.

    A choice that is not possible is moved to the nearest one that is. Lines from the first fault on are
    left out; the faults are in the result.
    """
    program, faults = compile_what_can_be(routine, REPLAY)
    draw = random.Random(seed) if seed is not None else None
    wanted = choices or {}

    def decide(key: str, options: tuple[int, ...], weights: Sequence[int] | None = None) -> int:
        if key in wanted:
            return min(options, key=lambda option: abs(option - wanted[key]))
        if draw is None:
            return options[0]
        return draw.choices(options, weights)[0] if weights else draw.choice(options)

    if draw is None:
        return _play(program, faults, decide, strict=False)
    return _first_possible(program, faults, decide)


def draw_path(program: Program, draw: random.Random) -> Play:
    """A path at random: what chance decides by its weights, what anyone chooses with equal chances."""

    def decide(key: str, options: tuple[int, ...], weights: Sequence[int] | None = None) -> int:
        return draw.choices(options, weights)[0] if weights else draw.choice(options)

    return _first_possible(program, (), decide)


def failing_at_random(routine: Routine, paths: int, seed: int = 1) -> Play | None:
    """One of so many paths drawn at random that fails; None where none does. Raises BadRoutine."""
    program, draw = compile_routine(routine, REPLAY), random.Random(seed)

    def decide(key: str, options: tuple[int, ...], weights: Sequence[int] | None = None) -> int:
        return draw.choice(options)

    for _ in range(paths):
        with suppress(NoSuchPath):
            if (played := _play(program, (), decide)).failures:
                return played
    return None


def _first_possible(program: Program, faults: tuple[Fault, ...], decide: Any) -> Play:
    for _ in range(MOST_TRIES):
        with suppress(NoSuchPath):
            return _play(program, faults, decide)
    return _play(program, faults, decide, strict=False)


def play_path(routine: Routine, path: tuple[int, ...], by_index: bool = False) -> Play:
    """Play the path with these options, or options with these indices, one a choice, in order.

    The first one is taken where they end or do not fit.
    """
    program, faults = compile_what_can_be(routine, REPLAY)
    left = iter(path)

    def decide(key: str, options: tuple[int, ...], weights: Sequence[int] | None = None) -> int:
        if by_index:
            return options[next(left, 0)]
        wanted = next(left, options[0])
        return wanted if wanted in options else options[0]

    return _play(program, faults, decide, strict=False)


def _play(program: Program, faults: tuple[Fault, ...], decide: Any, strict: bool = True) -> Play:
    """Raises NoSuchPath for choices that do not go together, where it is to be `strict`."""
    cells = list(program.start)
    frames, decisions = [Frame(0, (), program.start)], []
    failures = _shown(program, program.start[FAILED] & ~NO_ENDING, 0)
    stuck_at = None
    index = 0
    closed: list[_Round] = []
    while index < len(program.instructions):
        if closed and index == closed[-1].behind:
            index = closed[-1].start
        while closed and not closed[-1].start <= index <= closed[-1].behind:
            closed.pop()
        step, here = program.instructions[index], index
        index += 1
        failed_before = cells[FAILED]
        try:
            match step:
                case Choose():
                    options = tuple(step.options(cells))
                    if not options:
                        raise Impossible("there is nothing to choose from")
                    words = tuple(step.say(cells, option) for option in options)
                    turn = "".join(f", round {one.number}" for one in closed)
                    cells[step.cell] = value = decide(step.key + turn, options, step.shares(cells, options))
                    if (
                        step.by != CHANCE or step.plain or len(options) > 1
                    ):  # a face that is known already is no decision
                        decisions.append(
                            Decision(
                                step.key + turn,
                                step.label + turn,
                                step.line,
                                step.by,
                                step.secret,
                                options,
                                words,
                                value,
                            )
                        )
                case Act():
                    step.run(cells)
                    failures += _shown(program, cells[FAILED] & ~failed_before, step.line)
                case Check():
                    if not step.settle(cells):
                        failures.append(step.explain(cells))
                case Branch():
                    if not step.holds(cells):
                        index = step.target
                    continue
                case Leap():
                    index = step.target
                    continue
                case Loop():
                    if not (closed and closed[-1].start == here):
                        closed.append(_Round(here, step.end))
                    closed[-1].number += 1
                    if step.measure:
                        left = step.measure(cells)
                        if closed[-1].left is not None and left >= closed[-1].left:
                            raise Impossible("a time round changes nothing, and it would go on for ever")
                        closed[-1].left = left
                    if closed[-1].number > MOST_TURNS:
                        raise Impossible(f"it does not come to an end in {MOST_TURNS} times round")
                    continue
                case Closure():
                    if not (closed and closed[-1].start == here):
                        closed.append(_Round(here))
                    decisions.append(_another_round(step, closed[-1], decide))
                    move = decisions[-1].value
                    if move == 0:
                        closed.pop()
                        index = step.ends[-1]
                    else:
                        index, closed[-1].behind = step.moves(here)[move - 1]
                    continue
        except NoSuchPath:
            if strict:
                raise
            stuck_at = step.line
            failures.append(f"these choices do not go together (line {step.line})")
            break
        except OutOfBudget as limit:  # such as more orders of piles than can be followed
            stuck_at = step.line
            failures.append(f"{limit.reached} (line {step.line})")
            break
        except Impossible as obstacle:
            stuck_at = step.line
            failures.append(f"{obstacle.reason} (line {step.line})")
            break
        frames.append(Frame(step.line, step.round, tuple(cells), here))
    if stuck_at is None and cells[FAILED] & NO_ENDING:
        failures.append("this path comes to no ending")
    return Play(program, tuple(frames), tuple(decisions), faults, tuple(failures), stuck_at)


MOST_TRIES = 200
"""paths that are drawn until one is found whose choices go together"""
MOST_ROUNDS = 40
"""rounds of a closure that are played at most; a path drawn at random might else never end"""


@dataclass
class _Round:
    """A closure or a loop that is being carried out."""

    start: int
    behind: int = -1
    """index at which the move ends that is being made"""
    number: int = 0
    left: int | None = None
    """measure of a loop when this round began"""


def _another_round(step: Closure, around: _Round, decide: Any) -> Decision:
    """0 to go on with the routine, else the number of a move."""
    around.number += 1
    options = tuple(range(len(step.ends) + 1)) if around.number <= MOST_ROUNDS else (0,)
    key, label = f"round {around.number} in line {step.line}", f"what is done, round {around.number}"
    nothing = f"nothing is done in line {step.line}" if around.number == 1 else "nothing more"
    words = tuple([nothing, *step.says][option] for option in options)
    return Decision(key, label, step.line, step.by, False, options, words, decide(key, options), is_round=True)


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
