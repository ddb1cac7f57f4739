"""Shapes of what is asked and told about neighbouring routines: why, when, what would work, what breaks it."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from .models import RegionOut, Shape, Text


class SentenceOut(Shape):
    line: int
    words: str


class CaseOut(Shape):
    when: str | None = Field(description="null: on every path")
    place: str
    formula: str


class EachTimeOut(Shape):
    line: int
    formula: str = Field(description="in x, where the card was the time before")


class Explanation(Shape):
    card: str | None
    said: list[SentenceOut]
    cases: list[CaseOut]
    each_time: list[EachTimeOut]
    kept: list[SentenceOut] = Field(description="what stays as it was at first, after which line")


class ExplainOut(Shape):
    explanation: Explanation | None = Field(description="null while the text has faults")


class OutsideOut(Shape):
    numbers: str
    known: str


class LimitOut(Shape):
    line: int
    name: str
    low: int
    high: int
    steer: str
    noticed: int | None = Field(description="the line at which you can tell; null: you never learn the number")
    outside: list[OutsideOut]


class Limits(Shape):
    region: RegionOut | None = Field(description="null where there are too many paths to list")
    narrowed: str | None = Field(description="the text with its ranges narrowed, where that makes every claim hold")
    limits: list[LimitOut]
    says: str = Field(description="in sentences: when it holds, and on how many paths")


class HoldsOut(Shape):
    limits: Limits | None = Field(description="null while the text has faults")


class SlipOut(Shape):
    line: int
    what: str
    rows: str = Field(description="the line as it is then carried out; empty where it is left out")
    kind: Literal["harmless", "elsewhere", "some", "all", "not settled"]
    share: float | None = Field(description="of the paths that fail, 0 to 1; null where paths have no number")
    says: str
    spoiled: list[int] = Field(description="lines of the claims that fail on some path")
    text: str = Field(description="the routine in which it has happened")


class AdviceOut(Shape):
    line: int
    words: str


class Slips(Shape):
    slips: list[SlipOut] = Field(description="the worst first")
    strict: list[int]
    free: list[int]
    advice: list[AdviceOut]
    untried: int = Field(description="slips for which there was no time")


class SlipsOut(Shape):
    slips: Slips | None = Field(description="null while the text has faults")


Domains = Annotated[
    dict[Annotated[str, Field(pattern=r"^[0-9]{1,2}$")], list[Annotated[Text, Field(max_length=200)]]],
    Field(max_length=26, description="number of a blank, from 1 → what to try for it, the simplest first"),
]


class SolveIn(Shape):
    text: Text
    job: str = Field(max_length=64)
    domains: Domains | None = None


class BlankOut(Shape):
    number: int
    line: int
    start: int
    domain: list[str]


class AnswerOut(Shape):
    values: list[str]
    text: str


class NearOut(Shape):
    values: list[str]
    says: str


class Solution(Shape):
    fields: list[BlankOut]
    answers: list[AnswerOut] = Field(description="each proved once more as the routine it makes")
    fillings: int
    tried: int
    refuted_first: int = Field(description="refuted by a path that had refuted another filling")
    near: list[NearOut]
    relation: str | None
    complete: bool
    open: int = Field(description="ways that were tried and not settled")
    says: str = Field(description="how many work of how many, and what is not settled")


class SolveOut(Shape):
    solution: Solution | None
    trouble: str | None


class SweepIn(Shape):
    text: Text
    job: str = Field(max_length=64)
    line: int | None = Field(default=None, ge=1, description="the line whose number varies; else the text has blanks")
    nth: int = Field(default=1, ge=1, description="which number of the line, from 1")
    domains: Domains | None = None


class SweptOut(Shape):
    values: list[str]
    verdict: str
    landing: str | None
    position: int | None
    share: float | None = Field(description="of the paths that fail, 0 to 1; null where paths have no number")
    says: str = Field(description="on how many paths it holds, or why nothing can be said")


class Sweep(Shape):
    fields: list[BlankOut]
    rows: list[SweptOut]
    formula: str | None


class SweepOut(Shape):
    sweep: Sweep | None
    trouble: str | None
