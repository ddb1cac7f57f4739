"""What every line goes by: names that are known, places that are filled, how many cards lie where."""

from __future__ import annotations

import copy
import os
import re
from typing import Any

from hypothesis import strategies as st

from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.language.printer import routine_json
from golden_pivot.witness import run

from .numbers import numbers

OFTEN = {"deal_piles": 2, "gather_any": 2, "gather_side": 1, "gather_slot": 2, "gather_order": 1, "piles_beside": 8,
         "which_pile": 2, "choose_pile": 2, "tell": 5, "repeat": 1, "cases": 1, "as_often": 2}  # fmt: skip
"""kinds that are seldom possible come up more often when they are"""

WITHIN = {
    **dict.fromkeys(("overhand", "haphazard", "riffle", "riffle_into", "shuffle"), "mixing"),
    **dict.fromkeys(
        ("if_compared", "if_parity", "if_card", "if_alike", "if_so", "if_several", "otherwise", "start_again", "end_here"), "cases"
    ),
    "leave_loop": "repeat", "ends_in_row": "lay_grid", "ends_in_column": "lay_grid", "ends_line_sort": "lay_grid", "ends_each_line": "lay_grid", "count": "make_sure", "predict_card": "foretell", "keep_piles": "new_pile",
}  # fmt: skip
"""kinds that come up as one of several; see FOCUS"""
FIRST = {"piles_beside": ("gather_any", "deal_piles"), "which_line": ("lay_grid",), "square_up": ("lay_grid",), "ends_in_order": ("note_order",),
         "whisper": ("choose_number",), "tell": ("choose_number",), "keep_piles": ("new_pile",), "if_alike": ("cases",), "leave_loop": ("cases",)}  # fmt: skip
"""what must have been done before a kind can come up, the nearest first"""
NAMES = "nmkabcdefghij"
PLACES = ("deck", "table", "hand", "packet")
PLACED = ("FORCE", "KEY", "queen of hearts", "queen of diamonds", "two of clubs", "jack of spades")
WORDS = ("ox", "bay", "lamp", "the sea", "harbour")


