"""From the last key to the verdict on the screen, measured in the browser on every routine of the demo shelf."""

from __future__ import annotations

import json
import statistics
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path
from threading import Thread
from urllib.error import URLError
from urllib.request import Request, urlopen

from playwright.sync_api import Page
from tests.browser.driving import chromium, server

from scripts.bench_rows import of_lines
from scripts.bench_spread import BLANKS, RANGE

_KEYS = 8

# From the time that the key itself bears to the frame in which the verdict is no longer marked as old. The key marks it so
# in its own turn, so that what is watched for always comes.
_WATCH = """() => {
  const bar = document.querySelector('section.verdict');
  addEventListener('keydown', key => {
    window.verdictIsFresh = new Promise(done => {
      const watch = new MutationObserver(() => {
        if (bar.dataset.old !== 'false') return;
        watch.disconnect();
        requestAnimationFrame(() => done(performance.now() - key.timeStamp));
      });
      watch.observe(bar, { attributeFilter: ['data-old'] });
    });
  }, true);
}"""


def last_key_times(page: Page) -> list[float]:
    """Milliseconds from a key to the verdict, on the routine that is on the bench, for each of a few keys."""
    sheet = page.get_by_label("The routine, one sentence a line")
    sheet.focus()
    page.keyboard.press("Control+End")
    page.evaluate(_WATCH)
    times = []
    for number in range(_KEYS):
        # A remark changes the text, so the routine is proved anew, but not its verdict. Every text is a new one.
        page.keyboard.type("\n# " if number == 0 else "x")
        times.append(page.evaluate("() => window.verdictIsFresh"))
        page.wait_for_timeout(100)
    return times


DESKS = {
    "spell": ("Wanted position", ["12", "13", "14", "10"]),
    "pickup": ("Wanted place", ["3", "4", "5", "6"]),
    "stack": (
        "What the stack must be",
        [f"cards 1 to 9 add up to {n}\nno more than 2 cards in a row agree in suit" for n in range(50, 54)],
    ),
    "mix": ("Cards", ["26", "28", "52", "30"]),
    "narrow": ("Objects", ["7", "8", "9", "10"]),
    "odds": ("from", ["1", "2", "3", "4"]),
}
"""desk → a field, and what is written into it"""

# The address changes first, so that an answer is marked as old only a moment after the key.
_UNTIL_ANSWERED = """() => new Promise(done => {
  const begun = performance.now();
  let marked = false;
  const look = () => {
    const old = document.querySelector('.told').dataset.old === 'true';
    marked = marked || old || performance.now() - begun > 200;
    return marked && !old ? done(performance.now() - begun) : requestAnimationFrame(look);
  };
  look();
})"""


def print_desk_times(page: Page, address: str) -> None:
    print("\nfrom the last key to the answer of a desk, median and worst of 4:")
    for name, (field, values) in DESKS.items():
        page.goto(f"{address}/desks/{name}")
        page.locator(".told[data-old=false]").wait_for()
        times = []
        for value in values:
            page.get_by_label(field, exact=field in ("Cards", "from")).first.fill(value)
            times.append(page.evaluate(_UNTIL_ANSWERED))
            page.wait_for_timeout(100)
        print(f"  {name:34}{statistics.median(times):>6.0f} ms{max(times):>7.0f} ms")


LONG = "Sixty-two lines"


@contextmanager
def long_search(address: str) -> Iterator[None]:
    """One that goes on in the server meanwhile."""

    def ask() -> None:
        domains = {str(number): f"{RANGE[0]} to {RANGE[-1]}" for number in (1, 2)}
        body = json.dumps({"text": BLANKS, "domains": domains, "job": "beside"}).encode()
        asked = Request(f"{address}/api/sweep", body, {"content-type": "application/json"})
        with suppress(URLError):
            urlopen(asked).read()

    going = Thread(target=ask)
    going.start()
    time.sleep(2)
    yield
    with urlopen(Request(f"{address}/api/jobs/beside/cancel", b"", method="POST")) as reply:
        assert json.load(reply)["done"], "the search was over before the keys were"
    going.join()


def print_routines(page: Page, address: str, titles: list[str]) -> None:
    medians, worst = [], []
    for title in titles:
        page.goto(address)
        page.get_by_role("link", name=title, exact=True).click()
        page.locator("section.verdict[data-old=false]").wait_for()
        page.wait_for_timeout(400)
        times = last_key_times(page)
        medians.append(statistics.median(times))
        worst.append(max(times))
        print(f"  {title:34}{medians[-1]:>6.0f} ms{worst[-1]:>7.0f} ms")
    print(f"  {'all':34}{statistics.median(medians):>6.0f} ms{max(worst):>7.0f} ms")


def print_times() -> None:
    for workers in (None, "1", "2"):
        with tempfile.TemporaryDirectory() as folder, chromium() as browser:
            more = ("--workers", workers) if workers else ()
            with server(Path(folder) / "s.sqlite3", more=more) as (address, _):
                page = browser.new_page(viewport={"width": 1280, "height": 800})
                page.goto(address)
                page.locator(".routines .open").first.wait_for()
                titles = page.locator(".routines .open").all_inner_texts()
                if workers is None:
                    titles.append(LONG)
                    new = json.dumps({"text": f"Title: {LONG}\n{of_lines(61)}"}).encode()
                    urlopen(Request(f"{address}/api/routines", new, {"content-type": "application/json"})).close()
                    print(f"\nfrom the last key to the verdict on the screen, median and worst of {_KEYS}:")
                    print_routines(page, address, titles)
                    print_desk_times(page, address)
                else:
                    print(f"\nthe same beside a long search on {workers} process(es):")
                    with long_search(address):
                        print_routines(page, address, titles[:4])


if __name__ == "__main__":
    print_times()
