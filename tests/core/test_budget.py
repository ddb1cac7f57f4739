"""What a search is held to, and how often it looks."""

from __future__ import annotations

import time

import pytest

from golden_pivot.core.budget import Budget
from golden_pivot.core.faults import Cancelled, OutOfBudget


def test_the_system_is_asked_a_hundred_times_a_second_at_most(monkeypatch: pytest.MonkeyPatch) -> None:
    now, told, stopped = 100.0, [], False
    monkeypatch.setattr(time, "perf_counter", lambda: now)
    budget = Budget(states=50, seconds=1.5, progress=told.append, cancelled=lambda: stopped, started=now)
    for _ in range(1000):  # one a millisecond
        budget.look(1, 1)
        now += 0.001
    assert 80 <= len(told) <= 101
    with pytest.raises(OutOfBudget, match="50 different situations"):
        budget.look(51, 1)
    stopped = True
    with pytest.raises(Cancelled):
        budget.look(1, 1)
    stopped, now = False, now + 1
    with pytest.raises(OutOfBudget, match=r"1\.5 s had passed"):
        budget.look(1, 1)
