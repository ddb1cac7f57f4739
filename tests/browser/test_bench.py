"""The main paths through the real interface, on a real server, by keyboard wherever a performer would."""

from __future__ import annotations

import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, Route, expect

from golden_pivot.core.language.parser import read_routine

pytestmark = pytest.mark.browser

AXE = Path(__file__).parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js"


def select_line(page: Page) -> None:
    """The line of the cursor, one without a margin. The first key goes to where it is broken on the screen, the second further."""
    for key in ("Home", "Home", "Shift+End", "Shift+End"):
        page.keyboard.press(key)


def verdict_is(page: Page, kind: str) -> None:
    page.locator(f'section.verdict[data-old=false][data-verdict="{kind}"]').wait_for(timeout=60_000)


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


def test_widen_a_range_see_it_fail_play_it_undo(page: Page) -> None:
    open_routine(page, "The Harbour Light")
    verdict_is(page, "proved")
    line = page.locator(".cm-line", has_text="names a number")
    line.click()
    page.keyboard.press("End")
    page.keyboard.press("Backspace")
    page.keyboard.press("Backspace")
    page.keyboard.type("40")
    verdict_is(page, "refuted")
    assert "n is 40" in headline(page)
    page.keyboard.press("Alt+w")
    expect(page.locator(".table-panel .when")).to_contain_text("LANTERN is 13th but the count ends at 4")
    expect(page.locator(".choice b")).to_contain_text("40")
    expect(page.locator(".remedy")).to_contain_text("Holds exactly when n is 30 to 39.")
    sheet(page).focus()
    for _ in range(6):
        page.keyboard.press("Control+z")
    verdict_is(page, "proved")
    saved(page)


def test_write_a_routine_by_keyboard_and_find_it_after_reload(page: Page) -> None:
    page.get_by_role("link", name="The Harbour Light", exact=True).wait_for()
    blank_page(page)
    sheet(page).focus()
    page.keyboard.press("Control+a")
    rows = [
        "Pack: 20 cards, any order",
        "Place BUOY 8th",
        "Spectator names a number n from 8 to 15",
        "Deal n cards from deck",
        "Ends with: the card at position n - 7 of dealt is BUOY",
    ]
    for row in rows:
        page.keyboard.type(row)
        page.keyboard.press("Enter")
    verdict_is(page, "proved")
    saved(page)
    page.reload()
    verdict_is(page, "proved")
    expect(sheet(page)).to_contain_text("names a number n from 8 to 15")
    page.get_by_role("link", name="Shelf").click()
    expect(page.get_by_text("Proved: the card at position n - 7 of dealt is BUOY")).to_be_visible()


def insert_step(page: Page, sought: str) -> None:
    """From the list of steps, by keyboard: search, go to the first one found, take it."""
    page.keyboard.press("Alt+s")
    expect(page.get_by_label("Search the steps")).to_be_focused()
    page.keyboard.type(sought)
    expect(page.get_by_label("Search the steps")).to_have_value(sought)
    found = page.locator(".step-family button")
    expect(found).to_have_count(1)
    page.keyboard.press("Tab")
    expect(found).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.get_by_label("Search the steps")).to_have_count(0)
    expect(sheet(page)).to_be_focused()


