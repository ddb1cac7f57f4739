"""Reading and writing the language: one meaning a sentence, faults that say where and what to do."""

from __future__ import annotations

import json
import re

import jsonschema
import pytest
from hypothesis import given, settings

from golden_pivot.core.building import compile_routine
from golden_pivot.core.faults import BadRoutine, Fault
from golden_pivot.core.language.expressions import (
    Binary,
    Figures,
    Half,
    Name,
    Number,
    evaluator,
    expression_from_json,
    expression_json,
    expression_text,
)
from golden_pivot.core.language.habits import habits_of
from golden_pivot.core.language.parser import read_routine, readings_of
from golden_pivot.core.language.printer import FORMAT, NotARoutine, routine_json, routine_text, text_from_json
from golden_pivot.core.language.read_expression import read_expression
from golden_pivot.core.language.schema import routine_schema
from golden_pivot.core.language.suggest import suggestions
from golden_pivot.core.language.words import words_of
from golden_pivot.core.steps import REGISTRY
from golden_pivot.demo import demo_names, demo_text
from golden_pivot.library import principles
from tests.strategies import PHASES, routines

PACK = "Pack: 52 cards, any order\nPlace FORCE 10th\n"
SEVEN = ", ".join(f"pile {number}" for number in range(1, 8))


def expression(text: str) -> object:
    found = read_expression([word.text for word in words_of(text)])
    return found if isinstance(found, int) else found[0]


@pytest.mark.parametrize(
    ("text", "value"),
    [
        ("2 + 3 * 4", 14),
        ("(2 + 3) * 4", 20),
        ("20 - 5 - 4", 11),
        ("20 - (5 - 4)", 19),
        ("half of 7 rounded up", 4),
        ("half of 7 rounded down", 3),
        ("half of (n + 1) rounded down", 15),
        ("remainder of n divided by 7", 1),
        ("remainder of (3 - 5) divided by 7", 5),
        ("digit sum of n", 11),
        ("(digit sum of n) + 1", 12),
        ("digit sum of (n + 1)", 3),
        ("min(n, 4) * max(2, 3)", 12),
        ("n × 2 − 1", 57),
        ("twice n plus one", 59),
        ("n minus 2 ^ 3", 21),
        ("2 * 3 ^ 2", 18),
        ("(n - 27) ^ (1 + 4)", 32),
        ("quotient of n divided by 6", 4),
        ("(quotient of (2 - n) divided by 6) * 2", -10),
        ("digit root of (n + 9)", 2),
        ("digit root of 0", 0),
        ("digit root of 27", 9),
        ("tens digit of n", 2),
        ("(units digit of n) - 9", 0),
        ("reversal of n", 92),
        ("reversal of 120", 21),
    ],
)
def test_expressions_mean_what_they_say(text: str, value: int) -> None:
    found = expression(text)
    assert evaluator(found, lambda node: lambda cells: cells[0])([29]) == value  # type: ignore[arg-type]
    assert expression(expression_text(found)) == found  # type: ignore[arg-type]
    assert expression_from_json(expression_json(found)) == found  # type: ignore[arg-type]


def test_an_expression_ends_where_the_sentence_goes_on() -> None:
    assert read_expression(["n", "+", "2", "cards", "from", "deck"]) == (Binary("+", Name("n"), Number(2)), 3)
    assert read_expression(["digit", "sum", "of", "n", "cards"]) == (Figures("digit sum", Name("n")), 4)
    assert read_expression(["half", "of", "n", "rounded", "up", "cards"]) == (Half(Name("n"), "up"), 5)


@settings(max_examples=200, deadline=None, phases=PHASES)
@given(routines())
def test_text_json_text_is_exact_and_each_sentence_has_one_meaning(text: str) -> None:
    routine = read_routine(text)
    written = routine_text(routine)
    assert read_routine(written).faults == ()
    assert routine_text(read_routine(written)) == written
    assert text_from_json(routine_json(routine)) == written
    assert routine_json(read_routine(written)) == routine_json(routine)
    for line in written.splitlines():
        assert sum(match is not None for _, _, match in readings_of(line)) == 1, line


