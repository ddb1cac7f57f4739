"""What a performer asks about a routine beside its proof: what to remember, what shows, what was free, what it needs.

Badges and the recap are read off the sentences; where a card shows is found by going through every path.
"""

from __future__ import annotations

import re
from collections.abc import Collection, Iterator
from contextlib import suppress
from dataclasses import dataclass, replace

from ..budget import Budget
from ..building import PROOF, compile_routine, compile_what_can_be
from ..english import list_text
from ..faults import BadRoutine, OutOfBudget
from ..language.facets import Facet
from ..language.kinds import CHANCE, HANDLING, SETUP
from ..language.routine import PATTER, STEP, Line, Routine
from ..language.templates import PERFORMER, SPECTATOR
from ..language.values import NewNumber
from ..search.algebra import COUNT_PATHS
from ..search.frontiers import Exploration, frontiers
from ..search.program import FAILED, Program
from ..search.stages import Cut
from .plays import drawn_at_random

MOST_DRAWN = 40
"""paths that are drawn at random, for one that shows what is to be shown"""


@dataclass(frozen=True)
class Remembered:
    """Something the performer learns at one line and needs at others."""

    name: str
    learned: int
    needed: tuple[int, ...]


@dataclass(frozen=True)
class Shows:
    """A line at which something is in sight that must not be, on some path."""

    line: int
    what: str


@dataclass(frozen=True)
class Said:
    """A sentence the performer may want to say at the end, and whether it is so."""

    words: str
    true: bool
    line: int | None = None
    """where the patter says it"""


@dataclass(frozen=True)
class Notes:
    badges: tuple[str, ...]
    remembered: tuple[Remembered, ...]
    shows: tuple[Shows, ...]
    recap: tuple[Said, ...]
    asks_odds: bool
    """chance has a part in it, or the odds of something are asked for"""


def notes_of(routine: Routine, budget: Budget) -> Notes:
    """Raises BadRoutine when the text has faults."""
    program, faults = compile_what_can_be(routine, PROOF)
    if faults:
        raise BadRoutine(faults)
    kept = tuple(Remembered(name, learned, needed) for name, learned, needed in program.remembered)
    by_chance = any(choose.by == CHANCE and choose.plain for choose in program.choices())
    asks_odds = bool(program.odds or program.again or by_chance)
    return Notes(badges_of(routine), kept, _shows(routine, program, budget), recap_of(routine), asks_odds)


# What shows


def _shows(routine: Routine, program: Program, budget: Budget) -> tuple[Shows, ...]:
    """Every line at which something is first seen that a *Never shows* forbids; none where that takes too long.

    With choices made late there are fewer situations, and what is done is done in the same order. But paths then go further
    that have no way to go on, so nothing is seen later than it really is; that it is seen there, some path drawn has to show.
    """
    kept = {i for i, claim in enumerate(program.claims) if claim.text.startswith("Never shows")}
    if not kept:
        return ()
    try:
        found = _first_shown(compile_routine(routine, replace(PROOF, reorder=True)), kept, budget)
        if not _is_shown(routine, found, budget):
            found = _first_shown(program, kept, budget)
    except OutOfBudget:
        return ()
    return tuple(Shows(line, program.claims[i].text.partition(":")[2].strip()) for line, i in found)


def _first_shown(program: Program, kept: Collection[int], budget: Budget) -> list[tuple[int, int]]:
    """(line, claim) for each of these claims that is denied on some path, where it first is. Raises OutOfBudget."""
    before = program.start[FAILED]
    found = [(0, i) for i in kept if before & 2 << i]
    for frontier in frontiers(program, budget, COUNT_PATHS, Exploration(), Cut.BEHIND_A_LINE):
        if len(found) == len(kept):
            break
        now = before
        for state in frontier.layer:
            now |= state[FAILED]
        found += [(frontier.stage.first.line, i) for i in kept if now & ~before & 2 << i]
        before = now
    return found


def _is_shown(routine: Routine, found: Collection[tuple[int, int]], budget: Budget) -> bool:
    """Whether some of a few paths drawn at random show each of these at its line. Raises Cancelled."""
    unseen = {(line, i) for line, i in found if line}
    with suppress(BadRoutine):  # more than the bench can follow
        for _, again in drawn_at_random(routine, MOST_DRAWN if unseen else 0, budget.cancelled):
            before = 0
            for frame in again().frames:
                now = frame.state[FAILED]
                unseen -= {(frame.line, i) for _, i in found if now & ~before & 2 << i}
                before |= now
            if not unseen:
                break
    return not unseen


# Badges

BADGES = (
    "borrowed pack",
    "no set-up",
    "hands off",
    "repeatable at once",
    "ends examinable",
    "at a distance",
    "spectator looks",
)


def _steps(routine: Routine) -> Iterator[Line]:
    return (line for line in routine.walk() if line.is_ == STEP and line.kind)


def _moves_cards(line: Line) -> bool:
    """The line is carried out with cards in hand, by whoever it says."""
    kind = line.kind
    silent = ("Choices", "Order of events", "The page", "Endings", "Set-up")
    return (
        kind is not None
        and kind.phase == HANDLING
        and kind.family not in silent
        and not line.has(Facet.NOTHING_MOVED)
    )


