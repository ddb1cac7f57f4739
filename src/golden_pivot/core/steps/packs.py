"""The pack and what is prepared in it before the routine begins."""

from __future__ import annotations

from typing import TYPE_CHECKING

from ..cards import MAX_CARDS, RANKS, mate_of
from ..language.facets import Facet
from ..language.sorts import sort_behind
from .declare import HANDLING, SETUP, step

if TYPE_CHECKING:
    from ..building import Builder


@step(
    "Pack: {count:number} {#count}[, {order=any order}]",
    family="Set-up",
    phase=SETUP,
    example="Pack: 52 cards, any order",
    facets=(
        Facet.PACK,
        Facet.COUNTED_PACK,
        Facet.NO_ORDER,
    ),
    domains={"count": range(2, 61)},
    wordings=(
        "[a] [piquet] (deck|packet) of {count} [cards] [,] [shuffle|mix|any order] => order=any order; score=1",
        "[you] [need|will need|use|take] a deck without jokers => count=52; order=any order; score=1",
        "a deck [,] jokers (remove|out|take out) => count=52; order=any order",
        "[a|any] (full|whole|complete|normal|ordinary|regular|standard) deck [,] [well|thoroughly] [shuffle|mix|any order] => count=52; order=any order; score=1",
        "{count} cards [,] any [1|old|cards|order] => order=any order; score=1",
        "[a|any] (regular|normal|ordinary|standard|complete) deck => count=52; order=any order",
        "[you will need|need|you need|take|use] a (deck|packet) of {count} [cards] => order=any order",
        "[any] {count} cards [from] [any] [deck] => order=any order; score=-3",
        "(take|use|count off|remove) {count} cards [from] [a] [shuffled] [deck] => order=any order; score=-2",
        "[use] [a] borrowed deck => count=52; order=any order",
        "any deck [will do] => count=52; order=any order",
        "[a] packet of {count} [cards] => order=any order",
        "{count} (assorted|random|mixed|indifferent|odd) cards => order=any order",
        "(deck|cards) (be|get) (shuffle|mix) [first] => count=52; order=any order; score=-4",
        "[you need|use|take|with] [a|just|only|all you need be] [borrowed] [,] [shuffled|ordinary|well-shuffled|any|mixed] (deck|pack|pack of cards|deck of cards) [will do] => count=52; order=any order",
        "[a] full (deck|pack) => count=52; order=any order",
        "[a] (deck|pack) [of] [52] [cards] [shuffled] => count=52; order=any order",
        "[a] full (deck|pack) (plus|with|and) [both|2] jokers => count=54; order=any order",
        "short (pack|deck) [,] ... => count=32; order=any order",
        "piquet (pack|deck) => count=32; order=any order",
        "[you need|use|take|all you need be|need|only|all you need is] {count} [or so] cards [only] [are] [plenty|enough|will do|of any kind|any] => order=any order",
        "{count} [or so] cards (be plenty|are plenty|are enough|will do|suffice) => order=any order",
        "[you need] [just|only] {count} cards ... => order=any order; score=-2",
        "{count} cards [in this order from top] => score=-3",
    ),
)
def pack(b: Builder) -> None:
    """The cards in play, as the heap called deck, face down. Every routine begins with its pack.

    From 1 to 120 cards. Nothing is known of their order; one proof covers every order as long as no line
    looks at the face of a card that was not placed.
    """
    count = b.constant("count")
    if not 1 <= count <= MAX_CARDS:
        raise b.fault(
            "count",
            f"A pack of {count} cards cannot be played.",
            f"from 1 to {MAX_CARDS} cards",
            "Two packs with their jokers make 108.",
        )
    b.lay_pack(count)


