"""Random routines: the prover, the replay and the reference interpreter must agree on everything they share."""

from __future__ import annotations

import os
from collections import Counter
from collections.abc import Callable
from dataclasses import replace
from typing import Any
from unittest.mock import patch

import pytest
from hypothesis import HealthCheck, currently_in_test_context, event, example, given, reject, settings
from hypothesis import strategies as st

from golden_pivot.core.answers import all_paths
from golden_pivot.core.answers.plays import play, play_path
from golden_pivot.core.answers.proving import prove
from golden_pivot.core.answers.verdicts import PROVED, REFUTED, WHETHER, Verdict
from golden_pivot.core.budget import Budget
from golden_pivot.core.building import REPLAY, Purpose, compile_routine
from golden_pivot.core.building.table import Table
from golden_pivot.core.cards import FACE_UP, RANKS, TOKEN
from golden_pivot.core.faults import BadRoutine
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.language.printer import routine_json
from golden_pivot.core.language.routine import Routine
from golden_pivot.core.search.explorer import explore
from golden_pivot.core.search.program import FAILED, AnyInstruction, Loop, Program, State
from golden_pivot.core.search.replay import Play, projected
from golden_pivot.core.steps import REGISTRY
from golden_pivot.witness import MEANINGS, every_path, piles, run
from golden_pivot.witness.table import FacesLeft
from tests.strategies import PHASES, routines

MANY = settings(
    max_examples=int(os.environ.get("RANDOM_ROUTINES", "80")),
    deadline=None,
    suppress_health_check=list(HealthCheck),
    phases=PHASES,
)


SECOND_TIME_ROUND = ("not in every case", "not settled on every path", "No piles have just been", "no piles here", "not to one place in every case",
                     "is one of the piles", "is none of the piles")  # fmt: skip
"""faults that a line of a repetition can have from the second time round only, or that a reckoned number of a pile makes,
which the strategy does not foresee"""


def read(text: str) -> Routine:
    """The routine; not one in which something is not settled on every path."""
    routine = read_routine(text)
    assert not routine.faults, routine.faults
    try:
        compile_routine(routine)
    except BadRoutine as bad:
        assert any(words in bad.faults[0].message for words in SECOND_TIME_ROUND), bad
        reject()
    return routine


def looks_at_faces(routine: Routine) -> bool:
    return bool(compile_routine(routine, REPLAY).face_classes)


def tells_something(routine: Routine) -> bool:
    return bool(compile_routine(routine, REPLAY).tells)


def note(what: str) -> None:
    """For whoever wants to know how many examples were of which sort."""
    if currently_in_test_context():
        event(what)


NAMES = [f"{rank} of {suit}" for suit in ("clubs", "diamonds", "hearts", "spades") for rank in RANKS]


def same_decisions(played: Play) -> Callable[[list[int]], int]:
    """The decisions of a replay for the reference: an option by its place, a face by a card of its class."""
    classes = played.program.face_classes
    left = iter(played.decisions)

    def pick(options: list[int]) -> int:
        if isinstance(options, FacesLeft) and any(
            all(NAMES[card] in one.names for card in options) for one in classes
        ):
            return 0  # no line tells these apart: nothing was decided
        decision = next(left)
        if not decision.key.startswith("face in line"):
            return decision.options.index(decision.value)
        number, barred = decision.value % len(classes), decision.value >= len(classes)
        return next(i for i, card in enumerate(options) if (NAMES[card] in classes[number].names) != barred)

    return pick


def seen(program: Program, state: State) -> dict[str, tuple[tuple[int, bool], ...]]:
    """Places with cards on them, as the reference writes them down: (number of the card, face up)."""
    return {
        name: tuple((byte & TOKEN, byte >= FACE_UP) for byte in state[index])
        for index, name in program.places()
        if state[index]
    }


def test_every_kind_of_step_has_a_reference_meaning() -> None:
    assert set(MEANINGS) == set(REGISTRY)


@MANY
@given(routines())
def test_prover_and_reference_agree_on_every_path(text: str) -> None:
    agree(text)


@MANY
@given(routines())
def test_they_agree_where_piles_are_gathered_one_after_another(text: str) -> None:
    """As those are of which there are too many for their order to be one choice."""
    with patch.object(Table, "is_one_choice", lambda table, count: count < 2), patch.object(piles, "MOST_AT_ONCE", 1):
        agree(text)


NOT_USED_AGAIN = (
    "Pack: 52 cards, any order\nRemember the bottom card of deck: P\nRemember the top card of deck: Q\nIf P and Q are mates:\n  Start again\n"
    "Take the mate of P from deck to hand: M\nTake the mate of Q from deck to table: N\nEnds with: Q and N are mates\n"
)
"""nobody asks for the hand any more, but its card is known when the second mate is looked for"""

