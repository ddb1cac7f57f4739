"""An occasion: what is to be shown there, in which order, and with what is at hand."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import date
from typing import Any, Literal, get_args

from ..book.performance import BadEntry, day_of

WishKind = Literal[
    "opener", "closer", "least resetting", "fewest packs", "fewest warnings", "variety", "within the minutes"
]
WISHES: tuple[str, ...] = get_args(WishKind)
MOST_ROUTINES = 60
MOST_LETTERS = 200
MOST_PACKS, MOST_MINUTES, MOST_PEOPLE = 20, 600, 100_000


@dataclass(frozen=True)
class Wish:
    """What an order is to have; of two that cannot both be had the earlier one counts."""

    kind: WishKind
    routine: str = ""
    """the uid, for opener and closer"""


@dataclass(frozen=True)
class Occasion:
    title: str
    held_on: str = ""
    """the day, as in 2026-11-28; empty for not settled"""
    begins: str = ""
    """the time, as in 20:30; empty for not settled"""
    place: str = ""
    audience: str = ""
    people: int | None = None
    minutes: int | None = None
    """allowed in all"""
    packs: int = 2
    """at hand"""
    pockets: tuple[str, ...] = ("pocket",)
    """places off the table that can be used, by the names that the routines give them"""
    routines: tuple[str, ...] = ()
    """by uid, in their order; one may come twice"""
    wishes: tuple[Wish, ...] = (Wish("fewest warnings"), Wish("least resetting"), Wish("fewest packs"))
    kept: tuple[str, ...] = ()
    """keys of warnings that were looked at and are kept"""


def checked(occasion: Occasion) -> Occasion:
    """The occasion with its day as it is kept. Raises BadEntry."""
    if not occasion.title.strip():
        raise BadEntry("title", "The occasion has no name.", "Give it one, such as: second sitting.")
    for name in ("title", "place", "audience", "begins"):
        words = getattr(occasion, name)
        if len(words) > MOST_LETTERS or words != words.encode(errors="replace").decode():
            raise BadEntry(name, "That cannot be kept.", f"Write up to {MOST_LETTERS} letters.")
    if len(occasion.routines) > MOST_ROUTINES:
        raise BadEntry("routines", f"There are {len(occasion.routines)} routines.", f"Take up to {MOST_ROUTINES}.")
    held_on = day_of(occasion.held_on).isoformat() if occasion.held_on.strip() else ""
    for name, most in (("minutes", MOST_MINUTES), ("people", MOST_PEOPLE), ("packs", MOST_PACKS)):
        number = getattr(occasion, name)
        if number is not None and not 1 <= number <= most:
            raise BadEntry(name, f"{number} cannot be.", f"Take a number from 1 to {most:,}.")
    hour, colon, minute = occasion.begins.partition(":")
    if occasion.begins and not (
        colon and hour.isascii() and hour.isdigit() and minute.isascii() and minute.isdigit()
        and int(hour) < 24 and len(minute) == 2 and int(minute) < 60
    ):  # fmt: skip
        raise BadEntry("begins", f"“{occasion.begins[:20]}” is no time.", "Write it as 20:30.")
    begins = f"{int(hour):02}:{minute}" if occasion.begins else ""
    return replace(occasion, title=occasion.title.strip(), held_on=held_on, begins=begins)


def occasion_of(told: Mapping[str, Any]) -> Occasion:
    """From plain values. Raises TypeError for what is none."""
    lists = {name: tuple(told[name]) for name in ("pockets", "routines", "kept") if name in told}
    wishes = {"wishes": tuple(Wish(**one) for one in told["wishes"])} if "wishes" in told else {}
    return Occasion(**{**told, **lists, **wishes})


def parsed_day(occasion: Occasion) -> date | None:
    return date.fromisoformat(occasion.held_on) if occasion.held_on else None
