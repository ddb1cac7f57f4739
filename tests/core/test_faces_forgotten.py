"""What is forgotten of faces changes no answer: with everything kept, with all that may be forgotten, and by the reference.

RANDOM_ROUTINES=n tries n routines that were not tried before.
"""

from __future__ import annotations

import os
import random
from collections import Counter
from fractions import Fraction
from itertools import islice

import pytest

from golden_pivot.core.answers.odds import odds_of
from golden_pivot.core.answers.proving import prove
from golden_pivot.core.answers.regions import choices_of
from golden_pivot.core.answers.verdicts import PROVED, REFUTED, WHETHER
from golden_pivot.core.budget import Budget
from golden_pivot.core.building import REPLAY, compile_routine
from golden_pivot.core.faults import BadRoutine
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.language.printer import routine_json
from golden_pivot.core.language.routine import Routine
from golden_pivot.core.search.explorer import explore
from golden_pivot.core.search.program import FAILED
from golden_pivot.witness import Path, each_path
from tests.strategies.face_routines import face_routine

MOST_PATHS = 5400
"""more are left to other seeds: the reference goes through them one by one"""
BLOCK = 20
FIRST = random.randrange(10**9) if "RANDOM_ROUTINES" in os.environ else 0
MANY = int(os.environ.get("RANDOM_ROUTINES", "100"))


def disagreement(text: str) -> str | None:
    """What the prover says otherwise than the reference; None where they agree, or paths are too many."""
    routine = read_routine(text)
    assert not routine.faults, (text, routine.faults)
    paths = list(islice(each_path(routine_json(routine)), MOST_PATHS + 1))
    if len(paths) > MOST_PATHS:
        return None
    unknown = any(path.table.unknown for path in paths)
    steps = [line for line in routine.walk() if line.kind]
    ends = [n for n, line in enumerate(steps) if line.kind and line.kind.name.startswith("ends_")]
    reached = {n: sum(n in path.table.reached and not path.stuck for path in paths) for n in ends}
    try:
        found = prove(routine, asked=WHETHER)
    except BadRoutine as bad:
        return _refused(text, bad, paths, unknown, reached)
    if unknown:
        return "it lets the performer use what nobody has told"
    failing = sum(path.fails for path in paths)
    said = (found.verdict, found.paths, found.failing_paths, [claim.reached for claim in found.claims])
    right = (REFUTED if failing else PROVED, len(paths), failing, list(reached.values()))
    # Of so many steps no count is kept of what is left of the pack: more paths are covered than there are.
    if found.paths is None:
        return None if found.verdict == right[0] else f"{said[0]} instead of {right[0]}"
    if said != right:
        return f"{said} instead of {right}"
    return _otherwise(routine, paths)


def _refused(text: str, bad: BadRoutine, paths: list[Path], unknown: bool, reached: dict[int, int]) -> str | None:
    message = bad.faults[0].message
    if message.startswith("You do not know"):
        # A line that no path comes to is refused as well: in a case, or behind where all get stuck.
        never_there = "\n  " in text or any(path.stuck for path in paths)
        return None if unknown or never_there else f"{message} But the performer does, on every path"
    if message.startswith("No path comes to this claim"):
        return None if not any(reached.values()) and not any(path.stuck for path in paths) else message
    return None if all(path.stuck or path.table.again for path in paths) else message


def _otherwise(routine: Routine, paths: list[Path]) -> str | None:
    """Everything kept; where it holds; where the card lies; how often it comes out as what."""
    kept = explore(compile_routine(routine, REPLAY), Budget())
    failing = sum(w for state, w in kept.ends.items() if state[FAILED]) + sum(kept.stuck.values())
    counts = (sum(kept.ends.values()) + sum(kept.stuck.values()), failing)
    if counts != (len(paths), sum(path.fails for path in paths)):
        return f"with every card kept: {counts}"
    region = choices_of(routine, Budget())
    if region and (region.count.paths, region.count.failing) != counts:
        return f"where it holds: {region.count}"
    landing = prove(routine, asked=WHETHER).landing
    if landing and not any(path.stuck for path in paths):
        ends: Counter[tuple[str, int]] = Counter()
        for path in paths:
            followed = path.table.named.get(landing.card)
            ends.update((name, at) for name, heap in path.table.heaps.items()
                        for at, card in enumerate(heap, start=1) if card is followed)  # fmt: skip
        if {(w.place, w.position): w.paths for w in landing.where} != dict(ends):
            return f"the card lies {landing.where} instead of {ends}"
    if any(line.kind and line.kind.is_question for line in routine.walk()):
        chances: Counter[str] = Counter()
        for path in paths:
            if path.table.odds and not path.stuck:
                chances[str(path.table.odds[0])] += path.chance  # type: ignore[assignment]
        if any(path.fails for path in paths):
            chances["fails"] = sum((path.chance for path in paths if path.fails), Fraction(0))  # type: ignore[assignment]
            chances["works"] = 1 - chances["fails"]
        ours = {c.outcome: (c.least, c.most) for c in odds_of(routine, Budget()).chances}
        ours = {outcome: chance for outcome, chance in ours.items() if not outcome.startswith("line ")}
        if ours != {outcome: (Fraction(chance), Fraction(chance)) for outcome, chance in chances.items()}:
            return f"odds {ours} instead of {dict(chances)}"
    return None


@pytest.mark.parametrize("begin", range(0, MANY, BLOCK))
def test_what_is_forgotten_of_faces_changes_nothing(begin: int) -> None:
    for seed in range(FIRST + begin, FIRST + begin + BLOCK):
        text = face_routine(seed)
        wrong = disagreement(text)
        assert wrong is None, f"seed {seed}: {wrong}\n{text}"


TOP = "the top card of deck"
SEEN_BY_SOMEBODY = [
    f"{TOP} is red", f"value of {TOP} is 11", f"value of {TOP} is odd and suit of {TOP} is at most 3", "0 cards of deck are black",
    "every card of deck is red", "number of red cards of deck is 1", f"{TOP} and the bottom card of deck have the same suit",
    "the cards of deck alternate in colour", "deck has no two cards of the same value",
]  # fmt: skip


KNOWN = "spades, diamonds, each from ten to jack"
LYING = [(KNOWN, asked) for asked in SEEN_BY_SOMEBODY] + [
    ("4 cards, any order", asked) for asked in SEEN_BY_SOMEBODY[:2]
]


@pytest.mark.parametrize("before", ["", f"Make sure that {TOP} is red\n", "Make sure that 2 cards of deck are red\n"])
@pytest.mark.parametrize(("pack", "asked"), LYING)
def test_a_card_that_lies_face_down_is_not_seen_although_it_is_known(pack: str, asked: str, before: str) -> None:
    """Nor although something has been claimed of it before."""
    text = (
        f"Pack: {pack}\nSpectator names a number n from 0 to 2\nTurn over the top n cards of deck as a block\n"
        f"Spectator cuts deck and completes the cut\nDeal 2 cards from deck to table\n{before}"
        f"If {asked}:\n  Deal 1 card from deck to hand\nEnds with: size of hand is 0\n"
    )
    if pack != KNOWN and "2 cards of deck" in before:
        return  # more paths than the reference goes through
    stuck = sum(path.stuck for path in each_path(routine_json(read_routine(text))))
    assert stuck and disagreement(text) is None
