"""Random numbers, as they are reckoned."""

from __future__ import annotations

from typing import Any

from hypothesis import strategies as st


def _with_an_end(number: str) -> str:
    """What has no end of its own must stand in brackets where something follows."""
    open_ends = ("digit", "remainder", "quotient", "reversal")
    return f"({number})" if any(word in number for word in open_ends) else number


@st.composite
def numbers(draw: Any, known: list[str], depth: int = 2, more: tuple[str, ...] = ()) -> str:
    """An expression in the known names; `more` are further atoms that may stand in it."""
    leaves = [st.integers(0, 6).map(str), *([st.sampled_from(known)] if known else [])]
    if depth == 0 or draw(st.integers(0, 2)) < 2:
        return draw(st.one_of(leaves + ([st.sampled_from(more)] if more else [])))
    a, b = draw(numbers(known, depth - 1)), draw(numbers(known, depth - 1))
    return draw(
        st.sampled_from(
            [
                f"{_with_an_end(a)} + {b}", f"{_with_an_end(a)} - ({b})", f"({a}) * ({b})", f"half of ({a}) rounded up",
                f"half of ({a}) rounded down", f"digit sum of ({a})", f"remainder of ({a}) divided by ({_with_an_end(b)} + 1)",
                f"min({a}, {b})", f"max({a}, {b})", f"quotient of ({a}) divided by ({_with_an_end(b)} + 1)", f"({a}) ^ {draw(st.integers(0, 2))}",
                f"{draw(st.sampled_from(['digit root', 'units digit', 'tens digit', 'reversal']))} of (3 * ({a}) + 4)",
                f"twice ({a}) minus ({b})",
            ]
        )
    )  # fmt: skip
