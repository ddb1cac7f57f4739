"""What a worker process can be asked to do. Every task takes and returns plain JSON values."""

from __future__ import annotations

import json
from collections.abc import Callable
from dataclasses import asdict, replace
from typing import Any

from ..core.analysis import Analysis
from ..core.answers.ledger import ledger_of_card
from ..core.answers.odds import odds_of
from ..core.answers.on_table import on_table
from ..core.answers.plays import longest_path, play
from ..core.answers.proving import prove
from ..core.answers.report import OddsReport, ledger_report, odds_report, strands_report, verdict_report
from ..core.answers.verdicts import Asked
from ..core.book.performance import Performance
from ..core.book.spectators import own_spectators
from ..core.budget import Budget
from ..core.faults import BadRoutine, OutOfBudget
from ..core.language.parser import read_routine
from ..core.language.routine import Routine
from ..core.reading import read_page, read_sheet
from ..core.search.replay import Play
from ..core.variants.blanks import solve
from ..core.variants.explain import explain
from ..core.variants.fields import NothingToFill, domain_of, with_blanks
from ..core.variants.limits import limits_of
from ..core.variants.report_of_variants import SlipsReport, limits_report, slips_report, solution_report
from ..core.variants.slips import fragility_of
from ..core.variants.sweeps import sweep
from ..pictures import glimpse
from .by_hand import opinion_on
from .desks import at_desk
from .rooms import best_order, drills, programme, programme_file, rehearsal, rehearsed, to_learn
from .shows import costs, other_schools, sheet, sheet_file, side_by_side
from .workplace import Workplace

Task = Callable[[dict[str, Any], Budget], dict[str, Any]]


class _Memory:
    """Answers by text, newest kept: the bench asks again whenever an undo brings an old text back."""

    def __init__(self, size: int = 256) -> None:
        self._answers: dict[str, dict[str, Any]] = {}
        self._size = size

    def get(self, text: str) -> dict[str, Any] | None:
        return self._answers.get(text)

    def keep(self, text: str, answer: dict[str, Any]) -> None:
        self._answers[text] = answer
        while len(self._answers) > self._size:
            del self._answers[next(iter(self._answers))]


_known = _Memory()


def verdict_of(request: dict[str, Any], budget: Budget) -> dict[str, Any]:
    """{text} → {verdict, faults}. A text with faults has no verdict."""
    text = request["text"]
    if known := _known.get(text):
        return known
    try:
        verdict = prove(read_routine(text), budget)
    except BadRoutine as bad:
        return {"verdict": None, "faults": list(map(asdict, bad.faults))}
    answer = {"verdict": asdict(verdict_report(verdict)), "faults": []}
    if verdict.limit is None:
        _known.keep(text, answer)
    return answer


def ledger(request: dict[str, Any], budget: Budget) -> dict[str, Any]:
    """{text, card?} → {card, cards, ledger}; nothing in it for a text with faults."""
    try:
        found = ledger_of_card(read_routine(request["text"]), budget, request.get("card"))
    except BadRoutine:
        return {"card": None, "cards": [], "ledger": []}
    return {"card": found.card, "cards": list(found.cards), "ledger": list(map(asdict, ledger_report(found.entries)))}


def one_path(request: dict[str, Any], budget: Budget) -> dict[str, Any]:
    """{text, choices?, seed?, worst?} → the path played. The worst case fails, or handles most cards."""
    routine = read_routine(request["text"])
    if not request.get("worst"):
        return _shown(routine, play(routine, request.get("choices"), request.get("seed")))
    try:
        verdict = prove(routine, budget, Asked(region=False))
        if verdict.counterexample:
            return _shown(routine, play(routine, dict(verdict.counterexample.choices)))
        return _shown(routine, play(routine, longest_path(routine, budget)))
    except (BadRoutine, OutOfBudget):
        return _shown(routine, play(routine))


def _shown(routine: Routine, played: Play) -> dict[str, Any]:
    return asdict(on_table(routine, played))


def _told(name: str, made: Callable[[Analysis], Any]) -> Task:
    """{text} → {name: what is made}; null for a text with faults."""

    def task(request: dict[str, Any], budget: Budget) -> dict[str, Any]:
        try:
            told = made(Analysis(request["text"], budget))
            return {name: told and asdict(told)}
        except BadRoutine:
            return {name: None}

    return task


def at_a_glance(request: dict[str, Any], budget: Budget) -> dict[str, Any]:
    """{text} → {picture}: the ways of its card as SVG; null where there is no card to follow, or too many ways to draw."""
    try:
        strands = Analysis(request["text"], budget).strands
    except BadRoutine:
        return {"picture": None}
    return {"picture": strands and glimpse(strands)}


