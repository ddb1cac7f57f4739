"""Other ways to write a kind of step, as its declaration lists them, matched against normal sentences.

    "DEAL {count} [cards]"                  a class of verbs (lexicon.py), a gap for a slot, what may be left out
    "(milk|draw) (top and bottom) ..."      one of several; `...` skips a few words
    "… => way=face up; secretly"            slots that follow from the wording itself

Behind what a wording says may follow, in any order, where from, where to, which way up, how secretly, within which range:
whichever of these the sentence of the step has a place for. What it has no place for is no reading; only how quietly it is done
and what says nothing of the cards (*too*, *in full view*) may stand there all the same. *At random* or *wherever they like* may
follow only what leaves something free (`StepKind.free`), *in turn* only what deals into piles.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cache

from ..english import ordinal
from ..language.facets import Facet
from ..language.kinds import StepKind
from ..language.templates import Slot, slots_in
from .amounts import number, range_said
from .lexicon import HINTS, VERBS
from .normal import as_read
from .nouns import card, place, place_named, target
from .pointing import spot
from .situation import Situation

Filled = dict[str, str]
"""slot → what the language writes there"""


@dataclass(frozen=True)
class Wording:
    parts: tuple[object, ...]
    """words (sets of tuples), gaps (slot names), optional tuples"""
    fixed: Mapping[str, str] = field(default_factory=dict)


@dataclass(frozen=True)
class Gap:
    slot: str


@dataclass(frozen=True)
class Either:
    options: tuple[tuple[object, ...], ...]


_PIECE = re.compile(r"\{(\w+)\}|([A-Z]{3,})|([(\[|)\]])|(\.{3,4})|([^\s()\[\]|{}]+)")


@cache
def compiled(wording: str) -> Wording:
    sentence, _, fixed = wording.partition("=>")
    fixed = fixed.replace("ontop", "on top")
    given = dict(part.strip().partition("=")[::2] for part in fixed.split(";") if part.strip())
    stack: list[list[list[object]]] = [[[]]]
    for m in _PIECE.finditer(sentence):
        slot, verbs, mark, dots, word = m.groups()
        if slot:
            stack[-1][-1].append(Gap(slot))
        elif verbs:
            words = sorted(VERBS[verbs].split("|"), key=len, reverse=True)
            stack[-1][-1].append(Either(tuple(tuple(map(as_read, one.split())) for one in words)))
        elif mark in ("(", "["):
            stack.append([[]])
        elif mark == "|":
            stack[-1].append([])
        elif mark in (")", "]"):
            options = [tuple(option) for option in stack.pop()]
            stack[-1][-1].append(Either((*options, ()) if mark == "]" else tuple(options)))
        elif dots:
            mark = "*" if len(dots) == 3 else "**"
            stack[-1][-1].append(Either(tuple((mark,) * n for n in range(26))))
        else:
            stack[-1][-1].append(as_read(word))
    return Wording(tuple(stack[0][0]), given)


def words_for(kind: StepKind) -> str:
    """What performers call it, to find the step by: *thumb off*, *milk*; each once."""
    found: dict[str, None] = {}

    def collect(parts: tuple[object, ...]) -> None:
        said = " ".join(part for part in parts if isinstance(part, str) and "*" not in part)
        if said:
            found[said] = None
        for part in parts:
            if isinstance(part, Either):
                for option in part.options:
                    collect(option)

    for wording in kind.wordings:
        collect(compiled(wording).parts)
    return ", ".join(found)


_READERS = {"place": place, "card": card, "number": number, "spot": spot}


def types_of(kind: StepKind) -> dict[str, str]:
    return {one.name: one.type for one in slots_in(kind.elements) if isinstance(one, Slot)}


class Said:
    """The words of a clause; what may stand at each of them is found out once, whichever wording asks."""

    def __init__(self, tokens: Sequence[str], s: Situation) -> None:
        self.tokens, self.s = tokens, s
        self._gaps: dict[tuple[str, int], list[tuple[str, int]]] = {}
        self._adjuncts: dict[int, list[tuple[str, str, int]]] = {}

    def gap(self, kind: str, i: int) -> list[tuple[str, int]]:
        """(what the language writes, index behind it) for all that may fill a gap of this kind here."""
        if (kind, i) not in self._gaps:
            self._gaps[kind, i] = list(_gap(kind, self.tokens, i, self.s))
        return self._gaps[kind, i]

    def adjuncts(self, i: int) -> list[tuple[str, str, int]]:
        """(slot, what it fills there, index behind it) for all that may stand here behind a verb and its object."""
        if i not in self._adjuncts:
            self._adjuncts[i] = list(_adjunct(self.tokens, i, self.s))
        return self._adjuncts[i]


def fits(kind: StepKind, wording: Wording, said: Said) -> Iterator[tuple[Filled, Filled]]:
    """(slots that the wording fills, what stands behind it) for every way it fits the whole sentence."""
    types, tokens = types_of(kind), said.tokens

    def walk(parts: tuple[object, ...], i: int, filled: Filled) -> Iterator[tuple[Filled, int]]:
        if not parts:
            yield filled, i
            return
        part, rest = parts[0], parts[1:]
        if isinstance(part, Either):
            for option in part.options:
                yield from walk((*option, *rest), i, filled)
        elif isinstance(part, Gap):
            if part.slot == "down":
                for slot, where, j in said.adjuncts(i):
                    if slot == "to":
                        yield from walk(rest, j, {**filled, "to": where})
                return
            kind_of_gap = types.get(
                part.slot,
                "place"
                if part.slot in ("p1", "p2", "p3", "here", "there")
                else "number"
                if part.slot in ("count", "n")
                else part.slot,
            )
            if kind_of_gap == "place" and (
                part.slot == "to"
                or kind.phase in ("page", "set-up")
                or Facet.PREDICTED_CARDS in kind.facets
                or Facet.PREDICTED_NUMBER in kind.facets
            ):
                kind_of_gap = "target"
            for text, j in said.gap(kind_of_gap, i):
                yield from walk(rest, j, {**filled, part.slot: text})
            if part.slot in ("p1", "p2", "p3") and tokens[i : i + 1] and f"pile {tokens[i]}" in said.s.sizes:
                yield from walk(rest, i + 1, {**filled, part.slot: f"pile {tokens[i]}"})
        elif i < len(tokens) and (
            part == "**" or (part == "*" and not tokens[i].startswith("⟨")) or tokens[i] == part
        ):
            yield from walk(rest, i + 1, filled)

    for filled, i in walk(wording.parts, 0, {}):
        for behind in _behind(said, i, {}):
            yield {**wording.fixed, **filled}, behind


def _gap(kind: str, tokens: Sequence[str], i: int, s: Situation) -> Iterator[tuple[str, int]]:
    if kind in _READERS:
        yield from _READERS[kind](tokens, i, s)
    elif kind == "target":
        for j in range(min(len(tokens), i + 5), i, -1):
            if (where := target(" ".join(tokens[i:j]), s)) is not None:
                yield where, j
    elif kind in ("dealt", "rest"):
        meant = s.dealt_to if kind == "dealt" else s.dealt_from
        said = ((where, j) for where, j in place(tokens, i, s) if where == meant and meant is not None)
        yield from ((where, j) for where, j in said if " ".join(tokens[i:j]) != where or where == "dealt")
    elif kind == "order":
        if m := re.match(r"(\d+)(?: [~,] (\d+))+", " ".join(tokens[i:])):
            yield ", ".join(f"pile {n}" for n in re.findall(r"\d+", m[0])), i + len(m[0].split())
    elif kind == "word":
        if i < len(tokens) and tokens[i].startswith("“"):
            yield tokens[i], i + 1
        elif i < len(tokens) and tokens[i] == "word" and i + 1 < len(tokens) and tokens[i + 1].isalpha():
            yield f"“{tokens[i + 1]}”", i + 2
    elif kind in ("places", "cards", "together", "listed"):
        yield from _several(kind, tokens, i, s)
    elif kind == "position":
        yield from _position(tokens, i, s)
    elif kind == "range":
        for j in range(min(len(tokens), i + 9), i, -1):
            if found := range_said(" ".join(tokens[i:j]), s.sizes.get("deck", 52) or 52):
                yield "|".join(f"{low} to {high}" for low, high in found[0]), j
    elif kind == "rank":
        from .lexicon import RANK_WORDS

        if i < len(tokens) and tokens[i] in RANK_WORDS:
            yield RANK_WORDS[tokens[i]], i + 1
        elif i < len(tokens) and tokens[i].isdigit() and 1 <= int(tokens[i]) <= 10:
            from ..cards import RANKS

            yield RANKS[int(tokens[i]) - 1], i + 1


def _several(kind: str, tokens: Sequence[str], i: int, s: Situation) -> Iterator[tuple[str, int]]:
    read = place if kind == "places" else card
    found: list[str] = []
    j = i
    while True:
        one = next(iter(read(tokens, j, s)), None)
        if one is None:
            break
        found.append(one[0])
        j = one[1]
        joint = j
        while joint < len(tokens) and tokens[joint] in (",", "and"):
            joint += 1
        if joint == j or joint >= len(tokens):
            break
        j = joint
    if found:
        yield (" and " if kind == "together" else ", ").join(found), j
    if kind == "places" and s.piles:
        for words in ("all heaps", "all piles", "heaps", "piles", "each pile", "every heap", "every pile", "each heap", f"{len(s.piles)} piles", f"{len(s.piles)} heaps", "packets", f"{len(s.piles)} packets",
                      f"each of {len(s.piles)} piles", "each of piles", "each", "each of them", f"each of {len(s.piles)} heaps", "each packet", "every packet", "each of heaps", "2 heaps", "2 piles", "both piles", "both heaps"):  # fmt: skip
            if list(tokens[i : i + len(words.split())]) == words.split():
                yield ", ".join(s.piles), i + len(words.split())


def _position(tokens: Sequence[str], i: int, s: Situation) -> Iterator[tuple[str, int]]:
    rest = " ".join(tokens[i : i + 6])
    end = r"(?: (?:card )?(?:from|up from|down from|down|off|from on)(?: (top|bottom|face))?)?"
    if m := re.match(
        rf"(?:in |at |to |into |as )?(?:(?:position|number|place|(?<=at )) ?(\d+)|(\d+)(?:st|nd|rd|th)(?: (?:position|place|card|spot))?){end}(?= |$)",
        rest,
    ):
        words = ordinal(int(m[1] or m[2])) + (" from the bottom" if m[3] in ("bottom", "face") else "")
        yield words, i + len(m[0].split())
    if m := re.match(
        r"(?:at|on|to|as)? ?(?:very )?(top|bottom|face)(?: card| of (?:deck|pack)| of them)?(?= |$)", rest
    ):
        yield ("on top" if m[1] == "top" else "at the bottom"), i + len(m[0].split())
    if m := re.match(r"ontop(?: of)?(?: deck| pack)?(?= |$)|underneath(?= |$)", rest):
        yield ("at the bottom" if "under" in m[0] else "on top"), i + len(m[0].split())


# What stands behind


@cache
def _hints() -> Mapping[str, tuple[tuple[str, str], ...]]:
    return {" ".join(map(as_read, words.replace("on top", "ontop").split())): meant for words, meant in HINTS.items()}


def _behind(said: Said, i: int, found: Filled) -> Iterator[Filled]:
    tokens = said.tokens
    if i >= len(tokens):
        yield found
        return
    if tokens[i] == "," or (tokens[i] == "and" and i + 1 < len(tokens)):
        yield from _behind(said, i + 1, found)
    if tokens[i] == "deal" and i + 1 < len(tokens) and tokens[i + 1] in ("to", "onto", "on", "into", "face"):
        yield from _behind(said, i + 1, found)
    for slot, text, j in said.adjuncts(i):
        if slot not in found or found[slot] == text:
            yield from _behind(said, j, {**found, slot: text})


def _adjunct(tokens: Sequence[str], i: int, s: Situation) -> Iterator[tuple[str, str, int]]:
    if i >= len(tokens):
        return
    for j in range(min(len(tokens), i + 8), i, -1):
        words = " ".join(tokens[i:j])
        for slot, value in _hints().get(words, ()):
            yield slot, value, j
    if tokens[i] in ("to", "onto", "on", "into", "in", "inside", "ontop", "down"):
        first = i + 1 + (i + 1 < len(tokens) and tokens[i + 1] in ("to", "onto", "on", "into", "in"))
        for j in range(min(len(tokens), first + 6), first, -1):
            if (where := target(" ".join(tokens[first:j]), s)) is not None:
                yield "to", where, j
    if tokens[i] in ("from", "off", "of", "with", "out", "in", "through"):
        first = i + 1 + (tokens[i] in ("out", "off") and i + 1 < len(tokens) and tokens[i + 1] == "of")
        for j in range(min(len(tokens), first + 6), first, -1):
            words = re.sub(r"^top (?:of )?", "", " ".join(tokens[first:j]))
            if (where := place_named(words, s)) is not None or (
                where := "deck" if words == "top" else None
            ) is not None:
                yield "from", where, j
    size = s.sizes.get("deck", 52) or 52
    for j in range(min(len(tokens), i + 10), i, -1):
        if said := range_said(" ".join(tokens[i:j]), size):
            yield "range", "|".join(f"{low} to {high}" for low, high in said[0]), j
