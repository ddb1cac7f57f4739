"""The pick-up desk: how dealt piles must be put together so that a thought-of card comes to a wanted place.

For k equal piles this is Gergonne's rule (J. D. Gergonne, Annales de mathématiques 4, 1813); here every size of
pack is followed, card by card of a pile, so that piles of unequal size are right as well.

A **slot** is the place of the told pile among the piles, from the top of the stack as it lies when it is put
together: 1 on top, k at the bottom. Positions count from 1 at the top of the pack as it is dealt from, face down.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import product

from ..budget import Budget
from ..cards import MAX_CARDS
from ..english import ordinal
from ..to_learn import DrillQuestion
from .desk import Desk, Send, Table, Trouble, asked, desk, within

FACE_UP, FACE_DOWN = "face up", "face down"
TABLE, STACK = "table", "stack"
MOST_ROUNDS, MOST_PILES = 6, 12
MOST_SEQUENCES = 60_000
"""ways to put the piles together, all rounds, up to which every one is gone through"""


@dataclass(frozen=True)
class PickupAsks:
    piles: int = asked(4, "piles: how many are dealt")
    rounds: int = asked(2, "rounds: how often they are dealt and put together")
    cards: int = asked(16, "cards: how many there are")
    dealt: str = asked(FACE_UP, "dealt: face up (the whole stack is then turned over) or face down")
    told: str = asked(
        TABLE, "told: by the pile on the table (you put the piles together) or by the place in the stack (they do)"
    )
    wanted: int = asked(10, "wanted position: where the card shall lie at the end, from the top")
    answers: list[int] = asked([], "answers: for each round the pile told, or its place in the stack from the top")
    gathered: list[int] = asked(
        [], "gathered: piles from top to bottom when answers are piles on the table; none for 1, 2, 3 …"
    )


@dataclass(frozen=True)
class Place:
    """A sequence of slots, one a round, and every position at which the card can land with it."""

    slots: tuple[int, ...]
    words: tuple[str, ...]
    lands: tuple[int, ...]


@dataclass(frozen=True)
class Size:
    """How many landings a number of cards leaves after the rounds, at best and with the told pile in the middle."""

    cards: int
    fewest: int
    middle: int
    middle_lands: tuple[int, ...]


@dataclass(frozen=True)
class PickupAnswers:
    cards: int
    piles: int
    wanted: int
    ways: tuple[Place, ...]
    """slots that bring the card to the wanted place for sure; the steadiest first"""
    nearly: tuple[Place, ...]
    """where none is sure: slots with which it lands there or at one other place"""
    answered: Place | None
    """for the given answers"""
    table: tuple[Place, ...]
    """for every position that some slots bring the card to for sure, in order"""
    unreached: tuple[int, ...]
    sizes: tuple[Size, ...]
    """packs near this one"""
    fewest_rounds: int | None
    """rounds after which the place is sure for some slots; None: not within six"""
    formula: str | None
    """the position from the slots s, t, u …, for piles of equal size in as many rounds as they need"""
    send: Send | None


@lru_cache(50_000)
def after_round(position: int, slot: int, piles: int, cards: int, face_up: bool) -> tuple[int, ...]:
    """Where a card can be after one round, if its pile takes this slot and the others lie around it in any order.

    Positions from 1 at the top of the pack, face down, before and after.
    """
    own, height = (position - 1) % piles, (position - 1) // piles
    sizes = [len(range(i, cards, piles)) for i in range(piles)]
    large = sum(size == sizes[0] for i, size in enumerate(sizes) if i != own)
    # Among those that lie above there can be more or fewer of the larger piles.
    fewest = max(0, slot - 1 - (piles - 1 - large))
    above = [(slot - 1) * sizes[0] - (slot - 1 - many) for many in range(fewest, min(slot - 1, large) + 1)]
    if sizes[0] == sizes[-1]:
        above = [(slot - 1) * sizes[0]]
    # The card dealt last lies on top of its pile.
    from_top = [cards_above + sizes[own] - height for cards_above in above]
    return tuple(sorted({cards + 1 - at if face_up else at for at in from_top}))


def landings(slots: Sequence[int], piles: int, cards: int, face_up: bool) -> tuple[int, ...]:
    """Every position at which a card can land that started anywhere."""
    at = set(range(1, cards + 1))
    for slot in slots:
        at = {after for position in at for after in after_round(position, slot, piles, cards, face_up)}
    return tuple(sorted(at))


def slot_words(slot: int, piles: int) -> str:
    """
    >>> [slot_words(slot, 3) for slot in (1, 2, 3)]
    ['top', 'middle', 'bottom']
    """
    if slot == 1:
        return "top"
    if slot == piles:
        return "bottom"
    return "middle" if 2 * slot == piles + 1 else f"{ordinal(slot)} from the top"


def _place(slots: Sequence[int], piles: int, lands: Sequence[int]) -> Place:
    return Place(tuple(slots), tuple(slot_words(slot, piles) for slot in slots), tuple(lands))


def _every(
    piles: int, rounds: int, cards: int, face_up: bool, budget: Budget
) -> Iterator[tuple[tuple[int, ...], tuple[int, ...]]]:
    """(slots, landings) of all sequences, those that change least between rounds first where it does not matter."""
    step: dict[tuple[int, frozenset[int]], frozenset[int]] = {}
    for slots in product(range(1, piles + 1), repeat=rounds):
        at = frozenset(range(1, cards + 1))
        for slot in slots:
            if (slot, at) not in step:
                budget.look(len(step), 0)
                step[slot, at] = frozenset(
                    after for position in at for after in after_round(position, slot, piles, cards, face_up)
                )
            at = step[slot, at]
        yield slots, tuple(sorted(at))


def _most_rounds(piles: int) -> int:
    rounds = MOST_ROUNDS
    while piles**rounds > MOST_SEQUENCES:
        rounds -= 1
    return rounds


def answer(asks: PickupAsks, budget: Budget) -> PickupAnswers:
    within(asks, piles=(2, MOST_PILES), rounds=(1, MOST_ROUNDS), cards=(2, MAX_CARDS))
    if asks.dealt not in (FACE_UP, FACE_DOWN):
        raise Trouble("dealt", f"Cards cannot be dealt “{asks.dealt}”.", f"Take {FACE_UP} or {FACE_DOWN}.")
    if asks.told not in (TABLE, STACK):
        raise Trouble("told", f"“{asks.told}” is no way to tell the pile.", f"Take {TABLE} or {STACK}.")
    piles, rounds, cards, up = asks.piles, asks.rounds, asks.cards, asks.dealt == FACE_UP
    if piles > cards:
        raise Trouble("piles", f"{cards} cards do not make {piles} piles.", "Take fewer piles, or more cards.")
    if rounds > _most_rounds(piles):
        raise Trouble(
            "rounds", f"{rounds} rounds with {piles} piles are {piles**rounds:,} ways to put them together.",
            f"Take at most {_most_rounds(piles)} rounds.",
        )  # fmt: skip
    if not 1 <= asks.wanted <= cards:
        raise Trouble(
            "wanted", f"There is no {ordinal(asks.wanted)} card among {cards}.", f"Take a position from 1 to {cards}."
        )
    sure: dict[int, list[Place]] = {}
    near: list[Place] = []
    for slots, lands in _every(piles, rounds, cards, up, budget):
        if len(lands) == 1:
            sure.setdefault(lands[0], []).append(_place(slots, piles, lands))
        elif asks.wanted in lands and len(lands) == 2:
            near.append(_place(slots, piles, lands))
    ways = sorted(sure.get(asks.wanted, []), key=_steady)
    counts = _counts(asks, up)
    if asks.told == STACK:
        send = _send_rule(asks, counts) if counts else None
    else:
        send = _send_wanted(asks, ways[0]) if ways else None
    return PickupAnswers(
        cards,
        piles,
        asks.wanted,
        tuple(ways[:24]),
        tuple(sorted(near, key=_steady)[:6]) if not ways else (),
        _answered(asks, up),
        tuple(min(found, key=_steady) for _, found in sorted(sure.items())),
        tuple(position for position in range(1, cards + 1) if position not in sure),
        tuple(_sizes(piles, rounds, cards, up, budget)),
        _fewest_rounds(piles, cards, up, budget),
        _formula(counts, piles) if counts else None,
        send,
    )


def _steady(place: Place) -> tuple[int, tuple[int, ...]]:
    """A magician rather keeps to one slot than to change it."""
    return len(set(place.slots)), place.slots


def _answered(asks: PickupAsks, up: bool) -> Place | None:
    if not asks.answers:
        return None
    piles = asks.piles
    order = asks.gathered or list(range(1, piles + 1))
    if asks.told == TABLE and sorted(order) != list(range(1, piles + 1)):
        raise Trouble(
            "gathered",
            "These are not all the piles once.",
            f"Write the numbers 1 to {piles} in the order from top to bottom.",
        )
    for told in asks.answers:
        if not 1 <= told <= piles:
            raise Trouble("answers", f"There is no pile {told} among {piles}.", f"Write numbers from 1 to {piles}.")
    if len(asks.answers) > MOST_ROUNDS:
        raise Trouble("answers", f"{len(asks.answers)} answers are too many.", f"Write at most {MOST_ROUNDS}.")
    if asks.told == STACK:
        return _place(asks.answers, piles, landings(asks.answers, piles, asks.cards, up))
    return _place(*_told_piles(asks.answers, order, piles, asks.cards, up))


def _told_piles(
    answers: Sequence[int], order: Sequence[int], piles: int, cards: int, up: bool
) -> tuple[tuple[int, ...], int, tuple[int, ...]]:
    """(slots, piles, landings) when pile after pile is told and all are always put together in this order."""
    at = set(range(1, cards + 1))
    sizes = [len(range(i, cards, piles)) for i in range(piles)]
    for told in answers:
        above = sum(sizes[pile - 1] for pile in order[: order.index(told)])
        inside = [position for position in at if (position - 1) % piles == told - 1]
        from_top = {above + sizes[told - 1] - (position - 1) // piles for position in inside}
        at = {cards + 1 - place if up else place for place in from_top}
    return tuple(order.index(told) + 1 for told in answers), piles, tuple(sorted(at))


def _sizes(piles: int, rounds: int, cards: int, up: bool, budget: Budget) -> Iterator[Size]:
    middle = [(piles + 1) // 2] * rounds
    # Every sequence of every size is too much to wait for where there are many.
    span = 12 if piles**rounds <= 100 else 4 if piles**rounds <= 1000 else 1
    for size in range(max(piles, cards - span), min(MAX_CARDS, cards + span) + 1):
        fewest = min(len(lands) for _, lands in _every(piles, rounds, size, up, budget))
        lands = landings(middle, piles, size, up)
        yield Size(size, fewest, len(lands), lands)


def _fewest_rounds(piles: int, cards: int, up: bool, budget: Budget) -> int | None:
    for rounds in range(1, _most_rounds(piles) + 1):
        if any(len(lands) == 1 for _, lands in _every(piles, rounds, cards, up, budget)):
            return rounds
    return None


def _counts(asks: PickupAsks, up: bool) -> tuple[bool, ...] | None:
    """Gergonne's rule as it comes out for this handling: whether a round counts the piles above the told one, or
    those below it. Checked against every sequence of slots; None where the piles do not narrow it down to one."""
    piles, rounds, cards = asks.piles, asks.rounds, asks.cards
    if cards != piles**rounds:
        return None
    slots_of = list(product(range(1, piles + 1), repeat=rounds))
    lands = [landings(slots, piles, cards, up)[0] for slots in slots_of]
    # It depends on how often dealing and turning over reverse the order.
    for counts in product((True, False), repeat=rounds):
        digits = (
            (slot - 1 if above else piles - slot for slot, above in zip(slots, counts, strict=True))
            for slots in slots_of
        )
        if [1 + sum(digit * piles**i for i, digit in enumerate(one)) for one in digits] == lands:
            return counts
    return None


def _formula(counts: Sequence[bool], piles: int) -> str:
    terms = [
        f"({name} − 1)" if above else f"({piles} − {name})" for name, above in zip("stuvwx", counts, strict=False)
    ]
    return "1 + " + " + ".join(f"{piles**i} · {term}" if i else term for i, term in enumerate(terms))


def _send_wanted(asks: PickupAsks, way: Place) -> Send:
    face = f", {FACE_UP}" if asks.dealt == FACE_UP else ""
    rows = ["Spectator thinks of a card in deck: their card"]
    for number, slot in zip("pqrstu", way.slots, strict=False):
        rows.append(f"Deal deck into {asks.piles} piles{face}")
        rows.append(f"Spectator tells which pile holds their card: {number}")
        rows.append(
            f"Gather the piles, pile {number} {ordinal(slot) if slot > 1 else 'on top'}, the others in any order"
        )
        if face:
            rows.append("Turn deck over")
    end = f"the {ordinal(asks.wanted)} card of deck" if asks.wanted > 1 else "the top card of deck"
    return Send(
        f"{asks.cards} cards to the {ordinal(asks.wanted)} place",
        (f"Pack: {asks.cards} cards, any order",),
        tuple(rows),
        (f"Ends with: {end} is their card",),
    )


def _send_rule(asks: PickupAsks, counts: Sequence[bool]) -> Send:
    """They put the piles together as they like and tell only how many lay under theirs; a count finds the card."""
    names = "abcdef"[: asks.rounds]
    face = asks.dealt == FACE_UP
    terms = [f"({asks.piles - 1} - {name})" if above else name for name, above in zip(names, counts, strict=True)]
    count = " + ".join(f"{asks.piles**i} * {term}" if i else term for i, term in enumerate(terms))
    return Send(
        f"{asks.cards} cards, {asks.rounds} answers",
        (f"Pack: {asks.cards} cards, any order",),
        (
            "Spectator thinks of a card in deck: their card",
            f"Repeat {asks.rounds} times:",
            f"  Spectator deals deck into {asks.piles} piles{', face up' if face else ''}",
            "  Spectator secretly gathers the piles in any order",
            f"  Spectator notes how many piles went under the one with their card: {', '.join(names)}",
            *(("  Spectator turns deck over",) if face else ()),
            f"Spectator tells {', '.join(names)}",
            f"Deal {count} cards from deck to table",
        ),
        ("Ends with: the next card is their card",),
    )


def tables(found: PickupAnswers) -> list[Table]:
    def row(place: Place) -> tuple[str, str]:
        return ", ".join(place.words), " or ".join(map(str, place.lands))

    shown = [("answers given", *row(found.answered))] if found.answered else []
    shown += [("wanted", *row(way)) for way in (*found.ways, *found.nearly)]
    shown += [("every place", *row(place)) for place in found.table]
    return [
        Table("pick-up", ("for", "told pile, round by round", "lands"), tuple(shown)),
        Table(
            "sizes",
            ("cards", "places at best", "places with the told pile in the middle", "where"),
            tuple((s.cards, s.fewest, s.middle, " or ".join(map(str, s.middle_lands[:4])) + (" …" if s.middle > 4 else "")) for s in found.sizes),
        ),
    ]  # fmt: skip


def to_learn(asks: PickupAsks, found: PickupAnswers) -> Iterator[DrillQuestion]:
    """For every position what takes the card there, and where it comes to; each sequence leads to one position alone."""
    said = {place.lands[0]: ", ".join(place.words) for place in found.table}
    for position, words in said.items():
        rule = f"{words}: {ordinal(position)}" + (f"; {found.formula}" if found.formula else "")
        yield DrillQuestion(f"lands {words}", words, "Where does their card come to?", str(position), (), rule)
        near = sorted(said, key=lambda other: (abs(other - position), other))[:MOST_OPTIONS]
        if len(near) > 1 and asks.told == TABLE:
            known, options = f"to the {ordinal(position)}", tuple(sorted(said[other] for other in near))
            yield DrillQuestion(
                f"to {position}", known, "Where does their pile go, round after round?", words, options, rule
            )


MOST_OPTIONS = 6

PICKUP = desk(
    Desk(
        "pickup",
        "Pick-up orders",
        "Where the told pile must go in each round for a wanted place, and where given answers lead.",
        PickupAsks,
        PickupAnswers,
        answer,
        tables,
        to_learn=to_learn,
    )
)
