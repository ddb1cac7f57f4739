"""Lines about the routine as a piece of writing. They change nothing on the table."""

from __future__ import annotations

from typing import TYPE_CHECKING

from ..language.facets import Facet
from .declare import PAGE, step

if TYPE_CHECKING:
    from ..building import Builder


@step(
    "Title: {title:text}",
    family="The page",
    phase=PAGE,
    example="Title: The Harbour Light",
    facets=(Facet.TITLE,),
    wordings=(
        "i call this [1] {title}",
        "this [1] be call {title}",
        "call it {title}",
    ),
)
def title(b: Builder) -> None:
    """What the routine is called, on the shelf and at the head of its page."""


@step(
    "Credit: {credit:text}",
    family="The page",
    phase=PAGE,
    example="Credit: the count is the second mate’s",
    facets=(Facet.CREDIT,),
    wordings=(
        "thanks to {credit}",
        "idea (be|is) {credit}",
    ),
)
def credit(b: Builder) -> None:
    """Whose ideas it stands on. Printed on the cue sheet."""


@step(
    "Note: {note:text}",
    family="The page",
    phase=PAGE,
    example="Note: for the quarterdeck, after supper",
    facets=(Facet.NOTE,),
)
def note(b: Builder) -> None:
    """A line under the title: where it is played, what it is for."""
