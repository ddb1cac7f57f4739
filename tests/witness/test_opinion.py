"""The second opinion: it agrees with what is right, and notices what is not, whoever is wrong."""

from __future__ import annotations

import copy
import json
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from typing import Any

import pytest
from hypothesis import HealthCheck, given, settings
from scripts.mutate import perturbed
from typer.testing import CliRunner

from golden_pivot.cli import app
from golden_pivot.core.answers.proving import prove
from golden_pivot.core.budget import Budget
from golden_pivot.core.building.card_names import Cards
from golden_pivot.core.faults import BadRoutine
from golden_pivot.core.language.parser import _read_line, _tried, read_routine
from golden_pivot.core.search.explorer import count_of
from golden_pivot.core.search.faces import FaceStore
from golden_pivot.core.steps import REGISTRY
from golden_pivot.jobs.by_hand import opinion_on
from golden_pivot.witness import Opinion
from tests.strategies import PHASES, routines
from tests.witness.telling import FEW, PROCEDURES, demo_text, texts, told

FAULTS = PROCEDURES.parent / "faults"


def text_of(name: str) -> str:
    return texts()[name] if name in texts() else (FAULTS / f"{name}.pivot").read_text(encoding="utf-8")


def opinion(text: str, answers: dict[str, Any], most: int | None = FEW) -> Opinion:
    found = opinion_on(text, answers, most, seconds=None)
    assert found is not None
    return found


@pytest.mark.parametrize("name", [*texts(), *(file.stem for file in FAULTS.glob("*.pivot"))])
def test_it_agrees_with_what_is_told_of_the_demo_the_procedures_and_the_faults(name: str) -> None:
    text = text_of(name)
    try:
        answers = told(text)
    except BadRoutine:
        return
    found = opinion(text, answers)
    assert found.agrees, found.differs
    assert found.played and "by hand, card by card" in found.says


@settings(max_examples=60, deadline=None, suppress_health_check=list(HealthCheck), phases=PHASES)
@given(routines())
def test_it_agrees_with_what_is_told_of_any_routine(text: str) -> None:
    try:
        answers = told(text)
    except BadRoutine:
        return
    found = opinion(text, answers, 400)
    assert found.agrees, found.differs


def test_all_paths_are_played_where_they_are_few_and_some_where_they_are_many() -> None:
    few, many = text_of("harbour_light"), text_of("three_bells")
    assert opinion(few, told(few)).says == "Also played 10 of 10 times by hand, card by card."
    found = opinion(many, told(many), 7)
    assert (found.played, found.of) == (7, None) and found.says == "Also played 7 times by hand, card by card."
    assert opinion(many, told(many), 7) == found, "the same paths for the same routine each time"


# What is not so is noticed, whatever it is


def _change(*path: Any) -> Callable[[dict[str, Any]], None]:
    """Puts the last of these in the place that the others lead to."""
    *way, last, value = path

    def change(answers: dict[str, Any]) -> None:
        for key in way:
            answers = answers[key]
        answers[last] = value(answers[last]) if callable(value) else value

    return change


def _more(number: int) -> int:
    return number + 1


