"""What is said around the proof, against the reference going through every path: slips, regions, blanks, strands, resets.

RANDOM_ROUTINES=n tries n routines that were not tried before.
"""

from __future__ import annotations

import os
import re
from collections import Counter
from itertools import islice, pairwise

import pytest
from hypothesis import HealthCheck, assume, example, given, settings
from hypothesis import strategies as st

from golden_pivot.core.analysis import Analysis
from golden_pivot.core.answers.cut_off import where_cut_off
from golden_pivot.core.answers.ledger import ledger_of_card
from golden_pivot.core.answers.notes import notes_of
from golden_pivot.core.answers.plays import play_path
from golden_pivot.core.answers.proving import prove
from golden_pivot.core.answers.regions import region_of
from golden_pivot.core.answers.strands import strands_of
from golden_pivot.core.answers.verdicts import WHETHER
from golden_pivot.core.budget import Budget
from golden_pivot.core.building import REPLAY, compile_routine
from golden_pivot.core.faults import BadRoutine
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.language.printer import routine_json
from golden_pivot.core.language.routine import Routine
from golden_pivot.core.search.program import Act
from golden_pivot.core.show.effort import effort_of
from golden_pivot.core.show.getting_ready import Move
from golden_pivot.core.show.reset import reset_of, reset_program
from golden_pivot.core.show.wording import wording_of
from golden_pivot.core.steps.declare import HANDLING
from golden_pivot.core.variants.blanks import solve
from golden_pivot.core.variants.edits import edited
from golden_pivot.core.variants.fields import NothingToFill, filled
from golden_pivot.core.variants.slips import ALL, ELSEWHERE, HARMLESS, OPEN, SOME, fragility_of
from golden_pivot.core.variants.sweeps import IMPOSSIBLE, sweep, with_blank
from golden_pivot.witness import Card, NoPath, Path, each_path, judged_together, run
from tests.strategies import PHASES, routines

MANY = int(os.environ.get("RANDOM_ROUTINES", "40"))
SOME_TIMES = settings(
    max_examples=MANY, deadline=None, suppress_health_check=list(HealthCheck), phases=PHASES,
    derandomize="RANDOM_ROUTINES" not in os.environ,
)  # fmt: skip
MOST_PATHS = 700

