"""What is claimed at the end."""

from __future__ import annotations

import os

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

    def claims(self, cards: list[str], margin: str) -> dict[str, str]:
        """What may be claimed of these cards, by the kind of ending."""
        card = self.pick(*cards)
        options = {
            "ends_with": f"{self.spot()} is {card}",
            "ends_at": f"{card} is {self.spot()}",
            "ends_without": f"{self.spot()} is not {card}",
            "ends_in": f"{card} is {self.pick('in', 'not in')} {self.source()}",
            "ends_one_of": f"{self.spot()} is one of {' and '.join(sorted({card, self.pick(*cards)}))}",
            "ends_parity": f"{self.pick(f'size of {self.pick(*self.filled)}', self.number())} is {self.pick('even', 'odd')}",
            "ends_same": f"{self.pick(*cards)} is {card}",
            "ends_facing": f"{self.spot()} is {self.pick('face up', 'face down')}",
            "ends_so_many_facing": f"{self.pick(*range(6))} cards of {self.source()} are {self.pick('face up', 'face down')}",
            "ends_alike": f"the top cards of {self.source()}, {self.source()} have the same {self.pick('value', 'suit', 'colour')}",
            "ends_beside": f"{self.pick(*cards)} is {self.pick('directly above', 'directly below', 'next to')} {card}",
            "ends_reversed": f"exactly {' and '.join(sorted({card, self.pick(*cards)}))} are reversed in {self.source()}",
            "ends_equal": f"{self.source()}, {self.source()} have the same number of cards",
        }
        few = self.draw(numbers(self.told))
        options["ends_number"] = (
            f"{few} {self.pick('is', 'is at most', 'is more than')} size of {self.pick(*self.filled)}"
        )
        columns = f"{self.source()}, {self.source()} has one {self.pick('value', 'suit', 'colour')}"
        options["ends_columns"] = f"each column of {columns}"
        groups = f"in every {self.pick(2, 3)} cards of {self.source()} from the top all"
        options["ends_groups"] = (
            f"{groups} {self.pick('values', 'suits', 'colours')} are {self.pick('different', 'the same')}"
        )
        if self.grid:
            options["ends_in_column"] = f"{card} is in column {self.pick(1, 2, self.number())} of grid"
            line, at = self.pick("row", "column"), self.pick(1, 2)
            options["ends_line_sort"] = f"every card in {line} {at} of grid is {self.pick('face up', 'face down')}"
            if self.all_known:
                how, what = self.pick("one", "different"), self.pick("values", "suits", "colours")
                options["ends_each_line"] = f"each {line} of grid has {how} {what}"
            options["ends_in_row"] = f"{card} is in row {self.pick(1, 2, self.number())} of grid"
        if any("Note the order" in row for row in self.rows):
            options["ends_in_order"] = f"{self.source()} is in the order noted"
        options["ends_pairs"] = f"the cards of {self.source()}, two by two from the top, are mates"
        if not margin and not self.sorts_known and (self.told or self.secret):
            options["ends_told"] = f"the faces of {self.source()} tell {self.pick(*self.told, *self.secret)}"
        if self.may_look(margin):
            together = self.pick("are mates", "have the same value", "have the same suit", "have the same colour")
            options["ends_together"] = f"{self.pick(*cards)} and {card} {together}"
        mated = [name for row in self.rows if "the mate of" in row for name in [row.rpartition("the mate of ")[2]]]
        if mated:
            options["ends_mate"] = f"{self.spot()} is the mate of {self.pick(*mated)}"
        several = sorted({card, self.pick(*cards), self.pick(*cards)})
        options["ends_block"] = f"{' and '.join(several)} lie together in {self.source()}"
        sort = self.pick("face-up cards", *(["red cards", "aces", "clubs"] if self.all_known else []))
        options["ends_sort_together"] = f"all {sort} of {self.source()} lie together"
        options["ends_every_sort"] = f"every card of {self.source()} is {self.pick('face up', 'face down')}"
        some = self.pick(*self.filled)
        options["count"] = f"number of {self.pick('face-up', 'face-down')} cards of {some} is {self.pick(0, 1, 2)}"
        if self.all_known:
            place, sorts = self.source(), ("red", "black", "clubs", "hearts", "court", "aces", "kings", "sixes")
            options["ends_so_many_sort"] = f"{self.pick(0, 1, 2)} cards of {place} are {self.pick(*sorts)}"
            one = self.pick("red", "a club", "a court card", "an ace", "a six")
            options["ends_sort"], options["ends_spot_sort"] = f"{card} is {one}", f"{self.spot()} is {one}"
            options["ends_spots_together"] = (
                f"{self.spot()} and {self.spot()} {self.pick('are mates', 'differ in suit')}"
            )
            options["ends_spot_like"] = f"{self.spot()} has the same {self.pick('value', 'suit', 'colour')} as {card}"
            options["ends_alternating"] = (
                f"the cards of {self.source()} {self.pick('alternate in colour', 'rotate in suit')}"
            )
            options["ends_unlike"] = f"{self.source()} has no two cards of the same {self.pick('value', 'suit')}"
        return options

    def claim(self, cards: list[str], margin: str) -> str:
        """One of them that can stand inside of another sentence."""
        options = self.claims(cards, margin)
        for kind in ("ends_told", "ends_in_order", "ends_together", "ends_alike", "ends_same"):
            options.pop(kind, None)
        return str(options[self.pick(*options)])

    def joined(self, cards: list[str], margin: str) -> str:
        joint = self.pick(" and ", " or ")
        return joint.join(self.claim(cards, margin) for _ in range(self.pick(2, 2, 3)))

    def ending(self, margin: str) -> None:
        self.known = self.told
        options = self.claims(self.cards, margin)
        options["ends_several"] = self.joined(self.cards, margin)
        focus = os.environ.get("FOCUS", "")
        chosen = focus if focus in options else self.pick(*options)
        self.left -= 2 * (chosen == "ends_together")
        self.say(margin, f"Ends with: {options[chosen]}")

    def never(self) -> None:
        options = [
            f"the {self.pick('face', 'back')} of {self.pick(*self.placed)}",
            *(["an odd back"] if self.odd else []),
        ]
        self.rows.append(f"Never shows: {self.pick(*options)}")
