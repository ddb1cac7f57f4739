"""The parts of the reader by themselves: normal sentences, amounts, places, cards by where they lie, who does it."""

from __future__ import annotations

import pytest

from golden_pivot.core.reading.amounts import number_said, range_said
from golden_pivot.core.reading.clauses import clauses_of
from golden_pivot.core.reading.normal import normal
from golden_pivot.core.reading.nouns import card_named, place_named, target
from golden_pivot.core.reading.pointing import spot_said
from golden_pivot.core.reading.situation import situation_of

NUMBER = "Pack: 52 cards, any order\nPlace FORCE 10th\nSpectator names a number n from 10 to 19\nDeal n cards from deck to table"
PACKETS = "Pack: 52 cards, any order\nDeal 12 cards from deck to table\nSpectator cuts off 8 cards of deck to hand"
PILES = (
    "Pack: 27 cards\nSpectator thinks of a card in deck: their card\nDeal deck into 3 piles\n"
    "Spectator tells which pile holds their card: p"
)
ROW = "Pack: 52 cards, any order\nDeal 9 cards from deck face up to row, from left to right"


@pytest.mark.parametrize(
    ("said", "plain"),
    [
        ("She deals ten cards, face-down, onto the table.", "they deal 10 cards , face down , onto table"),
        ("Deal QH, 10S and the ace of clubs", "deal ⟨queen of hearts⟩ , ⟨ten of spades⟩ and ⟨ace of clubs⟩"),
        ("the twenty-first card", "21st card"),
        ("twenty one cards", "21 cards"),
        ("half a dozen", "6"),
        ("a couple of cards", "2 cards"),
        ("Spell H-A-R-B-O-U-R", "spell “harbour”"),
        ("Spell LAMP", "spell “lamp”"),
        ("They’re dealt", "they be deal"),
        ("Her neighbour cuts", "their neighbour cut"),
        ("Let her cut the deck", "let them cut deck"),
        ("Give her pile to her", "give their pile to them"),
        ("The lady on the left looks", "they look"),
        ("the volunteer's card", "their card"),
        ("Put it on the mat", "put it on table"),
        ("the two top cards", "top 2 cards"),
        ("She takes a good look at the bottom card", "they look at bottom card"),
        ("Please cut the pack", "cut deck"),
        ("Deal 10-19 cards", "deal 10 ~ 19 cards"),
        ("no. 7", "number 7"),
        ("cd on btm of pkt", "card on bottom of packet"),
        ("", ""),
    ],
)
def test_a_normal_sentence(said: str, plain: str) -> None:
    assert normal(said, frozenset({"KEY", "n"})) == plain


@pytest.mark.parametrize(
    ("said", "ranges"),
    [
        ("from 3 to 9", [(3, 9)]), ("between 10 and 20", [(10, 20), (11, 19)]), ("between 10 and 20 , both include", [(10, 20)]),
        ("up to 15", [(1, 15)]), ("under 30", [(1, 29)]), ("2-digit number below 30", [(10, 29)]), ("no more than 12", [(1, 12)]),
        ("not above 18", [(1, 18)]), ("at least 5", [(5, 52)]), ("more than 3 but fewer than 9", [(4, 8)]), ("in teens", [(13, 19)]),
        ("20s", [(20, 29)]), ("2-digit", [(10, 99)]), ("say , 3 to 9", [(3, 9)]), ("number of cards", None),
    ],
)  # fmt: skip
def test_a_range(said: str, ranges: list[tuple[int, int]] | None) -> None:
    found = range_said(said, 52)
    assert (found and found[0]) == ranges


@pytest.mark.parametrize(
    ("said", "number"),
    [
        ("7", "7"), ("that many", "n"), ("as many as they say", "n"), ("sum of its digits", "digit sum of n"), ("2 more than that", "n + 2"),
        ("3 fewer than number", "n - 3"), ("2 fewer than number name", "n - 2"), ("twice that number", "2 * n"), ("n plus 1", "n + 1"),
        ("number minus 3", "n - 3"), ("number of cards left", "size of deck"), ("letters of “lamp”", "letters of “lamp”"),
        ("last digit", "remainder of n divided by 10"), ("king", "13"), ("half of deck", "half of size of deck rounded down"),
        ("a further 10", "10"), ("another n", "n"), ("nonsense", None), ("", None),
    ],
)  # fmt: skip
def test_a_number(said: str, number: str | None) -> None:
    assert number_said(said, situation_of(NUMBER)) == number


