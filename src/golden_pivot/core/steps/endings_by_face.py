"""What the faces of the cards must come to at the end."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from ..cards import FACE_UP, SUITS, TOKEN
from ..english import list_text, ordinal
from ..faults import Impossible
from ..language.facets import Facet
from ..search.program import ANY_FACE
from ..search.telling import Seen
from .declare import ENDING, step

if TYPE_CHECKING:
    from ..building import Builder


@step(
    "Ends with: the top cards of {places:places} have the same {what=value|suit|colour}",
    family="Endings",
    phase=ENDING,
    example="Ends with: the top cards of pile 1, pile 2, pile 3 have the same value",
    says="Turn over the top cards of {places}.",
    wordings=(
        "do 2 top cards [that be left] => places=packets; what=value; score=2",
        "2 cards put by have same value => places=singles; what=value; score=2",
        "2 cards (put|set|lay) (by|aside) have same value => places=singles; what=value; score=2",
        "(so do|and so do) 2 top cards [that be left] => places=packets; what=value; score=2",
        "top cards of {places} (have|be of|be) [same|1] value => what=value; score=2",
        "top cards of {places} (have|be of|be) [same|1] suit => what=suit; score=2",
        "[all] {n} top cards (turn out to|) (be|have) (of same value|same value|of 1 value) => places=tops; what=value; score=2",
        "all 4 top cards turn out to be of same value => places=tops; what=value; score=3",
        "[all] top cards (be|are|have) [of] same (value) => places=tops; what=value; score=2",
        "[all] top cards (be|are|have) [of] same (suit) => places=tops; what=suit; score=2",
    ),
)
def ends_alike(b: Builder) -> None:
    """A claim: the top cards go together. A card of which nothing is known goes with no other."""
    places, what = b.several("places"), b.phrase("what")
    b.ask_fact(what)
    known = b.fact_of(what)
    b.looks_everywhere = b.facts_everywhere = True

    def tops(cells: Sequence[Any]) -> list[Any]:
        heaps = [place.of(cells) for place in places]
        for place, heap in zip(places, heaps, strict=True):
            if not heap:
                raise Impossible(f"{place.name} has no top card")
        return [known(cells, heap[0] & TOKEN) for heap in heaps]

    def explain(cells: Sequence[Any]) -> str:
        shown = list_text(["not known" if found is None else _named_fact(what, found) for found in tops(cells)])
        return f"the {what}s of the top cards are {shown}"

    b.check(lambda cells: None not in (found := tops(cells)) and len(set(found)) == 1, explain)


def _named_fact(what: str, number: int) -> str:
    return str(number) if what == "value" else (SUITS if what == "suit" else ("black", "red"))[number - 1]


@step(
    "Ends with: the faces of {place:place} tell {names:names}",
    family="Endings",
    phase=ENDING,
    example="Ends with: the faces of deck tell v",
    facets=(Facet.OF_ALL_PATHS,),
    shows=True,
    wordings=(
        "1 look through faces tell (you|me) (their number|{names}|number) => names=last; place=deck; score=3",
        "faces of {place} tell [you] (their number|number|{names}) => names=last; score=2",
        "(by look at|from) faces [of {place}] (you|i) know (number|their number) => names=last; score=2",
    ),
)
def ends_told(b: Builder) -> None:
    """A claim: whoever looks through the cards at the end can say these numbers, however secretly they were chosen.

    It fails where two ways of choosing can leave the same faces in the same order and differ in one of the numbers, with the
    same pack or with another. What has been seen or told before does not count.
    """
    place = b.looked_at("place")
    if b.sorts_known:
        raise b.fault(
            "place", "What faces tell is not judged in a pack of which only the sorts are known.", "a pack in any order, or in a known one",
            "Give the pack another order.", is_limit=True,
        )  # fmt: skip
    b.ask_fact("card")
    b.ask_faces()  # which way up a card lies is seen as well
    b.looks_everywhere = b.facts_everywhere = True
    token_of = b.face_token
    b.reads.add(ANY_FACE)
    numbers = [b.number_by_name("names", name) for name in b.line.values["names"]]

    placed = b.tokens_of_set_up()

    def face(cells: Sequence[Any], token: int) -> int:
        return token_of(cells, token) or placed.get(token, 0)

    others = b.every_place() if b.has_unknown_cards else ()

    def seen(cells: Sequence[Any]) -> Seen:
        here = bytes(face(cells, byte & TOKEN) | byte & FACE_UP for byte in place.of(cells))
        beside = (cells[cell] for cell in others if cell != place.find(cells))
        known = {face(cells, byte & TOKEN) for heap in beside for byte in heap} - {0}
        return here, bytes(sorted(known))

    b.check_tells(seen, lambda cells: tuple(number(cells) for number in numbers))


@step(
    "Ends with: each column of {places:places} has one {what=value|suit|colour}",
    family="Endings",
    phase=ENDING,
    example="Ends with: each column of row 1, row 2, row 3 has one suit",
    wordings=(
        "[there be] [a] (single|1|just 1) suit in (each|every) column => places=rows; what=suit; score=2",
        "(each|every) column (have|be of) (1|a single) suit => places=rows; what=suit; score=2",
        "(each|every) column (have|be of) (1|a single) value => places=rows; what=value; score=2",
        "(each|every) column (have|be of) (1|a single) colour => places=rows; what=colour; score=2",
    ),
)
def ends_columns(b: Builder) -> None:
    """A claim: in rows laid below each other, the cards of each column go together."""
    places, what = b.several("places"), b.phrase("what")
    b.ask_fact(what)
    known = b.fact_of(what)
    b.looks_everywhere = b.facts_everywhere = True

    def columns(cells: Sequence[Any]) -> list[list[int | None]]:
        rows = [place.of(cells) for place in places]
        if len({len(row) for row in rows}) > 1:
            raise Impossible("the rows are not equally long")
        return [[known(cells, byte & TOKEN) for byte in column] for column in zip(*rows, strict=True)]

    def alike(column: list[int | None]) -> bool:
        return None not in column and len(set(column)) == 1

    def explain(cells: Sequence[Any]) -> str:
        at, column = next((i, c) for i, c in enumerate(columns(cells), start=1) if not alike(c))
        shown = list_text(["not known" if found is None else _named_fact(what, found) for found in column])
        return f"the {what}s in column {at} are {shown}"

    b.check(lambda cells: all(map(alike, columns(cells))), explain)


@step(
    "Ends with: the cards of {place:place}, two by two from the top, are mates",
    family="Endings",
    phase=ENDING,
    example="Ends with: the cards of deck, two by two from the top, are mates",
    wordings=(
        "deal them off in 2s [:|,] every 2 are a pair => place=deck; score=3",
        "(deal|take) ... (twos|2s|pairs|2 at a time) [,|:] (each|every) (2|pair) (are|be|match) ... => place=deck; score=1",
        "every 2 (are|be) a pair => place=deck; score=1",
        "cards [of {place}] [,] 2 by 2 [from top] [,] (are|be) (mates|pairs|a pair) => score=2",
    ),
)
def ends_pairs(b: Builder) -> None:
    """A claim: the top two are mates, the next two, and so on to the end, whichever of a pair is on top."""
    place = b.looked_at("place")
    mates = b.all_mates()

    def are_mates(cells: Sequence[Any], pair: bytes) -> bool:
        return len(pair) == 2 and mates.get(pair[0] & TOKEN) == pair[1] & TOKEN

    def strangers(cells: Sequence[Any]) -> int | None:
        heap = place.of(cells)
        pairs = (heap[i : i + 2] for i in range(0, len(heap), 2))
        return next((i for i, pair in enumerate(pairs, start=1) if not are_mates(cells, pair)), None)

    def explain(cells: Sequence[Any]) -> str:
        return f"the {ordinal(strangers(cells) or 0)} pair of {place.name} are no mates"

    b.check(lambda cells: strangers(cells) is None, explain, b.in_groups(place, 2, are_mates))


@step(
    "Ends with: in every {size:number} cards of {place:place} from the top all {what=values|suits|colours} are"
    " {how=different|the same}",
    family="Endings",
    phase=ENDING,
    example="Ends with: in every 2 cards of deck from the top all colours are different",
    wordings=(
        "[take them|take them 2 at a time from top] [from top] [,|:] every {size} [cards] [from top] (are|be) 1 red [and|,] 1 black => what=colours; how=different; place=deck; score=2",
        "[take them 2 at a time from top] every 2 (are|be) 1 red and 1 black => what=colours; how=different; place=deck; size=2; score=2",
        "each (group|set|block) of {size} have all 4 suits [in it] => what=suits; how=different; place=deck; score=2",
        "every {size} cards [from top] have (all|different) [4] suits => what=suits; how=different; place=deck; score=2",
        "every {size} cards [from top] (be|are) of (different) colours => what=colours; how=different; place=deck",
        "take them 2 at a time from top [,|:] every 2 (are|be) 1 red and 1 black => size=2; what=colours; how=different; place=deck; score=3",
    ),
)
def ends_groups(b: Builder) -> None:
    """A claim: the first so many cards, the next so many, and so on to the end, go together or are all unlike.

    The heap must be made up of whole groups. A card of which nothing is known is like no other and unlike none.
    """
    place, size, what = b.looked_at("place"), b.constant("size"), b.phrase("what").removesuffix("s")
    if size < 2:
        raise b.fault("size", f"Groups of {size} say nothing.", "2 or more", "Change the number.")
    b.ask_fact(what)
    known, alike = b.fact_of(what), b.phrase("how") == "the same"
    b.looks_everywhere = b.facts_everywhere = True

    def goes_together(cells: Sequence[Any], group: bytes) -> bool:
        facts = {known(cells, byte & TOKEN) for byte in group}
        return None not in facts and len(facts) == (1 if alike else size)

    def failing(cells: Sequence[Any]) -> int | None:
        heap = place.of(cells)
        if len(heap) % size:
            raise Impossible(f"the {len(heap)} cards of {place.name} are not groups of {size}")
        groups = (heap[i : i + size] for i in range(0, len(heap), size))
        return next((i for i, group in enumerate(groups, 1) if not goes_together(cells, group)), None)

    how = b.phrase("how")

    def explain(cells: Sequence[Any]) -> str:
        return f"the {what}s of the {ordinal(failing(cells) or 0)} group of {place.name} are not all {how}"

    b.check(lambda cells: failing(cells) is None, explain, b.in_groups(place, size, goes_together))
