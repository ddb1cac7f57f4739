"""Random routines in which faces are looked at: again under other names, reckoned with, placed, forgotten, told.

What a proof forgets of faces it has seen is the hardest thing to get right; general random routines seldom come near
it. Packs are small, or few cards of a large one are looked at, so that the reference can go through every path.
"""

from __future__ import annotations

from random import Random

NAMES = ("P", "Q", "R", "S")
FACTS = ("value", "suit", "letters of value", "letters of suit")
SUCH = ("red", "black", "a club", "a heart", "a spade", "a court card", "an ace", "a jack")
ALIKE = (
    "are mates",
    "have the same value",
    "have the same suit",
    "have the same colour",
    "differ in value",
    "differ in colour",
)
MANY = ("red", "black", "hearts", "spades", "court", "aces", "twos")
IS = ("is", "is not", "is more than", "is less than", "is at least", "is at most")
SMALL = ("clubs, hearts, each from ace to two", "clubs, spades, each from ace to two", "hearts, each from ace to four",
         "clubs, hearts, diamonds, each from jack to queen", "spades, diamonds, each from ten to jack")  # fmt: skip
WRONG = 0.15
"""how often the performer uses what nobody has told"""
LOOKS = 2
"""unknown cards of a whole pack that are looked at: 52 · 51 paths"""


