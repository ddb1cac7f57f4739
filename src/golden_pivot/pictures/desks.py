"""One picture for each desk."""

from __future__ import annotations

from collections.abc import Sequence

from ..core.cards import RANKS
from ..core.desks.mix_lab import MixAnswers
from ..core.desks.narrowing import KEEP, NarrowingAnswers
from ..core.desks.odds_desk import OddsAnswers
from ..core.desks.pickup import PickupAnswers
from ..core.desks.spelling import SpellingAnswers
from ..core.desks.stacks import StackAnswers
from ..core.english import ordinal
from .drawing import Drawing

MOST_BARS = 40


def coverage(found: SpellingAnswers) -> str:
    """How many names each position reaches; the wanted ones in gold, what needs an awkward phrasing only outlined."""
    d = Drawing("How many of the names each position reaches")
    bars = sorted(found.best, key=lambda one: one.position)
    wanted = {script.position for script in found.scripts}
    many = len(found.rows)
    high, left, step = 150, 40, 44
    d.line(left - 8, 20 + high, left + step * len(bars), 20 + high, "slate")
    for i, one in enumerate(bars):
        x, tall = left + i * step, high * one.reached / many
        plain = high * one.natural / many
        d.rect(x, 20 + high - tall, 26, tall, "page", "slate")
        d.rect(x, 20 + high - plain, 26, plain, "gold" if one.position in wanted else "slate")
        d.text(x + 13, 14 + high - tall, str(one.reached), size=12, anchor="middle")
        d.text(x + 13, 38 + high, ordinal(one.position), "slate", 12, "middle", one.position in wanted)
    d.text(
        left - 8,
        62 + high,
        f"names of {many} that come to the position; outlined: in an awkward phrasing only",
        "slate",
        12,
    )
    return d.svg(max(left + step * len(bars) + 10, 480), 74 + high)


def pile_slots(found: PickupAnswers) -> str | None:
    """Round by round the piles from top to bottom with the told one in gold, and where the card lies at the end."""
    way = found.ways[0] if found.ways else found.nearly[0] if found.nearly else found.answered
    if way is None:
        return None
    cards, piles = found.cards, found.piles
    d = Drawing(f"The told pile {', then '.join(way.words)}: the card lands {' or '.join(map(ordinal, way.lands))}")
    step, high = 150, 24
    for i, (slot, words) in enumerate(zip(way.slots, way.words, strict=True)):
        x = 20 + i * step
        d.text(x, 22, f"Round {i + 1}", bold=True)
        for pile in range(1, piles + 1):
            told = pile == slot
            d.rect(x, 32 + (pile - 1) * (high + 4), 92, high, "gold" if told else "gold-wash", "card-edge", 4)
            if told:
                d.text(x + 46, 49 + (pile - 1) * (high + 4), "their pile", "ink", 12, "middle", True, True)
        d.text(x, 50 + piles * (high + 4), words, "slate")
    x, tall = 20 + len(way.slots) * step, max(piles * (high + 4), 110)
    d.text(x, 22, "At the end", bold=True)
    for position in range(1, cards + 1):
        y = 34 + tall * (position - 1) / cards
        sure = position in way.lands
        d.rect(x, y, 70, max(1.2, tall / cards - 1), "gold" if sure else "edge")
    middle = sum(way.lands) / len(way.lands)
    where = " or ".join(map(ordinal, way.lands)) if len(way.lands) <= 3 else f"{len(way.lands)} places"
    d.text(x + 78, 38 + tall * (middle - 0.5) / cards, where, bold=True)
    return d.svg(x + 180, 66 + max(piles * (high + 4), tall))


def _card(d: Drawing, x: float, y: float, name: str, position: int) -> None:
    rank, _, suit = name.partition(" of ")
    d.rect(x, y, 42, 56, "card-face", "card-edge", 4)
    index = {"ace": "A", "jack": "J", "queen": "Q", "king": "K", "joker": "★"}.get(rank) or str(RANKS.index(rank) + 1)
    if suit:
        d.text(x + 6, y + 20, index, "red" if suit in ("hearts", "diamonds") else "ink", 16, bold=True, fixed=True)
        d.mark(suit, x + 13, y + 26, 17)
    else:
        d.text(x + 21, y + 34, index, "ink", 20, "middle", fixed=True)
    d.text(x + 21, y + 70, str(position), "slate", 11, "middle")


