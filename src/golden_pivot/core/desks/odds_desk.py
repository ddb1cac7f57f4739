"""The odds desk: how often a routine comes out as what, for stated habits of choosing; and which limit is safe.

A **habit** says how a number is chosen, in the options that a line leaves open. What is outside the line's own range
breaks its limit: the odds of the routine are those of the runs that keep to it.
"""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from math import comb

from ..answers.odds import Chance, odds_of_program
from ..answers.proving import prove
from ..answers.questions import questions_of
from ..answers.report import chance_text
from ..answers.verdicts import WHETHER
from ..budget import Budget
from ..building import ODDS, compile_routine
from ..faults import BadRoutine
from ..language.expressions import Number
from ..language.kinds import CHANCE, ENDING
from ..language.parser import lines_of, read_routine
from ..language.routine import Line, Routine
from ..language.values import NewNumber
from ..search.program import Choose, Program
from ..variants.edits import Edit, edited, with_range
from .desk import Desk, Table, Trouble, asked, desk, within

EXAMPLE = """\
Title: Halfway Buoy
Note: two endings, and the cut decides which
Pack: 40 cards, any order
Place BUOY 18th
Spectator cuts off n cards of deck, n from 15 to 25, to hand
If n is at least 18:
  Ends with: the 18th card of hand is BUOY
Otherwise:
  Ends with: the card at position 18 - n of deck is BUOY
"""
MOST_RECORDS, MOST_REACH = 2000, 1000
MOST_PROVED = 200_000
"""steps to prove the routine with a safe range"""

EVENLY, MIDDLE, RECORDED = "evenly", "about the middle", "as recorded"
HABITS = {
    EVENLY: "every number equally often",
    MIDDLE: "as heads fall when one coin is tossed for each card (the cut of Gilbert, Shannon and Reeds)",
    RECORDED: "as in your own records",
}


@dataclass(frozen=True)
class OddsAsks:
    routine: str = asked(EXAMPLE, "routine: its text")
    habits: list[str] = asked(
        ["n: about the middle from 0 to 40"],
        "habits: one a number, as in “n: evenly from 0 to 39”, “n: about the middle from 0 to 40”, “n: as recorded 18, 20, 21”",
    )
    rest: str = asked(EVENLY, "the other choices: evenly, or open, which gives a least and a most")
    numbers: list[str] = asked([], "numbers: whose odds are asked for besides the endings, such as size of hand")
    sure: int = asked(99, "how many times in 100 a limit shall be kept")
    steps: int = asked(20_000, "steps for exact chances: before paths are drawn at random")
    samples: int = asked(500, "paths drawn: at random where exact chances take too long")
    seed: int = asked(1, "seed of the paths drawn")


@dataclass(frozen=True)
class ChoiceOut:
    """A number that someone chooses in the routine."""

    name: str
    line: int
    low: int | None
    high: int | None
    habit: str | None
    """as it is taken; None: like the rest"""


@dataclass(frozen=True)
class Outcome:
    outcome: str
    least: float
    most: float
    seen: float | None
    """share of the paths drawn; None where the chances are exact"""
    text: str
    line: int | None
    """of an ending"""


@dataclass(frozen=True)
class Distribution:
    about: str
    outcomes: tuple[Outcome, ...]
    mean: str | None
    """of a number, where its chances are exact"""


@dataclass(frozen=True)
class Prepared:
    """An ending to prepare: the likeliest first, and how often it or one before it comes."""

    words: str
    line: int | None
    text: str
    so_far: str


@dataclass(frozen=True)
class LimitOut:
    """How a line's range holds against a habit."""

    name: str
    line: int
    low: int
    high: int
    broken: float
    broken_text: str
    """chance that the number is outside"""
    safe_low: int
    safe_high: int
    safe_text: str
    """how often the safe range is kept"""
    text: str
    """the routine with the safe range in that line"""
    works: str
    """what a proof says of it; a range may be kept and of no use"""


