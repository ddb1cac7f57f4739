"""The sheets, the reset and the set-up, for every demo routine and for procedures with much to prepare."""

from __future__ import annotations

from typing import Any

import pytest
from fontTools.ttLib import TTFont

from golden_pivot import demo
from golden_pivot.core import analysis
from golden_pivot.core.analysis import Analysis
from golden_pivot.core.answers.plays import play
from golden_pivot.core.answers.proving import prove
from golden_pivot.core.answers.verdicts import Verdict
from golden_pivot.core.budget import Budget
from golden_pivot.core.building import Purpose, builder
from golden_pivot.core.desks.assembly import NEW_PACK, order_of
from golden_pivot.core.faults import BadRoutine
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.language.printer import routine_json, routine_text, text_from_json
from golden_pivot.core.language.routine import PATTER, Routine
from golden_pivot.core.show import recoveries
from golden_pivot.core.show.compare import compared
from golden_pivot.core.show.cues import cues_of
from golden_pivot.core.show.getting_ready import done
from golden_pivot.core.show.reset import ends_of, reset_of, reset_program, table_of
from golden_pivot.core.show.setup import assembled, setup_of
from golden_pivot.core.show.wording import wording_of
from golden_pivot.core.steps.declare import ENDING, HANDLING
from golden_pivot.core.variants import slips
from golden_pivot.sheets.markdown import markdown_of
from golden_pivot.sheets.pdf import FONTS, MORE_FONTS, fonts_for, pdf_of, short_name
from golden_pivot.sheets.sheets import SHEETS, shown
from tests.core.show import SHOWN, file_text

PREPARED = ["p02_spelled_marker", "p04_value_and_suit", "p08_two_keys", "p12_value_blocks", "p22_offset_indicator"]
"""procedures with packs in order, several cards placed, markers beside the pack"""

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
        file = pdf_of(document)
        assert file.startswith(b"%PDF") and file == pdf_of(SHEETS[kind](it)), f"{kind} is the same from run to run"
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


@pytest.mark.parametrize(
    ("size", "box"), [("page", b"595.28 841.89"), ("letter", b"612.00 792.00"), ("pocket", b"297.64 419.53")]
)
def test_a_sheet_has_the_size_of_its_paper(size: str, box: bytes) -> None:
    """In points, of ISO 216 (A4, A6) and ANSI (Letter)."""
    assert b"/MediaBox [0 0 " + box in pdf_of(SHEETS["cues"](shown(demo.demo_text("harbour_light"), Budget())), size)


def test_every_letter_has_a_font_and_most_sheets_take_one() -> None:
    fonts = [TTFont(path, lazy=True).getBestCmap() for path in [*MORE_FONTS, FONTS / "DejaVuSans.ttf"]]
    assert all(any(ord(letter) in font for font in fonts) for letter in SCRIPTS)
    assert fonts_for("Q♥ “Überfahrt” ещё") == [] and len(fonts_for("港の灯り 안녕")) == 2


def test_sums_are_worked_out_beforehand() -> None:
    text = demo.demo_text("four_decks")
    found = cues_of(Analysis(text))
    (shortcut,) = found.shortcuts
    assert shortcut.names == ("a", "b") and len(shortcut.rows) == 16 and (("2", "3"), 14) in shortcut.rows
    letters = (
        "Pack: 30 cards, any order\nSpectator takes a card from deck to hand: their card\nSpectator names their card\n"
        "Deal letters of value of their card + letters of suit of their card cards from deck to heap\nPut hand on heap\n"
        "If letters of suit of their card is 5:\n  “Clubs.”\nEnds with: the top card of heap is their card\n"
    )
    cards, suits = cues_of(Analysis(letters)).shortcuts
    assert len(cards.rows) == 52 and dict(cards.rows)["queen of hearts",] == len("queen") + len("hearts")
    assert suits.rows == ((("clubs",), 5), (("diamonds",), 8), (("hearts",), 6), (("spades",), 6))
    assert "king 9 12 10 10" in SHEETS["cues"](shown(letters, Budget())).text()
    stowaway = demo.demo_text("the_stowaway")
    rule = cues_of(Analysis(stowaway))
    assert len(rule.landing) == 10


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
    beats = {beat.line: beat for beat in cues_of(Analysis(text)).beats}
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
    assert wording_of(Analysis(FORETOLD)) == ()
    (finding,) = wording_of(Analysis(FORETOLD.replace("Prediction: FORCE, on paper", "Prediction: MARK, on paper")))
    assert "No ending speaks of MARK" in finding.why
    odd = FORETOLD.replace("Deal 3", "Deal 4").replace(
        "Ends with: the last card dealt is FORCE", "Never shows: an odd back"
    )
    assert prove(read_routine(odd), Budget()).verdict == "refuted", "the back that is written on lies on top"


def test_two_versions_line_by_line() -> None:
    left, right = demo.demo_text("harbour_light"), demo.demo_text("forty_minutes")
    found = compared(left, right, Budget())
    assert "".join(row.left + "\n" for row in found.rows if row.how != "added") == left
    assert "".join(row.right + "\n" for row in found.rows if row.how != "removed") == right
    assert found.left.verdict == "proved" and found.right.verdict == "refuted"
    assert found.left.cards == 51 and found.left.harmful and found.left.harmful > 5
    broken = compared(left, "Pack: 9 crads\n", Budget()).right
    assert broken.verdict is None and broken.cards is None and "Still being written" in broken.headline


def test_a_cue_sheet_proves_its_routine_once(monkeypatch: pytest.MonkeyPatch) -> None:
    """Beside that it proves texts that differ from it: slips, and numbers outside the limits."""
    text = demo.demo_text("harbour_light")
    proved: list[str] = []
    built: list[tuple[str, Purpose]] = []
    compiled = builder._compiled

    def proving(routine: Routine, *given: Any, **named: Any) -> Verdict:
        proved.append(lines_of(routine))
        return prove(routine, *given, **named)

    def building(routine: Routine, purpose: Purpose) -> Any:
        built.append((lines_of(routine), purpose))
        return compiled(routine, purpose)

    for module in (analysis, slips, recoveries):
        monkeypatch.setattr(module, "prove", proving)
    monkeypatch.setattr(builder, "_compiled", building)
    read_routine.cache_clear()
    SHEETS["cues"](shown(text, Budget()))
    assert 1 == proved.count(lines_of(read_routine(text))) < len(proved)
    mine = [purpose for known, purpose in built if known == lines_of(read_routine(text))]
    assert mine and len(mine) == len(set(mine))


def lines_of(routine: Routine) -> str:
    return "\n".join(line.text for line in routine.walk())