SCHEMA = jsonschema.Draft202012Validator(routine_schema())


@settings(max_examples=12, deadline=None)
@given(routines())
def test_the_json_form_keeps_its_published_schema(text: str) -> None:
    """Checked with jsonschema (general-purpose reference library)."""
    document = routine_json(read_routine(text + "# a remark\n\n  “patter”\nnot a sentence\n"))
    SCHEMA.validate(json.loads(json.dumps(document)))


@pytest.mark.parametrize(
    ("document", "words"),
    [
        ({"format": "other", "lines": []}, "its format is 'other'"),
        ({"format": FORMAT}, "no list of lines"),
        ({"format": FORMAT, "lines": [{"empty": True}, {"step": "dael"}]}, "line 2 of the JSON form"),
        (
            {"format": FORMAT, "lines": [{"step": "repeat", "times": {"op": "number", "value": 2}, "body": [7]}]},
            "line 1.1",
        ),
        (
            {
                "format": FORMAT,
                "lines": [{"step": "deal", "who": "performer", "count": {"op": "power"}, "from": "deck"}],
            },
            "line 1",
        ),
    ],
)
def test_json_that_is_no_routine_is_refused_with_its_line(document: dict[str, object], words: str) -> None:
    with pytest.raises(NotARoutine, match=re.escape(words)):
        text_from_json(document)
    assert not SCHEMA.is_valid(document)


def test_the_schema_is_one() -> None:
    jsonschema.Draft202012Validator.check_schema(SCHEMA.schema)


def test_every_family_and_demo_routine_is_proved_or_what_it_is_meant_to_be() -> None:
    from golden_pivot.core.answers.proving import prove

    assert {prove(read_routine(one.text)).verdict for one in principles()} == {"proved"}
    told = {name: read_routine(demo_text(name)) for name in demo_names()}
    found = {name: prove(routine).verdict for name, routine in told.items() if not routine.faults}
    assert [name for name, verdict in found.items() if verdict != "proved"] == ["forty_minutes", "the_stowaway"]
    assert set(told) - set(found) == {"last_orders"}


@pytest.mark.parametrize("kind", REGISTRY.values(), ids=lambda kind: kind.name)
def test_the_example_of_a_kind_is_read_as_that_kind_alone(kind) -> None:  # type: ignore[no-untyped-def]
    assert [found.name for found, _, match in readings_of(kind.example) if match] == [kind.name]
    assert kind.summary.endswith(".")


def test_remarks_patter_blocks_and_what_is_not_understood_survive() -> None:
    text = (
        "# a remark\nPack: 9 cards\n  “Say “this” now.”\n\nRepeat 2 times:\n  Deal 1 card from deck\n  Dael 2 cards\n"
        "Turn deck over\n"
    )
    routine = read_routine(text)
    assert routine_text(routine) == text and text_from_json(routine_json(routine)) == text
    assert [fault.line for fault in routine.faults] == [7]
    repeat = next(line for line in routine.walk() if line.kind and line.kind.name == "repeat")
    assert [line.number for line in repeat.body] == [6, 7]


def test_what_is_only_written_about_a_routine_changes_nothing() -> None:
    from golden_pivot.core.answers.proving import prove

    about = "Title: One\nCredit: nobody\nNote: a note\n"
    rows = PACK + "Deal 3 cards from deck\nEnds with: the 8th card of deck is FORCE\n"
    assert prove(read_routine(about + rows)).headline == prove(read_routine(rows)).headline