@step(
    "Place {card:card} {position:position}{up?, face up}{odd?, with an odd back}{short?, cut short}[, the mate of {mate:card}]",
    family="Set-up",
    phase=SETUP,
    example="Place FORCE 10th",
    facets=(Facet.PLACED,),
    wordings=(
        "(put|place|set|get|bring|have|keep) {card} {position} [,] (face up|reverse) => up=yes; score=1.5",
        "(bottom card|face card|bottom) [:|be] {card} => position=at the bottom; score=1",
        "(top card|top) [:|be] {card} => position=on top; score=-0.5",
        "{card} at {position} => score=1",
        "[a] (odd-backed|odd-back|strange-backed|blue-backed|red-backed) card (be|lie|go|sit) [at|in] {position} => card=MARK; odd=yes; score=1",
        "have {card} {position} => score=1",
        "{card} (lie|be|sit|stand) (reverse|face up) [at|in] {position} => up=yes; score=1",
        "{card} (lie|be|sit|stand) {position} [,] (reverse|face up) => up=yes; score=1",
        "{card} , (reverse|face up) , [at|in] {position} => up=yes; score=1",
        "[a] card with [a|another] [odd|different|strange|other|red|blue] back (lie|be|go|sit) [at|in] {position} => card=MARK; odd=yes; score=1",
        "(put|place|set|get|bring|cull|move) {card} (to|at|in|into|as) {position}",
        "ontop [of] [deck] (lie|be|sit|come) {card} => position=on top",
        "at bottom [of] [deck] (lie|be|sit) {card} => position=at the bottom",
        "{card} (go|be put|be place) [to|at|in] {position}",
        "{card} (be|go|lie) ontop [of] [deck] => position=on top",
        "{card} (be|go|lie) (at|on) (bottom|face) [of] [deck] => position=at the bottom",
        "have {card} ontop => position=on top",
        "{position} (be|come|lie) {card} => score=-0.5",
        "start with {card} {position}",
        "{card} be {position} card [of deck]",
        "(put|place|set|get|have|slip|stack|cull|arrange) {card} {position}",
        "{card} [go|be|is|lie|lies|sit|sits|start|starts] [at] {position} [from top]",
        "{card} {position} [from top]",
        "(put|place|set) {card} {position} from top",
        "{card} (go|be|is|lie) {position} from top [of deck]",
        "{card} {position} from top",
        "{card} (reverse|reversed|face up) [at|on] {position} => up=yes",
        "turn {card} face up and (set|put|place) it {position} => up=yes",
        "(put|place|set) {card} face up {position} => up=yes",
        "(put|place) {card} {position} face up => up=yes",
        "(reverse|turn over) {card} (at|and put it|and place it) {position} => up=yes",
        "[their] (partner|mate|twin) [,] {card} [,] (be|is|go|lie) {position} => mate=previous",
        "its (partner|mate|twin) , {card} , (be|is|go|lie|lies) {position} => mate=previous",
    ),
)
def place_card(b: Builder) -> None:
    """A card you know lies at this position of the pack when the routine begins.

    Positions count from 1 at the top, or from the bottom when the line says so. *Face up* turns it over where
    it lies; *with an odd back* makes it one that can be told from its back: a marker, or a card of another
    pack. *Cut short* is a key that the fingers find and nobody sees. A real card such as queen of hearts has its value and suit, and its mate is the card of the same
    value and colour; any two cards can be declared mates.
    """
    at, end = b.constant_position("position")
    b.check_position("position", at, end)
    index = at - 1 if end == "top" else len(b.pack) - at
    b.place_in_pack("card", index, b.flag("up"), b.flag("odd"), position_slot="position")
    if b.given("mate"):
        b.declare_mates("card", b.phrase("mate"))


@step(
    "Place {cards:listed} in this order, the first {position:position}{up?, face up}",
    family="Set-up",
    phase=SETUP,
    example="Place two of clubs, nine of hearts, jack of spades in this order, the first 12th",
    facets=(Facet.PLACED_LISTED,),
)
def place_several(b: Builder) -> None:
    """Cards you know lie one under the other, from this position on down, when the routine begins."""
    at, end = b.constant_position("position")
    b.check_position("position", at, end)
    first = at - 1 if end == "top" else len(b.pack) - at
    for index, name in enumerate(b.line.values["cards"], start=first):
        b.place_in_pack("cards", index, face_up=b.flag("up"), name=name)


