"""Whatever can be claimed at the end, asked about anywhere: in a case, as a limit, as what a repetition goes by, several at once."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import TYPE_CHECKING, Any

from ..faults import Impossible
from ..language.facets import Facet
from .declare import ENDING, step

if TYPE_CHECKING:
    from ..building import Builder
    from ..search.program import Cells


@step(
    "If {claim:asked}:",
    family="Order of events",
    example="If FORCE is in hand:",
    facets=(Facet.DOER_SEES,),  # where a card lies is seen by looking through
    is_case=True,
)
def if_so(b: Builder) -> None:
    """The lines indented below are carried out only where it is so: anything that an ending can claim of one path.

    Where lines of yours depend on it, you must know the cards and numbers in it, and a card by where it lies must lie
    face up where its face decides. *Otherwise:* may follow.
    """
    b.only_if(b.asked("claim").holds)


@step(
    "If {claims:claims}:",
    family="Order of events",
    example="If n is even and size of hand is less than 9:",
    facets=(Facet.DOER_SEES,),
    is_case=True,
)
def if_several(b: Builder) -> None:
    """A case that hangs on several things: with *and* all of them must be so, with *or* one is enough.

    Every one is asked, whatever the others say. *Otherwise:* may follow.
    """
    b.only_if(b.asked("claims").holds)


@step(
    "Make sure that {claim:claim}",
    family="Order of events",
    example="Make sure that FORCE is the top card of deck",
)
def make_sure(b: Builder) -> None:
    """A claim in the middle, judged where it stands: a path on which it is not so fails here.

    Nobody needs to know yet whether it is so.
    """
    _keep_to(b, "claim")


@step(
    "Make sure that {claims:claims}",
    family="Order of events",
    example="Make sure that FORCE is in hand or KEY is in hand",
)
def make_sure_several(b: Builder) -> None:
    """Several claims in the middle: with *and* all must be so, with *or* one; a path on which it is not so fails here."""
    _keep_to(b, "claims")


def _keep_to(b: Builder, slot: str) -> None:
    judged = b.claimed(slot)

    def run(cells: Cells) -> None:
        if not judged.holds(cells):
            raise Impossible(judged.explain(cells))

    b.act(run)


@step(
    "As long as {claim:claim}:",
    family="Order of events",
    example="As long as FORCE is in deck:",
    facets=(Facet.DOER_SEES,),
)
def while_so(b: Builder) -> None:
    """The lines indented below again and again, as long as it is so; it is asked anew before each time round.

    A name given inside is another one each time round, and is not known behind the block.
    """
    _go_on(b, "claim")


@step(
    "As long as {claims:claims}:",
    family="Order of events",
    example="As long as FORCE is in deck and size of deck is more than 5:",
    facets=(Facet.DOER_SEES,),
)
def while_several(b: Builder) -> None:
    """The lines indented below again and again: with *and* as long as all of it is so, with *or* as long as any is.

    A name given inside is another one each time round, and is not known behind the block.
    """
    _go_on(b, "claims")


def _go_on(b: Builder, slot: str) -> None:
    def goes_on() -> Callable[[Sequence[Any]], bool]:
        return b.asked(slot).holds

    b.loop(goes_on, None)


@step(
    "Ends with: {claims:claims}",
    family="Endings",
    phase=ENDING,
    example="Ends with: FORCE is the top card of deck or KEY is the top card of deck",
    facets=(Facet.JOINS_CLAIMS,),
    wordings=(
        "[either] top or bottom card [of {place}] (be|is) {card} => claims=either end; score=3",
        "[either] top or bottom card [of {place}] (be|is) (theirs|their) => claims=either end; card=theirs; score=3",
    ),
)
def ends_several(b: Builder) -> None:
    """Several claims in one ending: with *and* all of them must come out, with *or* at least one on every path."""
    judged = b.claimed("claims")
    b.check(judged.holds, judged.explain)
