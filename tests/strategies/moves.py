"""Deals, counts, spellings, cuts, turns and mixes."""

from __future__ import annotations

import os

from hypothesis import strategies as st

from .writer import WORDS, Writer


class Moves(Writer):
    def _do_deal(self, margin: str) -> None:
        source = self.source()
        count = self.number(source)
        way = self.pick("", "", " face up", " face down")
        if self.pick(True, False, False) and (self.row or len(self.filled) < 5) and source != "row":
            self.row = "row"
            tail = f" to row, from {self.pick('left to right', 'right to left')}"
            self.filled = list(dict.fromkeys([*self.filled, "row"]))
        else:
            tail = f" to {self.target(source)}"
        shielded = self.pick("", "", ", shielded")
        self.say(margin, f"{self.who}deal{self.s} {count} cards from {source}{way}{tail}{shielded}")
        self.dealt = True

    def _do_lay_grid(self, margin: str) -> None:
        source = self.source()
        self.grid = self.grid or f"{self.pick(1, 2, 3)} rows of {self.pick(1, 2, 3)}"
        way = self.pick("", "", " face up", " face down")
        self.say(margin, f"{self.who}lay{self.s} {self.number(source)} cards of {source} in {self.grid}{way}")

    def _do_count_under(self, margin: str) -> None:
        source = self.source()
        number = self.number(source)
        self.say(
            margin,
            f"{self.who}count{self.s} {number} cards from {source} to {self.target(source)}, each under the last",
        )
        self.dealt = True

    def _do_spell(self, margin: str) -> None:
        source = self.source()
        if source != "row" and self.pick(True, False, False):
            self.row = "row"
            self.filled = list(dict.fromkeys([*self.filled, "row"]))
            way = self.pick("left to right", "right to left")
            self.say(margin, f"{self.who}spell{self.s} “{self.pick(*WORDS)}” from {source} to row, from {way}")
            self.dealt = True
            return
        self.say(margin, f"{self.who}spell{self.s} “{self.pick(*WORDS)}” from {source} to {self.target(source)}")
        self.dealt = True

    def _do_spell_under(self, margin: str) -> None:
        source = self.source()
        word = self.pick(*WORDS)
        self.say(
            margin,
            f"{self.who}spell{self.s} “{word}” from {source}, a card to the bottom for each letter, the last to {self.target(source)}",
        )
        self.dealt = True

    def _do_count_to(self, margin: str) -> None:
        source, name = self.source(), self.new_name()
        self.say(
            margin,
            f"{self.who}deal{self.s} cards from {source} to {self.target(source)} down to {self.pick(*self.cards)}: {name}",
        )
        self.told.append(name)
        self.dealt = True

    def _do_put_dealt(self, margin: str) -> None:
        self.say(margin, f"{self.who}put{self.s} the dealt cards {self.pick('back on top', 'underneath')}")

    def _do_drop_rest(self, margin: str) -> None:
        self.say(margin, f"{self.who}drop{self.s} the rest on top")

    def _do_put_heap(self, margin: str) -> None:
        source = self.source()
        source = "deck" if source == "row" else source
        if self.grid and self.pick(True, False):
            source = "grid"
        self.say(margin, f"{self.who}put{self.s} {source} {self.pick('on', 'under')} {self.target(source)}")

    def _do_cut_off(self, margin: str) -> None:
        source, secretly, choice = self.source(), "", ""
        count = self.number(source)
        if self.left > 0 and self.pick(True, False):
            count, secretly, choice = self._fresh_number()
        self.say(
            margin, f"{self.who}{secretly}cut{self.s} off {count} cards of {source}{choice} to {self.target(source)}"
        )

    def _do_take_bottom(self, margin: str) -> None:
        source = self.source()
        row = f"{self.who}take{self.s} the bottom {self.number(source)} cards of {source} to {self.target(source)}"
        self.say(margin, row)

    def _do_raise_bottom(self, margin: str) -> None:
        source = self.source()
        self.say(margin, f"{self.who}move{self.s} the bottom {self.number(source)} cards of {source} to the top")

    def _do_swap(self, margin: str) -> None:
        if len(heaps := [place for place in self.filled if place not in ("row", "grid", "ring")]) > 1:
            one, other = self.draw(st.permutations(heaps))[:2]
            self.say(margin, f"{self.who}swap{self.s} {one} and {other}")

    def _do_lower_top(self, margin: str) -> None:
        source = self.source()
        few = self.pick("card", f"{self.number(source)} cards")
        self.say(margin, f"{self.who}move{self.s} the top {few} of {source} to the bottom")

    def _do_swap_cards(self, margin: str) -> None:
        self.say(margin, f"{self.who}swap{self.s} {self.spot()} and {self.spot()}")

    def _do_turn_some(self, margin: str) -> None:
        source, end = self.source(), self.pick("top", "bottom")
        self.say(
            margin, f"{self.who}turn{self.s} the {end} {self.number(source)} cards of {source} over where they lie"
        )

    def _do_take_out(self, margin: str) -> None:
        source = self.heap()
        self.say(margin, f"{self.who}take{self.s} {self.pick(*self.cards)} out of {source} to {self.target(source)}")

    def _do_hold_break(self, margin: str) -> None:
        source, which, name = self.heap(), self.pick("above", "down to"), self._new_card()
        self.known = self.told
        self.say(margin, f"Hold a break under the {self.pick('1st', '2nd', '3rd')} card of {source}: {name}")
        self.say(margin, f"Cut off the cards of {source} {which} {name} to {self.target(source)}")

    def _do_cut_at_card(self, margin: str) -> None:
        source, which = self.heap(), self.pick("above", "down to")
        card, to = self.pick(*self.cards), self.target(source)
        self.say(margin, f"{self.who}cut{self.s} off the cards of {source} {which} {card} to {to}")

    def _do_take_side(self, margin: str) -> None:
        source = self.heap()
        side = self.pick("face-up", "face-down")
        self.say(margin, f"{self.who}take{self.s} the {side} cards out of {source} to {self.target(source)}")

    def _do_deal_bottom(self, margin: str) -> None:
        source = self.heap()
        times = self.pick("", f", {self.number(source)} times")
        self.say(margin, f"{self.who}deal{self.s} the bottom card of {source} to {self.target(source)}{times}")
        self.dealt = not source.startswith("pile")

    def _do_deal_blocks(self, margin: str) -> None:
        source = self.heap()
        few = self.pick("2", "3", self.number())
        self.say(
            margin,
            f"{self.who}deal{self.s} {self.number(source)} cards from {source} to {self.target(source)}, {few} at a time",
        )
        self.dealt = False

    def _do_lay_ring(self, margin: str) -> None:
        source = "deck" if (source := self.heap()) == "ring" else source
        way = self.pick("", " face up", " face down")
        self.say(margin, f"{self.who}lay{self.s} {self.number(source)} cards of {source} in a ring{way}")
        self.filled = list(dict.fromkeys([*self.filled, "ring"]))

    def _do_spread(self, margin: str) -> None:
        source = self.heap()
        if source in ("ring", "row"):
            return self._do_lower_top(margin)
        self.say(
            margin, f"{self.who}spread{self.s} {source} in a row, the top card on the {self.pick('left', 'right')}"
        )
        self.row = "row"
        self.filled = list(dict.fromkeys([*self.filled, "row"]))
        return None

    def _do_go(self, margin: str) -> None:
        laid = [place for place in ("ring", "row", "grid") if place in self.filled and self.sizes.get(place)]
        if not laid or self.left < 1:
            return self._do_lay_ring(margin)
        self.left -= 2
        name, secretly = self.new_name(), self.pick("secretly ", "")
        only = self.pick("", "", ", face-up cards only", ", face-down cards only")
        times, place = self.pick("", "", ", 2 times"), self.pick(*laid)
        self.known = self.told + self.secret
        start = self.pick("1", "2", self.number())
        self.say(
            margin, f"Spectator {secretly}goes from position {start} of {place} to a neighbour{times}{only}: {name}"
        )
        (self.secret if secretly else self.told).append(name)
        return None

    def _do_square_up(self, margin: str) -> None:
        line = self.pick("row", "column")
        self.say(margin, f"{self.who}square{self.s} up each {line} of grid as a pile")
        rows, _, across = self.grid.partition(" rows of ")
        self.piles = int(rows if line == "row" else across)

    def _do_which_line(self, margin: str) -> None:
        verb, names = self._learned()
        line, card = self.pick("row", "column"), self.pick(*self.cards)
        self.say(margin, f"Spectator {verb} which {line} of grid holds {card}: {names}")

    def _do_reckon(self, margin: str) -> None:
        secretly = self.pick("secretly ", "") if self.who else ""
        name = self.new_name()
        self.say(margin, f"{self.who}{secretly}reckon{self.s} {self.number()}: {name}")
        (self.secret if secretly else self.told).append(name)

    def _do_let(self, margin: str) -> None:
        self.known = self.told
        name = self.pick(self.new_name(), *self.lets)
        self.say(margin, f"Let {name} be {self.number()}")
        self.told = list(dict.fromkeys([*self.told, name]))
        self.lets = list(dict.fromkeys([*self.lets, name]))

    def _do_cut(self, margin: str) -> None:
        source, secretly, at = self.source(), "", ""
        at = f" at {self.number(source)}"
        if self.left > 0 and self.pick(True, False):
            name, secretly, choice = self._fresh_number()
            at = f" at {name}{choice}"
        elif self.left > 0 and self.pick(True, False):
            self.left -= 1
            at = ""
        self.say(margin, f"{self.who}{secretly}cut{self.s} {source}{at} and complete{self.s} the cut")

    def _do_cut_to(self, margin: str) -> None:
        self.say(margin, f"{self.who}cut{self.s} {self.source()} to bring {self.pick(*self.cards)} to the top")

    def _do_turn_block(self, margin: str) -> None:
        source = self.source()
        self.say(margin, f"{self.who}turn{self.s} over the top {self.number(source)} cards of {source} as a block")

    def _do_turn_over(self, margin: str) -> None:
        self.say(margin, f"{self.who}turn{self.s} {self.source()} over")

    def _do_insert(self, margin: str) -> None:
        source = self.source()
        source = "deck" if source == "row" else source
        to = self.pick(*[place for place in self.filled if place not in (source, "row")] or ["table"])
        self.filled = list(dict.fromkeys([*self.filled, to]))
        where = self.pick("", f", its top card {self.pick('on top', '2nd', '2nd from the bottom')}")
        self.left -= not where
        self.say(margin, f"{self.who}insert{self.s} {source} into {to}{where}")

    def _do_turn_each(self, margin: str) -> None:
        self.say(margin, f"{self.who}turn{self.s} every card of {self.source()} over where it lies")

    def _do_turn_card(self, margin: str) -> None:
        self.say(margin, f"{self.who}turn{self.s} {self.spot()} {self.pick('over', 'face up', 'face down')}")

    def _do_show(self, margin: str) -> None:
        self.say(margin, f"{self.who}show{self.s} {self.spot()}")

    def _do_deal_to_stop(self, margin: str) -> None:
        self.who = "Spectator "
        source = self.source()
        _, secretly, choice = self._fresh_number()
        way = self.pick("", " face up")
        self.say(
            margin,
            f"Spectator {secretly}deals from {source}{way} to {self.target(source)} until you say stop, after {choice[2:-1]} cards",
        )
        self.dealt = True

    def _do_spell_name(self, margin: str) -> None:
        self.left, self.who = self.left - 2, "Spectator "
        what = self.pick("the name", "the value", "the suit", "the value and the suit")
        source = self.source()
        self.say(
            margin, f"Spectator spells {what} of {self.pick(*self.cards)} from {source} to {self.target(source)}"
        )
        self.dealt = True

    def _do_value_of(self, margin: str) -> None:
        """Numbers from a card by where it lies, which must be face up."""
        self.left -= 2
        source = self.source()
        self.say(margin, f"Turn the top card of {source} face up")
        fact = self.pick("value", "suit", "letters of value", "letters of suit")
        half = f"half of ({fact} of the top card of {source}) rounded down"
        count = self.pick(half, f"min({half}, size of {self.pick(*self.filled)})")
        self.say(margin, f"Deal {count} cards from {source} to {self.target(source)}")
        self.dealt = True

    def _do_count_down(self, margin: str) -> None:
        self.left -= 2
        source = self.source()
        high = self.pick(1, 1, 13)
        row = f"deal{self.s} from {source} to {self.target(source)}, counting down from {high} to {high}"
        row += f" until the number is a card’s value{self.pick('', ', court cards as ten')}"
        name = self.new_name()
        self.say(margin, f"{self.who}{row}{self.pick('', ', or else a card face down on top')}: {name}")
        self.told.append(name)

    def _do_deal_each(self, margin: str) -> None:
        order = self.pick("", ", in any order") if self.left > 1 else ""
        self.left -= bool(order) * 2
        piles = self.draw(st.permutations(["pile 1", "pile 2"]))
        self.say(margin, f"{self.who}deal{self.s} a card from deck onto each of {', '.join(piles)}{order}")
        self.filled = list(dict.fromkeys([*self.filled, *piles]))
        self.piles = 2

    def _do_deal_others(self, margin: str) -> None:
        source = f"pile {self.draw(st.integers(1, self.piles))}"
        self.say(margin, f"{self.who}deal{self.s} a card from {source} onto each of the other piles")

    def _do_faro(self, margin: str) -> None:
        self.say(margin, f"{self.who}give{self.s} {self.source()} {self.pick('an out', 'an in')} faro")

    def _do_reverse_faro(self, margin: str) -> None:
        which = self.pick("first", "second")
        es = "es" if self.who else ""
        self.say(
            margin,
            f"{self.who}push{es} every second card out of {self.source()} and put{self.s} the {which} ones on top",
        )

    def _do_klondike(self, margin: str) -> None:
        source = self.heap()
        self.say(
            margin,
            f"{self.who}draw{self.s} the top and bottom cards of {source} together onto {self.target(source)}, the {self.pick('top', 'bottom')} card on",
        )

    def _do_down_under(self, margin: str) -> None:
        source = self.heap()
        self.say(
            margin,
            f"{self.who}deal{self.s} {source} {self.pick('down and under', 'under and down')} to {self.target(source)}",
        )
        self.dealt = True

    def _do_mixing(self, margin: str) -> None:
        few = [place for place in self.filled if self.sizes.get(place, 0) < 4 and place != "row"]
        if not few:
            self.say(margin, "Cut off size of deck - 3 cards of deck to table")
            self.filled = list(dict.fromkeys([*self.filled, "table"]))
            few = ["deck"]
        self.left = 0
        place, es = self.pick(*few), "es" if self.s else ""
        if self.pick(True, False, False, False) or os.environ.get("FOCUS") == "riffle_into":
            other = "hand" if place != "hand" else "table"
            self.say(margin, f"Cut off 1 card of {place} to {other}")
            self.filled = list(dict.fromkeys([*self.filled, other]))
            if self.sizes.get(other, 0) < 3:
                self.say(margin, f"{self.who}riffle{self.s} {other} into {place}")
                return
        ways = {
            "overhand": f"give{self.s} {place} an overhand shuffle", "riffle": f"riffle{self.s} {place} together once",
            "shuffle": f"shuffle{self.s} {place}",
            "haphazard": f"mix{es} {place} haphazardly, top packets under and bottom packets on top",
        }  # fmt: skip
        self.say(margin, self.who + (ways.get(os.environ.get("FOCUS", "")) or self.pick(*ways.values())))

    def _do_assumed(self, margin: str) -> None:
        self.say(margin, "Assumed: a false cut")
