"""Every desk, against values worked out by hand, by plain simulation, or published."""

from __future__ import annotations

import pytest

from golden_pivot.core.budget import Budget
from golden_pivot.core.desks import DESKS, Send, Trouble
from golden_pivot.core.desks.sending import sent
from golden_pivot.core.faults import Cancelled
from golden_pivot.pictures import picture_of
from tests.core.desks import at
from tests.core.desks.test_stacks import sum_lines


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
        # Sizes have an end, and a gap is filled with nothing but its words.
        ("spell", {"phrasings": ["{value:>60000000}"]}, "phrasings", "nothing here"),
        ("spell", {"phrasings": ["{value!r:9999999}"]}, "phrasings", "nothing here"),
        ("spell", {"phrasings": ["{value.__class__}"]}, "phrasings", "nothing here"),
        ("spell", {"phrasings": ["{value"]}, "phrasings", "nothing here"),
        ("narrow", {"ask": "Point to {count:>60000000}"}, "ask", "gap"),
        ("narrow", {"keep": "{left[0]}"}, "keep", "gap"),
        ("odds", {"habits": ["n: evenly from 0 to 1000000"]}, "habits", "no range"),
        ("odds", {"habits": [f"n: as recorded {'9' * 5000}"]}, "habits", "no habit"),
        ("odds", {"routine": "Pack: 9 cards\nPlace A 1st\nSpectator names a number n from 0 to 1000000\n"}, "routine", "Line 3"),
    ],
)  # fmt: skip
def test_what_makes_no_sense_is_told(desk: str, asks: dict[str, object], field: str, says: str) -> None:
    with pytest.raises(Trouble, match=says) as trouble:
        at(desk, **asks)
    assert trouble.value.field == field and trouble.value.remedy


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
