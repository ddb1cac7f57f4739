"""The cue sheet: beats with what to say and do, what to remember and reckon, endings, and what may be said at the end."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import takewhile

from ..analysis import Analysis
from ..answers.verdicts import Verdict
from ..faults import OutOfBudget
from ..language.facets import Facet
from ..language.kinds import ENDING, HANDLING
from ..language.patter import spoken
from ..language.routine import PATTER, REMARK, STEP, Line, Routine
from .exposure import exposure_of, turned_away
from .prediction_sheet import Prediction, predictions_of
from .requests import asks_spectator, gaps_of
from .sums import MOST_ROWS, Shortcut, shortcuts_of


@dataclass(frozen=True)
class Beat:
    """One thing that happens. `level`: how many cases or repetitions it stands in."""

    number: int | None
    """from 1; None for the head of a case or repetition"""
    line: int
    level: int
    spectator: bool
    action: str
    says: tuple[str, ...]
    """patter, without its quotation marks"""
    watch: tuple[str, ...]
    """from remarks below the line, and what is found: where something shows"""
    away: str
    """where to look away or to turn back; empty elsewhere"""
    remember: tuple[str, ...]
    """what is learned here and needed later"""
    needs: tuple[str, ...]
    """what must be remembered here"""
    ending: bool
    assumed: bool
    gap: bool
    """something is done, or something ends, and nothing is said; of a case, nowhere in it"""
    suggested: str
    """what one may say in a gap; empty where nobody needs to say anything"""


@dataclass(frozen=True)
class CueSheet:
    beats: tuple[Beat, ...]
    shortcuts: tuple[Shortcut, ...]
    landing: tuple[tuple[str, str], ...]
    """(what you know, where the card is) where it lands by a rule and nothing is claimed"""
    recap: tuple[str, ...]
    """decisions that were free, to be said at the end"""
    predictions: tuple[Prediction, ...]
    hidden: tuple[str, ...]
    """what must not show, as it is written"""
    assumed: tuple[str, ...]


def cues_of(it: Analysis) -> CueSheet:
    """Raises BadRoutine when the text has faults."""
    routine, notes = it.routine, it.notes
    learned: dict[int, list[str]] = {}
    needed: dict[int, list[str]] = {}
    for one in notes.remembered:
        learned.setdefault(one.learned, []).append(one.name)
        for line in one.needed:
            needed.setdefault(line, []).append(one.name)
    return CueSheet(
        tuple(_beats(routine, learned, needed, _watch(it))),
        tuple(shortcuts_of(routine)),
        tuple(_rule(it.verdict)),
        tuple(said.words for said in notes.recap if said.true),
        predictions_of(routine),
        tuple(line.text.strip() for line in routine.having(Facet.FORBIDS)),
        tuple(routine.said(Facet.ASSUMPTION)),
    )


def _beats(
    routine: Routine,
    learned: Mapping[int, list[str]],
    needed: Mapping[int, list[str]],
    watch: Mapping[int, Sequence[str]],
) -> Iterator[Beat]:
    lines, requests, away = list(routine.walk()), gaps_of(routine), _away(routine)
    said = routine.below()
    number = 0
    opening = _opening(lines)
    if opening:
        yield Beat(None, 0, 0, False, "To begin", opening, (), "", (), (), False, False, False, "")
    for line in lines:
        if line.is_ != STEP or not line.kind or line.kind.phase not in (HANDLING, ENDING):
            continue
        assumed = line.has(Facet.ASSUMPTION)
        if line.kind.is_question or line.has(Facet.FORBIDS) or (line.kind.family == "The page" and not assumed):
            continue
        below = said[line.number]
        says = tuple(spoken(one) for one in below if one.is_ == PATTER)
        head = line.kind.opens_block
        number += not head
        yield Beat(
            None if head else number,
            line.number,
            line.level,
            asks_spectator(line),
            line.text.strip(),
            says,
            (*(str(one.values["text"]) for one in below if one.is_ == REMARK), *watch.get(line.number, ())),
            away.get(line.number, ""),
            tuple(learned.get(line.number, ())),
            tuple(needed.get(line.number, ())),
            line.kind.phase == ENDING,
            assumed or bool(line.values.get("shielded")),
            _is_gap(line, bool(says), line.number in requests),
            "" if says else requests.get(line.number, ""),
        )


def _is_gap(line: Line, said: bool, may_be_said: bool) -> bool:
    if said or not line.kind:
        return False
    if line.kind.opens_block:
        return line.kind.is_case and not any(one.is_ == PATTER for one in Routine(line.body).walk())
    return line.kind.phase == HANDLING or may_be_said


def _away(routine: Routine) -> dict[int, str]:
    """Line → where to look away, and where to turn back."""
    found: dict[int, str] = {}
    for first, last in turned_away(routine):
        found[first] = "look away"
        found[last] = f"{found[last]} until it is done" if last in found else "turn back when it is done"
    return found


def _watch(it: Analysis) -> dict[int, tuple[str, ...]]:
    """Line → what to take care of there, found by going through the paths."""
    found: dict[int, list[str]] = {}
    try:
        seen = exposure_of(it)
    except OutOfBudget:
        return {}
    for moment in seen.moments:
        if moment.note and moment.note not in found.get(moment.line, ()):
            found.setdefault(moment.line, []).append(moment.note)
    return {line: tuple(words) for line, words in found.items()}


def _opening(lines: Sequence[Line]) -> tuple[str, ...]:
    """What is said before the first action."""
    before = list(takewhile(lambda line: not (line.kind and line.kind.phase in (HANDLING, ENDING)), lines))
    return tuple(spoken(line) for line in before if line.is_ == PATTER)


def _rule(verdict: Verdict) -> Iterator[tuple[str, str]]:
    landing = verdict.landing
    if landing and verdict.verdict == "rule" and landing.every_row and len(landing.table) <= MOST_ROWS:
        for row in landing.table:
            yield ", ".join(row.words), row.text
