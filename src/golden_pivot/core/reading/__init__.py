"""Reading what performers write as sentences of the language, and showing what was understood."""

from .reader import Answer, Reading, read_line

__all__ = ["Answer", "Reading", "read_line"]
