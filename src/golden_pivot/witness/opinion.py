"""A second opinion on what has been told of a routine: its paths, played card by card, and held against every answer.

All paths where there are few enough, else as many as the time allows: the corners of every range first (always the least,
always the most, by turns), then at random.
"""

from __future__ import annotations

import math
import random
import time
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import count
from zlib import crc32

from .compare import COMPARISONS, Played, Told
from .paths import NoPath, Path, each_path, judged_together, run
from .table import FacesLeft, Json

MOST_PLAYED = 6_000
"""paths up to which all of them are played"""
SECONDS = 1.5
"""of processor time that the paths of one verdict may take"""
TRIED = 50
"""paths behind which it is reckoned whether all can be played in that time"""
ROUNDS = 6
"""of a repetition without a stated number, at most, where paths are drawn at random"""
DO_NOT_AGREE = "Two ways of working this out do not agree. Do not trust either"


@dataclass(frozen=True)
class Chosen:
    line: int
    """of the text, at which the choice is made"""
    option: int


@dataclass(frozen=True)
class Opinion:
    played: int
    """paths"""
    of: int | None
    """all there are, where all were played; None for some of them"""
    agrees: bool
    says: str
    differs: str = ""
    """what the two ways say, where they do not agree"""
    choices: tuple[Chosen, ...] = ()
    """the path that shows it, choice by choice"""


def second_opinion(
    document: Json, lines: Sequence[int], told: Told, most: int | None = None, seconds: float | None = SECONDS
) -> Opinion | None:
    """What comes of playing a routine by hand; None where nothing could be played.

    `document`: the routine as JSON. `lines`: the line of the text for each of its steps, in order. `told`: answers by name, as
    they are told in JSON; what is missing is not compared. `most`: paths to be played at most; None for all of them, or as many as the
    time allows. `seconds`: of processor time, None for as long as it takes.
    """
    known = _number_of_paths(told)
    played = _played(document, tuple(lines), known, most, seconds)
    if not played.paths:
        return None
    many, of = len(played.paths), known if played.complete else None
    for compare in COMPARISONS:
        if differs := compare(played, told):
            chosen = differs.path.chosen if differs.path else ()
            choices = tuple(Chosen(played.line(nth), option) for nth, option in chosen)
            return Opinion(many, of, False, DO_NOT_AGREE, differs.says, choices)
    times = f"{many:,} of {of:,} times" if of else "once" if many == 1 else f"{many:,} times"
    return Opinion(many, of, True, f"Also played {times} by hand, card by card.")


def _number_of_paths(told: Told) -> int | None:
    for answer in (told.get("verdict"), (told.get("limits") or {}).get("region")):
        if answer and answer.get("paths") is not None:
            return int(answer["paths"])
    return None


def _played(
    document: Json, lines: tuple[int, ...], known: int | None, most: int | None, seconds: float | None
) -> Played:
    """All paths where they are few enough and the time allows, else some drawn at random."""
    few = most if most is not None else MOST_PLAYED if seconds is not None else math.inf
    begun = time.process_time()

    def late(done: int, whole: float) -> bool:
        """Whether the time is up, or will be before the whole is done."""
        taken = time.process_time() - begun
        return seconds is not None and (taken > seconds or (done == TRIED and taken / done * whole > seconds))

    if known is not None and known <= few:
        paths = []
        for path in each_path(document, marked=True):
            paths.append(path)
            if late(len(paths), known) and len(paths) < known:
                break
        else:
            return Played(document, lines, tuple(judged_together(paths)), True)
    drawn: list[Path] = []
    for one in _drawn(document):
        drawn += [one] if one else []
        if late(len(drawn), 0) or len(drawn) >= min(few, MOST_PLAYED):
            break
    return Played(document, lines, tuple(drawn), False)


def _drawn(document: Json) -> Iterator[Path | None]:
    """Corners first, then at random; None for choices that do not go together. The same ones for the same routine each time."""
    draw = random.Random(crc32(repr(document).encode()))
    for number in count():
        turn = count(number)

        def pick(options: list[int], number: int = number, turn: Iterator[int] = turn) -> int:
            if number >= CORNERS or isinstance(options, FacesLeft):
                return draw.randrange(len(options))
            last = len(options) - 1
            return (0, last, last * (next(turn) % 2), last // 2)[number]

        try:
            yield run(document, pick=pick, rounds=ROUNDS, marked=True)[0]
        except NoPath:
            yield None


CORNERS = 4
"""paths on which choices are: each the first, each the last, by turns, each the middle one"""
