"""The spelling desk: what names spell to in each phrasing, whom a position reaches, and with which script."""

from __future__ import annotations

import csv
import unicodedata
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import combinations

from ..budget import Budget
from ..cards import RANKS, SUITS
from ..english import counted, ordinal
from ..language.arithmetic import letters_in
from ..to_learn import DrillQuestion
from .card_words import PACKS, CardWords
from .desk import Desk, Send, Table, Trouble, asked, desk, within
from .gaps import filled, strange_gap

MOST_NAMES, MOST_PHRASINGS, LONGEST_NAME = 1000, 24, 80
MOST_TRIED = 16
"""scripts up to which the smallest set of them is searched for among all sets"""
AWKWARD = "~"
"""in front of a phrasing that nobody would say of their own accord"""

LAST, NEXT, TABLED = "last", "next", "tabled"
REVEALS = {
    LAST: "the last card dealt",
    NEXT: "the next card",
    TABLED: "the last letter’s card, a card to the bottom for each letter",
}

OF_CARDS = ("{value} {of} {suit}", "{value} {suit}", "{article} {value} {of} {suit}", "~{value} {of} {one}", "~{value} {one}",
            "~{article} {value} {suit}", "~{value}")  # fmt: skip
SUIT_FIRST = ("{suit} {value}", "{article} {suit} {value}", "~{value}")
OF_NAMES = ("{name}", "~the {name}")

COUNTED = (
    "A letter is one character of the Unicode classes L once accents are joined to their letters: é and œ are one each;"
    " spaces, hyphens, apostrophes and figures are none."
)


@dataclass(frozen=True)
class SpellingAsks:
    names: str = asked(
        "", "names: your own list, one a line or the first column of a CSV; empty for the cards of the pack"
    )
    pack: str = asked("english", f"pack: whose words the cards have; one of {', '.join(PACKS)}")
    values: str = asked("", "words for the values: from the ace up, with commas; empty for those of the language")
    suits: str = asked("", "words for the suits: with commas; empty for those of the language")
    phrasings: list[str] = asked(
        [],
        """phrasings: each with {value}, {of}, {suit}, {one} for a single card of the suit, {article}, or {name};
        ~ in front marks it awkward; none for the usual ones""",
    )
    reveals: list[str] = asked([LAST, NEXT], "reveals: last (the last card dealt), next (the one after), tabled")
    packet: int = asked(
        9, "cards in the packet: where the last letter’s card is tabled and a card goes under for each letter"
    )
    wanted: list[int] = asked([11], "wanted positions: where the card may lie, from the top")


@dataclass(frozen=True)
class Phrasing:
    template: str
    awkward: bool
    example: str


@dataclass(frozen=True)
class Count:
    spelled: str
    letters: int
    comes: bool
    """to a position that is wanted, in one of the ways to reveal"""


@dataclass(frozen=True)
class Row:
    """A name, its own letters (value and suit of a card), and what each phrasing makes of it, in their order."""

    name: str
    letters: int
    counts: tuple[Count, ...]


@dataclass(frozen=True)
class Script:
    """How one name is spelled to the wanted position."""

    name: str
    spelled: str
    letters: int
    reveal: str
    position: int
    awkward: bool
    phrasing: int
    """index into the phrasings, from 0"""
    send: Send


@dataclass(frozen=True)
class Coverage:
    position: int
    reached: int
    natural: int
    """reached without an awkward phrasing"""


@dataclass(frozen=True)
class Rule:
    """What to do by the number of letters alone; `script` is None where the name is to be kept out."""

    letters: int
    names: int
    example: str
    script: str | None


