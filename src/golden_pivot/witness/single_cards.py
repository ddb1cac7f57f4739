"""Meanings of single cards, and of a few, moved or turned where they lie; of numbers that follow from others."""

from __future__ import annotations

from .table import CannotGoOn, Heap, Json, Table


def lower_top(t: Table, s: Json) -> None:
    heap = t.heap(s["place"])
    n = t.count(s["count"], heap) if "count" in s else 1
    if n > len(heap):
        raise CannotGoOn
    for _ in range(n):
        heap.append(heap.pop(0))


def swap_cards(t: Table, s: Json) -> None:
    (here, i), (there, j) = t.pointed_at(s["spot"]), t.pointed_at(s["other"])
    here[i], there[j] = there[j], here[i]


def turn_some(t: Table, s: Json) -> None:
    heap = t.heap(s["place"])
    n = t.count(s["count"], heap)
    for i in range(n):
        card = heap[i] if s["end"] == "top" else heap[-1 - i]
        t.see([card])
        card.face_up = not card.face_up
        t.see([card])


def _apart(t: Table, s: Json, source: str = "from") -> tuple[Heap, str]:
    """(the heap cards come from, the name of the place they go to, which is another)"""
    to = t.where(s["to"])
    if t.where(s[source]) == to:
        raise CannotGoOn
    return t.heap(s[source]), to


def take_out(t: Table, s: Json) -> None:
    if t.performer:
        t.must_find(s["card"])
    heap, to = _apart(t, s)
    card = t.named[s["card"]]
    if card not in heap:
        raise CannotGoOn
    heap.remove(card)
    t.heap(to).insert(0, card)


def hold_break(t: Table, s: Json) -> None:
    t.named[s["card"]] = t.card_at(s["spot"])
    t.held.add(s["card"])


def cut_at_card(t: Table, s: Json) -> None:
    if t.performer:
        t.must_find(s["card"])
    heap, to = _apart(t, s, "place")
    card, moved = t.named[s["card"]], []
    if card not in heap:
        raise CannotGoOn
    while heap[0] is not card:
        moved.append(heap.pop(0))
    if s["which"] == "down to":
        moved.append(heap.pop(0))
    t.heaps[to] = moved + t.heap(to)


def take_side(t: Table, s: Json) -> None:
    heap, to = _apart(t, s)
    up = s["side"] == "face-up"
    taken = [card for card in heap if card.face_up == up]
    t.heaps[t.where(s["from"])] = [card for card in heap if card.face_up != up]
    t.heaps[to] = taken + t.heap(to)


def deal_bottom(t: Table, s: Json) -> None:
    heap, to = _apart(t, s)
    n = t.count(s["times"], heap) if "times" in s else 1
    if n > len(heap):
        raise CannotGoOn
    t.dealt_from, t.dealt_to, t.last_at_end, t.from_bottom = t.where(s["from"]), to, False, True
    for _ in range(n):
        card = heap.pop()
        t.see([card])
        t.heap(to).insert(0, card)


def deal_blocks(t: Table, s: Json) -> None:
    heap, to = _apart(t, s)
    left, few = t.count(s["count"], heap), t.value(s["size"])
    if few < 1:
        raise CannotGoOn
    while left:
        block = [heap.pop(0) for _ in range(min(few, left))]
        t.see(block[:1])
        t.heaps[to] = block + t.heap(to)
        left -= len(block)


def reckon(t: Table, s: Json) -> None:
    t.numbers[s["name"]] = t.value(s["number"])
