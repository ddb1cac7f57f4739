"""What breaks it: every plausible slip, each proved as a routine of its own."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

from ..answers.proving import prove
from ..answers.regions import Choices, choices_of
from ..answers.verdicts import FIXED, REFUTED, RULE, UNSETTLED, WHETHER, Asked, Verdict
from ..budget import Budget
from ..english import list_text
from ..faults import BadRoutine
from ..language.kinds import ENDING, HANDLING, PAGE
from ..language.parser import read_routine
from ..language.routine import STEP, Line, Routine
from ..search.counted import Count, of_paths
from ..steps.mishaps import heard_as, slips_of_slot
from .edits import Edit, edited, last_line, slot_text, with_slots

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
    share: float | None
    """of the paths that fail, 0 to 1; None where some fail and paths have no number"""
    says: str
    """one sentence"""
    spoiled: tuple[int, ...]
    """lines of the claims that fail on some path"""


@dataclass(frozen=True)
class Advice:
    """What may be given away to the spectator, or what to take care of."""

    line: int
    words: str


@dataclass(frozen=True)
class Fragility:
    """All slips of a routine, worst first."""

    outcomes: tuple[Outcome, ...]
    strict: tuple[int, ...]
    """lines at which some slip is not harmless"""
    free: tuple[int, ...]
    """lines of which every slip is harmless"""
    advice: tuple[Advice, ...]
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
    plain: Verdict | None = None,
) -> Fragility:
    """Every slip proved. `progress` is told how far it is, with what was found so far.

    `plain`: the verdict without a slip, where it is known already.

    `room`: transitions for all of them together, from the first line on; the rest stay untried. Not a time, so that
    the same is found wherever it runs. Where the clock of the budget runs out the rest stay untried as well.

    Raises BadRoutine for a text with faults, Cancelled when the budget's flag is raised.
    """
    budget = budget.quiet()
    plain = plain or prove(read_routine(text), budget, Asked(some_claim=False))
    slips = slips_of(text)
    found: list[Outcome] = []
    used = 0
    told = replace(plain, counterexample=None, holds_when=None)
    tries = budget.executor.run(_tried, (text, told), slips, budget)
    for done, slip in enumerate(slips):
        # A line is tried as a whole, since advice speaks of all its slips.
        if room is not None and used >= room and slip.line != slips[done - 1].line:
            break
        progress(f"{done + 1} of {len(slips)} slips", found)
        tried = next(tries)
        if tried is None:
            break
        used += tried.transitions
        found += tried.outcomes
    else:
        done = len(slips)
    return replace(_ranked(read_routine(text), found), untried=len(slips) - done)


@dataclass(frozen=True)
class _Tried:
    outcomes: tuple[Outcome, ...]
    """one, or none where it would be noticed"""
    transitions: int


def _tried(shared: tuple[str, Verdict], slip: Slip, budget: Budget) -> _Tried | None:
    """One slip; None where the time is up."""
    text, plain = shared
    if budget.is_over():
        return None
    verdict = _proved(text, slip, budget, plain)
    if verdict is None:
        return _Tried((), 0)
    used = MOST_TRANSITIONS if verdict.limit else verdict.transitions
    return _Tried((_judged(text, slip, verdict, plain, budget),), used)


def outcome_of(text: str, slip: Slip, budget: Budget, plain: Verdict) -> Outcome | None:
    """What comes of one slip; `plain` is the verdict without it. None where the routine cannot be carried out at all."""
    verdict = _proved(text, slip, budget.quiet(), plain)
    return _judged(text, slip, verdict, plain, budget.quiet()) if verdict else None


def _proved(text: str, slip: Slip, budget: Budget, plain: Verdict) -> Verdict | None:
    """None where the routine could not be carried out at all, so that it would be noticed.

    Of a rule that was sought as a formula, it is tested as a claim.

    It has so many steps and no time, so that the same is found on every machine.
    """
    budget = replace(budget, seconds=None)
    rule = f"{plain.landing.claim}\n" if plain.landing and plain.landing.claim else ""
    try:
        return prove(
            read_routine(edited(text, slip.edit) + rule),
            budget.narrowed(MOST_STATES, MOST_TRANSITIONS),
            replace(WHETHER, some_claim=False, places=False, told=() if rule else plain.told),
        )
    except BadRoutine as bad:
        return Verdict(UNSETTLED, bad.faults[0].message) if bad.is_limit else None


def _judged(text: str, slip: Slip, verdict: Verdict, plain: Verdict, budget: Budget) -> Outcome:
    """What comes of one slip."""
    count = verdict.count
    if count is None:
        return Outcome(slip, OPEN, 0.0, "Not settled within its budget.", ())
    own = () if plain.landing and plain.landing.claim else verdict.claims
    spoiled = _in_text([claim.line for claim in own if not claim.holds], slip.edit)
    if verdict.claims or count.some_fail:
        kind, share, says = _by_claims(verdict, plain, count)
    else:
        kind, share, says = _by_place(verdict, plain, count)
    fails_anyway = plain.verdict == REFUTED and plain.count is not None and plain.count.some_fail
    if count.some_fail and fails_anyway and _fails_no_more(text, slip.edit, budget):
        placed = (HARMLESS, 0.0, "") if verdict.claims else _by_place(verdict, plain, count)
        if placed[0] != HARMLESS:  # where it does not fail it comes out otherwise
            return Outcome(slip, placed[0], placed[1], placed[2], spoiled)
        return Outcome(slip, HARMLESS, share, "It fails where it fails without it, and nowhere else.", spoiled)
    if count.some_fail and plain.count and plain.count.some_fail:
        says += f" Without it: {plain.count.failure}"
    only = (
        "" if kind == HARMLESS or len(spoiled) in (0, len(verdict.claims)) else f" It spoils only {_lines(spoiled)}."
    )
    return Outcome(slip, kind, share, says + only, spoiled)


def _by_claims(verdict: Verdict, plain: Verdict, count: Count) -> tuple[str, float | None, str]:
    """(kind, share, in a sentence) where something is claimed, or not every path can be gone."""
    if not count.some_fail:
        if verdict.claims and all(claim.reached == 0 for claim in verdict.claims):
            return ALL, 1.0, "No path comes to an ending any more."
        if count.some_miss and not (plain.count and plain.count.some_miss):
            missing = 1 - (count.reached or 0) / count.paths if count.paths and count.reached is not None else None
            on = of_paths(count.reached, count.paths) if count.paths and count.reached is not None else "some paths"
            return SOME, missing, f"Only {on} come to an ending."
        return HARMLESS, 0.0, "It comes out all the same."
    where = verdict.landing.where if verdict.landing else ()
    if count.all_fail and verdict.landing and len(where) == 1 and not count.some_stuck:
        return ELSEWHERE, count.share, f"Known all the same: {verdict.landing.card} is {verdict.landing.text}."
    return ALL if count.all_fail else SOME, count.share, count.failure


def _by_place(verdict: Verdict, plain: Verdict, count: Count) -> tuple[str, float | None, str]:
    """The same where nothing is claimed: whether the card still lies where the rule without the slip looks for it."""
    card = plain.landing.card if plain.landing else None
    if card and (verdict.landing is None or verdict.landing.card != card):
        return ALL, 1.0, f"{card} is then never named."
    goes_by = _among(plain.told, verdict.told)
    if goes_by is None:
        kind = ELSEWHERE if verdict.verdict in (FIXED, RULE) else ALL
        return kind, 1.0, f"You are then told other things. {verdict.headline}."
    whole = sum(paths for where in verdict.whereabouts.values() for paths in where.values())
    wrong = sum(
        paths
        for known, where in verdict.whereabouts.items()
        for place, paths in where.items()
        if place not in plain.whereabouts.get(tuple(known[i] for i in goes_by), {})
    )
    if not wrong:
        return HARMLESS, 0.0, "It comes out all the same."
    share = wrong / whole if count.paths is not None or wrong == whole else None
    if wrong == whole and verdict.verdict in (FIXED, RULE):
        return ELSEWHERE, 1.0, f"It is not where you look for it. Known all the same: {_there(verdict)}."
    on = of_paths(wrong, whole) if count.paths is not None else "some paths"
    return ALL if wrong == whole else SOME, share, f"It is not where you look for it on {on}."


def _among(told: Sequence[str], now: Sequence[str]) -> list[int] | None:
    """Where these numbers stand among those that are told now; None where one is told no more."""
    at: list[int] = []
    for name in told:
        if (found := next((i for i, other in enumerate(now) if other == name and i not in at), None)) is None:
            return None
        at.append(found)
    return at


def _lines(lines: Sequence[int]) -> str:
    return f"line{'s' if len(lines) > 1 else ''} {list_text(list(map(str, lines)))}"


def _there(verdict: Verdict) -> str:
    """Where the card is, for a verdict that says it: as a place, or as a rule."""
    landing = verdict.landing
    fixed = landing and verdict.verdict == FIXED
    return f"{landing.card} is {landing.text}" if landing and fixed else verdict.headline.removeprefix("A rule: ")


def _fails_no_more(text: str, edit: Edit, budget: Budget) -> bool:
    """Whether with this edit nothing fails that holds without it, by the choices that both have."""
    before = _choices_without(text)
    after = before and choices_of(read_routine(edited(text, edit)), budget)
    if not before or not after or before.faces != after.faces:
        return False
    more = len(edit.rows) - (edit.last - edit.first + 1)
    new = range(edit.last + 1, edit.first + len(edit.rows))
    # Choices of lines that only one of them has are left out of both.
    gone = range(edit.first, edit.last + 1) if more < 0 else range(0)
    mine = [i for i, line in enumerate(before.lines) if line not in gone]
    theirs = [i for i, line in enumerate(after.lines) if line not in new]
    if len(mine) != len(theirs):
        return False
    failed = {tuple(point[i] for i in mine) for point in before.failing}
    return {tuple(point[i] for i in theirs) for point in after.failing} <= failed


@lru_cache(maxsize=1)
def _choices_without(text: str) -> Choices | None:
    """The same for all slips of a text, and bounded in work by itself."""
    return choices_of(read_routine(text), Budget(seconds=None))


def _in_text(lines: Sequence[int], edit: Edit) -> tuple[int, ...]:
    """Lines of the changed text as lines of the text before."""
    more = len(edit.rows) - (edit.last - edit.first + 1)
    return tuple(line - more if line > edit.last else line for line in lines)


def _ranked(routine: Routine, found: Sequence[Outcome]) -> Fragility:
    outcomes = sorted(found, key=lambda one: (WORST_FIRST.index(one.kind), -(one.share or 0.0), one.slip.line))
    lines = sorted({one.slip.line for one in found})
    strict = tuple(n for n in lines if any(o.slip.line == n and o.kind not in (HARMLESS, OPEN) for o in found))
    free = tuple(n for n in lines if all(o.kind == HARMLESS for o in found if o.slip.line == n))
    return Fragility(tuple(outcomes), strict, free, tuple(_advice(routine, found)))


def _advice(routine: Routine, found: Sequence[Outcome]) -> Iterator[Advice]:
    for line in routine.walk():
        here = [one for one in found if one.slip.line == line.number]
        for slot in dict.fromkeys(one.slip.slot for one in here if one.slip.slot):
            about = [one for one in here if one.slip.slot == slot]
            type_name = next(kind for name, kind, _, _ in line.spans if name == slot)
            if type_name in ("phrase", "places") and all(one.kind == HARMLESS for one in about):
                said = "any order" if type_name == "places" else list_text(
                    [slot_text(line, slot), *(one.edit_text for one in map(_Words, about))], "or")  # fmt: skip
                yield Advice(line.number, f"{said} is safe here: let the spectator decide")
        if any(one.slip.what == "left out" and one.kind == HARMLESS for one in here):
            yield Advice(line.number, "this line may be left out")


@dataclass(frozen=True)
class _Words:
    outcome: Outcome

    @property
    def edit_text(self) -> str:
        return self.outcome.slip.what.partition(" instead of ")[0]
