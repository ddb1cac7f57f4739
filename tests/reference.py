"""The slow reference interpreter: lists of card objects, one path at a time.

It reads the JSON form of a routine and shares nothing else with the product, not even the evaluation of
expressions. Each meaning is written as a performer would carry it out, card by card.
"""

from __future__ import annotations

import copy
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field, replace
from fractions import Fraction
from itertools import pairwise
from math import prod
from typing import Any

Json = dict[str, Any]


class CannotGoOn(Exception):
    pass


class LeftLoop(Exception):
    """The rest of a repetition is left out."""


class Finished(Exception):
    """An ending inside a case has been reached."""


class NoSuchPath(Exception):
    """Choices that do not go together."""


@dataclass(eq=False)
class Card:
    number: int
    """position in the pack at the beginning, from 1"""
    face_up: bool = False
    odd_back: bool = False
    name: str | None = None
    """what its face is, once somebody has asked"""
    of_pack: bool = True

    @property
    def seen(self) -> tuple[int, bool]:
        return self.number, self.face_up


Heap = list[Card]
Decide = Callable[[list[int]], int]
SUITS = ("clubs", "diamonds", "hearts", "spades")
VALUES = dict(
    zip("ace two three four five six seven eight nine ten jack queen king".split(), range(1, 14), strict=True)
)
PARTNERS = {"clubs": "spades", "spades": "clubs", "hearts": "diamonds", "diamonds": "hearts"}


