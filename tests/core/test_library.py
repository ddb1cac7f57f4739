"""The library of principles: every number that may be changed, and what comes of it, against arithmetic."""

from __future__ import annotations

import pytest

from golden_pivot.core.answers.proving import prove
from golden_pivot.core.answers.verdicts import PROVED, WHETHER
from golden_pivot.core.faults import BadRoutine
from golden_pivot.core.language.parser import read_routine
from golden_pivot.library import NoSuchPrinciple, Principle, principle, principles


def works(one: Principle, name: str, value: int) -> bool:
    try:
        return prove(read_routine(one.text_with({name: value})), asked=WHETHER).verdict == PROVED
    except BadRoutine:
        return False


# The weaves of c cards come round after as many as 2 has powers until 1 modulo c - 1; P. Diaconis, R. Graham, W. Kantor,
# "The mathematics of perfect shuffles" (1983). Of r cards to a pile, each time round leaves a third of them, rounded: the middle
# place is alone where r is odd and 3 to the power of the times is at least 3 r; J. D. Gergonne (1813-14).
@pytest.mark.parametrize(
    ("name", "number", "right"),
    [
        ("Told pile", "r", lambda r: r % 2 == 1 and 3 * r <= 3**3),
        ("Told pile", "t", lambda t: 3**t >= 15),
        ("Digit sum", "w", lambda w: w <= 10),
        ("Hidden cut", "w", lambda w: w <= 12),
        ("Two packets", "h", lambda h: h % 2 == 0),
        ("Counted in a row", "w", lambda w: w < 7),
        ("Two numbers", "f", lambda f: f >= 12),
        ("Spelling", "k", lambda k: k == len("ferry") + 1),
        ("Indicator", "b", lambda b: b == 7),
        ("Pairs of unlike colour", "g", lambda g: g == 2),
        ("Cut and turn over two", "b", lambda b: b % 2 == 0),
        ("Weaves that come round", "t", lambda t: pow(2, t, 51) == 1),
        ("Weaves that come round", "c", lambda c: pow(2, 8, c - 1) == 1),
        ("Four of a kind, whichever", "w", lambda w: w <= 4),
    ],
)  # fmt: skip
def test_how_far_a_principle_goes(name: str, number: str, right) -> None:  # type: ignore[no-untyped-def]
    one = principle(name)
    (parameter,) = [p for p in one.parameters if p.name == number]
    values = range(parameter.lowest, parameter.highest + 1, parameter.step)
    assert [v for v in values if works(one, number, v)] == [v for v in values if right(v)]


def test_each_says_whose_it_is_and_keeps_its_numbers_in_their_range() -> None:
    assert len({one.name for one in principles()}) == len(principles()) >= 12
    for one in principles():
        assert one.source and one.about and one.parameters
        for number in one.parameters:
            assert number.at in range(number.lowest, number.highest + 1, number.step)
            assert one.text_with({number.name: 10**9}) == one.text_with({number.name: number.highest})
        assert "{" not in one.text and not read_routine(one.text).faults
    with pytest.raises(NoSuchPrinciple):
        principle("")