def read_as(request: dict[str, Any], budget: Budget) -> dict[str, Any]:
    """{text, keep_words?} → how its lines outside the language can be read."""
    return asdict(read_sheet(request["text"], request.get("keep_words") or False))


def page(request: dict[str, Any], budget: Budget) -> dict[str, Any]:
    """{text, chosen?} → the page of notes, sentence by sentence."""
    return asdict(read_page(request["text"], request.get("chosen")))


def workplace(request: dict[str, Any], budget: Budget) -> dict[str, Any]:
    """{cluster, workers} → {says, trouble}: where long searches are worked off."""
    return Workplace(**request).told()


def spectators(request: dict[str, Any], budget: Budget) -> dict[str, Any]:
    """{text, book} → what one’s own spectators chose."""
    return asdict(own_spectators(request["text"], [Performance(**one) for one in request["book"]], budget))


def _remembered(task: Task) -> Task:
    """Long work is kept by its request, so that a reload finds what was found."""
    memory = _Memory(64)

    def answered(request: dict[str, Any], budget: Budget) -> dict[str, Any]:
        asked = json.dumps(request, sort_keys=True)
        answer = memory.get(asked) or task(request, budget)
        memory.keep(asked, answer)
        return answer

    return answered


def _slips(it: Analysis) -> SlipsReport:
    found = fragility_of(it.text, it.budget, lambda words, _: it.budget.progress(words))
    return slips_report(found, it.text)


def _odds(it: Analysis) -> OddsReport:
    return odds_report(odds_of(it.routine, replace(it.budget, transitions=ODDS_STEPS)))


def _domains(request: dict[str, Any]) -> dict[int, list[str]]:
    return {int(number): domain_of(words) for number, words in (request.get("domains") or {}).items()}


@_remembered
def solved(request: dict[str, Any], budget: Budget) -> dict[str, Any]:
    """{text, domains?} → {solution, trouble}; trouble in words where nothing can be filled in."""
    text = request["text"]
    try:
        found = solve(text, budget, _domains(request), budget.progress)
        return {"solution": asdict(solution_report(found, text)), "trouble": None}
    except (NothingToFill, BadRoutine) as trouble:
        return {"solution": None, "trouble": str(trouble)}


@_remembered
def swept(request: dict[str, Any], budget: Budget) -> dict[str, Any]:
    """{text, varies?, domains?} → {sweep, trouble}; `varies` has the {line, start} of numbers for which others are tried."""
    try:
        varies = [(one["line"], one["start"]) for one in request.get("varies") or ()]
        text = with_blanks(request["text"], varies) if varies else request["text"]
        return {"sweep": asdict(sweep(text, budget, _domains(request), budget.progress)), "trouble": None}
    except (NothingToFill, BadRoutine) as trouble:
        return {"sweep": None, "trouble": str(trouble)}


def by_hand(request: dict[str, Any], budget: Budget) -> dict[str, Any]:
    """{text, verdict, ledger?, odds?} → {opinion}: what was told, held against the routine played card by card."""
    found = opinion_on(request["text"], request)
    return {"opinion": found and asdict(found)}


ODDS_STEPS = 300_000
"""steps in which exact chances are searched for on the bench before paths are drawn at random"""

TASKS: dict[str, Task] = {
    "read": read_as, "page": page, "spectators": spectators, "workplace": workplace, "prove": verdict_of, "by_hand": by_hand, "ledger": ledger, "play": one_path,
    "strands": _told("strands", lambda it: strands_report(it.strands) if it.strands else None),  # null too where they are too many to draw
    "glimpse": at_a_glance,
    "notes": _told("notes", lambda it: it.notes), "odds": _told("odds", _odds),
    "explain": _told("explanation", lambda it: explain(it.routine, it.budget)),
    "holds": _told("limits", lambda it: limits_report(limits_of(it.text, it.budget))),
    "slips": _remembered(_told("slips", _slips)), "solve": solved, "sweep": swept,
    "desk": _remembered(at_desk), "sheet": _remembered(sheet), "sheet_file": _remembered(sheet_file), "costs": _remembered(costs),
    "programme": _remembered(programme), "best_order": _remembered(best_order), "programme_file": _remembered(programme_file),
    "drills": drills, "to_learn": to_learn, "rehearsal": rehearsal, "rehearsed": rehearsed,
    "compare": _remembered(side_by_side), "schools": _remembered(other_schools),
}  # fmt: skip
