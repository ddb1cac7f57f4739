"""Reading what performers write as sentences of the language, and showing what was understood."""

from .answer import Answer, Reading
from .pages import Page, Sentence, read_page
from .reader import read_line
from .sheets import ReadLine, ReadSheet, in_everyday_words, read_sheet
from .wordings import words_for

__all__ = [
    "Answer",
    "Page",
    "ReadLine",
    "ReadSheet",
    "Reading",
    "Sentence",
    "in_everyday_words",
    "read_line",
    "read_page",
    "read_sheet",
    "words_for",
]
