"""No text makes reader, printer, suggestions, checker, player or prover raise anything but their own errors.

RANDOM_ROUTINES=n tries n texts that were not tried before.
"""

from __future__ import annotations

import contextlib
import os
import random
import traceback

import pytest

from golden_pivot.core.answers.ledger import ledger_of_card
from golden_pivot.core.answers.notes import badges_of, notes_of
from golden_pivot.core.answers.plays import play
from golden_pivot.core.answers.proving import prove
from golden_pivot.core.budget import Budget
from golden_pivot.core.faults import BadRoutine
from golden_pivot.core.language.exchange import document_of, text_of
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.language.printer import routine_text
from golden_pivot.core.language.sheet import sheet_lines
from golden_pivot.core.language.suggest import suggestions
from golden_pivot.core.show.requests import filled_in
from tests.any_text import any_text

MANY = int(os.environ.get("RANDOM_ROUTINES", "300"))
FIRST = random.randrange(10**9) if "RANDOM_ROUTINES" in os.environ else 0
BLOCK = 100


def broken(text: str) -> str | None:
    """What raised, and where; None where nothing did."""
    try:
        routine = read_routine(text)
        printed = routine_text(routine)
        assert read_routine(printed).lines == () or routine_text(read_routine(printed)) == printed, (
            "printing is not stable"
        )
        assert text_of(document_of(text)) == text, "not the same text again"
        sheet_lines(routine)
        badges_of(routine)
        filled_in(text)
        rows = text.split("\n")
        for line in {1, len(rows) // 2 + 1, len(rows)}:
            suggestions(rows[line - 1], routine, line)
        play(routine)
        few = {"states": 500, "transitions": 1_500, "seconds": 20}
        for ask in (
            lambda: prove(routine, Budget(**few)),
            lambda: ledger_of_card(routine, Budget(**few), None),
            lambda: notes_of(routine, Budget(**few)),
        ):  # type: ignore[arg-type]
            with contextlib.suppress(BadRoutine):
                ask()
    except Exception as error:
        return "".join(traceback.format_exception(error)[-3:])
    return None


@pytest.mark.parametrize(
    ("rows", "says"),
    [
        (
            "Repeat 1000000 times:\n  Repeat 1000000 times:\n    Repeat 1000000 times:\n      # nothing\n",
            "times round",
        ),
        ("Repeat 1000000 times:\n  Deal 1 card from deck\n", "single actions"),
        ("Spectator names a number n from 1 to 1000000\n", "more than can be gone through"),
    ],
)
def test_what_would_never_end_is_refused_at_its_line(rows: str, says: str) -> None:
    with pytest.raises(BadRoutine, match=says) as refused:
        prove(read_routine(f"Pack: 9 cards\nPlace A 2nd\n{rows}"))
    assert any(fault.is_limit for fault in refused.value.faults)


@pytest.mark.parametrize("begin", range(0, MANY, BLOCK))
def test_no_text_breaks_anything(begin: int) -> None:
    for seed in range(FIRST + begin, FIRST + min(begin + BLOCK, MANY)):
        if told := broken(text := any_text(seed)):
            pytest.fail(f"seed {seed}: {told}\n{text}")
