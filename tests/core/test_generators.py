"""The random routines draw every kind of step: what they never draw no comparison has ever tried."""

from __future__ import annotations

import os
from unittest.mock import patch

import pytest
from hypothesis import HealthCheck, Phase, given, settings

from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.steps import REGISTRY
from tests.strategies import routines

NOT_DRAWN = {
    "credit": "says nothing about cards",
}
"""kinds that no random routine has, each with the reason"""
TRIES = 100
"""routines in which a kind that is asked for comes up"""


class ThereItIs(Exception):
    pass


def is_drawn(kind: str) -> bool:
    """Whether it comes up in some routines that are to have it."""

    @settings(
        max_examples=TRIES, deadline=None, database=None, derandomize=True, phases=[Phase.generate],
        suppress_health_check=list(HealthCheck), report_multiple_bugs=False,
    )  # fmt: skip
    @given(routines())
    def draw(text: str) -> None:
        if any(line.kind and line.kind.name == kind for line in read_routine(text).walk()):
            raise ThereItIs

    with patch.dict(os.environ, {"FOCUS": kind}):
        try:
            draw()
        except ThereItIs:
            return True
    return False


@pytest.mark.parametrize("kind", sorted(REGISTRY))
def test_every_kind_is_drawn(kind: str) -> None:
    assert is_drawn(kind) != (kind in NOT_DRAWN), (
        f"{kind} is in no random routine: tests/strategies has no line for it"
    )
