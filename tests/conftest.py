"""What several test files need: an application in memory, a real server, a browser page."""

from __future__ import annotations

import gc
import os
import random
from collections.abc import Iterator

import pytest
from fastapi.testclient import TestClient
from hypothesis import settings
from playwright.sync_api import Browser, Page, expect

from golden_pivot.api.app import create_app
from golden_pivot.core.passes import pipeline
from golden_pivot.core.passes.validator import validate
from golden_pivot.demo import demo_names, demo_text
from golden_pivot.store import Database
from tests.browser.driving import chromium, posted, server

# The same routines each time, so that a change is to blame for what goes red; `make random` looks for others.
settings.register_profile("same", derandomize=True, deadline=None)
settings.register_profile("random", derandomize=False, deadline=None)
settings.load_profile("random" if "RANDOM_ROUTINES" in os.environ else "same")

# Whatever a test compiles must be well-formed behind every pass.
pipeline.after_each = validate

# A busy machine takes its time; what is waited for comes all the same.
expect.set_options(timeout=60_000)


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """SHUFFLE_TESTS=n runs them in another order: none may lean on one before it."""
    if "SHUFFLE_TESTS" in os.environ:
        random.Random(os.environ["SHUFFLE_TESTS"]).shuffle(items)


def pytest_collection_finish() -> None:
    """What has been loaded by now stays: going through it again and again took a tenth of the time of all tests."""
    gc.collect()
    gc.freeze()
    gc.set_threshold(20_000, 10, 10)


@pytest.fixture
def client() -> Iterator[TestClient]:
    with TestClient(create_app(Database(":memory:")), base_url="http://127.0.0.1") as client:
        yield client


@pytest.fixture(scope="session")
def demo_shelf(tmp_path_factory: pytest.TempPathFactory) -> Iterator[tuple[str, str]]:
    """(address, pristine back-up) of a server that tests use one after the other."""
    with server(tmp_path_factory.mktemp("demo") / "shelf.sqlite3") as (address, _):
        # What the shelf finds out about each routine when it is first opened is known to every test.
        for number, text in enumerate(map(demo_text, demo_names())):
            posted(f"{address}/api/find", text=text, job=str(number))
        yield address, posted(f"{address}/api/keep/backups")["name"]


@pytest.fixture
def address(demo_shelf: tuple[str, str]) -> str:
    """A server with the demo shelf as it is at first."""
    address, pristine = demo_shelf
    posted(f"{address}/api/keep/backups/{pristine}/restore")
    return address


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with chromium() as browser:
        yield browser


@pytest.fixture
def page(browser: Browser, address: str) -> Iterator[Page]:
    """The shelf, in a window of 1280×800. A script error or a refused resource fails the test."""
    context = browser.new_context(base_url=address, viewport={"width": 1280, "height": 800}, reduced_motion="reduce")
    page = context.new_page()
    broken: list[str] = []
    page.on("pageerror", lambda error: broken.append(str(error)))
    page.on("console", lambda message: broken.append(message.text) if "Content Security" in message.text else None)
    page.goto(address)
    # A key pressed before the page listens goes to the browser: a hand waits until it sees the shelf.
    page.get_by_role("link", name="The Harbour Light", exact=True).wait_for()
    yield page
    context.close()
    assert broken == []
