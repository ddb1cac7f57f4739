"""What performers do one way or another: each custom rewrites the text as one who has the other custom would write it."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass

from ..budget import Budget
from ..cards import card_value
from ..english import ordinal
from ..language.expressions import Number
from ..language.facets import Facet
from ..language.kinds import ENDING, PAGE, SETUP
from ..language.parser import lines_of
from ..language.routine import Line, Routine
from ..language.slots import SLOT_TYPES
from ..language.values import Position, Spot
from ..variants.edits import slot_text, with_slots

Option = tuple[tuple[int, ...], str]
"""(lines that change, the whole text then)"""
Rewrites = Callable[["Page"], Iterator[Option]]


@dataclass(frozen=True)
class Custom:
    label: str
    options: Rewrites
    """ways to carry it through, the likeliest first; none where it does not apply"""


CUSTOMS: list[Custom] = []


def custom(label: str) -> Callable[[Rewrites], Rewrites]:
    """Declare a custom under the words by which it is offered."""

    def register(options: Rewrites) -> Rewrites:
        CUSTOMS.append(Custom(label, options))
        return options

    return register


@dataclass(frozen=True)
class Page:
    """A routine as text and as lines, and ways to change it."""

    text: str
    routine: Routine
    target: str | None
    """the card it is about"""
    budget: Budget

    @property
    def steps(self) -> list[Line]:
        return [line for line in self.routine.walk() if line.kind]

    def having(self, *facets: Facet) -> list[Line]:
        return self.routine.having(*facets)

    @property
    def endings(self) -> list[Line]:
        return [line for line in self.steps if line.kind and line.kind.phase == ENDING]

    @property
    def last_of_set_up(self) -> int:
        """Number of the last line of what is written before anything is done."""
        return max((line.number for line in self.steps if line.kind and line.kind.phase in (PAGE, SETUP)), default=0)

    def rewritten(
        self, rows: Mapping[int, str | None], after: Mapping[int, Sequence[str]] | None = None
    ) -> Option | None:
        """With other rows (None: without the line, and what is said below it) and more of them after some lines."""
        gone = {number for number, row in rows.items() if row is None}
        said = self.routine.below()
        gone |= {one.number for number in gone for one in said.get(number, ())}
        found: list[str] = []
        for number, row in enumerate(lines_of(self.text), start=1):
            new = rows.get(number)
            if number not in gone:
                found.append(row if new is None else new)
            found += (after or {}).get(number, ())
        text = "\n".join(found) + "\n"
        changed = tuple(sorted({*rows, *(after or {})}))
        return (changed, text) if changed and text != self.text else None

    def free_name(self, name: str) -> str:
        """The name, or one like it that no line has."""
        words = " ".join(row for row in lines_of(self.text)).replace(",", " ").split()
        return next(one for one in (name, *(f"{name}{n}" for n in range(2, 99))) if one not in words)

    def free_place(self) -> str:
        """Somewhere out of sight that no line uses."""
        return next((one for one in ("pocket", "box", "envelope") if one not in self.text), "wallet")


def kept(*options: Option | None) -> Iterator[Option]:
    yield from (option for option in options if option)


# The card that is counted to


def _placed(page: Page) -> Iterator[tuple[Line, Position]]:
    """Cards placed in the pack, with a position in figures."""
    for line in page.having(Facet.PLACED):
        position = line.values["position"]
        if isinstance(position, Position) and isinstance(position.at, Number):
            yield line, position


def _other_card(page: Page, now: str, other: str) -> Iterator[Option]:
    """Endings on the other card of the count: with every placed card one higher or lower, or as they are."""
    ends = {
        line.number: with_slots(line, [(slot, SLOT_TYPES["spot"].write(Spot(other)))])
        for line in page.endings
        for slot, type_name, _, _ in line.spans
        if type_name == "spot" and line.values[slot] == Spot(now)
    }
    if not ends:
        return
    for shift in (1, -1):
        moved: dict[int, str | None] = {**ends}
        for line, position in _placed(page):
            if (at := position.at.value + shift) >= 1:  # type: ignore[union-attr]
                where = SLOT_TYPES["position"].write(Position(Number(at), position.end))
                moved[line.number] = with_slots(line, [("position", where)])
        if len(moved) > len(ends):
            yield from kept(page.rewritten(moved))
    yield from kept(page.rewritten(ends))


@custom("next instead of last")
def next_card(page: Page) -> Iterator[Option]:
    return _other_card(page, "last", "next")


@custom("last instead of next")
def last_card(page: Page) -> Iterator[Option]:
    return _other_card(page, "next", "last")


# Marks and keys

ODD, SHORT = ", with an odd back", ", cut short"


def with_words(line: Line, words: str) -> str:
    """The words stand before a mate that is named."""
    row, comma, mate = line.text.partition(", the mate of")
    return f"{row}{words}{comma}{mate}"


@custom("marked: the placed card has another back")
def marked(page: Page) -> Iterator[Option]:
    placed = page.having(Facet.PLACED)
    if placed and not any(line.values.get("odd") or line.values.get("short") for line in page.steps):
        yield from kept(page.rewritten({placed[0].number: with_words(placed[0], ODD)}))


@custom("plain: no card with another back")
def plain(page: Page) -> Iterator[Option]:
    odd = [line for line in page.steps if line.values.get("odd")]
    yield from kept(page.rewritten({line.number: line.text.replace(ODD, "") for line in odd}))


@custom("a short key, found by the fingers")
def short_key(page: Page) -> Iterator[Option]:
    for line in _keys(page):
        if not line.values.get("short"):
            yield from kept(page.rewritten({line.number: with_words(_line(line, ODD), SHORT)}))


@custom("a key that can be seen from its back")
def visible_key(page: Page) -> Iterator[Option]:
    for line in _keys(page):
        if not line.values.get("odd"):
            yield from kept(page.rewritten({line.number: with_words(_line(line, SHORT), ODD)}))


def _keys(page: Page) -> list[Line]:
    """Cards of the set-up that are cut to, counted down to, or told from their backs."""
    sought = {line.values["card"] for line in page.having(Facet.SEEKS)}
    return [
        line
        for line in page.having(Facet.PLACED)
        if line.values["card"] in sought or line.values.get("odd") or line.values.get("short")
    ]


def _line(line: Line, without: str) -> Line:
    return Line(line.number, line.text.replace(without, ""), line.is_)


# Values, and where one counts from

COURTS = ", court cards as ten"


@custom("court cards as ten")
def courts_as_ten(page: Page) -> Iterator[Option]:
    counts = [line for line in page.having(Facet.COUNTS_DOWN) if COURTS not in line.text]
    yield from kept(
        page.rewritten(
            {line.number: line.text.replace("a card’s value", f"a card’s value{COURTS}") for line in counts}
        )
    )


@custom("court cards as eleven to thirteen")
def courts_in_full(page: Page) -> Iterator[Option]:
    counts = [line for line in page.having(Facet.COUNTS_DOWN) if COURTS in line.text]
    yield from kept(page.rewritten({line.number: line.text.replace(COURTS, "") for line in counts}))


def _from_other_end(page: Page, now: str, other: str) -> Iterator[Option]:
    """The same places of the pack, counted from its other end."""
    packs = page.having(Facet.COUNTED_PACK)
    size = packs[0].values["count"].value if packs and isinstance(packs[0].values["count"], Number) else 0
    rows: dict[int, str | None] = {}
    for line, position in _placed(page):
        at = size - position.at.value + 1  # type: ignore[union-attr]
        if position.end == now and slot_text(line, "position") and at >= 1:
            rows[line.number] = with_slots(line, [("position", f"{ordinal(at)} from the {other}")])
    yield from kept(page.rewritten(rows))


@custom("positions counted from the face")
def from_the_face(page: Page) -> Iterator[Option]:
    return _from_other_end(page, "top", "bottom")


@custom("positions counted from the top")
def from_the_top(page: Page) -> Iterator[Option]:
    return _from_other_end(page, "bottom", "top")


@custom("the row or the fan seen from the other side: left and right changed")
def mirrored(page: Page) -> Iterator[Option]:
    rows: dict[int, str | None] = {}
    for line in page.steps:
        positions = [one.position if isinstance(one, Spot) else one for one in line.values.values()]
        ends = [one.end for one in positions if isinstance(one, Position)]
        if line.values.get("row") or "left" in ends or "right" in ends:
            rows[line.number] = line.text.replace("left", "\0").replace("right", "left").replace("\0", "right")
    yield from kept(page.rewritten(rows))


# With something prepared, or with what is there


@custom("nothing prepared: glimpse the card that lies there")
def glimpsed(page: Page) -> Iterator[Option]:
    lines = [
        line
        for line, _ in _placed(page)
        if not any(line.values.get(flag) for flag in ("up", "odd", "short", "mate"))
        and not card_value(line.values["card"])
    ]
    if not lines or len(lines) != len(page.having(Facet.PLACED, Facet.PLACED_LISTED)):
        return
    looks = [
        f"Remember {SLOT_TYPES['spot'].write(Spot('at', line.values['position'], 'deck'))}: {line.values['card']}"
        for line in lines
    ]
    yield from kept(page.rewritten({line.number: None for line in lines}, {page.last_of_set_up: looks}))


@custom("prepared: the card placed beforehand instead of glimpsed")
def prepared(page: Page) -> Iterator[Option]:
    begun = page.last_of_set_up
    rows: dict[int, str | None] = {}
    placed: list[str] = []
    for line in page.steps:
        if not line.kind or line.number <= begun:
            continue
        spot = line.values.get("spot")
        own = line.has(Facet.GLIMPSE) and line.values["who"] == "performer"
        if not (own and isinstance(spot, Spot) and spot.kind in ("at", "face") and spot.place == "deck"):
            break
        position = spot.position or Position(Number(1), "bottom")
        rows[line.number] = None
        placed.append(f"Place {line.values['card']} {SLOT_TYPES['position'].write(position)}")
    if rows:
        yield from kept(page.rewritten(rows, {begun: placed}))
