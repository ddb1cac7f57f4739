"""Neighbouring routines: slips, blanks, sweeps, regions, explanations. Each answer is compared with single proofs.

Values of procedures are common practice, no published source; they were worked out by hand-written simulation.
"""

from __future__ import annotations

import re
from functools import cache
from itertools import product

import pytest
from hypothesis import HealthCheck, Phase, given, reject, settings
from hypothesis import strategies as st
from scripts.bench import with_two_blanks

from golden_pivot import demo
from golden_pivot.core.answers.proving import prove
from golden_pivot.core.answers.regions import region_of
from golden_pivot.core.answers.shapes import shape_text
from golden_pivot.core.answers.verdicts import PROVED, REFUTED, UNSETTLED, Asked
from golden_pivot.core.budget import Budget
from golden_pivot.core.faults import BadRoutine, Cancelled, OutOfBudget
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.language.printer import routine_json, text_from_json
from golden_pivot.core.search.faces import PACK
from golden_pivot.core.steps import REGISTRY
from golden_pivot.core.variants import slips, trying
from golden_pivot.core.variants.blanks import solve
from golden_pivot.core.variants.edits import edited
from golden_pivot.core.variants.explain import EachTime, explain
from golden_pivot.core.variants.fields import NothingToFill, blanks_of, fields_of, filled, numbers_of, with_blanks
from golden_pivot.core.variants.limits import Outside, limits_of
from golden_pivot.core.variants.slips import ALL, ELSEWHERE, HARMLESS, OPEN, SOME, Fragility, fragility_of, slips_of
from golden_pivot.core.variants.sweeps import sweep, with_blank
from tests.core.test_procedures import text_of
from tests.strategies import routines


def changed(name: str, *changes: tuple[str, str]) -> str:
    text = text_of(name)
    for was, now in changes:
        assert was in text, was
        text = text.replace(was, now)
    return text


# What breaks it


@cache
def slips_made(name: str) -> Fragility:
    return fragility_of(text_of(name), Budget())


@pytest.mark.parametrize(
    ("name", "line", "what", "kind"),
    [
        # harmless, of different families
        ("p13_digit_sum", 2, "one card more", HARMLESS),
        ("p06_told_pile_claimed", 3, "deck had been cut before", HARMLESS),
        ("p06_told_pile_claimed", 4, "one time more", HARMLESS),
        ("p06_told_pile_claimed", 5, "face down instead of face up", HARMLESS),
        ("p11_cut_and_turn_over", 15, "under instead of on", HARMLESS),
        ("p11_cut_and_turn_over", 9, "left out", HARMLESS),
        ("p17_row_of_ten", 4, "dealt instead of lifted", HARMLESS),
        ("p03_cut_number_safe", 7, "from right to left instead of from left to right", HARMLESS),
        # fatal
        ("p13_digit_sum", 6, "underneath instead of back on top", ALL),
        ("p11_cut_and_turn_over", 5, "one card fewer", ALL),
        ("p11_cut_and_turn_over", 14, "left out", ALL),
        ("p17_row_of_ten", 5, "from left to right instead of from right to left", ALL),
        ("p10_opening_mix", 3, "the bottom card on instead of the top card on", ALL),
        ("p14_nine_cards", 4, "left out", ALL),
        ("p06_told_pile_claimed", 5, "one pile more", ALL),
        # some paths, and elsewhere but known
        ("p13_digit_sum", 4, "one above the range", SOME),
        ("p13_digit_sum", 5, "the order kept", SOME),
        ("p03_cut_number_safe", 6, "the order kept", SOME),
        ("p06_told_pile_claimed", 7, "one place further", ELSEWHERE),
        ("p14_nine_cards", 9, "the plural", ELSEWHERE),
        ("p14_nine_cards", 10, "the next card instead of the last", ELSEWHERE),
    ],
)  # fmt: skip
def test_what_comes_of_a_slip(name: str, line: int, what: str, kind: str) -> None:
    (outcome,) = [one for one in slips_made(name).outcomes if (one.slip.line, one.slip.what) == (line, what)]
    assert outcome.kind == kind, outcome


def test_a_slip_may_spoil_only_the_last_climax() -> None:
    # The packet is not reversed: the mate is found all the same, but the card it faces is another one.
    text = text_of("p03_cut_number_safe")
    (kept,) = [
        one
        for one in fragility_of(text, Budget()).outcomes
        if one.slip.what == "the order kept" and one.slip.line == 6
    ]
    assert (kept.spoiled, round(kept.share, 3)) == ((10,), round(18 / 19, 3))


