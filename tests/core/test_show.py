"""From the bench to the show: sheets, reset, effort, table, wording; for every demo routine and against hand-worked values."""

from __future__ import annotations

from pathlib import Path

import pytest
from fontTools.ttLib import TTFont

from golden_pivot import demo
from golden_pivot.core.budget import Budget
from golden_pivot.core.design.assembly import NEW_PACK, order_of
from golden_pivot.core.faults import BadRoutine
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.language.printer import routine_json, routine_text, text_from_json
from golden_pivot.core.language.spoken import request_of
from golden_pivot.core.replay import play
from golden_pivot.core.routine import PATTER
from golden_pivot.core.show.compare import compared
from golden_pivot.core.show.cues import cues_of
from golden_pivot.core.show.effort import effort_of, longest_play, operations
from golden_pivot.core.show.exposure import exposure_of
from golden_pivot.core.show.paces import Paces
from golden_pivot.core.show.recoveries import after_slips, cautions_of, outside_limits, slips_in_time
from golden_pivot.core.show.requests import filled_in, gaps_of, requests_of
from golden_pivot.core.show.reset import done, ends_of, reset_of, reset_program, table_of
from golden_pivot.core.show.schools import School, schools_of
from golden_pivot.core.show.setup import assembled, setup_of
from golden_pivot.core.show.table_room import Layout, row_width, widest
from golden_pivot.core.show.wording import wording_of
from golden_pivot.core.steps import REGISTRY
from golden_pivot.core.steps.declare import ENDING, HANDLING
from golden_pivot.core.verdicts import prove
from golden_pivot.sheets.markdown import markdown_of
from golden_pivot.sheets.pdf import FONTS, MORE_FONTS, fonts_for, pdf_of, short_name
from golden_pivot.sheets.sheets import SHEETS, shown

FILES = Path(__file__).parents[1] / "procedures"
SHOWN = [name for name in demo.demo_names() if not read_routine(demo.demo_text(name)).faults]
PREPARED = ["p02_spelled_marker", "p04_value_and_suit", "p08_two_keys", "p12_value_blocks", "p22_offset_indicator"]
"""procedures with packs in order, several cards placed, markers beside the pack"""


def file_text(name: str) -> str:
    return (FILES / f"{name}.pivot").read_text(encoding="utf-8")


FINISHED = [(name, demo.demo_text(name)) for name in SHOWN] + [(name, file_text(name)) for name in PREPARED]


@pytest.mark.parametrize(("name", "text"), FINISHED)
def test_the_reset_plan_brings_the_set_up_back_from_every_end(name: str, text: str) -> None:
    routine = read_routine(text)
    plan = reset_of(routine, Budget())
    program = reset_program(routine)
    wanted = table_of(program, program.start)
    ends = ends_of(program, Budget())
    assert plan and len(ends) == plan.ends > 0
    for state in ends:
        assert done(table_of(program, state), plan.moves) == wanted
    assert len(plan.moves) <= 6 or name in PREPARED


def test_a_reset_is_as_short_as_it_can_be() -> None:
    """By hand: the light is 28th again after the dealt cards go on top and 25 cards to the bottom, whatever n was."""
    plan = reset_of(read_routine(demo.demo_text("harbour_light")), Budget())
    assert plan and [move.kind for move in plan.moves] == ["gather", "cut"] and plan.moves[1].number == 25
    nothing = reset_of(read_routine(demo.demo_text("watch_below")), Budget())
    assert nothing and nothing.moves == () and "at once" in nothing.repeatable
    odd = reset_of(read_routine(demo.demo_text("pursers_count")), Budget())
    assert odd and "LODGER has another back" in odd.examinable


