"""Shapes of what is asked and told about neighbouring routines: why, when, what would work, what breaks it."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from ..core.variants.explain import Explanation
from ..core.variants.report_of_variants import LimitsReport, SlipsReport, SolutionReport
from ..core.variants.sweeps import Sweep
from .models import Shape, Text


class ExplainOut(Shape):
    explanation: Explanation | None = Field(description="null while the text has faults")


class HoldsOut(Shape):
    limits: LimitsReport | None = Field(description="null while the text has faults")


class SlipsOut(Shape):
    slips: SlipsReport | None = Field(description="null while the text has faults")


Domains = Annotated[
    dict[Annotated[str, Field(pattern=r"^[0-9]{1,2}$")], Annotated[Text, Field(max_length=10_000)]],
    Field(max_length=26, description="number of a blank, from 1 → what to try for it: `3 to 20`, or `on, under`"),
]


class SolveIn(Shape):
    text: Text
    job: str = Field(max_length=64)
    domains: Domains | None = None


class SolveOut(Shape):
    solution: SolutionReport | None
    trouble: str | None


class NumberAt(Shape):
    """A number of the text, as /api/read lists them."""

    line: int
    start: int


class SweepIn(Shape):
    text: Text
    job: str = Field(max_length=64)
    varies: list[NumberAt] = Field(
        default=[], max_length=2, description="the numbers that vary; none where the text has blanks itself"
    )
    domains: Domains | None = None


class SweepOut(Shape):
    sweep: Sweep | None
    trouble: str | None
