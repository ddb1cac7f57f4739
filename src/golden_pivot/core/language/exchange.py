"""A text as a document that other programs can read, and back to the very same text."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from .parser import read_routine
from .printer import routine_json, text_from_json

AS_WRITTEN = "as_written"


def document_of(text: str) -> dict[str, Any]:
    """The JSON form; where the language would write it otherwise, with the text as it was written."""
    document = routine_json(read_routine(text))
    return document if text_from_json(document) == text else {**document, AS_WRITTEN: text}


def text_of(document: Mapping[str, Any]) -> str:
    """The text as it was written, as long as it still says what the lines say. Raises NotARoutine."""
    printed = text_from_json(document)
    written = document.get(AS_WRITTEN)
    if isinstance(written, str) and routine_json(read_routine(written))["lines"] == document["lines"]:
        return written
    return printed
