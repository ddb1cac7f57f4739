"""A sheet as plain parts, before it becomes a screen, Markdown or a PDF."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal


@dataclass(frozen=True)
class Heading:
    words: str
    kind: Literal["heading"] = "heading"


@dataclass(frozen=True)
class Paragraph:
    words: str
    kind: Literal["paragraph"] = "paragraph"


@dataclass(frozen=True)
class Items:
    """A list; numbered where the order matters."""

    rows: tuple[str, ...]
    numbered: bool = False
    kind: Literal["items"] = "items"


@dataclass(frozen=True)
class Grid:
    head: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    kind: Literal["grid"] = "grid"


@dataclass(frozen=True)
class Cards:
    """Cards in order from the top: (position, name)."""

    rows: tuple[tuple[int, str], ...]
    kind: Literal["cards"] = "cards"


@dataclass(frozen=True)
class Beat:
    """One beat of a cue sheet. `marks` are short words at its side: ending, assumed, remember n …"""

    number: str
    level: int
    says: tuple[str, ...]
    action: str
    marks: tuple[str, ...]
    watch: tuple[str, ...]
    spectator: bool
    ending: bool
    gap: bool
    """something is done and nothing is said"""
    suggested: str
    """what may be said in the gap; empty where nothing need be said"""
    kind: Literal["beat"] = "beat"


Part = Heading | Paragraph | Items | Grid | Cards | Beat


@dataclass(frozen=True)
class Document:
    title: str
    subtitle: str
    warning: str | None
    """said on every page: why this must not be relied upon; None for nothing"""
    parts: tuple[Part, ...]

    def text(self) -> str:
        """All words of it, for whoever searches."""
        return "\n".join(_words(self))


def _words(document: Document) -> Iterator[str]:
    yield from filter(None, (document.title, document.subtitle, document.warning))
    for part in document.parts:
        match part:
            case Heading(words) | Paragraph(words):
                yield words
            case Items(rows):
                yield from rows
            case Grid(head, rows):
                yield from (" ".join(row) for row in (head, *rows))
            case Cards(rows):
                yield from (f"{position} {name}" for position, name in rows)
            case Beat():
                yield from (part.number, *part.says, part.suggested, part.action, *part.marks, *part.watch)
