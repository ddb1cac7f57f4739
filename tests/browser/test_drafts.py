"""Nothing that was typed is lost, and what is said of it is true: drafts, two windows, two shelves, full storage, no server."""

from __future__ import annotations

import json
import signal
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, expect

from golden_pivot.store import Database, Shelf
from tests.browser.driving import posted, server
from tests.browser.hands import readable, saved, sheet
from tests.store.test_trouble import spoil

pytestmark = pytest.mark.browser

TEXT = "Title: Night Watch\nPack: 9 cards\n"
FOOT = "footer[data-save]"


@pytest.fixture
def shelf(tmp_path: Path) -> Path:
    path = tmp_path / "shelf.sqlite3"
    database = Database(path)
    Shelf(database).add(TEXT)
    database.close()
    return path


@pytest.fixture
def routine(address: str) -> str:
    """Where the routine lies on the bench of the server that most tests share."""
    return f"{address}/bench/{posted(f'{address}/api/routines', text=TEXT)['id']}"


@contextmanager
def window(browser: Browser) -> Iterator[BrowserContext]:
    context = browser.new_context(viewport={"width": 1280, "height": 800}, reduced_motion="reduce")
    yield context
    context.close()


def on_bench(context: BrowserContext, routine: str) -> Page:
    page = context.new_page()
    page.goto(routine)
    sheet(page).wait_for()
    return page


def type_at_end(page: Page, words: str) -> None:
    sheet(page).focus()
    page.keyboard.press("Control+End")
    page.keyboard.type(words)


def kept(routine: str) -> str:
    """Where the server tells what it has of a routine on the bench."""
    return routine.replace("/bench/", "/api/routines/")


def shelf_text(page: Page) -> str:
    return str(page.request.get(kept(page.url)).json()["text"])


def versions(page: Page) -> list[str]:
    return [version["text"] for version in page.request.get(f"{kept(page.url)}/versions").json()]


def without_saving(page: Page) -> None:
    """The server refuses every save of this window from now on."""
    page.route(
        "**/api/routines/*", lambda route: route.abort() if route.request.method == "PUT" else route.continue_()
    )


def left_unsaved(context: BrowserContext, routine: str, words: str) -> Page:
    """A window in which something was typed that the shelf does not take."""
    page = on_bench(context, routine)
    without_saving(page)
    type_at_end(page, words)
    expect(page.locator(f"{FOOT}[data-save=trouble]")).to_contain_text("Not saved")
    return page


@pytest.mark.parametrize("takes_draft", [True, False])
def test_drafts_that_are_stale_are_shown_and_both_texts_are_kept(
    browser: Browser, routine: str, takes_draft: bool
) -> None:
    with window(browser) as mine, window(browser) as other:
        page = left_unsaved(mine, routine, "# from the draft")
        page.close()
        newer = on_bench(other, routine)
        type_at_end(newer, "# from the other")
        saved(newer)
        page = on_bench(mine, routine)
        # Merely opening it changes nothing.
        expect(page.get_by_role("alert").filter(has_text="A draft")).to_be_visible()
        assert "from the other" in shelf_text(page) and "draft" not in sheet(page).inner_text()
        page.get_by_role("button", name="Show both").click()
        expect(page.get_by_label("The draft")).to_contain_text("# from the draft")
        expect(page.get_by_label("On the shelf")).to_contain_text("# from the other")
        page.get_by_role("dialog").get_by_role(
            "button", name="Take the draft" if takes_draft else "Leave the draft"
        ).click()
        expect(page.get_by_text("is a version of this routine")).to_be_visible()
        saved(page)
        taken, left = ("draft", "other") if takes_draft else ("other", "draft")
        expect(sheet(page)).to_contain_text(f"# from the {taken}")
        assert f"from the {taken}" in shelf_text(page)
        assert any(f"from the {left}" in text for text in versions(page))
        page.reload()
        expect(sheet(page)).to_contain_text(f"# from the {taken}")
        expect(page.get_by_text("A draft")).to_have_count(0)


def test_drafts_on_the_newest_text_go_on_where_they_were_left(browser: Browser, routine: str) -> None:
    with window(browser) as mine:
        page = left_unsaved(mine, routine, "# left")
        page.close()
        page = on_bench(mine, routine)
        expect(sheet(page)).to_contain_text("# left")
        saved(page)
        assert "# left" in shelf_text(page)


def test_drafts_do_not_cross_shelves(browser: Browser, shelf: Path, tmp_path: Path) -> None:
    """Two shelves one after the other at the same address, a routine with the same number on each."""
    other = tmp_path / "other.sqlite3"
    database = Database(other)
    Shelf(database).add("Title: Another\nPack: 8 cards\n")
    database.close()
    with window(browser) as mine:
        with server(shelf, demo=False) as (address, _):
            page = left_unsaved(mine, bench(address), "# mine alone")
            page.close()
        with server(other, demo=False, port=port_of(address)):
            page = on_bench(mine, bench(address))
            expect(sheet(page)).to_contain_text("Title: Another")
            saved(page)
            assert "mine alone" not in shelf_text(page) and page.get_by_role("alert").count() == 0
            page.close()
        with server(shelf, demo=False, port=port_of(address)):
            page = on_bench(mine, bench(address))
            saved(page)
            assert "# mine alone" in shelf_text(page)


def bench(address: str) -> str:
    """Of the first routine."""
    return f"{address}/bench/1"


