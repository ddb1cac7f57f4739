"""Random routines, as a reader of the language would write them, with every kind of step in them.

The environment variable FOCUS names a kind of step that is to come up more often (see scripts/mutate.py).
"""

from __future__ import annotations

import os
from typing import Any

from hypothesis import Phase
from hypothesis import strategies as st

from .blocks import Blocks
from .choices import Choosing
from .moves import Moves
from .piles import Piling
from .writer import PLACED

# Shrinking a routine takes minutes: only on demand (SHRINK=1).
PHASES = list(Phase) if "SHRINK" in os.environ else [Phase.explicit, Phase.reuse, Phase.generate]


class _Writer(Moves, Choosing, Piling, Blocks):
    """Every kind of line."""


@st.composite
def routines(draw: Any) -> str:
    """A whole routine on a small pack: few choices, at most two claims outside the cases."""
    size = draw(st.integers(3, 9))
    focus = os.environ.get("FOCUS", "")
    if focus == "pack_in_order" or draw(st.integers(0, 9)) == 0:
        return str(draw(ordered()))
    writer = _Writer(draw, ["Title: A random one", f"Pack: {size} cards, any order"])
    if draw(st.booleans()):
        writer.rows.insert(1, "Note: made up")
    if size > 4 and (focus == "place_several" or draw(st.integers(0, 5)) == 0):
        several = ["three of hearts", "nine of spades"]
        writer.rows.append(f"Place {', '.join(several)} in this order, the first 2nd")
        writer.placed, writer.cards = list(several), list(several)
        size -= 4
    spots = draw(st.lists(st.integers(1, size), min_size=1, max_size=min(3, size), unique=True))
    if writer.placed:
        spots = [1]
        size += 4
    for card, at in zip(draw(st.permutations(PLACED)), spots, strict=False):
        writer.place(card, at, size)
    if draw(st.integers(0, 2)) == 0 or os.environ.get("FOCUS") == "place_extra":
        writer.extra()
    if writer.placed and (draw(st.integers(0, 5)) == 0 or os.environ.get("FOCUS") == "predict_on_back"):
        writer.on_back()
    writer.lines(draw(st.integers(1, 7)), "")
    writer.finish()
    return "".join(f"{row}\n" for row in writer.rows)


@st.composite
def ordered(draw: Any) -> str:
    """A routine on a pack whose order is known."""
    suits = draw(st.sampled_from(["clubs, hearts", "spades, diamonds, clubs"]))
    first, last = draw(st.sampled_from([("ace", "three"), ("king", "queen"), ("six", "eight")]))
    writer = _Writer(draw, [f"Pack: {suits}, each from {first} to {last}"])
    ranks = {"ace": ["ace", "two", "three"], "king": ["king", "queen"], "six": ["six", "seven", "eight"]}[first]
    writer.placed = [f"{rank} of {suit}" for suit in suits.split(", ") for rank in ranks]
    writer.cards, writer.all_known = list(writer.placed), True
    writer.lines(draw(st.integers(1, 5)), "")
    writer.finish()
    return "".join(f"{row}\n" for row in writer.rows)


__all__ = ["PHASES", "ordered", "routines"]
