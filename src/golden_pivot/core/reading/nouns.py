"""What the words of a note stand for: places and cards, by what lies where.

Every reader takes (tokens of a normal sentence, index of the first, the situation) and gives what may begin there, longest
first: (how the language writes it, index behind it).
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence

from ..cards import RANKS
from .lexicon import DECK
from .normal import as_read, mended, vocabulary
from .situation import Situation

Found = Iterator[tuple[str, int]]
Tokens = Sequence[str]


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
    if i == 0 and tokens[:1] == ["cut"] and not {"go", "be", "come"} & set(tokens):
        return  # what is done, not a packet that was cut off
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
    if words == "mine":
        return "table" if s.has("table") else None
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
        return _last_moved(s) or ("deck" if words == "cards" or (words == "it" and not s.moved_to) else None)
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
    return _described(words, s)


_HEAD = "packet|pile|heap|cards|card|stack|bunch|portion|lot|block|hand|ones|those|batch|group|number|everything|what"
_PLAIN = frozenset(
    f"{_HEAD}|a|that|be|lie|of|in|on|they|you|i|have|now|just|there|my|their|small|little|whole|all|from|off".split(
        "|"
    )
)
_MARKS: tuple[tuple[frozenset[str], str], ...] = (
    (frozenset("table tabled".split()), "table"),
    (frozenset("pocket".split()), "pocket"),
    (
        frozenset(
            "undealt rest remaining remain left balance stock talon unused untouched other else uncut remainder".split()
        ),
        "rest",
    ),
    (frozenset("dealt deal count counted".split()), "dealt"),
    (frozenset("cut lifted lift taken take cut-off removed remove chosen choose".split()), "moved"),
    (frozenset("hand hold held holding".split()), "hand"),
)
"""words that tell which heap is meant, the surest first"""


def _described(words: str, s: Situation) -> str | None:
    """*The packet she holds*, *everything on the table*, *the undealt cards*: by what is said of it, where nothing else is."""
    said = words.split()
    if len(said) < 2 and said != ["stock"] and said != ["talon"]:
        return None
    if not re.search(rf"\b(?:{_HEAD}|stock|talon|rest)\b", words):
        return None
    for marks, which in _MARKS:
        if marks & set(said):
            if not set(said) <= marks | _PLAIN:
                continue
            if which == "rest":
                return None if s.piles and not s.has("deck") else s.dealt_from or "deck"
            if which == "dealt":
                return s.dealt_to
            if which == "moved":
                return _last_moved(s)
            return which if s.has(which) else s.dealt_to if which == "table" else None
    if set(said) <= _PLAIN and {"their", "they"} & set(said):
        return _their("packet", s)
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


def target(words: str, s: Situation) -> str | None:
    """Where cards are put that need not lie there yet."""
    words = re.sub(r"^(?:a |own )+", "", words)
    if words in ("table", "mat", "cloth", "table top", "pile", "heap", "face down pile", "single pile", "new pile", "pile on table", "heap on table", "neat pile", "single heap", "1 pile", "own pile",
                 "table in front of them", "table in pile", "table in heap", "down", "small heap", "pile of its own", "baize"):  # fmt: skip
        return "table"
    if words in ("them", "their", "her", "they", "their hand", "hand", "their hands", "their own hand", "spectator"):
        return "hand"
    if words in ("my hand", "hands", "yourself", "myself", "me", "you"):
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
