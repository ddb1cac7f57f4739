"""The stack desk: an order of real cards that does what it is asked, or which of the wishes clash."""

from __future__ import annotations

import csv
from collections.abc import Sequence
from dataclasses import dataclass, replace

from ..budget import Budget
from ..building import REPLAY, compile_what_can_be
from ..cards import MAX_CARDS, RANKS
from ..language.facets import Facet
from ..language.parser import read_routine
from ..search.faces import PACK
from ..to_learn import order_questions
from .assembly import NEW_PACK, Block, blocks, order_of, passes, two_deals
from .constraints import KINDS, Constraint, Misread, read_constraint
from .desk import Desk, Send, Table, Trouble, asked, desk, within

MOST_CONSTRAINTS, MOST_ARRANGEMENTS = 60, 12
JOKER = "joker"


@dataclass(frozen=True)
class StackAsks:
    constraints: list[str] = asked(
        [
            "cards 1 to 2 add up to 11",
            "cards 3 to 5 add up to 22",
            "cards 6 to 9 add up to 33",
            "card 9 is king of hearts",
            "no more than 2 cards in a row agree in colour",
        ],
        "constraints: what the stack must be, one sentence each",
    )
    placed: str = asked("", "cards that lie already: one a line, CSV of position and card, or the text of a routine")
    cards: int = asked(0, "cards in the stack: 0 for as many as the constraints reach")
    packs: int = asked(1, "packs: how many are shuffled together")
    jokers: int = asked(0, "jokers: how many are among them")
    without: list[str] = asked([], "values left out: of a stripped pack, such as two, three")
    wanted: int = asked(1, "arrangements wanted")
    seed: int = asked(1, "seed: another one gives other arrangements")
    new_pack: str = asked(NEW_PACK, "new-pack order: suits from the top, up from ace to king, or down")


@dataclass(frozen=True)
class Misreading:
    """A line that could not be read: lines and columns from 1."""

    line: int
    column: int
    end: int
    message: str
    expected: str
    remedy: str


@dataclass(frozen=True)
class KindOut:
    example: str
    about: str


@dataclass(frozen=True)
class Assembly:
    """How the first arrangement is put together."""

    blocks: tuple[Block, ...]
    passes: tuple[tuple[str, ...], ...]
    piles: int
    deals: tuple[tuple[str, int, int], ...]


@dataclass(frozen=True)
class StackAnswers:
    arrangements: tuple[tuple[str, ...], ...]
    """each from the top"""
    clash: tuple[str, ...]
    """the smallest set of lines that cannot all hold"""
    clash_is_smallest: bool
    settled: bool
    """False: out of budget"""
    faults: tuple[Misreading, ...]
    placed: tuple[str, ...]
    """what lies already, as lines"""
    assembly: Assembly | None
    kinds: tuple[KindOut, ...]
    send: Send | None


def placed_lines(text: str) -> list[str]:
    """What lies already, as constraints: from a routine's set-up, from rows of position and card, or from cards in order."""
    routine = read_routine(text)
    if routine.having(Facet.PACK):
        program, _ = compile_what_can_be(routine, REPLAY)
        where = {card: program.where_is(program.start, card) for card in program.tokens if card in PACK}
        return [f"card {at[1]} is {card}" for card, at in where.items() if at and at[0] == "deck"]
    found = []
    position = 0
    for number, row in enumerate(csv.reader(text.splitlines()), start=1):
        cells = [cell.strip() for cell in row if cell.strip()]
        if not cells or cells[:2] == ["position", "card"]:
            continue
        position = int(cells[0]) if len(cells) > 1 and cells[0].isdigit() else position + 1
        card = cells[-1].lower()
        if card != JOKER and card not in PACK:
            raise Trouble(
                "placed",
                f"Line {number}: “{cells[-1][:40]}” is no card.",
                "Write cards such as queen of hearts, one a line.",
            )
        if card != JOKER:
            found.append(f"card {position} is {card}")
    return found


