"""All the ways of a card at a glance, without a word: how many there are, and whether they meet."""

from __future__ import annotations

from itertools import pairwise

from ..core.answers.strands import Strands, Where
from .drawing import Drawing

WIDTH, HEIGHT = 132, 52
MARGIN, GAP, STEP = 7, 5, 2
"""around it; between two places; ways that run closer together than this are drawn as one"""


def glimpse(strands: Strands) -> str:
    """Steps across, positions down, a band for each place; gold where every way meets, a cross where one fails."""
    d = Drawing(f"All the ways {strands.card} can go")
    heights = _heights(strands)
    columns = strands.columns
    across = [MARGIN + (WIDTH - 3 * MARGIN) * i / max(1, len(columns)) for i in range(len(columns) + 1)]
    for column, (x1, x2) in zip(columns, pairwise(across), strict=True):
        sure = len({edge.to for edge in column.edges}) == 1 and not any(edge.can_fail for edge in column.edges)
        drawn: dict[tuple[float, float, bool], bool] = {}
        for edge in column.edges:
            key = (heights[edge.source], heights[edge.to or edge.source], edge.to is None)
            drawn[key] = drawn.get(key, False) or edge.can_succeed
        for (y1, y2, is_stuck), succeeds in drawn.items():
            end = x1 + (x2 - x1) * 0.4 if is_stuck else x2
            middle = (x1 + end) / 2
            colour = "red" if not succeeds else "gold" if sure else "slate"
            d.path(
                f"M{x1:.1f} {y1:g}C{middle:.1f} {y1:g} {middle:.1f} {y2:g} {end:.1f} {y2:g}",
                colour,
                1.6 if sure else 0.9,
            )
            if is_stuck or (not succeeds and column is columns[-1]):
                d.path(f"M{end - 3:.1f} {y2 - 3:g}l6 6m0 -6l-6 6", "red", 1.4)
    # Of a card that never moves it is not known here whether it ends well.
    last = columns[-1].edges if columns else ()
    ends = {edge.to for edge in last}
    if len(ends) == 1 and not any(edge.can_fail for edge in last) and (at := ends.pop()):
        d.ring(across[-1], heights[at], 4.5, "gold")
    return d.svg(WIDTH, HEIGHT, ground=None)


def _heights(strands: Strands) -> dict[Where, float]:
    """Where each position is drawn, places below each other in the order in which the card comes there."""
    spots = [*strands.beginning.where]
    for column in strands.columns:
        spots += [spot for edge in column.edges for spot in (edge.source, edge.to) if spot]
    deepest: dict[str, int] = {}
    for place, position in spots:
        deepest[place] = max(position, deepest.get(place, 1))
    room = HEIGHT - 2 * MARGIN - GAP * (len(deepest) - 1)
    total, top = sum(deepest.values()), float(MARGIN)
    found: dict[Where, float] = {}
    for place, size in deepest.items():
        share = room * size / total
        for spot in spots:
            if spot[0] == place:
                found[spot] = STEP * round((top + share * (spot[1] - 0.5) / size) / STEP)
        top += share + GAP
    return found
