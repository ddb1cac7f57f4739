"""What is reckoned from numbers and words, beyond sums: figures, powers, letters."""

from __future__ import annotations

from collections.abc import Callable, Mapping


def digit_sum(number: int) -> int:
    return sum(map(int, str(abs(number))))


def digital_root(number: int) -> int:
    """The digit sum of the digit sum and so on, down to one figure: what is left when nines are cast out, 9 for none."""
    return 1 + (abs(number) - 1) % 9 if number else 0


def reversal(number: int) -> int:
    """
    >>> reversal(120), reversal(-34)
    (21, 43)
    """
    return int(str(abs(number))[::-1])


FIGURES: Mapping[str, Callable[[int], int]] = {
    "digit sum": digit_sum,
    "digit root": digital_root,
    "units digit": lambda number: abs(number) % 10,
    "tens digit": lambda number: abs(number) // 10 % 10,
    "reversal": reversal,
}
"""name → what the figures of a number give"""
LARGEST_POWER = 10**12


class TooLarge(ArithmeticError):
    """A power of a size that no routine needs."""


def power(base: int, exponent: int) -> int:
    """Raises TooLarge, and ZeroDivisionError for an exponent below 0."""
    if exponent < 0:
        raise ZeroDivisionError
    if exponent and abs(base) > 1 and exponent * (abs(base).bit_length() - 1) > LARGEST_POWER.bit_length():
        raise TooLarge
    return int(base**exponent)


def letters_in(word: str) -> int:
    """
    >>> letters_in("the queen of hearts")
    16
    """
    return sum(map(str.isalpha, word))
