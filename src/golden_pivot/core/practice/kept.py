"""What is kept of practice: answers of drills, and rehearsals."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Answer:
    uid: str
    routine: str
    """uid"""
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
