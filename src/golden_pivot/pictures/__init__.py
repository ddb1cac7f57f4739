"""Pictures of what the desks answer and of a routine on its row, as SVG: on the screen they take its colours, in a file those of paper and ink."""

from __future__ import annotations

from functools import singledispatch
from typing import Any

from ..core.desks.mix_lab import MixAnswers
from ..core.desks.narrowing import NarrowingAnswers
from ..core.desks.odds_desk import OddsAnswers
from ..core.desks.pickup import PickupAnswers
from ..core.desks.spelling import SpellingAnswers
from ..core.desks.stacks import StackAnswers
from . import desks
from .strands import glimpse

__all__ = ["glimpse", "picture_of"]


@singledispatch
def picture_of(answer: Any) -> str | None:
    """The picture of an answer; None where there is nothing to draw."""
    return None


picture_of.register(SpellingAnswers, desks.coverage)
picture_of.register(PickupAnswers, desks.pile_slots)
picture_of.register(StackAnswers, desks.stack)
picture_of.register(MixAnswers, desks.permutation)
picture_of.register(NarrowingAnswers, desks.narrowing_tree)
picture_of.register(OddsAnswers, desks.chances)