class _Writer:
    def __init__(self, draw: Random) -> None:
        self.draw = draw
        self.cards: list[str] = []
        """that have a name and may be anything"""
        self.placed: list[str] = []
        self.known: list[str] = []
        """whose faces the performer knows"""
        self.numbers: list[str] = []
        self.secret: list[str] = []
        self.fresh = list(NAMES)
        self.free_numbers = list("nmk")
        self.filled = ["deck"]
        self.up: list[str] = []
        """places whose top card lies face up"""
        self.rows: list[str] = []
        self.left = 10**9
        self.choices = 2
        small = draw.random() < 0.6
        if small:
            self.rows.append(f"Pack: {draw.choice(SMALL)}")
            if draw.random() < 0.5:
                self.rows.append("Spectator shuffles deck")
                self.choices = 1
        else:
            self.rows.append(f"Pack: {draw.choice((4, 5, 52))} cards, any order")
            self.left = LOOKS
            self.choices = int(draw.random() < 0.2)
            self.fresh = list(NAMES[:LOOKS])
            if draw.random() < 0.4:
                some = draw.sample(
                    ["ace of clubs", "ace of hearts", "ace of diamonds", "two of spades"], draw.randint(1, 3)
                )
                self.rows.append(f"Place {', '.join(some)} in this order, the first on top" if len(some) > 1
                                 else f"Place {some[0]} on top")  # fmt: skip
                self.placed += some
                self.known += some
            elif draw.random() < 0.3:
                self.rows.append("Place FORCE 2nd")
                self.placed.append("FORCE")
                self.known.append("FORCE")

    def named(self) -> list[str]:
        return self.cards + self.placed

    def spot(self) -> str:
        place = self.draw.choice(self.filled)
        return f"the {self.draw.choice(('top', 'bottom', 'top', '2nd'))} card of {place}"

    def number(self, whose: str) -> str:
        """A number that this one may use, or now and then one that the performer may not."""
        whose = whose or ("nobody" if self.draw.random() < WRONG else "")
        cards = self.named() if whose else self.known
        atoms = [str(self.draw.randint(0, 3)), *self.numbers, *(self.secret * 2 if whose else [])]
        if self.left > 0:
            atoms += [f"{self.draw.choice(FACTS)} of {card}" for card in cards if card != "FORCE" or self.left > 0]
        one = self.draw.choice(atoms)
        other = self.draw.choice([*atoms, f"size of {self.draw.choice(self.filled)}"])
        return self.draw.choice(
            (one, one, f"{one} + {other}", f"4 * ({one}) - {other}", f"half of ({one}) rounded up")
        )

    def line(self, margin: str = "") -> None:
        kinds = [self.remember, self.remember, self.deal, self.deal, self.put, self.turn]
        if self.named() and self.left > 0 and not margin:
            kinds += [self.case, self.case, self.aloud]
        if self.choices > 0 and not margin:
            kinds += [self.take, self.choose, self.cut]
        if not margin:
            kinds += [self.write, self.loop]
            if self.draw.random() < 0.3 and self.left > 0:
                kinds += [self.limit]
        self.draw.choice(kinds)(margin)

    def who(self) -> tuple[str, str]:
        return self.draw.choice((("Spectator ", "s"), ("Spectator ", "s"), ("", "")))

    def say(self, margin: str, text: str) -> None:
        self.rows.append(margin + text[:1].upper() + text[1:])

    def remember(self, margin: str) -> None:
        if not self.fresh or margin:
            self.deal(margin)
            return
        who, s = self.who()
        name = self.fresh.pop(0)
        self.say(margin, f"{who}remember{s} {self.spot()}: {name}")
        self.cards.append(name)
        if not who:
            self.known.append(name)

    def take(self, margin: str) -> None:
        if not self.fresh:
            self.deal(margin)
            return
        self.choices -= 1
        name, place = self.fresh.pop(0), self.draw.choice(("hand", "first"))
        self.say(margin, f"Spectator takes a card from deck to {place}: {name}")
        self.cards.append(name)
        self.filled = list(dict.fromkeys([*self.filled, place]))

    def deal(self, margin: str) -> None:
        who, s = self.who()
        to = self.draw.choice(("table", "hand"))
        way = self.draw.choice(("", "", " face up"))
        self.say(margin, f"{who}deal{s} max(0, min({self.number(who)}, size of deck - 1)) cards from deck{way} to {to}"
                 if self.draw.random() < 0.7 else f"{who}deal{s} 1 card from deck{way} to {to}")  # fmt: skip
        self.filled = list(dict.fromkeys([*self.filled, to]))
        if way:
            self.up.append(to)

    def put(self, margin: str) -> None:
        others = [place for place in self.filled if place != "deck"]
        if not others:
            self.turn(margin)
            return
        self.say(margin, f"Put {self.draw.choice(others)} {self.draw.choice(('on', 'under'))} deck")

    def turn(self, margin: str) -> None:
        self.say(margin, f"Turn the top card of {self.draw.choice(self.filled)} face up")

    def aloud(self, margin: str) -> None:
        name = self.draw.choice(self.named())
        self.say(margin, f"Spectator names {name}")
        self.known.append(name)

    def choose(self, margin: str) -> None:
        if not self.free_numbers:
            self.deal(margin)
            return
        self.choices -= 1
        name, secret = self.free_numbers.pop(0), self.draw.random() < 0.5
        self.say(
            margin,
            f"Spectator {'secretly ' if secret else ''}names a number {name} from 1 to {self.draw.randint(1, 3)}",
        )
        (self.secret if secret else self.numbers).append(name)
        if secret and self.draw.random() < 2 * WRONG:
            self.say(margin, f"Deal min({name}, size of deck) cards from deck to table")
            self.filled = list(dict.fromkeys([*self.filled, "table"]))

    def cut(self, margin: str) -> None:
        self.choices -= 1
        self.say(margin, "Spectator cuts deck and completes the cut")

    def write(self, margin: str) -> None:
        if not self.free_numbers:
            self.deal(margin)
            return
        name = self.free_numbers.pop(0)
        secret = self.secret and self.draw.random() < 0.1
        self.say(
            margin, f"Write {self.draw.choice(self.secret) if secret else self.number('')} as the prediction {name}"
        )
        self.numbers.append(name)

    def limit(self, margin: str) -> None:
        self.say(margin, f"Make sure that {self.lying()}")

    def loop(self, margin: str) -> None:
        if self.left < 10**9 or not self.fresh:
            self.deal(margin)
            return
        name = self.fresh.pop(0)
        self.say(margin, "Until deck runs out:")
        self.say("  ", f"Remember the {self.draw.choice(('top', 'bottom'))} card of deck: {name}")
        others = [card for card in self.known if card != "FORCE"]
        condition = f"{name} and {self.draw.choice(others)} {self.draw.choice(ALIKE)}" if others and self.draw.random() < 0.4 else (
            f"{name} is {self.draw.choice(SUCH)}")  # fmt: skip
        self.say("  ", f"If {condition}:")
        self.say("    ", "Deal 1 card from deck to found")
        self.say("  ", "Otherwise:")
        self.say("    ", "Deal 1 card from deck to aside")
        self.filled = list(dict.fromkeys([*self.filled, "found", "aside"]))

    def lying(self) -> str:
        """Something claimed of cards by where they lie; of a whole heap only where few cards are in play."""
        place = self.draw.choice(self.filled)
        options = [
            f"{self.spot()} is {self.draw.choice(SUCH)}",
            f"{self.spot()} and {self.spot()} {self.draw.choice(ALIKE)}",
        ]
        if self.named():
            options.append(
                f"{self.spot()} has the same {self.draw.choice(('value', 'suit', 'colour'))} as {self.draw.choice(self.named())}"
            )
        if self.left > LOOKS:
            sort = self.draw.choice(MANY)
            cards = f"{sort} cards" if sort in ("red", "black", "court") else sort
            options += [
                f"{self.draw.randint(0, 2)} cards of {place} are {sort}",
                f"every card of {place} is {self.draw.choice(SUCH)}",
                f"number of {cards} of {place} {self.draw.choice(IS)} number of red cards of {self.draw.choice(self.filled)}",
                f"the cards of {place} {self.draw.choice(('alternate in colour', 'rotate in suit'))}",
                f"{place} has no two cards of the same {self.draw.choice(('value', 'suit'))}",
            ]
        return self.draw.choice(options)

    def condition(self, cards: list[str]) -> str:
        real = [card for card in cards if card != "FORCE"] or cards
        one = self.draw.choice(real)
        if len(cards) > 1 and self.draw.random() < 0.4:
            other = self.draw.choice([card for card in cards if card != one] or [one])
            return f"{one} and {other} {self.draw.choice(ALIKE)}"
        if self.draw.random() < 0.5:
            return f"{one} is {self.draw.choice(SUCH)}"
        fact, number = f"{self.draw.choice(FACTS)} of {one}", self.draw.randint(0, 4)
        if self.draw.random() < 0.2:
            return f"{fact} is {self.draw.choice(('even', 'odd'))}"
        turned = self.draw.random() < 0.3
        return " ".join(
            [str(number), self.draw.choice(IS), fact] if turned else [fact, self.draw.choice(IS), str(number)]
        )

    def case(self, margin: str) -> None:
        spectators = self.draw.random() < 0.6
        cards = self.named() if spectators or self.draw.random() < WRONG else self.known
        if not cards or len(margin) > 2:
            self.deal(margin)
            return
        who, s = ("Spectator ", "s") if spectators else ("", "")
        asked = self.condition(cards)
        if self.draw.random() < 0.3:
            asked = f"{asked} {self.draw.choice(('and', 'or'))} {self.condition(cards)}"
        elif self.draw.random() < 0.3:
            asked = self.lying()
        self.say(margin, f"If {asked}:")
        inner = margin + "  "
        if self.draw.random() < 0.3:
            self.say(inner, f"If {self.condition(cards)}:")
            inner += "  "
        self.say(inner, f"{who}deal{s} 1 card from deck to table")
        self.filled = list(dict.fromkeys([*self.filled, "table"]))
        if self.draw.random() < 0.4:
            self.say(margin, "Otherwise:")
            self.say(margin + "  ", f"{who}deal{s} 1 card from deck to hand")
            self.filled = list(dict.fromkeys([*self.filled, "hand"]))

    def ending(self) -> str:
        cards = self.named()
        options = [f"size of {self.draw.choice(self.filled)} {self.draw.choice(IS)} {self.draw.randint(0, 3)}"]
        if cards:
            one, other = self.draw.choice(cards), self.draw.choice(cards)
            options += [f"{self.spot()} is {one}", f"{one} is {other}"]
            if self.left > 0:
                options += [f"{self.number('s')} {self.draw.choice(IS)} {self.number('s')}"] * 3
                options += [f"{one} and {other} {self.draw.choice(ALIKE)}"] * 2
        if self.left > 0:
            options += [self.lying()] * 3
            if cards:
                options.append(f"{self.lying()} {self.draw.choice(('and', 'or'))} {self.condition(cards)}")
        if len(self.filled) > 1:
            two = ", ".join(self.draw.sample(self.filled, 2))
            options.append(f"the top cards of {two} have the same {self.draw.choice(('value', 'suit', 'colour'))}")
        return f"Ends with: {self.draw.choice(options)}"


def face_routine(seed: int) -> str:
    """One such routine, the same for a seed."""
    writer = _Writer(Random(seed))
    draw = writer.draw
    if writer.left == LOOKS and draw.random() < 0.7:
        # Two cards of many that may be anything: whether the second can be what the first was must stay known.
        for _ in range(LOOKS):
            writer.remember("")
        for _ in range(draw.randint(1, 3)):
            draw.choice((writer.case, writer.case, writer.deal, writer.put))("")
    else:
        for _ in range(draw.randint(2, 5)):
            writer.line()
    if writer.known and writer.left > 0 and draw.random() < 0.25:
        writer.rows += [f"If {writer.condition(writer.known)}:", f"  {writer.ending()}"]
    writer.rows += [writer.ending() for _ in range(draw.randint(1, 2))]
    if draw.random() < 0.5:
        writer.rows += [f"Odds of {writer.number('s')}", "Odds: every choice is equally likely"]
    return "\n".join(writer.rows) + "\n"
