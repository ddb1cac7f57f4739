"""What cards are called in five languages, for spelling. All of it may be overwritten at the desk.

Number words come from a library; the rest, courts, suits, articles and the regional packs of four suits, is
common practice, no published source, written down from memory.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from num2words import num2words


@dataclass(frozen=True)
class CardWords:
    """The words of one pack. Lists of values begin with the ace and go up."""

    language: str
    title: str
    ace: str
    courts: tuple[str, ...]
    suits: tuple[str, ...]
    """as they stand in the name of a card"""
    one: tuple[str, ...]
    """the other number: one club for clubs; the same where a language has but one form"""
    of: str
    """the middle word; empty where there is none"""
    article: str
    articles: tuple[tuple[str, str], ...] = ()
    """(value, its article) where it is another one"""
    numbers: tuple[int, ...] = (2, 3, 4, 5, 6, 7, 8, 9, 10)
    suit_first: bool = False

    @cached_property
    def values(self) -> tuple[str, ...]:
        return (self.ace, *(num2words(n, lang=self.language) for n in self.numbers), *self.courts)

    def article_of(self, value: str) -> str:
        return dict(self.articles).get(value, self.article)


ENGLISH = CardWords(
    "en", "English", "ace", ("jack", "queen", "king"), ("clubs", "diamonds", "hearts", "spades"),
    ("club", "diamond", "heart", "spade"), "of", "the",
)  # fmt: skip
SPANISH = CardWords(
    "es", "Spanish", "as", ("jota", "reina", "rey"), ("tréboles", "diamantes", "corazones", "picas"),
    ("trébol", "diamante", "corazón", "pica"), "de", "el", (("jota", "la"), ("reina", "la")),
)  # fmt: skip
SPANISH_REGIONAL = CardWords(
    "es", "Spanish, regional pack of 40", "as", ("sota", "caballo", "rey"), ("oros", "copas", "espadas", "bastos"),
    ("oro", "copa", "espada", "basto"), "de", "el", (("sota", "la"),), (2, 3, 4, 5, 6, 7),
)  # fmt: skip
FRENCH = CardWords(
    "fr", "French", "as", ("valet", "dame", "roi"), ("trèfle", "carreau", "cœur", "pique"),
    ("trèfles", "carreaux", "cœurs", "piques"), "de", "le", (("as", "l’"), ("dame", "la")),
)  # fmt: skip
GERMAN = CardWords(
    "de", "German", "Ass", ("Bube", "Dame", "König"), ("Kreuz", "Karo", "Herz", "Pik"),
    ("Kreuz", "Karo", "Herz", "Pik"), "", "die", (("Ass", "das"), ("Bube", "der"), ("König", "der")),
    suit_first=True,
)  # fmt: skip
GERMAN_REGIONAL = CardWords(
    "de", "German, regional pack of 32", "Ass", ("Unter", "Ober", "König"), ("Eichel", "Laub", "Herz", "Schellen"),
    ("Eichel", "Laub", "Herz", "Schelle"), "", "die", (("Ass", "das"), ("Unter", "der"), ("Ober", "der"), ("König", "der")),
    (7, 8, 9, 10), suit_first=True,
)  # fmt: skip
ITALIAN = CardWords(
    "it", "Italian", "asso", ("fante", "donna", "re"), ("fiori", "quadri", "cuori", "picche"),
    ("fiore", "quadro", "cuore", "picca"), "di", "il", (("asso", "l’"), ("otto", "l’"), ("donna", "la")),
)  # fmt: skip
ITALIAN_REGIONAL = CardWords(
    "it", "Italian, regional pack of 40", "asso", ("fante", "cavallo", "re"), ("coppe", "denari", "spade", "bastoni"),
    ("coppa", "denaro", "spada", "bastone"), "di", "il", (("asso", "l’"),), (2, 3, 4, 5, 6, 7),
)  # fmt: skip

PACKS: dict[str, CardWords] = {
    "english": ENGLISH,
    "spanish": SPANISH,
    "spanish-40": SPANISH_REGIONAL,
    "french": FRENCH,
    "german": GERMAN,
    "german-32": GERMAN_REGIONAL,
    "italian": ITALIAN,
    "italian-40": ITALIAN_REGIONAL,
}
