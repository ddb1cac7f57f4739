"""What the product tells of a routine, as it is given to the witness; and the routines on which that is tried."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict
from functools import cache
from pathlib import Path
from typing import Any

from golden_pivot.core.answers.ledger import ledger_of_card
from golden_pivot.core.answers.odds import odds_of
from golden_pivot.core.answers.proving import prove
from golden_pivot.core.answers.report import ledger_report, odds_report, verdict_report
from golden_pivot.core.budget import Budget
from golden_pivot.core.language.parser import read_routine
from golden_pivot.demo import demo_names, demo_text

PROCEDURES = Path(__file__).parents[1] / "procedures"
FEW = 60
"""paths that are played, so that no test takes as long as the machine is slow"""


@cache
def texts() -> Mapping[str, str]:
    """The demo routines and the procedures, by name."""
    found = {file.stem: file.read_text(encoding="utf-8") for file in sorted(PROCEDURES.glob("*.pivot"))}
    return found | {name: demo_text(name) for name in demo_names()}


def told(text: str, steps: int = 60_000) -> dict[str, Any]:
    """Verdict, margin and odds in JSON, as far as so many steps go. Raises BadRoutine."""
    routine, budget = read_routine(text), Budget(states=steps, transitions=steps, seconds=None)
    verdict = verdict_report(prove(routine, budget))
    margin = ledger_of_card(routine, budget, None)
    found = {
        "verdict": asdict(verdict),
        "ledger": {"card": margin.card, "ledger": [asdict(one) for one in ledger_report(margin.entries)]},
    }
    if any(line.strip().startswith("Odds of") for line in text.splitlines()):
        found["odds"] = asdict(odds_report(odds_of(routine, budget)))
    return found
