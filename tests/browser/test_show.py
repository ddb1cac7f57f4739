"""From the bench to the show through the real interface."""

from __future__ import annotations

import pytest
from playwright.sync_api import Page, expect

from tests.browser.hands import open_routine, saved, select_line, sheet, verdict_is

pytestmark = pytest.mark.browser


def test_from_the_shelf_to_a_printed_cue_sheet_in_four_actions(page: Page) -> None:
    """Show, and the PDF: two; the pocket size and the set-up are one more each."""
    page.get_by_role("link", name="Show Fog Signals").click()
    expect(page.locator(".paper")).to_contain_text("How many blasts of the horn?")
    with page.expect_download() as download:
        page.get_by_role("link", name="PDF", exact=True).click()
    assert download.value.suggested_filename == "Fog Signals.cues.pdf"
    assert download.value.path().read_bytes().startswith(b"%PDF")
    page.get_by_role("tab", name="Set-up").click()
    expect(page.locator(".paper")).to_contain_text("Put HORN on top.")
    with page.expect_download() as download:
        page.get_by_role("link", name="Markdown").click()
    assert download.value.path().read_text(encoding="utf-8").startswith("# Fog Signals: Set-up")
    page.get_by_role("tab", name="Reset").click()
    expect(page.locator(".paper")).to_contain_text("Getting ready again")


def test_a_refuted_routine_says_so_on_its_sheet(page: Page) -> None:
    page.get_by_role("link", name="Show Forty Minutes Out").click()
    expect(page.locator(".paper .warning")).to_contain_text("Not to be relied upon. Fails when n is 40")


def test_costs_follow_the_table_and_the_paces(page: Page) -> None:
    page.get_by_role("link", name="Show The Cabin Corridor").click()
    page.get_by_role("tab", name="What it costs").click()
    room = page.get_by_role("region", name="The table")
    expect(room).to_contain_text("It fits: 579 mm at its widest")
    room.get_by_label("Table, mm wide").fill("400")
    expect(room).to_contain_text("It does not fit")
    expect(room).to_contain_text("Overlap the cards by")
    room.get_by_label("Laid in rows").fill("2")
    expect(room).to_contain_text("It fits: 315 mm at its widest, 188 mm deep")
    effort = page.get_by_role("region", name="Effort")
    before = effort.locator(".sum-up b").inner_text()
    effort.get_by_text("Your paces, in seconds").click()
    effort.get_by_label("a word said").fill("2")
    effort.get_by_role("button", name="Reckon with these").click()
    expect(effort.locator(".sum-up b")).not_to_have_text(before)
    page.reload()
    expect(effort.locator(".sum-up b")).not_to_have_text(before)


def test_what_may_be_said_is_written_into_the_routine_and_a_school_after_it(page: Page) -> None:
    page.get_by_role("link", name="Show Lifeboat Drill").click()
    expect(page.locator(".paper")).to_contain_text("for instance: “Point to 2 of the piles.”")
    page.get_by_role("button", name="Write what may be said into the routine").click()
    verdict_is(page, "proved")
    expect(sheet(page)).to_contain_text("“Point to 2 of the piles.”")
    saved(page)
    page.get_by_role("link", name="Show", exact=True).click()
    expect(page.locator(".paper")).not_to_contain_text("for instance")
    page.get_by_role("tab", name="Other schools").click()
    row = page.get_by_role("row", name="a count instead of magician’s choice")
    expect(row).to_contain_text("No longer: at a distance, hands off", timeout=60_000)
    row.get_by_role("button", name="Write it").click()
    verdict_is(page, "proved")
    expect(sheet(page)).to_contain_text("Deal 4 cards from pile 2 to counted")
    page.keyboard.press("Control+z")
    expect(sheet(page)).to_contain_text("“Point to 2 of the piles.”")


def test_long_work_is_stopped_and_gone_on_with(page: Page) -> None:
    # A text that is new: what a worker was asked before it answers at once.
    routines = page.request.get("/api/routines").json()
    bells = next(one for one in routines if one["title"] == "Three Bells")
    written = {"text": f"{bells['text']}\n# not asked before\n", "revision": bells["revision"]}
    assert page.request.put(f"/api/routines/{bells['id']}", data=written).ok
    page.reload()
    page.get_by_role("link", name="Show Three Bells").click()
    page.get_by_role("tab", name="Other schools").click()
    page.get_by_role("button", name="Stop").click()
    expect(page.get_by_role("alert")).to_contain_text("The search was stopped.")
    page.get_by_role("button", name="Go on").click()
    expect(page.get_by_role("status")).to_contain_text("Proving the other schools")


def test_two_versions_are_compared_and_one_is_brought_back(page: Page) -> None:
    open_routine(page, "The Harbour Light")
    verdict_is(page, "proved")
    page.keyboard.press("Alt+v")
    page.get_by_label("Keep the sheet as it stands").fill("up to 39")
    page.keyboard.press("Enter")
    page.get_by_text("Kept as “up to 39”.").wait_for()
    page.keyboard.press("Escape")
    page.locator(".cm-line", has_text="n from 30").click()
    select_line(page)
    page.keyboard.insert_text("Spectator names a number n from 30 to 40")
    verdict_is(page, "refuted")
    saved(page)
    page.get_by_role("link", name="Show", exact=True).click()
    page.get_by_role("tab", name="Versions").click()
    sides = page.get_by_role("table", name="What each comes to")
    expect(sides).to_contain_text("Fails when n is 40", timeout=60_000)
    expect(sides).to_contain_text("Proved")
    expect(page.locator(".diff tr.changed")).to_have_count(1)
    page.get_by_role("button", name="Bring up to 39 back").click()
    verdict_is(page, "proved")
    expect(sheet(page)).to_contain_text("from 30 to 39")


def test_whoever_comes_back_from_show_stands_at_the_same_line(page: Page) -> None:
    open_routine(page, "The Harbour Light")
    verdict_is(page, "proved")
    page.locator(".cm-line", has_text="Put the dealt cards back").click()
    expect(page.locator(".table-panel .when")).to_contain_text("Put the dealt cards back")
    page.get_by_role("link", name="Show", exact=True).press("Enter")
    page.get_by_role("link", name="to the bench").press("Enter")
    expect(page.locator(".table-panel .when")).to_contain_text("Put the dealt cards back")
    expect(page.locator(".gp-current")).to_contain_text("Put the dealt cards back")
    expect(sheet(page)).to_be_focused()
