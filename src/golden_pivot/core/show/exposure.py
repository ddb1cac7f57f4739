"""What each side can see, line by line; where something secret shows; when the performer looks away."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from ..analysis import Analysis
from ..answers.notes import notes_of
from ..cards import FACE_UP, TOKEN
from ..english import counted
from ..language.facets import Facet
from ..language.parser import read_routine
from ..language.printer import routine_text
from ..language.routine import STEP, Line, Routine
from ..language.spoken import seen_in
from ..search.replay import Frame, Play
from .off_table import HIDDEN, OFF_THE_TABLE
from .prediction_sheet import predictions_of
from .requests import asks_spectator
from .setup import setup_of

THICK = 13
"""cards from which a packet in a pocket or a hand looks thick; common practice, no published source"""


@dataclass(frozen=True)
class Moment:
    """What is in sight after a line, on the path that handles most cards. Cards of which nothing is known are `a card`."""

    line: int
    faces: tuple[str, ...]
    """that everybody sees"""
    odd_backs: tuple[str, ...]
    """that everybody sees, without those that are written on"""
    writing: tuple[str, ...]
    """that lies open: on the back of a card, or on paper on the table"""
    theirs: tuple[str, ...]
    """what only the spectator who helps sees in this line"""
    yours: tuple[str, ...]
    """what only you see in this line"""
    note: str
    """what to take care of, from every path; empty for nothing"""


@dataclass(frozen=True)
class ExposureNotes:
    moments: tuple[Moment, ...]
    """only those at which something changes, or somebody looks"""
    turned_away: tuple[tuple[int, int], ...]
    """first and last line of each stretch in which the spectator acts secretly, so that you look away"""


def exposure_of(it: Analysis, thick: int = THICK, played: Play | None = None) -> ExposureNotes:
    """On this path, else on the one that handles most cards.

    `thick`: cards from which a packet off the table looks thick. Raises BadRoutine, OutOfBudget.
    """
    routine, played = it.routine, played or it.longest
    lines = {line.number: line for line in routine.walk() if line.is_ == STEP}
    written = {one.card: one.written for one in setup_of(routine).lying if one.written}
    papers = {one.line: one.what for one in predictions_of(routine) if one.on_paper and not _is_hidden(one.waits)}
    shows = {line: f"Take care: {what} shows on some path." for line, what in _shows(it, played).items()}
    moments: list[Moment] = []
    for frame, following in zip(played.frames, (*played.frames[1:], None), strict=True):
        if following is not None and following.line == frame.line:
            continue
        faces, odd = in_sight(played, frame)
        writing = (
            *(f"{written[card]} on {card}" for card in odd if card in written),
            *(f"{what} on paper" for line, what in papers.items() if line <= frame.line),
        )
        theirs, yours = _looks(lines.get(frame.line))
        note = " ".join(filter(None, (shows.get(frame.line, ""), _thick(played, frame, thick))))
        now = Moment(
            frame.line, faces, tuple(card for card in odd if card not in written), writing, theirs, yours, note
        )
        last = moments[-1] if moments else None
        if last is None or theirs or yours or _table(last) != _table(now):
            moments.append(now)
    return ExposureNotes(tuple(moments), tuple(turned_away(routine)))


def _shows(it: Analysis, played: Play) -> dict[int, str]:
    """Line → what comes into sight there on some path: what a claim forbids, and any odd back."""
    found = {show.line: show.what for show in it.notes.shows}
    if played.program.odd_backs and not it.routine.having(Facet.FORBIDS_ODD_BACKS):
        asked = read_routine(f"{routine_text(it.routine)}Never shows: an odd back\n")
        for show in notes_of(asked, it.budget).shows:
            found.setdefault(show.line, show.what)
    return found


def _table(moment: Moment) -> tuple[object, ...]:
    return moment.faces, moment.odd_backs, moment.writing, moment.note


def _is_hidden(waits: str) -> bool:
    return waits.rpartition(" in ")[2] in HIDDEN


def _looks(line: Line | None) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """(what only the spectator sees, what only the performer sees) in this line."""
    seen = seen_in(line) if line else ""
    if not seen or line is None:
        return (), ()
    return ((seen,), ()) if asks_spectator(line) else ((), (seen,))


def in_sight(played: Play, frame: Frame) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """(faces, odd backs) that everybody sees then: what lies uppermost of each place."""
    program = played.program
    named: Mapping[int, str] = {token: name for name, token in program.tokens.items()}
    faces, odd = [], []
    for cell, heap in zip(program.cells, frame.state, strict=False):
        if not (cell.is_place and heap) or cell.name in HIDDEN:
            continue
        shown = cell.layout.in_sight(heap)
        up = [card & TOKEN for card in shown if card >= FACE_UP]
        known = [named[token] for token in up if token in named]
        faces += known
        if len(up) > len(known):
            faces.append(f"{counted(len(up) - len(known), 'card')} of {cell.name}")
        odd += [
            program.odd_backs[card & TOKEN] for card in shown if card < FACE_UP and card & TOKEN in program.odd_backs
        ]
    return tuple(faces), tuple(odd)


def _thick(played: Play, frame: Frame, thick: int) -> str:
    """A packet off the table that looks as many cards as it has."""
    found = [
        f"{cell.name} holds {len(heap)} cards, which looks thick."
        for cell, heap in zip(played.program.cells, frame.state, strict=False)
        if cell.is_place and cell.name in OFF_THE_TABLE and len(heap) >= thick
    ]
    return " ".join(found)


def turned_away(routine: Routine) -> Iterator[tuple[int, int]]:
    """First and last line of each stretch in which the spectator acts secretly."""
    run: list[int] = []
    for line in routine.walk():
        if line.is_ != STEP or not line.kind:
            continue
        if line.values.get("secretly") or (run and asks_spectator(line) and not line.has(Facet.TELLS)):
            run.append(line.number)
        elif run:
            yield run[0], run[-1]
            run = []
    if run:
        yield run[0], run[-1]
