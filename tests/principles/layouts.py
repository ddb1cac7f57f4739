"""Rings, rows, grids: counting on in the round, going to neighbours, rows and columns that are told."""

from __future__ import annotations

from fractions import Fraction
from itertools import product

from .worked import Principle, Ways, every


def on_and_back_again() -> Ways:
    """From hour h as many on as one likes and as many back: the same hour. Common practice, no published source."""
    return every([((h - 1 + k - k) % 12) + 1 == h for h, k in product(range(1, 13), range(1, 6))])


def to_twelve_whatever_hour() -> Ways:
    """From hour n so many on as are missing to twelve: always twelve o’clock."""
    return every([(n - 1 + (12 - n)) % 12 == 11 for n in range(1, 13)])


def opposite_on_the_clock() -> Ways:
    """Six on from anywhere twice over is once round."""
    return every([(n - 1 + 6 + 6) % 12 == n - 1 for n in range(1, 13)])


def wrong_by_one() -> Ways:
    """Counted from the card itself instead of the next one it never comes to the same hour."""
    return every([(n - 1 + 11) % 12 == n - 1 for n in range(1, 13)])


def neighbours(rows: int, across: int, at: int) -> list[int]:
    row, column = divmod(at - 1, across)
    beside = [(row - 1, column), (row + 1, column), (row, column - 1), (row, column + 1)]
    return [r * across + c + 1 for r, c in beside if 0 <= r < rows and 0 <= c < across]


def walks(rows: int, across: int, start: int, steps: int) -> list[int]:
    """Where every walk ends."""
    ends = [start]
    for _ in range(steps):
        ends = [beside for at in ends for beside in neighbours(rows, across, at)]
    return ends


def parity_of_a_walk() -> Ways:
    """Squares of a board are coloured in turn: after an even number of steps one stands on the colour one came from.

    From memory; the colouring of a chessboard is common knowledge.
    """
    return every([end % 2 == 1 for end in walks(3, 3, 1, 4)])


def never_in_the_middle() -> Ways:
    """After three steps from a corner of nine squares nobody stands in the middle, which has the colour of the corners."""
    return every([end != 5 for end in walks(3, 3, 1, 3)])


def one_step_more() -> Ways:
    """After four steps one may be in the middle."""
    return every([end != 5 for end in walks(3, 3, 1, 4)])


def steps_in_the_round() -> Ways:
    """In an even ring odd and even places take turns as well."""
    ends = [1]
    for _ in range(3):
        ends = [(at - 1 + d) % 6 + 1 for at in ends for d in (-1, 1)]
    return every([end % 2 == 0 for end in ends])


def open_path_only() -> Ways:
    """In a row where only two cards lie face up one can but go to and fro between them."""
    return 1, 0, Fraction(1)


