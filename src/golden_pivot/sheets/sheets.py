"""The three sheets of a routine, from what the core says about it."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass

from ..core.analysis import Analysis
from ..core.budget import Budget
from ..core.cards import card_value
from ..core.desks.assembly import two_deals
from ..core.english import list_text
from ..core.faults import BadRoutine, OutOfBudget
from ..core.language.facets import Facet
from ..core.language.routine import EMPTY, Routine
from ..core.show import cues, recoveries, reset, setup
from ..core.show.effort import Effort, effort_of
from ..core.show.paces import Paces
from ..core.show.wording import wording_of
from .document import Beat, Cards, Document, Grid, Heading, Items, Paragraph, Part

MANY = 10
"""real cards in the set-up from which dealing is quicker than searching"""


@dataclass(frozen=True)
class Shown:
    """What every sheet begins from."""

    analysis: Analysis
    is_complete: bool
    """the text has no faults"""
    warning: str | None
    paces: Paces

    @property
    def text(self) -> str:
        return self.analysis.text

    @property
    def routine(self) -> Routine:
        return self.analysis.routine

    @property
    def budget(self) -> Budget:
        return self.analysis.budget


def shown(text: str, budget: Budget, paces: Paces | None = None) -> Shown:
    it = Analysis(text, budget)
    complete = True
    try:
        verdict = it.verdict
        bad = verdict.verdict in ("refuted", "lost", "unsettled")
        warning = f"Not to be relied upon. {verdict.headline}." if bad else None
    except BadRoutine as faults:
        complete = False
        warning = f"Still being written: {faults.faults[0]}"
    return Shown(it, complete, warning, paces or Paces())


def _document(it: Shown, subtitle: str, parts: Iterator[Part]) -> Document:
    try:
        made = tuple(parts)
    except (BadRoutine, OutOfBudget):
        rows = tuple(line.text for line in it.routine.walk() if line.is_ != EMPTY)
        made = (Paragraph("The routine as it is written so far:"), Items(rows))
    return Document(it.routine.title or "Untitled", subtitle, it.warning, made)


def setup_sheet(it: Shown) -> Document:
    return _document(it, "Set-up", _setup(it))


def cue_sheet(it: Shown) -> Document:
    return _document(it, "Cues", _cues(it))


def reset_sheet(it: Shown) -> Document:
    return _document(it, "Reset", _reset(it))


SHEETS: dict[str, Callable[[Shown], Document]] = {"setup": setup_sheet, "cues": cue_sheet, "reset": reset_sheet}


def _note(it: Shown) -> Iterator[Part]:
    if note := it.routine.note:
        yield Paragraph(note)
    credits = it.routine.said(Facet.CREDIT)
    if credits:
        yield Paragraph(f"Credit: {'; '.join(credits)}")


def _setup(it: Shown) -> Iterator[Part]:
    found = setup.setup_of(it.routine)
    yield from _note(it)
    yield Heading("What is needed")
    yield Items(found.materials)
    yield Heading("How to prepare")
    yield Items(found.steps, numbered=True)
    inside = [one for one in found.lying if one.place == "deck"]
    real = [one.card for one in inside if card_value(one.card)]
    if len(real) >= MANY:
        plan = two_deals(real)
        yield Heading("From a shuffled pack")
        yield Paragraph(
            f"Deal face up onto {plan.piles} piles by the first number, all other cards aside; turn every pile over and put"
            " pile 1 on pile 2, both on pile 3 and so on. Deal again by the second number, and gather in the same way."
        )
        yield Grid(
            ("card", "first", "second"), tuple((card, str(first), str(second)) for card, first, second in plan.table)
        )
    if inside:
        yield Heading("The pack, from the top, face down")
        marks = {one.position: one.words for one in inside}
        if len(inside) > found.cards // 2:
            yield Cards(tuple((at, marks.get(at, "any card")) for at in range(1, found.cards + 1)))
        else:
            yield Cards(tuple(sorted(marks.items())))
            yield Paragraph(f"All other places of the {found.cards}: any card.")
    beside = tuple((one.place, one.words) for one in found.lying if one.place != "deck")
    if beside:
        yield Heading("Beside the pack")
        yield Grid(("where", "what"), beside)
    yield Heading("Is it right?")
    yield Items(found.checks)


def _cues(it: Shown) -> Iterator[Part]:
    found = cues.cues_of(it.analysis)
    slips = recoveries.slips_for_a_sheet(it.analysis)
    cautions = recoveries.cautions_of(it.routine, slips)
    yield from _note(it)
    if found.hidden:
        yield Items(found.hidden)
    for beat in found.beats:
        marks = [beat.away] if beat.away else []
        marks += [f"remember {list_text(list(beat.remember))}"] if beat.remember else []
        marks += [f"you need {list_text(list(beat.needs))}"] if beat.needs else []
        marks += ["assumed"] if beat.assumed else []
        yield Beat(
            "" if beat.number is None else str(beat.number), beat.level, beat.says, beat.action, tuple(marks),
            (*beat.watch, *cautions.get(beat.line, ())), beat.spectator, beat.ending, beat.gap, beat.suggested,
        )  # fmt: skip
    if found.shortcuts:
        yield Heading("Worked out beforehand")
    for shortcut in found.shortcuts:
        if len(shortcut.names) == 2:
            yield _square(shortcut.words, shortcut.names, shortcut.rows)
        elif all(" of " in values[0] for values, _ in shortcut.rows):
            # Cards: values down, suits across.
            apart = tuple(
                ((value, suit), result)
                for (card,), result in shortcut.rows
                for value, _, suit in [card.partition(" of ")]
            )
            yield _square(shortcut.words, ("", ""), apart)
        else:
            rows = tuple((", ".join(values), str(result)) for values, result in shortcut.rows)
            yield Grid((", ".join(shortcut.names), shortcut.words), rows)
    if found.landing:
        yield Heading("Where it is")
        yield Grid(("if you know", "it is at"), found.landing)
    it.budget.progress("what to do outside the limits")
    outside = tuple(recoveries.outside_limits(it.text, it.budget)) if it.is_complete else ()
    if outside:
        yield Heading("If they go outside")
        yield _recovered(outside)
    if amiss := tuple(recoveries.after_slips(it.text, slips, it.budget)):
        yield Heading("If a hand slips")
        yield _recovered(amiss)
    if slips.untried:
        yield Paragraph(f"{slips.untried} slips were not tried here; “What breaks” on the bench tries them all.")
    if found.predictions:
        yield Heading("Predictions")
        yield Grid(
            ("what it says", "where it waits", "to show it", "line"),
            tuple((one.what, one.waits or "–", one.turned or "–", str(one.line)) for one in found.predictions),
        )
    if found.recap:
        yield Heading("What was free")
        yield Items(found.recap)
    it.budget.progress("whether what is said is so")
    untrue = wording_of(it.analysis) if it.is_complete else ()
    if untrue:
        yield Heading("Said, and not so")
        yield Items(tuple(f"line {one.line}: “{one.said}”. {one.why}" for one in untrue))


def _recovered(found: Sequence[recoveries.Recovery]) -> Grid:
    return Grid(
        ("line", "if", "then", "say"), tuple((str(one.line), one.when, one.then, one.says or "–") for one in found)
    )


def _square(words: str, names: tuple[str, ...], known_rows: tuple[tuple[tuple[str, ...], int], ...]) -> Grid:
    """Two things as rows and columns."""
    down, across = (dict.fromkeys(values[side] for values, _ in known_rows) for side in (0, 1))
    known = dict(known_rows)
    first, second = names
    rows = tuple((f"{first} {a}".strip(), *(str(known.get((a, b), "–")) for b in across)) for a in down)
    return Grid((words, *(f"{second} {b}".strip() for b in across)), rows)


def _reset(it: Shown) -> Iterator[Part]:
    if not it.is_complete:
        raise BadRoutine(it.routine.faults)
    it.budget.progress("every way it can end")
    plan = reset.reset_of(it.routine, it.budget, it.paces)
    yield Heading("Getting ready again")
    if plan is None and it.routine.having(Facet.ARRANGED_BY_SORT):
        yield Paragraph("The pack is arranged by what its cards are: sort it anew, from the set-up sheet.")
        return
    if plan is None:
        yield Paragraph("There are too many ways it can end to find one plan for all. Begin from the set-up sheet.")
        return
    if plan.moves:
        yield Items(tuple(move.words for move in plan.moves), numbered=True)
        yield Paragraph(
            f"About {plan.seconds:.0f} seconds. The same for all {plan.ends:,} ways the cards can lie."
            if plan.ends > 1
            else f"About {plan.seconds:.0f} seconds."
        )
    else:
        yield Paragraph("Nothing to do: everything lies as at the beginning.")
    yield Heading("Before the same people")
    yield Items((plan.repeatable, *plan.once))
    yield Heading("Handing it out")
    yield Paragraph(plan.examinable)
    yield Heading("What it costs")
    yield from _costs(effort_of(it.analysis, it.paces))


def _costs(effort: Effort) -> Iterator[Part]:
    yield Grid(
        ("cards handled", "deals", "decisions", "seconds", "longest silence"),
        (
            (
                str(effort.cards),
                str(effort.deals),
                str(effort.decisions),
                f"{effort.seconds:.0f}",
                f"{effort.silent} cards",
            ),
        ),
    )
    if effort.sums:
        yield Items(tuple(f"line {one.line}: {one.words}, {one.hard}" for one in effort.sums))
