"""A shelf of a thousand routines, in the browser: until its first row stands there, and from a key to the rows that have what is sought."""

from __future__ import annotations

import statistics
import tempfile
import time
import urllib.request
from pathlib import Path

from playwright.sync_api import Page
from tests.browser.driving import chromium, server

from golden_pivot.demo import demo_names, demo_text
from golden_pivot.store import Database, Shelf

ROUTINES = 1000
SOUGHT = "deck 17"
BEFORE = {
    "the list, by the server": 4400,
    "until the first row": 14600,
    "a key in the search, median": 300,
    "a key in the search, slowest": 1500,
}
"""milliseconds, measured when every text was read anew at each opening and each row was drawn at once"""

# Resolves, in the page itself, once the rows are those of the new words and are on the screen.
_UNTIL_SHOWN = """() => new Promise(done => {
  const begun = performance.now();
  requestAnimationFrame(() => requestAnimationFrame(() => done(performance.now() - begun)));
})"""


def _fill(path: Path) -> None:
    database = Database(path)
    texts = [demo_text(name) for name in demo_names()]
    with database.transaction():
        for number in range(ROUTINES):
            Shelf(database).add(
                f"{texts[number % len(texts)].rstrip()}\n# number {number}\n".replace(
                    "Title: ", f"Title: {number} ", 1
                )
            )
    database.close()


def _fetched(address: str) -> float:
    begun = time.perf_counter()
    with urllib.request.urlopen(address, timeout=300) as reply:
        reply.read()
    return (time.perf_counter() - begun) * 1000


def _measured(page: Page, address: str) -> dict[str, float]:
    _fetched(f"{address}/api/health")  # the server has begun by then
    found = {"the list, by the server": _fetched(f"{address}/api/routines")}
    begun = time.perf_counter()
    page.goto(address)
    page.locator(".routines li").first.wait_for(timeout=120_000)
    found["until the first row"] = (time.perf_counter() - begun) * 1000
    page.get_by_label("Search the shelf").click()
    keys = []
    for key in SOUGHT:
        page.keyboard.type(key)
        keys.append(page.evaluate(_UNTIL_SHOWN))
    found["a key in the search, median"] = statistics.median(keys)
    found["a key in the search, slowest"] = max(keys)
    return found


def print_shelf() -> None:
    with tempfile.TemporaryDirectory() as folder, chromium() as browser:
        path = Path(folder) / "shelf.sqlite3"
        _fill(path)
        columns = []
        for _ in range(2):
            with server(path, demo=False) as (address, _process):
                page = browser.new_page(viewport={"width": 1280, "height": 800})
                columns.append(_measured(page, address))
                page.close()
    print(
        f"\nthe shelf with {ROUTINES:,} routines, milliseconds{'before':>12}{'first start':>13}{'another start':>15}"
    )
    for name, before in BEFORE.items():
        print(f"  {name:44}{before:12,.0f}{columns[0][name]:13,.0f}{columns[1][name]:15,.0f}")


if __name__ == "__main__":
    print_shelf()
