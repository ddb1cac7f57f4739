"""Examples in docstrings and on the page for those who come from Python: they say what comes out, and it does."""

from __future__ import annotations

import doctest
import importlib
from pathlib import Path

import pytest

import golden_pivot

SOURCE = Path(golden_pivot.__file__).parent
WITH_EXAMPLES = sorted(
    ".".join(path.relative_to(SOURCE.parent).with_suffix("").parts).removesuffix(".__init__")
    for path in SOURCE.rglob("*.py")
    if ">>> " in path.read_text(encoding="utf-8")
)


@pytest.mark.parametrize("name", WITH_EXAMPLES)
def test_examples_of_a_module(name: str) -> None:
    found = doctest.testmod(importlib.import_module(name))
    assert found.attempted and not found.failed


def test_the_page_from_python() -> None:
    found = doctest.testfile(
        str(SOURCE.parents[1] / "docs" / "from_python.md"), module_relative=False, encoding="utf-8"
    )
    assert found.attempted > 10 and not found.failed
