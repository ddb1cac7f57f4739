"""Narrowing, against values worked out by hand, by plain simulation, or published."""

from __future__ import annotations

from fractions import Fraction
from itertools import combinations

import pytest

from golden_pivot.core.budget import Budget
from golden_pivot.core.desks import narrowing
from tests.core.desks import verdict


def test_seven_and_then_three() -> None:
    found = narrowing.answer(narrowing.NarrowingAsks(objects=[7, 3], patterns=["4, 2, 1", "2, 1"]), Budget())
    left = [(node.stage, node.left, node.point) for node in found.tree]
    # 7: keep four or go on with three; each then on to one. 3: two, or the one not pointed at.
    assert left == [
        (1, 7, 4), (1, 3, 2), (1, 1, None), (1, 2, 1), (1, 1, None), (1, 1, None),
        (1, 4, 2), (1, 2, 1), (1, 1, None), (1, 1, None), (1, 2, 1), (1, 1, None), (1, 1, None),
        (2, 3, 2), (2, 1, None), (2, 2, 1), (2, 1, None), (2, 1, None),
    ]  # fmt: skip
    assert all(node.says for node in found.tree)
    # By hand: 4/7 · 3 + 3/7 · (2/3 · 3 + 1/3 · 2) = 20/7 questions, then 2/3 · 2 + 1/3 = 5/3.
    whole = found.whole
    assert (whole.least, whole.most, whole.mean) == (3, 5, str(Fraction(20, 7) + Fraction(5, 3)))
    assert verdict(found.send) == "proved"


@pytest.mark.parametrize(
    ("objects", "points", "targets"), [(7, (4, 2, 1), 1), (5, (2, 1, 1), 2), (9, (4, 2, 1, 1), 1), (6, (3, 1, 1), 2)]
)
def test_a_pattern_against_every_pointing(objects: int, points: tuple[int, ...], targets: int) -> None:
    """Every way to point, one by one, for one place of the targets: shares are as often as they come."""
    runs: list[tuple[int, str, Fraction]] = []

    def go(left: tuple[int, ...], wanted: frozenset[int], step: int, said: str, share: Fraction) -> None:
        if len(left) == 1:
            runs.append((step, said, share))
            assert set(left) <= wanted
            return
        every = list(combinations(left, points[step]))
        for pointed in every:
            keeps = bool(wanted & set(pointed))
            rest = pointed if keeps else tuple(one for one in left if one not in pointed)
            go(rest, wanted & set(rest), step + 1, said + ("K" if keeps else "G"), share / len(every))

    go(tuple(range(objects)), frozenset(range(targets)), 0, "", Fraction(1))
    pattern = narrowing.judged(objects, points, targets)
    assert pattern and (pattern.least, pattern.most) == (min(r[0] for r in runs), max(r[0] for r in runs))
    assert pattern.mean == str(sum(many * share for many, _, share in runs))
    assert pattern.one_meaning == str(sum(share for _, said, share in runs if len(set(said)) == 1))


def test_the_fairest_patterns_come_first() -> None:
    found = narrowing.patterns_for(7, 1)
    key = [(-p.one_meaning_share, p.mean_number, p.most) for p in found]
    assert key == sorted(key) and len({p.points for p in found}) == len(found) > 5
    for n in range(2, 13):
        assert narrowing.patterns_for(n, 1), "there is a pattern for every number"