@pytest.mark.parametrize(("name", "text"), FINISHED)
def test_putting_the_set_up_together_gives_the_pack(name: str, text: str) -> None:
    """From new-pack order, with the cards that are wanted taken out; the passes find every real card in its order."""
    found = setup_of(read_routine(text))
    order = order_of(NEW_PACK) or ()
    others = [card for card in order if card not in found.assembly.taken]
    pack = assembled(others, found.assembly)
    assert len(pack) == found.cards
    inside = [one for one in found.lying if one.place == "deck"]
    assert [(at, card) for at, card in enumerate(pack, start=1) if card in found.assembly.taken] == [
        (one.position, one.card) for one in inside
    ]
    real = [card for run in found.assembly.passes for card in run]
    assert real == [one.card for one in inside if one.card in order]
    for run in found.assembly.passes:
        assert list(run) == sorted(run, key=order.index)
    said = " ".join((*found.steps, *found.checks, *found.materials))
    assert all(one.card in said or len(inside) > 8 for one in found.lying)


@pytest.mark.parametrize("name", demo.demo_names())
def test_the_sheets_have_everything(name: str) -> None:
    text = demo.demo_text(name)
    it = shown(text, Budget())
    routine = read_routine(text)
    sheets = {kind: make(it) for kind, make in SHEETS.items()}
    told = sheets["cues"].text()
    for line in routine.walk():
        if (
            line.kind
            and line.kind.phase in (HANDLING, ENDING)
            and line.kind.family != "The page"
            and not line.kind.is_question
        ):
            assert line.text.strip() in told, "every step, every branch, every ending"
        if line.is_ == PATTER and not routine.faults:
            assert str(line.values["text"]) in told
    for kind, document in sheets.items():
        assert markdown_of(document).startswith(f"# {routine.title}: {document.subtitle}")
        again = document if kind == "cues" and name == "three_bells" else SHEETS[kind](it)
        file = pdf_of(document)
        assert file.startswith(b"%PDF") and file == pdf_of(again), f"{kind} is the same from run to run"
    if not routine.faults:
        assert all(one.card in sheets["setup"].text() for one in setup_of(routine).lying)


@pytest.mark.parametrize(
    ("name", "warning"), [("forty_minutes", "Fails when n is 40"), ("last_orders", "Still being written")]
)
def test_what_must_not_be_relied_upon_says_so_on_every_sheet(name: str, warning: str) -> None:
    it = shown(demo.demo_text(name), Budget())
    for make in SHEETS.values():
        document = make(it)
        assert document.warning and warning in document.warning and warning in markdown_of(document)
    assert shown(demo.demo_text("harbour_light"), Budget()).warning is None


SCRIPTS = "Ἀνάγκη ещё 港の灯り 夜渡轮 안녕하세요 नमस्ते বাংলা வணக்கம் สวัสดี שלום مرحبا ქართული հայերեն አማርኛ ខ្មែរ සිංහල"


def test_any_script_and_long_patter_stay_on_the_page() -> None:
    words = f"{SCRIPTS} {'x' * 400}"
    text = f"Title: {'Überfahrt ' * 20}\nPack: 9 cards, any order\nPlace A 2nd\nDeal 1 card from deck\n  “{words}”\nEnds with: the next card is A\n"
    document = SHEETS["cues"](shown(text, Budget()))
    file = pdf_of(document, "pocket")
    assert file.startswith(b"%PDF") and file == pdf_of(document, "pocket")
    assert short_name("queen of hearts, face up") == "Q♥, face up"


def test_every_letter_has_a_font_and_most_sheets_take_one() -> None:
    fonts = [TTFont(path, lazy=True).getBestCmap() for path in [*MORE_FONTS, FONTS / "DejaVuSans.ttf"]]
    assert all(any(ord(letter) in font for font in fonts) for letter in SCRIPTS)
    assert fonts_for("Q♥ “Überfahrt” ещё") == [] and len(fonts_for("港の灯り 안녕")) == 2


# Effort and table, against values worked out by hand


def test_the_effort_of_the_harbour_light() -> None:
    """Arithmetic: the longest path names 39; 39 cards dealt and put back, then 3 + 9 = 12 dealt. Paces of one second."""
    routine = read_routine(demo.demo_text("harbour_light"))
    effort = effort_of(routine, Budget(), Paces(card=1, count=1, look=1, step=1, decision=1, word=0, sum=1))
    assert (effort.cards, effort.deals, effort.decisions) == (39 + 12, 2, 1)
    # 1 choice; 39 cards and the action; putting back; 12 cards, the action and one sum.
    assert effort.seconds == 1 + (39 + 1) + 1 + (12 + 1 + 1)
    assert effort.silent == 39, "patter goes with the second deal"
    assert [(one.words, one.operations, one.hard) for one in effort.sums] == [("digit sum of n", 1, "easy")]
    # n is learned in line 7 and needed at once in line 9.
    assert [(one.name, one.lines) for one in effort.thinking] == [("n", 0)]


