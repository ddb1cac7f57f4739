"""A sentence of notes in a plain form: small letters, numbers as figures, cards by their names, verbs by their stems.

    >>> normal("She deals ten cards, face-down, onto the table.", frozenset())
    'they deal 10 cards , face down , onto table'

Words that a routine has as names stay as they are written. Cards are written ⟨queen of hearts⟩, words to be spelled “harbour”.
"""

from __future__ import annotations

import re
from collections.abc import Set
from functools import cache, lru_cache

from rapidfuzz import process
from rapidfuzz.distance import OSA

from ..english import ordinal
from .lexicon import (
    DECK,
    EVERYBODY,
    LEMMA,
    LEMMAS,
    ME,
    NUMBERS,
    ORDINALS,
    PARTICIPLES,
    PEOPLE,
    PILES,
    RANK_MARKS,
    RANK_WORDS,
    SHORT,
    SUIT_MARKS,
    SUIT_WORDS,
    TENS,
    TIMES,
    UNITS,
    VERBS,
)

_CONTRACTIONS = (
    ("what's", "what is"), ("that's", "that is"), ("it's", "it is"), ("there's", "there is"), ("they're", "they are"), ("he's", "he is"),
    ("she's", "she is"), ("you're", "you are"), ("can't", "cannot"), ("don't", "do not"), ("doesn't", "does not"), ("hasn't", "has not"),
    ("haven't", "have not"), ("isn't", "is not"), ("aren't", "are not"), ("won't", "will not"), ("i'm", "i am"), ("let's", "let us"),
    ("i'll", "i will"), ("you'll", "you will"), ("they'll", "they will"), ("she'll", "she will"), ("he'll", "he will"), ("i've", "i have"),
    ("you've", "you have"), ("they've", "they have"), ("face-up", "face up"), ("face-down", "face down"), ("on top of", "ontop"), ("on the top of", "ontop"), ("on the top", "ontop"),
    ("on top", "ontop"), ("on to ", "onto "), ("magician's choice", "force of piles"), ("each other", "one another"),
)  # fmt: skip
_RANK = "|".join(sorted(map(re.escape, RANK_WORDS), key=len, reverse=True))
_SUIT = "|".join(sorted(SUIT_WORDS, key=len, reverse=True))
_SHORT_CARD = re.compile(r"(?<![\w’'])(10|[2-9AKQJT])\s?([♣♦♥♠]|[CDHS])(?![\w’'])")
_LONG_CARD = re.compile(rf"\b({_RANK}|[2-9]|10)s? of ({_SUIT})\b", re.I)
_DROPPED = re.compile(
    r"\b(?:the|now|then|just|simply|quickly|slowly|carefully|quite|very|also|again please|madam|sir|of course|in turn|freely|really|all right|ok"
    r"|straight away|straightaway|at once|immediately|for now|this time|eventually|finally|next up|first of all|once more|merely|mentally)\b"
)
_SAME = (
    (r"(?:mat|cloth|baize|felt|table top|tabletop)", "table"), (r"(face|faces|side) (?:upwards?|uppermost|skyward)", r"\1 up"),
    (r"(face|faces) downwards?", r"\1 down"), (r"(?<!all )(\d+|that many|so many) (?:top|uppermost|upper) cards?", r"top \1 cards"),
    (r"(\d+) cards from top of", r"top \1 cards of"), (r"halt|whoa", "stop"), (r"catch sight of|catch|glance at|sneak look at|have glimpse of|get sight of", "look at"),
    (r"(?:get|have|steal|sneak) a (?:quick |good |sly )?(?:peek|glance|look|glimpse) (?:at|of)", "look at"), (r"other hand", "hand"),
    (r"take (?:a )?(?:quick |good |sly )?(?:peek|glance|look) (?:at|of)", "look at"), (r"(?:left|right) hand(?! (?:pile|heap|packet|column|side|1|card|end))", "hand"),
    (r"and (?:the )?cut (?:(?:be|is|was) )?complete[sd]?", "and complete cut"),
    (r"cut((?: the)?(?: deck| pack| cards| it)?) and complete[sd]?(?: (?:the )?cut)? (as (?:often|many times)|again and again|any number of times)", r"cut\1 \2"),
    (r"(?:uncounted|unseen by you|without you see how many|number unknown)", "secretly"), (r"upside down", "over"),
    (r"(?:(?:a|another|2nd|other|youngest|oldest|tallest|same|nearest|any|some|your|dear) )+they", "they"),
    (r"they (?:on|to|at) (?:my |their )?(?:left|right|front|end|back)(?= |$)|they (?:beside|next to|near|opposite) (?:you|me|them)", "they"),
    (r"(?:topmost|uppermost) (?=\d)", "top "), (r"(?:note|look at|peek at|see|read) and (?:remember|memorise|note)", "remember"),
    (r"(?:their|a) (?:magic|secret|chosen) word", "word"), (r"(⟨[^⟩]+⟩) card(?!s)", r"\1"),
    (r"(?:2|two)-(?:figure|digit)", "2-digit"), (r"they 's", "their"), (r"half (?:exactly|precisely)", "exactly half"), (r"cards? apiece", "cards each"), (r"well shuffle|thoroughly shuffle|shuffle", "shuffle"),
)  # fmt: skip
"""other words for the same"""
_THING = "(?: (?:cards?|piles?|heaps?|packets?|columns?|numbers?|half|1)(?![a-z]))"
_OWNED = rf"cards?|piles?|packets?|heaps?|hand|pocket|number|own|half|selection|column|choose{_THING}|secret|name{_THING}|pick{_THING}|choice|back|1st"


