"""What one may say where nothing is said, and when it goes another way."""

from __future__ import annotations

import pytest

from golden_pivot import demo
from golden_pivot.core.analysis import Analysis
from golden_pivot.core.answers.proving import prove
from golden_pivot.core.budget import Budget
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.language.spoken import request_of
from golden_pivot.core.show.recoveries import after_slips, cautions_of, outside_limits, slips_for_a_sheet
from golden_pivot.core.show.requests import filled_in, gaps_of, requests_of
from golden_pivot.core.show.wording import wording_of
from golden_pivot.core.steps import REGISTRY
from tests.core.show import SHOWN


def test_what_to_do_outside_a_limit() -> None:
    """By hand: with 29 the digit sum is 11 and the light is 29 + 1 − 28 = 2nd; with 40 it is 13th. Both lie there at the end."""
    found = list(outside_limits(demo.demo_text("harbour_light"), Budget()))
    assert [(one.when, one.then, one.says) for one in found] == [
        ("n is 29", "LANTERN is 10th in dealt", "Turn over the 10th of the cards dealt."),
        ("n is 40", "LANTERN is 9th in deck", "Turn over the 9th card of the pack."),
    ]
    wide = demo.demo_text("harbour_light").replace("from 30 to 39", "from 31 to 38")
    assert [one.then for one in outside_limits(wide, Budget())] == ["it works all the same"] * 2


def test_what_to_do_when_a_hand_slips() -> None:
    """By hand: a card too many in the last deal leaves the light one below the top of what was dealt, one too few on the pack."""
    text = demo.demo_text("harbour_light")
    slips = slips_for_a_sheet(Analysis(text))
    found = {(one.line, one.when): one for one in after_slips(text, slips, Budget())}
    assert found[10, "one card more"].says == "Turn over the 2nd of the cards dealt."
    assert found[10, "one card fewer"].then == "LANTERN is 1st in deck"
    watch = demo.demo_text("watch_below")
    cautions = cautions_of(read_routine(watch), slips_for_a_sheet(Analysis(watch)))
    assert any("let the spectator decide" in words for words in cautions[7])
    second = demo.demo_text("second_berth")
    assert any(
        "it must be right" in words
        for words in cautions_of(read_routine(second), slips_for_a_sheet(Analysis(second)))[7]
    )


def test_every_step_of_the_spectators_can_be_asked_for() -> None:
    """Nothing of the notation is spoken: no names after colons, no numbers that the performer does not know."""
    for kind in REGISTRY.values():
        begin = "Pack: 52 cards, any order\nSpectator secretly thinks of a number n from 1 to 5\n"
        (line,) = (line for line in read_routine(begin + kind.example + "\n").walk() if line.number == 3)
        for hidden in (set(), {"n"}):
            words = request_of(line, hidden)
            assert words[0].isupper() and ": " not in words and "[" not in words and ">" not in words, words
            assert "Spectator" not in words and ("{n}" not in words or not hidden), words


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ("Spectator deals n cards from deck to table", "Deal {n} cards from the pack onto the table, one at a time."),
        ("Spectator deals k cards from deck to pocket", "Deal your number of cards from the pack into your pocket, one at a time."),
        ("Spectator deals 1 card from deck to table", "Deal 1 card from the pack onto the table, one at a time."),
        ("Spectator secretly cuts off m cards of deck, m from 3 to 9, to hand", "Cut off some cards of the pack from 3 to 9 into your hand, and keep it to yourself."),
        ("Spectator remembers the bottom card of deck: their card", "Look at the bottom card of the pack and remember it."),
        ("Spectator turns deck over", "Turn the pack over."),
        ("Spectator secretly thinks of a number j from 1 to n", "Think of any number from 1 to {n}, and keep it to yourself."),
    ],
)  # fmt: skip
def test_what_one_may_say(line: str, said: str) -> None:
    begin = "Pack: 20 cards, any order\nSpectator names a number n from 2 to 4\nSpectator secretly thinks of a number k from 1 to 3\n"
    assert requests_of(read_routine(begin + line + "\n"))[4] == said


@pytest.mark.parametrize("name", SHOWN)
def test_lines_can_be_written_into_the_gaps(name: str) -> None:
    text = demo.demo_text(name)
    full = filled_in(text)
    routine = read_routine(full)
    assert not routine.faults and gaps_of(routine) == {} and filled_in(full) == full
    assert prove(routine, Budget()).headline == prove(read_routine(text), Budget()).headline
    assert [one for one in wording_of(Analysis(full)) if "{" in one.said] == [], "every field is known"
