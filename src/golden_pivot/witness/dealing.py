"""Meanings of deals, counts and spellings."""

from __future__ import annotations

from .piles import every_order
from .table import CannotGoOn, Json, Table, lay


def deal_to_stop(t: Table, s: Json) -> None:
    t.new_number(s["number"])
    n = t.numbers[s["number"]["name"]]
    if n > len(t.heap(s["from"])) or n < 0:
        raise CannotGoOn
    _deal(t, s, n)


def _deal(t: Table, s: Json, n: int) -> None:
    row = s.get("row")
    source, to = t.where(s["from"]), t.where(s.get("to", "row" if row else "dealt"))
    if source == to:
        raise CannotGoOn
    t.dealt_from, t.dealt_to, t.last_at_end, t.from_bottom = source, to, row == "from left to right", False
    if row:
        t.rows.add(to)
    for _ in range(n):
        card = t.heap(source).pop(0)
        t.see([card], s.get("shielded", False))
        lay(card, s.get("way"))
        t.see([card], s.get("shielded", False))
        if t.last_at_end:
            t.heap(to).append(card)
        else:
            t.heap(to).insert(0, card)


def deal(t: Table, s: Json) -> None:
    _deal(t, s, t.count(s["count"], t.heap(s["from"])))


def lay_grid(t: Table, s: Json) -> None:
    source, to, n = t.where(s["from"]), t.where(s.get("to", "grid")), t.count(s["count"], t.heap(s["from"]))
    t.grids[to], t.grid_rows[to] = t.value(s["columns"]), t.value(s["rows"])
    t.rows.add(to)
    if source == to or len(t.heap(to)) + n > t.value(s["rows"]) * t.grids[to]:
        raise CannotGoOn
    for _ in range(n):
        card = t.heap(source).pop(0)
        t.see([card])
        t.see([lay(card, s.get("way"))])
        t.heap(to).append(card)


def spell(t: Table, s: Json) -> None:
    letters = [letter for letter in s["word"] if letter.isalpha()]
    if len(letters) > len(t.heap(s["from"])):
        raise CannotGoOn
    _deal(t, s, len(letters))


def spell_name(t: Table, s: Json) -> None:
    t.must_know(s["card"])
    rank, of, suit = t.face(t.named[s["card"]]).split()
    words = {
        "the name": [rank, of, suit],
        "the value": [rank],
        "the suit": [suit],
        "the value and the suit": [rank, suit],
    }
    n = len("".join(words[s["what"]]))
    if n > len(t.heap(s["from"])):
        raise CannotGoOn
    _deal(t, s, n)


def count_down(t: Table, s: Json) -> None:
    source, to = t.where(s["from"]), t.where(s["to"])
    if source == to:
        raise CannotGoOn
    name = t.name_now(s["names"])
    t.numbers[name] = 0
    for said in range(t.value(s["high"]), t.value(s["low"]) - 1, -1):
        if not t.heap(source):
            raise CannotGoOn
        value = t.fact("value", t.heap(source)[0])
        card = t.heap(source).pop(0)
        t.see([card])
        card.face_up = True
        t.heap(to).insert(0, card)
        if (min(value, 10) if s.get("tens") else value) == said:
            t.numbers[name] = said
            return
        t.look_around(list(t.heaps))
    if s.get("cap"):
        if not t.heap(source):
            raise CannotGoOn
        t.see(t.heap(source)[:1])
        t.heap(to).insert(0, lay(t.heap(source).pop(0), "face down"))


def spell_under(t: Table, s: Json) -> None:
    source, to = t.where(s["from"]), t.where(s["to"])
    heap = t.heap(source)
    if not heap or source == to:
        raise CannotGoOn
    letters = [letter for letter in s["word"] if letter.isalpha()]
    for letter in range(len(letters)):
        t.see(heap[:1])
        card = heap.pop(0)
        if letter + 1 < len(letters):
            heap.append(card)
        else:
            t.heap(to).insert(len(t.heap(to)) if s.get("row") == "from left to right" else 0, card)
    if s.get("row"):
        t.rows.add(to)
    t.dealt_from, t.dealt_to, t.last_at_end, t.from_bottom = source, to, s.get("row") == "from left to right", False


