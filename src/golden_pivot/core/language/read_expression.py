"""Reading numbers as a performer writes them.

Lark (LALR) reads them. Words are fed to the parser one at a time, so that a sentence template can let an expression end
where it can no longer go on: `Deal n + 2 cards` stops before `cards`.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from typing import Any, Literal, cast

from lark import Lark, Transformer, UnexpectedInput, v_args
from lark import Token as LarkToken
from lark.parsers.lalr_interactive_parser import InteractiveParser

from .expressions import (
    Binary,
    Blank,
    CardFact,
    Count,
    Expression,
    Extreme,
    Figures,
    Half,
    Indexed,
    Letters,
    Name,
    Number,
    Piles,
    PlaceName,
    Quotient,
    Remainder,
    Size,
    SpotFact,
)
from .sorts import read_sort
from .words import RESERVED

KEYWORDS = frozenset(
    (
        "half of rounded up down digit sum root units tens reversal remainder quotient divided by min max letters size value"
        " suit their card number piles twice plus minus"
    ).split()
)
OPERATORS = ("+", "-", "−", "*", "×", "^", "plus", "minus")
NUMBERED = ("pile", "row", "packet", "heap")
"""what places are called of which there are several, by number"""
ONE_LETTER = re.compile(r"[a-z]\d*")
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
     | SIZE OF place -> size
     | fact OF CARDNAME -> card_fact
     | fact OF NAME OF NAME -> card_fact
     | fact OF THEIR CARD -> card_fact
     | fact OF SPOT -> spot_fact
     | COUNT OF PILES -> piles
     | COUNT OF SORT OF place -> count
place: NAME -> words | NAME NUMBER -> words | BASE NAME -> numbered | BASE OPEN any CLOSE -> numbered_by
fact: VALUE -> words | SUIT -> words | LETTERS OF VALUE -> words | LETTERS OF SUIT -> words
%declare NUMBER BLANK NAME PLUS MINUS TIMES OPEN CLOSE COMMA
%declare HALF OF ROUNDED UP DOWN REMAINDER QUOTIENT DIVIDED BY DIGIT SUM ROOT UNITS TENS REVERSAL MIN MAX HAT TWICE
%declare LETTERS SIZE VALUE SUIT QUOTED THEIR CARD SPOT COUNT PILES SORT CARDNAME BASE
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

    def size(self, _size: str, _of: str, place: PlaceName) -> Expression:
        return Size(place)

    def count(self, _number: str, _of: str, sort: str, _of_place: str, place: PlaceName) -> Expression:
        return Count(str(sort), place)

    def numbered(self, base: str, index: str) -> PlaceName:
        return Indexed(str(base), Name(str(index)))

    def numbered_by(self, base: str, _open: str, index: Expression, _close: str) -> PlaceName:
        return f"{base} {index.value}" if isinstance(index, Number) else Indexed(str(base), index)

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
        elif lower in NUMBERED and _has_an_index(words, taken) and _with(parser, LarkToken("BASE", lower)):
            kind = "BASE"
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


def _has_an_index(words: Sequence[str], i: int) -> bool:
    """What stands behind the word is a number’s name, or brackets."""
    return i + 1 < len(words) and (words[i + 1] == "(" or ONE_LETTER.fullmatch(words[i + 1]) is not None)


def _whole(parser: InteractiveParser) -> Expression | None:
    """The expression, where it can end here."""
    try:
        return cast(Expression, parser.copy(deepcopy_values=False).feed_eof())  # type: ignore[no-untyped-call]
    except UnexpectedInput:
        return None
