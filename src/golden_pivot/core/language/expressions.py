"""Numbers as a performer writes them: `a + 3 * b`, `half of n rounded up`, `digit sum of n`.

The nodes are a closed set; `read_expression.py` reads them, `expression_text` writes them, `evaluator` turns them into
a function of a state.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Literal, Protocol

from ..cards import SUITS, card_suit, card_value
from .arithmetic import FIGURES, letters_in, power
from .sorts import SORTS

MAX_DEPTH = 20
MAX_NUMBER = 10**6


@dataclass(frozen=True)
class Number:
    value: int


@dataclass(frozen=True)
class Blank:
    """A `?` the designer has left open."""


@dataclass(frozen=True)
class Name:
    name: str


@dataclass(frozen=True)
class Binary:
    op: Literal["+", "-", "*", "^"]
    left: Expression
    right: Expression


@dataclass(frozen=True)
class Half:
    """Half of a number, rounded up or down to a whole one."""

    of: Expression
    rounded: Literal["up", "down"]


@dataclass(frozen=True)
class Remainder:
    """What is left of `of` when it is divided by `by`; never negative."""

    of: Expression
    by: Expression


@dataclass(frozen=True)
class Quotient:
    """How many times `by` goes into `of`, as a whole number; what is over counts for nothing."""

    of: Expression
    by: Expression


@dataclass(frozen=True)
class Figures:
    """Something that the decimal figures of a number give, whatever its sign; `what` is one of FIGURES."""

    what: str
    of: Expression


@dataclass(frozen=True)
class Extreme:
    which: Literal["min", "max"]
    left: Expression
    right: Expression


@dataclass(frozen=True)
class Letters:
    """Letters of a word or of several; spaces and marks do not count."""

    word: str


@dataclass(frozen=True)
class Indexed:
    """One of several places by its number: `pile p`, `pile 3 - p`."""

    base: str
    index: Expression

    @property
    def expressions(self) -> tuple[Expression, ...]:
        return (self.index,)


PlaceName = str | Indexed
"""`deck`, `pile 2`, or a place whose number is reckoned"""


@dataclass(frozen=True)
class Size:
    """How many cards lie at a place."""

    place: PlaceName


@dataclass(frozen=True)
class Count:
    """How many cards of a sort lie at a place."""

    sort: str
    """one of sorts.SORTS"""
    place: PlaceName


@dataclass(frozen=True)
class CardFact:
    """A number that a card gives: its value, its suit as a number, or the letters either is spelled with."""

    what: str
    """one of CARD_FACTS"""
    card: str


@dataclass(frozen=True)
class SpotFact:
    """The same of a card by where it lies."""

    what: str
    spot: Any
    """a language.values.Spot; spots have numbers in them, so this module cannot know them"""


@dataclass(frozen=True)
class Piles:
    """How many piles there are: those dealt or laid down last that have cards."""


CARD_FACTS: Mapping[str, Callable[[str], int | None]] = {
    "value": card_value,
    "suit": lambda card: SUITS.index(suit) + 1 if (suit := card_suit(card)) else None,
    "letters of value": lambda card: len(card.partition(" of ")[0]) if card_suit(card) else None,
    "letters of suit": lambda card: len(suit) if (suit := card_suit(card)) else None,
}
"""Name of the fact → the number for a card by name; None for a card of which it is not settled.

