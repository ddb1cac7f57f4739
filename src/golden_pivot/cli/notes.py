"""Notes in everyday words: how they are read, sentence by sentence."""

from __future__ import annotations

from dataclasses import asdict

import typer

from ..core.reading import Page, Sentence, read_page
from .asked import BAD_INPUT, AsJson, DataFile, Named, answer, refuse, text_of

app = typer.Typer()


@app.command("read")
def read_notes(notes: Named, data: DataFile = None, as_json: AsJson = False) -> None:
    """Read notes in everyday words as a routine: what each sentence was taken for. Exits 2 where a question is open."""
    found = read_page(text_of(notes, data))
    answer(asdict(found), as_json, _rows(found))
    if found.questions:
        raise typer.Exit(BAD_INPUT)


def understood(text: str) -> tuple[str, tuple[str, ...]]:
    """(the routine that notes make, sentences that were not read); what was understood goes to standard error.

    Refuses where a question is open."""
    found = read_page(text)
    for row in _rows(found):
        typer.echo(row, err=True)
    if found.questions:
        raise refuse("Some sentences have more than one meaning: write the one that is meant.")
    return found.text, found.unread


def _rows(found: Page) -> list[str]:
    return [row for one in found.sentences for row in _told(one)]


def _told(one: Sentence) -> list[str]:
    if not one.said:
        return ["(not said)", *(f"  {line}" for line in one.lines)]
    if one.answer.asks:
        return [
            one.said,
            *(
                f"  {n}? {' / '.join(r.lines)}{f' ({r.does})' if r.does else ''}"
                for n, r in enumerate(one.answer.readings, start=1)
            ),
        ]
    if one.answer.cannot:
        return [one.said, f"  The language cannot say this: {one.answer.cannot}."]
    if not one.is_understood:
        return [one.said, "  Not understood; kept as a remark."]
    taken = one.answer.readings[0].taken if one.answer.readings else ()
    return [
        one.said,
        *(f"  {line}" for line in one.lines),
        *([f"  (taken for granted: {', '.join(taken)})"] if taken else []),
    ]
