"""What a hand does on the bench, by keyboard wherever a performer would."""

from __future__ import annotations

import re
from pathlib import Path

from playwright.sync_api import Page, expect

AXE = Path(__file__).parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js"


def select_line(page: Page) -> None:
    """The line of the cursor, one without a margin. The first key goes to where it is broken on the screen, the second further."""
    for key in ("Home", "Home", "Shift+End", "Shift+End"):
        page.keyboard.press(key)


def verdict_is(page: Page, kind: str) -> None:
    expect(page.locator(f'section.verdict[data-old=false][data-verdict="{kind}"]')).to_be_visible()


def headline(page: Page) -> str:
    return page.locator("section.verdict .headline").inner_text()


def open_routine(page: Page, title: str) -> None:
    page.get_by_role("link", name=title, exact=True).click()
    page.locator(".cm-content").wait_for()


def sheet(page: Page):  # type: ignore[no-untyped-def]
    return page.get_by_label("The routine, one sentence a line")


def saved(page: Page) -> None:
    expect(page.locator("footer[data-save=saved]")).to_be_visible()


def blank_page(page: Page) -> None:
    """A new routine, by keyboard."""
    page.keyboard.press("Control+k")
    expect(page.get_by_placeholder("Find a step or a routine")).to_be_focused()
    page.keyboard.type("New routine")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="A blank page")).to_be_focused()
    page.keyboard.press("Enter")
    page.wait_for_url(re.compile("/bench/"))
    sheet(page).wait_for()


def insert_step(page: Page, sought: str) -> None:
    """From the list of steps, by keyboard: search, go to the first one found, take it."""
    page.keyboard.press("Alt+s")
    expect(page.get_by_label("Search the steps")).to_be_focused()
    page.keyboard.insert_text(sought)
    expect(page.get_by_label("Search the steps")).to_have_value(sought)
    found = page.locator(".step-family button")
    expect(found).to_have_count(1)
    page.keyboard.press("Tab")
    expect(found).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.get_by_label("Search the steps")).to_have_count(0)
    expect(sheet(page)).to_be_focused()


PROCEDURES = Path(__file__).parents[1] / "procedures"


def type_routine(page: Page, name: str) -> None:
    """Typed line by line, with the margins a performer would make."""
    page.get_by_role("link", name="The Harbour Light", exact=True).wait_for()
    blank_page(page)
    sheet(page).focus()
    page.keyboard.press("Control+a")
    page.keyboard.press("Backspace")
    for row in (PROCEDURES / f"{name}.pivot").read_text(encoding="utf-8").splitlines():
        # Over the margin that the editor made.
        page.keyboard.press("Home")
        page.keyboard.press("Shift+End")
        page.keyboard.insert_text(row)
        page.keyboard.press("Enter")


def on_the_shelf(page: Page, title: str, what: str) -> None:
    """What is done less often with a routine stands in a menu of its row."""
    page.get_by_role("button", name=f"More for {title}").click()
    page.get_by_role("menuitem", name=what).click()


RUNS_OFF = """() => [...document.querySelectorAll('body *')].filter((one) => {
  const box = one.getBoundingClientRect();
  if (!box.width || box.right <= innerWidth + 1) return false;
  for (let around = one.parentElement; around; around = around.parentElement)
    if (getComputedStyle(around).overflowX !== 'visible' && around.getBoundingClientRect().right <= innerWidth + 1) return false;
  return true;
}).map((one) => one.outerHTML.slice(0, 120))"""
"""what sticks out of the window on the right, and is in nothing that scrolls"""


MOVES = "() => document.getAnimations().some((one) => one instanceof CSSTransition && one.playState === 'running')"


def nothing_runs_off(page: Page) -> None:
    """Colours that change slowly and messages that slide in are waited for."""
    for waited in range(100):
        if not page.evaluate(RUNS_OFF) and (waited > 10 or not page.evaluate(MOVES)):
            break
        page.wait_for_timeout(50)
    assert page.evaluate(RUNS_OFF) == []


def readable(page: Page) -> None:
    """Nothing on the screen keeps anybody from reading it, and nothing runs off the window."""
    nothing_runs_off(page)
    if not page.evaluate("'axe' in window"):
        # The content security policy forbids adding a script element: the checker is evaluated in the page instead.
        page.evaluate(AXE.read_text(encoding="utf-8"))
    found = page.evaluate("axe.run({ runOnly: ['wcag2a', 'wcag2aa'], resultTypes: ['violations'] })")
    problems = [(v["id"], [n["target"] for n in v["nodes"]]) for v in found["violations"]]
    assert not problems, problems
