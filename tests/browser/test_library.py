"""The library of principles: its numbers are tried with the keys, and a principle becomes a routine."""

from __future__ import annotations

import pytest
from playwright.sync_api import Page, expect

from tests.browser.hands import readable, sheet, verdict_is

pytestmark = pytest.mark.browser


def test_a_principle_is_tried_by_its_slider_and_opened(page: Page) -> None:
    page.get_by_role("link", name="Library", exact=True).press("Enter")
    said = page.locator(".principle-verdict")
    expect(said).to_contain_text("Proved: the 8th card of deck is their card")
    number = page.get_by_role("slider", name="cards in a pile")
    number.press("ArrowLeft")
    expect(said).to_contain_text("Fails when their card is 7th in deck")
    number.press("ArrowLeft")
    expect(said).to_contain_text("Proved: the 5th card of deck is their card")
    expect(page.get_by_text("works at 3, 5; fails at 4")).to_be_visible()
    expect(page.locator(".principle")).to_contain_text("What you may say")
    readable(page)
    page.get_by_role("button", name="Open as a routine").press("Enter")
    verdict_is(page, "proved")
    expect(sheet(page)).to_contain_text("Pack: 9 cards, any order")
    page.go_back()
    page.get_by_role("link", name="Four suits in every four").press("Enter")
    expect(said).to_contain_text("Proved: in every 4 cards")
    page.get_by_role("slider", name="cards").press("End")
    expect(said).to_contain_text("Proved: in every 4 cards")
    expect(page.locator(".its-text")).to_contain_text("Pack: 52 cards")
