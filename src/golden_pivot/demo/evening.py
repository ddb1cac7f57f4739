"""The next evening of the night ferry, and how far its performer has got with practice: invented, the same each time."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import UTC, datetime, timedelta

from ..core.analysis import Analysis
from ..core.practice.drills import drills_of
from ..core.practice.kept import Answer, BeatDone, Rehearsed
from ..core.practice.rehearsal import rehearsal_of
from ..core.programme.occasion import Occasion, Wish
from . import demo_text

SHOWN = ("harbour_light", "four_decks", "two_gangways", "watch_below", "cabin_corridor", "fog_signals")
LEARNED = "harbour_light"
BEGUN = datetime(2026, 4, 1, 9, tzinfo=UTC)


def evening(uids: Mapping[str, str]) -> Occasion:
    """`uids`: name of a demo routine → its uid on the shelf."""
    return Occasion(
        "Second sitting, aft saloon", "2026-12-05", "21:30", "the aft saloon", "families and lorry drivers", 40, 45, 2,
        ("pocket",), tuple(uids[name] for name in SHOWN),
        (Wish("within the minutes"), Wish("fewest warnings"), Wish("least resetting"), Wish("fewest packs")),
    )  # fmt: skip


def half_learned(uid: str) -> list[Answer]:
    """Every other sum of one routine, answered for a week: wrong at first where it carries, slower and then quicker."""
    (sums,) = [drill for drill in drills_of(Analysis(demo_text(LEARNED))) if drill.name == "sums"]
    found: list[Answer] = []
    for day, nth in ((day, nth) for day in (0, 1, 3, 6) for nth in range(0, len(sums.questions), 2)):
        right = day > 1 or nth % 4 == 0
        seconds = round(6.5 - day * 0.7 + nth * 0.1, 1)
        at = BEGUN + timedelta(days=day, minutes=nth)
        found.append(
            Answer(f"{len(found) + 1:08x}", uid, sums.name, sums.questions[nth].key, at.isoformat(), right, seconds)
        )
    return found


def rehearsed(uid: str) -> list[Rehearsed]:
    """Once through, with the keywords alone; one sum was wrong."""
    beats = rehearsal_of(Analysis(demo_text(LEARNED)), "evenly", 7).beats
    done = [
        BeatDone(
            beat.line, round(beat.seconds * 1.2 + 0.5, 1), *((beat.asks[0].asks, nth > 3, "8") if beat.asks else ())
        )
        for nth, beat in enumerate(beats)
    ]
    return [Rehearsed("ab01", uid, BEGUN.isoformat(), "keywords", "evenly", tuple(done))]
