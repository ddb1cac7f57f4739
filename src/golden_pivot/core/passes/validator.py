"""Whether a program is well-formed: what every pass may rely on, and must leave true. Run between passes in tests."""

from __future__ import annotations

from collections.abc import Iterator

from ..search.program import (
    ANY_FACE,
    ANY_PLACE,
    END,
    JUMP,
    AnyInstruction,
    Branch,
    Check,
    Choose,
    Closure,
    Leap,
    Loop,
    Program,
)


def validate(program: Program) -> None:
    """Raises ValueError with everything that is wrong."""
    if wrong := list(_wrong(program)):
        raise ValueError("; ".join(wrong))


def _wrong(program: Program) -> Iterator[str]:
    size, cells = len(program.instructions), range(len(program.cells))
    if len(program.start) != len(program.cells):
        yield f"{len(program.start)} values for {len(program.cells)} cells"
    if program.kills and len(program.kills) != size:
        yield f"{len(program.kills)} kills for {size} instructions"
    for index, step in enumerate(program.instructions):
        named = step.reads | step.touches | step.looks | step.reads_faces
        if named & {ANY_FACE, ANY_PLACE}:
            yield f"{index}: which faces or places it is about is not resolved"
        elif not all(cell in cells for cell in named):
            yield f"{index}: there is no such cell"
        yield from (f"{index}: {what}" for what in _wrong_step(program, step, index))
    yield from _wrong_rounds(program)
    if program.kills:
        targets = {step.target for step in program.instructions if isinstance(step, Branch | Leap)}
        if not targets <= set(program.kills_at):
            yield "what is dead at a target is not known"


def _wrong_step(program: Program, step: AnyInstruction, index: int) -> Iterator[str]:
    size = len(program.instructions)
    match step:
        case Branch() | Leap():
            if step.target != END and not index < step.target <= size:
                yield f"it leads to {step.target}, which is not further on"
        case Check():
            if not 0 <= step.claim < max(1, len(program.claims)):
                yield f"there is no claim {step.claim}"
        case Choose():
            if step.cell not in step.touches or step.cell <= JUMP:
                yield "what it chooses is not said to change"
        case Closure():
            if len(step.ends) != len(step.says) or list(step.ends) != sorted(set(step.ends)):
                yield "its moves do not follow each other"
        case Loop():
            if not index < step.end <= size:
                yield "it ends before it begins"


def _wrong_rounds(program: Program) -> Iterator[str]:
    """At the end of what goes round stands a leap to the next instruction, and no path leaps into the middle of it."""
    for index, step in enumerate(program.instructions):
        if not isinstance(step, Closure | Loop):
            continue
        end = step.ends[-1] if isinstance(step, Closure) else step.end
        last = program.instructions[end] if end < len(program.instructions) else None
        if not (isinstance(last, Leap) and last.target == end + 1):
            yield f"{index}: no leap stands at its end"
        for other, leap in enumerate(program.instructions):
            if isinstance(leap, Branch | Leap) and not index <= other < end and index < leap.target < end:
                yield f"{other}: it leads into the middle of what goes round at {index}"