DEALT_ON_LAID = (
    "Pack: 4 cards, any order\nPlace MARKER in table\nAs long as size of deck is at least 2:\n  Cut off 1 cards of deck to heap\n"
    "  Lay heap down as a new pile\nDeal heap into 1 piles, face down\nEnds with: MARKER is the face of pile 1\n"
)
"""what is dealt to pile 1 goes on the pile 1 that has been laid down, although no line has spoken of it by then"""


@MANY
@given(routines())
@example(NOT_USED_AGAIN)
@example(DEALT_ON_LAID)
def test_a_large_proof_says_what_a_small_one_says(text: str) -> None:
    """It keeps less, and finds out otherwise."""
    routine = read(text)

    def found() -> tuple[Any, ...]:
        try:
            verdict = prove(routine)
        except BadRoutine as bad:
            return ("at fault", bad.faults[0].line, bad.faults[0].message, None)
        holds = [claim.holds for claim in verdict.claims]
        return (verdict.verdict, holds, verdict.counterexample, verdict.paths, verdict.failing_paths)

    small = found()
    with patch.object(all_paths, "FEW_TRANSITIONS", 0), patch.object(all_paths, "FEW_WITHOUT_PLACES", 0):
        large = found()
    # Paths are not counted where the cards of a pack are not.
    assert large == small or (large[3] is None and large[:3] == small[:3])


@MANY
@given(routines())
def test_paths_without_a_number_are_told_by_some_drawn_as_by_all(text: str) -> None:
    rows = text.splitlines()
    at = next((i for i, row in enumerate(rows) if row.startswith(("Ends with", "Never shows"))), None)
    if at is None:
        reject()
    more = "As often as you like:\n  Spectator cuts deck and completes the cut\n  Turn the top card of deck over"
    routine = read_routine("\n".join([*rows[:at], *([] if "As often" in text else [more]), *rows[at:]]))
    if routine.faults:
        reject()

    def found(behind: int) -> Verdict:
        with patch.object(all_paths, "DRAWN_WITHOUT_NUMBER", behind):
            try:
                return prove(routine, asked=replace(WHETHER, some_claim=False, places=False))
            except BadRoutine:
                reject()

    drawn, every = found(0), found(10**9)
    note(f"told by {'all' if drawn.states_widest else 'some'}")
    assert drawn.verdict == every.verdict and drawn.count and every.count
    if not every.count.counted:  # it stopped before it knew as much
        return
    for asked in ("share", "failure", "text", "all_fail", "some_fail", "paths"):
        assert getattr(drawn.count, asked) == getattr(every.count, asked)
    assert drawn.count.some_stuck <= every.count.some_stuck
    for one, other in zip(drawn.claims, every.claims, strict=True):
        assert (one.line, one.holds) == (other.line, other.holds) and one.denied <= other.denied


def agree(text: str) -> None:
    routine = read(text)
    paths = list(every_path(routine_json(routine)))
    try:
        verdict = prove(routine)
    except BadRoutine as bad:
        endings = {
            n
            for n, line in enumerate(line for line in routine.walk() if line.kind)
            if line.kind.name.startswith("ends_")
        }  # type: ignore[union-attr]
        if bad.faults[0].message.startswith("No path comes to this claim"):
            assert not any(path.table.reached & endings for path in paths)
            assert not any(path.stuck for path in paths)
            note("no path comes to a claim")
            return
        assert all(path.stuck or path.table.again for path in paths)
        note("no path gets through")
        return
    note(verdict.verdict)
    failing = [path for path in paths if path.fails]
    unlimited = "As often" in text
    if unlimited:
        # The reference has one path for each table that any number of rounds leads to.
        assert verdict.paths is None
        assert (verdict.verdict == REFUTED) == bool(failing) or not paths[0].table.claims
        if verdict.counterexample and not tells_something(routine):
            assert play(routine, dict(verdict.counterexample.choices)).failures
        return
    assert not any(path.table.unknown for path in paths)  # nothing is used that the performer does not know
    assert verdict.paths == len(paths)
    assert verdict.failing_paths == len(failing)
    if failing:
        least = min(failing, key=lambda path: (len(path.taken), path.taken))
        assert verdict.verdict == REFUTED and verdict.counterexample
        assert not verdict.counterexample.sentence.endswith(": ")
        if looks_at_faces(routine) or tells_something(routine):
            return  # the reference has a path for each card, and one path alone does not show what two tell apart
        told = play_path(routine, least.taken, by_index=True)
        assert dict(verdict.counterexample.choices) == told.choices
        # Told on a real pack: the path fails there as well, and the sentence says why.
        assert told.failures and bool(told.stuck_at) == least.stuck
    elif paths[0].table.claims or paths[0].table.exposed:
        assert verdict.verdict == PROVED
    if verdict.landing and not any(path.stuck for path in paths):
        ends: Counter[tuple[str, int]] = Counter()
        for path in (path for path in paths if not path.table.again):
            followed = path.table.named.get(verdict.landing.card)
            ends.update(
                (name, at) for name, heap in path.table.heaps.items() for at, card in enumerate(heap, start=1)
                if card is followed
            )  # fmt: skip
        assert {(w.place, w.position): w.paths for w in verdict.landing.where} == dict(ends)