@dataclass(frozen=True)
class SpellingAnswers:
    phrasings: tuple[Phrasing, ...]
    rows: tuple[Row, ...]
    scripts: tuple[Script, ...]
    """the best one for each name that can be reached, in the order of the names"""
    unreached: tuple[str, ...]
    """to be kept out of the selection"""
    best: tuple[Coverage, ...]
    """positions that reach most, the best first"""
    fewest: tuple[str, ...]
    """the smallest set of scripts that reaches as many"""
    fewest_is_least: bool
    """every smaller set was tried"""
    rule: tuple[Rule, ...]
    exceptions: tuple[str, ...]
    """names for which the rule by letters does not do"""
    counted: str
    send: Send | None
    """the rule as a routine for whatever card lies there; None where it leaves some out or has no sentences"""


def names_of(pack: CardWords) -> tuple[tuple[str, dict[str, str]], ...]:
    """(name, fields for its phrasings) of every card of the pack, suit by suit, values upwards."""
    found = []
    for suit, one in zip(pack.suits, pack.one, strict=True):
        for value in pack.values:
            fields = {"value": value, "suit": suit, "one": one, "of": pack.of, "article": pack.article_of(value)}
            name = f"{suit} {value}" if pack.suit_first else f"{value} {pack.of} {suit}"
            found.append((name, {**fields, "name": name}))
    return tuple(found)


def _words(text: str) -> list[str]:
    return [word.strip() for word in text.split(",") if word.strip()]


@dataclass(frozen=True)
class _OwnWords(CardWords):
    own: tuple[str, ...] = ()

    @property
    def values(self) -> tuple[str, ...]:
        return self.own


def _pack(asks: SpellingAsks) -> CardWords:
    if asks.pack not in PACKS:
        raise Trouble("pack", f"There is no pack called {asks.pack}.", f"Take one of {', '.join(PACKS)}.")
    pack = PACKS[asks.pack]
    if suits := tuple(_words(asks.suits)):
        if len(suits) != len(pack.suits):
            raise Trouble(
                "suits", f"{len(suits)} words for {len(pack.suits)} suits.", "Write one for each, with commas."
            )
        pack = replace(pack, suits=suits, one=suits)
    if values := tuple(_words(asks.values)):
        plain = {field: getattr(pack, field) for field in CardWords.__dataclass_fields__}
        pack = _OwnWords(**plain, own=values)
    return pack


def _named(asks: SpellingAsks) -> tuple[tuple[str, dict[str, str]], ...]:
    if not asks.names.strip():
        return names_of(_pack(asks))
    first = (row[0].strip() for row in csv.reader(asks.names.splitlines()) if row)
    names = list(dict.fromkeys(unicodedata.normalize("NFC", name) for name in first if name))
    if not names:
        raise Trouble(
            "names", "There is no name in this list.", "Write one a line, or clear it for the pack of cards."
        )
    if len(names) > MOST_NAMES:
        raise Trouble(
            "names",
            f"{len(names):,} names are more than anyone spells from.",
            f"Keep at most {MOST_NAMES:,} of them.",
        )
    for name in names:
        if not letters_in(name):
            raise Trouble("names", f"“{name[:40]}” has no letters to spell.", "Leave it out, or write it in words.")
        if len(name) > LONGEST_NAME:
            raise Trouble("names", f"“{name[:20]}…” has {len(name)} characters.", f"Keep names under {LONGEST_NAME}.")
    return tuple((name, {"name": name}) for name in names)


def _phrasings(asks: SpellingAsks, fields: dict[str, str], pack: CardWords | None) -> list[tuple[str, bool]]:
    """(template, awkward) of each."""
    usual = OF_NAMES if pack is None else SUIT_FIRST if pack.suit_first else OF_CARDS
    wanted = [text.strip() for text in asks.phrasings if text.strip()] or list(usual)
    if len(wanted) > MOST_PHRASINGS:
        raise Trouble("phrasings", f"{len(wanted)} phrasings are too many.", f"Keep at most {MOST_PHRASINGS}.")
    found = []
    for text in wanted:
        template = text.removeprefix(AWKWARD).strip()
        if (strange := strange_gap(template, fields)) is not None:
            raise Trouble(
                "phrasings",
                f"“{text}” has {{{strange.strip('{}')}}}, which is nothing here.",
                f"There are {', '.join(f'{{{name}}}' for name in fields)}.",
            )
        found.append((template, text.startswith(AWKWARD)))
    return found