LIES = {
    "that it holds": ("forty_minutes", _change("verdict", "verdict", "proved"), "every path holds"),
    "that it fails": ("harbour_light", _change("verdict", "verdict", "refuted"), "every path holds"),
    "how many paths": ("harbour_light", _change("verdict", "paths", _more), "counts 11 paths"),
    "how many fail": ("forty_minutes", _change("verdict", "failing_paths", _more), "failing paths"),
    "that a claim is so": ("forty_minutes", lambda a: a["verdict"]["claims"][0].update(holds=True), "is so, and played by hand it is not"),
    "what was looked at": ("harbour_light", _change("verdict", "claims", ()), "has not looked at line"),
    "where it ends": ("harbour_light", lambda a: a["verdict"]["landing"]["where"][0].update(position=2), "never to end as card 1"),
    "on how many paths": ("p16_two_piles", lambda a: a["verdict"]["landing"]["where"][0].update(paths=1), "other numbers of paths"),
    "where it is by what is told": ("the_stowaway", lambda a: a["verdict"]["landing"]["table"][3].update(position=9), "by what is known"),
    "where it goes": ("harbour_light", lambda a: a["ledger"]["ledger"][0].update(where=[{"place": "deck", "positions": [1]}]), "behind line"),
    "how it fails": ("forty_minutes", lambda a: a["verdict"]["counterexample"].update(choices={"n": 12}), "that one holds"),
    "when it holds": ("forty_minutes", lambda a: a["verdict"]["holds_when"].update(passing=1), "said to hold on 1 of"),
    "how often": ("wrong_exact_odds", lambda a: a["odds"]["chances"][1].update(least=0.2, most=0.2), "with a chance of 0.2"),
}  # fmt: skip


@pytest.mark.parametrize("lie", LIES)
def test_a_lie_is_noticed(lie: str) -> None:
    name, change, says = LIES[lie]
    text = text_of(name)
    answers = copy.deepcopy(json.loads(json.dumps(told(text))))
    assert opinion(text, answers, 3000).agrees
    change(answers)
    found = opinion(text, answers, 3000)
    assert not found.agrees and says in found.differs, found
    assert found.says == "Two ways of working this out do not agree. Do not trust either"


# Ten faults put into building and search, one for each family of steps: each is noticed

MEANINGS = {
    # family → (kind of step, which of its perturbations, a routine that has it)
    "Counting": ("drop_rest", 2, "p14_nine_cards"),
    "Blocks": ("put_heap", 2, "p10_opening_mix"),
    "Piles": ("piles_beside", 0, "p01_three_reports_claimed"),
    "Cards": ("take_from", 0, "p12_value_blocks"),
    "Set-up": ("place_card", 2, "p13_digit_sum"),
    "Order of events": ("otherwise", 0, "p20_spell_to_the_twelfth"),
    "Mixes": ("klondike", 1, "p10_opening_mix"),
    "Endings": ("ends_same", 0, "p17_row_of_ten"),
}


@pytest.mark.parametrize("family", MEANINGS)
def test_a_step_that_means_something_else_is_noticed(family: str, monkeypatch: pytest.MonkeyPatch) -> None:
    kind, number, name = MEANINGS[family]
    assert REGISTRY[kind].family == family
    changed = perturbed(REGISTRY[kind], number)
    assert changed is not None
    space = dict(REGISTRY[kind].means.__globals__)
    exec(compile(changed[1], "perturbed", "exec"), space)
    try:
        monkeypatch.setitem(REGISTRY, kind, replace(REGISTRY[kind], means=space[REGISTRY[kind].means.__name__]))
        for cached in (_read_line, _tried, read_routine):
            cached.cache_clear()
        assert not opinion(text_of(name), told(text_of(name)), 3000).agrees, changed[0]
    finally:
        monkeypatch.undo()
        for cached in (_read_line, _tried, read_routine):
            cached.cache_clear()


def test_a_choice_with_one_option_too_few_is_noticed(monkeypatch: pytest.MonkeyPatch) -> None:
    from golden_pivot.core.building import choices

    monkeypatch.setattr(choices, "range", lambda low, high: range(low, high - 1), raising=False)
    read_routine.cache_clear()
    text = text_of("harbour_light")
    assert not opinion(text, told(text)).agrees
    read_routine.cache_clear()


def test_a_look_that_is_remembered_by_its_words_is_noticed(monkeypatch: pytest.MonkeyPatch) -> None:
    """The gravest fault there has been."""
    from golden_pivot.core.building.spots import FoundSpot

    monkeypatch.setattr(FoundSpot, "looked_at", property(lambda spot: (-1, spot.spot)))
    for name in ("false_proof_repeat_with_let", "false_proof_number_set_anew", "false_proof_two_kings"):
        read_routine.cache_clear()
        text = text_of(name)
        answers = told(text)
        assert answers["verdict"]["verdict"] == "proved" and not opinion(text, answers).agrees
    read_routine.cache_clear()


