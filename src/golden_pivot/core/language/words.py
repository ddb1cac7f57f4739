"""A line of text cut into words, each knowing the columns it came from."""

from __future__ import annotations

import re
from dataclasses import dataclass

_WORD = re.compile(
    r"(?P<ordinal>\d+(?:st|nd|rd|th)\b)|(?P<number>\d+)|(?P<word>[^\W\d_]\w*(?:['’]\w+)*)|(?P<mark>\S)",
    re.IGNORECASE,
)


@dataclass(frozen=True)
class Word:
    """`start` and `end` are offsets from 0 into the line; `end` is just behind the last character."""

    text: str
    start: int
    end: int
    kind: str
    """ordinal (10th), number, word, or mark (a single other character)"""

    @property
    def lower(self) -> str:
        return self.text.lower()


def words_of(line: str) -> tuple[Word, ...]:
    """
    >>> [w.text for w in words_of("Place FORCE 10th, n-2")]
    ['Place', 'FORCE', '10th', ',', 'n', '-', '2']
    """
    return tuple(Word(m[0], m.start(), m.end(), m.lastgroup or "mark") for m in _WORD.finditer(line))
