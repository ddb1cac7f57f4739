"""Whole procedures, typed line by line or built from the list of steps."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect

from golden_pivot.core.language.parser import read_routine
from tests.browser.hands import (
    PROCEDURES,
    blank_page,
    headline,
    insert_step,
    open_routine,
    select_line,
    sheet,
    type_routine,
    verdict_is,
)

pytestmark = pytest.mark.browser


def test_build_a_told_pile_routine_from_the_steps(page: Page) -> None:
    page.get_by_role("link", name="The Harbour Light", exact=True).wait_for()
    blank_page(page)
    sheet(page).focus()
    page.keyboard.press("Control+a")
    page.keyboard.type("Pack: 15 cards, any order")
    for step in (
        "thinks of a card",
        "Repeat 3",
        "into 3 piles",
        "which pile holds",
        "the others in any order",
        "Turn deck over",
    ):
        insert_step(page, step)
    verdict_is(page, "fixed")
    assert headline(page) == "Sure: their card is 8th in deck, whatever they choose"
    # Change the slot of the told pile, see where the card goes, go back.
    page.locator(".cm-line", has_text="Gather the piles").click()
    page.locator(".gp-slot", has_text="2nd").dblclick()
    page.keyboard.type("3rd")
    expect(page.locator("section.verdict .headline")).to_have_text(
        "Sure: their card is 1st in deck, whatever they choose"
    )
    # The verdict comes first; what is drawn follows it.
    expect(page.locator(".strands-panel .when")).to_have_text(re.compile(": deck 1$"))
    page.locator(".strands-view").focus()
    page.keyboard.press("ArrowLeft")
    expect(page.locator(".strands-panel .when")).to_contain_text("after time 2")
    page.keyboard.press("ArrowLeft")
    expect(page.locator(".strands-panel .when")).to_contain_text("after time 1: deck 1 to 5")
    sheet(page).focus()
    page.keyboard.press("Control+z")
    expect(page.locator("section.verdict .headline")).to_have_text(
        "Sure: their card is 8th in deck, whatever they choose"
    )


@pytest.mark.parametrize(
    ("name", "kind", "says"),
    [
        ("p11_from_the_pack", "proved", "exactly MP and MQ are reversed"),
        ("p14_nine_cards", "proved", "the last card dealt is TARGET"),
    ],
)
def test_a_procedure_is_typed_and_settled(page: Page, name: str, kind: str, says: str) -> None:
    type_routine(page, name)
    verdict_is(page, kind)
    assert says in headline(page)
    if name == "p11_from_the_pack":
        odds = page.get_by_label("Odds of ending")
        expect(odds).to_contain_text("1 in 51", timeout=60_000)


def test_a_spelled_routine_is_built_from_the_steps(page: Page) -> None:
    page.get_by_role("link", name="The Harbour Light", exact=True).wait_for()
    blank_page(page)
    sheet(page).focus()
    page.keyboard.press("Control+a")
    # In one piece: a suggestion that comes late may else take the Enter for itself.
    page.keyboard.insert_text("Pack: 9 cards, any order\nPlace TARGET 3rd")
    expect(page.locator(".cm-line").nth(1)).to_have_text("Place TARGET 3rd")
    for step in ("spells the name", "Drop the rest", "Spell “lantern”", "Drop the rest", "spells the name", "Drop the rest",
                 "Spell “lantern”", "the last card dealt is FORCE"):  # fmt: skip
        insert_step(page, step)

    def fill(line: int, was: str, now: str) -> None:
        row = page.locator(".cm-line").nth(line - 1)
        expect(row).to_contain_text(was)
        row.click()
        select_line(page)
        page.keyboard.insert_text(now)
        expect(row).to_have_text(now)

    fill(3, "deck", "Spell the value of TARGET from deck")
    fill(5, "deck", "Spell “of” from deck")
    fill(7, "deck", "Spell the suit of TARGET from deck")
    fill(9, "deck", "Spell “trick” from deck")
    fill(10, "FORCE", "Ends with: the last card dealt is TARGET")
    verdict_is(page, "proved")
    expect(page.locator("section.verdict .cover")).to_contain_text("52 paths")


def test_a_procedure_is_built_from_the_steps(page: Page) -> None:
    """Every line is taken from the list of steps, then its margin and what it speaks of are changed."""
    page.get_by_role("link", name="The Harbour Light", exact=True).wait_for()
    blank_page(page)
    sheet(page).focus()
    page.keyboard.press("Control+a")
    page.keyboard.press("Backspace")
    text = (PROCEDURES / "p21_placing.pivot").read_text(encoding="utf-8")
    for line in read_routine(text).walk():
        assert line.kind
        insert_step(page, line.kind.example)
        page.locator(".cm-line").last.click(click_count=3)
        page.keyboard.insert_text(line.text)
        expect(page.locator(".cm-line").last).to_have_text(line.text)
    verdict_is(page, "one-of")
    assert "One of 3" in headline(page)
    assert sheet(page).inner_text().split() == text.split()


def go_to_line(page: Page, number: int) -> None:
    page.keyboard.press("Alt+g")
    page.get_by_role("textbox", name="Go to line").fill(str(number))
    page.keyboard.press("Enter")
    expect(sheet(page)).to_be_focused()


def test_a_long_sheet_is_handled_by_keys(page: Page) -> None:
    open_routine(page, "Lifeboat Drill")
    verdict_is(page, "proved")
    sheet(page).focus()
    go_to_line(page, 7)
    page.keyboard.press("Control+Shift+BracketLeft")
    expect(page.locator(".cm-foldPlaceholder")).to_have_count(1)
    page.keyboard.press("Control+Shift+BracketRight")
    expect(page.locator(".cm-foldPlaceholder")).to_have_count(0)
    page.keyboard.press("Control+f")
    page.get_by_role("textbox", name="Find", exact=True).fill("OFFICER")
    page.get_by_role("textbox", name="Replace", exact=True).fill("PURSER")
    page.get_by_role("button", name="replace all").press("Enter")
    page.keyboard.press("Escape")
    expect(page.locator("section.verdict .headline")).to_contain_text("the top card of pile 1 is PURSER")
    expect(page.locator(".cm-search")).to_have_count(0)
    sheet(page).focus()
    go_to_line(page, 12)
    page.keyboard.press("Control+/")
    expect(page.locator(".cm-line", has_text="# Spectator turns pile 1 over")).to_have_count(1)
    page.keyboard.press("Control+/")
    expect(page.locator(".cm-line", has_text="# Spectator")).to_have_count(0)
    go_to_line(page, 7)  # a block goes below the next one as a whole
    page.keyboard.press("Alt+ArrowDown")
    lines = page.locator(".cm-line")
    expect(lines.nth(6)).to_contain_text("If number of piles is 2")
    page.keyboard.press("Control+z")
    expect(lines.nth(6)).to_contain_text("If number of piles is 3")
    expect(lines.nth(8)).to_contain_text("If number of piles is 2")
    page.keyboard.press("Shift+Alt+ArrowDown")
    expect(lines.nth(8)).to_contain_text("If number of piles is 3")
    expect(lines.nth(10)).to_contain_text("If number of piles is 2")
