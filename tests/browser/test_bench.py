"""Writing a routine through the real interface: by keyboard, from suggestions, with versions, in two windows."""

from __future__ import annotations

import json
import re

import pytest
from playwright.sync_api import Page, Route, expect

from tests.browser.hands import (
    blank_page,
    headline,
    on_the_shelf,
    open_routine,
    readable,
    saved,
    sheet,
    verdict_is,
)

pytestmark = pytest.mark.browser


FEWEST = """() => {
  const parts = ['.spoken', '.gp-title', '.gp-spectator', '.gp-slot', '.gp-current', '.gp-at', '.notes'];
  const count = () => Object.fromEntries(parts.map((part) => [part, document.querySelectorAll(part).length]));
  window.fewest = window.had = count();
  const look = () => (window.fewest = Object.fromEntries(
    Object.entries(count()).map(([part, now]) => [part, Math.min(now, window.fewest[part])])));
  new MutationObserver(look).observe(document.body, { childList: true, subtree: true, attributes: true });
}"""
"""From now on, how many there ever are at least of what is to stay in view."""


def test_widen_a_range_see_it_fail_play_it_undo(page: Page) -> None:
    open_routine(page, "The Harbour Light")
    verdict_is(page, "proved")
    line = page.locator(".cm-line", has_text="names a number")
    line.click()
    expect(page.locator(".spoken")).to_contain_text("How many minutes")
    expect(page.locator(".gp-at").first).to_be_visible()
    expect(page.locator(".notes")).to_be_visible()
    page.evaluate(FEWEST)
    page.keyboard.press("End")
    page.keyboard.type(" ")
    verdict_is(page, "proved")
    # Else the cards would move, and the sheet change its type, with every key.
    had, fewest = page.evaluate("[window.had, window.fewest]")
    assert all(had.values())
    assert fewest == had, "something was taken away for a moment"
    for _ in range(3):
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


def test_what_is_told_is_played_by_hand_as_well(page: Page) -> None:
    open_routine(page, "The Harbour Light")
    verdict_is(page, "proved")
    expect(page.locator(".verdict .cover")).to_contain_text("also played 10 of 10 times by hand, card by card")
    # The newest text is played anew, and what does not hold with it.
    page.locator(".cm-line", has_text="names a number").click()
    page.keyboard.press("End")
    for _ in range(2):
        page.keyboard.press("Backspace")
    page.keyboard.type("40")
    verdict_is(page, "refuted")
    expect(page.locator(".verdict .cover")).to_contain_text("also played 11 of 11 times by hand")
    page.keyboard.press("Control+z")
    saved(page)


SAYS = "Two ways of working this out do not agree. Do not trust either"


def test_where_two_ways_of_working_it_out_do_not_agree_neither_is_told(page: Page) -> None:
    differs = "the proof says that line 6 is so, and played by hand it is not"
    opinion = {
        "played": 12,
        "of": None,
        "agrees": False,
        "says": SAYS,
        "differs": differs,
        "choices": [{"line": 4, "option": 31}],
    }
    page.route("**/api/by-hand", lambda route: route.fulfill(json={"opinion": opinion}))
    open_routine(page, "The Harbour Light")
    expect(page.locator(".verdict .headline")).to_have_text(SAYS)
    expect(page.locator(".verdict .cover")).to_have_text(
        "The proof says that line 6 is so, and played by hand it is not. The way: 31 in line 4."
    )
    expect(page.locator(".verdict")).to_have_attribute("data-verdict", "in doubt")
    with page.expect_download() as saving:
        page.get_by_role("button", name="Save a report to send").click()
    report = json.loads(saving.value.path().read_text(encoding="utf-8"))
    assert report["told"]["text"].startswith("Title: The Harbour Light")
    assert report["told"]["verdict"]["verdict"] == "proved" and report["opinion"]["differs"] == differs


def test_write_a_routine_by_keyboard_and_find_it_after_reload(page: Page) -> None:
    page.get_by_role("link", name="The Harbour Light", exact=True).wait_for()
    blank_page(page)
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


TWO_PACKETS = """Pack: 24 cards, any order
Deal deck into 2 piles
Spectator points to a pile: p
Spectator secretly cuts off k cards of pile p, k from 1 to 12, to hand
Spectator remembers the bottom card of hand: their card
Spectator puts hand on pile 3 - p
Spectator puts pile p on pile 3 - p
Put pile 3 - p on packet
Deal packet into 2 piles
Gather pile 2, pile 1 from top to bottom
Ends with: the 7th card of packet is their card"""