def test_build_a_told_pile_routine_from_the_steps(page: Page) -> None:
    page.get_by_role("link", name="The Harbour Light", exact=True).wait_for()
    blank_page(page)
    sheet(page).focus()
    page.keyboard.press("Control+a")
    page.keyboard.type("Pack: 15 cards, any order")
    for step in (
        "thinks of a card",
        "Repeat 3",
        "into 3 piles",
        "which pile holds",
        "the others in any order",
        "Turn deck over",
    ):
        insert_step(page, step)
    verdict_is(page, "fixed")
    assert headline(page) == "Sure: their card is 8th in deck, whatever they choose"
    # Change the slot of the told pile, see where the card goes, go back.
    page.locator(".cm-line", has_text="Gather the piles").click()
    page.locator(".gp-slot", has_text="2nd").dblclick()
    page.keyboard.type("3rd")
    expect(page.locator("section.verdict .headline")).to_have_text(
        "Sure: their card is 1st in deck, whatever they choose"
    )
    # The verdict comes first; what is drawn follows it.
    expect(page.locator(".strands-panel .when")).to_have_text(re.compile(": deck 1$"))
    page.locator(".strands-view").focus()
    page.keyboard.press("ArrowLeft")
    expect(page.locator(".strands-panel .when")).to_contain_text("after time 2")
    page.keyboard.press("ArrowLeft")
    expect(page.locator(".strands-panel .when")).to_contain_text("after time 1: deck 1 to 5")
    sheet(page).focus()
    page.keyboard.press("Control+z")
    expect(page.locator("section.verdict .headline")).to_have_text(
        "Sure: their card is 8th in deck, whatever they choose"
    )


TWO_PACKETS = """Pack: 24 cards, any order
Deal deck into 2 piles
Spectator points to a pile: p
Spectator secretly cuts off k cards of pile p, k from 1 to 12, to hand
Spectator remembers the bottom card of hand: their card
Spectator puts hand on pile 3 - p
Spectator puts pile p on pile 3 - p
Put pile 3 - p on packet
Deal packet into 2 piles
Gather pile 2, pile 1 from top to bottom
Ends with: the 7th card of packet is their card"""


def test_write_by_typing_then_keep_change_and_restore_a_version(page: Page) -> None:
    open_routine(page, "Last Orders at the Bar")
    sheet(page).focus()
    page.keyboard.press("Control+a")
    for row in TWO_PACKETS.split("\n"):
        page.keyboard.type(row)
        page.keyboard.press("Escape")  # the suggestions
        sheet(page).focus()
        page.keyboard.press("Enter")
    verdict_is(page, "proved")
    assert headline(page) == "Proved: the 7th card of packet is their card, whatever they choose"
    page.keyboard.press("Alt+v")
    page.get_by_label("Keep the sheet as it stands").fill("first night")
    page.keyboard.press("Enter")
    expect(page.get_by_text("on the sheet", exact=True)).to_be_visible()
    page.keyboard.press("Escape")
    sheet(page).focus()
    page.keyboard.press("Control+a")
    page.keyboard.type("Pack: 9 cards")
    verdict_is(page, "none")
    saved(page)
    page.keyboard.press("Alt+v")
    page.get_by_role("button", name="Bring back first night").press("Enter")
    verdict_is(page, "proved")
    saved(page)
    page.keyboard.press("Alt+v")
    expect(page.get_by_text("before going back to first night")).to_be_visible()


def test_export_and_import_again_give_the_same(page: Page) -> None:
    open_routine(page, "Fog Signals")
    verdict_is(page, "proved")
    before = page.locator("section.verdict .cover").inner_text().rpartition("·")[0]
    page.get_by_role("button", name="Export").click()
    with page.expect_download() as download:
        page.get_by_role("menuitem", name="JSON").click()
    assert download.value.suggested_filename == "Fog Signals.json"
    page.get_by_role("link", name="Shelf").click()
    # It is here already; once it is not, it opens on the bench.
    files = page.locator("input[type=file]").first
    files.set_input_files(
        {"name": "f.json", "mimeType": "application/json", "buffer": download.value.path().read_bytes()}
    )
    expect(page.locator("li[data-state=same]")).to_contain_text("Here already")
    page.get_by_role("button", name="Take nothing").click()
    address = page.url.rstrip("/")
    number = next(
        one["id"] for one in page.request.get(f"{address}/api/routines").json() if one["title"] == "Fog Signals"
    )
    page.request.delete(f"{address}/api/routines/{number}")
    page.request.delete(f"{address}/api/removed")
    files.set_input_files(
        {"name": "f.json", "mimeType": "application/json", "buffer": download.value.path().read_bytes()}
    )
    page.wait_for_url(re.compile("/bench/"))
    verdict_is(page, "proved")
    assert page.locator("section.verdict .cover").inner_text().rpartition("·")[0] == before
    page.get_by_role("link", name="Shelf").click()
    files.set_input_files({"name": "x.json", "mimeType": "application/json", "buffer": b'{"format": "other"}'})
    expect(page.get_by_text("x.json is not a routine")).to_be_visible()


