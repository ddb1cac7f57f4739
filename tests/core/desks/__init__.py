"""What the tests of the desks share."""

from __future__ import annotations

from pathlib import Path

from golden_pivot.core.answers.proving import prove
from golden_pivot.core.budget import Budget
from golden_pivot.core.desks import DESKS, Send
from golden_pivot.core.desks.sending import sent
from golden_pivot.core.language.parser import read_routine

PROCEDURES = Path(__file__).parents[2] / "procedures"


def at(desk: str, **asks: object) -> object:
    return DESKS[desk].answer(DESKS[desk].asks(**asks), Budget(seconds=60))


def verdict(send: Send | None, text: str = "Title: A test\n") -> str:
    assert send is not None
    return prove(read_routine(sent(text, send))).verdict
