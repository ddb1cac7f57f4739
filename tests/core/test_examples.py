"""Examples in docstrings and on the page for those who come from Python: they say what comes out, and it does."""

from __future__ import annotations

import doctest
import importlib
from pathlib import Path

import pytest

import golden_pivot
from golden_pivot.core.building import PROOF, compile_what_can_be
from golden_pivot.core.language.kinds import CHANCE, HANDLING, StepKind
from golden_pivot.core.language.parser import has_subject, read_routine
from golden_pivot.core.steps import REGISTRY

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


STAGE = """Pack: 52 cards, any order
Place FORCE 3rd
Place MARK 5th
Spectator thinks of a card in deck: SECRET
Spectator names a number z from 2 to 4
Deal 6 cards from deck to table
Deal 6 cards from deck to hand
Deal 4 cards from deck to packet
Deal deck into 3 piles
"""


def test_a_step_in_which_something_is_left_free_says_how_one_speaks_of_it() -> None:
    """Found by what it does: a choice that is not by chance, in the line that is the example of its kind."""
    silent, found = [], 0
    for kind in REGISTRY.values():
        if kind.phase != HANDLING or kind.opens_block:
            continue
        row = kind.example if kind.example.startswith("Spectator") or not has_subject(kind) else spectator_does(kind)
        text = f"{STAGE}{row}\n"
        program, _ = compile_what_can_be(read_routine(text), PROOF)
        line = next(line for line in read_routine(text).walk() if line.number == text.count("\n"))
        chosen = [one for one in program.choices() if one.line == line.number and one.by != CHANCE]
        if chosen and line.kind:
            found += 1
            silent += [kind.name] if kind.free(line.values) is None else []
    # The order of a heap is noted card by card: nobody chooses it.
    assert found > 14 and silent == ["note_order"]


def spectator_does(kind: StepKind) -> str:
    verb, _, rest = kind.example.partition(" ")
    return f"Spectator {verb[:1].lower()}{verb[1:]}{'es' if verb.endswith(('x', 'sh', 'ch')) else 's'} {rest}"