@step(
    "Pack: {suits:suits}, each from {first:rank} to {last:rank}{mirrored?, then their mates mirrored}",
    family="Set-up",
    phase=SETUP,
    example="Pack: spades, hearts, each from seven to queen",
    facets=(
        Facet.PACK,
        Facet.ORDERED_PACK,
    ),
)
def pack_in_order(b: Builder) -> None:
    """A pack whose order you know, as the heap called deck, face down: one suit after the other from the top.

    Each suit runs from the first value to the last, upwards or downwards; ace is the lowest. *Mirrored*: the mate of the top card
    lies at the bottom, that of the second card above it, and so on to the middle.
    """
    first, last = (RANKS.index(b.phrase(slot)) for slot in ("first", "last"))
    suits = b.line.values["suits"]
    if len(set(suits)) < len(suits):
        raise b.fault("suits", "A suit is there twice.", "each suit once", "Leave one out.")
    step = 1 if first <= last else -1
    names = [f"{RANKS[i]} of {suit}" for suit in suits for i in range(first, last + step, step)]
    if b.flag("mirrored"):
        mates = [str(mate_of(name)) for name in reversed(names)]
        if not set(mates).isdisjoint(names):
            raise b.fault("suits", "Two of these suits are mates themselves.", "suits of which none is the mate of another, such as clubs, hearts",
                          "Leave one of each colour out.")  # fmt: skip
        names += mates
    b.lay_pack(len(names))
    for index, name in enumerate(names):
        b.place_in_pack("suits", index, name=name)


@step(
    "Arrange the pack {sorts:sorts} in turn",
    family="Set-up",
    phase=SETUP,
    example="Arrange the pack red, black in turn",
    says="Arrange the pack so that from the top its cards are {sorts} in turn, whichever they are.",
    facets=(Facet.ARRANGED_BY_SORT,),
    wordings=(
        "(arrange|set|stack|order|put) [whole|full] deck so that (colours|reds and blacks|red and black) alternate => sorts=red, black; score=3",
        "deck (alternate|be alternate) (red and black|in colour|colours) => sorts=red, black; score=2",
        "[with|of] (alternating colours|colours alternating) => sorts=red, black; score=1",
    ),
)
def arrange_in_turn(b: Builder) -> None:
    """You know of the cards of the pack that colours, or suits, follow each other in turn from the top; more is not known.

    What is proved holds whichever cards these are.
    """
    sorts = [sort_behind(word) for word in b.line.values["sorts"]]
    b.arrange("sorts", [sorts[i % len(sorts)] for i in range(len(b.pack))])


@step(
    "Arrange the pack, from the top: {blocks:blocks}",
    family="Set-up",
    phase=SETUP,
    example="Arrange the pack, from the top: 26 red cards, 26 black cards",
    says="Arrange the pack so that from the top there are {blocks}, in whatever order among themselves.",
    facets=(Facet.ARRANGED_BY_SORT,),
    wordings=(
        "[have] (all|) (reds|red cards) (ontop|above|over) (blacks|black cards) => blocks=26 red cards, 26 black cards; score=2",
        "(separate|part) (reds and blacks|red and black cards) => blocks=26 red cards, 26 black cards; score=2",
    ),
)
def arrange_in_blocks(b: Builder) -> None:
    """You know how many cards of a colour, or of a suit, lie together in the pack, from the top; more is not known.

    Within each of these blocks the order is any order.
    """
    blocks, size = b.line.values["blocks"], len(b.pack)
    if (count := sum(many for many, _ in blocks)) != size:
        raise b.fault(
            "blocks", f"These are {count} cards, and the pack has {size}.", f"{size} cards in all", "Change it."
        )
    b.arrange("blocks", [sort_behind(word) for many, word in blocks for _ in range(many)])


@step(
    "Place four of a kind {position:position}[, their value {name:name}]",
    family="Set-up",
    phase=SETUP,
    example="Place four of a kind on top, their value v",
    says="Bring four cards of one value, whichever it is, together {position} of the pack.",
    facets=(Facet.ARRANGED_BY_SORT,),
    wordings=(
        "(get|bring|cull|put|place|set|have|arrange) [any|all] (4|four) of a kind (to|at|on|ontop|in) [the] [top] [of] [deck] => position=on top; score=2",
        "(get|bring|cull|put|place|set|have|arrange) [any|all] (4|four) of a kind [to|at|on] [the] bottom [of] [deck] => position=at the bottom; score=3",
        "[any] (4|four) of a kind (be|lie|go) ontop [of deck] => position=on top; score=2",
        "(get|bring|put|place|set|have) [any] (4|four) of a kind {position} => score=1",
    ),
)
def place_four(b: Builder) -> None:
    """Four cards of the same value lie together when the routine begins; you settle which value, and what is proved holds for each.

    The first of them is at the position, or the last where that counts from the bottom. Which of the four lies where is any
    order. With a name their value is a number you know.
    """
    at, end = b.constant_position("position")
    b.check_position("position", at, end)
    b.four_of_a_kind("position", at - 1 if end == "top" else len(b.pack) - at - 3)


