"""Numbers as a performer writes them: `a + 3 * b`, `half of n rounded up`, `digit sum of n`.

The nodes are a closed set; Lark (LALR) reads them, `expression_text` writes them, `evaluator` turns them into
a function of a state. Words are fed to the parser one at a time, so that a sentence template can let an
expression end where it can no longer go on: `Deal n + 2 cards` stops before `cards`.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Literal, Protocol, cast

from lark import Lark, Transformer, UnexpectedInput, v_args
from lark import Token as LarkToken
from lark.parsers.lalr_interactive_parser import InteractiveParser

from ..cards import SUITS, card_suit, card_value
from .sorts import SORTS, read_sort
from .words import RESERVED

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
class Size:
    """How many cards lie at a place."""

    place: str


@dataclass(frozen=True)
class Count:
    """How many cards of a sort lie at a place."""

    sort: str
    """one of sorts.SORTS"""
    place: str


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

KEYWORDS = frozenset(
    (
        "half of rounded up down digit sum root units tens reversal remainder quotient divided by min max letters size value"
        " suit their card number piles twice plus minus"
    ).split()
)
OPERATORS = ("+", "-", "−", "*", "×", "^", "plus", "minus")
IN_WORDS = {word: number for number, word in enumerate(
    "one two three four five six seven eight nine ten eleven twelve".split(), start=1
)}  # fmt: skip
"""numbers that may be written in words"""
_SIGNS = {
    "+": "PLUS",
    "-": "MINUS",
    "−": "MINUS",
    "*": "TIMES",
    "×": "TIMES",
    "^": "HAT",
    "plus": "PLUS",
    "minus": "MINUS",
    "(": "OPEN",
    ")": "CLOSE",
    ",": "COMMA",
}

# What has no end of its own (`digit sum of n`, `remainder of n divided by 3`) can only come last: whether `digit sum of
# n + 1` is one or the other nobody can tell, so it takes brackets.
_GRAMMAR = """
?start: any
?any: sum | tail
?tail: last | sum PLUS last -> binary | sum MINUS last -> binary
?last: open | product TIMES open -> binary
?open: REMAINDER OF any DIVIDED BY atom -> remainder
     | QUOTIENT OF any DIVIDED BY atom -> quotient
     | figures OF atom -> figures_of
     | figures OF open -> figures_of
figures: DIGIT SUM -> words | DIGIT ROOT -> words | UNITS DIGIT -> words | TENS DIGIT -> words | REVERSAL -> words
?sum: product | sum PLUS product -> binary | sum MINUS product -> binary
?product: power | product TIMES power -> binary
?power: atom | atom HAT atom -> binary | TWICE atom -> twice
?atom: NUMBER -> number
     | BLANK -> blank
     | NAME -> name
     | OPEN any CLOSE -> group
     | HALF OF any ROUNDED UP -> half
     | HALF OF any ROUNDED DOWN -> half
     | MIN OPEN any COMMA any CLOSE -> extreme
     | MAX OPEN any COMMA any CLOSE -> extreme
     | LETTERS OF QUOTED -> letters
     | SIZE OF NAME -> size
     | SIZE OF NAME NUMBER -> size
     | fact OF CARDNAME -> card_fact
     | fact OF NAME OF NAME -> card_fact
     | fact OF THEIR CARD -> card_fact
     | fact OF SPOT -> spot_fact
     | COUNT OF PILES -> piles
     | COUNT OF SORT OF NAME -> count
     | COUNT OF SORT OF NAME NUMBER -> count
