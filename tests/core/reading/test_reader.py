"""Notes in everyday words: what they are read as, what is asked, what cannot be said, and that nothing is misread or lost.

The sentences are our own; how performers write is common practice, no published source.
"""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from golden_pivot import demo
from golden_pivot.core.answers.proving import prove
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.language.printer import line_text
from golden_pivot.core.language.routine import STEP
from golden_pivot.core.reading import read_line, read_page, read_sheet, words_for
from golden_pivot.core.reading.amounts import range_said
from golden_pivot.core.reading.normal import mended, normal
from golden_pivot.core.steps import REGISTRY
from tests.any_text import any_text
from tests.core.desks import PROCEDURES

PACK = "Pack: 52 cards, any order"
TOLD = f"{PACK}\nPlace FORCE 10th\nSpectator names a number n from 10 to 19"
DEALT = f"{TOLD}\nDeal n cards from deck"
TABLED = f"{PACK}\nDeal 10 cards from deck to table"
CUT = f"{PACK}\nSpectator secretly cuts off n cards of deck, n from 5 to 15, to hand"
TAKEN = f"{PACK}\nSpectator takes a card from deck to hand: their card"
PILES = "Pack: 27 cards, any order\nSpectator thinks of a card in deck: their card\nDeal deck into 3 piles, face up"
PLACED = f"{PACK}\nPlace FORCE 10th"

READ = [
    # (routine before, as it is jotted down, the sentences it is)
    ("", "You will need a deck of 40 cards", "Pack: 40 cards, any order"),
    ("", "Spades, running from king to ace", "Pack: spades, each from king to ace"),
    (PACK, "Ace of clubs second from top", "Place ace of clubs 2nd"),
    (PACK, "The 7♥ should be third from the bottom", "Place seven of hearts 3rd from the bottom"),
    (PACK, "KD at position thirteen", "Place king of diamonds 13th"),
    (PACK, "Cards three and four are the 2S and 9D", "Place two of spades, nine of diamonds in this order, the first 3rd"),
    (PACK, "Deal ten cards on the table", "Deal 10 cards from deck to table"),
    (PACK, "Ask him to deal fifteen cards face down in a row", "Spectator deals 15 cards from deck face down to row, from left to right"),
    (TOLD, "Deal down to their number", "Deal n cards from deck"),
    (f"{DEALT}\nDrop the rest on top", "Now deal as many as the two digits add up to", "Deal digit sum of n cards from deck"),
    (TABLED, "Pick those up again and drop them on the deck", "Put the dealt cards back on top"),
    (TABLED, "Flip the tabled pile face up", "Turn table over"),
    (DEALT, "Whatever is left goes on top", None),
    (DEALT, "Toss the remainder on top", "Drop the rest on top"),
    (PACK, "She lifts about a quarter of the deck and puts it in her pocket", "Spectator secretly cuts off n cards of deck, n from 8 to 17, to pocket"),
    (PACK, "Get them to lift off a packet of up to twenty cards", "Spectator secretly cuts off n cards of deck, n from 1 to 20, to hand"),
    (PACK, "She takes ten cards at random", "Spectator takes any 10 cards of deck to hand"),
    (PACK, "Cut the deck once, at random", "Cut deck and complete the cut"),
    (PACK, "Deal four piles of four in turn", "Deal deck into 4 piles, 4 cards each"),
    (PACK, "Have someone cut the pack anywhere they like", "Spectator cuts deck and completes the cut"),
    (PACK, "Transfer three cards from top to bottom, one at a time", "Cut deck at 3 and complete the cut"),
    (CUT, "The packet is placed on top of the rest", "Put hand on deck"),
    (CUT, "They look at the bottom card of their packet and remember it", "Spectator remembers the bottom card of hand: their card"),
    (TAKEN, "It goes back on the bottom", "Put hand under deck"),
    (TAKEN, "They lose it in the deck", "Spectator inserts hand into deck"),
    (PACK, "Have a card selected", "Spectator takes a card from deck to hand: their card"),
    (PACK, "She mentally selects a card", "Spectator thinks of a card in deck: their card"),
    (PACK, "Peek at the bottom card", "Remember the bottom card of deck: KEY"),
    (PACK, "They give the deck a riffle shuffle", "Spectator riffles deck together once"),
    (PACK, "Deal the cards one by one into three heaps", "Deal deck into 3 piles"),
    (PILES, "They tell you which pile it is in", "Spectator tells which pile holds their card: n"),
    (f"{PILES}\nSpectator tells which pile holds their card: p", "Gather the heaps, that one in the middle", "Gather the piles, pile p 2nd, the others in any order"),
    (PACK, "Spell out ABRACADABRA dealing a card for each letter", "Spell “abracadabra” from deck"),
    (TOLD, "If the number is fifteen, turn the deck over", "If n is 15: /   Turn deck over"),
    (PACK, "Cut the pack twice", "Repeat 2 times: /   Cut deck and complete the cut"),
    (PACK, "He chooses a number under twenty and tells you", "Spectator names a number n from 1 to 19"),
    (PLACED, "The tenth card will be FORCE", "Ends with: the 10th card of deck is FORCE"),
    (f"{PACK}\nCut off 12 cards of deck to packet", "Down-under deal until one card remains", "Deal packet down and under to table"),
    (PACK, "Deall ten crads to teh table", "Deal 10 cards from deck to table"),
]  # fmt: skip


