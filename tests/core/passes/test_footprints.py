"""Footprints: what an instruction says it reads and changes, against what it does when it runs.

Passes and search rely on them: what nobody says they read is forgotten, and what is not said to touch changes places.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from contextlib import suppress
from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given

from golden_pivot.core.budget import Budget
from golden_pivot.core.building import PROOF
from golden_pivot.core.building.builder import lowered
from golden_pivot.core.faults import Impossible, NoSuchPath, OutOfBudget
from golden_pivot.core.language.kinds import CHANCE
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.passes.liveness import liveness
from golden_pivot.core.search.explorer import explore
from golden_pivot.core.search.program import FAILED, Act, AnyInstruction, Branch, Check, Choose, Loop, Program
from tests.core.test_three_ways import MANY, read
from tests.strategies import routines
from tests.strategies.face_routines import face_routine


class Recorded(list[Any]):
    """The cells, noting which are read before they are written, and which get another content. A copy is not followed."""

    def __init__(self, cells: Sequence[Any]) -> None:
        super().__init__(cells)
        self.read: set[int] = set()
        self.written: set[int] = set()

    def __getitem__(self, index: Any) -> Any:
        if index not in self.written:
            self.read.add(index)
        return super().__getitem__(index)

    def __setitem__(self, index: Any, content: Any) -> None:
        if super().__getitem__(index) != content:
            self.written.add(index)
        super().__setitem__(index, content)


def stopped_by(run: Callable[[list[Any]], None], cells: list[Any]) -> Exception | None:
    try:
        run(cells)
    except (Impossible, NoSuchPath) as stopped:
        return stopped
    return None


def in_parts(step: Act, cells: Sequence[Any], places: set[int]) -> list[Any]:
    """The cells with each part that a move splits off turned round, and what is left of each place."""
    found, begun = [*cells], dict.fromkeys(places, 0)
    sizes: dict[int, list[int]] = {}
    for one in step.splits or ():
        sizes.setdefault(one.place, []).append(one.number(cells))
    for place in places:
        heap = found[place] = bytes(cells[place])
        parts = []
        for size in [*sizes.get(place, ()), len(heap)]:
            parts.append(heap[begun[place] : begun[place] + size][::-1])
            begun[place] += size
        found[place] = b"".join(parts)
    return found


def does_as_declared(step: Act, before: Sequence[Any], after: Sequence[Any], places: set[int]) -> None:
    """What a move says of itself besides: where cards come to, that it stacks, hands over, only reckons, or goes by parts."""
    if step.stacks or (step.hands_over and not before[step.hands_over[1]]):
        source, to, on_top = step.stacks or (*step.hands_over, True)  # type: ignore[misc]
        wanted = [*before]
        wanted[to] = before[source] + before[to] if on_top else before[to] + before[source]
        wanted[source] = b""
        assert wanted == [*after], (step.line, "stacks")
    for place in places - (places if step.fills is None else step.fills):
        assert len(after[place]) <= len(before[place]), (step.line, "fills")
    if step.reckons:
        assert all(before[place] == after[place] for place in places), (step.line, "reckons")
    if step.splits is not None:
        others = in_parts(step, before, places - step.looks - step.reads_faces)
        step.run(others)
        assert all(
            sorted(one) == sorted(other) if index in places else one == other
            for index, (one, other) in enumerate(zip(after, others, strict=True))
        ), (step.line, "splits")


def watched(program: Program) -> Program:
    """The same program; running it raises AssertionError where an instruction does what it does not say."""
    places = {index for index, _ in program.places()}
    own = (
        places
        | set(program.face_cells.values())
        | {i for i, cell in enumerate(program.cells) if cell.name in ("piles to choose from", "number of piles")}
    )
    faces = {*program.face_cells.values(), *([program.faces.cell] if program.faces else [])}
    # Which faces have been seen is kept whatever is forgotten (docs/forgetting.md): a choice of a face may ask for it.
    seen = places | faces

    def alike(step: AnyInstruction, cells: Sequence[Any]) -> Iterator[tuple[str, list[Any]]]:
        """(what is said, cells that it must not tell from these)"""
        unseen = places - step.looks - step.reads_faces
        yield "looks", [bytes(len(cell)) if index in unseen else cell for index, cell in enumerate(cells)]
        if program.faces:
            unknown, without = places - step.reads_faces, program.faces.without_faces
            yield "faces", [cell.translate(without) if index in unknown else cell for index, cell in enumerate(cells)]
        if turned := step.bags - {one.place for one in step.spots}:
            yield "bags", [cell[::-1] if index in turned else cell for index, cell in enumerate(cells)]

    def asks(step: AnyInstruction, ask: Callable[..., Any] | None) -> Any:
        def asked(cells: Sequence[Any], *more: Any) -> Any:
            recorded, by_chance = Recorded(cells), isinstance(step, Choose) and step.by == CHANCE
            answer = ask(recorded, *more)  # type: ignore[misc]
            for said, others in () if by_chance else alike(step, cells):
                assert ask(others, *more) == answer, (step.line, said)  # type: ignore[misc]
            free = seen if by_chance else set()
            undeclared = recorded.read - step.reads - free
            assert not undeclared, (step.line, "reads", names(undeclared))
            assert not recorded.written, (step.line, "changes", names(recorded.written))
            return answer

        return ask and asked

    def runs(step: Act) -> Callable[[list[Any]], None]:
        def run(cells: list[Any]) -> None:
            recorded = Recorded(cells)
            stopped = stopped_by(step.run, recorded)
            for said, others in alike(step, cells):
                obstacle = stopped_by(step.run, others)
                assert type(obstacle) is type(stopped), (step.line, said, obstacle, stopped)
                for index, (one, other) in enumerate(zip(list.__iter__(recorded), others, strict=True)):
                    same = index in faces or (len(one) == len(other) if index in places else one == other)
                    assert stopped or same, (step.line, said, program.cells[index].name)
            if stopped:
                raise stopped
            does_as_declared(step, cells, list(list.__iter__(recorded)), places)
            # Of a heap that cards are only put on, or a count that goes on, it does not matter what it was unless it matters later;
            # nor does it of marks that are only added to.
            undeclared = recorded.read - step.reads - ((own | faces) & step.touches) - {FAILED, program.reached}
            assert not undeclared, (step.line, "reads", names(undeclared))
            changed = recorded.written - step.touches - {FAILED}
            assert not changed, (step.line, "changes", names(changed))
            cells[:] = list.__iter__(recorded)

        return run

    def names(cells: set[int]) -> list[str]:
        return [program.cells[cell].name for cell in cells]

    def recording(step: AnyInstruction) -> AnyInstruction:
        match step:
            case Act():
                return replace(step, run=runs(step))
            case Choose():
                return replace(step, options=asks(step, step.options), ways=asks(step, step.ways))
            case Check() | Branch():
                return replace(step, holds=asks(step, step.holds))
            case Loop():
                return replace(step, measure=asks(step, step.measure))
        return step

    return replace(program, instructions=tuple(map(recording, program.instructions)))


def explored(text: str) -> None:
    """A proof: a replay forgets nothing and leaves everything in its order."""
    program, faults = lowered(read_routine(text), PROOF)
    if faults:
        return  # such as a secret that is made use of
    with suppress(OutOfBudget):
        try:
            explore(liveness(watched(program)), Budget(states=2_000))
        except AssertionError as wrong:
            raise AssertionError(f"{wrong}\n{text}") from None


@MANY
@given(routines())
def test_every_instruction_does_what_it_says(text: str) -> None:
    read(text)
    explored(text)


@pytest.mark.parametrize("seed", range(60))
def test_so_it_does_where_faces_are_looked_at(seed: int) -> None:
    explored(face_routine(seed))


def test_which_card_lies_on_top_matters_where_one_must_not_show() -> None:
    """To every line that does something, also to one that asks a heap in whatever order it lies."""
    explored("Pack: 4 cards, any order\nPlace FORCE 4th, face up\nMake sure that 3 cards of deck are face down\n"
             "Ends with: size of deck is 4\nNever shows: the face of FORCE\n")  # fmt: skip
