"""Rehearsals against the path that is played, and what came of them against figures reckoned by hand."""

from __future__ import annotations

import os
from itertools import islice

import pytest
from hypothesis import HealthCheck, assume, given, settings

from golden_pivot.core.analysis import Analysis
from golden_pivot.core.faults import BadRoutine, OutOfBudget
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.language.printer import routine_json
from golden_pivot.core.practice.asked import needed_on
from golden_pivot.core.practice.imagined import HABITS, some_paths, spectator
from golden_pivot.core.practice.kept import BeatDone, Rehearsed
from golden_pivot.core.practice.rehearsal import line_times, own_paces, rehearsal_of
from golden_pivot.core.show.effort import effort_of
from golden_pivot.core.show.paces import Paces
from golden_pivot.demo import demo_names, demo_text
from golden_pivot.witness import each_path
from tests.strategies import routines

MANY = int(os.environ.get("RANDOM_ROUTINES", "30"))


@pytest.mark.parametrize("habit", HABITS)
def test_a_spectator_chooses_what_may_be_chosen_and_the_same_for_the_same_seed(habit: str) -> None:
    routine = read_routine(demo_text("harbour_light"))
    found = [spectator(routine, habit, seed, {"n": [31, 31, 77]}).choices for seed in range(60)]  # type: ignore[arg-type]
    assert found == [spectator(routine, habit, seed, {"n": [31, 31, 77]}).choices for seed in range(60)]  # type: ignore[arg-type]
    numbers = [n for choices in found for n in choices.values()]
    assert set(numbers) <= set(range(30, 40))
    if habit == "as in my book":  # 77 is none that can be chosen
        assert set(numbers) == {31}
    if habit == "awkward":
        assert set(numbers) == {30, 31, 38, 39}
    if habit == "about the middle":
        assert sum(33 <= n <= 36 for n in numbers) > 30 and len(set(numbers)) > 4
    if habit == "evenly":
        assert len(set(numbers)) >= 8


def test_what_is_in_the_book_in_words_is_chosen_as_often_as_there() -> None:
    """Whatever is not open on a path, or not in the book, is chosen evenly."""
    routine, label = read_routine(demo_text("lifeboat_drill")), "the piles pointed to in line 6"
    book = {label: ["1 and 3", "2 and 4", "2 and 4", "2 and 4", "6 and 7"], "the piles pointed to in line 8": ["9"]}
    paths = [spectator(routine, "as in my book", seed, book) for seed in range(200)]
    said = [one.said for path in paths for one in path.decisions if one.label == label]
    assert set(said) == {"1 and 3", "2 and 4"} and 120 < said.count("2 and 4") < 180
    later = {one.said for path in paths for one in path.decisions if one.label == "the piles pointed to in line 8"}
    assert later == {"1", "2", "3"}


def test_few_paths_are_all_of_them() -> None:
    text = demo_text("harbour_light")
    paths = some_paths(read_routine(text))
    taken = {path.table.numbers["n"] for path in each_path(routine_json(read_routine(text)))}
    assert {next(iter(one.choices.values())) for one in paths} == taken and len(paths) == len(taken)


@settings(
    max_examples=MANY, deadline=None, suppress_health_check=list(HealthCheck), derandomize="RANDOM_ROUTINES" not in os.environ
)  # fmt: skip
@given(routines())
def test_what_must_be_known_has_one_answer_for_what_is_told(text: str) -> None:
    """On every path that is played: a sum is what its numbers come to, a case is the one whose lines are carried out."""
    routine = read_routine(text)
    assume(not routine.faults)
    answers: dict[object, str] = {}
    try:
        paths = some_paths(routine)
    except BadRoutine:
        assume(False)
    for one in islice(paths, 60):
        gone = {frame.line for frame in one.frames}
        for needed in needed_on(routine, one):
            if needed.kind == "sum":
                key = (needed.asks, tuple(sorted(needed.known)))
                assert answers.setdefault(key, needed.answer) == needed.answer
                assert needed.line in gone
            else:
                assert needed.answer in needed.options


