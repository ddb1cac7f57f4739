"""Retakes docs/screenshots/ from the demo data at 1280×800. `shots.py NAME …` takes only those."""

from __future__ import annotations

import sys
import tempfile
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page, expect
from tests.browser.driving import chromium, server
from tests.browser.hands import on_the_shelf

FOLDER = Path(__file__).parents[1] / "docs" / "screenshots"


def shelf(page: Page) -> None:
    page.get_by_role("link", name="The Harbour Light", exact=True).wait_for()
    expect(page.get_by_text("Proving…")).to_have_count(0, timeout=60_000)


def bench(title: str, *, worst: bool = False) -> Callable[[Page], None]:
    def show(page: Page) -> None:
        page.get_by_role("link", name=title, exact=True).click()
        page.locator("section.verdict[data-old=false]:not([data-verdict=none])").wait_for()
        if worst:
            page.get_by_role("button", name="Worst case").click()
            page.wait_for_timeout(700)
            page.get_by_role("button", name="Play", exact=True).wait_for(timeout=20_000)
        page.wait_for_timeout(700)

    return show


def writing(page: Page) -> None:
    """In everyday words: what is read, what is asked, and a sentence that is suggested."""
    page.get_by_role("link", name="Last Orders at the Bar", exact=True).click()
    page.locator(".gp-fault-note").wait_for()
    page.get_by_label("The routine, one sentence a line").click()
    page.keyboard.press("Control+a")
    page.keyboard.insert_text(
        "Title: Last Orders at the Bar\nPack: 52 cards, any order\nPut the queen of hearts tenth from the top\n"
        "She calls out something in the teens\nDeal that many onto the table and drop them back on the pack\nCount off ten\n"
    )
    page.locator(".gp-read-as").first.wait_for()
    page.keyboard.type("Turn the ")
    page.locator(".cm-tooltip-autocomplete").wait_for()
    page.wait_for_timeout(1500)


def asked(title: str, question: str, name: str) -> Callable[[Page], None]:
    """One of the questions beside the sheet, answered."""

    def show(page: Page) -> None:
        bench(title)(page)
        page.get_by_role("tab", name=question, exact=True).click()
        page.get_by_role("region", name=name).wait_for()
        expect(page.locator(".variants .mantine-Loader-root")).to_have_count(0, timeout=60_000)
        page.wait_for_timeout(400)

    return show


def with_blanks(page: Page) -> None:
    bench("The Harbour Light")(page)
    for was, row in (("28th from", "Place LANTERN ?th"), ("n from 30", "Spectator names a number n from ? to ?")):
        page.locator(".cm-line", has_text=was).click()
        page.keyboard.press("Home")
        page.keyboard.press("Shift+End")
        page.keyboard.insert_text(row)
    asked_for = page.get_by_role("tab", name="What would", exact=True)
    asked_for.click()
    page.get_by_label("Blank 1, line 4").fill("26 to 30")
    page.get_by_role("button", name="Try these").click()
    page.get_by_role("table", name="Answers").wait_for(timeout=60_000)
    page.wait_for_timeout(400)


def desk(name: str) -> Callable[[Page], None]:
    def show(page: Page) -> None:
        page.goto(f"{page.url.rstrip('/')}/desks/{name}")
        page.locator(".told[data-old=false]").wait_for()
        page.wait_for_timeout(500)

    return show


def shown(title: str, tab: str, seen: str) -> Callable[[Page], None]:
    def show(page: Page) -> None:
        page.get_by_role("link", name=f"Show {title}").click()
        page.get_by_role("tab", name=tab).click()
        expect(page.get_by_role("tabpanel")).to_contain_text(seen, timeout=20_000)
        page.wait_for_timeout(500)

    return show


