"""The sentences that speak of sorts of cards, layouts, words and cases: how people write them. See test_sayings.py."""

from __future__ import annotations

import pytest

from golden_pivot.core.reading import read_line

# fmt: off
ROWS = {
    "Pack: 52 cards, any order\nDeal 9 cards from deck face up to row, from left to right": [
        ("She points to any one of them",
         "Spectator names a number k from 1 to 9 / Spectator remembers the kth card of row: their card"),
        ("The second spectator touches a card in the row",
         "Spectator 2 names a number k from 1 to 9 / Spectator 2 remembers the kth card of row: their card"),
    ],
    "Pack: 27 cards, any order\nSpectator thinks of a card in deck: their card\nDeal deck into 3 piles, face up\n"
    "Spectator tells which pile holds their card: n\nGather the piles, pile n 2nd, the others in any order": [
        (said, "Repeat 2 times: /   Deal deck into 3 piles, face up /   Spectator tells which pile holds their card: a /   "
         "Gather the piles, pile a 2nd, the others in any order")
        for said in ("Do this twice more", "Repeat all this two more times")
    ],
    "Pack: 52 cards, any order\nSpectator remembers the top card of deck: their card\nTake the top card of deck to pocket": [
        ("The card in the pocket is their card", "Ends with: the top card of pocket is their card"),
        ("Ends with: the card in your pocket is her card", "Ends with: the top card of pocket is their card"),
    ],
    "Pack: 9 cards\nPlace FORCE 2nd\nDeal 1 card from deck to table": [
        ("Ends with: FORCE is at position 3 in deck", "Ends with: the 3rd card of deck is FORCE"),
        ("FORCE ends up third", "Ends with: the 3rd card of deck is FORCE"),
        ("FORCE finishes at the bottom", "Ends with: the bottom card of deck is FORCE"),
        ("FORCE is on the table", "Ends with: FORCE is in table"),
    ],
    "Pack: 52 cards, any order\nRemember the bottom card of deck: KEY\nSpectator remembers the top card of deck: their card": [
        ("Their card is right after the key card", "Ends with: their card is directly below KEY"),
        ("The card next to the key is their card", "Ends with: their card is next to KEY"),
        ("Her card is ten cards after the key",
         "Cut deck to bring KEY to the top / Ends with: the 11th card of deck is their card"),
        ("Find the key card", "# Find the key card"),
        ("Cut the pack so the key is on top", "Cut deck to bring KEY to the top"),
    ],
    "Pack: 52 cards, any order\nSpectator names a number n from 10 to 19\nDeal n cards from deck to table": [
        ("Add the two digits together", "Reckon digit sum of n: k"),
        ("She adds its digits", "Spectator reckons digit sum of n: k"),
        ("They deal that many cards back on the deck", "Spectator deals n cards from table to deck"),
        ("Deal that many back", "Deal n cards from table to deck"),
        ("Add the digits and deal that many back onto the pack",
         "Reckon digit sum of n: k / Deal k cards from table to deck"),
        ("They keep the number in mind", "# They keep the number in mind"),
    ],
    "Pack: 52 cards, any order\nSpectator cuts off k cards of deck, k from 16 to 25, to hand": [
        ("She counts it", "Spectator secretly reckons size of hand: n"),
        ("She counts her cards", "Spectator secretly reckons size of hand: n"),
        ("He counts his packet aloud", "Spectator reckons size of hand: n"),
    ],
    "Pack: 52 cards, any order": [
        ("Deal the cards face up into three piles", "Deal deck into 3 piles, face up"),
        ("Remember the bottom card: KEY", "Remember the bottom card of deck: KEY"),
        ("Note the bottom card and call it MARK", "Remember the bottom card of deck: MARK"),
        ("The second spectator shuffles the pack", "Spectator 2 shuffles deck"),
        ("Spectator 3 cuts off about half and shuffles it",
         "Spectator 3 secretly cuts off n cards of deck, n from 20 to 32, to hand / Spectator 3 shuffles hand"),
        ("The deck is cut and the cut is completed", "Cut deck and complete the cut"),
        ("The cards are cut and the cut completed as often as they like",
         "As often as the spectator likes: /   Spectator cuts deck and completes the cut"),
        ("Arrange the pack so that red and black alternate",
         "Arrange the pack red, black in turn"),
        ("Get any four of a kind to the top",
         "Place four of a kind on top"),
        ("Cull any four of a kind to the bottom of the pack",
         "Place four of a kind at the bottom"),
        ("Make a ring of ten cards",
         "Lay 10 cards of deck in a ring"),
        ("Set out twelve cards in a circle",
         "Lay 12 cards of deck in a ring"),
        ("They name any fruit",
         "Spectator names a word, letters n from 3 to 12"),
        ("They think of a country",
         "Spectator secretly thinks of a word, letters n from 3 to 12"),
        ("Deal the deck into four piles from right to left",
         "Deal deck into 4 piles, from right to left"),
        ("She deals the pack into three heaps, right to left",
         "Spectator deals deck into 3 piles, from right to left"),
        ("Deal twelve cards in packets of three",
         "Deal 12 cards from deck to table, 3 at a time"),
        ("Push off twelve cards three at a time",
         "Deal 12 cards from deck to table, 3 at a time"),
        ("Slide three cards off the bottom of the pack onto the table",
         "Take the bottom 3 cards of deck to table"),
        ("Turn the bottom two cards over one by one",
         "Turn the bottom 2 cards of deck over where they lie"),
        ("Exchange the top card of the pack with the bottom card of the pack",
         "Swap the top card of deck and the bottom card of deck"),
        ("The four kings lie together somewhere in the pack",
         "Ends with: all kings of deck lie together"),
    ],
    "Pack: 12 cards, any order\nDeal deck into 3 piles": [
        ("Deal a card from pile 2 onto each of the others",
         "Deal a card from pile 2 onto each of the other piles"),
        ("They drop one card from the second pile on each of the other piles",
         "Spectator deals a card from pile 2 onto each of the other piles"),
        ("Put a card from pile 1 on each of the other heaps",
         "Deal a card from pile 1 onto each of the other piles"),
    ],
    "Pack: 52 cards, any order\nPlace FORCE 10th": [
        ("Pull FORCE out of the pack",
         "Take FORCE out of deck to table"),
        ("Remove FORCE from the deck",
         "Take FORCE out of deck to aside"),
        ("Make sure that FORCE is in the pack",
         "Make sure that FORCE is in deck"),
        ("Check that FORCE lies in the pack",
         "Make sure that FORCE is in deck"),
        ("As long as FORCE is in the pack",
         "As long as FORCE is in deck:"),
        ("Either the top or the bottom card of the pack is FORCE",
         "Ends with: the top card of deck is FORCE or the bottom card of deck is FORCE"),
    ],
    "Pack: 52 cards, any order\nPlace MARK 20th": [
        ("Cut just above MARK",
         "Cut off the cards of deck above MARK to table"),
        ("Cut just below MARK",
         "Cut off the cards of deck down to MARK to table"),
    ],
    "Pack: 52 cards, any order\nDeal 5 cards from deck face up to table": [
        ("Take all the face-up cards out of the pack",
         "Take the face-up cards out of deck to table"),
        ("If the top card of the table is black",
         "If the top card of table is black:"),
        ("If every card on the table is face up",
         "If every card of table is face up:"),
        ("If the table holds two red cards",
         "If 2 cards of table are red:"),
    ],
    "Pack: 52 cards, any order\nPlace FORCE 10th\nSpectator names a number n from 10 to 19": [
        ("Work out twice n plus 3",
         "Reckon 2 * n + 3: k"),
    ],
    "Pack: 9 cards, any order\nSpectator thinks of a card in deck: their card\nLay 9 cards of deck in 3 rows of 3 face up": [
        ("They tell you which row their card is in",
         "Spectator tells which row of grid holds their card: n"),
        ("They say which column their card is in",
         "Spectator tells which column of grid holds their card: n"),
        ("Push each column together into a pile",
         "Square up each column of grid as a pile"),
        ("Collect the rows into piles",
         "Square up each row of grid as a pile"),
        ("Their card is in the second column of the grid",
         "Ends with: their card is in column 2 of grid"),
    ],
    "Pack: 52 cards, any order\nRemember the top card of deck: P\nDeal 5 cards from deck to table": [
        ("The top card of the table is a court card",
         "Ends with: the top card of table is a court card"),
        ("The top card of the deck matches P in value",
         "Ends with: the top card of deck has the same value as P"),
        ("All the cards on the table are face down",
         "Ends with: every card of table is face down"),
        ("P turns out to be red",
         "Ends with: P is red"),
        ("There are as many reds in the pack as blacks on the table",
         "Ends with: number of red cards of deck is number of black cards of table"),
        ("The cards of the pack alternate in colour",
         "Ends with: the cards of deck alternate in colour"),
    ],
    "Pack: 52 cards, any order\nDeal 12 cards from deck to table\nDeal 8 cards from deck to hand": [
        ("The top card of the hand and the top card of the table are of the same suit",
         "Ends with: the top card of hand and the top card of table have the same suit"),
    ],
}
# fmt: on


@pytest.mark.parametrize("before", ROWS)
def test_the_wider_language_is_read_in_everyday_words(before: str) -> None:
    for said, meant in ROWS[before]:
        found = read_line(before, said)
        assert not found.asks, said
        assert [" / ".join(one.lines) for one in found.readings][:1] == [meant], said


def test_a_name_is_given_once_however_often_it_is_written() -> None:
    assert read_line("Pack: 52 cards, any order", "Remember the bottom card" + ": A" * 180).readings == ()
    assert read_line("Pack: 52 cards, any order", "Remember the bottom card" + " as A" * 100).readings == ()


def test_what_is_claimed_is_no_set_up_and_nothing_is_set_up_once_it_has_begun() -> None:
    before = "Pack: 52 cards, any order\nPlace A on top\nDeal 3 cards from deck to table\nFrobnicate the cards"
    assert not read_line(before, "Ends with: A is in the pocket of their jacket").readings
    for said in ("A is in the pocket", "Put the queen of hearts tenth from the top before they come"):
        assert not any(line.startswith("Place") for one in read_line(before, said).readings for line in one.lines)
