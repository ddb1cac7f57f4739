"""What a line does and claims, and what it must not let be seen."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from typing import Any

from ..cards import DOWN, FACE_UP, TOKEN, UP
from ..language.kinds import ENDING
from ..search.program import (
    ANY_FACE,
    ANY_PLACE,
    END,
    FAILED,
    NO_ENDING,
    Act,
    Branch,
    Builds,
    Cell,
    Cells,
    Check,
    ClaimLine,
    Groups,
    Leap,
    Reader,
    Takes,
)
from ..search.telling import Seen, Told
from .nesting import Blocks
from .places import Place
from .purpose import Exposure


@dataclass(frozen=True)
class Judged:
    """What a line claims."""

    holds: Callable[[Sequence[Any]], bool]
    explain: Callable[[Sequence[Any]], str]
    """why it does not hold, as a clause"""
    groups: Groups | None = None
    """where it is about a heap group by group"""


class Acts(Blocks):
    def __init__(self, *given: Any) -> None:
        super().__init__(*given)
        self.assumed: list[str] = []
        self._endings = self._endings_for_all = 0
        """claims of an ending, and those of them that stand outside the cases"""
        self.tells: dict[int, int] = {}
        self.odds_cells: list[tuple[int, str, int]] = []
        self.ending_cell: int | None = None
        self.again_cell: int | None = None
        self.reached_cell: int | None = None
        self.equally_likely = False

    def assume(self, what: str) -> None:
        """The verdict will say that this was taken on trust."""
        if what not in self.assumed:
            self.assumed.append(what)

    def act(
        self,
        run: Callable[[Cells], None],
        handled: Reader | None = None,
        passing: Callable[[Sequence[Any]], bytes] | None = None,
        to: Place | None = None,
        sifts: bool = False,
        stacks: tuple[int, int, bool] | None = None,
        builds: Builds | None = None,
        hands_over: tuple[int, int] | None = None,
        splits: tuple[Takes, ...] | None = None,
    ) -> None:
        """The line does this. `passing` gives the cards that are seen one by one meanwhile, as they lie then.

        `to` is where all cards go that change their place, if it is one place; see Act for the others.
        """
        self.leaves_spots()
        if self.flag("shielded"):
            self.assume(f"line {self.line.number} is shielded")
        elif self.needs.exposures:
            run = self._watched(run, passing)
            self.reads.add(ANY_PLACE)
        if not self.performer_acts():  # who takes the cards takes the break out of your fingers
            self.scope.held = {name: on for name, on in self.scope.held.items() if not on & self.touches}
        self.scope.changes(self.touches)
        gathering = self.scope.gathering
        if gathering and self.touches & (gathering.to.cells | {gathering.sizes}):
            self.scope.gathering = None
        self.scope.gathering, self.gathered = self.gathered or self.scope.gathering, None
        self.instructions.append(
            Act(
                **self.standing(self.touches | ({FAILED} if self.needs.exposures else set()))
                | (
                    {"looks": frozenset(self.reads), "bags": frozenset(), "spots": ()} if self.needs.exposures else {}
                ),
                run=run,
                handled=handled or (lambda cells: 0),
                fills=to.cells if to else None,
                sifts=sifts,
                stacks=None if self.needs.exposures else stacks,
                builds=None if self.needs.exposures else builds,
                hands_over=None if self.needs.exposures else hands_over,
                splits=None if self.needs.exposures else splits,
            )
        )

    def counts_down(self, source: Place, to: Place, number: int, said: Sequence[int], tens: bool, cap: bool) -> None:
        """A card is dealt face up for each number said, until one has that value; the cell `number` gets it, else 0."""
        self.reads.add(ANY_FACE)
        self.touches |= set(self.face_cells.values())
        self.looks_in |= source.cells
        self.facts_in |= source.cells
        fact = "value up to ten" if tens else "value"

        def found(cells: Sequence[Any]) -> tuple[int, int, int]:
            heap = source.of(cells)
            if not heap:
                self.within_heap(source, 1, 0)
            return source.find(cells), 0, heap[0] & TOKEN

        leaving = []
        for value in said:
            # It is looked at where it comes from: what lies on the table then need not be told apart.
            matches = self.look_whether(f"the card at {value}", found, f"{fact} is {value}", 1)

            def note(cells: Cells, matches: Callable[[Sequence[Any]], bool] = matches, value: int = value) -> None:
                cells[number] = value if matches(cells) else 0

            self.reads.add(number)
            self._deals_one(source, to, face_up=True, first=note)
            leaving.append(len(self.instructions))
            self.instructions.append(Branch(**self.standing(), holds=lambda cells: not cells[number], target=END))
        if cap:
            self._deals_one(source, to, face_up=False)
        for index in leaving:
            self._aim(index)
        end = len(self.instructions)
        self.instructions.append(Leap(self.line.number, self.rounds, frozenset(), frozenset(), end + 1))

    def _deals_one(
        self, source: Place, to: Place, face_up: bool, first: Callable[[Cells], None] = lambda cells: None
    ) -> None:
        follows = self.follows_faces

        def run(cells: Cells) -> None:
            first(cells)
            heap = source.of(cells)
            self.within_heap(source, 1, len(heap))
            source.put(cells, heap[1:])
            card = heap[:1].translate(UP if face_up else DOWN) if follows else heap[:1]
            to.put(cells, card + to.of(cells))

        self.act(run, lambda cells: 1, lambda cells: source.of(cells)[:1], to)

    def builds(self, place: Place, to_come: Reader) -> Builds | None:
        """What is done lays cards on top of a hidden place, of which so many are still to come."""
        return Builds(min(place.cells), to_come) if len(place.cells) == 1 else None

    def put_back(self, source: Place, to: Place, is_empty: bool = False) -> None:
        """All cards of a place go on those of another; `is_empty`: there are none by now."""
        fixed = is_empty and len(source.cells) == len(to.cells) == 1

        def run(cells: Cells) -> None:
            to.put(cells, source.of(cells) + to.of(cells))
            source.put(cells, b"")

        self.act(run, to=to, hands_over=(min(source.cells), min(to.cells)) if fixed else None, splits=())

    def takes(self, place: Place, number: Reader, reads: frozenset[int]) -> tuple[Takes, ...] | None:
        """The line takes so many cards off the top of a place, whatever it does with them; None where it is not always the same place."""
        return (Takes(min(place.cells), number, reads),) if len(place.cells) == 1 else None

    def learn(self, slot: str, value: Reader, secret: bool) -> None:
        """The line settles a number from what lies there, rather than by a choice."""
        cell = self.new_number(slot, self.name_of_this_round(slot), secret)

        def run(cells: Cells) -> None:
            cells[cell] = value(cells)

        self.act(run)

    def check(
        self,
        holds: Callable[[Sequence[Any]], bool],
        explain: Callable[[Sequence[Any]], str],
        groups: Groups | None = None,
    ) -> None:
        """The line claims this."""
        self._claimed(Judged(holds, explain, groups))

    def _claimed(self, judged: Judged) -> None:
        index = self._ending()
        # The ending of all other paths is told beside those of the cases.
        if self.purpose.odds and (self._cases or self.ending_cell is not None):
            self._comes_to_ending()
        self._settles(index, judged)

    def in_groups(self, place: Place, size: int, holds: Callable[[Sequence[Any], bytes], bool]) -> Groups | None:
        """The claim is about a heap group by group; see Groups."""
        return Groups(min(place.cells), size, holds) if len(place.cells) == 1 else None

    def _settles(self, claim: int, judged: Judged) -> None:
        reached = self.reached_cell if self.claims[claim].marked else None
        touches = {FAILED} if reached is None else {FAILED, reached}
        self.instructions.append(
            Check(
                **self.standing(touches) | (self.looking_at_spots(self.spots_in) if self.spots_in else {}),
                claim=claim,
                holds=judged.holds,
                explain=judged.explain,
                reached=reached,
                groups=judged.groups,
            )
        )

    def _comes_to_ending(self) -> None:
        if self.ending_cell is None:
            self.ending_cell = self.new_cell(Cell("ending", False))
        cell, line = self.ending_cell, self.line.number

        def run(cells: Cells) -> None:
            cells[cell] = cells[cell] or line

        self.note(run, [cell])

    def check_tells(self, seen: Callable[[Sequence[Any]], Seen], told: Callable[[Sequence[Any]], Told]) -> None:
        """The line claims that what is `seen` at the end settles what is `told`: no two paths can see the same and differ."""
        index = self._ending()
        self.tells[index] = cell = self.new_cell(Cell("what is seen at the end", False))
        reached = self.reached_cell if self.claims[index].marked else None

        def run(cells: Cells) -> None:
            cells[FAILED] &= ~NO_ENDING
            cells[cell] = (seen(cells), told(cells))
            if reached is not None:
                cells[reached] |= 1 << index

        self.note(run, [cell, FAILED, *([reached] if reached is not None else [])])

    def end_here(self) -> None:
        """These paths have come to an end of their own."""
        if not self._cases:
            raise self.fault_at(
                self.line, "Every path ends here.", "a case, such as “If n is 0:”, around this line",
                "Indent it under an If, or leave it out.",
            )  # fmt: skip

        def run(cells: Cells) -> None:
            cells[FAILED] &= ~NO_ENDING

        if self.purpose.odds:
            self._comes_to_ending()
        self.note(run, [FAILED])
        self._phase = ENDING

    def start_again(self) -> None:
        """These paths begin anew; what they come to is for the next time."""
        if not self._cases:
            raise self.fault_at(
                self.line, "Every path starts again here.", "a case, such as “If P and Q are mates:”, around this line",
                "Indent it under an If.",
            )  # fmt: skip
        if self.again_cell is None:
            self.again_cell = self.new_cell(Cell("starts again", False))
        cell = self.again_cell

        def run(cells: Cells) -> None:
            cells[cell] = 1
            cells[FAILED] &= ~NO_ENDING

        self.note(run, [cell, FAILED])
        self._phase = ENDING

    def ask_odds(self, text: str, number: Reader, settled: bool) -> None:
        """How often this number comes to what is asked for; `settled`: it follows from others, and cannot fail."""
        cell = self.new_cell(Cell(text, False))
        self.odds_cells.append((self.line.number, text, cell))

        def run(cells: Cells) -> None:
            cells[cell] = number(cells)

        self.note(run, [cell], reckons=settled)

    def _ending(self) -> int:
        if not self._cases and (self._left or self._unlimited):
            raise self.fault_at(
                self.line, "The routine would end here the first time round.", "an ending behind the repeated lines",
                "Move it behind them, or under an If.",
            )  # fmt: skip
        self._endings += 1
        self._endings_for_all += not self._cases
        return self._claim()

    def _claim(self, throughout: bool = False) -> int:
        marked = not throughout and (self._cases > 0 or self._some_have_ended)
        if marked and self.reached_cell is None:
            self.reached_cell = self.new_cell(Cell("claims reached", False))
            self.start[self.reached_cell] = 0
        self.claims.append(ClaimLine(self.line.number, self.line.text.strip(), marked, throughout))
        return len(self.claims) - 1

    # What must not be seen

    def never_shows(self, card_slot: str | None, face: bool) -> None:
        """A side of a card (by slot; None: any odd back) is not seen before the end."""
        name = self.phrase(card_slot) if card_slot else None
        if name is not None and name not in self.scope.cards:
            raise self.unknown(card_slot or "", name, "card")
        if name in self.card_cells:
            raise self.fault(
                card_slot or "",
                f"{name} is named on the way: what it shows before cannot be followed.",
                "a card that is placed in the set-up",
                "Place the card in the set-up.",
            )
        if name is None and not self._odd_backs():
            raise self.fault_at(
                self.line,
                "No card has an odd back.",
                "a card placed “with an odd back”",
                "Place one, or leave it out.",
            )
        exposure = Exposure(self._claim(throughout=True), name, face)
        self.ask_faces()
        self.found_needs = replace(self.found_needs, exposures=(*self.found_needs.exposures, exposure))
        self._seen_as(exposure)

    def _odd_backs(self) -> dict[int, str]:
        """Token → name."""
        return {self.token(card.name): card.name for card in self._set_up() if card.odd_back and card.name}

    def _seen_as(self, exposure: Exposure) -> frozenset[int]:
        """The bytes at which the side shows."""
        tokens = list(self._odd_backs()) if exposure.card is None else [self.token(exposure.card)]
        return frozenset(token | FACE_UP if exposure.face else token for token in tokens)

    def _watched(
        self, run: Callable[[Cells], None], passing: Callable[[Sequence[Any]], bytes] | None
    ) -> Callable[[Cells], None]:
        """Marks the claim as failed when a side shows: on a card that passes, or that lies open afterwards."""
        heaps = [i for i, cell in enumerate(self.cells) if cell.is_place]
        layouts = {i: self.cells[i].layout for i in heaps}
        bad = [(2 << exposure.claim, exposure) for exposure in self.needs.exposures]
        seen_as: list[tuple[int, frozenset[int]]] = []

        def watched(cells: Cells) -> None:
            if not seen_as:  # only now is every card of the set-up known
                seen_as.extend((bit, self._seen_as(exposure)) for bit, exposure in bad)
            seen = passing(cells) if passing else b""
            run(cells)
            for place in heaps:
                seen += layouts[place].in_sight(cells[place])
            for bit, sides in seen_as:
                if not sides.isdisjoint(seen):
                    cells[FAILED] |= bit

        return watched
