"""Each pass by itself: what it does to small programs, and that it changes no answer of random routines."""

from __future__ import annotations

from collections import Counter
from dataclasses import replace
from itertools import islice

import pytest
from hypothesis import given, reject

from golden_pivot.core.answers.proving import prove
from golden_pivot.core.budget import Budget
from golden_pivot.core.building import PROOF
from golden_pivot.core.building.builder import lowered
from golden_pivot.core.building.purpose import TABLE
from golden_pivot.core.faults import OutOfBudget
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.language.printer import routine_json
from golden_pivot.core.passes.check_hoisting import hoist_checks
from golden_pivot.core.passes.group_folding import fold_groups
from golden_pivot.core.passes.liveness import liveness
from golden_pivot.core.passes.order_folding import fold_orders
from golden_pivot.core.passes.pipeline import Pass, run
from golden_pivot.core.passes.reordering import reorder
from golden_pivot.core.passes.validator import validate
from golden_pivot.core.search.explorer import explore
from golden_pivot.core.search.program import END, FAILED, Act, Branch, Check, Choose, Dead, Leap, Program, Wanted
from golden_pivot.witness import each_path
from tests.core.test_three_ways import MANY, read
from tests.strategies import routines


def low(*rows: str, pack: int = 10) -> Program:
    program, faults = lowered(read_routine("\n".join([f"Pack: {pack} cards", *rows])), PROOF)
    assert not faults
    return program


def order(program: Program) -> list[str]:
    """The instructions in short: what each is, and the line it is of."""
    return [f"{type(step).__name__.lower()} {step.line}" for step in program.instructions]


# The pass, the lines below the pack (line 1), and the instructions before and after it.
MOVES = [
    (reorder, ["Place A 2nd", "Spectator names a number n from 1 to 3", "Deal 4 cards from deck to west", "Deal n cards from deck to east",
               "Ends with: the 3rd card of west is A"],
     ["choose 3", "act 4", "act 5", "check 6"], ["act 4", "choose 3", "act 5", "check 6"]),
    (reorder, ["Place A 2nd", "Spectator names a number n from 1 to 3", "Deal n cards from deck to west", "Deal 4 cards from deck to west",
               "Ends with: the 3rd card of west is A"],
     ["choose 3", "act 4", "act 5", "check 6"], ["choose 3", "act 4", "act 5", "check 6"]),
    (hoist_checks, ["Place A 2nd", "Deal 3 cards from deck to west", "Deal 3 cards from deck to east", "Ends with: the 2nd card of west is A"],
     ["act 3", "act 4", "check 5"], ["act 3", "check 5", "act 4"]),
    (hoist_checks, ["Place A 2nd", "Deal 3 cards from deck to west", "Put west on deck", "Ends with: the 2nd card of deck is A"],
     ["act 3", "act 4", "check 5"], ["act 3", "act 4", "check 5"]),
]  # fmt: skip


@pytest.mark.parametrize(("one", "rows", "before", "after"), MOVES)
def test_what_a_pass_moves(one: Pass, rows: list[str], before: list[str], after: list[str]) -> None:
    program = low(*rows)
    assert order(program) == before
    assert order(one(program)) == after


def test_what_is_dead() -> None:
    """A place that nobody reads is emptied, a number once it has been used, and of a heap that is left its size remains."""
    program = liveness(
        low("Place A 9th", "Spectator names a number n from 1 to 3", "Deal n cards from deck to west", "Deal 2 cards from deck to east",
            "Ends with: the 2nd card of deck is A", "Ends with: size of east is 2")
    )  # fmt: skip
    cell = {c.name: i for i, c in enumerate(program.cells)}
    choose, dealt, east, *_ = program.kills
    assert cell["n"] not in choose.cells and cell["n"] in dealt.cells
    assert cell["west"] in dealt.cells and cell["east"] not in east.cells
    assert cell["east"] in east.cells or cell["east"] in east.cards
    assert cell["deck"] not in {*east.cells, *east.cards}


def _answer(program: Program, *passes: Pass) -> tuple[bool, bool, Counter[int]]:
    try:
        found = explore(run(program, passes), Budget(states=20_000))
    except OutOfBudget:
        reject()
    ends: Counter[int] = Counter()
    for state, weight in (*found.ends.items(), *found.again.items()):
        ends[state[FAILED]] += weight
    return any(ends_with for ends_with in ends) or bool(found.stuck), bool(found.stuck), ends


