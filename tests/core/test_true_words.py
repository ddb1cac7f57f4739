"""Answers that were once wrong, each with the smallest routine of its class and what is right."""

from __future__ import annotations

from collections.abc import Callable
from fractions import Fraction
from itertools import permutations
from typing import Any

import pytest
from fastapi.testclient import TestClient

from golden_pivot.core.analysis import Analysis
from golden_pivot.core.answers.notes import recap_of
from golden_pivot.core.answers.odds import odds_of
from golden_pivot.core.answers.plays import play
from golden_pivot.core.answers.proving import prove
from golden_pivot.core.answers.regions import region_of
from golden_pivot.core.answers.report import chance_text
from golden_pivot.core.answers.verdicts import Verdict
from golden_pivot.core.budget import Budget
from golden_pivot.core.desks import odds_desk
from golden_pivot.core.faults import BadRoutine
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.language.printer import routine_json, routine_text
from golden_pivot.core.search.counted import Count
from golden_pivot.core.show.compare import compared
from golden_pivot.core.show.cues import cues_of
from golden_pivot.core.show.requests import requests_of
from golden_pivot.core.show.reset import reset_of
from golden_pivot.core.variants.blanks import solve
from golden_pivot.core.variants.limits import limits_of
from golden_pivot.core.variants.slips import HARMLESS, fragility_of
from golden_pivot.core.variants.sweeps import sweep
from golden_pivot.witness import every_path
from tests.core.desks import PROCEDURES


def proved(text: str, **asks: Any) -> Verdict:
    return prove(read_routine(text), **asks)


ANY = "Pack: 52 cards, any order\n"
ACES = f"{ANY}Place ace of clubs, ace of hearts, ace of diamonds in this order, the first on top\n"
SAME_CARD = (f"{ANY}Spectator remembers the top card of deck: P\nSpectator deals {{count}} cards from deck to table\n"
             "Spectator remembers the bottom card of table: Q\nEnds with: {claim}\n")  # fmt: skip
LAID = ("Pack: 12 cards, any order\nPlace FORCE on top\n" + 2 * "Cut off 4 cards of deck to packet\nLay packet down as a new pile\n"
        + "Lay deck down as a new pile\n")  # fmt: skip


