"""The small picture of a card's ways, against the ways themselves."""

from __future__ import annotations

import re
from xml.etree import ElementTree

import pytest

from golden_pivot import demo
from golden_pivot.core.analysis import Analysis
from golden_pivot.core.budget import Budget
from golden_pivot.core.faults import BadRoutine
from golden_pivot.pictures import glimpse

HEAD = "Pack: 9 cards, any order\nPlace A 2nd\nPlace B 3rd\n"
CHOICE = "Spectator names a number n from 1 to 3\n"


def drawn(text: str) -> tuple[str, int, int]:
    """(the whole, how many crosses, how many rings)"""
    strands = Analysis(text, Budget()).strands
    assert strands
    svg = glimpse(strands)
    ElementTree.fromstring(svg)
    return svg, svg.count("l6 6m0"), svg.count("<circle") // 2


@pytest.mark.parametrize("name", demo.demo_names())
def test_every_routine_of_the_programme_is_drawn_within_its_frame(name: str) -> None:
    try:
        strands = Analysis(demo.demo_text(name), Budget()).strands
    except BadRoutine:
        return  # one of them is still being written
    if strands is None:
        return
    svg = glimpse(strands)
    ElementTree.fromstring(svg)
    points = re.findall(r"(-?[\d.]+) (-?[\d.]+)", " ".join(re.findall(r' d="(.*?)"', svg)))
    assert all(-6 <= float(x) <= 132 and -6 <= float(y) <= 52 for x, y in points)
    assert len(svg) < 30_000


@pytest.mark.parametrize(
    ("lines", "crosses", "rings"),
    [
        ("Deal 1 card from deck\nEnds with: the next card is A\n", 0, 1),
        ("Deal 1 card from deck\nEnds with: the next card is B\n", 1, 0),
        (CHOICE + "Deal n cards from deck\nEnds with: A is in deck\n", 2, 0),
        (CHOICE + "Deal n cards from deck\nDrop the rest on top\nEnds with: A is in deck\n", 0, 0),
        ("Deal 10 cards from deck\nEnds with: A is in deck\n", 1, 0),
        ("Ends with: the top card of deck is A\n", 0, 0),
    ],
)  # fmt: skip
def test_a_cross_where_it_fails_a_ring_where_every_way_meets(lines: str, crosses: int, rings: int) -> None:
    assert drawn(HEAD + lines)[1:] == (crosses, rings)


def test_ways_that_meet_are_gold_and_others_are_not() -> None:
    meet, apart = drawn(HEAD + "Deal 1 card from deck\n")[0], drawn(HEAD + CHOICE + "Deal n cards from deck\n")[0]
    assert "gold" in meet and "gold" not in apart
