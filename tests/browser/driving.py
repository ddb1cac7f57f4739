"""A real server with the demo shelf, and Debian's Chromium to look at it."""

from __future__ import annotations

import json
import os
import re
import subprocess
import sys
import urllib.request
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from playwright.sync_api import Browser, sync_playwright

CHROMIUM = "/usr/bin/chromium"
FLAGS = [
    "--headless", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run",
    "--disable-background-networking", "--disable-component-update", "--disable-sync",
]  # fmt: skip


@contextmanager
def server(
    data: Path, *, demo: bool = True, port: int = 0, more: Sequence[str] = ()
) -> Iterator[tuple[str, subprocess.Popen[str]]]:
    """(address, process) of a server over this shelf file, on a free port unless one is given; `more`: options of `serve`."""
    command = [sys.executable, "-m", "golden_pivot", "serve", "--port", str(port), "--data", str(data)]
    process = subprocess.Popen(
        [*command, *more] + ["--demo"] * demo,
        stdout=subprocess.PIPE,
        text=True,
        env={**os.environ, "PYTHONUNBUFFERED": "1"},
    )
    assert process.stdout
    try:
        told = process.stdout.readline()
        found = re.search(r"http://127\.0\.0\.1:\d+", told)
        assert found, f"the server said {told!r}"
        yield found[0], process
    finally:
        process.terminate()
        process.wait(10)


def posted(url: str, **body: str) -> dict[str, Any]:
    asked = urllib.request.Request(url, json.dumps(body).encode(), {"content-type": "application/json"})
    with urllib.request.urlopen(asked) as reply:
        told: dict[str, Any] = json.load(reply)
    return told


@contextmanager
def chromium() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        yield browser
        browser.close()