@dataclass(frozen=True)
class OddsAnswers:
    choices: tuple[ChoiceOut, ...]
    distributions: tuple[Distribution, ...]
    outs: tuple[Prepared, ...]
    limits: tuple[LimitOut, ...]
    samples: int | None
    """paths drawn at random; None: exact"""
    says: str
    """how sure the numbers are"""
    assumes: tuple[str, ...]


Weights = Mapping[int, int]
_HABIT = re.compile(
    r"(?P<name>[^:]+):\s*(?:(?P<kind>evenly|about the middle)\s+from\s+(?P<low>[0-9]{1,7})\s+to\s+(?P<high>[0-9]{1,7})|as recorded\s+(?P<seen>[0-9]{1,7}(?:[,;\s]+[0-9]{1,7})*[,;\s]*))"
)


def read_habit(text: str) -> tuple[str, str, Weights]:
    """(name of the number, the habit in words, number → how heavy it weighs). Raises Trouble."""
    found = _HABIT.fullmatch(" ".join(text.split()))
    if not found:
        raise Trouble("habits", f"“{text[:60]}” is no habit of choosing.",
                      "Write “n: evenly from 0 to 39”, “n: about the middle from 0 to 40”, or “n: as recorded 18, 20, 21”.")  # fmt: skip
    name = found["name"].strip()
    if found["seen"]:
        seen = [int(number) for number in re.findall("[0-9]+", found["seen"])]
        if len(seen) > MOST_RECORDS:
            raise Trouble("habits", f"{len(seen):,} records are too many.", f"Keep the last {MOST_RECORDS:,}.")
        return name, f"{name} {HABITS[RECORDED]}: {len(seen)} of them", dict(sorted(Counter(seen).items()))
    low, high = int(found["low"]), int(found["high"])
    if not low <= high <= low + MOST_REACH:
        raise Trouble(
            "habits",
            f"From {low:,} to {high:,} is no range to choose in.",
            f"Take at most {MOST_REACH:,} numbers, the lower first.",
        )
    if found["kind"] == MIDDLE:
        return (
            name,
            f"{name} {HABITS[MIDDLE]}, {low} to {high}",
            {n: comb(high - low, n - low) for n in range(low, high + 1)},
        )
    return name, f"{name} from {low} to {high}, {HABITS[EVENLY]}", dict.fromkeys(range(low, high + 1), 1)


def answer(asks: OddsAsks, budget: Budget) -> OddsAnswers:
    within(asks, sure=(50, 100), steps=(0, 10**9), samples=(50, 100_000), seed=(0, 10**6))
    if asks.rest not in (EVENLY, "open"):
        raise Trouble("rest", f"“{asks.rest}” is no habit.", "Take evenly or open.")
    text = asks.routine.rstrip("\n") + "\n"
    rows = _with_questions(text, [number.strip() for number in asks.numbers if number.strip()])
    routine = read_routine("\n".join(row for _, row in rows) + "\n")
    try:
        program = compile_routine(routine, ODDS)
    except BadRoutine as bad:
        fault = bad.faults[0]
        line = rows[fault.line - 1][0] if fault.line <= len(rows) else fault.line
        where, place = ("routine", f"Line {line}: ") if line else ("numbers", "")
        raise Trouble(where, f"{place}{fault.message}", fault.remedy or f"Expected {fault.expected}.") from None
    habits = {name: (words, weights) for name, words, weights in map(read_habit, filter(str.strip, asks.habits))}
    named = {choose.label for choose in program.choices()}
    if unknown := next((name for name in habits if name not in named), None):
        raise Trouble(
            "habits",
            f"Nobody chooses a number {unknown} in this routine.",
            f"There are: {', '.join(sorted(named)) or 'none'}.",
        )
    weighed = _weighed(program, {name: weights for name, (_, weights) in habits.items()}, asks.rest == EVENLY)
    found = odds_of_program(weighed, replace(budget, transitions=asks.steps), asks.seed, asks.samples)
    endings = {number: (line, row.strip()) for number, (line, row) in enumerate(rows, start=1)}
    distributions = tuple(_distributions(found.chances, endings))
    open_ = any(choose.by != CHANCE for choose in weighed.choices()) and asks.rest == EVENLY
    return OddsAnswers(
        tuple(_choices(text, habits)),
        distributions,
        tuple(_outs(distributions)),
        tuple(_limits(text, read_routine(text), {name: weights for name, (_, weights) in habits.items()}, asks.sure)),
        found.samples,
        found.says,
        (*(words for words, _ in habits.values()), *(("every other choice equally often",) if open_ else ())),
    )