@pytest.mark.parametrize(
    ("text", "verdict", "paths", "failing"),
    [
        # One card under two names.
        (SAME_CARD.format(count="4 * (value of P - 1) + suit of P", claim="4 * (value of Q - 1) + suit of Q is not size of table"),
         "refuted", 52, 52),
        (SAME_CARD.format(count="value of P", claim="value of Q is size of table"), "proved", 52, 0),
        ("Pack: clubs, spades, each from ace to two\nSpectator takes a card from deck to hand: ONE\n"
         "Remember the top card of hand: C\nIf C is red:\n  Ends with: 1 is 2\nEnds with: the top card of hand is ONE\n", "proved", 4, 0),
        # A fifth ace.
        (f"{ACES}Remember the 4th card of deck: A\nRemember the 5th card of deck: B\nIf value of A is 1:\n"
         "  If value of B is 1:\n    Deal 1 card from deck to table\nEnds with: size of table is 0\n", "proved", 96, 0),
        # A card named in a loop, and the card it was.
        ("Pack: clubs, hearts, each from ace to two\nSpectator takes a card from deck to first: ONE\nSpectator puts first on deck\n"
         "Until deck runs out:\n  Remember the top card of deck: C\n  If C is black:\n    Deal 1 card from deck to found\n  Otherwise:\n"
         "    Deal 1 card from deck to aside\nEnds with: size of found is 2\n", "proved", 4, 0),
        # Piles laid down: only those that lie there are pointed to, kept, gathered.
        (LAID + "Spectator points to a pile: f\nEnds with: f is at most 3\n", "proved", 3, 0),
        (LAID + "Spectator gathers the piles in any order to table\nEnds with: the top card of table is FORCE\n", "refuted", 6, 4),
        (LAID + "Spectator points to 2 of the piles, and you keep those that FORCE is among\nEnds with: size of discard is at least 4\n",
         "proved", 3, 0),
        (LAID + "Spectator keeps 2 of the piles\nEnds with: size of spare is 4\n", "proved", 3, 0),
        ("Pack: 12 cards, any order\nPlace FORCE on top\nCut off 4 cards of deck to hand\nDeal hand into 2 piles\n"
         "Lay deck down as a new pile\nEnds with: size of pile 3 is 8\n", "proved", 1, 0),
        # Which way up cards lie of which nobody asks where they are.
        ("Pack: 9 cards, any order\nPlace KEY 7th, face up\nDeal 4 cards from deck to table\nSpectator names a number n from 1 to 3\n"
         "Deal n cards from table to hand\nSpectator takes the face-up cards out of deck to hand\nEnds with: size of hand is n + 1\n",
         "proved", 3, 0),
        # Heaps called piles are piles.
        ("Pack: 9 cards, any order\nPlace FORCE on top\nDeal 2 cards from deck to pile 1\nDeal 3 cards from deck to pile 2\n"
         "Spectator points to a pile: p\nEnds with: p is at most 2\n", "proved", 2, 0),
        # A path that gets stuck at a claim is counted where it gets there.
        (f"{ANY}Spectator remembers the bottom card of deck: P\nSpectator remembers the top card of deck: Q\n"
         "If value of P is not 2:\n  Spectator deals 1 card from deck to table\nOtherwise:\n  Spectator deals 1 card from deck to hand\n"
         "Spectator deals value of Q cards from deck to hand\nEnds with: the top card of table is P\n", "refuted", 2652, 2652),
        ("Pack: hearts, each from ace to four\nSpectator shuffles deck\nRemember the top card of deck: A\nDeal 1 card from deck to table\nRemember the top card of deck: B\n"
         "Deal 1 card from deck to table\nRemember the top card of deck: C\nRemember the top card of table: D\n"
         "Let t be value of A + value of D - value of B + value of C - 1\nEnds with: t is at most value of A\n", "refuted", 24, 18),
        ("Pack: 52 cards, any order\nRemember the top card of deck: A\nRemember the top card of deck: B\nLet b be value of B\nLet a be value of A\n"
         "Ends with: a is b\n", "proved", 52, 0),
        ("Pack: 52 cards, any order\nPlace FORCE on top\nRemember the top card of deck: A\nLet a be value of A\nSpectator names a number n from 1 to 2\n"
         "Let b be value of A + n\nEnds with: b is more than a\nEnds with: FORCE is the top card of deck\n", "proved", 104, 0),
    ],
)  # fmt: skip
def test_verdicts_and_paths(text: str, verdict: str, paths: int, failing: int) -> None:
    found = proved(text)
    assert (found.verdict, found.paths, found.failing_paths) == (verdict, paths, failing)
    told = every_path(routine_json(read_routine(text)))
    assert (len(told), sum(path.fails for path in told)) == (paths, failing)
    region = region_of(read_routine(text), Budget())
    assert region and (region.paths, region.passing) == (paths, paths - failing)


@pytest.mark.parametrize(
    ("rows", "chance"),
    [
        (["Remember the top card of deck: A", "Remember the 2nd card of deck: B", "If A is red:", "  If B is red:",
          "    Deal 1 card from deck to table", "Odds of size of table"], Fraction(26 * 25, 52 * 51)),
        # Hearts on one of two tops: 13/52 + 39/52 · 13/51.
        (["Cut off 10 cards of deck to first", "Turn the top card of first face up", "Turn the top card of deck face up",
          "If (suit of the top card of first) is 3:", "  Deal 1 card from first to hearts", "Otherwise:",
          "  If (suit of the top card of deck) is 3:", "    Deal 1 card from deck to hearts", "Odds of size of hearts"],
         Fraction(13, 52) + Fraction(39, 52) * Fraction(13, 51)),
    ],
)  # fmt: skip
def test_odds_know_what_is_out_of_the_pack(rows: list[str], chance: Fraction) -> None:
    found = odds_of(read_routine(ANY + "\n".join(rows) + "\n"), Budget())
    assert {one.outcome: one.least for one in found.chances} == {"0": 1 - chance, "1": chance}


SECRET = f"{ANY}Place FORCE on top\nSpectator secretly thinks of a number n from 1 to 9\n"
THOUGHT = f"{ANY}Spectator thinks of a card in deck: their card\nSpectator cuts deck and completes the cut\n"


