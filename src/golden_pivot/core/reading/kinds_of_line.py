"""What a line of notes is: handling, a claim, patter, a remark; and lines that the language would take for something else."""

from __future__ import annotations

import re

from ..language.facets import Facet
from ..language.parser import read_routine, sentence
from ..language.templates import PERFORMER, Who, sentence_of
from .clauses import Clause
from .situation import Situation, numbers_of

_TRADE = frozenset("pack cards pile rest her him them she he top bottom half other others it these those".split())
"""words that are never the name of a new heap unasked"""
_REMARK = re.compile(
    r"^(?:(?:fan|spread|ribbon) (?:out )?(?:the )?(?:pack|deck|cards)|square (?:up )?(?:the )?(?:cards|pack|deck|packet|it|them|everything)|thank |applaud|pause|smile|wait|take your time|bow|shrug|"
    r"(?:(?:let |have )?(?:them|her|him|they|she|he) )?(?:show|shows) it (?:to|round) (?:the )?(?:others|friends|rest|audience)|spread the tabled|(?:find|look for|spot|locate) (?:the|your|my) key(?: card)?$|"
    r"(?:(?:they|she|he|(?:the )?spectator|you) )?(?:(?:remembers?|keeps? in mind|bears? in mind) (?:the|that|this|their|her|his) number|(?:keeps?|bears?) (?:the|that|this|it|their|her|his)(?: number)? in mind)|"
    r"nobody (?:may|must|should)|make sure nobody|roll up|look (?:away|puzzled|surprised|her in|him in|them in)|turn (?:your back|away|round)|build up|"
    r"give (?:the )?(?:pack|deck|cards) out for|have the (?:pack|deck|cards) examined|let them examine|(?:tell|make up) (?:a|some|the) (?:story|tale|joke)|talk (?:a little |a bit )?(?:about|of)|blow on|snap|tap the|wave|ask .* how (?:she|he|they) feel)",
    re.I,
)
_PATTER = re.compile(
    r"^(?:i'm going to|i am going to|i will now|you could have|have you ever|do you|did you|are you|isn't it|would you believe|please notice|notice that|remember that (?:i|you)|imagine|ladies|"
    r"as you can see|believe me|you've|watch (?:closely|my)|there is no way|i have not|i haven't|i never|my grandmother|once upon)|"
    r"(?:couldn't you|didn't you|isn't it|aren't they|don't you|haven't you|wouldn't you|won't you)\?$",
    re.I,
)  # fmt: skip
_SCRIPT = re.compile(
    r"\b(?:madam|sir|to yourself|leave me)\b|^(?:think of|pick a card|take a card|name a|choose a|pick a)",
    re.I,
)


def kept(text: str, s: Situation) -> str | None:
    """The line as patter or a remark, where it is one by its marks."""
    if text.startswith(("#", "“")) and (text.startswith("#") or text.endswith("”")):
        return text if not holds_handling(text) else None
    if (m := re.fullmatch(r"\((.*)\)", text)) is not None:
        return f"# {m[1]}"
    if (m := re.fullmatch(r"['\"‘](.*)['\"’]", text)) is not None:
        return f"“{m[1]}”"
    if (
        (
            m := re.fullmatch(
                r"(?:(note)|nb|n\.b\.|remark|tip|hint|beware|careful|aside|reminder)\s*:\s*(.*)", text, re.I
            )
        )
        and not (m[1] and s.in_set_up)
        and not claims_something(m[2])
    ):
        return f"# {m[2]}"
    if (
        (m := re.fullmatch(r"note\s*:\s*(.*)", text, re.I))
        and not claims_something(m[1])
        and re.match(r"nobody|no one|careful|mind|do not|don't|keep|watch", m[1], re.I)
    ):
        return f"# {m[1]}"
    if (
        m := re.fullmatch(r"(?:i|we|you) call (?:this|it) (?:one |routine |trick )?(.+?)\.?", text, re.I)
        or re.fullmatch(r"(?:title|called)\s*:\s*(.+?)\.?", text, re.I)
    ) is not None and "this" not in m[1].lower():
        return f"Title: {m[1]}"
    if (m := re.fullmatch(r"(?:with )?(?:many )?thanks to (.+?)\.?", text, re.I)) is not None:
        return f"Credit: {_small(m[1])}".replace(" for the", ", for the", 1)
    if re.fullmatch(
        r"(?:the )?[a-z ]*\b(?:idea|method|handling|principle|plot|presentation) (?:is|was|comes from|belongs to|came from|is due to|goes back to) (.+)",
        text,
        re.I,
    ) and not re.search(r"\bcards?\b", text):
        return f"Credit: {_small(text)}"
    if (
        s.in_set_up
        and re.match(
            r"(?:best|works best|works well|ideal|suitable|suited|good|made|meant|for (?:a |an )?(?:small|large|seated|walk)|close-up|takes? (?:about )?\w+ minutes?|for (?:\w+) spectators?|play(?:s|ed)? )\b",
            text,
            re.I,
        )
        and not re.search(r"\bcards?\b", text)
    ):
        return f"Note: {_small(text)}"
    if _REMARK.search(text):
        return f"# {text}"
    if _PATTER.search(text.replace("’", "'")):
        return f"“{text}”"
    return None