@pytest.mark.parametrize("name", [name for name in demo_names() if name != "last_orders"])
def test_every_beat_is_on_the_path_and_nothing_secret_is_heard(name: str) -> None:
    it = Analysis(demo_text(name))
    for seed in range(4):
        found = rehearsal_of(it, "evenly", seed)
        played = spectator(it.routine, "evenly", seed)
        assert [(one.line, one.round) for one in found.beats if one.spectator or one.seconds or one.asks]
        gone = list(dict.fromkeys((frame.line, frame.round) for frame in played.frames if frame.line))
        assert [key for key in gone if key in {(one.line, one.round) for one in found.beats}] == gone
        secret = {one.clause for one in played.decisions if one.secret}
        early = [clause for beat in found.beats for clause in beat.heard if clause in secret]
        told = [clause for beat in found.beats if beat.action.startswith("Spectator tells") for clause in beat.heard]
        assert set(early) <= set(told), name
        assert found.comes_out == (not played.failures)
        for beat in found.beats:
            assert beat.action in beat.may_come and len(set(beat.may_come)) == len(beat.may_come)


def test_a_case_is_asked_once_it_must_be_known_and_not_before() -> None:
    beats = rehearsal_of(Analysis(demo_text("fog_signals")), "evenly", 3).beats
    heard = {name: int(number) for beat in beats for one in beat.heard for name, number in [one.split(" is ")]}
    assert heard["b"] > heard["a"] > 1
    asked = [(beat.line, one.asks, one.answer) for beat in beats for one in beat.asks]
    assert asked[0][:2] == (9, "What do you do in line 7?"), (
        "a is told at line 5, and line 9 is the first that depends on it"
    )
    assert [one for one in asked if one[1] == "b - a"] == [(18, "b - a", str(heard["b"] - heard["a"]))]


def test_numbers_that_are_told_at_the_end_are_heard_then() -> None:
    beats = rehearsal_of(Analysis(demo_text("four_decks")), "evenly", 3).beats
    (told,) = [beat for beat in beats if beat.action == "Spectator tells a, b"]
    assert sorted(clause.split(" is ")[0] for clause in told.heard) == ["a", "b"]
    assert beats.index(told) == len(beats) - 3


def rehearsed(*done: BeatDone) -> Rehearsed:
    return Rehearsed("1", "r", "2026-11-28", "sheet", "evenly", done)


def test_times_are_the_middle_ones_and_wrong_answers_are_counted() -> None:
    routine = read_routine(demo_text("harbour_light"))
    held = [
        rehearsed(BeatDone(6, 5.0), BeatDone(10, 9.0, "digit sum of n", False, "8"), BeatDone(99, 1.0)),
        rehearsed(BeatDone(6, 7.0)),
        rehearsed(BeatDone(6, 30.0), BeatDone(10, 4.0, "digit sum of n", True, "7")),
    ]
    assert [(one.line, one.times, one.seconds, one.wrong) for one in line_times(routine, held)] == [
        (6, 3, 7.0, 0), (10, 2, 6.5, 1),
    ]  # fmt: skip


def test_own_paces_are_slower_by_as_much_as_one_was() -> None:
    it, usual = Analysis(demo_text("harbour_light")), Paces()
    reckoned = {cost.line: cost.seconds for cost in effort_of(it, usual).lines}
    twice = rehearsed(*(BeatDone(line, 2 * seconds) for line, seconds in reckoned.items()))
    paces = own_paces(it, [twice], usual)
    assert paces and paces.card == pytest.approx(2 * usual.card, rel=0.02) and paces.sum == usual.sum
    summed = own_paces(it, [rehearsed(BeatDone(10, 5.0, "digit sum of n", True, "7"))], usual)
    assert summed and summed.sum == 5.0
    assert own_paces(it, [], usual) is None


def test_what_cannot_be_rehearsed_says_so() -> None:
    with pytest.raises((BadRoutine, OutOfBudget)):
        rehearsal_of(Analysis(demo_text("last_orders")), "evenly", 1)


def test_after_a_pointing_one_must_know_what_to_say_and_not_before() -> None:
    beats = rehearsal_of(Analysis(demo_text("lifeboat_drill")), "evenly", 3).beats
    lines = [beat.line for beat in beats]
    asked = [(beat.line, one.line) for beat in beats for one in beat.asks if one.kind == "pointing"]
    assert asked and asked[0][1] == 6
    for now, pointing in asked:
        assert lines.index(now) == lines.index(pointing) + 1