SAYS_MORE = [
    # (what all kinds of step would understand but for the last words, those words)
    ("Move the top card to the bottom", "as many as they like"),
    ("Take off the top four, put them back on top", "wherever they like"),
    ("Turn over the top card", "if they like"),
    ("Deal ten cards to the table", "in any order"),
    ("Take the top card to hand", "from anywhere"),
    ("Shuffle", "each"),
    ("Take the top card to hand", "and remember it"),
]


@pytest.mark.parametrize(("said", "more"), SAYS_MORE)
def test_words_that_change_the_meaning_are_not_dropped(said: str, more: str) -> None:
    without = {one.lines for one in read_line(PACK, said).readings}
    assert without and not without & {one.lines for one in read_line(PACK, f"{said} {more}").readings}


@pytest.mark.parametrize(("before", "said", "meant"), READ)
def test_how_performers_write(before: str, said: str, meant: str | None) -> None:
    found = read_line(before, said)
    if meant is None:
        assert not found.readings
    else:
        assert " / ".join(found.readings[0].lines) == meant


@pytest.mark.parametrize(
    ("before", "said", "readings"),
    [
        (PACK, "Count off ten", 3),
        (PACK, "She names a number between one and ten", 2),
        (PACK, "Cut the deck in half", 2),
        (f"{PACK}\nSpectator cuts deck and completes the cut", "Do this twice", 2),
    ],
)
def test_what_has_several_meanings_is_asked(before: str, said: str, readings: int) -> None:
    found = read_line(before, said)
    assert found.asks and len(found.readings) == readings and not found.is_sure
    assert len({one.lines for one in found.readings}) == readings


@pytest.mark.parametrize(
    ("said", "missing"),
    [
        ("Hold a pinky break", "break"),
        ("Get any three of a kind to the top", "value is left open"),
        ("If she looks nervous, let her shuffle", "behaviour"),
    ],
)
def test_what_the_language_cannot_say_is_told(said: str, missing: str) -> None:
    found = read_line(PACK, said)
    assert missing in found.cannot and not found.readings


def test_no_word_of_the_trade_becomes_a_new_heap() -> None:
    """The language itself would take each of these for a place of that name."""
    for before, said, meant in [
        (TABLED, "Put table on pack", "Put table on deck"),
        (PACK, "Deal 10 cards from deck to her", "Deal 10 cards from deck to hand"),
    ]:
        assert read_line(before, said).readings[0].lines == (meant,)
    remark = read_line(TABLED, "Note: nobody may see the faces here").readings[0].lines
    assert remark == ("# nobody may see the faces here",)


def texts() -> list[str]:
    return [demo.demo_text(name) for name in demo.demo_names()] + [
        p.read_text(encoding="utf-8") for p in sorted(PROCEDURES.glob("*.pivot"))
    ]


def test_sentences_of_the_language_read_as_themselves() -> None:
    for text in texts():
        routine = read_routine(text)
        rows = text.split("\n")
        for line in routine.walk():
            if line.is_ == STEP and line.kind and line.kind.phase != "page":
                found = read_line("\n".join(rows[: line.number - 1]), rows[line.number - 1])
                assert found.readings and found.readings[0].lines == (line_text(line).strip(),), line.text


PAGE = """LANTERN ROOM. Best seated.
Get the force card to twelfth from the top. “Name any number from twelve to nineteen.”
They name a number between 12 and 19, both included. Deal that many onto the table and put them all back on the pack.
Wink at the steward with the tall hat. Deal as many as the two figures come to, again in a pile. The last card dealt is your card.
"""


def test_a_page_becomes_a_routine_and_nothing_is_lost() -> None:
    found = read_page(PAGE)
    assert not found.questions
    rows = found.text.split("\n")
    assert rows[:4] == ["Title: Lantern Room", "Note: best seated", "Pack: 52 cards, any order", "Place FORCE 12th"]
    assert (
        "# Wink at the steward with the tall hat." in rows and "  “Name any number from twelve to nineteen.”" in rows
    )
    # By hand: 12th from the top after n are dealt and put back is at n + 1 - 12; the digits of 12 to 19 add up to n - 9.
    assert prove(read_routine(found.text)).verdict == "refuted"
    right = read_page(PAGE.replace("twelfth", "tenth"))
    assert prove(read_routine(right.text)).verdict == "proved"
    for one in found.sentences:
        assert one.is_understood or any(one.said.strip("“”.") in row for row in one.lines)


def test_a_range_that_follows_belongs_to_the_number() -> None:
    found = read_page("They cut off a few cards to their hand. It should be at least four and fewer than fifteen.")
    assert "n from 4 to 14" in found.text and "n from 3 to 8" not in found.text


