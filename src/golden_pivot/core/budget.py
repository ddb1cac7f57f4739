"""How much an exploration may cost, how to stop it, and where it may be worked off."""

from __future__ import annotations

import os
import time
from collections.abc import Callable
from dataclasses import dataclass, field, replace
from pathlib import Path

from .executor import IN_PROCESS, Executor
from .faults import Cancelled, OutOfBudget

CHECK_EVERY = 1000
"""states between two looks at the clock, the memory and the cancel flag"""
APART = 0.01
"""seconds between two looks at the memory, and between two words on how far it is: these take longer than a few states"""

_STATM = Path("/proc/self/statm")
_PAGE = os.sysconf("SC_PAGE_SIZE")


def _resident() -> int:
    """Megabytes of memory this process holds; 0 where the system does not say."""
    try:
        with _STATM.open("rb", buffering=0) as statm:
            return int(statm.read().split()[1]) * _PAGE >> 20
    except OSError:
        return 0


@dataclass
class Budget:
    """Limits of one exploration; `None` for no limit. Used up as the exploration goes on."""

    states: int | None = 1_000_000
    """widest layer"""
    transitions: int | None = None
    seconds: float | None = 60.0
    megabytes: int | None = 3072
    """memory taken up since the exploration began"""
    cancelled: Callable[[], bool] = lambda: False
    progress: Callable[[str], None] = lambda message: None
    beyond: tuple[int, Callable[[], None]] | None = None
    """a number of transitions, and what is called once when more than these have been taken"""
    executor: Executor = IN_PROCESS
    """who works off the batches of a long search"""
    looked: float = -1.0
    """when the memory was last looked at"""
    started: float = field(default_factory=time.perf_counter)
    held_before: int = field(default_factory=_resident)

    def narrowed(self, states: int, transitions: int | None = None) -> Budget:
        """The same clock and cancel flag, with room for fewer states, and perhaps for fewer transitions."""
        fewest = min((one for one in (transitions, self.transitions) if one is not None), default=None)
        return replace(self, states=min(states, states if self.states is None else self.states), transitions=fewest)

    def quiet(self) -> Budget:
        """The same limits; how far a single proof is, is not told, as there are many."""
        return replace(self, progress=lambda words: None)

    def is_over(self) -> bool:
        """The time is up."""
        return self.seconds is not None and time.perf_counter() - self.started > self.seconds

    def afresh(self) -> Budget:
        """The same limits, with the clock begun anew: for one of several questions that must not use up each other's time."""
        return replace(self, started=time.perf_counter(), held_before=_resident())

    @property
    def seconds_left(self) -> float | None:
        return None if self.seconds is None else self.seconds - (time.perf_counter() - self.started)

    def count(self, transitions: int, line: int) -> None:
        """Called now and then with the transitions so far. Raises OutOfBudget, and what is raised by what is called `beyond`."""
        if self.transitions is not None and transitions > self.transitions:
            raise OutOfBudget("transitions", f"more than {self.transitions:,} steps had been taken at line {line}")
        if self.beyond and transitions > self.beyond[0]:
            call, self.beyond = self.beyond[1], None
            call()

    def look(self, width: int, line: int) -> None:
        """Called every CHECK_EVERY states with the states of the layer so far. Raises OutOfBudget or Cancelled.

        Line 0 is for what is no line of a routine: a desk tells how far it is in its own words.
        """
        if self.cancelled():
            raise Cancelled
        if self.states is not None and width > self.states:
            raise OutOfBudget("states", f"more than {self.states:,} different situations at line {line}")
        now = time.perf_counter()
        if self.looked < now < self.looked + APART:
            return
        self.looked = now
        if line:
            self.progress(f"line {line}: {width:,} states")
        if self.is_over():
            raise OutOfBudget("seconds", f"{self.seconds:g} s had passed at line {line}, with {width:,} situations")
        taken = _resident() - self.held_before
        if self.megabytes is not None and taken > self.megabytes:
            raise OutOfBudget("memory", f"{taken:,} MB were in use at line {line}, with {width:,} situations")
