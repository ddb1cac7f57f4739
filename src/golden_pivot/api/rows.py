"""A routine as its row on the shelf shows it; what was found of a text before is not found out anew."""

from __future__ import annotations

import logging
from contextlib import suppress
from typing import Any

from ..core.answers.notes import badges_of
from ..core.language.parser import read_routine
from ..store import Findings, Routine, Shelf, ShelfTrouble, Standing, Standings
from . import models as m

logger = logging.getLogger(__name__)
GLANCE, PROOF, GLIMPSE = "glance", "proof", "glimpse"
"""what is kept of a text: title, note and badges; its verdict or its faults; the picture of its card’s ways"""


def routine_out(routine: Routine, shelf: Shelf) -> m.RoutineOut:
    """What is told of a routine. A text that cannot be read is told all the same: it must not hide the others."""
    return _read_row(_row_of(routine, shelf.uid, Standings(shelf.database).of(routine.id)))


def _read_row(out: m.RoutineOut) -> m.RoutineOut:
    try:
        read = read_routine(out.text)
        out.title, out.note, out.badges = read.title or "Untitled", read.note, list(badges_of(read))
    except Exception as error:
        logger.exception("routine %s cannot be read", out.id)
        out.unread = f"The reader broke on this text ({type(error).__name__}). It is safe; please report it."
    return out


def _row_of(routine: Routine, shelf: str, stands: Standing) -> m.RoutineOut:
    """What the shelf knows without reading it."""
    return m.RoutineOut(
        id=routine.id,
        title="Untitled",
        note=None,
        text=routine.text,
        revision=routine.revision,
        created_at=routine.created_at,
        changed_at=routine.changed_at,
        badges=[],
        uid=routine.uid,
        shelf=shelf,
        removed_at=routine.removed_at,
        pinned=stands.pinned,
        put_away=stands.put_away,
        tags=list(stands.tags),
    )


def rows_of(shelf: Shelf) -> list[m.RoutineOut]:
    """Every routine that is not removed, with its verdict where that is known."""
    findings, standings, uid = Findings(shelf.database), Standings(shelf.database).all(), shelf.uid
    found = []
    glances, proofs = findings.of(GLANCE), findings.of(PROOF)
    fresh: dict[str, Any] = {}
    for routine in shelf.routines():
        out = _row_of(routine, uid, standings.get(routine.id, Standing()))
        if glance := glances.get(routine.text):
            out.title, out.note, out.badges = glance["title"], glance["note"], glance["badges"]
        elif not _read_row(out).unread:
            fresh[routine.text] = {"title": out.title, "note": out.note, "badges": out.badges}
        if proof := proofs.get(routine.text):
            out.found = m.FoundOut(**proof)
        found.append(out)
    with suppress(ShelfTrouble):  # a full disk hides no shelf
        findings.keep(GLANCE, fresh)
    return found


def found_of(proof: m.ProofOut) -> m.FoundOut:
    """As it stands on the row."""
    if proof.verdict:
        return m.FoundOut(verdict=proof.verdict.verdict, says=proof.verdict.headline)
    fault = proof.faults[0]
    return m.FoundOut(verdict=None, says=f"Still being written: line {fault.line}. {fault.message}")


def keep_proof(shelf: Shelf, text: str, proof: m.ProofOut) -> None:
    """What is settled stays so until the text or the program is another; where it cannot be kept it is found again."""
    if proof.verdict is None or proof.verdict.limit is None:
        with suppress(ShelfTrouble):
            Findings(shelf.database).keep(PROOF, {text: found_of(proof).model_dump(mode="json")})


def glimpse_kept(shelf: Shelf, text: str) -> m.GlimpseOut | None:
    """The picture that was drawn of this text before, if it was."""
    kept = Findings(shelf.database).one(GLIMPSE, text)
    return kept and m.GlimpseOut(**kept)


def keep_glimpse(shelf: Shelf, text: str, drawn: m.GlimpseOut) -> None:
    with suppress(ShelfTrouble):
        Findings(shelf.database).keep(GLIMPSE, {text: drawn.model_dump(mode="json")})
