"""Where the batches of a long search are worked off: here, one after the other, or wherever an executor takes them.

A search with much to try cuts it into pieces and asks the same pure question of each. Which executor answers changes
nothing: the pieces do not depend on it, none sees what another has found, and their answers come in their order.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Sequence
from itertools import islice
from typing import TYPE_CHECKING, Any, Protocol, TypeVar

if TYPE_CHECKING:
    from .budget import Budget

T = TypeVar("T")
Shared = TypeVar("Shared", contravariant=True)
Piece = TypeVar("Piece", contravariant=True)
Found = TypeVar("Found", covariant=True)


class Batch(Protocol[Shared, Piece, Found]):
    """A function on the top level of a module: what one piece comes to, given what all pieces share."""

    def __call__(self, shared: Shared, piece: Piece, budget: Budget, /) -> Found: ...


class Executor(Protocol):
    def run(
        self, batch: Batch[Shared, Piece, Found], shared: Shared, pieces: Iterable[Piece], budget: Budget
    ) -> Iterator[Found]:
        """What each piece comes to, in the order of the pieces. Whoever stops asking ends the work.

        Raises what the batch raises, and Cancelled when the budget's flag is raised.
        """
        ...


class InProcess:
    """One after the other, in the process that asks."""

    def run(
        self, batch: Callable[[Any, Any, Budget], Any], shared: Any, pieces: Iterable[Any], budget: Budget
    ) -> Iterator[Any]:
        for piece in pieces:
            yield batch(shared, piece, budget)


IN_PROCESS: Executor = InProcess()


def cut(things: Iterable[T], size: int) -> Iterator[Sequence[T]]:
    """So many in each piece, in their order."""
    left = iter(things)
    while piece := tuple(islice(left, size)):
        yield piece
