"""The passes in their order."""

from __future__ import annotations

from collections.abc import Callable

from ..search.program import Program
from .check_hoisting import hoist_checks
from .group_folding import fold_groups
from .liveness import liveness
from .order_folding import fold_orders
from .reordering import reorder

Pass = Callable[[Program], Program]


def passes_for(reordered: bool, early_checks: bool) -> tuple[Pass, ...]:
    """Those that a program needs; liveness is always one, as it says what the search may forget."""
    return (
        *([reorder] if reordered else []),
        *([hoist_checks, fold_groups, fold_orders] if early_checks else []),
        liveness,
    )


def nothing(program: Program) -> None:
    """No check: what runs between passes outside of tests."""


after_each: Callable[[Program], None] = nothing
"""called with the program behind each pass; the tests put the validator here"""


def run(program: Program, passes: tuple[Pass, ...]) -> Program:
    after_each(program)
    for one in passes:
        program = one(program)
        after_each(program)
    return program