@MANY
@given(routines())
def test_every_card_and_face_agrees_with_the_reference(text: str) -> None:
    """With a token for every card, the explorer's end states are exactly the reference's tables, faces included."""
    routine = read(text)
    program = compile_routine(routine, REPLAY)
    found = explore(program, Budget())
    paths = list(every_path(routine_json(routine)))
    ours: Counter[tuple[str, bool]] = Counter()
    for state, weight in (*found.ends.items(), *found.again.items()):
        ours[str(sorted(seen(program, state).items())), bool(state[FAILED])] += weight
    theirs = Counter((str(sorted(path.table.snapshot().items())), path.fails) for path in paths if not path.stuck)
    if program.is_unlimited:
        assert set(ours) == set(theirs)
        assert bool(found.stuck) == any(path.stuck for path in paths)
        return
    assert ours == theirs
    assert sum(found.stuck.values()) == sum(path.stuck for path in paths)


@MANY
@given(routines(), st.integers(0, 10**6))
def test_replay_agrees_line_by_line_with_reference_and_prover(text: str, seed: int) -> None:
    routine = read(text)
    played = play(routine, seed=seed)
    if played.program.is_unlimited:
        return  # the reference chooses among tables there, not among rounds
    path, _ = run(routine_json(routine), pick=same_decisions(played), logged=True)
    assert path.stuck == bool(played.stuck_at)
    # The last frame of a line, against the reference's table after that line.
    tables = [seen(played.program, frame.state) for frame in played.frames]
    for table in filter(None, path.table.log):
        while tables and tables[0] != table:
            tables.pop(0)
        assert tables, f"the replay never shows {table}"
    # What the prover holds possible after an instruction includes what the replay shows there.
    forgets_nothing = Purpose(forget_places=False, forget_numbers=False, forget_unnamed=False, forget_faces=False)
    proof = compile_routine(routine, forgets_nothing)
    layers: dict[AnyInstruction, set[State]] = {}
    explore(proof, Budget(), watch=lambda stage, layer: layers.update({stage.first: set(layer)}))
    by_index = [layers.get(step) for step in proof.instructions]
    loops = [(i, step.end) for i, step in enumerate(proof.instructions) if isinstance(step, Loop)]
    for frame in played.frames[1:]:
        if any(start < frame.instruction <= end for start, end in loops):
            continue  # paths are there at different times round
        layer = by_index[frame.instruction]
        assert layer and projected(proof, played.program, frame.state) in layer


@MANY
@given(routines(), st.integers(0, 10**6))
def test_choices_named_to_the_replay_are_the_ones_it_plays(text: str, seed: int) -> None:
    routine = read(text)
    drawn = play(routine, seed=seed)
    again = play(routine, drawn.choices)
    assert [frame.state for frame in again.frames] == [frame.state for frame in drawn.frames]


def test_a_mate_goes_on_what_lies_there() -> None:
    text = (
        "Pack: clubs, spades, each from ace to two\nSpectator shuffles deck\nRemember the top card of deck: P\n"
        "Deal 1 card from deck to hand\nTake the mate of P from deck to hand: MATE\nEnds with: the top card of hand is MATE\n"
    )
    found, paths = prove(read_routine(text)), every_path(routine_json(read_routine(text)))
    assert found.verdict == PROVED and found.paths == len(paths)


@pytest.mark.parametrize(
    ("ending", "verdict"),
    [
        ("If P is red:\n  Ends with: MATE and P are mates\nEnds with: MATE and P have the same colour", PROVED),
        ("Ends with: the top card of deck is MATE", REFUTED),
        ("Ends with: MATE is directly above P", REFUTED),
    ],
)
def test_a_mate_out_of_a_whole_pack(ending: str, verdict: str) -> None:
    """Too many cards for a random routine: every one of 52 · 51 cards and places, path by path."""
    text = (
        "Pack: 52 cards, any order\nRemember the top card of deck: P\nTake the mate of P from deck to hand: MATE\n"
        f"Put hand under deck\n{ending}\n"
    )
    routine = read_routine(text)
    found, paths = prove(routine), every_path(routine_json(routine))
    assert found.verdict == verdict and found.paths == len(paths) == 52 * 51
    assert found.failing_paths == sum(path.fails for path in paths)