def _with_questions(text: str, numbers: Sequence[str]) -> list[tuple[int, str]]:
    """(number of the line or 0, row) with a line for the odds of each number before every ending, or at the end."""
    rows = list(enumerate(lines_of(text), start=1))
    asked_for = [f"Odds of {number}" for number in numbers]
    at = sorted(_first_endings(read_routine(text).lines), reverse=True) or [len(rows) + 1]
    for line in at if asked_for else ():
        indent = re.match(r"\s*", rows[line - 1][1])[0] if line <= len(rows) else ""  # type: ignore[index]
        rows[line - 1 : line - 1] = [(0, indent + row) for row in asked_for]
    return rows


def _first_endings(lines: Sequence[Line]) -> Iterator[int]:
    """Of each block that has endings of its own, the number of the first."""
    own = [line.number for line in lines if line.kind and line.kind.phase == ENDING]
    yield from own[:1]
    for line in lines:
        yield from _first_endings(line.body)


def _weighed(program: Program, habits: Mapping[str, Weights], rest_evenly: bool) -> Program:
    """The program in which these choices are made by chance, and by habit."""

    def by_habit(choose: Choose, weights: Weights) -> Choose:
        def options(cells: Sequence[object]) -> list[int]:
            left = [option for option in choose.options(cells) if weights.get(option)]
            if not left:
                raise Trouble(
                    "habits",
                    f"With this habit {choose.label} is never a number that can be chosen.",
                    "Take another range, or more records.",
                )
            return left

        return replace(choose, by=CHANCE, options=options, odds=lambda cells, option: weights[option])

    steps = tuple(
        by_habit(step, habits[step.label]) if isinstance(step, Choose) and step.label in habits else step
        for step in program.instructions
    )
    return replace(program, instructions=steps, equally_likely=program.equally_likely or rest_evenly)


def _ranges(routine: Routine) -> Iterator[tuple[Line, str, NewNumber, int, int]]:
    """Lines with a new number whose range is written in figures."""
    for line in routine.walk():
        for slot, type_name, _, _ in line.spans:
            new = line.values[slot]
            if (
                type_name == "range"
                and isinstance(new, NewNumber)
                and isinstance(new.low, Number)
                and isinstance(new.high, Number)
            ):
                yield line, slot, new, new.low.value, new.high.value


def _choices(text: str, habits: Mapping[str, tuple[str, Weights]]) -> Iterator[ChoiceOut]:
    for one in questions_of(text):
        yield ChoiceOut(one.name, one.line, one.low, one.high, habits[one.name][0] if one.name in habits else None)


def _distributions(chances: Sequence[Chance], endings: Mapping[int, tuple[int, str]]) -> Iterator[Distribution]:
    about: dict[str, list[Chance]] = {}
    for chance in chances:
        about.setdefault(chance.about, []).append(chance)
    for name, those in about.items():
        outcomes = []
        for chance in those:
            line, words = None, chance.outcome
            if words.startswith("line "):
                line, row = endings[int(words.split()[1])]
                words = f"line {line}: {row.removeprefix('Ends with: ')}"
            seen = None if chance.seen is None else float(chance.seen)
            outcomes.append(Outcome(words, float(chance.least), float(chance.most), seen, chance_text(chance), line))
        outcomes.sort(key=lambda outcome: outcome.line or 0)
        is_exact = all(chance.exact and chance.least == chance.most for chance in those)
        numbers = all(re.fullmatch(r"-?\d+", chance.outcome) for chance in those)
        mean = sum((int(c.outcome) * c.least for c in those), Fraction(0)) if is_exact and numbers else None
        yield Distribution(name, tuple(outcomes), None if mean is None else f"{float(mean):.4g}")