FAULTS = [
    # text, line, column, words of the message, words of the remedy or of what was expected
    ("Pack: 52 crads, any order", 1, 10, "“crads”", "“cards”"),
    (PACK + "Deal 3 cards from dekc", 3, 19, "no place called dekc", "Did you mean deck?"),
    (PACK + "Deal x cards from deck", 3, 6, "no number called x", "No number has been named"),
    (PACK + "Deal 53 cards from deck\nEnds with: the top card of deck is FORCE", 3, 1, "53 cards are asked for, but deck",
     "Change"),
    (PACK + "Prediction: KEY, on paper in pocket", 3, 13, "no card called KEY", "Known here: FORCE"),
    (PACK + "Prediction: KEY, on the back of FORCE", 3, 13, "no card called KEY", "Known here: FORCE"),
    (PACK + "Prediction: FORCE, on the back of KEY", 3, 35, "not a card of the set-up", "Place it"),
    (PACK + "Prediction: FORCE, ready in pocket", 3, 29, "no place called pocket", "Known here: deck"),
    (PACK + "Place KEY 10th", 3, 11, "FORCE already lies there", "another place"),
    (PACK + "Place FORCE 11th", 3, 7, "used twice", "something else"),
    (PACK + "Place KEY 60th", 3, 11, "no position 60", "from 1 to 52"),
    (PACK + "Place KEY at position 3 from the left", 3, 11, "no position 3 from the left", "from 1 to 52"),
    (PACK + "Place KEY, LOCK in this order, the first at position 3 from the right", 3, 42, "no position 3 from the right", "from 1 to 52"),
    (PACK + "Spectator names a number n from 20 to 10", 3, 26, "No number is from 20 to 10", "smaller number first"),
    (PACK + "Spectator names a number n from 1 to 2\nSpectator names a number n from 1 to 2", 4, 26, "used twice",
     "something else"),
    (PACK + "Spectator secretly chooses a number n from 1 to 5\nDeal n cards from deck", 4, 6, "do not know n",
     "Spectator tells n"),
    (PACK + "Spectator secretly chooses a number n from 1 to 5\nEnds with: the card at position n of deck is FORCE", 4,
     12, "do not know n", "Spectator tells n"),
    (PACK + "Spectator tells n", 3, 17, "no number called n", "has been named"),
    (PACK + "Put the dealt cards back on top", 3, 1, "No cards have been dealt", "Deal first"),
    (PACK + "Deal ? cards from deck", 3, 6, "A blank waits here", "Write one"),
    (PACK + "Put deck on deck", 3, 13, "place they come from", "another place"),
    (PACK + "Deal 3 cards from deck to FORCE", 3, 27, "FORCE is a card, not a place", "place"),
    (PACK + "Repeat 2 times:", 3, 1, "Nothing stands in this block", "Indent"),
    (PACK + "    Turn deck over", 3, 5, "does not open a block", "colon"),
    (PACK + "Deal remainder of 3 divided by 0 cards from deck", 3, 1, "divided by 0", "Change"),
    ("Turn deck over", 1, 1, "no pack yet", "Begin with the pack"),
    ("Pack: 121 cards", 1, 7, "121 cards", "from 1 to 120"),
    ("Pack: 9 cards\nPack: 9 cards", 2, 1, "a pack already", "Remove"),
    (PACK + "Turn deck over\nPlace KEY 3rd", 4, 1, "already begun", "Move this line up"),
    ("Pack: 9 cards", 1, 1, "No card is followed", "Place a card"),
    ("", 1, 1, "no pack", "first line"),
    (PACK + "If 3 is 3:\n  Spectator names a number n from 1 to 3\nSpectator deals n cards from deck", 5, 17,
     "not settled on every path", "that case"),
    (PACK + "Spectator secretly chooses a number n from 1 to 5\nIf n is odd:\n  Turn deck over", 4, 4, "do not know n",
     "Spectator tells n"),
    (PACK + "Otherwise:\n  Turn deck over", 3, 1, "no If directly above", "Move it"),
    (PACK + "If 1 is 1:\n  Ends with: the top card of deck is FORCE\nOtherwise:\n  Ends with: the top card of deck is FORCE\nTurn deck over",
     7, 1, "No path comes as far", "Move the line up"),
    (PACK + "Gather the piles from left to right, each on the last", 3, 1, "no piles here", "Deal into piles first"),
    (PACK + f"Deal a card from deck onto each of {SEVEN}, in any order", 3, 1, "too many orders", "stated order"),
    (PACK + "Deal deck into 0 piles", 3, 16, "cannot be 0 piles", "Change the number"),
    (PACK + "Deal deck into 2 piles\nDeal pile 1 into 2 piles", 4, 6, "one of the piles", "elsewhere first"),
    (PACK + "Deal deck into 2 piles\nGather the piles from left to right, each on the last\nTurn deck over\n"
     "Spectator notes how many piles went under the one with FORCE: a", 6, 1, "No piles have just been gathered", "Move the line up"),
    (PACK + "Deal 3 cards from deck to row, from left to right\nDeal 3 cards from deck to row", 4, 27, "lie in a row, not in a heap", "another place"),
    (PACK + "Turn the 3rd card from the left of deck over", 3, 6, "no left and right", "Count from the top"),
    (PACK + "Repeat 2 times:\n  Spectator thinks of a card in deck: their card", 4, 39, "another card is called their card", "before the repetition"),
    (PACK + "Repeat 3 times:\n  Deal deck into 2 piles\n  Spectator tells which pile holds FORCE: a, b\n"
     "  Gather the piles from left to right, each on the last", 5, 43, "2 names for 3 times", "as many names"),
    (PACK + "Spectator thinks of a card in deck: their card\nDeal value of their card cards from deck", 4, 6,
     "You do not know what their card is", "Spectator names their card"),
    (PACK + "Spectator deals value of the top card of deck cards from deck", 3, 1, "lies face down", "Change"),
    (PACK + "Place KEY in hand\nDeal value of KEY cards from deck", 4, 1, "nobody can say what KEY is", "Change"),
    (PACK + "Start again", 3, 1, "Every path starts again", "Indent it"),
    (PACK + "Spectator names a number n from size of deck to 5", 3, 1, "nothing to choose from", "Change"),
    (PACK + "Spectator points to another pile: p", 3, 1, "no piles here", "Deal into piles"),
    (PACK + "Deal deck into 2 piles\nSpectator points to another pile: p", 4, 21, "No pile has been pointed to", "a pile"),
    (PACK + "Spectator keeps 2 of the piles", 3, 17, "no piles to keep", "new pile"),
    (PACK + "Deal the bottom card of deck to table\nAs long as the next card is not FORCE:\n  Deal 1 card from deck to table", 4, 1,
     "Which card is the next one is another the next time round", "by name"),
    (PACK + "Deal 2 cards from deck to west\nRepeat size of west times:\n  Put the dealt cards back on top\n  Deal 1 card from deck to east", 5, 3,
     "What was dealt last is another", "by name"),
    (PACK + "Deal 2 cards from deck to west\nAs long as size of west is more than 1:\n  Turn the last card dealt face up\n"
     "  Deal 1 card from deck to east", 5, 3, "Which card was dealt last is another", "by name"),
    (PACK + "Deal deck into 2 piles\nAs often as the spectator likes:\n  Spectator gathers the piles in any order\n  Deal deck into 3 piles", 5, 3,
     "Which piles are meant is another", "by name"),
    (PACK + "Until deck runs out:\n  Turn deck over", 3, 1, "go on for ever", "Change"),
    (PACK + "Deal deck into 2 piles\nSpectator riffles pile 1 into pile 1", 4, 31, "not two heaps", "two different"),
    (PACK + "Ends with: in every 1 cards of deck from the top all suits are different", 3, 21, "say nothing", "Change"),
    (PACK + "For each one of deck:\n  Turn one over\nTurn one over", 5, 6, "no place called one", "Known here"),
    (PACK + "Deal a card from deck onto each of table, table", 3, 36, "not different heaps", "other places"),
    ("Pack: clubs, clubs, each from ace to king", 1, 7, "A suit is there twice", "Leave one out"),
    ("Pack: clubs, each from ace to three\nPlace KEY on top", 2, 11, "ace of clubs already lies there", "another place"),
    (PACK + "Place ace of clubs, two of clubs in this order, the first at the bottom", 3, 7, "no position 53", "Change"),
    (PACK + "Deal from deck to table, counting down from 3 to 7 until the number is a card’s value: m", 3, 45,
     "Nobody counts down like that", "Change"),
    (PACK + "Count off 5 cards from deck to table", 3, 1, "does not say what happens to the order", "reverses them"),
    (PACK + "Spectator names a number n between 10 and 20", 3, 28, "both ends are allowed", "from"),
    (PACK + "Flip the deck", 3, 1, "turn over or change their order", "Turn packet over"),
    (PACK + "Ends with: the top card of deck is the mate of FORCE", 3, 48, "No mate of FORCE", "Place its mate"),
    (PACK + "Never shows: an odd back", 3, 1, "No card has an odd back", "Place one"),
    (PACK + "Spectator chooses values a, b, each from 5 to 2, at most 4 alike", 3, 42, "No values are like that", "smaller number first"),
    (PACK + "As often as the spectator likes:\n  Spectator names a number n from 1 to 3", 4, 28, "without end",
     "stated number of times"),
    (PACK + "Deal 52 cards from deck to table\nSpell “ox” from deck, a card to the bottom for each letter, the last to hand",
     4, 1, "1 cards are asked for, but deck has 0", "Change"),
    (PACK + "Spell “123” from deck", 3, 7, "“123”", "a word in quotation marks"),
    ("The quick brown fox", 1, 1, "No sentence begins with", "steps"),
    (PACK + "Spectator", 3, 1, "not finished", "what the spectator does"),
    (PACK + "Spectator 2 de", 3, 13, "not finished", "what the spectator does"),
    (PACK + "Dea", 3, 1, "not finished", "goes on like this"),
    (PACK + "Spectator jumps", 3, 11, "No sentence begins with “Spectator jumps”", "steps"),
]  # fmt: skip


