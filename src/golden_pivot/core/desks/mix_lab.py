"""The mix lab: what a chain of mixes does to a packet, and the shortest chain that does something wanted.

A mix is a short name for some lines of the routine language, or those lines themselves: what a mix does is found by
playing them with every card its own, so that the bench and this desk cannot disagree.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache
from math import factorial

from ..answers.plays import play_path
from ..budget import Budget
from ..cards import TOKEN
from ..english import counted
from ..faults import BadRoutine
from ..language.parser import read_routine
from ..search.replay import Play
from .chains import Found, Unfound, moved_to, shortest_chain
from .desk import Desk, Send, Table, Trouble, asked, desk, within
from .permutations import Arrangement, cycles, identity, inverse, is_even, kept, order, stock

MOST_LINES, MOST_PATHS = 40, 720
FEWEST_CARDS, MOST_CARDS = 2, 104
MOST_RECKONED = 64
"""cards up to which the size of any group is reckoned"""


@dataclass(frozen=True)
class Mix:
    """A mix by its short name. `n` in the name is a number; `lines` gives its sentences for (cards, n)."""

    name: str
    lines: Callable[[int, int], tuple[str, ...]]
    needs: Callable[[int, int], str | None] = lambda cards, n: None
    """what is the matter with so many cards, as a sentence; None where it can be done"""


BACK = "Put table on deck"


def _counted(cards: int, n: int) -> str | None:
    return None if 0 <= n <= cards else f"{n} cards cannot be counted off {cards}."


def _halves(cards: int, n: int) -> str | None:
    return None if cards % 2 == 0 else f"{cards} cards have no exact half."


def _count_down(cards: int, n: int) -> tuple[str, ...]:
    return (f"Deal {counted(n, 'card')} from deck to table", "Put deck on table", "Put table on deck")


def _cut(cards: int, n: int) -> tuple[str, ...]:
    return (f"Cut off {counted(n, 'card')} of deck to table", "Put deck on table", "Put table on deck")


def _piles(way: str) -> Callable[[int, int], tuple[str, ...]]:
    return lambda cards, n: (f"Deal deck into {n} piles", f"Gather the piles from {way}, each on the last")


def _some_piles(cards: int, n: int) -> str | None:
    return None if 2 <= n <= min(cards, 12) else f"{cards} cards are not dealt into {n} piles."


MIXES: tuple[Mix, ...] = (
    Mix("Out faro", lambda cards, n: ("Give deck an out faro",)),
    Mix("In faro", lambda cards, n: ("Give deck an in faro",)),
    Mix("Every second card out, the first ones on top",
        lambda cards, n: ("Push every second card out of deck and put the first ones on top",)),
    Mix("Every second card out, the second ones on top",
        lambda cards, n: ("Push every second card out of deck and put the second ones on top",)),
    Mix("Klondike, top card on", lambda cards, n: (
        "Draw the top and bottom cards of deck together onto table, the top card on", BACK)),
    Mix("Klondike, bottom card on", lambda cards, n: (
        "Draw the top and bottom cards of deck together onto table, the bottom card on", BACK)),
    Mix("Deal into n piles, right on left", _piles("left to right"), _some_piles),
    Mix("Deal into n piles, left on right", _piles("right to left"), _some_piles),
    Mix("Count n down, the rest on top", _count_down, _counted),
    Mix("Count half down, the rest on top", lambda cards, n: _count_down(cards, cards // 2), _halves),
    Mix("Deal all down", lambda cards, n: (f"Deal {cards} cards from deck to table", BACK)),
    Mix("Cut n", _cut, _counted),
    Mix("Cut in half", lambda cards, n: _cut(cards, cards // 2), _halves),
    Mix("Deal down and under", lambda cards, n: ("Deal deck down and under to table", BACK)),
    Mix("Deal under and down", lambda cards, n: ("Deal deck under and down to table", BACK)),
)  # fmt: skip
"""Names as they are written at the desk; an n stands for a number."""


@dataclass(frozen=True)
class MixAsks:
    cards: int = asked(24, "cards: how many the packet has")
    chain: list[str] = asked(
        ["Klondike, top card on", "Deal into 3 piles, right on left", "Cut in half"],
        "chain: mixes by name, or lines of a routine that bring all cards back to one heap",
    )
    moves: list[str] = asked([], "moves: mixes by name from which the shortest chain is searched; none: no search")
    wanted: str = asked("identity", "wanted effect: identity, reversal, “5 to 18”, or “5 and 18 together”")
    longest: int = asked(10, "longest chain that is searched for")
    group: bool = asked(False, "whether to reckon how many orders the moves can make, in any chain")


@dataclass(frozen=True)
class Way:
    """The chain on one path, where a line leaves a choice."""

    choices: str
    kept: tuple[str, ...]
    """what is kept of the order"""
    places: tuple[int, ...]
    """for each old position, from the top, the new one; positions from 1"""


@dataclass(frozen=True)
class Search:
    chain: tuple[str, ...] | None
    """None: there is none of at most `tried` mixes"""
    tried: int
    is_complete: bool
    """every chain of at most `tried` mixes was covered, as asked"""
    seen: int
    """orders that were come to"""


@dataclass(frozen=True)
class Group:
    size: str | None
    """how many orders the moves can make, as a whole number; None: not reckoned"""
    about: str


@dataclass(frozen=True)
class MixAnswers:
    cards: int
    places: tuple[int, ...]
    """for each old position, from the top, the new one; positions from 1"""
    cycles: tuple[tuple[int, ...], ...]
    order: int
    fixed: tuple[int, ...]
    even: bool
    top_stock: int
    bottom_stock: int
    kept: tuple[str, ...]
    ways: tuple[Way, ...]
    """where the chain leaves choices, every path; what all of them keep is in `always`"""
    always: tuple[str, ...]
    turned: int
    """cards that lie the other way up at the end"""
    search: Search | None
    group: Group | None
    names: tuple[str, ...]
    """mixes by name, for the palette"""
    send: Send | None


def lines_of_mix(written: str, cards: int, field: str = "chain") -> tuple[str, ...] | None:
    """The sentences of a mix given by name; None where the words are no name of one. Raises Trouble."""
    words = " ".join(written.split()).rstrip(".")
    for mix in MIXES:
        pattern = re.escape(mix.name).replace(r"\ n\ ", r"\ (\d+)\ ").replace(r"Cut\ n", r"Cut\ (\d+)")
        if found := re.fullmatch(pattern, words, re.IGNORECASE):
            n = int(found[1]) if found.lastindex else 0
            if trouble := mix.needs(cards, n):
                raise Trouble(field, f"“{words}”: {trouble}", "Change the number, or how many cards there are.")
            return mix.lines(cards, n)
    return None


def _routine(chain: Sequence[str], cards: int, field: str) -> list[str]:
    """The lines of a chain, for a routine that has its pack."""
    rows: list[str] = []
    for written in chain:
        if written.strip():
            rows += lines_of_mix(written, cards, field) or (written,)
    if len(rows) > 10 * MOST_LINES:
        raise Trouble(field, f"A chain of {len(rows)} lines is too long.", f"Keep to {MOST_LINES} mixes.")
    return rows


def _plays(chain: Sequence[str], cards: int, field: str, budget: Budget) -> Iterator[Play]:
    """Every path of the chain. Raises Trouble where it cannot be carried out."""
    text = "\n".join([f"Pack: {cards} cards, any order", "Place MARK on top", *_routine(chain, cards, field)]) + "\n"
    routine = read_routine(text)
    names = ", ".join(mix.name for mix in MIXES[:3])
    if routine.faults:
        fault = routine.faults[0]
        raise Trouble(
            field, f"“{text.splitlines()[fault.line - 1].strip()}”: {fault.message}",
            f"Write a mix by its name ({names} …), or a line as on the sheet.",
        )  # fmt: skip
    paths: list[tuple[int, ...]] = [()]
    many = 0
    while paths:
        path = paths.pop()
        budget.look(many, 0)
        try:
            played = play_path(routine, path, by_index=True)
        except BadRoutine as bad:
            raise Trouble(field, str(bad.faults[0].message), bad.faults[0].remedy) from None
        if played.faults:
            raise Trouble(field, played.faults[0].message, played.faults[0].remedy)
        if played.stuck_at is not None:
            raise Trouble(
                field, f"“{text.splitlines()[played.stuck_at - 1].strip()}” cannot be done: {played.failures[-1]}.",
                "Change it, or how many cards there are.",
            )  # fmt: skip
        many += 1
        if many > MOST_PATHS:
            raise Trouble(field, f"The chain leaves more than {MOST_PATHS} ways open.", "Settle some of its choices.")
        for at in range(len(played.decisions) - 1, len(path) - 1, -1):
            chosen = path + (0,) * (at - len(path))
            paths += [(*chosen, other) for other in range(len(played.decisions[at].options) - 1, 0, -1)]
        yield played


def _arranged(played: Play, cards: int, field: str) -> tuple[Arrangement, int]:
    """(the arrangement at the end, how many cards were turned the other way up)."""
    program = played.program

    def heaps(frame: int) -> list[bytes]:
        return [v for cell, v in zip(program.cells, played.frames[frame].state, strict=False) if cell.is_place and v]

    (before,), behind = heaps(0), heaps(-1)
    if len(behind) != 1:
        raise Trouble(
            field, "At the end the cards lie in more than one heap.", "Put them together, as in “Put table on deck”."
        )
    index = {card & TOKEN: i for i, card in enumerate(before)}
    now = behind[0]
    up = {card & TOKEN: card & ~TOKEN for card in before}
    return bytes(index[card & TOKEN] for card in now), sum(up[card & TOKEN] != card & ~TOKEN for card in now)


@lru_cache(2_000)
def arrangement_of(written: str, cards: int) -> Arrangement:
    """What one mix without choices does. Raises Trouble."""
    lines = written.split("\n")
    found = [_arranged(played, cards, "moves")[0] for played in _plays(lines, cards, "moves", Budget())]
    if len(set(found)) > 1:
        raise Trouble("moves", f"“{written}” leaves something open.", "Settle it, to search with it.")
    return found[0]


def answer(asks: MixAsks, budget: Budget) -> MixAnswers:
    within(asks, cards=(FEWEST_CARDS, MOST_CARDS), longest=(1, 24))
    chain = [written for written in asks.chain if written.strip()]
    plays = list(_plays(chain, asks.cards, "chain", budget))
    arranged = [_arranged(played, asks.cards, "chain") for played in plays]
    first, turned = arranged[0]
    ways = [
        Way(", ".join(filter(None, (one.clause for one in played.decisions))), kept(a), _places(a))
        for played, (a, _) in zip(plays, arranged, strict=True)
    ]
    always = tuple(words for words in ways[0].kept if all(words in way.kept for way in ways))
    moves = list(dict.fromkeys(" ".join(move.split()) for move in asks.moves if move.strip()))
    if len(moves) > 12:
        raise Trouble("moves", f"{len(moves)} mixes are too many to search with.", "Keep at most 12.")
    found_cycles = cycles(first)
    top, bottom = stock(first)
    is_old = all(a == identity(asks.cards) for a, _ in arranged)
    return MixAnswers(
        asks.cards,
        _places(first),
        tuple(found_cycles),
        order(first),
        tuple(cycle[0] for cycle in found_cycles if len(cycle) == 1),
        is_even(first),
        top,
        bottom,
        kept(first)[:1] if first == identity(asks.cards) else kept(first),
        tuple(ways) if len(ways) > 1 else (),
        always,
        turned,
        _search(asks, moves, budget) if moves else None,
        _group(moves, asks.cards, budget) if asks.group and moves else None,
        tuple(mix.name for mix in MIXES),
        _send(chain, asks.cards, is_old) if chain else None,
    )


def _places(arrangement: Arrangement) -> tuple[int, ...]:
    return tuple(to + 1 for to in inverse(arrangement))


def _search(asks: MixAsks, moves: Sequence[str], budget: Budget) -> Search:
    mixes = {move: arrangement_of(move, asks.cards) for move in moves}
    words = " ".join(asks.wanted.lower().split())
    n = asks.cards
    single = re.fullmatch(r"(\d+) (?:to|→) (\d+)", words)
    pair = re.fullmatch(r"(\d+) and (\d+) together", words)
    for position in map(int, (single or pair).groups() if single or pair else ()):  # type: ignore[union-attr]
        if not 1 <= position <= n:
            raise Trouble(
                "wanted", f"There is no position {position} among {n} cards.", f"Take positions from 1 to {n}."
            )
    result: Found | Unfound
    if words in ("identity", "reversal"):
        goal = identity(n) if words == "identity" else identity(n)[::-1]
        result = shortest_chain(mixes, goal, asks.longest, budget)
    elif single:
        p, q = (int(position) - 1 for position in single.groups())
        result = moved_to(mixes, (p,), lambda at: at[0] == q, asks.longest, budget)
    elif pair:
        p, q = (int(position) - 1 for position in pair.groups())
        if p == q:
            raise Trouble("wanted", "One card is not two.", "Take two positions.")
        result = moved_to(mixes, (p, q), lambda at: abs(at[0] - at[1]) == 1, asks.longest, budget)
    else:
        raise Trouble(
            "wanted", f"“{asks.wanted}” is no effect that is known here.",
            "Write identity, reversal, two positions as in “5 to 18”, or “5 and 18 together”.",
        )  # fmt: skip
    if isinstance(result, Found):
        return Search(result.chain, len(result.chain), True, result.seen)
    return Search(None, result.tried, result.tried == asks.longest, result.seen)


def _group(moves: Sequence[str], cards: int, budget: Budget) -> Group:
    """The orders that chains of these mixes can make, by the algorithm of Schreier and Sims (SymPy)."""
    from sympy.combinatorics import Permutation, PermutationGroup

    budget.progress("reckoning how many orders there are")
    budget.look(0, 0)
    every = factorial(cards)
    found = PermutationGroup([Permutation(list(arrangement_of(move, cards))) for move in moves])
    # That a group is one of the two largest shows at once, while reckoning its size can take minutes.
    if found.is_alt_sym():
        all_even = all(is_even(arrangement_of(move, cards)) for move in moves)
        size = every // 2 if all_even else every
    elif cards > MOST_RECKONED:
        return Group(None, f"not reckoned for more than {MOST_RECKONED} cards")
    else:
        size = int(found.order())
    if size == every:
        about = "every order there is"
    elif 2 * size == every:
        about = "half of all orders: every one that an even number of exchanges makes"
    else:
        about = f"1 order in {every // size:,}" if every // size < 10**9 else "a vanishing part of all orders"
    return Group(f"{size:,}", about)


def _send(chain: Sequence[str], cards: int, is_old: bool) -> Send:
    rows = _routine(chain, cards, "chain")
    return Send(
        f"these {len(chain)} mixes",
        (f"Pack: {cards} cards, any order",),
        (*(("Note the order of deck",) if is_old else ()), *rows),
        ("Ends with: deck is in the order noted",) if is_old else (),
    )


def tables(found: MixAnswers) -> list[Table]:
    places = Table("places", ("from", "to"), tuple((i, to) for i, to in enumerate(found.places, start=1)))
    facts: list[tuple[str, str | int]] = [
        ("order", found.order),
        ("cycles", " ".join(f"({' '.join(map(str, cycle))})" for cycle in found.cycles)),
        ("fixed positions", ", ".join(map(str, found.fixed))),
        ("even or odd", "even" if found.even else "odd"),
        ("top stock", found.top_stock),
        ("bottom stock", found.bottom_stock),
        *(("keeps", words) for words in found.kept),
    ]
    if found.search:
        told = " → ".join(found.search.chain) if found.search.chain else f"none of up to {found.search.tried} mixes"
        facts.append(("shortest chain", told))
    if found.group:
        facts.append(("orders that can be made", ": ".join(filter(None, (found.group.size, found.group.about)))))
    more = Table("ways", ("choices", "keeps"), tuple((way.choices, "; ".join(way.kept)) for way in found.ways))
    return [Table("mix", ("what", "it is"), tuple(facts)), places, *((more,) if found.ways else ())]


MIX = desk(
    Desk(
        "mix",
        "Mix lab",
        "What a chain of mixes does to a packet, and the shortest chain for an effect.",
        MixAsks,
        MixAnswers,
        answer,
        tables,
        is_long=True,
        at_leisure={"chain": []},
        exit_code=lambda found: (
            0 if found.search is None or found.search.chain else 1 if found.search.is_complete else 3
        ),
    )
)
