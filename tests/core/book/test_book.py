"""The book: what may be written, what one's own spectators chose, and the book as a table."""

from __future__ import annotations

import contextlib
import json
import math
from collections import Counter
from dataclasses import asdict, replace
from datetime import date
from itertools import combinations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from golden_pivot.core.answers.questions import picks_of, questions_of
from golden_pivot.core.book.performance import ENDINGS, BadEntry, Performance, checked, day_of
from golden_pivot.core.book.spectators import own_spectators
from golden_pivot.core.book.table_of_book import read_json, read_table, table_text
from golden_pivot.core.budget import Budget
from golden_pivot.core.desks import odds_desk
from golden_pivot.demo import demo_text
from golden_pivot.demo.book import PERFORMANCES, season

TODAY = date(2026, 11, 28)
ENTRY = Performance("1f", "2026-11-20", "aa", "Digits", "Title: Digits\n", chosen={"n": 12})
DIGITS = (
    "Title: Digits\nPack: 52 cards, any order\nPlace FORCE 10th\nSpectator names a number n from 10 to 20\nDeal n cards from deck\n"
    "Put the dealt cards back on top\nDeal digit sum of n cards from deck\nEnds with: the last card dealt is FORCE\n"
)


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"played_on": "2026-11-29"}, "played_on"), ({"played_on": "11/20/26"}, "played_on"), ({"played_on": "1899-01-01"}, "played_on"),
        ({"played_on": ""}, "played_on"), ({"played_on": "2026-02-30"}, "played_on"), ({"ended": "well"}, "ended"),
        ({"chosen": {"n": -1}}, "chosen"), ({"chosen": {"n": 10_000}}, "chosen"), ({"minutes": 0.0}, "minutes"),
        ({"minutes": math.inf}, "minutes"), ({"minutes": math.nan}, "minutes"), ({"went": 6}, "went"), ({"went": 0}, "went"),
        ({"note": "x" * 2001}, "note"), ({"note": "\ud800"}, "note"), ({"text": "\ud800"}, "text"), ({"uid": "../x"}, "uid"), ({"uid": ""}, "uid"),
        ({"played_on": f"1.1.{10**20}"}, "played_on"), ({"chosen": {"n=1; m": 2}}, "chosen"), ({"chosen": {" n": 2}}, "chosen"),
    ],
)  # fmt: skip
def test_what_cannot_have_been_is_refused_with_its_field(change: dict[str, object], field: str) -> None:
    with pytest.raises(BadEntry) as caught:
        checked(replace(ENTRY, **change), TODAY)  # type: ignore[arg-type]
    assert caught.value.field == field and caught.value.message and caught.value.remedy


def test_a_day_in_either_way_of_writing_is_kept_in_one() -> None:
    assert day_of(" 20.11.2026 ") == day_of("2026-11-20") == date(2026, 11, 20)
    assert checked(replace(ENTRY, played_on="3.4.2026"), TODAY).played_on == "2026-04-03"
    assert checked(replace(ENTRY, played_on="28.11.2026"), TODAY).played_on == "2026-11-28"


def test_what_is_asked_for_in_a_routine() -> None:
    (question,) = questions_of(DIGITS)
    assert (question.name, question.line, question.low, question.high) == ("n", 4, 10, 20)
    assert question.says == "Spectator names a number n from 10 to 20"
    # What chance decides is nobody's choice; a fault ends it, and nothing raises.
    assert questions_of("Pack: 9 cards\nChance decides on a number n from 1 to 6\n") == ()
    assert [one.name for one in questions_of(DIGITS.replace("Deal n", "Dael n"))] == ["n"]
    assert questions_of("") == questions_of("no routine") == ()


def test_own_spectators_against_what_is_proved() -> None:
    """By hand: with 10 to 19 it holds (the digit sum counts back to the tenth card), with 20 it does not."""
    chosen = [12, 12, 15, 20, 20, 20, 9, 19]
    book = [replace(ENTRY, uid=f"{i:x}", chosen={"n": n}, minutes=float(i + 3)) for i, n in enumerate(chosen)]
    found = own_spectators(DIGITS, book, Budget())
    (record,) = found.records
    assert (record.low, record.high) == (10, 19)
    assert [(one.number, one.times) for one in record.seen] == sorted(Counter(chosen).items())
    assert (record.total, record.outside) == (8, 4)
    assert record.says == "4 of 8 were outside 10 to 19: steer them at line 4, or narrow the range."
    # Wilson's interval for 4 of 8, worked out by hand with z = 1.96.
    z = 1.96
    middle, half = (0.5 + z * z / 16) / (1 + z * z / 8), z / (1 + z * z / 8) * math.sqrt(0.25 / 8 + z * z / 256)
    assert (record.least, record.most) == pytest.approx((middle - half, middle + half))
    assert (
        found.shown.times == 8
        and found.shown.minutes == 6.5
        and found.shown.measured == 8
        and found.shown.last == "2026-11-20"
    )