def test_the_digit_sum_is_refuted_at_exactly_twenty(page: Page) -> None:
    file = Path(__file__).parents[1] / "procedures" / "p13_digit_sum.pivot"
    page.locator("input[type=file]").first.set_input_files(
        {"name": "copy.pivot", "mimeType": "text/plain", "buffer": file.read_bytes().replace(b"to 19", b"to 20")}
    )
    verdict_is(page, "refuted")
    assert headline(page).startswith("Fails when n is 20:")
    expect(page.locator(".remedy")).to_contain_text("Holds exactly when n is 10 to 19.")


def test_a_suggestion_is_taken_and_its_gaps_filled_in_turn(page: Page) -> None:
    open_routine(page, "Last Orders at the Bar")
    sheet(page).focus()
    page.keyboard.press("Control+End")
    page.keyboard.press("Enter")
    page.keyboard.type("Place BUOY ")
    page.locator(".cm-tooltip-autocomplete").wait_for()
    page.keyboard.press("Tab")
    expect(sheet(page)).to_contain_text("Place BUOY ?th")
    page.keyboard.type("3")
    expect(sheet(page)).to_contain_text("Place BUOY 3th")


def test_a_fault_stands_at_its_line_and_nothing_is_lost(page: Page) -> None:
    open_routine(page, "Last Orders at the Bar")
    expect(page.locator(".gp-fault-note")).to_contain_text("The sentence is not finished")
    sheet(page).focus()
    page.keyboard.press("Control+End")
    page.keyboard.type("xyz")
    saved(page)
    page.reload()
    expect(sheet(page)).to_contain_text("xyz")


def test_a_text_written_while_the_server_is_down_is_not_lost(page: Page) -> None:
    open_routine(page, "The Stowaway")
    verdict_is(page, "rule")
    page.route("**/api/**", lambda route: route.abort())
    sheet(page).focus()
    page.keyboard.press("Control+End")
    page.keyboard.type("# written in the dark")
    expect(page.locator("footer[data-save=trouble]")).to_be_visible()
    page.unroute("**/api/**")
    page.reload()
    expect(sheet(page)).to_contain_text("# written in the dark")
    saved(page)


@pytest.mark.parametrize("scheme", ["light", "dark"])
@pytest.mark.parametrize("title", [None, "Forty Minutes Out"])
def test_every_screen_is_readable_by_all(page: Page, scheme: str, title: str | None) -> None:
    page.emulate_media(color_scheme=scheme)  # type: ignore[arg-type]
    page.reload()
    page.get_by_role("link", name="The Harbour Light", exact=True).wait_for()
    if title:
        open_routine(page, title)
        verdict_is(page, "refuted")
    # The content security policy forbids adding a script element: evaluate the checker in the page instead.
    page.evaluate(AXE.read_text(encoding="utf-8"))
    found = page.evaluate("axe.run({ runOnly: ['wcag2a', 'wcag2aa'] })")
    assert [(v["id"], [n["target"] for n in v["nodes"]]) for v in found["violations"]] == []


