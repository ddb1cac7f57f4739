"""Random routines, as a reader of the language would write them, with every kind of step in them."""

from __future__ import annotations

from typing import Any

from hypothesis import strategies as st

NAMES = ("n", "m", "k")
PLACES = ("deck", "table", "hand", "pile 1")
CARDS = ("FORCE", "KEY", "queen of hearts")


@st.composite
def numbers(draw: Any, known: list[str], depth: int = 2) -> str:
    """An expression in the known names."""
    leaves = [st.integers(0, 6).map(str)] + ([st.sampled_from(known)] if known else [])
    if depth == 0 or draw(st.integers(0, 2)) < 2:
        return draw(st.one_of(leaves))
    a, b = draw(numbers(known, depth - 1)), draw(numbers(known, depth - 1))
    # Half of them small again, so that few paths ask for more cards than there are.
    return draw(
        st.sampled_from(
            [
                f"{a} + {b}",
                f"{a} - ({b})",
                f"({a}) * ({b})",
                f"half of ({a}) rounded up",
                f"half of ({a}) rounded down",
                f"digit sum of ({a})",
                f"remainder of ({a}) divided by ({b} + 1)",
                f"min({a}, {b})",
                f"max({a}, {b})",
            ]
        )
    )


@st.composite
def routines(draw: Any) -> str:
    """A whole routine on a small pack: at most three choices, one or two claims or none."""
    size = draw(st.integers(3, 9))
    rows = ["Title: A random one", f"Pack: {size} cards, any order"]
    spots = draw(st.lists(st.integers(1, size), min_size=1, max_size=2, unique=True))
    for card, at in zip(draw(st.permutations(CARDS)), spots, strict=False):
        end = draw(st.sampled_from(["from the top", "from the bottom"]))
        rows.append(f"Place {card} at position {at if end == 'from the top' else size + 1 - at} {end}")
    writer = _Writer(draw, rows)
    writer.lines(draw(st.integers(1, 6)), "")
    for _ in range(draw(st.integers(0, 2))):
        writer.ending(draw(st.sampled_from([row.split(" at ")[0][6:] for row in rows if row.startswith("Place ")])))
    return "".join(f"{row}\n" for row in writer.rows)


class _Writer:
    def __init__(self, draw: Any, rows: list[str]) -> None:
        self.draw, self.rows = draw, rows
        self.told: list[str] = []
        self.secret: list[str] = []
        self.filled = ["deck"]
        self.dealt = False
        self.left = 3

    def pick(self, *options: Any) -> Any:
        return self.draw(st.sampled_from(options))

    def lines(self, how_many: int, margin: str) -> None:
        for _ in range(how_many):
            kinds = ["deal", "deal", "deal", "under", "move", "block", "over", "cut"]
            kinds += ["back", "rest"] * self.dealt + ["number", "free cut"] * (self.left > 0)
            kinds += ["tell"] * (bool(self.secret) and not margin) + ["repeat"] * (not margin)
            self.line(self.pick(*kinds), margin)

    def line(self, kind: str, margin: str) -> None:
        who, s = self.pick(("", ""), ("Spectator ", "s"))
        known = self.told if not who else self.told + self.secret
        number = self.draw(numbers(known))
        source = self.pick(*self.filled)
        say = lambda text: self.rows.append(margin + text[0].upper() + text[1:])  # noqa: E731
        if kind in ("deal", "under"):
            to = self.pick(*(place for place in PLACES if place != source))
            end = ", each under the last" if kind == "under" else ""
            say(f"{who}{'count' if kind == 'under' else 'deal'}{s} {number} cards from {source} to {to}{end}")
            self.filled, self.dealt = list(dict.fromkeys([*self.filled, to])), True
        elif kind == "move":
            to = self.pick(*(place for place in PLACES if place != source))
            say(f"{who}put{s} {source} {self.pick('on', 'under')} {to}")
            self.filled = list(dict.fromkeys([*self.filled, to]))
        elif kind == "block":
            say(f"{who}turn{s} over the top {number} cards of {source} as a block")
        elif kind == "over":
            say(f"{who}turn{s} {source} over")
        elif kind == "cut":
            say(f"{who}cut{s} {source} at {number} and complete{s} the cut")
        elif kind == "back":
            say(f"{who}put{s} the dealt cards {self.pick('back on top', 'underneath')}")
        elif kind == "rest":
            say(f"{who}drop{s} the rest on top")
        elif kind == "tell":
            self.told.append(self.secret.pop())
            say(f"Spectator tells {self.told[-1]}")
        elif kind == "repeat":
            say(f"Repeat {self.pick(1, 2, 3)} times:")
            left, self.left = self.left, 0  # a choice in a loop counts once a round; keep the paths few
            self.lines(self.pick(1, 2), margin + "  ")
            self.left = left
        elif kind == "free cut":
            self.left -= 1
            say(f"{who}cut{s} {source} and complete{s} the cut")
        elif kind == "number":
            name = NAMES[len(self.told) + len(self.secret)] if len(self.told) + len(self.secret) < 3 else None
            if name:
                self.left -= 1
                secret = self.pick(True, False)
                low = self.pick(0, 1, 2, 4)
                verb = self.pick("names", "chooses", "thinks of")
                span = f"{name} from {low} to {low + self.pick(0, 1, 3)}"
                if self.pick(True, False):
                    say(f"Spectator {'secretly ' if secret else ''}{verb} a number {span}")
                else:
                    say(
                        f"Spectator {'secretly ' if secret else ''}cuts {source} at {name}, {span}, and completes the cut"
                    )
                (self.secret if secret else self.told).append(name)

    def ending(self, card: str) -> None:
        options = [f"the {self.pick('top', 'bottom')} card of {self.pick(*self.filled)}"]
        options.append(f"the card at position {self.draw(numbers(self.told))} of {self.pick(*self.filled)}")
        options += ["the next card", "the last card dealt"] if self.dealt else []
        self.rows.append(f"Ends with: {self.pick(*options)} is {card}")
