"""Meanings of mixes that are worked out card by card."""

from __future__ import annotations

from .table import CannotGoOn, Heap, Json, Table


def faro(t: Table, s: Json) -> None:
    heap = t.heap(s["place"])
    out = s["way"] == "an out"
    upper = len(heap) - len(heap) // 2 if out else len(heap) // 2
    hands = [heap[:upper], heap[upper:]] if out else [heap[upper:], heap[:upper]]
    mixed: Heap = []
    while hands[0] or hands[1]:
        for hand in hands:
            if hand:
                mixed.append(hand.pop(0))
    t.heaps[t.where(s["place"])] = mixed


def reverse_faro(t: Table, s: Json) -> None:
    parted: tuple[Heap, Heap] = [], []
    for i, card in enumerate(t.heap(s["place"])):
        parted[i % 2].append(card)
    t.heaps[t.where(s["place"])] = parted[0] + parted[1] if s["which"] == "the first ones" else parted[1] + parted[0]


def klondike(t: Table, s: Json) -> None:
    source, to = t.where(s["from"]), t.where(s["to"])
    if source == to:
        raise CannotGoOn
    t.see(t.heap(source))
    while t.heap(source):
        top = t.heap(source).pop(0)
        bottom = t.heap(source).pop() if t.heap(source) else None
        pair = [top, bottom] if s["way"] == "the top card on" else [bottom, top]
        for card in reversed([card for card in pair if card]):
            t.heap(to).insert(0, card)


def down_under(t: Table, s: Json) -> None:
    source, to = t.where(s["from"]), t.where(s["to"])
    if source == to:
        raise CannotGoOn
    t.see(t.heap(source))
    t.dealt_from, t.dealt_to, t.last_at_end, t.from_bottom = source, to, False, False
    under = s["way"] == "under and down"
    while t.heap(source):
        card = t.heap(source).pop(0)
        t.heap(source if under else to).insert(len(t.heap(source)) if under else 0, card)
        under = not under


def overhand(t: Table, s: Json) -> None:
    held, new = t.heap(s["place"]), Heap()
    while held:
        n = t.choose(list(range(1, len(held) + 1)))
        new, held = held[:n] + new, held[n:]
        t.see(held[:1] + new[:1])
    t.heaps[t.where(s["place"])] = new


def haphazard(t: Table, s: Json) -> None:
    held, new = t.heap(s["place"]), Heap()
    while held:
        n = t.choose([*range(1, len(held) + 1), *(-i for i in range(1, len(held) + 1))])
        if n > 0:
            new, held = new + held[:n], held[n:]
        else:
            new, held = held[n:] + new, held[:n]
        t.see(held[:1] + new[:1])
    t.heaps[t.where(s["place"])] = new


def riffle(t: Table, s: Json) -> None:
    heap = t.heap(s["place"])
    n = t.choose(list(range(len(heap) + 1)))
    parts = [heap[:n], heap[n:]]
    t.see(parts[0][:1] + parts[1][:1])
    t.heaps[t.where(s["place"])] = _fall_together(t, parts)


def riffle_into(t: Table, s: Json) -> None:
    source, to = t.where(s["from"]), t.where(s["to"])
    parts, t.heaps[source], t.heaps[to] = [t.heap(source), t.heap(to)], [], []
    t.heaps[to] = _fall_together(t, parts)


def _fall_together(t: Table, parts: list[Heap]) -> Heap:
    new = Heap()
    while parts[0] or parts[1]:
        side = t.choose([i for i in (0, 1) if parts[i]])
        new.insert(0, parts[side].pop())
        t.see(parts[0][:1] + parts[1][:1] + new[:1])
    return new
