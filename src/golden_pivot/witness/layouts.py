"""Meanings of rings, spreads, rows and columns, and of going from a card to a neighbour."""

from __future__ import annotations

from .table import CannotGoOn, Card, Heap, Json, Table, lay


def lay_ring(t: Table, s: Json) -> None:
    source, to, n = t.where(s["from"]), t.where(s.get("to", "ring")), t.count(s["count"], t.heap(s["from"]))
    if source == to:
        raise CannotGoOn
    t.rows.add(to)
    t.rings.add(to)
    for _ in range(n):
        card = t.heap(source).pop(0)
        t.see([card])
        t.see([lay(card, s.get("way"))])
        t.heap(to).append(card)


def spread(t: Table, s: Json) -> None:
    source, to = t.where(s["from"]), t.where(s.get("to", "row"))
    if source == to:
        raise CannotGoOn
    cards = list(t.heap(source)) if s["side"] == "left" else list(reversed(t.heap(source)))
    t.see(cards)
    t.rows.add(to)
    t.heaps[to], t.heaps[source] = cards + t.heap(to), []


def beside(t: Table, place: str, at: int) -> list[int]:
    """Positions from 1 next to this one."""
    size = len(t.heap(place))
    if place in t.rings:
        near = [at % size + 1, size if at == 1 else at - 1]
    elif place in t.grids:
        across = t.grids[place]
        near = [at - across, at + across]
        near += [at - 1] if (at - 1) % across else []
        near += [at + 1] if at % across else []
    else:
        near = [at - 1, at + 1]
    return sorted({p for p in near if 1 <= p <= size and p != at})


def go(t: Table, s: Json) -> None:
    place, at = t.where(s["place"]), t.value(s["from"])
    for _ in range(t.value(s["count"]) if "count" in s else 1):
        heap = t.heap(place)
        if not 1 <= at <= len(heap):
            raise CannotGoOn
        open_to = beside(t, place, at)
        if "only" in s:
            open_to = [p for p in open_to if heap[p - 1].face_up == s["only"].startswith("face-up")]
        at = t.choose(open_to)
    t.numbers[s["name"]] = at


def lines(t: Table, place: object, line: str) -> list[Heap]:
    """The cards of each row, or of each column, of a grid."""
    heap, across = t.heap(place), t.grids[t.where(place)]
    many = t.grid_rows[t.where(place)] if line == "row" else across
    found: list[Heap] = [[] for _ in range(many)]
    for i, card in enumerate(heap):
        found[i // across if line == "row" else i % across].append(card)
    return found


def square_up(t: Table, s: Json) -> None:
    found = lines(t, s["from"], s["line"])
    t.see([card for cards in found for card in cards])
    t.heaps[t.where(s["from"])] = []
    t.pile_list, t.growing, t.piles_from = [f"pile {i + 1}" for i in range(len(found))], False, "deck"
    for name, cards in zip(t.pile_list, found, strict=True):
        t.heaps[name] = cards + t.heap(name)


def which_line(t: Table, s: Json) -> None:
    for i, cards in enumerate(lines(t, s["place"], s["line"])):
        if t.named[s["card"]] in cards:
            t.numbers[t.name_now(s["names"])] = i + 1
            return
    raise CannotGoOn


def ends_in_column(t: Table, s: Json) -> None:
    columns, at = lines(t, s["place"], "column"), t.value(s["column"])
    t.claims.append(1 <= at <= len(columns) and t.named[s["card"]] in columns[at - 1])


def ends_line_sort(t: Table, s: Json) -> None:
    of_sort: dict[int, bool] = {id(card): t.is_of_sort(card, s["sort"]) for card in t.heap(s["place"])}
    found, at = lines(t, s["place"], s["line"]), t.value(s["number"])
    if not 1 <= at <= len(found):
        raise CannotGoOn
    t.claims.append(all(of_sort[id(card)] for card in found[at - 1]))


def _fact(t: Table, what: str, card: Card) -> object:
    rank, suit = t.open_face(card)
    return {"value": rank, "suit": suit, "colour": suit in ("hearts", "diamonds")}[what]


def ends_each_line(t: Table, s: Json) -> None:
    what = s["what"].removesuffix("s")
    facts = {id(card): _fact(t, what, card) for card in t.heap(s["place"])}
    good = True
    for cards in lines(t, s["place"], s["line"]):
        seen = [facts[id(card)] for card in cards]
        good &= len(set(seen)) <= 1 if s["how"] == "one" else len(set(seen)) == len(seen)
    t.claims.append(good)
