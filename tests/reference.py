"""The slow reference interpreter: lists of card objects, one path at a time.

It reads the JSON form of a routine and shares nothing else with the product, not even the evaluation of
expressions. Each meaning is written as a performer would carry it out, card by card.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from typing import Any


class CannotGoOn(Exception):
    pass


@dataclass(eq=False)
class Card:
    number: int
    """position in the pack at the beginning, from 1"""
    name: str | None = None
    face_up: bool = False

    @property
    def seen(self) -> tuple[int, bool]:
        return self.number, self.face_up


Heap = list[Card]
Decide = Callable[[list[int]], int]


@dataclass
class Table:
    decide: Decide
    heaps: dict[str, Heap] = field(default_factory=dict)
    numbers: dict[str, int] = field(default_factory=dict)
    dealt_from: str = ""
    dealt_to: str = ""
    last_at_bottom: bool = False
    claims: list[bool] = field(default_factory=list)
    log: list[dict[str, tuple[tuple[int, bool], ...]]] = field(default_factory=list)

    def heap(self, name: str) -> Heap:
        return self.heaps.setdefault(name, [])

    def snapshot(self) -> dict[str, tuple[tuple[int, bool], ...]]:
        return {name: tuple(card.seen for card in heap) for name, heap in self.heaps.items() if heap}

    def value(self, e: dict[str, Any]) -> int:
        op = e["op"]
        if op == "number":
            return e["value"]
        if op == "name":
            return self.numbers[e["name"]]
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

    def count(self, e: dict[str, Any], heap: Heap) -> int:
        n = self.value(e)
        if n < 0 or n > len(heap):
            raise CannotGoOn
        return n

    def choose(self, options: list[int]) -> int:
        if not options:
            raise CannotGoOn
        return self.decide(options)

    def new_number(self, new: dict[str, Any]) -> None:
        low, high = self.value(new["low"]), self.value(new["high"])
        self.numbers[new["name"]] = self.choose(list(range(low, high + 1)))

    def index(self, position: dict[str, Any], heap: Heap) -> int:
        at = self.value(position["at"])
        if at < 1 or at > len(heap):
            raise CannotGoOn
        return at - 1 if position["end"] == "top" else len(heap) - at

    def pointed_at(self, spot: dict[str, Any]) -> Card:
        if spot["spot"] == "at":
            heap = self.heap(spot["place"])
            return heap[self.index(spot, heap)]
        heap = self.heap(self.dealt_from if spot["spot"] == "next" else self.dealt_to)
        if not heap:
            raise CannotGoOn
        return heap[-1] if spot["spot"] == "last" and self.last_at_bottom else heap[0]


def turned(cards: Heap) -> Heap:
    for card in cards:
        card.face_up = not card.face_up
    return list(reversed(cards))


def pack(t: Table, s: dict[str, Any]) -> None:
    t.heaps["deck"] = [Card(number + 1) for number in range(t.value(s["count"]))]


def place_card(t: Table, s: dict[str, Any]) -> None:
    t.heaps["deck"][t.index(s["position"], t.heaps["deck"])].name = s["card"]


def choose_number(t: Table, s: dict[str, Any]) -> None:
    t.new_number(s["number"])


def deal(t: Table, s: dict[str, Any]) -> None:
    t.dealt_from, t.dealt_to, t.last_at_bottom = s["from"], s.get("to", "dealt"), False
    source, to = t.heap(t.dealt_from), t.heap(t.dealt_to)
    for _ in range(t.count(s["count"], source)):
        to.insert(0, source.pop(0))


def count_under(t: Table, s: dict[str, Any]) -> None:
    t.dealt_from, t.dealt_to, t.last_at_bottom = s["from"], s.get("to", "dealt"), True
    source, to = t.heap(t.dealt_from), t.heap(t.dealt_to)
    for _ in range(t.count(s["count"], source)):
        to.append(source.pop(0))


def put_dealt(t: Table, s: dict[str, Any]) -> None:
    source, dealt = t.heap(t.dealt_from), t.heap(t.dealt_to)
    while dealt:
        if s["where"] == "underneath":
            source.append(dealt.pop(0))
        else:
            source.insert(0, dealt.pop())


def drop_rest(t: Table, s: dict[str, Any]) -> None:
    source, dealt = t.heap(t.dealt_from), t.heap(t.dealt_to)
    together = source + dealt
    t.heaps[t.dealt_from], t.heaps[t.dealt_to] = together, []


def put_heap(t: Table, s: dict[str, Any]) -> None:
    moving, there = t.heap(s["from"]), t.heap(s["to"])
    t.heaps[s["to"]] = moving + there if s["where"] == "on" else there + moving
    t.heaps[s["from"]] = []


def cut(t: Table, s: dict[str, Any]) -> None:
    heap = t.heap(s["place"])
    if "choice" in s:
        t.new_number(s["choice"])
    n = t.count(s["depth"], heap) if "depth" in s else t.choose(list(range(max(1, len(heap)))))
    for _ in range(n):
        heap.append(heap.pop(0))


def turn_block(t: Table, s: dict[str, Any]) -> None:
    heap = t.heap(s["place"])
    n = t.count(s["count"], heap)
    t.heaps[s["place"]] = turned(heap[:n]) + heap[n:]


def turn_over(t: Table, s: dict[str, Any]) -> None:
    t.heaps[s["place"]] = turned(t.heap(s["place"]))


def repeat(t: Table, s: dict[str, Any]) -> None:
    for _ in range(t.value(s["times"])):
        run_lines(t, s["body"])


def ends_with(t: Table, s: dict[str, Any]) -> None:
    t.claims.append(t.pointed_at(s["spot"]).name == s["card"])


def nothing(t: Table, s: dict[str, Any]) -> None:
    pass


MEANINGS: dict[str, Callable[[Table, dict[str, Any]], None]] = {
    f.__name__: f
    for f in (
        pack, place_card, choose_number, deal, count_under, put_dealt, drop_rest, put_heap, cut, turn_block,
        turn_over, repeat, ends_with,
    )
} | dict.fromkeys(("title", "note", "tell"), nothing)  # fmt: skip


def run_lines(t: Table, lines: list[dict[str, Any]]) -> None:
    for line in lines:
        if "step" in line:
            MEANINGS[line["step"]](t, line)
            t.log.append(t.snapshot())


@dataclass
class Path:
    taken: tuple[int, ...]
    """index of the option taken, for each choice in turn"""
    table: Table
    stuck: bool

    @property
    def fails(self) -> bool:
        return self.stuck or not all(self.table.claims)


def run(document: dict[str, Any], script: tuple[int, ...]) -> tuple[Path, list[int]]:
    """The path that takes these options and then always the first; with the number of options at each choice."""
    sizes: list[int] = []
    taken: list[int] = []

    def decide(options: list[int]) -> int:
        index = script[len(taken)] if len(taken) < len(script) else 0
        sizes.append(len(options))
        taken.append(index)
        return options[index]

    table = Table(decide)
    try:
        run_lines(table, document["lines"])
    except CannotGoOn:
        return Path(tuple(taken), table, True), sizes
    return Path(tuple(taken), table, False), sizes


def every_path(document: dict[str, Any]) -> Iterator[Path]:
    """All paths, in the order of the options."""
    script: tuple[int, ...] | None = ()
    while script is not None:
        path, sizes = run(document, script)
        yield path
        taken = list(path.taken)
        while taken and taken[-1] + 1 == sizes[len(taken) - 1]:
            taken.pop()
        script = (*taken[:-1], taken[-1] + 1) if taken else None