@pytest.mark.parametrize(
    ("text", "message"),
    [
        (SECRET + "Write n as the prediction p\nDeal p cards from deck\n", "You do not know n"),
        (SECRET + "Deal n cards from deck\n", "You do not know n"),
        (THOUGHT + "Cut deck to bring their card to the top\nEnds with: the top card of deck is their card\n", "cannot tell it from"),
        (THOUGHT + "Deal cards from deck to table down to their card: c\nEnds with: c is at least 1\n", "cannot tell it from"),
        (THOUGHT + "Deal deck into 4 piles\nSpectator points to 2 of the piles, and you keep those that their card is among\n"
         "Ends with: size of discard is 26\n", "cannot tell it from"),
        (THOUGHT + "Prediction: their card, on paper in pocket\nEnds with: the top card of deck is their card\n", "You do not know what their card is"),
        (THOUGHT + "Take the mate of their card from deck to hand: MATE\n", "You do not know what their card is"),
        (THOUGHT + "Deal value of their card cards from deck\n", "You do not know what their card is"),
    ],
)  # fmt: skip
def test_nobody_reads_minds(text: str, message: str) -> None:
    with pytest.raises(BadRoutine, match=message):
        proved(text)


def test_a_card_that_stands_out_can_be_found() -> None:
    text = (f"{ANY}Spectator remembers the 5th card of deck: their card\nTurn the 5th card of deck face up\n"
            "Spectator cuts deck and completes the cut\nCut deck to bring their card to the top\nEnds with: the top card of deck is their card\n")  # fmt: skip
    assert proved(text).verdict == "proved"
    assert proved(THOUGHT + "Spectator names their card\nCut deck to bring their card to the top\n"
                  "Ends with: the top card of deck is their card\n").verdict == "proved"  # fmt: skip


SOMETIMES = ("Pack: 10 cards, any order\nPlace FORCE 3rd\nSpectator names a number n from 1 to 5\nIf n is more than {most}:\n"
             "  End here\nDeal {count} cards from deck to table\nEnds with: the last card dealt is FORCE\n")  # fmt: skip


def test_a_claim_that_no_path_comes_to_is_bad_input() -> None:
    nobody = SOMETIMES.format(most=0, count=7)
    with pytest.raises(BadRoutine) as bad:
        proved(nobody)
    assert (bad.value.faults[0].line, bad.value.faults[0].message) == (7, "No path comes to this claim.")
    found = solve(SOMETIMES.format(most=0, count="?"), Budget())
    assert found.answers == () and found.complete and found.says == "0 of 11 ways work."
    assert {row.verdict for row in sweep(SOMETIMES.format(most=0, count="?"), Budget()).rows} == {"impossible"}


def test_a_case_that_does_not_occur_is_named() -> None:
    text = f"{ACES}Remember the 4th card of deck: A\nRemember the 5th card of deck: B\nIf value of A is 1:\n  If value of B is 1:\n    Ends with: 1 is 2\nEnds with: 1 is 1\n"
    found = proved(text)
    assert (found.verdict, found.paths, found.failing_paths) == ("proved", 96, 0)
    assert found.headline == "Proved: 1 is 1, whatever they choose; no path comes to line 7"


def test_a_claim_that_some_paths_come_to_says_on_how_many() -> None:
    found = proved(SOMETIMES.format(most=2, count=3))
    assert found.headline == ("Proved on the 2 of 5 paths that come to it: the last card dealt is FORCE; the others end before,"
                              " and nothing is claimed of them")  # fmt: skip
    assert [claim.reached for claim in found.claims] == [2] and found.count and found.count.reached == 2
    assert "2 of them come to a claim" in limits_of(SOMETIMES.format(most=2, count=3), Budget()).says
    (row,) = sweep(SOMETIMES.format(most=2, count="?"), Budget(), {1: ["3"]}).rows
    assert row.says == "5 paths, 2 of them come to a claim"


def test_several_endings_are_told_as_such() -> None:
    text = ("Pack: 9 cards, any order\nPlace A on top\nPlace B 2nd\nSpectator names a number n from 1 to 2\nIf n is 1:\n"
            "  Ends with: the top card of deck is A\nOtherwise:\n  Ends with: the 2nd card of deck is B\n")  # fmt: skip
    assert proved(text).headline == "Proved: every case has its ending, whatever they choose"


