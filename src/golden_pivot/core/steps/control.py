"""Lines that say how often, and in which case, other lines are carried out."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from ..english import list_text
from ..language.expressions import is_settled
from ..language.facets import Facet
from .comparing import compared, has_parity
from .declare import freely, step

if TYPE_CHECKING:
    from ..building import Builder


@step(
    "Repeat {times:number} times:",
    family="Order of events",
    example="Repeat 3 times:",
    domains={"times": range(1, 9)},
    wordings=(
        "(next|following) {n} lines (be do|be repeat|be carry out) {times} times => score=2",
        "(do|repeat) (next|following) {n} lines {times} times => score=2",
        "(repeat|do) (following|this|that|these steps|all that|it all) twice => times=2; score=1",
        "(repeat|do) (following|this|that|these steps|all that|it all) thrice => times=3; score=1",
        "(do|repeat) (following|this|all this|lines below|these steps|next steps|same) {times} times [over|in all]",
        "{times} times [over] [do following]",
        "do all this {times} times",
        "[do this|repeat this|repeat] {times} times [over] [in all]",
        "{times} times over",
        "[do this|repeat|repeat this] (2 more times|twice more) => times=2; score=-3",
        "twice [over] => times=2",
        "do (all|all of) this {times} times",
    ),
)
def repeat(b: Builder) -> None:
    """The lines indented below are carried out this many times.

    A number that comes into being inside is another one each time round. Where the number of times is itself not
    settled, a name given inside is not known behind the block.
    """
    if not is_settled(b.line.values["times"]):
        b.repeat_as_told("times")
        return
    times = b.constant("times")
    if times < 1:
        raise b.fault("times", f"Nothing can be done {times} times.", "1 or more", "Change it, or remove the block.")
    with b.may_be_left():
        for turn in range(1, times + 1):
            b.body(turn)


@step(
    "If {left:number} {is=is more than|is less than|is at least|is at most|is not|is} {right:number}:",
    family="Order of events",
    firm=("left", "right"),
    example="If n is more than 10:",
    is_case=True,
    wordings=(
        "(if|when|whenever|should) {left} (be|is) (more than|over|above|greater than) {right} => is=is more than; score=0.5",
        "(if|when|whenever|should) {left} (be|is) (less than|under|below|fewer than) {right} => is=is less than; score=0.5",
        "(if|when|whenever|should) {left} (be|is) {right} => is=is; score=0",
        "(if|when|whenever|should) {left} (be|is) at least {right} => is=is at least; score=0.5",
        "(if|when|whenever|should) {left} (be|is) at most {right} => is=is at most; score=0.5",
        "{right} or (more|over|above|higher) => left=number; is=is at least; score=-1",
        "{right} or (less|fewer|under|below) => left=number; is=is at most; score=-1",
        "(should|if|when|where) they (name|say|choose|call|pick|call out|give|think of) (more than|over|above) {right} => left=number; is=is more than; score=1",
        "(should|if|when|where) they (name|say|choose|call|pick|call out|give|think of) (less than|fewer than|under|below) {right} => left=number; is=is less than; score=1",
        "(should|if|when|where) they (name|say|choose|call|pick|call out|give|think of) {right} => left=number; is=is; score=0",
        "(if|when) they (say|name|choose|call|pick|think of) {right} => left=number; is=is",
        "(if|when) they (say|name|choose|call|pick) (more than|over) {right} => left=number; is=is more than",
        "(if|when) they (say|name|choose|call|pick) (less than|under|fewer than) {right} => left=number; is=is less than",
        "(if|when|with|should) [number|it|their number|number they name|that] [be|is|comes to] (over|more than|above|greater than|higher than) {right} => left=number; is=is more than",
        "(if|when|with|should) [number|it|their number|that] [be|is] (under|less than|below|fewer than|smaller than) {right} => left=number; is=is less than",
        "(if|when|with|should) [number|it|their number|that] [be|is] {right} or (more|over|above|higher) => left=number; is=is at least",
        "(if|when|with|should) [number|it|their number|that] [be|is] {right} or (less|fewer|under|below) => left=number; is=is at most",
        "(if|when|should) [number|it|their number|that] (be|is) {right} => left=number; is=is; score=-1",
        "if (that leave you with|there be|you have|that leave) {right} (piles|heaps|pile|heap) [left] => left=number of piles; is=is; score=2",
        "if there be {right} (pile|piles|heaps) left => left=number of piles; is=is",
    ),
)
def if_compared(b: Builder) -> None:
    """The lines indented below are carried out only where the comparison holds. *Otherwise:* may follow.

    An ending inside ends the routine for these paths. Where lines of yours depend on it, you must know the
    numbers compared.
    """
    b.only_if(compared(b))


@step(
    "If {number:number} is {parity=even|odd}:",
    family="Order of events",
    firm=("number",),
    example="If n is even:",
    is_case=True,
    wordings=(
        "(for|with|on) a even number => number=number; parity=even; score=1",
        "(for|with|on) a odd number => number=number; parity=odd; score=1",
        "(if|when|should|with) [number|it|that|their number|number they name|number they (name|choose|call|say)] [be|is] [a|an] even [number] => number=number; parity=even; score=1",
        "(if|when|should|with) [number|it|that|their number|number they name|number they (name|choose|call|say)] [be|is] [a|an] odd [number] => number=number; parity=odd; score=1",
    ),
)
def if_parity(b: Builder) -> None:
    """The lines indented below are carried out only where the number is even, or odd. *Otherwise:* may follow."""
    b.only_if(has_parity(b))


@step(
    "Otherwise:",
    family="Order of events",
    example="Otherwise:",
    facets=(Facet.OTHERWISE,),
    is_case=True,
    wordings=(
        "if not",
        "in other case",
        "else",
        "otherwise",
        "if (it|number) be not",
        "failing that",
        "or else",
    ),
)
def otherwise(b: Builder) -> None:
    """Directly below an If: the lines indented here are carried out where it does not hold."""
    b.otherwise()


@step(
    "As often as {likes=the spectator likes|you like}[, {moves=one of}]:",
    family="Order of events",
    example="As often as the spectator likes:",
    free=freely("You went on as long as you liked"),
    wordings=(
        "as (many times|often|long) as they (wish|please|want|like|care to) => likes=the spectator likes; score=1",
        "{place} (may|can|be) [be] cut [by them] [,] (any number of times|as often as they like|again and again|as many times as they like) => likes=the spectator likes; after=cut; score=3",
        "as (often|many times|long) as they (like|wish|want|please) [,] they [can] cut [{place}] => likes=the spectator likes; after=cut; score=4",
        "they [can] cut [{place}] (as often|as many times) as they (like|wish|want|please) => likes=the spectator likes; after=cut; score=3",
        "cut [{place}] as (many times|often) as they please => likes=the spectator likes; after=cut; score=4",
        "(cut|cut {place}) as (many times|often) as they (please|like|want|wish) => likes=the spectator likes; after=cut; score=3",
        "everyone who want to give {place} a cut => likes=the spectator likes; after=cut; score=3",
        "go on as long as you like => likes=you like; score=2",
        "(carry on|go on|keep going|continue) as long as they like => likes=the spectator likes; score=2",
        "as (often|many times) as (they|she) (like|likes|want|please) => likes=the spectator likes",
        "as (often|long) as you like => likes=you like",
        "cut [{place}] (again and again|several times|a few times|repeatedly|any number of times|as often as they like) => likes=the spectator likes; after=cut; score=2",
        "(do|do it) [,] for as long as they like => likes=the spectator likes",
    ),
)
def as_often(b: Builder) -> None:
    """The lines indented below are carried out any number of times, or not at all; all of it is covered.

    With *one of*, each of the lines is a move by itself, and any sequence of these moves may be made. The proof
    goes on until no further round brings anything new, so nothing is sampled and there is no number of paths.
    Nothing can get a name inside.
    """
    b.as_often_as_liked(one_of=b.given("moves"))


@step(
    "Until {place:place} runs out:",
    family="Order of events",
    example="Until deck runs out:",
    wordings=(
        "(keep|go on|carry on) (do|repeat) (so|this|it|that) (until|till) {place} (be go|run out|be finish|be use up|be exhaust|be deal) => score=2",
        "(until|till) {place} (be go|run out|be finish|be use up|be exhaust|be all deal) => score=1",
        "(go on|carry on|keep going|continue|repeat|do this|do it) [this] (until|till) (no cards be left|there be no cards left|no cards remain|cards run out|cards be use up|all cards be deal|none be left|nothing be left) => place=deck; score=2",
        "[carry on|go on|keep on|continue|do this|repeat] [like this|this] (until|till) {place} (be|is) (use up|used up|exhaust|exhausted|go|finish|empty|gone|all deal|deal out) => score=1",
        "(until|till) no cards (of|in) {place} (are|be|is) left => score=1",
        "(until|till) {place} (run|runs) out",
        "(until|till) (there be|you have) no [more] cards left => place=deck",
        "[carry on|go on|continue] (until|till) they have all go => place=moved",
    ),
)
def until_out(b: Builder) -> None:
    """The lines indented below again and again, as long as a card lies there.

    Each time round must take cards from there. A name given inside is another one each time round, and is not
    known behind the block.
    """
    place = b.looked_at("place")
    b.loop(lambda: lambda cells: bool(place.of(cells)), lambda cells: len(place.of(cells)))


@step(
    "As long as {left:number} {is=is more than|is less than|is at least|is at most|is not|is} {right:number}:",
    family="Order of events",
    firm=("left", "right"),
    example="As long as size of deck is at least 5:",
    wordings=(
        "(while|as long as) (there be|you have|they have|there remain) (more than) {right} cards [in {place}] [left] => left=size; is=is more than; score=2",
        "(while|as long as) (there be|you have) [at least] {right} cards [left] [in {place}] => left=size; is=is at least; score=1",
        "(while|as long as) {place} (have|hold) (more than) {right} cards => left=size; is=is more than; score=2",
        "(while|as long as) [at least] {right} [cards] (remain|are left|be left|stay|left|are) [in {place}] => left=size; is=is at least; score=2",
        "while at least {right} cards remain in {place} => left=size; is=is at least; score=3",
        "(while|as long as) (there be|you have) (more than) {right} cards [in {place}] => left=size; is=is more than; score=2",
    ),
)
def as_long_as(b: Builder) -> None:
    """The lines indented below again and again, as long as the comparison holds.

    It is made anew before each time round. A name given inside is another one each time round, and is not known
    behind the block.
    """
    b.loop(lambda: compared(b), None)


@step(
    "Start again",
    family="Order of events",
    example="Start again",
    facets=(Facet.RESTARTS,),
    wordings=(
        "(begin|start) [all] (over|again) [with a fresh shuffle|from beginning|from start]",
        "(begin|start) all over [again] ...",
        "shuffle and (begin|start) (again|over) => score=2",
        "(do|go) over from [start|beginning]",
        "start over",
    ),
)
def start_again(b: Builder) -> None:
    """Inside a case: the routine begins anew with a shuffled pack. The verdict says how often that is.

    What follows on these paths is the routine itself once more, so nothing more needs to be shown of them.
    """
    b.start_again()


@step(
    "Leave the loop",
    family="Order of events",
    example="Leave the loop",
    wordings=(
        "break off repetition",
        "(stop|end|leave|break off) (repeat|loop|repetition|repeating) [here]",
        "no more (repeats|rounds|repetitions)",
    ),
)
def leave_loop(b: Builder) -> None:
    """Inside a case of repeated lines: these paths go on behind the repetition, whatever was still to come of it."""
    b.leave_loop()


@step(
    "End here",
    family="Order of events",
    example="End here",
    wordings=(
        "that be end [in this case]",
        "(you are|you be|you) do",
        "that (be|is) end ...",
        "end [here|there]",
        "stop here",
        "it end here",
        "routine end here",
        "that is it",
    ),
)
def end_here(b: Builder) -> None:
    """Inside a case: these paths are over, and nothing is claimed of them. The lines below are for the others."""
    b.end_here()


@step(
    "For each {name:name} of {places:places}[, {order=in any order}]:",
    family="Order of events",
    example="For each packet of hand, table, in any order:",
    wordings=(
        "(take|with|for) [each of] {places} in any order and put each on [table] => order=in any order; name=heap; after=heap; score=3",
    ),
)
def for_each(b: Builder) -> None:
    """The lines indented below once for each of these places; inside, the new name is the one whose turn it is.

    They come in the order in which they are named; *in any order*, every order must work, and you see which.
    """
    places = b.several("places")
    count = len(places)
    if not b.given("order"):
        b.for_each("name", count, lambda turn: places[turn])
        return
    orders = b.free_orders(count)

    def say(cells: Sequence[Any], option: int) -> str:
        return list_text([places[i].name for i in orders[option]])

    label = f"the order in line {b.line.number}"
    chosen = b.choose_unnamed(label, label, False, lambda cells: range(len(orders)), say)
    b.for_each("name", count, lambda turn: b.one_of(places, lambda cells: orders[chosen(cells)][turn]))


@step(
    "While demonstrating:",
    family="Order of events",
    example="While demonstrating:",
    wordings=(
        "show (them|her|people) what you mean by do it [yourself] [first|1st]",
        "(demonstrate|show them how|by way of demonstration|show what you want do|show how it be do|as a demonstration)",
        "show what you want do",
        "show them how it (work|be do)",
    ),
)
def demonstrating(b: Builder) -> None:
    """The lines indented below are done as if to explain something; they count like any others."""
    b.inside()
