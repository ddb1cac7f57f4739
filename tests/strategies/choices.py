"""Numbers and cards that are chosen, told, looked at and foretold."""

from __future__ import annotations

from .numbers import numbers
from .writer import PLACES, Writer


class Choosing(Writer):
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
        spot = self.spot()
        spot = "the top card of deck" if "of grid" in spot else spot  # there each keeps its place
        name = f": {self._new_card()}" if not margin and self.pick(True, False) else ""
        self.say(margin, f"{self.who}take{self.s} {spot} to tray{name}")

    def _do_remember(self, margin: str) -> None:
        self.say(margin, f"{self.who}remember{self.s} {self.spot()}: {self._new_card()}")

    def _do_whisper(self, margin: str) -> None:
        self.say(margin, f"Spectator 1 whispers {self.pick(*self.whispered())} to spectator 2")

    def _do_take_mate(self, margin: str) -> None:
        source = self.source()
        self.say(
            margin,
            f"{self.who}take{self.s} the mate of {self.pick(*self.placed)} from {source} to {self.target(source)}: {self._new_card()}",
        )

    def _do_which_pile(self, margin: str) -> None:
        verb, names = self._learned()
        self.say(margin, f"Spectator {verb} which pile holds {self.pick(*self.cards)}: {names}")

    def _do_piles_beside(self, margin: str) -> None:
        verb, names = self._learned()
        side = self.pick("under", "over")
        self.say(
            margin, f"Spectator {verb} how many piles went {side} the one with {self.pick(*self.cards)}: {names}"
        )

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

    def _do_name_aloud(self, margin: str) -> None:
        self.say(margin, f"Spectator names {self.pick(*self.cards)}")

    def _do_note_order(self, margin: str) -> None:
        self.left -= 2
        self.say(margin, f"Note the order of {self.pick(*self.filled)}")

    def _do_guard(self, margin: str) -> None:
        sides = f"{self.draw(numbers(self.told))} {self.pick('is at most', 'is less than', 'is not')}"
        self.say(margin, f"Make sure that {sides} size of {self.pick(*self.filled)}")

    def _do_choose_word(self, margin: str) -> None:
        self.left -= 1
        name, verb = self.new_name(), self.pick("names", "secretly thinks of")
        (self.secret if "secretly" in verb else self.told).append(name)
        self.say(margin, f"Spectator {verb} a word, letters {name} from 1 to {self.pick(2, 3)}")

    def _do_choose_of_words(self, margin: str) -> None:
        self.left -= 1
        name, secretly = self.new_name(), self.pick("", "secretly ")
        (self.secret if secretly else self.told).append(name)
        self.say(margin, f"Spectator {secretly}chooses one of “ox”, “no”, “the sea”: {name}")

    def _do_answer(self, margin: str) -> None:
        self.known = self.told + self.secret
        name, secretly, how = self.new_name(), self.pick("", "secretly "), self.pick("truly", "truly or not")
        self.left -= how != "truly"
        asked = self.claim(self.cards, margin)
        (self.secret if secretly else self.told).append(name)
        self.say(margin, f"Spectator {secretly}answers {name}, {how}, whether {asked}")
