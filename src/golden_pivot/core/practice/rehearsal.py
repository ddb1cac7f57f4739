"""A rehearsal: a path of a spectator who is not there, beat by beat as the performer sees and hears it."""

from __future__ import annotations

import random
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from statistics import median

from ..analysis import Analysis
from ..language.facets import Facet
from ..language.kinds import CHANCE, ENDING, HANDLING
from ..language.patter import spoken
from ..language.routine import PATTER, STEP, Line, Routine
from ..search.replay import Decision, Frame, Play
from ..show.effort import effort_of, operations_at
from ..show.exposure import in_sight
from ..show.paces import Paces
from ..show.requests import asks_spectator
from .asked import Needed, needed_on
from .imagined import Habit, spectator
from .kept import BeatDone, Rehearsed

MOST_ROUNDS_SEEN = 400
"""beats; a routine that goes on is cut off there"""


@dataclass(frozen=True)
class Cue:
    line: int
    round: tuple[int, ...]
    spectator: bool
    """the spectator acts or decides"""
    action: str
    keyword: str
    """the line in a few words, for the level between sheet and memory"""
    says: tuple[str, ...]
    heard: tuple[str, ...]
    """what one is told here: `n is 34`"""
    seen: tuple[str, ...]
    """faces and odd backs in sight when it is done"""
    seconds: float
    """as it is reckoned from paces"""
    asks: tuple[Needed, ...]
    """what must be known before one goes on"""
    may_come: tuple[str, ...]
    """this line among others, for whoever goes from memory"""


@dataclass(frozen=True)
class Rehearsal:
    beats: tuple[Cue, ...]
    choices: tuple[str, ...]
    """what the spectator chose, secrets included: told when it is over"""
    comes_out: bool
    """on this path every claim holds"""
    where: str
    """why not; empty where it comes out"""


def rehearsal_of(
    it: Analysis,
    habit: Habit,
    seed: int,
    book: Mapping[str, Sequence[int | str]] | None = None,
    paces: Paces | None = None,
) -> Rehearsal:
    """The same for the same seed. Raises BadRoutine."""
    routine = it.routine
    played = spectator(routine, habit, seed, book)
    costs = {cost.line: cost.seconds for cost in effort_of(it, paces, played).lines}
    asked: dict[int, list[Needed]] = {}
    for moment in needed_on(routine, played):
        asked.setdefault(moment.line, []).append(moment)
    lines = {line.number: line for line in routine.walk() if line.is_ == STEP and line.kind}
    below, draw = routine.below(), random.Random(seed)
    order = _with_what_is_told(routine, _in_order(played))
    rounds = {number: sum(1 for key in order if key[0] == number) for number in lines}
    beats: list[Cue] = []
    for number, turn, at in order[:MOST_ROUNDS_SEEN]:
        line = lines[number]
        last = played.frames[at]
        mine = asked.get(number, [])
        due = [one for those in asked.values() for one in those if _is_due(one, number)]
        beats.append(Cue(
            number, turn, asks_spectator(line), line.text.strip(), _keyword(line),
            tuple(spoken(one) for one in below.get(number, ()) if one.is_ == PATTER),
            tuple(_heard(line, played, last)), tuple(map(str, sum(in_sight(played, last), ()))),
            round(costs.get(number, 0.0) / max(1, rounds[number]), 1),
            tuple(_still(due, beats) + [one for one in mine if one.kind == "sum"]) if not turn or turn[-1] == 1 or mine else (),
            tuple(_others(line, lines, draw)),
        ))  # fmt: skip
    choices = [one.clause for one in played.decisions if one.by != CHANCE and one.clause]
    return Rehearsal(tuple(beats), tuple(choices), not played.failures, "; ".join(played.failures))


Key = tuple[int, tuple[int, ...], int]
"""line, round, and the frame when it is done"""


def _in_order(played: Play) -> list[Key]:
    """Everything that is carried out, in its order."""
    found: dict[tuple[int, tuple[int, ...]], int] = {}
    for at, frame in enumerate(played.frames):
        if frame.line:
            found[frame.line, frame.round] = at
    return [(line, turn, at) for (line, turn), at in found.items()]