def test_the_effort_of_three_watches() -> None:
    """Arithmetic: three times 27 cards dealt; a card thought of and three piles told."""
    effort = effort_of(
        read_routine(demo.demo_text("watch_below")), Budget(), Paces(card=1, step=0, decision=0, word=0, sum=0)
    )
    assert (effort.cards, effort.deals, effort.decisions, effort.seconds) == (81, 3, 4, 81)


def test_the_effort_of_four_decks() -> None:
    """Arithmetic: 16 cards twice, then at most 3 + 4 · 3 = 15; two operations in the head."""
    effort = effort_of(read_routine(demo.demo_text("four_decks")), Budget())
    assert (effort.cards, effort.deals) == (47, 3)
    assert [(one.operations, one.hard) for one in effort.sums] == [(2, "middling")]


def test_operations_in_the_head() -> None:
    line = read_routine("Deal half of (a + b) rounded up - 3 * digit sum of n cards from deck\n").lines[0]
    assert operations(line.values["count"]) == 5


def test_the_table_is_measured() -> None:
    """63 mm cards (common practice): a row of 8 is 504 mm, the pack and the pocket aside; half covered, 283.5 mm."""
    played = longest_play(read_routine(demo.demo_text("cabin_corridor")), Budget())
    room = widest(played)
    assert row_width(8, 63, 0) == 504 and row_width(8, 63, 0.5) == 283.5
    assert room.width == 63 + 12 + 504 and room.height == 88 and room.fits and room.remedy is None
    small = widest(played, Layout(table=400))
    assert not small.fits and small.remedy and "Overlap the cards by" in small.remedy
    needed = int(small.remedy.split(" by ")[1].split()[0]) / 100
    assert widest(played, Layout(overlap=needed, table=400)).fits
    assert not widest(played, Layout(overlap=needed - 0.02, table=400)).fits
    assert widest(played, Layout("bridge")).width == 57 + 12 + 8 * 57
    # The pack and four piles beside it: 5 · 63 + 4 · 12.
    assert widest(longest_play(read_routine(demo.demo_text("four_passengers")), Budget())).width == 363
    # Three piles of nine side by side: 3 · 63 + 2 · 12; the pack is dealt out.
    watch = widest(longest_play(read_routine(demo.demo_text("watch_below")), Budget()), Layout(table=100))
    assert watch.width == 213 and watch.remedy == "Lay the 3 heaps in 3 rows."


def test_a_snake_and_heaps_in_rows() -> None:
    """Arithmetic: in two rows the pack and three cards (63 + 12 + 189) lie above five (315); 88 + 12 + 88 deep."""
    played = longest_play(read_routine(demo.demo_text("cabin_corridor")), Budget())
    snake = widest(played, Layout(table=330, rows=2))
    assert [(piece.name, piece.cards, piece.left, piece.top) for piece in snake.pieces] == [
        ("deck", 22, 0, 0), ("row", 3, 75, 0), ("row", 5, 0, 100)
    ]  # fmt: skip
    assert (snake.width, snake.height, snake.fits) == (315, 188, True)
    shallow = widest(played, Layout(table=330, depth=150, rows=2))
    assert not shallow.fits and shallow.remedy == "Use a larger table, or fewer heaps at a time."
    advised = widest(played, Layout(table=330))
    assert advised.remedy and advised.remedy.endswith("or lay the row as a snake in 2 rows.")


