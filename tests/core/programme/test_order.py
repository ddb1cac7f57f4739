"""The best order against every order and every way to give out packs; calls and times of programmes."""

from __future__ import annotations

import random
from dataclasses import replace
from itertools import pairwise, permutations, product

import pytest

from golden_pivot.core.book.performance import BadEntry
from golden_pivot.core.budget import Budget
from golden_pivot.core.programme.giving_out import give_out
from golden_pivot.core.programme.occasion import MOST_ROUTINES, Occasion, Wish, checked
from golden_pivot.core.programme.order import MOST_ORDERED, Costs, best_order
from golden_pivot.core.programme.running_order import Played, Programme
from golden_pivot.demo import demo_text

RESET, PACKS, VARIETY = Wish("least resetting"), Wish("fewest packs"), Wish("variety")


def some_costs(n: int, seed: int) -> Costs:
    draw = random.Random(seed)
    pairs = list(permutations(range(n), 2))
    return Costs(
        tuple(draw.randint(40, 400) for _ in range(n)),
        {pair: draw.choice([0, 0, 6.5, 12, 18.2, 25]) for pair in pairs if draw.random() < 0.6},
        {pair: draw.choice([0, 0.2, 0.5]) for pair in pairs},
    )


def by_brute_force(costs: Costs, goals: list[Wish], packs: int, allowed) -> tuple[int, ...] | None:  # type: ignore[no-untyped-def]
    """The least values of the goals over every order and every way to give out the packs."""
    n, best = len(costs.seconds), None
    every = product(range(packs), repeat=n)
    givings = [one for one in every if (used := list(dict.fromkeys(one))) == list(range(len(used)))]
    for order in filter(allowed, permutations(range(n))):
        for giving in givings:
            resetting, last = 0, {}
            for place, pack in enumerate(giving):
                if pack in last:
                    pair = order[last[pack]], order[place]
                    resetting += round(10 * costs.between[pair]) if pair in costs.between else 10**9
                last[pack] = place
            variety = sum(round(100 * costs.alike[pair]) for pair in pairwise(order))
            values = {"least resetting": resetting, "fewest packs": len(set(giving)), "variety": variety}
            found = tuple(values[goal.kind] for goal in goals)
            if resetting < 10**9 and (best is None or found < best):
                best = found
    return best


@pytest.mark.parametrize(("n", "seed"), [(3, 1), (4, 2), (4, 3), (5, 4), (6, 5)])
@pytest.mark.parametrize(
    "goals", [[RESET, PACKS, VARIETY], [PACKS, RESET], [VARIETY, PACKS]], ids=lambda g: g[0].kind
)
def test_no_order_is_better(n: int, seed: int, goals: list[Wish]) -> None:
    costs, uids = some_costs(n, seed), [str(i) for i in range(n)]
    opener = Wish("opener", "1")
    found = best_order(costs, [opener, *goals], uids, 3, None).found
    least = by_brute_force(costs, goals, 3, lambda order: order[0] == 1)
    assert (found is None) == (least is None)
    if found and least:
        resetting = sum(
            costs.between[found.order[i], found.order[j]]
            for j in range(n)
            for i in [max((i for i in range(j) if found.pack[i] == found.pack[j]), default=None)]
            if i is not None
        )
        variety = sum(costs.alike[pair] for pair in pairwise(found.order))
        values = {
            "least resetting": round(10 * resetting),
            "fewest packs": len(set(found.pack)),
            "variety": round(100 * variety),
        }
        assert tuple(values[goal.kind] for goal in goals) == least
        assert (found.order[0], sorted(found.order)) == (1, list(range(n)))
        assert (found.resetting, found.packs) == (pytest.approx(resetting), values["fewest packs"])


def test_wishes_that_clash_are_named_and_no_other() -> None:
    costs = Costs((100, 100, 100), {}, {})
    wishes = [Wish("opener", "0"), Wish("opener", "2"), Wish("closer", "1"), RESET]
    assert set(best_order(costs, wishes, ["0", "1", "2"], 3, None).clash) == {
        Wish("opener", "0"),
        Wish("opener", "2"),
    }
    # One pack alone is not enough where no pack can go on.
    assert best_order(costs, [RESET], ["0", "1", "2"], 2, None).found is None
    within = Wish("within the minutes")
    full = replace(costs, between=dict.fromkeys(permutations(range(3), 2), 30.0))
    assert best_order(full, [within], ["0", "1", "2"], 1, 7).found
    assert best_order(full, [within], ["0", "1", "2"], 1, 5).clash == (within,)
    assert best_order(full, [within], ["0", "1", "2"], 3, 5).found