def row_and_column() -> Ways:
    """Told the row and the column of a card it is the one where they cross."""
    return every([3 * (i // 3) + i % 3 == i for i in range(9)])


def told_twice() -> Ways:
    """Nine cards: the row is told, columns are laid as rows, the row is told again; the two numbers settle the card. From memory."""
    found = []
    for card in range(9):
        grid = [list(range(3 * r, 3 * r + 3)) for r in range(3)]
        first = next(r for r in range(3) if card in grid[r])
        columns = [[grid[r][c] for r in range(3)] for c in range(3)]
        again = next(r for r in range(3) if card in columns[r])
        found.append(columns[again][first] == card)
    return every(found)


def columns_as_piles() -> Ways:
    """The column with the card is squared up and goes on top: the card is among the top three, however the other two are put together."""
    found = []
    for card, others in product(range(9), ((0, 1), (1, 0))):
        columns = [[c, c + 3, c + 6] for c in range(3)]
        first = next(column for column in columns if card in column)
        rest = [column for column in columns if column is not first]
        found.append(card in [*first, *rest[others[0]], *rest[others[1]]][:3])
    return every(found)


def leftmost_is_top() -> Ways:
    """A spread keeps the order: the card at n from the left is the one that was nth."""
    return every([list(range(20))[n - 1] == n - 1 for n in range(1, 21)])


def first_beside_last() -> Ways:
    """One before the first of a ring is the last one."""
    return every([(0 - 1) % n == n - 1 for n in range(5, 11)])


def one_suit_a_row() -> Ways:
    """Suits in order laid in rows of as many as a suit has: each row is of one suit, each column of one value."""
    pack = [(suit, value) for suit in range(3) for value in range(4)]
    rows = [pack[4 * r : 4 * r + 4] for r in range(3)]
    return every(
        [
            all(len({s for s, _ in row}) == 1 for row in rows)
            and all(len({rows[r][c][1] for r in range(3)}) == 1 for c in range(4))
        ]
    )


LAID = "Pack: 12 cards, any order\nLay 12 cards of deck in a ring\n"
NINE = "Pack: 9 cards, any order\nSpectator thinks of a card in deck: their card\nLay 9 cards of deck in 3 rows of 3 face up\n"
PRINCIPLES: list[Principle] = [
    (LAID + "Spectator names a number h from 1 to 12\nSpectator remembers the card at position h of ring: X\nSpectator names a number k from 1 to 5\n"
     "Spectator remembers the card k on from position h of ring: Y\nSpectator reckons (remainder of (h + k - 1) divided by 12) + 1: p\n"
     "Ends with: the card k before position p of ring is X", on_and_back_again),
    ("Pack: 12 cards, any order\nPlace NOON 12th\nLay 12 cards of deck in a ring\nSpectator names a number n from 1 to 12\n"
     "Ends with: the card 12 - n on from position n of ring is NOON", to_twelve_whatever_hour),
    (LAID + "Spectator names a number n from 1 to 12\nSpectator remembers the card at position n of ring: X\n"
     "Ends with: the card 6 + 6 on from position n of ring is X", opposite_on_the_clock),
    (LAID + "Spectator names a number n from 1 to 12\nSpectator remembers the card at position n of ring: X\n"
     "Ends with: the card 11 on from position n of ring is X", wrong_by_one),
    ("Pack: 9 cards, any order\nLay 9 cards of deck in 3 rows of 3\nSpectator secretly goes from position 1 of grid to a neighbour, 4 times: q\n"
     "Ends with: q is odd", parity_of_a_walk),
    ("Pack: 9 cards, any order\nLay 9 cards of deck in 3 rows of 3\nSpectator secretly goes from position 1 of grid to a neighbour, 3 times: q\n"
     "Ends with: q is not 5", never_in_the_middle),
    ("Pack: 9 cards, any order\nLay 9 cards of deck in 3 rows of 3\nSpectator secretly goes from position 1 of grid to a neighbour, 4 times: q\n"
     "Ends with: q is not 5", one_step_more),
    ("Pack: 6 cards, any order\nLay 6 cards of deck in a ring\nSpectator secretly goes from position 1 of ring to a neighbour, 3 times: q\n"
     "Ends with: q is even", steps_in_the_round),
    ("Pack: 5 cards, any order\nPlace A 2nd, face up\nPlace B 3rd, face up\nSpread deck in a row, the top card on the left\n"
     "Spectator goes from position 2 of row to a neighbour, 4 times, face-up cards only: q\nEnds with: q is 2", open_path_only),
    (NINE + "Spectator tells which row of grid holds their card: r\nSpectator tells which column of grid holds their card: c\n"
     "Ends with: the card at row r column c of grid is their card", row_and_column),
    (NINE + "Spectator tells which row of grid holds their card: r\nSquare up each column of grid as a pile\n"
     "Gather the piles from left to right, each under the last\nLay 9 cards of deck in 3 rows of 3 face up\n"
     "Spectator tells which row of grid holds their card: q\nEnds with: the card at row q column r of grid is their card", told_twice),
    (NINE + "Spectator tells which column of grid holds their card: c\nSquare up each column of grid as a pile\n"
     "Gather the piles, pile c on top, the others in any order\nDeal 3 cards from deck to table\nEnds with: their card is in table",
     columns_as_piles),
    ("Pack: 20 cards, any order\nSpectator names a number n from 1 to 20\nSpectator remembers the card at position n of deck: X\n"
     "Spread deck in a row, the top card on the left\nEnds with: the card at position n from the left of row is X", leftmost_is_top),
    ("Pack: 10 cards, any order\nSpectator names a number n from 5 to 10\nLay n cards of deck in a ring\nSpectator remembers the card at position n of ring: X\n"
     "Ends with: the card 1 before position 1 of ring is X", first_beside_last),
    ("Pack: clubs, hearts, spades, each from ace to four\nLay 12 cards of deck in 3 rows of 4 face up\nEnds with: each row of grid has one suits\n"
     "Ends with: each column of grid has one values", one_suit_a_row),
]  # fmt: skip
