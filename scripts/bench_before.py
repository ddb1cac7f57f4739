"""Page load of the bench, one edit and a cue sheet on the screen, of this tree and of an earlier commit, taken in turns.

`make bench BEFORE=COMMIT`, or `python -m scripts.bench_before COMMIT` for these rows alone. The earlier tree is put
beside this one, with the packages of this one, and its front end built; both servers run at once, so that a busy machine
slows both.
"""

from __future__ import annotations

import os
import statistics
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from contextlib import ExitStack, contextmanager
from pathlib import Path

from playwright.sync_api import Browser
from tests.browser.driving import chromium, server

from scripts.keystrokes import last_key_times

ROOT = Path(__file__).parents[1]
RUNS = 7
TITLES = ("The Harbour Light", "Four Decks of the Ship", "Two Gangways", "Lifeboat Drill")

# Milliseconds since the page was asked for, once this is on the screen.
_SINCE_ASKED = """selector => new Promise(done => {
  const look = () => document.querySelector(selector) ? done(performance.now()) : requestAnimationFrame(look);
  look();
})"""


@contextmanager
def tree_of(commit: str) -> Iterator[Path]:
    """The tree of a commit with its front end built."""
    with tempfile.TemporaryDirectory() as folder:
        tree = Path(folder) / "tree"
        subprocess.run(
            ["git", "worktree", "add", "--detach", "--force", tree, commit], cwd=ROOT, check=True, capture_output=True
        )
        try:
            (tree / "web" / "node_modules").symlink_to(ROOT / "web" / "node_modules")
            subprocess.run(
                ["npx", "--no-install", "vite", "build"], cwd=tree / "web", check=True, capture_output=True
            )
            yield tree
        finally:
            subprocess.run(["git", "worktree", "remove", "--force", tree], cwd=ROOT, check=True, capture_output=True)


@contextmanager
def serving(tree: Path) -> Iterator[str]:
    """The address of a server with the demo shelf that runs what is in this tree."""
    before = os.environ.get("PYTHONPATH")
    os.environ["PYTHONPATH"] = str(tree / "src")
    with tempfile.TemporaryDirectory() as folder, server(Path(folder) / "shelf.sqlite3") as (address, _):
        if before is None:
            del os.environ["PYTHONPATH"]
        else:
            os.environ["PYTHONPATH"] = before
        yield address


def once(browser: Browser, address: str, title: str) -> dict[str, float]:
    """Milliseconds of each row, in a window that knows nothing yet."""
    context = browser.new_context(viewport={"width": 1280, "height": 800})
    page = context.new_page()
    page.goto(address)
    at = page.get_by_role("link", name=title, exact=True).get_attribute("href") or ""
    page.goto("about:blank")
    page.goto(address + at, wait_until="commit")
    loaded = page.evaluate(_SINCE_ASKED, "section.verdict[data-old=false]")
    page.wait_for_timeout(400)
    edited = statistics.median(last_key_times(page))
    page.goto(address + at.replace("/bench/", "/show/"), wait_until="commit")
    sheet = page.evaluate(_SINCE_ASKED, ".paper p")
    context.close()
    return {"page load to the verdict": loaded, "last key to the verdict": edited, "cue sheet on the screen": sheet}


def print_beside(commit: str | None) -> None:
    with ExitStack() as running:
        addresses = {"now": running.enter_context(serving(ROOT))}
        if commit:
            addresses[commit] = running.enter_context(serving(running.enter_context(tree_of(commit))))
        browser = running.enter_context(chromium())
        print(f"\non the screen, median ms of {RUNS} in turns: {', '.join(addresses)}")
        for title in TITLES:
            found = [{name: once(browser, at, title) for name, at in addresses.items()} for _ in range(RUNS)]
            for row in found[0]["now"]:
                middle = [statistics.median(one[name][row] for one in found) for name in addresses]
                told = "".join(f"{one:>8.0f}" for one in middle)
                print(f"  {title:24}{row:28}{told}" + (f"   × {middle[0] / middle[1]:.2f}" if commit else ""))


if __name__ == "__main__":
    print_beside(sys.argv[1] if len(sys.argv) > 1 else None)
