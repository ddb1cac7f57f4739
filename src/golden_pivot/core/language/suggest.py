"""How a line that is being typed could go on."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from ..steps import REGISTRY, StepKind
from .habits import Habits, kind_before
from .parser import has_subject, sentence
from .routine import Routine
from .templates import PERFORMER, SPECTATOR, Miss, Phrases, Reading, Verb, join, outline
from .words import words_of

MOST = 12
NONE = Habits()


@dataclass(frozen=True)
class Suggestion:
    text: str
    """the whole line as it would then stand, without its margin; a `?` is a gap still to fill"""
    family: str
    summary: str


def suggestions(typed: str, routine: Routine, line: int, habits: Habits = NONE) -> list[Suggestion]:
    """Sentences that begin as `typed` does, those first that by habit follow on the line above; names already used above `line` fill
    their gaps.

    `typed` is the line up to the cursor, without its margin; the last word may be half written.
    """
    if sentence(typed.strip()):
        return []  # it says something as it stands: what it could become is nobody's question
    fresh = _names_above(routine, line)
    found: dict[str, Suggestion] = {}
    before = kind_before(routine, line)
    for kind in sorted(REGISTRY.values(), key=lambda kind: habits.rank(before, kind.example)):
        for text in _continuations(kind, typed, fresh):
            text = text[:1].upper() + text[1:]
            found.setdefault(text, Suggestion(text, kind.family, kind.summary))
    return list(found.values())[:MOST] if typed.strip() else list(found.values())


def _names_above(routine: Routine, line: int) -> Mapping[str, str]:
    """What to put into a slot of each type: the name last used for one, or a new one."""
    fresh = {"other place": "table"}
    taken: set[str] = set()
    for row in routine.walk():
        if row.number >= line or row.kind is None:
            continue
        for name, type_name, _, _ in row.spans:
            value = row.values[name]
            if type_name == "card":
                fresh["card"] = str(value)
            elif type_name == "place" and value != "deck":
                fresh["other place"] = str(value)
            elif type_name == "range":
                taken.add(value.name)
                fresh["names"] = value.name
    new = next((letter for letter in "nmkabcdefghijpqrstuvwxyz" if letter not in taken), "n")
    fresh["range"] = f"{new} from ? to ?"
    return fresh


def _continuations(kind: StepKind, typed: str, fresh: Mapping[str, str]) -> Iterator[str]:
    if not typed.strip():
        yield outline(kind.elements, fresh)
        if has_subject(kind):
            yield outline(kind.elements, fresh, SPECTATOR)
        return
    words = words_of(typed)
    half_written = not typed[-1:].isspace()
    reading = Reading(typed, words)
    if reading.match(kind.elements):
        return
    who = SPECTATOR if words[0].lower == "spectator" else PERFORMER
    for miss in reading.misses:
        yield from _finished(typed, miss, half_written, who, fresh)
    if half_written and len(words) == 1 and "spectator".startswith(words[0].lower) and has_subject(kind):
        yield outline(kind.elements, fresh, SPECTATOR)


def _finished(typed: str, miss: Miss, half_written: bool, who: str, fresh: Mapping[str, str]) -> Iterator[str]:
    words = words_of(typed)
    if not miss.rest:
        return
    rest = outline(miss.rest, fresh, who)
    if miss.at == len(words):
        # A card by where it lies begins with an article that may have been typed.
        yield join([typed.rstrip(), rest.removeprefix("the ") if words[-1].lower == "the" else rest])
    elif miss.at == len(words) - 1 and half_written:
        last = words[-1]
        first = miss.rest[0]
        # The word being typed must be the start of what would stand there.
        if isinstance(first, Phrases | Verb) and rest.lower().startswith(last.lower):
            yield join([typed[: last.start].rstrip(), rest]).strip()