# Found by random routines, and kept.
LEAVES_OUT_A_PART = (
    "Pack: 5 cards, any order\n"
    "Place jack of spades at position 4 from the bottom\n"
    "Deal from deck to hand, counting down from 1 to 1 until the number is a card’s value, court cards as ten, or else a card face down on top: n\n"
    "Repeat 2 times:\n"
    "  Spectator deals hand into 1 piles, face up\n"
    "  Gather the piles from left to right, each under the last\n"
    "If size of hand is even:\n"
    "  Turn over the top 1 cards of deck as a block\n"
    "  Start again\n"
    "Never shows: the face of jack of spades\n"
)
CLAIM_MOVED_BEFORE_IT = (
    "Pack: 4 cards, any order\n"
    "Place FORCE at position 3 from the top, face up\n"
    "Spectator deals deck down and under to table\n"
    "As long as size of deck - (0) is more than 2:\n"
    "  Deal 2 cards from deck to hand\n"
    "Deal from table to packet, counting down from 1 to 1 until the number is a card’s value, court cards as ten, or else a card face down on top: n\n"
    "Ends with: each column of packet, table has one colour\n"
    "Never shows: the face of FORCE\n"
)
CLAIM_MOVED_INTO_A_BLOCK = (
    "Pack: 7 cards, any order\n"
    "Place two of clubs at position 1 from the bottom, face up\n"
    "Prediction: two of clubs on the back of two of clubs\n"
    "While demonstrating:\n"
    "  Turn deck over\n"
    "  Turn deck over\n"
    "Ends with: two of clubs and two of clubs have the same colour\n"
    "Never shows: the face of two of clubs\n"
)
STUCK_FURTHER_ON = (
    "Pack: spades, diamonds, clubs, each from ace to three\n"
    "Until deck runs out:\n"
    "  Deal min(3, size of deck) cards from deck to table\n"
    "Turn the face of table face down\n"
    "Spectator takes any 1 card of table to packet\n"
    "Chance decides on a number n from 1 to 2, each as likely as n + 1\n"
    "Spectator deals cards from table to deck down to two of spades: m\n"
)
STUCK_AT_A_LATE_CHOICE = (
    "Pack: 4 cards, any order\n"
    "Place FORCE at position 2 from the top\n"
    "Spectator names a number n from 1 to 2\n"
    "Spectator names a number m from 1 to 2 - n\n"
    "Turn over the top n cards of deck as a block\n"
    "Deal m cards from deck to hand\n"
    "Never shows: the face of FORCE\n"
)
"""with n as 2 there is no m, and nothing is turned over"""
ONE_LINE_GOES_BY_IT = (
    "Pack: 20 cards\nPlace A 20th\nSpectator names a number n from 1 to 5\nDeal n cards from deck to table\n"
)
MOST_PATHS_HOLD = "Pack: 9 cards\nPlace FORCE on top\nSpectator names a number n from 1 to 5\nDeal n cards from deck to table\nEnds with: FORCE is in table\n"
GOES_BY_A_FACE = "Pack: 9 cards, any order\nPlace FORCE 8th\nTurn deck over\nDeal min(3, value of the top card of deck) cards from deck to table\n"
TURNED = "Pack: 5 cards, any order\nPlace FORCE 2nd\nTurn over the top 2 cards of deck as a block\n"
FAILS_BY_ITSELF = (
    "Pack: spades, diamonds, clubs, each from king to queen\n"
    "Spectator deals deck into 3 piles\n"
    "Cut off n cards of deck, n from 0 to 1, to hand\n"
)
CHOSEN_ONE_BY_ONE = (
    "Pack: 5 cards, any order\n"
    "Place KEY at position 5 from the bottom, with an odd back\n"
    "Place two of clubs at position 2 from the top, with an odd back, the mate of KEY\n"
    "Place queen of diamonds at position 2 from the bottom\n"
    "Place MARKER in hand, face up, with an odd back\n"
    "As long as size of deck is at least 2:\n"
    "  Cut off 2 cards of deck to heap\n"
    "  Lay heap down as a new pile\n"
    "Spectator keeps 1 of the piles\n"
    "As long as size of deck is more than 2:\n"
    "  Deal 2 cards from deck to hand\n"
    "Odds of 0\n"
    "Odds: every choice is equally likely\n"
)
NO_SUCH_PILE = (
    "Pack: 5 cards, any order\n"
    "Place FORCE at position 2 from the top, with an odd back\n"
    "Place KEY at position 5 from the top\n"
    "Place two of clubs at position 3 from the top, with an odd back\n"
    "Cut off n cards of deck, n from 1 to 4, to hand\n"
    "Deal hand into 2 piles, 0 cards each\n"
    "Turn every card of pile n over where it lies\n"
    "Ends with: 6 is size of deck\n"
)
MATES_ARE_ALIKE = (
    "Pack: 4 cards, any order\nPlace queen of hearts at position 1 from the top\nPlace jack of spades at position 1 from the bottom\n"
    "Place FORCE at position 2 from the bottom, the mate of jack of spades\nSpectator takes any 2 cards of deck to table\n"
    "Spectator draws the top and bottom cards of deck together onto table, the bottom card on\n"
    "Ends with: the cards of table, two by two from the top, are mates\n"
)


def paths_of(text: str) -> list[Path] | None:
    """Every path by the reference; None for too many."""
    paths = list(islice(each_path(routine_json(read_routine(text)), logged=True), MOST_PATHS + 1))
    return judged_together(paths) if len(paths) <= MOST_PATHS else None


def sound(text: str) -> tuple[Routine, list[Path]]:
    """A routine that can be proved, with its paths; other examples are left out."""
    routine = read_routine(text)
    assume(not routine.faults and "As often" not in text and "Note the order" not in text)
    try:
        prove(routine, asked=WHETHER)
    except BadRoutine:
        assume(False)
    paths = paths_of(text)
    assume(paths)
    assert paths
    return routine, paths


def place_of(path: Path, card: str) -> tuple[str, int] | None:
    one = path.table.named.get(card)
    found = (
        (name, heap.index(one) + 1) for name, heap in path.table.heaps.items() if one is not None and one in heap
    )
    return next(found, None)


def without_claims(text: str) -> str:
    """The same as a routine that is judged by what the performer then knows."""
    return "".join(
        f"{row}\n" for row in text.splitlines() if not row.startswith(("Ends with", "Never shows", "Odds"))
    )