def spelled(template: str, fields: dict[str, str]) -> str:
    """The words to spell, accents joined to their letters.

    >>> spelled("{article} {value}", {"article": "l’", "value": "as"})
    'l’as'
    """
    words = unicodedata.normalize("NFC", " ".join(filled(template, fields).split()))
    return words.replace("’ ", "’")


def reached(letters: int, reveal: str, packet: int) -> int:
    """The position, from the top, of the card that so many letters come to."""
    return {LAST: letters, NEXT: letters + 1, TABLED: (letters - 1) % packet + 1}[reveal]


def _count(text: str, reveals: Sequence[str], asks: SpellingAsks) -> Count:
    letters = letters_in(text)
    comes = letters > 0 and any(reached(letters, reveal, asks.packet) in asks.wanted for reveal in reveals)
    return Count(text, letters, comes)


def answer(asks: SpellingAsks, budget: Budget) -> SpellingAnswers:
    within(asks, packet=(2, 120), wanted=(1, 120))
    reveals = list(dict.fromkeys(asks.reveals))
    if not reveals or set(reveals) - set(REVEALS):
        raise Trouble("reveals", "There is no way to reveal the card.", f"Take one or more of {', '.join(REVEALS)}.")
    if not asks.wanted:
        raise Trouble("wanted", "No position is wanted.", "Write one or more, such as 11.")
    pack = None if asks.names.strip() else _pack(asks)
    named = _named(asks)
    phrasings = _phrasings(asks, named[0][1], pack)
    rows = []
    for name, fields in named:
        texts = [spelled(template, fields) for template, _ in phrasings]
        own = letters_in(fields["value"] + fields["suit"]) if "suit" in fields else letters_in(name)
        rows.append(Row(name, own, tuple(_count(text, reveals, asks) for text in texts)))
    kinds = [(p, reveal) for p in range(len(phrasings)) for reveal in reveals]
    awkward = [phrasing[1] for phrasing in phrasings]

    def reach(positions: set[int], allowed: Sequence[tuple[int, str]]) -> list[frozenset[int]]:
        """For each of the kinds the names it brings to one of the positions, by index."""
        return [
            frozenset(i for i, row in enumerate(rows) if row.counts[p].letters > 0
                      and reached(row.counts[p].letters, reveal, asks.packet) in positions)
            for p, reveal in allowed
        ]  # fmt: skip

    wanted = set(asks.wanted)
    reaching = reach(wanted, kinds)
    least, is_least = _fewest(reaching, [awkward[p] for p, _ in kinds])
    in_order = sorted(range(len(kinds)), key=lambda k: (awkward[kinds[k][0]], k not in least, k))
    scripts = []
    for i, row in enumerate(rows):
        found = next((k for k in in_order if i in reaching[k]), None)
        if found is None:
            continue
        p, reveal = kinds[found]
        count = row.counts[p]
        place = reached(count.letters, reveal, asks.packet)
        send = _send(row.name, count.spelled, reveal, place, asks.packet)
        scripts.append(Script(row.name, count.spelled, count.letters, reveal, place, awkward[p], p, send))
    done = {script.name for script in scripts}
    chosen, exceptions = _rule(rows, reaching, in_order)
    rule = [
        Rule(letters, many, first.name, None if k is None else _kind_words(kinds[k], first))
        for letters, many, first, k in chosen
    ]
    whole = None
    if pack is PACKS["english"] and len(wanted) == 1 and not exceptions:
        ways = [
            (letters, None if k is None else (phrasings[kinds[k][0]][0], kinds[k][1])) for letters, _, _, k in chosen
        ]
        whole = _send_rule(ways, asks.wanted[0])
    return SpellingAnswers(
        tuple(Phrasing(t, a, rows[0].counts[p].spelled) for p, (t, a) in enumerate(phrasings)),
        tuple(rows),
        tuple(scripts),
        tuple(row.name for row in rows if row.name not in done),
        tuple(_best(rows, kinds, awkward, asks.packet)),
        tuple(_kind_words(kinds[k], rows[0]) for k in least),
        is_least,
        tuple(rule),
        tuple(exceptions),
        COUNTED,
        whole,
    )


