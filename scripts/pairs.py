"""Random routines with every kind of step in turn, each held against the reference; and which kinds have stood in one routine.

`pairs.py [N]`: N routines for each kind (20). Exits 1 where an answer disagrees.
"""

from __future__ import annotations

import os
import sys
from collections import Counter
from itertools import combinations
from unittest.mock import patch

from hypothesis import HealthCheck, Phase, given, settings
from hypothesis.errors import UnsatisfiedAssumption
from tests.core.test_three_ways import agree
from tests.strategies import routines

from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.steps import REGISTRY


def sweep(kind: str, many: int, pairs: Counter[frozenset[str]]) -> str | None:
    """The first routine on which an answer disagrees; pairs of kinds that stood in one routine are counted."""
    wrong: list[str] = []

    @settings(
        max_examples=many, deadline=None, database=None, phases=[Phase.generate], suppress_health_check=list(HealthCheck)
    )  # fmt: skip
    @given(routines())
    def held(text: str) -> None:
        try:
            agree(text)
        except UnsatisfiedAssumption:
            return
        except Exception as error:
            wrong.append(f"{error}\n{text}")
            return
        kinds = {line.kind.name for line in read_routine(text).walk() if line.kind}
        pairs.update(frozenset(pair) for pair in combinations(sorted(kinds), 2))

    with patch.dict(os.environ, {"FOCUS": kind}):
        held()
    return wrong[0] if wrong else None


def main(many: int) -> None:
    pairs: Counter[frozenset[str]] = Counter()
    wrong = 0
    for kind in sorted(REGISTRY):
        if told := sweep(kind, many, pairs):
            wrong += 1
            print(f"{kind}: {told}", flush=True)
    print(f"{'kind':22}{'stood with':>12}  of {len(REGISTRY) - 1} others")
    for kind in sorted(REGISTRY, key=lambda name: sum(name in pair for pair in pairs)):
        print(f"{kind:22}{sum(kind in pair for pair in pairs):12}")
    whole = len(REGISTRY) * (len(REGISTRY) - 1) // 2
    print(
        f"{len(pairs):,} of {whole:,} pairs, {sum(pairs.values()):,} in all; {wrong} kinds with an answer that disagrees"
    )
    sys.exit(1 if wrong else 0)


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 20)
