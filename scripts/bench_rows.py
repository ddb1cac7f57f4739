"""What was too slow once: each with what it took when it was written down, what is wanted, and what it takes now.

Each in a process of its own, with the memory it takes; what takes too long is ended.
"""

from __future__ import annotations

import multiprocessing
import sys
import time
from collections.abc import Callable
from functools import partial
from pathlib import Path

from golden_pivot import demo
from golden_pivot.core.analysis import Analysis
from golden_pivot.core.answers.odds import odds_of
from golden_pivot.core.answers.proving import prove
from golden_pivot.core.budget import Budget
from golden_pivot.core.cards import RANKS, SUITS
from golden_pivot.core.english import ordinal
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.show.reset import reset_of
from golden_pivot.core.show.schools import schools_of
from golden_pivot.core.variants.blanks import solve
from golden_pivot.core.variants.explain import explain
from golden_pivot.core.variants.limits import limits_of
from golden_pivot.core.variants.slips import fragility_of
from golden_pivot.sheets.sheets import SHEETS, shown
from scripts.bench_sizes import _riffled, _values_added
from scripts.memory import peak

PROCEDURES = Path(__file__).parents[1] / "tests" / "procedures"
MOST = 150.0
"""seconds"""
DEEP = Budget(seconds=MOST)


def _text(name: str) -> str:
    return (PROCEDURES / f"{name}.pivot").read_text(encoding="utf-8")


def _proved(text: str) -> str:
    return prove(read_routine(text), Budget(seconds=MOST)).verdict


def _known_pack(ending: str) -> str:
    names = [f"{rank} of {suit}" for rank in RANKS for suit in SUITS]
    placed = "".join(f"Place {name} {ordinal(i)}\n" for i, name in enumerate(names, start=1))
    return f"Pack: 52 cards\n{placed}Spectator shuffles deck\nEnds with: {ending}\n"


def _told_piles(piles: int) -> str:
    told = f"  Deal deck into {piles} piles\n  Spectator tells which pile holds their card: p\n  Gather the piles, pile p 2nd, the others in any order\n"
    return f"Pack: {piles * piles} cards\nSpectator thinks of a card in deck: their card\nRepeat 2 times:\n{told}Ends with: the {ordinal(piles + 2)} card of deck is their card\n"


def _facing(cards: int) -> str:
    """Half of them face up, shuffled: as many face up in one half, once it is turned over, as in the other."""
    up = "number of face-up cards of"
    return (
        f"Pack: {cards} cards, any order\nTurn over the top {cards // 2} cards of deck as a block\nSpectator shuffles deck\n"
        f"Deal {cards // 2} cards from deck to table\nTurn table over\nEnds with: {up} table is {up} deck\n"
    )


def _kept_apart(cards: int) -> str:
    names = ["ANCHOR", "BELL", "COMPASS", "DECKHAND", "ENSIGN"]
    placed = "".join(f"Place {name} {ordinal(i)}\n" for i, name in enumerate(names, start=1))
    ends = "".join(f"Ends with: {name} is in table or {name} is in deck\n" for name in names)
    return f"Pack: {cards} cards, any order\n{placed}Spectator shuffles deck\nDeal {cards // 2} cards from deck to table\n{ends}"


def _loop_over_faces(cards: int) -> str:
    dealt = "  If the top card of deck is a king:\n    Deal 1 card from deck to table\n  Otherwise:\n    Deal 1 card from deck to hand\n"
    return f"Pack: {cards} cards, any order\nTurn deck over\nUntil deck runs out:\n{dealt}Ends with: size of table is 4\n"


REDS_AND_BLACKS = (
    "Pack: 52 cards, any order\nDeal 26 cards from deck to table\n"
    "Ends with: number of red cards of table is number of black cards of deck\n"
)


def _solved(text: str) -> str:
    found = solve(text, Budget(seconds=MOST), {1: [str(n) for n in range(6, 14)]})
    return f"{found.answers}, {found.tried} of {found.fillings}"