fact: VALUE -> words | SUIT -> words | LETTERS OF VALUE -> words | LETTERS OF SUIT -> words
%declare NUMBER BLANK NAME PLUS MINUS TIMES OPEN CLOSE COMMA
%declare HALF OF ROUNDED UP DOWN REMAINDER QUOTIENT DIVIDED BY DIGIT SUM ROOT UNITS TENS REVERSAL MIN MAX HAT TWICE
%declare LETTERS SIZE VALUE SUIT QUOTED THEIR CARD SPOT COUNT PILES SORT CARDNAME
"""


@v_args(inline=True)
class _Build(Transformer[LarkToken, Any]):
    def number(self, token: str) -> Expression:
        return Number(int(token))

    def blank(self, _token: str) -> Expression:
        return Blank()

    def name(self, token: str) -> Expression:
        return Name(str(token))

    def group(self, _open: str, inner: Expression, _close: str) -> Expression:
        return inner

    def binary(self, left: Expression, sign: str, right: Expression) -> Expression:
        ops: dict[str, Literal["+", "-", "*", "^"]] = {"PLUS": "+", "MINUS": "-", "TIMES": "*", "HAT": "^"}
        return Binary(ops[sign.type], left, right)  # type: ignore[attr-defined]

    def half(self, _half: str, _of: str, inner: Expression, _rounded: str, way: str) -> Expression:
        return Half(inner, "up" if way == "up" else "down")

    def remainder(self, _r: str, _of: str, of: Expression, _d: str, _by: str, by: Expression) -> Expression:
        return Remainder(of, by)

    def quotient(self, _q: str, _of: str, of: Expression, _d: str, _by: str, by: Expression) -> Expression:
        return Quotient(of, by)

    def twice(self, _twice: str, number: Expression) -> Expression:
        return Binary("*", Number(2), number)

    def figures_of(self, what: str, _of: str, inner: Expression) -> Expression:
        return Figures(what, inner)

    def extreme(self, which: str, _o: str, left: Expression, _c: str, right: Expression, _e: str) -> Expression:
        return Extreme("min" if which == "min" else "max", left, right)

    def letters(self, _letters: str, _of: str, quoted: str) -> Expression:
        return Letters(quoted[1:-1].strip())

    def size(self, _size: str, _of: str, *place: str) -> Expression:
        return Size(" ".join(place))

    def count(self, _number: str, _of: str, sort: str, _of_place: str, *place: str) -> Expression:
        return Count(str(sort), " ".join(place))

    def words(self, *words: str) -> str:
        return " ".join(words)

    def card_fact(self, what: str, _of: str, *card: str) -> Expression:
        return CardFact(what, " ".join(card))

    def spot_fact(self, what: str, _of: str, spot: LarkToken) -> Expression:
        return SpotFact(what, spot.value)

    def piles(self, *_words: str) -> Expression:
        return Piles()


_PARSER = Lark(_GRAMMAR, parser="lalr", lexer="basic", transformer=_Build())


def _with(parser: InteractiveParser, token: LarkToken) -> InteractiveParser | None:
    """The parser one token further; None where the expression cannot go on with it."""
    further = parser.copy(deepcopy_values=False)  # type: ignore[no-untyped-call]
    try:
        further.feed_token(token)
    except UnexpectedInput:
        return None
    return cast(InteractiveParser, further)


def read_expression(
    words: Sequence[str], read_spot: Callable[[int], tuple[Any, int]] | None = None
) -> tuple[Expression, int] | int:
    """The longest expression at the start of `words`, with the number of words it took.

    Where none can be read: the index of the word that should have gone on with it. `read_spot` reads a card by
    where it lies: index of its first word → (spot, index behind it); it may raise what it likes.

    >>> read_expression("n + 2 cards".split())
    (Binary(op='+', left=Name(name='n'), right=Number(value=2)), 3)
    >>> read_expression("half of cards rounded cards".split())
    2
    """
    parser = _PARSER.parse_interactive("")
    depth = taken = 0
    while taken < len(words):
        word = words[taken]
        lower = word.lower()
        if lower == "the" and read_spot and _with(parser, LarkToken("SPOT", None)):
            spot, taken = read_spot(taken)
            parser = _with(parser, LarkToken("SPOT", spot)) or parser
            continue
        if (sort := read_sort(words[taken:])) and (further := _with(parser, LarkToken("SORT", sort[0]))):
            parser, taken = further, taken + sort[1]
            continue
        if (word == ")" and depth == 0) or (word == "," and depth == 0):
            break
        if word.isascii() and word.isdigit():
            kind = "NUMBER"
        elif word == "?":
            kind = "BLANK"
        elif lower in IN_WORDS and _with(parser, LarkToken("NUMBER", "1")):
            kind, lower = "NUMBER", str(IN_WORDS[lower])
        elif lower in _SIGNS:
            kind = _SIGNS[lower]
        elif lower in KEYWORDS:
            kind = "COUNT" if lower == "number" else lower.upper()
        elif word[0] in '“"' and len(word) > 1:
            kind, lower = "QUOTED", word
        elif word[0].isalpha() and lower not in RESERVED:
            # Capitals are cards, never numbers, so that *A is B* has one meaning.
            kind, lower = ("CARDNAME" if word.isupper() else "NAME"), word
        else:
            break
        if (further := _with(parser, LarkToken(kind, lower))) is None:
            if lower in OPERATORS and _whole(parser) is not None:
                return taken  # it takes brackets to say what this belongs to
            break
        parser = further
        depth += {"OPEN": 1, "CLOSE": -1}.get(kind, 0)
        taken += 1
    found = _whole(parser)
    return taken if found is None else (found, taken)


def _whole(parser: InteractiveParser) -> Expression | None:
    """The expression, where it can end here."""
    try:
        return cast(Expression, parser.copy(deepcopy_values=False).feed_eof())  # type: ignore[no-untyped-call]
    except UnexpectedInput:
        return None


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
            return f"size of {place}"
        case CardFact(what, card):
            return f"{what} of {card}"
        case SpotFact(what, spot):
            text = f"{what} of {_spot_form[0].write(spot)}"
            return f"({text})" if tight else text
        case Piles():
            return "number of piles"
        case Count(sort, place):
            return f"number of {sort} of {place}"
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


def digit_sum(number: int) -> int:
    return sum(map(int, str(abs(number))))


def digital_root(number: int) -> int:
    """The digit sum of the digit sum and so on, down to one figure: what is left when nines are cast out, 9 for none."""
    return 1 + (abs(number) - 1) % 9 if number else 0


def reversal(number: int) -> int:
    """
    >>> reversal(120), reversal(-34)
    (21, 43)
    """
    return int(str(abs(number))[::-1])


FIGURES: Mapping[str, Callable[[int], int]] = {
    "digit sum": digit_sum,
    "digit root": digital_root,
    "units digit": lambda number: abs(number) % 10,
    "tens digit": lambda number: abs(number) // 10 % 10,
    "reversal": reversal,
}
"""name → what the figures of a number give"""
LARGEST_POWER = 10**12


class TooLarge(ArithmeticError):
    """A power of a size that no routine needs."""


def power(base: int, exponent: int) -> int:
    """Raises TooLarge, and ZeroDivisionError for an exponent below 0."""
    if exponent < 0:
        raise ZeroDivisionError
    if exponent and abs(base) > 1 and exponent * (abs(base).bit_length() - 1) > LARGEST_POWER.bit_length():
        raise TooLarge
    return int(base**exponent)


def can_fail(expression: Expression) -> bool:
    """Whether some numbers make it one that cannot be worked out."""
    return any(isinstance(node, Remainder | Quotient) or _is_power(node) for node in within(expression))


def _is_power(node: Expression) -> bool:
    return isinstance(node, Binary) and node.op == "^"


def letters_in(word: str) -> int:
    """
    >>> letters_in("the queen of hearts")
    16
    """
    return sum(map(str.isalpha, word))


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
            return {"op": "size", "place": place}
        case CardFact(what, card):
            return {"op": what, "card": card}
        case SpotFact(what, spot):
            return {"op": what, "of": _spot_form[0].to_json(spot)}
        case Piles():
            return {"op": "piles"}
        case Count(sort, place):
            return {"op": "count", "sort": sort, "place": place}
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
        return Size(str(data["place"]))
    if op == "piles":
        return Piles()
    if op == "count":
        if data["sort"] not in SORTS:
            raise ValueError(f"unknown sort of cards {data['sort']!r}")
        return Count(str(data["sort"]), str(data["place"]))
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
