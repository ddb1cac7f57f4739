"""Reading what performers write as sentences of the language, and showing what was understood."""

from .pages import Page, Sentence, read_page
from .reader import Answer, Reading, read_line

__all__ = ["Answer", "Page", "Reading", "Sentence", "read_line", "read_page"]