def _slips(text: str) -> str:
    found = fragility_of(text, Budget(seconds=MOST))
    return f"{len(found.outcomes)} slips, {found.untried} untried"


def of_lines(lines: int) -> str:
    turns = "Deal 5 cards from deck to pile\nPut pile under deck\nSpectator cuts deck and completes the cut\n"
    return (
        "Pack: 52 cards\nPlace FORCE 10th\nPlace KEY 11th\n"
        + turns * ((lines - 4) // 3)
        + "Ends with: FORCE is in deck\n"
    )


def _whole(text: str) -> str:
    plan = reset_of(read_routine(text), Budget(seconds=MOST))
    return plan.repeatable if plan else "none"


def _wrong(name: str, was: str, now: str) -> str:
    text = _text(name)
    assert was in text
    return text.replace(was, now)


def _wide() -> str:
    text = _text("p12_value_blocks").replace("from 15 to 18", "from 1 to 50")
    return text.replace("k from 4 to 15", "k from 1 to 50")


ROWS: list[tuple[str, str, str, Callable[[], object]]] = [
    ("riffle of an alternating pack, in pairs, 52", "unsettled", "1", lambda: _proved(_riffled("red, black", 2, "colours", 52))),
    ("four suits in rotation, riffled, in fours, 52", "unsettled", "3", lambda: _proved(_riffled("clubs, hearts, spades, diamonds", 4, "suits", 52))),
    ("known pack shuffled, one card asked, 52", "unsettled", "1", lambda: _proved(_known_pack("the top card of deck is the ace of spades"))),
    ("known pack shuffled, a colour asked, 52", "unsettled", "1", lambda: _proved(_known_pack("the top card of deck is red"))),
    ("ten of 20 cards face up, shuffled", "4 to 20", "0.5", lambda: _proved(_facing(20))),
    ("five cards by name, 12 shuffled", "4 to 20", "0.5", lambda: _proved(_kept_apart(12))),
    ("loop over faces, is it a king, 52", "45 to 110", "2", lambda: _proved(_loop_over_faces(52))),
    ("reds of one half, blacks of the other, 52", "unsettled", "", lambda: _proved(REDS_AND_BLACKS)),
    ("sum of five unknown values", "51", "1", lambda: _proved(_values_added(5))),
    ("P15 over all piles", "4.6 to 8", "2", lambda: _proved(_text("p15_piles_to_thirteen"))),
    ("P15 with a wrong constant", "25 to 140", "5", lambda: _proved(_wrong("p15_piles_to_thirteen", "+ 10 cards", "+ 11 cards"))),
    ("P15, its blank constant", "0 of 8", "20", lambda: _solved(_wrong("p15_piles_to_thirteen", "+ 10 cards", "+ ? cards"))),
    ("P15, exact odds of how many piles", "70 to 90, 433 MB", "5", lambda: odds_of(read_routine(_text("p15_pile_count")), Budget(seconds=None)).says),
    ("holds of P12", "203 to 245", "5", lambda: limits_of(_wide(), Budget(seconds=MOST)).says),
    ("slips of 62 lines", "120", "10", lambda: _slips(of_lines(62))),
    ("cue sheet of P11 from the pack", "7", "1", lambda: len(SHEETS["cues"](shown(_text("p11_from_the_pack"), Budget(seconds=MOST))).parts)),
    ("cue sheet of P15", "60", "5", lambda: len(SHEETS["cues"](shown(_text("p15_piles_to_thirteen"), Budget(seconds=MOST))).parts)),
    ("Kruskal’s count, its odds", "46", "2", lambda: odds_of(read_routine(_text("p23_kruskals_count")), Budget(seconds=MOST)).says),
    ("Kruskal’s count, its verdict", "46", "2", lambda: _proved(_text("p23_kruskals_count"))),
    ("reset of P11 from the pack", "50", "1", lambda: _whole(_text("p11_from_the_pack"))),
    ("reset of P10", "6 to 9", "1", lambda: _whole(_text("p10_mirrored_pairs"))),
    ("slips of P10", "46", "5", lambda: _slips(_text("p10_mirrored_pairs"))),
    ("other schools of P11 from the pack", "72", "3", lambda: len(schools_of(_text("p11_from_the_pack"), Budget(seconds=MOST)))),
    ("other schools of P5", "28", "3", lambda: len(schools_of(_text("p05_sum_of_five"), Budget(seconds=MOST)))),
    ("other schools of P22", "12", "3", lambda: len(schools_of(_text("p22_offset_indicator"), Budget(seconds=MOST)))),
    ("other schools of Three Bells", "7", "3", lambda: len(schools_of(demo.demo_text("three_bells"), Budget(seconds=MOST)))),
    ("ledger of P21’s three counts", "12 to 14", "0.5", lambda: len(Analysis(_text("p21_three_counts")).ledger.entries)),
    ("Why of P21’s three counts", "12 to 14", "0.5", lambda: len(explain(read_routine(_text("p21_three_counts")), Budget(seconds=MOST)).said)),
    ("ledger of P5", "5.4", "0.5", lambda: len(Analysis(_text("p05_sum_of_five")).ledger.entries)),
    ("Why of P5", "5.4", "0.5", lambda: len(explain(read_routine(_text("p05_sum_of_five")), Budget(seconds=MOST)).said)),
    ("slips of P5", "29", "3", lambda: _slips(_text("p05_sum_of_five"))),
    ("slips of P21", "16", "3", lambda: _slips(_text("p21_three_counts"))),
    ("slips of P11 from the pack", "17", "3", lambda: _slips(_text("p11_from_the_pack"))),
    ("told pile 2nd, the others in any order, 6 piles", "9.5, 410 MB", "1", lambda: _proved(_told_piles(6))),
    ("the same, 10 piles", "unsettled", "10", lambda: _proved(_told_piles(10))),
    ("four free numbers 1 to 30, no claim", "15, 780 MB", "1", lambda: _proved("Pack: 104 cards\nPlace FORCE 3rd\n" + "".join(f"Spectator names a number n{i} from 1 to 30\n" for i in range(1, 5)) + "Deal n1 cards from deck to table\n")),
    ("suits of ten unknown cards", "unsettled", "1", lambda: _proved(_values_added(10).replace("value of", "suit of"))),
    ("one told number from 1 to 1,000,000", "12", "2", lambda: _proved("Pack: 52 cards\nPlace FORCE 3rd\nSpectator names a number n from 1 to 1000000\nCut deck at 3 and complete the cut\n")),
]  # fmt: skip


def _run(number: int) -> None:
    begun, before = time.perf_counter(), peak()
    try:
        found = str(ROWS[number][3]())
    except Exception as error:
        found = f"{type(error).__name__}: {error}".splitlines()[0]
    took = time.perf_counter() - begun
    more = peak() - before
    name, was, wanted, _ = ROWS[number]
    print(f"{name:50}{was:>18}{wanted:>8}{took:>9.2f}{more:>7.0f}  {found[:60]}", flush=True)


def print_rows(only: str = "") -> None:
    print(f"\n{'seconds':50}{'once':>18}{'wanted':>8}{'now':>9}{'MB':>7}")
    for number, row in enumerate(ROWS):
        if only not in row[0]:
            continue
        process = multiprocessing.get_context("spawn").Process(target=partial(_run, number))
        process.start()
        process.join(MOST + 20)
        if process.is_alive():
            process.kill()
            print(f"{row[0]:50}{row[1]:>18}{row[2]:>8}    over {MOST:.0f}", flush=True)


if __name__ == "__main__":
    print_rows(*sys.argv[1:2])
