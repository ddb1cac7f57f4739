"""What is claimed at the end, and what a case asks."""

from __future__ import annotations

from itertools import pairwise

from .claims_by_sort import go_together
from .table import PARTNERS, CannotGoOn, Json, Table


def ends_in_row(t: Table, s: Json) -> None:
    place = t.where(s["place"])
    grid, row = t.heap(place), t.value(s["row"]) - 1
    across = t.grids[place]
    t.claims.append(row >= 0 and t.named[s["card"]] in grid[row * across : (row + 1) * across])


def compared(t: Table, s: Json) -> bool:
    a, b = t.value(s["left"]), t.value(s["right"])
    return {  # one comparison of two numbers
        "is": a == b, "is not": a != b, "is more than": a > b, "is less than": a < b,
        "is at least": a >= b, "is at most": a <= b,
    }[s["is"]]  # fmt: skip


def ends_with(t: Table, s: Json) -> None:
    t.claims.append(t.card_at(s["spot"]) is t.named[s["card"]])


def ends_at(t: Table, s: Json) -> None:
    ends_with(t, s)


def ends_without(t: Table, s: Json) -> None:
    t.claims.append(t.card_at(s["spot"]) is not t.named[s["card"]])


def ends_in(t: Table, s: Json) -> None:
    t.claims.append(any(card is t.named[s["card"]] for card in t.heap(s["place"])) == (s["whether"] == "in"))


def ends_one_of(t: Table, s: Json) -> None:
    t.claims.append(any(t.card_at(s["spot"]) is t.named[name] for name in s["cards"]))


def ends_parity(t: Table, s: Json) -> None:
    t.claims.append(t.value(s["number"]) % 2 == (s["parity"] == "odd"))


def ends_same(t: Table, s: Json) -> None:
    t.claims.append(t.named[s["card"]] is t.named[s["other"]])


def ends_mate(t: Table, s: Json) -> None:
    t.claims.append(t.card_at(s["spot"]) is t.mate(s["card"]))


def ends_facing(t: Table, s: Json) -> None:
    t.claims.append(t.card_at(s["spot"]).face_up == (s["way"] == "face up"))


def ends_alike(t: Table, s: Json) -> None:
    heaps = [t.heap(place) for place in s["places"]]
    if not all(heaps):
        raise CannotGoOn
    facts = [t.known_fact(s["what"], heap[0]) for heap in heaps]
    t.claims.append(None not in facts and len(set(facts)) == 1)


def ends_so_many_facing(t: Table, s: Json) -> None:
    facing = [card for card in t.heap(s["place"]) if card.face_up == (s["way"] == "face up")]
    t.claims.append(len(facing) == t.value(s["count"]))


def ends_equal(t: Table, s: Json) -> None:
    t.claims.append(len({len(t.heap(place)) for place in s["places"]}) == 1)


def ends_beside(t: Table, s: Json) -> None:
    one, two = t.named[s["card"]], t.named[s["other"]]
    found = False
    for heap in t.heaps.values():
        for upper, lower in pairwise(heap):
            above, below = (upper, lower) == (one, two), (upper, lower) == (two, one)
            found |= {"directly above": above, "directly below": below, "next to": above or below}[s["side"]]
    t.claims.append(found)


def ends_reversed(t: Table, s: Json) -> None:
    wanted = {id(t.named[name]) for name in s["cards"]}
    heap = t.heap(s["place"])
    ways = [{card.face_up for card in heap if (id(card) in wanted) == mine} for mine in (True, False)]
    there = len([card for card in heap if id(card) in wanted]) == len(wanted)
    t.claims.append(there and len(ways[0]) == 1 and len(ways[1]) < 2 and ways[0] != ways[1])


def together(t: Table, s: Json) -> bool:
    return go_together(t, s["how"], t.named[s["card"]], t.named[s["other"]])


def is_such(t: Table, s: Json) -> bool:
    return t.is_of_sort(t.named[s["card"]], s["what"], named=True)


def ends_together(t: Table, s: Json) -> None:
    t.claims.append(together(t, s))


def ends_number(t: Table, s: Json) -> None:
    t.claims.append(compared(t, s))


def ends_told(t: Table, s: Json) -> None:
    placed = {id(t.named[name]) for name in t.placed}
    seen = tuple(
        (card.name or (card.number if id(card) in placed else 0), card.face_up) for card in t.heap(s["place"])
    )
    beside = {
        card.name or (card.number if id(card) in placed else 0)
        for name, heap in t.heaps.items()
        if name != t.where(s["place"])
        for card in heap
    }
    t.told.append(((seen, frozenset(beside - {0})), tuple(t.numbers[name] for name in s["names"])))
    t.claims.append(True)


def ends_columns(t: Table, s: Json) -> None:
    rows = [t.heap(place) for place in s["places"]]
    if len({len(row) for row in rows}) > 1:
        raise CannotGoOn
    good = True
    for column in zip(*rows, strict=True):
        facts = {t.known_fact(s["what"], card) for card in column}
        good &= len(facts) == 1 and None not in facts
    t.claims.append(good)


def ends_block(t: Table, s: Json) -> None:
    heap, wanted = t.heap(s["place"]), [t.named[name] for name in s["cards"]]
    there = [card in wanted for card in heap]
    runs = sum(there[i] and not (i and there[i - 1]) for i in range(len(there)))
    t.claims.append(all(card in heap for card in wanted) and runs == 1)


def ends_in_order(t: Table, s: Json) -> None:
    heap = t.heap(s["place"])
    t.claims.append(len(heap) >= t.noted and heap[t.noted - 1] is t.named["the card watched"])


def guard(t: Table, s: Json) -> None:
    t.ending = True  # nobody needs to see or to know it
    if not compared(t, s):
        raise CannotGoOn


def ends_groups(t: Table, s: Json) -> None:
    heap, size, what = t.heap(s["place"]), t.value(s["size"]), s["what"].removesuffix("s")
    if len(heap) % size:
        raise CannotGoOn
    good = True
    for i in range(0, len(heap), size):
        facts = [t.known_fact(what, card) for card in heap[i : i + size]]
        good &= None not in facts and len(set(facts)) == (1 if s["how"] == "the same" else size)
    t.claims.append(good)


def ends_pairs(t: Table, s: Json) -> None:
    heap, mates = t.heap(s["place"]), dict(t.mates)
    for name in t.placed:
        if " of " in name and name not in mates:
            rank, _, suit = name.split()
            mates[name] = f"{rank} of {PARTNERS[suit]}"
    good = len(heap) % 2 == 0
    for one, two in zip(heap[::2], heap[1::2], strict=False):
        good &= any(
            t.named[name] is one and mates.get(name) in t.placed and t.named[mates[name]] is two for name in t.placed
        )
    t.claims.append(good)


def odds_of(t: Table, s: Json) -> None:
    t.odds.append(t.value(s["number"]))


def is_ending(line: Json) -> bool:
    return bool(line["step"].startswith(("ends_", "never_", "odds_")))
