"""The library of principles: each with a short routine that works, and what in it may be changed.

A file has the name, what it is about and whose it is, the parameters and the text. In the text `{2 * n}` stands for a number reckoned
from the parameters, `{n}th` for its ordinal.
"""

from __future__ import annotations

import re
import tomllib
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from pathlib import Path

from ..core.english import ordinal
from ..core.faults import PivotError
from ..core.language.expressions import LookedUp, Name, Reader, evaluator
from ..core.language.read_expression import read_expression
from ..core.language.words import words_of

_FOLDER = Path(__file__).parent
_RECKONED = re.compile(r"\{([^{}]+)\}(th)?")


class NoSuchPrinciple(PivotError):
    """No principle of the library has this name."""


@dataclass(frozen=True)
class Parameter:
    name: str
    says: str
    lowest: int
    highest: int
    at: int
    """as the routine is at first"""
    step: int = 1


@dataclass(frozen=True)
class Principle:
    name: str
    about: str
    source: str
    """whose it is, with the year of a publication, or *common practice*"""
    parameters: tuple[Parameter, ...]
    template: str

    @property
    def text(self) -> str:
        """The routine as it is at first."""
        return self.text_with({})

    def text_with(self, values: Mapping[str, int]) -> str:
        """The routine with these values; a value outside its range is brought into it, one that is missing is as at first."""
        settled = {}
        for one in self.parameters:
            settled[one.name] = max(one.lowest, min(one.highest, values.get(one.name, one.at)))

        def reckoned(found: re.Match[str]) -> str:
            number = _value(found[1], settled)
            return ordinal(number) if found[2] else str(number)

        return _RECKONED.sub(reckoned, self.template)


def _value(written: str, values: Mapping[str, int]) -> int:
    words = [word.text for word in words_of(written)]
    found = read_expression(words)
    if isinstance(found, int) or found[1] < len(words):
        raise ValueError(f"{written} is no number")

    def look_up(one: LookedUp) -> Reader:
        assert isinstance(one, Name)
        return lambda cells: values[one.name]

    return evaluator(found[0], look_up)(())


@cache
def principles() -> tuple[Principle, ...]:
    """In the order of their files."""
    return tuple(_read(tomllib.loads(file.read_text(encoding="utf-8"))) for file in sorted(_FOLDER.glob("*.toml")))


def principle(name: str) -> Principle:
    """Raises NoSuchPrinciple."""
    for one in principles():
        if one.name == name:
            return one
    raise NoSuchPrinciple(f"There is no principle called {name}")


def _read(written: Mapping[str, object]) -> Principle:
    parameters = written["parameters"]
    assert isinstance(parameters, dict)
    return Principle(
        str(written["name"]), str(written["about"]), str(written["source"]),
        tuple(
            Parameter(name, one["says"], one["from"], one["to"], one["at"], one.get("step", 1))
            for name, one in parameters.items()
        ),
        str(written["text"]),
    )  # fmt: skip
