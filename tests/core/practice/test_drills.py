"""Drills against formulas written by hand and against every path of the reference; schedules against the library itself."""

from __future__ import annotations

import re
from datetime import UTC, datetime, timedelta
from itertools import islice
from pathlib import Path as File

import pytest
from fsrs import Card, Rating, Scheduler

from golden_pivot.core.analysis import Analysis
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.language.printer import routine_json
from golden_pivot.core.practice.asked import GO, NO_CASE, STAY
from golden_pivot.core.practice.drills import Drill, DrillQuestion, as_they_stand, drills_of, now_due
from golden_pivot.core.practice.kept import Answer
from golden_pivot.core.practice.schedule import QUICK, SLOW, standings
from golden_pivot.demo import demo_text
from golden_pivot.witness import each_path

PROCEDURES = File(__file__).parents[2] / "procedures"


def text_of(name: str) -> str:
    file = PROCEDURES / f"{name}.pivot"
    return file.read_text() if file.exists() else demo_text(name)


def drill(name: str, which: str) -> tuple[DrillQuestion, ...]:
    return next((one.questions for one in drills_of(Analysis(text_of(name))) if one.name == which), ())


def known(question: DrillQuestion) -> dict[str, int]:
    return {name: int(number) for name, number in re.findall(r"(\w+) (?:is )?(\d+)", question.known)}


# Sums: what each comes to, by hand

