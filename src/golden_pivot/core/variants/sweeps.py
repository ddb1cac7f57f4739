"""Sweeps: the verdict for every number that might stand at one place of the routine, or at two."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import product
from math import prod

from ..answers.formulas import fit
from ..answers.proving import prove
from ..answers.verdicts import UNSETTLED, WHETHER, Verdict
from ..budget import Budget
from ..executor import cut
from ..faults import BadRoutine
from ..language.parser import lines_of, read_routine
from .fields import Field, NothingToFill, fields_of, filled, with_blanks

MOST_CELLS = 1500
AT_ONCE = 4
"""cases in a batch"""
UNREACHED = "No path comes to a claim."
IMPOSSIBLE = "impossible"
"""the routine cannot be carried out with this number"""


@dataclass(frozen=True)
class Swept:
    values: tuple[str, ...]
    verdict: str
    """as of any routine, or *impossible*"""
    landing: str | None
    position: int | None
    """where the card is, if it is at one place"""
    share: float | None
    """of the paths that fail, 0 to 1; None where some fail and paths have no number"""
    says: str = ""
    """on how many paths it holds, why it cannot be carried out, or what was not settled"""


@dataclass(frozen=True)
class Sweep:
    fields: tuple[Field, ...]
    rows: tuple[Swept, ...]
    """in the order of the values, the last blank running fastest"""
    formula: str | None
    """the position of the card in the numbers that were tried, where one fits them all"""


def with_blank(text: str, line: int, nth: int = 1) -> str:
    """The text with a `?` in place of the nth number of a line, both counted from 1. Raises NothingToFill."""
    rows = lines_of(text)
    found = list(re.finditer(r"(?<![\w.])\d+", rows[line - 1])) if 1 <= line <= len(rows) else []
    if not 1 <= nth <= len(found):
        raise NothingToFill(f"Line {line} has no number {nth} to be changed.")
    return with_blanks(text, [(line, found[nth - 1].start())])


def sweep(
    text: str,
    budget: Budget,
    domains: Mapping[int, Sequence[str]] | None = None,
    progress: Callable[[str], None] = lambda words: None,
) -> Sweep:
    """The verdict for every way to fill the one or two blanks. Raises NothingToFill, Cancelled."""
    fields = fields_of(read_routine(text), domains)
    if len(fields) > 2:
        raise NothingToFill("A sweep is over one number, or over two: leave the other blanks out.")
    many = prod(len(field.domain) for field in fields)
    if many > MOST_CELLS:
        raise NothingToFill(f"{many:,} cases are too many to list: narrow what is to be tried.")
    rows: list[Swept] = []
    cases = cut(product(*(field.domain for field in fields)), AT_ONCE)
    for swept in budget.executor.run(_some_cases, (text, tuple(fields)), cases, budget):
        rows += swept
        progress(f"{len(rows)} of {many} cases")
    if rows and all(row.verdict == IMPOSSIBLE and row.says != UNREACHED for row in rows):
        prove(read_routine(filled(text, fields, [field.domain[0] for field in fields])))  # it says what is wrong
    return Sweep(tuple(fields), tuple(rows), _formula(fields, rows))


def _some_cases(
    shared: tuple[str, tuple[Field, ...]], cases: Sequence[tuple[str, ...]], budget: Budget
) -> list[Swept]:
    text, fields = shared
    return [_swept(filled(text, fields, values), values, budget) for values in cases]


def _swept(text: str, values: tuple[str, ...], budget: Budget) -> Swept:
    try:
        found = prove(
            read_routine(text), budget.quiet().narrowed(200_000, 300_000), replace(WHETHER, some_claim=False)
        )
    except BadRoutine as bad:
        verdict, share = (UNSETTLED, 0.0) if bad.is_limit else (IMPOSSIBLE, 1.0)
        return Swept(values, verdict, None, None, share, bad.faults[0].message)
    if found.claims and all(claim.reached == 0 for claim in found.claims):
        return Swept(values, IMPOSSIBLE, None, None, 1.0, UNREACHED)
    where = found.landing.where if found.landing else ()
    return Swept(
        values, found.verdict, found.landing.text if found.landing else None,
        where[0].position if len(where) == 1 else None, found.count.share if found.count else 0.0,
        _told(found),
    )  # fmt: skip


def _told(found: Verdict) -> str:
    if found.count is None:
        return found.headline
    return (found.count.text if found.count.counted else "") or found.count.failure


def _formula(fields: Sequence[Field], rows: Sequence[Swept]) -> str | None:
    known = [([int(v) for v in row.values], row.position) for row in rows if row.position is not None]
    if len(known) < 3 or len({position for _, position in known}) < 2 or not all(field.is_number for field in fields):
        return None
    names = ["the number"] if len(fields) == 1 else ["the first", "the second"]
    return fit(names, [(values, position) for values, position in known if position is not None])
