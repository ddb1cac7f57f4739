"""A sheet as a PDF: black on white, large type, fonts embedded, the same bytes for the same sheet."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import UTC, datetime
from functools import cache
from pathlib import Path

from fontTools.ttLib import TTFont  # type: ignore[import-untyped]
from fpdf import FPDF
from fpdf.enums import WrapMode

from ..core.cards import card_suit, card_value
from .document import Beat, Cards, Document, Grid, Heading, Items, Paragraph

FONTS = Path(__file__).parent / "fonts"
MORE_FONTS = sorted((FONTS / "more").glob("*.ttf"))
"""for scripts that the first has not; each is read only when something is written in such a script"""
FORMATS = {"page": ((210, 297), 15, 12.0), "letter": ((215.9, 279.4), 15, 12.0), "pocket": ((105, 148), 7, 8.5)}
"""name → (width and height in mm, margin in mm, size of the type in points)"""

SUIT_MARKS = {"clubs": "♣", "diamonds": "♦", "hearts": "♥", "spades": "♠"}
INDICES = {1: "A", 11: "J", 12: "Q", 13: "K"}
# A date of its own would make every file another one.
MADE = datetime(2000, 1, 1, tzinfo=UTC)


class _Pages(FPDF):
    def __init__(self, documents: Sequence[Document], size: str) -> None:
        self.sheet = documents[0]
        text = "\n".join(one.text() for one in documents)
        (width, height), self.edge, self.type = FORMATS[size]
        super().__init__(format=(width, height))
        self.set_creation_date(MADE)
        self.set_title(f"{self.sheet.title}: {self.sheet.subtitle}")
        self.set_margin(self.edge)
        self.set_auto_page_break(True, self.edge + 6)
        self.add_font("sheet", "", FONTS / "DejaVuSans.ttf")
        self.add_font("sheet", "B", FONTS / "DejaVuSans-Bold.ttf")
        if more := fonts_for(text):
            for path in more:
                self.add_font(path.stem, "", path)
            self.set_fallback_fonts([path.stem for path in more], exact_match=False)
        if any("\u0590" <= letter < "\u1e00" for letter in text):
            # Letters that join, and scripts from right to left; it takes time, and Latin, Greek and Cyrillic do without.
            self.set_text_shaping(True)

    def header(self) -> None:
        self.set_font("sheet", "B", self.type * 1.25)
        self.words(self.sheet.title, 1.25)
        self.set_font("sheet", "", self.type * 0.85)
        self.words(self.sheet.subtitle, 0.85)
        if self.sheet.warning:
            self.set_font("sheet", "B", self.type * 0.85)
            self.set_draw_color(0)
            self.multi_cell(
                0,
                self.high(0.95),
                self.sheet.warning,
                border=1,
                new_x="LMARGIN",
                new_y="NEXT",
                wrapmode=WrapMode.WORD,
            )
        self.ln(self.high(0.4))

    def footer(self) -> None:
        self.set_y(-self.edge - 4)
        self.set_font("sheet", "", self.type * 0.7)
        self.cell(0, 4, f"{self.page_no()} of {{nb}}", align="R")

    def high(self, times: float = 1.0) -> float:
        """Height of a line in mm."""
        return self.type * 0.3528 * 1.4 * times

    def words(self, words: str, times: float = 1.0, indent: float = 0.0) -> None:
        """A paragraph that never runs over the edge, however long a word is."""
        self.set_x(self.l_margin + indent)
        self.multi_cell(
            self.epw - indent,
            self.high(times),
            words,
            new_x="LMARGIN",
            new_y="NEXT",
            wrapmode=WrapMode.WORD,
            align="L",
        )

    def plain(self, times: float = 1.0, bold: bool = False) -> None:
        self.set_font("sheet", "B" if bold else "", self.type * times)


@cache
def _covered(path: Path) -> frozenset[int]:
    """Code points that a font has."""
    with TTFont(path, lazy=True) as font:
        return frozenset(font.getBestCmap())


def fonts_for(text: str) -> list[Path]:
    """The further fonts that it takes to write this text."""
    missing = {ord(letter) for letter in text if letter.isprintable()} - _covered(FONTS / "DejaVuSans.ttf")
    found = []
    for path in MORE_FONTS if missing else ():
        if missing & _covered(path):
            found.append(path)
            missing -= _covered(path)
    return found


def pdf_of(document: Document, size: str = "page", *more: Document) -> bytes:
    """The whole file, each document from a page of its own. `size` is page (A4), letter (8½ by 11 inches) or pocket (A6)."""
    pages = _Pages((document, *more), size)
    for one in (document, *more):
        pages.sheet = one
        pages.add_page()
        _written(pages, one)
    return bytes(pages.output())


def _written(pages: _Pages, document: Document) -> None:
    for part in document.parts:
        match part:
            case Heading(words):
                pages.ln(pages.high(0.3))
                pages.plain(1.05, bold=True)
                pages.words(words, 1.05)
            case Paragraph(words):
                pages.plain()
                pages.words(words)
            case Items(rows, numbered):
                _items(pages, rows, numbered)
            case Grid(head, rows):
                _grid(pages, head, rows)
            case Cards(rows):
                _cards(pages, rows)
            case Beat():
                _beat(pages, part)


def _items(pages: _Pages, rows: tuple[str, ...], numbered: bool) -> None:
    pages.plain()
    for i, row in enumerate(rows, start=1):
        pages.set_x(pages.l_margin)
        pages.cell(pages.high(1.5), pages.high(), f"{i}." if numbered else "–")
        pages.words(row, indent=pages.high(1.5))


def _grid(pages: _Pages, head: tuple[str, ...], rows: tuple[tuple[str, ...], ...]) -> None:
    """As many tables side by side as there is room for, where there are many short rows."""
    pages.plain(0.85)
    longest = [max(len(row[i]) for row in (head, *rows)) for i in range(len(head))]
    wide = sum(longest) > 70
    with pages.table(
        width=pages.epw
        if wide or len(head) > 4
        else min(pages.epw, pages.type * 0.9 * (sum(longest) / 4 + 3 * len(head))),
        col_widths=tuple(max(8, min(40, n)) for n in longest),
        align="LEFT",
        text_align="LEFT",
        line_height=pages.high(0.9),
        wrapmode=WrapMode.WORD,
    ) as table:
        for row in (head, *rows):
            cells = table.row()
            for cell in row:
                cells.cell(cell)
    pages.ln(pages.high(0.4))


def short_name(name: str) -> str:
    """
    >>> short_name("queen of hearts"), short_name("FORCE")
    ('Q♥', 'FORCE')
    """
    bare, comma, more = name.partition(",")
    value, suit = card_value(bare), card_suit(bare)
    if value is None or suit is None:
        return name
    return f"{INDICES.get(value, value)}{SUIT_MARKS[suit]}{comma}{more}"


def _cards(pages: _Pages, rows: tuple[tuple[int, str], ...]) -> None:
    """Small cards with their positions, as many in a row as fit."""
    wide, high = pages.type * 1.5, pages.type * 1.15
    for at, name in rows:
        words = short_name(name)
        pages.plain(0.85, bold=True)
        needed = max(wide, pages.get_string_width(words) + 4)
        if pages.get_x() + needed > pages.w - pages.r_margin:
            pages.set_xy(pages.l_margin, pages.get_y() + high + pages.high(1.1))
        if pages.get_y() + high + pages.high() > pages.page_break_trigger:
            pages.add_page()
        x, y = pages.get_x(), pages.get_y()
        needed = min(needed, pages.epw)
        pages.rect(x, y, needed, high, round_corners=True, corner_radius=1.2)
        pages.set_xy(x, y + (high - pages.high(0.85)) / 2)
        pages.plain(0.85, bold=True)
        pages.cell(needed, pages.high(0.85), words if needed < pages.epw else words[:60], align="C")
        pages.set_xy(x, y + high)
        pages.plain(0.65)
        pages.cell(needed, pages.high(0.7), str(at), align="C")
        pages.set_xy(x + needed + 2, y)
    pages.set_xy(pages.l_margin, pages.get_y() + high + pages.high(1.2))


def _beat(pages: _Pages, beat: Beat) -> None:
    indent = beat.level * pages.high(1.2)
    number = pages.high(1.7)
    pages.plain(1.0, bold=beat.ending)
    pages.set_x(pages.l_margin + indent)
    top = pages.get_y()
    small = len(beat.marks) + len(beat.watch) + beat.gap
    if top + pages.high(1 + 1.1 * len(beat.says) + 0.85 * small) > pages.page_break_trigger:
        pages.add_page()
    pages.set_x(pages.l_margin + indent)
    pages.cell(number, pages.high(), beat.number or "▸")
    pages.words(beat.action, indent=indent + number)
    for says in beat.says:
        pages.plain(1.1, bold=True)
        pages.words(f"“{says}”", 1.1, indent + number)
    pages.plain(0.8)
    for mark in beat.marks:
        pages.words(f"◆ {mark}", 0.85, indent + number)
    for watch in beat.watch:
        pages.words(f"Watch: {watch}", 0.85, indent + number)
    if beat.gap:
        pages.words(f"· · ·  {beat.suggested}".rstrip(), 0.85, indent + number)
    pages.ln(pages.high(0.25))
