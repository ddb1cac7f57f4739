"""A routine written in everyday words, by keyboard: read line by line, a question answered, accepted, undone."""

from __future__ import annotations

import pytest
from playwright.sync_api import Page, expect

from tests.browser.hands import blank_page, readable, saved, sheet, verdict_is

pytestmark = pytest.mark.browser

WORDS = (
    "Put the queen of hearts tenth from the top",
    "They name any number from ten to nineteen",
    "Deal that many onto the table and put them all back on the pack",
    "Deal as many as the two figures come to",
    "The last card dealt is the queen",
)


def test_everyday_words_are_read_proved_and_written(page: Page) -> None:
    blank_page(page)
    sheet(page).focus()
    page.keyboard.press("Control+a")
    page.keyboard.insert_text("\n".join(["Title: Everyday", "Pack: 52 cards, any order", *WORDS]))
    # The verdict is that of the readings, and says so.
    verdict_is(page, "proved")
    expect(page.get_by_label("Verdict")).to_contain_text("with 5 lines as read")
    expect(page.locator(".gp-read-as")).to_have_count(5)
    readable(page)
    # The cursor is on the last line: Tab writes that one, undo takes it back.
    page.keyboard.press("Tab")
    expect(sheet(page)).to_contain_text("Ends with: the last card dealt is queen of hearts")
    expect(page.locator(".gp-read-as")).to_have_count(4)
    page.keyboard.press("Control+z")
    expect(sheet(page)).to_contain_text(WORDS[-1])
    # All of them at once, with what was written kept above each.
    page.get_by_label("Keep my words as remarks").click()
    expect(page.get_by_label("Keep my words as remarks")).to_be_checked()
    page.get_by_role("button", name="Write them so").click()
    expect(page.locator(".gp-read-as")).to_have_count(0)
    expect(sheet(page)).to_contain_text("Deal digit sum of n cards from deck")
    expect(sheet(page)).to_contain_text(f"# {WORDS[1]}")
    verdict_is(page, "proved")
    saved(page)


def test_a_question_is_asked_and_answered(page: Page) -> None:
    blank_page(page)
    sheet(page).focus()
    page.keyboard.press("Control+a")
    page.keyboard.insert_text("Pack: 52 cards, any order\nCount off ten")
    expect(page.get_by_label("Verdict")).to_contain_text("It can mean 3 things")
    expect(page.locator(".gp-read-as")).to_contain_text("Deal 10 cards from deck to table")
    page.keyboard.press("Alt+ArrowDown")
    expect(page.locator(".gp-read-as")).to_contain_text("each under the last")
    page.keyboard.press("Tab")
    expect(sheet(page)).to_contain_text("Count 10 cards from deck to table, each under the last")
    expect(page.locator(".gp-read-as")).to_have_count(0)


PAGE = """LANTERN ROOM. Best seated.
Get the force card to tenth from the top. “Name any number you like in the teens.”
They name a number between ten and nineteen. Deal that many onto the table and put them all back on the pack.
Wink at the steward. Deal as many as the two figures come to, again in a pile. The last card dealt is your card.
"""


def test_a_page_of_notes_becomes_a_proved_routine(page: Page) -> None:
    page.keyboard.press("Control+k")
    expect(page.get_by_placeholder("Find a step or a routine")).to_be_focused()
    page.keyboard.type("Read my notes")
    page.keyboard.press("Enter")
    page.wait_for_url("**/notes")
    # Dropped as a file, or typed: the same.
    dropped = page.evaluate_handle(
        "text => { const all = new DataTransfer(); all.items.add(new File([text], 'notes.md')); return all }", PAGE
    )
    page.get_by_label("Your notes").dispatch_event("drop", {"dataTransfer": dropped})
    understood = page.get_by_label("What was understood")
    expect(understood).to_contain_text("One question")
    expect(understood).to_contain_text("Not understood: kept as a remark.")
    # Between ten and nineteen: the second reading leaves both out.
    question = understood.locator(".asks").get_by_role("combobox")
    question.select_option(index=1)
    expect(understood.get_by_role("status")).to_contain_text("Proved: the last card dealt is FORCE")
    expect(understood).to_contain_text("Spectator names a number n from 11 to 18")
    readable(page)
    understood.get_by_role("button", name="Open as a routine").click()
    page.wait_for_url("**/bench/*")
    verdict_is(page, "proved")
    expect(sheet(page)).to_contain_text("# Wink at the steward.")
