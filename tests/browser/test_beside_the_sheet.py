"""What stands beside the sheet: the table, the questions, odds and notes."""

from __future__ import annotations

import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, Route, expect

from tests.browser.hands import (
    PROCEDURES,
    headline,
    open_routine,
    readable,
    select_line,
    sheet,
    verdict_is,
)

pytestmark = pytest.mark.browser


def test_the_digit_sum_is_refuted_at_exactly_twenty(page: Page) -> None:
    file = Path(__file__).parents[1] / "procedures" / "p13_digit_sum.pivot"
    page.locator("input[type=file]").first.set_input_files(
        {"name": "copy.pivot", "mimeType": "text/plain", "buffer": file.read_bytes().replace(b"to 19", b"to 20")}
    )
    verdict_is(page, "refuted")
    assert headline(page).startswith("Fails when n is 20:")
    expect(page.locator(".remedy")).to_contain_text("Holds exactly when n is 10 to 19.")


def test_a_slip_is_tried_on_the_sheet_and_taken_back(page: Page) -> None:
    open_routine(page, "The Harbour Light")
    verdict_is(page, "proved")
    page.get_by_role("tab", name="What breaks", exact=True).click()
    row = page.get_by_role("row").filter(has_text="one above the range")
    expect(row).to_contain_text("Fails on 1 of 11 paths")
    expect(page.locator(".gp-strict").first).to_be_visible()
    row.get_by_role("button", name="Try it").click()
    verdict_is(page, "refuted")
    expect(page.locator("section.verdict .cover")).to_contain_text("holds on 10 of 11 paths")
    # The way it fails is told under When, and one button writes the range back.
    page.get_by_role("tab", name="When", exact=True).click()
    expect(page.get_by_label("When it holds").last).to_contain_text("n is 30 to 39")
    page.get_by_role("button", name="Narrow the ranges to that").click()
    verdict_is(page, "proved")
    sheet(page).focus()
    page.keyboard.press("Control+z")
    verdict_is(page, "refuted")
    page.keyboard.press("Control+z")
    verdict_is(page, "proved")


def test_blanks_are_filled_from_the_list_of_answers(page: Page) -> None:
    open_routine(page, "The Harbour Light")
    verdict_is(page, "proved")
    page.locator(".cm-line", has_text="28th from").click()
    select_line(page)
    page.keyboard.insert_text("Place LANTERN ?th")
    page.get_by_role("tab", name="What would", exact=True).click()
    expect(page.get_by_role("tabpanel")).to_contain_text("1 of 52 ways work", timeout=60_000)
    page.get_by_role("button", name="Write it").click()
    verdict_is(page, "proved")
    expect(sheet(page)).to_contain_text("Place LANTERN 28th")


def test_a_sweep_is_a_row_of_verdicts(page: Page) -> None:
    open_routine(page, "The Harbour Light")
    verdict_is(page, "proved")
    page.get_by_role("tab", name="When", exact=True).click()
    page.get_by_role("combobox", name="Change this number").fill("line 4")
    expect(page.get_by_role("option").first).to_be_visible()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    page.get_by_label("to each of").first.fill("26 to 30")
    page.get_by_role("button", name="Prove them all").click()
    expect(page.get_by_role("table", name="Verdict for each number")).to_be_visible(timeout=60_000)
    expect(page.get_by_role("tabpanel")).to_contain_text("1 of 5 cases come out")
    expect(page.get_by_label("28: proved, 10 paths, 1st in dealt")).to_be_visible()


def test_the_hand_changes_the_path_on_the_table(page: Page) -> None:
    open_routine(page, "The Watch Below")
    verdict_is(page, "proved")
    thought_of = page.locator(".choice", has_text="their card, secret")
    thought_of.get_by_role("slider").focus()
    page.keyboard.press("End")
    expect(thought_of.locator("b")).to_contain_text("27th in deck")
    page.get_by_role("button", name="as a table").click()
    expect(page.locator(".strands-table tbody tr").first).to_contain_text("deck 1")
    page.keyboard.press("Alt+a")
    expect(page.locator(".table-panel .when")).to_contain_text("after line 12")
    page.keyboard.press("Alt+ArrowLeft")
    expect(page.locator(".table-panel .when")).to_contain_text("after line 11, time 3")


