"""Rules sought as formulas: they say what keeping all that is told says, and the reference finds them true on every path."""

from __future__ import annotations

from collections import Counter

import pytest

from golden_pivot.core.answers import all_paths
from golden_pivot.core.answers.proving import prove
from golden_pivot.core.answers.verdicts import LOST, REFUTED, RULE, Asked
from golden_pivot.core.budget import Budget
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.language.printer import routine_json
from golden_pivot.core.show.cues import _rule
from golden_pivot.core.variants.slips import HARMLESS, SOME, fragility_of
from golden_pivot.witness import every_path

TWO = "Pack: 20 cards, any order\nPlace A 20th\nSpectator names a number n from 1 to 5\nSpectator names a number m from n to 6\n"
FIVE = "Pack: 20 cards\nPlace A 20th\n" + "".join(
    f"Spectator names a number {name} from 1 to 3\nDeal {name} cards from deck to table\n" for name in "abcde"
)
RARE = (
    "Pack: 20 cards\nPlace A 20th\nSpectator names a number n from 1 to 400\nSpectator names a number m from 1 to 6\n"
    "If n is 399:\n  End here\nDeal m cards from deck to table\n"
)
"""few paths drawn at random, if any, end before the card is dealt to"""


@pytest.fixture
def at_once(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(all_paths, "FEW_TRANSITIONS", 0)


@pytest.mark.parametrize(
    ("text", "formula"),
    [
        (f"{TWO}Deal n cards from deck to table\nDeal m cards from deck to hand\n", "20 − n − m"),
        (f"{TWO}Deal half of n rounded up cards from deck to table\nSpectator cuts off m cards of deck to hand\n", "20 − m − ⌈n/2⌉"),
        (f"{TWO}Deal quotient of n divided by 3 cards from deck to table\nDeal m cards from deck to hand\n", "20 − m − ⌊n/3⌋"),
        (f"{TWO}Deal n * m cards from deck to table\nDeal m cards from deck to table\n", None),
        (f"{TWO}Deal n cards from deck to table\nSpectator cuts deck and completes the cut\nDeal m cards from deck to table\n", None),
        (f"{TWO}If n is 3:\n  Put deck on table\nDeal m cards from deck to hand\nDeal n cards from deck to hand\n", None),
        (RARE, None),
        (FIVE, "20 − a − b − c − d − e"),
        (FIVE.replace("Deal d cards", "Deal 4 cards"), "16 − a − b − c − e"),
    ],
)  # fmt: skip
def test_a_rule_is_found_without_keeping_what_was_told(text: str, formula: str | None, at_once: None) -> None:
    routine = read_routine(text)
    found, whole = prove(routine), prove(routine, asked=Asked(told=()))
    assert (found.verdict, found.paths, found.told) == (whole.verdict, whole.paths, whole.told)
    assert found.landing and whole.landing and set(found.landing.where) == set(whole.landing.where)
    if formula is None:
        assert found.landing.claim is None and found.whereabouts == whole.whereabouts
        return
    assert (found.verdict, found.landing.formula, found.landing.known) == (RULE, formula, whole.landing.known)
    assert found.landing.claim and not found.whereabouts and not found.landing.every_row
    assert {(row.known, row.position) for row in found.landing.table} <= {
        (known, at) for known, where in whole.whereabouts.items() for _, at in where
    }
    assert not list(_rule(found))  # a cue sheet has no part of a table as if it were all
    # The reference, going every path with the rule as a claim.
    paths = list(every_path(routine_json(read_routine(f"{text}{found.landing.claim}\n"))))
    assert not any(path.fails for path in paths)
    ends = Counter(
        (name, at) for path in paths for name, heap in path.table.heaps.items() for at, card in enumerate(heap, 1)
        if card is path.table.named["A"]
    )  # fmt: skip
    assert {(where.place, where.position): where.paths for where in found.landing.where} == dict(ends)


def test_a_number_that_nothing_goes_by_is_not_asked_for() -> None:
    text = "Pack: 9 cards\nPlace A 9th\nSpectator names a number n from 1 to 3\nSpectator names a number m from 1 to 4\nDeal n cards from deck to table\n"
    verdict = prove(read_routine(text))
    assert verdict.landing and (verdict.told, verdict.landing.formula, verdict.paths) == (("n",), "9 − n", 12)
    # A number whose range another gives says something of that one, and so does one that is not always named.
    for other in (
        "Spectator names a number k from n to 4\n",
        "If n is 2:\n  Spectator names a number k from 1 to 2\n",
    ):
        assert prove(read_routine(text + other)).told == ("n", "m", "k") if "If" in other else ("n", "k")


def test_slips_of_a_rule_that_was_sought_as_a_formula(at_once: None) -> None:
    """As many paths fail as where what was told is kept."""
    text = f"{TWO}Deal n cards from deck to table\nDeal m cards from deck to hand\n"
    by_formula = {
        (one.slip.line, one.slip.what): (one.kind, one.share) for one in fragility_of(text, Budget()).outcomes
    }
    claim = "Ends with: the card at position 20 - n - m of deck is A\n"
    by_reference = {}
    for one in fragility_of(text, Budget()).outcomes:
        rows = text.splitlines()
        edit = one.slip.edit
        changed = "\n".join([*rows[: edit.first - 1], *edit.rows, *rows[edit.last :], claim])
        paths = list(every_path(routine_json(read_routine(changed))))
        by_reference[(one.slip.line, one.slip.what)] = sum(path.fails for path in paths) / len(paths)
    assert {kind for kind, _ in by_formula.values()} >= {HARMLESS, SOME}
    assert {slip: share for slip, (_, share) in by_formula.items()} == pytest.approx(by_reference)


def test_what_does_not_always_come_to_its_end_is_gone_through_whole(at_once: None) -> None:
    stuck = prove(
        read_routine(
            f"{TWO}Deal n cards from deck to table\nDeal m + 10 cards from deck to table\nDeal 2 cards from deck\n"
        )
    )
    assert stuck.verdict == REFUTED and stuck.whereabouts
    lost = prove(
        read_routine(
            f"{TWO}Spectator shuffles deck\nDeal n cards from deck to table\nDeal m cards from deck to table\n"
        )
    )
    assert lost.verdict == LOST
