"""Pictures of what the desks answer, as SVG: on the screen they take its colours, in a file those of paper and ink."""

from __future__ import annotations

from functools import singledispatch
from typing import Any

from ..core.design.mixes import MixAnswers
from ..core.design.narrowing import NarrowingAnswers
from ..core.design.odds import OddsAnswers
from ..core.design.pickup import PickupAnswers
from ..core.design.spelling import SpellingAnswers
from ..core.design.stacks import StackAnswers
from . import desks


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
