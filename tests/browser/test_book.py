"""The book, by keyboard: a performance is written down, the odds desk goes by one's own spectators, nothing is lost."""

from __future__ import annotations

import pytest
from playwright.sync_api import Page, expect

from tests.browser.hands import readable

pytestmark = pytest.mark.browser


def test_a_performance_is_written_down_and_the_odds_desk_uses_it(page: Page) -> None:
    page.keyboard.press("Control+k")
    expect(page.get_by_placeholder("Find a step or a routine")).to_be_focused()
    page.keyboard.type("Write a performance")
    page.keyboard.press("Enter")
    page.wait_for_url("**/book?write*")
    which = page.get_by_role("combobox", name="Routine", exact=True)
    expect(which).to_be_focused()
    page.keyboard.type("Harbour")
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    number = page.get_by_label("n, line 6")
    expect(number).to_be_visible()
    # A day to come is refused at its field, and what was typed stays.
    page.get_by_label("Day", exact=True).fill("2999-01-01")
    number.focus()
    page.keyboard.type("44")
    page.keyboard.press("Control+Enter")
    expect(page.get_by_text("2999-01-01 is still to come.")).to_be_visible()
    readable(page)
    page.get_by_label("Day", exact=True).fill("2026-09-20")
    page.keyboard.press("Control+Enter")
    expect(page.get_by_role("dialog")).to_have_count(0)
    expect(page.get_by_role("row", name="20 Sept 2026 The Harbour Light")).to_contain_text("n 44")
    own = page.get_by_label("Your own spectators")
    expect(own).to_contain_text("1 of 8 was outside 30 to 39: steer them at line 6, or narrow the range.")
    readable(page)
    own.get_by_role("link", name="How often it comes out with them").click()
    page.wait_for_url("**/desks/odds*")
    expect(page.get_by_label("numbers that were chosen")).to_have_value("30, 31, 33, 35, 36, 37, 37, 44")
    # Seven of eight inside: an eighth of the spectators breaks the limit.
    expect(page.get_by_text("12.50%").first).to_be_visible()


def test_an_entry_is_struck_out_put_back_and_taken_along_in_a_table(page: Page) -> None:
    page.get_by_role("link", name="Book").click()
    rows = page.get_by_role("table").first.locator("tbody tr")
    expect(rows).to_have_count(40)
    first = rows.first.inner_text()
    rows.first.get_by_role("button", name="Strike out").focus()
    page.keyboard.press("Enter")
    expect(rows).to_have_count(39)
    page.get_by_role("button", name="Put it back").click()
    expect(rows).to_have_count(40)
    assert rows.first.inner_text() == first
    table = page.request.get(page.url.replace("/book", "/api/book/book.csv")).body()
    more = table + b"2026-11-01,The Harbour Light,,,,n=31,,,,,,\r\n2026-11-01,,,,,,,,,,,\r\n"
    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name="From a table…").click()
    chooser.value.set_files({"name": "book.csv", "mimeType": "text/csv", "buffer": more})
    dialog = page.get_by_role("dialog")
    expect(dialog).to_contain_text("41 of 42 rows can be written.")
    expect(dialog).to_contain_text("Row 43: There is no routine. Write its title.")
    dialog.get_by_role("button", name="Write them down").click()
    expect(page.get_by_text("1 written; 40 were in the book already.")).to_be_visible()
    expect(rows).to_have_count(41)


def test_what_was_typed_of_an_entry_is_there_after_the_window_was_lost(page: Page) -> None:
    page.get_by_role("link", name="Write down The Harbour Light").focus()
    page.keyboard.press("Enter")
    number = page.get_by_label("n, line 6")
    number.fill("33")
    page.get_by_label("Note").fill("heavy sea")
    page.goto("about:blank")
    page.go_back()
    expect(page.get_by_label("Note")).to_have_value("heavy sea")
    expect(number).to_have_value("33")
    page.get_by_role("combobox", name="What slipped").focus()
    page.keyboard.type("card more")
    expect(page.get_by_role("option").first).to_contain_text("one card more")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Leave it").click()
    page.get_by_role("button", name="Write a performance").click()
    expect(page.get_by_label("Note")).to_have_value("")


def test_piles_that_were_pointed_to_are_written_down_in_words(page: Page) -> None:
    page.keyboard.press("Control+k")
    expect(page.get_by_placeholder("Find a step or a routine")).to_be_focused()
    page.keyboard.type("Write a performance")
    page.keyboard.press("Enter")
    expect(page.get_by_role("combobox", name="Routine", exact=True)).to_be_focused()
    page.keyboard.type("Lifeboat")
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    piles = page.get_by_role("combobox", name="the piles pointed to in line 6")
    expect(piles).to_be_visible()
    piles.focus()
    page.keyboard.type("2 and")
    expect(page.get_by_role("option", name="2 and 4")).to_be_visible()
    page.keyboard.type(" 4")
    page.get_by_label("Day", exact=True).fill("2026-09-20")
    page.keyboard.press("Control+Enter")
    expect(page.get_by_role("dialog")).to_have_count(0)
    expect(page.get_by_role("row", name="20 Sept 2026 Lifeboat Drill")).to_contain_text(
        "the piles pointed to in line 6: 2 and 4"
    )
