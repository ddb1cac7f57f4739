"""The main paths through the real interface, on a real server, by keyboard wherever a performer would."""

from __future__ import annotations

import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

pytestmark = pytest.mark.browser

AXE = Path(__file__).parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js"


def verdict_is(page: Page, kind: str) -> None:
    page.locator(f'section.verdict[data-old=false][data-verdict="{kind}"]').wait_for(timeout=15_000)


def headline(page: Page) -> str:
    return page.locator("section.verdict .headline").inner_text()


def open_routine(page: Page, title: str) -> None:
    page.get_by_role("link", name=title).click()
    page.locator(".cm-content").wait_for()


def sheet(page: Page):  # type: ignore[no-untyped-def]
    return page.get_by_label("The routine, one sentence a line")


def saved(page: Page) -> None:
    expect(page.locator("footer[data-save=saved]")).to_be_visible()


def test_widen_a_range_see_it_fail_play_it_undo(page: Page) -> None:
    open_routine(page, "The Harbour Light")
    verdict_is(page, "proved")
    line = page.locator(".cm-line", has_text="names a number")
    line.click()
    page.keyboard.press("End")
    page.keyboard.press("Backspace")
    page.keyboard.press("Backspace")
    page.keyboard.type("40")
    verdict_is(page, "refuted")
    assert "n is 40" in headline(page)
    page.keyboard.press("Alt+w")
    expect(page.locator(".table-panel .when")).to_contain_text("LANTERN is 13th but the count ends at 4")
    expect(page.locator(".choice b")).to_contain_text("40")
    expect(page.locator(".remedy")).to_contain_text("Holds exactly when n is 30 to 39.")
    sheet(page).focus()
    for _ in range(6):
        page.keyboard.press("Control+z")
    verdict_is(page, "proved")
    saved(page)


def test_write_a_routine_by_keyboard_and_find_it_after_reload(page: Page) -> None:
    page.get_by_role("link", name="The Harbour Light").wait_for()
    page.keyboard.press("Control+k")
    page.keyboard.type("New routine")
    page.keyboard.press("Enter")
    page.wait_for_url(re.compile("/bench/"))
    sheet(page).focus()
    page.keyboard.press("Control+a")
    rows = [
        "Pack: 20 cards, any order",
        "Place BUOY 8th",
        "Spectator names a number n from 8 to 15",
        "Deal n cards from deck",
        "Ends with: the card at position n - 7 of dealt is BUOY",
    ]
    for row in rows:
        page.keyboard.type(row)
        page.keyboard.press("Enter")
    verdict_is(page, "proved")
    saved(page)
    page.reload()
    verdict_is(page, "proved")
    expect(sheet(page)).to_contain_text("names a number n from 8 to 15")
    page.get_by_role("link", name="Shelf").click()
    expect(page.get_by_text("Proved: the card at position n - 7 of dealt is BUOY")).to_be_visible()


def test_the_digit_sum_is_refuted_at_exactly_twenty(page: Page) -> None:
    file = Path(__file__).parents[1] / "procedures" / "p13_digit_sum.pivot"
    page.locator("input[type=file]").set_input_files(
        {"name": "copy.pivot", "mimeType": "text/plain", "buffer": file.read_bytes().replace(b"to 19", b"to 20")}
    )
    verdict_is(page, "refuted")
    assert headline(page).startswith("Fails when n is 20:")
    expect(page.locator(".remedy")).to_contain_text("Holds exactly when n is 10 to 19.")


def test_a_suggestion_is_taken_and_its_gaps_filled_in_turn(page: Page) -> None:
    open_routine(page, "Last Orders at the Bar")
    sheet(page).focus()
    page.keyboard.press("Control+End")
    page.keyboard.press("Enter")
    page.keyboard.type("Place BUOY ")
    page.locator(".cm-tooltip-autocomplete").wait_for()
    page.keyboard.press("Tab")
    expect(sheet(page)).to_contain_text("Place BUOY ?th")
    page.keyboard.type("3")
    expect(sheet(page)).to_contain_text("Place BUOY 3th")


def test_a_fault_stands_at_its_line_and_nothing_is_lost(page: Page) -> None:
    open_routine(page, "Last Orders at the Bar")
    expect(page.locator(".gp-fault-note")).to_contain_text("The sentence is not finished")
    sheet(page).focus()
    page.keyboard.press("Control+End")
    page.keyboard.type("xyz")
    saved(page)
    page.reload()
    expect(sheet(page)).to_contain_text("xyz")


def test_a_text_written_while_the_server_is_down_is_not_lost(page: Page) -> None:
    open_routine(page, "The Stowaway")
    verdict_is(page, "rule")
    page.route("**/api/**", lambda route: route.abort())
    sheet(page).focus()
    page.keyboard.press("Control+End")
    page.keyboard.type("# written in the dark")
    expect(page.locator("footer[data-save=offline]")).to_be_visible()
    page.unroute("**/api/**")
    page.reload()
    expect(sheet(page)).to_contain_text("# written in the dark")
    saved(page)


@pytest.mark.parametrize("scheme", ["light", "dark"])
@pytest.mark.parametrize("title", [None, "Forty Minutes Out"])
def test_every_screen_is_readable_by_all(page: Page, scheme: str, title: str | None) -> None:
    page.emulate_media(color_scheme=scheme)  # type: ignore[arg-type]
    page.reload()
    page.get_by_role("link", name="The Harbour Light").wait_for()
    if title:
        open_routine(page, title)
        verdict_is(page, "refuted")
    # The content security policy forbids adding a script element: evaluate the checker in the page instead.
    page.evaluate(AXE.read_text(encoding="utf-8"))
    found = page.evaluate("axe.run({ runOnly: ['wcag2a', 'wcag2aa'] })")
    assert [(v["id"], [n["target"] for n in v["nodes"]]) for v in found["violations"]] == []
