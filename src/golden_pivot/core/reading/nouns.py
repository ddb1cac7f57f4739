"""What the words of a note stand for: places, cards, numbers, positions, by what lies where.

Every reader takes (tokens of a normal sentence, index of the first, the situation) and gives what may begin there, longest
first: (how the language writes it, index behind it).
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator, Sequence
from itertools import product

from ..cards import RANKS
from ..english import ordinal
from .lexicon import DECK, PILES
from .normal import as_read, mended, vocabulary
from .situation import Situation

Found = Iterator[tuple[str, int]]
Tokens = Sequence[str]

_PHRASES: dict[str, Callable[[Situation, re.Match[str]], str | None]] = {}


def _at(tokens: Tokens, i: int, words: str) -> int | None:
    """Index behind these words, if they stand there."""
    wanted = words.split(" ")
    return i + len(wanted) if list(tokens[i : i + len(wanted)]) == wanted else None


def tokens_of(sentence: str) -> list[str]:
    """
    >>> tokens_of("put ⟨queen of hearts⟩ on table")
    ['put', '⟨queen of hearts⟩', 'on', 'table']
    """
    return re.findall(r"⟨[^⟩]+⟩|“[^”]+”|\S+", sentence)


def _canon(phrases: Sequence[str]) -> frozenset[str]:
    return frozenset(" ".join(map(as_read, phrase.split())) for phrase in phrases)


# Places

_OWN = ("packet", "cards", "hand", "heap", "pile", "bunch", "portion", "stack", "card", "half", "part")
_DECK_WORDS = (*DECK, "cards", "all cards", "rest of deck", "rest of pack", "rest of cards", "remaining cards", "remaining deck", "remaining pack",
               "remainder of deck", "remainder of pack", "cards left", "other cards", "balance of deck", "balance of pack")  # fmt: skip
_REST = (
    "rest",
    "remainder",
    "balance",
    "others",
    "what is left",
    "what remain",
    "what remains",
    "remaining cards",
    "remaining ones",
    "cards that are left",
    "left over cards",
)
_THEM = ("them", "it", "these", "those", "that", "this", "these cards", "those cards", "same cards", "everything they deal", "everything you deal", "lot", "whole lot",
         "them all", "all of them", "all of these", "both", "both of them", "cards", "those they deal", "those you deal", "one", "whole")  # fmt: skip
_DEALT = ("dealt cards", "dealt pile", "dealt heap", "dealt packet", "cards they deal", "cards you deal", "cards deal", "cards just deal", "deal cards", "deal pile", "deal packet", "deal heap",
          "dealt ones", "pile they deal", "pile you deal", "pile just deal", "everything you deal", "everything they deal", "deal ones")  # fmt: skip
_TABLED = ("table cards", "table packet", "table pile", "table heap", "tabled cards", "tabled packet", "tabled pile", "tabled heap", "cards on table", "packet on table", "pile on table", "heap on table",
           "those on table")  # fmt: skip
_CUT_OFF = ("cards they cut off", "cut-off cards", "packet they cut off", "cut packet", "cards they cut", "packet they cut", "cards they take", "cards they take off", "cut off packet", "cut off cards",
            "cards in their hand", "packet in their hand", "cards in hand", "packet in hand", "cards of hand", "cards they hold", "chosen card", "choose card", "selected card", "select card", "selection",
            "card they take", "card they choose", "card they pick", "pick card")  # fmt: skip

THE_DECK, THE_REST, WHAT_WAS_MOVED, WHAT_WAS_DEALT, WHAT_IS_TABLED, WHAT_WAS_CUT_OFF = (
    _canon(_DECK_WORDS),
    _canon(_REST),
    _canon(_THEM),
    _canon(_DEALT),
    _canon(_TABLED),
    _canon(_CUT_OFF),
)


def place(tokens: Tokens, i: int, s: Situation) -> Found:
    for j in range(min(len(tokens), i + 7), i, -1):
        if (found := place_named(" ".join(tokens[i:j]), s)) is not None:
            yield found, j


def place_named(words: str, s: Situation) -> str | None:  # noqa: C901  one line a way to say it
    words = (
        words.removeprefix("all of ").removeprefix("all ").removeprefix("a ")
        if words not in ("all cards", "all of them")
        else words
    )
    if words.startswith("⟨"):
        return words[1:-1] if words[1:-1] in s.sizes else None
    if words.startswith("their "):
        return _their(words.removeprefix("their "), s)
    if words.startswith("my "):
        words = words.removeprefix("my ")
        if words in ("cards", "packet", "half", "heap", "pile") or words.isdigit():
            return "table" if s.has("table") else None
    if words in ("1", "cards of " + words):
        return None
    if words in ("theirs", "their") and s.told_pile:
        return f"pile {s.told_pile}"
    if words in ("theirs", "their") and s.has("hand"):
        return "hand"
    if words in ("card", "choose card", "select card", "selection") and s.sizes.get("hand") == 1:
        return "hand"
    words = re.sub(r"^(?:whole|entire|complete|full) ", "", words)
    if words in s.sizes and words not in ("dealt",):
        return words
    if words == "dealt" and s.has("dealt"):
        return "dealt"
    if (
        m := re.fullmatch(r"(?:pile|heap|packet|column|hand) (?:number )?(\d+)", words)
    ) and f"pile {m[1]}" in s.sizes:
        return f"pile {m[1]}"
    if s.piles and (
        m := re.fullmatch(
            r"(left|leftmost|middle|centre|right|rightmost|1st|2nd|3rd|4th|5th|6th|last)(?: (?:hand )?(?:pile|heap|packet|column|hand|one|1))?",
            words,
        )
    ):
        return _pile_by_side(m[1], s)
    if (
        words in ("that", "it", "that pile", "this pile", "that 1")
        and s.focus
        and s.focus.startswith("pile ")
        and s.last is not None
        and "place" in s.last.values
    ):
        return s.focus
    if (m := re.fullmatch(r"(?:rest|what be left|remainder|what remain) of (.+)", words)) and (
        inner := place_named(m[1], s)
    ):
        return inner
    if words == "other packet" and len(s.piles) < 2:
        return "deck"
    if words in ("it", "that", "that pile", "last pile") and len(s.piles) == 1:
        return s.piles[0]
    if s.told_pile and re.fullmatch(
        r"(?:chosen|choose|pick|point|selected|select|indicate|touch|that|it|pile they (?:pick|choose|point to|point at|touch|select)|1 they (?:pick|choose|point to)|name)(?: (?:pile|heap|packet|column|one|1))?",
        words,
    ):
        return f"pile {s.told_pile}"
    if s.told_pile and len(s.piles) == 2 and re.fullmatch(r"other(?: (?:pile|heap|packet|one|1|half))?", words):
        return f"pile 3 - {s.told_pile}"
    if words in THE_REST:
        return None if s.piles and not s.has("deck") else s.dealt_from or "deck"
    if words in WHAT_WAS_DEALT or re.fullmatch(r"cards (?:they|you|i) (?:have )?(?:just )?deal", words):
        return s.dealt_to
    if words in WHAT_IS_TABLED:
        return "table" if s.has("table") else s.dealt_to
    if words in WHAT_WAS_CUT_OFF:
        return (
            s.moved_to
            if s.moved_to and s.has(s.moved_to) and s.moved_to != "deck"
            else "hand"
            if s.has("hand")
            else None
        )
    if words in WHAT_WAS_MOVED or re.fullmatch(
        r"(?:that|this|same|these) (?:packet|pile|heap|cards|lot|bunch|hand|half|block|card)", words
    ):
        return _last_moved(s) or ("deck" if words == "cards" else None)
    if words in THE_DECK:
        return "deck"
    if words in (
        "packet",
        "heap",
        "pile",
        "half",
        "bunch",
        "stack",
        "small packet",
        "cut-off half",
        "top half",
        "upper half",
        "little heap",
    ):
        return _packet(words, s)
    if words in ("row", "line") and s.rows:
        return sorted(s.rows)[0]
    if words == "bottom half":
        return "deck"
    return None


def _pile_by_side(side: str, s: Situation) -> str | None:
    n = len(s.piles)
    index = {
        "left": 1,
        "leftmost": 1,
        "1st": 1,
        "2nd": 2,
        "3rd": 3,
        "4th": 4,
        "5th": 5,
        "6th": 6,
        "right": n,
        "rightmost": n,
        "last": n,
    }.get(side)
    if index is None and side in ("middle", "centre") and n % 2:
        index = (n + 1) // 2
    return f"pile {index}" if index and index <= n else None


def _their(words: str, s: Situation) -> str | None:
    if words in ("pile", "heap", "column", "packet", "one", "1") and s.told_pile:
        return f"pile {s.told_pile}"
    if words in _OWN or words in ("own cards", "own packet", "cut-off cards", "chosen card", "selection"):
        for where in ("hand", s.moved_to if s.spectator_moved else None, "packet"):
            if where and s.has(where):
                return where
    if words in ("hand", "pocket"):
        return words
    return None


def _packet(words: str, s: Situation) -> str | None:
    last = (
        s.moved_to
        if s.moved_to
        and s.has(s.moved_to)
        and s.moved_to not in ("deck", "aside")
        and not s.moved_to.startswith("pile ")
        else None
    )
    for where in (words, last, "table" if words != "packet" else None, "hand", "packet", "table", "dealt"):
        if where and s.has(where):
            return where
    return "deck" if words == "packet" and s.has("deck") else None


def _last_moved(s: Situation) -> str | None:
    return s.moved_to if s.moved_to and s.has(s.moved_to) and s.moved_to != "deck" else None


def target(words: str, s: Situation, who: str) -> str | None:
    """Where cards are put that need not lie there yet."""
    words = re.sub(r"^(?:a |own )+", "", words)
    if words in ("table", "mat", "cloth", "table top", "pile", "heap", "face down pile", "single pile", "new pile", "pile on table", "heap on table", "neat pile", "single heap", "1 pile", "own pile",
                 "table in front of them", "table in pile", "table in heap", "down", "small heap", "pile of its own", "baize"):  # fmt: skip
        return "table"
    if words in ("them", "their", "her", "they", "their hand", "hand", "their hands", "their own hand", "spectator"):
        return "hand"
    if words in ("my hand", "hands"):
        return "hand"
    if words in ("aside", "1 side", "side"):
        return "aside"
    if m := re.fullmatch(
        r"(?:my |their )?(?:inside |breast |coat )*(pocket|box|envelope|wallet|case|glass|hat|purse|bag)", words
    ):
        return m[1]
    if m := re.fullmatch(r"(?:discard|discards)(?: pile)?", words):
        return "discard"
    if words in ("row", "line"):
        return "row"
    if (
        re.fullmatch(r"[a-z]{3,}", words)
        and words not in vocabulary()
        and (mended(words) == words or sorted(mended(words)) != sorted(words))
    ):
        return words  # a place of its own
    return place_named(words, s)


# Numbers

_ASKED = r"(?:as many(?: cards)? as|exactly as many(?: cards)? as)"
_TELLING = r"(?:they|spectator|volunteer) (?:say|name|call(?: out)?|think(?: of)?|choose|chose|pick|tell|give|said|announce|settle on)(?: you| me)?"


def number(tokens: Tokens, i: int, s: Situation) -> Found:
    for j in range(min(len(tokens), i + 12), i, -1):
        if tokens[j - 1] == "half" and j < len(tokens) and tokens[j] == "of":
            continue
        if (found := number_said(" ".join(tokens[i:j]), s)) is not None:
            yield found, j


def number_said(words: str, s: Situation) -> str | None:  # noqa: C901  one line a way to say it
    words = re.sub(r"^(?:exactly|precisely|just|a total of|total of|all|another|further) ", "", words)
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
                  "number chosen", "choose number", "their own number", "as many", "number they have", "it", "that number of", "this number", "same number of", "their number of")
        or re.fullmatch(rf"{_ASKED} (?:{_TELLING}|their number|number|their secret number|that|number {_TELLING})", words)
        or re.fullmatch(rf"(?:number|card number) (?:that )?{_TELLING}", words)
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
    if (m := re.fullmatch(r"(?:twice|double) (.+)", words)) and (base := number_said(m[1], s)):
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


# Cards

_THEIRS = re.compile(
    r"(?:(?:a|their|that|own|chosen|selected|choose|select|pick|thought-of|remember|note|secret|same) )*(?:card|selection|one|pick)"
    r"(?: (?:that )?(?:they|spectator|volunteer) (?:have )?(?:think of|take|choose|pick|look at|remember|note|see|select|keep|just (?:think of|look at|pick)|think|settle on|like))?"
    r"|theirs|their|selection|1 they (?:think of|take|choose|look at|remember|pick|think)|it"
)


def card(tokens: Tokens, i: int, s: Situation) -> Found:
    for j in range(min(len(tokens), i + 7), i, -1):
        if (found := card_named(" ".join(tokens[i:j]), s)) is not None:
            yield found, j


def card_named(words: str, s: Situation) -> str | None:
    if words.startswith("⟨") and words.endswith("⟩") and words.count("⟨") == 1:
        return words[1:-1]
    if m := re.fullmatch(rf"(?:a )?({'|'.join(RANKS)})", words):
        found = [name for name in s.cards if name.startswith(f"{m[1]} of ")]
        return found[0] if len(found) == 1 else None
    words = words.removeprefix("my ")
    if words in ("key card", "key", "my key", "locator", "key-card", "keycard"):
        found = [name for name in s.cards if name.isupper() and not name.startswith("FORCE")]
        return found[-1] if found else None
    if words in (
        "short card",
        "short",
        "odd-backed card",
        "odd card",
        "marked card",
        "odd-back card",
        "off-coloured card",
        "short",
        "odd back card",
        "mark card",
        "key-card",
        "red-backed card",
        "blue-backed card",
    ):
        wanted = {"short": "SHORT", "force": "FORCE"}.get(
            words.split()[-2 if words.split()[-1] == "card" else 0], "MARK"
        )
        found = [name for name in s.cards if name == wanted] or [name for name in s.cards if name.isupper()]
        return found[-1] if found else None
    if (words == "card" and s.their_card is None) or words in ("force card", "force"):
        found = [name for name in s.cards if name.isupper() or " of " in name]
        return found[0] if found else "FORCE" if s.in_set_up else None
    if words in ("prediction", "prediction card", "predicted card"):
        found = [name for name in s.cards if name.isupper() or " of " in name]
        return found[0] if found else None
    if s.their_card and _THEIRS.fullmatch(words):
        return s.their_card
    return None


# Cards by where they lie

_TOP = ("top", "uppermost", "topmost", "upper", "highest")
_BOTTOM = ("bottom", "lowest", "face", "lowermost", "undermost", "underneath", "bottom-most", "rear")


def _end(words: str) -> str | None:
    return "top" if words in _TOP else "bottom" if words in _BOTTOM else None


def spot(tokens: Tokens, i: int, s: Situation) -> Found:
    for j in range(min(len(tokens), i + 14), i, -1):
        if (found := spot_said(" ".join(tokens[i:j]), s)) is not None:
            yield found, j


def spot_said(words: str, s: Situation) -> str | None:
    words = re.sub(r"^(?:a|their|my|that|this) ", "", words)
    if (
        re.fullmatch(
            r"next(?: (?:card|1|one))?(?: of .+)?|card (?:that )?(?:come|follow)s? next|following card|card after(?: that| them)?",
            words,
        )
        and s.dealt_to
    ):
        return "the next card"
    if s.dealt_to and re.fullmatch(
        r"(?:very )?last(?: (?:card|1|one))?(?: of (?:them|these|those))?(?: (?:to be )?(?:that )?(?:is |be )?(?:just )?(?:they |you |i )?(?:have )?(?:just )?(?:deal|put(?: down)?|lay(?: down)?|place|deal out|turn up|come|drop|spell|count))?(?: to (?:be )?deal)?(?: down)?(?: to be deal)?",
        words,
    ):
        return "the last card dealt"
    if s.dealt_to and re.fullmatch(
        r"(?:card|1|one) (?:they|you) (?:stop|finish|end)(?: at| on| with)|final card(?: deal| dealt)?|card on which (?:they|you) (?:stop|end)|card at which (?:they|you) stop|card (?:count|spelling) end(?: on| at)",
        words,
    ):
        return "the last card dealt"
    if (m := re.fullmatch(r"(\w+?)(?: (?:card|1|one))?(?: (?:of|in|on|from) (.+))?", words)) and (end := _end(m[1])):
        where = place_named(m[2], s) if m[2] else default_heap(s)
        return f"the {end} card of {where}" if where else None
    if (m := re.fullmatch(r"(?:card )?(?:at|on) (?:very )?(top|bottom|face)(?: (?:of|in|on) (.+))?", words)) or (
        m := re.fullmatch(r"card (?:lying )?underneath()(?: (.+))?", words)
    ):
        end = _end(m[1] or "bottom")
        where = place_named(m[2], s) if m[2] else default_heap(s)
        return f"the {end} card of {where}" if where else None
    if m := re.fullmatch(r"(ontop|underneath)(?: (?:of )?(.+))?", words):
        where = place_named(m[2], s) if m[2] else default_heap(s)
        return f"the {'top' if m[1] == 'ontop' else 'bottom'} card of {where}" if where else None
    if m := re.fullmatch(r"face card|face(?: of (.+))?", words):
        where = place_named(m[1], s) if m.lastindex else default_heap(s)
        return f"the bottom card of {where}" if where else None
    if m := re.fullmatch(
        r"(\d+(?:st|nd|rd|th))(?: (?:card|1|one))?(?: from (?:the )?(top|bottom|left|right))?(?: (?:down|along))?(?: (?:of|in|from|on) (.+))?",
        words,
    ):
        where = place_named(m[3], s) if m[3] else ("row" if m[2] in ("left", "right") and s.rows else default_heap(s))
        if where is None:
            return None
        where = sorted(s.rows)[0] if where == "row" and "row" not in s.sizes and s.rows else where
        tail = f" from the {m[2]}" if m[2] in ("bottom", "right", "left") else ""
        return f"the {m[1]} card{tail} of {where}"
    if m := re.fullmatch(
        r"card (?:that lie )?(?:at|in) (?:position |place |number |their )?(.+?)(?: (?:position|place))?(?: (?:of|in|from) (.+))?",
        words,
    ):
        at = number_said(m[1], s)
        where = place_named(m[2], s) if m[2] else default_heap(s)
        if at and where:
            return (
                f"the {at}th card of {where}"
                if at.isalpha() and len(at) == 1
                else f"the {ordinal(int(at))} card of {where}"
                if at.isdigit()
                else f"the card at position {at} of {where}"
            )
    return None


def default_heap(s: Situation) -> str:
    """Where a card is looked for that is said to be on top, or tenth: where the last line was about a heap, there."""
    if s.focus and s.has(s.focus) and s.focus != "deck" and s.last is not None and "place" in s.last.values:
        return s.focus
    if s.sizes and not s.has("deck"):
        return next(
            (where for where in (s.focus, s.moved_to) if where and (s.has(where) or where.startswith("pile "))),
            "deck",
        )
    return "deck"


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
DIGITS = {
    f"{tens}s": int(number)
    for tens, number in zip(("20", "30", "40", "50", "10"), ("20", "30", "40", "50", "10"), strict=True)
}


def range_said(words: str, size: int) -> tuple[list[tuple[int, int]], bool] | None:
    """(low, high) for each way to take it, and whether it is a proposal."""
    w = words.strip(" ,")
    exact = False
    if m := re.search(r"(?:,? ?(?:both )?inclusive|,? both include|,? include|,? both end count|,? end include)", w):
        w, exact = (w[: m.start()] + w[m.end() :]).strip(" ,"), True
    if m := re.fullmatch(r"(?:from |anything from |anywhere from |say )?(\d+) (?:to|up to|~|or|through) (\d+)", w):
        return [(int(m[1]), int(m[2]))], False
    if m := re.fullmatch(r"(?:anywhere |somewhere |anything )?between (\d+) (?:and|to) (\d+)", w):
        low, high = int(m[1]), int(m[2])
        return ([(low, high)] if exact else [(low, high), (low + 1, high - 1)]), False
    if m := re.fullmatch(
        r"(?:up to|at most|no more than|not more than|maximum of|max|as many as) (\d+)(?: at most)?|(\d+) (?:at most|or fewer|or less|maximum|max|at outside|tops)",
        w,
    ):
        return [(1, int(m[1] or m[2]))], False
    if m := re.fullmatch(r"(?:fewer than|less than|below|under|smaller than|short of) (\d+)", w):
        return [(1, int(m[1]) - 1)], False
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


def all_readings(*readings: Sequence[str]) -> Iterator[tuple[str, ...]]:
    yield from product(*readings)


PILE_WORDS = (*PILES, "pile")