def test_write_by_typing_then_keep_change_and_restore_a_version(page: Page) -> None:
    open_routine(page, "Last Orders at the Bar")
    sheet(page).focus()
    page.keyboard.press("Control+a")
    for row in TWO_PACKETS.split("\n"):
        page.keyboard.type(row)
        page.keyboard.press("Escape")  # the suggestions
        sheet(page).focus()
        page.keyboard.press("Enter")
    verdict_is(page, "proved")
    assert headline(page) == "Proved: the 7th card of packet is their card, whatever they choose"
    page.keyboard.press("Alt+v")
    page.get_by_label("Keep the sheet as it stands").fill("first night")
    page.keyboard.press("Enter")
    expect(page.get_by_text("on the sheet", exact=True)).to_be_visible()
    page.keyboard.press("Escape")
    sheet(page).focus()
    page.keyboard.press("Control+a")
    page.keyboard.type("Pack: 9 cards")
    verdict_is(page, "none")
    saved(page)
    page.keyboard.press("Alt+v")
    # Whoever is quicker than the window has the focus taken away.
    expect(page.get_by_label("Keep the sheet as it stands")).to_be_focused()
    page.get_by_role("button", name="Bring back first night").press("Enter")
    verdict_is(page, "proved")
    saved(page)
    page.keyboard.press("Alt+v")
    expect(page.get_by_text("before going back to first night")).to_be_visible()


def test_export_and_import_again_give_the_same(page: Page) -> None:
    open_routine(page, "Fog Signals")
    verdict_is(page, "proved")
    before = page.locator("section.verdict .cover").inner_text().partition("assumed")[0]
    page.get_by_role("button", name="Export").click()
    with page.expect_download() as download:
        page.get_by_role("menuitem", name="JSON").click()
    assert download.value.suggested_filename == "Fog Signals.json"
    page.get_by_role("link", name="Shelf").click()
    # It is here already; once it is not, it opens on the bench.
    files = page.locator("input[type=file]").first
    files.set_input_files(
        {"name": "f.json", "mimeType": "application/json", "buffer": download.value.path().read_bytes()}
    )
    expect(page.locator("li[data-state=same]")).to_contain_text("Here already")
    page.get_by_role("button", name="Take nothing").click()
    address = page.url.rstrip("/")
    number = next(
        one["id"] for one in page.request.get(f"{address}/api/routines").json() if one["title"] == "Fog Signals"
    )
    page.request.delete(f"{address}/api/routines/{number}")
    page.request.delete(f"{address}/api/removed")
    files.set_input_files(
        {"name": "f.json", "mimeType": "application/json", "buffer": download.value.path().read_bytes()}
    )
    page.wait_for_url(re.compile("/bench/"))
    verdict_is(page, "proved")
    assert page.locator("section.verdict .cover").inner_text().partition("assumed")[0] == before
    page.get_by_role("link", name="Shelf").click()
    files.set_input_files({"name": "x.json", "mimeType": "application/json", "buffer": b'{"format": "other"}'})
    expect(page.get_by_text("x.json is not a routine")).to_be_visible()


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
    expect(page.locator("footer[data-save=trouble]")).to_be_visible()
    page.unroute("**/api/**")
    page.reload()
    expect(sheet(page)).to_contain_text("# written in the dark")
    saved(page)


def test_two_windows_keep_both_texts(page: Page, address: str) -> None:
    open_routine(page, "The Stowaway")
    other = page.context.new_page()
    other.goto(page.url)
    sheet(other).wait_for()
    # Both have written before either hears of the other: what the second sends waits until the first is saved.
    sent: list[Route] = []
    waits = [True]

    def send(route: Route) -> None:
        if waits and route.request.method == "PUT":
            sent.append(route)
        else:
            route.continue_()

    other.route("**/api/routines/*", send)
    sheet(other).focus()
    other.keyboard.press("Control+End")
    other.keyboard.type("# there")
    while not sent:
        other.wait_for_timeout(50)
    sheet(page).focus()
    page.keyboard.press("Control+End")
    page.keyboard.type("# here")
    saved(page)
    waits.clear()
    for route in sent:
        route.continue_()
    expect(other.get_by_text("This routine was changed in another window")).to_be_visible()
    other.get_by_role("button", name="Take the other").click()
    expect(sheet(other)).to_contain_text("# here")
    sheet(other).focus()
    other.keyboard.press("Control+z")
    expect(sheet(other)).to_contain_text("# there")
    saved(other)


def test_what_is_removed_from_the_shelf_is_brought_back(page: Page) -> None:
    on_the_shelf(page, "Fog Signals", "Remove")
    expect(page.get_by_role("link", name="Fog Signals", exact=True)).to_have_count(0)
    page.get_by_role("button", name="Bring it back").click()
    expect(page.get_by_role("link", name="Fog Signals", exact=True)).to_be_visible()
    page.get_by_label("Search the shelf").fill("gangway")
    expect(page.locator(".routines li")).to_have_count(1)


