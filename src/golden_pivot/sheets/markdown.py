"""A sheet as Markdown."""

from __future__ import annotations

import re
from collections.abc import Iterator

from .document import Beat, Cards, Document, Grid, Heading, Items, Paragraph

_UNSEEN = re.compile(r"[\x00-\x1f\x7f-\x9f\u2028\u2029\u200b-\u200f\u202a-\u202e\u2066-\u2069\ufeff]")
"""what steers a terminal or turns the direction of writing, and line breaks, which would end a row"""


def _safe(words: str) -> str:
    return re.sub(r"([\\`*_|<>#\[\]])", r"\\\1", _UNSEEN.sub(" ", words))


def markdown_of(document: Document) -> str:
    return "\n".join(_rows(document)) + "\n"


def _rows(document: Document) -> Iterator[str]:
    yield f"# {_safe(document.title)}: {document.subtitle}"
    yield ""
    if document.warning:
        yield f"> **{_safe(document.warning)}**"
        yield ""
    for part in document.parts:
        match part:
            case Heading(words):
                yield f"## {_safe(words)}"
            case Paragraph(words):
                yield _safe(words)
            case Items(rows, numbered):
                yield from (f"{f'{i}.' if numbered else '-'} {_safe(row)}" for i, row in enumerate(rows, start=1))
            case Grid(head, rows):
                yield from _table(head, rows)
            case Cards(rows):
                yield from _table(("from the top", "card"), tuple((str(at), name) for at, name in rows))
            case Beat():
                yield from _beat(part)
        yield ""


def _table(head: tuple[str, ...], rows: tuple[tuple[str, ...], ...]) -> Iterator[str]:
    yield f"| {' | '.join(map(_safe, head))} |"
    yield f"|{' --- |' * len(head)}"
    yield from (f"| {' | '.join(map(_safe, row))} |" for row in rows)


def _beat(beat: Beat) -> Iterator[str]:
    indent = "    " * beat.level
    who = "Spectator: " if beat.spectator and not beat.action.lower().startswith("spectator") else ""
    action = _safe(who + beat.action)
    yield f"{indent}{f'{beat.number}. ' if beat.number else '- '}{f'**{action}**' if beat.ending else action}"
    inner = indent + "   "
    yield from (f"{inner}“{_safe(says)}”" for says in beat.says)
    yield from (f"{inner}*{_safe(mark)}*" for mark in beat.marks)
    yield from (f"{inner}Watch: {_safe(one)}" for one in beat.watch)
    if beat.gap:
        yield (
            f"{inner}(say, for instance: {_safe(beat.suggested)})"
            if beat.suggested
            else f"{inner}(nothing is said here)"
        )
