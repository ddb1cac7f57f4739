"""Piles dealt, narrowed down and gathered."""

from __future__ import annotations

from hypothesis import strategies as st

from .writer import Writer


class Piling(Writer):
    def _do_deal_piles(self, margin: str) -> None:
        source = self.pick(*(place for place in self.filled if place != "row"))
        self.piles = self.pick(1, 2, 3)
        each = self.pick("", "", f", {self.pick(0, 1, 1, 2)} cards each", f", {self.number()} cards each")
        way = self.pick("", ", face up", ", face down")
        order = self.pick("", "", ", from right to left", ", from left to right")
        self.say(margin, f"{self.who}deal{self.s} {source} into {self.piles} piles{order}{each}{way}")

    def _do_gather_any(self, margin: str) -> None:
        self.left -= 2
        to = f" to {self.target('')}" if self.pick(True, False) else ""
        self.say(margin, f"{self.who}{self.pick('', 'secretly ')}gather{self.s} the piles in any order{to}")

    def _do_gather_side(self, margin: str) -> None:
        side = self.pick("left to right", "right to left", *(["either side"] if self.left > 0 else []))
        self.left -= side == "either side"
        self.say(margin, f"{self.who}gather{self.s} the piles from {side}, each {self.pick('on', 'under')} the last")

    def _do_gather_slot(self, margin: str) -> None:
        self.left -= 1
        pile = self.pile()
        slot = self.pick("on top", "at the bottom", "2nd")
        self.say(margin, f"{self.who}gather{self.s} the piles, {pile} {slot}, the others in any order")

    def _do_gather_order(self, margin: str) -> None:
        order = self.draw(st.permutations([f"pile {i + 1}" for i in range(self.piles)]))
        self.say(margin, f"{self.who}gather{self.s} {', '.join(order)} from top to bottom")

    def _do_narrow(self, margin: str) -> None:
        self.left -= 1
        count, card = self.pick(1, 1, 2), self.pick(*self.cards)
        self.say(margin, f"Spectator points to {count} of the piles, and you keep those that {card} is among")
        self.filled = list(dict.fromkeys([*self.filled, "discard"]))

    def _do_new_pile(self, margin: str) -> None:
        self.left -= 2
        kept = self.left == 1 and self.pick(True, False)
        self.say(margin, "As long as size of deck is at least 2:")
        self.say(margin + "  ", f"Cut off {self.pick('2', 'min(3, size of deck)', '1')} cards of deck to heap")
        self.say(margin + "  ", "Lay heap down as a new pile")
        self.filled = list(dict.fromkeys([*self.filled, "heap"]))
        if kept:
            self.left = 0
            self.say(margin, f"Spectator keeps {self.pick(1, 2)} of the piles")
            self.filled = list(dict.fromkeys([*self.filled, "spare"]))
        else:
            self.say(margin, "Deal min(number of piles, size of deck) cards from deck to hand")
            self.filled = list(dict.fromkeys([*self.filled, "hand"]))
        self.piles, self.dealt = 0, False
