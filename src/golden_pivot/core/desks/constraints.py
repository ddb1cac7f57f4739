"""What a stack can be asked to be: one sentence a line, each kind declared once with what it means to the solver.

Sentences are written and read as those of the routine language are (see language/templates.py).
"""

from __future__ import annotations

import inspect
import itertools
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from ..faults import PivotError
from ..language.expressions import Number
from ..language.templates import Element, Reading, compile_template
from ..language.words import words_of

if TYPE_CHECKING:
    import z3

    from .stack_model import Model

Values = Mapping[str, Any]
Meaning = Callable[["Model", Values], "z3.BoolRef"]


class Misread(PivotError, ValueError):
    """A line that is no constraint: columns from 1, the second just behind; what was expected; a sentence like it."""

    def __init__(self, start: int, end: int, message: str, expected: str, remedy: str) -> None:
        super().__init__(message)
        self.start, self.end, self.message, self.expected, self.remedy = start, end, message, expected, remedy


@dataclass(frozen=True)
class Kind:
    sentence: str
    elements: tuple[Element, ...]
    about: str
    example: str
    means: Meaning


@dataclass(frozen=True)
class Constraint:
    text: str
    kind: Kind
    values: Values

    @property
    def reach(self) -> int:
        """The last position it speaks of."""
        return max(self.values.get("at") or (0,))


KINDS: list[Kind] = []


def constraint(sentence: str, example: str) -> Callable[[Meaning], Meaning]:
    def register(meaning: Meaning) -> Meaning:
        about = " ".join(inspect.cleandoc(meaning.__doc__ or "").split())
        KINDS.append(Kind(sentence, compile_template(sentence), about, example, meaning))
        return meaning

    return register


def read_constraint(text: str) -> Constraint:
    """The constraint this line says. Raises Misread."""
    words = words_of(text.strip().rstrip("."))
    furthest: list[tuple[int, str, Kind]] = []
    for kind in KINDS:
        reading = Reading(text, words)
        if match := reading.match(kind.elements):
            return Constraint(text.strip(), kind, match.values)
        furthest += [(miss.at, miss.expected, kind) for miss in reading.misses]
    at = max(miss[0] for miss in furthest)
    expected = list(dict.fromkeys(what for where, what, _ in furthest if where == at))[:4]
    likely = next(kind for where, _, kind in furthest if where == at)
    start, end = (words[at].start, words[at].end) if at < len(words) else (len(text), len(text) + 1)
    message = f"“{words[at].text}” does not fit here." if at < len(words) else "The sentence is not finished."
    raise Misread(start + 1, end + 1, message, " or ".join(expected), f"For example: {likely.example}")


def _number(value: Any, what: str) -> int:
    if not isinstance(value, Number):
        raise Misread(1, 2, f"{what} must be a plain number.", "a number", "Write it in figures.")
    return value.value


@constraint("(cards|card) {at:positions} (are|is) {cards:listed}", "card 5 is queen of hearts")
def cards_at(model: Model, values: Values) -> z3.BoolRef:
    """These cards lie there, one after the other."""
    at, cards = values["at"], values["cards"]
    if len(at) != len(cards):
        raise Misread(1, 2, f"{len(cards)} cards are named for {len(at)} positions.", "as many", "Name one for each.")
    return model.all([model.is_card(i, card) for i, card in zip(at, cards, strict=True)])


@constraint("(cards|card) {at:positions} (are|is) {colour=red|black}", "cards 1, 3, 5 are red")
def colour_at(model: Model, values: Values) -> z3.BoolRef:
    """Red or black cards lie there."""
    return model.all([model.is_red(i) if values["colour"] == "red" else model.is_black(i) for i in values["at"]])


@constraint("(cards|card) {at:positions} (are|is) {suits:suits}", "cards 1 to 4 are hearts or spades")
def suit_at(model: Model, values: Values) -> z3.BoolRef:
    """Cards of one of these suits lie there."""
    return model.all([model.any([model.is_suit(i, suit) for suit in values["suits"]]) for i in values["at"]])


@constraint("(cards|card) {at:positions} (are each|is) (a|an) {rank:rank}", "card 7 is a king")
def rank_at(model: Model, values: Values) -> z3.BoolRef:
    """Cards of this value lie there."""
    return model.all([model.is_rank(i, values["rank"]) for i in values["at"]])


