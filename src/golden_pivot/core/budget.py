"""How much an exploration may cost, and how to stop it."""

from __future__ import annotations

import resource
import time
from collections.abc import Callable
from dataclasses import dataclass, field, replace

from .faults import Cancelled, OutOfBudget

CHECK_EVERY = 1000
"""states between two looks at the clock, the memory and the cancel flag"""


@dataclass
class Budget:
    """Limits of one exploration; `None` for no limit. Used up as the exploration goes on."""

    states: int | None = 1_000_000
    """widest layer"""
    seconds: float | None = 60.0
    megabytes: int | None = 4096
    """peak memory of the whole process"""
    cancelled: Callable[[], bool] = lambda: False
    progress: Callable[[str], None] = lambda message: None
    started: float = field(default_factory=time.perf_counter)

    def narrowed(self, states: int) -> Budget:
        """The same clock and cancel flag, with room for fewer states."""
        return replace(self, states=min(states, self.states or states))

    def look(self, width: int, line: int) -> None:
        """Called every CHECK_EVERY states with the states of the layer so far. Raises OutOfBudget or Cancelled."""
        if self.cancelled():
            raise Cancelled
        self.progress(f"line {line}: {width:,} states")
        if self.states is not None and width > self.states:
            raise OutOfBudget("states", f"more than {self.states:,} different situations at line {line}")
        if self.seconds is not None and time.perf_counter() - self.started > self.seconds:
            raise OutOfBudget("seconds", f"{self.seconds:g} s had passed at line {line}, with {width:,} situations")
        peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss // 1024
        if self.megabytes is not None and peak > self.megabytes:
            raise OutOfBudget("memory", f"{peak:,} MB were in use at line {line}, with {width:,} situations")
