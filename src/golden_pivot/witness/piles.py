"""Meanings of piles: laid down, kept, gathered."""

from __future__ import annotations

from .table import CannotGoOn, Json, NoSuchPath, Table


def new_pile(t: Table, s: Json) -> None:
    source = t.where(s["from"])
    t.growing = True
    if t.keeps:
        _lay_or_reject(t, source)
        return
    if not t.heap(source):
        raise CannotGoOn
    t.laid = max([t.laid, *(int(name[5:]) for name in t.numbered() if t.heap(name))]) + 1
    pile, t.heaps[source] = t.heap(source), []
    t.heaps[f"pile {t.laid}"] = pile + t.heap(f"pile {t.laid}")


def _lay_or_reject(t: Table, source: str) -> None:
    names = [f"pile {i + 1}" for i in range(t.keeps)]
    kept = [t.heap(name) for name in names if t.heap(name)]
    if not t.heap(source):
        raise CannotGoOn
    keep = t.choose([1, 0] if len(kept) < t.keeps else [0])
    if not t.candidates and kept:
        raise CannotGoOn
    t.laid, t.candidates = t.laid + 1, t.candidates + 1
    pile, t.heaps[source] = t.heap(source), []
    if not keep:
        t.heaps["spare"] = pile + t.heap("spare")
        return
    at = len([heap for heap in kept if len(heap) <= len(pile)])
    kept.insert(at, pile)
    for name, heap in zip(names, kept, strict=False):
        t.heaps[name] = heap


def keep_piles(t: Table, s: Json) -> None:
    names = [f"pile {i + 1}" for i in range(t.keeps)]
    kept = len([name for name in names if t.heap(name)])
    if kept < t.keeps:
        if kept < min(t.laid, t.keeps):
            raise NoSuchPath
        raise CannotGoOn
    t.pile_list, t.growing = names, False


def every_order(things: list[str]) -> list[list[str]]:
    """Every order, in the order of a dictionary whose alphabet is the list."""
    if not things:
        return [[]]
    return [[first, *rest] for first in things for rest in every_order([x for x in things if x != first])]


def _gather(t: Table, s: Json, orders: list[list[str]], is_open: bool = True) -> None:
    order = orders[t.choose(list(range(len(orders)))) if is_open else 0]
    t.gathered = [t.heap(name)[:] for name in order]
    for name in order:
        t.heaps[name] = []
    to = t.where(s.get("to", t.piles_from))
    t.heaps[to] = [card for pile in t.gathered for card in pile] + t.heap(to)


MOST_AT_ONCE = 6
"""piles whose order is decided on at once; of more, it is decided from the top which of those that are left comes next"""


def _freely(t: Table, names: list[str], dealt: int) -> list[list[str]]:
    """Every order that can be decided on; the one, where it has been decided on pile by pile."""
    if t.growing or dealt <= MOST_AT_ONCE:
        return every_order(names)
    left, order = list(names), []
    while len(left) > 1:
        order.append(left.pop(t.choose(list(range(len(left))))))
    return [order + left]


def gather_any(t: Table, s: Json) -> None:
    orders = _freely(t, t.lying(), len(t.pile_list))
    _gather(t, s, orders, t.growing or len(t.pile_list) <= MOST_AT_ONCE)


def gather_side(t: Table, s: Json) -> None:
    upwards = t.lying()  # picked up from left to right, each on the last: the last one ends on top
    by_side = {"left to right": [upwards], "right to left": [upwards[::-1]], "either side": [upwards, upwards[::-1]]}
    picked = by_side[s["side"]][: 1 if len(upwards) < 2 else 2]
    orders = [order if s["where"] == "under" else order[::-1] for order in picked]
    _gather(t, s, orders, s["side"] == "either side")


def gather_slot(t: Table, s: Json) -> None:
    told = t.where(s["pile"])
    others = [name for name in t.lying() if name != told]
    slot = t.index(s["slot"], [told, *others])  # type: ignore[list-item]
    dealt = len(t.pile_list) - 1
    rest = _freely(t, others, dealt)
    _gather(t, s, [[*order[:slot], told, *order[slot:]] for order in rest], t.growing or dealt <= MOST_AT_ONCE)


def gather_order(t: Table, s: Json) -> None:
    order = [t.where(place) for place in s["piles"]]
    if len(set(order)) < len(order):
        raise CannotGoOn
    _gather(t, s, [order], False)
