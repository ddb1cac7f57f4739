"""What a worker is asked for a programme and for practice: plain values in, plain values out."""

from __future__ import annotations

import base64
from dataclasses import asdict
from datetime import UTC, datetime
from typing import Any

from ..core.analysis import Analysis
from ..core.budget import Budget
from ..core.desks import DESKS, Trouble
from ..core.faults import BadRoutine, OutOfBudget
from ..core.practice.drills import as_they_stand, drill_of, drills_of, now_due
from ..core.practice.kept import Answer, BeatDone, Rehearsed
from ..core.practice.rehearsal import line_times, own_paces, rehearsal_of
from ..core.programme.occasion import occasion_of
from ..core.programme.running_order import Played, Programme
from ..core.show.paces import Paces


def _paces(request: dict[str, Any]) -> Paces:
    return Paces(**(request.get("paces") or {}))


def _programme(request: dict[str, Any], budget: Budget) -> Programme:
    return Programme(
        [Played(**one) for one in request["played"]], occasion_of(request["occasion"]), budget, _paces(request)
    )


def programme(request: dict[str, Any], budget: Budget) -> dict[str, Any]:
    """{occasion, played, paces?} → the running order as it stands."""
    return asdict(_programme(request, budget).running_order())


def best_order(request: dict[str, Any], budget: Budget) -> dict[str, Any]:
    """{occasion, played, paces?} → a better order, or why there is none."""
    return asdict(_programme(request, budget).best())


def programme_file(request: dict[str, Any], budget: Budget) -> dict[str, Any]:
    """{occasion, played, uid, format, size?, paces?} → {file} in base 64; the format is pdf or ics."""
    from ..sheets.pdf import pdf_of
    from ..sheets.programme_sheets import calendar_of, programme_documents

    it = _programme(request, budget)
    running = it.running_order()
    if request["format"] == "ics":
        content = calendar_of(it.occasion, request["uid"], running)
    else:
        texts = {one.uid: one.text for one in it.played}
        first, *more = programme_documents(it.occasion, running, texts, budget, it.paces)
        content = pdf_of(first, request.get("size") or "page", *more)
    return {"file": base64.b64encode(content).decode()}


def drills(request: dict[str, Any], budget: Budget) -> dict[str, Any]:
    """{text, answers, now} → every question as it stands, and which are due; nothing for a text with faults."""
    try:
        found = drills_of(Analysis(request["text"], budget))
    except (BadRoutine, OutOfBudget):
        return {"drills": [], "standing": [], "due": []}
    standing = as_they_stand(found, [Answer(**one) for one in request["answers"]])
    due = now_due(standing, datetime.fromisoformat(request["now"]).astimezone(UTC))
    return {
        "drills": [{"name": one.name, "says": one.says, "questions": len(one.questions)} for one in found],
        "standing": list(map(asdict, standing)),
        "due": [[one.drill, one.question.key] for one in due],
    }


def to_learn(request: dict[str, Any], budget: Budget) -> dict[str, Any]:
    """{desk, asks} → the questions that follow from its answer; none where it has no answer."""
    desk = DESKS[request["desk"]]
    try:
        asks = desk.asks(**request["asks"])
        questions = tuple(desk.to_learn(asks, desk.answer(asks, budget))) if desk.to_learn else ()
    except (Trouble, OutOfBudget):
        questions = ()
    return {"questions": list(map(asdict, drill_of(desk.name, desk.about, questions).questions))}


def rehearsal(request: dict[str, Any], budget: Budget) -> dict[str, Any]:
    """{text, habit, seed, book, paces?} → {rehearsal}; null for a text with faults."""
    try:
        found = rehearsal_of(
            Analysis(request["text"], budget), request["habit"], request["seed"], request["book"], _paces(request)
        )
    except (BadRoutine, OutOfBudget):
        return {"rehearsal": None}
    return {"rehearsal": asdict(found)}


def rehearsed(request: dict[str, Any], budget: Budget) -> dict[str, Any]:
    """{text, rehearsals, paces?} → {lines, paces}: how long each line takes, and the paces that follow from it."""
    told = [
        Rehearsed(**{**one, "done": tuple(BeatDone(**done) for done in one["done"])}) for one in request["rehearsals"]
    ]
    it = Analysis(request["text"], budget)
    try:
        paces = own_paces(it, told, _paces(request))
    except (BadRoutine, OutOfBudget):
        paces = None
    return {"lines": list(map(asdict, line_times(it.routine, told))), "paces": paces and asdict(paces)}
