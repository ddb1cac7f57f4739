"""Getting ready again: from every way the routine can end back to the set-up, by one plan of few moves."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import permutations, product

from ..answers.notes import badges_of
from ..budget import Budget
from ..building import compile_routine
from ..building.purpose import Purpose
from ..cards import FACE_UP, TOKEN, turned_over
from ..english import list_text, ordinal
from ..faults import OutOfBudget
from ..language.facets import Facet
from ..language.routine import Routine
from ..search.explorer import explore
from ..search.program import Program, State
from .paces import Paces
from .prediction_sheet import predictions_of
from .setup import setup_of

ENDS = Purpose(forget_places=False, keep_cards=True, follow_faces=True)
"""what lies where at the end and which way up, with every card that has a name"""
MOST_ENDS, MOST_STEPS = 200_000, 1_000_000
"""situations, and steps to come to them, beyond which no plan is sought; not a time, so that it is the same everywhere"""
MOST_HEAPS = 5
"""heaps of which every order of gathering is tried"""

Table = Mapping[str, bytes]
"""place → its heap"""


@dataclass(frozen=True)
class Move:
    """One thing done. `kind`: over, turn, gather, cut, take or insert; the rest as the kind needs it."""

    kind: str
    words: str
    places: tuple[str, ...] = ()
    tokens: tuple[int, ...] = ()
    number: int = 0
    place: str = "deck"
    face_up: bool = False


OVER = Move("over", "If the cards of a heap all lie face up, turn the heap over.")
TURN = Move("turn", "Turn every card that lies face up face down.")


@dataclass(frozen=True)
class ResetPlan:
    moves: tuple[Move, ...]
    seconds: float
    ends: int
    """different situations at the end; the plan serves all of them"""
    repeatable: str
    """whether it can be done again at once, in a sentence"""
    examinable: str
    """whether the pack may be looked at, and what gives it away"""
    once: tuple[str, ...]
    """what bears only one use before the same people"""


def ends_of(program: Program, budget: Budget) -> tuple[State, ...]:
    """Every situation at the end, stuck paths left out. Raises OutOfBudget."""
    return tuple(explore(program, budget).ends)


def reset_program(routine: Routine) -> Program:
    """The routine with every card of the set-up followed to the end. Raises BadRoutine."""
    program = compile_routine(routine, ENDS)
    # A card that no line asks for is like any other, and mates may be like each other; but each place must be found again.
    tokens = [program.tokens.get(one.card, 0) for one in setup_of(routine).lying]
    lying = Counter(card & TOKEN for index, _ in program.places() for card in program.start[index])
    if all(lying[token] == 1 for token in tokens if token) and all(tokens):
        return program
    return compile_routine(routine, replace(ENDS, every_card=True, every_name=True, forget_faces=False))


def table_of(program: Program, state: State) -> dict[str, bytes]:
    """Only cards of the set-up matter, and which way up each card lies: any other card may be any other."""
    (table,) = _tables(program, [state])
    return dict(table)


def _tables(program: Program, states: Iterable[State]) -> list[dict[str, bytes]]:
    """`table_of` each of these, those that are alike once."""
    known = set(program.tokens.values()) - {0}
    plain = bytes(byte if byte & TOKEN in known else byte & FACE_UP for byte in range(256))
    places = program.places()
    found = dict.fromkeys(tuple(state[index].translate(plain) for index, _ in places) for state in states)
    return [{name: heap for (_, name), heap in zip(places, heaps, strict=True) if heap} for heaps in found]


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
            case "insert":
                heap = now.get(move.place, b"")
                cards = bytes(token | (FACE_UP if move.face_up else 0) for token in move.tokens)
                now[move.place] = heap[: move.number - 1] + cards + heap[move.number - 1 :]
    return {name: heap for name, heap in now.items() if heap}


def reset_of(routine: Routine, budget: Budget, paces: Paces | None = None) -> ResetPlan | None:
    """The plan of fewest moves among those tried; None where there are too many ends, or none serves all. Raises BadRoutine."""
    program = reset_program(routine)
    try:
        ends = ends_of(program, replace(budget.narrowed(MOST_ENDS, MOST_STEPS), seconds=None))
    except OutOfBudget:
        return None
    wanted = table_of(program, program.start)
    tables = _tables(program, ends) or [wanted]
    moves = min(_plans(program, tables, wanted), key=len, default=None)
    if moves is None:  # what lies face up at the beginning and has no name cannot be told from the others
        return None
    return ResetPlan(
        moves, _seconds(moves, paces or Paces(), max(sum(map(len, table.values())) for table in tables)), len(ends),
        *_afterwards(routine, moves), tuple(_once(routine, program)),
    )  # fmt: skip


def _plans(program: Program, tables: Sequence[Table], wanted: Table) -> Iterator[tuple[Move, ...]]:
    """Plans that serve every end."""
    names = {token: name for name, token in program.tokens.items()}
    heaps = sorted({name for table in tables for name in table}, key=lambda name: (name != "deck", name))
    shown = any(card >= FACE_UP for table in (*tables, wanted) for heap in table.values() for card in heap)
    # A heap that lies face up as a whole is turned over; where cards lie both ways each is put right.
    openings: list[list[Move]] = [[], [OVER], [TURN]] if shown else [[]]
    tracked = [token for heap in wanted.values() for card in heap if (token := card & TOKEN)]
    orders = list(permutations(heaps)) if len(heaps) <= MOST_HEAPS else [tuple(heaps)]
    for opening, order in product(openings, orders):
        begun = list(opening)
        if len(heaps) > 1 or heaps != ["deck"]:
            words = (
                f"Put the heaps together, from the top: {', '.join(order)}."
                if len(order) > 1
                else f"Take {order[0]} as the pack."
            )
            begun.append(Move("gather", words, tuple(order)))
        after = [done(table, begun) for table in tables]
        if all(table == wanted for table in after):
            yield tuple(begun)
            if not opening:
                return
        if cut := _cut(after, wanted):
            yield (*begun, cut)
        if tracked and order == orders[0]:
            searched = (*begun, *_put_back(program, tracked, names, wanted))
            if all(done(table, searched) == wanted for table in tables):
                yield searched


def _cut(tables: Sequence[Table], wanted: Table) -> Move | None:
    """One cut that is right after every end."""
    deck, goal = tables[0].get("deck", b""), wanted.get("deck", b"")
    for number in range(1, len(deck)):
        if deck[number:] + deck[:number] == goal:
            move = Move("cut", f"Cut {number} cards from the top to the bottom.", number=number)
            return move if all(done(table, [move]) == wanted for table in tables) else None
    return None


def _put_back(program: Program, tracked: Sequence[int], names: Mapping[int, str], wanted: Table) -> list[Move]:
    """Every card that is placed is taken out and put in again, the topmost first."""
    named = [names.get(token, "the card") for token in tracked]
    said = list_text(named) if len(named) <= 6 else f"the {len(named)} cards of the set-up, in their order"
    moves = [
        Move("take", f"Look for {said} and take {'it' if len(named) == 1 else 'them'} out.", tokens=tuple(tracked))
    ]
    for place, heap in wanted.items():
        run: list[int] = []
        for at, card in enumerate((*heap, 0), start=1):
            token = card & TOKEN
            if token and card < FACE_UP:
                run.append(token)
                continue
            if run:
                moves.append(_insert(run, at - len(run), place, names, False))
                run = []
            if token:
                moves.append(_insert([token], at, place, names, True))
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


def _seconds(moves: Sequence[Move], paces: Paces, cards: int) -> float:
    found = 0.0
    for move in moves:
        found += paces.step
        if move.kind == "take":
            # One looks through half of the pack for a card, through all of it for several.
            found += paces.look * (cards / 2 if len(move.tokens) == 1 else cards)
        elif move.kind == "insert":
            found += paces.count * min(move.number - 1, cards)
        elif move.kind == "turn":
            found += paces.look * cards
    return round(found, 1)


def _afterwards(routine: Routine, moves: Sequence[Move]) -> tuple[str, str]:
    badges = badges_of(routine)
    searching = [move for move in moves if move.kind in ("take", "insert")]
    if not searching:
        repeat = (
            "It can be done again at once."
            if len(moves) < 2
            else "It can be done again as soon as the cards are together."
        )
    else:
        repeat = f"Not at once: {len(searching)} of the moves want a moment unobserved."
    lying = setup_of(routine).lying
    gives = [
        f"{one.card} has {'writing on its back' if one.written else 'another back'}" for one in lying if one.odd_back
    ]
    gives += [f"{one.card} is cut short" for one in lying if one.short]
    gives += [f"{one.card} is one card too many" for one in lying if one.place != "deck" and not one.odd_back]
    if "ends examinable" in badges:
        return repeat, "The pack may be looked at: nothing about it is odd."
    return repeat, f"Do not hand the pack out: {list_text(gives or ['the cards are of a known order'])}."


def _once(routine: Routine, program: Program) -> Iterator[str]:
    target = program.target
    if target and target in program.tokens:
        yield f"{target} would come again: another card, or other people."
    for what in routine.said(Facet.ASSUMPTION):
        yield f"What is assumed bears one use: {what}."
    if predictions_of(routine):
        yield "A prediction that comes true twice is looked at twice as hard."
