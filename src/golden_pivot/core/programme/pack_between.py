"""The pack between two routines: how it lies on every path when one is over, against what the next one needs.

Both speak of their cards by name: a name that stands in both is the same card, any other card of one is any card to the
other. What the first leaves is gone through on every path, faces included, as for getting ready again.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from itertools import permutations
from typing import Literal

from ..budget import Budget
from ..building import compile_routine
from ..cards import FACE_UP, TOKEN
from ..english import list_text, ordinal
from ..faults import OutOfBudget
from ..language.facets import Facet
from ..language.routine import Routine
from ..search.program import Program
from ..show.getting_ready import Cards, Move, Table, done, plans, seconds_of
from ..show.paces import Paces
from ..show.prediction_sheet import shown_by
from ..show.reset import ENDS, MOST_ENDS, MOST_STEPS, ends_of, reset_program, table_of, tables_of
from ..show.setup import Lying, setup_of

State = Literal["ready", "after a reset", "another pack"]
MOST_COVERED = 30.0
"""seconds that can be covered between two routines; common practice, no published source"""
MOST_AHEAD = 2_000, 400_000
"""situations and steps within which it is looked for where a card could lie from the beginning"""
MOST_PLACED_AHEAD = 4
"""cards that are put among others beforehand at most"""
PACK_SIZES = (52, 54, 104, 108)


@dataclass(frozen=True)
class Ahead:
    """A card of the next routine that is put into the pack before this one begins."""

    card: str
    position: int
    """from the top, when this routine begins"""


@dataclass(frozen=True)
class PackBetween:
    """What is to be done with one pack between two routines that use it one after the other."""

    state: State
    moves: tuple[Move, ...]
    """none where it is ready as it lies, or where nothing is known to do"""
    seconds: float
    """for all moves"""
    covered: float
    """of these, what must not be seen"""
    ahead: tuple[Ahead, ...]
    """what makes it ready, or readier, when it is put into the pack before; none where that does not help"""
    ahead_moves: tuple[Move, ...]
    """what is then still to be done"""
    ahead_seconds: float
    says: str
    names: Mapping[int, str] = field(default_factory=dict)
    """token of a move → what the card is called"""


def pack_between(
    first: Routine, second: Routine, budget: Budget, paces: Paces | None = None, most_covered: float = MOST_COVERED
) -> PackBetween:
    """Raises BadRoutine where one of the texts has faults, Cancelled."""
    paces = paces or Paces()
    if second.having(Facet.ARRANGED_BY_SORT):
        return _another(
            f"That of {second.title or 'the second'} is arranged by what its cards are, which takes a while."
        )
    needs, has = setup_of(second), setup_of(first)
    matter = _foreign(has.lying) | {one.card for one in needs.lying}
    # Where no card of the first matters any more it is enough to know how many lie where, and which way up.
    followed = any(one.card in matter for one in has.lying)
    program = reset_program(first) if followed else compile_routine(first, replace(ENDS, keep_cards=False))
    if pack_size(needs.cards, needs.lying) // 60 != pack_size(has.cards, has.lying) // 60:
        return _another("They are not of one pack: one needs more cards than a pack has.")
    try:
        ends = ends_of(program, _so_far(budget, MOST_ENDS, MOST_STEPS))
    except OutOfBudget:
        return _another("There are too many ways the cards can lie in between to go through them all.")
    if not ends:
        return _another(f"{first.title or 'The first'} comes to no end.")
    wanted, cards = _wanted(program, first, has.lying, second, needs.lying)
    tables = _alike(tables_of(program, ends), wanted, cards)
    found = min(plans(tables, wanted, cards), key=_trouble, default=None)
    if found is None:
        return _another("No plan of few moves is right after every way the first can end.")
    handled = max(sum(map(len, table.values())) for table in tables)
    seconds, covered = seconds_of(found, paces, handled), seconds_of(_covered(found), paces, handled)
    ahead, then = _ahead(first, has.lying, needs.lying, wanted, cards, budget) if covered else ((), ())
    state: State = "ready" if not found else "after a reset" if covered <= most_covered else "another pack"
    if ahead and state == "another pack":
        state = "after a reset"
    return PackBetween(
        state, found, seconds, covered, ahead, then, seconds_of(then, paces, handled),
        _says(found, seconds, covered, most_covered, ahead, then, first.title or "the first"), cards.names,
    )  # fmt: skip


def pack_size(cards: int, lying: Sequence[Lying]) -> int:
    """The smallest pack there is that has so many cards beside those that come from outside of it."""
    own = cards - sum(one.odd_back for one in lying if one.place == "deck")
    return next((size for size in PACK_SIZES if size >= own), PACK_SIZES[-1])


def _so_far(budget: Budget, states: int, steps: int) -> Budget:
    return replace(budget.quiet().narrowed(states, steps), seconds=None)


def _another(says: str) -> PackBetween:
    return PackBetween("another pack", (), 0.0, 0.0, (), (), 0.0, f"Another pack: {says}")


def _trouble(moves: Sequence[Move]) -> tuple[int, int]:
    return len(_covered(moves)), len(moves)


def _covered(moves: Sequence[Move]) -> list[Move]:
    return [move for move in moves if move.is_covered]


def _foreign(lying: Sequence[Lying]) -> set[str]:
    """Cards that do not belong to the pack."""
    return {one.card for one in lying if one.odd_back or one.place != "deck"}


def _wanted(
    program: Program, first: Routine, has: Sequence[Lying], second: Routine, needs: Sequence[Lying]
) -> tuple[dict[str, bytes], Cards]:
    """How the cards are to lie, in the tokens of the first; cards that it does not know have new ones."""
    strangers, guests = _foreign(has), _foreign(needs)
    all_there = {one.card: token for one in has if (token := program.tokens.get(one.card, 0))}
    # A card of the pack and one of the same name from outside of it are two.
    there = {card: token for card, token in all_there.items() if (card in strangers) == (card in guests)}
    tokens = dict(there)
    for one in needs:
        tokens.setdefault(one.card, max([*program.tokens.values(), *tokens.values(), 0]) + 1)
    other = reset_program(second)
    mine = {other.tokens[one.card]: tokens[one.card] for one in needs}
    plain = bytes(mine.get(byte & TOKEN, 0) | (byte & FACE_UP) for byte in range(256))
    wanted = {place: heap.translate(plain) for place, heap in table_of(other, other.start).items()}
    wants = {one.card for one in needs}
    out = {
        card: token
        for card, token in all_there.items()
        if card in strangers and not (card in there and card in wants)
    }
    names = {token: name for name, token in tokens.items()}
    names |= {token: f"{card} that is not of the pack" if card in wants else card for card, token in out.items()}
    new = wants - set(there)
    return wanted, Cards(
        names,
        hidden=frozenset(tokens[card] for card in new - guests),
        coming=frozenset(tokens[card] for card in new & guests),
        out=frozenset(out.values()),
        shown=frozenset(token for card, token in there.items() if card in shown_by(first)),
    )


def _alike(tables: Sequence[Table], wanted: Table, cards: Cards) -> list[dict[str, bytes]]:
    """Cards that matter to the first alone are like any other to the second."""
    kept = {card & TOKEN for heap in wanted.values() for card in heap} | cards.out
    plain = bytes(byte if byte & TOKEN in kept else byte & FACE_UP for byte in range(256))
    found = {tuple((name, heap.translate(plain)) for name, heap in table.items()) for table in tables}
    return [dict(one) for one in sorted(found)]


# Put into the pack before


def _ahead(
    first: Routine,
    has: Sequence[Lying],
    needs: Sequence[Lying],
    wanted: Table,
    cards: Cards,
    budget: Budget,
) -> tuple[tuple[Ahead, ...], tuple[Move, ...]]:
    """Where the cards of the next routine can lie from the beginning, so that this one brings them to their places."""
    new = [one for one in needs if one.card not in {other.card for other in has}]
    may = all(one.place == "deck" and not one.face_up and not one.odd_back for one in needs)
    if not new or len(new) < len(needs) or not may or cards.out or len(new) > MOST_PLACED_AHEAD:
        return (), ()
    program = compile_routine(first, replace(ENDS, every_card=True, every_name=True, forget_faces=False))
    try:
        ends = ends_of(program, _so_far(budget, *MOST_AHEAD))
    except OutOfBudget:
        return (), ()
    places = program.places()
    tables = [{name: state[index] for index, name in places if state[index]} for state in ends]
    deck = next(index for index, name in places if name == "deck")
    start = program.start[deck]
    taken = {program.tokens[one.card] for one in has if one.card in program.tokens}
    more = len(wanted["deck"]) - sum(map(len, tables[0].values()))
    for moves in _gathered(tables, more):
        lies = _sure([done(table, moves)["deck"] for table in tables])
        found = [lies.get(one.position, 0) for one in new]
        if all(token in start and token not in taken for token in found):
            return tuple(
                Ahead(one.card, start.index(token) + 1) for one, token in zip(new, found, strict=True)
            ), moves
    return (), ()


def _gathered(tables: Sequence[Table], more: int) -> Iterator[tuple[Move, ...]]:
    """Ways to put the cards together openly, with so many more than there are, or fewer."""
    heaps = sorted({name for table in tables for name in table}, key=lambda name: (name != "deck", name))
    size = []
    if more < 0:
        size = [Move("aside", f"Put the bottom {-more} cards aside.", number=-more, place="bottom")]
    elif more > 0:
        size = [Move("add", f"Put {more} cards that were left out under the pack.", number=more, place="bottom")]
    for order in permutations(heaps) if len(heaps) <= 4 else [tuple(heaps)]:
        begun = []
        if heaps != ["deck"]:
            begun = [Move("gather", f"Put the heaps together, from the top: {', '.join(order)}.", tuple(order))]
        yield (*begun, *size)


def _sure(decks: Sequence[bytes]) -> Mapping[int, int]:
    """Position → the card that lies there, face down, at every end."""
    return {
        at: next(iter(those))
        for at, those in enumerate(map(set, zip(*decks, strict=False)), start=1)
        if len(those) == 1 and next(iter(those)) < FACE_UP
    }


# In words


def _says(
    moves: Sequence[Move],
    seconds: float,
    covered: float,
    most: float,
    ahead: Sequence[Ahead],
    then: Sequence[Move],
    first: str,
) -> str:
    if not moves:
        return "Ready as it lies."
    words = f"Ready after {_time(seconds)}: {' '.join(move.words for move in moves)}"
    if covered > most:
        words = f"Another pack, or {_time(seconds)} of which {_time(covered)} must not be seen: " + " ".join(
            move.words for move in moves
        )
    elif covered:
        words += f" {_time(covered).capitalize()} of it must not be seen."
    if ahead:
        put = list_text([f"{one.card} {ordinal(one.position)}" for one in ahead])
        rest = " ".join(move.words for move in then) or "It is then ready as it lies."
        words += f" Or put {put} from the top when you set up {first}, as any card may lie there. {rest}"
    return words


def _time(seconds: float) -> str:
    return f"about {seconds:.0f} seconds" if seconds < 90 else f"about {seconds / 60:.0f} minutes"
