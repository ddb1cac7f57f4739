"""The desks through the real interface: each sends a result into a routine, where it is proved."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.hands import headline, open_routine, sheet, verdict_is

pytestmark = pytest.mark.browser

TITLES = {
    "spell": "Spellings", "pickup": "Pick-up orders", "stack": "Stack builder", "mix": "Mix lab",
    "narrow": "Magician’s choice", "odds": "Odds",
}  # fmt: skip


def open_desk(page: Page, name: str) -> None:
    page.get_by_role("navigation", name="Rooms").get_by_role("link", name="Desks").click()
    page.get_by_role("navigation", name="Desks").get_by_role("link", name=TITLES[name]).click()
    answered(page)


def answered(page: Page) -> None:
    page.locator(".told[data-old=false]").wait_for(timeout=60_000)


def field(page: Page, label: str, words: str) -> None:
    page.get_by_label(label).first.fill(words)
    page.wait_for_timeout(150)
    answered(page)


def write_it(page: Page, where: str) -> None:
    page.get_by_role("button", name="Write it into a routine").click()
    page.get_by_role("menuitem", name=where).click()
    page.wait_for_url(re.compile("/bench/"))


def spelling(page: Page) -> None:
    field(page, "Wanted position", "13")
    expect(page.get_by_text("52 of 52 come to the 13th place")).to_be_visible()


def pick_up(page: Page) -> None:
    field(page, "Wanted place", "7")
    expect(page.get_by_role("status").first).to_contain_text("For the 7th place")


def stacking(page: Page) -> None:
    field(page, "What the stack must be", "card 2 is queen of hearts\ncards 1 to 3 add up to 15")
    expect(page.get_by_role("img", name="The stack from the top")).to_be_visible()


def mixing(page: Page) -> None:
    page.get_by_label("Cards", exact=True).fill("20")
    field(page, "The chain", "")
    field(page, "made of these mixes", "Out faro\nCut in half\nDeal all down")
    page.get_by_role("button", name="Put it in the chain").click()
    expect(page.locator(".facts")).to_contain_text("the old order")


def narrowing(page: Page) -> None:
    field(page, "Objects", "8")
    expect(page.get_by_role("status").first).to_contain_text("questions")


PROVED = {"spell": spelling, "pickup": pick_up, "mix": mixing, "narrow": narrowing}


@pytest.mark.parametrize("name", PROVED)
def test_a_result_becomes_a_routine_that_is_proved(page: Page, name: str) -> None:
    open_desk(page, name)
    PROVED[name](page)
    write_it(page, "As a new routine")
    verdict_is(page, "proved")


def test_a_stack_goes_into_the_routine_on_the_bench_and_back(page: Page) -> None:
    page.get_by_role("button", name="New routine").click()
    page.get_by_role("button", name="A blank page").click()
    sheet(page).click()
    page.keyboard.press("Control+End")
    page.keyboard.insert_text("\nDeal 1 card from deck\nEnds with: the next card is queen of hearts\n")
    expect(page.locator("footer[data-save=saved]")).to_be_visible()
    open_desk(page, "stack")
    stacking(page)
    write_it(page, "which is on the bench")
    verdict_is(page, "proved")
    expect(sheet(page)).to_contain_text("queen of hearts")
    # One change: undo takes the stack out again, and nobody knows the card any more.
    sheet(page).click()
    page.keyboard.press("Control+z")
    expect(sheet(page)).not_to_contain_text("in this order")
    expect(sheet(page)).to_contain_text("Deal 1 card from deck")


def test_a_safe_limit_is_written_into_a_routine(page: Page) -> None:
    """A range that is asked for too narrowly is widened to what they do 99 times in 100, and is still proved."""
    open_routine(page, "The Harbour Light")
    verdict_is(page, "proved")
    open_desk(page, "odds")
    page.get_by_label("Routine").first.click()
    page.get_by_role("option", name="The Harbour Light").click()
    answered(page)
    page.get_by_role("combobox", name="How n is chosen").click()
    page.get_by_role("option", name="as recorded").click()
    field(page, "numbers that were chosen", "31, 33, 33, 35, 36, 36, 38, 39, 44")
    expect(page.get_by_role("table", name="Limits")).to_contain_text("31 to 44")
    field(page, "numbers that were chosen", "31, 33, 33, 35, 36, 36, 38, 39")
    page.get_by_role("button", name="Write it into The Harbour Light").click()
    verdict_is(page, "proved")
    expect(sheet(page)).to_contain_text("n from 31 to 39")
    assert "whatever they choose" in headline(page)


def test_a_desk_opens_again_from_its_link_and_steps_back(page: Page, address: str) -> None:
    open_desk(page, "pickup")
    field(page, "Wanted place", "7")
    link = page.url
    assert "wanted" in link
    page.wait_for_timeout(1300)
    field(page, "Wanted place", "9")
    page.go_back()
    answered(page)
    expect(page.get_by_label("Wanted place")).to_have_value("7")
    page.goto(address)
    page.goto(link)
    answered(page)
    expect(page.get_by_role("status").first).to_contain_text("For the 7th place")


def test_pictures_and_tables_are_saved(page: Page) -> None:
    open_desk(page, "narrow")
    for item, ending in (("Table of tree (CSV)", "csv"), ("Picture (SVG)", "svg"), ("Picture (PNG)", "png")):
        page.get_by_role("button", name="Export").click()
        with page.expect_download() as download:
            page.get_by_role("menuitem", name=item).click()
        content = download.value.path().read_bytes()
        assert download.value.suggested_filename == f"narrow.{ending}"
        assert content.startswith({"csv": b"stage,after", "svg": b"<svg", "png": b"\x89PNG"}[ending])


def test_nonsense_is_told_at_its_field_and_the_answer_stays(page: Page) -> None:
    open_desk(page, "mix")
    page.get_by_role("textbox", name="The chain").fill("Stir well")
    expect(page.get_by_text("No sentence begins with “Stir”")).to_be_visible()
    expect(page.locator(".facts")).to_contain_text("105 times")
    page.get_by_role("textbox", name="The chain").fill("Out faro")
    answered(page)
    expect(page.locator(".facts")).not_to_contain_text("105 times")


def test_a_long_search_shows_progress_and_can_be_stopped(page: Page) -> None:
    open_desk(page, "mix")
    page.get_by_label("Cards", exact=True).fill("52")
    page.get_by_label("of at most").fill("24")
    page.get_by_label("that does").fill("reversal")
    page.get_by_label("made of these mixes").fill(
        "Out faro\nIn faro\nCut 5\nDeal into 3 piles, right on left\nKlondike, top card on"
    )
    # What does not fit between two keys is asked for again, with patience.
    page.get_by_role("button", name="Search longer").click(timeout=60_000)
    expect(page.get_by_text(re.compile("chains of .* orders so far"))).to_be_visible(timeout=60_000)
    page.get_by_role("button", name="Stop").click()
    expect(page.get_by_text("The search was stopped.")).to_be_visible()
    page.get_by_label("of at most").fill("3")
    answered(page)
    expect(page.get_by_text("No chain of at most 3 of these mixes does it")).to_be_visible()
