"""The desks, against values worked out by hand, by plain simulation, or published."""

from __future__ import annotations

import random
from collections.abc import Sequence
from fractions import Fraction
from itertools import combinations, pairwise, permutations, product
from math import ceil, comb, factorial
from pathlib import Path

import pytest
from sympy.combinatorics import Permutation

from golden_pivot.core.budget import Budget
from golden_pivot.core.cards import RANKS
from golden_pivot.core.design import DESKS, Send, Trouble, mixes, narrowing, odds, pickup, spelling, stacks
from golden_pivot.core.design.assembly import assembled, blocks, dealt_twice, order_of, passes, two_deals
from golden_pivot.core.design.constraints import KINDS, Misread, read_constraint
from golden_pivot.core.design.permutations import KEPT, after, identity, inverse
from golden_pivot.core.design.sending import sent
from golden_pivot.core.faces import PACK
from golden_pivot.core.faults import Cancelled
from golden_pivot.core.language.parser import read_routine
from golden_pivot.core.verdicts import prove
from golden_pivot.pictures import picture_of

PROCEDURES = Path(__file__).parents[1] / "procedures"


def at(desk: str, **asks: object) -> object:
    return DESKS[desk].answer(DESKS[desk].asks(**asks), Budget(seconds=60))


def verdict(send: Send | None, text: str = "Title: A test\n") -> str:
    assert send is not None
    return prove(read_routine(sent(text, send))).verdict


# Spellings

LETTERS_BY_HAND = (3, 3, 5, 4, 4, 3, 5, 5, 4, 3, 4, 5, 4), (5, 8, 6, 6)
"""letters of ace, two … king, and of clubs, diamonds, hearts, spades; counted by hand"""


def spelled(**asks: object) -> spelling.SpellingAnswers:
    return spelling.answer(spelling.SpellingAsks(**asks), Budget())  # type: ignore[arg-type]


def test_the_letters_of_the_52_cards() -> None:
    found = spelled()
    values, suits = LETTERS_BY_HAND
    own = [value + suit for suit in suits for value in values]
    assert [row.letters for row in found.rows] == own
    # with the middle word; without; with the article; for one card of the suit
    more = {
        "{value} {of} {suit}": 2,
        "{value} {suit}": 0,
        "{article} {value} {of} {suit}": 5,
        "{value} {of} {one}": 1,
    }
    for template, extra in more.items():
        column = [phrasing.template for phrasing in found.phrasings].index(template)
        assert [row.counts[column].letters for row in found.rows] == [letters + extra for letters in own]


WITH_AND_WITHOUT = ["{value} {of} {suit}", "{value} {suit}", "~{value} {of} {one}", "~{value} {one}"]
"""with the middle word or without, in the plural or the singular"""


@pytest.mark.parametrize(
    ("position", "out_of_reach"),
    [
        # Two neighbouring counts, one with the last card and one with the next, reach five numbers of letters of the six.
        (12, ("ace of clubs", "two of clubs", "six of clubs", "ten of clubs")),
        (11, ("three of diamonds", "seven of diamonds", "eight of diamonds", "queen of diamonds")),
    ],
)
def test_two_neighbouring_counts_reach_48_of_52_at_best(position: int, out_of_reach: tuple[str, ...]) -> None:
    found = spelled(phrasings=WITH_AND_WITHOUT, wanted=[position])
    assert len(found.scripts) == 48 and found.unreached == out_of_reach
    assert [(one.position, one.reached) for one in found.best[:3]] == [(12, 48), (11, 48), (10, 43)]


def test_every_script_of_the_spelling_desk_is_proved() -> None:
    for found in (
        spelled(),
        spelled(reveals=["tabled"], packet=7, wanted=[3]),
        spelled(names="Odile\nBo", wanted=[5, 2]),
    ):
        for script in found.scripts[::5]:
            assert verdict(script.send) == "proved", script


def test_one_rule_for_all_cards_is_proved() -> None:
    """At the 13th place every card can be reached, so that the rule holds whatever card lies there."""
    found = spelled(wanted=[13])
    assert found.unreached == () and found.exceptions == () and verdict(found.send) == "proved"
    assert spelled().send is None, "four cards are to be kept out at the 11th place"


def test_the_smallest_set_of_scripts() -> None:
    found = spelled(phrasings=["{value} {of} {suit}", "{value} {suit}", "~{value}"], wanted=[11])
    # 43 cards need 8, 9 (with the middle word) or 10, 11 letters (without): four scripts, as each number needs its own.
    assert len(found.scripts) == 43 and len(found.fewest) == 4 and found.fewest_is_least