RULE = "Pack: 9 cards, any order\nPlace FORCE 5th\nSpectator names a number n from 0 to 8\nSpectator cuts deck at n and completes the cut\nTurn deck over\n"


def test_a_slip_is_judged_by_the_rule() -> None:
    found = {(o.slip.line, o.slip.what): o for o in fragility_of(RULE, Budget()).outcomes}
    for what in ((2, "one place further"), (5, "left out"), (4, "left out")):
        assert found[what].kind != HARMLESS, what
    assert found[5, "left out"].says == "It is not where you look for it on 8 of 9 paths."
    assert found[2, "counted from the other end"].kind == HARMLESS  # it is the middle card
    # P1 without a claim: the piles noted as over instead of under, or not turned over, spoil the rule.
    reports = {
        (o.slip.line, o.slip.what): o
        for o in fragility_of((PROCEDURES / "p01_three_reports.pivot").read_text(encoding="utf-8"), Budget()).outcomes
    }
    assert not any(
        o.kind == HARMLESS for (_, what), o in reports.items() if what in ("over instead of under", "left out")
    )


def test_slips_of_a_routine_that_fails_say_what_they_change() -> None:
    text = ("Pack: 20 cards, any order\nPlace FORCE 10th\nSpectator names a number n from 5 to 25\nDeal n cards from deck\n"
            "Put the dealt cards back on top\nTurn deck over\nTurn deck over\nDeal digit sum of n cards from deck\nEnds with: the last card dealt is FORCE\n")  # fmt: skip
    outcomes = {(o.slip.line, o.slip.what): o for o in fragility_of(text, Budget()).outcomes}
    harmless = outcomes[6, "each card turned where it lies"], outcomes[2, "one place further"]
    assert harmless[1].kind != HARMLESS and "Without it: Fails on" in harmless[1].says
    assert any(
        o.kind == HARMLESS and o.says.startswith("It fails where it fails without it") for o in outcomes.values()
    )


ENDLESS = ("Pack: 6 cards, any order\nPlace A 2nd\nAs often as the spectator likes:\n  Spectator cuts deck and completes the cut\n{}"
           "Ends with: the top card of deck is A\n")  # fmt: skip


def test_without_end_there_is_no_number_of_paths() -> None:
    found = proved(ENDLESS.format(""))
    assert (found.verdict, found.paths, found.failing_paths) == ("refuted", None, None)
    assert found.count == Count(None, None, None, None, some_fail=True) and found.claims[0].failing_paths is None
    assert found.landing and {where.paths for where in found.landing.where} == {None}
    assert limits_of(ENDLESS.format(""), Budget()).says.startswith("Fails on some paths. Paths have no number here")
    many = "Pack: 52 cards\nPlace A 9th\nSpectator cuts deck and completes the cut\nEnds with: the 9th card of deck is A\n"
    assert "There are too many paths to list" in limits_of(many, Budget(states=5, transitions=20)).says
    (out,) = [
        o
        for o in fragility_of(ENDLESS.format("Cut deck to bring A to the top\n"), Budget()).outcomes
        if o.slip.what == "left out"
    ]
    assert out.says == "Fails on some paths."


def test_what_is_known_outside_a_limit_is_told_number_by_number() -> None:
    text = (
        (PROCEDURES / "p03_cut_number_safe.pivot").read_text(encoding="utf-8").replace("from 1 to 19", "from 0 to 33")
    )
    (limit,) = limits_of(text, Budget()).limits
    assert {one.numbers: one.known for one in limit.outside} == {
        "0": "it cannot be carried out", "20": "MATE is 1st in row", "21 to 33": "it cannot be carried out",
    }  # fmt: skip


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("Pack: 40 cards, any order\nSpectator names a number a from 1 to 9\nSpectator names a number b from 1 to 9\nEnds with: b - a is 1\n",
         "Holds exactly when a is b − 1. Holds on 8 of 81 paths."),
        ("Pack: 40 cards, any order\nSpectator names a number a from 1 to 9\nSpectator names a number b from 1 to 9\nEnds with: b - a is not 1\n",
         "Fails exactly when a is b − 1. Holds on 73 of 81 paths."),
        (f"{ANY}Spectator remembers the top card of deck: P\nSpectator names P\nEnds with: suit of P is not 1\n",
         "Holds exactly when P is not a club. Holds on 39 of 52 paths."),
        (f"{ANY}Spectator remembers the top card of deck: P\nSpectator names P\nEnds with: value of P is at least 11\n",
         "Holds exactly when P is a court card. Holds on 12 of 52 paths."),
    ],
)  # fmt: skip
def test_regions_in_words_and_in_paths(text: str, says: str) -> None:
    assert limits_of(text, Budget()).says == says


