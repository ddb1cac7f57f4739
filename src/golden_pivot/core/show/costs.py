"""Everything a routine costs and shows, together: effort, room on the table, what is in sight, what is said."""

from __future__ import annotations

from dataclasses import dataclass

from ..analysis import Analysis
from .effort import Effort, effort_of
from .exposure import THICK, ExposureNotes, exposure_of
from .paces import Paces
from .table_room import Room, Surface, widest
from .wording import Finding, wording_of


@dataclass(frozen=True)
class Costs:
    effort: Effort
    room: Room
    exposure: ExposureNotes
    wording: tuple[Finding, ...]


def costs_of(it: Analysis, surface: Surface | None = None, thick: int = THICK, paces: Paces | None = None) -> Costs:
    """`thick`: cards from which a packet off the table looks thick. Raises BadRoutine, OutOfBudget."""
    return Costs(effort_of(it, paces), widest(it.longest, surface), exposure_of(it, thick), wording_of(it))
