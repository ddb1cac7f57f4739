"""From how the cards lie to how they are to lie: plans of few moves that serve every way they may lie.

Cards without a name are alike (token 0). What is wanted may have cards that were like any other before: somewhere in the
pack, so that they must be looked for (`hidden`), or from outside of it (`coming`).
"""

from __future__ import annotations

from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import permutations, product

from ..cards import FACE_UP, TOKEN, turned_over
from ..english import counted, list_text, ordinal
from .paces import Paces

MOST_HEAPS = 5
"""heaps of which every order of gathering is tried"""

Table = Mapping[str, bytes]
"""place → its heap"""


@dataclass(frozen=True)
class Move:
    """One thing done. `kind`: over, turn, gather, cut, take, insert, aside, add or count; the rest as the kind needs it."""

    kind: str
    words: str
    places: tuple[str, ...] = ()
    tokens: tuple[int, ...] = ()
    number: int = 0
    place: str = "deck"
    face_up: bool = False

    @property
    def is_covered(self) -> bool:
        """It is not done before their eyes."""
        return self.kind in ("take", "insert", "count")


OVER = Move("over", "If the cards of a heap all lie face up, turn the heap over.")
TURN = Move("turn", "Turn every card that lies face up face down.")


def done(table: Table, moves: Sequence[Move]) -> dict[str, bytes]:
    """The table after these moves."""
    now = dict(table)
    for move in moves:
        match move.kind:
            case "over":
                now = {name: turned_over(heap) if min(heap) >= FACE_UP else heap for name, heap in now.items()}
            case "turn":
                now = {name: bytes(card & TOKEN for card in heap) for name, heap in now.items()}
            case "gather":
                heap = b"".join(now.pop(name, b"") for name in move.places)
                now["deck"] = heap
            case "cut":
                heap = now["deck"]
                now["deck"] = heap[move.number :] + heap[: move.number]
            case "take":
                now = {
                    name: bytes(card for card in heap if card & TOKEN not in move.tokens)
                    for name, heap in now.items()
                }
                if move.number:  # cards that were like any other
                    now["deck"] = _fewer(now.get("deck", b""), move.number)
            case "aside":
                heap = now["deck"]
                now["deck"] = heap[move.number :] if move.place == "top" else heap[: len(heap) - move.number]
            case "add":
                more, heap = bytes(move.number), now.get("deck", b"")
                now["deck"] = more + heap if move.place == "top" else heap + more
            case "count":
                heap = now.get("deck", b"")
                now["deck"] = heap[: move.number].ljust(move.number, b"\0")
            case "insert":
                heap = now.get(move.place, b"")
                cards = bytes(token | (FACE_UP if move.face_up else 0) for token in move.tokens)
                now[move.place] = heap[: move.number - 1] + cards + heap[move.number - 1 :]
    return {name: heap for name, heap in now.items() if heap}


def _fewer(heap: bytes, number: int) -> bytes:
    """Without so many cards that are like any other, wherever they lay."""
    for _ in range(number):
        at = heap.rfind(0)
        if at < 0:
            return heap
        heap = heap[:at] + heap[at + 1 :]
    return heap


@dataclass(frozen=True)
class Cards:
    """What is to be known of the cards beside where they lie."""

    names: Mapping[int, str]
    """token → what the card is called"""
    hidden: frozenset[int] = frozenset()
    """wanted, and somewhere in the pack"""
    coming: frozenset[int] = frozenset()
    """wanted, and from outside of the pack"""
    out: frozenset[int] = frozenset()
    """must not stay in the pack"""
    shown: frozenset[int] = frozenset()
    """taken from their place to be shown at the end, whatever the lines move: they are put back"""


def plans(tables: Sequence[Table], wanted: Table, cards: Cards) -> Iterator[tuple[Move, ...]]:
    """Plans that serve all of these tables; the plainest first."""
    # What lies right at its place from the beginning to the end need not be touched.
    still = {
        name
        for name, heap in wanted.items()
        if name != "deck"
        and not any(card & TOKEN in cards.shown for card in heap)
        and all(table.get(name) == heap for table in tables)
    }
    heaps = sorted({name for table in tables for name in table} - still, key=lambda name: (name != "deck", name))
    shown = any(card >= FACE_UP for table in (*tables, wanted) for heap in table.values() for card in heap)
    # A heap that lies face up as a whole is turned over; where cards lie both ways each is put right.
    openings: list[list[Move]] = [[], [OVER], [TURN]] if shown else [[]]
    searched = {card & TOKEN for name, heap in wanted.items() if name not in still for card in heap} - {0} | cards.out
    orders = list(permutations(heaps)) if len(heaps) <= MOST_HEAPS else [tuple(heaps)]
    for opening, order in product(openings, orders):
        begun = list(opening)
        if len(heaps) > 1 or (heaps and heaps != ["deck"]):
            words = (
                f"Put the heaps together, from the top: {', '.join(order)}."
                if len(order) > 1
                else f"Take {order[0]} as the pack."
            )
            begun.append(Move("gather", words, tuple(order)))
        for sized in _sized(done(tables[0], begun), wanted):
            plan = (*begun, *sized)
            if _serves(plan, tables, wanted):
                yield plan
                if not opening and not sized:
                    return
            cut = _cut(done(tables[0], plan), wanted)
            if cut and _serves((*plan, cut), tables, wanted):
                yield (*plan, cut)
        if searched and order == orders[0]:
            plan = (*begun, *_put_back(wanted, still, cards, len(done(tables[0], begun).get("deck", b""))))
            if _serves(plan, tables, wanted):
                yield plan


