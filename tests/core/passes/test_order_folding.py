"""Orders that nobody asks for: the answers are those of every order, and far fewer states are kept."""

from __future__ import annotations

import os
import random
from collections import Counter
from collections.abc import Iterator, Sequence
from contextlib import suppress
from dataclasses import replace
from itertools import pairwise
from typing import Any
from unittest.mock import patch

import pytest

from golden_pivot.core.answers import all_paths
from golden_pivot.core.answers.proving import prove
from golden_pivot.core.budget import Budget
from golden_pivot.core.building import PROOF
from golden_pivot.core.building.builder import lowered
from golden_pivot.core.faults import Impossible, OutOfBudget
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.language.printer import routine_json
from golden_pivot.core.passes.liveness import liveness
from golden_pivot.core.passes.order_folding import fold_orders
from golden_pivot.core.passes.pipeline import run
from golden_pivot.core.search.explorer import Exploration, explore
from golden_pivot.core.search.program import FAILED, Act, Check, OneSpot, Program
from golden_pivot.witness import each_path

MOST = 20_000
"""states; larger ones are left out"""
MANY = int(os.environ.get("RANDOM_ROUTINES", "60"))
FIRST = random.randrange(10**9) if "RANDOM_ROUTINES" in os.environ else 0
PLACES = ("deck", "east", "west")
CARDS = ("ACE", "BELL")


class _Writer:
    """A heap that is shuffled, or of unknown cards, then moved in parts, and asked about."""

    def __init__(self, seed: int) -> None:
        self.draw = random.Random(seed)
        self.shuffled = self.draw.random() < 0.6

    def text(self) -> str:
        draw = self.draw
        if self.shuffled:
            known = draw.choice(
                (
                    "6 cards",
                    "5 cards, any order",
                    "hearts, clubs, each from two to four",
                    "spades, diamonds, each from queen to king",
                )
            )
            rows = [
                f"Pack: {known}",
                *(f"Place {card} {at}" for card, at in zip(CARDS, ("1st", "4th"), strict=True) if known[0] in "56"),
            ]
            rows += ["Turn over the top 2 cards of deck as a block"] if draw.random() < 0.6 else []
        else:
            rows = [f"Pack: {draw.randint(4, 6)} cards, any order"]
        if draw.random() < 0.3:
            rows.append("Spectator names a number n from 1 to 2")
        self.counts = ["1", "2", "3", *(["n", "n"] if rows[-1].endswith("to 2") else [])]
        rows += ["Spectator shuffles deck"] if self.shuffled else []
        self.named = self.shuffled and "6 cards" in rows[0]
        self.filled = ["deck"]
        for _ in range(draw.randint(0, 3)):
            rows.append(self.move())
        if draw.random() < 0.05:
            rows.append("Spectator cuts deck and completes the cut")
        ends = [f"Ends with: {self.claim()}" for _ in range(draw.randint(1, 2))]
        return "\n".join([*rows, *ends, ""])

    def move(self) -> str:
        draw, place = self.draw, self.draw.choice([*self.filled, "deck", "deck"])
        kind = draw.randrange(9)
        if kind == 0:
            return f"Turn {place} over"
        if kind == 1:
            return f"Turn over the top {draw.choice(self.counts)} cards of {place} as a block"
        to = draw.choice([other for other in PLACES if other != place])
        self.filled = list(dict.fromkeys([*self.filled, to]))
        if kind == 2:
            return (
                f"Put {place} on {to}"
                if to != "deck" or len(self.filled) > 2
                else f"Deal 1 card from {place} to {to}"
            )
        return f"Deal {draw.choice(self.counts)} cards from {place} to {to}"

    def claim(self) -> str:
        one = self.one_claim()
        return f"{one} {self.draw.choice(('and', 'or'))} {self.one_claim()}" if self.draw.random() < 0.4 else one

    def one_claim(self) -> str:
        draw, place = self.draw, self.draw.choice(self.filled)
        other, number = draw.choice(self.filled), draw.randint(0, 3)
        options = [
            f"number of face-up cards of {place} is number of face-down cards of {other}",
            f"{number} cards of {place} are face up",
        ]
        if self.named:
            return draw.choice(
                [
                    *options,
                    *(f"{draw.choice(CARDS)} is {draw.choice(('in', 'not in'))} {place}" for _ in range(3)),
                    f"ACE is the top card of {place}",
                ]
            )
        return draw.choice([
            *options, f"{number} cards of {place} are red", f"number of red cards of {place} is number of black cards of {other}",
            f"the {draw.choice(('top', 'bottom', '2nd'))} card of {place} is {draw.choice(('red', 'a two', 'a court card'))}",
            f"value of the top card of {place} is at least {number}", f"{place} has no two cards of the same value",
            f"every card of {place} is black", f"all red cards of {place} lie together",
        ])  # fmt: skip


def _ends(found: Exploration) -> Counter[object]:
    ends: Counter[object] = Counter()
    for state, weight in found.ends.items():
        ends[state[FAILED]] += weight
    ends["stuck"] = sum(found.stuck.values())
    return ends


def _low(text: str) -> Program:
    routine = read_routine(text)
    assert not routine.faults, (text, routine.faults)
    program, faults = lowered(routine, PROOF)
    assert not faults, (text, faults)
    return program


