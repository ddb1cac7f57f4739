"""Names and people as notes give them: *Remember the bottom card: KEY*, *the second spectator shuffles*."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import replace

from .answer import NOTHING, Answer, checked

Read = Callable[[str, str, str], Answer]
"""the lines before, a line and its margin → what it is read as"""

_NAMED = re.compile(r"(.+?)(?: ?[:=]|,? as|,? (?:and )?calls? it|,? which you call) ([A-Z][A-Z0-9]*)")
_NEW_NAME = re.compile(r": [^:]+$")


def under_its_name(before: str, text: str, margin: str, read: Read) -> Answer | None:
    """*Remember the bottom card: KEY*: what the sentence would name anew has the name that is given."""
    m = _NAMED.fullmatch(text)
    found = read(before, m[1], margin) if m and not _NAMED.fullmatch(m[1]) else NOTHING
    if m is None or not found.is_sure or not _NEW_NAME.search(found.readings[0].lines[-1]):
        return None
    *first, last = found.readings[0].lines
    return _as_it_stands(before, (*first, _NEW_NAME.sub(f": {m[2]}", last)), margin, found)


_PERSON = re.compile(
    r"(?:the |an? )?(?:(2nd|second|3rd|third|other|another) (spectator|guest|helper|volunteer|person)|spectator (two|three|[2-9]))\b",
    re.I,
)
_PEOPLE = {"2nd": 2, "second": 2, "other": 2, "another": 2, "two": 2, "3rd": 3, "third": 3, "three": 3}


def by_that_person(before: str, text: str, margin: str, read: Read) -> Answer | None:
    """*The second spectator shuffles*: it matters who knows what."""
    m = _PERSON.match(text)
    found = read(before, f"Spectator{text[m.end() :]}", margin) if m else NOTHING
    if m is None or not found.is_sure:
        return None
    said = (m[1] or m[3]).lower()
    number = _PEOPLE.get(said) or int(said)
    lines = tuple(
        re.sub(r"^( *)Spectator (?!\d)", rf"\1Spectator {number} ", line) for line in found.readings[0].lines
    )
    return _as_it_stands(before, lines, margin, found)


def _as_it_stands(before: str, lines: tuple[str, ...], margin: str, found: Answer) -> Answer | None:
    sound = checked(before, lines, margin)
    return Answer((replace(found.readings[0], lines=sound),)) if sound else None