ODD = st.one_of(
    st.integers(0, 10**6).map(any_text).map(lambda text: text[:300]),
    st.lists(st.sampled_from("deal cut they the 10 cards from to pile deck it on top , and if FORCE ⟨ ⟩ “ ” Q♥ half between : ; not".split()), max_size=25).map(" ".join),
)  # fmt: skip


@settings(max_examples=80, deadline=None)
@given(st.sampled_from(["", PACK, DEALT, PILES, CUT, "xyz\nPack"]), ODD)
def test_no_text_breaks_the_reader_or_is_lost(before: str, said: str) -> None:
    found = read_line(before, said)
    for reading in found.readings:  # whatever is offered can be read
        rows = [*before.split("\n"), *reading.lines] if before else [*reading.lines]
        assert not any(
            line.is_ == "unread"
            for line in read_routine("\n".join(rows)).walk()
            if line.number > len(rows) - len(reading.lines)
        )
    page = read_page(said)
    for one in page.sentences:
        assert one.is_understood or "".join(one.said.split()).strip('“”"') in "".join("".join(one.lines).split())


@pytest.mark.parametrize(
    "said",
    ["", "   ", "x" * 2_000, "deal " * 400, "Les cartes sont mélangées", "🎴🎴🎴", "for i in range(10): print(i)", "milk, bread, eggs", "((((", "deal ten " * 60],
)  # fmt: skip
def test_what_is_no_note_has_no_reading(said: str) -> None:
    assert not read_line(PACK, said).readings


def test_slips_of_spelling_are_mended_and_names_are_not() -> None:
    assert [mended(word) for word in ("spetator", "crads", "remebers", "wiht", "lantern")] == [
        "spectator",
        "cards",
        "remembers",
        "with",
        "lantern",
    ]
    assert "⟨FORCE⟩" in normal("Put FORCE tenth", frozenset({"FORCE"}))


@pytest.mark.parametrize(
    ("said", "low", "high"),
    [
        ("from 3 to 9", 3, 9),
        ("up to 15", 1, 15),
        ("fewer than 10", 1, 9),
        ("in 30s", 30, 39),
        ("at least 4 and fewer than 15", 4, 14),
        ("20 at most", 1, 20),
    ],
)
def test_ranges(said: str, low: int, high: int) -> None:
    found = range_said(said, 52)
    assert found and found[0] == [(low, high)]


def test_a_sheet_is_read_line_by_line_with_what_is_sure_in_place() -> None:
    text = f"{PACK}\nPut the queen of hearts tenth from the top\nCount off ten\nAct surprised\nThe tenth card is the queen\n"
    found = read_sheet(text)
    assert [one.line for one in found.lines] == [2, 3, 5] and found.sure == 2
    assert found.lines[1].answer.asks
    assert (
        found.text
        == f"{PACK}\nPlace queen of hearts 10th\nCount off ten\nAct surprised\nEnds with: the 10th card of deck is queen of hearts\n"
    )
    assert read_sheet(demo.demo_text("harbour_light")).text is None


def test_another_reading_can_be_chosen_for_a_sentence() -> None:
    said = "They name a number between ten and nineteen."
    text = f"The force card is tenth from the top. {said} Deal that many cards."
    for nth, meant in [(0, "from 10 to 19"), (1, "from 11 to 18")]:
        assert meant in read_page(text, {said: nth}).text
    kept = read_page(text, {said: -1})
    assert f"# {said}" in kept.text and not kept.questions[0].lines[0].startswith("Spectator")


def test_a_sentence_that_a_person_would_not_read_so_is_in_question() -> None:
    found = read_sheet(f"{TABLED}\nPut table on pack\n")
    (line,) = found.lines
    assert line.line == 3 and line.answer.asks and found.text is None
    assert [one.lines for one in line.answer.readings] == [("Put table on deck",), ("Put table on pack",)]


def test_a_new_heap_that_is_nearly_called_like_one_before_is_in_question() -> None:
    found = read_sheet(
        f"{TABLED}\nPut tabel on deck\nDeal 2 cards from deck to west\nDeal 2 cards from deck to east\n"
    )
    (line,) = found.lines
    assert line.line == 3 and line.answer.asks and found.text is None
    assert [one.lines for one in line.answer.readings] == [("Put table on deck",), ("Put tabel on deck",)]


def test_steps_are_found_by_what_performers_call_them() -> None:
    found = {name: words_for(kind) for name, kind in REGISTRY.items()}
    assert "milk" in found["klondike"] and "thumb off" in found["deal"] and "pick up" in found["gather_side"]


def test_how_readings_differ_is_said() -> None:
    found = read_line(PACK, "Count off ten").readings
    assert [one.does for one in found] == [
        "dealing turns the order round",
        "each under the last, so that the order is kept",
        "a block keeps its order",
    ]


def test_the_words_can_be_kept_as_remarks() -> None:
    text = f"{PACK}\nPut the queen of hearts tenth from the top\n"
    assert (
        read_sheet(text, keep_words=True).text
        == f"{PACK}\n# Put the queen of hearts tenth from the top\nPlace queen of hearts 10th\n"
    )
