"""Answers as they are told: the shapes of the command line's JSON and of the API, each described here alone.

Where an answer of the core is already what one would tell (a fault, a claim, the notes), it is its own shape. The others
hold what only the core can use, programs, states, fractions, and are put into plain values here.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal, cast

from .landings import Landing
from .ledger import Entry
from .odds import Chance, Odds
from .refuting import Counterexample
from .regions import Region
from .strands import Edge, Strands, Where
from .verdicts import Claim, Verdict

VerdictName = Literal["proved", "refuted", "unsettled", "fixed", "rule", "one-of", "lost"]


@dataclass(frozen=True)
class PositionReport:
    place: str
    position: int
    """from the top or the left, from 1"""


@dataclass(frozen=True)
class EndReport:
    place: str
    position: int
    paths: int | None
    """how many end so; None where paths have no number"""


@dataclass(frozen=True)
class RuleReport:
    known: tuple[int | None, ...]
    """None: not settled on that path"""
    words: tuple[str, ...]
    place: str
    position: int


@dataclass(frozen=True)
class LandingReport:
    card: str
    text: str
    where: tuple[EndReport, ...]
    known: tuple[str, ...]
    formula: str | None
    table: tuple[RuleReport, ...]


@dataclass(frozen=True)
class CounterexampleReport:
    choices: Mapping[str, int]
    labels: tuple[str, ...]
    sentence: str
    stuck_at: int | None
    least: bool
    """the shortest way; else a path drawn at random"""
    beside: Mapping[str, int]
    """choices of another path that ends alike to the eye, where it fails by that; else empty"""


@dataclass(frozen=True)
class RegionReport:
    text: str | None
    fails: str | None
    """with which choices it fails, where only that has a short form"""
    passing: int
    paths: int
    reached: int
    """paths that come to a claim"""
    says: str
    values: Mapping[str, tuple[int, ...]]


@dataclass(frozen=True)
class VerdictReport:
    """`counterexample` and `holds_when` are None unless the verdict is refuted; so are numbers of paths where they have none."""

    verdict: VerdictName
    headline: str
    landing: LandingReport | None
    claims: tuple[Claim, ...]
    paths: int | None
    again_paths: int | None
    """of the paths, those that start again"""
    failing_paths: int | None
    reached: int | None
    """paths that come to a claim of an ending, or get stuck"""
    counted: str
    """on how many paths it holds, in words; empty where they have no number"""
    states_widest: int
    transitions: int
    covers_every_order: bool
    covers: str
    """which orders of the pack, in words"""
    seconds: float
    counterexample: CounterexampleReport | None
    holds_when: RegionReport | None
    assumed: tuple[str, ...]
    limit: str | None


@dataclass(frozen=True)
class PlaceReport:
    place: str
    positions: tuple[int, ...]


@dataclass(frozen=True)
class EntryReport:
    """Where a card is after a line."""

    line: int
    round: tuple[int, ...]
    text: str
    sure: bool
    where: tuple[PlaceReport, ...]


@dataclass(frozen=True)
class ChanceReport:
    about: str
    outcome: str
    least: float
    most: float
    exact: bool
    seen: float | None
    """share of the paths drawn; None where the chances are exact"""
    text: str


@dataclass(frozen=True)
class OddsReport:
    chances: tuple[ChanceReport, ...]
    samples: int | None
    """None where the chances are exact"""
    says: str
    """how sure the numbers are"""
    assumes: str | None


@dataclass(frozen=True)
class BeginningReport:
    line: int
    """0 for the set-up"""
    last: int
    turn: int | None
    where: tuple[PositionReport, ...]


@dataclass(frozen=True)
class EdgeReport:
    source: PositionReport
    to: PositionReport | None
    """None where these paths cannot go on"""
    paths: int
    can_succeed: bool
    can_fail: bool


@dataclass(frozen=True)
class ColumnReport:
    line: int
    last: int
    """last line of the block that `line` opens"""
    turn: int | None
    """which time round, for a repetition"""
    edges: tuple[EdgeReport, ...]


@dataclass(frozen=True)
class StrandsReport:
    card: str
    beginning: BeginningReport
    columns: tuple[ColumnReport, ...]


def verdict_report(verdict: Verdict) -> VerdictReport:
    example = verdict.counterexample
    return VerdictReport(
        cast(VerdictName, verdict.verdict),
        verdict.headline,
        _landing(verdict.landing) if verdict.landing else None,
        verdict.claims,
        verdict.paths,
        verdict.again_paths,
        verdict.failing_paths,
        verdict.count.reached if verdict.count else None,
        verdict.counted,
        verdict.states_widest,
        verdict.transitions,
        verdict.covers_every_order,
        verdict.covers,
        round(verdict.seconds, 6),
        _example(example) if example else None,
        region_report(verdict.holds_when) if verdict.holds_when else None,
        verdict.assumed,
        verdict.limit,
    )


def _example(example: Counterexample) -> CounterexampleReport:
    return CounterexampleReport(
        dict(example.choices), example.labels, example.sentence, example.stuck_at, example.least, dict(example.beside)
    )


def _landing(landing: Landing) -> LandingReport:
    return LandingReport(
        landing.card,
        landing.text,
        tuple(EndReport(where.place, where.position, where.paths) for where in landing.where),
        landing.known,
        landing.formula,
        tuple(RuleReport(row.known, row.words, row.place, row.position) for row in landing.table),
    )


def region_report(region: Region) -> RegionReport:
    count = region.count
    return RegionReport(
        region.text, region.fails, region.passing, region.paths, count.reached or 0, region.says, region.values
    )


def ledger_report(entries: Sequence[Entry]) -> tuple[EntryReport, ...]:
    return tuple(
        EntryReport(
            entry.line,
            entry.round,
            entry.text,
            sum(len(positions) for _, positions in entry.where) == 1 or entry.formula is not None,
            tuple(PlaceReport(place, positions) for place, positions in entry.where),
        )
        for entry in entries
    )


def position_report(where: Where | None) -> PositionReport | None:
    return PositionReport(*where) if where else None


def strands_report(strands: Strands) -> StrandsReport:
    first = strands.beginning
    return StrandsReport(
        strands.card,
        BeginningReport(first.line, first.last, first.turn, tuple(PositionReport(*where) for where in first.where)),
        tuple(
            ColumnReport(column.line, column.last, column.turn, tuple(map(_edge, column.edges)))
            for column in strands.columns
        ),
    )


def _edge(edge: Edge) -> EdgeReport:
    return EdgeReport(
        PositionReport(*edge.source), position_report(edge.to), edge.paths, edge.can_succeed, edge.can_fail
    )


def odds_report(odds: Odds) -> OddsReport:
    """Chances as fractions in words and as decimals."""
    return OddsReport(tuple(map(_chance, odds.chances)), odds.samples, odds.says, odds.assumes)


def _chance(chance: Chance) -> ChanceReport:
    seen = None if chance.seen is None else float(chance.seen)
    return ChanceReport(
        chance.about, chance.outcome, float(chance.least), float(chance.most), chance.exact, seen, chance_text(chance)
    )


def chance_text(chance: Chance) -> str:
    """`1 in 51`, `28.04 %`, `between 0 % and 40 %`, `about 25 % (95 times in 100 from 23.7 % to 26.4 %)`."""
    low, high = chance.least, chance.most
    if low == high and low.numerator == 1 and 1 < low.denominator <= 10_000:
        return f"1 in {low.denominator:,}"
    if low == high:
        return _per_cent(low)
    if chance.seen is not None:
        return f"about {_per_cent(chance.seen)} (95 times in 100 from {_per_cent(low)} to {_per_cent(high)})"
    return f"between {_per_cent(low)} and {_per_cent(high)}"


def _per_cent(share: Fraction) -> str:
    number = float(share) * 100
    return f"{number:.4g} %" if number >= 0.01 or number == 0 else f"{number:.1e} %"
