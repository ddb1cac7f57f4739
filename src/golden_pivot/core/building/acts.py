"""What a line does and claims, and what it must not let be seen."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from typing import Any

from ..cards import FACE_UP
from ..program import FAILED, Act, Cells, Check, ClaimLine, Reader
from .blocks import Blocks
from .purpose import Exposure


class Acts(Blocks):
    def __init__(self, *given: Any) -> None:
        super().__init__(*given)
        self.assumed: list[str] = []
        self._endings = self._endings_for_all = 0
        """claims of an ending, and those of them that stand outside the cases"""

    def assume(self, what: str) -> None:
        """The verdict will say that this was taken on trust."""
        if what not in self.assumed:
            self.assumed.append(what)

    def act(
        self,
        run: Callable[[Cells], None],
        handled: Reader | None = None,
        passing: Callable[[Sequence[Any]], bytes] | None = None,
    ) -> None:
        """The line does this. `passing` gives the cards that are seen one by one meanwhile, as they lie then."""
        if self.flag("shielded"):
            self.assume(f"line {self.line.number} is shielded")
        elif self.needs.exposures:
            run = self._watched(run, passing)
            self.reads |= {i for i, cell in enumerate(self.cells) if cell.is_place}
        gathering = self.scope.gathering
        if gathering and self.touches & (gathering.to.cells | {gathering.sizes}):
            self.scope.gathering = None
        self.scope.gathering, self.gathered = self.gathered or self.scope.gathering, None
        self.instructions.append(
            Act(
                self.line.number,
                self.rounds,
                frozenset(self.reads),
                frozenset(self.touches) | ({FAILED} if self.needs.exposures else set()),
                run,
                handled or (lambda cells: 0),
            )
        )

    def learn(self, slot: str, value: Reader, secret: bool) -> None:
        """The line settles a number from what lies there, rather than by a choice."""
        cell = self.new_number(slot, self.name_of_this_round(slot), secret)

        def run(cells: Cells) -> None:
            cells[cell] = value(cells)

        self.act(run)

    def check(self, holds: Callable[[Sequence[Any]], bool], explain: Callable[[Sequence[Any]], str]) -> None:
        """The line claims this."""
        self._endings += 1
        self._endings_for_all += not self._cases
        index = self._claim()
        self.instructions.append(
            Check(self.line.number, self.rounds, frozenset(self.reads), frozenset({FAILED}), index, holds, explain)
        )

    def _claim(self) -> int:
        self.claims.append(ClaimLine(self.line.number, self.line.text.strip(), self._cases > 0))
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
        exposure = Exposure(self._claim(), name, face)
        self.ask_faces()
        self.found_needs = replace(self.found_needs, exposures=(*self.found_needs.exposures, exposure))
        self._seen_as(exposure)

    def _odd_backs(self) -> list[int]:
        return [self.token(card.name) for card in self._set_up() if card.odd_back and card.name]

    def _seen_as(self, exposure: Exposure) -> frozenset[int]:
        """The bytes at which the side shows."""
        tokens = self._odd_backs() if exposure.card is None else [self.token(exposure.card)]
        return frozenset(token | FACE_UP if exposure.face else token for token in tokens)

    def _watched(
        self, run: Callable[[Cells], None], passing: Callable[[Sequence[Any]], bytes] | None
    ) -> Callable[[Cells], None]:
        """Marks the claim as failed when a side shows: on a card that passes, or that lies open afterwards."""
        heaps = [i for i, cell in enumerate(self.cells) if cell.is_place]
        rows = {i for i in heaps if self.cells[i].is_row}
        bad = [(2 << exposure.claim, exposure) for exposure in self.needs.exposures]
        seen_as: list[tuple[int, frozenset[int]]] = []

        def watched(cells: Cells) -> None:
            if not seen_as:  # only now is every card of the set-up known
                seen_as.extend((bit, self._seen_as(exposure)) for bit, exposure in bad)
            seen = passing(cells) if passing else b""
            run(cells)
            for place in heaps:
                seen += cells[place] if place in rows else cells[place][:1]
            for bit, sides in seen_as:
                if not sides.isdisjoint(seen):
                    cells[FAILED] |= bit

        return watched
