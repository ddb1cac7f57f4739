"""What was told of a routine against what came of playing it: one function for each thing that is told."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from .paths import NoPath, Path, run, steps_of
from .sorts import NAMES
from .table import FacesLeft, Json

Told = Mapping[str, Any]
"""name of an answer → the answer in JSON"""
SPREAD = 6.0
"""standard deviations that a share of paths drawn at random may be off"""


@dataclass(frozen=True)
class Played:
    document: Json
    lines: tuple[int, ...]
    """of the text, for each step in order"""
    paths: tuple[Path, ...]
    complete: bool
    """these are all paths there are"""

    def line(self, nth: int) -> int:
        return self.lines[nth] if 0 <= nth < len(self.lines) else 0

    @property
    def to_their_end(self) -> Iterator[Path]:
        return (path for path in self.paths if not path.stuck and not path.table.again)


@dataclass(frozen=True)
class Differs:
    says: str
    path: Path | None = None


def whether_it_holds(played: Played, told: Told) -> Differs | None:
    """Nothing fails that is said to hold, nothing holds that is said to fail always, and as many fail as are said to."""
    verdict = told.get("verdict")
    if not verdict or verdict["verdict"] == "unsettled":
        return None
    failing = [path for path in played.paths if path.fails]
    if verdict["verdict"] != "refuted" and failing:
        return Differs(
            f"the proof says that every path holds, and played by hand one fails {_where(played, failing[0])}",
            failing[0],
        )
    if not played.complete:
        return None
    if verdict["verdict"] == "refuted" and not failing:
        return Differs("the proof says that it fails, and played by hand every path holds")
    for what, ours, theirs in (
        ("paths", verdict["paths"], len(played.paths)),
        ("failing paths", verdict["failing_paths"], len(failing)),
    ):
        if ours is not None and ours != theirs:
            return Differs(f"the proof counts {ours:,} {what}, and played by hand there are {theirs:,}")
    return None


def _where(played: Played, path: Path) -> str:
    if path.stuck:
        return f"at line {played.line(path.table.step)}, which cannot be carried out"
    wrong = [nth for nth, good in path.table.judged.items() if not good]
    return f"what line {played.line(wrong[0])} claims" if wrong else "at its end"


def each_claim(played: Played, told: Told) -> Differs | None:
    """A claim that is said to hold is so on every path that comes to it."""
    holds = {claim["line"] for claim in (told.get("verdict") or {}).get("claims", ()) if claim["holds"]}
    for path in played.paths:
        for nth, good in path.table.judged.items():
            if not good and played.line(nth) in holds:
                return Differs(
                    f"the proof says that line {played.line(nth)} is so, and played by hand it is not", path
                )
    return None


def every_claim(played: Played, told: Told) -> Differs | None:
    """Whatever the routine claims has been looked at."""
    verdict = told.get("verdict")
    if not verdict or verdict["verdict"] == "unsettled" or verdict["limit"]:
        return None
    looked_at = {claim["line"] for claim in verdict["claims"]}
    for nth, step in enumerate(steps_of(played.document["lines"])):
        if step["step"].startswith(("ends_", "never_")) and played.line(nth) not in looked_at:
            return Differs(f"the proof has not looked at line {played.line(nth)}")
    return None


def the_way_it_fails(played: Played, told: Told) -> Differs | None:
    """The path that is told to fail does so when these choices are made at the table."""
    example = told.get("example")
    if not example:
        return None
    left = iter(example["decisions"])

    def pick(options: list[int]) -> int:
        if isinstance(options, FacesLeft) and any(
            all(NAMES[card] in one for card in options) for one in example["classes"]
        ):
            return 0  # no line tells these apart: nothing was decided
        made = next(left)
        if "index" in made:
            return int(made["index"])
        names = set(example["classes"][made["face"]])
        return next(i for i, card in enumerate(options) if (NAMES[card] in names) != made["barred"])

    try:
        path, _ = run(played.document, pick=pick)
    except (NoPath, RuntimeError, StopIteration, IndexError):
        return None  # it cannot be followed choice by choice
    return (
        None
        if path.fails
        else Differs("the proof tells a way in which it fails, and played by hand that one holds", path)
    )


def where_it_lands(played: Played, told: Told) -> Differs | None:
    """The card ends nowhere else; and where all paths were played, everywhere it is said to, on as many paths."""
    landing = (told.get("verdict") or {}).get("landing")
    if not landing:
        return None
    ours = {(one["place"], one["position"]): one["paths"] for one in landing["where"]}
    theirs: Counter[tuple[str, int]] = Counter()
    for path in played.to_their_end:
        where = _lies(path, landing["card"])
        if where is None:
            continue
        theirs[where] += 1
        if where not in ours:
            return Differs(
                f"{landing['card']} is said never to end as card {where[1]} of {where[0]}, and played by hand it does",
                path,
            )
        if (row := _row(path, landing)) and (row["place"], row["position"]) != where:
            said = f"card {row['position']} of {row['place']}"
            return Differs(
                f"by what is known {landing['card']} is said to be {said}, and played by hand it is card {where[1]} of {where[0]}",
                path,
            )
    if (
        played.complete
        and not any(path.stuck for path in played.paths)
        and None not in ours.values()
        and dict(theirs) != ours
    ):
        return Differs(f"{landing['card']} ends on other numbers of paths at its places than is said")
    return None


def _lies(path: Path, card: str) -> tuple[str, int] | None:
    followed = path.table.named.get(card)
    for place, heap in path.table.heaps.items():
        for at, one in enumerate(heap, start=1):
            if one is followed:
                return place, at
    return None


def _row(path: Path, landing: Json) -> Json | None:
    """Of the table by what is known, the row of this path; None where its names stand for more than one number."""
    names = landing["known"]
    if not names or not all(name in path.table.numbers for name in names):
        return None
    known = [path.table.numbers[name] for name in names]
    return next((row for row in landing["table"] if list(row["known"]) == known), None)


def where_it_goes(played: Played, told: Told) -> Differs | None:
    """Behind each line, and each time round, the card lies where the margin says."""
    margin = told.get("ledger")
    if not margin:
        return None
    ours: dict[tuple[int, tuple[int, ...]], set[tuple[str, int]]] = {}
    for entry in margin["ledger"]:
        spots = {(one["place"], at) for one in entry["where"] for at in one["positions"]}
        ours.setdefault((entry["line"], tuple(entry["round"])), set()).update(spots)
    for path in played.paths:
        card = path.table.named.get(margin["card"])
        if card is None or path.stuck:
            continue
        for (nth, turns), heaps in path.table.came_by.items():
            turn = played.line(nth), turns
            spots = {(place, heap.index(card.number) + 1) for place, heap in heaps.items() if card.number in heap}
            if turn in ours and not spots <= ours[turn]:
                place, at = min(spots - ours[turn])
                return Differs(
                    f"{margin['card']} is said never to be card {at} of {place} behind line {turn[0]}, and played by hand it is",
                    path,
                )
    return None


def when_it_holds(played: Played, told: Told) -> Differs | None:
    """With the choices with which it is said to hold, and with no others, paths hold."""
    region = (told.get("limits") or {}).get("region") or (told.get("verdict") or {}).get("holds_when")
    if not region or not played.complete:
        return None
    holding = sum(not path.fails for path in played.paths)
    if (region["passing"], region["paths"]) != (holding, len(played.paths)):
        said = f"{region['passing']:,} of {region['paths']:,} paths"
        return Differs(
            f"it is said to hold on {said}, and played by hand it does on {holding:,} of {len(played.paths):,}"
        )
    return None


def how_often(played: Played, told: Told) -> Differs | None:
    """A number comes out as often as is said: exactly where all paths were played, else within what chance allows."""
    odds = told.get("odds")
    if not odds or odds["samples"] or not _can_be_weighed(played):
        return None
    said = {int(one["outcome"]): (one["least"], one["most"]) for one in odds["chances"] if one["about"] not in BESIDE}
    weights: dict[int | None, float] = {}
    for path in played.paths:
        outcome = path.table.odds[0] if path.table.odds else None
        weights[outcome] = weights.get(outcome, 0.0) + (
            float(path.chance) if played.complete else 1 / len(played.paths)
        )
    for outcome in {*said, *(one for one in weights if one is not None)}:
        least, most = said.get(outcome, (0.0, 0.0))
        share = weights.get(outcome, 0.0)
        off = 1e-9 if played.complete else _spread(share, len(played.paths))
        if not least - off <= share <= most + off:
            return Differs(
                f"{outcome} is said to come out with a chance of {least:.4g} to {most:.4g}, and played by hand it has {share:.4g}"
            )
    return None


def _can_be_weighed(played: Played) -> bool:
    """One number is asked for, once on each path at most, and every option is as likely as the others beside it."""
    kinds = Counter(step["step"] for step in steps_of(played.document["lines"]))
    if kinds["odds_of"] != 1 or any(kinds[kind] for kind in UNEVEN):
        return False
    return all(len(path.table.odds) <= 1 for path in played.paths)


def _spread(share: float, many: int) -> float:
    return SPREAD * math.sqrt(max(share * (1 - share), 1 / many) / many)


BESIDE = ("ending", "success")
"""what chances are about besides the number that is asked for"""
UNEVEN = ("chance", "keep_piles", "as_often", "start_again")
"""steps whose options are not as likely as one another, or of which one path stands for several"""
COMPARISONS: tuple[Callable[[Played, Told], Differs | None], ...] = (
    whether_it_holds, each_claim, every_claim, the_way_it_fails, where_it_lands, where_it_goes, when_it_holds, how_often,
)  # fmt: skip
