"""What a worker is asked at a desk: plain values in, plain values out, with the tables and the picture of the answer."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from ..core.budget import Budget
from ..core.desks import DESKS, Trouble
from ..core.faults import OutOfBudget
from ..pictures import picture_of


def at_desk(request: dict[str, Any], budget: Budget) -> dict[str, Any]:
    """{desk, asks} → {answer, tables, picture, trouble}; with a trouble there is nothing else."""
    desk = DESKS[request["desk"]]
    nothing: dict[str, Any] = {"answer": None, "tables": [], "picture": None}
    try:
        answer = desk.answer(desk.asks(**request["asks"]), budget)
    except Trouble as trouble:
        told = {"field": trouble.field, "message": trouble.message, "remedy": trouble.remedy}
        return {**nothing, "trouble": told}
    except OutOfBudget as out:
        told = {"field": "", "message": f"Not settled within the budget: {out.reached}.", "remedy": "Ask for less."}
        return {**nothing, "trouble": told}
    return {
        "answer": asdict(answer),
        "tables": [asdict(table) for table in desk.tables(answer)],
        "picture": picture_of(answer),
        "trouble": None,
    }
