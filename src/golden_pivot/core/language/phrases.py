"""Reading the gaps of a sentence: from words to values, and back to words.

Every reader takes (words, index of the first) and returns (value, index behind it); it raises NotHere where
the words do not go on as it needs.
"""

from __future__ import annotations

import re
from collections.abc import Sequence

from ..cards import RANKS, SUITS
from ..english import ordinal
from .expressions import (
    Binary,
    Blank,
    Expression,
    Name,
    Number,
    expression_text,
)
from .read_expression import KEYWORDS, NUMBERED, ONE_LETTER, OPERATORS, read_expression
from .values import Indexed, NewNumber, PlaceName, Position, Spot
from .words import RESERVED, Word

ENDS = ("top", "bottom", "left", "right")


class NotHere(Exception):
    """The words at `at` (an index into the line's words) do not go on as this slot needs."""

    def __init__(self, at: int, expected: str) -> None:
        super().__init__(expected)
        self.at, self.expected = at, expected


def text_at(words: Sequence[Word], i: int) -> str:
    return words[i].lower if i < len(words) else ""


def _expression(words: Sequence[Word], i: int) -> tuple[Expression, int] | int:
    """`read_expression` from this word on."""

    def read_spot(k: int) -> tuple[Spot, int]:
        found, behind = spot(words, i + k, tight=True)
        return found, behind - i

    return read_expression([word.text for word in words[i:]], read_spot)


def number(words: Sequence[Word], i: int) -> tuple[Expression, int]:
    found = _expression(words, i)
    if isinstance(found, int):
        raise NotHere(i + found, _wanted(words, i, found))
    return found[0], i + found[1]


def _wanted(words: Sequence[Word], i: int, found: int) -> str:
    if found == 0:
        return "a number"
    if found and text_at(words, i + found) in OPERATORS:
        return "brackets that say what belongs together, as in (digit sum of n) + 1 or digit sum of (n + 1)"
    return "the rest of the number"


def _identifier(words: Sequence[Word], i: int, expected: str) -> str:
    if i < len(words) and words[i].kind == "word" and words[i].lower not in RESERVED:
        return words[i].text
    raise NotHere(i, expected)


def place(words: Sequence[Word], i: int, tight: bool = False) -> tuple[PlaceName, int]:
    """With `tight` the number of a pile is read no further than a name: `pile p + 1` is then one more than pile p."""
    i += text_at(words, i) == "the"
    name = _identifier(words, i, "a place, such as deck")
    if (
        i + 1 < len(words)
        and name.islower()
        and words[i + 1].kind == "number"
        and text_at(words, i + 2) not in OPERATORS
    ):
        return f"{name} {words[i + 1].text}", i + 2
    if name in NUMBERED and i + 1 < len(words) and _may_be_an_index(words[i + 1]):
        index_word = words[i + 1]
        one_name = tight and index_word.kind == "word" and index_word.lower not in KEYWORDS
        found = (Name(index_word.text), 1) if one_name else _expression(words, i + 1)
        if isinstance(found, tuple):
            index, taken = found
            one = index.value if isinstance(index, Number) else None
            return f"{name} {one}" if one is not None else Indexed(name, index), i + 1 + taken
    return name, i + 1


def _may_be_an_index(word: Word) -> bool:
    """A name of one letter, or the beginning of a longer expression: `packet together` is the place packet."""
    return not word.text.isalpha() or word.lower in KEYWORDS or ONE_LETTER.fullmatch(word.text) is not None


def place_text(where: PlaceName) -> str:
    if isinstance(where, str):
        return where
    index = where.index
    first: Expression = index
    while isinstance(first, Binary):
        first = first.left
    return f"{where.base} {expression_text(index, tight=isinstance(index, Binary) and not isinstance(first, Number))}"


def places(words: Sequence[Word], i: int) -> tuple[tuple[PlaceName, ...], int]:
    return _listed(words, i, place)


def _listed(words: Sequence[Word], i: int, read_one) -> tuple[tuple, int]:  # type: ignore[no-untyped-def, type-arg]
    """Several, with commas, *and* or *or* between them; stops before a comma that nothing of the kind follows."""
    value, i = read_one(words, i)
    found = [value]
    while text_at(words, i) in (",", "and", "or"):
        try:
            value, behind = read_one(words, i + 1)
        except NotHere:
            break
        found.append(value)
        i = behind
    return tuple(found), i