@pytest.mark.parametrize(("text", "line", "column", "message", "remedy"), FAULTS)
def test_bad_input_says_where_what_and_what_to_do(
    text: str, line: int, column: int, message: str, remedy: str
) -> None:
    from golden_pivot.core.answers.proving import prove

    with pytest.raises(BadRoutine) as caught:
        prove(read_routine(text))
    fault: Fault = caught.value.faults[0]
    assert (fault.line, fault.column) == (line, column), fault
    assert message in fault.message, fault
    assert remedy in f"{fault.expected} {fault.remedy}", fault
    assert fault.end > fault.column or fault.column == 1


def test_every_fault_of_a_page_is_found_but_not_those_that_follow_from_another() -> None:
    text = (
        PACK + "Dael 3 cards from deck to hand\nTurn hand over\nSpectator names a number n from 9 to 1\nTurn deck\n"
    )
    with pytest.raises(BadRoutine) as caught:
        compile_routine(read_routine(text))
    assert [fault.line for fault in caught.value.faults] == [3, 5, 6]


def test_suggestions_begin_as_the_line_does_and_use_the_names_above() -> None:
    routine = read_routine(PACK + "Spectator names a number n from 1 to 9\n")
    texts = [s.text for s in suggestions("Spectator deals ", routine, 4)]
    assert texts[0] == "Spectator deals ? cards from deck" and all(t.startswith("Spectator deals ") for t in texts)
    assert "Ends with: the next card is FORCE" in [s.text for s in suggestions("Ends", routine, 4)]
    assert "Spectator names a number m from ? to ?" in [s.text for s in suggestions("Spectator na", routine, 4)]
    assert suggestions("Deal 3 cards from deck", routine, 4) == []
    habits = habits_of(
        [read_routine("Pack: 9 cards, any order\nPlace FORCE 2nd\nTurn deck over\nCut off 2 cards of deck to hand\n")]
    )
    assert [
        suggestions("", read_routine(text), text.count("\n") + 1, habits)[0].family
        for text in ("", "Pack: 9 cards\nPlace FORCE 1st\nTurn deck over\n")
    ] == ["Set-up", "Blocks"]
    everything = {s.text for s in suggestions("", routine, 4)}
    assert len(everything) >= len(REGISTRY)
    # Whatever is suggested is a sentence of the language.
    for text in everything - {"Title: …", "Note: …"}:
        assert any(match for _, _, match in readings_of(text)), text


def test_a_suggestion_writes_no_article_twice() -> None:
    for typed in ("Turn the ", "Turn the"):
        assert not any("the the" in one.text for one in suggestions(typed, read_routine("Pack: 52 cards\n"), 2))
