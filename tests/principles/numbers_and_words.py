"""Numbers that follow from others, words that are chosen, cases that hang on several things, people who lie."""

from __future__ import annotations

from itertools import product

from .worked import Principle, Ways, every


def digits(number: int) -> int:
    return sum(map(int, str(number)))


def nines_cast_out() -> Ways:
    """A number less its digit sum is a multiple of nine. Common knowledge."""
    return every([(n - digits(n)) % 9 == 0 for n in range(10, 100)])


def nine_times_anything() -> Ways:
    """Nine times a number has the digit root nine. Common knowledge."""
    root = lambda n: n if n < 10 else root(digits(n))  # noqa: E731
    return every([root(9 * n) == 9 for n in range(1, 30)])


def one_thousand_and_eighty_nine() -> Ways:
    """Three figures, the first at least two more than the last: less its reversal, and that with its own reversal added, is 1089.

    Well known (W. W. Rouse Ball, Mathematical Recreations and Essays, 1892), from memory.
    """
    found = []
    for a, b, c in product(range(1, 10), range(3), range(1, 10)):
        if a - c < 2:
            continue
        number = 100 * a + 10 * b + c
        difference = number - int(str(number)[::-1])
        found.append(difference + int(str(difference).zfill(3)[::-1]) == 1089)
    return every(found)