def _kind_words(kind: tuple[int, str], row: Row) -> str:
    p, reveal = kind
    return f"as in “{row.counts[p].spelled}”, {REVEALS[reveal]}"


def _fewest(reaching: Sequence[frozenset[int]], awkward: Sequence[bool]) -> tuple[tuple[int, ...], bool]:
    """Indices of the smallest set of kinds that reaches all that can be reached, natural ones first; whether it is sure."""
    everyone = frozenset().union(*reaching)
    useful = sorted((k for k in range(len(reaching)) if reaching[k]), key=lambda k: (awkward[k], -len(reaching[k])))
    if len(useful) <= MOST_TRIED:
        for size in range(len(useful) + 1):
            for some in combinations(useful, size):
                if frozenset().union(*(reaching[k] for k in some)) == everyone:
                    return some, True
    taken: list[int] = []
    left = set(everyone)
    while left:
        most = max(useful, key=lambda k: len(reaching[k] & left))
        taken.append(most)
        left -= reaching[most]
    return tuple(taken), False


def _best(
    rows: Sequence[Row], kinds: Sequence[tuple[int, str]], awkward: Sequence[bool], packet: int
) -> Iterator[Coverage]:
    found: dict[int, tuple[set[int], set[int]]] = {}
    for i, row in enumerate(rows):
        for p, reveal in kinds:
            if letters := row.counts[p].letters:
                every, natural = found.setdefault(reached(letters, reveal, packet), (set(), set()))
                every.add(i)
                if not awkward[p]:
                    natural.add(i)
    ranked = sorted(found.items(), key=lambda item: (-len(item[1][0]), -len(item[1][1]), item[0]))
    for position, (every, natural) in ranked[:12]:
        yield Coverage(position, len(every), len(natural))


def _rule(
    rows: Sequence[Row], reaching: Sequence[frozenset[int]], in_order: Sequence[int]
) -> tuple[list[tuple[int, int, Row, int | None]], list[str]]:
    """By number of letters (letters, how many names, one of them, the kind that serves most of them); whom that leaves."""
    groups: dict[int, set[int]] = {}
    for i, row in enumerate(rows):
        groups.setdefault(row.letters, set()).add(i)
    chosen, exceptions = [], []
    for letters, members in sorted(groups.items()):
        best = max(in_order, key=lambda k: len(reaching[k] & members))
        served = reaching[best] & members
        chosen.append((letters, len(members), rows[min(served or members)], best if served else None))
        exceptions += [rows[i].name for i in sorted(members - served)] if served else []
    return chosen, exceptions


ENDS = {LAST: "the last card dealt", NEXT: "the next card", TABLED: "the top card of table"}
_CARDS = frozenset(f"{rank} of {suit}" for suit in SUITS for rank in RANKS)


def _send(name: str, words: str, reveal: str, position: int, packet: int) -> Send:
    card = name if name in _CARDS else "FORCE"
    way = ", a card to the bottom for each letter, the last to table" if reveal == TABLED else ""
    return Send(
        f"{name}, {ordinal(position)}",
        (f"Pack: {packet if reveal == TABLED else 52} cards, any order", f"Place {card} {ordinal(position)}"),
        (f"Spell “{words.translate(dict.fromkeys(map(ord, '“”')))}” from deck{way}",),
        (f"Ends with: {ENDS[reveal]} is {card}",),
    )


