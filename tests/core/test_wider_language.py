"""The sentences about sorts, layouts, claims in the middle, several spectators: what is wrong in them is told where it stands."""

from __future__ import annotations

import pytest

from golden_pivot.core.answers.notes import badges_of
from golden_pivot.core.answers.proving import prove
from golden_pivot.core.budget import Budget
from golden_pivot.core.building import compile_routine
from golden_pivot.core.faults import BadRoutine, Fault
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.language.printer import routine_json
from golden_pivot.core.programme.pack_between import pack_between
from golden_pivot.core.show.reset import reset_of
from golden_pivot.core.show.setup import setup_of
from golden_pivot.witness import every_path

PACK = "Pack: 9 cards, any order\nPlace FORCE 3rd\n"
TWO = PACK + "Spectator 1 secretly names a number a from 1 to 3\nSpectator 1 thinks of a card in deck: X\n"
GRID = PACK + "Lay 9 cards of deck in 3 rows of 3\n"


def fault_of(text: str) -> Fault:
    """The only one there is."""
    try:
        compile_routine(read_routine(text))
    except BadRoutine as bad:
        (fault,) = bad.faults
        return fault
    raise AssertionError(f"nothing is wrong in {text}")


@pytest.mark.parametrize(
    ("before", "line", "at", "says"),
    [
        (PACK, "Make sure that FORCE is in nowhere", "nowhere", "no place called nowhere"),
        (PACK, "Make sure that GHOST is in deck", "GHOST", "no card called GHOST"),
        (PACK, "Make sure that FORCE is in deck and size of deck is 9 or size of deck is 8", "or", "does not fit"),
        (PACK, "Ends with: 2 cards of deck are purple", "purple", "does not fit"),
        (PACK, "Ends with: number of red cards of nowhere is 3", "number of red cards of nowhere", "no place called nowhere"),
        (PACK, "Place TOP on top", "TOP", "cannot be a name"),
        (PACK.replace("FORCE", "ace of clubs"), "Place four of a kind on top", "on top", "ace of clubs already lies there"),
        (PACK, "Place four of a kind 8th", "8th", "the pack has 9"),
        (PACK, "Place four of a kind at position 2 from the left", "at position 2 from the left", "no position 2 from the left"),
        (PACK + "Place four of a kind 4th\n", "Place ace of clubs 5th", "ace of clubs", "one of four of a kind"),
        (PACK + "Place four of a kind 4th\n", "Place four of a kind 5th", "Place four of a kind 5th", "arranged already"),
        ("Pack: 60 cards, any order\nPlace FORCE 5th\n", "Place four of a kind on top", "on top", "eight of each value"),
        (PACK, "Arrange the pack red, clubs in turn", "red, clubs", "colours and suits"),
        (PACK, "Arrange the pack, from the top: 3 red cards, 4 black cards", "3 red cards, 4 black cards", "7 cards, and the pack has 9"),
        (PACK.replace("FORCE", "ace of clubs"), "Arrange the pack red, black in turn", "red, black", "cannot lie 3rd"),
        (PACK, "Spectator goes from position 1 of deck to a neighbour: q", "deck", "none is beside another"),
        (GRID, "Spectator goes from position 1 of grid to a neighbour, 40 times: q", "40", "Nobody goes 40 times"),
        (PACK, "Ends with: the card at row 1 column 1 of deck is FORCE", "the card at row 1 column 1 of deck", "no rows and columns"),
        (PACK, "Square up each row of deck as a pile", "deck", "lie in a heap"),
        (PACK, "Spectator chooses one of “ox”, “ox”: w", "“ox”, “ox”", "nothing to choose"),
        (TWO, "Spectator 2 deals a cards from deck to table", "a", "Spectator 2 does not know a"),
        (TWO, "Spectator 2 tells a", "a", "Spectator 2 does not know a"),
        (TWO, "Spectator 2 names X", "X", "spectator 1 has seen it"),
        (TWO, "Spectator 2 whispers a to spectator 1", "a", "not spectator 2’s"),
        (TWO, "Deal a cards from deck to table", "a", "You do not know a"),
        (PACK, "Let k be j + 1", "j + 1", "no number called j"),
        (PACK, "Deal 2 ^ 50 cards from deck to table", "", ""),
    ],
)  # fmt: skip
def test_bad_input_is_told_at_its_place(before: str, line: str, at: str, says: str) -> None:
    text = before + line + "\n"
    if not says:  # a power that is too large is told on the paths that come to it
        with pytest.raises(BadRoutine, match="a power is too large"):
            prove(read_routine(text + "Ends with: FORCE is in deck\n"))
        return
    fault = fault_of(text)
    row = text.splitlines()[fault.line - 1]
    assert row[fault.column - 1 : fault.end - 1] == at and says in fault.message and fault.remedy


def test_an_error_in_a_case_brings_no_other_below_it() -> None:
    case = (
        "Spectator names a number n from 1 to 3\nIf n is 2:\n  Put nowhere on deck\n  Ends with: FORCE is in deck\n"
    )
    assert fault_of(PACK + case + "Deal n cards from deck\nEnds with: FORCE is in deck\n").line == 5


def test_a_number_of_one_case_may_have_the_name_of_another() -> None:
    cases = "Spectator names a number a from 1 to 2\n" + "".join(
        f"If a is {i}:\n  Spectator names a number n from 1 to {i + 1}\n  Deal n cards from deck to table\n"
        for i in (1, 2)
    )
    found = prove(read_routine(PACK + cases + "Ends with: size of table is at most a + 1\n"))
    assert (found.verdict, found.paths) == ("proved", 5)
    assert (
        "not settled on every path"
        in fault_of(PACK + cases + "Deal n cards from deck\nEnds with: FORCE is in deck\n").message
    )