def _outs(distributions: Sequence[Distribution]) -> Iterator[Prepared]:
    """Endings in the order of how often they come, at most."""
    for found in distributions:
        if found.about == "ending":
            so_far = 0.0
            for one in sorted(found.outcomes, key=lambda outcome: -outcome.most):
                so_far += (one.least + one.most) / 2 if one.seen is None else one.seen
                yield Prepared(one.outcome, one.line, one.text, f"{min(1.0, so_far):.1%}")


def _limits(text: str, routine: Routine, habits: Mapping[str, Weights], sure: int) -> Iterator[LimitOut]:
    for line, slot, new, low, high in _ranges(routine):
        if weights := habits.get(new.name):
            total = sum(weights.values())
            outside = Fraction(sum(many for n, many in weights.items() if not low <= n <= high), total)
            safe_low, safe_high = safe_range(weights, Fraction(sure, 100))
            kept = Fraction(sum(many for n, many in weights.items() if safe_low <= n <= safe_high), total)
            row = with_range(line, slot, new, (safe_low, safe_high))
            safe = edited(text, Edit(line.number, line.number, (row,)))
            yield LimitOut(
                new.name, line.number, low, high, float(outside), f"{float(outside):.2%}", safe_low, safe_high,
                f"{float(kept):.2%}", safe, _proved(safe),
            )  # fmt: skip


def _proved(text: str) -> str:
    try:
        found = prove(read_routine(text), Budget(transitions=MOST_PROVED, seconds=None), WHETHER)
    except BadRoutine as bad:
        return f"It cannot be carried out: {bad.faults[0].message}"
    return found.count.failure if found.count and found.count.some_fail else f"{found.headline}."


def safe_range(weights: Weights, share: Fraction) -> tuple[int, int]:
    """The shortest range that holds at least this share of all; of several the likeliest, then the lowest.

    >>> safe_range({10: 1, 11: 8, 12: 1}, Fraction(8, 10))
    (11, 11)
    """
    numbers = sorted(n for n, many in weights.items() if many)
    total = sum(weights.values())
    best: tuple[int, int, int, int] | None = None
    last, held = -1, 0
    for i, first in enumerate(numbers):
        while last + 1 < len(numbers) and held < share * total:
            last += 1
            held += weights[numbers[last]]
        if held >= share * total:
            here = (numbers[last] - first, -held, first, numbers[last])
            best = min(best, here) if best else here
        held -= weights[numbers[i]]
    assert best
    return best[2], best[3]


def _rounded(share: float) -> float:
    return round(share, 6)


def tables(found: OddsAnswers) -> list[Table]:
    drawn = found.samples is not None
    shown = [
        Table(
            f"odds of {one.about}",
            ("outcome", *(("seen", "interval from", "to") if drawn else ("least", "most")), "in words"),
            tuple(
                (
                    o.outcome,
                    *((_rounded(o.seen or 0.0),) if drawn else ()),
                    _rounded(o.least),
                    _rounded(o.most),
                    o.text,
                )
                for o in one.outcomes
            ),
        )
        for one in found.distributions
    ]
    shown.append(Table("how sure", ("these numbers are",), ((found.says,),)))
    if found.outs:
        shown.append(
            Table(
                "outs",
                ("ending", "how often", "with those before"),
                tuple((o.words, o.text, o.so_far) for o in found.outs),
            )
        )
    if found.limits:
        shown.append(Table(
            "limits", ("number", "line", "from", "to", "broken", "safe from", "safe to", "kept", "and then"),
            tuple((one.name, one.line, one.low, one.high, one.broken_text, one.safe_low, one.safe_high, one.safe_text, one.works)
                  for one in found.limits),
        ))  # fmt: skip
    return shown


ODDS_DESK = desk(
    Desk(
        "odds",
        "Odds",
        "How often a routine comes out as what, for stated habits of choosing, and which limit is safe.",
        OddsAsks,
        OddsAnswers,
        answer,
        tables,
        is_long=True,
        at_leisure={"steps": 20_000_000, "samples": 4000, "habits": [], "rest": "open"},
    )
)
