"""Stacks, against values worked out by hand, by plain simulation, or published."""

from __future__ import annotations

import random
from collections.abc import Callable, Sequence
from itertools import pairwise

import pytest
import z3

from golden_pivot.core.answers.proving import prove
from golden_pivot.core.budget import Budget
from golden_pivot.core.cards import RANKS
from golden_pivot.core.desks import Trouble, stacks
from golden_pivot.core.desks.assembly import assembled, blocks, dealt_twice, order_of, passes, two_deals
from golden_pivot.core.desks.constraints import KINDS, Misread, read_constraint
from golden_pivot.core.desks.sending import sent
from golden_pivot.core.desks.stack_model import Model, Pack
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.search.faces import PACK

SUMS = [(2, 2), (2, 3), (2, 5), (2, 8), (2, 13), (2, 21), (3, 34), (5, 55), (8, 89)]


def sum_lines() -> list[str]:
    rows, first = [], 1
    for cards, total in SUMS:
        rows.append(f"cards {first} to {first + cards - 1} add up to {total}")
        first += cards
    return rows


def stacked(**asks: object) -> stacks.StackAnswers:
    return stacks.answer(stacks.StackAsks(**asks), Budget(seconds=60))  # type: ignore[arg-type]


def value(card: str) -> int:
    return RANKS.index(card.split()[0]) + 1


def suit(card: str) -> str:
    return card.split()[2]


def red(card: str) -> bool:
    return suit(card) in ("hearts", "diamonds")


def test_groups_with_growing_sums_from_one_pack() -> None:
    found = stacked(constraints=sum_lines(), wanted=3)
    assert len(set(found.arrangements)) == 3
    for cards in found.arrangements:
        left = list(cards)
        assert len(set(cards)) == 28 and set(cards) <= set(PACK)
        assert all(sum(value(left.pop(0)) for _ in range(many)) == total for many, total in SUMS)
    text = sent("Title: A test\n", found.send or pytest.fail())
    claim = "Ends with: (value of the 1st card of deck) + (value of the 2nd card of deck) is 2\n"
    assert prove(read_routine(text + claim)).verdict == "proved"


@pytest.mark.parametrize(
    ("more", "clash"),
    [
        (["cards 3 to 4 are each an ace"], ["cards 3 to 4 add up to 3", "cards 3 to 4 are each an ace"]),
        # Two pairs of aces, one more in a sum of 3: five aces.
        (["cards 7 to 8 are each an ace"], ["cards 7 to 8 add up to 8", "cards 7 to 8 are each an ace"]),
        (
            ["cards 13 to 15 are black", "card 13 is a king", "card 14 is a king", "card 15 is a king"],
            ["cards 13 to 15 add up to 34", "card 13 is a king", "card 14 is a king", "card 15 is a king"],
        ),
        (["cards 1, 2, 5, 6 agree in value"], ["cards 5 to 6 add up to 5", "cards 1, 2, 5, 6 agree in value"]),
    ],
)  # fmt: skip
def test_the_smallest_clash(more: list[str], clash: list[str]) -> None:
    found = stacked(constraints=sum_lines() + more)
    assert found.arrangements == () and found.settled and found.clash_is_smallest
    assert len(found.clash) == len(clash) and set(found.clash) <= set(sum_lines() + more)
    # There may be several as small; whichever is told clashes, and no part of it does.
    assert _arranged(list(map(meaning, found.clash))) is None
    for line in found.clash:
        assert _arranged([meaning(other) for other in found.clash if other != line])


def meaning(line: str) -> Callable[[Model], z3.BoolRef]:
    one = read_constraint(line)
    return lambda model: one.kind.means(model, one.values)


def _arranged(meanings: list[Callable[[Model], z3.BoolRef]]) -> tuple[str, ...] | None:
    """The solver by itself: an order of a whole pack for which these hold; None where there is none."""
    model, solver = Model(52, Pack()), z3.Solver()
    solver.add(*model.rules(), *(meaning(model) for meaning in meanings))
    return model.read(solver.model()) if solver.check() == z3.sat else None


def _runs(cards: Sequence[str], length: int) -> list[Sequence[str]]:
    return [cards[i : i + length] for i in range(len(cards) - length + 1)]


MEANT = {
    "card 5 is queen of hearts": lambda c: c[4] == "queen of hearts",
    "cards 1, 3, 5 are red": lambda c: all(red(c[i]) for i in (0, 2, 4)),
    "cards 1 to 4 are hearts or spades": lambda c: all(suit(card) in ("hearts", "spades") for card in c[:4]),
    "card 7 is a king": lambda c: value(c[6]) == 13,
    "cards 1 to 5 are each worth 2 to 9": lambda c: all(2 <= value(card) <= 9 for card in c[:5]),
    "cards 1 to 3 add up to 20": lambda c: sum(map(value, c[:3])) == 20,
    "cards 1, 14, 27 agree in value": lambda c: value(c[0]) == value(c[13]) == value(c[26]),
    "cards 1 to 12 pair up in value and colour": lambda c: all(
        value(c[i]) == value(c[i + 1]) and red(c[i]) == red(c[i + 1]) for i in range(0, 12, 2)
    ),
    "suits go round clubs, hearts, spades, diamonds in cards 1 to 52": lambda c: all(
        suit(card) == ("clubs", "hearts", "spades", "diamonds")[i % 4] for i, card in enumerate(c)
    ),
    "colours alternate in cards 1 to 20": lambda c: all(red(a) != red(b) for a, b in _runs(c[:20], 2)),
    "no more than 3 cards in a row agree in colour": lambda c: all(
        len(set(map(red, run))) > 1 for run in _runs(c, 4)
    ),
    "no more than 5 cards in a row alternate in colour": lambda c: all(
        any(red(a) == red(b) for a, b in pairwise(run)) for run in _runs(c, 6)
    ),
}


