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
    form = draw(st.sampled_from(FORMS))
    return form.format(
        a=a,
        b=b,
        closed_a=_with_an_end(a),
        closed_b=_with_an_end(b),
        k=draw(st.integers(0, 2)) if "{k}" in form else 0,
    )


FORMS = (
    "{closed_a} + {b}", "{closed_a} - ({b})", "({a}) * ({b})", "half of ({a}) rounded up", "half of ({a}) rounded down",
    "digit sum of ({a})", "remainder of ({a}) divided by ({closed_b} + 1)", "min({a}, {b})", "max({a}, {b})",
    "quotient of ({a}) divided by ({closed_b} + 1)", "({a}) ^ {k}", "digit root of (3 * ({a}) + 4)", "units digit of (3 * ({a}) + 4)",
    "tens digit of (3 * ({a}) + 4)", "reversal of (3 * ({a}) + 4)", "twice ({a}) minus ({b})",
)  # fmt: skip
