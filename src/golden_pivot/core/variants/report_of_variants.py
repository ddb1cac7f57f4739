"""What was found out about neighbouring routines, as it is told; see answers/report for what that means."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, cast

from ..answers.report import RegionReport, region_report
from .blanks import Solution
from .edits import edited
from .fields import Field, Filling, filled
from .limits import Limit, Limits
from .slips import Advice, Fragility, Outcome
from .trying import NearMiss

OutcomeName = Literal["harmless", "elsewhere", "some", "all", "not settled"]


@dataclass(frozen=True)
class SlipReport:
    line: int
    what: str
    rows: str
    """the line as it is then carried out; empty where it is left out"""
    kind: OutcomeName
    share: float | None
    """of the paths that fail, 0 to 1; None where paths have no number"""
    says: str
    spoiled: tuple[int, ...]
    """lines of the claims that fail on some path"""
    text: str
    """the routine in which it has happened"""


@dataclass(frozen=True)
class SlipsReport:
    slips: tuple[SlipReport, ...]
    """the worst first"""
    strict: tuple[int, ...]
    free: tuple[int, ...]
    advice: tuple[Advice, ...]
    untried: int
    """slips for which there was no time"""


def slips_report(found: Fragility, text: str) -> SlipsReport:
    """Each slip with the whole text in which it has happened."""
    slips = tuple(_slip(one, text) for one in found.outcomes)
    return SlipsReport(slips, found.strict, found.free, found.advice, found.untried)


def _slip(one: Outcome, text: str) -> SlipReport:
    slip = one.slip
    return SlipReport(
        slip.line,
        slip.what,
        slip.rows,
        cast(OutcomeName, one.kind),
        one.share,
        one.says,
        one.spoiled,
        edited(text, slip.edit),
    )


@dataclass(frozen=True)
class AnswerReport:
    values: Filling
    text: str
    """the routine it makes"""


@dataclass(frozen=True)
class SolutionReport:
    fields: tuple[Field, ...]
    answers: tuple[AnswerReport, ...]
    """each proved once more as the routine it makes"""
    fillings: int
    tried: int
    refuted_first: int
    """refuted by a path that had refuted another filling"""
    near: tuple[NearMiss, ...]
    relation: str | None
    complete: bool
    open: int
    """ways that were tried and not settled"""
    says: str
    """how many work of how many, and what is not settled"""


def solution_report(found: Solution, text: str) -> SolutionReport:
    return SolutionReport(
        found.fields,
        tuple(AnswerReport(one, filled(text, found.fields, one)) for one in found.answers),
        found.fillings,
        found.tried,
        found.refuted_first,
        found.near,
        found.relation,
        found.complete,
        found.open,
        found.says,
    )


@dataclass(frozen=True)
class LimitsReport:
    region: RegionReport | None
    """None where there are too many paths to list"""
    narrowed: str | None
    """the text with its ranges narrowed, where that makes every claim hold"""
    limits: tuple[Limit, ...]
    says: str
    """in sentences: when it holds, and on how many paths"""


def limits_report(found: Limits) -> LimitsReport:
    region = region_report(found.region) if found.region else None
    return LimitsReport(region, found.narrowed, found.limits, found.says)