def test_a_whispered_number_is_known_to_both_and_to_nobody_else() -> None:
    text = TWO + "Spectator 1 whispers a to spectator 2\nSpectator 2 deals a cards from deck to table\n"
    assert prove(read_routine(text + "Ends with: size of table is a\n")).verdict == "proved"
    assert "Spectator 3 does not know a" in fault_of(text + "Spectator 3 deals a cards from deck to table\n").message


def test_what_is_whispered_in_one_case_is_not_known_behind_it() -> None:
    case = "Spectator 1 names a number n from 1 to 2\nIf n is 1:\n  Spectator 1 whispers a to spectator 2\n"
    assert (
        "Spectator 2 does not know a"
        in fault_of(TWO + case + "Spectator 2 deals a cards from deck to table\n").message
    )


def test_a_break_is_lost_where_somebody_else_has_the_cards() -> None:
    held = PACK + "Hold a break under the 4th card of deck: GAP\n"
    cut = "Cut off the cards of deck down to GAP to table\nEnds with: size of table is 4\n"
    assert prove(read_routine(held + cut)).verdict == "proved"
    with pytest.raises(BadRoutine, match="do not know what GAP is"):
        prove(read_routine(held + "Spectator cuts deck and completes the cut\n" + cut))


def test_an_arranged_pack_is_arranged_anew() -> None:
    arranged = read_routine(
        PACK
        + "Arrange the pack red, black in turn\nDeal 3 cards from deck\nEnds with: the last card dealt is FORCE\n"
    )
    steps = setup_of(arranged).steps
    assert steps[0].startswith("Arrange the pack so that from the top its cards are red, black in turn")
    assert reset_of(arranged, Budget()) is None
    assert not prove(arranged).covers_every_order
    assert "arranged" in pack_between(read_routine(PACK + "Ends with: FORCE is in deck\n"), arranged, Budget()).says


def test_who_looks_through_cards_has_seen_some() -> None:
    """Where a card lies nobody can tell who has not looked: it is then no trick at a distance."""
    asked = "Spectator deals 5 cards from deck to table\nIf FORCE is in table:\n  “It is there.”\nEnds with: FORCE is in table\n"
    assert "at a distance" not in badges_of(read_routine(PACK + asked))
    assert "at a distance" in badges_of(
        read_routine(PACK + "Spectator deals 5 cards from deck to table\nEnds with: FORCE is in table\n")
    )


@pytest.mark.parametrize(
    "line",
    ["Deal 9 cards from deck to table, 3 at a time", "Turn the top 5 cards of deck over where they lie",
     "Turn the bottom 6 cards of deck over where they lie"],
)  # fmt: skip
def test_cards_that_pass_singly_or_lie_open_between_are_seen(line: str) -> None:
    """The 4th of nine is the top of the second three, and is turned by itself: its back shows."""
    found = prove(read_routine(f"Pack: 9 cards, any order\nPlace MARK 4th\n{line}\nNever shows: the back of MARK\n"))
    assert found.verdict == "refuted"


@pytest.mark.parametrize(
    ("line", "says"),
    [
        ("If b is even:\n  Spectator 2 deals b cards from deck to table", ""),
        ("If b is even:\n  Spectator 1 deals 1 card from deck to table", "Spectator 1 does not know b"),
        ("Spectator 2 answers y, truly, whether X is in deck", "Spectator 2 does not know what X is"),
        ("If X is in deck:\n  Spectator 2 deals 1 card from deck to table", "Spectator 2 does not know what X is"),
        ("If X is in deck:\n  Spectator 1 deals 1 card from deck to table", ""),
        ("If X is red:\n  Spectator 2 deals 1 card from deck to table", "Spectator 2 does not know what X is"),
    ],
)
def test_who_acts_in_a_case_or_answers_goes_by_what_that_one_knows(line: str, says: str) -> None:
    text = TWO + "Spectator 2 secretly names a number b from 1 to 4\n" + line + "\n"
    if says:
        assert says in fault_of(text).message
    else:
        compile_routine(read_routine(text + "Ends with: size of deck is at most 9\n"))


IN_ORDER = "Pack: {} cards, any order\nPlace {} in this order, the first on top\n"


@pytest.mark.parametrize(
    ("cards", "claim", "verdict"),
    [
        (
            "ace of clubs, two of hearts, ace of spades, two of diamonds",
            "the cards of deck alternate in colour",
            "proved",
        ),
        (
            "ace of clubs, two of hearts, ace of spades, two of clubs",
            "the cards of deck alternate in colour",
            "refuted",
        ),
        (
            "ace of clubs, two of spades, ace of hearts, two of diamonds",
            "the cards of deck alternate in colour",
            "refuted",
        ),
        ("ace of clubs, two of spades, ace of hearts, two of diamonds", "the cards of deck rotate in suit", "proved"),
        (
            "ace of clubs, two of spades, ace of hearts, two of diamonds, six of diamonds",
            "the cards of deck rotate in suit",
            "refuted",
        ),
        ("ace of clubs, two of hearts", "ace of clubs is black", "proved"),
        ("ace of clubs, two of hearts", "two of hearts is black", "refuted"),
        ("ace of clubs, two of hearts", "two of hearts is a heart and ace of clubs is an ace", "proved"),
    ],
)
def test_claims_by_sort_of_a_pack_that_is_known(cards: str, claim: str, verdict: str) -> None:
    text = IN_ORDER.format(cards.count(",") + 1, cards) + f"Ends with: {claim}\n"
    assert prove(read_routine(text)).verdict == verdict
    (path,) = every_path(routine_json(read_routine(text)))
    assert path.fails == (verdict == "refuted")