def test_an_earlier_wish_goes_before_a_later_one_and_says_what_it_costs() -> None:
    costs = Costs((10, 10), {(0, 1): 20.0, (1, 0): 5.0}, {})
    fewest = best_order(costs, [PACKS, RESET], ["a", "b"], 2, None)
    assert fewest.found and (fewest.found.order, fewest.found.resetting) == ((1, 0), 5.0)
    assert fewest.gives == ("Least resetting gives way to fewest packs: 5 seconds, where 0 seconds could be had.",)


@pytest.mark.parametrize("seed", range(40))
@pytest.mark.parametrize("goals", [[RESET, PACKS], [PACKS, RESET]], ids=lambda g: g[0].kind)
def test_packs_are_given_out_in_an_order_that_stands_as_well_as_can_be(seed: int, goals: list[Wish]) -> None:
    n, packs = 3 + seed % 4, 1 + seed % 3
    costs = some_costs(n, 100 + seed)
    given = give_out(n, costs.between, packs, goals[0] == PACKS)
    resetting, last = 0.0, {}
    for place, pack in enumerate(given):
        if pack in last:
            resetting += costs.between[last[pack], place]
        last[pack] = place
    least = by_brute_force(costs, goals, packs, lambda order: list(order) == sorted(order))
    if least is None:  # too few are at hand: as few as it takes
        assert by_brute_force(costs, goals, len(set(given)) - 1, lambda order: list(order) == sorted(order)) is None
        return
    values = {"least resetting": round(10 * resetting), "fewest packs": len(set(given))}
    assert tuple(values[goal.kind] for goal in goals) == least
    assert list(dict.fromkeys(given)) == list(range(1, 1 + len(set(given))))


def test_sixty_routines_have_their_packs() -> None:
    between = {(i, j): float((7 * i + 3 * j) % 20) for j in range(60) for i in range(max(0, j - 8), j)}
    assert set(give_out(60, between, 3, False)) <= {1, 2, 3} and set(give_out(60, between, 3, True)) == {1}


def programme(*names: str, **more: object) -> Programme:
    occasion = Occasion("second sitting", routines=names, **more)  # type: ignore[arg-type]
    return Programme([Played(name, demo_text(name)) for name in names], occasion, Budget())


def test_times_and_packs_add_up() -> None:
    running = programme("harbour_light", "four_decks", "watch_below").running_order()
    now = 0.0
    for turn in running.turns:
        now += turn.between.seconds if turn.between else 0.0
        assert turn.begins == pytest.approx(now, abs=0.11)
        now += turn.seconds
    assert running.seconds == pytest.approx(now, abs=0.2)
    for place, turn in enumerate(running.turns):
        before = [i for i in range(place) if running.turns[i].pack == turn.pack]
        assert turn.after == (before[-1] if before else None)
    measured = Programme([Played("x", demo_text("harbour_light"), 3.0, 7)], Occasion("x"), Budget()).running_order()
    assert (measured.turns[0].seconds, measured.turns[0].measured) == (180.0, 7)


CALLS = [
    (("harbour_light", "forty_minutes"), "one principle: harbour_light: forty_minutes"),
    (("harbour_light", "forty_minutes"), "card LANTERN: harbour_light: forty_minutes"),
    (("harbour_light", "four_decks"), "borrowed after prepared: harbour_light: four_decks"),
    (("harbour_light", "four_decks", "harbour_light"), "twice: harbour_light: harbour_light"),
    (("watch_below", "fog_signals"), "counting: watch_below: fog_signals"),
    (("last_orders",), "not proved: last_orders"),
]


