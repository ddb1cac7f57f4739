"""Meanings of what is decided, told, pointed at and looked at."""

from __future__ import annotations

from .table import CannotGoOn, Heap, Json, Table


def choose_number(t: Table, s: Json) -> None:
    t.new_number(s["number"])


def choose_values(t: Table, s: Json) -> None:
    taken: list[int] = []
    for name in s["names"]:
        span = range(t.value(s["low"]), t.value(s["high"]) + 1)
        taken.append(t.choose([v for v in span if taken.count(v) < t.value(s["most"])]))
        t.numbers[name] = taken[-1]


def choose_pile(t: Table, s: Json) -> None:
    t.pointed = t.pointed if s["which"] == "another" else []
    piles = [i for i, name in enumerate(t.pile_names(), start=1) if t.heap(name)]
    t.numbers[s["name"]] = t.choose([i for i in piles if i not in t.pointed])
    t.pointed = [*t.pointed, t.numbers[s["name"]]]


def chance(t: Table, s: Json) -> None:
    t.new_number(s["number"])


def think_of(t: Table, s: Json) -> None:
    heap = t.heap(s["place"])
    t.named[s["card"]] = heap[t.choose(list(range(len(heap))))]


def take_card(t: Table, s: Json) -> None:
    heap = t.heap(s["from"])
    barred = [t.named[name] for name in s.get("others", [])]
    card = heap[t.choose([i for i, card in enumerate(heap) if card not in barred])]
    heap.remove(card)
    t.heap(s["to"]).insert(0, card)
    t.named[s["card"]] = card


def take_any(t: Table, s: Json) -> None:
    heap, count = t.heap(s["from"]), t.value(s["count"])
    taken = Heap()
    first = 0
    for left in range(count - 1, -1, -1):
        if len(heap) <= left:
            raise CannotGoOn
        first = t.choose(list(range(first, len(heap) - left)))
        taken.append(heap.pop(first))
        t.look_around(list(t.heaps))
    t.heap(s["to"])[:0] = taken


def take_from(t: Table, s: Json) -> None:
    heap, at = t.pointed_at(s["spot"])
    to = t.where(s["to"])
    if heap is t.heap(to):
        raise CannotGoOn
    card = heap.pop(at)
    t.heap(to).insert(0, card)
    if "card" in s:
        t.named[s["card"]] = card


def remember(t: Table, s: Json) -> None:
    t.named[s["card"]] = t.card_at(s["spot"])


def show(t: Table, s: Json) -> None:
    card = t.card_at(s["spot"])
    was, card.face_up = card.face_up, True
    t.see([card])
    card.face_up = was


def which_pile(t: Table, s: Json) -> None:
    for i, name in enumerate(t.pile_names()):
        if t.named[s["card"]] in t.heap(name):
            t.numbers[t.name_now(s["names"])] = i + 1
            return
    raise CannotGoOn


def piles_beside(t: Table, s: Json) -> None:
    order = t.gathered[::-1] if s["side"] == "under" else t.gathered
    for i, pile in enumerate(order):
        if t.named[s["card"]] in pile:
            t.numbers[t.name_now(s["names"])] = i
            return
    raise CannotGoOn


def choose_word(t: Table, s: Json) -> None:
    t.new_number(s["number"])


def choose_of_words(t: Table, s: Json) -> None:
    word = s["words"][t.choose(list(range(len(s["words"]))))]
    t.numbers[s["name"]] = len([letter for letter in word if letter.isalpha()])
