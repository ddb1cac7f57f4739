"""The pack between two routines, carried out with real cards from the end of every path of the reference."""

from __future__ import annotations

import os
from itertools import islice
from pathlib import Path as File

import pytest
from hypothesis import HealthCheck, assume, given, settings

from golden_pivot.core.budget import Budget
from golden_pivot.core.faults import BadRoutine
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.language.printer import routine_json
from golden_pivot.core.programme.in_between import in_between
from golden_pivot.core.programme.pack_between import PackBetween, pack_between
from golden_pivot.core.show.getting_ready import Move
from golden_pivot.core.show.reset import reset_of
from golden_pivot.demo import demo_text
from golden_pivot.witness import Card, NoPath, each_path, run
from tests.strategies import routines

PROCEDURES = File(__file__).parents[2] / "procedures"
MANY = int(os.environ.get("RANDOM_ROUTINES", "25"))
SOME_TIMES = settings(
    max_examples=MANY, deadline=None, suppress_health_check=list(HealthCheck), derandomize="RANDOM_ROUTINES" not in os.environ
)  # fmt: skip
MOST_PATHS = 150


def text_of(name: str) -> str:
    file = PROCEDURES / f"{name}.pivot"
    return file.read_text() if file.exists() else demo_text(name)


def between(first: str, second: str) -> PackBetween:
    return pack_between(read_routine(first), read_routine(second), Budget())


# By an oracle


def set_up(text: str):  # type: ignore[no-untyped-def]
    """The table when everything lies ready, by the reference."""
    document = routine_json(read_routine(text))
    document["lines"] = [
        line for line in document["lines"] if line.get("step", "note").startswith(("pack", "place", "note", "title"))
    ]
    path, _ = run(document)
    path.table.named.pop("the card watched", None)  # another name for one that is placed
    return path.table


def as_it_lies(heaps: dict[str, list[Card]], named: dict[str, Card]) -> object:
    names = {id(card): name for name, card in named.items()}
    return {name: [(names.get(id(card)), card.face_up) for card in heap] for name, heap in heaps.items() if heap}


def carry_out(heaps: dict[str, list[Card]], rest: list[Card], move: Move, cards: dict[int, Card]) -> None:
    """With the cards that were left out of the pack at hand."""
    deck = heaps.get("deck", [])
    match move.kind:
        case "over":
            for name, heap in heaps.items():
                if all(card.face_up for card in heap):
                    heaps[name] = heap[::-1]
                    for card in heap:
                        card.face_up = False
        case "turn":
            for heap in heaps.values():
                for card in heap:
                    card.face_up = False
        case "gather":
            together = [card for name in move.places for card in heaps.pop(name, [])]
            heaps["deck"] = together
        case "cut":
            heaps["deck"] = deck[move.number :] + deck[: move.number]
        case "aside":
            gone = deck[: move.number] if move.place == "top" else deck[len(deck) - move.number :]
            rest.extend(gone)
            heaps["deck"] = [card for card in deck if card not in gone]
        case "add":
            new = [rest.pop() for _ in range(move.number)]
            heaps["deck"] = new + deck if move.place == "top" else deck + new
        case "count":
            heaps.setdefault("deck", [])
            while len(heaps["deck"]) > move.number:
                rest.append(heaps["deck"].pop())
            while len(heaps["deck"]) < move.number:
                heaps["deck"].append(rest.pop())
        case "take":
            taken = [cards[token] for token in move.tokens]
            for heap in (*heaps.values(), rest):
                heap[:] = [card for card in heap if card not in taken]
        case "insert":
            lying = heaps.setdefault(move.place, [])
            for i, token in enumerate(move.tokens):
                cards[token].face_up = move.face_up
                lying.insert(move.number - 1 + i, cards[token])


def of_no_pack(text: str, table) -> set[str]:  # type: ignore[no-untyped-def]
    """Cards that come from outside: with another back, written on, or ready at another place."""
    written_on = {line.get("bearer") for line in routine_json(read_routine(text))["lines"]}
    return {
        name for name, card in table.named.items()
        if card not in table.heaps["deck"] or card.odd_back or name in written_on
    }  # fmt: skip


