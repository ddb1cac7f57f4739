"""How fast the desks are: the mix search against searching from one end, the stack solver, every worked example."""

from __future__ import annotations

import statistics
import time

from tests.core.desks.test_stacks import sum_lines

from golden_pivot.core.budget import Budget
from golden_pivot.core.desks import DESKS, stacks
from golden_pivot.core.desks.chains import shortest_chain
from golden_pivot.core.desks.mix_lab import arrangement_of
from golden_pivot.core.desks.permutations import Arrangement, after, identity

SEARCHES = (
    (
        "identity of 28",
        28,
        ("Klondike, top card on", "Deal into 2 piles, right on left", "Count half down, the rest on top"),
        "id",
    ),
    ("nine mixes of 52", 52, ("In faro", "Out faro", "Cut 1", "Deal into 4 piles, right on left"), "nine"),
    ("reversal of 16", 16, ("In faro", "Out faro", "Cut 3"), "reverse"),
)
LONGEST = 12


def goal(cards: int, wanted: str, mixes: dict[str, Arrangement]) -> Arrangement:
    if wanted == "reverse":
        return identity(cards)[::-1]
    if wanted == "id":
        return identity(cards)
    # What nine of the mixes make, taken in turn: a chain that is there to be found.
    order = identity(cards)
    for i in range(9):
        order = after(order, list(mixes.values())[(2 * i + i // 3) % len(mixes)])
    return order


def one_ended(mixes: dict[str, Arrangement], wanted: Arrangement, most: int) -> int | None:
    """Orders seen when searching from the beginning alone; None beyond `most`."""
    seen, layer = {identity(len(wanted))}, [identity(len(wanted))]
    while layer:
        following = []
        for here in layer:
            for mix in mixes.values():
                order = after(here, mix)
                if order == wanted:
                    return len(seen)
                if order not in seen:
                    seen.add(order)
                    following.append(order)
            if len(seen) > most:
                return None
        layer = following
    return len(seen)


def print_desks() -> None:
    print(f"\n{'mix search':28}{'chain':>7}{'orders':>10}{'ms':>9}{'µs/order':>10}{'one-ended sees':>16}")
    for name, cards, moves, wanted in SEARCHES:
        mixes = {move: arrangement_of(move, cards) for move in moves}
        order = goal(cards, wanted, mixes)
        begun = time.perf_counter()
        found = shortest_chain(mixes, order, LONGEST, Budget())
        took = time.perf_counter() - begun
        alone = one_ended(mixes, order, 1_000_000)
        chain = getattr(found, "chain", None)
        times = f"{alone / max(1, found.seen):.1f} times" if alone else f"over {1_000_000 / found.seen:.0f} times"
        print(
            f"{name:28}{len(chain) if chain else '–':>7}{found.seen:>10,}{took * 1e3:>9.1f}{took * 1e6 / found.seen:>10.1f}{times:>16}"
        )
    print(f"\n{'stack solver':48}{'ms':>9}")
    kings = ["cards 13 to 15 are black", "card 13 is a king", "card 14 is a king", "card 15 is a king"]
    shuffled = ["no more than 3 cards in a row agree in colour", "no more than 4 cards in a row alternate in colour"]
    for name, lines in (
        ("sums of 28 cards of one pack", sum_lines()),
        ("the same, clashing: the smallest of 13 lines", sum_lines() + kings),
        ("52 cards, mirrored mates, no visible pattern", ["cards 1 to 52 mirror each other in value and colour", *shuffled]),
    ):  # fmt: skip
        took = []
        for seed in (1, 2, 3):
            begun = time.perf_counter()
            stacks.answer(stacks.StackAsks(constraints=lines, seed=seed), Budget())
            took.append(time.perf_counter() - begun)
        print(f"{name:48}{statistics.median(took) * 1e3:>9.0f}")
    print(f"\n{'desk, its worked example':48}{'ms':>9}")
    for desk in DESKS.values():
        begun = time.perf_counter()
        desk.answer(desk.asks(), Budget())
        print(f"{desk.title:48}{(time.perf_counter() - begun) * 1e3:>9.0f}")


if __name__ == "__main__":
    print_desks()
