"""Batches for workers that are watched, killed and cancelled."""

from __future__ import annotations

import os
import signal
import time
from pathlib import Path

from golden_pivot.core.budget import Budget
from golden_pivot.core.faults import BadRoutine, Cancelled, Fault, OutOfBudget


def whose(pause: float, piece: int, budget: Budget) -> tuple[int, int]:
    """(the piece, the process that did it)"""
    time.sleep(pause)
    return piece, os.getpid()


def together(folder: Path, piece: int, budget: Budget) -> tuple[int, int]:
    """Pieces other than 0 are not done before two processes have come to one."""
    if piece:
        (folder / str(os.getpid())).touch()
        while len(list(folder.iterdir())) < 2:
            time.sleep(0.01)
    return piece, os.getpid()


def mortal(folder: Path, piece: int, budget: Budget) -> tuple[int, int]:
    """The first process to come to piece 3 is killed there."""
    if piece == 3 and not (folder / "killed").exists():
        (folder / "killed").touch()
        os.kill(os.getpid(), signal.SIGKILL)
    return piece, os.getpid()


def deadly(here: int, piece: int, budget: Budget) -> int:
    """Any other process than this one is killed."""
    if os.getpid() != here:
        os.kill(os.getpid(), signal.SIGKILL)
    return piece


def endless(folder: Path, piece: int, budget: Budget) -> int:
    """Until it is cancelled, which it notes; piece 0 is done at once."""
    if piece == 0:
        return piece
    (folder / f"begun {piece}").touch()
    try:
        while True:
            budget.look(0, 0)
            time.sleep(0.01)
    except Cancelled:
        (folder / f"ended {piece}").touch()
        raise


FAULT = Fault(3, 1, 5, "It is so.", "something else", "Do otherwise.")


def troubled(_: None, piece: int, budget: Budget) -> int:
    """Each piece but the first is a trouble of its own."""
    if piece == 1:
        raise BadRoutine([FAULT])
    if piece == 2:
        raise OutOfBudget("states", "more than 3 at line 4")
    return piece
