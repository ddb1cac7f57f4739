"""Reading never raises, whatever is typed; and one line that nobody can answer takes no other with it."""

from __future__ import annotations

import os
import random

import pytest

from golden_pivot.core.reading import read_line, read_page, read_sheet, reader
from golden_pivot.core.reading.lexicon import LEMMAS
from golden_pivot.core.steps import REGISTRY

MANY = int(os.environ.get("RANDOM_ROUTINES", "400"))
BEFORE = "Pack: 52 cards, any order\nPlace FORCE 10th\nDeal 10 cards from deck to table\n"
ODD = [
    "4",
    "ten",
    "1,000",
    "-3",
    "10-12",
    "½",
    "“",
    "”",
    "(",
    ")",
    ":",
    ";",
    "...",
    "?",
    "…",
    "’s",
    "FORCE",
    "n",
    "⟦n⟧",
    "\t",
    "#",
    "—",
]
GLUE = "the of to from on and then it them each with card cards top bottom deck pile table hand half first that many rest if".split()


def text(draw: random.Random) -> str:
    """Words of the lexicon, and of the sentences of the language, in any order."""
    sentences = [word for kind in REGISTRY.values() for word in kind.example.split()]
    pools = (sorted(LEMMAS), GLUE, sentences, ODD)
    return " ".join(draw.choice(draw.choice(pools)) for _ in range(draw.randint(1, 12)))


@pytest.mark.parametrize("seed", range(4))
def test_no_line_raises(seed: int, monkeypatch: pytest.MonkeyPatch) -> None:
    raised: list[str] = []
    monkeypatch.setattr(reader.logger, "exception", lambda words, said: raised.append(said))
    draw = random.Random(seed if "RANDOM_ROUTINES" not in os.environ else None)
    for _ in range(MANY // 4):
        read_line(BEFORE if draw.random() < 0.7 else "", text(draw))
    assert not raised, raised[0]


@pytest.mark.parametrize(
    "notes",
    [
        "Pack: 52 cards, any order\nTurn over the top 4 cards.\n",
        "Take a shuffled pack.\nTurn over the top 4 cards.\n",
    ],
)
def test_what_an_idiom_asks_for_and_a_line_does_not_say(notes: str) -> None:
    """It had ended in an error, and with it all readings of the page."""
    page = read_page(f"{notes}Deal ten cards onto the table.\n")
    assert page.sentences[-1].is_understood and page.sentences[0].is_understood
    read_sheet(notes)


def test_a_reading_that_breaks_takes_no_other_with_it(monkeypatch: pytest.MonkeyPatch) -> None:
    def breaks(before: str, said: str, margin: str) -> object:
        if "Shuffle" in said:
            raise KeyError("n")
        return whole(before, said, margin)

    whole = reader._read
    monkeypatch.setattr(reader, "_read", breaks)
    page = read_page("Take a shuffled pack.\nShuffle it.\nDeal ten cards onto the table.\n")
    assert [one.is_understood for one in page.sentences if one.said] == [True, False, True]
    assert page.unread == ("Shuffle it.",)