def normal(text: str, names: Set[str], mend: bool = False) -> str:
    """`names`: cards, numbers and places that the routine has; `mend`: words that are nearly known ones are taken for these."""
    kept: list[str] = []

    def keep(written: str) -> str:
        kept.append(written)
        return f" \x00{len(kept) - 1}\x00 "

    if mend:
        text = respelled(text, names)
    said = text.replace("’", "'").replace("–", "-").replace("—", " - ")
    said = re.sub(r"\((?![^)]*(?:\d|value|size|suit|sum))[^)]*\)", " ", said)
    said = re.sub(r"[\"“”]([^\"“”]+)[\"“”]", lambda m: keep(f"“{m[1].strip().lower()}”"), said)
    for name in sorted((n for n in names if not n.islower() or " of " in n), key=len, reverse=True):
        said = re.sub(
            rf"(?<!\w){re.escape(name)}(?!\w)('s)?",
            lambda m, name=name: keep(f"⟨{name}⟩") + ("'s " if m[1] else ""),
            said,
            flags=re.I if " of " in name else 0,
        )
    said = _LONG_CARD.sub(lambda m: keep(f"⟨{_rank(m[1])} of {SUIT_WORDS[m[2].lower()]}⟩"), said)
    said = _SHORT_CARD.sub(lambda m: keep(f"⟨{RANK_MARKS[m[1].lower()]} of {SUIT_MARKS[m[2].lower()]}⟩"), said)
    spelled = re.search(r"\bspel|letter", said, re.I) is not None
    said = re.sub(
        r"(?:(?<=[a-z,:;] )|^)([A-Z]{3,})(?![\w'])",
        lambda m: m[0] if m[1].lower() in SHORT else keep(f"“{m[1].lower()}”" if spelled else f"⟨{m[1]}⟩"),
        said,
    )
    said = re.sub(r"\b[A-Za-z](?:-[A-Za-z])+\b", lambda m: keep(f"“{m[0].replace('-', '').lower()}”"), said)
    said = re.sub(r"\b[Jj]oker\b", lambda m: keep("⟨JOKER⟩"), said)
    said = re.sub(r"\bno\. ?(?=\w)", "number ", re.sub(r"\bT (?:to|->|→) B\b", "from top to bottom", said))
    said = re.sub(r"(?:^please,? |, please(?=[.!?]?$))", "", said, flags=re.I)
    said = said.lower()
    for short, long in _CONTRACTIONS:
        said = said.replace(short, long)
    said = re.sub(r"(\w)'s\b", r"\1 's", said)
    said = re.sub(r"(?<=\d)-(?=\d)", " ~ ", said)
    words = re.findall(r"\x00\d+\x00|[a-z]+(?:-[a-z]+)*|\d+(?:st|nd|rd|th)?|'s|[?&:,;~+]", said)
    plain = " ".join(_plain(word) for word in words)
    plain = re.sub(
        r"\b(\d0) (\d)\b", lambda m: str(int(m[1]) + int(m[2])) if int(m[1]) in TENS.values() else m[0], plain
    )
    plain = re.sub(r"\bhalf (?:a )?12\b", "6", plain)
    plain = re.sub(r"\ba (12|2 of|100)\b", r"\1", plain)
    plain = re.sub(r"\b2 of(?= cards\b)", "2", plain)
    plain = re.sub(
        r"\b(?:mentally|merely|just|in their mind|silently) (?:select|choose|pick|think of|settle on|decide on)\b|\bthink (?:only )?of\b|\b(?:merely|just) (?=think)",
        "think of ",
        plain,
    )
    plain = re.sub(
        r"(?<!there )\b(?:should|must|will|would|can|could|may|shall|have to|ought to) (?:be found|be|lie|sit)\b",
        "be",
        plain,
    )
    plain = re.sub(r"\b(?:you|we|i|they) (?:will )?find ((?:⟨|\x00).*)", r"\1", plain)
    plain = (
        _DROPPED.sub(" ", plain)
        .replace("  ", " ")
        .replace("think of think of", "think of")
        .replace("think of of", "think of")
    )
    plain = re.sub(
        rf"\b(have|let|ask|get|build|invite|hand|give|show|tell|pass|to|by|for|want) her\b(?! (?:{_OWNED}))(?= (?P<next>\S+)|)",
        lambda m: f"{m[1]} {'their' if _is_owned(m['next']) else 'them'}",
        plain,
    )
    plain = re.sub(r"\b(?:their|her|his|spectator 's|helper 's|volunteer 's|own)\b(?! ?$)", "their", plain)
    plain = re.sub(r"\b(?:their )+", "their ", plain)
    plain = re.sub(r"\b(?:hers|theirs|his)\b|(?<=\bon )her$", "theirs", plain)
    plain = re.sub(r"\s+", " ", re.sub(r"[,;]", " , ", plain))
    plain = re.sub(r"\x00(\d+)\x00", lambda m: kept[int(m[1])], plain)
    plain = re.sub(r"\b(?:my|your|our)\b(?! ?$)", "my", plain)
    plain = re.sub(
        r", (?:it|that|they|number) be (?=at least|at most|between|from \d|up to|fewer|less|more than|no more|not more)",
        ", ",
        plain,
    )
    for said_so, same in _SAME:
        plain = re.sub(rf"(?<![\w])(?:{said_so})(?![\w])", same, plain)
    plain = re.sub(r" : \d+(?: cards)?$", "", plain.strip(" ,:?"))
    return re.sub(r"\s+", " ", plain).strip(" ,:?")