@pytest.mark.parametrize(("names", "key"), CALLS, ids=lambda value: str(value)[:30])
def test_what_speaks_against_an_order(names: tuple[str, ...], key: str) -> None:
    running = programme(*names).running_order()
    assert key in {call.key for call in running.calls}
    kept = programme(*names, kept=(key,)).running_order()
    assert key not in {call.key for call in kept.calls} and key in {call.key for call in kept.kept}


def test_an_order_that_nothing_speaks_against() -> None:
    running = programme("four_decks", "harbour_light", minutes=5, packs=1).running_order()
    assert running.calls == () and running.packs == 1


def test_the_same_people_are_not_shown_it_again() -> None:
    played = Played(
        "h",
        demo_text("harbour_light"),
        shown_to=(("Families", "2026-05-01"), ("families ", "2026-08-27"), ("a choir", "2026-09-01")),
    )
    (call,) = Programme([played], Occasion("x", audience="families"), Budget()).running_order().calls
    assert call.key == "seen: h" and call.says == "The Harbour Light was shown to families on 2026-08-27."
    # At the occasion itself it is no reason, nor afterwards.
    for held_on, told in (("2026-08-28", "08-27"), ("2026-08-27", "05-01"), ("2026-05-01", None)):
        calls = Programme([played], Occasion("x", held_on, audience="families"), Budget()).running_order().calls
        assert [call.says[-6:-1] for call in calls] == ([told] if told else [])
    for other in ("the crew", ""):
        assert Programme([played], Occasion("x", audience=other), Budget()).running_order().calls == ()


def test_over_time_and_too_few_packs_and_pockets() -> None:
    keys = {call.key for call in programme("harbour_light", "watch_below", minutes=1).running_order().calls}
    assert "over time" in keys
    prediction = (
        "Pack: 9 cards, any order\nPlace KEY on top\nPrediction: KEY on paper in wallet\nDeal 1 card from deck\n"
    )
    shown = Programme([Played("p", prediction)], Occasion("x"), Budget()).running_order()
    assert {call.key for call in shown.calls} == {"no pocket: p"}
    two = "Pack: 104 cards, any order\nPlace KEY on top\nDeal 3 cards from deck\n"
    many = Programme(
        [Played("a", demo_text("watch_below")), Played("b", two)], Occasion("x", packs=1), Budget()
    ).running_order()
    assert "too few packs" in {call.key for call in many.calls} and many.packs == 2


def test_nothing_is_ordered_that_cannot_be() -> None:
    assert "at least two" in programme().best().says
    assert programme().running_order().turns == ()
    many = Programme(
        [Played(str(i), demo_text("second_berth")) for i in range(MOST_ORDERED + 1)], Occasion("x"), Budget()
    )
    assert f"up to {MOST_ORDERED}" in many.best().says
    clash = programme(
        "four_decks", "harbour_light", wishes=(Wish("opener", "four_decks"), Wish("closer", "four_decks"))
    )
    assert "clash" in clash.best().says and "Four Decks" in clash.best().says


def test_a_better_order_is_one_that_was_asked_for() -> None:
    found = programme("four_decks", "harbour_light", packs=1, wishes=(RESET,)).best()
    assert found.order == (1, 0) and found.running
    assert found.running.resetting < programme("four_decks", "harbour_light", packs=1).running_order().resetting


BAD = [
    ("title", {"title": " "}), ("held_on", {"held_on": "11/28/26"}), ("begins", {"begins": "25:00"}), ("begins", {"begins": "²0:30"}),
    ("minutes", {"minutes": 0}), ("people", {"people": -1}), ("packs", {"packs": 99}), ("place", {"place": "x" * 999}),
    ("routines", {"routines": ("a",) * (MOST_ROUTINES + 1)}), ("place", {"place": "\ud800"}),
]  # fmt: skip


@pytest.mark.parametrize(("field", "change"), BAD, ids=str)
def test_an_occasion_that_cannot_be(field: str, change: dict[str, object]) -> None:
    try:
        checked(Occasion(**{"title": "x", **change}))  # type: ignore[arg-type]
        raise AssertionError("it was taken")
    except BadEntry as bad:
        assert bad.field == field or (field == "held_on" and bad.field == "played_on")
    assert checked(Occasion(" x ", "28.11.2026", "8:05")) == Occasion("x", "2026-11-28", "08:05")