# What is told to fail fails when it is played: where a search goes through paths that do not exist, less is forgotten

TWO_CARDS = (
    "Pack: 52 cards, any order\nRemember the top card of deck: P\nLet a be 4 * (value of P) + suit of P\nDeal 1 card from deck\n"
    "Remember the top card of deck: Q\nEnds with: 4 * (value of Q) + suit of Q is not a\n"
)
"""no card is there twice"""


def test_what_a_search_forgets_wrongly_is_kept_when_it_goes_on(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(FaceStore, "keep", lambda store, cells, before, after: None)
    read_routine.cache_clear()
    verdict = told(TWO_CARDS)["verdict"]
    read_routine.cache_clear()
    assert (verdict["verdict"], verdict["paths"]) == ("proved", 52 * 51)


def test_no_path_that_does_not_exist_is_told_to_fail(monkeypatch: pytest.MonkeyPatch) -> None:
    """What goes out of sight in a loop is forgotten, and there is no room to keep it: not settled, and why."""

    def forgets(cards: Cards, token: int, cells: list[Any]) -> None:
        face = cards.face_cells.get(token)
        if face is not None:
            cells[face] = None

    monkeypatch.setattr(Cards, "_take_back", forgets)
    read_routine.cache_clear()
    verdict = prove(read_routine(text_of("false_fails_colour_pairs")), Budget(states=3_000, seconds=None))
    read_routine.cache_clear()
    assert verdict.verdict == "unsettled" and verdict.counterexample is None


def test_what_is_seen_and_tells_nothing_is_shown_by_two_paths() -> None:
    text = (
        "Pack: hearts, each from ace to three\nSpectator names a number n from 1 to 4\nRepeat n times:\n"
        "  Move the top card of deck to the bottom\nEnds with: the faces of deck tell n\n"
    )
    verdict = told(text)["verdict"]
    example = verdict["counterexample"]
    assert verdict["verdict"] == "refuted" and (example["choices"], example["beside"]) == ({"n": 1}, {"n": 4})
    assert example["sentence"] == "Fails when n is 1: the faces at the end can be the same as when n is 4"


# On the command line

run = CliRunner().invoke


def test_the_command_line_tells_it_beside_the_verdict(tmp_path: Path) -> None:
    told_by = run(app, ["prove", "demo:harbour_light"])
    assert told_by.exit_code == 0 and "Also played 10 of 10 times by hand" in told_by.output
    some = json.loads(run(app, ["prove", "demo:harbour_light", "--second-opinion", "4", "--json"]).output)
    assert some["second_opinion"]["played"] == 4
    assert "by hand" not in run(app, ["prove", "demo:harbour_light", "--second-opinion", "none"]).output
    assert "10 of 10" in run(app, ["prove", "demo:harbour_light", "--second-opinion", "all"]).output
    bad = run(app, ["prove", "demo:harbour_light", "--second-opinion", "0"])
    assert bad.exit_code == 2 and "is no number of paths" in bad.output
    assert "Also played" in run(app, ["holds", "demo:forty_minutes"]).output


def test_where_the_two_do_not_agree_the_command_line_says_so_and_writes_a_report(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    from golden_pivot.core.answers import proving

    monkeypatch.chdir(tmp_path)
    monkeypatch.setattr(proving, "count_of", lambda *given: replace(count_of(*given), paths=99))
    differs = run(app, ["prove", "demo:harbour_light"])
    assert differs.exit_code == 5 and "Proved" not in differs.stdout
    assert "Two ways of working this out do not agree. Do not trust either" in differs.output
    report = json.loads((tmp_path / "golden-pivot-disagreement.json").read_text(encoding="utf-8"))
    assert report["text"] == demo_text("harbour_light") and not report["opinion"]["agrees"]