@SOME_TIMES
@example(FAILS_BY_ITSELF, 3, False)
@example(ONE_LINE_GOES_BY_IT, 8, False)
@example(MOST_PATHS_HOLD, 3, True)
@given(routines(), st.integers(0, 10**6), st.booleans())
def test_what_comes_of_a_slip(text: str, pick: int, claims: bool) -> None:
    text = text if claims else without_claims(text)
    routine, paths = sound(text)
    outcomes = [one for one in fragility_of(text, Budget()).outcomes if one.kind != OPEN]
    plain = prove(routine, asked=WHETHER)
    for one in [outcomes[(pick + i * 7) % len(outcomes)] for i in range(min(4, len(outcomes)))]:
        changed = edited(text, one.slip.edit)
        slipped = paths_of(changed)
        if slipped is None:
            continue
        failing = sum(path.fails for path in slipped)
        claimed = any(path.table.claims or path.table.exposed for path in (*paths, *slipped))
        named = [name for name in plain.told if name in "nmkabcdefghij"]
        if "other things" in one.says and named == list(plain.told):
            assert any(path.table.numbers.get(name) is None for path in slipped for name in named), (changed, one)
        follows = plain.landing and "other things" not in one.says and named == list(plain.told)
        wrong = 0.0 if claimed or not follows else _elsewhere(paths, slipped, plain.told, plain.landing.card)
        if one.kind == HARMLESS and any(path.fails for path in paths):
            assert one.says.startswith("It fails where") or not failing, (changed, one)
            assert not wrong, (changed, one)
        elif claimed or failing:
            assert (one.kind == HARMLESS) <= (failing == 0), (changed, one)
            assert (one.kind == SOME) <= (failing < len(slipped)), (changed, one)
            assert (one.kind in (ALL, ELSEWHERE)) <= (failing == len(slipped) or "other things" in one.says or "no ending" in one.says
                                                      or "No path" in one.says or bool(wrong) or ("not where you look" in one.says and not follows)), (changed, one)  # fmt: skip
        elif follows:
            assert (one.kind == HARMLESS) == (not wrong) and one.share in (None, pytest.approx(wrong)), (changed, one)


def _elsewhere(paths: list[Path], slipped: list[Path], told: tuple[str, ...], card: str) -> float:
    """On what share of the paths to the end the card is not where it can be without the slip, by what was told."""
    where: dict[tuple[int | None, ...], set[object]] = {}
    for path in paths:
        if not path.fails:
            where.setdefault(tuple(path.table.numbers.get(name) for name in told), set()).add(place_of(path, card))
    found = [path for path in slipped if not path.fails and place_of(path, card)]
    wrong = [
        path
        for path in found
        if place_of(path, card) not in where.get(tuple(path.table.numbers.get(name) for name in told), ())
    ]
    return len(wrong) / len(found) if found else 1.0


@SOME_TIMES
@given(routines())
def test_where_it_holds_counts_paths(text: str) -> None:
    routine, paths = sound(text)
    region = region_of(routine, Budget())
    if region:
        failing = sum(path.fails for path in paths)
        assert (region.count.paths, region.count.failing) == (len(paths), failing)


@SOME_TIMES
@given(routines(), st.integers(0, 50))
def test_what_a_blank_can_be(text: str, pick: int) -> None:
    rows = text.splitlines()
    lines = [i for i, row in enumerate(rows, 1) if any(c.isdigit() for c in row) and "dds" not in row]
    assume(lines and "Ends with" in text and "As often" not in text and "Note the order" not in text)
    tried = [str(n) for n in range(6)]
    try:
        blank = with_blank(text, lines[pick % len(lines)])
        found = solve(blank, Budget(), {1: tried})
    except (NothingToFill, BadRoutine):
        assume(False)
    assume(found.complete)
    works = []
    for value in tried:
        whole = filled(blank, found.fields, (value,))
        routine = read_routine(whole)
        if routine.faults:
            continue
        try:
            prove(routine, asked=WHETHER)
        except BadRoutine:
            continue
        paths = paths_of(whole)
        assume(paths is not None)
        assert paths is not None
        if not any(path.fails for path in paths) and any(path.table.claims for path in paths):
            works.append(value)
    assert sorted(values[0] for values in found.answers) == works


@SOME_TIMES
@example(STUCK_AT_A_LATE_CHOICE)
@given(routines())
def test_where_something_is_first_seen(text: str) -> None:
    if "Never shows" not in text and (placed := re.search(r"^Place ([A-Z]{3,}|\w+ of \w+) ", text, re.MULTILINE)):
        text += f"Never shows: the face of {placed[1]}\nNever shows: the back of {placed[1]}\n"
    assume("Never shows" in text and "As long as" not in text and "Until" not in text)
    routine, paths = sound(text)
    number = {n: line.number for n, line in enumerate(line for line in routine.walk() if line.kind)}
    seen: dict[int, set[int]] = {}
    for path in paths:
        for i, step in path.table.shown.items():
            if not path.stuck or step != path.table.step:  # a line that cannot be carried out is not begun
                seen.setdefault(i, set()).add(number.get(step, 0))
    exposed = paths[0].table.exposed
    told = Counter((min(lines), _side(*exposed[i])) for i, lines in seen.items())
    assert Counter((show.line, show.what) for show in notes_of(routine, Budget()).shows) == told, text