def positions(words: Sequence[Word], i: int) -> tuple[tuple[int, ...], int]:
    """`5`, `1, 14 and 27` or `1 to 12`, each from 1."""

    def one_or_run(words: Sequence[Word], i: int) -> tuple[tuple[int, ...], int]:
        numbers = [int(word.text) for word in words[i : i + 3] if word.kind == "number"]
        if i >= len(words) or words[i].kind != "number":
            raise NotHere(i, "a position, such as 5, or several, such as 1 to 12")
        if text_at(words, i + 1) != "to":
            return (numbers[0],), i + 1
        if len(numbers) < 2 or numbers[1] < numbers[0]:
            raise NotHere(i + 2, f"a position from {numbers[0]} on")
        return tuple(range(numbers[0], min(numbers[1], 1000) + 1)), i + 3

    runs, i = _listed(words, i, one_or_run)
    return tuple(number for run in runs for number in run), i


def positions_text(where: Sequence[int]) -> str:
    """
    >>> positions_text((1, 2, 3, 7, 9, 10))
    '1 to 3, 7, 9, 10'
    """
    runs: list[list[int]] = []
    for number in where:
        if runs and number == runs[-1][-1] + 1:
            runs[-1].append(number)
        else:
            runs.append([number])
    return ", ".join(f"{run[0]} to {run[-1]}" if len(run) > 2 else ", ".join(map(str, run)) for run in runs)


_RANK_WORDS = {rank: rank for rank in RANKS} | {str(n): RANKS[n - 1] for n in range(2, 11)}
_PLURAL_OF = {suit: suit for suit in SUITS} | {suit[:-1]: suit for suit in SUITS}


def card(words: Sequence[Word], i: int) -> tuple[str, int]:
    expected = "a card: a name in capitals such as FORCE, or one such as queen of hearts"
    start = i + (text_at(words, i) == "the")
    if text_at(words, start) == "their" and text_at(words, start + 1) == "card":
        return "their card", start + 2
    rank = _RANK_WORDS.get(text_at(words, start)) or _open(words, start)
    if rank and text_at(words, start + 1) == "of":
        suit, behind = _suit(words, start + 2)
        return f"{rank} of {suit}", behind
    name = _identifier(words, i, expected)
    if not name.isupper():
        raise NotHere(i, expected)
    return name, i + 1


def _open(words: Sequence[Word], i: int) -> str | None:
    """A part of a card or of a list that is still to be settled."""
    return OPEN if text_at(words, i) == OPEN else None


OPEN = "?"


def rank(words: Sequence[Word], i: int) -> tuple[str, int]:
    found = _RANK_WORDS.get(text_at(words, i))
    if not found:
        raise NotHere(i, "a value, such as ace, seven or king")
    return found, i + 1


def _suit(words: Sequence[Word], i: int) -> tuple[str, int]:
    found = _PLURAL_OF.get(text_at(words, i)) or _open(words, i)
    if not found:
        raise NotHere(i, "a suit: clubs, diamonds, hearts or spades")
    return found, i + 1


def suits(words: Sequence[Word], i: int) -> tuple[tuple[str, ...], int]:
    return _listed(words, i, _suit)


COLOURS_AND_SUITS = ("red", "black", *SUITS)
_SORTS = {"red": "red", "reds": "red", "black": "black", "blacks": "black", **_PLURAL_OF}


def _sort(words: Sequence[Word], i: int) -> tuple[str, int]:
    found = _SORTS.get(text_at(words, i)) or _open(words, i)
    if not found:
        raise NotHere(i, "a colour or a suit: red, black, clubs, diamonds, hearts or spades")
    return found, i + 1


def sorts(words: Sequence[Word], i: int) -> tuple[tuple[str, ...], int]:
    """Colours, or suits, one after the other."""
    return _listed(words, i, _sort)


def blocks(words: Sequence[Word], i: int) -> tuple[tuple[tuple[int, str], ...], int]:
    """`26 red cards, 13 clubs`: how many of each sort."""

    def block(words: Sequence[Word], i: int) -> tuple[tuple[int, str], int]:
        if i >= len(words) or words[i].kind != "number":
            raise NotHere(i, "how many there are, in figures")
        sort, behind = _sort(words, i + 1)
        if sort in ("red", "black"):
            if text_at(words, behind) not in ("card", "cards"):
                raise NotHere(behind, "“cards”")
            behind += 1
        return (min(int(words[i].text), 1000), sort), behind

    return _listed(words, i, block)


