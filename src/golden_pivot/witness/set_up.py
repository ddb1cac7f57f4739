"""Meanings of what is so before anything is done: packs, placed cards, predictions."""

from __future__ import annotations

from .sorts import VALUES
from .table import Card, Json, Table, give_name


def pack(t: Table, s: Json) -> None:
    t.heaps["deck"] = [Card(number + 1) for number in range(t.value(s["count"]))]


def pack_in_order(t: Table, s: Json) -> None:
    ranks = list(VALUES)
    first, last = ranks.index(s["first"]), ranks.index(s["last"])
    run = ranks[first : last + 1] if first <= last else ranks[last : first + 1][::-1]
    t.heaps["deck"] = []
    for suit in s["suits"]:
        for rank in run:
            t.heaps["deck"].append(Card(len(t.heaps["deck"]) + 1))
            give_name(t, f"{rank} of {suit}", t.heaps["deck"][-1])
    other = {"clubs": "spades", "spades": "clubs", "hearts": "diamonds", "diamonds": "hearts"}
    for suit in reversed(s["suits"] if s.get("mirrored") else []):
        for rank in reversed(run):
            t.heaps["deck"].append(Card(len(t.heaps["deck"]) + 1))
            give_name(t, f"{rank} of {other[suit]}", t.heaps["deck"][-1])


def arrange_in_turn(t: Table, s: Json) -> None:
    sorts = s["sorts"]
    for card in t.heaps["deck"]:
        card.block = sorts[0]
        sorts = [*sorts[1:], sorts[0]]


def arrange_in_blocks(t: Table, s: Json) -> None:
    at = 0
    for block in s["blocks"]:
        for _ in range(block["many"]):
            t.heaps["deck"][at].block = block["sort"]
            at += 1


def place_four(t: Table, s: Json) -> None:
    deck = t.heaps["deck"]
    at = t.value(s["position"]["at"])
    first = at - 1 if s["position"]["end"] == "top" else len(deck) - at - 3
    placed = {card.name.split()[0] for card in t.every_card() if card.name}
    number = t.choose([value for rank, value in VALUES.items() if rank not in placed])
    rank = list(VALUES)[number - 1]
    for i, card in enumerate(deck):
        card.block, card.never = (rank, "") if first <= i < first + 4 else ("", rank)
    if s.get("name"):
        t.numbers[s["name"]] = number
        t.knows.add(s["name"])


def pack_cyclic(t: Table, s: Json) -> None:
    value, suits, ranks = VALUES[s["first"]], list(s["suits"]), list(VALUES)
    t.heaps["deck"] = []
    for _ in range(13 * len(suits)):
        t.heaps["deck"].append(Card(len(t.heaps["deck"]) + 1))
        give_name(t, f"{ranks[value - 1]} of {suits[0]}", t.heaps["deck"][-1])
        suits.append(suits.pop(0))
        value += t.value(s["by"])
        while value > 13:
            value -= 13


def place_several(t: Table, s: Json) -> None:
    first = t.index(s["position"], t.heaps["deck"])
    for i, name in enumerate(s["cards"]):
        t.heaps["deck"][first + i].face_up = bool(s.get("up"))
        give_name(t, name, t.heaps["deck"][first + i])


def place_card(t: Table, s: Json) -> None:
    card = t.heaps["deck"][t.index(s["position"], t.heaps["deck"])]
    card.face_up, card.odd_back = bool(s.get("up")), bool(s.get("odd"))
    give_name(t, s["card"], card)
    if "mate" in s:
        t.mates |= {s["card"]: s["mate"], s["mate"]: s["card"]}


def place_extra(t: Table, s: Json) -> None:
    beside = sum(len(heap) for heap in t.heaps.values())
    card = Card(beside + 1, bool(s.get("up")), bool(s.get("odd")), of_pack=False)
    give_name(t, s["card"], card)
    t.heap(s["place"]).insert(0, card)


def predict_on_back(t: Table, s: Json) -> None:
    t.named[s["bearer"]].odd_back = True


def predict(t: Table, s: Json) -> None:
    t.numbers[s["name"]] = t.value(s["number"])


def predict_card(t: Table, s: Json) -> None:
    for name in s["cards"]:
        t.must_know(name)
