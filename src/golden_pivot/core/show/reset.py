"""Getting ready again: from every way the routine can end back to the set-up, by one plan of few moves."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace

from ..answers.notes import badges_of
from ..budget import Budget
from ..building import compile_routine
from ..building.purpose import Purpose
from ..cards import FACE_UP, TOKEN
from ..english import list_text
from ..faults import OutOfBudget
from ..language.facets import Facet
from ..language.routine import Routine
from ..search.explorer import explore
from ..search.program import Program, State
from .getting_ready import Cards, Move, plans, seconds_of
from .paces import Paces
from .prediction_sheet import predictions_of, shown_by
from .setup import setup_of

ENDS = Purpose(forget_places=False, keep_cards=True, follow_faces=True, reorder=True)
"""what lies where at the end and which way up, with every card that has a name"""
MOST_ENDS, MOST_STEPS = 200_000, 1_000_000
"""situations, and steps to come to them, beyond which no plan is sought; not a time, so that it is the same everywhere"""


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
    (table,) = tables_of(program, [state])
    return dict(table)


def tables_of(program: Program, states: Iterable[State]) -> list[dict[str, bytes]]:
    """`table_of` each of these, those that are alike once."""
    known = set(program.tokens.values()) - {0}
    plain = bytes(byte if byte & TOKEN in known else byte & FACE_UP for byte in range(256))
    places = program.places()
    found = dict.fromkeys(tuple(state[index].translate(plain) for index, _ in places) for state in states)
    return [{name: heap for (_, name), heap in zip(places, heaps, strict=True) if heap} for heaps in found]


def reset_of(routine: Routine, budget: Budget, paces: Paces | None = None) -> ResetPlan | None:
    """The plan of fewest moves among those tried; None where there are too many ends, or none serves all. Raises BadRoutine.

    A pack that is arranged by colours or suits has none: whichever cards they are, they are sorted anew.
    """
    if routine.having(Facet.ARRANGED_BY_SORT):
        return None
    program = reset_program(routine)
    try:
        ends = ends_of(program, replace(budget.narrowed(MOST_ENDS, MOST_STEPS), seconds=None))
    except OutOfBudget:
        return None
    wanted = table_of(program, program.start)
    tables = tables_of(program, ends) or [wanted]
    names = {token: name for name, token in program.tokens.items()}
    shown = frozenset(token for name, token in program.tokens.items() if name in shown_by(routine))
    moves = min(plans(tables, wanted, Cards(names, shown=shown)), key=len, default=None)
    if moves is None:  # what lies face up at the beginning and has no name cannot be told from the others
        return None
    return ResetPlan(
        moves, seconds_of(moves, paces or Paces(), max(sum(map(len, table.values())) for table in tables)), len(ends),
        *_afterwards(routine, moves), tuple(_once(routine, program)),
    )  # fmt: skip


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