def check(first: str, second: str, found: PackBetween, most: int = MOST_PATHS) -> int:
    """How many paths were gone. Cards of the second that the first does not know are looked for at every place in turn."""
    wanted_table = set_up(second)
    wanted = as_it_lies(wanted_table.heaps, wanted_table.named)
    begun = set_up(first)
    own = list(begun.named)
    coming, begun_coming = of_no_pack(second, wanted_table), of_no_pack(first, begun)
    gone = 0
    for nth, path in enumerate(islice(each_path(routine_json(read_routine(first))), most)):
        if path.stuck:
            continue
        gone += 1
        for moves, ahead in ((found.moves, ()), (found.ahead_moves, found.ahead)):
            if ahead == () and moves is found.ahead_moves:
                continue
            if moves == () and found.state == "another pack" and not ahead:
                continue
            path, _ = run(routine_json(read_routine(first)), path.taken)
            heaps = {name: list(heap) for name, heap in path.table.heaps.items() if heap}
            rest = [Card(900 + i, False) for i in range(120)]
            cards = {name: path.table.named[name] for name in own}
            for name in [
                name for name in own if name in wanted_table.named and (name in begun_coming) != (name in coming)
            ]:
                cards[f"{name} that is not of the pack" if name in begun_coming else f"{name} as it was"] = cards.pop(
                    name
                )
            anyone = [card for heap in heaps.values() for card in heap if card not in cards.values()] + rest[-12:]
            hidden = [name for name in wanted_table.named if name not in cards]
            at = {one.card: begun.heaps["deck"][one.position - 1].number for one in ahead}
            for i, name in enumerate(hidden):
                if name in at:
                    cards[name] = next(card for heap in heaps.values() for card in heap if card.number == at[name])
                elif name in coming:
                    cards[name] = Card(800 + i, False)
                else:
                    cards[name] = anyone.pop((7 * nth + i) % len(anyone))
            tokens = {token: cards[name] for token, name in found.names.items() if name in cards}
            for move in moves:
                carry_out(heaps, rest, move, tokens)
            mine = {name: card for name, card in cards.items() if name in wanted_table.named}
            assert as_it_lies(heaps, mine) == wanted, (first, second, moves, ahead)
    return gone


@SOME_TIMES
@given(routines(), routines())
def test_after_every_path_the_plan_makes_ready_what_comes_next(first: str, second: str) -> None:
    try:
        found = between(first, second)
        check(first, second, found)
    except (BadRoutine, NoPath):
        assume(False)


@SOME_TIMES
@given(routines())
def test_between_a_routine_and_itself_it_is_the_reset(text: str) -> None:
    try:
        plan, found = reset_of(read_routine(text), Budget()), between(text, text)
    except BadRoutine:
        assume(False)
    if plan and found.state != "another pack":
        assert found.covered <= sum(move.is_covered for move in plan.moves) * 1000
        assert bool(found.moves) == bool(plan.moves), (plan, found)


# By hand: (first, second, what comes out, kinds of the moves, cards put in before)
BY_HAND = [
    # Nothing lies at a known place in either; 52 cards are 40 and 12, or 16 and 36.
    ("watch_below", "watch_below", "ready", "", ()),
    ("four_decks", "two_gangways", "after a reset", "gather add", ()),
    ("two_gangways", "four_decks", "after a reset", "gather aside", ()),
    # 28th of 52: whatever is dealt and put back, what lay 28th from the top lies there again under the dealt ones or among
    # them; a card that lay 27th lies on top when as many are dealt as figures say. HORN must be on top of 40.
    ("harbour_light", "fog_signals", "after a reset", "gather take count insert", (("HORN", 27),)),
    # Where a card comes to depends on the pile that is told: no place to begin with is sure, and TICKET is looked for.
    ("watch_below", "second_berth", "after a reset", "take count insert", ()),
    ("four_decks", "cabin_corridor", "after a reset", "gather take count insert", ()),
    # The one with another back is taken out; without it 39 are left of 40, and LODGER is no card of the pack.
    ("pursers_count", "watch_below", "after a reset", "over gather take count", ()),
    ("watch_below", "pursers_count", "after a reset", "take count insert insert", ()),
    ("lifeboat_drill", "two_gangways", "after a reset", "over gather add", ()),
    # 27 cards, of which one comes in 2nd: 7 others are left beside it.
    ("p14_nine_cards", "second_berth", "after a reset", "gather take count insert", ()),
]


