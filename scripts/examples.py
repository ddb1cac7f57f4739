"""docs/examples.md: the language by worked examples, one for each principle, with the verdict the bench comes to."""

from __future__ import annotations

import inspect

from tests.principles import FAMILIES

from golden_pivot.core.answers.proving import prove
from golden_pivot.core.language.parser import read_routine

_HEAD = """# Worked examples, by principle

*Written by `make generated` from tests/principles, where each verdict is confirmed by a few lines of Python that know nothing of
the bench; do not edit it by hand.*
"""


def examples() -> str:
    """The page as Markdown."""
    parts = [_HEAD]
    for family in FAMILIES:
        parts.append(f"## {' '.join((inspect.getdoc(family) or '').split())}\n")
        for text, worked in family.PRINCIPLES:
            verdict = prove(read_routine(text))
            about = " ".join((inspect.getdoc(worked) or "").split())
            parts.append(f"### {worked.__name__.replace('_', ' ').capitalize()}\n\n{about}\n")
            parts.append("\n".join(f"    {row}" for row in text.splitlines()) + "\n")
            failing = f", {verdict.failing_paths:,} of them failing" if verdict.failing_paths else ""
            parts.append(
                f"*{verdict.headline}; {verdict.paths:,} {'path' if verdict.paths == 1 else 'paths'}{failing}.*\n"
            )
    return "\n".join(parts)
