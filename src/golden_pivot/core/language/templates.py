"""Sentence templates: one string says how a kind of step is written, read, suggested and documented.

{who} deal+s {count:number} {#count} from {from:place}[ to {to:place}]

words           stand for themselves, in any case
{who}           the subject: `Spectator`, or nothing, which is the performer
Spectator       the subject, where it can only be one; either may have a number behind it, for one of several
deal+s          a verb: `deal` for the performer, `deals` for the spectator
{name:type}     a slot, read by its slot type
{name?words}    a flag: true when the words stand there
{name=one|two}  a choice of phrases; the phrase is the value
{#name}         `cards`, or `card` where the number in slot `name` is 1
(one|two)       phrases that mean the same; the first is the one written
[ … ]           may be left out
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from .expressions import Blank, Number
from .phrases import NotHere
from .slots import SLOT_TYPES
from .words import Word, words_of

PERFORMER, SPECTATOR = "performer", "spectator"
_SUBJECT = "spectator"
PERSON, MOST_PEOPLE = "person", 9
"""under which a line keeps which spectator it is, where it says so, from 1"""


@dataclass(frozen=True)
class Phrases:
    """One of several phrases, each a tuple of lower-case words. With a name it is a value, else just words."""

    options: tuple[tuple[str, ...], ...]
    name: str | None = None


@dataclass(frozen=True)
class Slot:
    name: str
    type: str


@dataclass(frozen=True)
class Flag:
    name: str
    words: tuple[str, ...]


@dataclass(frozen=True)
class Verb:
    stem: str
    ending: str


@dataclass(frozen=True)
class Who:
    pass


@dataclass(frozen=True)
class Person:
    """The subject of a sentence that only a spectator can be: `Spectator`, or one of several, `Spectator 2`."""


@dataclass(frozen=True)
class Cards:
    counted: str
    or_one: bool = False
    """the number may be left out: it is then one"""


@dataclass(frozen=True)
class Optional:
    inside: tuple[Element, ...]


Element = Phrases | Slot | Flag | Verb | Who | Person | Cards | Optional
Span = tuple[str, str, int, int]
"""slot name, slot type, first column and column behind the last, as offsets from 0 into the line"""


@dataclass(frozen=True)
class Match:
    values: Mapping[str, Any]
    spans: tuple[Span, ...]


@dataclass(frozen=True)
class Miss:
    """Where a template stopped fitting: `at` counts words from 0; `rest` is what the sentence still needs."""

    at: int
    expected: str
    rest: tuple[Element, ...]


_PIECE = re.compile(
    r"\{(?P<who>who)\}|\{#(?P<cards>\w+)\}|\{(?P<slot>\w+):(?P<type>\w+)\}|\{(?P<flag>\w+)\?(?P<words>[^}]+)\}"
    r"|\{(?P<enum>\w+)=(?P<phrases>[^}]+)\}|\((?P<same>[^)]+)\)|(?P<open>\[)|(?P<close>\])"
    r"|(?P<verb>\w+)\+(?P<ending>\w+)|(?P<word>[\w’']+|[^\s\w])"
)


def _phrases(text: str) -> tuple[tuple[str, ...], ...]:
    return tuple(tuple(word.lower for word in words_of(phrase)) for phrase in text.split("|"))


def compile_template(sentence: str) -> tuple[Element, ...]:
    """
    >>> compile_template("tell+s {names:names}")
    (Verb(stem='tell', ending='s'), Slot(name='names', type='names'))
    """
    stack: list[list[Element]] = [[]]
    for piece in _PIECE.finditer(sentence):
        kind, text = piece.lastgroup, piece[0]
        if kind == "open":
            stack.append([])
        elif kind == "close":
            inside = tuple(stack.pop())
            stack[-1].append(Optional(inside))
        elif kind == "who":
            stack[-1].append(Who())
        elif kind == "cards":
            inside_optional = [e for one in stack[-1] if isinstance(one, Optional) for e in slots_in(one.inside)]
            stack[-1].append(
                Cards(piece["cards"], piece["cards"] in [getattr(e, "name", "") for e in inside_optional])
            )
        elif kind == "type":
            stack[-1].append(Slot(piece["slot"], SLOT_TYPES[piece["type"]].name))
        elif kind == "words":
            stack[-1].append(Flag(piece["flag"], _phrases(piece["words"])[0]))
        elif kind == "phrases":
            stack[-1].append(Phrases(_phrases(piece["phrases"]), piece["enum"]))
        elif kind == "same":
            stack[-1].append(Phrases(_phrases(piece["same"])))
        elif kind == "ending":
            stack[-1].append(Verb(piece["verb"], piece["ending"]))
        elif text == "Spectator" and stack == [[]]:
            stack[-1].append(Person())
        else:
            stack[-1].append(Phrases(((text.lower(),),)))
    (elements,) = stack
    return tuple(elements)


def slots_in(elements: Sequence[Element]) -> Iterator[Element]:
    """The elements that carry a value, in order."""
    for element in elements:
        if isinstance(element, Optional):
            yield from slots_in(element.inside)
        elif isinstance(element, Slot | Flag | Who) or (isinstance(element, Phrases) and element.name):
            yield element


def may_say_who(elements: Sequence[Element]) -> bool:
    """Whether a spectator can be the subject."""
    return any(isinstance(element, Who | Person) for element in elements)


def slot_names(elements: Sequence[Element]) -> set[str]:
    return {"who" if isinstance(one, Who) else one.name for one in slots_in(elements)}  # type: ignore[union-attr, misc]


def phrases_of(elements: Sequence[Element], slot: str) -> Iterator[tuple[str, ...]]:
    """The phrases that may stand in a slot, word by word."""
    for element in elements:
        if isinstance(element, Optional):
            yield from phrases_of(element.inside, slot)
        elif isinstance(element, Phrases) and element.name == slot:
            yield from element.options


class Reading:
    """One attempt to read a line by one template; keeps the misses that got furthest."""

    def __init__(self, line: str, words: Sequence[Word]) -> None:
        self.line, self.words = line, words
        self.misses: list[Miss] = []

    def match(self, elements: tuple[Element, ...]) -> Match | None:
        return self._from(elements, 0, {}, ())

    def _miss(self, at: int, expected: str, rest: tuple[Element, ...]) -> None:
        furthest = self.misses[0].at if self.misses else -1
        if at > furthest:
            self.misses = []
        if at >= furthest:
            self.misses.append(Miss(at, expected, rest))

    def _follow(self, phrase: tuple[str, ...], i: int) -> int:
        """Index behind the phrase; the negative of (index + 1) of the first word that differs."""
        for offset, word in enumerate(phrase):
            if i + offset >= len(self.words) or self.words[i + offset].lower != word:
                return -(i + offset + 1)
        return i + len(phrase)

    def _from(
        self, elements: tuple[Element, ...], i: int, values: dict[str, Any], spans: tuple[Span, ...]
    ) -> Match | None:
        if not elements:
            if i == len(self.words):
                return Match(values, spans)
            self._miss(i, "the end of the sentence", ())
            return None
        element, rest = elements[0], elements[1:]
        match element:
            case Optional(inside):
                return self._from(inside + rest, i, values, spans) or self._from(rest, i, values, spans)
            case Who():
                spectator = i < len(self.words) and self.words[i].lower == _SUBJECT
                if spectator:
                    return self._of_person(rest, i, values | {"who": SPECTATOR}, spans)
                return self._from(rest, i, values | {"who": PERFORMER}, spans)
            case Person():
                if self._follow((_SUBJECT,), i) < 0:
                    self._miss(i, f"“{_SUBJECT}”", elements)
                    return None
                return self._of_person(rest, i, values, spans)
            case Verb(stem, ending):
                verb = stem + ending if values.get("who", SPECTATOR) == SPECTATOR else stem
                return self._words(elements, (verb,), i, values, spans)
            case Cards(counted, or_one):
                one = (or_one and counted not in values) or (i < len(self.words) and self.words[i].lower == "card")
                options: tuple[tuple[str, ...], ...] = (("card",),) if one else (("cards",),)
                return self._any(elements, options, None, i, values, spans)
            case Phrases(options, name):
                return self._any(elements, options, name, i, values, spans)
            case Flag(name, phrase):
                j = self._follow(phrase, i)
                if j >= 0:
                    found = self._from(rest, j, values | {name: True}, spans)
                    if found:
                        return found
                return self._from(rest, i, values | {name: False}, spans)
            case Slot(name, type_name):
                return self._slot(elements, name, type_name, i, values, spans)

    def _of_person(
        self, rest: tuple[Element, ...], i: int, values: dict[str, Any], spans: tuple[Span, ...]
    ) -> Match | None:
        """Behind `Spectator` at this word, where a number says which one."""
        number = self.words[i + 1] if i + 1 < len(self.words) else None
        if number and number.kind == "number" and 1 <= int(number.text[:3]) <= MOST_PEOPLE:
            return self._from(rest, i + 2, values | {PERSON: int(number.text)}, spans)
        return self._from(rest, i + 1, values, spans)

    def _words(
        self,
        elements: tuple[Element, ...],
        phrase: tuple[str, ...],
        i: int,
        values: dict[str, Any],
        spans: tuple[Span, ...],
    ) -> Match | None:
        j = self._follow(phrase, i)
        if j < 0:
            at = -j - 1
            self._miss(at, f"“{phrase[at - i]}”", (Phrases((phrase[at - i :],)), *elements[1:]))
            return None
        return self._from(elements[1:], j, values, spans)

    def _any(
        self,
        elements: tuple[Element, ...],
        options: tuple[tuple[str, ...], ...],
        name: str | None,
        i: int,
        values: dict[str, Any],
        spans: tuple[Span, ...],
    ) -> Match | None:
        for phrase in options:
            kept = values if name is None else values | {name: " ".join(phrase)}
            placed = spans
            if name and i < len(self.words) and self._follow(phrase, i) >= 0:
                last = self.words[i + len(phrase) - 1]
                placed = (*spans, (name, "phrase", self.words[i].start, last.end))
            if found := self._words(elements, phrase, i, kept, placed):
                return found
        if name and (many := self._blank_for(options, i)):
            mark = name, "phrase", self.words[i].start, self.words[i + many - 1].end
            return self._from(elements[1:], i + many, values | {name: Blank()}, (*spans, mark))
        return None

    def _blank_for(self, options: tuple[tuple[str, ...], ...], i: int) -> int:
        """How many words a `?` for one of these phrases takes here: it may stand behind the article of some; 0 for none."""
        words = [word.lower for word in self.words[i : i + 2]]
        if words[:1] == ["?"]:
            return 1
        return 2 if words[1:] == ["?"] and any(phrase[0] == words[0] in ("a", "an") for phrase in options) else 0

    def _slot(
        self,
        elements: tuple[Element, ...],
        name: str,
        type_name: str,
        i: int,
        values: dict[str, Any],
        spans: tuple[Span, ...],
    ) -> Match | None:
        if type_name == "text":
            if i >= len(self.words):
                self._miss(i, "some words", elements)
                return None
            start, end = self.words[i].start, self.words[-1].end
            return Match(values | {name: self.line[start:end]}, (*spans, (name, "text", start, end)))
        try:
            value, j = SLOT_TYPES[type_name].read(self.words, i)
        except NotHere as miss:
            # Only where what was typed of the slot can stay, can the sentence be finished from here.
            begun = self.words[i : miss.at]
            goes_on = type_name == "number" or all(word.lower == "the" for word in begun)
            self._miss(miss.at, miss.expected, elements if goes_on else ())
            return None
        span = (name, type_name, self.words[i].start, self.words[j - 1].end)
        return self._from(elements[1:], j, values | {name: value}, (*spans, span))


def join(words: Sequence[str]) -> str:
    """Words with the spaces a sentence has."""
    return re.sub(r" (?=[,;:])", "", " ".join(words))


def _written(elements: Sequence[Element], values: Mapping[str, Any]) -> Iterator[str]:
    for element in elements:
        match element:
            case Optional(inside):
                if all(values.get(e.name) is not None for e in inside if isinstance(e, Slot | Phrases) and e.name):
                    yield from _written(inside, values)
            case Who():
                if values.get("who") == SPECTATOR:
                    yield from _subject(values)
            case Person():
                yield from _subject(values)
            case Verb(stem, ending):
                yield stem + ending if values.get("who", SPECTATOR) == SPECTATOR else stem
            case Cards(counted):
                yield "card" if (values.get(counted) or Number(1)) == Number(1) else "cards"
            case Phrases(options, None):
                yield " ".join(options[0])
            case Phrases(_, str(name)):
                yield "?" if isinstance(values[name], Blank) else values[name]
            case Flag(name, phrase):
                if values.get(name):
                    yield " ".join(phrase)
            case Slot(name, type_name):
                yield SLOT_TYPES[type_name].write(values[name])


def _subject(values: Mapping[str, Any]) -> Iterator[str]:
    yield "Spectator"
    if values.get(PERSON):
        yield str(values[PERSON])


def clause_of(elements: Sequence[Element], values: Mapping[str, Any]) -> str:
    """The words with these values in their slots."""
    return join(list(_written(elements, values)))


def sentence_of(elements: Sequence[Element], values: Mapping[str, Any]) -> str:
    """The same as a sentence of its own."""
    text = clause_of(elements, values)
    return text[:1].upper() + text[1:]


def outline(elements: Sequence[Element], fresh: Mapping[str, str], who: str = PERFORMER) -> str:
    """What is left to write of a sentence, optional parts left out, slots filled with `fresh` by slot type.

    Where cards go from one place to another, the first is `other place` and the second `place`.
    """
    words: list[str] = []
    from_one = any(
        isinstance(element, Slot) and element.type == "place" and element.name != "to" for element in elements
    )
    places = sum(isinstance(element, Slot) and element.type == "place" for element in elements)
    for element in elements:
        match element:
            case Slot(name, type_name):
                other = type_name == "place" and (places > 1 or (name == "to" and not from_one))
                places -= other
                words.append(fresh.get("other place" if other else type_name, SLOT_TYPES[type_name].fresh))
            case Phrases(options, _):
                words.append(" ".join(options[0]))
            case Verb(stem, ending):
                words.append(stem + ending if who == SPECTATOR else stem)
            case Cards(_, or_one):
                words.append("card" if or_one else "cards")
            case Who():
                words += ["Spectator"] if who == SPECTATOR else []
            case Person():
                words.append("Spectator")
    return join(words)