def test_what_is_in_sight() -> None:
    seen = exposure_of(read_routine(demo.demo_text("pursers_count")), Budget())
    assert seen.turned_away == ((6, 8),)
    last = seen.moments[-1]
    assert "LODGER" in last.faces and last.theirs == ("the nth card back from the last dealt",) and last.yours == ()
    unshielded = demo.demo_text("pursers_count").replace(", shielded", "")
    notes = [moment.note for moment in exposure_of(read_routine(unshielded), Budget()).moments if moment.note]
    assert any("Take care: the back of LODGER shows on some path." in note for note in notes)
    beats = {beat.line: beat for beat in cues_of(read_routine(unshielded), None, Budget()).beats}
    assert "look away" in beats[6].watch and "turn back when it is done" in beats[8].watch
    assert any("shows on some path" in words for words in beats[10].watch)


def test_each_side_sees_its_own() -> None:
    text = (
        "Pack: 20 cards, any order\nPlace MARK 5th\nPlace FORCE 3rd\nPrediction: FORCE, on the back of MARK\n"
        "Prediction: FORCE, on paper in table\nRemember the bottom card of deck: KEY\nDeal 4 cards from deck to heap\n"
        "Spectator thinks of a card in heap: their card\nEnds with: the 2nd card of heap is FORCE\n"
    )
    moments = {moment.line: moment for moment in exposure_of(read_routine(text), Budget()).moments}
    assert moments[6].yours == ("the bottom card of the pack",) and moments[6].theirs == ()
    assert moments[7].writing == ("FORCE on MARK", "FORCE on paper") and moments[7].odd_backs == ()
    assert moments[8].theirs == ("the faces of the heap",)


# Wording


def test_two_cards_will_be_face_up_is_caught() -> None:
    """They are reversed; whether that is face up or face down depends on how the packet lies."""
    text = file_text("p11_cut_and_turn_over")
    assert wording_of(text, Budget()) == ()
    said = text.rstrip() + "\n  “Two cards will be face up, and you know which.”\n"
    (finding,) = wording_of(said, Budget())
    assert finding.said == "Two cards will be face up" and finding.line == len(said.splitlines())
    meant = said.replace("which.”", "which.” (untrue)")
    assert wording_of(meant, Budget()) == ()
    (beat,) = (
        one for one in cues_of(read_routine(meant), None, Budget()).beats if one.says and "Two" in one.says[-1]
    )
    assert beat.says[-1] == "Two cards will be face up, and you know which."


def test_the_eleventh_card_is_caught_where_it_can_be_the_twelfth() -> None:
    text = (
        "Pack: 30 cards, any order\nPlace A 11th\nPlace B in pocket\nSpectator names a number n from 0 to 1\n"
        "If n is 1:\n  Put pocket on deck\n“You find it at the eleventh card.”\n"
    )
    (finding,) = wording_of(text, Budget())
    assert finding.said == "the eleventh card" and finding.why.startswith("Fails when n is 1: A is 12th")
    assert wording_of(text.replace("from 0 to 1", "from 0 to 0"), Budget()) == ()


@pytest.mark.parametrize(
    ("patter", "caught"),
    [
        ("Three cards are face up.", None),
        ("2 cards are face up.", "2 cards are face up"),
        ("You said {n}.", None),
        ("You said {m}.", "{m}"),
        ("The 9th card waits.", "The 9th card"),
        ("The fifth card waits.", None),
        ("Sixteen cards are left in the pack.", "Sixteen cards are left in the pack"),
        ("20 cards in the pack", None),
        ("The top card is face up.", None),
        ("The top card is face down.", "The top card is face down"),
        ("The top card is red.", "The top card is red"),
        ("The bottom card is the queen of hearts.", None),
        ("The top card is the queen of hearts.", "The top card is the queen of hearts"),
        ("The top card is yours.", None),
        ("The bottom card is yours.", "The bottom card is yours"),
        ("Your card is black.", "Your card is black"),
        ("In the end the top card will be face down.", None),
    ],
)
def test_what_is_said_is_proved_where_it_is_said(patter: str, caught: str | None) -> None:
    text = (
        "Pack: 20 cards, any order\nPlace A 5th\nPlace queen of hearts at the bottom\nSpectator names a number n from 2 to 4\n"
        "Spectator remembers the 3rd card of deck: their card\nTurn over the top 3 cards of deck as a block\n"
        f"  “{patter}”\nTurn over the top 3 cards of deck as a block\nEnds with: the 5th card of deck is A\n"
    )
    assert [one.said for one in wording_of(text, Budget())] == ([caught] if caught else [])