def _performers(line: Line) -> bool:
    return line.kind is not None and line.kind.actor(line.values) == PERFORMER


def badges_of(routine: Routine) -> tuple[str, ...]:
    """The badges a routine has, in the order of BADGES; none for one that is still being written.

    borrowed pack: nothing odd in it and nothing beside it; no set-up: no card lies at a known place; hands off: the
    performer never touches a card; repeatable at once: there is no set-up to lose; ends examinable: nothing odd in the
    pack and nothing added; at a distance: hands off, and the performer sees no card until the end; spectator looks: the
    spectator must look at a card's face.
    """
    steps = list(_steps(routine))
    if routine.faults or not routine.having(Facet.PACK):
        return ()
    odd = any(line.values.get("odd") or line.values.get("short") or line.has(Facet.EXTRA_CARD) for line in steps)
    placed = any(line.kind and line.kind.phase == SETUP and not line.has(Facet.NO_ORDER) for line in steps)
    touched = any(_moves_cards(line) and _performers(line) for line in steps)
    seen = any(_performers(line) for line in routine.having(Facet.DOER_SEES))
    looks = any(
        line.has(Facet.FACE_NEEDED) or (line.has(Facet.SPECTATOR_SEES) and not _performers(line)) for line in steps
    )
    has = {
        "borrowed pack": not odd and not routine.having(Facet.ORDERED_PACK),
        "no set-up": not placed and not odd,
        "hands off": not touched,
        "repeatable at once": not placed and not odd,
        "ends examinable": not odd,
        "at a distance": not touched and not seen,
        "spectator looks": looks,
    }
    return tuple(name for name in BADGES if has[name])


# What was free, and what may be said


def _is_free(line: Line) -> bool:
    """There is more than one number to choose from."""
    new = line.values.get("number") or line.values.get("choice")
    return not isinstance(new, NewNumber) or new.low != new.high


def _spectators(line: Line) -> bool:
    likes = line.values.get("likes") == "the spectator likes"
    return likes or (line.kind is not None and line.kind.actor(line.values) == SPECTATOR)


def _shows_a_face(line: Line) -> bool:
    """On some path the performer may see a face in this line: turned, dealt or placed face up, shown, looked at, read."""
    assert line.kind
    named = any(type_name == "card" and slot == "card" for slot, type_name, _, _ in line.spans)
    looks = _performers(line) and (line.kind.sees or (line.kind.family == "Cards" and named))
    return line.kind.shows or line.values.get("way") == "face up" or bool(line.values.get("up")) or bool(looks)


_CLAIMED: tuple[tuple[str, str], ...] = (
    (r"never (touched|handled)|did(n’t|n't| not) touch|hands off", "I never touched the cards"),
    (r"never (saw|looked at)|did(n’t|n't| not) (see|look)", "I never saw a card"),
    (r"shuffled", "The pack was shuffled"),
    (r"your own (pack|cards)|borrowed", "The pack is your own"),
)
"""what patter may claim → the sentence that is checked"""


def recap_of(routine: Routine) -> tuple[Said, ...]:
    """The decisions that were truly free, in words to say; then what may be claimed, and what the patter claims."""
    steps = list(_steps(routine))
    free = [line.kind.free(line.values) for line in steps if line.kind and _spectators(line) and _is_free(line)]
    badges = badges_of(routine)
    shuffled = any(line.values["place"] == "deck" for line in routine.having(Facet.SHUFFLES))
    truths = {
        "I never touched the cards": "hands off" in badges,
        "I never saw a card": not any(map(_shows_a_face, steps)),
        "The pack was shuffled": shuffled or "no set-up" in badges,
        "The pack is your own": "borrowed pack" in badges,
    }
    said = [Said(words, True) for words in dict.fromkeys(filter(None, free))]
    # Of a pack that may have been shuffled before one says only that; in patter it may be so.
    offered = {"The pack was shuffled": shuffled, "Anybody may shuffle the pack first": "no set-up" in badges}
    said += [Said(words, True) for words, true in (truths | offered).items() if true and badges]
    for line in routine.walk():
        if line.is_ == PATTER:
            said += [
                Said(words, truths[words], line.number)
                for pattern, words in _CLAIMED
                if re.search(pattern, line.text, re.IGNORECASE) and not truths[words]
            ]
    return tuple(said)


def summary(notes: Notes) -> list[str]:
    """In sentences, for a terminal."""
    rows = [f"Badges: {', '.join(notes.badges)}."] if notes.badges else []
    for kept in notes.remembered:
        needed = list_text([str(line) for line in kept.needed])
        rows.append(f"Remember {kept.name}: learned in line {kept.learned}, needed in line {needed}.")
    rows += [f"Line {show.line}: {show.what} shows." for show in notes.shows]
    rows += [
        f"Line {said.line} says what is not so: “{said.words}”."
        for said in notes.recap
        if not said.true and said.line
    ]
    return rows
