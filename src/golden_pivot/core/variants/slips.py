"""What breaks it: every plausible slip, each proved as a routine of its own."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace

from ..budget import Budget
from ..faults import BadRoutine
from ..language.parser import read_routine
from ..language.phrases import list_text
from ..routine import STEP, Line, Routine
from ..steps.declare import ENDING, HANDLING, PAGE
from ..steps.slips import heard_as, slips_of_slot
from ..verdicts import FIXED, PROVED, RULE, UNSETTLED, Verdict, prove
from .edits import Edit, edited, last_line, quiet, slot_text, with_slots

HARMLESS, ELSEWHERE, SOME, ALL, OPEN = "harmless", "elsewhere", "some", "all", "not settled"
"""the claims still hold; their card is at another known place; some paths fail; all do; out of budget"""
WORST_FIRST = (ALL, SOME, ELSEWHERE, OPEN, HARMLESS)

MOST_STATES, MOST_TRANSITIONS = 30_000, 60_000
"""what one slip may cost"""


@dataclass(frozen=True)
class Slip:
    line: int
    """the line it happens at, from 1"""
    slot: str | None
    """the slot that is taken for something else; None where it is the whole line"""
    what: str
    """in words: `one card fewer`"""
    edit: Edit

    @property
    def rows(self) -> str:
        """The line as it is then carried out."""
        return " / ".join(row.strip() for row in self.edit.rows)


@dataclass(frozen=True)
class Outcome:
    slip: Slip
    kind: str
    share: float
    """of the paths that fail, 0 to 1"""
    says: str
    """one sentence"""
    spoiled: tuple[int, ...]
    """lines of the claims that fail on some path"""


@dataclass(frozen=True)
class Fragility:
    """All slips of a routine, worst first."""

    outcomes: tuple[Outcome, ...]
    strict: tuple[int, ...]
    """lines at which some slip is not harmless"""
    free: tuple[int, ...]
    """lines of which every slip is harmless"""
    advice: tuple[tuple[int, str], ...]
    """(line, what may be given away to the spectator, or what to take care of)"""
    untried: int = 0
    """slips for which there was no room"""


# Which slips there are


def slips_of(text: str) -> list[Slip]:
    """Every plausible slip of a routine, in the order of its lines, none that leaves the text as it is or at fault."""
    routine = read_routine(text)
    found: dict[str, Slip] = {}
    for slip in _slips(routine):
        changed = edited(text, slip.edit)
        if changed not in found and not read_routine(changed).faults and changed != edited(text, Edit(1, 0, ())):
            found[changed] = slip
    return list(found.values())


def _slips(routine: Routine) -> Iterator[Slip]:
    handled: set[str] = set()
    for line in routine.walk():
        if line.is_ != STEP or line.kind is None or line.kind.phase == PAGE:
            continue
        if line.kind.is_handled:
            for place in _places_of(line):
                if place not in handled:
                    yield from _before(line, place)
                handled.add(place)
        yield from _of_slots(line)
        if line.kind.phase == HANDLING:
            yield from _of_line(line)


def _places_of(line: Line) -> list[str]:
    slots = [name for name, type_name, _, _ in line.spans if type_name == "place" and name in ("from", "place")]
    return [slot_text(line, slot) for slot in slots]


def _before(line: Line, place: str) -> Iterator[Slip]:
    """What may have happened to a heap before it is first handled."""
    margin = line.text[: len(line.text) - len(line.text.lstrip())]
    for what, row in (
        (f"{place} had been cut before", f"Spectator cuts {place} and completes the cut"),
        (f"{place} lay the other way up", f"Turn {place} over"),
    ):
        yield Slip(line.number, None, what, Edit(line.number, line.number - 1, (margin + row,)))


def _of_slots(line: Line) -> Iterator[Slip]:
    assert line.kind
    for slot, type_name, _, _ in line.spans:
        # At an ending only the wrong card is turned up; what is claimed is not handled.
        if slot in line.kind.firm or (line.kind.phase == ENDING and type_name != "spot"):
            continue
        for what, words in slips_of_slot(line.kind.elements, slot, type_name, line.values[slot]):
            thing = "card" if f"{{#{slot}}}" in line.kind.sentence else slot[:-1] if slot.endswith("s") else ""
            said = what.replace("one ", f"one {thing} ", 1) if thing and what in ("one more", "one fewer") else what
            row = with_slots(line, [(slot, words)])
            yield Slip(line.number, slot, said, Edit(line.number, line.number, (_counted(row, line, slot, words),)))


def _counted(row: str, line: Line, slot: str, words: str) -> str:
    """`1 card`, `2 cards`: the noun goes with the number."""
    assert line.kind
    if f"{{#{slot}}}" in line.kind.sentence:
        for number, one, other in (("1", "cards", "card"), (None, "card", "cards")):
            if number in (words, None):
                return row.replace(f"{words} {one} ", f"{words} {other} ", 1)
    return row


def _of_line(line: Line) -> Iterator[Slip]:
    assert line.kind
    margin = line.text[: len(line.text) - len(line.text.lstrip())]
    if line.kind.is_handled:
        yield Slip(line.number, None, "left out", Edit(line.number, last_line(line), ()))
        yield Slip(line.number, None, "done twice", Edit(line.number, last_line(line), (line.text, line.text)))
    texts = {name: slot_text(line, name) for name, _, _, _ in line.spans}
    who = "Spectator" if line.values.get("who") == "spectator" else ""
    told: set[str] = set()
    for what, sentence in line.kind.heard:
        row = heard_as(sentence, who, texts)
        if row is not None and what not in told:
            told.add(what)
            yield Slip(line.number, None, what, Edit(line.number, line.number, (margin + row,)))


# What comes of them


def fragility_of(
    text: str,
    budget: Budget,
    progress: Callable[[str, Sequence[Outcome]], None] = lambda words, found: None,
    room: int | None = None,
) -> Fragility:
    """Every slip proved. `progress` is told how far it is, with what was found so far.

    `room`: transitions for all of them together, from the first line on; the rest stay untried. Not a time, so that
    the same is found wherever it runs.

    Raises BadRoutine for a text with faults, Cancelled when the budget's flag is raised.
    """
    budget = quiet(budget)
    plain = prove(read_routine(text), budget)
    slips = slips_of(text)
    found: list[Outcome] = []
    used = done = 0
    for done, slip in enumerate(slips, start=1):
        # A line is tried as a whole, since advice speaks of all its slips.
        if room is not None and used >= room and slip.line != slips[done - 2].line:
            done -= 1
            break
        progress(f"{done} of {len(slips)} slips", found)
        verdict = _proved(text, slip, budget)
        if verdict:
            used += MOST_TRANSITIONS if verdict.verdict == UNSETTLED else verdict.transitions
            found.append(_judged(slip, verdict, plain))
    return replace(_ranked(read_routine(text), found), untried=len(slips) - done)


def _proved(text: str, slip: Slip, budget: Budget) -> Verdict | None:
    """None where the routine could not be carried out at all, so that it would be noticed."""
    try:
        return prove(
            read_routine(edited(text, slip.edit)), budget.narrowed(MOST_STATES, MOST_TRANSITIONS), explain=False
        )
    except BadRoutine:
        return None


def _judged(slip: Slip, verdict: Verdict, plain: Verdict) -> Outcome:
    """What comes of one slip."""
    if verdict.verdict == UNSETTLED:
        return Outcome(slip, OPEN, 0.0, "Not settled within its budget.", ())
    spoiled = tuple(claim.line for claim in verdict.claims if claim.failing_paths)
    share = _share(verdict)
    kind = _kind(verdict, plain, share)
    spoiled = _in_text(spoiled, slip.edit)
    only = (
        "" if kind == HARMLESS or len(spoiled) in (0, len(verdict.claims)) else f" It spoils only {_lines(spoiled)}."
    )
    return Outcome(slip, kind, share, _said(verdict, kind) + only, spoiled)


def _lines(lines: Sequence[int]) -> str:
    return f"line{'s' if len(lines) > 1 else ''} {list_text(list(map(str, lines)))}"


def _kind(verdict: Verdict, plain: Verdict, share: float) -> str:
    where = {(w.place, w.position) for w in verdict.landing.where} if verdict.landing else set()
    was = {(w.place, w.position) for w in plain.landing.where} if plain.landing else set()
    if verdict.verdict == PROVED or (not verdict.claims and verdict.verdict in (FIXED, RULE) and where == was):
        return HARMLESS
    if verdict.claims and share < 1:
        return SOME
    if verdict.verdict in (FIXED, RULE) or (verdict.claims and len(where) == 1 and not _stuck(verdict)):
        return ELSEWHERE
    return ALL


def _share(verdict: Verdict) -> float:
    """Of the paths that fail; of the situations at the end where paths have no number."""
    ends = sum(w.paths for w in verdict.landing.where) if verdict.landing else 0
    whole = verdict.paths or max(ends, verdict.failing_paths)
    return verdict.failing_paths / whole if whole else 0.0


def _stuck(verdict: Verdict) -> bool:
    """Not every path comes to its end."""
    return verdict.landing is not None and sum(w.paths for w in verdict.landing.where) != verdict.paths


def _said(verdict: Verdict, kind: str) -> str:
    landing = verdict.landing
    there = f"{landing.card} is {landing.text}" if landing else ""
    if kind == HARMLESS:
        return "It comes out all the same."
    if kind == ELSEWHERE:
        return f"Known all the same: {there}."
    if kind == SOME and not verdict.paths:
        return "Fails on some paths."
    if kind == SOME:
        return f"Fails on {verdict.failing_paths:,} of {verdict.paths:,} paths."
    return "Fails, whatever they choose." if kind == ALL and verdict.claims else f"{verdict.headline}."


def _in_text(lines: Sequence[int], edit: Edit) -> tuple[int, ...]:
    """Lines of the changed text as lines of the text before."""
    more = len(edit.rows) - (edit.last - edit.first + 1)
    return tuple(line - more if line > edit.last else line for line in lines)


def _ranked(routine: Routine, found: Sequence[Outcome]) -> Fragility:
    outcomes = sorted(found, key=lambda one: (WORST_FIRST.index(one.kind), -one.share, one.slip.line))
    lines = sorted({one.slip.line for one in found})
    strict = tuple(n for n in lines if any(o.slip.line == n and o.kind not in (HARMLESS, OPEN) for o in found))
    free = tuple(n for n in lines if all(o.kind == HARMLESS for o in found if o.slip.line == n))
    return Fragility(tuple(outcomes), strict, free, tuple(_advice(routine, found)))


def _advice(routine: Routine, found: Sequence[Outcome]) -> Iterator[tuple[int, str]]:
    for line in routine.walk():
        here = [one for one in found if one.slip.line == line.number]
        for slot in dict.fromkeys(one.slip.slot for one in here if one.slip.slot):
            about = [one for one in here if one.slip.slot == slot]
            type_name = next(kind for name, kind, _, _ in line.spans if name == slot)
            if type_name in ("phrase", "places") and all(one.kind == HARMLESS for one in about):
                said = "any order" if type_name == "places" else list_text(
                    [slot_text(line, slot), *(one.edit_text for one in map(_Words, about))], "or")  # fmt: skip
                yield line.number, f"{said} is safe here: let the spectator decide"
        if any(one.slip.what == "left out" and one.kind == HARMLESS for one in here):
            yield line.number, "this line may be left out"


@dataclass(frozen=True)
class _Words:
    outcome: Outcome

    @property
    def edit_text(self) -> str:
        return self.outcome.slip.what.partition(" instead of ")[0]