def test_what_is_said_in_one_case_is_judged_on_its_paths_alone() -> None:
    """By hand: of 2 or 3 cards dealt the case tells which; two more rounds lay 3, 4 or 5; only where n is 2 is A face up."""
    text = (
        "Pack: 20 cards, any order\nPlace A 2nd\nSpectator names a number n from 2 to 3\nDeal n cards from deck to table\nIf n is 3:\n"
        "  “Three cards are on the table.”\nOtherwise:\n  Turn the top card of table face up\n"
        "    “Two cards are on the table, and in the end the bottom card will be face up.”\n"
        "Repeat 2 times:\n  Deal 1 card from deck to table\n    “Four cards on the table”\n“The bottom card is face up.”\n"
        "Turn table over\nTurn table over\nEnds with: the card at position 3 of table is A\n"
    )
    found = {(one.line, one.said) for one in wording_of(text, Budget())}
    assert found == {
        (9, "the bottom card will be face up"),
        (12, "Four cards on the table"),
        (13, "The bottom card is face up"),
    }
    deep = text.replace("the bottom card will be", "the 3rd card of table, you know, will be").replace(
        "the card at position 3 of table is A", "size of table is n + 2"
    )
    assert {one.line for one in wording_of(deep, Budget())} == {12, 13}


def test_no_demo_routine_says_what_is_not_so() -> None:
    for name in SHOWN:
        assert wording_of(demo.demo_text(name), Budget()) == (), name


# Cues and versions


def test_sums_are_worked_out_beforehand() -> None:
    text = demo.demo_text("four_decks")
    found = cues_of(read_routine(text), prove(read_routine(text)), Budget())
    (shortcut,) = found.shortcuts
    assert shortcut.names == ("a", "b") and len(shortcut.rows) == 16 and ((2, 3), 14) in shortcut.rows
    stowaway = demo.demo_text("the_stowaway")
    rule = cues_of(read_routine(stowaway), prove(read_routine(stowaway)), Budget())
    assert len(rule.landing) == 10


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
    assert wording_of(untrue, Budget()) and not schools_of(untrue, Budget())[0].untrue, "it was untrue before"
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
        "its mate as the prediction, reversed in the pack": "Ends with: exactly MATE are reversed in deck",
        "nothing prepared: glimpse the card that lies there": "Remember the 28th card of deck: LANTERN",
    }.items():
        assert found[label].verdict == "proved" and line in found[label].text, label
        assert found[label].untrue == () and wording_of(found[label].text, Budget()) == ()
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


def test_a_thick_packet_is_told() -> None:
    text = "Pack: 52 cards, any order\nPlace A on top\nCut off 15 cards of deck to pocket\nEnds with: the top card of pocket is A\n"
    notes = [moment.note for moment in exposure_of(read_routine(text), Budget()).moments]
    assert notes[-1] == "pocket holds 15 cards, which looks thick."


def test_in_one_case_something_else_is_said() -> None:
    text = (
        "Pack: 20 cards, any order\nPlace A 2nd\nSpectator names a number n from 1 to 2\nIf n is odd:\n  “One.”\nOtherwise:\n"
        "  “Two.”\nDeal 2 cards from deck\nEnds with: the last card dealt is A\n"
    )
    routine = read_routine(text)
    assert (
        text_from_json(routine_json(routine)) == routine_text(routine)
        and prove(routine, Budget()).verdict == "proved"
    )
    beats = {beat.line: beat for beat in cues_of(routine, None, Budget()).beats}
    assert beats[4].says == ("One.",) and beats[6].says == ("Two.",) and beats[4].needs == ("n",) and not beats[4].gap
    assert [frame.line for frame in play(routine, {"n": 2}).frames] == [0, 3, 6, 8, 9], (
        "it is heard where it is played"
    )
    with pytest.raises(BadRoutine, match="told"):
        prove(read_routine(text.replace("Spectator names", "Spectator secretly chooses")), Budget())


