"""Everything a routine costs and shows, together: effort, room on the table, what is in sight, what is said."""

from __future__ import annotations

from dataclasses import dataclass

from ..budget import Budget
from ..language.parser import read_routine
from .effort import Effort, effort_of, longest_play
from .exposure import THICK, ExposureNotes, exposure_of
from .paces import Paces
from .table_room import Layout, Room, widest
from .wording import Finding, wording_of


@dataclass(frozen=True)
class Costs:
    effort: Effort
    room: Room
    exposure: ExposureNotes
    wording: tuple[Finding, ...]


def costs_of(
    text: str, budget: Budget, layout: Layout | None = None, thick: int = THICK, paces: Paces | None = None
) -> Costs:
    """`thick`: cards from which a packet off the table looks thick. Raises BadRoutine, OutOfBudget."""
    routine = read_routine(text)
    return Costs(
        effort_of(routine, budget, paces),
        widest(longest_play(routine, budget), layout),
        exposure_of(routine, budget, thick),
        wording_of(text, budget),
    )