def test_where_a_card_is_of_which_nobody_asks_any_more() -> None:
    """No path gets past a line, and a proof has forgotten by then where the card lies."""
    text = (
        "Pack: 52 cards, any order\nPlace KEY 7th\nPlace ANCHOR on top\nDeal 1 card from deck to packet\n"
        + "".join(
            f"Spectator names a number {n} from 10 to 20\nDeal {n} cards from deck to {to}\n"
            for n, to in (("n", "table"), ("m", "hand"))
        )
        + "Spectator cuts deck and completes the cut\nSpectator cuts hand and completes the cut\n"
        "Spectator cuts table and completes the cut\nMake sure that KEY is the top card of packet\nEnds with: size of packet is 1\n"
    )
    with pytest.raises(BadRoutine, match="past this line: KEY is 5th in table, not the top card of packet"):
        proved(text)


def test_a_routine_with_too_many_paths_is_not_said_to_be_unknown() -> None:
    many = (
        ANY
        + "Place FORCE on top\n"
        + "".join(f"Spectator names a number {n} from 1 to 50\n" for n in "abc")
        + "Ends with: the top card of deck is FORCE\n"
    )
    assert limits_of(many, Budget()).says == "It holds, whatever they choose: 125,000 paths."


def test_a_reset_looks_at_which_way_up_cards_lie() -> None:
    plan = reset_of(read_routine("Pack: 20 cards, any order\nPlace FORCE 10th\nTurn deck over\n"), Budget())
    assert plan and plan.moves[0].kind == "over" and "at once" in plan.repeatable


def test_strands_of_a_routine_that_follows_no_card(client: TestClient) -> None:
    reply = client.post(
        "/api/strands",
        json={
            "text": "Pack: 9 cards, any order\nDeal 3 cards from deck to table\nEnds with: size of table is 3\n",
            "job": "s",
        },
    )
    assert (reply.status_code, reply.json()) == (200, {"strands": None})


@pytest.mark.parametrize(
    ("rows", "words", "said"),
    [
        ("Deal 20 cards from deck face up to table", "I never saw a card", False),
        ("Turn deck over", "I never saw a card", False),
        ("Deal 20 cards from deck to table", "I never saw a card", True),
        ("Spectator shuffles deck", "The pack was shuffled", True),
        ("Deal 20 cards from deck to table", "The pack was shuffled", False),
        ("Spectator names a number n from 1 to 1", "You named any number from 1 to 1", False),
    ],
)
def test_what_may_be_said_at_the_end(rows: str, words: str, said: bool) -> None:
    assert (words in {one.words for one in recap_of(read_routine(f"{ANY}{rows}\n")) if one.true}) == said


def test_which_orders_of_the_pack_are_covered() -> None:
    assert (
        proved(
            "Pack: clubs, hearts, each from ace to king\nSpectator cuts deck and completes the cut\nEnds with: size of deck is 26\n"
        ).covers
        == "this order of the pack only"
    )
    assert proved(RULE).covers == "every order of the other 8 cards"


def test_what_was_done_is_told_in_words_and_not_in_codes() -> None:
    text = ("Pack: 6 cards, any order\nPlace FORCE on top\nDeal deck into 3 piles\nSpectator points to 1 of the piles, and you keep those that FORCE is among\n"
            "Spectator gathers the piles in any order to table\n")  # fmt: skip
    found = proved(text)
    assert found.verdict == "rule" and found.landing
    told = [words for words, _ in cues_of(Analysis(text)).landing]
    assert told[0] == "the piles pointed to in line 4 is 1, the order of the piles is 1 from the top", told