def test_the_shelf_is_laid_out_as_one_likes(page: Page) -> None:
    """What is pinned comes first, tags find it again, what is put away comes back, a programme is a part of its own."""
    rows = page.locator(".routines .open")
    expect(page.locator(".glimpse svg").first).to_be_visible()
    on_the_shelf(page, "Fog Signals", "Pin to the top")
    expect(rows.first).to_have_text("Fog Signals")
    on_the_shelf(page, "Four Passengers", "Tags…")
    page.keyboard.type("for children")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Keep", exact=True).click()
    page.locator(".badge-filter").get_by_text("for children", exact=True).click()
    expect(rows).to_have_text(["Four Passengers"])
    page.get_by_role("button", name="As they were").click()
    expect(rows.first).to_have_text("Fog Signals")
    on_the_shelf(page, "Two Gangways", "Put away")
    expect(page.get_by_role("link", name="Two Gangways", exact=True)).to_have_count(0)
    page.get_by_text("put away: 1").click()
    expect(rows).to_have_text(["Two Gangways"])
    on_the_shelf(page, "Two Gangways", "Take out again")
    expect(page.get_by_role("link", name="Fog Signals", exact=True)).to_be_visible()
    page.get_by_label("Parts of the shelf").select_option("by programme")
    parts = page.locator(".shelf h2")
    expect(parts.last).to_have_text("In no programme")
    expect(
        page.locator(".shelf section").last.get_by_role("link", name="Four Passengers", exact=True)
    ).to_be_visible()
    readable(page)
    page.reload()
    expect(parts.last).to_have_text("In no programme")


def test_a_first_proof_by_keyboard(page: Page) -> None:
    page.keyboard.press("Control+k")
    page.get_by_placeholder("Find").last.fill("first proof")
    page.keyboard.press("Enter")
    guide = page.get_by_role("complementary", name="A first proof")
    now = guide.locator("[aria-current=step]")
    expect(now).to_have_text("Read it")
    verdict_is(page, "proved")
    guide.get_by_role("button", name="Next").press("Enter")
    page.keyboard.press("Alt+ArrowLeft")
    expect(now).to_have_text("Spoil it")
    sheet(page).focus()
    page.keyboard.press("Control+Home")
    for _ in range(4):
        page.keyboard.press("ArrowDown")
    page.keyboard.press("End")
    page.keyboard.press("Backspace")
    page.keyboard.press("Backspace")
    page.keyboard.type("50")
    verdict_is(page, "refuted")
    page.keyboard.press("Alt+w")
    expect(now).to_have_text("Mend it")
    expect(page.locator(".remedy")).to_contain_text("n is 40 to 49")
    while sheet(page).get_by_text("40 to 49").count() == 0:
        page.keyboard.press("Control+z")
    verdict_is(page, "proved")
    expect(now).to_have_text("Take it along")
    guide.get_by_role("button", name="Done").press("Enter")
    expect(guide).to_have_count(0)
    page.reload()
    verdict_is(page, "proved")
    expect(guide).to_have_count(0)


def test_a_long_shelf_comes_bit_by_bit_in_the_order_one_likes(page: Page) -> None:
    for n in range(60):
        page.request.post("/api/routines", data={"text": f"Title: Number {n:02}\nPack: 9 cards, any order\n"})
    page.reload()
    rows = page.locator(".routines li")
    page.get_by_label("Search the shelf").fill("title: number")
    expect(rows.first).to_contain_text("Number 00")
    page.get_by_label("Order of the shelf").select_option("last changed first")
    expect(rows.first).to_contain_text("Number 59")
    expect(rows.first).to_contain_text("Still being written")
    for left in (40, 20):
        page.get_by_role("button", name=f"More: {left} of 60").scroll_into_view_if_needed()
        expect(rows).to_have_count(80 - left)
    page.get_by_label("Search the shelf").fill("title: number 07")
    expect(rows).to_have_count(1)


def test_a_face_you_do_not_know_is_told_at_its_line(page: Page) -> None:
    page.get_by_role("link", name="The Harbour Light", exact=True).wait_for()
    blank_page(page)
    sheet(page).focus()
    page.keyboard.press("Control+a")
    page.keyboard.insert_text(
        "Pack: 52 cards, any order\nSpectator thinks of a card in deck: their card\n"
        "Spectator secretly thinks of a number n from 1 to 9\nDeal value of their card cards from deck\nDeal n cards from deck"
    )
    notes = page.locator(".gp-fault-note")
    expect(notes.first).to_contain_text("You do not know what their card is")
    sheet(page).focus()
    page.keyboard.press("ArrowUp")
    page.keyboard.press("Home")
    page.keyboard.insert_text("Spectator names their card\n")
    expect(notes).to_have_count(1)
    expect(notes).to_contain_text("You do not know n")
