"""Cards by where they lie, as notes point at them: the last one dealt, the third from the left, the one at that number."""

from __future__ import annotations

import re

from ..english import ordinal
from .amounts import number_said
from .nouns import Found, Tokens, place_named
from .situation import Situation

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
    if (m := re.fullmatch(r"(?:card|1|one) (?:of|in|inside) (.+)", words)) and (where := place_named(m[1], s)):
        return f"the top card of {where}" if s.sizes.get(where) == 1 else None
    if (m := re.fullmatch(r"(\w+?)(?: (?:card|1|one))?(?: (?:of|in|on|from) (.+))?", words)) and (end := _end(m[1])):
        where = place_named(m[2], s) if m[2] else default_heap(s)
        return f"the {end} card of {where}" if where else None
    if (m := re.fullmatch(r"(?:card )?(?:at|on) (?:very )?(top|bottom|face)(?: (?:of|in|on) (.+))?", words)) or (
        m := re.fullmatch(r"card (?:lying )?underneath()(?: (.+))?", words)
    ):
        end = _end(m[1] or "bottom")
        where = place_named(m[2], s) if m[2] else default_heap(s)
        return f"the {end} card of {where}" if where else None
    if m := re.fullmatch(
        r"(?:which card|what|card that|1 that|whatever) (?:be|lie) (?:(?:at|on) )?(ontop|top|bottom|face)(?: (?:of|in|on) (.+))?",
        words,
    ):
        end = "top" if m[1] == "ontop" else _end(m[1])
        where = place_named(m[2], s) if m[2] else default_heap(s)
        return f"the {end} card of {where}" if where else None
    if m := re.fullmatch(r"(ontop|underneath)(?: (?:of )?(.+))?", words):
        where = place_named(m[2], s) if m[2] else default_heap(s)
        return f"the {'top' if m[1] == 'ontop' else 'bottom'} card of {where}" if where else None
    if m := re.fullmatch(r"(?:middle|centre) (?:card|1)(?: (?:of|in) (.+))?", words):
        where = place_named(m[1], s) if m[1] else (sorted(s.rows)[0] if s.rows else default_heap(s))
        many = s.sizes.get(where or "", 0)
        return f"the {ordinal((many + 1) // 2)} card of {where}" if many % 2 else None
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
        r"(?:card (?:that lie )?(?:at|in) (?:position |place |number |their )?|(?:at )?(?:position|number|card number) )(.+?)(?: (?:position|place))?(?: (?:of|in|from) (.+))?",
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