@pytest.mark.parametrize("scheme", ["light", "dark"])
def test_every_question_beside_the_sheet_is_readable_by_all(page: Page, scheme: str) -> None:
    page.emulate_media(color_scheme=scheme)  # type: ignore[arg-type]
    open_routine(page, "The Watch Below")
    verdict_is(page, "proved")
    page.evaluate(AXE.read_text(encoding="utf-8"))
    page.keyboard.press("Escape")
    for key, shown in (("2", "Where it lands"), ("3", "It holds, whatever they choose"), ("4", "every way to fill it"),
                       ("5", "Fails, whatever they choose")):  # fmt: skip
        page.keyboard.press(f"Alt+{key}")
        expect(page.get_by_role("tabpanel")).to_contain_text(shown, timeout=60_000)
        found = page.evaluate("axe.run({ runOnly: ['wcag2a', 'wcag2aa'] })")
        assert [(v["id"], [n["target"] for n in v["nodes"]]) for v in found["violations"]] == []


def test_a_slip_is_tried_on_the_sheet_and_taken_back(page: Page) -> None:
    open_routine(page, "The Harbour Light")
    verdict_is(page, "proved")
    page.get_by_role("tab", name="What breaks", exact=True).click()
    row = page.get_by_role("row").filter(has_text="one above the range")
    expect(row).to_contain_text("Fails on 1 of 11 paths")
    expect(page.locator(".gp-strict").first).to_be_visible()
    row.get_by_role("button", name="Try it").click()
    verdict_is(page, "refuted")
    expect(page.locator("section.verdict .cover")).to_contain_text("holds on 10 of 11 paths")
    # The way it fails is told under When, and one button writes the range back.
    page.get_by_role("tab", name="When", exact=True).click()
    expect(page.get_by_label("When it holds").last).to_contain_text("n is 30 to 39")
    page.get_by_role("button", name="Narrow the ranges to that").click()
    verdict_is(page, "proved")
    sheet(page).focus()
    page.keyboard.press("Control+z")
    verdict_is(page, "refuted")
    page.keyboard.press("Control+z")
    verdict_is(page, "proved")


def test_blanks_are_filled_from_the_list_of_answers(page: Page) -> None:
    open_routine(page, "The Harbour Light")
    verdict_is(page, "proved")
    page.locator(".cm-line", has_text="28th from").click()
    select_line(page)
    page.keyboard.insert_text("Place LANTERN ?th")
    page.get_by_role("tab", name="What would", exact=True).click()
    expect(page.get_by_role("tabpanel")).to_contain_text("1 of 52 ways work", timeout=60_000)
    page.get_by_role("button", name="Write it").click()
    verdict_is(page, "proved")
    expect(sheet(page)).to_contain_text("Place LANTERN 28th")


def test_a_sweep_is_a_row_of_verdicts(page: Page) -> None:
    open_routine(page, "The Harbour Light")
    verdict_is(page, "proved")
    page.get_by_role("tab", name="When", exact=True).click()
    page.get_by_role("combobox", name="Change this number").fill("line 4")
    expect(page.get_by_role("option").first).to_be_visible()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    page.get_by_label("to each of").first.fill("26 to 30")
    page.get_by_role("button", name="Prove them all").click()
    expect(page.get_by_role("table", name="Verdict for each number")).to_be_visible(timeout=60_000)
    expect(page.get_by_role("tabpanel")).to_contain_text("1 of 5 cases come out")
    expect(page.get_by_label("28: proved, 10 paths, 1st in dealt")).to_be_visible()


def test_two_windows_keep_both_texts(page: Page, address: str) -> None:
    open_routine(page, "The Stowaway")
    other = page.context.new_page()
    other.goto(page.url)
    sheet(other).wait_for()
    # Both have written before either hears of the other: what the second sends waits until the first is saved.
    sent: list[Route] = []
    waits = [True]

    def send(route: Route) -> None:
        if waits and route.request.method == "PUT":
            sent.append(route)
        else:
            route.continue_()

    other.route("**/api/routines/*", send)
    sheet(other).focus()
    other.keyboard.press("Control+End")
    other.keyboard.type("# there")
    while not sent:
        other.wait_for_timeout(50)
    sheet(page).focus()
    page.keyboard.press("Control+End")
    page.keyboard.type("# here")
    saved(page)
    waits.clear()
    for route in sent:
        route.continue_()
    expect(other.get_by_text("This routine was changed in another window")).to_be_visible()
    other.get_by_role("button", name="Take the other").click()
    expect(sheet(other)).to_contain_text("# here")
    sheet(other).focus()
    other.keyboard.press("Control+z")
    expect(sheet(other)).to_contain_text("# there")
    saved(other)