SIX = "Pack: hearts, clubs, each from two to four\nSpectator shuffles deck\n"
SPOTS = [
    f"{SIX}Ends with: the 2nd card of deck is red\n",
    f"{SIX}Deal 2 cards from deck to east\nEnds with: the bottom card of deck is a two\n",
    f"{SIX}Deal 3 cards from deck to east\nEnds with: the top card of east is a two\n",
    # the cards of another case are not dealt off it
    "Pack: hearts, clubs, each from two to four\nSpectator names a number n from 1 to 2\nIf n is 1:\n  Spectator shuffles deck\nOtherwise:\n"
    "  Deal 2 cards from deck to east\nDeal 3 cards from deck to west\nEnds with: 2 cards of west are red\n",
    "Pack: 4 cards, any order\nEnds with: the top card of deck is red\nEnds with: 2 cards of deck are red\nEnds with: the top card of deck is red\n",
]


@pytest.mark.parametrize("text", [*SPOTS, *(_Writer(seed).text() for seed in range(FIRST, FIRST + MANY))])
def test_it_changes_no_answer(text: str) -> None:
    program = _low(text)
    try:
        plain = _ends(explore(run(program, (liveness,)), Budget(states=MOST)))
    except OutOfBudget:
        return
    assert _ends(explore(run(program, (fold_orders, liveness)), Budget(states=MOST))) == plain
    if sum(plain.values()) > plain["stuck"]:  # else no path gets past some line, which is told as a fault
        small = prove(read_routine(text), Budget(states=MOST))
        with patch.object(all_paths, "FEW_TRANSITIONS", 0), patch.object(all_paths, "FEW_WITHOUT_PLACES", 0):
            large = prove(read_routine(text))
        assert large.verdict == small.verdict
        # One that was drawn need not be the least.
        if all(one.counterexample and one.counterexample.least for one in (small, large)):
            assert large.counterexample == small.counterexample
    if "shuffles" in text and "any order" not in text:
        paths = list(each_path(routine_json(read_routine(text))))
        assert (sum(plain.values()), plain["stuck"]) == (len(paths), sum(path.stuck for path in paths))
        assert sum(path.fails for path in paths) == sum(many for end, many in plain.items() if end)


@pytest.mark.parametrize("seed", range(FIRST, FIRST + MANY))
def test_the_rest_of_a_program_does_what_it_says_of_orders(seed: int) -> None:
    """A claim holds however bags lie; from parts that lie otherwise a move makes bags that are the same."""
    text = _Writer(seed).text()
    program = _low(text)
    places = [cell for cell, _ in program.places()]

    def same(step: Act | Check, ask: Any) -> Any:
        def asked(cells: Sequence[Any]) -> Any:
            other = list(_turned(step, list(cells), places))
            answer, there = _outcome(ask, cells), _outcome(ask, other)
            if isinstance(step, Act):
                assert repr(there) == repr(answer) and _bags(cells, places) == _bags(other, places), (text, step.line)
            else:
                assert repr(there) == repr(answer), (text, step.line)
            if isinstance(answer, Impossible):
                raise answer
            return answer

        return asked

    def stirred(step: Any) -> Any:
        if isinstance(step, Check) and step.bags:
            return replace(step, holds=same(step, step.holds))
        return replace(step, run=same(step, step.run)) if isinstance(step, Act) and step.splits is not None else step

    with suppress(OutOfBudget):
        explore(
            liveness(replace(program, instructions=tuple(map(stirred, program.instructions)))), Budget(states=2_000)
        )


def _outcome(ask: Any, cells: Sequence[Any]) -> Any:
    try:
        return ask(cells)
    except Impossible as obstacle:
        return obstacle


def _bags(cells: Sequence[Any], places: Sequence[int]) -> list[Any]:
    return [sorted(cell) if i in places else cell for i, cell in enumerate(cells)]


def _turned(step: Act | Check, cells: list[Any], places: Sequence[int]) -> Iterator[Any]:
    """The state with every part of a place turned round in which order is said to make no difference."""
    for i, cell in enumerate(cells):
        if i not in places or (isinstance(step, Check) and i not in step.bags):
            yield cell
            continue
        ends = {0, len(cell)}
        for part in (step.splits or ()) if isinstance(step, Act) else ():
            ends |= {max(0, part.number(cells))} if part.place == i else set()
        for one in step.spots:
            ends |= _around(one, cells, len(cell)) if one.place == i else set()
        at = sorted(end for end in ends if end <= len(cell))
        yield b"".join(cell[a:b][::-1] for a, b in pairwise(at))


def _around(one: OneSpot, cells: Sequence[Any], size: int) -> set[int]:
    with suppress(Impossible):
        return {one.index(cells, size), one.index(cells, size) + 1}
    return set()


LARGE = [
    # as many reds in one half as blacks in the other, in a pack of 52 of which nothing is known
    ("Pack: 52 cards, any order\nDeal 26 cards from deck to table\nEnds with: number of red cards of table is number of black cards of deck\n", "proved"),
    ("Pack: 50 cards, any order\nDeal 25 cards from deck to table\nEnds with: number of red cards of table is number of black cards of deck\n", "refuted"),
    # so many turned over among others, shuffled; so many dealt and turned over
    *((f"Pack: 52 cards, any order\nTurn over the top 20 cards of deck as a block\nSpectator shuffles deck\nDeal {count} cards from deck to table\n"
       "Turn table over\nEnds with: number of face-up cards of table is number of face-up cards of deck\n", verdict)
      for count, verdict in ((20, "proved"), (21, "refuted"))),
]  # fmt: skip


@pytest.mark.parametrize(("text", "verdict"), LARGE)
def test_a_whole_pack_is_settled(text: str, verdict: str) -> None:
    assert prove(read_routine(text), Budget(transitions=100_000)).verdict == verdict
