"""From a clause to sentences: which wordings fit, and what goes without saying (where from, where to, how it is called)."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cache
from typing import Any

from ..english import ordinal
from ..language.claims import PREFIX, kinds_of_claims
from ..language.facets import Facet
from ..language.kinds import ENDING, StepKind
from ..language.parser import sentence
from ..language.phrases import NotHere
from ..language.slots import SLOT_TYPES
from ..language.templates import PERFORMER, SPECTATOR, Flag, Optional, Phrases, Slot, Who, sentence_of, slots_in
from ..language.words import words_of
from ..steps import REGISTRY
from .amounts import HEDGES
from .clauses import Clause
from .normal import as_read
from .nouns import tokens_of
from .pointing import default_heap
from .situation import Situation
from .wordings import Either, Filled, Gap, Said, Wording, compiled, fits

MOST_FITS = 24
"""ways in which one wording fits a clause that are gone into"""
NAMES = "n k m j i r t u".split()


@dataclass(frozen=True)
class Candidate:
    lines: tuple[str, ...]
    score: float
    taken: tuple[str, ...]
    """what was not said"""
    question: str = ""
    """the same for readings between which one has to ask"""


@cache
def _wordings() -> tuple[tuple[StepKind, Wording, frozenset[str]], ...]:
    """With the words it may begin with; empty for any."""
    return tuple(
        (kind, wording, _heads(wording.parts))
        for kind in REGISTRY.values()
        for wording in map(compiled, kind.wordings)
    )


def _heads(parts: tuple[object, ...]) -> frozenset[str]:
    found: set[str] = set()
    for part in parts:
        if isinstance(part, Gap):
            return frozenset()
        if isinstance(part, Either):
            for option in part.options:
                if not option:
                    continue
                inner = _heads(option)
                if not inner or inner & {"*", "**"}:
                    return frozenset()
                found |= inner
            if () in part.options:
                continue
            return frozenset(found)
        return frozenset(found | {str(part)})
    return frozenset()


def candidates(clause: Clause, s: Situation) -> list[Candidate]:
    tokens = tokens_of(clause.words)
    found: list[Candidate] = []
    if not tokens:
        return found
    said = Said(tokens, s)
    found += _asked(clause, tokens, s)
    for kind, wording, heads in _wordings():
        if heads and tokens[0] not in heads:
            continue
        fixed_who = wording.fixed.get("who")
        if fixed_who and clause.who not in (None, fixed_who):
            continue
        for n, (filled, behind) in enumerate(fits(kind, wording, said)):
            if n > MOST_FITS:
                break
            found += _made(kind, clause, filled, behind, s)
    return sorted(found, key=lambda one: -one.score)


ASKING = {
    tuple(map(as_read, head.split())): written
    for heads, written in (
        ("if|should|when|in case", "If {}:"),
        ("make sure that|make sure|check that|see to it that", "Make sure that {}"),
        ("as long as|while", "As long as {}:"),
    )
    for head in heads.split("|")
}
"""words before a claim that is asked about → the sentence it then stands in"""


def _asked(clause: Clause, tokens: Sequence[str], s: Situation) -> Iterator[Candidate]:
    """What can be claimed, asked about: the wordings of the claim behind *if*, *make sure that*, *as long as*."""
    head, written = next(((h, w) for h, w in ASKING.items() if tuple(tokens[: len(h)]) == h), ((), ""))
    rest = tokens[len(head) :]
    if not head or not rest:
        return
    said = Said(rest, s)
    for kind, wording, heads in _wordings():
        if kind not in kinds_of_claims().values() or (heads and rest[0] not in heads):
            continue
        for n, (filled, behind) in enumerate(fits(kind, wording, said)):
            if n > MOST_FITS:
                break
            for made in _made(kind, clause, filled, behind, s):
                line = written.format(made.lines[0].removeprefix(PREFIX))
                if len(made.lines) == 1 and sentence(line):
                    yield replace(made, lines=(line,), score=made.score + 0.5)


def slots_of(kind: StepKind) -> dict[str, Any]:
    """Name of a slot, *who* for the doer → its element."""
    return {str(getattr(one, "name", None) or "who"): one for one in slots_in(kind.elements)}


def _made(kind: StepKind, clause: Clause, filled: Filled, behind: Filled, s: Situation) -> Iterator[Candidate]:
    slots = slots_of(kind)
    values = dict(filled)
    extra = dict(behind)
    secretly = clause.secretly or extra.pop("secretly", "") == "yes" or values.pop("secretly", "") == "yes"
    manner = extra.pop("manner", values.pop("manner", ""))
    wants = values.pop("needs", "")
    extra.pop("noise", None)
    freely = extra.pop("free", None) is not None
    if extra.pop("in turn", None) is not None and Facet.DEALS_PILES not in kind.facets:
        return  # said of one card after another, or of each of several heaps
    may = values.pop("may", "")
    bonus = float(values.pop("score", "0"))
    question = values.pop("asks", "")
    after = values.pop("after", "")
    who = values.pop("who", None) or clause.who or PERFORMER
    if not _agrees(kind, manner, wants, bool(may), extra) or (
        Facet.DEALS_PILES in kind.facets and values.get("piles") == "1"
    ):
        return
    if not _find_homes(kind, extra, slots, values, bool(after)):
        return
    _put_together(slots, values, extra)
    for name in list(values):
        if name not in values:
            continue
        meant = _meant(kind, name, values, who, s)
        if meant is None:
            return
        values[name] = meant
    if kind.phase == ENDING and values.get("card") is not None and values.get("card") == values.get("other"):
        return  # that a card is itself
    taken: list[str] = []
    for name, element in slots.items():
        if isinstance(element, Flag):
            values.setdefault(name, "")
            continue
        if name == "who" or name in values:
            continue
        optional = name in _optional(kind)
        default = None if optional else _default(kind, name, element, who, s)
        if default is None:
            if optional:
                continue
            if isinstance(element, Phrases):
                default = " ".join(element.options[0])
            elif name in ("count", "depth") and "choice" in values:
                continue
            else:
                return
        else:
            taken.append(default)
        values[name] = default
    row = values.get("row")
    if row and "to" in slots and values.get("to", "table") == "table":
        values["to"] = "row"
    if "to" in values and "from" in values and values["to"] == values["from"] and values["to"] == "table":
        values["to"] = "heap"
    hidden = "secretly" in slots and (secretly or _unsaid(kind, who, values))
    ranges = _ranges(kind, slots, values, s)
    for n, chosen in enumerate(ranges):
        written = _sentence(kind, {**values, **chosen}, who, hidden)
        if written is None or (freely and not _is_free(written)):
            continue
        lines = (written, *(f"  {line}" for line in _inside(after, who, values)))
        score = 10.0 + bonus - len(taken) - 0.6 * len(behind.get("noise", "")) + 0.3 * len(filled)
        yield Candidate(
            lines,
            score - 0.01 * n,
            tuple(taken),
            question or ("range in " + kind.sentence if len(ranges) > 1 else ""),
        )


def _is_free(written: str) -> bool:
    """Whether the sentence leaves anything to whoever does it, as *at random* and *wherever they like* want it to."""
    line = sentence(written)
    return line is not None and line.kind is not None and line.kind.free(line.values) is not None


def _agrees(kind: StepKind, manner: str, wants: str, may: bool, extra: Filled) -> bool:
    """Whether a kind of step is done in the manner that is said, and the manner said that the wording wants."""
    if wants and manner != wants and {"row": "row", "target": "to"}.get(wants) not in extra:
        return False
    if manner == "kept":
        return not kind.singly or "each under the last" in kind.sentence
    if manner in ("block", "reversed"):
        return kind.singly == (manner == "reversed")
    return manner != "singly" or kind.singly or may


def _find_homes(kind: StepKind, extra: Filled, slots: dict[str, Any], values: Filled, opens: bool) -> bool:
    """Whether all that stands behind has a place in the sentence; it is put there."""
    for slot, text in extra.items():
        home = _home(slot, slots, values)
        if home is not None:
            values[home] = text
        elif not (
            (opens and slot == "from")
            or (slot == "way" and text == "face down")
            or (slot == "row" and not kind.opens_block and "piles" in slots)
        ):
            return False
    return True


def _put_together(slots: dict[str, Any], values: Filled, extra: Filled) -> None:
    """What a wording says in parts, and a place that goes without saying since its cards are counted."""
    if "p1" in values:
        values["piles"] = ", ".join(values.pop(one) for one in ("p1", "p2", "p3") if one in values)
    if "order" in values and "piles" in slots and "order" not in slots:
        values["piles"] = values.pop("order")
    counted = re.search(r"size of (\w+)", values.get("count", ""))
    if counted and "from" in slots and "from" not in values and "from" not in extra:
        values["from"] = counted[1]


def _inside(after: str, who: str, values: Filled) -> list[str]:
    """What stands in the block that the wording opens."""
    if after == "cut":
        return [f"Spectator cuts {values.get('place', 'deck')} and completes the cut"]
    if after == "heap":
        return [f"Put {values.get('name', 'heap')} on table"]
    return []


def _meant(kind: StepKind, slot: str, values: Filled, who: str, s: Situation) -> str | None:  # noqa: C901
    """What a word of a wording stands for here, such as *card=theirs*; None where there is nothing of the kind."""
    text = values[slot]
    match text:
        case "new":
            if slot in ("names", "name"):
                return next((name for name in "cabmpq" if name not in s.names), "c")
            if who == SPECTATOR:
                return "their card" if s.their_card is None else "SECOND"
            return "KEY" if "KEY" not in s.names else "OTHER"
        case "theirs":
            return s.their_card
        case "target":
            return next((card for card in s.cards if card.isupper() or " of " in card), s.their_card)
        case "last":
            return next((name for name in reversed(s.numbers) if name in s.secret), s.number)
        case "number" | "prediction":
            return s.number
        case "moved":
            return s.moved_to
        case "size of moved":
            return f"size of {s.moved_to}" if s.moved_to else None
        case "digit sum of number":
            return s.number and f"digit sum of {s.number}"
        case "told":
            return f"pile {s.told_pile}" if s.told_pile else None
        case "last2":
            if len(s.cards) < 2:
                return None
            values["other"] = s.cards[-1]
            return s.cards[-2]
        case "hands":
            return "hand, table" if "hand" in s.sizes and "table" in s.sizes else None
        case "focus":
            return s.focus or s.moved_to or "deck"
        case "singles":
            return ", ".join(name for name, size in s.sizes.items() if size == 1) or None
        case "packets":
            return ", ".join(name for name, size in s.sizes.items() if size > 1) or None
        case "its top":
            where = values.pop("place", "deck")
            return f"the top card of {(s.focus or s.moved_to or 'deck') if where == 'focus' else where}"
        case "moved or deck":
            return s.moved_to if s.moved_to and s.has(s.moved_to) else "deck"
        case "tops" if slot == "left":
            return " + ".join(f"(value of the top card of {pile})" for pile in s.piles) or None
        case "tops":
            return ", ".join(s.piles) or None
        case "rows":
            return ", ".join(name for name in s.sizes if name.startswith("row ")) or None
        case "either end":
            card, where = values.pop("card", ""), values.pop("place", "deck")
            card = (s.their_card or "") if card == "theirs" else card
            return f"the top card of {where} is {card} or the bottom card of {where} is {card}" if card else None
        case "faces" | "reds":
            here, there = values.pop("here", ""), values.pop("there", "")
            if not (here and there):
                here, there = ([name for name, size in s.sizes.items() if size] + ["", ""])[:2]
            sorts = ("face-up", "face-up") if text == "faces" else ("red", "black")
            values["right"] = f"number of {sorts[1]} cards of {there}"
            return f"number of {sorts[0]} cards of {here}" if here and there else None
        case "size":
            return f"size of {values.get('place', 'deck')}"
        case "all":
            return f"size of {values.get('from', 'deck')}"
        case "previous":
            return s.cards[-1] if s.cards else None
        case "middle":
            return ordinal((len(s.piles) + 1) // 2) if s.piles else None
        case "product":
            return (
                str(int(values["rows"]) * int(values["columns"]))
                if values["rows"].isdigit() and values["columns"].isdigit()
                else None
            )
        case "count":
            return values.get("count")
        case "letters":
            many = int(values["most"]) if values.get("most", "").isdigit() else 0
            return ", ".join("abcdefgh"[:many]) or None
        case "1 to pack":
            return f"1 to {s.sizes.get(values.get('from', 'deck'), 52) or 52}"
        case "1 to most":
            return f"1 to {max(1, (s.sizes.get('deck', 52) or 52) - 5)}"
    return text


def _optional(kind: StepKind) -> frozenset[str]:
    parts = [one for one in kind.elements if isinstance(one, Optional)]
    return frozenset(str(getattr(e, "name", None)) for one in parts for e in slots_in(one.inside))


def _home(slot: str, slots: dict[str, Any], values: Filled) -> str | None:
    for name in {
        "from": ("from", "place"),
        "range": ("number", "choice"),
    }.get(slot, (slot,)):
        if name not in slots or (
            name in values and not (slot == "range" and values[name] in (*HEDGES, "1 to pack", "1 to most"))
        ):
            continue
        element = slots[name]
        if slot == "range" and not (isinstance(element, Slot) and element.type == "range"):
            continue
        if slot == "way" and isinstance(element, Phrases) and not any("face" in option for option in element.options):
            continue
        return name
    return None


def _default(kind: StepKind, name: str, element: Any, who: str, s: Situation) -> str | None:
    """What goes without saying; None for nothing."""
    if isinstance(element, Slot):
        if element.type == "place" and kind.phase == ENDING:
            return default_heap(s)
        if element.type == "place" and name in ("from", "place", "pile"):
            return "deck"
        if element.type == "place" and name == "to":
            if kind.family in ("Cards", "Blocks") and who == SPECTATOR:
                return "hand"
            return "table"
        if element.type in ("name", "names"):
            return fresh(s)
    return None


def fresh(s: Situation) -> str:
    """A name that no number has yet."""
    return next((name for name in NAMES if name not in s.names), "z")


def _unsaid(kind: StepKind, who: str, values: Filled) -> bool:
    """A spectator who cuts without counting does not say how many these were."""
    return who == SPECTATOR and kind.family == "Blocks" and "choice" in values


def _ranges(kind: StepKind, slots: dict[str, Any], values: Filled, s: Situation) -> list[Filled]:
    """The ranges as the language writes them, with a new name."""
    name = next((one for one, e in slots.items() if isinstance(e, Slot) and e.type == "range"), None)
    if name is None or name not in values:
        return [{}]
    new = fresh(s)
    found = []
    for one in values[name].split("|"):
        m = re.match(r"(\d+) to (\d+)", one)
        if not m and one in HEDGES:
            low, high = HEDGES[one](s.sizes.get(values.get("from", "deck"), 52) or 52)
        elif m:
            low, high = int(m[1]), int(m[2])
        else:
            return [{}]
        made = {name: f"{new} from {low} to {high}"}
        for counted in ("count", "depth"):
            if counted in slots and name == "choice":
                made[counted] = new
        found.append(made)
    return found


def _sentence(kind: StepKind, texts: Filled, who: str, secretly: bool) -> str | None:
    values: dict[str, Any] = {"who": who, "secretly": secretly}
    for element in slots_in(kind.elements):
        if isinstance(element, Who):
            continue
        name = str(getattr(element, "name", ""))
        if isinstance(element, Flag):
            values[name] = secretly if name == "secretly" else bool(texts.get(name))
        elif name not in texts:
            continue
        elif isinstance(element, Phrases):
            if tuple(texts[name].split()) not in element.options and texts[name] not in [
                " ".join(o) for o in element.options
            ]:
                return None
            values[name] = texts[name]
        elif isinstance(element, Slot):
            if element.type == "text":
                values[name] = texts[name]
                continue
            words = words_of(texts[name])
            try:
                value, behind = SLOT_TYPES[element.type].read(words, 0)
            except NotHere:
                return None
            if behind != len(words):
                return None
            values[name] = value
    try:
        return sentence_of(kind.elements, values)
    except (KeyError, AttributeError, TypeError):
        return None
