"""Every screen and every question can be read by everybody."""

from __future__ import annotations

import pytest
from playwright.sync_api import Page, expect

from tests.browser.hands import (
    RUNS_OFF,
    nothing_runs_off,
    open_routine,
    readable,
    sheet,
    verdict_is,
)

pytestmark = pytest.mark.browser

SIZES: list[tuple[int, int]] = [(1280, 800), (1024, 768), (640, 400)]
"""windows in pixels: the last is one of 1280 at twice the size"""


def readable_at_every_size(page: Page) -> None:
    """Names, order and colours are judged in the widest window by day and in the narrowest by night, what runs off in all.

    It is left as it was at first.
    """
    (width, height), (middle, less), (narrow, low) = SIZES
    page.emulate_media(color_scheme="dark")
    page.set_viewport_size({"width": narrow, "height": low})
    readable(page)
    page.emulate_media(color_scheme="light")
    page.set_viewport_size({"width": middle, "height": less})
    nothing_runs_off(page)
    page.set_viewport_size({"width": width, "height": height})
    readable(page)


@pytest.mark.parametrize("title", [None, "Forty Minutes Out"])
def test_every_screen_is_readable_by_all(page: Page, title: str | None) -> None:
    page.get_by_role("link", name="The Harbour Light", exact=True).wait_for()
    if title:
        open_routine(page, title)
        verdict_is(page, "refuted")
    readable_at_every_size(page)


def test_every_question_beside_the_sheet_is_readable_by_all(page: Page) -> None:
    open_routine(page, "The Watch Below")
    verdict_is(page, "proved")
    page.keyboard.press("Escape")
    for key, shown in (("2", "Where it lands"), ("3", "It holds, whatever they choose"), ("4", "every way to fill it"),
                       ("5", "Fails, whatever they choose")):  # fmt: skip
        page.keyboard.press(f"Alt+{key}")
        expect(page.get_by_role("tabpanel")).to_contain_text(shown, timeout=60_000)
        readable_at_every_size(page)


def test_the_rooms_around_a_performance_are_readable_by_all(page: Page) -> None:
    for room, shown in (
        ("Library", "Told pile"),
        ("Practice", "due today"),
        ("Programme", "Think of"),
        ("Book", "Your own spectators"),
    ):
        page.get_by_role("link", name=room, exact=True).click()
        expect(page.locator("#main")).to_contain_text(shown, timeout=60_000)
        readable_at_every_size(page)


def test_what_opens_on_the_bench_is_readable_by_all(page: Page) -> None:
    page.keyboard.press("F1")
    page.get_by_role("dialog", name="Keys").wait_for()
    readable_at_every_size(page)
    page.get_by_role("button", name="A first proof, in six steps").press("Enter")
    verdict_is(page, "proved")
    sheet(page).focus()
    page.keyboard.press("Control+End")
    page.keyboard.press("Control+f")
    page.get_by_role("textbox", name="Find", exact=True).fill("deck")
    readable_at_every_size(page)
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
    readable_at_every_size(page)


TABS = {
    "show": [("/show/4", "Here is the corridor."), ("/show/4?tab=setup", "LODGER in 18th"), ("/show/4?tab=reset", "another back"),
             ("/show/4?tab=costs", "You look away"), ("/show/4?tab=schools", "Instead"), ("/show/4?tab=versions", "No version has been kept yet")],
    "desks": [(f"/desks/{name}", "") for name in ("spell", "pickup", "stack", "mix", "narrow", "odds")],
    "rooms": [("/practice/1?tab=drill", "digit sum of n"), ("/practice/1?tab=rehearse", ""), ("/keep", "Back up now"), ("/notes", ""),
              ("/book?write=1", "The Harbour Light"), ("/table/1", "It follows the bench"), ("/nowhere", ""), ("/bench/999", "not on the shelf")],
}  # fmt: skip
"""addresses, and something that stands there once it is complete"""


@pytest.mark.parametrize("room", TABS)
def test_every_tab_is_readable_by_all(page: Page, address: str, room: str) -> None:
    for at, there in TABS[room]:
        page.goto(address + at)
        expect(page.locator("body")).to_contain_text(there)
        page.get_by_role("main").wait_for()
        page.wait_for_load_state("networkidle")
        readable_at_every_size(page)


def test_every_dialog_is_readable_by_all(page: Page, address: str) -> None:
    page.get_by_role("button", name="New routine").click()
    page.get_by_role("dialog", name="New routine").wait_for()
    readable_at_every_size(page)
    page.keyboard.press("Escape")
    page.get_by_role("button", name="More for The Harbour Light").click()
    tags = page.get_by_role("menuitem", name="Tags…")
    tags.wait_for()
    readable_at_every_size(page)
    tags.click()
    page.get_by_role("dialog", name="Tags of The Harbour Light").wait_for()
    readable_at_every_size(page)
    page.keyboard.press("Escape")
    page.keyboard.press("Control+k")
    page.get_by_placeholder("Find").last.wait_for()
    readable_at_every_size(page)
    page.keyboard.press("Escape")
    page.goto(f"{address}/bench/1")
    verdict_is(page, "proved")
    for keys, name in (("Alt+s", "Steps"), ("Alt+v", "Versions")):
        page.keyboard.press(keys)
        page.get_by_role("dialog", name=name).wait_for()
        readable_at_every_size(page)
        page.keyboard.press("Escape")
        expect(page.get_by_role("dialog")).to_have_count(0)


@pytest.mark.parametrize("width", [718, 740], ids=["A4", "Letter"])
def test_what_is_printed_fits_the_paper(page: Page, address: str, width: int) -> None:
    """Pixels of 1/96 inch between margins of a centimetre: 210 and 216 mm less 20."""
    for at, there in (
        ("/show/4", "Here is the corridor."),
        ("/desks/spell", "To the 11th place"),
        ("/practice/1?tab=drill", "digit sum of n"),
    ):
        page.goto(address + at)
        expect(page.locator("body")).to_contain_text(there)
        page.set_viewport_size({"width": width, "height": 1000})
        page.emulate_media(media="print")
        assert page.evaluate(RUNS_OFF) == []
        expect(page.locator(".masthead")).to_be_hidden()
        page.emulate_media(media="screen")
        page.set_viewport_size({"width": 1280, "height": 800})
