"""Every path of a routine, one at a time."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from fractions import Fraction
from math import prod
from typing import Any

from .interpreter import SET_UP, reached_before, run_lines
from .table import CannotGoOn, Finished, Json, NoSuchPath, Table


class NoPath(Exception):
    """These choices are no path; the options taken and their numbers, for the next script."""

    def __init__(self, taken: list[int], sizes: list[int]) -> None:
        super().__init__()
        self.taken, self.sizes = taken, sizes


@dataclass
class Path:
    taken: tuple[int, ...]
    """index of the option taken, for each choice in turn"""
    table: Table
    stuck: bool
    no_ending: bool
    """there are endings, and this path came to none"""
    chance: Fraction
    """of this path, where every option is as likely as the others"""
    chosen: tuple[tuple[int, int], ...] = ()
    """for each choice in turn: (the step at which it was made, by its place among the steps; the option taken)"""
    ambiguous: bool = False
    """what is seen at the end does not tell what it is to tell"""

    @property
    def fails(self) -> bool:
        if self.stuck or self.table.shown:
            return True
        return not self.table.again and (self.no_ending or self.ambiguous or not all(self.table.claims))


def steps_of(lines: list[Json]) -> Iterator[Json]:
    for line in lines:
        if "step" in line:
            yield line
            yield from steps_of(line.get("body", []))


def run(
    document: Json,
    script: tuple[int, ...] = (),
    pick: Callable[[list[int]], int] | None = None,
    logged: bool = False,
    rounds: int | None = None,
    marked: bool = False,
) -> tuple[Path, list[int]]:
    """The path that takes these options and then always the first; with the number of options at each choice.

    With `pick` that decides on an index instead. `logged`: with what lay where behind each line. `rounds`, `marked`: see Table.
    """
    sizes: list[int] = []
    taken: list[int] = []
    chosen: list[tuple[int, int]] = []

    def decide(options: list[int]) -> int:
        index = pick(options) if pick else script[len(taken)] if len(taken) < len(script) else 0
        sizes.append(len(options))
        taken.append(index)
        chosen.append((table.step, options[index]))
        return options[index]

    if not script:
        reached_before.clear()
    every = list(steps_of(document["lines"]))
    for nth, line in enumerate(every):
        line["nth"] = nth
    table = Table(decide, taken, logged=logged, rounds=rounds, marked=logged or marked)
    stuck = False
    # Which value four of a kind can have depends on all that is placed.
    opening = [line for line in document["lines"] if line.get("step") in ("title", "note", *SET_UP)]
    opening.sort(key=lambda line: line["step"] == "place_four")
    try:
        run_lines(table, opening)
        table.placed = list(table.named)
        table.knows |= set(table.placed)
        table.keeps = next((table.value(line["count"]) for line in every if line["step"] == "keep_piles"), 0)
        table.exposed = [
            (line.get("card"), line.get("side", "back")) for line in every if line["step"].startswith("never_")
        ]
        table.step = -1
        table.look_around(list(table.heaps))
        run_lines(table, [line for line in document["lines"] if line not in opening])
    except CannotGoOn:
        stuck = True
    except Finished:
        pass
    except NoSuchPath:
        raise NoPath(taken, sizes) from None
    ends = sum(line["step"].startswith("ends_") for line in every) and not table.again and not table.ended_here
    no_ending = not stuck and bool(ends) and not table.claims
    return Path(tuple(taken), table, stuck, no_ending, Fraction(1, prod(sizes)), tuple(chosen)), sizes


def every_path(document: Json, logged: bool = False) -> list[Path]:
    """All paths, in the order of the options."""
    return judged_together(list(each_path(document, logged)))


def judged_together(paths: list[Path]) -> list[Path]:
    """All paths there are, with what only all of them together show."""
    for i in range(max((len(path.table.told) for path in paths), default=0)):
        ended = [path for path in paths if i < len(path.table.told) and not path.stuck]
        looks = {path.table.told[i] for path in ended}
        several = {
            (seen, told)
            for seen, told in looks
            if any(told != other[1] and _may_be_one(seen, other[0]) for other in looks)
        }
        for path in ended:
            path.ambiguous |= path.table.told[i] in several
    return paths


def _may_be_one(one: Any, other: Any) -> bool:
    """Whether two packs, of which each path has looked at some cards, can end with the same faces: a card lies at one place."""
    (cards, beside), (others, theirs) = one, other
    if len(cards) != len(others):
        return False
    known = {face: i for i, (face, _) in enumerate(cards) if face} | dict.fromkeys(beside, -1)
    for i, (face, up) in enumerate(others):
        if up != cards[i][1] or (face and (cards[i][0] or face) != face) or known.get(face, i) != i:
            return False
    return not (theirs & {face for face, _ in cards})


def each_path(document: Json, logged: bool = False, marked: bool = False) -> Iterator[Path]:
    """The same one by one, without what only all of them together show."""
    script: tuple[int, ...] | None = ()
    while script is not None:
        taken: list[int] = []
        sizes: list[int] = []
        try:
            path, sizes = run(document, script, logged=logged, marked=marked)
            taken = list(path.taken)
            yield path
        except NoPath as none:
            taken, sizes = none.taken, none.sizes
        while taken and taken[-1] + 1 == sizes[len(taken) - 1]:
            taken.pop()
        script = (*taken[:-1], taken[-1] + 1) if taken else None
