"""A grid is one layout among others: language, proof, drawing, table room, slips and recoveries ask the layout."""

from __future__ import annotations

import pytest

from golden_pivot.core.analysis import Analysis
from golden_pivot.core.answers.on_table import on_table
from golden_pivot.core.answers.plays import play
from golden_pivot.core.answers.proving import prove
from golden_pivot.core.budget import Budget
from golden_pivot.core.faults import BadRoutine
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.show.exposure import exposure_of
from golden_pivot.core.show.recoveries import outside_limits
from golden_pivot.core.show.table_room import Surface, widest
from golden_pivot.core.variants.slips import fragility_of

PACK = "Pack: 20 cards, any order\nPlace FORCE 5th\n"
LAID = PACK + "Lay 9 cards of deck in 3 rows of 3 face up\n"


@pytest.mark.parametrize(
    ("text", "verdict"),
    [
        (LAID + "Ends with: FORCE is in row 2 of grid\n", "proved"),
        (LAID + "Ends with: FORCE is in row 3 of grid\n", "refuted"),
        (LAID + "Ends with: the 5th card of grid is FORCE\n", "proved"),
        (PACK + "Lay 6 cards of deck in 2 rows of 3\nEnds with: FORCE is in row 2 of grid\n", "proved"),
        (PACK + "Lay 6 cards of deck in 3 rows of 2\nEnds with: FORCE is in row 3 of grid\n", "proved"),
        # Laid on in two goes, the second behind the first.
        (PACK + "Repeat 2 times:\n  Lay 3 cards of deck in 2 rows of 3\nEnds with: FORCE is in row 2 of grid\n", "proved"),
        # Taken up, the first laid on top.
        (LAID + "Put grid on deck\nEnds with: the 5th card of deck is FORCE\n", "proved"),
        (LAID + "Turn the 5th card of grid face down\nEnds with: the 5th card of grid is face down\n", "proved"),
        # Every card of a grid is in sight, whichever way up.
        (LAID + "Never shows: the face of FORCE\nEnds with: FORCE is in row 2 of grid\n", "refuted"),
    ],
)  # fmt: skip
def test_rows_and_columns(text: str, verdict: str) -> None:
    assert prove(read_routine(text)).verdict == verdict


@pytest.mark.parametrize(
    ("line", "message"),
    [
        ("Deal 2 cards from grid to table", "each keeps its place"),
        ("Cut grid at 3 and complete the cut", "each keeps its place"),
        ("Spectator takes the 2nd card of grid to hand", "each keeps its place"),
        ("Deal 2 cards from deck to grid", "lie in 3 rows of 3, not in a heap"),
        ("Lay 4 cards of deck in 2 rows of 2 to grid", "lie in 3 rows of 3, not in 2 rows of 2"),
        ("Lay 10 cards of deck in 3 rows of 3 to square", "no room for 10 cards"),
        ("Lay 4 cards of deck in 0 rows of 2 to square", "0 is no number for a grid"),
        ("Spectator remembers the 2nd card from the left of grid: their card", "no left and right"),
        ("Ends with: FORCE is in row 2 of deck", "The cards of deck lie in a heap"),
    ],
)
def test_what_a_grid_is_not_for(line: str, message: str) -> None:
    with pytest.raises(BadRoutine) as caught:
        prove(read_routine(f"{LAID}{line}\n"))
    assert message in caught.value.faults[0].message


def test_where_it_lies_is_said_drawn_and_measured() -> None:
    verdict = prove(read_routine(LAID))
    assert verdict.landing and verdict.landing.text == "2nd of the 2nd row of grid"
    played = play(read_routine(LAID), {})
    deck, laid = on_table(read_routine(LAID), played).frames[-1].places
    assert deck.spots == () and laid.lies == "in 3 rows of 3"
    assert laid.spots == ((0, 0), (1, 0), (2, 0), (0, 1), (1, 1), (2, 1), (0, 2), (1, 2), (2, 2))
    # The rest of the pack, 63 mm, and 12 mm beside it three cards abreast; three rows of 88 mm, 12 mm apart.
    room = widest(Analysis(LAID).longest)
    assert (room.width, room.height, room.fits) == (63 + 12 + 3 * 63, 3 * 88 + 2 * 12, True)
    close = widest(Analysis(LAID).longest, Surface(overlap=0.5, table=200))
    assert close.width == 63 + 12 + 63 * 2 and not close.fits
    assert close.remedy and close.remedy.startswith("Overlap the cards by 51 %")
    # A row is wider, but it is the grid that does not fit.
    both = PACK + "Deal 8 cards from deck to row, from left to right\nPut row on deck\n" + LAID.partition("5th\n")[2]
    assert widest(Analysis(both).longest).line == 3
    shallow = widest(Analysis(both).longest, Surface(depth=250))
    assert (shallow.line, shallow.fits) == (5, False)
    # Every face of it shows.
    (moment,) = [one for one in exposure_of(Analysis(LAID)).moments if one.line == 3]
    assert moment.faces == ("FORCE", "8 cards of grid")


def test_slips_and_what_to_do_about_them() -> None:
    told = {
        one.slip.what: one.kind
        for one in fragility_of(f"{LAID}Ends with: FORCE is in row 2 of grid\n", Budget()).outcomes
    }
    # By hand: with rows of four, or a card lower in the pack, the 5th card is still in the second row; with four cards laid it is not.
    assert told["one column more"] == told["one row more"] == "harmless"
    text = (
        PACK
        + "Spectator names a number n from 1 to 5\nDeal n cards from deck to table\nLay 9 cards of deck in 3 rows of 3\n"
    )
    found = {one.when: one.says for one in outside_limits(text, Budget())}
    # 5 cards below it at first: after none it is 5th of the grid, in the middle; after six it lies on the table.
    assert found["n is 0"] == "Turn over the 2nd card of the 2nd row of the grid."
    assert found["n is 6"] == "Turn over the 2nd card of the table."