def blocks_text(value: Sequence[tuple[int, str]]) -> str:
    """
    >>> blocks_text(((26, "red"), (1, "clubs"), (1, "black")))
    '26 red cards, 1 clubs, 1 black card'
    """
    return ", ".join(
        f"{many} {sort}{'' if sort in (*SUITS, OPEN) else ' card' if many == 1 else ' cards'}" for many, sort in value
    )


def cards(words: Sequence[Word], i: int) -> tuple[tuple[str, ...], int]:
    return _listed(words, i, card)


def new_name(words: Sequence[Word], i: int) -> tuple[str, int]:
    name = _identifier(words, i, "a name for the number, such as n")
    if not name[0].islower():
        raise NotHere(i, "a name for the number in small letters, such as n")
    return name, i + 1


def names(words: Sequence[Word], i: int) -> tuple[tuple[str, ...], int]:
    return _listed(words, i, new_name)


def new_range(words: Sequence[Word], i: int) -> tuple[NewNumber, int]:
    name, i = new_name(words, i)
    if text_at(words, i) != "from":
        raise NotHere(i, "“from”")
    low, i = number(words, i + 1)
    if text_at(words, i) != "to":
        raise NotHere(i, "“to”")
    high, i = number(words, i + 1)
    return NewNumber(name, low, high), i


def range_text(new: NewNumber) -> str:
    return f"{new.name} from {expression_text(new.low)} to {expression_text(new.high)}"


def quoted(words: Sequence[Word], i: int) -> tuple[str, int]:
    if (
        i < len(words)
        and words[i].kind == "quoted"
        and (any(map(str.isalpha, words[i].text)) or words[i].text[1:-1].strip() == OPEN)
    ):
        return words[i].text[1:-1].strip(), i + 1
    raise NotHere(i, "a word in quotation marks, such as “lantern”")


def quoted_words(words: Sequence[Word], i: int) -> tuple[tuple[str, ...], int]:
    return _listed(words, i, quoted)


# Positions


def _end(words: Sequence[Word], i: int) -> tuple[str | None, int]:
    """`from the top`, `from the left` and so on, or nothing."""
    if text_at(words, i) == "from" and text_at(words, i + 1) == "the":
        end = text_at(words, i + 2)
        if end not in ENDS:
            raise NotHere(i + 2, "“top”, “bottom”, “left” or “right”")
        return end, i + 3
    return None, i


def _counted(words: Sequence[Word], i: int) -> tuple[Expression, int] | None:
    """An ordinal such as `10th`, `nth` for a number n, or `?th`."""
    if i >= len(words):
        return None
    if words[i].kind == "ordinal":
        return Number(int(words[i].text[:-2])), i + 1
    if words[i].kind == "word" and re.fullmatch("[a-z]th", words[i].text):
        return Name(words[i].text[0]), i + 1
    if words[i].text == "?" and text_at(words, i + 1) == "th":
        return Blank(), i + 2
    return None


def position(words: Sequence[Word], i: int) -> tuple[Position, int]:
    first, second, third = (text_at(words, i + k) for k in range(3))
    if first == "on" and second == "top":
        return Position(Number(1)), i + 2
    if first in ("at", "on") and second == "the" and third in ("top", "bottom"):
        return Position(Number(1), third), i + 3
    if first == "at" and second == "position":
        at, i = number(words, i + 2)
    elif counted := _counted(words, i):
        at, i = counted
    else:
        raise NotHere(i, "a position, such as 10th, on top, at the bottom, or at position n")
    end, i = _end(words, i)
    return Position(at, end or "top"), i


def _tail(end: str) -> str:
    return "" if end == "top" else f" from the {end}"


def position_text(at: Position) -> str:
    match at:
        case Position(Number(1), "top"):
            return "on top"
        case Position(Number(1), "bottom"):
            return "at the bottom"
    return f"{_at_text(at)}{_tail(at.end)}"


def _at_text(at: Position) -> str:
    match at.at:
        case Number(value):
            return ordinal(value)
        case Blank():
            return "?th"
        case Name(name) if len(name) == 1:
            return f"{name}th"
    return f"at position {expression_text(at.at)}"