def _side(name: str | None, side: str) -> str:
    return f"the {side} of {name}" if name else "an odd back"


@SOME_TIMES
@example(CLAIM_MOVED_INTO_A_BLOCK)
@example(CHOSEN_ONE_BY_ONE)
@example(GOES_BY_A_FACE)
@given(routines())
def test_the_ways_a_card_travels(text: str) -> None:
    """Edges of columns that are no repetition: how many ways there are so far from one position to another."""
    routine, paths = sound(text)
    strands = strands_of(routine, Budget())
    assume(strands and not any(path.stuck for path in paths))
    assert strands
    steps = [line for line in routine.walk() if line.kind]
    nth = {line.number: n for n, line in enumerate(steps)}
    top = [line.number for line in routine.lines if line.kind]
    for column in strands.columns:
        before = top[top.index(column.line) - 1]
        if column.turn is not None or column.line not in top:
            continue
        ways: dict[tuple[int, ...], tuple[object, object]] = {}
        for path in paths:
            card = path.table.named.get(strands.card)
            marks = path.table.marks
            if card is None or nth[column.line] not in marks or nth[before] not in marks:
                continue
            many, heaps = marks[nth[column.line]]
            source, to = (_position(lie, card) for lie in (marks[nth[before]][1], heaps))
            ways[path.taken[:many]] = source, to
        counted = Counter(ways.values())
        told = {(edge.source, edge.to): edge.paths for edge in column.edges}
        if len(ways) and all(nth[column.line] in path.table.marks for path in paths):
            assert told == dict(counted), (text, column)


def _position(heaps: dict[str, tuple[int, ...]], card: Card) -> object:
    return next(((name, heap.index(card.number) + 1) for name, heap in heaps.items() if card.number in heap), None)


@SOME_TIMES
@example(MATES_ARE_ALIKE)
@example(TURNED)
@given(routines())
def test_a_reset_brings_back_how_every_card_lay(text: str) -> None:
    """The plan is carried out with real cards, from the end of every path, in words of this test's own."""
    routine, paths = sound(text)
    assume(not any(path.stuck or path.table.again for path in paths))
    plan = reset_of(routine, Budget())
    assume(plan)
    assert plan
    document = routine_json(routine)
    document["lines"] = [
        line for line in document["lines"] if line.get("step", "note").startswith(("pack", "place", "note", "title"))
    ]
    try:
        opening, _ = run(document)
    except NoPath:
        assume(False)
    program = reset_program(routine)
    names = {token: name for name, token in program.tokens.items()}
    wanted = _as_it_lies(opening.table.heaps, opening.table.named)
    for path in paths:
        heaps = {name: list(heap) for name, heap in path.table.heaps.items() if heap}
        cards = {name: path.table.named[name] for name in opening.table.named}
        for move in plan.moves:
            _carry_out(heaps, move, {token: cards[name] for token, name in names.items() if name in cards})
        assert _as_it_lies(heaps, cards) == wanted, (text, plan.moves)


def _as_it_lies(heaps: dict[str, list[Card]], named: dict[str, Card]) -> dict[str, list[tuple[str | None, bool]]]:
    """Cards without a name may be any; each must lie the right way up."""
    names = {id(card): name for name, card in named.items()}
    return {name: [(names.get(id(card)), card.face_up) for card in heap] for name, heap in heaps.items() if heap}


def _carry_out(heaps: dict[str, list[Card]], move: Move, cards: dict[int, Card]) -> None:
    if move.kind == "over":
        for name, heap in heaps.items():
            if all(card.face_up for card in heap):
                heaps[name] = heap[::-1]
                for card in heap:
                    card.face_up = False
    elif move.kind == "turn":
        for heap in heaps.values():
            for card in heap:
                card.face_up = False
    elif move.kind == "gather":
        together = [card for name in move.places for card in heaps.pop(name, [])]
        heaps["deck"] = together
    elif move.kind == "cut":
        for _ in range(move.number):
            heaps["deck"].append(heaps["deck"].pop(0))
    elif move.kind == "take":
        for heap in heaps.values():
            heap[:] = [card for card in heap if card not in [cards[token] for token in move.tokens]]
    elif move.kind == "insert":
        lying = heaps.setdefault(move.place, [])
        for i, token in enumerate(move.tokens):
            cards[token].face_up = move.face_up
            lying.insert(move.number - 1 + i, cards[token])


