"""Kinds of self-working routine, each with a short working one to begin with."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

_FOLDER = Path(__file__).parent


@dataclass(frozen=True)
class Family:
    name: str
    about: str
    text: str


def families() -> list[Family]:
    """In the order of the list in families.txt: file name, name, and what it is about."""
    rows = (_FOLDER / "families.txt").read_text(encoding="utf-8").splitlines()
    found = []
    for row in filter(None, rows):
        file, name, about = (part.strip() for part in row.split("|"))
        found.append(Family(name, about, (_FOLDER / f"{file}.pivot").read_text(encoding="utf-8")))
    return found
