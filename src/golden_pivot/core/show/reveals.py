"""Other ways to come to the card, and to have said so: a count or magician's choice, kinds of prediction."""

from __future__ import annotations

from collections.abc import Iterator

from ..answers.proving import prove
from ..answers.verdicts import WHETHER
from ..english import counted
from ..faults import BadRoutine, OutOfBudget
from ..language.expressions import Number
from ..language.facets import Facet
from ..language.parser import lines_of, read_routine
from ..language.phrases import place_text
from ..language.routine import Line
from ..language.values import Spot
from .customs import Option, Page, custom, kept, with_words

PILES = 5
"""of a card each, narrowed down in the reveal: pointing to 2, 1 and 1 leaves one whatever goes"""


def _claims_target(page: Page) -> list[Line]:
    """Endings of the outermost level that say where the card lies."""
    return [line for line in page.endings if line.has(Facet.CLAIMS_CARD_AT) and line.level == 0]


# A count or magician's choice


@custom("magician’s choice instead of the count, to reveal it")
def by_choice(page: Page) -> Iterator[Option]:
    ends = _claims_target(page)
    if len(ends) != 1 or page.having(Facet.NARROWS):
        return
    (end,) = ends
    card, spot = end.values["card"], end.values["spot"]
    narrowing = [
        f"Deal {{}} into {PILES} piles, 1 card each",
        f"Spectator points to 2 of the piles, and you keep those that {card} is among",
        "If number of piles is 3:",
        f"  Spectator points to 1 of the piles, and you keep those that {card} is among",
        "If number of piles is 2:",
        f"  Spectator points to 1 of the piles, and you keep those that {card} is among",
        f"Ends with: the top card of pile 1 is {card}",
    ]
    for before, source in _within_reach(spot):
        rows = [*before, narrowing[0].format(source), *narrowing[1:]]
        yield from kept(page.rewritten({end.number: None}, {end.number: rows}))


def _within_reach(spot: Spot) -> Iterator[tuple[list[str], str]]:
    """(what is done first, the heap whose top cards are dealt) so that the card is among them."""
    match spot:
        case Spot("last"):
            yield ["Put the dealt cards back on top"], "deck"
        case Spot("next"):
            yield [], "deck"
        case Spot("at", position, place) if (
            position and position.end == "top" and isinstance(position.at, Number) and position.at.value <= PILES
        ):
            yield [], place_text(place or "deck")


@custom("a count instead of magician’s choice, to reveal it")
def by_count(page: Page) -> Iterator[Option]:
    narrowing = page.having(Facet.NARROWS)
    if not narrowing or narrowing[0].level or not page.target:
        return
    rows = lines_of(page.text)[: narrowing[0].number - 1]
    try:
        landing = prove(read_routine("\n".join(rows) + "\n"), page.budget, WHETHER).landing
    except (BadRoutine, OutOfBudget):
        return
    if landing is None or len(landing.where) != 1:
        return
    (where,) = landing.where
    heap = page.free_name("counted")
    found = [
        *rows, f"Deal {counted(where.position, 'card')} from {where.place} to {heap}",
        f"Ends with: the last card dealt is {landing.card}",
    ]  # fmt: skip
    yield tuple(line.number for line in page.steps if line.number >= narrowing[0].number), "\n".join(found) + "\n"


# Kinds of prediction


def _forced(page: Page) -> Line | None:
    """The placed card that the endings come to."""
    claimed = {line.values.get("card") for line in page.endings}
    return next((line for line in page.having(Facet.PLACED) if line.values["card"] in claimed), None)


def _predicted(page: Page, lines: list[str], rows: dict[int, str | None] | None = None) -> Iterator[Option]:
    """With these lines as the only prediction."""
    gone: dict[int, str | None] = {
        line.number: None for line in page.having(Facet.PREDICTED_CARDS, Facet.PREDICTED_ON_BACK)
    }
    yield from kept(page.rewritten({**gone, **(rows or {})}, {page.last_of_set_up: lines}))


@custom("a prediction on paper")
def on_paper(page: Page) -> Iterator[Option]:
    forced = _forced(page)
    if forced and not any(line.values["how"] == "on paper" for line in page.having(Facet.PREDICTED_CARDS)):
        yield from _predicted(
            page, [f"Prediction: {forced.values['card']}, on paper in {page.free_place()}, turned over sideways"]
        )


@custom("a prediction on the back of a card")
def on_a_back(page: Page) -> Iterator[Option]:
    forced = _forced(page)
    if not forced or page.having(Facet.PREDICTED_ON_BACK):
        return
    card = forced.values["card"]
    others = [line for line in page.having(Facet.PLACED) if line is not forced and not line.values.get("up")]
    if others:
        yield from _predicted(page, [f"Prediction: {card}, on the back of {others[-1].values['card']}"])
    bearer = page.free_name("MARKER")
    yield from _predicted(
        page, [f"Place {bearer} in {page.free_place()}", f"Prediction: {card}, on the back of {bearer}"]
    )


def _with_mate(page: Page, lines: str, more: str = "") -> Iterator[Option]:
    """The mate of the card foretells it: both are declared mates, and the endings speak of the mate."""
    forced = _forced(page)
    if not forced or forced.values.get("mate") or page.having(Facet.PREDICTED_CARDS):
        return
    card, mate = forced.values["card"], page.free_name("MATE")
    rows: dict[int, str | None] = {}
    for line in page.endings:
        if line.has(Facet.CLAIMS_CARD_AT) and line.values["card"] == card:
            rows[line.number] = line.text.replace(f"is {card}", f"is the mate of {mate}")
    if not rows:
        return
    before = lines.format(mate=mate, place=page.free_place()).split("\n")
    rows[forced.number] = with_words(forced, "") + f", the mate of {mate}"
    last = max(rows)
    option = page.rewritten(
        rows,
        {forced.number - 1: before[:1], page.last_of_set_up: before[1:], **({last: [more.format(mate=mate)]} if more else {})},
    )  # fmt: skip
    yield from kept(option)


@custom("its mate as the prediction, in the pocket")
def mate_waiting(page: Page) -> Iterator[Option]:
    return _with_mate(page, "Place {mate} in {place}\nPrediction: {mate}, ready in {place}, turned face up")


@custom("its mate as the prediction, reversed in the pack")
def mate_reversed(page: Page) -> Iterator[Option]:
    return _with_mate(
        page,
        "Place {mate} at position 1 from the bottom, face up\nPrediction: {mate}, reversed in deck",
        "Ends with: exactly {mate} is reversed in deck",
    )
