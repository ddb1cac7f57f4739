"""A drawing as SVG text. Lengths are in units of a pixel at natural size."""

from __future__ import annotations

from xml.sax.saxutils import escape

COLOURS = {
    "ink": "#20262e", "slate": "#56616e", "page": "#fbf7ef", "edge": "#ddd2be", "gold": "#c08a17",
    "gold-wash": "#f1e7d0", "red": "#a8321f", "card-face": "#ffffff", "card-edge": "#a89a7f",
}  # fmt: skip
"""by day; the screen has its own values for the same names"""

FONT = "'Instrument Sans Variable', system-ui, sans-serif"

SUITS = {
    "hearts": "M5 9.2 1.2 5.2A2.4 2.4 0 0 1 5 2.3a2.4 2.4 0 0 1 3.8 2.9z",
    "diamonds": "M5 .6 8.4 5 5 9.4 1.6 5z",
    "spades": "M5 .8 8.8 4.6A2.2 2.2 0 0 1 5.6 7.1l.7 2.1H3.7l.7-2.1A2.2 2.2 0 0 1 1.2 4.6z",
    "clubs": "M5 .8a2 2 0 0 1 1.5 3.4A2 2 0 1 1 5.5 7l.8 2.2H3.7L4.5 7a2 2 0 1 1-1-2.8A2 2 0 0 1 5 .8z",
}
"""a suit mark in a square of 10"""


def paint(colour: str) -> str:
    return f"var(--{colour}, {COLOURS[colour]})"


class Drawing:
    def __init__(self, title: str) -> None:
        self.title = title
        self._parts: list[str] = []

    def rect(
        self, x: float, y: float, width: float, height: float, fill: str, stroke: str | None = None, r: float = 0
    ) -> None:
        line = f"stroke:{paint(stroke)}" if stroke else "stroke:none"
        self._parts.append(
            f'<rect x="{x:.1f}" y="{y:.1f}" width="{width:.1f}" height="{height:.1f}" rx="{r:g}" style="fill:{paint(fill)};{line}"/>'
        )

    def line(self, x1: float, y1: float, x2: float, y2: float, colour: str = "edge", width: float = 1) -> None:
        self.path(f"M{x1:.1f} {y1:.1f}L{x2:.1f} {y2:.1f}", colour, width)

    def path(self, d: str, colour: str, width: float = 1) -> None:
        self._parts.append(f'<path d="{d}" style="fill:none;stroke:{paint(colour)};stroke-width:{width:g}"/>')

    def ring(self, x: float, y: float, r: float, colour: str) -> None:
        """With a pin in its middle."""
        for radius, fill in ((r, "none"), (r / 3, paint(colour))):
            self._parts.append(
                f'<circle cx="{x:.1f}" cy="{y:.1f}" r="{radius:.1f}" style="fill:{fill};stroke:{paint(colour)};stroke-width:1.6"/>'
            )

    def mark(self, suit: str, x: float, y: float, size: float) -> None:
        """A suit mark with its top left corner there."""
        colour = "red" if suit in ("hearts", "diamonds") else "ink"
        # On a card, which is light by night as well, black is black.
        fill = COLOURS["red"] if colour == "red" else COLOURS["ink"]
        self._parts.append(
            f'<path d="{SUITS[suit]}" transform="translate({x:.1f} {y:.1f}) scale({size / 10:g})" style="fill:{fill}"/>'
        )

    def text(self, x: float, y: float, words: str, colour: str = "ink", size: float = 13, anchor: str = "start",
             bold: bool = False, fixed: bool = False) -> None:  # fmt: skip
        """`fixed`: the colour of paper and ink by night as well."""
        fill = COLOURS[colour] if fixed else paint(colour)
        weight = ";font-weight:650" if bold else ""
        self._parts.append(
            f'<text x="{x:.1f}" y="{y:.1f}" text-anchor="{anchor}" style="fill:{fill};font:{size:g}px {FONT}{weight};'
            f'font-variant-numeric:tabular-nums">{escape(words)}</text>'
        )

    def svg(self, width: float, height: float, ground: str | None = "page") -> str:
        title = escape(self.title)
        under = f'<rect width="100%" height="100%" style="fill:{paint(ground)}"/>' if ground else ""
        return (
            f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {width:.0f} {height:.0f}" width="{width:.0f}" '
            f'height="{height:.0f}" role="img" aria-label="{escape(self.title, {chr(34): "&quot;"})}"><title>{title}</title>'
            f"{under}{''.join(self._parts)}</svg>"
        )