def test_credits_and_two_deals_are_printed() -> None:
    text = "Credit: the purser\n" + file_text("p12_value_blocks")
    setup = SHEETS["setup"](shown(text, Budget())).text()
    assert "Credit: the purser" in setup and "From a shuffled pack" in setup and "king of spades 4 3" in setup


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
    slips = slips_in_time(text, Budget())
    found = {(one.line, one.when): one for one in after_slips(text, slips, Budget())}
    assert found[10, "one card more"].says == "Turn over the 2nd of the cards dealt."
    assert found[10, "one card fewer"].then == "LANTERN is 1st in deck"
    watch = demo.demo_text("watch_below")
    cautions = cautions_of(read_routine(watch), slips_in_time(watch, Budget()))
    assert any("let the spectator decide" in words for words in cautions[7])
    second = demo.demo_text("second_berth")
    assert any(
        "it must be right" in words for words in cautions_of(read_routine(second), slips_in_time(second, Budget()))[7]
    )


# What may be said where nothing is


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
    assert [one for one in wording_of(full, Budget()) if "{" in one.said] == [], "every field is known"


# Predictions

FORETOLD = """Pack: 20 cards, any order
Place MARK 5th
Place FORCE 3rd
Prediction: FORCE, on the back of MARK
Prediction: FORCE, on paper in pocket, turned over sideways
Write 3 as the prediction p, to wait in box
Deal 3 cards from deck
Ends with: the last card dealt is FORCE
"""


def test_predictions_are_printed_with_where_they_wait_and_how_they_are_turned() -> None:
    it = shown(FORETOLD, Budget())
    cues, setup = SHEETS["cues"](it).text(), SHEETS["setup"](it).text()
    assert "FORCE on paper in pocket turned over sideways 5" in cues and "p, 3 on paper in box" in cues
    assert (
        "“FORCE” on the back of MARK" in setup
        and "paper and a pen, for FORCE" in setup
        and "a pocket and a box" in setup
    )
    assert "Write FORCE on paper and put it in pocket." in setup and "Write FORCE on the back of MARK." in setup
    assert "MARK has writing on its back" in SHEETS["reset"](it).text()
    assert wording_of(FORETOLD, Budget()) == ()
    (finding,) = wording_of(FORETOLD.replace("Prediction: FORCE, on paper", "Prediction: MARK, on paper"), Budget())
    assert "No ending speaks of MARK" in finding.why
    odd = FORETOLD.replace("Deal 3", "Deal 4").replace(
        "Ends with: the last card dealt is FORCE", "Never shows: an odd back"
    )
    assert prove(read_routine(odd), Budget()).verdict == "refuted", "the back that is written on lies on top"


def test_a_prediction_made_of_a_card_lies_where_it_is_said_to_lie() -> None:
    text = (
        "Pack: 20 cards, any order\nPlace MATE in pocket\nPlace FORCE 3rd, the mate of MATE\nPrediction: MATE, ready in pocket\n"
        "Deal 3 cards from deck to table\nEnds with: the last card dealt is the mate of MATE\n"
    )
    assert wording_of(text, Budget()) == ()
    (finding,) = wording_of(text.replace("Ends with", "Put pocket on deck\nEnds with"), Budget())
    assert finding.why.startswith("Fails every time: MATE is 1st in deck")


def test_two_versions_line_by_line() -> None:
    left, right = demo.demo_text("harbour_light"), demo.demo_text("forty_minutes")
    found = compared(left, right, Budget())
    assert "".join(row.left + "\n" for row in found.rows if row.how != "added") == left
    assert "".join(row.right + "\n" for row in found.rows if row.how != "removed") == right
    assert found.left.verdict == "proved" and found.right.verdict == "refuted"
    assert found.left.cards == 51 and found.left.harmful and found.left.harmful > 5
    broken = compared(left, "Pack: 9 crads\n", Budget()).right
    assert broken.verdict is None and broken.cards is None and "Still being written" in broken.headline