def _with_what_is_told(routine: Routine, order: Sequence[Key]) -> list[Key]:
    """Nothing moves where the spectator only tells a number: such a line stands before the next one of its block."""
    block = {line.number: above.number for above in routine.walk() for line in above.body}
    told = [line.number for line in routine.having(Facet.TELLS)]
    found: list[Key] = []
    for number, turn, at in order:
        for line in [one for one in told if one < number and block.get(one) in (None, block.get(number))]:
            told.remove(line)
            if all(key[0] != line for key in order):
                found.append((line, turn, at))
        found.append((number, turn, at))
    return found


def _is_due(one: Needed, number: int) -> bool:
    """It must be known before this line: a case once it can depend on it, a pointing once it is done."""
    return (one.kind == "case" and number >= one.line) or (one.kind == "pointing" and number > one.line)


def _still(cases: Sequence[Needed], beats: Sequence[Cue]) -> list[Needed]:
    """Cases that were not asked yet."""
    done = {(one.line, one.known) for beat in beats for one in beat.asks}
    return [one for one in cases if (one.line, one.known) not in done]


def _keyword(line: Line) -> str:
    """The verb and what is chosen or counted."""
    words = line.text.strip().split()
    subject = 1 if words[:1] == ["Spectator"] else 0
    return " ".join(words[: subject + 2]).rstrip(":,") + (" …" if len(words) > subject + 2 else "")


def _heard(line: Line, played: Play, last: Frame) -> list[str]:
    found = [one.clause for one in played.decisions if _is_heard(one, line, last) and one.clause]
    if line.has(Facet.TELLS):
        cells = {cell.name: at for at, cell in enumerate(played.program.cells)}
        known = [(name, last.state[cells[name]]) for name in line.values["names"] if name in cells]
        found += [f"{name} is {number}" for name, number in known if number is not None]
    return list(dict.fromkeys(found))


def _is_heard(one: Decision, line: Line, last: Frame) -> bool:
    if one.line != line.number or one.secret or one.by == CHANCE:
        return False
    return not last.round or not one.key.rpartition("round ")[1] or one.key.endswith(f"round {last.round[-1]}")


def _others(line: Line, lines: Mapping[int, Line], draw: random.Random) -> list[str]:
    """Two other lines of the routine and this one, in any order."""
    may = [
        one
        for one in lines.values()
        if one.kind and one.kind.phase in (HANDLING, ENDING) and not one.kind.opens_block
    ]
    texts = list(dict.fromkeys(one.text.strip() for one in may if one.text.strip() != line.text.strip()))
    found = [*draw.sample(texts, min(2, len(texts))), line.text.strip()]
    draw.shuffle(found)
    return found


# What came of it


@dataclass(frozen=True)
class LineTime:
    line: int
    text: str
    times: int
    seconds: float
    """the middle one"""
    wrong: int


def line_times(routine: Routine, rehearsals: Sequence[Rehearsed]) -> tuple[LineTime, ...]:
    """Of every line that was rehearsed, in their order."""
    texts = {line.number: line.text.strip() for line in routine.walk()}
    found: dict[int, list[BeatDone]] = {}
    for one in rehearsals:
        for done in one.done:
            found.setdefault(done.line, []).append(done)
    return tuple(
        LineTime(line, texts[line], len(those), round(median(one.seconds for one in those), 1), sum(one.right is False for one in those))
        for line, those in sorted(found.items()) if line in texts
    )  # fmt: skip


def own_paces(it: Analysis, rehearsals: Sequence[Rehearsed], paces: Paces) -> Paces | None:
    """These paces as they were measured: what is done by how much longer it took in all, sums by their own times.

    None where nothing was measured. Raises BadRoutine, OutOfBudget.
    """
    times = line_times(it.routine, rehearsals)
    reckoned = {cost.line: cost.seconds for cost in effort_of(it, paces).lines}
    both = [(one.seconds, reckoned[one.line]) for one in times if reckoned.get(one.line)]
    if not both:
        return None
    ratio = min(3.0, max(0.3, sum(mine for mine, _ in both) / sum(his for _, his in both)))
    answered = [
        done.seconds / operations_at(it.routine, done.line)
        for one in rehearsals for done in one.done if done.right is not None and operations_at(it.routine, done.line)
    ]  # fmt: skip
    scaled = {
        name: round(getattr(paces, name) * ratio, 2) for name in ("card", "count", "look", "step", "decision", "word")
    }
    return Paces(**scaled, sum=round(median(answered), 2) if answered else paces.sum)
