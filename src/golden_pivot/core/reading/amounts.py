"""How many, as notes say it: numbers by what has been named and counted, and the ranges within which one may choose."""

from __future__ import annotations

import re
from collections.abc import Callable

from ..cards import RANKS
from .nouns import Found, Tokens, card_named, place_named
from .situation import Situation

_ASKED = r"(?:as many(?: cards)? as|exactly as many(?: cards)? as)"
_TELLING = r"(?:they|spectator|volunteer) (?:say|name|call(?: out)?|think(?: of)?|choose|chose|pick|tell|give|said|announce|settle on)(?: you| me)?"


def number(tokens: Tokens, i: int, s: Situation) -> Found:
    for j in range(min(len(tokens), i + 12), i, -1):
        if tokens[j - 1] == "half" and j < len(tokens) and tokens[j] == "of":
            continue
        if tokens[i:j] == ["a"] and tokens[j : j + 1] != ["card"]:
            continue  # *a packet* is no number
        if (found := number_said(" ".join(tokens[i:j]), s)) is not None:
            yield found, j


def number_said(words: str, s: Situation) -> str | None:  # noqa: C901  one line a way to say it
    words = re.sub(
        r"^(?:exactly|precisely|just|a total of|total of|all|(?:a )?(?:another|further|extra)) (?=.*\d|.*many|.*number|[a-z](?: |$))",
        "",
        words,
    )
    if words in RANKS:
        return str(RANKS.index(words) + 1)
    if re.fullmatch(r"\d{1,4}", words):
        return words
    if words in s.numbers:
        return words
    if words in ("a", "1 more", "a single", "single", "1", "a further", "a more"):
        return "1"
    n = s.number
    if n and (
        words in ("that many", "so many", "this many", "that", "their number", "number", "that number", "same number", "chosen number", "number of cards", "their secret number", "secret number",
                  "number chosen", "choose number", "their own number", "named number", "name number", "called number", "as many", "number they have", "it", "that number of", "this number", "same number of", "their number of")
        or re.fullmatch(rf"{_ASKED} (?:{_TELLING}|their number|number|their secret number|that|number {_TELLING})", words)
        or re.fullmatch(rf"(?:number|card number) (?:(?:that )?{_TELLING}|name|say|choose|call out|think of|give|announce|state)", words)
        or re.fullmatch(rf"what {_TELLING}|as many as that", words)
    ):  # fmt: skip
        return n
    if n and words in ("digit sum", "sum of its digits", "sum of digits", "sum of 2 digits", "sum of their 2 digits", "sum of 2 figures", "2 digits add", "sum of both digits", "both figures add up",
                       "sum of figures", "2 figures", "as many as 2 figures come to", "as many as 2 digits come to", "sum of 2 digits of it", "both digits", "sum of digits of their number",
                       "digit sum of their number", "total of digits", "total of its digits", "as many as digits add up to", "as many as figures add up to", "total of 2 digits"):  # fmt: skip
        return f"digit sum of {n}"
    if n and re.fullmatch(
        r"(?:as many(?: cards)? as )?(?:(?:sum|total) of )?(?:(?:2|both|its|their) )?(?:digits|figures)(?: of (?:it|their number|number|that number))?(?: (?:add up to|add up|come to|add together|add|together|build|amount to|be together|add to))?",
        words,
    ):
        return f"digit sum of {n}"
    if n and re.fullmatch(
        r"(?:as many(?: cards)? as )?(?:units|last|2nd|unit) (?:figure|digit)(?: of (?:their number|it|number|that))?",
        words,
    ):
        return f"remainder of {n} divided by 10"
    if n and (m := re.fullmatch(r"(\d+) (?:more|cards? more) than (.+)", words)):
        base = number_said(m[2], s)
        return f"{base} + {m[1]}" if base else None
    if m := re.fullmatch(r"(\d+)(?: cards?)? (?:fewer|less) than (.+)", words):
        base = number_said(m[2], s)
        return f"{base} - {m[1]}" if base else None
    if m := re.fullmatch(r"(.+) (?:plus|and) (\d+)(?: more)?", words):
        base = number_said(m[1], s)
        return f"{base} + {m[2]}" if base and not base.isdigit() else None
    if m := re.fullmatch(r"(.+) (?:minus|less) (\d+)", words):
        base = number_said(m[1], s)
        return f"{base} - {m[2]}" if base and not base.isdigit() else None
    if (m := re.fullmatch(r"(?:twice|double|2 times) (.+)", words)) and (base := number_said(m[1], s)):
        return f"2 * {base}"
    if (m := re.fullmatch(r"(\d+) and (.+)|(\d+) \+ (.+)", words)) and (base := number_said(m[2] or m[4], s)):
        return f"{m[1] or m[3]} + {base}"
    if m := re.fullmatch(r"half(?: of)?(?: (.+))?", words):
        where = place_named(m[1], s) if m[1] else "deck"
        if where and s.sizes.get(where):
            if s.sizes[where] % 2 == 0 and where == "deck" and s.number is None:
                return str(s.sizes[where] // 2)
            return f"half of size of {where} rounded down"
    if m := re.fullmatch(
        r"(?:how many|number of)(?: cards)?(?: are| be| there are| there be)?(?: left| remain)?(?: in (.+))?", words
    ):
        where = place_named(m[1], s) if m[1] else "deck"
        return f"size of {where}" if where else None
    if m := re.fullmatch(r"number of (?:piles|heaps|packets)", words):
        return "number of piles"
    if (m := re.fullmatch(r"(value|suit) of (.+)", words)) and (card := card_named(m[2], s)):
        return f"{m[1]} of {card}"
    if m := re.fullmatch(r"(?:letters of |letters in )“([^”]+)”", words):
        return f"letters of “{m[1]}”"
    if re.fullmatch(r"[a-z]( [-+*] [\w ]+)?", words) and words[0] in s.numbers:
        return words
    return None


# Ranges

HEDGES: dict[str, Callable[[int], tuple[int, int]]] = {
    "half": lambda n: (20 * n // 52, 32 * n // 52 if n != 52 else 32),
    "third": lambda n: (n // 4, n * 22 // 52),
    "quarter": lambda n: (n // 6, n // 3),
    "few": lambda n: (3, min(8, n)),
    "small": lambda n: (1, min(10, n)),
    "some": lambda n: (1, n),
    "many": lambda n: (1, n),
}
"""hedged amounts: what is proposed of so many cards"""


def range_said(words: str, size: int) -> tuple[list[tuple[int, int]], bool] | None:
    """(low, high) for each way to take it, and whether it is a proposal."""
    w = words.strip(" ,")
    exact = False
    if m := re.search(r"(?:,? ?(?:both )?inclusive|,? both include|,? include|,? both end count|,? end include)", w):
        w, exact = (w[: m.start()] + w[m.end() :]).strip(" ,"), True
    w = re.sub(r"^(?:say|perhaps|for example|for instance|but|though) ,? ?", "", w)
    if m := re.fullmatch(r"(?:from |anything from |anywhere from |say )?(\d+) (?:to|up to|~|or|through) (\d+)", w):
        return [(int(m[1]), int(m[2]))], False
    if m := re.fullmatch(r"(?:anywhere |somewhere |anything )?between (\d+) (?:and|to) (\d+)", w):
        low, high = int(m[1]), int(m[2])
        return ([(low, high)] if exact else [(low, high), (low + 1, high - 1)]), False
    if m := re.fullmatch(
        r"(?:up to|at most|not above|no higher than|not higher than|not over|not exceeding|no greater than|no more than|not more than|maximum of|max|as many as) (\d+)(?: at most)?|(\d+) (?:at most|or fewer|or less|maximum|max|at outside|tops)",
        w,
    ):
        return [(1, int(m[1] or m[2]))], False
    if m := re.fullmatch(
        r"(2-digit (?:number )?)?(?:fewer than|less than|lower than|below|under|smaller than|short of) (\d+)", w
    ):
        return [(10 if m[1] else 1, int(m[2]) - 1)], False
    if m := re.fullmatch(
        r"(?:at least|no fewer than|not less than|minimum of) (\d+)(?: (?:and|but|,)+ (?:at most|no more than|up to|not more than) (\d+))?",
        w,
    ):
        return [(int(m[1]), int(m[2]) if m[2] else size)], not m[2]
    if m := re.fullmatch(r"(?:at least )?(\d+)(?: at least)?,? (?:and|but),? (?:fewer|less) than (\d+)", w):
        return [(int(m[1]), int(m[2]) - 1)], False
    if m := re.fullmatch(
        r"(?:at least )?(\d+)(?: at least| or more)?,? (?:and|but) (?:at most )?(\d+)(?: at most)?", w
    ):
        return [(int(m[1]), int(m[2]))], False
    if m := re.fullmatch(
        r"(?:more than|over|above) (\d+)(?: (?:and|but|,)+ (?:fewer than|less than|under|below) (\d+))?", w
    ):
        return [(int(m[1]) + 1, int(m[2]) - 1 if m[2] else size)], not m[2]
    if m := re.fullmatch(r"(?:in |something in |1 in |number in )?(?:their )?(10|20|30|40|50)s", w):
        return [(int(m[1]), int(m[1]) + 9)], False
    if re.fullmatch(r"(?:in )?(?:their )?teens", w):
        return [(13, 19)], False
    if re.fullmatch(r"(?:a )?2-digit|2-digit|2-figure|with 2 digits", w):
        return [(10, 99)], False
    return None
