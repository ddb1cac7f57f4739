"""Cards counted from heap to heap, one at a time."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from ..language.arithmetic import letters_in
from ..language.facets import Facet
from ..layouts import HEAP, ROW
from ..search.program import Cells, Reader
from .declare import freely, step

if TYPE_CHECKING:
    from ..building import Builder


def deals(b: Builder, count: Reader) -> None:
    """The common part: this many cards go from `from` to `to`, each onto the last or beside it in a row."""
    reads, source, row = frozenset(b.reads), b.source("from"), b.phrase("row")
    to = b.destination("to", "row" if row else "dealt", layout=ROW if row else HEAP, apart_from=source)
    rightwards = row == "from left to right"
    enough, laid = b.enough_cards(source, count), b.laid("way")
    counted = b.now_dealt(source, to, last_at_end=rightwards)

    def run(cells: Cells) -> None:
        cells[counted] = n = enough(cells)
        heap, there = source.of(cells), to.of(cells)
        block = laid(heap[:n])
        source.put(cells, heap[n:])
        to.put(cells, there + block if rightwards else block[::-1] + there)

    def passing(cells: Sequence[Any]) -> bytes:
        heap = source.of(cells)[: max(0, count(cells))]
        return heap + laid(heap)

    b.act(run, count, passing, to, splits=b.takes(source, count, reads))


@step(
    "{who} deal+s {count:number} {#count} from {from:place}[ {way=face up|face down}][ to {to:place}]"
    "[, {row=from left to right|from right to left}]{shielded?, shielded}",
    family="Counting",
    does="dealing turns the order round",
    heard=(
        ("the order kept", "{who} count+s {count} cards from {from} to {to}, each under the last"),
        ("the order kept", "{who} count+s {count} cards from {from}, each under the last"),
    ),
    example="Deal 10 cards from deck to table",
    says="Deal {count} {#count} from {from}[ {>to}], one at a time[, {row}][, {way}].",
    singly=True,
    wordings=(
        "DEAL top {count} [cards] [from {from}] => score=1",
        "DEAL {from} [singly] {down} => count=all; score=-1.5",
        "DEAL {from} [singly] {down} 1 (by 1|at a time) => count=all; score=0",
        "{count} cards [,] deal [{down}] => score=0.5",
        "deal face up a row of {count} [cards] [,] [start on left|from left|begin at left] => way=face up; row=from left to right; score=2",
        "deal a row of {count} [cards] [,] [start on left|from left|begin at left] => row=from left to right; score=1",
        "take off {count} cards => needs=singly; score=1",
        "take off {count} cards => needs=reversed; score=1",
        "[a] (heap|pile|packet) of {count} [cards] be deal => to=table; score=1",
        "deal [a] (heap|pile|packet) of {count} [cards] => to=table; score=1",
        "count down {count} [cards] [,] deal [them] [face down] => score=1",
        "DEAL [down] to {count} [,] {down} => score=-2.9",
        "DEAL [down] to {count} [,] face up [,] [{down}] => way=face up; score=-2",
        "DEAL same number [of cards] [from {from}] as [be] (cut off|cut|lift|take) => count=size of hand; from=deck; score=1.5",
        "DEAL as many [cards] [from {from}] as (you|they) (cut off|cut|take off|lift|hold|have|take|keep|pocket) => count=size of hand; from=deck; score=1.5",
        "DEAL as many [cards] as (you|they) (cut off|cut|take off|lift|hold|have|take|keep) [from {from}] => count=size of hand; from=deck; score=1.5",
        "(give|hand|pass) them {count} cards [,] (1 at a time|1 by 1|singly) => to=hand; score=1",
        "DEAL next {count} [cards] => score=1",
        "slide {count} cards off [top] [of {from}] (1 at a time|1 by 1|singly) => score=1",
        "DEAL {count} [cards] [{down}] [,] (turn each face up|turn each 1 face up|turn each over) => way=face up; score=1",
        "(count off|count out|count) {count} [cards] [,] deal [them] {down} => score=1",
        "from {from} deal {count} [cards] => score=1",
        "from {from} deal {count} [cards] {down} => score=1.5",
        "DEAL {count} [cards] [,] (singly|1 by 1|1 at a time) [,] {down} => score=1",
        "put {count} cards {down} (singly|1 by 1|1 at a time) => score=1",
        "DEAL as many [cards] (off|from) {from} as they have [them] [,] => count=size of hand; score=1",
        "(count|count off|count out) {count} [cards] [off] [top] [,] {down} => score=0.5",
        "{count} cards => needs=target; score=-1",
        "count off {count} cards to table [1 by 1] => score=-2",
        "DEAL {count} [cards] back (on|onto|ontop|to) {to} => from=moved; score=1.5",
        "DEAL {count} [cards] back [ontop] => from=moved; to=deck; score=1.5",
        "DEAL off {count} cards",
        "DEAL {count} of them",
        "put down {count} cards => needs=singly; to=table",
        "turn up {count} cards 1 by 1 => way=face up; score=-2",
        "DEAL {count} [more|further] [cards|card]",
        "LAY {count} [cards|card] => needs=row",
        "DEAL {count} cards => score=0.5",
        "deal face up {count} cards => way=face up",
        "(count off|count out|count) {count} [cards] => needs=reversed",
        "count off {count} => score=-1",
        "DEAL [down] to {count} => score=-3",
        "deal down to (it|number|that number|their number) => count=number",
        "DEAL a card => count=1",
        "DEAL {count} cards off {from}",
        "deal off {count}",
        "LAY {count} cards => way=face up; score=-3",
        "DEAL {count} [cards] [,] reverse them => score=1",
    ),
)
def deal(b: Builder) -> None:
    """Cards go one at a time from the top of a heap, each onto the last, so that their order reverses.

    Without a *to*, they make the heap called *dealt*. Cards already there stay underneath. *From left to right*
    lays them side by side in a row instead. *Shielded*: backs and faces are kept out of sight during this line,
    which is assumed, not proved.
    """
    deals(b, b.number("count"))


@step(
    "{who} {secretly?secretly} deal+s from {from:place}[ {way=face up|face down}][ to {to:place}]"
    " until {stopper=the spectator says|you say} stop, after {number:range} cards"
    "[, {row=from left to right|from right to left}]",
    family="Counting",
    does="dealing turns the order round",
    example="Deal from deck to table until the spectator says stop, after n from 5 to 30 cards",
    says="Deal from {from}[ {>to}], one at a time, until {stopper} stop[, {row}][, {way}]{secretly}.",
    singly=True,
    free=freely("You said stop when you liked"),
    wordings=(
        "DEAL [cards] [{down}] [1 at a time|1 by 1|singly] (until|till) tell [to] stop => stopper=the spectator says; number=1 to pack; score=2",
        "DEAL [cards] [{down}] (1 at a time|1 by 1|singly) (until|till) they (say|call|shout|tell you to|tell me to) stop => stopper=the spectator says; number=1 to pack; score=3",
        "DEAL [cards] [slowly] [,] they (stop you|stop me|say stop|call stop) [,] {number} => stopper=the spectator says; score=2.5",
        "stop deal (when|whenever|where) they (tell you|say so|say|want|like|say stop|call stop) [,] {number} => stopper=the spectator says; score=3",
        "stop deal (when|whenever|where) they (tell you|say so|say|want|like|say stop|call stop) => stopper=the spectator says; number=1 to pack; score=2",
        "(keep|go on|carry on|start) deal [cards] [face down] [{down}] (until|till) (they|people) (say|call|shout|call out) stop [,] {number} => stopper=the spectator says; score=3",
        "(keep|go on|carry on|start) deal [cards] [{down}] (until|till) (they|people) (say|call|shout|call out) stop => stopper=the spectator says; number=1 to pack; score=2",
        "(keep|go on|carry on|start) deal face up [{down}] (until|till) (they|people) (say|call|shout|call out) stop [,] {number} => stopper=the spectator says; way=face up; score=4",
        "(keep|go on|carry on|start) deal face up [{down}] (until|till) (they|people) (say|call|shout|call out) stop => stopper=the spectator says; number=1 to pack; way=face up; score=3",
        "DEAL [off] [cards] (until|till) (they|people) (say|call|shout|call out) stop [,] {number} => stopper=the spectator says; score=3",
        "DEAL as (many|few) [cards] as they like => stopper=the spectator says; number=1 to pack; who=spectator; score=1",
        "DEAL [cards] [1 by 1] [{down}] (until|till) they (call|say|shout|tell you to|tell you|want you to|ask you to) [out] stop => stopper=the spectator says; number=1 to pack; score=2",
        "DEAL [cards] (until|till) they (stop you|say when|feel like stop) => stopper=the spectator says; number=1 to pack; score=2",
        "DEAL [off] as many [cards] as they (like|please|want|fancy|wish) => stopper=the spectator says; number=1 to pack; who=spectator; secretly=yes; score=2",
        "DEAL a few [cards] => stopper=the spectator says; number=few; who=spectator; secretly=yes; score=2",
        "DEAL [some|a number of] cards [{down}] and stop (whenever|when) they [feel like it|like|want|please] => stopper=the spectator says; number=1 to pack; who=spectator; score=3",
        "DEAL cards [{down}] [,] (stop|and stop) (whenever|wherever|where|when) they (like|want|feel like it|please) => stopper=the spectator says; who=spectator; number=1 to pack; score=3",
        "DEAL as many [cards] as they like [{down}] [,] {number} => stopper=the spectator says; who=spectator; secretly=yes; score=3",
    ),
)
def deal_to_stop(b: Builder) -> None:
    """Cards are dealt one by one until a stop is called; the number dealt is a new number with its range.

    Whoever counts along learns it, unless the line says *secretly*.
    """
    new = b.line.values["number"].name
    b.choose_number("number", secret=b.flag("secretly"))
    cell = b.scope.numbers[new]
    b.reads.add(cell)
    deals(b, lambda cells: int(cells[cell]))


@step(
    "{who} spell+s {word:word} from {from:place}[ {way=face up|face down}][ to {to:place}]"
    "[, {row=from left to right|from right to left}]",
    family="Counting",
    does="a card a letter, so that their order turns round",
    example="Spell “lantern” from deck to table",
    says="Spell {word} from {from}[ {>to}], a card for each letter.",
    singly=True,
    wordings=(
        "(for each|for every) letter of {word} DEAL (a|1) card => score=2",
        "spell word {word} [,] (a|1) card (per|for each|for every) letter [,] [{down}] => score=2",
        "spell [out] [my|their|a] name [:|,] {word} => score=2",
        "spell [out] [my|their] [first] name {word} => score=2",
        "spell {word} [,] (deal|put down|lay down|count|thumb off) (1|a) [card] (per|for each|for every|a|each) letter [{down}] => score=2",
        "spell [word] {word} [,] (a|1) card (per|for each|for every) letter => score=2",
        "spell [word|out|out word] {word} [,] [a card|1 card|1|deal a card] [for each letter|a letter|for every letter|to each letter|per letter]",
        "DEAL (a card|1 card|1) (for each|for every|per) letter of {word}",
        "spell {word} with {from}",
        "spell word {word} [with {from}]",
        "spell {word} , deal",
        "DEAL (a card|1) for each letter (in|of) [word] {word}",
    ),
)
def spell(b: Builder) -> None:
    """A card is dealt for each letter, each onto the last. Spaces and marks do not count.

    The last letter's card is *the last card dealt*.
    """
    letters = letters_in(b.phrase("word"))
    deals(b, lambda cells: letters)


@step(
    "{who} spell+s {word:word} from {from:place}, a card to the bottom for each letter, the last to {to:place}"
    "[, {row=from left to right|from right to left}]",
    family="Counting",
    does="a card a letter goes to the bottom",
    example="Spell “anchor” from deck, a card to the bottom for each letter, the last to table",
    says="Spell {word} from {from}, a card to the bottom for each letter, the last {>to}.",
    singly=True,
    wordings=(
        "(move|put|pass|transfer|duck|shift) (1|a) card (to bottom|under|underneath) for (each|every) letter of {word} [,] [and] [but] last [1|card] (go|be put|be lay|be deal|come) {down} => score=3",
        "spell {word} [,] (move|put|duck|shift|pass|transfer) (a|1) card [from top] [to bottom|under|underneath] (for each|for every|per|each) letter [,] [and] (deal|put down|lay down|keep|turn up) (last|last 1|last card|final 1|final card) => score=3",
        "spell {word} ... (bottom|under) ... (last|final) [1|card] (to|goes to|go) {to} => from=moved or deck; score=2",
        "(duck|move|transfer|put|deal|slip) (1|a card) [to bottom|under|underneath] [to bottom] for (each|every) letter of {word} [,] [but] (final|last) [1|card] (go|goes|be keep|is keep|be put|kept|stay|keep) [in|to|on] {to} => from=moved or deck; score=3",
        "spell {word} moving a card to bottom for each letter ... {to} => score=1",
    ),
)
def spell_under(b: Builder) -> None:
    """For each letter a card goes from the top to the bottom; the card of the last letter goes to the other place.

    A small heap is gone through more than once. *From left to right* makes a row of the cards that come so.
    """
    letters, row = letters_in(b.phrase("word")), b.phrase("row")
    source = b.source("from")
    to = b.destination("to", layout=ROW if row else HEAP, apart_from=source)
    rightwards = row == "from left to right"
    counted = b.now_dealt(source, to, last_at_end=rightwards)

    def run(cells: Cells) -> None:
        heap, there = source.of(cells), to.of(cells)
        b.within_heap(source, 1, len(heap))
        moved = (letters - 1) % len(heap)
        heap = heap[moved:] + heap[:moved]
        cells[counted] = 1
        source.put(cells, heap[1:])
        to.put(cells, there + heap[:1] if rightwards else heap[:1] + there)

    def passing(cells: Sequence[Any]) -> bytes:
        return source.of(cells)[:letters]

    b.act(run, lambda cells: letters, passing, to)


@step(
    "{who} {secretly?secretly} deal+s cards from {from:place}[ to {to:place}] down to {card:card}: {names:names}",
    family="Counting",
    does="dealing turns the order round",
    example="Deal cards from deck to table down to MARK: c",
    says="Deal from {from}[ {>to}], one at a time, until you come to {card}{secretly}.",
    singly=True,
    sees="the faces as they are dealt",
    finds=("card",),
    facets=(Facet.SEEKS,),
    wordings=(
        "count down to {card} => names=new; score=1",
        "deal [down] to {card} => names=new; score=0",
        "deal [cards] [face up] [{down}] [face up] (until|till|down to|as far as) [they come to|you come to|you reach|they reach|come to|comes to|reach] [their] [own] {card} [arrive|turn up|appear|come|arrives|appears|turns up|come up|show up] [,] [keep count|count as you go] => names=new; score=2",
        "deal to {card} ... count => names=new",
    ),
)
def count_to(b: Builder) -> None:
    """Cards are dealt until this card has been dealt; the number is how many that took, the card included.

    Counted aloud, the number is known to you; *secretly*, only to whoever counts.
    """
    token = b.card("card")
    source = b.source("from")
    to = b.destination("to", "dealt", apart_from=source)
    counted = b.now_dealt(source, to, last_at_end=False)
    number = b.new_number("names", b.name_of_this_round("names"), secret=b.flag("secretly"))

    def count(cells: Sequence[Any]) -> int:
        return b.found_at(source, cells, token(cells)) + 1

    def run(cells: Cells) -> None:
        cells[number] = cells[counted] = n = count(cells)
        heap, there = source.of(cells), to.of(cells)
        source.put(cells, heap[n:])
        to.put(cells, heap[:n][::-1] + there)

    def passing(cells: Sequence[Any]) -> bytes:
        return source.of(cells)[: count(cells)]

    b.act(run, count, passing, to)


@step(
    "{who} count+s {count:number} {#count} from {from:place}[ to {to:place}], each under the last",
    family="Counting",
    does="each under the last, so that the order is kept",
    heard=(
        ("dealt one on the other", "{who} deal+s {count} cards from {from} to {to}"),
        ("dealt one on the other", "{who} deal+s {count} cards from {from}"),
    ),
    example="Count 10 cards from deck to table, each under the last",
    says="Count {count} {#count} from {from}[ {>to}], each under the last.",
    singly=True,
    wordings=(
        "(run off|run|count off|count|thumb off|push off) {count} [cards] => needs=kept; score=1",
        "(run off|run|count off|count|thumb off) {count} [cards] {down} [,] (keep|without changing|without disturbing|without reversing|without change|without reverse) [their] [them] [order] => score=2",
        "(COUNT|DEAL) {count} [cards] => needs=kept; score=2",
        "COUNT {count} [cards] (from hand to hand) => to=hand; score=1",
        "(COUNT|DEAL) {count} [cards] (into|to|onto|in) (hand|table) => needs=kept; score=1",
        "COUNT {count} cards => needs=kept",
        "COUNT {count} [cards] each under last",
    ),
)
def count_under(b: Builder) -> None:
    """Cards go one at a time from the top of a heap, each beneath the last, so that their order is kept.

    Cards already at the place they go to stay on top.
    """
    count, source = b.number("count"), b.source("from")
    to = b.destination("to", "dealt", apart_from=source)
    enough = b.enough_cards(source, count)
    counted = b.now_dealt(source, to, last_at_end=True)

    def run(cells: Cells) -> None:
        cells[counted] = n = enough(cells)
        heap, there = source.of(cells), to.of(cells)
        source.put(cells, heap[n:])
        to.put(cells, there + heap[:n])

    def passing(cells: Sequence[Any]) -> bytes:
        return source.of(cells)[: max(0, count(cells))]

    b.act(run, count, passing, to)


@step(
    "{who} put+s the dealt cards {where=back on top|underneath}",
    family="Counting",
    does="they stay as they lie",
    example="Put the dealt cards back on top",
    wordings=(
        "pick up {dealt} and (put|place|return|replace) it back => where=back on top; score=1.5",
        "pick up {dealt} and (put|place|return|replace) them back => where=back on top; score=1.5",
        "(PUT) (what|all|everything) (you|they) deal [back] (ontop|on deck|ontop deck|to top) => where=back ontop; score=2",
        "(PUT) (what|all|everything) (you|they) deal [back] (underneath|under|under deck|to bottom|at bottom) => where=underneath; score=2",
        "{dealt} (be return|be put|be drop|be place|go|be restore) [back] (ontop|on deck|to top|to top of deck|ontop deck) => where=back ontop; score=1",
        "pick {dealt} up [again] [and] PUT [them|it] [back] (on|onto|ontop) [deck|top] => where=back ontop; score=2",
        "pick up {dealt} [again] and PUT (them|it) [back] (ontop|on deck|on top of deck|to top|back ontop) => where=back ontop; score=2",
        "pick up {dealt} [again] and PUT (them|it) [back] (underneath|under deck|at bottom|to bottom) => where=underneath; score=2",
        "(PUT|pick up and PUT|pick up) {dealt} [and] [return it|put it|replace it|return|drop it] [back] (to top|ontop|ontop|to top of deck|to top of pack|ontop deck|ontop deck|ontop deck|back ontop|ontop again|where it come from , ontop|on deck) => where=back ontop; score=1",
        "{dealt} (go|goes|be put|put|be return) [back] [where it come from ,] (ontop|to top|ontop deck|back ontop|on deck) => where=back ontop; score=1",
        "(PUT) {dealt} (underneath|under|to bottom|at bottom|on bottom|beneath|under deck|at bottom of deck|to bottom of deck) => where=underneath; score=1",
        "{dealt} (go|goes|be put|put|be move) [back] (to bottom|underneath|under|beneath|under deck) => where=underneath; score=1",
        "{dealt} back (ontop|ontop deck|ontop deck) => where=back ontop",
        "(PUT) {dealt} back (on|onto) (deck|pack) => where=back ontop; score=1",
        "(PUT) {dealt} [all] (on|onto|ontop) (deck|pack) => where=back ontop; score=2",
        "(PUT) {dealt} [back] => where=back ontop; score=0",
    ),
)
def put_dealt(b: Builder) -> None:
    """The heap that was just dealt goes back, as it lies, onto or under the heap it was dealt from."""
    deal = b.last_deal()
    source, dealt = deal.source, deal.to
    on_top = b.phrase("where") == "back on top"
    b.moves(dealt, source)

    def run(cells: Cells) -> None:
        heap, moving = source.of(cells), dealt.of(cells)
        dealt.put(cells, b"")
        source.put(cells, moving + heap if on_top else heap + moving)

    b.act(run, to=source)


@step(
    "{who} drop+s the rest on top",
    does="the rest stays as it lies",
    family="Counting",
    example="Drop the rest on top",
    wordings=(
        "PUT (deck|pack) ontop => score=1.5",
        "PUT everything else (ontop|on them|on it|on those|ontop them) => score=2",
        "PUT (all others|others|all other cards|other cards) (ontop|on them|on it|ontop them) => score=1",
        "{rest} (be add|be lay|be place|be set|be return) ontop => score=1",
        "PUT {rest} (ontop|on them|on it|ontop them|ontop them|on those|ontop dealt cards|ontop cards they deal|on dealt cards|ontop of cards they deal|ontop of dealt cards|ontop all) => score=2",
        "{rest} (ontop|go ontop|goes ontop|go on them|be drop ontop|drop ontop|be put ontop) => score=2",
        "PUT {rest} ontop => score=2",
    ),
)
def drop_rest(b: Builder) -> None:
    """The rest of the heap just dealt from goes on the dealt cards; together they are that heap again."""
    deal = b.last_deal()
    source, dealt = deal.source, deal.to
    b.moves(dealt, source)

    def run(cells: Cells) -> None:
        heap, moving = source.of(cells), dealt.of(cells)
        dealt.put(cells, b"")
        source.put(cells, heap + moving)

    b.act(run, to=source)