@MANY
@given(routines())
def test_no_pass_changes_an_answer(text: str) -> None:
    read(text)
    program, _ = lowered(read_routine(text), PROOF)
    remembering = replace(program, wanted=Wanted(program.wanted.at_end | set(range(len(program.cells)))))
    fails, stuck, ends = _answer(remembering, liveness)
    for passes in (
        [liveness],
        [hoist_checks, liveness],
        [reorder, liveness],
        [fold_orders, liveness],
        [reorder, hoist_checks, fold_groups, fold_orders, liveness],
    ):
        fails_too, stuck_too, ends_too = _answer(program, *passes)
        assert fails_too == fails
        if not (
            stuck or stuck_too or program.is_unlimited
        ):  # what gets stuck before a choice is not counted behind it
            assert ends_too == ends
        elif program.is_unlimited:
            assert set(ends_too) == set(ends)


NAMED = [
    f"Spectator names a number {name} from {low} to {high}"
    for name, low, high in (("a", 1, 2), ("b", 1, 3), ("c", 0, 2))
]
TOTALS = [
    # a sum asked twice, of which a number is set anew in between
    [*NAMED, "Let t be 1", "Deal a + b + t cards from deck", "Let t be 2", "Deal a + b + t cards from deck", "Ends with: size of dealt is 2 * a + 2 * b + 3"],
    # in a case, in the other case, and behind both
    [*NAMED, "If a + b + c is more than 4:", "  Deal a + b + c cards from deck", "Otherwise:", "  Deal a + b + c + 1 cards from deck",
     "Put deck on east", "Deal a + b + c cards from east to deck", "Ends with: size of deck is 5"],
    # in a case that has its ending, and in one further on
    [*NAMED, "If a + b + c is 2:", "  Ends with: a is 1", "Deal a + b + c cards from deck", "Ends with: size of dealt is b + 3"],
    # in a repetition that counts on
    [*NAMED, "Let t be a", "Repeat 2 times:", "  Deal t + b + c cards from deck", "  Let t be t + 1", "Ends with: size of dealt is 2 * (a + b + c) + 1"],
    [*NAMED, "Let t be 0", "Deal a + b + t cards from deck", "As long as t is less than 3:", "  Deal a + b + t cards from deck", "  Let t be t + 1", "Deal a + b + t cards from deck",
     "Ends with: size of dealt is 5 * (a + b) + 6"],
    # asked for by nobody but the odds, which a proof does not need
    [*NAMED, "Deal a + b + c cards from deck", "Odds of a + b + c", "Ends with: size of dealt is 3"],
    [*NAMED, "Deal a + b + c cards from deck", "Odds of min(a, 1) + b + c", "Ends with: size of dealt is 3"],
]  # fmt: skip


@pytest.mark.parametrize("rows", TOTALS)
def test_a_running_total_is_the_sum_as_it_is_by_then(rows: list[str]) -> None:
    routine = read_routine("\n".join(["Pack: 34 cards", "Place A 20th", *rows]))
    expected = [path.fails for path in each_path(routine_json(routine))]
    found = prove(routine)
    assert (found.paths, found.failing_paths) == (len(expected), sum(expected)), found.headline


def test_what_is_reckoned_for_nobody_is_not_reckoned() -> None:
    odds = ["Place A 20th", *NAMED, "Deal b cards from deck", "Odds of a + b + c", "Ends with: size of dealt is b"]
    program = liveness(lowered(read_routine("\n".join(["Pack: 24 cards", *odds])), replace(PROOF, reorder=True))[0])
    asked = {cell for step in program.instructions if isinstance(step, Act) for cell in step.reads}
    assert not asked & {i for i, cell in enumerate(program.cells) if cell.name in ("a", "c")}


