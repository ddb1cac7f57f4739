"""Repetitions and cases."""

from __future__ import annotations

import copy
import os
from typing import Any

from hypothesis import strategies as st

from .endings import Claiming


class Blocks(Claiming):
    def _do_demonstrating(self, margin: str) -> None:
        self.say(margin, "While demonstrating:")
        for _ in range(self.pick(1, 2)):
            moves = "Turn deck over", "Turn the top card of deck over", "Deal 1 card from deck to hand"
            self.say(margin + "  ", self.pick(*moves))
        if any("to hand" in row for row in self.rows[-2:]):
            self.filled = list(dict.fromkeys([*self.filled, "hand"]))
        self.dealt = False

    def _do_until_out(self, margin: str) -> None:
        self.say(margin, "Until deck runs out:")
        if self.left > 2 and self.sizes.get("deck", 9) < 5:
            self.left, name = 0, self.new_name()
            self.say(margin + "  ", self.pick(
                f"Spectator cuts off {name} cards of deck, {name} from 0 to min(2, size of deck), to table",
                f"Spectator deals from deck to table until you say stop, after {name} from 1 to 2 cards",
            ))  # fmt: skip
        else:
            self.say(margin + "  ", f"Deal min({self.pick(1, 2, 3)}, size of deck) cards from deck to table")
        if self.pick(True, False):
            self.say(margin + "  ", self.pick("Turn table over", "Cut table at 1 and complete the cut"))
        self.filled = list(dict.fromkeys([*self.filled, "table"]))
        self.dealt = False

    def _do_as_long_as(self, margin: str) -> None:
        self.known = self.told
        left = self.pick("size of deck", f"size of deck - ({self.number()})")
        self.say(margin, f"As long as {left} {self.pick('is more than', 'is at least')} {self.pick(2, 3)}:")
        self.say(margin + "  ", f"Deal {self.pick(1, 2)} cards from deck to hand")
        self.filled = list(dict.fromkeys([*self.filled, "hand"]))
        self.dealt = False

    def _do_make_sure(self, margin: str) -> None:
        self.known = self.told
        self.say(margin, f"Make sure that {self.claim(self.placed, margin)}")

    def _do_make_sure_several(self, margin: str) -> None:
        self.known = self.told
        self.say(margin, f"Make sure that {self.joined(self.placed, margin)}")

    def _do_while_so(self, margin: str) -> None:
        self.known = self.told
        self._as_long_as(margin, self.claim(self.placed, margin))

    def _do_while_several(self, margin: str) -> None:
        self.known = self.told
        self._as_long_as(margin, self.joined(self.placed, margin))

    def _as_long_as(self, margin: str, condition: str) -> None:
        self.say(margin, f"As long as {condition}:")
        to = self.pick("hand", "table")
        self.say(margin + "  ", f"Deal 1 card from deck {self.pick('', 'face up ')}to {to}")
        self.filled = list(dict.fromkeys([*self.filled, to]))
        self.dealt = False

    def _do_for_each(self, margin: str) -> None:
        order = self.pick("", ", in any order")
        self.left -= bool(order) * 2
        places = self.draw(st.permutations(["deck", "table", "hand"]))[: self.pick(1, 2)]
        for place in places:
            if place not in self.filled:
                self.say(margin, f"Cut off {self.pick(1, 2)} cards of deck to {place}")
                self.filled.append(place)
        name = self.pick("one", "trio")
        self.say(margin, f"For each {name} of {', '.join(places)}{order}:")
        for _ in range(self.pick(1, 2)):
            moves = ["put{} {} on packet", "turn{} {} over", "deal{} 1 card from {} to packet"]
            self.say(margin + "  ", self.who + self.pick(*moves).format(self.s, name))
        if any("packet" in row for row in self.rows[-2:]):
            self.filled = list(dict.fromkeys([*self.filled, "packet"]))
        self.dealt = False

    def _do_repeat(self, margin: str) -> None:
        self.turns = self.pick(1, 2, 3)
        self.say(margin, f"Repeat {self.turns} times:")
        left, self.left = self.left, self.pick(0, 1) if self.turns == 2 else 0
        before = copy.copy(self.told), copy.copy(self.secret)
        self.lines(self.pick(1, 2, 3), margin + "  ")
        self.left, self.turns = left - self.left, 0
        if any("points to a pile" in row or "pile p" in row for row in self.rows):
            self.told, self.secret = before  # told and secret in turn: leave them alone from here on
        self.left = max(0, self.left)

    def _do_repeat_as_told(self, margin: str) -> None:
        self.known = self.told
        name = self.pick(*self.told)
        times = self.pick(name, f"min({name}, 3)", f"{name} + {self.pick(1, 2)}", f"{name} - 1")
        self.say(margin, f"Repeat {times} times:")
        moves = ("Turn deck over", "Move the top card of deck to the bottom", "Turn the top card of deck over",
                 "Deal 1 card from deck to hand", "Swap the top card of deck and the bottom card of deck")  # fmt: skip
        for move in self.draw(st.lists(st.sampled_from(moves), min_size=1, max_size=2, unique=True)):
            self.say(margin + "  ", move)
            if "hand" in move:
                self.filled = list(dict.fromkeys([*self.filled, "hand"]))
        self.dealt = False

    def _do_as_often(self, margin: str) -> None:
        moves = ["Turn deck over", "Turn over the top 2 cards of deck as a block", "Spectator cuts deck and completes the cut",
                 "Cut deck at 1 and complete the cut", "Turn the top card of deck over"]  # fmt: skip
        self.closed, self.left = True, 1
        self.say(margin, f"As often as {self.pick('the spectator likes', 'you like')}{self.pick('', ', one of')}:")
        for move in self.draw(st.lists(st.sampled_from(moves), min_size=1, max_size=2, unique=True)):
            self.say(margin + "  ", move)

    def _do_cases(self, margin: str) -> None:
        self.known = self.told
        condition = self.pick(
            f"{self.number()} {self.pick('is', 'is not', 'is more than', 'is less than', 'is at least', 'is at most')} {self.number()}",
            f"{self.number()} is {self.pick('even', 'odd')}",
        )
        focus = os.environ.get("FOCUS", "")
        if (
            self.placed
            and self.may_look(margin)
            and (focus in ("if_card", "if_alike") or self.pick(True, False, False))
        ):
            self.left -= 2
            real = [card for card in self.placed if " of " in card]
            condition = (
                f"{self.pick(*self.placed)} is {self.pick('red', 'black', 'a club', 'a heart', 'a court card')}"
            )
            if real and focus != "if_card" and (focus == "if_alike" or self.pick(True, False)):
                how = self.pick("are mates", "have the same value", "have the same suit", "have the same colour")
                condition = f"{self.pick(*self.placed)} and {self.pick(*real)} {how}"
        if self.placed and (focus in ("if_so", "if_several") or self.pick(True, False, False)):
            several = focus != "if_so" and (focus == "if_several" or self.pick(True, False))
            condition = self.joined(self.placed, margin) if several else self.claim(self.placed, margin)
        self.say(margin, f"If {condition}:")
        before = self.snapshot()
        one = self._case(margin, before)
        two = self._case(margin, before, "Otherwise:") if self.pick(True, False) else before
        after = [case for case in (one, two) if not case["over"]]
        self.over = not after
        if self.over:
            return
        before_numbers = {*before["told"], *before["secret"]}
        self.spare = [n for case in (one, two) for n in (*case["told"], *case["secret"]) if n not in before_numbers]
        for key in ("told", "secret", "cards", "lets"):
            setattr(self, key, [name for name in after[0][key] if all(name in case[key] for case in after)])
        self.spare = [n for n in dict.fromkeys(self.spare) if n not in (*self.told, *self.secret, *self.lets)]
        self.filled = list(dict.fromkeys(place for case in after for place in case["filled"]))
        # What every case leaves alone is the same afterwards.
        same = len(after) == 1 or not (one["changed"] or two.get("changed"))
        self.dealt = same and all(case["dealt"] for case in after)
        self.piles = after[0]["piles"] if same else 0
        self.gathered = False

    def _case(self, margin: str, before: dict[str, Any], head: str | None = None) -> dict[str, Any]:
        if head:
            self.say(margin, head)
        left, row = self.left, self.row
        self.__dict__.update(
            {
                k: copy.copy(v) if isinstance(v, list) else v
                for k, v in before.items()
                if k not in ("rows", "draw", "names")
            }
        )
        self.left, self.row = left, row if row in self.filled else None
        begun = len(self.rows)
        self.lines(self.pick(1, 2), margin + "  ")
        if not self.over and self.turns == 0 and self.pick(True, False, False):
            if os.environ.get("FOCUS") == "start_again" or self.pick(True, False, False, False):
                self.say(margin + "  ", "Start again")
            elif os.environ.get("FOCUS") == "end_here" or self.pick(True, False, False, False):
                self.say(margin + "  ", "End here")
            else:
                self.ending(margin + "  ")
            self.over = True
        elif (
            not self.over
            and self.turns
            and (os.environ.get("FOCUS") == "leave_loop" or self.pick(True, *[False] * 5))
        ):
            self.say(margin + "  ", "Leave the loop")
            self.over = True
        found = copy.copy(self.__dict__)
        found["changed"] = any(
            " deal" in row.lower() or "spell" in row.lower() or "count" in row.lower() for row in self.rows[begun:]
        )
        self.over = False
        return found
