"""The desk for narrowing, or magician's choice: what to say after every pointing, so that the target is left.

A **pattern** says how many to point at, time after time: 4, 2, 1. The pointed ones are kept if the target is among
them, else they go; with one left it ends. The same number is asked for whatever went before, since a performer who
asks for another number each way gives the game away.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache
from itertools import product
from math import comb, prod

from num2words import num2words

from ..budget import Budget
from ..cards import MAX_CARDS
from ..to_learn import DrillQuestion
from .desk import Desk, Send, Table, Trouble, asked, desk, within
from .gaps import filled, strange_gap

MOST_OBJECTS, MOST_QUESTIONS, MOST_STAGES = 12, 6, 3
KEEP, GO = "keep", "go"


@dataclass(frozen=True)
class NarrowingAsks:
    objects: list[int] = asked(
        [6, 2], "objects: how many lie there; several numbers for stages, such as packets, then their cards"
    )
    targets: int = asked(1, "targets: one, or two of which either will do")
    patterns: list[str] = asked(
        [], "patterns: how many to point at, time after time, as in “4, 2, 1”, one for each stage; empty: the fairest"
    )
    ask: str = asked("Point to {count} of them.", "line that asks: with {count} and {left}")
    keep: str = asked(
        "{count}, then: those are the ones we use.", "line that keeps: what is said when the pointed ones stay"
    )
    go: str = asked(
        "{count}, then: those go back in the case.", "line that discards: what is said when the pointed ones go"
    )
    end: str = asked("And that leaves this one.", "line at the end: when one is left")


@dataclass(frozen=True)
class Node:
    """A situation: so many left in a stage, after these branches. `parent` is an index into the list; None at the top."""

    parent: int | None
    stage: int
    """from 1"""
    left: int
    point: int | None
    """how many are pointed at; None: one is left"""
    branch: str | None
    """keep or go: what led here; None at the top of a stage"""
    says: tuple[str, ...]
    """what is said: about the pointing before, then what is asked, or that one is left"""
    share: float
    """of all runs"""
    share_text: str


@dataclass(frozen=True)
class Pattern:
    objects: int
    points: tuple[int, ...]
    least: int
    most: int
    mean: str
    """questions on average over all pointings, as a fraction"""
    mean_number: float
    one_meaning: str
    """share of runs in which every pointing keeps, or every pointing discards"""
    one_meaning_share: float


@dataclass(frozen=True)
class NarrowingAnswers:
    tree: tuple[Node, ...]
    stages: tuple[Pattern, ...]
    whole: Pattern
    """all stages together"""
    ranked: tuple[tuple[Pattern, ...], ...]
    """for each stage the patterns that can be used, the fairest first"""
    send: Send | None
    """None where it takes more cards than a routine can have"""


def _count_word(n: int) -> str:
    return str(num2words(n))


@lru_cache(20_000)
def _runs(left: int, points: tuple[int, ...], targets: int) -> tuple[tuple[int, str, Fraction], ...] | None:
    """(questions, meanings so far as letters K and G, share of runs); None where some pointing leads nowhere.

    Every way to point is equally likely, and the targets lie anywhere. Of two targets either will do: pointed at one of
    them alone, either group may stay, and the pointed ones do.
    """
    if left == 1:
        return ((0, "", Fraction(1)),)
    if not points or not 0 < points[0] < left:
        return None
    pointed, rest = points[0], points[1:]
    found: list[tuple[int, str, Fraction]] = []
    for branch, share, remain, among in _branches(left, pointed, targets):
        deeper = _runs(remain, rest, among)
        if deeper is None:
            return None
        found += [(many + 1, branch + said, share * part) for many, said, part in deeper]
    merged: dict[tuple[int, str], Fraction] = {}
    for many, said, share in found:
        merged[many, said] = merged.get((many, said), Fraction(0)) + share
    return tuple((many, said, share) for (many, said), share in merged.items())


def _branches(left: int, pointed: int, targets: int) -> Iterator[tuple[str, Fraction, int, int]]:
    """(K keeps or G discards the pointed ones, its share, how many are left then, targets among them)."""
    targets = min(targets, left)
    every = comb(left, pointed)
    for inside in range(targets + 1):
        ways = comb(targets, inside) * comb(left - targets, pointed - inside) if inside <= pointed else 0
        if ways:
            share = Fraction(ways, every)
            yield ("K", share, pointed, inside) if inside else ("G", share, left - pointed, targets)


def judged(objects: int, points: tuple[int, ...], targets: int) -> Pattern | None:
    """How fair a pattern is; None where some way to point is not provided for."""
    runs = _runs(objects, points, targets)
    return None if runs is None else _pattern(objects, points, runs)


def _pattern(objects: int, points: tuple[int, ...], runs: Sequence[tuple[int, str, Fraction]]) -> Pattern:
    mean = sum((many * share for many, _, share in runs), Fraction(0))
    same = sum((share for _, said, share in runs if len(set(said)) < 2), Fraction(0))
    most = max(many for many, _, _ in runs)
    return Pattern(
        objects, points[:most], min(many for many, _, _ in runs), most, str(mean), float(mean), str(same), float(same)
    )


def patterns_for(objects: int, targets: int) -> list[Pattern]:
    """Every pattern that provides for all pointings, the fairest first.

    Fairest: in most runs pointing keeps one meaning; then fewest questions on average; then at most.
    """
    found: dict[tuple[int, ...], Pattern] = {}

    def extend(points: tuple[int, ...], left: set[int]) -> None:
        """`left` is what may be there after these."""
        if not left - {1}:
            pattern = judged(objects, points, targets)
            if pattern:
                found[pattern.points] = pattern
            return
        if len(points) < MOST_QUESTIONS:
            for point in range(1, min(left - {1})):
                extend((*points, point), {one for n in left - {1} for one in (point, n - point)})

    extend((), {objects})
    return sorted(found.values(), key=lambda p: (-p.one_meaning_share, p.mean_number, p.most, p.points))


def _read(text: str, field: str) -> tuple[int, ...]:
    words = text.replace(",", " ").split()
    if not all(word.isdigit() for word in words):
        raise Trouble(field, f"“{text}” is no pattern.", "Write numbers with commas, such as 4, 2, 1.")
    return tuple(map(int, words))


def answer(asks: NarrowingAsks, budget: Budget) -> NarrowingAnswers:
    within(asks, objects=(2, MOST_OBJECTS), targets=(1, 2))
    if not 1 <= len(asks.objects) <= MOST_STAGES:
        raise Trouble("objects", "There is nothing to narrow down." if not asks.objects else "These are too many stages.",
                      f"Write one number, or up to {MOST_STAGES}.")  # fmt: skip
    for name in ("ask", "keep", "go", "end"):
        _check_line(name, getattr(asks, name))
    stages, ranked = [], []
    for i, objects in enumerate(asks.objects):
        # Two targets are of the first stage: in the packet that is left, one card is meant.
        targets = asks.targets if i == len(asks.objects) - 1 else 1
        usable = patterns_for(objects, targets)
        text = asks.patterns[i] if i < len(asks.patterns) else ""
        if points := _read(text, "patterns"):
            stages.append(_provided(objects, points, targets))
        else:
            stages.append(usable[0])
        ranked.append(tuple(usable[:12]))
    whole = _together(stages, asks.targets)
    tree = _tree(asks, stages)
    return NarrowingAnswers(tuple(tree), tuple(stages), whole, tuple(ranked), _send(asks, stages))


def _provided(objects: int, points: tuple[int, ...], targets: int) -> Pattern:
    if pattern := judged(objects, points, targets):
        return pattern
    left = {objects}
    said: list[str] = []
    for point in points:
        open_ = sorted(left - {1})
        if bad := next((n for n in open_ if not 0 < point < n), None):
            raise Trouble(
                "patterns", f"With {bad} left, nobody can point to {point} of them" + (f" after {', '.join(said)}." if said else "."),
                f"Point to fewer than {bad}, and to one at least.",
            )  # fmt: skip
        said.append(str(point))
        left = {one for n in open_ for one in (point, n - point)}
    open_ = sorted(left - {1})
    raise Trouble(
        "patterns", f"After {', '.join(said)} there can still be {' or '.join(map(str, open_))} left, and no pointing is provided.",
        "Add a number to the pattern.",
    )  # fmt: skip


def _check_line(name: str, line: str) -> None:
    if strange_gap(line, ("count", "left")) is not None:
        raise Trouble(name, f"“{line}” has a gap that nothing fills.", "There are {count} and {left}.")


def _together(stages: Sequence[Pattern], targets: int) -> Pattern:
    """The stages one after the other, as one run."""
    runs: list[tuple[int, str, Fraction]] = [(0, "", Fraction(1))]
    for i, stage in enumerate(stages):
        here = _runs(stage.objects, stage.points, targets if i == len(stages) - 1 else 1) or ()
        merged: dict[tuple[int, str], Fraction] = {}
        for (a, said, x), (b, more, y) in product(runs, here):
            key = a + b, "".join(sorted(set(said + more)))
            merged[key] = merged.get(key, Fraction(0)) + x * y
        runs = [(many, said, share) for (many, said), share in merged.items()]
    points = tuple(point for stage in stages for point in stage.points)
    return _pattern(sum(stage.objects for stage in stages), points, runs)


def _filled(line: str, count: int, left: int) -> str:
    text = filled(line, {"count": _count_word(count), "left": _count_word(left)})
    return text[:1].upper() + text[1:]


def _tree(asks: NarrowingAsks, stages: Sequence[Pattern]) -> list[Node]:
    nodes: list[Node] = []

    def grow(parent: int | None, stage: int, left: int, points: tuple[int, ...], targets: int, branch: str | None,
             before: tuple[str, ...], share: Fraction) -> None:  # fmt: skip
        at = len(nodes)
        point = points[0] if left > 1 else None
        says = (*before, asks.end if point is None else _filled(asks.ask, point, left))
        nodes.append(Node(parent, stage + 1, left, point, branch, says, float(share), str(share)))
        if point is None:
            return
        for meaning, part, remain, among in _branches(left, point, targets):
            said = _filled(asks.keep if meaning == "K" else asks.go, point, left)
            grow(at, stage, remain, points[1:], among, KEEP if meaning == "K" else GO, (said,), share * part)

    for i, stage in enumerate(stages):
        grow(None, i, stage.objects, stage.points, asks.targets if i == len(stages) - 1 else 1, None, (), Fraction(1))
    return nodes


def _send(asks: NarrowingAsks, stages: Sequence[Pattern]) -> Send | None:
    """As lines of a routine with one target: the packets are dealt, narrowed to one, and then its cards."""
    cards = prod(stage.objects for stage in stages)
    if cards > MAX_CARDS:
        return None
    rows: list[str] = []
    source = "deck"
    for i, stage in enumerate(stages):
        if i:
            rows.append("Put pile 1 on table")
            source = "table"
        rows.append(f"Deal {source} into {stage.objects} piles")
        for at, point in enumerate(stage.points):
            line = f"Spectator points to {point} of the piles, and you keep those that TARGET is among"
            said = (
                _filled(asks.ask, point, stage.objects),
                f"If it is among them: {_filled(asks.keep, point, stage.objects)}",
                f"If not: {_filled(asks.go, point, stage.objects)}",
            )
            asks_again = at >= stage.least
            rows += ["If number of piles is at least 2:"] if asks_again else []
            rows += [("  " if asks_again else "") + row for row in (line, *(f"  {_patter(words)}" for words in said))]
    return Send(
        " then ".join(str(stage.objects) for stage in stages),
        (f"Pack: {cards} cards, any order", "Place TARGET 2nd"),
        tuple(rows),
        ("Ends with: the top card of pile 1 is TARGET", "Ends with: number of piles is 1"),
    )


def _patter(words: str) -> str:
    return f"“{words.translate(dict.fromkeys(map(ord, '“”')))}”"


def tables(found: NarrowingAnswers) -> list[Table]:
    def path(node: Node) -> str:
        steps: list[str] = []
        while node.parent is not None:
            before = found.tree[node.parent]
            steps.append(f"{node.branch} {before.point} of {before.left}")
            node = before
        return " → ".join(reversed(steps)) or "begin"

    tree = Table(
        "tree",
        ("stage", "after", "left", "point to", "say", "share of runs"),
        tuple((n.stage, path(n), n.left, n.point or "", " ".join(n.says), n.share_text) for n in found.tree),
    )
    ranked = Table(
        "patterns",
        ("objects", "point to", "least", "most", "mean", "one meaning"),
        tuple(
            (p.objects, ", ".join(map(str, p.points)), p.least, p.most, p.mean, p.one_meaning)
            for stage in found.ranked
            for p in stage
        ),
    )
    return [tree, ranked]


def to_learn(asks: NarrowingAsks, found: NarrowingAnswers) -> Iterator[DrillQuestion]:
    """After every pointing what is said, by whether the wanted one is among those pointed to."""
    for at, node in enumerate(found.tree):
        branches = {one.branch: one.says[0] for one in found.tree if one.parent == at}
        # Of two targets either group may stay: then it is not this that decides.
        either = asks.targets > 1 and node.stage == len(asks.objects)
        if len(set(branches.values())) < 2 or either:
            continue
        for branch, says in branches.items():
            known = (
                f"{node.point} of {node.left} pointed to, the right one {'is' if branch == KEEP else 'is not'} among them"
                + (f", stage {node.stage}" if len(asks.objects) > 1 else "")
            )
            yield DrillQuestion(
                f"said {known}",
                known,
                "What do you say?",
                says,
                tuple(sorted(branches.values())),
                asks.keep if branch == KEEP else asks.go,
            )


NARROW = desk(
    Desk(
        "narrow",
        "Magician’s choice",
        "What to say after every pointing, and which pattern of pointing is the fairest.",
        NarrowingAsks,
        NarrowingAnswers,
        answer,
        tables,
        to_learn=to_learn,
    )
)
