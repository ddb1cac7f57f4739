"""A season of the night ferry, invented: who was shown what, and what they chose. The same each time it is made."""

from __future__ import annotations

import random
from datetime import date, timedelta

from ..core.answers.questions import picks_of, questions_of
from ..core.book.performance import Chosen, Performance
from ..core.language.parser import read_routine
from . import demo_text

SHOWN = ("harbour_light", "four_decks", "two_gangways", "watch_below", "fog_signals", "last_orders")
OCCASIONS = (
    "second sitting",
    "after supper",
    "the quarterdeck",
    "a table of six",
    "the crew’s mess",
    "before landing",
)
AUDIENCES = (
    "families",
    "lorry drivers",
    "a choir on tour",
    "two couples",
    "the night watch",
    "pensioners from the islands",
)
NOTES = ("", "", "", "they wanted it again", "a loud table", "heavy sea", "the lamp swung, and nobody minded")
PERFORMANCES = 40
FIRST = date(2026, 4, 3)


def season() -> list[Performance]:
    """About two crossings a week from April on; a few helpers choose outside the range that was asked for."""
    draw, other = random.Random(2026), random.Random(7)
    picks = {name: picks_of(demo_text(name)) for name in SHOWN}
    found, day = [], FIRST
    for nth in range(PERFORMANCES):
        text = demo_text(SHOWN[nth % len(SHOWN)])
        chosen: dict[str, Chosen] = {}
        for question in questions_of(text):
            if question.low is not None and question.high is not None:
                middle = (question.low + question.high) / 2
                spread = max(1.0, (question.high - question.low) / 3.2)
                chosen[question.name] = max(1, round(draw.gauss(middle, spread)))
        outside = any(
            isinstance(number := chosen.get(question.name), int)
            and not (question.low or 0) <= number <= (question.high or 99)
            for question in questions_of(text)
        )
        chosen |= {pick.name: other.choice(pick.options) for pick in picks[SHOWN[nth % len(SHOWN)]]}
        slip = draw.choice(["", "", "", "", "", "one card fewer"])
        found.append(
            Performance(
                f"{nth + 1:016x}", day.isoformat(), "", read_routine(text).title or "", text, draw.choice(OCCASIONS),
                draw.choice(AUDIENCES), "failed" if slip and nth % 2 else "another way" if outside else "as planned", chosen, slip,
                float(draw.randint(4, 9)), 2 if slip else draw.choice([3, 4, 4, 5]), draw.choice(NOTES),
            )
        )  # fmt: skip
        day += timedelta(days=draw.randint(2, 6))
    return found
