"""A claim about every few cards of a heap is judged while the heap is being built, so that what is judged is forgotten."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from ..cards import INDIFFERENT
from ..search.program import Act, Builds, Cells, Check, Groups, Leap, Loop, Program, changed


def fold_groups(program: Program) -> Program:
    """The same program; behind a mix that is followed by claims alone, groups that are complete leave the heap.

    Cards come on top, so that from the bottom on what lies there stays. Each group is known as soon as its top card has come: one for
    which the claim holds is taken away, one for which it does not becomes a group of indifferent cards, once. How the cards of a group lie
    makes no difference; where the heap will not be made of whole groups, nor does it which they are. The claim then holds of what
    is left where it holds of the heap.
    """
    found = _mix_and_claim(program)
    if found is None:
        return program
    index, step, builds, check, groups = found
    place = {builds.place}
    folded = changed(
        step,
        run=_folding(step, builds, groups),
        reads=step.reads | (check.reads - {groups.place}) | place,
        looks=step.looks | check.looks | place,
        reads_faces=step.reads_faces | check.reads_faces | place,
    )
    return replace(
        program, instructions=tuple(folded if i == index else one for i, one in enumerate(program.instructions))
    )


def _folding(step: Act, builds: Builds, groups: Groups) -> Callable[[Cells], None]:
    place, size = builds.place, groups.size
    failed = bytes([INDIFFERENT]) * size

    def run(cells: Cells) -> None:
        step.run(cells)
        heap = cells[place]
        if (len(heap) + builds.to_come(cells)) % size:
            cells[place] = bytes(len(heap))
            return
        begun = len(heap) % size
        whole = [heap[i : i + size] for i in range(begun, len(heap), size)]
        fails = not all(groups.holds(cells, group) for group in whole)
        cells[place] = bytes(sorted(heap[:begun])) + (failed if fails else b"")

    return run


def _mix_and_claim(program: Program) -> tuple[int, Act, Builds, Check, Groups] | None:
    """(index of what builds the heap, that instruction, what it builds, the one claim about the heap, its groups)."""
    steps, wanted = program.instructions, program.wanted
    claims = len(steps)
    while claims and isinstance(steps[claims - 1], Check):
        claims -= 1
    over = steps[claims - 1] if claims else None
    if not isinstance(over, Act) or not over.hands_over:
        return None
    mixed, place = over.hands_over
    about = [check for check in steps[claims:] if isinstance(check, Check) and place in check.reads]
    if len(about) != 1 or {place, ~place} & wanted.at_end or not {place, mixed} <= wanted.may_be_dropped:
        return None
    check, groups = about[0], about[0].groups
    building = [
        (i, step, step.builds)
        for i, step in enumerate(steps)
        if isinstance(step, Act) and step.builds and step.builds.place == mixed
    ]
    if len(building) != 1 or not groups or groups.place != place:
        return None
    index, step, builds = building[0]
    around = [(i, loop.end) for i, loop in enumerate(steps[:index]) if isinstance(loop, Loop) and loop.end >= index]
    if not around:
        return None
    begins, ends = around[0]
    if not all(isinstance(one, Leap) for one in steps[ends : claims - 1]):
        return None
    if any(one.touches & (check.reads - {place}) for one in steps[begins:claims]):
        return None
    return index, step, builds, check, groups