def _send_rule(ways: Sequence[tuple[int, tuple[str, str] | None]], position: int) -> Send | None:
    rows: list[str] = []
    for i, (letters, way) in enumerate(ways):
        lines = way and _lines(way[0])
        if not way or not lines or way[1] == TABLED:
            return None
        head = (
            "Otherwise:"
            if 0 < i == len(ways) - 1
            else f"If letters of value of TARGET + letters of suit of TARGET is {letters}:"
        )
        rows += [head, *(f"  {line}" for line in (*lines, f"Ends with: {ENDS[way[1]]} is TARGET"))]
    return Send(
        "The rule for every card", ("Pack: 52 cards, any order", f"Place TARGET {ordinal(position)}"), tuple(rows)
    )


def _lines(template: str) -> tuple[str, ...] | None:
    """Spelled as lines for whatever card lies there; None where a line has no words for it.

    >>> _lines("{article} {value} {suit}")
    ('Spell “the” from deck to table', 'Spell the value and the suit of TARGET from deck to table')
    """
    rest = template.replace("{article}", PACKS["english"].article).replace("{value} {of} {suit}", "{name}")
    for field, what in (
        ("{name}", "the name"),
        ("{value} {suit}", "the value and the suit"),
        ("{value}", "the value"),
    ):
        before, there, after = rest.partition(field)
        if there and "{" not in before + after:
            words = f"{before}{after}".strip()
            spelled_out = (f"Spell “{words}” from deck to table",) if letters_in(words) else ()
            return (*spelled_out, f"Spell {what} of TARGET from deck to table")
    return None


def tables(found: SpellingAnswers) -> list[Table]:
    matrix = Table(
        "letters",
        ("name", "letters", *(p.template for p in found.phrasings)),
        tuple((row.name, row.letters, *(count.letters for count in row.counts)) for row in found.rows),
    )
    scripts = Table(
        "scripts",
        ("name", "spell", "letters", "then", "position", "awkward"),
        tuple(
            (s.name, s.spelled, s.letters, REVEALS[s.reveal], s.position, "awkward" if s.awkward else "")
            for s in found.scripts
        )
        + tuple((name, "keep out", "", "", "", "") for name in found.unreached),
    )
    best = Table(
        "positions",
        ("position", "reached", "without awkward ones"),
        tuple((c.position, c.reached, c.natural) for c in found.best),
    )
    rule = Table(
        "rule",
        ("letters", "names", "such as", "script"),
        tuple((r.letters, r.names, r.example, r.script or "keep out") for r in found.rule),
    )
    return [scripts, matrix, best, rule]


def to_learn(asks: SpellingAsks, found: SpellingAnswers) -> Iterator[DrillQuestion]:
    """Name by name what is spelled and which card it is; what would do as well is not offered as a wrong answer."""
    used = sorted({(script.phrasing, script.reveal) for script in found.scripts})
    rows = {row.name: row for row in found.rows}
    scripts = {script.name: script for script in found.scripts}
    for name, row in rows.items():
        if name not in scripts and name not in found.unreached:
            continue
        options = [
            _said(row.counts[p].spelled, reveal)
            for p, reveal in used
            if row.counts[p].letters and reached(row.counts[p].letters, reveal, asks.packet) not in asks.wanted
        ]
        if script := scripts.get(name):
            answer, rule = (
                _said(script.spelled, script.reveal),
                f"{counted(script.letters, 'letter')}, {REVEALS[script.reveal]}: the {ordinal(script.position)}",
            )
        else:
            answer, rule = KEPT_OUT, "no phrasing reaches it"
        if found.unreached or not options:
            options.append(KEPT_OUT)
        yield DrillQuestion(
            f"spell {name}",
            name,
            "What do you spell, and which card is it?",
            answer,
            tuple(sorted({*options[-MOST_OTHERS:], answer})),
            rule,
        )


KEPT_OUT = "it is kept out"
MOST_OTHERS = 7
"""wrong answers beside the right one, so that a key each is enough"""


def _said(words: str, reveal: str) -> str:
    return f"“{words}”, {REVEALS[reveal]}"


SPELLING = desk(
    Desk(
        "spell",
        "Spellings",
        "What names spell to, which of them a position reaches, and how to say each.",
        SpellingAsks,
        SpellingAnswers,
        answer,
        tables,
        to_learn=to_learn,
    )
)
