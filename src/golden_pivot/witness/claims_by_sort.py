"""What is claimed of the sorts of cards."""

from __future__ import annotations

from .table import Card, Json, Table


def ends_sort(t: Table, s: Json) -> None:
    t.claims.append(t.is_of_sort(t.named[s["card"]], s["sort"], named=True))


def ends_spot_sort(t: Table, s: Json) -> None:
    t.claims.append(t.is_of_sort(t.card_at(s["spot"]), s["sort"]))


def ends_so_many_sort(t: Table, s: Json) -> None:
    found = t.tally(s["place"], s["sort"])
    t.claims.append(found == t.value(s["count"]))


def ends_every_sort(t: Table, s: Json) -> None:
    t.claims.append(t.tally(s["place"], s["sort"]) == len(t.heap(s["place"])))


def go_together(t: Table, how: str, one: Card, other: Card) -> bool:
    a, b = t.face(one).split(), t.face(other).split()
    red = [face[2] in ("hearts", "diamonds") for face in (a, b)]
    if how == "are mates":
        return one is not other and a[0] == b[0] and red[0] == red[1]
    same = {"value": a[0] == b[0], "suit": a[2] == b[2], "colour": red[0] == red[1]}[how.split()[-1]]
    return same if how.startswith("have") else not same


def ends_spots_together(t: Table, s: Json) -> None:
    one, other = t.card_at(s["spot"]), t.card_at(s["other"])
    for card in (one, other):
        t.open_face(card)
    t.claims.append(go_together(t, s["how"], one, other))


def ends_spot_like(t: Table, s: Json) -> None:
    one = t.card_at(s["spot"])
    t.open_face(one)
    t.claims.append(go_together(t, f"have the same {s['what']}", one, t.named[s["card"]]))


def _faces(t: Table, s: Json) -> list[list[str]]:
    return [t.open_face(card) for card in list(t.heap(s["place"]))]


def ends_alternating(t: Table, s: Json) -> None:
    faces = _faces(t, s)
    if s["how"] == "alternate in colour":
        red = [suit in ("hearts", "diamonds") for _, suit in faces]
        t.claims.append(all(red[i] != red[i + 1] for i in range(len(red) - 1)))
        return
    suits = [suit for _, suit in faces]
    t.claims.append(all(suits[i] not in suits[j:i] for i in range(len(suits)) for j in [max(0, i - 3)]))


def ends_unlike(t: Table, s: Json) -> None:
    seen = [face[0] if s["what"] == "value" else face[1] for face in _faces(t, s)]
    t.claims.append(all(seen.count(one) == 1 for one in seen))


def ends_sort_together(t: Table, s: Json) -> None:
    so = [t.is_of_sort(card, s["sort"]) for card in list(t.heap(s["place"]))]
    runs = sum(so[i] and not (i and so[i - 1]) for i in range(len(so)))
    t.claims.append(runs <= 1)