def _small(text: str) -> str:
    return (text[:1].lower() + text[1:].rstrip(".")).replace("'", "’")


def holds_handling(text: str) -> bool:
    """Whether somebody does what the line quotes."""
    return bool(re.search(r"”,? (?:you|i|they|she|he) (?:tell|say|ask)", text))


def claims_something(words: str) -> bool:
    """Whether a note says where something lies now."""
    return (
        bool(re.search(r"\b(?:is|are|lies)\b.*\b(?:now|top|bottom|\w+th|\w+st|\w+nd|\w+rd)\b", words, re.I))
        and "nobody" not in words.lower()
    )


def may_mislead(text: str, s: Situation) -> bool:
    """Whether the language reads it as something that a person would not: a word of the trade that becomes a new heap, a note that claims."""
    if (re.match(r"note\s*:", text, re.I) and not s.in_set_up) or text.startswith("“"):
        return True
    read = sentence(text.strip())
    if read is None:
        return False
    places = {read.values.get(slot) for slot, kind, _, _ in read.spans if kind == "place"}
    return any(isinstance(place, str) and place.lower() in _TRADE and place not in s.sizes for place in places)


def bared(text: str) -> str:
    """Without what only says what kind of line it is; a quotation that someone acts on without its marks."""
    text = re.sub(r"^(?:\d+[.)]|[-*•–])\s+", "", text)
    if (
        m := re.fullmatch(
            r"“([^”]+)”,? (?:you|i) (?:tell|say to|ask) (?:her|him|them|the \w+),? ?(?:and so (?:she|he|they) do(?:es)?)?\.?",
            text,
        )
    ) is not None:
        return f"They {m[1].strip(' ,.').lower()}"
    return re.sub(r"^note\s*:\s*", "", text, flags=re.I).strip().rstrip(".!")


def is_script(text: str) -> bool:
    """Whether the imperative is spoken to the spectator."""
    return bool(_SCRIPT.search(text))


def left_over(text: str) -> str | None:
    """A line that nothing else was found in, where it is spoken to somebody."""
    return (
        f"“{text}”"
        if re.match(r"(?:you (?:may|will|can|could|see)|i (?:will|shall|want)|let me|let us|let's)", text, re.I)
        else None
    )


def _rounds(times: int, s: Situation) -> tuple[str, ...] | None:
    """The lines above once more, from the last deal into piles on: what is told in them has a new name. Without one, the last line."""
    first = max((i for i, line in enumerate(s.lines) if line.has(Facet.DEALS_PILES)), default=len(s.lines) - 1)
    again = s.lines[first:]
    if not again or any(line.body or line.text != line.text.lstrip() for line in again):
        return None
    said = "\n".join(f"  {line.text.strip()}" for line in again)
    taken = set(s.names)
    for name in sorted({name for line in again for name in numbers_of(line)}):
        fresh = next((one for one in "abcdefghjkmnpqrstvwxyz" if one not in taken), None)
        if fresh is None:
            return None
        taken.add(fresh)
        said = re.sub(rf"(?<![\w’']){re.escape(name)}(?![\w’'])", fresh, said)
    return f"Repeat {times} times:", *said.split("\n")


def special(lines: tuple[str, ...], clause: Clause, s: Situation) -> tuple[str, ...] | None:
    """Readings that go by what stands above, not by words."""
    if lines[0] in ("again", "again twice"):
        if s.last is None or s.last.kind is None or s.last.kind.opens_block:
            return None
        sentence = s.last.text.strip()
        return (sentence,) if lines[0] == "again" else ("Repeat 2 times:", f"  {sentence}")
    if lines[0].startswith("round "):
        return _rounds(int(lines[0].removeprefix("round ")), s)
    if lines[0] == "point-to-one":
        row = next((place for place in reversed(list(s.sizes)) if place in s.rows and s.has(place)), None)
        name = next((one for one in "kmpqrabcd" if one not in s.names), None)
        if row is None or name is None:
            return None
        card = "their card" if s.their_card is None else "SECOND"
        return (
            f"Spectator names a number {name} from 1 to {s.sizes[row]}",
            f"Spectator remembers the {name}th card of {row}: {card}",
        )
    if lines[0] == "deal-alternately":
        n = int(re.search(r"for (\d+)", clause.words)[1])  # type: ignore[index]
        return (
            f"Repeat {n // 2} times:",
            "  Deal 1 card from deck face up to table",
            "  Deal 1 card from deck face down to table",
        )
    if lines[0] == "deal-square":
        rows, across = map(int, re.search(r"(\d+) by (\d+)", clause.words).groups())  # type: ignore[union-attr]
        return tuple(f"Deal {across} cards from deck to row {i}, from left to right" for i in range(1, rows + 1))
    if not lines[0]:
        return None
    return tuple(by(line, clause.who) for line in lines)


def by(line: str, who: str | None) -> str:
    """The sentence with this doer; a sentence that has none stays as it is."""
    if who in (None, PERFORMER):
        return line
    head = line[: len(line) - len(line.lstrip())]
    (read, *_) = read_routine(line.strip()).lines
    if read.kind is None or not any(isinstance(one, Who) for one in read.kind.elements):
        return line
    return head + sentence_of(read.kind.elements, {**read.values, "who": who})
