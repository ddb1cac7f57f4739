"""Rows and columns of a grid: which one holds a card, what is claimed of one, and each of them squared up."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from ..cards import TOKEN, index_of
from ..english import ordinal
from ..faults import Impossible
from ..language.sorts import OF_ONE
from ..language.templates import SPECTATOR
from ..search.program import Cells
from .declare import ENDING, step

if TYPE_CHECKING:
    from ..building import Builder
    from ..building.places import Place

LINE = "{line=row|column}"


def _grid(b: Builder, slot: str, place: Place) -> tuple[int, int]:
    """(rows, cards in each)"""
    if place.layout.most is None:
        raise b.fault(
            slot, f"The cards of {place.name} lie {place.layout.lies}.", "cards laid in rows", "Name a grid."
        )
    return place.layout.rows, place.layout.across or 1


def lines_of(heap: bytes, rows: int, across: int, line: str) -> list[bytes]:
    """The cards of each row from the left, or of each column from above.

    >>> lines_of(b"abcde", 2, 3, "row"), lines_of(b"abcde", 2, 3, "column")
    ([b'abc', b'de'], [b'ad', b'be', b'c'])
    """
    if line == "row":
        return [heap[row * across : (row + 1) * across] for row in range(rows)]
    return [heap[column::across] for column in range(across)]


@step(
    "{who} square+s up each {line=row|column} of {from:place} as a pile",
    family="Piles",
    does="each keeps its order",
    example="Square up each column of grid as a pile",
    says="Push the cards of each {line} of {from} together into a pile.",
    heard=(("rows instead of columns", "{who} square+s up each row of {from} as a pile"),),
    wordings=(
        "(gather|pick up|collect|push together|square up|close up) (columns|each column) [of {from}] [as|into] [a] [pile|piles] => line=column; from=grid; score=1",
        "(push|put|slide|bring) (columns|each column) together [of {from}] [as|into] [a] [pile|piles] => line=column; from=grid; score=2",
        "(push|put|slide|bring) (rows|each row) together [of {from}] [as|into] [a] [pile|piles] => line=row; from=grid; score=2",
        "(gather|pick up|collect|push together|square up|close up) (rows|each row) [of {from}] [as|into] [a] [pile|piles] => line=row; from=grid; score=1",
    ),
)
def square_up(b: Builder) -> None:
    """Each row, or each column, of a grid becomes a pile: pile 1 is the uppermost row, or the leftmost column.

    The left card of a row, the upper card of a column comes on top.
    """
    source, line = b.all_of("from"), b.phrase("line")
    rows, across = _grid(b, "from", source)
    piles = b.so_many_piles(rows if line == "row" else across)

    def run(cells: Cells) -> None:
        heap = source.of(cells)
        source.put(cells, b"")
        for pile, cards in zip(piles, lines_of(heap, rows, across, line), strict=True):
            pile.put(cells, cards + pile.of(cells))

    b.act(run, passing=lambda cells: source.of(cells))


@step(
    "Spectator {verb=notes|tells} which " + LINE + " of {place:place} holds {card:card}: {names:names}",
    family="Piles",
    example="Spectator tells which row of grid holds their card: r",
    says="{verb} which {line} of {place} {card} is in.",
    by=SPECTATOR,
    wordings=(
        "(say|tell you|tell me|point to|indicate) which (row) {card} be in => verb=tells; line=row; place=grid; who=spectator; score=3",
        "(say|tell you|tell me|point to|indicate) which (column) {card} be in => verb=tells; line=column; place=grid; who=spectator; score=3",
    ),
)
def which_line(b: Builder) -> None:
    """The number of the row, or of the column, in which the card lies; row 1 is the uppermost, column 1 the leftmost.

    Noted, it stays secret until it is told. In a repetition give one name, or one for each time round.
    """
    token, place, name, line = b.card("card"), b.looked_at("place"), b.phrase("card"), b.phrase("line")
    rows, across = _grid(b, "place", place)

    def number(cells: Sequence[Any]) -> int:
        card = token(cells)
        for i, cards in enumerate(lines_of(place.of(cells), rows, across, line), start=1):
            if index_of(cards, card) >= 0:
                return i
        raise Impossible(f"{name} is not in {place.name}")

    b.learn("names", number, secret=b.phrase("verb") == "notes")


@step(
    "Ends with: {card:card} is in column {column:number} of {place:place}",
    family="Endings",
    phase=ENDING,
    example="Ends with: their card is in column 2 of grid",
    wordings=tuple(
        f"{{card}} (be|is|lie) in {ordinal(n)} column [of {{place}}] => column={n}; score=2" for n in range(1, 7)
    ),
)
def ends_in_column(b: Builder) -> None:
    """A claim: the card lies in that column of a grid; column 1 is the leftmost."""
    token, column, place = b.claimed_card("card"), b.truth("column"), b.looked_at("place")
    name, (rows, across) = b.phrase("card"), _grid(b, "place", place)

    def holds(cells: Sequence[Any]) -> bool:
        at = column(cells)
        lines = lines_of(place.of(cells), rows, across, "column")
        return 1 <= at <= across and index_of(lines[at - 1], token(cells)) >= 0

    b.check(holds, lambda cells: f"{name} is {b.whereabouts(cells, token(cells))}, not in column {column(cells)}")


@step(
    f"Ends with: every card in {LINE} {{number:number}} of {{place:place}} is {{sort={'|'.join(OF_ONE)}}}",
    family="Endings",
    phase=ENDING,
    example="Ends with: every card in row 2 of grid is red",
)
def ends_line_sort(b: Builder) -> None:
    """A claim: all cards of one row or column of a grid are of one sort, or lie one way."""
    number, place, sort, line = b.truth("number"), b.looked_at("place"), OF_ONE[b.phrase("sort")], b.phrase("line")
    rows, across = _grid(b, "place", place)
    is_so = b.of_sort(place, sort)

    def others(cells: Sequence[Any]) -> int:
        lines, at = lines_of(place.of(cells), rows, across, line), number(cells)
        if not 1 <= at <= len(lines):
            raise Impossible(f"{place.name} has no {line} {at}")
        return sum(not is_so(cells, byte) for byte in lines[at - 1])

    b.check(
        lambda cells: not others(cells),
        lambda cells: f"{others(cells)} cards of {line} {number(cells)} are not {sort.one}",
    )


@step(
    "Ends with: each " + LINE + " of {place:place} has {how=one|different} {what=values|suits|colours}",
    family="Endings",
    phase=ENDING,
    example="Ends with: each row of grid has different suits",
)
def ends_each_line(b: Builder) -> None:
    """A claim: in each row, or in each column, of a grid the cards are all alike, or no two of them are."""
    place, what, line = b.looked_at("place"), b.phrase("what").removesuffix("s"), b.phrase("line")
    rows, across = _grid(b, "place", place)
    b.look_through(place, what)
    read, one = b.fact_of(what), b.phrase("how") == "one"
    how = "only one of the" if one else "all different"

    def failing(cells: Sequence[Any]) -> int | None:
        for i, cards in enumerate(lines_of(place.of(cells), rows, across, line), start=1):
            found = {read(cells, byte & TOKEN) for byte in cards}
            if len(found) > 1 if one else len(found) < len(cards):
                return i
        return None

    b.check(
        lambda cells: failing(cells) is None,
        lambda cells: f"{line} {failing(cells)} of {place.name} has not {how} {what}s",
    )
