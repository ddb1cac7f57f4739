"""Every screen and every question can be read by everybody."""

from __future__ import annotations

import pytest
from playwright.sync_api import Page, expect

from tests.browser.hands import (
    open_routine,
    readable,
    sheet,
    verdict_is,
)

pytestmark = pytest.mark.browser

LOOKS = [("light", 1280, 800), ("dark", 1280, 800), ("light", 1024, 768), ("dark", 640, 400)]
"""colours, and a window in pixels: the last is one of 1280 at twice the size"""
seen = pytest.mark.parametrize("look", LOOKS, ids=lambda look: " ".join(map(str, look)))


def show(page: Page, look: tuple[str, int, int]) -> None:
    scheme, width, height = look
    page.emulate_media(color_scheme=scheme)  # type: ignore[arg-type]
    page.set_viewport_size({"width": width, "height": height})


@seen
@pytest.mark.parametrize("title", [None, "Forty Minutes Out"])
def test_every_screen_is_readable_by_all(page: Page, look: tuple[str, int, int], title: str | None) -> None:
    show(page, look)
    page.reload()
    page.get_by_role("link", name="The Harbour Light", exact=True).wait_for()
    if title:
        open_routine(page, title)
        verdict_is(page, "refuted")
    readable(page)


@seen
def test_every_question_beside_the_sheet_is_readable_by_all(page: Page, look: tuple[str, int, int]) -> None:
    show(page, look)
    open_routine(page, "The Watch Below")
    verdict_is(page, "proved")
    page.keyboard.press("Escape")
    for key, shown in (("2", "Where it lands"), ("3", "It holds, whatever they choose"), ("4", "every way to fill it"),
                       ("5", "Fails, whatever they choose")):  # fmt: skip
        page.keyboard.press(f"Alt+{key}")
        expect(page.get_by_role("tabpanel")).to_contain_text(shown, timeout=60_000)
        readable(page)


@seen
def test_the_rooms_around_a_performance_are_readable_by_all(page: Page, look: tuple[str, int, int]) -> None:
    show(page, look)
    for room, shown in (
        ("Library", "Told pile"),
        ("Practice", "due today"),
        ("Programme", "Think of"),
        ("Book", "Your own spectators"),
    ):
        page.get_by_role("link", name=room, exact=True).click()
        expect(page.locator("#main")).to_contain_text(shown, timeout=60_000)
        readable(page)


@seen
def test_what_opens_on_the_bench_is_readable_by_all(page: Page, look: tuple[str, int, int]) -> None:
    show(page, look)
    page.keyboard.press("F1")
    page.get_by_role("dialog", name="Keys").wait_for()
    readable(page)
    page.get_by_role("button", name="A first proof, in six steps").press("Enter")
    verdict_is(page, "proved")
    sheet(page).focus()
    page.keyboard.press("Control+End")
    page.keyboard.press("Control+f")
    page.get_by_role("textbox", name="Find", exact=True).fill("deck")
    readable(page)
    page.keyboard.press("Escape")
    text = b"Pack: 8 cards, any order\nPlace FORCE on top\nSpectator shuffles deck\nIf size of deck is 8:\n  Turn deck over\nEnds with: FORCE is in deck\n"
    page.get_by_role("link", name="Shelf", exact=True).click()
    page.locator("input[type=file]").first.set_input_files(
        {"name": "mix.pivot", "mimeType": "text/plain", "buffer": text}
    )
    verdict_is(page, "proved")
    page.get_by_role("button", name="All 8").press("Enter")
    sheet(page).focus()
    page.keyboard.press("Control+Home")
    for _ in range(3):
        page.keyboard.press("ArrowDown")
    page.keyboard.press("Control+Shift+BracketLeft")
    readable(page)
