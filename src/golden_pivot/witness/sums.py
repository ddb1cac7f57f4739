"""Sums, one step after the other."""

from __future__ import annotations

from collections.abc import Callable


def half(whole: int, rounded: str) -> int:
    low = (whole - 1) // 2 if whole % 2 else whole // 2
    return low + 1 if whole % 2 and rounded == "up" else low


def digit_sum(number: int, _: str) -> int:
    left, total = abs(number), 0
    while left:
        left, digit = left // 10, left % 10
        total += digit
    return total


def digit_root(number: int, _: str) -> int:
    while abs(number) > 9:
        number = digit_sum(number, "")
    return abs(number)


def remainder(of: int, by: int) -> int | None:
    by = abs(by)
    if by == 0:
        return None
    while of < 0:
        of += by
    while of >= by:
        of -= by
    return of


def quotient(of: int, by: int) -> int | None:
    if by == 0:
        return None
    if by < 0:
        of, by = -of, -by
    times = 0
    while times * by > of:
        times -= 1
    while (times + 1) * by <= of:
        times += 1
    return times


def power(base: int, exponent: int) -> int | None:
    if exponent < 0:
        return None
    found = 1
    for _ in range(exponent):
        found *= base
    return found


OF_ONE: dict[str, Callable[[int, str], int]] = {
    "half": half,
    "digit sum": digit_sum,
    "digit root": digit_root,
    "units digit": lambda number, _: int(str(number)[-1]),
    "tens digit": lambda number, _: int(("0" + str(abs(number)))[-2]),
    "reversal": lambda number, _: int("".join(reversed(str(abs(number))))),
}


OF_TWO: dict[str, Callable[[int, int], int | None]] = {"remainder": remainder, "quotient": quotient, "^": power}
