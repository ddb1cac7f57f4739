"""Golden Pivot: a bench for self-working card routines.

>>> import golden_pivot as gp
>>> gp.prove("Pack: 9 cards\\nPlace A 2nd\\nDeal 3 cards from deck").headline
'Sure: A is 2nd in dealt, every time'
"""

from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from .core.budget import Budget
    from .core.door import Read, prove, read, solve
    from .core.faults import BadRoutine

__version__ = "0.1.0"
__all__ = ["BadRoutine", "Budget", "Read", "prove", "read", "solve"]

_ROOMS = {"Budget": "budget", "BadRoutine": "faults"}


def __getattr__(name: str) -> Any:
    """The core is loaded when it is first asked for: the command line need not wait for all of it."""
    if name not in __all__:
        raise AttributeError(f"module {__name__!r} has no attribute {name!r}")
    from importlib import import_module

    return getattr(import_module(f".core.{_ROOMS.get(name, 'door')}", __name__), name)
