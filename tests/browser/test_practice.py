"""Practice by keyboard: a drill, and a rehearsal from memory with an answer that is wrong."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect

from golden_pivot.core.language.parser import read_routine
from golden_pivot.demo import demo_text
from tests.browser.hands import readable

pytestmark = pytest.mark.browser


def test_what_is_due_is_asked_by_keyboard_and_written_down(page: Page) -> None:
    page.get_by_role("link", name="Practice").click()
    expect(page.get_by_text("5 due today")).to_be_visible()
    readable(page)
    page.get_by_role("link", name="Drill The Harbour Light").focus()
    page.keyboard.press("Enter")
    how_far = page.locator(".how-far")
    # Five that are due and five new ones; the first is answered wrongly, so that it comes once more.
    for nth in range(11):
        expect(how_far).to_contain_text(f"{nth + 1} of 1")
        field = page.get_by_role("textbox")
        expect(field).to_be_focused()
        number = int(page.locator(".known").inner_text().removeprefix("n is "))
        right = number // 10 + number % 10
        page.keyboard.type(str(right if nth else right + 1))
        page.keyboard.press("Enter")
        expect(page.locator(".told")).to_contain_text("Right." if nth else f"It is {right}.")
        if nth == 0:
            readable(page)
        page.keyboard.press("Enter")
    expect(page.get_by_text("10 of 11 right.")).to_be_visible()
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Nothing is due")).to_be_visible()
    expect(page.get_by_text("10 of 10 were asked so far")).to_be_visible()
    readable(page)


def test_a_pause_stops_the_clock_and_the_question_stays(page: Page) -> None:
    page.goto(page.url.rstrip("/") + "/practice/1?go")
    expect(page.get_by_role("textbox")).to_be_focused()
    asked = page.locator(".known").inner_text()
    page.keyboard.press("Escape")
    expect(page.get_by_text("The clock stands still.")).to_be_visible()
    page.keyboard.press("Enter")
    expect(page.locator(".known")).to_have_text(asked)


def test_a_rehearsal_from_memory_with_one_wrong_answer(page: Page) -> None:
    """Two actions from the shelf: Rehearse, Begin."""
    lines = [line.text.strip() for line in read_routine(demo_text("harbour_light")).walk() if line.kind]
    page.get_by_role("link", name="Rehearse The Harbour Light").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Begin")).to_be_focused()
    readable(page)
    page.get_by_text("from memory").click()
    page.get_by_role("button", name="Begin").focus()
    page.keyboard.press("Enter")
    number = None
    beats = ["Spectator names", "Deal n cards", "Put the dealt", "Deal digit sum", "Ends with"]
    for nth, begins in enumerate(beats):
        expect(page.locator(".how-far")).to_contain_text(f"{nth + 1} of {len(beats)}")
        expect(page.get_by_text("What comes next?")).to_be_visible()
        options = [words.split(" ", 1)[1] for words in page.locator(".options button").all_inner_texts()]
        assert set(options) <= set(lines)
        page.keyboard.press(str(next(at for at, words in enumerate(options, 1) if words.startswith(begins))))
        expect(page.locator(".told")).to_contain_text("Right.")
        page.keyboard.press("Enter")
        if begins == "Deal digit sum":
            expect(page.get_by_role("textbox")).to_be_focused()
            assert number is not None
            page.keyboard.type("99")
            page.keyboard.press("Enter")
            expect(page.locator(".told")).to_contain_text(f"It is {number // 10 + number % 10}.")
            page.keyboard.press("Enter")
        expect(page.get_by_role("button", name="Done")).to_be_focused()
        if nth == 0:
            found = re.search(r"n is (\d+)", page.locator(".heard").inner_text())
            assert found
            number = int(found[1])
            readable(page)
        page.keyboard.press("Space")
    summary = page.get_by_label("How it went")
    expect(summary).to_contain_text("It comes out.")
    assert number is not None
    expect(summary).to_contain_text(f"line 10: digit sum of n: {number // 10 + number % 10}; you said 99")
    expect(summary).to_contain_text("5 of 6 answers right")
    expect(summary).to_contain_text("Rehearsed 2 times, last today")
    readable(page)
    page.get_by_role("link", name="Shelf").click()
    expect(
        page.locator(".routines li", has=page.get_by_role("link", name="The Harbour Light", exact=True))
    ).to_contain_text("rehearsed today")


def test_what_a_desk_found_is_learned_by_heart_by_keyboard(page: Page) -> None:
    """Who drops it can put it back, with what was answered."""
    page.get_by_role("link", name="Desks").click()
    learn = page.get_by_role("button", name="Learn it by heart")
    expect(learn).to_be_enabled()
    learn.focus()
    page.keyboard.press("Enter")
    expect(page.get_by_label("Call it")).to_be_focused()
    page.keyboard.type("To the eleventh")
    page.keyboard.press("Enter")
    page.wait_for_url("**/practice/desk/*")
    expect(page.get_by_role("button", name="Ask what is due (12)")).to_be_focused()
    readable(page)
    page.keyboard.press("Enter")
    name = page.locator(".known").inner_text()
    options = page.locator(".options button")
    # By its letters: the words that come to the eleventh card with the last of them or just behind it.
    words = [text.split(" ", 1)[1] if text[0].isdigit() else text for text in options.all_inner_texts()]
    right = next(
        nth for nth, text in enumerate(words, 1) if "“" in text
        and sum(letter.isalpha() for letter in text.split("“")[1].split("”")[0]) + ("next" in text) == 11
    )  # fmt: skip
    page.keyboard.press(str(right))
    expect(page.locator(".told")).to_contain_text("Right.")
    page.get_by_role("button", name="Stop here").click()
    expect(page.get_by_role("row", name=name)).to_contain_text("1 of 1")
    page.get_by_role("button", name="Learn it no longer").click()
    expect(page.get_by_role("link", name="To the eleventh")).to_have_count(0)
    page.get_by_role("button", name="Put it back").click()
    page.get_by_role("link", name="To the eleventh", exact=True).click()
    expect(page.get_by_role("row", name=name)).to_contain_text("1 of 1")
