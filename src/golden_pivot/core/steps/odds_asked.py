"""How often something comes out: no claims, but questions beside them."""

from __future__ import annotations

from typing import TYPE_CHECKING

from ..language.expressions import expression_text, is_of_numbers_alone
from .declare import ENDING, step

if TYPE_CHECKING:
    from ..building import Builder


@step(
    "Odds of {number:number}",
    family="Endings",
    phase=ENDING,
    example="Odds of number of piles",
    is_question=True,
    wordings=(
        "(odds|chances|chance|probability) of {number} [be ...] => score=1",
        "how often do each number of piles come up => number=number of piles; score=2",
        "how (often|likely) (do|be) {number} [come up] => score=1",
    ),
)
def odds_of(b: Builder) -> None:
    """Not a claim: how often this number comes out as what is worked out beside the verdict.

    Exact where that can be done, else from many paths drawn at random, with an interval. What the spectator
    decides leaves a range from least to most, unless a line says that all choices are equally likely.
    """
    number = b.truth("number")
    b.ask_odds(expression_text(b.line.values["number"]), number, is_of_numbers_alone(b.line.values["number"]))


@step(
    "Odds: every choice is equally likely",
    family="Endings",
    phase=ENDING,
    example="Odds: every choice is equally likely",
    is_question=True,
    wordings=("(all|every) choices? be equally likely",),
)
def odds_model(b: Builder) -> None:
    """For the odds, what the spectator decides is taken at random. The proof still covers every choice."""
    b.equally_likely = True
