"""What is kept of practice: answers of drills, rehearsals, and what is learned from a desk."""

from __future__ import annotations

from dataclasses import dataclass

from ..to_learn import DrillQuestion


@dataclass(frozen=True)
class DeskDrill:
    """What is learned from a desk. Its questions stay, though the desk may find another answer that is as right."""

    uid: str
    desk: str
    title: str
    asks: str
    """what the desk was asked, as JSON"""
    questions: tuple[DrillQuestion, ...]
    kept_at: str
    """ISO time, in UTC"""


@dataclass(frozen=True)
class Answer:
    uid: str
    routine: str
    """uid of the routine, or of what is learned from a desk"""
    drill: str
    question: str
    """key of the question within its drill"""
    answered_at: str
    """ISO time, in UTC"""
    right: bool
    seconds: float


@dataclass(frozen=True)
class BeatDone:
    """One beat as it was done."""

    line: int
    seconds: float
    asked: str = ""
    right: bool | None = None
    """None where nothing was asked"""
    answer: str = ""


@dataclass(frozen=True)
class Rehearsed:
    uid: str
    routine: str
    """uid"""
    held_at: str
    """ISO time, in UTC"""
    level: str
    habit: str
    done: tuple[BeatDone, ...]
    finished: bool = True
