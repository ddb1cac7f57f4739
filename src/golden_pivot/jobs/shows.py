"""What a worker is asked for a show: sheets, costs, two versions side by side."""

from __future__ import annotations

import base64
from dataclasses import asdict
from typing import Any

from ..core.analysis import Analysis
from ..core.budget import Budget
from ..core.faults import BadRoutine, OutOfBudget
from ..core.show.compare import compared
from ..core.show.costs import costs_of
from ..core.show.paces import Paces
from ..core.show.schools import schools_of
from ..core.show.table_room import Surface
from ..sheets.markdown import markdown_of
from ..sheets.sheets import SHEETS, shown


def _paces(request: dict[str, Any]) -> Paces:
    return Paces(**(request.get("paces") or {}))


def sheet(request: dict[str, Any], budget: Budget) -> dict[str, Any]:
    """{text, kind, paces?} → the sheet as plain parts."""
    return asdict(SHEETS[request["kind"]](shown(request["text"], budget, _paces(request))))


def sheet_file(request: dict[str, Any], budget: Budget) -> dict[str, Any]:
    """{text, kind, format, size?, paces?} → {file} in base 64; the format is md or pdf, the size page, letter or pocket."""
    # What writes PDFs is large, and seldom asked for.
    from ..sheets.pdf import pdf_of

    document = SHEETS[request["kind"]](shown(request["text"], budget, _paces(request)))
    content = (
        pdf_of(document, request.get("size") or "page")
        if request["format"] == "pdf"
        else markdown_of(document).encode()
    )
    return {"file": base64.b64encode(content).decode()}


def costs(request: dict[str, Any], budget: Budget) -> dict[str, Any]:
    """{text, surface, thick, paces?} → {costs}; null for a text with faults or out of budget."""
    surface = Surface(**request["surface"])
    try:
        found = costs_of(Analysis(request["text"], budget), surface, request["thick"], _paces(request))
    except (BadRoutine, OutOfBudget):
        return {"costs": None}
    return {"costs": asdict(found)}


def side_by_side(request: dict[str, Any], budget: Budget) -> dict[str, Any]:
    """{text, other, paces?} → both, line by line and in numbers."""
    return asdict(compared(request["text"], request["other"], budget, _paces(request)))


def other_schools(request: dict[str, Any], budget: Budget) -> dict[str, Any]:
    """{text} → {schools}; null for a text with faults."""
    try:
        return {"schools": [asdict(one) for one in schools_of(request["text"], budget)]}
    except BadRoutine:
        return {"schools": None}
