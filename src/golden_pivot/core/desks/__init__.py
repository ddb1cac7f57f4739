"""The desks: six instruments for what a designer works out beside the bench.

Every desk is one declaration (see desk.py): what it asks, what it answers, its tables. The API, the command
line and the screens follow from it. `DESKS` has them by name, which is also the verb on the command line.
"""

from .desk import DESKS, Desk, Send, Table, Trouble

from . import spelling, pickup, stacks, mix_lab, narrowing, odds_desk  # isort: skip  # in this order they enter themselves in DESKS

__all__ = [
    "DESKS",
    "Desk",
    "Send",
    "Table",
    "Trouble",
    "mix_lab",
    "narrowing",
    "odds_desk",
    "pickup",
    "spelling",
    "stacks",
]
