"""A programme by keyboard: four routines, the best order, what is printed, what comes into the book."""

from __future__ import annotations

import pytest
from playwright.sync_api import Page, expect

from tests.browser.hands import readable

pytestmark = pytest.mark.browser


def add(page: Page, title: str) -> None:
    field = page.get_by_role("combobox", name="Add a routine")
    field.focus()
    page.keyboard.type(title)
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    expect(page.get_by_label("The order").get_by_role("link", name=title)).to_be_visible()


def order(page: Page) -> list[str]:
    return page.locator(".order .name").all_inner_texts()


def test_four_routines_in_the_best_order_and_on_paper(page: Page) -> None:
    page.get_by_role("link", name="Programme").click()
    expect(page.get_by_role("region", name="Warnings")).to_contain_text("nobody will believe it")
    expect(page.locator(".between").first).to_contain_text("set up before you begin")
    readable(page)
    page.get_by_role("button", name="New programme").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_text("Nothing is in it yet.")).to_be_visible()
    for title in ("The Harbour Light", "Four Decks of the Ship", "Forty Minutes Out", "The Second Berth"):
        add(page, title)
    assert order(page) == ["The Harbour Light", "Four Decks of the Ship", "Forty Minutes Out", "The Second Berth"]
    # One is moved by key, and put back by undo.
    first = page.locator(".order > ol > li").first
    first.focus()
    page.keyboard.press("Alt+ArrowDown")
    expect(page.locator(".order .name").first).to_have_text("Four Decks of the Ship")
    page.locator(".order > ol > li").nth(1).focus()
    page.keyboard.press("Control+z")
    expect(page.locator(".order .name").first).to_have_text("The Harbour Light")
    # A day that is none is refused at its field; what else was written stays.
    page.get_by_label("Day", exact=True).fill("soon")
    page.keyboard.press("Enter")
    expect(page.get_by_text("“soon” is no day.")).to_be_visible()
    page.get_by_label("Day", exact=True).fill("2999-12-06")
    page.keyboard.press("Enter")
    expect(page.get_by_text("“soon” is no day.")).to_have_count(0)
    page.get_by_role("button", name="Propose an order").focus()
    page.keyboard.press("Enter")
    take = page.get_by_role("button", name="Take this order")
    expect(take).to_be_visible()
    proposed = [row.split(" pack ")[0] for row in page.locator(".proposal > ol > li").all_inner_texts()]
    take.focus()
    page.keyboard.press("Enter")
    expect(page.locator(".order .name").first).to_have_text(proposed[0])
    assert order(page) == proposed
    expect(page.get_by_label("What it takes").get_by_text("s between")).to_be_visible()
    readable(page)
    # It is as it was left, and can be taken along: three actions from the shelf.
    page.reload()
    expect(page.locator(".order .name").first).to_have_text(proposed[0])
    assert order(page) == proposed
    with page.expect_download() as paper:
        page.get_by_role("button", name="Everything as PDF").focus()
        page.keyboard.press("Enter")
    assert paper.value.path().read_bytes().startswith(b"%PDF")
    # Nothing comes into the book before it was.
    page.get_by_role("button", name="It was shown").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_text("2999-12-06 is still to come.")).to_be_visible()
    page.get_by_label("Day", exact=True).fill("2026-09-20")
    page.keyboard.press("Enter")
    expect(page.get_by_text("pack 1, set up before you begin", exact=False).first).to_be_visible()
    page.get_by_role("button", name="It was shown").focus()
    page.keyboard.press("Enter")
    page.wait_for_url("**/book")
    expect(page.get_by_role("table").first.locator("tbody tr")).to_have_count(44)


def test_a_programme_that_was_struck_out_can_be_put_back(page: Page) -> None:
    page.get_by_role("link", name="Programme").click()
    expect(page.locator(".order .name").first).to_be_visible()
    page.get_by_role("button", name="Strike the programme out").click()
    expect(page.get_by_text("Nothing is planned yet")).to_be_visible()
    page.get_by_role("button", name="Put it back").click()
    expect(page.locator(".order .name")).to_have_count(6)
    page.get_by_role("button", name="Keep it so").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_text("Nothing speaks against it")).to_be_visible()
    expect(page.get_by_text("1 kept as they are")).to_be_visible()