def _is_owned(word: str | None) -> bool:
    """Whether a word that follows *her* is something she has, rather than something she does."""
    return word is not None and word.isalpha() and word not in LEMMAS and word not in _NOT_OWNED


_NOT_OWNED = frozenset(
    "to and or if as in on at of off out up down face for with from any all a that it this these those them which what how when where while "
    "secretly silently quietly once twice again count until".split()
)


def _rank(word: str) -> str:
    return (
        RANK_MARKS.get(word, RANK_WORDS.get(word.lower(), word.lower()))
        if not word.isalpha()
        else RANK_WORDS[word.lower()]
    )


def _plain(word: str) -> str:
    if word in SHORT:
        return _plain(SHORT[word]) if SHORT[word].isalpha() else SHORT[word]
    if word in NUMBERS and word not in ("no", "hundred"):
        return str(NUMBERS[word])
    if word.endswith("ties") and word[:-3] + "y" in TENS:
        return f"{TENS[word[:-3] + 'y']}s"
    if word in ORDINALS:
        return ordinal(ORDINALS[word])
    if word in PEOPLE:
        return "they" if word != "people" else word
    if word in ("she", "he"):
        return "they"
    if word == "an":
        return "a"
    if word in ("him", "themselves", "himself", "herself"):
        return "them"
    if word in ("her", "his"):
        return "her"
    return LEMMA.get(word, word)


@cache
def vocabulary() -> tuple[str, ...]:
    """Every word that a note may be spelled towards."""
    from ..steps import REGISTRY  # the declarations know their words

    sentences = " ".join(
        [kind.sentence for kind in REGISTRY.values()] + [w for kind in REGISTRY.values() for w in kind.wordings]
    )
    found = set(re.findall(r"[a-z]{3,}", re.sub(r"\{[^}]*\}", " ", sentences).lower()))
    found |= {
        *LEMMAS,
        *LEMMA,
        *PARTICIPLES,
        *NUMBERS,
        *ORDINALS,
        *TIMES,
        *UNITS,
        *SUIT_WORDS,
        *RANK_WORDS,
        *DECK,
        *PILES,
        *PEOPLE,
        *ME,
        *EVERYBODY,
    }
    found |= {word for words in VERBS.values() for word in re.findall(r"[a-z]{3,}", words)}
    found |= set("spectator spectators their them they these those this that card cards from with without under over above below between twice again "
                 "mine yours ours hers both everything nothing whatever elsewhere somewhere anywhere back onto into bottom right left middle centre number numbers until when while last next each every which what many much value "
                 "colour suit red black half about roughly order prediction secretly together".split())  # fmt: skip
    return tuple(sorted(word for word in found if len(word) > 2))


@lru_cache(4096)
def mended(word: str) -> str:
    """The word that was meant, where this is no word we know but nearly one; names are never touched.

    >>> mended("spetator"), mended("crads"), mended("lantern")
    ('spectator', 'cards', 'lantern')
    """
    known = vocabulary()
    if len(word) < 3 or word in known:
        return word
    most = 1 if len(word) < 7 else 2
    near = process.extract(word, known, scorer=OSA.distance, score_cutoff=most, limit=12)
    if not near:
        return word
    least = min(distance for _, distance, _ in near)
    # Letters that changed places are the likelier slip, then one that was left out or typed twice.
    return min(
        (other for other, distance, _ in near if distance == least),
        key=lambda other: (
            sorted(other) != sorted(word),
            other[0] != word[0],
            not _lacks(word, other),
            set(other) != set(word),
            other,
        ),
    )


def respelled(text: str, names: Set[str]) -> str:
    """A text in which every word is a known one that nearly is; names, and what is written in capitals, stay."""
    return re.sub(r"[A-Za-z]{3,}", lambda m: m[0] if m[0] in names or m[0].isupper() else mended(m[0].lower()), text)


def _lacks(word: str, other: str) -> bool:
    """Whether the word is the other one with letters left out."""
    letters = iter(other)
    return all(letter in letters for letter in word)


@lru_cache(8192)
def as_read(word: str) -> str:
    """A word of a pattern as it stands in a normal sentence."""
    return _plain(word) if word.isalpha() or "-" in word else word
