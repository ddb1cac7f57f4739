"""The desks: six instruments for what a designer works out beside the bench.

Every desk is one declaration (see declare.py): what it asks, what it answers, its tables. The API, the command
line and the screens follow from it. `DESKS` has them by name, which is also the verb on the command line.
"""

from .declare import DESKS, Desk, Send, Table, Trouble

from . import spelling, pickup, stacks, mixes, narrowing, odds  # isort: skip  # in this order they enter themselves in DESKS

__all__ = ["DESKS", "Desk", "Send", "Table", "Trouble", "mixes", "narrowing", "odds", "pickup", "spelling", "stacks"]
