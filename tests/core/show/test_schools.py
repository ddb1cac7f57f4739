"""Other schools, carried through and proved."""

from __future__ import annotations

from golden_pivot import demo
from golden_pivot.core.analysis import Analysis
from golden_pivot.core.budget import Budget
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.show.schools import School, schools_of
from golden_pivot.core.show.wording import wording_of
from golden_pivot.sheets.sheets import SHEETS, shown


def test_other_schools_are_carried_through_and_proved() -> None:
    """By hand: the light is 28th for the last card of the count, and 27th for the next one."""
    found = {one.label: one for one in schools_of(demo.demo_text("harbour_light"), Budget())}
    following = found["next instead of last"]
    assert (
        following.verdict == "proved"
        and "Place LANTERN 27th" in following.text
        and "the next card is LANTERN" in following.text
    )
    marked = found["marked: the placed card has another back"]
    assert marked.verdict == "proved" and marked.lost == ("borrowed pack", "ends examinable")
    face = found["positions counted from the face"]
    assert face.verdict == "proved" and "25th from the bottom" in face.text
    courts = {one.label: one for one in schools_of(demo.demo_text("three_bells"), Budget())}[
        "court cards as eleven to thirteen"
    ]
    assert "court cards" not in courts.text and courts.verdict == "proved"
    assert schools_of(demo.demo_text("watch_below"), Budget()) == ()
    untrue = demo.demo_text("harbour_light") + "  “The 28th card knows.”\n"
    assert wording_of(Analysis(untrue)) and not schools_of(untrue, Budget())[0].untrue, "it was untrue before"
    placed = demo.demo_text("second_berth").replace("Ends with", "“The first card.”\nEnds with")
    assert {one.label: one for one in schools_of(placed, Budget())}["next instead of last"].verdict == "proved"


def schools(name: str) -> dict[str, School]:
    return {one.label: one for one in schools_of(demo.demo_text(name), Budget())}


def test_the_reveal_may_be_a_count_or_magicians_choice() -> None:
    by_choice = schools("harbour_light")["magician’s choice instead of the count, to reveal it"]
    assert by_choice.verdict == "proved" and "Deal deck into 5 piles, 1 card each" in by_choice.text
    by_count = schools("lifeboat_drill")["a count instead of magician’s choice, to reveal it"]
    # By hand: the second of five piles gets the officer first, so that three cards lie on it.
    assert by_count.verdict == "proved" and "Deal 4 cards from pile 2 to counted" in by_count.text
    assert "hands off" in by_count.lost


def test_kinds_of_prediction_and_a_card_that_is_glimpsed() -> None:
    found = schools("harbour_light")
    for label, line in {
        "a prediction on paper": "Prediction: LANTERN, on paper in pocket, turned over sideways",
        "a prediction on the back of a card": "Prediction: LANTERN, on the back of MARKER",
        "its mate as the prediction, in the pocket": "Prediction: MATE, ready in pocket, turned face up",
        "its mate as the prediction, reversed in the pack": "Ends with: exactly MATE is reversed in deck",
        "nothing prepared: glimpse the card that lies there": "Remember the 28th card of deck: LANTERN",
    }.items():
        assert found[label].verdict == "proved" and line in found[label].text, label
        assert found[label].untrue == () and wording_of(Analysis(found[label].text)) == ()
    assert "repeatable at once" in found["nothing prepared: glimpse the card that lies there"].gained
    glimpsed = found["nothing prepared: glimpse the card that lies there"].text
    back = {one.label: one for one in schools_of(glimpsed, Budget())}[
        "prepared: the card placed beforehand instead of glimpsed"
    ]
    assert (
        read_routine(back.text) == read_routine(demo.demo_text("harbour_light").replace(" from the top", ""))
        or "Place LANTERN 28th" in back.text
    )
    assert "the odd back of LANTERN" in found["marked: the placed card has another back"].shows
    assert "Not at once" in found["a prediction on the back of a card"].repeat


def test_a_key_may_be_short_or_seen_and_a_row_read_from_either_side() -> None:
    text = "Pack: 20 cards, any order\nPlace KEY 9th, with an odd back\nSpectator cuts deck and completes the cut\nCut deck to bring KEY to the top\nEnds with: the top card of deck is KEY\n"
    found = {one.label: one for one in schools_of(text, Budget())}
    short = found["a short key, found by the fingers"]
    assert (
        short.verdict == "proved"
        and "Place KEY 9th, cut short" in short.text
        and "the odd back of KEY" in short.hides
    )
    assert "KEY is cut short" in SHEETS["reset"](shown(short.text, Budget())).text()
    back = {one.label: one for one in schools_of(short.text, Budget())}["a key that can be seen from its back"]
    assert back.text == text
    corridor = schools("cabin_corridor")["the row or the fan seen from the other side: left and right changed"]
    assert (
        corridor.verdict == "proved"
        and "from the right of row" in corridor.text
        and "from left to right" in corridor.text
    )