def answer(asks: StackAsks, budget: Budget) -> StackAnswers:
    from .stack_model import Pack
    from .stack_solver import solve

    within(asks, cards=(0, MAX_CARDS), packs=(1, 2), jokers=(0, 4), wanted=(1, MOST_ARRANGEMENTS), seed=(0, 10**6))
    if unknown := set(asks.without) - set(RANKS):
        raise Trouble("without", f"“{sorted(unknown)[0]}” is no value.", f"Take some of {', '.join(RANKS)}.")
    order = order_of(asks.new_pack)
    if order is None:
        raise Trouble("new_pack", "This is no order of a new pack.", f"Write every suit once, as in “{NEW_PACK}”.")
    pack = Pack(asks.packs, asks.jokers, tuple(asks.without))
    lying = placed_lines(asks.placed)
    rows = [(number, row) for number, row in enumerate(asks.constraints, start=1) if row.strip()]
    if len(rows) > MOST_CONSTRAINTS:
        raise Trouble("constraints", f"{len(rows)} lines are too many.", f"Keep at most {MOST_CONSTRAINTS}.")
    read, faults = _read(rows, lying)
    kinds = tuple(KindOut(kind.example, kind.about) for kind in KINDS)
    nothing = StackAnswers((), (), False, True, tuple(faults), tuple(lying), None, kinds, None)
    # What can be read is answered: one line that is still being written does not take the stack away.
    if faults and not read:
        return nothing
    size = asks.cards or max((one.reach for one in read), default=0)
    if size == 0:
        raise Trouble(
            "constraints",
            "Nothing says how many cards the stack has.",
            "Write a line with positions, or how many cards.",
        )
    if size > pack.size:
        raise Trouble(
            "cards",
            f"A stack of {size} cards cannot come from a pack of {pack.size}.",
            "Take more packs, or fewer cards.",
        )
    if beyond := next((one for one in read if one.reach > size), None):
        raise Trouble(
            "cards", f"“{beyond.text}” speaks of card {beyond.reach}, and the stack has {size}.", "Make it larger."
        )
    try:
        found = solve(read, size, pack, asks.wanted, asks.seed, budget)
    except Misread as trouble:
        raise Trouble("constraints", trouble.message, trouble.remedy) from None
    if not found.arrangements:
        clash = tuple(read[i].text for i in found.clash)
        return replace(nothing, clash=clash, clash_is_smallest=found.clash_is_smallest, settled=found.is_settled)
    first = found.arrangements[0]
    return replace(
        nothing, arrangements=found.arrangements, assembly=_assembly(order, first), send=_send(first, pack.size)
    )


def _read(rows: Sequence[tuple[int, str]], lying: Sequence[str]) -> tuple[list[Constraint], list[Misreading]]:
    read, faults = [read_constraint(line) for line in lying], []
    for number, row in rows:
        try:
            read.append(read_constraint(row))
        except Misread as bad:
            faults.append(Misreading(number, bad.start, bad.end, bad.message, bad.expected, bad.remedy))
    return read, faults


def _assembly(order: Sequence[str], stack: Sequence[str]) -> Assembly | None:
    """None for stacks of more than one pack, or with jokers, which no single pack in order has."""
    if len(set(stack)) < len(stack) or JOKER in stack:
        return None
    plan = two_deals(stack)
    return Assembly(blocks(order, stack), passes(order, stack), plan.piles, plan.table)


def _send(stack: Sequence[str], pack_size: int) -> Send | None:
    if len(set(stack)) < len(stack) or JOKER in stack:
        return None
    # A line has room for 500 characters.
    parts = [stack[i : i + 20] for i in range(0, len(stack), 20)]
    place = [
        f"Place {', '.join(part)} in this order, the first at position {20 * i + 1}" for i, part in enumerate(parts)
    ]
    return Send(f"{len(stack)} cards from the top", (f"Pack: {pack_size} cards, any order", *place))


def tables(found: StackAnswers) -> list[Table]:
    shown = [
        Table(f"arrangement {n}", ("position", "card"), tuple(enumerate(stack, start=1)))
        for n, stack in enumerate(found.arrangements, start=1)
    ]
    if found.clash:
        shown.append(Table("clash", ("lines that cannot all hold",), tuple((line,) for line in found.clash)))
    if found.faults:
        shown.append(
            Table(
                "lines",
                ("line", "column", "trouble", "expected"),
                tuple((f.line, f.column, f.message, f.expected) for f in found.faults),
            )
        )
    if found.assembly:
        rows = [
            (
                b.cards,
                b.first,
                b.last,
                "dealt singly, which turns their order round" if b.reverses else "lifted as they lie",
            )
            for b in found.assembly.blocks
        ]
        shown.append(Table("from new-pack order", ("cards", "from", "to", "how"), tuple(rows)))
        shown.append(
            Table("from a shuffled pack", ("card", "pile in the first deal", "in the second"), found.assembly.deals)
        )
    return shown


STACK = desk(
    Desk(
        "stack",
        "Stack builder",
        "An order of real cards that does what it is asked, or which of the wishes clash.",
        StackAsks,
        StackAnswers,
        answer,
        tables,
        is_long=True,
        to_learn=lambda asks, found: order_questions(found.arrangements[0]) if found.arrangements else (),
        exit_code=lambda found: 0 if found.arrangements else 2 if found.faults else 1 if found.settled else 3,
    )
)