SUMS = {
    "p13_digit_sum": {"digit sum of n": lambda n: n // 10 + n % 10},
    "harbour_light": {"digit sum of n": lambda n: n // 10 + n % 10},
    "p16_two_piles": {
        "3 - p": lambda p: {1: 2, 2: 1}[p], "3 - t": lambda t: {1: 2, 2: 1}[t],
        "half of n rounded down + 1": lambda n: n // 2 + 1,
        "2 * n - half of n rounded up + 1": lambda n: 2 * n - (n + 1) // 2 + 1,
    },
    "p18_two_numbers": {"a - b": lambda a, b: a - b, "b - a": lambda a, b: b - a},
    "p19_unseen_cut": {"2 * c - 20": lambda c: 2 * c - 20, "20 - 2 * c": lambda c: 20 - 2 * c},
    "four_decks": {"a + 4 * b": lambda a, b: a + 4 * b},
}  # fmt: skip


@pytest.mark.parametrize("name", SUMS)
def test_sums_come_to_what_they_come_to(name: str) -> None:
    questions = drill(name, "sums")
    assert {one.asks for one in questions} == set(SUMS[name])
    for one in questions:
        assert int(one.answer) == SUMS[name][one.asks](**known(one)), one
        assert int(one.answer) >= 0


def test_letters_of_a_card_are_counted_as_anybody_would() -> None:
    questions = drill("p20_spell_to_the_twelfth", "sums")
    assert len(questions) == 52
    for one in questions:
        value, suit = one.known.removeprefix("TARGET is ").split(" of ")
        assert int(one.answer) == len(value) + len(suit)


# Cases, against the reference


@pytest.mark.parametrize("name", ["p16_two_piles", "p18_two_numbers", "fog_signals", "two_gangways"])
def test_the_case_is_the_one_that_the_reference_comes_to(name: str) -> None:
    """By every path with these numbers, whatever else is chosen secretly."""
    routine = read_routine(text_of(name))
    steps = [line for line in routine.walk() if line.kind]
    block = {inner.number: case.number for case in steps if case.kind and case.kind.is_case for inner in case.body}
    bodies = {
        case.number: "; ".join(line.text.strip().removeprefix("Ends with: ") for line in case.body if line.kind)
        for case in steps if case.kind and case.kind.is_case
    }  # fmt: skip
    ends: dict[tuple[tuple[str, int], ...], set[int]] = {}
    for path in islice(each_path(routine_json(routine)), 6000):
        for nth in path.table.reached:
            ends.setdefault(tuple(sorted(path.table.numbers.items())), set()).add(steps[nth].number)
    met = 0
    for one in drill(name, "cases"):
        for numbers, reached in ends.items():
            if not set(known(one).items()) <= set(numbers):
                continue
            (line,) = reached
            chain = [number for number, words in bodies.items() if words in one.options]
            met += 1
            if one.answer in bodies.values():
                assert bodies[block[line]] == one.answer, (one, numbers)
            else:
                assert block.get(line) not in chain, (one, numbers)
    assert met >= 10


def test_what_is_cut_off_or_dealt_on_follows_from_the_count() -> None:
    for one in drill("p19_unseen_cut", "cases"):
        assert one.answer.startswith("Cut off" if 2 * known(one)["c"] > 20 else "Deal"), one


def test_last_or_next_follows_from_the_letters() -> None:
    """A name is spelled whole where value and suit have 10 or 9 letters, with *of* between; 12 letters end on the card."""
    for one in drill("p20_spell_to_the_twelfth", "cases"):
        value, suit = re.findall(r"TARGET is (\w+).* of (\w+)", one.known)[0]
        letters = len(value) + len(suit)
        whole, ending = letters in (10, 9), "last card dealt" if letters in (10, 12) else "next card"
        assert one.answer.startswith("Spell the name" if whole else "Spell the value and the suit"), one
        assert ending in one.answer, one


def test_after_a_pointing_the_pile_with_the_card_stays() -> None:
    """Whatever is pointed to: it stays where the card is among it, and goes where it is not. By the words alone."""
    questions = [one for one in drill("lifeboat_drill", "cases") if one.asks == "What do you say of them?"]
    assert len(questions) >= 10 and {one.answer for one in questions} == {STAY, GO}
    for one in questions:
        pointed, where = re.fullmatch(r"they point to (.*), OFFICER is in pile (\d+)", one.known).groups()  # type: ignore[union-attr]
        assert one.answer == (STAY if where in re.findall(r"\d+", pointed) else GO), one


def test_going_on_is_no_choice_where_one_of_the_cases_always_comes() -> None:
    assert not any(NO_CASE in one.options for one in drill("p16_two_piles", "cases"))
    assert all(NO_CASE in one.options for one in drill("p18_two_numbers", "cases"))


# Places


def test_where_the_card_is_after_three_reports() -> None:
    """a + 3b + 9c + 1: the base-3 rule that is named after Gergonne."""
    questions = drill("p01_three_reports", "places")
    assert len(questions) == 27
    for one in questions:
        n = known(one)
        assert one.answer.startswith(f"{n['a'] + 3 * n['b'] + 9 * n['c'] + 1}"), one


# Stacks and memory


def test_a_stack_is_asked_in_every_direction() -> None:
    questions = {one.key: one.answer for one in drill("p04_value_and_suit", "stack")}
    assert questions["at 1"] == "ace of clubs" and questions["where two of clubs"] == "2"
    assert questions["after ace of clubs"] == "two of clubs"
    assert drill("harbour_light", "stack") == ()


def test_what_is_kept_in_the_head() -> None:
    (one,) = drill("four_decks", "memory")
    assert (one.answer, one.known.split(":")[0]) == ("a and b", "line 14")


def test_of_a_routine_that_asks_nothing_there_are_none() -> None:
    assert (
        drills_of(Analysis("Pack: 9 cards, any order\nPlace KEY on top\nSpectator cuts deck and completes the cut\n"))
        == ()
    )


# Schedules

BEGUN = datetime(2026, 1, 1, 9, tzinfo=UTC)


def answers(*told: tuple[float, bool, float]) -> list[Answer]:
    """(days after the first, right, seconds)"""
    return [
        Answer(f"{nth:x}", "r", "sums", "q", (BEGUN + timedelta(days=day)).isoformat(), right, seconds)
        for nth, (day, right, seconds) in enumerate(told)
    ]


SCHEDULES = [
    ([(0, True, 4.0)], [Rating.Good]),
    ([(0, False, 4.0), (0.01, True, 4.0), (1, True, SLOW)], [Rating.Again, Rating.Good, Rating.Hard]),
    ([(0, True, QUICK), (9, True, 1.0), (40, False, 1.0)], [Rating.Easy, Rating.Easy, Rating.Again]),
]


@pytest.mark.parametrize(("told", "ratings"), SCHEDULES, ids=["one", "three", "forgotten"])
def test_days_are_those_of_the_library(told: list[tuple[float, bool, float]], ratings: list[Rating]) -> None:
    card, scheduler = Card(card_id=9), Scheduler(enable_fuzzing=False)
    for (day, _, _), rating in zip(told, ratings, strict=True):
        card, _ = scheduler.review_card(card, rating, BEGUN + timedelta(days=day))
    assert standings(answers(*told))["sums", "q"].due == card.due


def test_a_clock_that_went_back_loses_nothing() -> None:
    found = standings(answers((5, True, 4.0), (2, True, 4.0)))["sums", "q"]
    assert found.asked == 2 and found.due >= BEGUN + timedelta(days=5)


def test_what_is_due_comes_first_the_longest_overdue_before_the_new() -> None:
    questions = tuple(DrillQuestion(key, key, "?", "1", (), "") for key in "abcd")
    told = [
        Answer("1", "r", "sums", "b", BEGUN.isoformat(), True, 4.0),
        Answer("2", "r", "sums", "c", (BEGUN - timedelta(days=3)).isoformat(), False, 4.0),
        Answer("3", "r", "sums", "d", (BEGUN + timedelta(days=300)).isoformat(), True, 1.0),
    ]
    standing = as_they_stand([Drill("sums", "", questions)], told)
    assert standing[0].question.key == "c", "the hardest first"
    assert [one.question.key for one in now_due(standing, BEGUN + timedelta(days=30))] == ["c", "b", "a"]
    assert [one.question.key for one in now_due(standing, BEGUN - timedelta(days=9), new=0)] == []