Ace is 1, court cards 11 to 13; clubs 1, diamonds 2, hearts 3, spades 4, the alphabet's order. A suit is spelled
in the plural.
"""

Expression = (
    Number
    | Blank
    | Name
    | Binary
    | Half
    | Remainder
    | Quotient
    | Figures
    | Extreme
    | Letters
    | Size
    | Count
    | CardFact
    | SpotFact
    | Piles
)
LookedUp = Name | Size | Count | CardFact | SpotFact | Piles
"""what depends on the state"""


def parts(expression: Expression) -> tuple[Expression, ...]:
    """The expressions directly inside this one."""
    match expression:
        case Binary(_, left, right) | Extreme(_, left, right):
            return (left, right)
        case Remainder(of, by) | Quotient(of, by):
            return (of, by)
        case Half(of, _) | Figures(_, of):
            return (of,)
        case SpotFact(_, spot):
            return tuple(spot.expressions)
        case Size(Indexed(_, index)) | Count(_, Indexed(_, index)):
            return (index,)
        case _:
            return ()


def within(expression: Expression) -> Iterator[Expression]:
    """The expression and everything inside it."""
    yield expression
    for part in parts(expression):
        yield from within(part)


def depth(expression: Expression) -> int:
    return 1 + max(map(depth, parts(expression)), default=0)


def is_settled(expression: Expression) -> bool:
    """Whether it has the same value in every state."""
    return not any(isinstance(node, LookedUp) for node in within(expression))


class SpotForm(Protocol):
    """How a spot is written and read. Spots have numbers in them and numbers can be of a spot: slots.py brings its forms here."""

    @property
    def write(self) -> Callable[[Any], str]: ...

    @property
    def to_json(self) -> Callable[[Any], Any]: ...

    @property
    def from_json(self) -> Callable[[Any], Any]: ...


_spot_form: list[SpotForm] = []


def spots_are_written(form: SpotForm) -> None:
    _spot_form[:] = [form]


def expression_text(expression: Expression, tight: bool = False) -> str:
    """As it is written in a routine; `tight` adds the brackets an operand needs.

    >>> expression_text(Binary("-", Number(9), Binary("-", Name("a"), Number(1))))
    '9 - (a - 1)'
    """
    match expression:
        case Number(value):
            return str(value)
        case Blank():
            return "?"
        case Name(name):
            return name
        case Half(of, rounded):
            return f"half of {expression_text(of, True)} rounded {rounded}"
        case Remainder(of, by):
            return f"remainder of {expression_text(of, True)} divided by {expression_text(by, True)}"
        case Quotient(of, by):
            return f"quotient of {expression_text(of, True)} divided by {expression_text(by, True)}"
        case Figures(what, of):
            return f"{what} of {expression_text(of, True)}"
        case Extreme(which, left, right):
            return f"{which}({expression_text(left)}, {expression_text(right)})"
        case Letters(word):
            return f"letters of “{word}”"
        case Size(place):
            return f"size of {_place_text(place)}"
        case CardFact(what, card):
            return f"{what} of {card}"
        case SpotFact(what, spot):
            text = f"{what} of {_spot_form[0].write(spot)}"
            return f"({text})" if tight else text
        case Piles():
            return "number of piles"
        case Count(sort, place):
            return f"number of {sort} of {_place_text(place)}"
        case Binary("^", left, right):
            base, exponent = (_as_atom(side) for side in (left, right))
            return f"({base} ^ {exponent})" if tight else f"{base} ^ {exponent}"
        case Binary(op, left, right):
            product = op == "*"
            # What stands behind a spot would be read as part of it (`the top card of pile 2 + 1`).
            first = expression_text(left, (product and _is_sum(left)) or isinstance(left, SpotFact))
            # Sums and products group to the left; a compound right operand needs its brackets.
            needs = (
                (product and isinstance(right, Binary) and right.op != "^")
                or _is_sum(right)
                or isinstance(right, SpotFact)
            )
            first = f"({first})" if isinstance(left, Figures | Remainder | Quotient) else first
            second = expression_text(right, needs)
            second = f"({second})" if _ends_open(right) and not needs else second
            text = f"{first} {op} {second}"
            return f"({text})" if tight else text


def _place_text(place: PlaceName) -> str:
    if isinstance(place, str):
        return place
    index = expression_text(place.index)
    return f"{place.base} {index}" if isinstance(place.index, Name) else f"{place.base} ({index})"


def place_json(place: PlaceName) -> Any:
    return place if isinstance(place, str) else {"base": place.base, "index": expression_json(place.index)}


def place_from_json(data: Any) -> PlaceName:
    return data if isinstance(data, str) else Indexed(str(data["base"]), expression_from_json(data["index"]))


def _is_sum(expression: Expression) -> bool:
    return isinstance(expression, Binary) and expression.op in ("+", "-")


def _as_atom(expression: Expression) -> str:
    """The expression as it stands beside a sign that binds closest."""
    text = expression_text(expression, True)
    return f"({text})" if isinstance(expression, Figures | Remainder | Quotient) else text


def _ends_open(expression: Expression) -> bool:
    """Its last words have no end of their own, so that nothing may follow."""
    match expression:
        case Figures() | Remainder() | Quotient():
            return True
        case Binary("+" | "-" | "*", _, right):
            return _ends_open(right)
    return False


def can_fail(expression: Expression) -> bool:
    """Whether some numbers make it one that cannot be worked out."""
    return any(isinstance(node, Remainder | Quotient) or _is_power(node) for node in within(expression))


def is_of_numbers_alone(expression: Expression) -> bool:
    """It depends on numbers with names, and on nothing that can change or fail."""
    looked_at = any(isinstance(node, Size | Count | CardFact | SpotFact | Piles) for node in within(expression))
    return not looked_at and not can_fail(expression)


def _is_power(node: Expression) -> bool:
    return isinstance(node, Binary) and node.op == "^"


Reader = Callable[[Sequence[Any]], int]


def evaluator(expression: Expression, look_up: Callable[[LookedUp], Reader]) -> Reader:
    """A function from a state to the number; `look_up` gives the function for a name, a size or a card's value.

    Raises ZeroDivisionError where something is divided by 0, TooLarge for a power; the caller says on which path.
    """
    match expression:
        case Number(value):
            return lambda cells: value
        case Name() | Size() | Count() | CardFact() | SpotFact() | Piles():
            return look_up(expression)
        case Letters(word):
            letters = letters_in(word)
            return lambda cells: letters
        case Half(of, rounded):
            inner, extra = evaluator(of, look_up), int(rounded == "up")
            return lambda cells: (inner(cells) + extra) // 2
        case Remainder(of, by):
            inner, divisor = evaluator(of, look_up), evaluator(by, look_up)
            return lambda cells: inner(cells) % abs(divisor(cells))
        case Quotient(of, by):
            inner, divisor = evaluator(of, look_up), evaluator(by, look_up)
            return lambda cells: inner(cells) // divisor(cells)
        case Figures(what, of):
            inner, figures = evaluator(of, look_up), FIGURES[what]
            return lambda cells: figures(inner(cells))
        case Extreme(which, left, right):
            a, b, pick = evaluator(left, look_up), evaluator(right, look_up), min if which == "min" else max
            return lambda cells: pick(a(cells), b(cells))
        case Binary(op, left, right):
            a, b = evaluator(left, look_up), evaluator(right, look_up)
            if op == "+":
                return lambda cells: a(cells) + b(cells)
            if op == "-":
                return lambda cells: a(cells) - b(cells)
            if op == "^":
                return lambda cells: power(a(cells), b(cells))
            return lambda cells: a(cells) * b(cells)
        case Blank():
            raise ValueError("a blank has no value")


def terms(expression: Expression) -> list[tuple[int, Expression]]:
    """A sum or difference as its parts, each with +1 or −1 before it.

    >>> [(sign, part.name) for sign, part in terms(Binary("-", Name("a"), Binary("-", Name("b"), Name("c"))))]
    [(1, 'a'), (-1, 'b'), (1, 'c')]
    """
    match expression:
        case Binary("+" | "-" as op, left, right):
            return terms(left) + [(-sign if op == "-" else sign, part) for sign, part in terms(right)]
    return [(1, expression)]


def expression_json(expression: Expression) -> dict[str, Any]:
    """A tree of plain dictionaries tagged by `op`; the inverse is `expression_from_json`."""
    match expression:
        case Number(value):
            return {"op": "number", "value": value}
        case Blank():
            return {"op": "blank"}
        case Name(name):
            return {"op": "name", "name": name}
        case Letters(word):
            return {"op": "letters", "word": word}
        case Size(place):
            return {"op": "size", "place": place_json(place)}
        case CardFact(what, card):
            return {"op": what, "card": card}
        case SpotFact(what, spot):
            return {"op": what, "of": _spot_form[0].to_json(spot)}
        case Piles():
            return {"op": "piles"}
        case Count(sort, place):
            return {"op": "count", "sort": sort, "place": place_json(place)}
        case Half(of, rounded):
            return {"op": "half", "of": expression_json(of), "rounded": rounded}
        case Remainder(of, by):
            return {"op": "remainder", "of": expression_json(of), "by": expression_json(by)}
        case Quotient(of, by):
            return {"op": "quotient", "of": expression_json(of), "by": expression_json(by)}
        case Figures(what, of):
            return {"op": what, "of": expression_json(of)}
        case Extreme(which, left, right):
            return {"op": which, "left": expression_json(left), "right": expression_json(right)}
        case Binary(op, left, right):
            return {"op": op, "left": expression_json(left), "right": expression_json(right)}


def expression_from_json(data: Mapping[str, Any]) -> Expression:
    """Raises KeyError or ValueError on anything `expression_json` would not have written."""
    op = data["op"]
    if op == "number":
        return Number(int(data["value"]))
    if op == "blank":
        return Blank()
    if op == "name":
        return Name(str(data["name"]))
    if op == "letters":
        return Letters(str(data["word"]))
    if op == "size":
        return Size(place_from_json(data["place"]))
    if op == "piles":
        return Piles()
    if op == "count":
        if data["sort"] not in SORTS:
            raise ValueError(f"unknown sort of cards {data['sort']!r}")
        return Count(str(data["sort"]), place_from_json(data["place"]))
    if op in CARD_FACTS and "of" in data:
        return SpotFact(op, _spot_form[0].from_json(data["of"]))
    if op in CARD_FACTS:
        return CardFact(op, str(data["card"]))
    if op == "half":
        return Half(expression_from_json(data["of"]), "up" if data["rounded"] == "up" else "down")
    if op == "remainder":
        return Remainder(expression_from_json(data["of"]), expression_from_json(data["by"]))
    if op == "quotient":
        return Quotient(expression_from_json(data["of"]), expression_from_json(data["by"]))
    if op in FIGURES:
        return Figures(op, expression_from_json(data["of"]))
    if op not in ("+", "-", "*", "^", "min", "max"):
        raise ValueError(f"unknown operation {op!r}")
    left, right = expression_from_json(data["left"]), expression_from_json(data["right"])
    return Extreme(op, left, right) if op in ("min", "max") else Binary(op, left, right)
