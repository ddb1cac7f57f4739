"""How far a proof goes: for each way of growing, the largest size that settles in 1 s and in 10 s of processor time."""

from __future__ import annotations

import time
from collections.abc import Callable, Iterable
from functools import partial

from golden_pivot.core.answers.proving import prove
from golden_pivot.core.answers.verdicts import UNSETTLED, WHETHER
from golden_pivot.core.budget import Budget
from golden_pivot.core.english import ordinal
from golden_pivot.core.faults import BadRoutine
from golden_pivot.core.language.parser import read_routine

LIMITS = (1.0, 10.0)


def _card(i: int) -> str:
    return f"KEY{chr(65 + i // 26)}{chr(65 + i % 26)}"


def _told_piles(rounds: int) -> str:
    told = "  Deal deck into 3 piles\n  Spectator tells which pile holds their card: p\n  Gather the piles, pile p 2nd, the others in any order\n"
    return f"Pack: 27 cards\nSpectator thinks of a card in deck: their card\nRepeat {rounds} times:\n{told}Ends with: the 14th card of deck is their card\n"


def _free_numbers(count: int) -> str:
    names = [f"n{i}" for i in range(1, count + 1)]
    chosen = "".join(f"Spectator names a number {name} from 1 to 6\n" for name in names)
    return f"Pack: 104 cards\nPlace FORCE 3rd\n{chosen}Deal {' + '.join(names)} cards from deck to table\nEnds with: FORCE is in deck\n"


def _values_added(count: int) -> str:
    names = [_card(i) for i in range(count)]
    seen = "".join(f"Remember the next card: {name}\nDeal 1 card from deck to table\n" for name in names)
    return (
        f"Pack: 52 cards, any order\nDeal 1 card from deck to table\n{seen}Let t be {' + '.join(f'value of {name}' for name in names)}\n"
        f"Ends with: t is at least {count}\n"
    )


def _shuffled(cards: int) -> str:
    return f"Pack: {cards} cards\nPlace FORCE on top\nSpectator shuffles deck\nEnds with: FORCE is in deck\n"


def _riffled(sorts: str, group: int, what: str, cards: int) -> str:
    return (
        f"Pack: {cards} cards\nArrange the pack {sorts} in turn\nSpectator names a number n from 1 to {cards - 1}\n"
        f"Deal n cards from deck to table\nSpectator riffles table into deck\n"
        f"Ends with: in every {group} cards of deck from the top all {what} are different\n"
    )


def _tracked(count: int) -> str:
    placed = "".join(f"Place {_card(i)} {i + 1}th\n" for i in range(count))
    cut = "Spectator cuts deck and completes the cut\nDeal deck into 2 piles\nGather pile 1, pile 2 from top to bottom\n"
    claims = "".join(f"Ends with: {_card(i)} is in deck\n" for i in range(count))
    return f"Pack: 40 cards\n{placed}{cut}{claims}"


def _lines(count: int) -> str:
    return (
        "Pack: 52 cards\nPlace FORCE 10th\n"
        + "Spectator cuts deck and completes the cut\n" * count
        + "Ends with: FORCE is in deck\n"
    )


def _piles(count: int) -> str:
    told = f"  Deal deck into {count} piles\n  Spectator tells which pile holds their card: p\n  Gather the piles, pile p 2nd, the others in any order\n"
    return (
        f"Pack: {count * 4} cards\nSpectator thinks of a card in deck: their card\nRepeat 2 times:\n{told}"
        "Ends with: their card is in deck\n"
    )


def _closure(moves: int) -> str:
    """Each pair is to be found face to face with its mate, whatever is done how often."""
    placed = "".join(f"Place KEY{chr(65 + i)} {ordinal(i + 1)}\n" for i in range(6))
    each = "".join(
        f"  Repeat 1 times:\n    Turn over the top {2 * i} cards of deck as a block\n    Spectator cuts deck and completes the cut\n"
        for i in range(1, moves + 1)
    )
    return f"Pack: 12 cards\n{placed}As often as the spectator likes, one of:\n{each}Ends with: KEYA is in deck\n"


def _cut_packs(cards: int) -> str:
    return f"Pack: {cards} cards\nPlace FORCE 10th\n{'Spectator cuts deck and completes the cut' + chr(10)}Deal deck into 2 piles\nGather pile 1, pile 2 from top to bottom\nEnds with: FORCE is in deck\n"


ROWS: list[tuple[str, Callable[[int], str], Iterable[int]]] = [
    ("told pile of three, rounds", _told_piles, range(1, 41, 3)),
    ("free numbers that are added, 1 to 6 each", _free_numbers, range(2, 17)),
    ("values of unknown cards that are added", _values_added, range(1, 9)),
    ("cards shuffled freely, one followed", _shuffled, range(8, 121, 8)),
    ("alternating pack, riffled, in pairs, cards", partial(_riffled, "red, black", 2, "colours"), range(12, 105, 8)),
    ("four suits in rotation, riffled, in fours, cards", partial(_riffled, "clubs, hearts, spades, diamonds", 4, "suits"), range(12, 105, 8)),
    ("cards of a pack that is cut and dealt", _cut_packs, range(20, 105, 12)),
    ("piles, one told, the others in any order, twice", _piles, range(2, 27, 4)),
    ("moves of a closure", _closure, range(1, 6)),
    ("cards followed by name", _tracked, range(2, 31, 4)),
    ("cuts, a line each", _lines, (10, 20, 50, 100, 200, 400)),
]  # fmt: skip


def largest(text_of: Callable[[int], str], sizes: Iterable[int]) -> list[tuple[int, float] | None]:
    """For each limit in seconds: (size, seconds) of the largest that settled within it; None where none did."""
    found: list[tuple[int, float] | None] = [None] * len(LIMITS)
    for size in sizes:
        begun = time.process_time()
        try:
            verdict = prove(read_routine(text_of(size)), Budget(seconds=3 * LIMITS[-1]), WHETHER)
        except BadRoutine:  # told at once as more than can be followed
            break
        took = time.process_time() - begun
        for i, limit in enumerate(LIMITS):
            if verdict.verdict != UNSETTLED and took <= limit:
                found[i] = size, took
        if verdict.verdict == UNSETTLED or took > LIMITS[-1]:
            break
    return found


def print_sizes() -> None:
    print("\nHow far it goes: the largest that settles in 1 s, in 10 s of processor time\n")
    for name, text_of, sizes in ROWS:
        told = " ".join(
            f"{one[0]:>5} ({one[1]:.2f} s)" if one else "     –       " for one in largest(text_of, sizes)
        )
        print(f"{name:52} {told}", flush=True)
