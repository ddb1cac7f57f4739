"""The predictions of a routine: what they say, where they wait, and how they are turned to be shown."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ..english import list_text
from ..language.expressions import expression_text
from ..language.facets import Facet
from ..language.phrases import place_text
from ..language.routine import Line, Routine


@dataclass(frozen=True)
class Prediction:
    line: int
    what: str
    """cards, or the number and its name"""
    cards: tuple[str, ...]
    """those it speaks of; none where it is a number"""
    waits: str
    """where it is until it is shown; empty where the line does not say"""
    turned: str
    """how it is turned to be shown; empty where the line does not say"""
    on_paper: bool
    place: str | None = None
    """the heap it lies in, where it is made of cards"""
    reversed: bool = False

    @property
    def words(self) -> str:
        """
        >>> Prediction(3, "FORCE", ("FORCE",), "on paper in pocket", "turned over sideways", True).words
        'FORCE, on paper in pocket; turned over sideways to be shown'
        """
        waits = f", {self.waits}" if self.waits else ""
        return f"{self.what}{waits}{f'; {self.turned} to be shown' if self.turned else ''}"


def shown_by(routine: Routine) -> frozenset[str]:
    """Cards that are taken from where they wait to be shown as a prediction, or for what is written on them."""
    bearers = [str(line.values["bearer"]) for line in routine.having(Facet.PREDICTED_ON_BACK)]
    return frozenset([*bearers, *(card for one in predictions_of(routine) if one.place for card in one.cards)])


_FORETOLD = (Facet.PREDICTED_NUMBER, Facet.PREDICTED_CARDS, Facet.PREDICTED_ON_BACK)


def predictions_of(routine: Routine) -> tuple[Prediction, ...]:
    return tuple(found for line in routine.walk() if line.kind for found in _prediction(line))


def _prediction(line: Line) -> Iterator[Prediction]:
    values = line.values
    turned = values.get("turn") or ""
    match next((facet for facet in _FORETOLD if line.has(facet)), None):
        case Facet.PREDICTED_NUMBER:
            place = values.get("place")
            waits = f"on paper in {place_text(place)}" if place else "on paper"
            yield Prediction(
                line.number, f"{values['name']}, {expression_text(values['number'])}", (), waits, turned, True
            )
        case Facet.PREDICTED_CARDS:
            place, how = place_text(values["place"]), values["how"]
            paper = how == "on paper"
            yield Prediction(
                line.number, list_text(values["cards"]), tuple(values["cards"]), f"{how} in {place}", turned, paper,
                None if paper else place, how == "reversed",
            )  # fmt: skip
        case Facet.PREDICTED_ON_BACK:
            cards = tuple(values["cards"])
            yield Prediction(
                line.number, list_text(cards), cards, f"on the back of {values['bearer']}", turned, False
            )
