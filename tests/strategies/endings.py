"""What is claimed at the end."""

from __future__ import annotations

import os
from collections.abc import Callable

from hypothesis import strategies as st

from .numbers import numbers
from .writer import Writer


class Claiming(Writer):
    def finish(self) -> None:
        """The endings."""
        focus = os.environ.get("FOCUS", "")
        if self.over:
            return
        for _ in range(self.draw(st.integers(0, 2))):
            self.look()
            self.ending("")
        if self.placed and (self.draw(st.integers(0, 3)) == 0 or focus.startswith("never_")):
            self.never()
        if self.draw(st.integers(0, 5)) == 0 or focus.startswith("odds_"):
            self.known = self.told
            self.rows.append(f"Odds of {self.number()}")
            self.rows += ["Odds: every choice is equally likely"] * self.pick(0, 1)

    def claims(self, cards: list[str], margin: str) -> dict[str, Callable[[], str]]:
        """What may be claimed of these cards, by the kind of ending; drawn when it is taken."""
        pick, source, spot = self.pick, self.source, self.spot
        card = pick(*cards)
        facing, fact = ("face up", "face down"), ("value", "suit", "colour")
        several = {card, pick(*cards)}
        options: dict[str, Callable[[], str]] = {
            "ends_with": lambda: f"{spot()} is {card}",
            "ends_at": lambda: f"{card} is {spot()}",
            "ends_without": lambda: f"{spot()} is not {card}",
            "ends_in": lambda: f"{card} is {pick('in', 'not in')} {source()}",
            "ends_one_of": lambda: f"{spot()} is one of {' and '.join(sorted(several))}",
            "ends_parity": lambda: (
                f"{self.number() if pick(True, False) else 'size of ' + pick(*self.filled)} is {pick('even', 'odd')}"
            ),
            "ends_same": lambda: f"{pick(*cards)} is {card}",
            "ends_facing": lambda: f"{spot()} is {pick(*facing)}",
            "ends_so_many_facing": lambda: f"{pick(*range(6))} cards of {source()} are {pick(*facing)}",
            "ends_alike": lambda: f"the top cards of {source()}, {source()} have the same {pick(*fact)}",
            "ends_beside": lambda: f"{pick(*cards)} is {pick('directly above', 'directly below', 'next to')} {card}",
            "ends_reversed": lambda: f"exactly {' and '.join(sorted(several))} are reversed in {source()}",
            "ends_equal": lambda: f"{source()}, {source()} have the same number of cards",
            "ends_number": lambda: (
                f"{self.draw(numbers(self.told))} {pick('is', 'is at most', 'is more than')} size of {pick(*self.filled)}"
            ),
            "ends_columns": lambda: f"each column of {source()}, {source()} has one {pick(*fact)}",
            "ends_groups": lambda: (
                f"in every {pick(2, 3)} cards of {source()} from the top all"
                f" {pick('values', 'suits', 'colours')} are {pick('different', 'the same')}"
            ),
            "ends_pairs": lambda: f"the cards of {source()}, two by two from the top, are mates",
            "ends_block": lambda: f"{' and '.join(sorted({*several, pick(*cards)}))} lie together in {source()}",
            "ends_sort_together": lambda: (
                f"all {pick('face-up cards', *(['red cards', 'aces', 'clubs'] if self.all_known else []))} of {source()} lie together"
            ),
            "ends_every_sort": lambda: f"every card of {source()} is {pick(*facing)}",
            "count": lambda: (
                f"number of {pick('face-up', 'face-down')} cards of {pick(*self.filled)} is {pick(0, 1, 2)}"
            ),
        }
        if self.grid:
            options["ends_in_column"] = lambda: f"{card} is in column {pick(1, 2, self.number())} of grid"
            options["ends_in_row"] = lambda: f"{card} is in row {pick(1, 2, self.number())} of grid"
            options["ends_line_sort"] = lambda: (
                f"every card in {pick('row', 'column')} {pick(1, 2)} of grid is {pick(*facing)}"
            )
        if self.grid and self.all_known:
            options["ends_each_line"] = lambda: (
                f"each {pick('row', 'column')} of grid has {pick('one', 'different')} {pick('values', 'suits', 'colours')}"
            )
        if any("Note the order" in row for row in self.rows):
            options["ends_in_order"] = lambda: f"{source()} is in the order noted"
        if not margin and not self.sorts_known and (self.told or self.secret):
            options["ends_told"] = lambda: f"the faces of {source()} tell {pick(*self.told, *self.secret)}"
        if self.may_look(margin):
            options["ends_together"] = lambda: (
                f"{pick(*cards)} and {card} {pick('are mates', *(f'have the same {one}' for one in fact))}"
            )
        mated = [
            row.rpartition("the mate of ")[2] for row in self.rows if row.startswith("Place") and "the mate of" in row
        ]
        if mated:
            options["ends_mate"] = lambda: f"{spot()} is the mate of {pick(*mated)}"
        if self.all_known:
            one = ("red", "a club", "a court card", "an ace", "a six")
            sorts = ("red", "black", "clubs", "hearts", "court", "aces", "kings", "sixes")
            options |= {
                "ends_so_many_sort": lambda: f"{pick(0, 1, 2)} cards of {source()} are {pick(*sorts)}",
                "ends_sort": lambda: f"{card} is {pick(*one)}",
                "ends_spot_sort": lambda: f"{spot()} is {pick(*one)}",
                "ends_spots_together": lambda: f"{spot()} and {spot()} {pick('are mates', 'differ in suit')}",
                "ends_spot_like": lambda: f"{spot()} has the same {pick(*fact)} as {card}",
                "ends_alternating": lambda: (
                    f"the cards of {source()} {pick('alternate in colour', 'rotate in suit')}"
                ),
                "ends_unlike": lambda: f"{source()} has no two cards of the same {pick('value', 'suit')}",
            }
        return options

    def claim(self, cards: list[str], margin: str) -> str:
        """One of them that can stand inside of another sentence."""
        options = self.claims(cards, margin)
        for kind in ("ends_told", "ends_in_order", "ends_together", "ends_alike", "ends_same"):
            options.pop(kind, None)
        return options[self.pick(*options)]()

    def joined(self, cards: list[str], margin: str) -> str:
        joint = self.pick(" and ", " or ")
        return joint.join(self.claim(cards, margin) for _ in range(self.pick(2, 2, 3)))

    def ending(self, margin: str) -> None:
        self.known = self.told
        options = self.claims(self.cards, margin)
        options["ends_several"] = lambda: self.joined(self.cards, margin)
        focus = os.environ.get("FOCUS", "")
        chosen = focus if focus in options else self.pick(*options)
        self.left -= 2 * (chosen == "ends_together")
        self.say(margin, f"Ends with: {options[chosen]()}")

    def never(self) -> None:
        options = [
            f"the {self.pick('face', 'back')} of {self.pick(*self.placed)}",
            *(["an odd back"] if self.odd else []),
        ]
        self.rows.append(f"Never shows: {self.pick(*options)}")
