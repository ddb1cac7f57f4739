"""Claims that a line asks about where it stands, instead of making them: the same meaning, judged at once."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from dataclasses import replace
from typing import Any

from ..language.claims import Claim, Joined, claims_in
from ..language.kinds import ENDING
from ..language.templates import PERSON
from ..search.program import Reader
from .acts import Judged
from .keeping import Keeping


class Judging(Keeping):
    def __init__(self, *given: Any) -> None:
        super().__init__(*given)
        self._judged: list[Judged] | None = None
        """while a claim is asked about: what it has turned out to be"""

    def asked(self, slot: str) -> Judged:
        """The claim in the slot, as whoever carries out the line can tell whether it is so."""
        return self._as_one(slot, by_whoever=False)

    def claimed(self, slot: str) -> Judged:
        """The claim in the slot as it is, whoever knows it."""
        return self._as_one(slot, by_whoever=True)

    def _as_one(self, slot: str, by_whoever: bool) -> Judged:
        value = self.line.values[slot]
        parts = [self._one(claim, by_whoever) for claim in claims_in(value)]
        if not isinstance(value, Joined):
            return parts[0]
        each = all if value.how == "and" else any

        def holds(cells: Sequence[Any]) -> bool:
            return each([part.holds(cells) for part in parts])  # all of them are asked, whatever the first says

        def explain(cells: Sequence[Any]) -> str:
            return " and ".join(part.explain(cells) for part in parts if not part.holds(cells))

        return Judged(holds, explain)

    def _one(self, claim: Claim, by_whoever: bool) -> Judged:
        with self._speaking_of(claim, by_whoever), self._looking_by_itself():
            self._judged = []
            try:
                for slot, name in () if by_whoever else self.cards_by_name():
                    self.must_have_seen(slot, name)
                    if self.performer_acts():
                        self.must_know(slot, name)
                claim.kind.means(self)
                (found,) = self._judged
            finally:
                self._judged = None
        return found

    @contextmanager
    def _looking_by_itself(self) -> Iterator[None]:
        """Of several claims in a line each says for itself in which places it looks, and whether in any order."""
        outer = self.reads, self.looks_in, self.bags_in, self.spots_in, self.looks_everywhere
        self.reads, self.looks_in, self.bags_in, self.spots_in, self.looks_everywhere = set(), set(), set(), (), False
        try:
            yield
        finally:
            own = self.looking_at_spots(self.spots_in)
            in_order = self.standing()["looks"] - own["bags"]
            reads, looks_in, bags_in, spots_in, self.looks_everywhere = outer
            self.reads, self.looks_in = reads | self.reads, looks_in | in_order
            self.bags_in, self.spots_in = bags_in | own["bags"], (*spots_in, *own["spots"])

    @contextmanager
    def _speaking_of(self, claim: Claim, by_whoever: bool) -> Iterator[None]:
        """The slots of the line are those of the claim; who does it, and when, is said by the line around it."""
        outer = self.line
        values = {**claim.values, PERSON: outer.values.get(PERSON)}
        self._line = replace(outer, values=values, spans=claim.spans)
        known, self.for_all_to_know = self.for_all_to_know, not by_whoever
        try:
            yield
        finally:
            self._line, self.for_all_to_know = outer, known

    @property
    def goes_by_outcome(self) -> bool:
        """Whether the line goes by whether the claim is so, and nobody has to be told why it is not."""
        return self._judged is not None and self.for_all_to_know

    # What a claim that is asked about does otherwise

    def _claimed(self, judged: Judged) -> None:
        if self._judged is None:
            super()._claimed(judged)
        else:
            self._judged.append(judged)

    def truth(self, slot: str) -> Reader:
        return super().truth(slot) if self._judged is None else self.number(slot)

    def claimed_card(self, slot: str) -> Reader:
        if self._judged is None or (self.line.kind and self.line.kind.phase == ENDING):
            return super().claimed_card(slot)
        return self.card(slot)