@dataclass
class Table:
    decide: Decide
    taken: list[int] = field(default_factory=list)
    """indices of the options taken so far on this path"""
    exposed: list[tuple[str | None, str]] = field(default_factory=list)
    """(card or None for any odd back, side) that must never show, in the order of their lines"""
    heaps: dict[str, Heap] = field(default_factory=dict)
    rows: set[str] = field(default_factory=set)
    grids: dict[str, int] = field(default_factory=dict)
    """cards in a row of each grid"""
    numbers: dict[str, int] = field(default_factory=dict)
    named: dict[str, Card] = field(default_factory=dict)
    mates: dict[str, str] = field(default_factory=dict)
    aliases: dict[str, str] = field(default_factory=dict)
    pile_list: list[str] = field(default_factory=list)
    laid: int = 0
    """piles laid down one by one"""
    candidates: int = 0
    growing: bool = False
    pointed: list[int] = field(default_factory=list)
    ending: bool = False
    """the line at hand is a claim: cards are turned up for it"""
    again: bool = False
    ended_here: bool = False
    """it came to an end of which nothing is claimed"""
    told: list[tuple[object, object]] = field(default_factory=list)
    """(what is seen at the end, what it is to tell) of each such claim"""
    odds: list[int] = field(default_factory=list)
    keeps: int = 0
    noted: int = 0
    placed: list[str] = field(default_factory=list)
    """cards that have a name from the beginning"""
    piles_from: str = "deck"
    gathered: list[Heap] = field(default_factory=list)
    """the piles as they were put together, top first"""
    dealt_from: str = ""
    dealt_to: str = ""
    last_at_end: bool = False
    turns: list[int] = field(default_factory=list)
    shown: set[int] = field(default_factory=set)
    """indices into `exposed` that have shown"""
    claims: list[bool] = field(default_factory=list)
    reached: set[int] = field(default_factory=set)
    """endings this path has come to, by their place among the steps of the routine"""
    knows: set[str] = field(default_factory=set)
    """numbers and cards by name that the performer has been told or has seen"""
    performer: bool = False
    """the line at hand is the performer's to carry out"""
    marks: dict[int, tuple[int, dict[str, tuple[int, ...]]]] = field(default_factory=dict)
    """behind each outermost step: how many choices had been made, and the numbers of the cards of each heap"""
    depth: int = 0
    unknown: set[str] = field(default_factory=set)
    """what the performer would have had to know, and did not"""
    log: list[dict[str, tuple[tuple[int, bool], ...]]] = field(default_factory=list)

    # Places and cards

    def where(self, place: Any) -> str:
        if isinstance(place, str):
            return self.aliases.get(place, place)
        name = f"{place['base']} {self.value(place['index'])}"
        if name not in self.heaps:
            raise CannotGoOn
        return name

    def heap(self, place: Any) -> Heap:
        return self.heaps.setdefault(self.where(place), [])

    def snapshot(self) -> dict[str, tuple[tuple[int, bool], ...]]:
        return {name: tuple(card.seen for card in heap) for name, heap in self.heaps.items() if heap}

    def pile_names(self) -> list[str]:
        """The piles there are: those dealt last; once some are laid down one by one, or where none was dealt, all
        heaps that are called so."""
        return self.numbered() if self.growing or not self.pile_list else self.pile_list

    def numbered(self) -> list[str]:
        numbers = [int(name[5:]) for name in self.heaps if name.startswith("pile ") and name[5:].isdigit()]
        return [f"pile {number}" for number in sorted(numbers)]

    def lying(self) -> list[str]:
        return [name for name in self.pile_names() if self.heap(name)]

    def every_card(self) -> list[Card]:
        return [card for heap in self.heaps.values() for card in heap]

    def mate(self, name: str) -> Card:
        if name in self.mates:
            return self.named[self.mates[name]]
        rank, _, suit = name.partition(" of ")
        return self.named[f"{rank} of {PARTNERS[suit]}"]

    def face(self, card: Card) -> str:
        """What the card is; an unknown one is any of those of the pack that are still out."""
        if card.name is None:
            if not card.of_pack:
                raise CannotGoOn
            out = [other.name for other in self.every_card() if other.name]
            packs = -(-len([other for other in self.every_card() if other.of_pack]) // 52)
            names = [f"{rank} of {suit}" for suit in SUITS for rank in VALUES]
            left = [i for i, name in enumerate(names) if out.count(name) < packs]
            card.name = names[self.choose(left)]
        return card.name

    def fact(self, what: str, card: Card) -> int:
        rank, _, suit = self.face(card).split()
        return {"value": VALUES[rank], "suit": SUITS.index(suit) + 1, "letters of value": len(rank),
                "letters of suit": len(suit), "colour": int(suit in ("diamonds", "hearts"))}[what]  # fmt: skip

    # Numbers

    def value(self, e: Json) -> int:
        op = e["op"]
        if op == "number":
            return e["value"]
        if op == "name":
            self.must_know(e["name"])
            return self.numbers[e["name"]]
        if op == "letters":
            return len([letter for letter in e["word"] if letter.isalpha()])
        if op == "size":
            return len(self.heap(e["place"]))
        if op in ("value", "suit", "letters of value", "letters of suit"):
            if "card" in e:
                self.must_know(e["card"])
                return self.fact(op, self.named[e["card"]])
            card = self.card_at(e["of"])
            if not card.face_up and not self.ending:
                raise CannotGoOn
            return self.fact(op, card)
        if op == "piles":
            return self.laid if self.growing else len(self.lying())
        if op == "half":
            whole = self.value(e["of"])
            low = (whole - 1) // 2 if whole % 2 else whole // 2
            return low + 1 if whole % 2 and e["rounded"] == "up" else low
        if op == "digit sum":
            left, total = abs(self.value(e["of"])), 0
            while left:
                left, digit = left // 10, left % 10
                total += digit
            return total
        if op == "remainder":
            of, by = self.value(e["of"]), abs(self.value(e["by"]))
            if by == 0:
                raise CannotGoOn
            while of < 0:
                of += by
            while of >= by:
                of -= by
            return of
        a, b = self.value(e["left"]), self.value(e["right"])
        return {"+": a + b, "-": a - b, "*": a * b, "min": a if a < b else b, "max": a if a > b else b}[op]

    def count(self, e: Json, heap: Heap) -> int:
        n = self.value(e)
        if n < 0 or n > len(heap):
            raise CannotGoOn
        return n

    def name_now(self, names: list[str]) -> str:
        return names[0] if len(names) == 1 else names[self.turns[-1] - 1]

    def must_know(self, name: str) -> None:
        if self.performer and not self.ending and name not in self.knows:
            self.unknown.add(name)

    def must_find(self, name: str) -> None:
        """A card nobody has told you of can only be found where it shows another side than all with it, or lies alone."""
        if name in self.knows:
            return
        heap = next((heap for heap in self.heaps.values() if self.named[name] in heap), [])
        if any(card.face_up == self.named[name].face_up for card in heap if card is not self.named[name]):
            raise CannotGoOn

    # Decisions

    def choose(self, options: list[int]) -> int:
        if not options:
            raise CannotGoOn
        return self.decide(options)

    def new_number(self, new: Json) -> None:
        low, high = self.value(new["low"]), self.value(new["high"])
        self.numbers[new["name"]] = self.choose(list(range(low, high + 1)))

    # Cards by where they lie

    def index(self, position: Json, heap: Heap) -> int:
        at = self.value(position["at"])
        if at < 1 or at > len(heap):
            raise CannotGoOn
        return at - 1 if position["end"] in ("top", "left") else len(heap) - at

    def pointed_at(self, spot: Json) -> tuple[Heap, int]:
        kind = spot["spot"]
        if kind in ("at", "face"):
            heap = self.heap(spot["place"])
            if kind == "at":
                return heap, self.index(spot, heap)
            at = len(heap)
        else:
            heap = self.heap(self.dealt_from if kind == "next" else self.dealt_to)
            back = self.value(spot["at"]) if kind == "back" else 1
            at = len(heap) + 1 - back if kind != "next" and self.last_at_end else back
        if not 1 <= at <= len(heap):
            raise CannotGoOn
        return heap, at - 1

    def card_at(self, spot: Json) -> Card:
        heap, i = self.pointed_at(spot)
        return heap[i]

    # What can be seen

    def see(self, cards: Heap, shielded: bool = False) -> None:
        for i, (name, side) in enumerate(self.exposed):
            for card in cards:
                mine = card.odd_back if name is None else self.named[name] is card
                if mine and card.face_up == (side == "face") and not shielded:
                    self.shown.add(i)

    def look_around(self, names: list[str]) -> None:
        for name in names:
            self.see(self.heaps.get(name, []) if name in self.rows else self.heaps.get(name, [])[:1])


def turned(cards: Heap) -> Heap:
    for card in cards:
        card.face_up = not card.face_up
    return list(reversed(cards))


def lay(card: Card, way: str | None) -> Card:
    if way:
        card.face_up = way == "face up"
    return card


def pack(t: Table, s: Json) -> None:
    t.heaps["deck"] = [Card(number + 1) for number in range(t.value(s["count"]))]


def give_name(t: Table, name: str, card: Card) -> None:
    t.named[name] = card
    if " of " in name:
        card.name = name


def pack_in_order(t: Table, s: Json) -> None:
    ranks = list(VALUES)
    first, last = ranks.index(s["first"]), ranks.index(s["last"])
    run = ranks[first : last + 1] if first <= last else ranks[last : first + 1][::-1]
    t.heaps["deck"] = []
    for suit in s["suits"]:
        for rank in run:
            t.heaps["deck"].append(Card(len(t.heaps["deck"]) + 1))
            give_name(t, f"{rank} of {suit}", t.heaps["deck"][-1])


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


def deal_to_stop(t: Table, s: Json) -> None:
    t.new_number(s["number"])
    n = t.numbers[s["number"]["name"]]
    if n > len(t.heap(s["from"])) or n < 0:
        raise CannotGoOn
    _deal(t, s, n)


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
    t.dealt_from, t.dealt_to, t.last_at_end = source, to, False
    under = s["way"] == "under and down"
    while t.heap(source):
        card = t.heap(source).pop(0)
        t.heap(source if under else to).insert(len(t.heap(source)) if under else 0, card)
        under = not under


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


def predict(t: Table, s: Json) -> None:
    t.numbers[s["name"]] = t.value(s["number"])


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


def _deal(t: Table, s: Json, n: int) -> None:
    row = s.get("row")
    source, to = t.where(s["from"]), t.where(s.get("to", "row" if row else "dealt"))
    if source == to:
        raise CannotGoOn
    t.dealt_from, t.dealt_to, t.last_at_end = source, to, row == "from left to right"
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
    t.grids[to] = t.value(s["columns"])
    t.rows.add(to)
    if source == to or len(t.heap(to)) + n > t.value(s["rows"]) * t.grids[to]:
        raise CannotGoOn
    for _ in range(n):
        card = t.heap(source).pop(0)
        t.see([card])
        t.see([lay(card, s.get("way"))])
        t.heap(to).append(card)


def ends_in_row(t: Table, s: Json) -> None:
    place = t.where(s["place"])
    grid, row = t.heap(place), t.value(s["row"]) - 1
    across = t.grids[place]
    t.claims.append(row >= 0 and t.named[s["card"]] in grid[row * across : (row + 1) * across])


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
    t.dealt_from, t.dealt_to, t.last_at_end = source, to, s.get("row") == "from left to right"


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
    t.dealt_from, t.dealt_to, t.last_at_end = source, to, True
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


def cut(t: Table, s: Json) -> None:
    heap = t.heap(s["place"])
    if "choice" in s:
        t.new_number(s["choice"])
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
        whole = len(block) + len(to)
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
        t.heap(f"pile {i % k + 1}").insert(0, card)


def deal_each(t: Table, s: Json) -> None:
    names = list(s["piles"])
    t.pile_list, t.piles_from, t.growing = names, t.where(s["from"]) if s["from"] in t.heaps else "deck", False
    orders = _orders(names)
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


def _groups(things: list[str], size: int) -> list[list[str]]:
    if size == 0:
        return [[]]
    return [[thing, *rest] for i, thing in enumerate(things) for rest in _groups(things[i + 1 :], size - 1)]


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
    keep = t.choose([1, 0] if len(kept) < t.keeps else [0])
    if not t.heap(source) or (not t.candidates and kept):
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


def until_out(t: Table, s: Json) -> None:
    while t.heap(s["place"]):
        before = len(t.heap(s["place"]))
        if not _round(t, s):
            return
        if len(t.heap(s["place"])) >= before:
            raise CannotGoOn


def as_long_as(t: Table, s: Json) -> None:
    for _ in range(1000):
        if not _compared(t, s):
            return
        if not _round(t, s):
            return
    raise CannotGoOn


def for_each(t: Table, s: Json) -> None:
    names = [t.where(place) for place in s["places"]]
    orders = _orders([str(i) for i in range(len(names))])
    order = orders[t.choose(list(range(len(orders)))) if "order" in s else 0]
    for turn, i in enumerate(order):
        t.turns.append(turn + 1)
        t.aliases[s["name"]] = names[int(i)]
        goes_on = _round(t, s)
        t.turns.pop()
        if not goes_on:
            break
    t.aliases.pop(s["name"], None)


def demonstrating(t: Table, s: Json) -> None:
    run_lines(t, s["body"])


def end_here(t: Table, s: Json) -> None:
    t.ended_here = True


def start_again(t: Table, s: Json) -> None:
    t.again = True


def _orders(things: list[str]) -> list[list[str]]:
    """Every order, in the order of a dictionary whose alphabet is the list."""
    if not things:
        return [[]]
    return [[first, *rest] for first in things for rest in _orders([x for x in things if x != first])]


def _gather(t: Table, s: Json, orders: list[list[str]], is_open: bool = True) -> None:
    order = orders[t.choose(list(range(len(orders)))) if is_open else 0]
    t.gathered = [t.heap(name)[:] for name in order]
    for name in order:
        t.heaps[name] = []
    to = t.where(s.get("to", t.piles_from))
    t.heaps[to] = [card for pile in t.gathered for card in pile] + t.heap(to)


def gather_any(t: Table, s: Json) -> None:
    _gather(t, s, _orders(t.lying()))


def gather_side(t: Table, s: Json) -> None:
    upwards = t.lying()  # picked up from left to right, each on the last: the last one ends on top
    by_side = {"left to right": [upwards], "right to left": [upwards[::-1]], "either side": [upwards, upwards[::-1]]}
    picked = by_side[s["side"]][: 1 if len(upwards) < 2 else 2]
    orders = [order if s["where"] == "under" else order[::-1] for order in picked]
    _gather(t, s, orders, s["side"] == "either side")


def gather_slot(t: Table, s: Json) -> None:
    told = t.where(s["pile"])
    others = [name for name in t.lying() if name != told]
    slot, rest = t.index(s["slot"], [told, *others]), _orders(others)  # type: ignore[arg-type,list-item]
    _gather(t, s, [[*order[:slot], told, *order[slot:]] for order in rest])


def gather_order(t: Table, s: Json) -> None:
    order = [t.where(place) for place in s["piles"]]
    if len(set(order)) < len(order):
        raise CannotGoOn
    _gather(t, s, [order], False)


def _round(t: Table, s: Json) -> bool:
    """Carries out the lines of a loop once; whether it goes on."""
    depth = len(t.turns)
    try:
        run_lines(t, s["body"])
    except LeftLoop:
        del t.turns[depth:]
        return False
    return True


def leave_loop(t: Table, s: Json) -> None:
    raise LeftLoop


def repeat(t: Table, s: Json) -> None:
    for turn in range(t.value(s["times"])):
        t.turns.append(turn + 1)
        goes_on = _round(t, s)
        t.turns.pop()
        if not goes_on:
            break


def _after(t: Table, lines: list[Json]) -> list[Table | None]:
    """The tables to which these lines can lead, whatever is chosen in them; None where they cannot be gone on with."""
    found: list[Table | None] = []
    script: tuple[int, ...] | None = ()
    while script is not None:
        sizes: list[int] = []
        taken: list[int] = []
        asked = script

        def decide(options: list[int]) -> int:
            index = asked[len(taken)] if len(taken) < len(asked) else 0  # noqa: B023
            sizes.append(len(options))  # noqa: B023
            taken.append(index)  # noqa: B023
            return options[index]

        now = copy.deepcopy(replace(t, decide=decide))
        try:
            run_lines(now, lines)
            found.append(now)
        except CannotGoOn:
            found.append(None)
        while taken and taken[-1] + 1 == sizes[len(taken) - 1]:
            taken.pop()
        script = (*taken[:-1], taken[-1] + 1) if taken else None
    return found


_reached: dict[object, list[Table | None]] = {}
"""(line, options taken so far) → the tables that any number of rounds can lead to, for the routine at hand"""


def as_often(t: Table, s: Json) -> None:
    """One choice among all tables that any number of rounds can lead to."""
    key = id(s), tuple(t.taken)
    if key not in _reached:
        _reached[key] = _all_reached(t, s)
    tables = _reached[key]
    chosen = copy.deepcopy(tables[t.choose(list(range(len(tables))))])
    if chosen is None:
        raise CannotGoOn
    t.__dict__.update({k: v for k, v in chosen.__dict__.items() if k not in ("decide", "taken")})


def _all_reached(t: Table, s: Json) -> list[Table | None]:
    body = [line for line in s["body"] if "step" in line]
    moves = [[line] for line in body] if "moves" in s else [body]
    reached: dict[object, Table | None] = {_all_that_lies(t): copy.deepcopy(t)}
    waiting = list(reached.values())
    while waiting:
        now = waiting.pop()
        for move in moves:
            for new in _after(now, move) if now else []:
                known = new and _all_that_lies(new)
                if known not in reached:
                    reached[known] = new
                    waiting.append(new)
    return list(reached.values())


def _all_that_lies(t: Table) -> object:
    return tuple(sorted(t.snapshot().items())), tuple(sorted(t.shown))


def _compared(t: Table, s: Json) -> bool:
    a, b = t.value(s["left"]), t.value(s["right"])
    return {  # one comparison of two numbers
        "is": a == b, "is not": a != b, "is more than": a > b, "is less than": a < b,
        "is at least": a >= b, "is at most": a <= b,
    }[s["is"]]  # fmt: skip


def _case(t: Table, body: list[Json]) -> None:
    run_lines(t, body)
    if any(is_ending(line) for line in body if "step" in line):
        raise Finished


def ends_with(t: Table, s: Json) -> None:
    t.claims.append(t.card_at(s["spot"]) is t.named[s["card"]])


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
    names = [heap[0].name for heap in heaps]
    part = {"value": lambda n: n.split()[0], "suit": lambda n: n.split()[2],
            "colour": lambda n: n.split()[2] in ("hearts", "diamonds")}[s["what"]]  # fmt: skip
    t.claims.append(None not in names and len({part(name) for name in names}) == 1)


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


def _together(t: Table, s: Json) -> bool:
    one, two = t.named[s["card"]], t.named[s["other"]]
    if s["how"] == "are mates":
        alike = [t.fact("value", card) for card in (one, two)], [t.fact("colour", card) for card in (one, two)]
        return alike[0][0] == alike[0][1] and alike[1][0] == alike[1][1]
    what = s["how"].split()[-1]
    return t.fact(what, one) == t.fact(what, two)


def _is_such(t: Table, s: Json) -> bool:
    rank, _, suit = t.face(t.named[s["card"]]).split()
    what = s["what"].split()[-1]
    return {"card": VALUES[rank] > 10, "red": suit in SUITS[1:3], "black": suit not in SUITS[1:3]}.get(
        what, suit == what + "s"
    )


def ends_together(t: Table, s: Json) -> None:
    t.claims.append(_together(t, s))


def ends_number(t: Table, s: Json) -> None:
    t.claims.append(_compared(t, s))


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
        facts = {t.fact(s["what"], card) if card.name else None for card in column}
        good &= len(facts) == 1 and None not in facts
    t.claims.append(good)


def note_order(t: Table, s: Json) -> None:
    heap = t.heap(s["place"])
    t.noted = t.choose(list(range(1, len(heap) + 1)))
    t.named["the card watched"] = heap[t.noted - 1]


def ends_in_order(t: Table, s: Json) -> None:
    heap = t.heap(s["place"])
    t.claims.append(len(heap) >= t.noted and heap[t.noted - 1] is t.named["the card watched"])


def guard(t: Table, s: Json) -> None:
    if not _compared(t, s):
        raise CannotGoOn


def ends_groups(t: Table, s: Json) -> None:
    heap, size, what = t.heap(s["place"]), t.value(s["size"]), s["what"].removesuffix("s")
    if len(heap) % size:
        raise CannotGoOn
    good = True
    for i in range(0, len(heap), size):
        facts = [t.fact(what, card) if card.name else None for card in heap[i : i + size]]
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


def predict_card(t: Table, s: Json) -> None:
    for name in s["cards"]:
        t.must_know(name)


def nothing(t: Table, s: Json) -> None:
    pass


MEANINGS: dict[str, Callable[[Table, Json], None]] = {
    f.__name__: f
    for f in (
        pack, place_card, choose_number, choose_values, choose_pile, think_of, take_card, take_from, remember, show, which_pile,
        piles_beside, deal, lay_grid, ends_in_row, spell, spell_under, count_to, count_under, put_dealt, drop_rest, put_heap, cut_off, cut,
        cut_to, turn_block, turn_over, turn_each, insert, turn_card, deal_piles, gather_any, gather_side, gather_slot, gather_order,
        repeat, as_often, ends_with, ends_same, ends_mate, ends_facing, ends_so_many_facing, ends_alike, ends_equal, place_extra, deal_to_stop,
        faro, reverse_faro, klondike, down_under, ends_beside, ends_reversed, pack_in_order, place_several, chance,
        predict, spell_name, count_down, deal_each, narrow, new_pile, keep_piles, overhand, haphazard, riffle, shuffle,
        take_mate, until_out, as_long_as, for_each, demonstrating, start_again, end_here, leave_loop, take_any, ends_together, ends_number, ends_told,
        ends_columns, ends_pairs, ends_groups, odds_of, riffle_into, note_order, ends_in_order, guard,
        predict_on_back, predict_card,
    )
} | dict.fromkeys(
    ("title", "note", "credit", "assumed", "tell", "if_compared", "if_parity", "if_card", "if_alike", "otherwise", "never_shows",
     "never_odd", "name_aloud", "odds_model"), nothing
)  # fmt: skip


UNSEEN = {"assumed", "predict_card", "repeat", "as_often", "choose_number", "choose_values", "choose_pile", "tell", "name_aloud", "chance",
          "until_out", "as_long_as", "for_each", "demonstrating", "start_again", "end_here", "leave_loop"}  # fmt: skip
"""lines during which nothing is done on the table"""


def is_ending(line: Json) -> bool:
    return line["step"].startswith(("ends_", "never_", "odds_"))


def performer_acts(line: Json) -> bool:
    """Who acts is said by the line; of a block, by what is done in it."""
    inner = [one for one in line.get("body", []) if "step" in one]
    if "body" in line:
        return not inner or any(map(performer_acts, inner))
    return is_ending(line) or (line["who"] == "performer" if "who" in line else line["step"] not in SPECTATORS)


def learn(t: Table, line: Json) -> None:
    """What the performer learns in a line: numbers that are not secret, cards that are his own or named aloud."""
    secret = line.get("secretly") or line.get("verb") == "notes"
    if line["step"] in ("tell", *NEW_NUMBERS) and not (secret and line["step"] != "tell"):
        for slot in ("number", "choice", "name", "names"):
            value = line.get(slot)
            if isinstance(value, dict) and "low" in value:
                t.knows.add(value["name"])
            elif isinstance(value, list):
                t.knows |= set(value)
            elif isinstance(value, str):
                t.knows.add(value)
    if line["step"] == "name_aloud" or (line["step"] in ("remember", "take_from") and t.performer and "card" in line):
        t.knows.add(line["card"])
    if line["step"] == "take_mate" and t.performer:
        t.knows.add(line["name"])


NEW_NUMBERS = ("choose_number", "choose_values", "choose_pile", "chance", "predict", "deal_to_stop", "cut_off", "cut",
               "which_pile", "piles_beside", "count_to", "count_down")  # fmt: skip
SPECTATORS = ("choose_number", "choose_values", "choose_pile", "tell", "name_aloud", "think_of", "take_card", "which_pile",
              "piles_beside", "narrow", "keep_piles", "chance")  # fmt: skip


CASES: dict[str, Callable[[Table, Json], bool]] = {
    "if_compared": _compared,
    "if_parity": lambda t, s: t.value(s["number"]) % 2 == (s["parity"] == "odd"),
    "if_card": _is_such,
    "if_alike": _together,
}
SET_UP = ("pack", "pack_in_order", "place_card", "place_several", "place_extra", "predict_on_back")
"""what is so before anything is done, wherever it is written"""


def run_lines(t: Table, lines: list[Json]) -> None:
    t.depth += 1
    try:
        _run_lines(t, lines)
    finally:
        t.depth -= 1


def _run_lines(t: Table, lines: list[Json]) -> None:
    taken = False
    before: Json | None = None
    for line in [*(line for line in lines if "step" in line), None]:
        if before is not None and t.depth == 1:
            heaps = {name: tuple(card.number for card in heap) for name, heap in t.heaps.items() if heap}
            t.marks[before["nth"]] = len(t.taken), heaps
        if line is None:
            return
        before = line
        step = line["step"]
        t.ending = is_ending(line)
        t.performer = performer_acts(line)
        learn(t, line)
        if step in CASES:
            for name in (line.get("card"), line.get("other")):
                if name:
                    t.must_know(name)
            taken = CASES[step](t, line)
            if taken:
                _case(t, line["body"])
        elif step == "otherwise":
            if not taken:
                _case(t, line["body"])
        else:
            MEANINGS[step](t, line)
            if t.ending:
                t.reached.add(line["nth"])
            if step in SET_UP:
                continue
            if t.again or t.ended_here:
                raise Finished
            if not line.get("shielded") and not is_ending(line) and step not in UNSEEN:
                t.look_around(list(t.heaps))
            t.log.append(t.snapshot())


class NoPath(Exception):
    """These choices are no path; the options taken and their numbers, for the next script."""

    def __init__(self, taken: list[int], sizes: list[int]) -> None:
        super().__init__()
        self.taken, self.sizes = taken, sizes


@dataclass
class Path:
    taken: tuple[int, ...]
    """index of the option taken, for each choice in turn"""
    table: Table
    stuck: bool
    no_ending: bool
    """there are endings, and this path came to none"""
    chance: Fraction
    """of this path, where every option is as likely as the others"""
    ambiguous: bool = False
    """what is seen at the end does not tell what it is to tell"""

    @property
    def fails(self) -> bool:
        if self.stuck or self.table.shown:
            return True
        return not self.table.again and (self.no_ending or self.ambiguous or not all(self.table.claims))


def _steps(lines: list[Json]) -> Iterator[Json]:
    for line in lines:
        if "step" in line:
            yield line
            yield from _steps(line.get("body", []))


def run(
    document: Json, script: tuple[int, ...] = (), pick: Callable[[list[int]], int] | None = None
) -> tuple[Path, list[int]]:
    """The path that takes these options and then always the first; with the number of options at each choice.

    With `pick` that decides on an index instead.
    """
    sizes: list[int] = []
    taken: list[int] = []

    def decide(options: list[int]) -> int:
        index = pick(options) if pick else script[len(taken)] if len(taken) < len(script) else 0
        sizes.append(len(options))
        taken.append(index)
        return options[index]

    if not script:
        _reached.clear()
    every = list(_steps(document["lines"]))
    for nth, line in enumerate(every):
        line["nth"] = nth
    table = Table(decide, taken)
    stuck = False
    opening = [line for line in document["lines"] if line.get("step") in ("title", "note", *SET_UP)]
    try:
        run_lines(table, opening)
        table.placed = list(table.named)
        table.knows |= set(table.placed)
        table.keeps = next((table.value(line["count"]) for line in every if line["step"] == "keep_piles"), 0)
        table.exposed = [
            (line.get("card"), line.get("side", "back")) for line in every if line["step"].startswith("never_")
        ]
        table.look_around(list(table.heaps))
        run_lines(table, [line for line in document["lines"] if line not in opening])
    except CannotGoOn:
        stuck = True
    except Finished:
        pass
    except NoSuchPath:
        raise NoPath(taken, sizes) from None
    ends = sum(line["step"].startswith("ends_") for line in every) and not table.again and not table.ended_here
    return Path(
        tuple(taken), table, stuck, not stuck and bool(ends) and not table.claims, Fraction(1, prod(sizes))
    ), sizes


def every_path(document: Json) -> list[Path]:
    """All paths, in the order of the options."""
    _reached.clear()
    paths = list(each_path(document))
    for i in range(max((len(path.table.told) for path in paths), default=0)):
        ended = [path for path in paths if i < len(path.table.told) and not path.stuck]
        looks = {path.table.told[i] for path in ended}
        several = {
            (seen, told)
            for seen, told in looks
            if any(told != other[1] and _may_be_one(seen, other[0]) for other in looks)
        }
        for path in ended:
            path.ambiguous |= path.table.told[i] in several
    return paths


def _may_be_one(one: Any, other: Any) -> bool:
    """Whether two packs, of which each path has looked at some cards, can end with the same faces: a card lies at one place."""
    (cards, beside), (others, theirs) = one, other
    if len(cards) != len(others):
        return False
    known = {face: i for i, (face, _) in enumerate(cards) if face} | dict.fromkeys(beside, -1)
    for i, (face, up) in enumerate(others):
        if up != cards[i][1] or (face and (cards[i][0] or face) != face) or known.get(face, i) != i:
            return False
    return not (theirs & {face for face, _ in cards})


def each_path(document: Json) -> Iterator[Path]:
    """The same one by one, without what only all of them together show."""
    script: tuple[int, ...] | None = ()
    while script is not None:
        taken, sizes = [], []
        try:
            path, sizes = run(document, script)
            taken = list(path.taken)
            yield path
        except NoPath as none:
            taken, sizes = none.taken, none.sizes
        while taken and taken[-1] + 1 == sizes[len(taken) - 1]:
            taken.pop()
        script = (*taken[:-1], taken[-1] + 1) if taken else None
