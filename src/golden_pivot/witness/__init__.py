"""A second mind: an interpreter of the routine’s JSON that carries out each line as a performer would, card by card.

It shares nothing with the prover, not even the evaluation of expressions, and imports nothing of ours. The tests hold the
prover against it; and behind every verdict it plays the routine once more (`opinion.py`), so that two ways of working a thing
out must agree before it is told.
"""

from .interpreter import MEANINGS
from .opinion import Opinion, second_opinion
from .paths import NoPath, Path, each_path, every_path, judged_together, run
from .table import Card

__all__ = [
    "MEANINGS",
    "Card",
    "NoPath",
    "Opinion",
    "Path",
    "each_path",
    "every_path",
    "judged_together",
    "run",
    "second_opinion",
]
