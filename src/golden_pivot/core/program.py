"""A compiled routine: instructions that edit the cells of a state.

A **state** is a flat tuple of cells. Cell FAILED holds the failed claims as a bit mask, cell JUMP the index of
the instruction at which this state goes on (None: at the next one); every other cell is a place (`bytes`, top
card first, leftmost first in a row) or a variable (a number, a token, or None while it has no value or is
dead). A meaning edits a list of cells in place; the explorer copies, edits and freezes it again, so that
states stay immutable and equal states merge.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from .cards import index_of

State = tuple[Any, ...]
Cells = list[Any]
Reader = Callable[[Sequence[Any]], int]

FAILED, JUMP = 0, 1
NO_ENDING = 1
"""bit of cell FAILED that is set until an ending has been reached; bit i + 1 is claim i"""
END = 10**9
"""where a state goes on that has come to an ending in a block"""


@dataclass(frozen=True)
class Cell:
    name: str
    is_place: bool
    told: bool = False
    """a number that the performer learns, now or later"""
    is_row: bool = False
    is_card: bool = False
    """a card that is named on the way: the value is its token"""
    symbol: str | None = None
    """what the number is called in a formula"""


@dataclass(frozen=True)
class Instruction:
    """What every instruction knows: where it stands and which cells it depends on."""

    line: int
    """line of the text, from 1"""
    round: tuple[int, ...]
    """which time round, from 1, one number for each loop around the line, outermost first"""
    reads: frozenset[int]
    """cells whose content matters to it"""
    touches: frozenset[int]
    """cells it may change"""


@dataclass(frozen=True)
class Act(Instruction):
    run: Callable[[Cells], None]
    """edits the cells; raises Impossible"""
    handled: Reader
    """how many cards pass through the hands, for the state before"""


@dataclass(frozen=True)
class Choose(Instruction):
    cell: int
    key: str
    """names this choice within the routine; the same on every path"""
    label: str
    by: str
    secret: bool
    options: Callable[[Sequence[Any]], Sequence[int]]
    """the values it may take in this state, in the order in which counterexamples prefer them"""
    say: Callable[[Sequence[Any], int], str]
    """an option in words that complete '(label) is …'"""
    plain: bool = True
    """the options are numbers that speak for themselves"""


@dataclass(frozen=True)
class Check(Instruction):
    claim: int
    """index of the claim, from 0"""
    holds: Callable[[Sequence[Any]], bool]
    """raises Impossible where there is no such card"""
    explain: Callable[[Sequence[Any]], str]
    """why it does not hold in this state, as a clause; needs a program that forgets nothing"""


@dataclass(frozen=True)
class Branch(Instruction):
    holds: Callable[[Sequence[Any]], bool]
    target: int
    """where states go on for which it does not hold"""


@dataclass(frozen=True)
class Leap(Instruction):
    target: int


@dataclass(frozen=True)
class Closure(Instruction):
    """One of several moves, as often as one likes, or none of them.

    The moves are the instructions that follow, in consecutive ranges; `ends` has the index behind each. At the
    last of them stands a leap to the next instruction, so that no two closures end at the same place.
    """

    ends: tuple[int, ...]
    says: tuple[str, ...]
    """the moves in words"""
    by: str

    def moves(self, index: int) -> Sequence[tuple[int, int]]:
        """(first, index behind the last) of each move, for the closure at this index."""
        return list(zip((index + 1, *self.ends[:-1]), self.ends, strict=True))


AnyInstruction = Act | Choose | Check | Branch | Leap | Closure


@dataclass(frozen=True)
class ClaimLine:
    line: int
    text: str
    in_case: bool = False
    """it stands inside a case: not every path comes there"""


@dataclass(frozen=True)
class Program:
    cells: tuple[Cell, ...]
    start: State
    instructions: tuple[AnyInstruction, ...]
    kills: tuple[tuple[int, ...], ...]
    """beside each instruction, the cells that are dead after it"""
    kills_at: Mapping[int, tuple[int, ...]]
    """target of a branch → cells that are dead there"""
    tokens: Mapping[str, int]
    """card name → token, for cards named before the routine begins"""
    card_cells: Mapping[str, int]
    """card name → the cell that has its token once it is named"""
    own_tokens: Mapping[str, int]
    """for cards named on the way, the token of one that had none before"""
    follows_faces: bool
    target: str | None
    """the card whose landing is asked for"""
    target_line: int | None
    """line that names it, where it is placed in the set-up"""
    claims: tuple[ClaimLine, ...]
    covers_every_order: bool
    odd_backs: frozenset[int] = frozenset()
    """tokens of the cards with another back"""
    assumed: tuple[str, ...] = ()

    @property
    def is_unlimited(self) -> bool:
        """Something may be repeated without end, so that paths cannot be counted."""
        return any(isinstance(step, Closure) for step in self.instructions)

    def choices(self) -> tuple[Choose, ...]:
        return tuple(step for step in self.instructions if isinstance(step, Choose))

    def places(self) -> tuple[tuple[int, str], ...]:
        return tuple((index, cell.name) for index, cell in enumerate(self.cells) if cell.is_place)

    def token_of(self, state: Sequence[Any], name: str) -> int | None:
        """The token of a named card in this state; None while no card has this name."""
        return state[self.card_cells[name]] if name in self.card_cells else self.tokens.get(name)

    def where_is(self, state: Sequence[Any], name: str | None) -> tuple[str, int] | None:
        """(place, position from 1, from the top or the left) of a named card."""
        token = self.token_of(state, name) if name else None
        if token is not None:
            for index, place in self.places():
                if (at := index_of(state[index], token)) >= 0:
                    return place, at + 1
        return None


def dead_after(
    instructions: Sequence[AnyInstruction], live_at_end: frozenset[int], ever_dead: frozenset[int]
) -> tuple[tuple[tuple[int, ...], ...], dict[int, tuple[int, ...]]]:
    """(for each instruction the cells that nobody reads any more once it has run, the same for each target).

    A cell that an instruction only touches (a heap that cards are dealt onto) is live before it exactly when
    it is live after it. Only cells in `ever_dead` are ever given up. Passes from the end are repeated until
    nothing changes, for what goes round in a closure.
    """
    size = len(instructions)
    live_before: dict[int, frozenset[int]] = {index: frozenset() for index in range(size)}
    live_before |= {END: live_at_end, size: live_at_end}
    # Behind a move comes its closure again, not the instruction that stands there.
    behind = {end: index for index, step in enumerate(instructions) if isinstance(step, Closure) for end in step.ends}

    def after(index: int) -> frozenset[int]:
        step = instructions[index]
        following = live_before[behind.get(index + 1, index + 1)]
        match step:
            case Branch():
                return following | live_before[step.target]
            case Leap():
                return live_before[behind.get(step.target, step.target)]
            case Closure():
                return live_before[step.ends[-1]].union(*(live_before[first] for first, _ in step.moves(index)))
        return following

    settled = False
    while not settled:
        settled = True
        for index in range(size - 1, -1, -1):
            step = instructions[index]
            alive = after(index)
            before = (alive - {step.cell} if isinstance(step, Choose) else alive) | step.reads
            settled &= before == live_before[index]
            live_before[index] = before
    kills = [
        tuple(sorted(((live_before[i] | step.touches) - after(i)) & ever_dead)) for i, step in enumerate(instructions)
    ]
    targets = {step.target for step in instructions if isinstance(step, Branch | Leap)}
    targets |= {step.ends[-1] for step in instructions if isinstance(step, Closure)}
    return tuple(kills), {at: tuple(sorted(ever_dead - live_before[at])) for at in targets}