def test_the_odds_desk_takes_ones_own_spectators_as_a_habit() -> None:
    book = [replace(ENTRY, uid=f"{i:x}", chosen={"n": n}) for i, n in enumerate([12, 12, 15, 20])]
    (record,) = own_spectators(DIGITS, book, Budget()).records
    found = odds_desk.answer(odds_desk.OddsAsks(routine=DIGITS, habits=[record.habit], numbers=["n"]), Budget())
    (numbers,) = [one for one in found.distributions if one.about == "n"]
    assert {one.outcome: one.least for one in numbers.outcomes} == {"12": 0.5, "15": 0.25, "20": 0.25}


def test_numbers_that_only_an_older_text_asked_for_are_told_behind_the_others() -> None:
    book = [replace(ENTRY, chosen={"n": 12, "old": 3}), replace(ENTRY, uid="2f", chosen={"old": 3})]
    found = own_spectators(DIGITS, book, Budget())
    assert [(one.name, one.line, one.total) for one in found.records] == [("n", 4, 1), ("old", None, 2)]
    assert own_spectators("no routine at all", book, Budget()).records[0].name == "n"
    assert own_spectators(DIGITS, [], Budget()).records == ()


def test_how_it_ended_and_what_slipped() -> None:
    book = [replace(ENTRY, uid=f"{i:x}", ended=ended, slip=slip) for i, (ended, slip) in enumerate(  # type: ignore[arg-type]
        [("as planned", ""), ("failed", "one fewer"), ("another way", "one more"), ("failed", "one fewer")])]  # fmt: skip
    shown = own_spectators(DIGITS, book, Budget()).shown
    assert (shown.as_planned, shown.another_way, shown.failed) == (1, 1, 2)
    assert [(one.what, one.times) for one in shown.slips] == [
        ("one fewer", 2),
        ("one more", 1),
    ] and shown.minutes is None


WORDS = (
    st.text(st.characters(exclude_categories=("Cs", "Cc")), max_size=12) | st.text("'=-+@ ,;\"\n", max_size=5)
).map(str.strip)
ENTRIES = st.builds(
    Performance, st.uuids().map(lambda u: u.hex[:16]), st.dates(date(1950, 1, 1), TODAY).map(str), st.just(""), WORDS.filter(bool),
    st.just("Title: one\nPack: 9 cards\n"), WORDS, WORDS, st.sampled_from(ENDINGS),
    st.dictionaries(
        st.sampled_from(["n", "m", "k", "the order of the piles, time 1"]),
        st.integers(0, 99) | st.sampled_from(["1, 3 and 2 from the top", "queen of hearts", "2 and 4"]),
    ), WORDS, st.none() | st.integers(1, 90).map(float),
    st.none() | st.integers(1, 5), WORDS,
)  # fmt: skip


@given(st.lists(ENTRIES, max_size=5, unique_by=lambda one: one.uid))
def test_the_book_as_a_table_is_the_same_on_return(book: list[Performance]) -> None:
    rows = read_table(table_text(book), TODAY, lambda title: None, lambda: "0")
    assert [row.trouble for row in rows] == [""] * len(book)
    assert [row.entry for row in rows] == book


def test_a_table_is_read_row_by_row_with_its_errors() -> None:
    text = (
        "Day;Routine;Chosen;Minutes\n20.11.2026;Digits;n=12;4,5\n\n2026-12-24;Digits;n=3;\n2026-11-01;;;\n2026-11-01;Digits;twelve;\n"
        "2026-11-01;Another;;soon\n"
    )
    known = {"Digits": ("aa", DIGITS)}
    rows = read_table(text, TODAY, known.get, lambda: "0")
    assert [(row.number, row.trouble.split(".")[0]) for row in rows] == [
        (2, ""), (4, "2026-12-24 is still to come"), (5, "There is no routine"), (6, "“twelve” tells no choice"), (7, "“soon” is no number"),
    ]  # fmt: skip
    first = rows[0].entry
    assert first and (first.routine, first.text, first.chosen, first.minutes) == ("aa", DIGITS, {"n": 12}, 4.5)


@pytest.mark.parametrize(
    "more",
    [
        "went\nnan",
        "went\ninf",
        "went\n1e999",
        f"chosen\nn={'9' * 5000}",
        "minutes\nnan",
        "minutes\n-inf",
        f"day\n1.1.{'9' * 30}",
    ],
)
def test_a_cell_that_is_no_number_is_a_row_that_is_refused(more: str) -> None:
    name, cell = more.split("\n")
    (row,) = read_table(f"day,routine,{name}\n2026-11-01,Digits,{cell}\n", TODAY, lambda title: None, lambda: "0")
    assert row.entry is None and row.trouble


def test_two_rows_that_would_be_one_entry_are_told() -> None:
    rows = read_table(
        "day,routine,uid\n2026-11-01,A,1f\n2026-11-02,B,1f\n2026-11-02,C,no mark\n",
        TODAY,
        lambda title: None,
        lambda: "0",
    )
    assert [row.trouble.split(".")[0] for row in rows] == [
        "",
        "Row 2 has the same uid",
        "“no mark” is no mark of an entry",
    ]