def _serves(plan: Sequence[Move], tables: Sequence[Table], wanted: Table) -> bool:
    """Whether it is right whatever way the cards lie. Most plans are not for one of the first: the others are left alone."""
    return all(done(table, plan) == wanted for table in tables)


def _sized(table: Table, wanted: Table) -> list[list[Move]]:
    """Ways to make the pack as large as it is to be."""
    more = len(table.get("deck", b"")) - len(wanted.get("deck", b""))
    if not more:
        return [[]]
    if more > 0:
        said = "card" if more == 1 else f"{more} cards"
        return [[Move("aside", f"Put the {end} {said} aside.", number=more, place=end)] for end in ("bottom", "top")]
    said = f"{counted(-more, 'card')} that {'was' if more == -1 else 'were'} left out"
    return [
        [Move("add", f"Put {said} {where}.", number=-more, place=end)]
        for end, where in (("bottom", "under the pack"), ("top", "on the pack"))
    ]


def _cut(table: Table, wanted: Table) -> Move | None:
    """The first cut that makes the pack lie as wanted."""
    deck, goal = table.get("deck", b""), wanted.get("deck", b"")
    for number in range(1, len(deck)):
        if deck[number:] + deck[:number] == goal:
            return Move("cut", f"Cut {number} cards from the top to the bottom.", number=number)
    return None


def _put_back(wanted: Table, still: Collection[str], cards: Cards, before: int) -> list[Move]:
    """Every card that is placed is taken out and put in again, the topmost first; with as many others as are to be there."""
    known = [card & TOKEN for name, heap in wanted.items() if name not in still for card in heap if card & TOKEN]
    taken = [token for token in [*known, *sorted(cards.out)] if token not in cards.coming]
    moves = []
    if taken:
        named = [cards.names.get(token, "the card") for token in taken]
        said = list_text(named) if len(named) <= 6 else f"the {len(named)} cards of the set-up, in their order"
        moves.append(
            Move(
                "take",
                f"Look for {said} and take {'it' if len(named) == 1 else 'them'} out.",
                tokens=tuple(taken),
                number=len(cards.hidden),
            )
        )
    others = sum(card & TOKEN == 0 for card in wanted.get("deck", b""))
    if cards.hidden or others + len(taken) != before:
        moves.append(
            Move(
                "count",
                f"Leave {counted(others, 'other card')}: put aside what is more, or add what was left out.",
                number=others,
            )
        )
    for place, heap in wanted.items():
        if place in still:
            continue
        run: list[int] = []
        for at, card in enumerate((*heap, 0), start=1):
            token = card & TOKEN
            if token and card < FACE_UP:
                run.append(token)
                continue
            if run:
                moves.append(_insert(run, at - len(run), place, cards.names, False))
                run = []
            if token:
                moves.append(_insert([token], at, place, cards.names, True))
    return moves


def _insert(tokens: Sequence[int], at: int, place: str, names: Mapping[int, str], face_up: bool) -> Move:
    named = [names.get(token, "the card") for token in tokens]
    said = list_text(named) if len(named) <= 6 else f"{named[0]} to {named[-1]}"
    where = (
        f"in {place}"
        if place != "deck"
        else "on top"
        if at == 1
        else f"in {ordinal(at)}, with {at - 1} {'card' if at == 2 else 'cards'} above"
    )
    return Move(
        "insert",
        f"Put {said} {where}{', face up' if face_up else ''}.",
        tokens=tuple(tokens),
        number=at,
        place=place,
        face_up=face_up,
    )


def seconds_of(moves: Sequence[Move], paces: Paces, cards: int) -> float:
    """`cards`: in all, for whoever must look through them."""
    found = 0.0
    for move in moves:
        found += paces.step
        if move.kind == "take":
            # One looks through half of the pack for a card, through all of it for several.
            found += paces.look * (cards / 2 if len(move.tokens) == 1 else cards)
        elif move.kind == "insert":
            found += paces.count * min(move.number - 1, cards)
        elif move.kind in ("aside", "add"):
            found += paces.count * move.number
        elif move.kind == "count":
            found += paces.count * abs(cards - move.number)
        elif move.kind == "turn":
            found += paces.look * cards
    return round(found, 1)
