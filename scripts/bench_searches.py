"""Ten searches for what would work: all fillings together, each by itself, and in the way that is chosen (seconds of processor time)."""

from __future__ import annotations

import time
from dataclasses import replace
from pathlib import Path
from unittest.mock import patch

from golden_pivot.core.budget import Budget
from golden_pivot.core.variants import blanks
from golden_pivot.core.variants.blanks import Solution, solve
from golden_pivot.core.variants.trying import Task

FOLDER = Path(__file__).parents[1] / "tests"
MOST_SECONDS = 60.0


def _with_blanks(name: str, *changes: tuple[str, str]) -> str:
    text = (FOLDER / "procedures" / f"{name}.pivot").read_text(encoding="utf-8")
    for was, now in changes:
        assert was in text, (name, was)
        text = text.replace(was, now, 1)
    return text


def searches() -> dict[str, str]:
    """By name, each with its blanks."""
    told = "Pack: {n} cards, any order\nSpectator thinks of a card in deck: their card\nRepeat 3 times:\n  Deal deck into 3 piles, face up\n"
    told += "  Spectator tells which pile holds their card: p\n  Gather the piles, pile p ?, the others in any order\nEnds with: the card at position ? of deck is their card\n"
    mirrored = "Pack: 8 cards, any order\nPlace A ?th\nPlace B ?th\nAs often as the spectator likes, one of:\n  Spectator cuts deck and completes the cut\n"
    mirrored += "  Spectator turns over the top 2 cards of deck as a block\nDeal deck into 2 piles\nTurn pile 1 over\nPut pile 1 on pile 2\nEnds with: exactly A and B are reversed in pile 2\n"
    return {
        "three places on ten cards, cuts and turns": (FOLDER / "faults" / "lost_search.pivot").read_text(encoding="utf-8"),
        "two places on eight cards, cuts and turns": mirrored,
        "a number told, and a place": "Pack: 52 cards, any order\nPlace FORCE ?th\nSpectator names a number n from 10 to 19\nDeal n cards from deck\n"
        "Put dealt on deck\nDeal digit sum of n cards from deck\nEnds with: the last card dealt is FORCE\n",
        "two numbers told, dealt and counted": "Pack: 40 cards, any order\nPlace FORCE ?th\nSpectator names a number a from 1 to 9\nSpectator names a number b from 1 to 9\n"
        "Deal a + b cards from deck\nPut dealt on deck\nDeal ? cards from deck\nEnds with: the last card dealt is FORCE\n",
        "a secret number, dealt twice": "Pack: 30 cards, any order\nPlace FORCE ?th\nSpectator secretly chooses a number n from 1 to 9\nSpectator deals n cards from deck to hand\n"
        "Deal ? cards from deck to table\nSpectator puts hand on table\nPut table on deck\nDeal ? cards from deck to aside\nEnds with: FORCE is in aside\n",
        "a pile told three times": told.format(n=27),
        "two piles": _with_blanks("p16_two_piles", ("half of n rounded down + 1", "half of n rounded down + ?")),
        "the sum of five": (FOLDER / "faults" / "solve_denies.pivot").read_text(encoding="utf-8"),
        "a cut, and two blocks": "Pack: 24 cards, any order\nPlace KEY ?th\nSpectator secretly cuts off c cards of deck, c from 3 to 12, to hand\nCut off ? cards of deck to table\n"
        "Put deck on table\nSpectator puts hand on table\nEnds with: the bottom card of table is KEY\n",
        "how many of a shuffled packet": "Pack: 16 cards, any order\nCut off ? cards of deck to hand\nSpectator shuffles hand\nSpectator deals ? cards from hand to table\n"
        "Spectator puts hand on deck\nEnds with: size of table is half of size of deck rounded down\n",
    }  # fmt: skip


def _seconds(text: str, way: str) -> tuple[float, Solution]:
    def taken(task: Task, budget: Budget) -> Task:
        return task if way == "together" else replace(task, at_once=())

    begun = time.process_time()
    if way == "chosen":
        found = solve(text, Budget(seconds=MOST_SECONDS))
    else:
        with patch.object(blanks, "in_the_quicker_way", taken):
            found = solve(text, Budget(seconds=MOST_SECONDS))
    return time.process_time() - begun, found


def print_searches() -> None:
    print(f"{'search':44}{'ways':>8}{'together':>10}{'alone':>8}{'chosen':>8}  of the better")
    for name, text in searches().items():
        ways = {way: _seconds(text, way) for way in ("together", "alone", "chosen")}
        seconds = {way: taken for way, (taken, _) in ways.items()}
        answers = {found.answers for _, found in ways.values() if found.complete}
        best = min(seconds["together"], seconds["alone"])
        said = "" if len(answers) <= 1 else "  THE WAYS DO NOT AGREE"
        print(
            f"{name:44}{ways['chosen'][1].fillings:8,}{seconds['together']:10.2f}{seconds['alone']:8.2f}{seconds['chosen']:8.2f}"
            f"{seconds['chosen'] / best:8.2f}{said}", flush=True,
        )  # fmt: skip


if __name__ == "__main__":
    print_searches()