class Writer:
    def __init__(self, draw: Any, rows: list[str]) -> None:
        self.draw, self.rows = draw, rows
        self.told: list[str] = []
        self.secret: list[str] = []
        self.spare: list[str] = []
        """names of numbers that were one case’s, and are free again"""
        self.lets: list[str] = []
        """numbers that may be set anew"""
        self.placed: list[str] = []
        self.cards: list[str] = []
        """every card that has a name by now"""
        self.odd = False
        self.filled = ["deck"]
        self.all_known = False
        """every card of the pack is placed: faces leave nothing open"""
        self.has_mates = False
        """of every card of the pack the mate is in it too"""
        self.sorts_known = False
        """of every card of the pack it is known of what colour or suit it is"""
        self.row: str | None = None
        self.grid = ""
        """how the cards of *grid* lie, once there is one: it is no heap that cards are taken from one by one"""
        self.piles = 0
        self.gathered = False
        self.dealt = False
        self.closed = False
        """there is a repetition without end already: two of them are too many tables for the reference"""
        self.left = 3
        """how many more choices there may be"""
        self.names = iter(NAMES)
        self.turns = 0
        self.over = False

    def pick(self, *options: Any) -> Any:
        return self.draw(st.sampled_from(options))

    def say(self, margin: str, text: str) -> None:
        self.rows.append(margin + text[0].upper() + text[1:])

    def place(self, card: str, at: int, size: int) -> None:
        end = self.pick("top", "bottom")
        row = f"Place {card} at position {at if end == 'top' else size + 1 - at} from the {end}"
        row += self.pick("", "", ", face up")
        odd = self.pick("", ", with an odd back")
        self.odd |= bool(odd)
        row += odd
        if self.placed and self.pick(True, False):
            row += f", the mate of {self.placed[-1]}"
        self.rows.append(row)
        self.placed.append(card)
        self.cards.append(card)

    def lines(self, how_many: int, margin: str) -> None:
        begun = len(self.rows)
        self._lines(how_many, margin)
        if margin and len(self.rows) == begun:  # a block has at least one line
            self.say(margin, "Turn deck over")

    def _lines(self, how_many: int, margin: str) -> None:
        for _ in range(how_many):
            if self.over:
                return
            self.look()
            kinds = [name.removeprefix("_do_") for name in dir(self) if name.startswith("_do_")]
            ready = [kind for kind in kinds if self.ready(kind, margin) for _ in range(1 + OFTEN.get(kind, 0))]
            focus = asked = os.environ.get("FOCUS", "")
            focus = next((kind for kind in (WITHIN.get(focus, focus), *FIRST.get(focus, ())) if kind in ready), focus)
            wanted = focus if focus in ready else self.pick(*ready)
            if focus in ready and asked not in FIRST and self.pick(True, True, False):
                wanted = self.pick(*ready)
            self.who = self.pick("", "Spectator ")
            self.s = "s" if self.who else ""
            self.known = self.told + (self.secret if self.who else [])
            before = self.snapshot()
            getattr(self, f"_do_{wanted}")(margin)
            if self.look() and not self.over and self.pick(True, True, True, False):
                self.__dict__.update(before)  # that got stuck at once
                continue
            self.gathered &= wanted in ("piles_beside", "choose_number", "tell", "which_pile")
            self.gathered |= wanted.startswith("gather_")

    def look(self) -> bool:
        """How many cards lie where on the first path, so that not every line asks for more; whether it is stuck."""
        try:
            path, _ = run(routine_json(read_routine("\n".join(self.rows))), ())
        except KeyError:  # a name that was given on another path
            return True
        self.sizes = {name: len(heap) for name, heap in path.table.heaps.items()}
        return path.stuck

    def snapshot(self) -> dict[str, Any]:
        return {name: copy.copy(value) if isinstance(value, list) else value for name, value in self.__dict__.items()}

    def ready(self, kind: str, margin: str) -> bool:
        needs = {
            "choose_number": self.left > 0, "deal_to_stop": self.left > 0, "choose_values": self.left > 2, "choose_pile": self.left > 0 and self.piles,
            "tell": self.secret and not margin, "choose_word": self.left > 0, "choose_of_words": self.left > 0, "answer": self.left > 0 and self.cards and not margin, "lay_ring": not margin, "spread": not margin, "go": not margin and self.left > 1, "square_up": self.grid and not margin, "which_line": self.grid and self.cards, "make_sure": self.placed, "take_out": self.cards, "hold_break": not margin, "cut_at_card": self.cards, "make_sure_several": self.placed, "while_so": self.placed and not margin and not self.turns, "while_several": self.placed and not margin and not self.turns, "think_of": self.left > 0 and not margin,
            "take_card": self.left > 0 and not margin, "remember": not margin, "which_pile": self.piles and self.cards,
            "piles_beside": self.gathered and self.cards, "put_dealt": self.dealt, "drop_rest": self.dealt,
            "gather_any": self.piles and self.left > 1, "gather_side": self.piles, "gather_slot": self.piles and self.left > 1,
            "spell_name": self.may_look(margin), "count_down": self.may_look(margin), "value_of": self.may_look(margin),
            "deal_each": True, "deal_others": self.piles > 1, "lay_grid": not margin, "narrow": self.piles and self.left > 1 and self.cards, "demonstrating": len(margin) < 4,
            "chance": self.left > 0, "until_out": not margin and not self.turns, "as_long_as": not margin and not self.turns,
            "whisper": self.whispered() and not margin, "take_mate": self.all_known and self.has_mates and not margin,
            "new_pile": not margin and not self.turns and self.left > 1, "for_each": not margin and self.left > 1,
            "note_order": self.left > 1 and not margin and not self.turns and not any("Note the order" in row for row in self.rows),
            "mixing": self.left > 2 and not margin, "name_aloud": self.cards, "predict": not margin, "foretell": self.placed and not margin,
            "gather_order": self.piles, "as_often": not margin and sum(self.sizes.values()) < 5 and self.left > 2 and not self.closed, "repeat": not margin, "repeat_as_told": self.told and not margin, "cases": len(margin) < 4,
        }  # fmt: skip
        return bool(needs.get(kind, True))

    def number(self, place: str = "") -> str:
        """A number; mostly one that the place has cards for."""
        if place and self.pick(True, True, False):
            few = self.draw(st.integers(0, self.sizes.get(place, 3)))
            return f"min({few}, {self.pick(*self.known)})" if self.known and self.pick(True, False) else str(few)
        more = ["size of " + self.pick(*self.filled), "letters of “" + self.pick(*WORDS) + "”"]
        facts = ("value", "suit", "letters of value", "letters of suit")
        more += [f"{self.pick(*facts)} of {card}" for card in self.cards if " of " in card]
        return self.draw(numbers(self.known, more=tuple(more)))

    def source(self) -> str:
        """A place that has cards, perhaps; now and then one whose number is reckoned."""
        if self.piles and self.pick(True, False):
            return self.pile()
        heaps = [place for place in self.filled if self.sizes.get(place)] or self.filled
        return self.pick(*heaps, *heaps, *self.filled)

    def pile(self) -> str:
        """One of the piles, by its number or by a number that is reckoned."""
        index = self.draw(numbers(self.known, 1))
        return f"pile {index}" if not index.isdigit() else f"pile {self.pick(*range(1, self.piles + 1))}"

    def target(self, source: str) -> str:
        place = self.pick(*(place for place in PLACES if place != source))
        self.filled = list(dict.fromkeys([*self.filled, place]))
        return place

    def spot(self) -> str:
        pick, place = self.pick, self.source()
        spots = [
            lambda: f"the {pick('top', 'bottom')} card of {place}",
            lambda: f"the face of {place}",
            lambda: f"the {pick('1st', '2nd', '3rd')} card of {place}",
            lambda: f"the card at position {self.draw(numbers(self.known, 1))} from the bottom of {place}",
            lambda: (
                f"the card {self.draw(numbers(self.known, 1))} {pick('on from position', 'before position')} {pick(1, 2)} of {place}"
            ),
        ]
        if self.row:
            spots.append(lambda: f"the {pick('1st', '2nd')} card from the {pick('left', 'right')} of {self.row}")
        if self.grid:
            spots.append(lambda: f"the {pick('1st', '2nd', '3rd')} card of grid")
            spots.append(lambda: f"the card at row {pick(1, 2)} column {pick(1, 2)} of grid")
        if self.dealt:
            spots += [
                lambda: "the next card",
                lambda: "the last card dealt",
                lambda: f"the {pick('1st', '2nd')} card back from the last dealt",
            ]
        return str(pick(*spots)())

    def new_name(self) -> str:
        if self.spare and self.pick(True, False):
            return str(self.spare.pop())
        return next(self.names)

    def _fresh_number(self) -> tuple[str, str, str]:
        """(name, `secretly `, `, name from 1 to 3,`)"""
        self.left -= 1
        name, low = self.new_name(), self.pick(0, 1, 2)
        # What the performer does is no secret from the performer.
        secretly = self.pick("secretly ", "") if self.who else ""
        (self.secret if secretly else self.told).append(name)
        return name, secretly, f", {name} from {low} to {low + self.pick(0, 1, 3)},"

    def whispered(self) -> list[str]:
        """Numbers that the spectator alone knows, in every case."""
        rows = "\n".join(self.rows)
        kept = [name for name in self.secret if re.search(rf"^Spectator secretly \w+ a number {name},? ", rows, re.M)]
        return [name for name in kept if not re.search(rf"(whispers|tells) {name}\b", rows)]

    def heap(self) -> str:
        source = self.source()
        return "deck" if source == "row" else source

    def _new_card(self) -> str:
        name = next(n for n in ("their card", "X", "Y", "Z", "W", "V", "U", "T", "S", "R") if n not in self.cards)
        self.cards.append(name)
        return name

    def _learned(self) -> tuple[str, str]:
        """(verb, names) for a line that settles a number: in a repetition one for each time round, or one for all."""
        names = [self.new_name() for _ in range(self.turns if self.turns and self.pick(True, False) else 1)]
        verb = self.pick("notes", "tells")
        (self.secret if verb == "notes" else self.told).extend(names[: 1 if not self.turns else len(names)])
        return verb, ", ".join(names)

    def may_look(self, margin: str) -> bool:
        """A card that is looked at can be any of some fifty: one such choice, and one more of another kind."""
        return self.left > 2 and not margin and not self.turns
