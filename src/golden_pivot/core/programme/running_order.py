"""A programme as it stands: times, which pack goes where, what is to be done between, and what speaks against it."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import permutations

from ..budget import Budget
from ..english import counted
from ..language.parser import read_routine
from ..show.paces import Paces
from .calls import Call, calls_of, likeness, warnings_beside
from .giving_out import give_out
from .in_between import in_between, in_words
from .known import Known, known_of
from .occasion import Occasion
from .order import MOST_ORDERED, Best, Costs, best_order
from .pack_between import PackBetween, pack_between

NEAR = 8
"""places apart within which a pack may go from one routine to another; one that lay longer is set up anew"""


@dataclass(frozen=True)
class Played:
    """A routine of the shelf, with what the book knows of how long it takes."""

    uid: str
    text: str
    minutes: float | None = None
    """the middle one of those that were measured"""
    measured: int = 0
    shown_to: tuple[tuple[str, str], ...] = ()
    """(audience, day) of the performances in the book"""


@dataclass(frozen=True)
class Turn:
    """One routine in its place."""

    uid: str
    title: str
    begins: float
    """seconds after the beginning"""
    seconds: float
    measured: int
    """performances in the book that `seconds` is the middle of; 0: reckoned from effort"""
    pack: int
    """from 1"""
    after: int | None
    """place in the order of the routine that had the pack before; None: it is set up beforehand"""
    between: PackBetween | None
    ready: str
    """what may happen to the pack before it, and what would spoil it; empty where that is not known"""
    pockets: tuple[str, ...]
    """places off the table that it needs"""
    trouble: str


@dataclass(frozen=True)
class RunningOrder:
    turns: tuple[Turn, ...]
    seconds: float
    """with resets"""
    resetting: float
    packs: int
    """that are needed"""
    calls: tuple[Call, ...]
    """warnings that are not kept"""
    kept: tuple[Call, ...]
    """warnings that the performer keeps"""


@dataclass(frozen=True)
class Proposal:
    order: tuple[int, ...]
    """places of the programme as it stands, in their new order; none where there is no better one to show"""
    running: RunningOrder | None
    says: str
    gives: tuple[str, ...]


class Programme:
    """Several routines, each looked at once; pairs are worked out when they are asked for."""

    def __init__(
        self, played: Sequence[Played], occasion: Occasion, budget: Budget, paces: Paces | None = None
    ) -> None:
        self.played, self.occasion, self.budget, self.paces = played, occasion, budget, paces or Paces()
        self._pairs: dict[tuple[str, str], PackBetween] = {}
        self._waits: dict[str, str] = {}
        looked_at: dict[str, Known] = {}
        for nth, one in enumerate(played, start=1):
            budget.progress(f"routine {nth} of {len(played)}")
            if one.uid not in looked_at:
                minutes = (one.minutes, one.measured) if one.minutes else None
                known = known_of(one.uid, one.text, budget.afresh(), self.paces, minutes)
                looked_at[one.uid] = replace(known, shown_to=tuple((who, day) for who, day in one.shown_to))
        self.known = [looked_at[one.uid] for one in played]

    def between(self, first: int, second: int) -> PackBetween | None:
        """None where one of the two has faults."""
        one, other = self.played[first], self.played[second]
        if not self.known[first].method or not self.known[second].method:
            return None
        if (one.text, other.text) not in self._pairs:
            self.budget.look(0, 0)
            found = pack_between(read_routine(one.text), read_routine(other.text), self.budget.afresh(), self.paces)
            self._pairs[one.text, other.text] = found
        return self._pairs[one.text, other.text]

    def running_order(self) -> RunningOrder:
        """As it stands."""
        return self._laid_out(range(len(self.played)))

    def _laid_out(self, order: Sequence[int]) -> RunningOrder:
        n = len(order)
        near = ((i, j) for j in range(n) for i in range(max(0, j - NEAR), j))
        costs = self._costs(order, near, lambda nth, of: self.budget.progress(f"pack {nth} of {of}"))
        kinds = [wish.kind for wish in self.occasion.wishes]
        fewest = "fewest packs" in kinds and "least resetting" not in kinds[: kinds.index("fewest packs")]
        packs = give_out(n, costs.between, self.occasion.packs, fewest)
        turns = tuple(self._turns(order, packs))
        seconds = turns[-1].begins + turns[-1].seconds if turns else 0.0
        known = [self.known[at] for at in order]
        calls = list(calls_of(known, self.occasion, seconds))
        if max(packs, default=0) > self.occasion.packs:
            said = f"It needs {counted(max(packs), 'pack')}; {self.occasion.packs} {'is' if self.occasion.packs == 1 else 'are'} at hand."
            calls.append(Call("too few packs", (), said))
        kept = set(self.occasion.kept)
        resetting = sum(turn.between.seconds for turn in turns if turn.between)
        return RunningOrder(
            turns, round(seconds, 1), round(resetting, 1), max(packs, default=0),
            tuple(one for one in calls if one.key not in kept), tuple(one for one in calls if one.key in kept),
        )  # fmt: skip

    def _turns(self, order: Sequence[int], packs: Sequence[int]) -> Iterator[Turn]:
        last: dict[int, int] = {}
        now = 0.0
        for place, at in enumerate(order):
            known, pack = self.known[at], packs[place]
            after = last.get(pack)
            between = self.between(order[after], at) if after is not None else None
            now += between.seconds if between else 0.0
            ready = self._ready(known)
            yield Turn(
                known.uid, known.title, round(now, 1), known.seconds, known.measured, pack, after, between, ready, tuple(sorted(known.pockets)), known.trouble
            )  # fmt: skip
            now += known.seconds
            last[pack] = place

    def _ready(self, known: Known) -> str:
        if known.text not in self._waits:
            found = in_between(known.text, self.budget.afresh()) if known.method else ()
            self._waits[known.text] = in_words(found)
        return self._waits[known.text]

    def _costs(
        self, order: Sequence[int], pairs: Iterator[tuple[int, int]], progress: Callable[[int, int], None]
    ) -> Costs:
        between: dict[tuple[int, int], float] = {}
        wanted = list(pairs)
        for nth, (i, j) in enumerate(wanted, start=1):
            progress(nth, len(wanted))
            found = self.between(order[i], order[j])
            if found and found.state != "another pack":
                between[i, j] = found.seconds
        known = [self.known[at] for at in order]
        all_pairs = list(permutations(range(len(order)), 2))
        alike = {(i, j): likeness(known[i], known[j]) for i, j in all_pairs}
        warned = {(i, j): warnings_beside(known[i], known[j]) for i, j in all_pairs}
        return Costs(tuple(one.seconds for one in known), between, alike, warned)

    def best(self) -> Proposal:
        """The order that the wishes of the occasion ask for."""
        n = len(self.played)
        if n > MOST_ORDERED:
            return _nothing(
                f"An order is sought for up to {MOST_ORDERED} routines; these are {n}. Leave some out first."
            )
        if n < 2:
            return _nothing("There is nothing to put in order yet: take at least two routines.")
        everyone = ((i, j) for i in range(n) for j in range(n) if i != j)
        costs = self._costs(range(n), everyone, lambda nth, of: self.budget.progress(f"pair {nth} of {of}"))
        self.budget.progress("the best order")
        found = best_order(
            costs, self.occasion.wishes, [one.uid for one in self.played], self.occasion.packs, self.occasion.minutes
        )
        if found.found is None:
            return _nothing(self._why_none(found))
        order = found.found.order
        running = self._laid_out(order)
        says = "It is in the best order already." if order == tuple(range(n)) else self._gain(running)
        return Proposal(order, running, says, found.gives)

    def _gain(self, new: RunningOrder) -> str:
        old = self.running_order()
        changes = [
            f"{after} instead of {before}" if after != before else f"{after} as now"
            for after, before in (
                (counted(new.packs, "pack"), counted(old.packs, "pack")),
                (f"{new.resetting:.0f} seconds of resetting", f"{old.resetting:.0f}"),
                (counted(len(new.calls), "warning"), counted(len(old.calls), "warning")),
            )
        ]
        return f"{', '.join(changes)}."

    def _why_none(self, best: Best) -> str:
        if not best.settled:
            return "No order was settled within the budget."
        titles = {one.uid: known.title for one, known in zip(self.played, self.known, strict=True)}
        named = [f"{wish.kind} {titles.get(wish.routine, '')}".strip() for wish in best.clash]
        with_packs = f"with {counted(self.occasion.packs, 'pack')} at hand"
        if not named:
            return f"It cannot be done {with_packs}, in any order."
        return f"These wishes clash, {with_packs}: {'; '.join(named)}."


def _nothing(says: str) -> Proposal:
    return Proposal((), None, says, ())