def reversed_and_taken_away() -> Ways:
    """Two figures reversed: the difference is nine times that of the figures."""
    return every([n - int(str(n)[::-1]) == 9 * (n // 10 - n % 10) for n in range(10, 100)])


def powers_settle_a_number() -> Ways:
    """Told of each of four powers of two whether it is in a number, one can say the number. Common knowledge."""
    return every([sum(2**k for k in range(4) if n // 2**k % 2) == n for n in range(16)])


def last_figure_of_powers() -> Ways:
    """Powers of two end on the same figure every four: 2, 4, 8, 6."""
    return every([str(2**n)[-1] == str(2 ** (n + 4))[-1] for n in range(1, 9)])


def double_add_halve() -> Ways:
    """Doubled, ten added, halved, the number taken away: five. Common knowledge."""
    return every([(2 * n + 10) // 2 - n == 5 for n in range(1, 21)])


def two_secrets_one_sum() -> Ways:
    """Two keep their numbers to themselves and tell the sum; dealt off in turn, the rest is what it says."""
    return every([30 - (a + b) == 30 - a - b for a, b in product(range(1, 6), repeat=2)])


def words_of_one_length() -> Ways:
    """Words of the same length all lead to one card."""
    return every([len(word) == 5 for word in ("north", "south", "queen")])


def words_of_two_lengths() -> Ways:
    """A word of another length does not."""
    return every([len(word) == 5 for word in ("north", "south", "east")])


def word_of_any_length() -> Ways:
    """Any word dealt off three times, the rest dropped on top each time: the bottom card comes to the top, if the word is at least
    half as long as the packet. From memory; common practice, no published source."""
    found = []
    for letters in range(5, 10):
        pack = list(range(9))
        for _ in range(3):
            pack = pack[letters:] + pack[:letters][::-1]
        found.append(pack[0] == 8)
    return every(found)


def too_short_a_word() -> Ways:
    """With a shorter word it does not come there."""
    found = []
    for letters in range(3, 10):
        pack = list(range(9))
        for _ in range(3):
            pack = pack[letters:] + pack[:letters][::-1]
        found.append(pack[0] == 8)
    return every(found)


def lie_or_not() -> Ways:
    """Whether the answer is yes or no, a lie or the truth: with *yes* a card more is dealt and a card less cut off."""
    return every([4 + a + (1 - a) == 5 for _ in range(6) for a in (0, 1)])


def told_truly() -> Ways:
    """A true answer tells in which of two heaps a card is: that heap goes on top."""
    return every([True for _ in range(12)])


def liar_found_out() -> Ways:
    """Asked twice, by one who always tells the truth, the answers agree; by one who may lie, not in half of all cases."""
    return every([one == two for _ in range(8) for one, two in product((0, 1), repeat=2)])


def number_by_case() -> Ways:
    """A number that is one thing for odd and another for even numbers makes both come to one card."""
    return every([n + (6 - n if n % 2 else 7 - n - 1) == 6 for n in range(1, 6)])


def both_or_neither() -> Ways:
    """Where one number is not even and the other odd, their sum is even; where it is so, nothing is claimed."""
    return every([a % 2 != b % 2 or (a + b) % 2 == 0 for a, b in product(range(1, 5), repeat=2)])


def smaller_of_two() -> Ways:
    """The smaller number and the difference give the larger one."""
    return every([min(a, b) + abs(a - b) == max(a, b) for a, b in product(range(1, 7), repeat=2)])


def table_of_cases() -> Ways:
    """Three told values, three numbers of cards to be dealt before the card comes."""
    return every([{1: 3, 2: 2, 3: 1}[p] + p == 4 for p in (1, 2, 3)])


PACK = "Pack: 52 cards, any order\n"
PRINCIPLES: list[Principle] = [
    (PACK + "Spectator secretly names a number n from 10 to 99\nSpectator reckons n - digit sum of n: t\nEnds with: remainder of t divided by 9 is 0",
     nines_cast_out),
    (PACK + "Spectator secretly names a number n from 1 to 29\nSpectator reckons digit root of (9 * n): t\nDeal t cards from deck\n"
     "Spectator remembers the last card dealt: X\nEnds with: t is 9", nine_times_anything),
    (PACK + "Spectator names a number c from 1 to 7\nSpectator names a number b from 0 to 2\nSpectator names a number a from c + 2 to 9\n"
     "Spectator reckons 100 * a + 10 * b + c: n\nSpectator reckons n - reversal of n: d\nEnds with: d + reversal of d is 1089", one_thousand_and_eighty_nine),
    (PACK + "Spectator secretly names a number n from 10 to 99\nSpectator reckons n - reversal of n: d\n"
     "Ends with: d is 9 * ((tens digit of n) - (units digit of n))", reversed_and_taken_away),
    (PACK + "Spectator secretly names a number n from 0 to 15\nLet t be 0\n"
     + "".join(f"Spectator reckons remainder of (quotient of n divided by {2**k}) divided by 2: {name}\nLet t be t + {name} * 2 ^ {k}\n"
               for k, name in enumerate("abcd"))
     + "Ends with: t is n", powers_settle_a_number),
    (PACK + "Spectator names a number n from 1 to 8\nEnds with: units digit of (2 ^ n) is units digit of (2 ^ (n + 4))", last_figure_of_powers),
    (PACK + "Spectator secretly names a number n from 1 to 20\nSpectator secretly reckons twice n: a\nSpectator secretly reckons a plus 10: b\n"
     "Spectator secretly reckons half of b rounded down: c\nSpectator reckons c minus n: t\nEnds with: t is 5", double_add_halve),
    (PACK + "Place MARK 31st\nSpectator secretly names a number a from 1 to 5\nSpectator secretly names a number b from 1 to 5\nSpectator reckons a + b: t\n"
     "Deal 30 - t cards from deck to table\nSpectator deals a cards from deck to table\nSpectator deals b cards from deck to table\nEnds with: the next card is MARK",
     two_secrets_one_sum),
    (PACK + "Place MARK 5th\nSpectator chooses one of “north”, “south”, “queen”: w\nSpectator deals w cards from deck\nEnds with: the last card dealt is MARK",
     words_of_one_length),
    (PACK + "Place MARK 5th\nSpectator chooses one of “north”, “south”, “east”: w\nSpectator deals w cards from deck\nEnds with: the last card dealt is MARK",
     words_of_two_lengths),
    ("Pack: 9 cards, any order\nPlace LOW at the bottom\nSpectator secretly thinks of a word, letters w from 5 to 9\nRepeat 3 times:\n"
     "  Spectator deals w cards from deck to table\n  Drop the rest on top\n  Put table on deck\nEnds with: the top card of deck is LOW", word_of_any_length),
    ("Pack: 9 cards, any order\nPlace LOW at the bottom\nSpectator secretly thinks of a word, letters w from 3 to 9\nRepeat 3 times:\n"
     "  Spectator deals w cards from deck to table\n  Drop the rest on top\n  Put table on deck\nEnds with: the top card of deck is LOW", too_short_a_word),
    ("Pack: 6 cards, any order\nPlace MARK at the bottom\nSpectator thinks of a card in deck: X\nSpectator answers a, truly or not, whether X is MARK\n"
     "Deal 4 + a cards from deck\nDeal 1 - a cards from deck\nEnds with: the next card is MARK", lie_or_not),
    ("Pack: 12 cards, any order\nSpectator thinks of a card in deck: X\nCut off 6 cards of deck to hand\nSpectator answers a, truly, whether X is in hand\n"
     "If a is 1:\n  Put deck under hand\nOtherwise:\n  Put hand under deck\n  Swap hand and deck\nCut off 6 cards of hand to table\nEnds with: X is in table", told_truly),
    ("Pack: 8 cards, any order\nSpectator thinks of a card in deck: X\nCut off 4 cards of deck to hand\nSpectator answers a, truly or not, whether X is in hand\n"
     "Spectator answers b, truly or not, whether X is in hand\nEnds with: a is b", liar_found_out),
    (PACK + "Place MARK 6th\nSpectator names a number n from 1 to 5\nDeal n cards from deck\nIf n is odd:\n  Let k be 6 - n\nOtherwise:\n  Let k be 7 - n - 1\n"
     "Deal k cards from deck\nEnds with: the last card dealt is MARK", number_by_case),
    (PACK + "Spectator names a number a from 1 to 4\nSpectator names a number b from 1 to 4\nIf a is even and b is odd:\n  End here\n"
     "If a is odd and b is even:\n  End here\nEnds with: a + b is even", both_or_neither),
    (PACK + "Spectator secretly names a number a from 1 to 6\nSpectator secretly names a number b from 1 to 6\nSpectator reckons max(a - b, b - a): d\n"
     "Spectator reckons min(a, b): m\nEnds with: m + d is max(a, b)", smaller_of_two),
    (PACK + "Place MARK 4th\nSpectator names a number p from 1 to 3\nSpectator deals p cards from deck\nLet k be 1\nIf p is 1:\n  Let k be 3\n"
     "If p is 2:\n  Let k be 2\nDeal k cards from deck\nEnds with: the last card dealt is MARK", table_of_cases),
]  # fmt: skip
