"""What lies on the table, what is known, and how the numbers of a line are worked out."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from .sorts import NAMES, SUITS, VALUES, is_sort
from .sums import OF_ONE, OF_TWO

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
    block: str = ""
    """the colour, the suit or the value it is known to be of"""
    never: str = ""
    """the value it is known not to be of"""

    @property
    def seen(self) -> tuple[int, bool]:
        return self.number, self.face_up


Heap = list[Card]


class FacesLeft(list[int]):
    """What a card can be: numbers of cards, clubs from ace to king first, then diamonds, hearts, spades."""


Decide = Callable[[list[int]], int]


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
    grid_rows: dict[str, int] = field(default_factory=dict)
    rings: set[str] = field(default_factory=set)
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
    from_bottom: bool = False
    """cards were last dealt from the bottom"""
    turns: list[int] = field(default_factory=list)
    shown: dict[int, int] = field(default_factory=dict)
    """index into `exposed` → the step at which it first showed, by its place among the steps; -1 before all of them"""
    step: int = -1
    """the one at hand"""
    claims: list[bool] = field(default_factory=list)
    judged: dict[int, bool] = field(default_factory=dict)
    """endings this path has come to, by their place among the steps → whether what they claim was so"""
    reached: set[int] = field(default_factory=set)
    """endings this path has come to, by their place among the steps of the routine"""
    knows: set[str] = field(default_factory=set)
    """numbers and cards by name that the performer has been told or has seen"""
    held: set[str] = field(default_factory=set)
    """cards by name that the performer's fingers keep a break at"""
    performer: bool = False
    """the line at hand is the performer's to carry out"""
    logged: bool = False
    """whether `log` is kept"""
    marked: bool = False
    """whether `marks` are"""
    marks: dict[int, tuple[int, dict[str, tuple[int, ...]]]] = field(default_factory=dict)
    """behind each outermost step: how many choices had been made, and the numbers of the cards of each heap"""
    came_by: dict[tuple[int, tuple[int, ...]], dict[str, tuple[int, ...]]] = field(default_factory=dict)
    """behind each step that is no block, and which time round: the numbers of the cards of each heap"""
    depth: int = 0
    unknown: set[str] = field(default_factory=set)
    """what the performer would have had to know, and did not"""
    rounds: int | None = None
    """of a repetition as often as one likes, so many at most are drawn at random; None: everything that any number of them can lead to"""
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
            left = [i for i, name in enumerate(NAMES) if out.count(name) < packs]
            left = [i for i in left if not card.block or _is(NAMES[i], card.block)]
            left = [i for i in left if not card.never or not _is(NAMES[i], card.never)]
            card.name = NAMES[self.choose(FacesLeft(left))]
        return card.name

    def known_fact(self, what: str, card: Card) -> int | None:
        """The same where it is known without a look at the card."""
        if card.name or not card.block:
            return self.fact(what, card) if card.name else None
        if card.block in VALUES:
            return VALUES[card.block] if what == "value" else None
        suits = [suit for suit in SUITS if is_sort("ace", suit, card.block)]
        colours = {suit in ("diamonds", "hearts") for suit in suits}
        if what == "colour" and len(colours) == 1:
            return int(colours.pop())
        return SUITS.index(suits[0]) + 1 if what == "suit" and len(suits) == 1 else None

    def fact(self, what: str, card: Card) -> int:
        rank, _, suit = self.face(card).split()
        return {"value": VALUES[rank], "suit": SUITS.index(suit) + 1, "letters of value": len(rank),
                "letters of suit": len(suit), "colour": int(suit in ("diamonds", "hearts"))}[what]  # fmt: skip

    def open_face(self, card: Card) -> list[str]:
        """Rank and suit of a card that somebody sees here: it lies face up, or is turned up for the ending."""
        if not card.face_up and not self.ending:
            raise CannotGoOn
        return self.face(card).split(" of ")

    def is_of_sort(self, card: Card, sort: str, named: bool = False) -> bool:
        if sort.startswith("face"):
            return card.face_up == ("up" in sort)
        rank, suit = self.face(card).split(" of ") if named else self.open_face(card)
        return is_sort(rank, suit, sort)

    def tally(self, place: Any, sort: str) -> int:
        return sum([self.is_of_sort(card, sort) for card in list(self.heap(place))])

    # Numbers

    def value(self, e: Json) -> int:
        op = e["op"]
        if op == "number":
            return int(e["value"])
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
        if op == "count":
            return self.tally(e["place"], e["sort"])
        if op == "piles":
            return self.laid if self.growing and self.keeps else len(self.lying())
        if op in OF_ONE:
            return OF_ONE[op](self.value(e["of"]), e.get("rounded", ""))
        if op in OF_TWO:
            one, other = (self.value(e[side]) for side in (("of", "by") if "of" in e else ("left", "right")))
            if (found := OF_TWO[op](one, other)) is None:
                raise CannotGoOn
            return found
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
        if name in self.knows or name in self.held:
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
        if kind in ("on", "before", "cell"):
            return self._stepped(spot)
        if kind in ("at", "face"):
            heap = self.heap(spot["place"])
            if kind == "at":
                return heap, self.index(spot, heap)
            at = len(heap)
        else:
            heap = self.heap(self.dealt_from if kind == "next" else self.dealt_to)
            if kind == "next" and self.from_bottom and heap:
                return heap, len(heap) - 1
            back = self.value(spot["at"]) if kind == "back" else 1
            at = len(heap) + 1 - back if kind != "next" and self.last_at_end else back
        if not 1 <= at <= len(heap):
            raise CannotGoOn
        return heap, at - 1

    def _stepped(self, spot: Json) -> tuple[Heap, int]:
        """So many cards on in the round, or at a row and a column of a grid."""
        heap = self.heap(spot["place"])
        if spot["spot"] == "cell":
            row, column = (self.value(step) for step in spot["steps"])
            across = self.grids[self.where(spot["place"])]
            at = (row - 1) * across + column
            if row < 1 or not 1 <= column <= across or at > len(heap):
                raise CannotGoOn
            return heap, at - 1
        at, steps = self.index(spot, heap), self.value(spot["steps"][0])
        for _ in range(abs(steps) % len(heap)):
            at = at + 1 if (steps > 0) == (spot["spot"] == "on") else at - 1
            at = 0 if at == len(heap) else len(heap) - 1 if at < 0 else at
        return heap, at

    def card_at(self, spot: Json) -> Card:
        heap, i = self.pointed_at(spot)
        return heap[i]

    # What can be seen

    def see(self, cards: Heap, shielded: bool = False) -> None:
        for i, (name, side) in enumerate(self.exposed):
            for card in cards:
                mine = card.odd_back if name is None else self.named[name] is card
                if mine and card.face_up == (side == "face") and not shielded:
                    self.shown.setdefault(i, self.step)

    def look_around(self, names: list[str]) -> None:
        for name in names:
            self.see(self.heaps.get(name, []) if name in self.rows else self.heaps.get(name, [])[:1])


def _is(name: str, sort: str) -> bool:
    rank, _, suit = name.partition(" of ")
    return is_sort(rank, suit, sort)


def turned(cards: Heap) -> Heap:
    for card in cards:
        card.face_up = not card.face_up
    return list(reversed(cards))


def lay(card: Card, way: str | None) -> Card:
    if way:
        card.face_up = way == "face up"
    return card


def give_name(t: Table, name: str, card: Card) -> None:
    t.named[name] = card
    if " of " in name:
        card.name = name
