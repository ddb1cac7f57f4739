"""Effort, table and what can be seen, against values worked out by hand."""

from __future__ import annotations

from golden_pivot import demo
from golden_pivot.core.analysis import Analysis
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.show.cues import cues_of
from golden_pivot.core.show.effort import effort_of, operations
from golden_pivot.core.show.exposure import exposure_of
from golden_pivot.core.show.paces import Paces
from golden_pivot.core.show.table_room import Surface, row_width, widest


def test_the_effort_of_the_harbour_light() -> None:
    """Arithmetic: the longest path names 39; 39 cards dealt and put back, then 3 + 9 = 12 dealt. Paces of one second."""
    harbour = Analysis(demo.demo_text("harbour_light"))
    effort = effort_of(harbour, Paces(card=1, count=1, look=1, step=1, decision=1, word=0, sum=1))
    assert (effort.cards, effort.deals, effort.decisions) == (39 + 12, 2, 1)
    # 1 choice; 39 cards and the action; putting back; 12 cards, the action and one sum.
    assert effort.seconds == 1 + (39 + 1) + 1 + (12 + 1 + 1)
    assert effort.silent == 39, "patter goes with the second deal"
    assert [(one.words, one.operations, one.hard) for one in effort.sums] == [("digit sum of n", 1, "easy")]
    # n is learned in line 7 and needed at once in line 9.
    assert [(one.name, one.lines) for one in effort.thinking] == [("n", 0)]


def test_the_effort_of_three_watches() -> None:
    """Arithmetic: three times 27 cards dealt; a card thought of and three piles told."""
    effort = effort_of(Analysis(demo.demo_text("watch_below")), Paces(card=1, step=0, decision=0, word=0, sum=0))
    assert (effort.cards, effort.deals, effort.decisions, effort.seconds) == (81, 3, 4, 81)


def test_the_effort_of_four_decks() -> None:
    """Arithmetic: 16 cards twice, then at most 3 + 4 · 3 = 15; two operations in the head."""
    effort = effort_of(Analysis(demo.demo_text("four_decks")))
    assert (effort.cards, effort.deals) == (47, 3)
    assert [(one.operations, one.hard) for one in effort.sums] == [(2, "middling")]


def test_operations_in_the_head() -> None:
    line = read_routine("Deal half of (a + b) rounded up - 3 * digit sum of n cards from deck\n").lines[0]
    assert operations(line.values["count"]) == 5


def test_the_table_is_measured() -> None:
    """63 mm cards (common practice): a row of 8 is 504 mm, the pack and the pocket aside; half covered, 283.5 mm."""
    played = Analysis(demo.demo_text("cabin_corridor")).longest
    room = widest(played)
    assert row_width(8, 63, 0) == 504 and row_width(8, 63, 0.5) == 283.5
    assert room.width == 63 + 12 + 504 and room.height == 88 and room.fits and room.remedy is None
    small = widest(played, Surface(table=400))
    assert not small.fits and small.remedy and "Overlap the cards by" in small.remedy
    needed = int(small.remedy.split(" by ")[1].split()[0]) / 100
    assert widest(played, Surface(overlap=needed, table=400)).fits
    assert not widest(played, Surface(overlap=needed - 0.02, table=400)).fits
    assert widest(played, Surface("bridge")).width == 57 + 12 + 8 * 57
    # The pack and four piles beside it: 5 · 63 + 4 · 12.
    assert widest(Analysis(demo.demo_text("four_passengers")).longest).width == 363
    # Three piles of nine side by side: 3 · 63 + 2 · 12; the pack is dealt out.
    watch = widest(Analysis(demo.demo_text("watch_below")).longest, Surface(table=100))
    assert watch.width == 213 and watch.remedy == "Lay the 3 heaps in 3 rows."


def test_a_snake_and_heaps_in_rows() -> None:
    """Arithmetic: in two rows the pack and three cards (63 + 12 + 189) lie above five (315); 88 + 12 + 88 deep."""
    played = Analysis(demo.demo_text("cabin_corridor")).longest
    snake = widest(played, Surface(table=330, rows=2))
    assert [(piece.name, piece.cards, piece.left, piece.top) for piece in snake.pieces] == [
        ("deck", 22, 0, 0), ("row", 3, 75, 0), ("row", 5, 0, 100)
    ]  # fmt: skip
    assert (snake.width, snake.height, snake.fits) == (315, 188, True)
    shallow = widest(played, Surface(table=330, depth=150, rows=2))
    assert not shallow.fits and shallow.remedy == "Use a larger table, or fewer heaps at a time."
    advised = widest(played, Surface(table=330))
    assert advised.remedy and advised.remedy.endswith("or lay the row as a snake in 2 rows.")


def test_what_is_in_sight() -> None:
    seen = exposure_of(Analysis(demo.demo_text("pursers_count")))
    assert seen.turned_away == ((6, 8),)
    last = seen.moments[-1]
    assert "LODGER" in last.faces and last.theirs == ("the nth card back from the last dealt",) and last.yours == ()
    unshielded = demo.demo_text("pursers_count").replace(", shielded", "")
    notes = [moment.note for moment in exposure_of(Analysis(unshielded)).moments if moment.note]
    assert any("Take care: the back of LODGER shows on some path." in note for note in notes)
    beats = {beat.line: beat for beat in cues_of(Analysis(unshielded)).beats}
    assert (beats[6].away, beats[8].away) == ("look away", "turn back when it is done")
    assert any("shows on some path" in words for words in beats[10].watch)


def test_an_odd_back_that_shows_on_some_path_is_told_without_a_claim() -> None:
    """By hand: it is 3rd, so that it lies on top of the pack after two cards have been cut off, and of no more."""
    text = (
        "Pack: 20 cards, any order\nPlace MARK 3rd, with an odd back\nSpectator cuts off n cards of deck, n from 1 to 5, to hand\n"
        "Put hand on deck\nEnds with: the 3rd card of deck is MARK\n"
    )
    notes = {moment.line: moment.note for moment in exposure_of(Analysis(text)).moments}
    assert notes[3] == "Take care: an odd back shows on some path."
    (held,) = [
        moment.line
        for moment in exposure_of(Analysis(text.replace("n from 1 to 5", "n from 3 to 5"))).moments
        if moment.note
    ] or [None]
    assert held is None


def test_each_side_sees_its_own() -> None:
    text = (
        "Pack: 20 cards, any order\nPlace MARK 5th\nPlace FORCE 3rd\nPrediction: FORCE, on the back of MARK\n"
        "Prediction: FORCE, on paper in table\nRemember the bottom card of deck: KEY\nDeal 4 cards from deck to heap\n"
        "Spectator thinks of a card in heap: their card\nEnds with: the 2nd card of heap is FORCE\n"
    )
    moments = {moment.line: moment for moment in exposure_of(Analysis(text)).moments}
    assert moments[6].yours == ("the bottom card of the pack",) and moments[6].theirs == ()
    assert moments[7].writing == ("FORCE on MARK", "FORCE on paper") and moments[7].odd_backs == ()
    assert moments[8].theirs == ("the faces of the heap",)


def test_a_thick_packet_is_told() -> None:
    text = "Pack: 52 cards, any order\nPlace A on top\nCut off 15 cards of deck to pocket\nEnds with: the top card of pocket is A\n"
    notes = [moment.note for moment in exposure_of(Analysis(text)).moments]
    assert notes[-1] == "pocket holds 15 cards, which looks thick."