@pytest.mark.parametrize(
    ("pack", "name", "letters"),
    # Counted by hand.
    [
        ("spanish", "reina de corazones", 16), ("french", "as de cœur", 8), ("german", "Herz König", 9),
        ("german-32", "Schellen Ober", 12), ("italian", "sette di picche", 13), ("spanish-40", "sota de oros", 10),
    ],
)  # fmt: skip
def test_other_languages(pack: str, name: str, letters: int) -> None:
    counted = {count.spelled: count.letters for row in spelled(pack=pack).rows for count in row.counts}
    assert counted[name] == letters


def test_accents_count_once_however_they_are_written() -> None:
    (row,) = spelled(names="Zoe\u0308 d’Île-1").rows
    assert row.name == "Zoë d’Île-1" and row.letters == 7


# Pick-up orders


def dealt(cards: Sequence[int], piles: int, order: Sequence[int], up: bool) -> list[int]:
    """By hand: dealt one at a time onto the piles, put together from top to bottom, turned over if dealt face up."""
    heaps: list[list[int]] = [[] for _ in range(piles)]
    for i, card in enumerate(cards):
        heaps[i % piles].insert(0, card)
    stack = [card for pile in order for card in heaps[pile]]
    return stack[::-1] if up else stack


@pytest.mark.parametrize("up", [True, False])
def test_a_round_against_dealing_it_out(up: bool) -> None:
    for cards, piles in product(range(4, 14), (2, 3, 4)):
        landed: dict[tuple[int, int], set[int]] = {}
        for order in permutations(range(piles)):
            after_it = dealt(range(cards), piles, order, up)
            for card in range(cards):
                landed.setdefault((card + 1, order.index(card % piles) + 1), set()).add(after_it.index(card) + 1)
        for (position, slot), where in landed.items():
            assert pickup.after_round(position, slot, piles, cards, up) == tuple(sorted(where))


