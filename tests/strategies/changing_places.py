"""Routines that look at faces in places which change: by numbers set anew, in rounds, in *for each*, in piles, rows and rings by number."""

from __future__ import annotations

from typing import Any

from hypothesis import strategies as st

LAID = {
    # how the cards are laid → (lines, a spot for an index, number of indices, what else one may ask of a place by its number)
    "as they lie": (["Turn every card of deck over where it lies"], "the card at position {i} of deck", 4, ""),
    "from the bottom": (
        ["Turn every card of deck over where it lies"], "the card at position {i} from the bottom of deck", 4, "",
    ),
    "in piles": (["Deal deck into 4 piles, face up"], "the top card of pile {i}", 4, "pile {i}"),
    "in a ring": (["Lay 4 cards of deck in a ring face up"], "the card at position {i} of ring", 4, ""),
    "in a ring, further on": (
        ["Lay 4 cards of deck in a ring face up"], "the card {i} on from position 1 of ring", 3, "",
    ),
    "in rows": (["Lay 4 cards of deck in 2 rows of 2 face up"], "the card at row {i} column 1 of grid", 2, ""),
}  # fmt: skip
ASKED = (
    "{spot} is red",
    "{spot} is a king",
    "value of {spot} is more than 6",
    "suit of {spot} is 2",
    "value of {spot} is even",
)
OF_TWO = "{spot} and {other} have the same colour"


@st.composite
def changing_places(draw: st.DrawFn) -> str:
    def pick(*options: Any) -> Any:
        return draw(st.sampled_from(options))

    lines, spot, most, place = LAID[pick(*LAID)]
    rows = ["Pack: 4 cards, any order", *lines, "Let i be 1", "Let k be 0"]
    index = pick("i", "i", "n", "n + k" if most > 3 else "n")

    def asked(i: str) -> str:
        here = spot.format(i=i)
        if place and pick(True, False):
            return f"number of {pick('red', 'court')} cards of {place.format(i=i)} is 1"
        if pick(True, False, False):
            return OF_TWO.format(spot=here, other=spot.format(i=pick("1", i)))
        return str(pick(*ASKED).format(spot=here))

    def once(margin: str, ask: str) -> list[str]:
        named = [f"{margin}Spectator names a number n from 1 to 2"] if "n" in index else []
        more = pick("k + 1", "k + 1", f"k + {pick('i', '2')}")
        return [
            *named,
            f"{margin}If {ask}:",
            f"{margin}  Let k be {more}",
            f"{margin}Let i be {pick('i + 1', 'i + 1', '1')}",
        ]

    way = pick("rounds", "rounds", "anew", "each", "while")
    if way == "each":
        rows = ["Pack: 4 cards, any order", "Turn every card of deck over where it lies", "Let k be 0"]
        heaps = ["first", "second", "third"][: pick(2, 3)]
        rows += [f"Deal 1 card from deck to {heap}" for heap in heaps]
        ask = pick(*ASKED).format(spot=pick("the top card of heap", "the face of heap"))
        rows += [f"For each heap of {', '.join(heaps)}:", f"  If {ask}:", "    Let k be k + 1"]
    elif way == "rounds":
        rows += [f"Repeat {pick(2, 2, 3) if most > 3 else 2} times:", *once("  ", asked(index))]
    elif way == "while":
        index = "i"
        rows += ["As long as i is at most 2:", *once("  ", asked("i"))[:-1], "  Let i be i + 1"]
    else:
        index = "i"
        rows += [*once("", asked("i")), *once("", asked("i"))]
    claim = pick("k is less than 2", "k is not 2", "k is even", "k is at most 1", "k is 0")
    return "\n".join([*rows, pick(f"Ends with: {claim}", f"Ends with: {claim}", "Odds of k")]) + "\n"
