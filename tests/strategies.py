"""Random routines, as a reader of the language would write them, with every kind of step in them.

The environment variable FOCUS names a kind of step that is to come up more often (see scripts/mutate.py).
"""

from __future__ import annotations

import copy
import os
from typing import Any

from hypothesis import strategies as st

from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.language.printer import routine_json
from tests.reference import run

OFTEN = {"deal_piles": 2, "gather_any": 2, "gather_side": 1, "gather_slot": 2, "gather_order": 1, "piles_beside": 8,
         "which_pile": 2, "choose_pile": 2, "tell": 5, "repeat": 1, "cases": 1, "as_often": 2}  # fmt: skip
"""kinds that are seldom possible come up more often when they are"""

WITHIN = {
    **dict.fromkeys(("overhand", "haphazard", "riffle", "riffle_into", "shuffle"), "mixing"),
    **dict.fromkeys(
        ("if_compared", "if_parity", "if_card", "if_alike", "otherwise", "start_again", "leave_loop", "end_here"), "cases"
    ),
    "ends_in_row": "lay_grid", "predict_card": "foretell", "keep_piles": "new_pile",
}  # fmt: skip
"""kinds that come up as one of several; see FOCUS"""
NAMES = "nmkabcdefghij"
PLACES = ("deck", "table", "hand", "packet")
PLACED = ("FORCE", "KEY", "queen of hearts", "queen of diamonds", "two of clubs", "jack of spades")
WORDS = ("ox", "bay", "lamp", "the sea", "harbour")


def _with_an_end(number: str) -> str:
    """What has no end of its own must stand in brackets where something follows."""
    return f"({number})" if "digit sum" in number or "remainder" in number else number


@st.composite
def numbers(draw: Any, known: list[str], depth: int = 2, more: tuple[str, ...] = ()) -> str:
    """An expression in the known names; `more` are further atoms that may stand in it."""
    leaves = [st.integers(0, 6).map(str), *([st.sampled_from(known)] if known else [])]
    if depth == 0 or draw(st.integers(0, 2)) < 2:
        return draw(st.one_of(leaves + ([st.sampled_from(more)] if more else [])))
    a, b = draw(numbers(known, depth - 1)), draw(numbers(known, depth - 1))
    return draw(
        st.sampled_from(
            [
                f"{_with_an_end(a)} + {b}", f"{_with_an_end(a)} - ({b})", f"({a}) * ({b})", f"half of ({a}) rounded up",
                f"half of ({a}) rounded down", f"digit sum of ({a})", f"remainder of ({a}) divided by ({_with_an_end(b)} + 1)",
                f"min({a}, {b})", f"max({a}, {b})",
            ]
        )
    )  # fmt: skip


@st.composite
def routines(draw: Any) -> str:
    """A whole routine on a small pack: few choices, at most two claims outside the cases."""
    size = draw(st.integers(3, 9))
    focus = os.environ.get("FOCUS", "")
    if focus == "pack_in_order" or draw(st.integers(0, 9)) == 0:
        return str(draw(ordered()))
    writer = _Writer(draw, ["Title: A random one", f"Pack: {size} cards, any order"])
    if draw(st.booleans()):
        writer.rows.insert(1, "Note: made up")
    if size > 4 and (focus == "place_several" or draw(st.integers(0, 5)) == 0):
        several = ["three of hearts", "nine of spades"]
        writer.rows.append(f"Place {', '.join(several)} in this order, the first 2nd")
        writer.placed, writer.cards = list(several), list(several)
        size -= 4
    spots = draw(st.lists(st.integers(1, size), min_size=1, max_size=min(3, size), unique=True))
    if writer.placed:
        spots = [1]
        size += 4
    for card, at in zip(draw(st.permutations(PLACED)), spots, strict=False):
        writer.place(card, at, size)
    if draw(st.integers(0, 2)) == 0 or os.environ.get("FOCUS") == "place_extra":
        writer.extra()
    if writer.placed and (draw(st.integers(0, 5)) == 0 or os.environ.get("FOCUS") == "predict_on_back"):
        writer.on_back()
    writer.lines(draw(st.integers(1, 7)), "")
    writer.finish()
    return "".join(f"{row}\n" for row in writer.rows)