def test_the_table_in_a_window_of_its_own_follows_the_bench_and_leads_it(page: Page) -> None:
    open_routine(page, "Forty Minutes Out")
    verdict_is(page, "refuted")
    page.keyboard.press("Alt+w")
    expect(page.locator(".table-panel .figures").first).to_have_text("5 of 5")
    with page.expect_popup() as opened:
        page.get_by_role("button", name="The table in a window of its own").press("Enter")
    alone = opened.value
    expect(alone.locator(".table-panel .figures").first).to_have_text("5 of 5")
    alone.keyboard.press("ArrowLeft")
    expect(page.locator(".table-panel .when")).to_contain_text("after line 9")
    expect(alone.locator(".table-panel .when")).to_contain_text("after line 9")
    readable(alone)
    page.bring_to_front()
    page.keyboard.press("Alt+ArrowLeft")
    expect(alone.locator(".table-panel .when")).to_contain_text("after line 8")
    page.get_by_role("button", name="closer lines").press("Enter")
    page.reload()
    expect(page.get_by_role("button", name="closer lines", pressed=True)).to_be_visible()
    page.close()
    alone.reload()
    expect(alone.get_by_role("main")).to_contain_text("It follows the bench")


def test_a_shuffle_is_one_control_and_each_of_its_choices_comes_on_demand(page: Page) -> None:
    text = b"Pack: 12 cards, any order\nPlace FORCE on top\nSpectator shuffles deck\nDeal deck into 3 piles\n\
Spectator points to a pile: p\nSpectator gathers the piles in any order\nEnds with: FORCE is in deck\n"
    page.locator("input[type=file]").first.set_input_files(
        {"name": "mix.pivot", "mimeType": "text/plain", "buffer": text}
    )
    verdict_is(page, "proved")
    shuffle = page.get_by_role("group", name="line 3: Spectator shuffles deck, secret")
    expect(shuffle).to_contain_text("each the first")
    expect(shuffle.get_by_role("slider")).to_have_count(0)
    shuffle.get_by_role("button", name="Another", exact=True).click()
    expect(shuffle).to_contain_text("shuffled")
    shuffle.get_by_role("button", name="All 12").press("Enter")
    first = shuffle.get_by_role("slider").first
    page.get_by_role(
        "combobox", name="line 6: the order of the piles"
    ).click()  # a gather is one as well, and stays by itself
    unanswered: list[Route] = []
    page.route("**/api/play", lambda route: unanswered.append(route))
    page.get_by_role("option", name="3, 2 and 1 from the top").click()
    first.focus()
    page.keyboard.press("End")  # before the table has followed the choice before it
    expect(first).to_have_attribute("aria-valuenow", "12")
    page.unroute("**/api/play")  # lets them through
    expect(shuffle).to_contain_text("shuffled")
    shuffle.get_by_role("button", name="Plainest", exact=True).click()
    expect(shuffle).to_contain_text("each the first")
    expect(page.get_by_role("combobox", name="line 6: the order of the piles")).to_have_value(
        "3, 2 and 1 from the top"
    )
    pointing = page.get_by_role("radiogroup", name=re.compile("^line 5: "))
    expect(pointing.get_by_role("radio")).to_have_count(3)
    pointing.get_by_role("radio").first.press("ArrowRight")
    expect(pointing.get_by_role("radio").nth(1)).to_be_checked()
    expect(shuffle).to_contain_text("each the first")
    expect(page.locator(".table-panel .when em")).to_have_text("Ends with: FORCE is in deck")


def test_a_search_that_takes_long_can_be_stopped(page: Page) -> None:
    # Two counts through one pack: a proof is out of reach.
    endless = (PROCEDURES / "p23_kruskals_count.pivot").read_bytes()
    page.locator("input[type=file]").first.set_input_files(
        {"name": "long.pivot", "mimeType": "text/plain", "buffer": endless}
    )
    page.get_by_role("button", name="Stop").click()
    expect(page.locator("section.verdict")).to_contain_text("The search was stopped")
    sheet(page).focus()
    page.keyboard.press("Control+a")
    page.keyboard.type("Pack: 9 cards\nPlace A 2nd")
    verdict_is(page, "fixed")


def test_odds_notes_and_badges(page: Page) -> None:
    page.get_by_label("Show only routines that are").get_by_text("hands off").click()
    expect(page.get_by_role("link", name="The Harbour Light", exact=True)).to_have_count(0)
    page.get_by_label("Show only routines that are").get_by_text("hands off").click()
    open_routine(page, "Three Bells")
    verdict_is(page, "proved")
    expect(page.get_by_label("Odds of ending")).to_contain_text("14.58 %")
    page.get_by_text("You may say").click()
    open_line = page.locator(".notes details", has_text="To remember")
    if open_line.count():
        open_line.locator("summary").click()
    page.get_by_role("link", name="Shelf").click()
    open_routine(page, "The Purser’s Count")
    verdict_is(page, "proved")
    # Unshielded, the back shows at the line that deals it.
    line = page.locator(".cm-line", has_text="shielded")
    line.click(position={"x": 60, "y": 8})
    page.keyboard.press("End")
    page.keyboard.press("End")
    for _ in ", shielded":
        page.keyboard.press("Backspace")
    expect(page.locator(".cm-line", has_text="shielded")).to_have_count(0)
    verdict_is(page, "refuted")
    expect(page.locator(".gp-shows").first).to_contain_text("the back of LODGER shows")
