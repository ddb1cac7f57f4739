"""A performance as it is written into the book, and what may not be written there."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from datetime import date
from typing import Literal, get_args

from ..faults import PivotError

Ending = Literal["as planned", "another way", "failed"]
ENDINGS: tuple[str, ...] = get_args(Ending)
EARLIEST = date(1900, 1, 1)
MOST_CHOSEN = 9999
MOST_MINUTES = 600
MOST_LETTERS = 2000
"""of each of the fields of words"""
_SHORT = ("title", "occasion", "audience", "slip", "note")
_UID = re.compile(r"[0-9a-f]{1,64}")
_NAME = re.compile(r"[^\s=;,](?:[^=;\n\r]{0,78}[^\s=;,])?")
"""of a choice, and what was chosen where it is no number: what a table writes as `name=12; other=the queen of hearts`"""
Chosen = int | str
"""a number, or what was chosen in words"""


class BadEntry(PivotError, ValueError):
    """An entry that cannot be so: in which field, what is the matter, what to do."""

    def __init__(self, field: str, message: str, remedy: str) -> None:
        super().__init__(f"{message} {remedy}")
        self.field, self.message, self.remedy = field, message, remedy


@dataclass(frozen=True)
class Performance:
    """One showing of one routine. It keeps the text that was played, whatever becomes of the routine."""

    uid: str
    played_on: str
    """the day, as in 2026-11-28"""
    routine: str
    """the uid of the routine; empty where it was on no shelf"""
    title: str
    text: str
    """the routine as it was played"""
    occasion: str = ""
    audience: str = ""
    ended: Ending = "as planned"
    chosen: Mapping[str, Chosen] = field(default_factory=dict)
    """name of a choice of the routine → what it was; words that are a number are kept as one"""
    slip: str = ""
    minutes: float | None = None
    went: int | None = None
    """how it went, 1 to 5"""
    note: str = ""


def day_of(words: str) -> date:
    """A day as it is written: 2026-11-28 or 28.11.2026. Raises BadEntry for anything else, such as 11/28/26."""
    plain = words.strip()
    day, dots, rest = plain.partition(".")
    month, _, year = rest.partition(".")
    try:
        return date(int(year), int(month), int(day)) if dots else date.fromisoformat(plain)
    except (ValueError, OverflowError):
        raise BadEntry("played_on", f"“{plain[:40]}” is no day.", "Write it as 2026-11-28 or 28.11.2026.") from None


def mark(uid: str) -> str:
    """The mark of an entry, as it is. Raises BadEntry for what is none."""
    if not _UID.fullmatch(uid):
        raise BadEntry("uid", f"“{uid[:40]}” is no mark of an entry.", "Leave the column uid empty for a new one.")
    return uid


def checked(entry: Performance, today: date) -> Performance:
    """The entry with its day as it is kept. Raises BadEntry."""
    mark(entry.uid)
    for name in (*_SHORT, "routine", "text"):
        words = getattr(entry, name)
        if words != words.encode(errors="replace").decode():
            raise BadEntry(name, "It has half a letter that is no text.", "Write it anew.")
        if name in _SHORT and len(words) > MOST_LETTERS:
            raise BadEntry(name, f"There are more than {MOST_LETTERS:,} letters.", "Write less.")
    day = day_of(entry.played_on)
    if day > today:
        raise BadEntry("played_on", f"{day} is still to come.", "The book has what was; take a day up to today.")
    if day < EARLIEST:
        raise BadEntry("played_on", f"{day} is too long ago.", f"Take a day from {EARLIEST} on.")
    if entry.ended not in ENDINGS:
        raise BadEntry("ended", f"“{entry.ended}” is no way to end.", f"Take one of: {', '.join(ENDINGS)}.")
    chosen = {name: _chosen(name, choice) for name, choice in entry.chosen.items()}
    if entry.minutes is not None and not 0 < entry.minutes <= MOST_MINUTES:
        raise BadEntry("minutes", f"It cannot have taken {entry.minutes:g} minutes.", f"Take up to {MOST_MINUTES}.")
    if entry.went is not None and not 1 <= entry.went <= 5:
        raise BadEntry("went", f"{entry.went} is no way to go.", "Take 1 (badly) to 5 (very well), or leave it out.")
    return replace(entry, played_on=day.isoformat(), chosen=chosen)


def _chosen(name: str, choice: Chosen) -> Chosen:
    """As it is kept. Raises BadEntry."""
    for words in (name, choice):
        if isinstance(words, str) and (
            not _NAME.fullmatch(words) or words != words.encode(errors="replace").decode()
        ):
            what = (
                f"no name of a choice: “{name[:40]}”" if words is name else f"{name} cannot have been “{words[:40]}”"
            )
            raise BadEntry("chosen", f"{what[0].upper()}{what[1:]}.", "Take up to 80 letters without = or ;")
    if isinstance(choice, str) and choice.isascii() and choice.isdigit():
        choice = int(choice)
    if isinstance(choice, int) and not 0 <= choice <= MOST_CHOSEN:
        raise BadEntry("chosen", f"{name} cannot have been {choice}.", f"Take a number from 0 to {MOST_CHOSEN:,}.")
    return choice
