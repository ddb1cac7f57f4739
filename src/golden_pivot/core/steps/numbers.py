"""Numbers the spectator decides on, and when the performer learns them."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import TYPE_CHECKING, Any

from ..language.facets import Facet
from ..language.templates import SPECTATOR
from ..language.values import range_text
from .declare import CHANCE, freely, step

if TYPE_CHECKING:
    from ..building import Builder


def _number_freely(values: Mapping[str, Any]) -> str:
    number, verb = range_text(values.get("number")), values["verb"]
    if "think" in verb:
        return f"You {verb.split()[0].removesuffix('s')} of any number{number}"
    return f"You {'named' if verb == 'names' else 'chose'} any number{number}"


@step(
    "Spectator {secretly?secretly} {verb=names|chooses|thinks of} a number {number:range}",
    family="Choices",
    example="Spectator names a number n from 20 to 29",
    says="{verb} any number {number}{secretly}.",
    free=_number_freely,
    by=SPECTATOR,
    wordings=(
        "ask [them] for a (small|little) number => verb=names; number=1 to 10; who=spectator; score=0",
        "ask [them] for a number [,] not too (big|large|high) => verb=names; number=1 to 20; who=spectator; score=1",
        "any number [,] {number} => verb=names; who=spectator; score=0",
        "(say|name|give) any number [,] {number} => verb=names; who=spectator; score=0.5",
        "number {number} [?] => verb=names; who=spectator; score=-1",
        "(settle on|decide on|fix on) [a|any] number {number} => verb=chooses; who=spectator; score=0.5",
        "(name|give|say) my [lucky|favourite] number [,] [anything] {number} => verb=names; who=spectator; score=1",
        "(get|take|have|obtain) [a|any] number {number} => verb=names; who=spectator; score=-1",
        "(name|say|give) [a|any] number [,] [say] {number} => verb=names; who=spectator; score=0.4",
        "(choose|pick) [a|any] number [,] [say] {number} => verb=chooses; who=spectator; score=-0.4",
        "think of [a|any] number [,] [say] {number} => verb=thinks of; secretly=yes; who=spectator; score=0.4",
        "(call out|name|say|give|shout) [a|any] {number} => verb=names; who=spectator; score=-1.5",
        "(have|ask for|get) [a|any] number {number} (name|call out|say|shout|give) => verb=names; who=spectator; score=1",
        "(have|ask for|get) [a|any] number {number} (think of|think|choose|write down) => verb=thinks of; secretly=yes; who=spectator; score=1",
        "ask [them] for [a|any] number {number} => verb=names; who=spectator; score=1",
        "(for|give|say|call out|name|shout) [a|any] [lucky|favourite|whole] number [,] [anything] {number} => verb=names; who=spectator; score=0.5",
        "(call out|name|say|give|shout) [a|any] (2-digit|2-figure) number {number} => verb=names; who=spectator; score=1",
        "whisper [a|any] number {number} [to] [their|a] [neighbour|friend|person beside them|person next to them|them] => verb=chooses; secretly=yes; who=spectator; score=1",
        "[a|any] number (be) (write|write down|jot down|note) [by them] [,] {number} [,] [and] [keep secret|keep hidden|show to nobody|keep to them] => verb=chooses; secretly=yes; who=spectator; score=1",
        "[a|any] number {number} (be) (write|write down|jot down|note) => verb=chooses; secretly=yes; who=spectator; score=1",
        "[in] [their] [mind|head] [they] (settle on|decide on|choose|pick|fix on) [a|any] number {number} => verb=thinks of; secretly=yes; who=spectator; score=1",
        "(settle on|decide on|fix on) [a|any] number {number} => verb=chooses; who=spectator",
        "(name|give|say) their [lucky|favourite] number [,] [anything] {number} => verb=names; who=spectator; score=1",
        "(choose|pick|think of|decide on) [any|a] number {number} and write it down => verb=chooses; secretly=yes; who=spectator; score=1",
        "write down [any|a] number {number} => verb=chooses; secretly=yes; who=spectator",
        "(choose|pick|select|think of) a number {number} and (tell you|tell me|say it|tell it|announce it|name it|say it out loud) => verb=names; who=spectator; score=2",
        "(think of|think) [of] (a|any) {number} number => verb=thinks of; secretly=yes; who=spectator",
        "(name|call out|say|choose|pick|give) (a|any) {number} number => verb=names; who=spectator",
        "for (a|any) {number} number => verb=names; who=spectator",
        "(choose|pick|select) (a|any) number {number} => verb=chooses; who=spectator; score=-0.5",
        "(write down|jot down) a number {number} => verb=chooses; secretly=yes; who=spectator",
        "(think of|choose) [a] number {number} => verb=thinks of; secretly=yes; who=spectator",
        "say any number {number} => verb=names; who=spectator",
        "(name|say|give) {number} => verb=names; who=spectator; score=-1",
        "NAME (any|a|out any|1|something) [number|in] {number} => verb=names",
        "NAME [a|any] number {number} => verb=names",
        "(call out|shout out|name|say|give|call|shout|choose|pick) [any|a|something] [number] {number} => verb=names; who=spectator",
        "(pick|choose) a number {number} => verb=names; who=spectator",
        "(call out|shout out|name|say|choose) (something|any number|a number|1) {number} => verb=names; who=spectator",
        "for a small number => verb=names; number=small; who=spectator",
        "a small number => verb=names; number=small; who=spectator",
        "NAME a small number => verb=names; number=small; who=spectator",
        "for a number {number} => verb=names; who=spectator",
        "(a|any) number {number} => verb=names; who=spectator",
        "a number {number} be name => verb=names; who=spectator",
        "(think of|think|settle on|decide on|have in mind) (a|any|some) number {number} => verb=thinks of; secretly=yes; who=spectator",
        "(think of|think) [of] (a|an) (hour|hour of day|month|day) [of day|of year] [,] {number} => verb=thinks of; secretly=yes; who=spectator",
        "think of a (small|little) number => verb=thinks of; secretly=yes; number=small; who=spectator",
        "(think of|think) [of] a month => verb=thinks of; secretly=yes; number=1 to 12; who=spectator",
        "(think of|think) [of] a (weekday|day of week) => verb=thinks of; secretly=yes; number=1 to 7; who=spectator",
        "(name|call out|choose|pick) (any|a) number => verb=names; number=1 to 52; score=-4; who=spectator",
        "[any|a] number {number} (be|is) (name|call|choose|say) => verb=names; who=spectator",
        "(name|call|choose|say) [any|a] number {number} => verb=names; who=spectator",
    ),
)
def choose_number(b: Builder) -> None:
    """The spectator decides on a whole number, anything from the first to the second, both included.

    You learn it at once, unless the line says *secretly*: then no line of yours may use it until the
    spectator tells it. In a repetition it is another number each time round.
    """
    b.choose_number("number", secret=b.flag("secretly"))


@step(
    "Spectator tells {names:names}",
    family="Choices",
    example="Spectator tells n",
    says="Now you may say it aloud.",
    facets=(Facet.TELLS,),
    by=SPECTATOR,
    wordings=(
        "what be (number|their number) => who=spectator; names=last; score=1",
        "[ask] (for|for their) (number|it) => who=spectator; names=last; score=1",
        "ask (number|their number|it) => who=spectator; names=last; score=0.5",
        "(number|their number|it) be (say|name|call|announce|tell|reveal) [aloud|out loud|out|now] => who=spectator; names=last; score=1",
        "(announce|say|reveal|tell|call out|give) (it|number|their number|that number) [aloud|out loud|out|now|to all] => who=spectator; names=last",
        "what [their] number (be|is) => who=spectator; names=last",
        "(say|tell you|reveal) what (it|number) (be|is) => who=spectator; names=last",
        "(how many [cards] they (take|have|cut off|cut|hold|hide|deal)|what [number] they (think of|choose|pick)|their number|number) => who=spectator; names=last",
        "(announce|call out|tell|tell you|tell me|say|reveal|name) (it|that|their number|number|how many [there be|they have|they take]|their secret number|number out loud) => who=spectator; names=last; score=1",
        "[ask] (how many) they (take|have|cut off|cut) => who=spectator; names=last",
        "tell you (number|their number|it|how many) => who=spectator; names=last",
        "tell number => who=spectator; names=last",
    ),
)
def tell(b: Builder) -> None:
    """You learn numbers that were chosen secretly before. From here on your lines may use them."""
    b.tell("names")


@step(
    "Spectator {secretly?secretly} chooses values {names:names}, each from {low:number} to {high:number},"
    " at most {most:number} alike",
    family="Choices",
    firm=("low", "high", "most"),
    free=freely("You chose every number yourself"),
    example="Spectator chooses values a, b, c, each from 1 to 9, at most 4 alike",
    says="Choose values from {low} to {high}, at most {most} of a kind{secretly}.",
    by=SPECTATOR,
    wordings=(
        "(make up|choose|name|think of|pick) {count} [spot] values [,] {low} (to|through|~) {high} => most=count; names=letters; who=spectator",
    ),
)
def choose_values(b: Builder) -> None:
    """As many numbers as there are names, such as the values of cards laid out, within what one pack allows.

    *At most 4 alike*: a pack has four cards of a value.
    """
    low, high, most = b.constant("low"), b.constant("high"), b.constant("most")
    if low > high or most < 1:
        raise b.fault("low", "No values are like that.", "the smaller number first, at least 1 alike", "Change them.")
    names = b.line.values["names"]
    kept: int | None = None
    """cell of the values chosen so far that may still come to be too many"""
    for left, name in zip(range(len(names) - 1, -1, -1), names, strict=True):
        b.reads = {kept} if kept else set()

        def earlier(cells: Sequence[Any], kept: int | None = kept) -> tuple[int, ...]:
            return cells[kept] if kept else ()

        def options(cells: Sequence[Any], earlier: Callable[..., tuple[int, ...]] = earlier) -> Sequence[int]:
            return [v for v in range(low, high + 1) if earlier(cells).count(v) < most]

        value = b.choose("names", name, b.flag("secretly"), options)

        def counted(
            cells: Sequence[Any],
            earlier: Callable[..., tuple[int, ...]] = earlier,
            value: Callable[..., int] = value,
            left: int = left,
        ) -> tuple[int, ...]:
            values = sorted([*earlier(cells), value(cells)])
            return tuple(v for v in values if values.count(v) + left > most)

        if left:
            kept = b.reckon(counted, b.reads | {b.scope.numbers[name]}, "values so far")


@step(
    "Spectator {secretly?secretly} points to {which=a|another} pile: {name:name}",
    family="Choices",
    firm=("which",),
    example="Spectator points to a pile: p",
    says="Point to {which} pile{secretly}.",
    facets=(Facet.PILE_NUMBER,),
    free=freely("You pointed to any pile"),
    by=SPECTATOR,
    wordings=(
        "(choose|pick|select|touch|point to|name) (1|any|any 1) of (piles|heaps|packets|columns|3|them) => who=spectator; score=2",
        "have [a|1] (pile|heap|packet|column) (choose|pick|touch|point to|name|select|indicate) => who=spectator; score=1",
        "POINT 1 of {count} (piles|heaps|packets|pile|heap|packet) => which=a; who=spectator",
        "POINT (a|1|any) [of] (piles|heaps|pile|heap|packet) [freely] => which=a; who=spectator",
        "POINT another [1] => which=another; who=spectator",
        "(either|a|1) (pile|heap|packet) be (choose|point to|pick|touch) => which=a; who=spectator; score=1",
        "(choose|pick|select) either (pile|heap|packet) => which=a; who=spectator; score=1",
        "POINT [to|at] (a|any|1|1 of|either|1 of 2|any 1 of|whichever) [of] (pile|heap|packet|column|hand|piles|heaps|packets|half|1) [they like|they fancy|they want|you like] => which=a; who=spectator",
        "(point to|choose|touch|indicate|pick|select|name) 1 => which=a; who=spectator; score=-2",
        "(choose|point to|touch|pick|point at) (another|a different|other|a 2nd) (pile|heap|packet|column|1) => which=another; who=spectator; score=1",
        "POINT [to|at] [a|1 of|any|1] (pile|heap|packet) => which=a; who=spectator",
    ),
)
def choose_pile(b: Builder) -> None:
    """Any of the piles last dealt or laid down that have cards. The number is the pile's, pile 1 being the first.

    *Another* pile is none of those pointed to before. Afterwards a line may speak of *pile p*, and with two piles
    of *pile 3 - p*, the other one.
    """
    piles, earlier = b.piles(), tuple(b.scope.pointed)
    if b.phrase("which") == "another" and not earlier:
        raise b.fault("which", "No pile has been pointed to yet.", "“a pile”", "Write “a pile”.")
    barred = earlier if b.phrase("which") == "another" else ()
    if barred:
        b.goes_by("pointed")
    b.reads |= set(barred)
    name = b.phrase("name")

    def options(cells: Sequence[Any]) -> Sequence[int]:
        taken = {cells[cell] for cell in barred}
        return [number for number, pile in enumerate(piles, start=1) if cells[pile] and number not in taken]

    b.choose("name", name, b.flag("secretly"), options)
    b.scope.pointed = (*barred, b.scope.numbers[name])


@step(
    "Chance decides on a number {number:range}[, each as likely as {weight:number}]",
    family="Choices",
    firm=("weight",),
    wordings=(
        "draw a number {number} (out of|from) [a] (hat|bag|box|urn) => score=2",
        "(roll|throw) (1|a) (die|dice) => number=1 to 6; score=1",
    ),
    example="Chance decides on a number n from 1 to 6",
    by=CHANCE,
)
def chance(b: Builder) -> None:
    """A number that nobody chooses, anything from the first to the second; you see it. Every one must work.

    For the odds all are equally likely; or each weighs as much as a number reckoned from it, such as *7 - n*.
    """
    b.choose_number("number", secret=False, weight="weight" if b.given("weight") else None, by_chance=True)