def port_of(address: str) -> int:
    return int(address.rsplit(":", 1)[1])


def test_drafts_without_room_in_the_browser(browser: Browser, routine: str) -> None:
    """With full storage it is saved all the same, and "Saved" is said of nothing else."""
    with window(browser) as mine:
        mine.add_init_script(
            "Storage.prototype.setItem = () => { throw new DOMException('full', 'QuotaExceededError'); }"
        )
        page = on_bench(mine, routine)
        type_at_end(page, "# no room")
        saved(page)
        assert "# no room" in shelf_text(page)
        without_saving(page)
        type_at_end(page, " at all")
        expect(page.locator(FOOT)).to_contain_text("Not saved")
        expect(page.locator(FOOT)).to_contain_text("no room to keep it")
        assert "at all" not in shelf_text(page)
        page.unroute_all()
        saved(page)
        assert "at all" in shelf_text(page)


def test_drafts_while_the_server_is_gone(browser: Browser, shelf: Path) -> None:
    with window(browser) as mine:
        with server(shelf, demo=False) as (address, process):
            page = on_bench(mine, bench(address))
            process.send_signal(signal.SIGKILL)
            process.wait(60)
            type_at_end(page, "# written alone")
            expect(page.locator(FOOT)).to_contain_text("The server does not answer")
            expect(page.locator(FOOT)).to_contain_text("keeps it as a draft")
        with server(shelf, demo=False, port=port_of(address)):
            saved(page)
            assert "# written alone" in shelf_text(page)


def test_drafts_of_what_is_no_longer_on_the_shelf(browser: Browser, routine: str) -> None:
    with window(browser) as mine:
        page = left_unsaved(mine, routine, "# orphan")
        page.request.delete(kept(routine))
        expect(page.locator(FOOT)).to_contain_text("taken off the shelf")
        page.close()
        page = mine.new_page()
        page.goto(routine)
        page.get_by_role("button", name="Put the draft on the shelf").click()
        expect(sheet(page)).to_contain_text("# orphan")
        saved(page)


def test_an_edit_in_one_window_appears_in_the_other(browser: Browser, routine: str) -> None:
    with window(browser) as mine, window(browser) as other:
        here, there = on_bench(mine, routine), on_bench(other, routine)
        type_at_end(here, "# seen")
        saved(here)
        expect(sheet(there)).to_contain_text("# seen")
        sheet(there).focus()
        there.keyboard.press("Control+z")
        expect(sheet(there)).not_to_contain_text("# seen")
        saved(there)
        expect(sheet(here)).not_to_contain_text("# seen")


# The faces of failure


def test_a_damaged_shelf_is_mended_from_the_page(browser: Browser, shelf: Path) -> None:
    with server(shelf, demo=False) as (address, _), window(browser) as mine:
        page = mine.new_page()
        page.request.post(f"{address}/api/keep/backups", data={})
    spoil(shelf, 4096)
    with server(shelf, demo=False) as (address, _), window(browser) as mine:
        page = mine.new_page()
        page.goto(address)
        expect(page.get_by_role("alert").first).to_contain_text("damaged")
        page.get_by_role("link", name="Go to Keep").first.click()
        expect(page.get_by_label("What is the matter")).to_contain_text("Nothing is saved any more")
        page.get_by_role("button", name="Restore the newest back-up").click()
        page.get_by_role("dialog").get_by_role("button", name="Restore", exact=True).click()
        expect(page.get_by_role("alert").filter(has_text="damaged")).to_have_count(0)
        page.get_by_role("link", name="Shelf", exact=True).click()
        expect(page.get_by_role("link", name="Night Watch", exact=True)).to_be_visible()


def test_an_archive_comes_in_through_the_page(page: Page, address: str, tmp_path: Path) -> None:
    page.get_by_role("link", name="Keep").click()
    with page.expect_download() as download:
        page.get_by_role("link", name="Export the shelf").click()
    archive = tmp_path / "shelf.zip"
    download.value.save_as(archive)
    routines = page.request.get(f"{address}/api/routines").json()
    page.request.delete(f"{address}/api/routines/{routines[0]['id']}")
    page.request.delete(f"{address}/api/removed")
    changed = {"text": "Title: Mine now", "revision": routines[1]["revision"]}
    page.request.put(
        f"{address}/api/routines/{routines[1]['id']}",
        data=json.dumps(changed),
        headers={"content-type": "application/json"},
    )
    page.locator("input[type=file]").first.set_input_files(archive)
    expect(page.locator("li[data-state=new]")).to_have_count(1)
    different = page.locator("li[data-state=different]")
    different.get_by_text("Take theirs").click()
    page.get_by_role("button", name="Take 2").click()
    expect(page.get_by_text("2 routines came onto the shelf")).to_be_visible()
    now = page.request.get(f"{address}/api/routines").json()
    assert sorted(one["text"] for one in now) == sorted(one["text"] for one in routines)


@pytest.mark.parametrize("scheme", ["light", "dark"])
def test_keep_is_readable_by_all(page: Page, scheme: str) -> None:
    page.emulate_media(color_scheme=scheme)  # type: ignore[arg-type]
    page.get_by_role("link", name="The Harbour Light", exact=True).wait_for()
    page.get_by_role("link", name="Keep", exact=True).click()
    page.wait_for_url("**/keep")
    page.get_by_role("button", name="Back up now").click()
    page.get_by_role("button", name="Restore").first.wait_for()
    readable(page)