@pytest.mark.parametrize(
    ("before", "said", "place"),
    [
        *((PACKETS, words, "hand") for words in ("their packet", "hand", "cards they hold", "packet in their hand", "them")),
        *((PACKETS, words, "table") for words in ("packet on table", "tabled cards", "everything on table", "mine")),
        *((PACKETS, words, "deck") for words in ("rest", "undealt cards", "stock", "whole deck")),
        (PACKETS, "elephants", None), (PACKETS, "cards of elephants", None),
        (PILES, "pile 2", "pile 2"), (PILES, "left pile", "pile 1"), (PILES, "middle one", "pile 2"), (PILES, "rightmost heap", "pile 3"),
        (PILES, "chosen pile", "pile p"), (PILES, "their pile", "pile p"), (PILES, "other heap", None), (PILES, "4th pile", None),
        (ROW, "row", "row"), (ROW, "line", "row"), (ROW, "deck", "deck"),
        *((NUMBER, words, "table") for words in ("dealt cards", "cards just deal", "those they deal", "it")),
    ],
)  # fmt: skip
def test_a_place(before: str, said: str, place: str | None) -> None:
    assert place_named(said, situation_of(before)) == place


def test_where_cards_go_need_not_be_there_yet() -> None:
    s = situation_of(NUMBER)
    places = {said: target(said, s) for said in ("mat", "my pocket", "aside", "discard pile", "lifeboat", "face")}
    assert places == {
        "mat": "table",
        "my pocket": "pocket",
        "aside": "aside",
        "discard pile": "discard",
        "lifeboat": "lifeboat",
        "face": None,
    }


@pytest.mark.parametrize(
    ("before", "said", "spot"),
    [
        (PACKETS, "top card", "the top card of deck"), (PACKETS, "bottom card of their packet", "the bottom card of hand"),
        (PACKETS, "3rd card from bottom", "the 3rd card from the bottom of deck"), (PACKETS, "face card", "the bottom card of deck"),
        (PACKETS, "card at position 5", "the 5th card of deck"), (PACKETS, "what lie at bottom of table", "the bottom card of table"),
        (ROW, "3rd from left", "the 3rd card from the left of row"), (ROW, "2nd card from right of row", "the 2nd card from the right of row"),
        (NUMBER, "last card deal", "the last card dealt"), (NUMBER, "next card", "the next card"),
        (NUMBER, "card they stop at", "the last card dealt"), (NUMBER, "card at that number", "the nth card of deck"),
        (NUMBER, "weather", None),
    ],
)  # fmt: skip
def test_a_card_by_where_it_lies(before: str, said: str, spot: str | None) -> None:
    assert spot_said(said, situation_of(before)) == spot


@pytest.mark.parametrize(
    ("before", "said", "card"),
    [(NUMBER, "force card", "FORCE"), (NUMBER, "card", "FORCE"), (PILES, "card they think of", "their card"),
     (PILES, "selection", "their card"), (NUMBER, "⟨queen of hearts⟩", "queen of hearts"), (NUMBER, "their card", None)],
)  # fmt: skip
def test_a_card_by_name(before: str, said: str, card: str | None) -> None:
    assert card_named(said, situation_of(before)) == card


@pytest.mark.parametrize(
    ("said", "words", "who", "secretly"),
    [
        ("they deal 10 cards", "deal 10 cards", "spectator", False),
        ("have them cut deck", "cut deck", "spectator", False),
        ("deck be cut and cut complete", "cut deck and cut complete", None, False),
        ("while you look away , they deal 3 cards", "deal 3 cards", "spectator", True),
        ("you deal 5 cards", "deal 5 cards", "performer", False),
        ("packet be mix by them", "mix packet", "spectator", False),
        ("from hand deal 5", "deal 5 from hand", None, False),
        ("let cards be shuffle by they", "shuffle cards", "spectator", False),
        ("1 riffle , by they", "1 riffle", "spectator", False),
    ],
)
def test_who_does_it(said: str, words: str, who: str | None, secretly: bool) -> None:
    first = next(iter(clauses_of(said, None, situation_of(PACKETS))))
    assert (first.words, first.who, first.secretly) == (words, who, secretly)
