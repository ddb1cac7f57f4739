"""Where the batches of a long search are worked off: here, one after the other, or wherever an executor takes them.

A search with much to try cuts it into pieces and asks the same pure question of each. Which executor answers changes
nothing: the pieces do not depend on it, none sees what another has found, and their answers come in their order.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Sequence
from itertools import islice
from typing import Any, Protocol, TypeVar

T = TypeVar("T")
Shared = TypeVar("Shared")
Piece = TypeVar("Piece")
Found = TypeVar("Found")
Batch = Callable[[Shared, Piece, Any], Found]
"""a function on the top level of a module: (what all pieces share, one piece, the Budget) → what it comes to"""


class Executor(Protocol):
    where: str
    """where the last search went on, in words; empty for the process that asks"""
    trouble: bool
    """it went on there for want of the workers that there should have been"""

    def run(
        self, batch: Batch[Shared, Piece, Found], shared: Shared, pieces: Iterable[Piece], budget: Any
    ) -> Iterator[Found]:
        """What each piece comes to, in the order of the pieces. Whoever stops asking ends the work.

        `budget`: the Budget of the search. Raises what the batch raises, and Cancelled when its flag is raised.
        """
        ...


class InProcess:
    """One after the other, in the process that asks."""

    where, trouble = "", False

    def run(
        self, batch: Batch[Shared, Piece, Found], shared: Shared, pieces: Iterable[Piece], budget: Any
    ) -> Iterator[Found]:
        for piece in pieces:
            yield batch(shared, piece, budget)


IN_PROCESS: Executor = InProcess()


def cut(things: Iterable[T], size: int) -> Iterator[Sequence[T]]:
    """So many in each piece, in their order."""
    left = iter(things)
    while piece := tuple(islice(left, size)):
        yield piece
