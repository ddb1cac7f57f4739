"""What is said: the words of a line of patter, and the numbers that stand in it as {n}."""

from __future__ import annotations

import re
from collections.abc import Mapping

from .routine import Line

UNTRUE = "(untrue)"
"""ends a line that on purpose says what is not so"""

_FIELD = re.compile(r"\{([^{}]*)\}")


def spoken(line: Line) -> str:
    """The words of a line of patter, without the mark of a deliberate untruth."""
    words = str(line.values["text"])
    return words.removesuffix(UNTRUE).rstrip().rstrip('”“"»') if words.endswith(UNTRUE) else words


def fields_of(words: str) -> list[str]:
    """The names between braces, in order."""
    return _FIELD.findall(words)


def with_numbers(words: str, numbers: Mapping[str, int]) -> str:
    """The same words with those numbers filled in that are known: “{n}” becomes “12”, another field stays."""
    return _FIELD.sub(lambda field: str(numbers.get(field[1], field[0])), words)
