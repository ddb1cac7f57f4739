"""Random routines, as a reader of the language would write them, with every kind of step in them.

The environment variable FOCUS names a kind of step that is to come up more often (see scripts/mutate.py).
"""

from __future__ import annotations

import os
import re
from typing import Any

from hypothesis import Phase
from hypothesis import strategies as st

from golden_pivot.core.building import compile_routine
from golden_pivot.core.language.parser import read_routine

from .blocks import Blocks
from .choices import Choosing
from .moves import Moves
from .piles import Piling
from .writer import PLACED

# Shrinking a routine takes minutes: only on demand (SHRINK=1).
PHASES = list(Phase) if "SHRINK" in os.environ else [Phase.explicit, Phase.reuse, Phase.generate]

PATTERNS = ("arrange_in_turn", "arrange_in_blocks", "place_four", "pack_cyclic")
"""what is known of the faces of a whole pack"""


class _Writer(Moves, Choosing, Piling, Blocks):
    """Every kind of line."""


@st.composite
def routines(draw: Any) -> str:
    """A whole routine on a small pack: few choices, at most two claims outside the cases."""
    size = draw(st.integers(3, 9))
    focus = os.environ.get("FOCUS", "")
    if focus in PATTERNS or draw(st.integers(0, 9)) == 0:
        return str(draw(patterned()))
    if focus in ("pack_in_order", "take_mate") or draw(st.integers(0, 9)) == 0:
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
    rows = writer.rows
    if draw(st.integers(0, 7)) == 0 and not any(
        "whispers" in row for row in rows
    ):  # another one than the first, who knows as much
        rows = [re.sub(r"^(\s*)Spectator (?=[a-z])", r"\1Spectator 2 ", row) for row in rows]
    return "".join(f"{row}\n" for row in rows)


@st.composite
def patterned(draw: Any) -> str:
    """A routine on a pack of which the sorts are known, or whose values and suits go round."""
    kind = draw(st.sampled_from(PATTERNS))
    focus = os.environ.get("FOCUS", "")
    kind = focus if focus in PATTERNS else kind
    sorts = draw(st.sampled_from(["red, black", "black, red", "clubs, hearts, spades, diamonds", "red"]))
    few, size = [draw(st.integers(1, 3)) for _ in range(2)], draw(st.integers(4, 7))
    other, one = draw(st.sampled_from([("red cards", "red card"), ("spades", "spades")]))
    first = ["Pack: hearts, each from ace to five"]
    if kind == "arrange_in_turn":
        first = [f"Pack: {size} cards, any order", f"Arrange the pack {sorts} in turn"]
    elif kind == "arrange_in_blocks":
        between = "black cards" if "red" in other else "hearts"
        size = sum(few) + 1
        first = [
            f"Pack: {size} cards, any order",
            f"Arrange the pack, from the top: {few[0]} {other}, {few[1]} {between}, 1 {one}",
        ]
    elif kind == "place_four":
        where = draw(st.sampled_from(["on top", "2nd", "at the bottom", "on top, their value v"]))
        size = draw(st.integers(6, 8))
        first = [f"Pack: {size} cards, any order", f"Place four of a kind {where}"]
    elif kind == "pack_cyclic":
        suit, by, rank = (
            draw(st.sampled_from(some)) for some in (["hearts", "clubs"], [*range(1, 13)], ["ace", "ten"])
        )
        first = [f"Pack: {suit} in turn, each value {by} more than the last, from {rank}"]
    writer = _Writer(draw, first)
    if kind == "pack_cyclic":
        writer.placed = list(compile_routine(read_routine("\n".join(first))).named)
        writer.all_known = True
    else:
        writer.sorts_known = True
        writer.place("FORCE", draw(st.integers(1, size)), size)
        writer.told += ["v"] if first[-1].endswith("their value v") else []
    writer.cards = list(writer.placed)
    writer.lines(draw(st.integers(1, 5)), "")
    writer.finish()
    return "".join(f"{row}\n" for row in writer.rows)


@st.composite
def ordered(draw: Any) -> str:
    """A routine on a pack whose order is known."""
    focus = os.environ.get("FOCUS", "")
    suits = draw(st.sampled_from(["clubs, hearts", *(["spades, diamonds, clubs"] if focus != "take_mate" else [])]))
    first, last = draw(st.sampled_from([("ace", "three"), ("king", "queen"), ("six", "eight")]))
    mirrored = suits == "clubs, hearts" and (focus == "take_mate" or draw(st.booleans()))
    writer = _Writer(
        draw, [f"Pack: {suits}, each from {first} to {last}{', then their mates mirrored' if mirrored else ''}"]
    )
    ranks = {"ace": ["ace", "two", "three"], "king": ["king", "queen"], "six": ["six", "seven", "eight"]}[first]
    if mirrored:
        suits += ", diamonds, spades"
    writer.placed = [f"{rank} of {suit}" for suit in suits.split(", ") for rank in ranks]
    writer.cards, writer.all_known, writer.has_mates = list(writer.placed), True, mirrored
    writer.lines(draw(st.integers(1, 5)), "")
    writer.finish()
    return "".join(f"{row}\n" for row in writer.rows)


__all__ = ["PHASES", "ordered", "routines"]
