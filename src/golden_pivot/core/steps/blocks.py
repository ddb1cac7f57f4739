"""Blocks of cards that move or turn without being counted out one by one."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import TYPE_CHECKING, Any

from ..cards import DOWN, FLIP, UP
from ..faults import Impossible
from ..language.facets import Facet
from ..language.values import range_text
from ..search.program import Cells, Reader
from .declare import step

if TYPE_CHECKING:
    from ..building import Builder


def _cut_off_freely(values: Mapping[str, Any]) -> str | None:
    return f"You cut off as many as you liked{range_text(values['choice'])}" if values.get("choice") else None


def _cut_freely(values: Mapping[str, Any]) -> str | None:
    return None if values.get("depth") and not values.get("choice") else "You cut where you liked"


@step(
    "{who} put+s {from:place} {where=on|under} {to:place}",
    does="both stay as they lie",
    family="Blocks",
    example="Put table on deck",
    says="Put the cards from {from} {where} {to}.",
    wordings=(
        "{from} back (at|on|to) bottom => where=under; to=deck; score=1",
        "{from} back (ontop|to top) => where=on; to=deck; score=1",
        "(put|bring|get) everything [back] together [,|:] {from} (on|ontop|onto) {to} => where=on; score=2",
        "(put|bring|get) everything [back] together [,|:] {from} (under|below|beneath) {to} => where=under; score=2",
        "(discard|get rid of|lay aside|put aside) {from} => where=on; to=discard; score=1",
        "(all|everything|lot|whole lot) (go|be put|be place|be return) [back] ontop => from=moved; where=on; to=deck; score=1",
        "(all|everything|lot|whole lot) (go|be put|be place|be return) [back] (underneath|under|to bottom) => from=moved; where=under; to=deck; score=1",
        "(combine|unite|join|put together) : {from} (on|ontop|onto) {to} => where=on; score=1",
        "(take|pick up|lift up) {from} [,] [and] PUT [it|them] [back] (at bottom of|to bottom of|on bottom of|under|underneath|below) {to} => where=under; score=1.5",
        "(take|pick up|lift up) {from} [,] [and] PUT [it|them] [back] (ontop|on|onto|over) {to} => where=on; score=1.5",
        "(bring everything together|put everything together|put it all together|everything together|all together) [,|:] {from} (on|ontop|onto) {to} => where=on; score=2",
        "(bring everything together|put everything together|put it all together|everything together|all together) [,|:] {from} (under|below|underneath) {to} => where=under; score=2",
        "pick up {from} [,] [and] PUT [it|them] (on|onto|ontop) {to} => where=on; score=1",
        "pick up {from} [,] [and] PUT [it|them] (under|underneath|beneath|below) {to} => where=under; score=1",
        "(reassemble|assemble|build up|rebuild) [deck|it] : {from} (on|ontop|onto|over) {to} => where=on; score=2",
        "(reassemble|assemble|build up|rebuild) [deck|it] : {from} (under|underneath|below) {to} => where=under; score=2",
        "(add|bring|join) {from} to {to} => where=on; score=0.5",
        "{from} (on|ontop|onto|over|above) {to} => where=on; score=-1",
        "{from} (under|underneath|below|beneath) {to} => where=under; score=-1",
        "{from} (go|be put|be drop|be return|be lay|be place|be set|come) [back] (on|onto|ontop|over|above) {to} => where=on; score=0.5",
        "{from} (go|be put|be drop|be return|be lay|be place|be set|come) [back] (under|underneath|below|beneath) {to} => where=under; score=0.5",
        "(slip|slide|push|tuck|pass) {from} (under|underneath|beneath) {to} => where=under",
        "(slip|slide|push) {from} (under|underneath) => where=under; to=deck",
        "{from} [go|be put] [back] (on|to|at) bottom of {to} => where=under; score=0.5",
        "{from} [go|be put] [back] ontop of {to} => where=on; score=0.5",
        "PUT {from} [back] (to|on|at) bottom of {to} => where=under; score=1",
        "PUT {from} [back] (to top of|at top of|ontop) {to} => where=on; score=0.3",
        "{from} (go|be put|come) [back] (on bottom|at bottom|to bottom) => where=under; to=deck; score=0.5",
        "pick {from} up [again] [and] PUT [them|it] (on|onto|ontop) [top of] {to} => where=on; score=1",
        "pick up {from} [again] and PUT (them|it) [back] (on|onto|ontop) {to} => where=on; score=1",
        "pick up {from} [again] and PUT (them|it) [back] (under|underneath|below) {to} => where=under; score=1",
        "pick up {from} [again] and PUT (them|it) [back] ontop => where=on; to=deck; score=1",
        "PUT [back] {from} (on|onto|ontop) {to} => where=on",
        "cover {to} with {from} => where=on",
        "bury {to} under {from} => where=on",
        "PUT {from} (at|on|to) (face|bottom) of {to} => where=under; score=0.5",
        "PUT [back] ontop => from=moved; where=on; to=deck; score=1",
        "PUT [back] (under|underneath) => from=moved; where=under; to=deck; score=1",
        "PUT {from} [back] [face down] (ontop|on|onto|over|above) [top of] {to} => where=on",
        "PUT {from} [back] (under|underneath|beneath|below|to bottom of|at bottom of) {to} => where=under",
        "PUT {from} [back] (ontop|ontop|to top) => where=on; to=deck",
        "PUT {from} [back] (underneath|under|to bottom|at bottom|on bottom|beneath) => where=under; to=deck",
        "PUT {from} [back] => where=on; to=deck; score=-1",
        "{from} [go|goes] [back] (ontop|on|onto) {to} => where=on",
        "{from} [go|goes] [back] (under|underneath|beneath) {to} => where=under",
        "{from} [go|goes] [back] ontop => where=on; to=deck; score=0.5",
        "{from} (go|goes) [back] (underneath|to bottom) => where=under; to=deck",
        "assemble deck with {from} (over|ontop|on) {to} => where=on; score=1",
        "assemble (deck|pack) with {from} under {to} => where=under; score=1",
        "assemble (deck|pack) => where=on; from=moved; to=deck; score=-2",
    ),
)
def put_heap(b: Builder) -> None:
    """A whole heap goes onto or under another, as it lies. An empty place to put it on is a new heap there."""
    source, on_top = b.all_of("from"), b.phrase("where") == "on"
    to = b.destination("to", apart_from=source)

    def run(cells: Cells) -> None:
        heap, there = source.of(cells), to.of(cells)
        source.put(cells, b"")
        to.put(cells, heap + there if on_top else there + heap)

    fixed = len(source.cells) == len(to.cells) == 1
    b.act(run, to=to, stacks=(min(source.cells), min(to.cells), on_top) if fixed else None, splits=())


@step(
    "{who} {secretly?secretly} cut+s off {count:number} {#count} of {from:place}[, {choice:range},] to {to:place}",
    family="Blocks",
    does="a block keeps its order",
    heard=(
        (
            "dealt instead of lifted",
            "{who} deal+s from {from} to {to} until the spectator says stop, after {choice} cards",
        ),
        ("dealt instead of lifted", "{who} deal+s {count} cards from {from} to {to}"),
    ),
    example="Spectator secretly cuts off n cards of deck, n from 5 to 15, to hand",
    says="Cut off {count} {#count} of {from}[ {choice}] {>to}{secretly}.",
    free=_cut_off_freely,
    wordings=(
        "LIFT [a] (packet|pile|heap|block|bunch) of {count} [cards] [off] [top] => score=2.5",
        "LIFT [a] (packet|pile|heap|block|bunch) of {count} [cards] from top [of {from}] => score=2.5",
        "LIFT [off] [a] (portion|packet|bunch|batch|few) [off] [of cards] [,] [of] {choice} [cards] => score=3",
        "LIFT [a] (few|few cards) [off] [top] [of {from}] => choice=few; score=1.2",
        "(pick up|pick off|slide off) (about|roughly|around|nearly) half [of] [{from}] => choice=half; score=2",
        "LIFT [another] {count} [cards] [off] => score=0.2",
        "LIFT [off] [a] [good|bare|scant] (3rd|3rd of {from}) [off] => choice=third; score=2",
        "LIFT [off] [a] [good|bare|scant] half [of {from}] [off] => choice=half; score=1.5",
        "LIFT {choice} [cards] [off] [top] [of {from}] => score=1.5",
        "LIFT [a] (bunch|handful|clump|batch|chunk|wodge|block) [of cards] [off] [top] [of {from}] [,] {choice} => score=3",
        "LIFT [a] (bunch|handful|clump|batch|chunk|block) [of cards] [off] [top] [of {from}] => choice=some; score=1.5",
        "LIFT [a] (small|little|thin) (bunch|handful|packet|block) [of cards] [off] [top] [of {from}] => choice=few; score=1",
        "(split|divide|separate|halve) {from} [near|in|about|around|at] [middle|half|about half] [,] (top part|upper part|top half|upper half|upper portion) {down} => choice=half; score=3",
        "push off {count} [cards] => needs=block; score=2",
        "(push off|push over|thumb over|move) {count} [cards] (in a block|as a block|in 1 block|together) => score=2",
        "(put|place|drop|lay|take) top {count} [cards] [of {from}] => score=0",
        "(put|place|slip|hide) {count} cards => needs=target; score=0",
        "cut [a] (small|little) (packet|heap|bunch) => choice=few; score=0.5",
        "LIFT {count} [of them|of cards|cards] [of|off|from] [{from}]",
        "LIFT top {count} [cards] [of {from}]",
        "LIFT upper {count} [cards]",
        "LIFT [a] (small|little) (packet|heap|bunch) => choice=few; score=1",
        "LIFT (few cards|a few cards|few|a few) => choice=few; score=1",
        "LIFT [a] [small] (packet|heap) [,] [of] {choice} [cards] => score=2",
        "LIFT {choice} [cards] => score=1",
        "LIFT (about|roughly|around|nearly|approximately|almost) half [of] [{from}] => choice=half; score=2",
        "LIFT (about|roughly|around|nearly|approximately) [a] 3rd [of] [{from}] => choice=third; score=2",
        "LIFT (about|roughly|around|nearly|approximately) [a] quarter [of] [{from}] => choice=quarter; score=2",
        "LIFT [a] (packet|pile|heap|portion|some cards|any number of cards|as many as they like|as many cards as they like|bunch of cards) => choice=some; score=0",
        "as many [cards] as (you|they) like [,] into (their|my) hand [,] but leave me a few => who=spectator; choice=1 to most; to=hand; secretly=yes",
        "LIFT any number [of cards] {choice} => score=2",
        "LIFT half => choice=half; score=-1",
    ),
)
def cut_off(b: Builder) -> None:
    """The top cards are lifted off as a block and put, as they lie, on the cards at another place.

    With *n from 5 to 15,* their number is a new one, which you learn unless the line says *secretly*.
    """
    if b.given("choice"):
        b.choose_number("choice", secret=b.flag("secretly"))
    count, source = b.number("count"), b.source("from")
    to = b.destination("to", apart_from=source)
    enough = b.enough_cards(source, count)

    def run(cells: Cells) -> None:
        n, heap, there = enough(cells), source.of(cells), to.of(cells)
        source.put(cells, heap[n:])
        to.put(cells, heap[:n] + there)

    b.act(run, to=to)


@step(
    "{who} {secretly?secretly} cut+s {place:place}[ at {depth:number}[, {choice:range},]] and complete+s the cut",
    family="Blocks",
    does="a complete cut keeps the round order",
    example="Spectator cuts deck and completes the cut",
    says="Cut {place}[ after {depth} {#depth}][ {choice}] and complete the cut{secretly}.",
    free=_cut_freely,
    wordings=(
        "PUT {depth} [cards] (on|to|at) bottom (1 by 1|1 at a time|singly) => score=1",
        "cut (about|near|roughly|somewhere) [in|at|near] (middle|centre|half) [and] [complete] [cut|it] => place=deck; score=1",
        "cut [{place}] (about|near|roughly) [in|at] (middle|centre|half) [and] [complete] [cut|it] => place=deck; score=1",
        "[1|a] card from top to bottom => depth=1; score=1",
        "from top to bottom [,] (1|a) card => depth=1; score=1",
        "{depth} cards from top (go|be put|be move) (underneath|under|to bottom) [,] [together|as a block] => score=2",
        "cut (wherever|where|anywhere) [they|you] [fancy|like|please|want|choose] [and] (bury|complete|finish|carry|close) [cut|it] => place=deck; score=1",
        "{place} be cut [,] [and] (halves|2 halves|parts|packets|2 parts) (exchange|swap|change places|put back other way round) => score=1",
        "cut {place} [and] (swap|exchange|transpose) (halves|2 halves|packets|parts) => score=1",
        "undercut [about] [half] [{place}] => place=deck; score=1",
        "(bring|take|carry|move) [about] half [of] {place} from (bottom to top|top to bottom|underneath to top) => score=1",
        "cut [{place}] (anywhere|somewhere|freely|where they like|wherever they like) [and] [complete] [cut|it] => place=deck; score=0.6",
        "give {place} [1] (complete|straight|single|full|more|quick) cut => score=1",
        "(1|a) [complete|straight|single|quick] cut [of {place}] => place=deck; score=0.3",
        "{place} (get|receive|be give) [a|1] [single|complete|straight] cut => score=1",
        "cut [,] [and] (carry|bury|finish|square) [cut] => place=deck; score=1",
        "MOVE (top card|1 card|a card|top 1) [from top] (to bottom|under|to bottom of {place}|underneath) => depth=1; score=1",
        "MOVE {depth} [cards] from top to bottom [,] 1 at a time => may=singly; score=2",
        "MOVE top {depth} [cards] to bottom [of {place}] => score=2",
        "{depth} cards from top to bottom => score=1",
        "PUT top {depth} [cards] (at|on|to) bottom => score=1",
        "complete cut at {depth} => score=1",
        "cut {depth} cards to bottom => score=1",
        "give them (deck|it) to cut => who=spectator; place=deck",
        "(deck|cards) (be|get) cut [and] complete => place=deck",
        "{place} cut",
        "cut {place} and complete [it|cut]",
        "cut {place} [,] [and] complete cut",
        "cut {place} => score=0.4",
        "cut => place=deck",
        "cut (,|and) complete [cut|it] => place=deck; score=1",
        "cut {place} and cut complete => score=1",
        "give {place} a [complete|straight|full|single|good] cut",
        "give (it|cards|them) a cut",
        "cut [exactly] {depth} [cards] (to bottom|under|from top to bottom) [of {place}] => score=1",
        "MOVE {depth} [cards] (from top to bottom|from top of {place} to bottom|to bottom|from top to bottom of {place}|under|underneath) [of {place}] [1 at a time] [,] => score=1",
        "{depth} [cards] (go|goes|be move|move) (from top [of {place}] to bottom|to bottom) [of {place}] [1 at a time] => may=singly; score=2",
        "MOVE any number of cards {choice} from top to bottom => score=2",
        "MOVE {choice} [cards] from top to bottom => score=1",
        "complete cut => place=deck; score=-3",
        "cut {place} at {depth} => score=1",
        "cut {place} anywhere",
        "(that many|so many) cards (go|move) from top to bottom of {place} => depth=number; score=2",
    ),
)
def cut(b: Builder) -> None:
    """The top part of a heap goes to the bottom, as it lies.

    Without a depth, whoever cuts may cut anywhere: 0 cards to all but one, which leaves the round order as
    it is; nobody learns how deep. With *at n, n from 10 to 20,* the depth is a new number.
    """
    place = b.source("place")
    if b.given("choice"):
        b.choose_number("choice", secret=b.flag("secretly"))
    depth = b.number("depth") if b.given("depth") else b.choose_depth(place)

    def run(cells: Cells) -> None:
        heap, n = place.of(cells), depth(cells)
        b.within_heap(place, n, len(heap))
        place.put(cells, heap[n:] + heap[:n])

    b.act(run)


@step(
    "{who} cut+s {place:place} to bring {card:card} to the {end=top|bottom}",
    family="Blocks",
    does="a complete cut keeps the round order",
    finds=("card",),
    example="Cut deck to bring MARK to the top",
    facets=(Facet.SEEKS,),
    wordings=(
        "cut [{place}] [so] [that] {card} (be|come|go|get|end up|finish|arrive) [to|at|on] (top|ontop) => end=top; place=deck; score=1",
        "cut [{place}] [so] [that] {card} (be|come|go|get|end up|finish|arrive) (to|at|on) (bottom|face) => end=bottom; place=deck; score=1",
        "(bring|get|take) {card} to (top|ontop) (with|by) [a] [single] (cut|cut {place}) => end=top; place=deck; score=1",
        "(bring|get|take) {card} to (bottom|face) (with|by) [a] [single] (cut|cut {place}) => end=bottom; place=deck; score=1",
        "(look for|find|spot) {card} and cut (it|{place}) [back] (to bottom|so that it be at bottom|to it) => end=bottom; score=1",
        "(look for|find) {card} and cut (it) [back] to top => end=top; score=1",
        "cut {place} so that {card} (become|becomes|be|is|come|comes) [to] [face card|bottom card|bottom|at bottom|on bottom|to bottom] => end=bottom; score=1",
        "cut {place} (so that|to bring) {card} (become|becomes|be|is|come|comes|to|go) [to] [on] (top card|top|ontop|ontop) => end=top; score=1.5",
        "cut (at|to) {card} [so] [that] it (end up|ends up|come|comes|be|is) [to|on] (ontop|ontop|to top|top) => end=top; score=1",
        "cut {card} (to|back to) bottom => end=bottom; score=1",
        "cut {card} (to|back to) top => end=top; score=1",
        "bring {card} to top => end=top",
        "bring {card} to bottom => end=bottom",
        "cut (at|to) {card} => end=top; score=-1",
        "cut so that {card} (be|come|go) to bottom => end=bottom",
        "cut at {card} so it end up ontop => end=top; score=2",
    ),
)
def cut_to(b: Builder) -> None:
    """A complete cut that brings a card to the top, or to the bottom.

    Whoever cuts must be able to tell it: face up, by its back, cut short, or having noted its face.
    """
    token, place, below = b.card("card"), b.source("place"), int(b.phrase("end") == "bottom")

    def run(cells: Cells) -> None:
        heap = place.of(cells)
        n = b.found_at(place, cells, token(cells)) + below
        place.put(cells, heap[n:] + heap[:n])

    b.act(run)


@step(
    "{who} turn+s over the top {count:number} {#count} of {place:place} as a block",
    family="Blocks",
    does="a block turned over has its order turned round",
    heard=(("the whole heap turned over", "{who} turn+s {place} over"),),
    example="Turn over the top 4 cards of deck as a block",
    says="Turn over the top {count} {#count} of {place}, all together.",
    shows=True,
    wordings=(
        "TURN {count} [cards] as 1 ontop [of] [{place}] => score=2",
        "TURN [over] (top|upper) {count} [of {place}] [over|face up|as a block] => score=0.5",
        "TURN [over] top {count} [cards] [over] (as 1|together|as a block|in 1|as 1 card|in 1 go) => score=2",
        "TURN {count} [cards] [over] [ontop] (as 1|together|as a block|in 1 go) => score=1.5",
        "TURN [over] top {count} [cards] [over] => needs=block; score=2",
        "TURN {count} [cards] over together ontop [of] [{place}] => score=2",
        "TURN top {count} [cards] over together => score=2",
        "TURN [over] {count} [cards] [over] [ontop] [of] [{place}] => needs=block; score=1",
        "TURN top {count} [cards] as 1 => score=2",
        "(cut or |)TURN over top {count} as 1 => score=-5",
    ),
)
def turn_block(b: Builder) -> None:
    """The top cards are lifted together and turned over together: their order reverses, every face flips."""
    count = b.number("count")
    reads, place = frozenset(b.reads), b.source("place")
    enough, flip, takes = b.enough_cards(place, count), b.flip, b.takes(place, count, reads)

    def run(cells: Cells) -> None:
        n, heap = enough(cells), place.of(cells)
        place.put(cells, flip(heap[:n]) + heap[n:])

    b.act(run, splits=takes)


@step(
    "{who} turn+s {place:place} over",
    family="Blocks",
    does="the whole order turns round",
    example="Turn deck over",
    heard=(("each card turned where it lies", "{who} turn+s every card of {place} over where it lies"),),
    shows=True,
    wordings=(
        "{place} (face up|over|upside down) => score=-1",
        "TURN {place} over",
        "TURN over {place}",
        "TURN {place} => way=face up; score=-1",
        "TURN {place} face up",
        "TURN {place} face down",
        "flip {place} [over] [face up|face down]",
        "TURN {place} (upside down|the other way up)",
    ),
)
def turn_over(b: Builder) -> None:
    """A whole heap is turned over: its order reverses and every face flips."""
    place, flip = b.source("place"), b.flip

    def run(cells: Cells) -> None:
        place.put(cells, flip(place.of(cells)))

    b.act(run, splits=())


@step(
    "{who} insert+s {from:place} into {to:place}[, its top card {position:position}]",
    family="Blocks",
    does="what lies above stays there",
    example="Spectator inserts hand into deck",
    says="Put the cards from {from} back into {to}[, so that its top card is {position}].",
    free=lambda values: None if values.get("position") else "You put them back where you liked",
    wordings=(
        "INSERT {from} [back] to (middle|centre) [of {to}] => to=deck; score=1.5",
        "{from} (go|be put|be return|be lose|be bury|be slip|be push|be replace|be insert) [back] [somewhere|anywhere] [in|into|near] (middle|centre) [of {to}] => to=deck; score=1.5",
        "INSERT {from} [back] [in|into] [{to}] [,] [its|their|with] top card [be|come|lie|go] [at|in] {position} => to=deck; score=2",
        "{from} (go|be put|be return|be lose|be bury|be slip|be push) [back] (anywhere|somewhere) [in|into] [{to}] => to=deck; score=1.5",
        "{from} (go|be put|be return|be lose|be bury|be slip|be push) [back] (in|into) [middle of|centre of] {to} => score=1",
        "INSERT {from} (in|into) {to} [so] [that] [1st|top] [of them|card|1] (be|come|lie|go) [at|to|in] {position} => score=2",
        "INSERT {from} [back] (in|into|to) {to} at {position} => score=1",
        "INSERT {from} [back] (anywhere|somewhere) => to=deck; score=1",
        "INSERT {from} [back] (anywhere|somewhere|back) (in|into) deck => to=deck; score=1.5",
        "have {from} replace anywhere => to=deck; who=spectator",
        "INSERT {from} [back] (anywhere|somewhere) (in|into) {to} => score=2",
        "INSERT {from} [back] (in|into|to|in middle of|into middle of|into centre of|in centre of|into middle|in middle|into centre|in centre|anywhere) [of] [{to}] => score=1.5",
        "INSERT {from} [back] in [middle|centre] => to=deck; score=1.5",
        "INSERT {from} [back] [in] {position} => to=deck; score=-1",
        "INSERT {from} in {position} [from top] => to=deck; score=-1",
        "bury {from} => to=deck; score=1",
        "lose {from} in {to}",
    ),
)
def insert(b: Builder) -> None:
    """A whole heap goes into another as a block, as it lies: so that its top card comes to this position. Of no cards nothing changes.

    Without a position it is buried anywhere, on top and at the bottom too, and every place must work.
    """
    source = b.source("from")
    to = b.destination("to", apart_from=source)
    b.reads |= to.cells | to.reads
    if b.given("position"):
        at = b.index("position", b.line.values["position"], to)

        def at_position(cells: Sequence[Any]) -> int:
            lies = len(to.of(cells))
            # Of no cards nothing changes; it gets stuck where one card could not come either.
            index = at(cells, lies + max(1, len(source.of(cells))))
            if index > lies:
                raise Impossible(f"{to.name} has only {lies} cards to lie above it")
            return index

        above: Reader = at_position
    else:

        def depths(cells: Sequence[Any]) -> Sequence[int]:
            source.find(cells)  # without such a heap there is nothing to choose
            return range(len(to.of(cells)) + 1)

        above = b.choose_unnamed(f"depth in line {b.line.number}", "cards above it", True, depths)

    def run(cells: Cells) -> None:
        n, heap, block = above(cells), to.of(cells), source.of(cells)
        source.put(cells, b"")
        to.put(cells, heap[:n] + block + heap[n:])

    b.act(run, to=to)


@step(
    "{who} turn+s every card of {place:place} over where it lies",
    family="Blocks",
    does="the order stays",
    example="Turn every card of hand over where it lies",
    heard=(("turned over as one block", "{who} turn+s {place} over"),),
    says="Turn every card of {place} over where it lies, one by one.",
    shows=True,
    wordings=(
        "TURN [over] (cards|all cards|every card|each card) (in|of) {place} [over|face up] (1 by 1|1 at a time|singly|individually) => score=2",
        "TURN [over] {place} [over|face up] (card by card|1 by 1|1 at a time|singly) => score=2",
        "TURN (each|every) card [of {place}] [over|face up] (singly|1 at a time|1 by 1|where it lie|individually|in its place|in place) => score=2",
        "TURN (all|all cards|cards) [of {place}] [over|face up] (singly|1 at a time|1 by 1|where they lie|individually) => score=2",
        "TURN (each|every) card of {place} over [individually] [,] [keep its place|where it lie|1 by 1|in place|in its place] => score=2",
        "go along {place} [,] [and] TURN (each|every) card [face up|over] => score=2",
        "TURN (each|every) card (of|in) {place} [over|face up] [where it lie] => score=2",
        "TURN all cards (of|in) {place} over 1 by 1 => score=2",
    ),
)
def turn_each(b: Builder) -> None:
    """The cards are turned one by one and stay in their order: only the faces flip."""
    place, flips = b.source("place"), b.follows_faces

    def run(cells: Cells) -> None:
        heap = place.of(cells)  # there may be no such place
        if flips:
            place.put(cells, heap.translate(FLIP))

    def passing(cells: Sequence[Any]) -> bytes:
        return place.of(cells) + place.of(cells).translate(FLIP)

    b.act(run, lambda cells: len(place.of(cells)), passing)


@step(
    "{who} turn+s {spot:spot} {way=over|face up|face down}",
    family="Blocks",
    example="Turn the top card of deck face up",
    shows=True,
    wordings=(
        "top card [of {place}] (face up|over) => spot=its top; way=face up; score=0",
        "turn down {spot} => way=face down; score=0.5",
        "(expose|reveal|show face of|turn up|face) {spot} => way=face up; score=0.5",
        "(turn|flip) {spot} face upward => way=face up",
        "TURN [up|over] {spot} [over] [face up] [and leave it ...] => way=face up; score=0.5",
        "TURN {spot} [over] [face down] => way=over; score=0",
        "TURN {spot} face up => way=face up; score=1",
        "TURN {spot} face down => way=face down; score=1",
        "TURN {spot} over => way=over; score=1",
    ),
)
def turn_card(b: Builder) -> None:
    """One card is turned where it lies; no card changes its place."""
    spot, faces = b.spot("spot"), b.follows_faces
    turned = {"over": FLIP, "face up": UP, "face down": DOWN}[b.phrase("way")]
    b.changed_where_it_lies(spot.place)

    def run(cells: Cells) -> None:
        place, at = spot.find(cells)
        heap = cells[place]
        if faces:
            cells[place] = heap[:at] + heap[at : at + 1].translate(turned) + heap[at + 1 :]

    b.act(run)