@pytest.mark.parametrize(("piles", "rounds", "cards"), [(3, 3, 27), (4, 2, 16), (5, 2, 25), (7, 2, 49)])
def test_gergonnes_rule(piles: int, rounds: int, cards: int) -> None:
    """J. D. Gergonne, Annales de mathématiques 4, 1813: the slots are the digits, in base k, of the cards above.

    Face up and turned over, a pile at the bottom of the stack brings its cards to the top.
    """
    for wanted in range(1, cards + 1):
        found = pickup.answer(pickup.PickupAsks(piles=piles, rounds=rounds, cards=cards, wanted=wanted), Budget())
        digits = [(wanted - 1) // piles**i % piles for i in range(rounds)]
        assert [way.slots for way in found.ways] == [tuple(piles - digit for digit in digits)]
        assert found.fewest_rounds == rounds and found.unreached == ()


def test_21_cards_three_times_in_the_middle() -> None:
    """p goes to 7 + ⌈p/3⌉ and comes to the 11th place; common practice, no published source."""
    for p in range(1, 22):
        assert pickup.after_round(p, 2, 3, 21, True) == (7 + ceil(p / 3),)
    found = pickup.answer(pickup.PickupAsks(piles=3, rounds=3, cards=21, wanted=11), Budget())
    assert found.ways[0].slots == (2, 2, 2) and verdict(found.send) == "proved"
    # Odd multiples of three up to 27 land on one place, even ones on two.
    sizes = {size.cards: size.middle for size in found.sizes}
    assert [sizes[n] for n in (9, 15, 21, 27)] == [1] * 4 and [sizes[n] for n in (12, 18, 24)] == [2] * 3


def test_given_answers_lead_to_a_place() -> None:
    asks = pickup.PickupAsks(piles=4, rounds=2, cards=18, answers=[3, 1], gathered=[2, 4, 1, 3])
    lands = {dealt(dealt(range(18), 4, (1, 3, 0, 2), True), 4, (1, 3, 0, 2), True).index(card) + 1
             for card in range(2, 18, 4)
             if dealt(range(18), 4, (1, 3, 0, 2), True).index(card) % 4 == 0}  # fmt: skip
    answered = pickup.answer(asks, Budget()).answered
    assert answered and answered.lands == tuple(sorted(lands))


@pytest.mark.parametrize(
    "how", [{}, {"dealt": "face down"}, {"told": "stack"}, {"told": "stack", "dealt": "face down"}]
)
def test_pick_up_orders_are_proved(how: dict[str, str]) -> None:
    for piles, rounds, cards, wanted in ((4, 2, 16, 10), (3, 3, 27, 5), (5, 2, 25, 25)):
        found = pickup.answer(pickup.PickupAsks(piles, rounds, cards, wanted=wanted, **how), Budget())
        assert verdict(found.send) == "proved"


# Mixes

MIXES_TO_TRY = [name.replace(" n ", " 3 ").replace("Cut n", "Cut 3") for name in (mix.name for mix in mixes.MIXES)]
CHAIN = ["Klondike, top card on", "Deal into 2 piles, right on left", "Count half down, the rest on top"]


def mixed(**asks: object) -> mixes.MixAnswers:
    return mixes.answer(mixes.MixAsks(**asks), Budget(seconds=60))  # type: ignore[arg-type]


@pytest.mark.parametrize("name", MIXES_TO_TRY)
def test_orders_and_cycles_against_sympy(name: str) -> None:
    for cards in (6, 14, 52):
        found = mixed(cards=cards, chain=[name])
        known = Permutation([to - 1 for to in found.places])
        assert found.order == known.order() and found.even == known.is_even
        cycles = {frozenset(at + 1 for at in cycle) for cycle in known.cyclic_form}
        assert {frozenset(cycle) for cycle in found.cycles if len(cycle) > 1} == cycles
        assert found.fixed == tuple(i for i, to in enumerate(found.places, start=1) if i == to)


def test_two_mixes_by_hand() -> None:
    """Six cards, dealt out by hand: where each position goes."""
    assert mixed(cards=6, chain=["Klondike, top card on"]).places == (5, 3, 1, 2, 4, 6)
    assert mixed(cards=6, chain=["Deal into 3 piles, right on left"]).places == (6, 4, 2, 5, 3, 1)


def test_perfect_shuffles() -> None:
    """P. Diaconis, R. L. Graham, W. M. Kantor, "The mathematics of perfect shuffles", 1983: orders and groups.

    52 cards: all 26!·2^26 orders that keep mirrored pairs; 24 cards: 2^11 times the Mathieu group of 95,040; 16: 4·2^4.
    """
    both = ["Out faro", "In faro"]
    assert mixed(cards=52, chain=["Out faro"]).order == 8 and mixed(cards=52, chain=["In faro"]).order == 52
    for cards, size in ((52, factorial(26) * 2**26), (24, 2**11 * 95_040), (16, 4 * 2**4)):
        group = mixed(cards=cards, chain=[], moves=both, group=True).group
        assert group and group.size == f"{size:,}"


def test_a_chain_that_is_no_mix_for_28_cards_and_is_one_for_27() -> None:
    found = mixed(cards=28, chain=CHAIN)
    assert found.order == 1 and found.kept == ("the old order",) and verdict(found.send) == "proved"
    assert sorted((mixed(cards=28, chain=[], moves=CHAIN).search or pytest.fail()).chain or ()) == sorted(CHAIN)
    odd = [*CHAIN[:2], "Count 13 down, the rest on top"]
    assert (
        mixed(cards=27, chain=odd).order == 2
        and mixed(cards=27, chain=[*CHAIN[:2], "Count 14 down, the rest on top"]).order == 27
    )
    search = mixed(cards=27, chain=[], moves=odd, longest=3).search
    assert search and search.chain is None and search.is_complete
    with pytest.raises(Trouble, match="27 cards have no exact half"):
        mixed(cards=27, chain=CHAIN)


@pytest.mark.parametrize("wanted", ["identity", "reversal", "2 to 7", "1 and 8 together"])
def test_the_shortest_chain_against_trying_all(wanted: str) -> None:
    moves = ["Out faro", "Cut 3", "Klondike, bottom card on"]
    arranged = {move: mixes.arrangement_of(move, 8) for move in moves}

    def does(order: bytes) -> bool:
        to = inverse(order)
        return {
            "identity": order == identity(8), "reversal": order == identity(8)[::-1],
            "2 to 7": to[1] == 6, "1 and 8 together": abs(to[0] - to[7]) == 1,
        }[wanted]  # fmt: skip

    def apply(chain: Sequence[str]) -> bytes:
        order = identity(8)
        for move in chain:
            order = after(order, arranged[move])
        return order

    search = mixed(cards=8, chain=[], moves=moves, wanted=wanted, longest=6).search
    least = next((n for n in range(1, 7) if any(does(apply(chain)) for chain in product(moves, repeat=n))), None)
    assert search and (len(search.chain) if search.chain else None) == least
    assert search.chain is None or does(apply(search.chain))


def test_what_is_kept_against_labelled_packs() -> None:
    """Each property said in other words, of a pack whose cards carry it, for orders at random and for mixes."""

    def keeps(order: bytes) -> set[str]:
        n = len(order)
        now = list(order)
        mates = [(now[i], now[i + 1]) for i in range(0, n, 2)]
        around = [(now[i], now[-1 - i]) for i in range(n // 2)]
        doubled = now + now
        said = {
            "the old order": now == list(range(n)),
            "the old order, but for a cut": now != list(range(n))
            and any(doubled[k : k + n] == list(range(n)) for k in range(n)),
            "the order, reversed": now == list(range(n))[::-1],
            "the order reversed, but for a cut": now != list(range(n))[::-1]
            and any(doubled[k : k + n] == list(range(n))[::-1] for k in range(n)),
            "cards as far from the top as from the bottom stay such pairs": all(
                sum(pair) == n - 1 for pair in around
            ),
            "pairs from the top, 1–2, 3–4 …, stay pairs": all(
                sorted(pair)[0] % 2 == 0 and abs(pair[0] - pair[1]) == 1 for pair in mates
            ),
            "pairs from the top come to mirror each other, top and bottom": all(
                min(pair) % 2 == 0 and abs(pair[0] - pair[1]) == 1 for pair in around
            ),
            "pairs of top and bottom come together, two by two": all(sum(pair) == n - 1 for pair in mates),
            "cards that alternate, such as in colour, still alternate": all(a % 2 != b % 2 for a, b in pairwise(now)),
        }
        return {words for words, holds in said.items() if holds}

    draw = random.Random(3)
    orders = [bytes(draw.sample(range(6), 6)) for _ in range(400)]
    orders += [mixes.arrangement_of(name, 12) for name in MIXES_TO_TRY]
    seen: set[str] = set()
    for order in orders:
        assert {words for words, holds in KEPT.items() if holds(order)} == keeps(order)
        seen |= keeps(order)
    assert len(seen) >= 8


def test_the_freedom_inside_a_chain() -> None:
    """Four rows of three, dealt into three piles: whichever order, mirrored cards stay so only in two of six (by hand)."""
    found = mixed(cards=12, chain=["Deal deck into 3 piles", "Spectator gathers the piles in any order"])
    assert len(found.ways) == 6 and found.always == ()
    mirror = [way.choices for way in found.ways if any("as far" in words for words in way.kept)]
    assert [choice.rpartition("is ")[2] for choice in mirror] == [
        "1, 2 and 3 from the top",
        "3, 2 and 1 from the top",
    ]


# Stacks

SUMS = [(2, 2), (2, 3), (2, 5), (2, 8), (2, 13), (2, 21), (3, 34), (5, 55), (8, 89)]


def sum_lines() -> list[str]:
    rows, first = [], 1
    for cards, total in SUMS:
        rows.append(f"cards {first} to {first + cards - 1} add up to {total}")
        first += cards
    return rows


def stacked(**asks: object) -> stacks.StackAnswers:
    return stacks.answer(stacks.StackAsks(**asks), Budget(seconds=60))  # type: ignore[arg-type]


def value(card: str) -> int:
    return RANKS.index(card.split()[0]) + 1


def suit(card: str) -> str:
    return card.split()[2]


def red(card: str) -> bool:
    return suit(card) in ("hearts", "diamonds")


def test_groups_with_growing_sums_from_one_pack() -> None:
    found = stacked(constraints=sum_lines(), wanted=3)
    assert len(set(found.arrangements)) == 3
    for cards in found.arrangements:
        left = list(cards)
        assert len(set(cards)) == 28 and set(cards) <= set(PACK)
        assert all(sum(value(left.pop(0)) for _ in range(many)) == total for many, total in SUMS)
    text = sent("Title: A test\n", found.send or pytest.fail())
    claim = "Ends with: (value of the 1st card of deck) + (value of the 2nd card of deck) is 2\n"
    assert prove(read_routine(text + claim)).verdict == "proved"


@pytest.mark.parametrize(
    ("more", "clash"),
    [
        (["cards 3 to 4 are each an ace"], ["cards 3 to 4 add up to 3", "cards 3 to 4 are each an ace"]),
        # Two pairs of aces, one more in a sum of 3: five aces.
        (["cards 7 to 8 are each an ace"], ["cards 7 to 8 add up to 8", "cards 7 to 8 are each an ace"]),
        (
            ["cards 13 to 15 are black", "card 13 is a king", "card 14 is a king", "card 15 is a king"],
            ["cards 13 to 15 add up to 34", "card 13 is a king", "card 14 is a king", "card 15 is a king"],
        ),
        (["cards 1, 2, 5, 6 agree in value"], ["cards 1 to 2 add up to 2", "cards 5 to 6 add up to 5", "cards 1, 2, 5, 6 agree in value"]),
    ],
)  # fmt: skip
def test_the_smallest_clash(more: list[str], clash: list[str]) -> None:
    found = stacked(constraints=sum_lines() + more)
    assert found.arrangements == () and found.settled and found.clash_is_smallest
    assert len(found.clash) <= len(clash) and set(found.clash) & set(more)
    if len(found.clash) == len(clash):
        assert set(found.clash) <= set(sum_lines() + more)
    assert set(found.clash) == set(clash) or "agree" in more[0]


def _runs(cards: Sequence[str], length: int) -> list[Sequence[str]]:
    return [cards[i : i + length] for i in range(len(cards) - length + 1)]


MEANT = {
    "card 5 is queen of hearts": lambda c: c[4] == "queen of hearts",
    "cards 1, 3, 5 are red": lambda c: all(red(c[i]) for i in (0, 2, 4)),
    "cards 1 to 4 are hearts or spades": lambda c: all(suit(card) in ("hearts", "spades") for card in c[:4]),
    "card 7 is a king": lambda c: value(c[6]) == 13,
    "cards 1 to 5 are each worth 2 to 9": lambda c: all(2 <= value(card) <= 9 for card in c[:5]),
    "cards 1 to 3 add up to 20": lambda c: sum(map(value, c[:3])) == 20,
    "cards 1, 14, 27 agree in value": lambda c: value(c[0]) == value(c[13]) == value(c[26]),
    "cards 1 to 12 pair up in value and colour": lambda c: all(
        value(c[i]) == value(c[i + 1]) and red(c[i]) == red(c[i + 1]) for i in range(0, 12, 2)
    ),
    "suits go round clubs, hearts, spades, diamonds in cards 1 to 52": lambda c: all(
        suit(card) == ("clubs", "hearts", "spades", "diamonds")[i % 4] for i, card in enumerate(c)
    ),
    "colours alternate in cards 1 to 20": lambda c: all(red(a) != red(b) for a, b in _runs(c[:20], 2)),
    "no more than 3 cards in a row agree in colour": lambda c: all(
        len(set(map(red, run))) > 1 for run in _runs(c, 4)
    ),
    "no more than 5 cards in a row alternate in colour": lambda c: all(
        any(red(a) == red(b) for a, b in pairwise(run)) for run in _runs(c, 6)
    ),
}


def test_every_kind_of_constraint_means_what_it_says() -> None:
    """Its example holds in what is found for it, and not in two arrangements found for nothing."""
    assert set(MEANT) == {kind.example for kind in KINDS}
    plain = stacked(constraints=["cards 1 to 52 are each worth 1 to 13"], wanted=2).arrangements
    for line, holds in MEANT.items():
        found = stacked(constraints=[line], cards=52)
        assert found.arrangements and holds(found.arrangements[0]), line
        assert sorted(found.arrangements[0]) == sorted(PACK)
        assert not all(map(holds, plain)) or "in a row" in line, line


@pytest.mark.parametrize(
    ("line", "holds"),
    [
        ("cards 1 to 4 differ in suit", lambda c: len(set(map(suit, c[:4]))) == 4),
        ("cards 1 to 6 mirror each other in suit", lambda c: all(suit(c[i]) == suit(c[5 - i]) for i in range(3))),
        ("cards 1 to 4 add up to at least 50", lambda c: sum(map(value, c[:4])) >= 50),
        ("cards 1 to 4 add up to at most 6", lambda c: sum(map(value, c[:4])) <= 6),
        ("no more than 1 card in a row agree in suit", None),
        ("no more than 1 cards in a row agree in suit", lambda c: all(suit(a) != suit(b) for a, b in _runs(c, 2))),
    ],
)
def test_the_other_words_of_constraints(line: str, holds: object) -> None:
    if holds is None:
        with pytest.raises(Misread):
            read_constraint(line)
        return
    assert callable(holds) and holds(stacked(constraints=[line], cards=12).arrangements[0])


def test_one_real_pack() -> None:
    five = ["cards 1 to 5 agree in value"]
    assert stacked(constraints=five).clash == tuple(five)
    assert stacked(constraints=five, packs=2).arrangements
    short = stacked(
        constraints=["cards 1 to 32 are each worth 1 to 13"], without=["two", "three", "four", "five", "six"]
    )
    assert {value(card) for card in short.arrangements[0]} == {1, 7, 8, 9, 10, 11, 12, 13}
    with pytest.raises(Trouble, match="52"):
        stacked(constraints=["card 53 is red"])
    assert stacked(constraints=["cards 1 to 53 are each worth 0 to 13"], jokers=1).arrangements[0].count("joker") == 1


@pytest.mark.parametrize(
    "placed",
    [
        "Pack: 52 cards, any order\nPlace FORCE on top\nPlace ten of clubs, two of hearts in this order, the first 4th\nTurn deck over\n",
        "position,card\n4,ten of clubs\n5,Two of hearts\n",
    ],
)
def test_what_lies_already_stays(placed: str) -> None:
    found = stacked(constraints=["cards 1 to 6 agree in colour"], placed=placed)
    assert (
        found.clash == ("card 4 is ten of clubs", "card 5 is two of hearts", "cards 1 to 6 agree in colour")
        or len(found.clash) == 3
    )
    kept = stacked(constraints=["cards 1 to 6 differ in value"], placed=placed).arrangements[0]
    assert kept[3:5] == ("ten of clubs", "two of hearts")


def test_putting_a_stack_together() -> None:
    order = order_of(stacks.NEW_PACK) or pytest.fail()
    assert order[0] == "ace of spades" and order[-1] == "ace of hearts"
    draw = random.Random(2)
    for size in (0, 1, 9, 28, 52):
        cards = draw.sample(order, size)
        cards[3:8] = [card for card in order if card not in cards[:3] + cards[8:]][:5] if size > 8 else cards[3:8]
        parts = blocks(order, cards)
        assert assembled(order, parts) == tuple(cards) and sum(part.cards for part in parts) == size
        assert [card for run in passes(order, cards) for card in run] == cards
        assert dealt_twice(draw.sample(order, 52), two_deals(cards)) == tuple(cards)
    assert [(part.cards, part.reverses) for part in blocks(order, order[10:20] + order[5:0:-1])] == [
        (10, False),
        (5, True),
    ]


# Narrowing


def test_seven_and_then_three() -> None:
    found = narrowing.answer(narrowing.NarrowingAsks(objects=[7, 3], patterns=["4, 2, 1", "2, 1"]), Budget())
    left = [(node.stage, node.left, node.point) for node in found.tree]
    # 7: keep four or go on with three; each then on to one. 3: two, or the one not pointed at.
    assert left == [
        (1, 7, 4), (1, 3, 2), (1, 1, None), (1, 2, 1), (1, 1, None), (1, 1, None),
        (1, 4, 2), (1, 2, 1), (1, 1, None), (1, 1, None), (1, 2, 1), (1, 1, None), (1, 1, None),
        (2, 3, 2), (2, 1, None), (2, 2, 1), (2, 1, None), (2, 1, None),
    ]  # fmt: skip
    assert all(node.says for node in found.tree)
    # By hand: 4/7 · 3 + 3/7 · (2/3 · 3 + 1/3 · 2) = 20/7 questions, then 2/3 · 2 + 1/3 = 5/3.
    whole = found.whole
    assert (whole.least, whole.most, whole.mean) == (3, 5, str(Fraction(20, 7) + Fraction(5, 3)))
    assert verdict(found.send) == "proved"


@pytest.mark.parametrize(
    ("objects", "points", "targets"), [(7, (4, 2, 1), 1), (5, (2, 1, 1), 2), (9, (4, 2, 1, 1), 1), (6, (3, 1, 1), 2)]
)
def test_a_pattern_against_every_pointing(objects: int, points: tuple[int, ...], targets: int) -> None:
    """Every way to point, one by one, for one place of the targets: shares are as often as they come."""
    runs: list[tuple[int, str, Fraction]] = []

    def go(left: tuple[int, ...], wanted: frozenset[int], step: int, said: str, share: Fraction) -> None:
        if len(left) == 1:
            runs.append((step, said, share))
            assert set(left) <= wanted
            return
        every = list(combinations(left, points[step]))
        for pointed in every:
            keeps = bool(wanted & set(pointed))
            rest = pointed if keeps else tuple(one for one in left if one not in pointed)
            go(rest, wanted & set(rest), step + 1, said + ("K" if keeps else "G"), share / len(every))

    go(tuple(range(objects)), frozenset(range(targets)), 0, "", Fraction(1))
    pattern = narrowing.judged(objects, points, targets)
    assert pattern and (pattern.least, pattern.most) == (min(r[0] for r in runs), max(r[0] for r in runs))
    assert pattern.mean == str(sum(many * share for many, _, share in runs))
    assert pattern.one_meaning == str(sum(share for _, said, share in runs if len(set(said)) == 1))


def test_the_fairest_patterns_come_first() -> None:
    found = narrowing.patterns_for(7, 1)
    key = [(-p.one_meaning_share, p.mean_number, p.most) for p in found]
    assert key == sorted(key) and len({p.points for p in found}) == len(found) > 5
    for n in range(2, 13):
        assert narrowing.patterns_for(n, 1), "there is a pattern for every number"


# Odds


def test_a_habit_gives_its_odds() -> None:
    """The binomial numbers themselves: a cut of 40 cards about the middle, kept from 15 to 25."""
    found = odds.answer(odds.OddsAsks(numbers=["n"]), Budget())
    inside = sum(comb(40, k) for k in range(15, 26))
    chances = {one.about: {o.outcome: o.least for o in one.outcomes} for one in found.distributions}
    assert chances["n"] == pytest.approx({str(k): comb(40, k) / inside for k in range(15, 26)})
    upper = sum(comb(40, k) for k in range(18, 26)) / inside
    assert sorted(chances["ending"].values()) == pytest.approx([1 - upper, upper])
    (limit,) = found.limits
    assert limit.broken == pytest.approx(1 - inside / 2**40)
    assert [out.words[:6] for out in found.outs] == ["line 7", "line 9"]
    # The safe range is the shortest that is kept 99 times in 100, and the routine with it is proved.
    kept = {w: sum(comb(40, k) for k in range(20 - w, 21 + w)) / 2**40 for w in (7, 8)}
    assert kept[7] < 0.99 <= kept[8] and (limit.safe_low, limit.safe_high) == (12, 28)
    assert prove(read_routine(limit.text)).verdict == "proved"


def test_records_and_open_choices() -> None:
    found = odds.answer(odds.OddsAsks(habits=["n: as recorded 18, 20, 20, 31"], numbers=["n"]), Budget())
    numbers = next(one for one in found.distributions if one.about == "n")
    assert [(o.outcome, o.least) for o in numbers.outcomes] == [
        ("18", pytest.approx(1 / 3)),
        ("20", pytest.approx(2 / 3)),
    ]
    assert found.limits[0].broken == 0.25
    left_open = odds.answer(odds.OddsAsks(habits=[], rest="open"), Budget())
    assert all((o.least, o.most) == (0, 1) for one in left_open.distributions for o in one.outcomes)


def test_too_much_to_reckon_is_drawn_at_random() -> None:
    found = odds.answer(odds.OddsAsks(patience=0.0, samples=400, habits=["n: evenly from 15 to 25"]), Budget())
    exact = odds.answer(odds.OddsAsks(habits=["n: evenly from 15 to 25"]), Budget())
    assert found.samples == 400 and exact.samples is None
    for drawn, known in zip(found.distributions[0].outcomes, exact.distributions[0].outcomes, strict=True):
        assert drawn.least < known.least < drawn.most and drawn.least < drawn.most


def test_how_many_piles_a_pack_makes() -> None:
    """A card of value v starts a pile of 14 − v; exact to four digits against a count of its own, by multisets of starters."""
    chances: dict[int, float] = {}
    layer = {(0,) * 13: 1.0}
    while layer:
        following: dict[tuple[int, ...], float] = {}
        for used, chance in layer.items():
            piles, left = sum(used), 52 - sum((13 - i) * n for i, n in enumerate(used))
            for i, n in enumerate(used):
                share = chance * (4 - n) / (52 - piles)
                if left == 0 or left < 13 - i:
                    chances[piles] = chances.get(piles, 0) + share
                elif n < 4:
                    more = (*used[:i], n + 1, *used[i + 1 :])
                    following[more] = following.get(more, 0) + share
        layer = following
    text = (PROCEDURES / "p15_pile_count.pivot").read_text(encoding="utf-8")
    found = odds.answer(odds.OddsAsks(routine=text, habits=[], patience=600), Budget())
    (piles_made,) = found.distributions
    assert found.samples is None and sorted(chances) == list(range(4, 19))
    known = {int(outcome.outcome): outcome.least for outcome in piles_made.outcomes}
    assert known == pytest.approx(chances, rel=1e-4)
    assert round(known[7], 4) == 0.2804 and max(known, key=lambda n: known[n]) == 7


# All of them


@pytest.mark.parametrize("name", DESKS)
def test_a_desk_opens_on_a_worked_example(name: str) -> None:
    desk = DESKS[name]
    answer = desk.answer(desk.asks(), Budget())
    assert isinstance(answer, desk.answers)
    picture = picture_of(answer)
    assert picture and picture.startswith("<svg") and picture.endswith("</svg>")
    for table in desk.tables(answer):
        assert table.rows and all(len(row) == len(table.head) for row in table.rows)
    assert all(field.metadata["description"] for field in desk.fields.values())


@pytest.mark.parametrize(
    ("desk", "asks", "field", "says"),
    [
        ("spell", {"names": " \n,"}, "names", "no name"),
        ("spell", {"names": "Ann\n1234"}, "names", "no letters"),
        ("spell", {"names": "\n".join(f"guest {'i' * (n % 9)} {n}" for n in range(10_000))}, "names", "10,000"),
        ("spell", {"phrasings": ["{frog}"]}, "phrasings", "frog"),
        ("spell", {"phrasings": ["{"]}, "phrasings", "nothing here"),
        ("spell", {"suits": "cups, coins"}, "suits", "2 words"),
        ("spell", {"wanted": []}, "wanted", "No position"),
        ("pickup", {"piles": 9, "cards": 3}, "piles", "do not make 9 piles"),
        ("pickup", {"wanted": 17}, "wanted", "17th"),
        ("pickup", {"piles": 12, "rounds": 6}, "rounds", "2,985,984"),
        ("pickup", {"answers": [5]}, "answers", "pile 5"),
        ("mix", {"cards": 1}, "cards", "cannot be 1"),
        ("mix", {"chain": ["Cut in half"], "cards": 9}, "chain", "no exact half"),
        ("mix", {"chain": ["Deal 3 cards from deck to table"]}, "chain", "more than one heap"),
        ("mix", {"chain": ["Stir well"]}, "chain", "Stir"),
        ("mix", {"moves": ["Out faro"], "wanted": "magic"}, "wanted", "no effect"),
        ("narrow", {"objects": [7], "patterns": ["4"]}, "patterns", "3 or 4 left"),
        ("narrow", {"objects": [7], "patterns": ["4, 3"]}, "patterns", "point to 3"),
        ("narrow", {"objects": []}, "objects", "nothing to narrow"),
        ("narrow", {"ask": "Point to {frog}"}, "ask", "gap"),
        ("stack", {"constraints": []}, "constraints", "how many cards"),
        ("stack", {"placed": "the old maid"}, "placed", "no card"),
        ("stack", {"new_pack": "spades up"}, "new_pack", "no order"),
        ("odds", {"routine": "Frog"}, "routine", "Line 1"),
        ("odds", {"numbers": ["frog"]}, "numbers", "frog"),
        ("odds", {"habits": ["m: evenly from 1 to 2"]}, "habits", "number m"),
        ("odds", {"habits": ["n: as recorded 99"]}, "habits", "never a number"),
    ],
)  # fmt: skip
def test_what_makes_no_sense_is_told(desk: str, asks: dict[str, object], field: str, says: str) -> None:
    with pytest.raises(Trouble, match=says) as trouble:
        at(desk, **asks)
    assert trouble.value.field == field and trouble.value.remedy


def test_a_line_that_is_no_constraint_is_pointed_at() -> None:
    found = stacked(constraints=["card 1 is red", "card 2 is frog"])
    (fault,) = found.faults
    assert (fault.line, fault.column, fault.end) == (2, 11, 15) and "“frog”" in fault.message
    assert fault.remedy.startswith("For example: card")


@pytest.mark.parametrize(("desk", "asks"), [("mix", {"moves": ["Out faro", "In faro", "Cut 5", "Deal all down"], "longest": 24}),
                                           ("stack", {"constraints": sum_lines()})])  # fmt: skip
def test_a_long_search_can_be_cancelled(desk: str, asks: dict[str, object]) -> None:
    told: list[str] = []
    budget = Budget(cancelled=lambda: True, progress=told.append)
    with pytest.raises(Cancelled):
        DESKS[desk].answer(DESKS[desk].asks(**asks), budget)


def test_a_result_goes_where_lines_of_its_kind_stand() -> None:
    text = "Title: A\nPack: 30 cards, any order\n\nDeal 2 cards from deck\nEnds with: the next card is X\n\n"
    send = Send(
        "it", ("Pack: 52 cards, any order", "Place Y 2nd"), ("Turn deck over",), ("Ends with: the next card is Y",)
    )
    assert sent(text, send).splitlines() == [
        "Title: A", "Pack: 30 cards, any order", "Place Y 2nd", "", "Deal 2 cards from deck", "Turn deck over",
        "Ends with: the next card is X",
    ]  # fmt: skip
    assert sent("", send).splitlines() == [
        "Pack: 52 cards, any order",
        "Place Y 2nd",
        "Turn deck over",
        "Ends with: the next card is Y",
    ]