PACKS = [
    "Pack: 6 cards, any order\nArrange the pack red, black in turn",
    "Pack: 8 cards, any order\nArrange the pack clubs, hearts, spades, diamonds in turn",
    "Pack: 6 cards, any order\nArrange the pack, from the top: 3 red cards, 3 black cards",
    "Pack: clubs, each from ace to three, then their mates mirrored",
    "Pack: 7 cards, any order\nPlace ace of hearts, two of clubs, ace of spades in this order, the first 2nd",
]
MIXES = [
    "Deal 3 cards from deck to table\nSpectator riffles table into deck",
    "Spectator riffles deck together once",
    "Spectator shuffles deck overhand",
    "Cut off 3 cards of deck to table\nSpectator shuffles table\nSpectator riffles table into deck",
]
CLAIMS = [
    "in every 2 cards of deck from the top all colours are different",
    "in every 3 cards of deck from the top all suits are different",
    "in every 4 cards of deck from the top all suits are different",
    "in every 2 cards of deck from the top all values are the same",
    "the cards of deck, two by two from the top, are mates",
]


@pytest.mark.parametrize("claim", CLAIMS)
@pytest.mark.parametrize("mix", MIXES)
@pytest.mark.parametrize("pack", PACKS)
def test_what_is_judged_while_a_heap_is_built(pack: str, mix: str, claim: str) -> None:
    """The claim holds on as many paths, and by the reference."""
    routine = read_routine(f"{pack}\n{mix}\nEnds with: {claim}\n")
    program, faults = lowered(routine, PROOF)
    if faults:  # a claim that this pack does not allow
        return
    folded = fold_groups(program)
    assert folded is not program
    answer = _answer(program, liveness)
    assert _answer(program, fold_groups, liveness) == answer
    paths = list(islice(each_path(routine_json(routine)), 3_001))
    if len(paths) <= 3_000 and not answer[1]:
        assert answer[2].total() == len(paths)
        assert sum(many for ends, many in answer[2].items() if ends) == sum(path.fails for path in paths)


def test_a_heap_that_is_asked_for_again_is_not_folded() -> None:
    """Nor one of which anything else is claimed, or that is shown."""
    begun = ["Spectator riffles deck together once"]
    pairs = "Ends with: in every 2 cards of deck from the top all colours are different"
    for rows in ([*begun, "Turn deck over", pairs], [*begun, pairs, "Ends with: size of deck is 10"], [*begun, pairs, "Ends with: A is red"],
                 [*begun, pairs, "Never shows: the face of A"]):  # fmt: skip
        program = low("Place A 3rd", *rows)
        assert fold_groups(program) is program
    shown, _ = lowered(read_routine("\n".join(["Pack: 10 cards", *begun, pairs])), TABLE)
    assert fold_groups(shown) is shown


def _broken(program: Program) -> dict[str, Program]:
    first, rest = program.instructions[0], program.instructions[1:]
    return {
        "not further on": replace(program, instructions=(Branch(3, (), frozenset(), frozenset(), lambda cells: True, 0), *rest)),
        "no such cell": replace(program, instructions=(replace(first, reads=frozenset([99])), *rest)),
        "no claim 7": replace(program, instructions=(*program.instructions, *[
            replace(step, claim=7) for step in program.instructions if isinstance(step, Check)])),
        "not said to change": replace(program, instructions=tuple(
            replace(step, touches=frozenset()) if isinstance(step, Choose) else step for step in program.instructions)),
        "kills for": replace(program, kills=(Dead(),)),
        "a target is not known": replace(liveness(program), instructions=tuple(
            Leap(3, (), frozenset(), frozenset(), END) if isinstance(step, Act) else step for step in program.instructions)),
    }  # fmt: skip


def test_the_validator_sees_what_is_wrong() -> None:
    program = low(
        "Place A 9th",
        "Spectator names a number n from 1 to 3",
        "Deal n cards from deck to west",
        "Ends with: the 2nd card of deck is A",
    )
    validate(liveness(program))
    for words, broken in _broken(program).items():
        with pytest.raises(ValueError, match=words):
            validate(broken)


def test_what_is_cut_short_by_a_fault_is_well_formed() -> None:
    """Up to the line at fault a routine is shown: a repetition that has lost its end is gone through once."""
    from golden_pivot.core.building import REPLAY, compile_what_can_be

    text = "Pack: 9 cards\nPlace A on top\nAs often as the spectator likes:\n  Spectator cuts deck an\nDeal 1 card from deck\n"
    program, faults = compile_what_can_be(read_routine(text), REPLAY)
    assert faults
    validate(program)