@constraint(
    "(cards|card) {at:positions} (are each|is) worth {low:number}[ to {high:number}]",
    "cards 1 to 5 are each worth 2 to 9",
)
def worth(model: Model, values: Values) -> z3.BoolRef:
    """The value of each lies in between; ace is 1, jack, queen and king are 11 to 13."""
    low = _number(values["low"], "The value")
    high = _number(values["high"], "The value") if values.get("high") is not None else low
    return model.all([model.is_worth(i, low, high) for i in values["at"]])


@constraint(
    "(cards|card) {at:positions} add up to[ {how=at least|at most}] {sum:number}", "cards 1 to 3 add up to 20"
)
def add_up(model: Model, values: Values) -> z3.BoolRef:
    """The sum of their values; ace is 1, jack, queen and king are 11 to 13, a joker is 0."""
    return model.sums(values["at"], _number(values["sum"], "The sum"), values.get("how") or "exactly")


@constraint(
    "(cards|card) {at:positions} {how=agree|differ} in {fact=value and colour|value|suit|colour}",
    "cards 1, 14, 27 agree in value",
)
def together(model: Model, values: Values) -> z3.BoolRef:
    """All of them agree in this, as equal tops do; or no two do."""
    at, fact = values["at"], values["fact"]
    if values["how"] == "agree":
        return model.all([model.agree(at[0], i, fact) for i in at[1:]])
    return model.all([model.no(model.agree(i, j, fact)) for n, i in enumerate(at) for j in at[n + 1 :]])


@constraint(
    "(cards|card) {at:positions} {way=pair up|mirror each other} in {fact=value and colour|value|suit|colour}",
    "cards 1 to 12 pair up in value and colour",
)
def pairs(model: Model, values: Values) -> z3.BoolRef:
    """Neighbours, two by two from the first, agree in this; or the first and the last, and so on inwards."""
    at = values["at"]
    if len(at) % 2:
        raise Misread(
            1, 2, f"{len(at)} cards make no pairs.", "an even number of positions", "Take one away, or add one."
        )
    half = len(at) // 2
    two = (
        list(zip(at[::2], at[1::2], strict=True))
        if values["way"] == "pair up"
        else list(zip(at[:half], at[::-1], strict=False))
    )
    return model.all([model.agree(i, j, values["fact"]) for i, j in two])


@constraint(
    "suits go round {suits:suits} in cards {at:positions}",
    "suits go round clubs, hearts, spades, diamonds in cards 1 to 52",
)
def cycle(model: Model, values: Values) -> z3.BoolRef:
    """These suits follow each other, over and over."""
    suits = values["suits"]
    return model.all([model.is_suit(i, suits[n % len(suits)]) for n, i in enumerate(values["at"])])


@constraint("colours alternate in cards {at:positions}", "colours alternate in cards 1 to 20")
def alternate(model: Model, values: Values) -> z3.BoolRef:
    """Red and black in turn, whichever is first."""
    at = values["at"]
    return model.all([model.no(model.agree(i, j, "colour")) for i, j in itertools.pairwise(at)])


@constraint(
    "no more than {most:number} cards in a row agree in {fact=value|suit|colour}[ in cards {at:positions}]",
    "no more than 3 cards in a row agree in colour",
)
def short_runs(model: Model, values: Values) -> z3.BoolRef:
    """No longer run, so that the cards look shuffled."""
    most, fact = _number(values["most"], "The length"), values["fact"]
    return model.all(
        [
            model.no(model.all([model.agree(run[0], i, fact) for i in run[1:]]))
            for run in _runs(model, values, most + 1)
        ]
    )


@constraint(
    "no more than {most:number} cards in a row alternate in colour[ in cards {at:positions}]",
    "no more than 5 cards in a row alternate in colour",
)
def short_alternation(model: Model, values: Values) -> z3.BoolRef:
    """Red and black in turn catch the eye as well."""
    most = _number(values["most"], "The length")
    return model.all([
        model.no(model.all([model.no(model.agree(i, j, "colour")) for i, j in itertools.pairwise(run)]))
        for run in _runs(model, values, most + 1)
    ])  # fmt: skip


def _runs(model: Model, values: Values, length: int) -> list[Sequence[int]]:
    if length < 2:
        raise Misread(1, 2, "A run has at least one card.", "1 or more", "Change the number.")
    at = values.get("at") or range(1, model.size + 1)
    return [at[i : i + length] for i in range(len(at) - length + 1)]
