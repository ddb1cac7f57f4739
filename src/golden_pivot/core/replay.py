"""One path, played with every card its own token: what the table shows."""

from __future__ import annotations

import random
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from .builder import REPLAY, compile_what_can_be
from .cards import INDIFFERENT, TOKEN
from .faults import Fault, Impossible
from .program import FAILED, Act, Check, Choose, Program, State
from .routine import Routine


@dataclass(frozen=True)
class Decision:
    """A choice as it stood on this path, and what was taken."""

    key: str
    label: str
    line: int
    by: str
    secret: bool
    options: tuple[int, ...]
    value: int


@dataclass(frozen=True)
class Frame:
    """The table after an instruction. Frame 0 is the table before the first line."""

    line: int
    """from 1; 0 for the table before the first line"""
    round: tuple[int, ...]
    state: State


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

    def decide(choose: Choose, options: tuple[int, ...]) -> int:
        if choose.key in wanted:
            return min(options, key=lambda option: abs(option - wanted[choose.key]))
        return draw.choice(options) if draw else options[0]

    return _play(program, faults, decide)


def play_path(routine: Routine, path: tuple[int, ...]) -> Play:
    """Play the path with these option indices, one a choice, in order."""
    program, faults = compile_what_can_be(routine, REPLAY)
    left = iter(path)
    return _play(program, faults, lambda choose, options: options[next(left, 0)])


def _play(program: Program, faults: tuple[Fault, ...], decide: Any) -> Play:
    cells = list(program.start)
    frames, decisions, failures = [Frame(0, (), program.start)], [], []
    stuck_at = None
    for step in program.instructions:
        try:
            match step:
                case Choose():
                    options = tuple(step.options(cells))
                    if not options:
                        raise Impossible("there is nothing to choose from")
                    cells[step.cell] = decide(step, options)
                    decisions.append(
                        Decision(step.key, step.label, step.line, step.by, step.secret, options, cells[step.cell])
                    )
                case Act():
                    step.run(cells)
                case Check():
                    if not step.holds(cells):
                        cells[FAILED] |= 1 << step.claim
                        failures.append(step.explain(cells))
        except Impossible as obstacle:
            stuck_at = step.line
            failures.append(f"{obstacle.reason} (line {step.line})")
            break
        frames.append(Frame(step.line, step.round, tuple(cells)))
    return Play(program, tuple(frames), tuple(decisions), faults, tuple(failures), stuck_at)


def projected(proof: Program, replayed: Program, state: State) -> State:
    """A state of the replay as the proof sees it: cards that it does not follow alike, what it forgets gone.

    Both programs must come from the same routine, and the proof must forget nothing for the two to be equal
    after every line. Faces are dropped, as a proof in which nobody reads them never turns one.
    """
    token_of = {replayed.tokens[name]: token for name, token in proof.tokens.items() if name in replayed.tokens}
    see = bytes(token_of.get(byte & TOKEN, INDIFFERENT) for byte in range(256))
    return tuple(cell.translate(see) if isinstance(cell, bytes) else cell for cell in state)
