"""A whole page of notes, sentence by sentence: what each was read as, what is open, what was kept as a remark.

Nothing is lost: what was not understood stands as a remark in its place.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from .amounts import range_said
from .answer import Answer, Reading
from .lexicon import LEMMAS
from .normal import normal
from .reader import read_line
from .situation import situation_of

PACK = "Pack: 52 cards, any order"


@dataclass(frozen=True)
class Sentence:
    said: str
    """empty for what the page does not say and what is taken for granted"""
    answer: Answer
    lines: tuple[str, ...]
    """what stands for it in the routine, with its margin"""
    is_understood: bool
    taken: int = 0
    """which of the readings is in the routine; AS_REMARK for none"""


@dataclass(frozen=True)
class Page:
    sentences: tuple[Sentence, ...]
    text: str
    """the routine that the first readings make"""

    @property
    def questions(self) -> tuple[Sentence, ...]:
        return tuple(one for one in self.sentences if one.answer.asks)

    @property
    def unread(self) -> tuple[str, ...]:
        """Sentences that are only remarks in the routine, although something may be done in them: what it says without them is
        not what the page says."""
        return tuple(
            one.said for one in self.sentences
            if not one.is_understood and not one.said.startswith("“") and (not one.answer.readings or _is_about_cards(one.said))
        )  # fmt: skip


AS_REMARK = -1


def read_page(text: str, chosen: Mapping[str, int] | None = None) -> Page:
    """`chosen`: sentence → which of its readings is meant, from 0; AS_REMARK to keep it as a remark."""
    chosen = chosen or {}
    found: list[Sentence] = []
    rows: list[str] = []
    waiting = list(sentences_of(text))
    while waiting:
        said = waiting.pop(0)
        if said.startswith("“"):
            pass
        elif (ranged := _other_range(said, rows)) is not None:
            rows = ranged
            found.append(Sentence(said, Answer(), (), True))
            continue
        one = _read(said, rows, chosen)
        if (
            not one.is_understood
            and said not in chosen
            and _is_about_cards(said)
            and waiting
            and not waiting[0].startswith("“")
        ):
            # What one sentence leaves open the next may say.
            joined = f"{said.rstrip('.')}, {waiting[0]}"
            both = _read(joined, rows, chosen)
            if both.is_understood or joined in chosen:
                one, said = both, joined
                waiting.pop(0)
        if one.lines and _needs_pack(one, rows):
            rows.append(PACK)
            found.append(Sentence("", Answer((Reading((PACK,), (PACK,)),)), (PACK,), True))
            one = _read(said, rows, chosen)
        found.append(one)
        rows += one.lines
    return Page(tuple(found), "".join(f"{row}\n" for row in rows))


def _other_range(said: str, rows: list[str]) -> list[str] | None:
    """The rows with another range for the last number, where the sentence says no more than what it may be."""
    plain = normal(said, frozenset())
    m = re.fullmatch(
        r"(?:it|they|that|number|this|that number|packet|these) (?:be|may be|may say|say|must be|may name|can be)(?: anything)? (.+?)(?: too| as well)?",
        plain,
    )
    at = next((i for i in range(len(rows) - 1, -1, -1) if re.search(r" from \d+ to \d+", rows[i])), None)
    if m is None or at is None:
        return None
    low, high = map(int, re.findall(r" from (\d+) to (\d+)", rows[at])[-1])
    said_range = range_said(m[1], 52)
    if both := re.fullmatch(r"(\d+) or (\d+)", m[1]):
        low, high = min(low, int(both[1])), max(high, int(both[2]))
    elif said_range:
        low, high = said_range[0][0]
    else:
        return None
    return [*rows[:at], re.sub(r" from \d+ to \d+", f" from {low} to {high}", rows[at], count=1), *rows[at + 1 :]]


def sentences_of(text: str) -> Iterator[str]:
    """The sentences and quotations of a page, in order; a list is read line by line."""
    for paragraph in re.split(r"\n+|¶", text):
        rest = paragraph.strip()
        for piece in re.split(r"(“[^”]*”|\"[^\"]*\")", rest):
            if re.fullmatch(r"“[^”]*”|\"[^\"]*\"", piece):
                yield f"“{piece[1:-1].strip()}”"
                continue
            for said in re.split(r"(?<=[.!?])\s+(?=[A-Z0-9“(])|(?<=:)\s+(?=[A-Z])", piece):
                if re.search(r"\w", said):
                    yield said.strip(" ,")


def _is_about_cards(said: str) -> bool:
    """Whether anything is done in it that is done with cards."""
    return not LEMMAS.keys().isdisjoint(normal(said, frozenset()).split())


def _needs_pack(one: Sentence, rows: list[str]) -> bool:
    """Whether this is the first line that cannot stand before a pack."""
    if any(row.startswith("Pack:") for row in (*rows, *one.lines)):
        return False
    return one.is_understood and not all(
        re.match(r"(?:Title|Note|Credit|Pack|Assumed)\b|#|“", line.strip()) for line in one.lines
    )


def _read(said: str, rows: list[str], chosen: Mapping[str, int]) -> Sentence:
    if not any(row.strip() for row in rows) and (m := re.fullmatch(r"([A-Z][A-Z0-9 ’'!?,-]{2,})\.?", said)):
        return Sentence(said, Answer((Reading((f"Title: {_titled(m[1])}",)),)), (f"Title: {_titled(m[1])}",), True)
    before = "\n".join(rows)
    margin = situation_of(before).opened if rows else ""
    # Without a pack nothing can be done: the usual one is taken, to be named as taken for granted.
    answer = read_line(before, margin + said)
    if not answer.readings and not any(row.startswith("Pack:") for row in rows):
        behind = read_line("\n".join([*rows, PACK]), margin + said)
        if behind.readings and not behind.readings[0].lines[0].startswith("#"):
            answer = behind
    nth = chosen.get(said, 0)
    if nth != AS_REMARK and answer.readings:
        nth = min(nth, len(answer.readings) - 1)
        lines = tuple(_placed(line, margin, rows) for line in answer.readings[nth].lines)
        return Sentence(said, answer, lines, not lines[0].lstrip().startswith("#"), nth)
    if answer.readings:
        return Sentence(said, answer, (f"{margin}# {said.strip('“”')}",), True, AS_REMARK)
    return Sentence(said, answer, (f"{margin}# {said.strip('“”')}",), False)


def _placed(line: str, margin: str, rows: list[str]) -> str:
    """Patter stands below the line it is said with."""
    if line.startswith("“") and rows:
        last = rows[-1]
        inside = len(last) - len(last.lstrip())
        return " " * (inside if last.lstrip().startswith("“") else inside + 2) + line
    return margin + line


def _titled(words: str) -> str:
    small = {"a", "an", "the", "of", "and", "or", "in", "on", "to", "at", "by", "for"}
    found = words.strip(" .").lower().split()
    return " ".join(word if i and word in small else word.capitalize() for i, word in enumerate(found))
