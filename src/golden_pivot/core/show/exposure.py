"""What each side can see, line by line; where something secret shows; when the performer looks away."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ..budget import Budget
from ..cards import FACE_UP, TOKEN
from ..notes import notes_of
from ..replay import Frame, Play
from ..routine import STEP, Routine
from .effort import longest_play

THICK = 13
"""cards from which a packet in a pocket or a hand looks thick; common practice, no published source"""


@dataclass(frozen=True)
class Moment:
    """What is in sight after a line, on the path that handles most cards. Cards of which nothing is known are `a card`."""

    line: int
    faces: tuple[str, ...]
    odd_backs: tuple[str, ...]
    note: str
    """what to take care of, from every path; empty for nothing"""


@dataclass(frozen=True)
class ExposureNotes:
    moments: tuple[Moment, ...]
    """only those at which something changes"""
    turned_away: tuple[tuple[int, int], ...]
    """first and last line of each stretch in which the spectator acts secretly, so that you look away"""


def exposure_of(routine: Routine, budget: Budget) -> ExposureNotes:
    """Raises BadRoutine, OutOfBudget."""
    played = longest_play(routine, budget)
    shows = {show.line: f"Take care: {show.what} shows on some path." for show in notes_of(routine, budget).shows}
    moments: list[Moment] = []
    for frame, following in zip(played.frames, (*played.frames[1:], None), strict=True):
        if following is not None and following.line == frame.line:
            continue
        faces, odd = _in_sight(played, frame)
        note = " ".join(filter(None, (shows.get(frame.line, ""), _thick(played, frame))))
        last = moments[-1] if moments else None
        if last is None or (last.faces, last.odd_backs, last.note) != (faces, odd, note):
            moments.append(Moment(frame.line, faces, odd, note))
    return ExposureNotes(tuple(moments), tuple(_turned_away(routine)))


def _in_sight(played: Play, frame: Frame) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """(faces, odd backs) that show: the top of each heap, every card of a row."""
    program = played.program
    named = {token: name for name, token in program.tokens.items()}
    faces, odd = [], []
    for cell, heap in zip(program.cells, frame.state, strict=False):
        if not (cell.is_place and heap) or cell.name in ("pocket", "box"):
            continue
        shown = heap if cell.is_row else heap[:1]
        up = [card & TOKEN for card in shown if card >= FACE_UP]
        known = [named[token] for token in up if token in named]
        faces += known
        if len(up) > len(known):
            faces.append(f"{len(up) - len(known)} {'card' if len(up) - len(known) == 1 else 'cards'} of {cell.name}")
        odd += [
            named.get(card & TOKEN, "a card")
            for card in shown
            if card < FACE_UP and card & TOKEN in program.odd_backs
        ]
    return tuple(faces), tuple(odd)


def _thick(played: Play, frame: Frame) -> str:
    """A packet off the table that looks as many cards as it has."""
    thick = [
        f"{cell.name} holds {len(heap)} cards, which looks thick."
        for cell, heap in zip(played.program.cells, frame.state, strict=False)
        if cell.is_place and cell.name in ("pocket", "hand", "box") and len(heap) >= THICK
    ]
    return " ".join(thick)


def _turned_away(routine: Routine) -> Iterator[tuple[int, int]]:
    run: list[int] = []
    for line in routine.walk():
        if line.is_ != STEP or not line.kind:
            continue
        spectator = line.values.get("who") == "spectator" or line.kind.sentence.startswith("Spectator")
        if line.values.get("secretly") or (run and spectator and line.kind.name != "tell"):
            run.append(line.number)
        elif run:
            yield run[0], run[-1]
            run = []
    if run:
        yield run[0], run[-1]