def test_one_number_is_no_range_and_one_place_no_choice() -> None:
    said = requests_of(read_routine(f"{ANY}Spectator names a number n from 1 to 1\n"))
    assert said[2] == "Name any number (only 1)."
    four = ("Pack: 6 cards, any order\nPlace FORCE on top\nSpectator names a number n from 0 to 1\nSpectator secretly names a number m from 0 to 2\n"
            "Cut deck at n and completes the cut\n".replace("completes", "complete") + "Spectator cuts deck at m and completes the cut\n")  # fmt: skip
    assert proved(four).headline.startswith("One of 3, knowing n: FORCE is ")


def test_a_card_dealt_in_every_case_is_the_last_dealt() -> None:
    text = ("Pack: 9 cards, any order\nPlace FORCE 3rd\nSpectator names a number n from 1 to 2\nIf n is 1:\n  Deal 3 cards from deck to table\n"
            "Otherwise:\n  Deal {} cards from deck to table\nEnds with: the last card dealt is FORCE\n")  # fmt: skip
    assert proved(text.format(3)).verdict == "proved"
    assert proved(text.format(2)).headline == "Fails when n is 2: FORCE is 3rd but the count ends at 2"


def test_a_number_that_is_told_on_some_paths_only_makes_no_formula() -> None:
    text = ("Pack: 9 cards, any order\nPlace FORCE 5th\nSpectator names a number n from 1 to 3\nIf n is 1:\n  Cut deck at 2 and complete the cut\n"
            "Otherwise:\n  Spectator names a number m from 1 to 2\n  Cut deck at m and complete the cut\n")  # fmt: skip
    found = proved(text)
    assert found.verdict == "rule" and found.landing and found.landing.formula is None
    assert next(row.words for row in found.landing.table) == ("n 1", "m is not settled")


def test_suits_go_by_their_names() -> None:
    found = proved(f"{ANY}Place queen of hearts on top\nEnds with: suit of queen of hearts is 1\n")
    assert found.headline == "Fails every time: suit of queen of hearts is hearts, but must be clubs"


def test_what_was_not_tried_is_not_called_impossible() -> None:
    text = "Pack: 40 cards, any order\nPlace FORCE on top\nSpectator names a number n from 1 to ?\nEnds with: size of deck is 40\n"
    rows = {row.values[0]: (row.verdict, row.says) for row in sweep(text, Budget(), {1: ["6", "20000"]}).rows}
    assert rows["6"][0] == "proved"
    assert rows["20000"] == ("unsettled", "A choice among 20,000 numbers is more than can be gone through.")
    found = solve(text, Budget(), {1: ["6", "20000"]})
    assert [values[0] for values in found.answers] == ["6"] and (found.open, found.complete) == (1, False)
    assert found.says == "1 work of the 1 that are settled, of 2 ways in all. 1 is too large to be settled."


def test_more_piles_than_can_be_followed_are_played_up_to_there() -> None:
    laid = "Cut off 2 cards of deck to packet\nLay packet down as a new pile\n"
    text = f"Pack: 20 cards, any order\nPlace FORCE on top\n{7 * laid}Gather the piles in any order to table\n"
    assert proved(text).limit == "orders"
    played = play(read_routine(text))
    assert played.stuck_at == 17 and "7 piles in any order" in played.failures[0]


def test_a_search_that_stops_says_what_stopped_it() -> None:
    text = "Pack: 40 cards, any order\nPlace FORCE ?th\nDeal ? cards from deck\nEnds with: the last card dealt is FORCE\n"
    found = solve(text, Budget(seconds=0.0))
    assert found.says.startswith(
        "None is known to work of the 0 that are settled, of 1,640 ways in all. The search stopped: 0 s had passed"
    )


def test_both_sides_of_a_comparison_have_their_own_time() -> None:
    text = (PROCEDURES / "p08_two_keys.pivot").read_text(encoding="utf-8")
    found = compared(text, RULE, Budget())
    assert found.left.verdict == "refuted" and found.right.verdict == "rule" and found.right.harmful is not None