def test_every_kind_of_constraint_means_what_it_says() -> None:
    """Its example holds in what is found for it, and not in what is found for the opposite."""
    assert set(MEANT) == {kind.example for kind in KINDS}
    for line, holds in MEANT.items():
        found = stacked(constraints=[line], cards=52)
        assert found.arrangements and holds(found.arrangements[0]), line
        assert sorted(found.arrangements[0]) == sorted(PACK)
        assert (other := _arranged([lambda model, line=line: z3.Not(meaning(line)(model))])) and not holds(other), (
            line
        )


@pytest.mark.parametrize(
    ("line", "holds"),
    [
        ("cards 1 to 4 differ in suit", lambda c: len(set(map(suit, c[:4]))) == 4),
        ("cards 1 to 6 mirror each other in suit", lambda c: all(suit(c[i]) == suit(c[5 - i]) for i in range(3))),
        ("cards 1 to 4 add up to at least 50", lambda c: sum(map(value, c[:4])) >= 50),
        ("cards 1 to 4 add up to at most 6", lambda c: sum(map(value, c[:4])) <= 6),
        ("no more than 1 card in a row agree in suit", None),
        ("no more than 1 cards in a row agree in suit", lambda c: all(suit(a) != suit(b) for a, b in _runs(c, 2))),
    ],
)
def test_the_other_words_of_constraints(line: str, holds: object) -> None:
    if holds is None:
        with pytest.raises(Misread):
            read_constraint(line)
        return
    assert callable(holds) and holds(stacked(constraints=[line], cards=12).arrangements[0])


def test_one_real_pack() -> None:
    five = ["cards 1 to 5 agree in value"]
    assert stacked(constraints=five).clash == tuple(five)
    assert stacked(constraints=five, packs=2).arrangements
    short = stacked(
        constraints=["cards 1 to 32 are each worth 1 to 13"], without=["two", "three", "four", "five", "six"]
    )
    assert {value(card) for card in short.arrangements[0]} == {1, 7, 8, 9, 10, 11, 12, 13}
    with pytest.raises(Trouble, match="52"):
        stacked(constraints=["card 53 is red"])
    assert stacked(constraints=["cards 1 to 53 are each worth 0 to 13"], jokers=1).arrangements[0].count("joker") == 1


@pytest.mark.parametrize(
    "placed",
    [
        "Pack: 52 cards, any order\nPlace FORCE on top\nPlace ten of clubs, two of hearts in this order, the first 4th\nTurn deck over\n",
        "position,card\n4,ten of clubs\n5,Two of hearts\n",
    ],
)
def test_what_lies_already_stays(placed: str) -> None:
    found = stacked(constraints=["cards 1 to 6 agree in colour"], placed=placed)
    assert (
        found.clash == ("card 4 is ten of clubs", "card 5 is two of hearts", "cards 1 to 6 agree in colour")
        or len(found.clash) == 3
    )
    kept = stacked(constraints=["cards 1 to 6 differ in value"], placed=placed).arrangements[0]
    assert kept[3:5] == ("ten of clubs", "two of hearts")


def test_putting_a_stack_together() -> None:
    order = order_of(stacks.NEW_PACK) or pytest.fail()
    assert order[0] == "ace of spades" and order[-1] == "ace of hearts"
    draw = random.Random(2)
    for size in (0, 1, 9, 28, 52):
        cards = draw.sample(order, size)
        cards[3:8] = [card for card in order if card not in cards[:3] + cards[8:]][:5] if size > 8 else cards[3:8]
        parts = blocks(order, cards)
        assert assembled(order, parts) == tuple(cards) and sum(part.cards for part in parts) == size
        assert [card for run in passes(order, cards) for card in run] == cards
        assert dealt_twice(draw.sample(order, 52), two_deals(cards)) == tuple(cards)
    assert [(part.cards, part.reverses) for part in blocks(order, order[10:20] + order[5:0:-1])] == [
        (10, False),
        (5, True),
    ]


def test_a_line_that_is_no_constraint_is_pointed_at() -> None:
    found = stacked(constraints=["card 1 is red", "card 2 is frog"])
    (fault,) = found.faults
    assert (fault.line, fault.column, fault.end) == (2, 11, 15) and "“frog”" in fault.message
    assert fault.remedy.startswith("For example: card")