def practice(page: Page) -> None:
    """A drill in the middle: the first answer was wrong, and the rule is told."""
    page.get_by_role("link", name="Practice").click()
    page.get_by_role("link", name="Drill The Harbour Light").click()
    page.locator(".question").wait_for()
    if page.get_by_role("textbox").count():  # which question is the first due goes by the day
        page.get_by_role("textbox").fill("3")
        page.keyboard.press("Enter")
    else:
        page.keyboard.press("2")
    page.locator(".told").wait_for()


def programme(page: Page) -> None:
    page.get_by_role("link", name="Programme").click()
    expect(page.get_by_role("region", name="Warnings")).to_contain_text("Think of", timeout=90_000)
    page.locator(".between summary").first.click()
    page.wait_for_timeout(300)


def book(page: Page) -> None:
    page.get_by_role("link", name="Book").click()
    page.get_by_role("combobox", name="In which routine").click()
    page.get_by_role("option", name="Fog Signals").click()
    page.get_by_text("steer them at line 13").wait_for()
    page.wait_for_timeout(500)


def library(page: Page) -> None:
    page.get_by_role("link", name="Library", exact=True).press("Enter")
    number = page.get_by_role("slider", name="cards in a pile")
    said = page.locator(".principle-verdict")
    said.get_by_text("Proved").wait_for()
    number.press("ArrowLeft")
    said.get_by_text("Fails").wait_for()
    number.press("ArrowRight")
    page.get_by_text("works at 5; fails at 4").wait_for()
    said.get_by_text("Proved").wait_for()
    page.locator(".strands-picture").get_by_text("15").wait_for()
    page.get_by_text("It holds, whatever they choose").wait_for()


def keep(page: Page) -> None:
    on_the_shelf(page, "Four Passengers", "Remove")
    page.get_by_role("link", name="Keep").click()
    page.get_by_role("button", name="Back up now").click()
    page.get_by_text("on demand").wait_for()
    # Where the file lies is this machine's business.
    page.evaluate(
        "document.querySelectorAll('.where code').forEach((c, i) => c.textContent = ['~/golden-pivot/shelf.sqlite3', '~/golden-pivot/shelf-backups'][i])"
    )
    page.wait_for_timeout(13_000)


VIEWS: dict[str, tuple[str, Callable[[Page], None]]] = {
    "shelf": ("light", shelf),
    "show-cues": ("light", shown("The Harbour Light", "Cue sheet", "Worked out beforehand")),
    "bench-proved": ("light", bench("The Watch Below")),
    "bench-refuted": ("light", bench("Forty Minutes Out", worst=True)),
    "bench-why": ("dark", asked("The Watch Below", "Why", "Why it works")),
    "practice": ("dark", practice),  # before blanks are written into the routine it drills
    "bench-would": ("light", with_blanks),
    "bench-breaks": ("light", asked("The Watch Below", "What breaks", "What breaks it")),
    "library": ("light", library),
    "programme": ("light", programme),
    "book": ("light", book),
    "desk-spelling": ("light", desk("spell")),
    "desk-pickup": ("dark", desk("pickup")),
    "desk-stack": ("light", desk("stack")),
    "desk-mix": ("light", desk("mix")),
    "desk-narrowing": ("dark", desk("narrow")),
    "desk-odds": ("light", desk("odds")),
    "bench-writing": ("light", writing),
    "keep": ("light", keep),
}


def main(wanted: list[str]) -> None:
    FOLDER.mkdir(parents=True, exist_ok=True)
    with (
        tempfile.TemporaryDirectory() as folder,
        server(Path(folder) / "shelf.sqlite3") as (address, _),
        chromium() as b,
    ):
        for name, (scheme, show) in VIEWS.items():
            if wanted and name not in wanted:
                continue
            page = b.new_page(viewport={"width": 1280, "height": 800}, color_scheme=scheme)  # type: ignore[arg-type]
            page.goto(address)
            show(page)
            page.screenshot(path=FOLDER / f"{name}.png")
            page.close()
            print(f"took {name}")


if __name__ == "__main__":
    main(sys.argv[1:])
