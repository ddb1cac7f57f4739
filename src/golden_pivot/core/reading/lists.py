"""Cards of the set-up that are listed: one suit after the other, several cards at known places, all four of a kind."""

from __future__ import annotations

import re

from ..cards import RANKS, SUITS
from ..english import ordinal
from .lexicon import RANK_WORDS, SUIT_WORDS
from .situation import Situation


def listed(plain: str, s: Situation) -> str | None:
    """The sentence of the set-up that a normal sentence comes to, if it is such a list."""
    if not s.in_set_up:
        return None
    return _suits(plain, s) or _cards(plain, s) or _of_a_kind(plain)


def _suits(plain: str, s: Situation) -> str | None:
    words = re.findall(r"[a-z]+|\d+|⟨", plain)
    suits = [SUIT_WORDS[word] for word in words if word in SUIT_WORDS]
    ranks = [
        RANK_WORDS.get(word) or (RANKS[int(word) - 1] if word.isdigit() and 1 < int(word) < 11 else None)
        for word in words
    ]
    named = [rank for rank in ranks if rank]
    if not suits or "⟨" in words or len(named) != 2 or s.has_pack:
        if (
            suits
            and len(suits) == len(SUITS)
            and not s.has_pack
            and "⟨" not in words
            and re.search(r"in order|sequence|new deck|ace to king", plain)
        ):
            return f"Pack: {', '.join(dict.fromkeys(suits))}, each from ace to king"
        return None
    return f"Pack: {', '.join(dict.fromkeys(suits))}, each from {named[0]} to {named[1]}"


def _cards(plain: str, s: Situation) -> str | None:
    cards = re.findall(r"⟨([^⟩]+)⟩", plain)
    if re.match(r"\d+ cards\b", plain) and not s.has_pack:
        return None
    if len(cards) < 2 or any(" of " not in card for card in cards):
        return None
    rest = re.sub(r"⟨[^⟩]+⟩", " ", plain)
    both = re.search(r"\bontop|\btop\b", rest) and re.search(r"\bbottom\b|\bface\b", rest)
    if both or re.search(r"\b(?:beside|under|swap|between|mate|partner)\b", rest):
        return None
    if (
        m := re.search(r"\bcards? (\d+)(?: ?(?:,|and|to|~) ?\d+)*", rest)
        or re.search(r"\b(\d+)(?:st|nd|rd|th) (?:down|onwards|on)", rest)
        or re.search(r"from (?:the )?(\d+)(?:st|nd|rd|th)", rest)
    ):
        first = ordinal(int(m[1]))
    elif (said := list(map(int, re.findall(r"\b(\d+)(?:st|nd|rd|th)\b", rest)))) and len(said) > 1:
        if said != list(range(said[0], said[0] + len(cards))):
            return None  # each at a place of its own
        first = ordinal(said[0])
    elif re.search(
        r"below (?:these|them|that)|beneath (?:these|them)|next|follow|under these|after (?:these|them|that)", rest
    ) or _placed(s):
        first = ordinal(_placed(s) + 1)
    else:
        first = "on top"
    return f"Place {', '.join(cards)} in this order, the first {first}"


def _placed(s: Situation) -> int:
    """How many cards lie at known places from the top, as the last list says."""
    last = s.last
    if last is None or "cards" not in last.values or "position" not in last.values:
        return 0
    at = getattr(last.values["position"].at, "value", 1)
    return int(at) - 1 + len(last.values["cards"])


def _of_a_kind(plain: str) -> str | None:
    m = re.match(
        r"(?:put |place |get |set )?(?:all )?4 (\w+) (?:be |go |come )?(ontop|at (?:bottom|face)|to top)\b", plain
    )
    rank = RANK_WORDS.get(m[1]) if m else None
    if m is None or rank is None:
        return None
    cards = ", ".join(f"{rank} of {suit}" for suit in SUITS)
    return f"Place {cards} in this order, the first {'on top' if 'top' in m[2] else '4th from the bottom'}"
