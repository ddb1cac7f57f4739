"""The slow reference interpreter: lists of card objects, one path at a time.

It reads the JSON form of a routine and shares nothing else with the product, not even the evaluation of
expressions. Each meaning is written as a performer would carry it out, card by card.
"""

from .interpreter import MEANINGS
from .paths import NoPath, Path, each_path, every_path, judged_together, run
from .table import Card

__all__ = ["MEANINGS", "Card", "NoPath", "Path", "each_path", "every_path", "judged_together", "run"]