def test_what_is_removed_from_the_shelf_is_brought_back(page: Page) -> None:
    page.get_by_role("button", name="Remove Fog Signals").click()
    expect(page.get_by_role("link", name="Fog Signals", exact=True)).to_have_count(0)
    page.get_by_role("button", name="Bring it back").click()
    expect(page.get_by_role("link", name="Fog Signals", exact=True)).to_be_visible()
    page.get_by_label("Search the shelf").fill("gangway")
    expect(page.locator(".routines li")).to_have_count(1)


def test_the_hand_changes_the_path_on_the_table(page: Page) -> None:
    open_routine(page, "The Watch Below")
    verdict_is(page, "proved")
    thought_of = page.locator(".choice", has_text="their card, secret")
    thought_of.get_by_role("slider").focus()
    page.keyboard.press("End")
    expect(thought_of.locator("b")).to_contain_text("27th in deck")
    page.get_by_role("button", name="as a table").click()
    expect(page.locator(".strands-table tbody tr").first).to_contain_text("deck 1")
    page.keyboard.press("Alt+a")
    expect(page.locator(".table-panel .when")).to_contain_text("after line 12")
    page.keyboard.press("Alt+ArrowLeft")
    expect(page.locator(".table-panel .when")).to_contain_text("after line 11, time 3")


def test_a_search_that_takes_long_can_be_stopped(page: Page) -> None:
    # Two counts through one pack: a proof is out of reach.
    endless = (PROCEDURES / "p23_kruskals_count.pivot").read_bytes()
    page.locator("input[type=file]").first.set_input_files(
        {"name": "long.pivot", "mimeType": "text/plain", "buffer": endless}
    )
    page.get_by_role("button", name="Stop").click()
    expect(page.locator("section.verdict")).to_contain_text("The search was stopped")
    sheet(page).focus()
    page.keyboard.press("Control+a")
    page.keyboard.type("Pack: 9 cards\nPlace A 2nd")
    verdict_is(page, "fixed")


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
        page.keyboard.press("Escape")
        page.keyboard.press("Enter")


@pytest.mark.parametrize(
    ("name", "kind", "says"),
    [
        ("p11_from_the_pack", "proved", "exactly MP and MQ are reversed"),
        ("p14_nine_cards", "proved", "the last card dealt is TARGET"),
        ("p21_placing", "one-of", "One of 3"),
    ],
)
def test_a_procedure_is_typed_and_settled(page: Page, name: str, kind: str, says: str) -> None:
    type_routine(page, name)
    verdict_is(page, kind)
    assert says in headline(page)
    if name == "p11_from_the_pack":
        odds = page.get_by_label("Odds of ending")
        expect(odds).to_contain_text("1 in 51", timeout=60_000)