# Cards by where they are

_SPOTS = "a card such as the next card, the last card dealt, the top card of deck, or the 5th card of deck"


def spot(words: Sequence[Word], i: int, tight: bool = False) -> tuple[Spot, int]:
    if text_at(words, i) != "the":
        raise NotHere(i, _SPOTS)
    i += 1
    first = text_at(words, i)
    if first in ("next", "last"):
        return Spot(first), _follow(words, i, ("next", "card") if first == "next" else ("last", "card", "dealt"))
    if first == "face":
        where, i = place(words, _follow(words, i, ("face", "of")), tight)
        return Spot("face", None, where), i
    if first in ("top", "bottom"):
        at: Expression | None = Number(1)
        end: str | None = first
        i += 1
    elif counted := _counted(words, i):
        at, i = counted
        end = None
    else:
        at, end = None, None
    if text_at(words, i) != "card":
        raise NotHere(i, _SPOTS if at is None else "“card”")
    i += 1
    if at is None and text_at(words, i) == "at" and text_at(words, i + 1) == "row":
        return _cell(words, i + 2, tight)
    if at is None and text_at(words, i) != "at":
        return _in_the_round(words, i, tight)
    if at is None:
        at, i = number(words, _follow(words, i, ("at", "position")))
    if end is None:
        if text_at(words, i) == "back":
            return Spot("back", Position(at)), _follow(words, i, ("back", "from", "the", "last", "dealt"))
        end, i = _end(words, i)
    if text_at(words, i) not in ("of", "in"):
        raise NotHere(i, "“of” and a place")
    where, i = place(words, i + 1, tight)
    return Spot("at", Position(at, end or "top"), where), i


def _cell(words: Sequence[Word], i: int, tight: bool) -> tuple[Spot, int]:
    """`… 2 column 3 of grid`, behind *the card at row*."""
    row, i = number(words, i)
    column, i = number(words, _follow(words, i, ("column",)))
    where, i = place(words, _follow(words, i, ("of",)), tight)
    return Spot("cell", None, where, (row, column)), i


def _in_the_round(words: Sequence[Word], i: int, tight: bool) -> tuple[Spot, int]:
    """`… 3 on from position n of ring`, `… 3 before position n of ring`, behind *the card*."""
    try:
        steps, behind = number(words, i)
    except NotHere:
        raise NotHere(i, "“at position” and a number, or so many cards on from a position") from None
    way = text_at(words, behind)
    if way not in ("on", "before"):
        raise NotHere(behind, "“on from position” or “before position” and a number")
    start, i = number(
        words, _follow(words, behind, ("on", "from", "position") if way == "on" else ("before", "position"))
    )
    where, i = place(words, _follow(words, i, ("of",)), tight)
    return Spot(way, Position(start), where, (steps,)), i


def _follow(words: Sequence[Word], i: int, wanted: Sequence[str]) -> int:
    for offset, word in enumerate(wanted):
        if text_at(words, i + offset) != word:
            raise NotHere(i + offset, f"“{word}”")
    return i + len(wanted)


def spot_text(where: Spot) -> str:
    if where.kind == "next":
        return "the next card"
    if where.kind == "last":
        return "the last card dealt"
    if where.kind == "face":
        return f"the face of {place_text(where.place or '')}"
    if where.kind == "cell":
        row, column = map(expression_text, where.steps)
        return f"the card at row {row} column {column} of {place_text(where.place or '')}"
    assert where.position is not None
    if where.steps:
        way = "on from" if where.kind == "on" else "before"
        steps, start = expression_text(where.steps[0]), expression_text(where.position.at)
        return f"the card {steps} {way} position {start} of {place_text(where.place or '')}"
    at, end = where.position.at, where.position.end
    tail = " back from the last dealt" if where.kind == "back" else f"{_tail(end)} of {place_text(where.place or '')}"
    match at:
        case Number(1) if where.kind == "at" and end in ("top", "bottom"):
            return f"the {end} card of {place_text(where.place or '')}"
        case Number() | Blank():
            return f"the {_at_text(where.position)} card{tail}"
        case Name(name) if len(name) == 1:
            return f"the {name}th card{tail}"
    return f"the card {_at_text(where.position)}{tail}"
