"""Mixes that are not as free as they look: each is one fixed permutation of the heap."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from math import comb
from typing import TYPE_CHECKING, Any

from ..language.facets import Facet
from ..search.program import Cells
from .declare import freely, step

if TYPE_CHECKING:
    from ..building import Builder
    from ..building.places import Place


@step(
    "{who} give+s {place:place} {way=an out|an in} faro",
    does="the halves are interlaced",
    family="Mixes",
    example="Give deck an out faro",
    wordings=(
        "(give|do|make) (1|a) [perfect] out-faro [shuffle] => way=an out; score=2",
        "(give|do|make) (1|a) [perfect] in-faro [shuffle] => way=an in; score=2",
        "(weave|interlace|riffle) halves (perfectly|exactly) [,] top card (stay|remain) ontop => way=an out; score=3",
        "(weave|interlace|riffle) halves (perfectly|exactly) [,] top card (go|become|come) 2nd => way=an in; score=3",
        "(do|perform|give it|give {place}|execute|make) [a|1] [perfect] (in-shuffle|in shuffle|in-faro|in faro|in weave) => way=an in; score=2",
        "(do|perform|give it|give {place}|execute|make) [a|1] [perfect] (out-shuffle|out shuffle|out-faro|out faro|out weave) => way=an out; score=2",
        "[a|1] [perfect] out-faro [shuffle] [{place}] => way=an out; score=1",
        "[a|1] [perfect] in-faro [shuffle] [{place}] => way=an in; score=1",
        "[a|1] (perfect|exact) out (shuffle|faro|weave|riffle) => way=an out; score=2",
        "[a|1] (perfect|exact) in (shuffle|faro|weave|riffle) => way=an in; score=2",
        "(do|perform|build|execute|give it|give deck) (a|1) out faro [shuffle] => way=an out; score=2",
        "(do|perform|build|execute|give it|give deck) (a|1) in faro [shuffle] => way=an in; score=2",
        "out faro [{place}] => way=an out; score=1",
        "in faro [{place}] => way=an in; score=1",
        "(a|1) (perfect|exact) out (faro|weave) => way=an out; score=1",
        "(a|1) (perfect|exact) in (faro|weave) => way=an in; score=1",
        "[1] (perfect|exact) (weave|faro|riffle) [,] keep top card ontop => way=an out; score=3",
        "out-faro [{place}] => way=an out",
        "in-faro [{place}] => way=an in",
        "(weave|faro) [halves together|{place}|cards] [exactly|perfectly] so [that] [old] top card (become|becomes|be|go) [2nd|card 2] => way=an in; score=3",
        "(weave|faro) [halves together|{place}|cards] [exactly|perfectly] so [that] [old] top card (stay|stays|remain|remains) ontop => way=an out; score=3",
        "give {place} an out [-] faro => way=an out; score=2",
        "give {place} an in faro => way=an in; score=2",
        "weave {place} => way=an out; score=-2",
    ),
)
def faro(b: Builder) -> None:
    """The heap is halved and the halves are interlaced card by card. *Out* leaves the top card on top, *in* puts it 2nd.

    With an odd number of cards the half that gives the top card is the larger one.
    """
    place, out = b.source("place"), b.phrase("way") == "an out"

    def run(cells: Cells) -> None:
        heap = place.of(cells)
        upper = (len(heap) + out) // 2
        first, second = (heap[:upper], heap[upper:]) if out else (heap[upper:], heap[:upper])
        mixed = bytearray(len(heap))
        mixed[::2], mixed[1::2] = first, second
        place.put(cells, bytes(mixed))

    b.act(run, lambda cells: len(place.of(cells)))


@step(
    "{who} push+es every second card out of {place:place} and put+s {which=the first ones|the second ones} on top",
    family="Mixes",
    does="every second card comes together",
    example="Push every second card out of deck and put the first ones on top",
)
def reverse_faro(b: Builder) -> None:
    """A faro backwards: the 1st, 3rd, 5th … card are parted from the 2nd, 4th …, keeping their order."""
    place, first = b.source("place"), b.phrase("which") == "the first ones"

    def run(cells: Cells) -> None:
        heap = place.of(cells)
        place.put(cells, heap[::2] + heap[1::2] if first else heap[1::2] + heap[::2])

    b.act(run, lambda cells: len(place.of(cells)))


@step(
    "{who} draw+s the top and bottom cards of {from:place} together onto {to:place},"
    " {way=the top card on|the bottom card on}",
    family="Mixes",
    does="top and bottom come together",
    example="Draw the top and bottom cards of deck together onto table, the top card on",
    wordings=(
        "milk {from} [,|:] ... => way=the top card on; score=1",
        "(milk|draw|pull|slide) [off] top and bottom [cards|card] [together|at same time] ... => way=the top card on; score=2",
        "(milk|draw|pull) [off] top and bottom cards [together|at same time] [,] ... => way=the top card on; score=2",
        "milk {from} => way=the top card on",
        "(milk shuffle|milk) => way=the top card on; from=deck",
        "klondike {from} => way=the top card on",
    ),
)
def klondike(b: Builder) -> None:
    """Klondike or milk shuffle: top and bottom card come off as a pair, each pair onto the last, to the end.

    Within a pair *the top card on* the bottom card, or *the bottom card on* the top one. An odd card comes last.
    """
    source, top_on = b.source("from"), b.phrase("way") == "the top card on"
    to = b.destination("to", apart_from=source)

    def run(cells: Cells) -> None:
        heap, drawn = source.of(cells), to.of(cells)
        while len(heap) > 1:
            top, bottom, heap = heap[:1], heap[-1:], heap[1:-1]
            drawn = (top + bottom if top_on else bottom + top) + drawn
        source.put(cells, b"")
        to.put(cells, heap + drawn)

    def passing(cells: Sequence[Any]) -> bytes:
        return source.of(cells)

    b.act(run, lambda cells: len(source.of(cells)), passing, to)


@step(
    "{who} deal+s {from:place} {way=down and under|under and down} to {to:place}",
    family="Mixes",
    does="every second card is dealt",
    example="Deal packet down and under to table",
    wordings=(
        "{from} [:|,] down [,] under ... => way=down and under; score=3",
        "{from} [:|,] under [,] down ... => way=under and down; score=3",
        "(do|perform|make|give) [a] down-under deal (with|of|on|through) {from} => way=down and under; score=4",
        "(do|perform|make|give) [a] under-down deal (with|of|on|through) {from} => way=under and down; score=4",
        "under [,] down (through|with|deal of|deal with) {from} => way=under and down; score=4",
        "down [,] under (through|with|deal of|deal with) {from} => way=down and under; score=4",
        "deal {from} down [,] under [,] down [,] under ... => way=down and under; score=4",
        "deal {from} under [,] down [,] under [,] down ... => way=under and down; score=4",
        "(put|move|deal) (1|a card|top card) (under|to bottom) , (deal|put) next [1] [down|on table|to table] [,] (and so on|until|till) ... => way=under and down; from=moved or deck; score=3",
        "down-under deal ... => way=down and under; from=moved or deck; score=3.5",
        "under-down deal ... => way=under and down; from=moved or deck; score=3.5",
        "deal 1 down , 1 under ... => way=down and under; from=moved or deck; score=3",
        "deal 1 under , 1 down ... => way=under and down; from=moved or deck; score=3",
        "(deal|put) 1 (on table|down) , next (under|to bottom) ... => way=down and under; from=moved or deck; score=3",
        "(put|move) (1|a card|top card) (under|to bottom) , (deal|put) [next|1] [1] (down|on table|to table) ... => way=under and down; from=moved or deck; score=3",
        "under-down deal [with {from}] ... => way=under and down; score=3",
        "down-under deal [with {from}] ... => way=down and under; score=3",
        "(keep put|put|keep putting|move) (1|a) [card] under and (throw|deal|discard|throwing|deal|put) [next|1] [1] [away|down|onto table] (till|until) ... => way=under and down; from=moved; score=2",
        "deal 1 to table and (slip|put) next under , deal 1 , slip 1 under , ... => way=down and under; from=moved; score=3",
        "deal (1|a card) (to table|down|on table) [,] [and] (slip|put|move|1) [next|1] under ... => way=down and under; from=moved; score=2",
        "(australian|down under) deal ... => way=down and under; from=moved",
        "deal {from} (down and under) ... => way=down and under; score=2",
        "deal {from} (under and down) ... => way=under and down; score=2",
    ),
)
def down_under(b: Builder) -> None:
    """One card is dealt, the next goes to the bottom, in turn until all are dealt; or first under, then down.

    *The last card dealt* is the one that remained to the end.
    """
    source, down = b.source("from"), b.phrase("way") == "down and under"
    to = b.destination("to", apart_from=source)
    counted = b.now_dealt(source, to, last_at_end=False)

    def run(cells: Cells) -> None:
        heap, dealt = source.of(cells), to.of(cells)
        cells[counted] = len(heap)
        dealing = down
        while heap:
            card, heap = heap[:1], heap[1:]
            if dealing:
                dealt = card + dealt
            else:
                heap += card
            dealing = not dealing
        source.put(cells, heap)
        to.put(cells, dealt)

    def passing(cells: Sequence[Any]) -> bytes:
        return source.of(cells)

    b.act(run, lambda cells: 2 * len(source.of(cells)), passing, to)


@step(
    "{who} give+s {place:place} an overhand shuffle",
    family="Mixes",
    example="Spectator gives deck an overhand shuffle",
    facets=(Facet.SHUFFLES,),
    free=freely("You shuffled"),
    wordings=(
        "(do|give it|give {place}|perform|use) [a] [casual|haphazard|quick|short|good|thorough] overhand shuffle => score=2",
        "overhand shuffle {place} [thoroughly|briefly] => score=1",
        "shuffle {place} overhand",
        "give {place} an overhand [shuffle|mix]",
        "overhand [shuffle] [{place}]",
        "(shuffle|mix) {place} overhand => score=2",
        "give {place} a overhand shuffle",
    ),
)
def overhand(b: Builder) -> None:
    """Packets of any size are drawn off the top, each onto the last, to the end of the heap; every way is covered.

    The order within a packet stays, the order of the packets reverses.
    """
    place = b.source("place")
    mixed = b.hidden_place("shuffled")

    def body() -> None:
        size = b.choose_unnamed(
            f"packet in line {b.line.number}", "packet", True, lambda cells: range(1, len(place.of(cells)) + 1)
        )

        def run(cells: Cells) -> None:
            heap, n = place.of(cells), size(cells)
            place.put(cells, heap[n:])
            mixed.put(cells, heap[:n] + mixed.of(cells))

        b.act(run, builds=b.builds(mixed, lambda cells: len(place.of(cells))))

    b.loop(lambda: lambda cells: bool(place.of(cells)), lambda cells: len(place.of(cells)), body)
    b.put_back(mixed, place, is_empty=True)


@step(
    "{who} mix+es {place:place} haphazardly, top packets under and bottom packets on top",
    family="Mixes",
    example="Mix deck haphazardly, top packets under and bottom packets on top",
    says="Mix {place}, packets from the top underneath, packets from the bottom on top, as you like.",
    free=freely("You mixed them as you liked"),
    wordings=("mix [{place}] (untidily|haphazardly|messily) [,] ... => score=2",),
)
def haphazard(b: Builder) -> None:
    """Packets of any size come off the top and the bottom as one likes: those from the top go under what the other
    hand holds, those from the bottom on it.

    It looks like a shuffle and is a cut.
    """
    place = b.source("place")
    mixed = b.hidden_place("shuffled")

    def body() -> None:
        def options(cells: Sequence[Any]) -> Sequence[int]:
            size = len(place.of(cells))
            return [*range(1, size + 1), *range(-1, -size - 1, -1)]

        def say(cells: Sequence[Any], option: int) -> str:
            return f"{abs(option)} from the {'top' if option > 0 else 'bottom'}"

        packet = b.choose_unnamed(f"packet in line {b.line.number}", "packet", True, options, say)

        def run(cells: Cells) -> None:
            heap, there, n = place.of(cells), mixed.of(cells), packet(cells)
            place.put(cells, heap[n:] if n > 0 else heap[:n])
            mixed.put(cells, there + heap[:n] if n > 0 else heap[n:] + there)

        b.act(run)

    b.loop(lambda: lambda cells: bool(place.of(cells)), lambda cells: len(place.of(cells)), body)
    b.put_back(mixed, place, is_empty=True)


@step(
    "{who} riffle+s {place:place} together once",
    family="Mixes",
    example="Spectator riffles deck together once",
    facets=(Facet.SHUFFLES,),
    free=freely("You shuffled"),
    wordings=(
        "[a|1] (ordinary|normal|plain|single|fair) riffle [shuffle] [,] [once] => score=1",
        "(1|a|single) riffle [shuffle] [,] [by them] => who=spectator; score=1",
        "{place} be [riffle|riffle shuffle|dovetail] [shuffle] [together] once => score=1",
        "[1|a|a single] riffle [shuffle] [once]",
        "riffle [shuffle] {place} [,] [just] [once|together|together once] => score=1",
        "(cut and give|give) {place} (a|1) [single] (riffle|dovetail) [shuffle] => score=2",
        "cut and give it a single dovetail shuffle => score=3",
        "dovetail {place} [once]",
        "give (it|them) a [single] (riffle|dovetail) [shuffle] => score=1",
    ),
)
def riffle(b: Builder) -> None:
    """The heap is cut anywhere and the two parts fall into each other in any way; every way is covered.

    For the odds, a cut after k of n cards is as likely as k heads in n tosses of a coin, and a card falls from a part
    with the share this part has of the cards still held (Gilbert, Shannon and Reeds; D. Bayer, P. Diaconis,
    "Trailing the dovetail shuffle to its lair", 1992).
    """
    place = b.source("place")
    upper = b.hidden_place("upper part")
    depth = b.choose_unnamed(
        f"cut in line {b.line.number}", "cards cut", True, lambda cells: range(len(place.of(cells)) + 1),
        odds=lambda cells, option: comb(len(place.of(cells)), option),
    )  # fmt: skip

    def cut(cells: Cells) -> None:
        heap, n = place.of(cells), depth(cells)
        upper.put(cells, heap[:n])
        place.put(cells, heap[n:])

    b.act(cut)
    _fall_together(b, upper, place)


@step(
    "{who} riffle+s {from:place} into {to:place}",
    family="Mixes",
    example="Spectator riffles table into deck",
    free=freely("You shuffled"),
    wordings=(
        "shuffle 2 (packets|heaps|halves|piles) (into 1 another|into one another|together|into each other) => from=hand; to=table; score=3",
        "(riffle|dovetail|weave) [shuffle] 2 (packets|heaps|halves|piles) (into 1 another|into one another|together) => from=hand; to=table; score=3",
        "(riffle|dovetail|weave) [shuffle] {from} into {to} => score=2",
        "(riffle|dovetail) 2 (heaps|piles|packets|halves|heap|pile|packet) (into 1 another|together|into one another) => from=pile 1; to=pile 2; score=2",
        "riffle {from} and {to} together => score=2",
    ),
)
def riffle_into(b: Builder) -> None:
    """Two heaps fall into each other card by card, in any way; every way is covered. All lie where the second lay.

    For the odds, a card falls from a heap with the share this heap has of the cards still held.
    """
    source = b.source("from")
    to = b.source("to")
    if source.cells & to.cells:
        raise b.fault("to", "These are not two heaps.", "another heap", "Name two different heaps.")
    _fall_together(b, source, to)


def _fall_together(b: Builder, upper: Place, place: Place) -> None:
    """The common part: from the bottoms of two heaps, the next card from either, onto one; it lies at `place`."""
    mixed = b.hidden_place("shuffled")
    names = (upper.name, place.name) if "line" not in upper.name else ("the upper part", "the lower part")

    def held(cells: Sequence[Any]) -> int:
        return len(upper.of(cells)) + len(place.of(cells))

    def body() -> None:
        def options(cells: Sequence[Any]) -> Sequence[int]:
            return [side for side, part in enumerate((upper, place)) if part.of(cells)]

        side = b.choose_unnamed(
            f"card in line {b.line.number}", "the next card falls from", True, options,
            lambda cells, option: names[option],
            odds=lambda cells, option: len((upper, place)[option].of(cells)),
        )  # fmt: skip

        def run(cells: Cells) -> None:
            part = (upper, place)[side(cells)]
            heap = part.of(cells)
            part.put(cells, heap[:-1])
            mixed.put(cells, heap[-1:] + mixed.of(cells))

        b.act(run, builds=b.builds(mixed, held))

    b.loop(lambda: lambda cells: held(cells) > 0, held, body)
    b.put_back(mixed, place, is_empty=True)


@step(
    "{who} shuffle+s {place:place}",
    family="Mixes",
    example="Spectator shuffles table",
    facets=(Facet.SHUFFLES,),
    free=freely("You shuffled"),
    wordings=(
        "give {place} [a] [quick|good|thorough|little|proper|fair|real] (mix|mixing|shuffle|wash|shuffling) => score=1",
        "{place} (be|get) [thoroughly|well] (shuffle|mix|jumble) [up] => score=0.5",
        "(shuffle|mix) [{place}] [as] [thoroughly|much|long] [as they like|as they please] => score=1",
        "give {place} a [quick|good|thorough|little|proper] (mix|shuffle|wash) => score=1",
        "(hand|give) out {place} (for|to be) [a] shuffle => who=spectator; score=1",
        "(hand|give) {place} [to] them (to|for) shuffle => who=spectator; score=1",
        "(hand|give) {place} out to be shuffle => who=spectator; score=1",
        "have {place} shuffle => who=spectator",
        "give them {place} to shuffle => who=spectator; score=1",
        "{place} be shuffle => score=0",
        "let them shuffle => who=spectator",
        "SHUFFLE [{place}]",
        "give {place} a [good|thorough] (shuffle|mix) => score=1",
        "SHUFFLE {place} any way they want => score=1",
        "SHUFFLE (cards|them) up => score=-1",
    ),
)
def shuffle(b: Builder) -> None:
    """A free shuffle of the whole heap: any card may come anywhere. The proof covers every order.

    A shuffle of the pack before the routine begins is *Pack: …, any order*; this one is for cards that are followed.
    """
    place = b.source("place")
    mixed = b.hidden_place("shuffled")

    def sort(cells: Cells) -> None:
        place.put(cells, bytes(sorted(place.of(cells))))  # any of them may be next, however they lie

    def by_card(cells: Sequence[Any]) -> list[tuple[int, int]]:
        heap = place.of(cells)
        return [(heap.index(card) + 1, many) for card, many in Counter(heap).items()]

    def body() -> None:
        at = b.choose_unnamed(
            f"card in line {b.line.number}", "the next card", True, lambda cells: range(1, len(place.of(cells)) + 1),
            alike=sort, grouped=by_card,
        )  # fmt: skip

        def run(cells: Cells) -> None:
            heap, i = place.of(cells), at(cells) - 1
            place.put(cells, heap[:i] + heap[i + 1 :])
            mixed.put(cells, heap[i : i + 1] + mixed.of(cells))

        b.act(run, builds=b.builds(mixed, lambda cells: len(place.of(cells))))

    b.loop(lambda: lambda cells: bool(place.of(cells)), lambda cells: len(place.of(cells)), body)
    b.put_back(mixed, place, is_empty=True)
