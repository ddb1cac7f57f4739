"""What was found out about neighbouring routines, as plain JSON values."""

from __future__ import annotations

from typing import Any

from ..answers.report import region_json
from .blanks import Solution
from .edits import edited
from .explain import Explanation
from .fields import Field, filled
from .limits import Limits
from .slips import Fragility
from .sweeps import Sweep


def fragility_json(found: Fragility, text: str) -> dict[str, Any]:
    """Slips worst first, each with the whole text in which it has happened."""
    return {
        "slips": [
            {
                "line": one.slip.line, "what": one.slip.what, "rows": one.slip.rows, "kind": one.kind,
                "share": one.share, "says": one.says, "spoiled": list(one.spoiled),
                "text": edited(text, one.slip.edit),
            }
            for one in found.outcomes
        ],
        "strict": list(found.strict),
        "free": list(found.free),
        "advice": [{"line": line, "words": words} for line, words in found.advice],
        "untried": found.untried,
    }  # fmt: skip


def solution_json(found: Solution, text: str) -> dict[str, Any]:
    return {
        "fields": [_field_json(field) for field in found.fields],
        "answers": [{"values": list(one), "text": filled(text, found.fields, one)} for one in found.answers],
        "fillings": found.fillings,
        "tried": found.tried,
        "refuted_first": found.refuted_first,
        "near": [{"values": list(one), "says": says} for one, says in found.near],
        "relation": found.relation,
        "complete": found.complete,
        "open": found.open,
        "says": found.says,
    }


def _field_json(field: Field) -> dict[str, Any]:
    return {"number": field.number, "line": field.line, "start": field.start, "domain": list(field.domain)}


def sweep_json(found: Sweep) -> dict[str, Any]:
    return {
        "fields": [_field_json(field) for field in found.fields],
        "rows": [
            {
                "values": list(row.values), "verdict": row.verdict, "landing": row.landing,
                "position": row.position, "share": row.share, "says": row.says,
            }
            for row in found.rows
        ],
        "formula": found.formula,
    }  # fmt: skip


def explanation_json(found: Explanation) -> dict[str, Any]:
    return {
        "card": found.card,
        "said": [{"line": said.line, "words": said.words} for said in found.said],
        "cases": [{"when": case.when, "place": case.place, "formula": case.formula} for case in found.cases],
        "each_time": [{"line": line, "formula": formula} for line, formula in found.each_time],
        "kept": [{"line": one.line, "words": one.words} for one in found.kept],
    }


def limits_json(found: Limits) -> dict[str, Any]:
    return {
        "region": found.region and region_json(found.region),
        "narrowed": found.narrowed,
        "says": found.says,
        "limits": [
            {
                "line": limit.line, "name": limit.name, "low": limit.low, "high": limit.high, "steer": limit.steer,
                "noticed": limit.noticed,
                "outside": [{"numbers": numbers, "known": known} for numbers, known in limit.outside],
            }
            for limit in found.limits
        ],
    }  # fmt: skip
