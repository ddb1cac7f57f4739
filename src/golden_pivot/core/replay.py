"""One path, played with every card its own token: what the table shows."""

from __future__ import annotations

import random
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from .building import REPLAY, compile_what_can_be
from .cards import FACE_UP, INDIFFERENT, TOKEN
from .faults import Fault, Impossible
from .program import FAILED, NO_ENDING, Act, Branch, Cell, Check, Choose, Leap, Program, State
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
    words: tuple[str, ...]
    """the options in words, in the same order"""
    value: int

    @property
    def said(self) -> str:
        return self.words[self.options.index(self.value)]


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
    frames, decisions = [Frame(0, (), program.start)], []
    failures = _shown(program, program.start[FAILED] & ~NO_ENDING, 0)
    stuck_at = None
    goes_on_at = 0
    for index, step in enumerate(program.instructions):
        if index < goes_on_at:
            continue
        failed_before = cells[FAILED]
        try:
            match step:
                case Choose():
                    options = tuple(step.options(cells))
                    if not options:
                        raise Impossible("there is nothing to choose from")
                    words = tuple(step.say(cells, option) for option in options)
                    cells[step.cell] = decide(step, options)
                    decisions.append(
                        Decision(
                            step.key, step.label, step.line, step.by, step.secret, options, words, cells[step.cell]
                        )
                    )
                case Act():
                    step.run(cells)
                    failures += _shown(program, cells[FAILED] & ~failed_before, step.line)
                case Check():
                    cells[FAILED] &= ~NO_ENDING
                    if not step.holds(cells):
                        cells[FAILED] |= 2 << step.claim
                        failures.append(step.explain(cells))
                case Branch():
                    if not step.holds(cells):
                        goes_on_at = step.target
                    continue
                case Leap():
                    goes_on_at = step.target
                    continue
        except Impossible as obstacle:
            stuck_at = step.line
            failures.append(f"{obstacle.reason} (line {step.line})")
            break
        frames.append(Frame(step.line, step.round, tuple(cells), index))
    if stuck_at is None and cells[FAILED] & NO_ENDING:
        failures.append("this path comes to no ending")
    return Play(program, tuple(frames), tuple(decisions), faults, tuple(failures), stuck_at)


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
    see = bytes(
        token_of.get(byte & TOKEN, INDIFFERENT) | (byte & FACE_UP if proof.follows_faces else 0)
        for byte in range(256)
    )

    def seen(cell: Cell, content: Any) -> Any:
        if isinstance(content, bytes):
            return content.translate(see)
        return token_of[content] if cell.is_card and content is not None else content

    return tuple(map(seen, replayed.cells, state))