def count_to(t: Table, s: Json) -> None:
    if t.performer:
        t.must_find(s["card"])
    heap = t.heap(s["from"])
    if t.named[s["card"]] not in heap:
        raise CannotGoOn
    n = heap.index(t.named[s["card"]]) + 1
    _deal(t, {"from": s["from"], "to": s.get("to", "dealt")}, n)
    t.numbers[t.name_now(s["names"])] = n


def count_under(t: Table, s: Json) -> None:
    source, to = t.where(s["from"]), t.where(s.get("to", "dealt"))
    n = t.count(s["count"], t.heap(source))
    if source == to:
        raise CannotGoOn
    t.dealt_from, t.dealt_to, t.last_at_end, t.from_bottom = source, to, True, False
    for _ in range(n):
        t.see(t.heap(source)[:1])
        t.heap(to).append(t.heap(source).pop(0))


def put_dealt(t: Table, s: Json) -> None:
    source, dealt = t.heap(t.dealt_from), t.heap(t.dealt_to)
    while dealt:
        if s["where"] == "underneath":
            source.append(dealt.pop(0))
        else:
            source.insert(0, dealt.pop())


def drop_rest(t: Table, s: Json) -> None:
    source, dealt = t.heap(t.dealt_from), t.heap(t.dealt_to)
    together = source + dealt
    t.heaps[t.dealt_from], t.heaps[t.dealt_to] = together, []


def deal_piles(t: Table, s: Json) -> None:
    source, k = t.where(s["from"]), t.value(s["piles"])
    n = len(t.heap(source)) if "each" not in s else t.value(s["each"]) * k
    t.pile_list, t.growing = [f"pile {i + 1}" for i in range(k)], False
    t.piles_from = source if isinstance(s["from"], str) else "deck"
    for name in t.pile_names():
        t.heap(name)
    if not 0 <= n <= len(t.heap(source)):
        raise CannotGoOn
    for i in range(n):
        card = t.heap(source).pop(0)
        t.see([card])
        t.see([lay(card, s.get("way"))])
        t.heap(f"pile {k - i % k if s.get('from_end') == 'from right to left' else i % k + 1}").insert(0, card)


def deal_others(t: Table, s: Json) -> None:
    source = t.where(s["from"])
    others = [name for name in t.pile_names() if name != source]
    if len(t.heap(source)) < len(others):
        raise CannotGoOn
    t.see(t.heap(source)[: len(others)])
    for name in others:
        t.heap(name).insert(0, t.heap(source).pop(0))


def deal_each(t: Table, s: Json) -> None:
    names = list(s["piles"])
    t.pile_list, t.piles_from, t.growing = names, t.where(s["from"]) if s["from"] in t.heaps else "deck", False
    orders = every_order(names)
    order = orders[t.choose(list(range(len(orders)))) if "order" in s else 0]
    if len(t.heap(s["from"])) < len(names):
        raise CannotGoOn
    t.see(t.heap(s["from"])[: len(names)])
    for name in order:
        t.heap(name).insert(0, t.heap(s["from"]).pop(0))


def narrow(t: Table, s: Json) -> None:
    t.must_find(s["card"])
    n, there = t.value(s["count"]), t.lying()
    if n < 1 or n > len(there):
        raise CannotGoOn
    groups = _groups(there, n)
    group = groups[t.choose(list(range(len(groups))))]
    if not any(t.named[s["card"]] in t.heap(name) for name in there):
        raise CannotGoOn
    inside = any(t.named[s["card"]] in t.heap(name) for name in group)
    kept = [t.heap(name) for name in there if (name in group) == inside]
    for name in there:
        if (name in group) != inside:
            t.heaps["discard"] = t.heap(name) + t.heap("discard")
    for i, name in enumerate(t.pile_names()):
        t.heaps[name] = kept[i] if i < len(kept) else []
    t.laid = min(t.laid, len(kept))


def _groups(things: list[str], size: int) -> list[list[str]]:
    if size == 0:
        return [[]]
    return [[thing, *rest] for i, thing in enumerate(things) for rest in _groups(things[i + 1 :], size - 1)]
