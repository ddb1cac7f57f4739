"""What stays as it was: the order of the whole pack, its round order, neighbours, an untouched block.

Every card is followed by itself, on every path; nothing is said where there are too many ways.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ..budget import Budget
from ..building import REPLAY, compile_routine
from ..cards import TOKEN
from ..faults import OutOfBudget
from ..language.routine import Routine
from ..search.algebra import Layer
from ..search.explorer import explore
from ..search.program import JUMP, Act, Program
from ..search.stages import Stage

MOST_WAYS, MOST_STEPS = 3000, 40_000
LEAST_BLOCK = 3
"""cards from which on a block at an end is worth a word"""


@dataclass(frozen=True)
class Kept:
    line: int
    words: str
    """what is so after this line, the last time it is carried out, on every path"""


def kept_orders(routine: Routine, budget: Budget) -> tuple[Kept, ...]:
    """Raises BadRoutine for a text with faults, Cancelled."""
    program = compile_routine(routine, REPLAY)
    if program.is_unlimited or program.face_classes:
        return ()
    seen = _Seen(program)
    try:
        explore(program, budget.narrowed(MOST_WAYS, MOST_STEPS), watch=seen.note)
    except OutOfBudget:
        return ()
    found: list[Kept] = []
    for line, words in seen.after.items():
        if words and (not found or found[-1].words != words):
            found.append(Kept(line, words))
    return tuple(found)


class _Seen:
    def __init__(self, program: Program) -> None:
        self.places = program.places()
        self.pack = next(bytes(b & TOKEN for b in program.start[i]) for i, name in self.places if name == "deck")
        self.after: dict[int, str] = {}
        self.moved = False

    def note(self, stage: Stage, layer: Layer) -> None:
        step = stage.first
        if not isinstance(step, Act):
            return
        orders = set()
        where = set()
        for state in layer:
            if state[JUMP] is not None:
                continue
            whole = [(name, state[i]) for i, name in self.places if len(state[i]) == len(self.pack)]
            if not whole:
                self.after.pop(step.line, None)
                self.moved = True
                return
            where.add(whole[0][0])
            orders.add(bytes(byte & TOKEN for byte in whole[0][1]))
        self.moved |= orders != {self.pack}
        words = ", ".join(_kept(self.pack, orders)) if orders and self.moved and len(where) == 1 else ""
        self.after.pop(step.line, None)
        self.after[step.line] = f"in {where.pop()} {words}" if words else ""


def _kept(pack: bytes, orders: set[bytes]) -> Iterator[str]:
    round_order, back = pack * 2, pack[::-1] * 2
    if orders == {pack}:
        yield "all cards lie in their first order again"
        return
    if orders == {pack[::-1]}:
        yield "all cards lie in their first order turned round"
        return
    if all(order in round_order for order in orders):
        yield "the round order is as it was at first"
    elif all(order in back for order in orders):
        yield "the round order is the first one turned round"
    elif len(pack) % 2 == 0 and all(_pairs(order) == _pairs(pack) for order in orders):
        yield "the pairs that lay together at first, two by two from the top, lie together"
    top = min(_alike(pack, order) for order in orders)
    bottom = min(_alike(pack[::-1], order[::-1]) for order in orders)
    if top >= LEAST_BLOCK:
        yield f"the top {top} cards lie as they did at first"
    if bottom >= LEAST_BLOCK:
        yield f"the bottom {bottom} cards lie as they did at first"


def _pairs(order: bytes) -> set[frozenset[int]]:
    return {frozenset(order[i : i + 2]) for i in range(0, len(order), 2)}


def _alike(one: bytes, other: bytes) -> int:
    """How many cards from the top are the same."""
    return next((i for i, (a, b) in enumerate(zip(one, other, strict=True)) if a != b), len(one))