@st.composite
def ordered(draw: Any) -> str:
    """A routine on a pack whose order is known."""
    suits = draw(st.sampled_from(["clubs, hearts", "spades, diamonds, clubs"]))
    first, last = draw(st.sampled_from([("ace", "three"), ("king", "queen"), ("six", "eight")]))
    writer = _Writer(draw, [f"Pack: {suits}, each from {first} to {last}"])
    ranks = {"ace": ["ace", "two", "three"], "king": ["king", "queen"], "six": ["six", "seven", "eight"]}[first]
    writer.placed = [f"{rank} of {suit}" for suit in suits.split(", ") for rank in ranks]
    writer.cards = list(writer.placed)
    writer.lines(draw(st.integers(1, 5)), "")
    writer.finish()
    return "".join(f"{row}\n" for row in writer.rows)


class _Writer:
    def __init__(self, draw: Any, rows: list[str]) -> None:
        self.draw, self.rows = draw, rows
        self.told: list[str] = []
        self.secret: list[str] = []
        self.placed: list[str] = []
        self.cards: list[str] = []
        """every card that has a name by now"""
        self.odd = False
        self.filled = ["deck"]
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

    def extra(self) -> None:
        """A card beside the pack."""
        place = self.pick("hand", "table")
        odd = self.pick("", ", with an odd back")
        self.odd |= bool(odd)
        self.rows.append(f"Place MARKER in {place}{self.pick('', ', face up')}{odd}")
        self.placed.append("MARKER")
        self.cards.append("MARKER")
        self.filled.append(place)

    def on_back(self) -> None:
        self.odd = True
        self.rows.append(f"Prediction: {self.placed[0]} on the back of {self.placed[-1]}")

    # Lines

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
            focus = os.environ.get("FOCUS", "")
            focus = WITHIN.get(focus, focus)
            wanted = focus if focus in ready else self.pick(*ready)
            if focus in ready and self.pick(True, True, False):
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
            "tell": self.secret and not margin, "think_of": self.left > 0 and not margin,
            "take_card": self.left > 0 and not margin, "remember": not margin, "which_pile": self.piles and self.cards,
            "piles_beside": self.gathered and self.cards, "put_dealt": self.dealt, "drop_rest": self.dealt,
            "gather_any": self.piles and self.left > 1, "gather_side": self.piles, "gather_slot": self.piles and self.left > 1,
            "spell_name": self.may_look(margin), "count_down": self.may_look(margin), "value_of": self.may_look(margin),
            "deal_each": True, "lay_grid": not margin, "narrow": self.piles and self.left > 1 and self.cards, "demonstrating": len(margin) < 4,
            "chance": self.left > 0, "until_out": not margin and not self.turns, "as_long_as": not margin and not self.turns,
            "new_pile": not margin and not self.turns and self.left > 1, "for_each": not margin and self.left > 1,
            "note_order": self.left > 1 and not margin and not self.turns and not any("Note the order" in row for row in self.rows),
            "mixing": self.left > 2 and not margin, "name_aloud": self.cards, "predict": not margin, "foretell": self.placed and not margin,
            "gather_order": self.piles, "as_often": not margin and sum(self.sizes.values()) < 5 and self.left > 2 and not self.closed, "repeat": not margin, "cases": len(margin) < 4,
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
        place = self.source()
        spots = [f"the {self.pick('top', 'bottom')} card of {place}", f"the face of {place}",
                 f"the {self.pick('1st', '2nd', '3rd')} card of {place}",
                 f"the card at position {self.draw(numbers(self.known, 1))} from the bottom of {place}"]  # fmt: skip
        if self.row:
            spots.append(f"the {self.pick('1st', '2nd')} card from the {self.pick('left', 'right')} of {self.row}")
        if self.grid:
            spots.append(f"the {self.pick('1st', '2nd', '3rd')} card of grid")
        if self.dealt:
            spots += [
                "the next card",
                "the last card dealt",
                f"the {self.pick('1st', '2nd')} card back from the last dealt",
            ]
        return self.pick(*spots)

    def new_name(self) -> str:
        return next(self.names)

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

    def _fresh_number(self) -> tuple[str, str, str]:
        """(name, `secretly `, `, name from 1 to 3,`)"""
        self.left -= 1
        name, low = self.new_name(), self.pick(0, 1, 2)
        # What the performer does is no secret from the performer.
        secretly = self.pick("secretly ", "") if self.who else ""
        (self.secret if secretly else self.told).append(name)
        return name, secretly, f", {name} from {low} to {low + self.pick(0, 1, 3)},"

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

    # Mixes

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

    def _do_assumed(self, margin: str) -> None:
        self.say(margin, "Assumed: a false cut")

    def heap(self) -> str:
        source = self.source()
        return "deck" if source == "row" else source

    # Choices and cards

    def _do_choose_number(self, margin: str) -> None:
        self.who = "Spectator "
        _, secretly, choice = self._fresh_number()
        verb = self.pick("names", "chooses", "thinks of")
        self.say(margin, f"Spectator {secretly}{verb} a number {choice[2:-1]}")

    def _do_choose_values(self, margin: str) -> None:
        a, b = self.new_name(), self.new_name()
        self.left -= 2
        self.say(
            margin,
            f"Spectator chooses values {a}, {b}, each from 1 to {self.pick(2, 3)}, at most {self.pick(1, 2)} alike",
        )
        self.told += [a, b]

    def _do_choose_pile(self, margin: str) -> None:
        name, secretly = self.new_name(), self.pick("", "secretly ")
        self.left -= 1
        self.say(margin, f"Spectator {secretly}points to a pile: {name}")
        (self.secret if secretly else self.told).append(name)

    def _do_tell(self, margin: str) -> None:
        self.told.append(self.secret.pop())
        self.say(margin, f"Spectator tells {self.told[-1]}")

    def _new_card(self) -> str:
        name = next(n for n in ("their card", "X", "Y", "Z", "W", "V", "U", "T", "S", "R") if n not in self.cards)
        self.cards.append(name)
        return name

    def _do_think_of(self, margin: str) -> None:
        self.left -= 1
        self.known = self.told + self.secret
        self.say(margin, f"Spectator thinks of a card in {self.source()}: {self._new_card()}")

    def _do_take_card(self, margin: str) -> None:
        self.left -= 1
        self.known = self.told + self.secret
        source = self.source()
        barred = f", not {self.pick(*self.cards)}" if self.pick(True, False) else ""
        self.say(margin, f"Spectator takes a card from {source} to {self.target(source)}: {self._new_card()}{barred}")

    def _do_take_any(self, margin: str) -> None:
        self.left -= 1
        source = self.source()
        self.say(margin, f"{self.who}take{self.s} any {self.pick(1, 2)} cards of {source} to {self.target(source)}".replace(
            "any 1 cards", "any 1 card"))  # fmt: skip

    def _do_take_from(self, margin: str) -> None:
        spot = self.spot().replace("of grid", "of deck")  # there each keeps its place
        name = f": {self._new_card()}" if not margin and self.pick(True, False) else ""
        self.say(margin, f"{self.who}take{self.s} {spot} to tray{name}")

    def _do_remember(self, margin: str) -> None:
        self.say(margin, f"{self.who}remember{self.s} {self.spot()}: {self._new_card()}")

    def _learned(self) -> tuple[str, str]:
        """(verb, names) for a line that settles a number: in a repetition one for each time round, or one for all."""
        names = [self.new_name() for _ in range(self.turns if self.turns and self.pick(True, False) else 1)]
        verb = self.pick("notes", "tells")
        (self.secret if verb == "notes" else self.told).extend(names[: 1 if not self.turns else len(names)])
        return verb, ", ".join(names)

    def _do_which_pile(self, margin: str) -> None:
        verb, names = self._learned()
        self.say(margin, f"Spectator {verb} which pile holds {self.pick(*self.cards)}: {names}")

    def _do_piles_beside(self, margin: str) -> None:
        verb, names = self._learned()
        side = self.pick("under", "over")
        self.say(
            margin, f"Spectator {verb} how many piles went {side} the one with {self.pick(*self.cards)}: {names}"
        )

    # Piles

    def _do_deal_piles(self, margin: str) -> None:
        source = self.pick(*(place for place in self.filled if place != "row"))
        self.piles = self.pick(1, 2, 3)
        each = self.pick("", "", f", {self.pick(0, 1, 1, 2)} cards each", f", {self.number()} cards each")
        way = self.pick("", ", face up", ", face down")
        self.say(margin, f"{self.who}deal{self.s} {source} into {self.piles} piles{each}{way}")

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

    def may_look(self, margin: str) -> bool:
        """A card that is looked at can be any of some fifty: one such choice, and one more of another kind."""
        return self.left > 2 and not margin and not self.turns

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

    def _do_narrow(self, margin: str) -> None:
        self.left -= 1
        count, card = self.pick(1, 1, 2), self.pick(*self.cards)
        self.say(margin, f"Spectator points to {count} of the piles, and you keep those that {card} is among")
        self.filled = list(dict.fromkeys([*self.filled, "discard"]))

    def _do_chance(self, margin: str) -> None:
        self.left -= 1
        name = self.new_name()
        weight = self.pick("", f", each as likely as {name} + 1")
        self.say(margin, f"Chance decides on a number {name} from 1 to {self.pick(1, 2, 3)}{weight}")
        self.told.append(name)

    def _do_predict(self, margin: str) -> None:
        text, name = self.draw(numbers(self.told)), self.new_name()
        self.say(margin, f"Write {text} as the prediction {name}")
        self.told.append(name)

    def _do_foretell(self, margin: str) -> None:
        card = self.pick(*self.placed)  # one that the performer knows
        how = [f"on paper in {self.pick(*PLACES)}", f"ready in {self.pick(*self.filled)}, turned face up"]
        self.say(margin, f"Prediction: {card} {self.pick(*how)}")

    def _do_note_order(self, margin: str) -> None:
        self.left -= 2
        self.say(margin, f"Note the order of {self.pick(*self.filled)}")

    def _do_guard(self, margin: str) -> None:
        sides = f"{self.draw(numbers(self.told))} {self.pick('is at most', 'is less than', 'is not')}"
        self.say(margin, f"Make sure that {sides} size of {self.pick(*self.filled)}")

    def _do_name_aloud(self, margin: str) -> None:
        self.say(margin, f"Spectator names {self.pick(*self.cards)}")

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

    # Blocks

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
            if real and focus != "if_card" and self.pick(True, False):
                how = self.pick("are mates", "have the same value", "have the same suit", "have the same colour")
                condition = f"{self.pick(*self.placed)} and {self.pick(*real)} {how}"
        self.say(margin, f"If {condition}:")
        before = self.snapshot()
        one = self._case(margin, before)
        two = self._case(margin, before, "Otherwise:") if self.pick(True, False) else before
        after = [case for case in (one, two) if not case["over"]]
        self.over = not after
        if self.over:
            return
        for key in ("told", "secret", "cards"):
            setattr(self, key, [name for name in after[0][key] if all(name in case[key] for case in after)])
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

    # Endings

    def ending(self, margin: str) -> None:
        self.known = self.told
        card = self.pick(*self.cards)
        options = {
            "ends_with": f"{self.spot()} is {card}",
            "ends_same": f"{self.pick(*self.cards)} is {card}",
            "ends_facing": f"{self.spot()} is {self.pick('face up', 'face down')}",
            "ends_so_many_facing": f"{self.pick(*range(6))} cards of {self.source()} are {self.pick('face up', 'face down')}",
            "ends_alike": f"the top cards of {self.source()}, {self.source()} have the same {self.pick('value', 'suit', 'colour')}",
            "ends_beside": f"{self.pick(*self.cards)} is {self.pick('directly above', 'directly below', 'next to')} {card}",
            "ends_reversed": f"exactly {' and '.join(sorted({card, self.pick(*self.cards)}))} are reversed in {self.source()}",
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
            options["ends_in_row"] = f"{card} is in row {self.pick(1, 2, self.number())} of grid"
        if any("Note the order" in row for row in self.rows):
            options["ends_in_order"] = f"{self.source()} is in the order noted"
        options["ends_pairs"] = f"the cards of {self.source()}, two by two from the top, are mates"
        if not margin and (self.told or self.secret):
            options["ends_told"] = f"the faces of {self.source()} tell {self.pick(*self.told, *self.secret)}"
        if self.may_look(margin):
            together = self.pick("are mates", "have the same value", "have the same suit", "have the same colour")
            options["ends_together"] = f"{self.pick(*self.cards)} and {card} {together}"
        mated = [name for row in self.rows if "the mate of" in row for name in [row.rpartition("the mate of ")[2]]]
        if mated:
            options["ends_mate"] = f"{self.spot()} is the mate of {self.pick(*mated)}"
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