@pytest.mark.parametrize(("first", "second", "state", "kinds", "ahead"), BY_HAND, ids=lambda value: str(value)[:20])
def test_pairs_worked_out_by_hand(
    first: str, second: str, state: str, kinds: str, ahead: tuple[tuple[str, int], ...]
) -> None:
    found = between(text_of(first), text_of(second))
    assert (found.state, " ".join(move.kind for move in found.moves)) == (state, kinds), found.says
    assert tuple((one.card, one.position) for one in found.ahead) == ahead


PAIRS = [
    (first, second)
    for first, second, *_ in BY_HAND
] + [("p01_three_reports", "p13_digit_sum"), ("p13_digit_sum", "p16_two_piles"), ("p17_row_of_ten", "p19_unseen_cut"), ("p13_digit_sum", "p18_two_numbers")]  # fmt: skip


@pytest.mark.parametrize(("first", "second"), PAIRS, ids=str)
def test_pairs_of_real_routines_on_their_paths(first: str, second: str) -> None:
    found = between(text_of(first), text_of(second))
    assert check(text_of(first), text_of(second), found, 60)


def test_what_would_spoil_a_pack_that_lies_ready() -> None:
    lies = {one.what: one.harmless for one in in_between(demo_text("harbour_light"), Budget())}
    assert lies == {"cut": False, "shuffled": False, "turned over": False}
    assert all(one.harmless for one in in_between(demo_text("watch_below"), Budget()))
    assert in_between(demo_text("last_orders"), Budget()) == ()  # it has a blank


def test_a_prediction_that_was_shown_is_put_back_and_what_nobody_touched_is_not() -> None:
    text = "Pack: 20 cards, any order\nPlace KEY on top\nPlace MARKER in pocket\nTurn over the top 1 card of deck as a block\nTurn over the top 1 card of deck as a block\nEnds with: the top card of deck is KEY\n"
    assert between(text, text).state == "ready"
    plan = reset_of(read_routine(text), Budget())
    assert plan and plan.moves == ()
    told = text.replace("Turn over", "Prediction: KEY, on the back of MARKER\nTurn over", 1)
    for moves in (between(told, told).moves, (reset_of(read_routine(told), Budget()) or between(text, text)).moves):
        assert [move.words for move in moves if move.kind == "insert" and move.place == "pocket"] == [
            "Put MARKER in pocket."
        ]


def test_a_card_of_the_same_name_from_another_pack_is_another_card() -> None:
    odd = "Pack: 20 cards, any order\nPlace queen of hearts in pocket, with an odd back\nPlace KEY on top\nDeal 3 cards from deck\n"
    own = "Pack: 20 cards, any order\nPlace queen of hearts on top\nDeal 1 card from deck\n"
    there = between(odd, own)
    assert [move.kind for move in there.moves] == ["gather", "take", "count", "insert"], there
    assert "queen of hearts and queen of hearts that is not of the pack" in there.says
    back = between(own, odd)
    assert [move.kind for move in back.moves] == ["gather", "take", "count", "insert", "insert"], back
    assert check(odd, own, there) and check(own, odd, back)


def test_another_pack() -> None:
    two_packs = "Pack: 104 cards, any order\nPlace KEY on top\nDeal 3 cards from deck\n"
    assert between(two_packs, demo_text("watch_below")).state == "another pack"
    shuffled = "Pack: 52 cards, any order\nPlace KEY on top\nPlace LOCK 2nd\nSpectator shuffles deck\n"
    found = between(shuffled, demo_text("harbour_light"))
    assert [move.kind for move in found.moves] == ["take", "count", "insert"], found
    # Too many ways to lie are no reason to say that it is ready.
    assert between(shuffled, shuffled).state == "another pack"