@SOME_TIMES
@example(CLAIM_MOVED_BEFORE_IT)
@example(LEAVES_OUT_A_PART)
@given(routines())
def test_the_margin_says_where_a_card_can_be(text: str) -> None:
    routine, paths = sound(text)
    ledger = ledger_of_card(routine, Budget(), None)
    steps = [line for line in routine.walk() if line.kind]
    nth = {line.number: n for n, line in enumerate(steps)}
    plain = {
        line.number
        for line in routine.lines
        if line.kind and line.kind.phase == HANDLING and not line.kind.opens_block
    }
    told = [
        (entry.line, entry.round, {(place, at) for place, positions in entry.where for at in positions})
        for entry in ledger.entries
    ]
    # Each beginning of the routine searched by itself, in another order, says the same.
    alone = where_cut_off(routine, Budget(), None) or {}
    told += [(line, turn, where) for (line, turn), where in alone.items()]
    for line, turn, where in told:
        if line not in plain or turn:
            continue
        expected: set[object] = set()
        for path in paths:
            card = path.table.named.get(ledger.card or "")
            if card and nth[line] in path.table.marks:
                expected.add(_position(path.table.marks[nth[line]][1], card))
        assert where == expected - {None}, (text, line)


@SOME_TIMES
@given(routines(), st.integers(0, 50))
def test_other_numbers(text: str, pick: int) -> None:
    """A sweep over one number: the share that fails with each, and what cannot be carried out."""
    rows = text.splitlines()
    lines = [i for i, row in enumerate(rows, 1) if any(c.isdigit() for c in row) and "dds" not in row]
    assume(lines and "As often" not in text and "Note the order" not in text)
    try:
        blank = with_blank(text, lines[pick % len(lines)])
        found = sweep(blank, Budget(), {1: ["1", "2", "3"]})
    except (NothingToFill, BadRoutine):
        assume(False)
    for row in found.rows:
        whole = filled(blank, found.fields, row.values)
        if read_routine(whole).faults or row.verdict in (IMPOSSIBLE, "unsettled"):
            continue
        if (paths := paths_of(whole)) is not None:
            assert row.share == sum(path.fails for path in paths) / len(paths), (whole, row)


@SOME_TIMES
@example(STUCK_FURTHER_ON, 1, 0)
@given(routines(), st.integers(0, 50), st.integers(0, 9))
def test_what_is_said_of_the_number_of_cards(text: str, pick: int, number: int) -> None:
    routine, paths = sound(text)
    assume("Start again" not in text and "End here" not in text)
    plain = [
        line for line in routine.lines if line.kind and line.kind.phase == HANDLING and not line.kind.opens_block
    ]
    assume(plain)
    line = plain[pick % len(plain)]
    nth = [one.number for one in routine.walk() if one.kind].index(line.number)
    rows = text.splitlines()
    said = (
        "\n".join([*rows[: line.number], f"  “There are {number} cards in the pack.”", *rows[line.number :]]) + "\n"
    )
    counts = {len(path.table.marks[nth][1].get("deck", ())) for path in paths if nth in path.table.marks}
    assume(counts)
    untrue = any(f"{number} cards" in found.said for found in wording_of(Analysis(said)))
    assert untrue == (counts != {number}), (said, counts)


@SOME_TIMES
@example(NO_SUCH_PILE)
@example(
    "Pack: 9 cards\nPlace FORCE 3rd\nSpectator names a number n from 1 to 3\nDeal n cards from deck to table\nPut table on deck\n"
)
@given(routines())
def test_the_most_cards_that_any_path_handles(text: str) -> None:
    routine, paths = sound(text)
    program = compile_routine(routine, REPLAY)
    assume(not program.face_classes and any(not path.stuck and not path.table.again for path in paths))
    handled = []
    for path in paths:
        played = play_path(routine, path.taken, by_index=True)
        if not path.stuck and not path.table.again:
            steps = [
                (before.state, program.instructions[frame.instruction]) for before, frame in pairwise(played.frames)
            ]
            handled.append(sum(step.handled(state) for state, step in steps if isinstance(step, Act)))
    assert effort_of(Analysis(text)).cards == max(handled)