def test_a_slip_among_repetitions_without_end_does_not_break_all_where_some_come_out() -> None:
    text = ("Pack: 6 cards, any order\nPlace A 2nd\nAs often as the spectator likes:\n  Spectator cuts deck and completes the cut\n"
            "Cut deck to bring A to the top\nEnds with: the top card of deck is A\n")  # fmt: skip
    (left_out,) = [o for o in fragility_of(text, Budget()).outcomes if (o.slip.line, o.slip.what) == (5, "left out")]
    assert (left_out.kind, left_out.says) == (SOME, "Fails on some paths.")


@pytest.mark.parametrize("name", [n for n in demo.demo_names() if not read_routine(demo.demo_text(n)).faults])
def test_slips_of_the_demo_are_what_the_changed_text_gives(name: str) -> None:
    text = demo.demo_text(name)
    found = fragility_of(text, Budget())
    assert len(found.outcomes) >= 10 and found.strict
    for outcome in found.outcomes[:: max(1, len(found.outcomes) // 6)]:
        by_hand = prove(read_routine(edited(text, outcome.slip.edit)), Budget(transitions=60_000))
        if by_hand.verdict == UNSETTLED:
            assert outcome.kind == OPEN or (outcome.kind == SOME and outcome.share is None)
        elif by_hand.claims:
            plain = prove(read_routine(text))
            assert (outcome.kind == HARMLESS) == (by_hand.verdict == PROVED) or plain.verdict == REFUTED, outcome
            assert not by_hand.paths or outcome.share == pytest.approx((by_hand.failing_paths or 0) / by_hand.paths)
    advised = {one.line for one in found.advice}
    assert advised <= set(found.strict) | set(found.free)


def test_slips_can_be_stopped_and_tell_how_far_they_are() -> None:
    told: list[str] = []
    with pytest.raises(Cancelled):
        fragility_of(
            text_of("p11_cut_and_turn_over"),
            Budget(cancelled=lambda: len(told) > 4),
            lambda words, _: told.append(words),
        )
    assert told[-1].endswith("slips")


def test_every_kind_that_is_handled_has_a_slip() -> None:
    for kind in REGISTRY.values():
        if kind.is_handled:
            text = f"Pack: 20 cards, any order\n{kind.example}\n"
            assert "left out" in {slip.what for slip in slips_of(text) if slip.line == 2}, kind.name


# What would work


def test_where_the_target_must_be_for_each_decade_of_numbers() -> None:
    for decade in range(1, 5):
        text = changed("p13_digit_sum", ("10th", "?th"), ("10 to 19", f"{10 * decade} to {10 * decade + 9}"))
        assert solve(text, Budget()).answers == ((str(9 * decade + 1),),)


def test_the_widest_range_comes_first() -> None:
    assert solve(changed("p13_digit_sum", ("from 10 to 19", "from ? to ?")), Budget()).answers[0] == ("10", "19")


def test_the_start_of_the_sum_of_five_follows_the_size_of_the_pack() -> None:
    # The pack of N counts the five values laid out: 47 cards are left of 52, and the start is 55 − N.
    text = changed("p05_sum_of_five", ("47 cards", "? cards"), ("3rd", "?th"))
    found = solve(text, Budget(), {1: ["46", "47", "48", "49"]})
    assert found.answers == (("46", "4"), ("47", "3"), ("48", "2"), ("49", "1"))
    assert found.relation == "blank 2 is 50 − blank 1"


def test_keys_and_turns_of_cut_and_turn_over() -> None:
    text = changed("p11_cut_and_turn_over", ("3rd", "?th"), ("7th", "?th"), ("top 5", "top ?"), ("top 4", "top ?"),
                   ("top 3", "top ?"))  # fmt: skip
    turns = {number: ["3", "4", "5"] for number in (3, 4, 5)}
    found = solve(text, Budget(), turns)
    assert found.complete and ("3", "7", "5", "4", "3") in found.answers
    # Which of the two keys lies higher makes no difference.
    assert {(b, a, *turns) for a, b, *turns in found.answers} == set(found.answers)
    assert found.refuted_first > found.fillings / 2


@pytest.mark.parametrize("size", [27, 21])
def test_a_slot_for_every_wanted_place(size: int) -> None:
    """Told piles in any slots, three times, against Gergonne's pile rule worked out position by position.

    J. D. Gergonne, "Récréations mathématiques", Annales de mathématiques pures et appliquées 4 (1813–14).
    """
    round_ = "Deal deck into 3 piles\nSpectator tells which pile holds their card: {}\nGather the piles, pile {} ?th, the others in any order\n"
    text = f"Pack: {size} cards, any order\nSpectator thinks of a card in deck: their card\n"
    text += "".join(round_.format(name, name) for name in "abc") + "Ends with: the ?th card of deck is their card\n"
    found = solve(text, Budget(), {1: ["1", "2", "3"], 2: ["1", "2", "3"], 3: ["1", "2", "3"]})
    pile = size // 3
    expected = set()
    for slots in product((1, 2, 3), repeat=3):
        ends = set(range(1, size + 1))
        for slot in slots:
            ends = {pile * (slot - 1) + pile - (at - 1) // 3 for at in ends}
        if len(ends) == 1:
            expected.add((*map(str, slots), str(*ends)))
    assert set(found.answers) == expected
    if size == 27:
        assert sorted(int(values[3]) for values in found.answers) == list(range(1, 28))


def test_the_words_of_nine_courts() -> None:
    text = changed("p07_nine_courts", ("“club”", "?"), ("“heart”", "?"), ("“diamond”", "?"))
    words = {1: ["“club”", "“clubs”"], 2: ["“heart”", "“hearts”"], 3: ["“diamond”", "“diamonds”"]}
    found = solve(text, Budget(), {n: words[(n - 1) % 3 + 1] for n in range(1, 7)})
    singular = tuple(words[(n - 1) % 3 + 1][0] for n in range(1, 7))
    assert found.complete and found.answers[0] == singular
    by_hand = [
        n
        for n in range(6)
        if prove(read_routine(text_of("p07_nine_courts").replace(*_nth_plural(n)))).verdict == PROVED
    ]
    assert {
        n
        for n in range(6)
        if tuple(w.replace("”", "s”") if i == n else w for i, w in enumerate(singular)) in found.answers
    } == set(by_hand)


def _nth_plural(n: int) -> tuple[str, str]:
    rows = [row for row in text_of("p07_nine_courts").splitlines() if row.startswith("Spell")]
    return rows[n], rows[n].replace("” from", "s” from")


def test_what_is_too_large_together_is_filled_one_by_one(monkeypatch: pytest.MonkeyPatch) -> None:
    text = "Pack: 20 cards\nPlace FORCE 9th\nSpectator names a number n from 1 to 4\nDeal n cards from deck to table\nEnds with: the card at position ? - n of deck is FORCE\n"
    together = solve(text, Budget())
    for steps in (1, 30):  # even the paths that are known to refute something; only all of them together
        monkeypatch.setattr(trying, "AT_ONCE_STEPS", steps)
        alone = solve(text, Budget())
        assert (alone.answers, alone.complete) == (together.answers, True)
    assert together.answers == (("9",),)


def test_orders_places_and_phrases_may_be_blank() -> None:
    text = ("Pack: 9 cards, any order\nPlace A 2nd\nDeal deck into 3 piles\nGather ? from top to bottom, to deck\n"
            "Put ? ? table\nEnds with: the card at position 3 of table is A")  # fmt: skip
    found = solve(text, Budget(), {2: ["deck"], 3: ["on", "under"]})
    assert found.answers and all(values[0].startswith("pile 2") for values in found.answers)


CYCLE = "Pack: clubs, hearts, spades, diamonds in turn, each value 3 more than the last, from ace\nDeal 4 cards from deck\n"


@pytest.mark.parametrize(
    ("text", "words", "answers"),
    [  # the fifth card of the cycle is the king of clubs
        (CYCLE + "Ends with: the top card of deck is the ? of clubs\n", 13, [("king",)]),
        (CYCLE + "Ends with: the top card of deck is the king of ?\n", 4, [("clubs",)]),
        (CYCLE + "Ends with: the top card of deck is the ? of ?\n", 52, [("king", "clubs")]),
        (CYCLE + "Ends with: the top card of deck is ?\n", 20, [("black",), ("a club",), ("a court card",), ("a king",)]),
        ("Pack: 8 cards, any order\nArrange the pack red, ? in turn\nDeal 3 cards from deck\nEnds with: the next card is black\n", 6, [("black",)]),
        ("Pack: 8 cards, any order\nArrange the pack, from the top: 3 clubs, 5 ?\nDeal 3 cards from deck\nEnds with: the next card is a spade\n",
         6, [("spades",)]),
        ("Pack: 9 cards, any order\nPlace the ? of hearts 5th\nDeal 4 cards from deck\nEnds with: the next card is the ace of hearts\n", 13, [("ace",)]),
        ("Pack: 9 cards, any order\nPlace X 5th\nDeal 4 cards from deck to table\nPut ? on hand\nEnds with: the top card of hand is X\n", 3, [("deck",)]),
        ("Pack: hearts, ?, each from ace to three\nEnds with: the card at position 4 of deck is black\n", 4, [("clubs",), ("spades",)]),
    ],
)  # fmt: skip
def test_a_suit_a_value_and_a_heap_may_be_blank(text: str, words: int, answers: list[tuple[str, ...]]) -> None:
    assert not read_routine(text).faults
    printed = text_from_json(data := routine_json(read_routine(text)))
    assert routine_json(read_routine(printed)) == data and printed.count("?") == text.count("?")
    found = solve(text, Budget())
    assert (found.fillings, list(found.answers), found.complete) == (words, answers, True)
    assert prove(read_routine(filled(text, found.fields, answers[0]))).verdict == "proved"
    with pytest.raises(BadRoutine, match="A blank waits here"):
        prove(read_routine(text))


def test_what_faces_tell_refutes_a_filling_and_an_end_of_the_budget_is_told() -> None:
    """Of 100 ways to move cards in two cases only those tell three cases apart that move differently, and not by all."""
    text = (
        "Pack: hearts, each from ace to nine\nSpectator names a number n from 1 to 3\nIf n is 2:\n  Move the top ? cards of deck to the bottom\n"
        "If n is 3:\n  Move the top ? cards of deck to the bottom\nEnds with: the faces of deck tell n\n"
    )
    found = solve(text, Budget())
    moved = [(a, b) for a, b in product(range(10), repeat=2) if len({0, a % 9, b % 9}) == 3]
    assert sorted(found.answers) == sorted((str(a), str(b)) for a, b in moved)
    assert (found.fillings, found.working, found.complete) == (100, len(moved), True)
    late = solve(text, Budget(seconds=0))
    assert late.stopped and not late.complete and not late.answers


def test_one_of_several_words_may_be_blank() -> None:
    text = "Pack: 9 cards, any order\nPlace X 4th\nSpell “?” from deck\nEnds with: the last card dealt is X\n"
    assert solve(text, Budget(), {1: ["one", "four", "five", "seven"]}).answers == (("four",), ("five",))
    asks = text.replace("?", "sure?").replace("4th", "? th")
    assert [field.slot for field in fields_of(read_routine(asks))] == [
        "position"
    ]  # a question mark in a word is none


@pytest.mark.parametrize(
    ("text", "trouble"),
    [
        ("Pack: 9 cards\nPlace A 2nd\nEnds with: the top card of deck is A", "There is no blank"),
        ("Pack: 9 cards\nPlace A ?th", "nothing to make true"),
        ("Pack: 9 cards\nPlace A 2nd\nSpell ? from deck\nEnds with: the top card of deck is A", "needs a list"),
        ("Pack: 9 cards\nPlace A ?th\n" + "Deal ? cards from deck\n" * 7 + "Ends with: the top card of deck is A", "ways to fill"),
    ],
)  # fmt: skip
def test_blanks_that_cannot_be_filled(text: str, trouble: str) -> None:
    with pytest.raises(NothingToFill, match=trouble):
        solve(text, Budget())


FEW = settings(
    max_examples=40, deadline=None, suppress_health_check=list(HealthCheck), phases=[Phase.explicit, Phase.generate]
)


def test_the_blanks_that_are_measured_can_be_filled() -> None:
    found = solve(with_two_blanks(), Budget(), {2: ["0", "1"]})
    assert found.fillings == 104 and found.answers == (("9", "1"), ("10", "0"))


@FEW
@given(routines(), st.integers(0, 10**6))
def test_filling_a_blank_agrees_with_single_proofs(text: str, pick: int) -> None:
    """Any number of a random routine left blank: the answers are exactly the numbers with which it is proved."""
    rows = text.splitlines()
    lines = [i for i, row in enumerate(rows, 1) if any(c.isdigit() for c in row) and "odds" not in row.lower()]
    if not lines or "Ends with" not in text:
        reject()
    line = lines[pick % len(lines)]
    try:
        blank = with_blank(text, line)
        tried = [str(n) for n in range(7)]
        found = solve(blank, Budget(), {1: tried})
    except (NothingToFill, BadRoutine):
        reject()
    if not found.complete:
        reject()
    expected = []
    for value in tried:
        swept = sweep(blank, Budget(), {1: [value, value]}).rows[0] if _can_be_done(blank, value) else None
        if swept and swept.verdict == UNSETTLED:
            reject()
        if swept and swept.verdict == PROVED:
            expected.append((value,))
    assert list(found.answers) == expected


def _can_be_done(blank: str, value: str) -> bool:
    try:
        sweep(blank, Budget(), {1: [value]})
    except BadRoutine:
        return False
    return True


# When it works


@pytest.mark.parametrize(
    ("name", "changes", "region"),
    [
        ("p02_spelled_marker", [("from 5 to 52", "from 0 to 52")], "k is 5 to 52"),
        ("p03_cut_number_safe", [("1 to 19", "0 to 25")], "n is 1 to 19"),
        ("p13_digit_sum", [("10 to 19", "1 to 40")], "n is 10 to 19"),
        ("p17_row_of_ten", [("0 to 9", "0 to 15")], "k is 0 to 9"),
        ("p19_unseen_cut", [("1 to 19", "0 to 30")], "k is 0 to 19"),
        ("p08_two_keys", [], "i is at least 1 and i + j is at most 49, or i is 50 and j is 2 to 50"),
        ("p12_value_blocks", [("x from 15 to 18", "x from 14 to 20"), ("y from 15 to 18", "y from 14 to 20"), ("k from 4", "k from 12")],
         "x is at least 15 and y is at least 15 and x + y is at most 38"),
    ],
)  # fmt: skip
def test_the_exact_region(name: str, changes: list[tuple[str, str]], region: str) -> None:
    found = region_of(read_routine(changed(name, *changes)), Budget(), thorough=True)
    assert found and found.text == region


@settings(max_examples=150, deadline=None)
@given(st.data())
def test_a_region_in_words_is_exact(data: st.DataObject) -> None:
    """Bounds on two numbers, their sum, difference and parity: what is said holds of all that pass and of no other."""
    draw = data.draw
    low, high = draw(st.integers(0, 6)), draw(st.integers(0, 12))
    conditions = {
        "a is at least": lambda a, b: a >= low, "a + b is at most": lambda a, b: a + b <= high,
        "a - b is at least": lambda a, b: a - b >= low - 4, "a is even": lambda a, b: a % 2 == 0,
    }  # fmt: skip
    chosen = draw(st.lists(st.sampled_from(sorted(conditions)), min_size=1, max_size=3, unique=True))
    grid = [(a, b) for a in range(8) for b in range(8)]
    passing = [p for p in grid if all(conditions[name](*p) for name in chosen)]
    failing = [p for p in grid if p not in passing]
    text = shape_text(["a", "b"], passing, failing, 1)
    if not passing:
        assert text is None
        return
    assert text is not None
    said = re.sub(r"(a(?: \+ b)?|b) is (\d+) to (\d+)", r"\2 <= \1 <= \3", text).replace("−", "-")
    said = re.sub(r"a is from (b[^t]*) to (b[^,a]*)", r"\1 <= a <= \2", said)
    said = said.replace("is even", "% 2 == 0").replace("is odd", "% 2 == 1")
    said = said.replace("is at least", ">=").replace("is at most", "<=").replace(" is ", " == ")
    assert [p for p in grid if not said or eval(said, {"a": p[0], "b": p[1]})] == passing, text


def test_a_range_is_narrowed_to_where_it_holds() -> None:
    found = limits_of(changed("p13_digit_sum", ("10 to 19", "1 to 40")), Budget())
    assert found.narrowed and "n from 10 to 19" in found.narrowed
    assert prove(read_routine(found.narrowed)).verdict == PROVED


def test_a_limit_has_a_line_that_steers_and_what_is_known_outside() -> None:
    (limit,) = limits_of(changed("p13_digit_sum", ("10 to 19", "10 to 20")), Budget()).limits
    assert (limit.name, limit.low, limit.high, limit.noticed) == ("n", 10, 19, limit.line)
    assert limit.outside == (Outside("20", "TARGET is 9th in deck"),)
    (secret,) = limits_of(changed("p17_row_of_ten", ("0 to 9", "0 to 10")), Budget()).limits
    assert secret.noticed is None and secret.outside == (Outside("10", "it cannot be carried out"),)


def test_places_to_spell_to_and_who_cannot_be_reached() -> None:
    """Spelled lengths of the 52 cards by hand: letters of value and suit, the last letter or the next card, with *of* or without."""
    text = text_of("p20_spell_to_the_twelfth")
    reached = {}
    for place in range(8, 18):
        rows = text.replace("12th", f"{place}th")
        rows = re.sub(r"is (9|10|12):", lambda number, place=place: f"is {int(number[1]) - 12 + place}:", rows)
        found = prove(
            read_routine(rows), asked=Asked(some_claim=False)
        )  # not every phrasing is of use for every place
        reached[place] = (found.paths or 0) - (found.failing_paths or 0)
        by_hand = sum(0 <= place - len(card.replace(" of ", "")) <= 3 for card in PACK)
        assert reached[place] == by_hand, place
    assert max(reached, key=lambda place: reached[place]) == 12 and (reached[12], reached[11]) == (44, 43)
    assert limits_of(text, Budget()).region.text == (  # type: ignore[union-attr]
        "TARGET is not ace, two, six or ten of clubs or three, seven, eight or queen of diamonds"
    )


def test_which_orders_of_the_packets_work() -> None:
    """The packet with the block must be worked last."""
    text = text_of("p12_value_blocks")
    rows = text.splitlines()
    first = next(i for i, row in enumerate(rows) if row.startswith("Spectator deals value"))
    blocks = [rows[first + 5 * i : first + 5 * i + 5] for i in range(3)]
    worked = {}
    for order in ((0, 1, 2), (1, 0, 2), (0, 2, 1), (2, 0, 1), (1, 2, 0), (2, 1, 0)):
        moved = [*rows[:first], *(row for i in order for row in blocks[i]), *rows[first + 15 :]]
        worked[order] = prove(read_routine("\n".join(moved))).verdict == PROVED
    assert [order for order, works in worked.items() if works] == [(0, 1, 2), (1, 0, 2)]


def test_a_sweep_over_one_number_and_over_two() -> None:
    one = sweep(with_blank(text_of("p06_told_pile"), 2), Budget(), {1: ["9", "15", "21", "27", "18", "24"]})
    assert [row.verdict for row in one.rows] == ["fixed"] * 4 + ["rule"] * 2
    assert one.formula == "⌊the number/2⌋ + 1"
    assert [row.position for row in one.rows][:4] == [5, 8, 11, 14]
    two = sweep(
        changed("p17_row_of_ten", ("10th", "?th"), ("Deal 10", "Deal ?")),
        Budget(),
        {1: ["9", "10", "11"], 2: ["9", "10", "11"]},
    )
    assert [row.values for row in two.rows if row.verdict == PROVED] == [("10", "10"), ("11", "11")]
    sixty = [str(n) for n in range(1, 61)]
    with pytest.raises(NothingToFill, match="too many"):
        sweep(
            "Pack: ? cards\nPlace A ?th\nEnds with: the top card of deck is A",
            Budget(),
            {1: sixty, 2: sixty},
        )


# Why it works


def test_where_it_lands_as_formulas_by_case() -> None:
    found = explain(read_routine(text_of("p16_two_piles")), Budget())
    assert {case.formula for case in found.cases} == {"⌊n/2⌋ + 1", "n + ⌊n/2⌋ + 1"}
    assert {case.when for case in found.cases} == {"line 15 is carried out", "line 15 is not carried out"}


def test_what_each_time_round_does() -> None:
    assert explain(read_routine(text_of("p06_told_pile")), Budget()).each_time == (EachTime(8, "⌈x/3⌉ + 7"),)


@pytest.mark.parametrize(
    ("name", "words"),
    [
        ("p13_digit_sum", "now TARGET is n − 9 from the top of dealt"),
        ("p03_cut_number", "now MATE is 21 − n from the left of row"),
        ("p17_row_of_ten", "now FORCE is k + 1 from the left of row"),
        ("p01_three_reports", "now their card is a + 3b + 9c + 1 from the top of deck"),
    ],
)
def test_a_line_is_explained(name: str, words: str) -> None:
    assert any(words in said.words for said in explain(read_routine(text_of(name)), Budget()).said)


@pytest.mark.parametrize(
    ("rows", "kept"),
    [
        (["Spectator cuts deck and completes the cut"], "in deck the round order is as it was at first"),
        (["Spectator cuts deck and completes the cut", "Turn deck over"], "in deck the round order is the first one turned round"),
        (["Deal 5 cards from deck", "Put the dealt cards back on top"], "in deck the bottom 5 cards lie as they did at first"),
        (["Give deck an out faro"] * 6, "in deck all cards lie in their first order again"),
        (["Deal deck into 2 piles", "Gather pile 2, pile 1 from top to bottom, to deck"], None),
    ],
)  # fmt: skip
def test_what_stays(rows: list[str], kept: str | None) -> None:
    """Six out faros bring back ten cards: 2 has order 6 modulo 9 (Diaconis, Graham and Kantor, 1983)."""
    text = "\n".join(["Pack: 10 cards, any order", "Place A 3rd", *rows])
    found = explain(read_routine(text), Budget()).kept
    assert (found[-1].words if found else None) == kept


def test_the_opening_mix_leaves_the_order_as_it_was() -> None:
    assert (
        explain(read_routine(text_of("p10_opening_mix")), Budget())
        .kept[-1]
        .words.endswith("in their first order again")
    )


def test_slips_stop_at_a_line_where_there_is_no_room_for_more() -> None:
    text = demo.demo_text("harbour_light")
    every, few = fragility_of(text, Budget()), fragility_of(text, Budget(), room=200)
    tried = {one.slip.line for one in few.outcomes}
    assert every.untried == 0 < few.untried and tried
    assert [one for one in every.outcomes if one.slip.line in tried] == list(few.outcomes)
    assert len(few.outcomes) + few.untried <= len(slips_of(text))


def test_numbers_and_blanks_are_those_in_slots() -> None:
    text = "Title: 3 ways?\nPack: 9 cards\nPlace BUOY 21st\nSpectator names a number n from ? to 20\n  “Say 4.”\n"
    routine = read_routine(text)
    found = numbers_of(routine)
    assert [(one.line, one.value) for one in found] == [(2, "9"), (3, "21"), (4, "20")]
    assert found[1].label == "line 3: Place BUOY [21]st" and blanks_of(routine) == (4,)
    rows = with_blanks(text, [(one.line, one.start) for one in found[1:]]).splitlines()
    assert rows[2:4] == ["Place BUOY ?th", "Spectator names a number n from ? to ?"]
    with pytest.raises(NothingToFill):
        with_blanks(text, [(3, 0)])


def test_a_slip_that_is_not_settled_is_known_to_fail_where_a_path_drawn_at_random_does(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    text = demo.demo_text("lifeboat_drill")
    exact = {one.slip: one.kind for one in fragility_of(text, Budget()).outcomes}
    monkeypatch.setattr(slips, "MOST_TRANSITIONS", 1)
    plain = prove(read_routine(text))
    found = fragility_of(text, Budget(), plain=plain).outcomes
    assert {one.kind for one in found} == {SOME, OPEN} and all(one.share is None for one in found if one.kind == SOME)
    assert all(exact[one.slip] in (SOME, ALL, ELSEWHERE) for one in found if one.kind == SOME)


def test_what_is_proved_again_before_the_time_is_up_is_kept(monkeypatch: pytest.MonkeyPatch) -> None:
    text = "Pack: 9 cards\nPlace A ?th\nEnds with: A is in deck\n"
    task = trying.Task(text, tuple(fields_of(read_routine(text))), (), True)

    def until_the_third(self: object, filling: tuple[str, ...]) -> bool:
        if filling == ("3",):
            raise OutOfBudget("seconds", "1 s had passed")
        return True

    monkeypatch.setattr(trying._Trying, "holds", until_the_third)
    found = trying.proved_again(task, [("1",), ("2",), ("3",), ("4",)], Budget())
    assert (found.passing, found.stopped) == ([("1",), ("2",)], "1 s had passed")