@given(st.text(max_size=60) | st.text("\",;\r\n='1", max_size=60))
def test_no_table_raises_anything_else(text: str) -> None:
    for whole in (text, f"day,routine\n{text}"):
        with contextlib.suppress(BadEntry):
            read_table(whole, TODAY, lambda title: None, lambda: "0")


@pytest.mark.parametrize(
    "text", ["", "a,b\n1,2\n", "\ufeff", "day\n2026-11-01\n", "day,routine\n2026-11-01," + "x" * 140_000]
)
def test_a_table_with_other_columns_is_refused(text: str) -> None:
    with pytest.raises(BadEntry) as caught:
        read_table(text, TODAY, lambda title: None, lambda: "0")
    assert caught.value.field == "columns" and caught.value.remedy


def test_the_season_of_the_demo_shelf() -> None:
    book = season()
    assert book == season() and len(book) == PERFORMANCES and len({one.uid for one in book}) == PERFORMANCES
    assert [checked(one, TODAY) for one in book] == book
    shown = demo_text("fog_signals")
    records = own_spectators(shown, [one for one in book if one.text == shown], Budget()).records
    assert any(one.outside for one in records) and any(not one.outside for one in records)


def test_a_book_as_json_is_the_same_on_return_and_its_faults_are_told_by_entry() -> None:
    book = [replace(ENTRY, uid=f"{n}f") for n in range(3)]
    whole = json.dumps([asdict(one) for one in book])
    assert [row.entry for row in read_json("\ufeff" + whole, TODAY)] == book
    odd = json.loads(whole)
    odd[0] |= {"minutes": "long"}
    odd[1] |= {"chosen": {"n": 1.5}}
    odd[2] |= {"played_on": "2999-01-01", "more": 1}
    rows = read_json(json.dumps([*odd, 3, {"uid": "1"}]), TODAY)
    assert [row.entry for row in rows] == [None] * 5 and all(row.trouble for row in rows)
    assert [row.number for row in rows] == [1, 2, 3, 4, 5]
    for bad in ("[", "{}", "[" * 100_000):
        with pytest.raises(BadEntry):
            read_json(bad, TODAY)


# What is chosen in words


def test_what_else_is_asked_for_in_a_routine() -> None:
    """Piles in the open and cards that show in the end; by hand: two of five piles are pointed to in ten ways."""
    first, second, third = picks_of(demo_text("lifeboat_drill"))
    assert first.name == "the piles pointed to in line 6" and first.line == 6
    pairs = {f"{a} and {b}" for a, b in combinations(range(1, 6), 2)}
    assert set(first.options) == pairs
    # Then one of the two or three that are left, whatever their numbers.
    assert set(second.options) == {"1", "2", "3"} and set(third.options) <= {"1", "2", "3", "4", "5"}
    (card,) = picks_of(demo_text("watch_below"))
    assert card.name == "their card" and len(card.options) == 52 and "queen of hearts" in card.options
    # What stays secret can be noted by nobody, numbers are asked for as such, and a fault ends it.
    assert [one.name for one in picks_of(demo_text("four_decks"))] == ["their card"]
    assert picks_of(DIGITS) == picks_of("") == picks_of("no routine") == ()


def test_what_was_chosen_in_words_is_counted_with_its_interval() -> None:
    text = demo_text("lifeboat_drill")
    chosen = ["1 and 3", "2 and 4", "1 and 3", "1 and 3"]
    book = [
        checked(
            replace(ENTRY, uid=f"{i:x}", chosen={"the piles pointed to in line 6": one, "old words": "x, y"}), TODAY
        )
        for i, one in enumerate(chosen)
    ]
    found = own_spectators(text, book, Budget())
    assert found.records == ()
    piles, old = found.picks
    assert [(one.choice, one.times) for one in piles.seen] == [("1 and 3", 3), ("2 and 4", 1)]
    assert (piles.line, piles.total, old.line, old.total) == (6, 4, None, 4)
    assert piles.says == "1 and 3: 3 of 4."
    # Wilson's interval for 3 of 4, worked out by hand with z = 1.96.
    z, share = 1.96, 0.75
    middle, half = (
        (share + z * z / 8) / (1 + z * z / 4),
        z / (1 + z * z / 4) * math.sqrt(share * (1 - share) / 4 + z * z / 64),
    )
    assert (piles.least, piles.most) == pytest.approx((middle - half, middle + half))


def test_words_that_are_a_number_are_one_number_however_they_come() -> None:
    entry = checked(replace(ENTRY, chosen={"p": "3", "q": "000000000012", "their card": "queen of hearts"}), TODAY)
    assert entry.chosen == {"p": 3, "q": 12, "their card": "queen of hearts"}
    for bad in (
        {"p": "a=b"},
        {"p": "a;b"},
        {"p": ""},
        {"p": "x" * 81},
        {"p": "9" * 30},
        {"p": "\ud800"},
        {"p": "a\nb"},
    ):
        with pytest.raises(BadEntry):
            checked(replace(ENTRY, chosen=bad), TODAY)
