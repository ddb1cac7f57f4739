"""Meanings of cuts, packets put elsewhere, and cards turned over."""

from __future__ import annotations

from .table import PARTNERS, CannotGoOn, Heap, Json, Table, lay, turned


def put_heap(t: Table, s: Json) -> None:
    source, to = t.where(s["from"]), t.where(s["to"])
    if source == to:
        raise CannotGoOn
    moving, there = t.heap(source), t.heap(to)
    t.heaps[to] = moving + there if s["where"] == "on" else there + moving
    t.heaps[source] = []


def cut_off(t: Table, s: Json) -> None:
    if "choice" in s:
        t.new_number(s["choice"])
    source, to = t.where(s["from"]), t.where(s["to"])
    n = t.count(s["count"], t.heap(source))
    if source == to:
        raise CannotGoOn
    lifted = [t.heap(source).pop(0) for _ in range(n)]
    t.heaps[to] = lifted + t.heap(to)


def take_bottom(t: Table, s: Json) -> None:
    source, to = t.where(s["from"]), t.where(s["to"])
    n = t.count(s["count"], t.heap(source))
    if source == to:
        raise CannotGoOn
    drawn = [t.heap(source).pop() for _ in range(n)]
    t.heaps[to] = drawn[::-1] + t.heap(to)


def raise_bottom(t: Table, s: Json) -> None:
    heap = t.heap(s["place"])
    for _ in range(t.count(s["count"], heap)):
        heap.insert(0, heap.pop())


def swap(t: Table, s: Json) -> None:
    one, other = t.where(s["one"]), t.where(s["other"])
    t.heaps[one], t.heaps[other] = t.heap(other), t.heap(one)


def cut(t: Table, s: Json) -> None:
    if "choice" in s:
        t.new_number(s["choice"])
    heap = t.heap(s["place"])
    n = t.count(s["depth"], heap) if "depth" in s else t.choose(list(range(max(1, len(heap)))))
    for _ in range(n):
        heap.append(heap.pop(0))


def cut_to(t: Table, s: Json) -> None:
    if t.performer:
        t.must_find(s["card"])
    heap = t.heap(s["place"])
    if t.named[s["card"]] not in heap:
        raise CannotGoOn
    while heap[0 if s["end"] == "top" else -1] is not t.named[s["card"]]:
        heap.append(heap.pop(0))


def turn_block(t: Table, s: Json) -> None:
    heap = t.heap(s["place"])
    n = t.count(s["count"], heap)
    t.heaps[t.where(s["place"])] = turned(heap[:n]) + heap[n:]


def turn_over(t: Table, s: Json) -> None:
    t.heaps[t.where(s["place"])] = turned(t.heap(s["place"]))


def insert(t: Table, s: Json) -> None:
    block, to = t.heap(s["from"]), t.heap(s["to"])
    if t.where(s["from"]) == t.where(s["to"]):
        raise CannotGoOn
    if "position" in s:
        at = t.value(s["position"]["at"])
        whole = len(block or ["one"]) + len(to)
        if not 1 <= at <= whole:
            raise CannotGoOn
        above = whole - at if s["position"]["end"] == "bottom" else at - 1
        if above > len(to):
            raise CannotGoOn
    else:
        above = t.choose(list(range(len(to) + 1)))
    to[above:above] = block
    block[:] = []


def turn_each(t: Table, s: Json) -> None:
    for card in t.heap(s["place"]):
        t.see([card])
        card.face_up = not card.face_up
        t.see([card])


def turn_card(t: Table, s: Json) -> None:
    card = t.card_at(s["spot"])
    lay(card, s["way"] if s["way"] != "over" else "face down" if card.face_up else "face up")


def shuffle(t: Table, s: Json) -> None:
    held, new = t.heap(s["place"])[:], Heap()
    while held:
        new.insert(0, held.pop(t.choose(list(range(1, len(held) + 1))) - 1))
        t.see(held[:1] + new[:1])
    t.heaps[t.where(s["place"])] = new


def take_mate(t: Table, s: Json) -> None:
    t.must_know(s["card"])
    heap, to = t.heap(s["from"]), t.heap(s["to"])
    rank, _, suit = t.face(t.named[s["card"]]).split()
    mate = f"{rank} of {PARTNERS[suit]}"
    if not any(card.name == mate for card in t.every_card()):
        unknown = [card for card in t.every_card() if card.name is None]
        if len(t.every_card()) != 52 or any(card not in heap for card in unknown):
            raise CannotGoOn
        unknown[t.choose(list(range(len(unknown))))].name = mate
    found = [card for card in heap if card.name == mate]
    if not found:
        raise CannotGoOn
    heap.remove(found[0])
    to.insert(0, found[0])
    t.named[s["name"]] = found[0]


def note_order(t: Table, s: Json) -> None:
    heap = t.heap(s["place"])
    t.noted = t.choose(list(range(1, len(heap) + 1)))
    t.named["the card watched"] = heap[t.noted - 1]