def stack(found: StackAnswers) -> str | None:
    """The first arrangement, card by card from the top, thirteen a row."""
    if not found.arrangements:
        return None
    cards = found.arrangements[0]
    d = Drawing(f"The stack from the top: {', '.join(cards)}")
    for i, name in enumerate(cards):
        _card(d, 10 + i % 13 * 48, 10 + i // 13 * 80, name, i + 1)
    return d.svg(20 + min(13, len(cards)) * 48, 18 + -(-len(cards) // 13) * 80)


def permutation(found: MixAnswers) -> str:
    """Positions before on the left, after on the right, a thread for each card; those that stay are gold."""
    n = found.cards
    d = Drawing(f"Where each of {n} positions goes")
    gap = max(5.0, min(16.0, 460 / n))
    every = 1 if gap >= 12 else 5
    d.text(44, 16, "before", "slate", 12, "end")
    d.text(346, 16, "after", "slate", 12)
    for old, new in enumerate(found.places, start=1):
        y1, y2 = 28 + (old - 1) * gap, 28 + (new - 1) * gap
        stays = old == new
        d.path(
            f"M44 {y1:.1f}C150 {y1:.1f} 230 {y2:.1f} 336 {y2:.1f}", "gold" if stays else "slate", 2 if stays else 1
        )
        if old == 1 or old % every == 0:
            d.text(36, y1 + 4, str(old), "slate", 11, "end")
            d.text(344, 28 + (old - 1) * gap + 4, str(old), "slate", 11)
    return d.svg(380, 40 + n * gap)


def narrowing_tree(found: NarrowingAnswers) -> str:
    """From the left: how many are left and how many to point at; solid where the pointed ones stay, dashed where they go."""
    d = Drawing("What is left after every pointing")
    depth: list[int] = []
    row_of: list[float] = []
    rows = 0
    children: dict[int, list[int]] = {}
    for i, node in enumerate(found.tree):
        depth.append(0 if node.parent is None else depth[node.parent] + 1)
        if node.parent is not None:
            children.setdefault(node.parent, []).append(i)
    for i in range(len(found.tree)):
        row_of.append(-1)
        if i not in children:
            row_of[i] = rows
            rows += 1
    for i in reversed(range(len(found.tree))):
        if i in children:
            row_of[i] = sum(row_of[child] for child in children[i]) / len(children[i])
    step, high = 158, 34

    def at(i: int) -> tuple[float, float]:
        return 14 + depth[i] * step, 22 + row_of[i] * high

    for i, node in enumerate(found.tree):
        x, y = at(i)
        if node.parent is not None:
            px, py = at(node.parent)
            keeps = node.branch == KEEP
            d.path(
                f"M{px + 96:.1f} {py:.1f}C{px + 126:.1f} {py:.1f} {x - 30:.1f} {y:.1f} {x:.1f} {y:.1f}",
                "ink" if keeps else "slate",
                1.6 if keeps else 1,
            )
            d.text(
                x - 6, y + (13 if y > py else -6), "stay" if keeps else "go", "ink" if keeps else "slate", 10.5, "end"
            )
        words = f"{node.left} left, point {node.point}" if node.point else f"one left · {node.share_text}"
        d.rect(
            x,
            y - 12,
            96 if node.point else 106,
            24,
            "page" if node.point else "gold-wash",
            "slate" if node.point else "gold",
            5,
        )
        d.text(x + 6, y + 4, words, size=11.5)
    return d.svg(130 + (max(depth) + 1) * step - 20, 24 + rows * high)


def _short(words: str, most: int = 46) -> str:
    return words if len(words) <= most else f"{words[: most - 1]}…"


def chances(found: OddsAnswers) -> str | None:
    """A bar for each outcome; where paths were drawn at random it ends in the interval."""
    if not found.distributions:
        return None
    d = Drawing("How often each outcome comes")
    y = 8.0
    for one in found.distributions:
        y += 18
        d.text(12, y, one.about + (f", on average {one.mean}" if one.mean else ""), bold=True)
        shown: Sequence[int] = range(min(len(one.outcomes), MOST_BARS))
        top = max(outcome.most for outcome in one.outcomes) or 1
        for i in shown:
            outcome = one.outcomes[i]
            y += 22
            d.text(
                312,
                y,
                _short(outcome.outcome),
                "slate",
                12,
                "end",
            )
            d.rect(320, y - 11, 260 * outcome.least / top, 14, "gold")
            if outcome.most > outcome.least:
                low, high = 320 + 260 * outcome.least / top, 320 + 260 * outcome.most / top
                d.line(low, y - 4, high, y - 4, "ink", 1.6)
                d.line(high, y - 9, high, y + 1, "ink", 1.6)
            d.text(326 + 260 * outcome.most / top, y, outcome.text, size=12)
        y += 12
    return d.svg(700, y + 10)
