"""The set-up sheet: what is needed, what lies where, how to put it together, and how to see that it is right."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from ..building import REPLAY, compile_routine
from ..cards import FACE_UP, TOKEN, card_value
from ..desks.assembly import NEW_PACK, Block, blocks, order_of, passes
from ..english import list_text, ordinal
from ..language.facets import Facet
from ..language.routine import STEP, Routine
from ..language.spoken import request_of
from ..search.program import Program
from .off_table import HIDDEN
from .prediction_sheet import predictions_of


@dataclass(frozen=True)
class Lying:
    """A card that lies ready: positions from 1 at the top, or from the left in a row."""

    place: str
    position: int
    card: str
    face_up: bool
    odd_back: bool
    short: bool = False
    """trimmed, so that the fingers find it"""
    written: str = ""
    """what is written on its back"""

    @property
    def words(self) -> str:
        """The card with all that is odd about it."""
        found = [self.card, *(["face up"] if self.face_up else []), *(["cut short"] if self.short else [])]
        if self.written:
            found.append(f"{self.written} written on the back")
        elif self.odd_back:
            found.append("another back")
        return ", ".join(found)


@dataclass(frozen=True)
class Insert:
    """Cards put in as a block, so that the first of them comes to this position of the pack."""

    cards: tuple[str, ...]
    position: int

    @property
    def words(self) -> str:
        named = (
            list_text(list(self.cards))
            if len(self.cards) <= 6
            else f"{self.cards[0]} to {self.cards[-1]}, {len(self.cards)} cards"
        )
        if self.position == 1:
            return f"Put {named} on top."
        first = ", the first" if len(self.cards) > 1 else ""
        return f"Put {named} in{first} {ordinal(self.position)}: {self.position - 1} {'card' if self.position == 2 else 'cards'} above."


@dataclass(frozen=True)
class Assembly:
    """Take these cards out of the pack, leave so many others, then put them in again one block after the other."""

    taken: tuple[str, ...]
    passes: tuple[tuple[str, ...], ...]
    """times through a new pack from its top: the real cards to push out each time, as they come"""
    others: int
    inserts: tuple[Insert, ...]


@dataclass(frozen=True)
class SetupSheet:
    cards: int
    lying: tuple[Lying, ...]
    """cards that are placed, in the pack first"""
    materials: tuple[str, ...]
    assembly: Assembly
    steps: tuple[str, ...]
    """how to put it together, in sentences"""
    checks: tuple[str, ...]
    """what shows that it is right"""


def setup_of(routine: Routine) -> SetupSheet:
    """Raises BadRoutine when the text has faults."""
    program = compile_routine(routine, replace(REPLAY, every_name=True))
    lying = tuple(_lying(program, routine))
    inside = [one for one in lying if one.place == "deck"]
    deck = next(index for index, name in program.places() if name == "deck")
    cards = len(program.start[deck])
    assembly = _assembly(inside, cards)
    arranged = [request_of(line, frozenset()) for line in routine.having(Facet.ARRANGED_BY_SORT)]
    return SetupSheet(
        cards,
        lying,
        tuple(_materials(routine, lying, cards)),
        assembly,
        (*(_arranged(arranged, lying) if arranged else _steps(assembly, lying, cards)), *_written(routine, lying)),
        tuple(_checks(inside, cards))
        + (("Spread it and see that the cards come as they should.",) if arranged else ()),
    )


def _lying(program: Program, routine: Routine) -> list[Lying]:
    short = {line.values["card"] for line in routine.walk() if line.values.get("short")}
    written = {
        line.values["bearer"]: list_text(line.values["cards"]) for line in routine.walk() if line.values.get("bearer")
    }
    named = {token: name for name, token in program.tokens.items()}
    found = []
    for index, place in sorted(program.places(), key=lambda one: one[1] != "deck"):
        for at, card in enumerate(program.start[index], start=1):
            if name := named.get(card & TOKEN):
                odd = card & TOKEN in program.odd_backs
                found.append(Lying(place, at, name, card >= FACE_UP, odd, name in short, written.get(name, "")))
    return found


def _assembly(inside: Sequence[Lying], cards: int) -> Assembly:
    order = order_of(NEW_PACK) or ()
    real = [one.card for one in inside if card_value(one.card)]
    in_order = sorted(real, key=order.index)
    inserts: list[Insert] = []
    for one in inside:
        last = inserts[-1] if inserts else None
        if last and last.position + len(last.cards) == one.position:
            inserts[-1] = Insert((*last.cards, one.card), last.position)
        else:
            inserts.append(Insert((one.card,), one.position))
    taken = tuple(one.card for one in inside)
    # Into the order in which they are wanted when there are several; one card is simply taken out.
    runs = passes(order, real) if len(real) > 1 else tuple((card,) for card in in_order)
    return Assembly(taken, runs, cards - len(inside), tuple(inserts))


def assembled(others: Sequence[str], plan: Assembly) -> tuple[str, ...]:
    """The pack that the plan makes of these other cards, from the top."""
    pack = list(others[: plan.others])
    for insert in plan.inserts:
        pack[insert.position - 1 : insert.position - 1] = insert.cards
    return tuple(pack)


def _materials(routine: Routine, lying: Sequence[Lying], cards: int) -> list[str]:
    odd = [one.card for one in lying if one.odd_back and not one.written]
    extra = [one.card for one in lying if one.place != "deck"]
    found = [f"{cards} cards of {'one pack' if cards <= 54 else 'two packs with the same backs'}, face down"]
    if odd:
        found.append(f"{list_text(odd)}: of a pack with another back")
    if invented := [one.card for one in lying if not card_value(one.card) and one.card not in odd]:
        found.append(f"{list_text(invented)}: {'any card' if len(invented) == 1 else 'any cards'} you choose")
    found += [f"{one.card} ready in {one.place}" for one in lying if one.card in extra]
    found += [f"{one.card}: trimmed a little at both ends, a short card" for one in lying if one.short]
    found += [f"a marker pen: “{one.written}” on the back of {one.card}" for one in lying if one.written]
    found += [f"paper and a pen, for {one.what} as the prediction" for one in predictions_of(routine) if one.on_paper]
    boxes = [
        place for place in HIDDEN if any(place in line.values.values() for line in routine.walk() if line.is_ == STEP)
    ]
    if boxes:
        found.append(f"a {' and a '.join(boxes)}")
    return [*found, *(f"assumed: {what}" for what in routine.said(Facet.ASSUMPTION))]


def _steps(plan: Assembly, lying: Sequence[Lying], cards: int) -> list[str]:
    if not plan.taken and not any(one.place != "deck" for one in lying):
        return [f"Nothing to prepare: {cards} cards, shuffled by whoever likes."]
    rows = []
    real = [card for run in plan.passes for card in run]
    parts = blocks(order_of(NEW_PACK) or (), real)
    if len(real) > 1 and len(parts) <= len(plan.passes):
        rows += [_block_words(part, "Take" if i == 0 else "Under them put") for i, part in enumerate(parts)]
        if invented := [card for card in plan.taken if card not in real]:
            rows.append(f"Take out {list_text(invented)} as well.")
    elif len(plan.passes) > 1:
        runs = [f"{number}: {', '.join(run)}" for number, run in enumerate(plan.passes, start=1)]
        rows.append(
            f"Go through the new pack from the top {len(plan.passes)} times, pushing out each time, each lot under the last: "
            + "; ".join(runs) + "."
        )  # fmt: skip
    elif plan.taken:
        rows.append(
            f"Take out {list_text(list(plan.taken)) if len(plan.taken) <= 8 else f'the {len(plan.taken)} cards of the stack, in their order'}."
        )
    if plan.taken and plan.others:
        rows.append(
            f"Keep {plan.others} other cards, in any order. From a shuffled pack look for the cards above in the same order."
        )
    if plan.others:
        rows += [insert.words for insert in plan.inserts]
    rows += [f"Turn {one.card} face up where it lies." for one in lying if one.face_up and one.place == "deck"]
    rows += [
        f"Put {one.card} in {one.place}{', face up' if one.face_up else ''}." for one in lying if one.place != "deck"
    ]
    return rows


def _arranged(arranged: Sequence[str], lying: Sequence[Lying]) -> list[str]:
    """A pack of known sorts: it is arranged so that cards that have a name come to lie where they are to."""
    rows = [*arranged]
    for one in lying:
        if one.place == "deck":
            rows.append(
                f"See that the {ordinal(one.position)} card is {one.card}{', face up' if one.face_up else ''}."
            )
        else:
            rows.append(f"Put {one.card} in {one.place}{', face up' if one.face_up else ''}.")
    return rows


def _written(routine: Routine, lying: Sequence[Lying]) -> Iterator[str]:
    """What is written before anything is done."""
    yield from (f"Write {one.written} on the back of {one.card}." for one in lying if one.written)
    begun = min((line.number for line in routine.walk() if line.kind and line.kind.is_handled), default=0)
    for one in predictions_of(routine):
        if one.on_paper and one.cards and one.line < begun:
            yield f"Write {one.what} {one.waits.replace(' in ', ' and put it in ', 1)}."


def _block_words(part: Block, verb: str) -> str:
    if part.cards == 1:
        return f"{verb} {part.first}."
    how = "dealt singly, so that their order turns round" if part.reverses else "as they lie"
    return f"{verb} {part.first} to {part.last}, {part.cards} cards, {how}."


def _checks(inside: Sequence[Lying], cards: int) -> list[str]:
    rows = [f"Count the pack: {cards} cards."]
    if inside:
        one = inside[0]
        rows.append(
            f"Glimpse the {'top card' if one.position == 1 else f'{ordinal(one.position)} card from the top'}: {one.card}."
        )
        last = inside[-1]
        from_bottom = cards - last.position + 1
        if last != one or from_bottom > 1:
            where = "bottom card" if from_bottom == 1 else f"{ordinal(from_bottom)} card from the bottom"
            rows.append(f"Count from the face: the {where} is {last.card}.")
    return rows
