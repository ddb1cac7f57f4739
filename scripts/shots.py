"""Retakes docs/screenshots/ from the demo data at 1280×800. `shots.py NAME …` takes only those."""

from __future__ import annotations

import sys
import tempfile
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page, expect
from tests.browser.driving import chromium, server

FOLDER = Path(__file__).parents[1] / "docs" / "screenshots"


def shelf(page: Page) -> None:
    page.get_by_role("link", name="The Harbour Light").wait_for()
    expect(page.get_by_text("Proving…")).to_have_count(0)


def bench(title: str, *, worst: bool = False) -> Callable[[Page], None]:
    def show(page: Page) -> None:
        page.get_by_role("link", name=title).click()
        page.locator("section.verdict[data-old=false]:not([data-verdict=none])").wait_for()
        if worst:
            page.get_by_role("button", name="Worst case").click()
            page.wait_for_timeout(700)
            page.get_by_role("button", name="Play", exact=True).wait_for(timeout=20_000)
        page.wait_for_timeout(700)

    return show


def with_odds(page: Page) -> None:
    bench("Three Bells")(page)
    page.get_by_label("Odds of ending").wait_for(timeout=30_000)
    page.locator(".strands-view").wait_for(timeout=30_000)
    page.wait_for_timeout(500)


def writing(page: Page) -> None:
    page.get_by_role("link", name="Last Orders at the Bar").click()
    page.locator(".gp-fault-note").wait_for()
    page.get_by_label("The routine, one sentence a line").click()
    page.keyboard.press("Control+End")
    page.keyboard.type("\nPut the ")
    page.locator(".cm-tooltip-autocomplete").wait_for()
    page.wait_for_timeout(500)


def steps(page: Page) -> None:
    bench("Four Decks of the Ship")(page)
    page.get_by_role("button", name="Steps").click()
    page.get_by_text("Cards", exact=True).wait_for()
    page.wait_for_timeout(500)


def strands_table(page: Page) -> None:
    bench("The Watch Below")(page)
    page.get_by_role("button", name="as a table").click()
    page.wait_for_timeout(300)


def families(page: Page) -> None:
    page.get_by_role("button", name="New routine").click()
    page.get_by_text("Told pile", exact=True).wait_for()
    page.wait_for_timeout(400)


VIEWS: dict[str, tuple[str, Callable[[Page], None]]] = {
    "shelf": ("light", shelf),
    "shelf-night": ("dark", shelf),
    "bench-proved": ("light", bench("The Watch Below")),
    "bench-refuted": ("light", bench("Forty Minutes Out", worst=True)),
    "bench-night": ("dark", bench("The Purser’s Count")),
    "bench-steps": ("light", steps),
    "bench-strands-table": ("light", strands_table),
    "bench-cases": ("dark", bench("Fog Signals")),
    "bench-odds": ("light", with_odds),
    "bench-notes": ("dark", bench("Lifeboat Drill")),
    "new-routine": ("light", families),
    "bench-writing": ("light", writing),
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
