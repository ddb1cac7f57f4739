"""A line of text cut into words, each knowing the columns it came from."""

from __future__ import annotations

import re
from dataclasses import dataclass

_WORD = re.compile(
    r"(?P<quoted>[\"“][^\"“”]*[\"”])|(?P<ordinal>[0-9]+(?:st|nd|rd|th)\b)|(?P<number>[0-9]+)|(?P<word>face-(?:up|down)\b|[^\W\d_]\w*(?:['’]\w+)*)|(?P<mark>\S)",
    re.IGNORECASE,
)


RESERVED = frozenset(
    """
    and as at back bottom by card cards digit divided down each even every face face-down face-up from half have holds how if in
    into is it last least left less letters max min minus more most next not odd of on or other others over
    piles plus position quotient remainder rest reversal right root rounded same shielded size spectator suit
    sum tens than that the their times to top twice under units until up value went which with
    """.split()
)
"""Words of the sentences and of numbers that cannot also be names, so that a sentence has one meaning."""


@dataclass(frozen=True)
class Word:
    """`start` and `end` are offsets from 0 into the line; `end` is just behind the last character."""

    text: str
    start: int
    end: int
    kind: str
    """quoted (with its marks), ordinal (10th), number, word, or mark (a single other character)"""

    @property
    def lower(self) -> str:
        return self.text.lower()


def words_of(line: str) -> tuple[Word, ...]:
    """
    >>> [w.text for w in words_of("Place FORCE 10th, n-2")]
    ['Place', 'FORCE', '10th', ',', 'n', '-', '2']
    """
    return tuple(Word(m[0], m.start(), m.end(), m.lastgroup or "mark") for m in _WORD.finditer(line))
