"""Texts as they are while somebody types: beginnings, words changed, letters lost, lines moved, odd characters."""

from __future__ import annotations

import random
from functools import cache
from pathlib import Path

from golden_pivot.core.steps import REGISTRY
from golden_pivot.demo import demo_names, demo_text
from golden_pivot.library import principles

FOLDER = Path(__file__).parent
ODD = "²½٣Ⅳ０\u0000\u200b\u2028\ufeff\u0301é♠♥“”\"'()[]{},:;.…*/+-=?!%@#\t\\ ̈ "
NUMBERS = (
    "0",
    "1",
    "2",
    "3",
    "52",
    "121",
    "-1",
    "1000000",
    "1000001",
    "3.5",
    "²",
    "１",
    "1e9",
    "99999999999999999999",
)


@cache
def sources() -> tuple[str, ...]:
    """Whole routines, and every kind of step with a pack above it."""
    whole = [file.read_text(encoding="utf-8") for file in sorted((FOLDER / "procedures").glob("*.pivot"))]
    whole += [demo_text(name) for name in demo_names()] + [one.text for one in principles()]
    single = [f"Pack: 12 cards\nPlace A 3rd\n{kind.example}\n" for kind in REGISTRY.values()]
    return tuple(whole + single)


@cache
def words() -> tuple[str, ...]:
    return tuple(sorted({word for text in sources() for word in text.split()}))


def any_text(seed: int) -> str:
    """One text, the same for the same seed on every machine."""
    pick = random.Random(seed)
    text = pick.choice(sources())
    for _ in range(pick.choice((1, 1, 1, 2, 2, 4))):
        text = pick.choice((_begun, _without_end_of_a_line, _word, _word, _word, _letter, _line, _margin))(text, pick)
    return text


def _begun(text: str, pick: random.Random) -> str:
    return text[: pick.randrange(len(text) + 1)]


def _a_row(text: str, pick: random.Random) -> tuple[list[str], int]:
    rows = text.split("\n")
    return rows, pick.randrange(len(rows))


def _without_end_of_a_line(text: str, pick: random.Random) -> str:
    rows, at = _a_row(text, pick)
    rows[at] = rows[at][: pick.randrange(len(rows[at]) + 1)]
    return "\n".join(rows)


def _word(text: str, pick: random.Random) -> str:
    rows, at = _a_row(text, pick)
    row = rows[at].split(" ")
    nth = pick.randrange(len(row))
    new = pick.choice(
        (pick.choice(words()), pick.choice(NUMBERS), "", row[nth] + " " + row[nth], "(" + row[nth], row[nth] + ")")
    )
    row[nth] = new
    if pick.random() < 0.2:
        pick.shuffle(row)
    rows[at] = " ".join(row)
    return "\n".join(rows)


def _letter(text: str, pick: random.Random) -> str:
    at = pick.randrange(len(text) + 1)
    return (
        text[:at] + pick.choice((pick.choice(ODD), "", pick.choice(text or "x"))) + text[at + pick.choice((0, 1)) :]
    )


def _line(text: str, pick: random.Random) -> str:
    rows, at = _a_row(text, pick)
    other = pick.choice(pick.choice(sources()).split("\n"))
    rows[at : at + pick.choice((0, 1))] = pick.choice(([other], [rows[at]], []))
    return "\n".join(rows)


def _margin(text: str, pick: random.Random) -> str:
    rows, at = _a_row(text, pick)
    rows[at] = pick.choice(("", " ", "  ", "    ", "\t", " " * 18)) + rows[at].lstrip()
    return "\n".join(rows)