def test_odds_drawn_at_random_say_so_and_how_sure_they_are() -> None:
    text = f"{ANY}Remember the top card of deck: A\nEnds with: suit of A is 1\n"
    exact = {one.outcome: one.least for one in odds_of(read_routine(text), Budget()).chances}
    assert exact == {"works": Fraction(1, 4), "fails": Fraction(3, 4)}
    drawn = odds_of(read_routine(text), Budget(transitions=1), seed=3, samples=400)
    assert (
        drawn.says
        == "Not exact: from 400 paths drawn at random (seed 3); each interval holds the true value 95 times in 100."
    )
    works = next(one for one in drawn.chances if one.outcome == "works")
    assert works.seen and chance_text(works).startswith(
        f"about {float(works.seen) * 100:.4g} % (95 times in 100 from "
    )


def test_a_safe_limit_says_whether_the_routine_then_works() -> None:
    text = ("Pack: 40 cards, any order\nPlace FORCE 10th\nSpectator names a number n from 10 to 19\nDeal n cards from deck\n"
            "Put the dealt cards back on top\nDeal digit sum of n cards from deck\nEnds with: the last card dealt is FORCE\n")  # fmt: skip
    found = odds_desk.answer(odds_desk.OddsAsks(routine=text, habits=["n: evenly from 5 to 30"]), Budget())
    assert found.limits[0].works.startswith("Fails on ")
    inside = odds_desk.answer(odds_desk.OddsAsks(routine=text, habits=["n: evenly from 11 to 18"]), Budget())
    assert inside.limits[0].works.startswith("Proved")


@pytest.mark.parametrize("row", ["digit sum of 9 * n", "digit sum of 52 - n", "remainder of n divided by 3 + 1"])
def test_a_sum_that_could_be_two_asks_for_brackets(row: str) -> None:
    (line,) = read_routine(f"Deal {row} cards from deck\n").lines
    assert "brackets" in line.faults[0].expected


@pytest.mark.parametrize(
    "row",
    ["half of n + 2 rounded up", "9 - digit sum of n", "(digit sum of n) + 1", "half of digit sum of n rounded down", "digit sum of (9 * n)",
     "a + 3 * digit sum of n", "remainder of n + 2 divided by 3"],
)  # fmt: skip
def test_what_is_written_is_read_again_as_it_was(row: str) -> None:
    once = read_routine(f"Deal {row} cards from deck\n")
    again = read_routine(routine_text(once))
    assert not once.lines[0].faults and once.lines[0].values == again.lines[0].values


TELLING = [
    # (steps behind “remembers the top card” and the choice of n, the place looked through, what they do to a pack of three)
    ("Spectator cuts deck at n and completes the cut\n", "deck", lambda pack, n: (pack[n:] + pack[:n], ())),
    ("If P is red:\n  Spectator cuts deck at n and completes the cut\n", "deck",
     lambda pack, n: (pack[n:] + pack[:n] if pack[0] % 2 else pack, ())),
    ("Spectator deals n cards from deck to table\n", "deck", lambda pack, n: (pack[n:], pack[:n][::-1])),
    ("Spectator deals n cards from deck to table\nSpectator names a number k from 2 to 3\nSpectator turns deck over\n", "deck",
     lambda pack, n: (pack[n:][::-1], pack[:n][::-1])),
    ("Spectator deals 1 card from deck to table\nSpectator cuts deck at n - 1 and completes the cut\n", "deck",
     lambda pack, n: (pack[1:][n - 1 :] + pack[1:][: n - 1], pack[:1])),
]  # fmt: skip


@pytest.mark.parametrize(("steps", "place", "done"), TELLING)
def test_what_faces_tell_is_so_for_every_pack(steps: str, place: str, done: Callable[..., Any]) -> None:
    """By brute force: every pack of three out of eight cards, half of them red; the same faces with another n are a failure."""
    looks: dict[Any, set[int]] = {}
    for pack in permutations(range(8), 3):
        for n in (1, 2):
            looks.setdefault(done(pack, n)[0], set()).add(n)
    text = (
        "Pack: 3 cards, any order\nSpectator remembers the top card of deck: P\nSpectator names P\n"
        f"Spectator secretly chooses a number n from 1 to 2\n{steps}Ends with: the faces of {place} tell n\n"
    )
    assert (prove(read_routine(text)).verdict == "proved") == all(len(told) == 1 for told in looks.values())
