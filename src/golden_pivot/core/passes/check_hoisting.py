"""Claims settled and sums reckoned as early as they can be, so that a proof may forget what only they ask for."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from ..search.program import END, Act, AnyInstruction, Branch, Check, Closure, Leap, Loop, Program, changed


def hoist_checks(program: Program) -> Program:
    """The same program with each of its last claims moved up to where nothing it reads changes any more.

    A claim is moved only over what every path goes through that comes to it, and as a whole over a block that may
    be repeated. Whether it holds stays the same; only when that is settled is earlier.
    """
    return replace(program, instructions=tuple(_with_early_checks(program.instructions)))


def _with_early_checks(instructions: Sequence[AnyInstruction]) -> list[AnyInstruction]:
    tail = len(instructions)
    while tail and isinstance(instructions[tail - 1], Check):
        tail -= 1
    before: dict[int, list[AnyInstruction]] = {}
    for check in instructions[tail:]:
        at = tail
        for position in _meeting_points(instructions[:tail]):
            if any(step.touches & check.reads for step in instructions[position:tail]):
                break
            at = position
        before.setdefault(at, []).append(check)
    if set(before) <= {tail}:
        return list(instructions)
    moved: list[AnyInstruction] = []
    new_index: dict[int, int] = {}
    for index in range(tail + 1):
        new_index[index] = len(moved)
        moved += before.get(index, ())
        if index < tail:
            moved.append(instructions[index])
    new_index |= {index: len(moved) for index in range(tail + 1, len(instructions) + 1)} | {END: END}
    return [aimed(step, new_index) for step in moved]


def with_early_sums(instructions: Sequence[AnyInstruction]) -> list[AnyInstruction]:
    """The same program with what is only reckoned moved up, also over blocks and cases, to where its parts are settled."""
    moved = list(instructions)
    for index, step in enumerate(instructions):
        if isinstance(step, Act) and step.reckons:
            moved = _moved_up(moved, index)
    return moved


def _moved_up(instructions: list[AnyInstruction], index: int) -> list[AnyInstruction]:
    step = instructions[index]
    before = (i for i in range(index - 1, -1, -1) if must_stay_behind(instructions[i], step))
    settled = next(before, -1) + 1
    points = _meeting_points(instructions[: index + 1]) if settled < index else ()
    at = min((point for point in points if point >= settled), default=index) if index in points else index
    if at == index:
        return instructions
    new_index = {old: old + (at < old <= index) for old in range(len(instructions) + 1)} | {END: END}
    moved = [*instructions[:at], step, *instructions[at:index], *instructions[index + 1 :]]
    return [aimed(one, new_index) for one in moved]


def must_stay_behind(earlier: AnyInstruction, later: AnyInstruction) -> bool:
    """Whether two neighbours may not change places."""
    return bool(earlier.touches & (later.reads | later.touches) or later.touches & earlier.reads)


def _meeting_points(instructions: Sequence[AnyInstruction]) -> list[int]:
    """Indices at which every path comes by that comes to the end, latest first."""
    found = []
    reach, inside = 0, 0
    leaves = (
        i
        for i, step in enumerate(instructions)
        if (isinstance(step, Branch | Leap) and step.target == END) or (isinstance(step, Act) and step.sifts)
    )
    ends_at = max(leaves, default=-1)
    for index, step in enumerate(instructions):
        if index >= reach and index > inside and index > ends_at:
            found.append(index)
        if isinstance(step, Branch | Leap) and step.target != END:
            reach = max(reach, step.target)
        elif isinstance(step, Closure):
            inside = max(inside, step.ends[-1])
        elif isinstance(step, Loop):
            inside = max(inside, step.end)
    return found[::-1]


def aimed(step: AnyInstruction, new_index: dict[int, int]) -> AnyInstruction:
    """The instruction with where it leads put right, for instructions that have new indices."""
    match step:
        case Act():
            return step
        case Branch() | Leap():
            to = new_index[step.target]
            return step if to == step.target else changed(step, target=to)
        case Closure():
            return changed(step, ends=tuple(new_index[end] for end in step.ends))
        case Loop():
            return changed(step, end=new_index[step.end])
    return step