@step(
    "Pack: {suits:suits} in turn, each value {by:number} more than the last, from {first:rank}",
    family="Set-up",
    phase=SETUP,
    example="Pack: clubs, hearts, spades, diamonds in turn, each value 3 more than the last, from ace",
    facets=(Facet.PACK, Facet.ORDERED_PACK),
    domains={"by": range(1, 13)},
)
def pack_cyclic(b: Builder) -> None:
    """A pack whose order you know, in which suits follow each other in turn and values go up by a step, round and round.

    With four suits these are all 52 cards, with one suit 13. Cut anywhere it is such a pack again. Common practice, no published source.
    """
    suits, step, first = b.line.values["suits"], b.constant("by"), RANKS.index(b.phrase("first"))
    if len(set(suits)) < len(suits) or not 1 <= step < len(RANKS):
        slot = "by" if len(set(suits)) == len(suits) else "suits"
        raise b.fault(slot, "Some cards would come twice.", "each suit once, and a step from 1 to 12", "Change it.")
    names = [
        f"{RANKS[(first + i * step) % len(RANKS)]} of {suits[i % len(suits)]}" for i in range(len(RANKS) * len(suits))
    ]
    b.lay_pack(len(names))
    for index, name in enumerate(names):
        b.place_in_pack("suits", index, name=name)


@step(
    "Place {card:card} in {place:place}{up?, face up}{odd?, with an odd back}",
    family="Set-up",
    phase=SETUP,
    example="Place MARKER in pocket, with an odd back",
    facets=(
        Facet.EXTRA_CARD,
        Facet.NO_ORDER,
    ),
    wordings=(
        "(hide|put|place|leave|conceal) {card} (in|inside|under) {place} [,] face up => up=yes; score=1",
        "(hide|conceal|stow) {card} (in|inside|under) {place} => score=1",
        "[a|1] (spare|extra|odd|additional) {card} (be|lie|wait|rest) (in|on|at) {place} => score=1",
        "{card} (be|lie|wait|rest) on {place} => score=-2",
        "[a] (extra|2nd|duplicate|another) {card} with a (red|blue|odd|different|strange) back (lie|be|wait) in {place} => odd=yes; score=1",
        "[a] (extra|duplicate|2nd) {card} (lie|be|wait) in {place}",
        "{card} with a (red|blue|odd|different) back (lie|be|wait) in {place} => odd=yes; score=1",
        "(leave|put|place|have|keep) {card} (in|inside|on) {place} => score=-1",
        "(leave|put|place|keep|have) {card} face up (in|inside|on) {place} => up=yes",
        "{card} [be|lie|lies|is] [already|wait|waits] (in|inside) {place}",
        "[a] (blue-backed|red-backed|odd-backed) {card} (wait|waits|be|lie|is) (in|inside) {place} => odd=yes",
        "[a] {card} [wait|waits|lie|lies] (in|inside) {place}",
    ),
)
def place_extra(b: Builder) -> None:
    """A card beside the pack lies ready at another place, on those that are there already."""
    b.lay_extra("card", "place", face_up=b.flag("up"), odd_back=b.flag("odd"))


@step(
    "Assumed: {what:text}",
    family="The page",
    phase=HANDLING,
    example="Assumed: a false cut",
    facets=(Facet.ASSUMPTION,),
)
def assumed(b: Builder) -> None:
    """Something you do that the proof takes on trust: a false cut, a glimpse, a force. Nothing moves.

    The verdict names it.
    """
    b.assume(b.phrase("what"))