def test_a_spelled_routine_is_built_from_the_steps(page: Page) -> None:
    page.get_by_role("link", name="The Harbour Light", exact=True).wait_for()
    blank_page(page)
    sheet(page).focus()
    page.keyboard.press("Control+a")
    # In one piece: a suggestion that comes late may else take the Enter for itself.
    page.keyboard.insert_text("Pack: 9 cards, any order\nPlace TARGET 3rd")
    expect(page.locator(".cm-line").nth(1)).to_have_text("Place TARGET 3rd")
    for step in ("spells the name", "Drop the rest", "Spell “lantern”", "Drop the rest", "spells the name", "Drop the rest",
                 "Spell “lantern”", "the last card dealt is FORCE"):  # fmt: skip
        insert_step(page, step)

    def fill(line: int, was: str, now: str) -> None:
        row = page.locator(".cm-line").nth(line - 1)
        expect(row).to_contain_text(was)
        row.click()
        select_line(page)
        page.keyboard.insert_text(now)
        expect(row).to_have_text(now)

    fill(3, "deck", "Spell the value of TARGET from deck")
    fill(5, "deck", "Spell “of” from deck")
    fill(7, "deck", "Spell the suit of TARGET from deck")
    fill(9, "deck", "Spell “trick” from deck")
    fill(10, "FORCE", "Ends with: the last card dealt is TARGET")
    verdict_is(page, "proved")
    expect(page.locator("section.verdict .cover")).to_contain_text("52 paths")


@pytest.mark.parametrize(("name", "kind"), [("p11_from_the_pack", "proved"), ("p21_placing", "one-of")])
def test_a_procedure_is_built_from_the_steps(page: Page, name: str, kind: str) -> None:
    """Every line is taken from the list of steps, then its margin and what it speaks of are changed."""
    page.get_by_role("link", name="The Harbour Light", exact=True).wait_for()
    blank_page(page)
    sheet(page).focus()
    page.keyboard.press("Control+a")
    page.keyboard.press("Backspace")
    text = (PROCEDURES / f"{name}.pivot").read_text(encoding="utf-8")
    for line in read_routine(text).walk():
        assert line.kind
        insert_step(page, line.kind.example)
        page.locator(".cm-line").last.click(click_count=3)
        page.keyboard.insert_text(line.text)
    verdict_is(page, kind)
    assert sheet(page).inner_text().split() == text.split()


def test_a_face_you_do_not_know_is_told_at_its_line(page: Page) -> None:
    page.get_by_role("link", name="The Harbour Light", exact=True).wait_for()
    blank_page(page)
    sheet(page).focus()
    page.keyboard.press("Control+a")
    page.keyboard.insert_text(
        "Pack: 52 cards, any order\nSpectator thinks of a card in deck: their card\n"
        "Spectator secretly thinks of a number n from 1 to 9\nDeal value of their card cards from deck\nDeal n cards from deck"
    )
    notes = page.locator(".gp-fault-note")
    expect(notes.first).to_contain_text("You do not know what their card is")
    sheet(page).focus()
    page.keyboard.press("ArrowUp")
    page.keyboard.press("Home")
    page.keyboard.insert_text("Spectator names their card\n")
    expect(notes).to_have_count(1)
    expect(notes).to_contain_text("You do not know n")


def test_odds_notes_and_badges(page: Page) -> None:
    page.get_by_label("Show only routines that are").get_by_text("hands off").click()
    expect(page.get_by_role("link", name="The Harbour Light", exact=True)).to_have_count(0)
    page.get_by_label("Show only routines that are").get_by_text("hands off").click()
    open_routine(page, "Three Bells")
    verdict_is(page, "proved")
    expect(page.get_by_label("Odds of ending")).to_contain_text("14.58 %")
    page.get_by_text("You may say").click()
    open_line = page.locator(".notes details", has_text="To remember")
    if open_line.count():
        open_line.locator("summary").click()
    page.get_by_role("link", name="Shelf").click()
    open_routine(page, "The Purser’s Count")
    verdict_is(page, "proved")
    # Unshielded, the back shows at the line that deals it.
    line = page.locator(".cm-line", has_text="shielded")
    line.click(position={"x": 60, "y": 8})
    page.keyboard.press("End")
    page.keyboard.press("End")
    for _ in ", shielded":
        page.keyboard.press("Backspace")
    expect(page.locator(".cm-line", has_text="shielded")).to_have_count(0)
    verdict_is(page, "refuted")
    expect(page.locator(".gp-shows").first).to_contain_text("the back of LODGER shows")
