"""The command line: an exit code that is never taken for an answer, standard input, back-ups and archives."""

from __future__ import annotations

import json
import os
from contextlib import closing
from pathlib import Path

import pytest

from golden_pivot import cli
from golden_pivot.store import Database, Shelf
from tests.api.terminal import outside, told
from tests.store.test_trouble import filled_shelf, spoil

GOOD = "Pack: 9 cards\nPlace A 2nd\nDeal 2 cards from deck\nEnds with: the last card dealt is A\n"


def test_a_routine_comes_on_standard_input() -> None:
    assert outside("prove", "-", given=GOOD).returncode == 0
    assert told("prove", "-", given="\ufeff" + GOOD).returncode == 0
    assert told("prove", "-", given=b"\xff\xfe").returncode == 2
    assert b"Traceback" not in (refused := outside("prove", "none.pivot")).stderr and refused.returncode == 2


def many_on(path: Path) -> int:
    with closing(Database(path)) as database:
        return len(Shelf(database).routines())


def _prepared(tmp_path: Path) -> dict[str, Path]:
    (tmp_path / "folder").mkdir()
    (tmp_path / "text").write_text("Title: no shelf")
    filled_shelf(tmp_path / "good")
    filled_shelf(tmp_path / "damaged")
    spoil(tmp_path / "damaged")
    (tmp_path / "routine.pivot").write_text(GOOD)
    return {name: tmp_path / name for name in ("folder", "text", "good", "damaged", "routine.pivot", "none")}


BAD = [
    ("list", "--data", "{folder}"),
    ("list", "--data", "{text}"),
    ("list", "--data", "{none}"),
    ("serve", "--data", "{folder}"),
    ("serve", "--data", "{text}/below"),
    ("serve", "--port", "99999", "--data", "{good}"),
    ("prove", "shelf:99999999999999999999", "--data", "{good}"),
    ("prove", "shelf:61", "--data", "{good}"),
    ("prove", "shelf:1", "--data", "{text}"),
    ("prove", "{folder}",),
    ("prove", "{routine.pivot}", "--states", "0"),
    ("prove", "{routine.pivot}", "--seconds", "0"),
    ("sheet", "{routine.pivot}", "--out", "{folder}/" + "x" * 300 + ".pdf"),
    ("sheet", "{routine.pivot}", "--out", "{none}/below.pdf"),
    ("spell", "--csv", "{folder}"),
    ("export", "{folder}", "--data", "{good}"),
    ("import", "{text}.zip", "--data", "{good}"),
    ("import", "{damaged}", "--data", "{good}"),
    ("import", "{folder}", "--data", "{good}"),
    ("restore", "none", "--data", "{good}"),
    ("backup", "--data", "{none}"),
]  # fmt: skip


@pytest.mark.parametrize("arguments", BAD, ids=" ".join)
def test_bad_input_is_told_and_exits_2(tmp_path: Path, arguments: tuple[str, ...]) -> None:
    paths = _prepared(tmp_path)
    for name, path in paths.items():
        arguments = tuple(part.replace("{" + name + "}", str(path)) for part in arguments)
    found = told(*arguments)
    assert found.returncode == 2 and found.stderr and b"Traceback" not in found.stderr, found


def test_what_breaks_is_no_answer(monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]) -> None:
    def broken() -> None:
        raise IndexError("here")

    monkeypatch.setattr(cli, "app", broken)
    with pytest.raises(SystemExit) as end:
        cli.main()
    assert end.value.code == 70 and "IndexError" in capsys.readouterr().err


def test_out_and_in_again_with_a_backup_before(tmp_path: Path) -> None:
    shelf, new, archive, again = (tmp_path / name for name in ("a.sqlite3", "b.sqlite3", "a.zip", "b.zip"))
    filled_shelf(shelf, 5)
    assert told("export", archive, "--data", shelf).returncode == 0
    assert archive.stat().st_mode & 0o077 == 0
    assert b"new" in told("import", archive, "--data", new, "--preview").stdout
    assert told("import", archive, "--data", new).stdout.startswith(b"5 new")
    assert told("export", again, "--data", new).returncode == 0
    assert again.read_bytes() == archive.read_bytes()
    (tmp_path / "texts").mkdir()
    (tmp_path / "texts" / "one.pivot").write_text("Title: 0\nPack: 8 cards\n")
    (tmp_path / "texts" / "two.pivot").write_text("Title: Quite new\n")
    assert told("import", tmp_path / "texts", "--data", new, "--differing", "theirs").stdout.startswith(b"1 new")
    assert many_on(new) == 6
    names = [row.split()[0].decode() for row in told("restore", "--data", new).stdout.splitlines()]
    assert told("restore", names[0], "--data", new).returncode == 0
    assert many_on(new) == 5


def test_a_damaged_shelf_is_rescued(tmp_path: Path) -> None:
    shelf, archive = tmp_path / "a.sqlite3", tmp_path / "readable.zip"
    filled_shelf(shelf)
    assert told("backup", "--data", shelf).returncode == 0
    (name,) = [row.split()[0].decode() for row in told("restore", "--data", shelf).stdout.splitlines()]
    spoil(shelf, shelf.stat().st_size // 8192 * 4096)
    refused = told("backup", "--data", shelf)
    assert refused.returncode == 2 and b"damaged" in refused.stderr
    assert told("restore", "--data", shelf, "--readable", archive).returncode == 0 and archive.exists()
    assert told("restore", name, "--data", shelf).returncode == 0
    assert len(Shelf(Database(shelf)).routines()) == 60


def test_no_program_writes_what_another_serves(tmp_path: Path) -> None:
    from tests.browser.driving import server

    shelf = tmp_path / "a.sqlite3"
    filled_shelf(shelf, 2)
    (tmp_path / "one.pivot").write_text(GOOD)
    with server(shelf, demo=False) as (address, process):
        for arguments in (("serve",), ("import", tmp_path / "one.pivot"), ("restore", "any")):
            refused = told(*arguments, "--data", shelf)
            assert refused.returncode == 2 and address.encode() in refused.stderr
        assert told("backup", "--data", shelf).returncode == 0
        assert told("list", "--data", shelf).returncode == 0
        process.kill()
        process.wait(60)
    # A server that was killed keeps nobody out.
    assert told("import", tmp_path / "one.pivot", "--data", shelf).returncode == 0
    assert os.access(shelf, os.R_OK)


NOTES = (
    "The queen of hearts is tenth from the top. They name a number from ten to nineteen. Deal that many onto the table and put them "
    "back on the pack. Deal as many as the two figures come to. The last card dealt is the queen."
)


def test_a_fault_ends_in_what_the_line_can_be_read_as() -> None:
    refused = told("prove", "-", given="Pack: 9 cards\nPlace A 2nd\nDeal two cards on the table\nCount off three\n")
    assert refused.returncode == 2 and b"Read as: Deal 2 cards from deck to table\n" in refused.stderr
    assert b"Read as: Deal 3 cards from deck to table or: Count 3 cards" in refused.stderr


def test_a_verdict_behind_a_sentence_that_was_not_read_says_so_first() -> None:
    notes = f"{NOTES} Now a gentle wobble of the boat.\n"
    proved = told("prove", "--read", "-", given=notes)
    assert proved.returncode == 4
    assert proved.stdout.startswith(b"As far as it is read, 1 sentence of the notes left out: ")
    assert b"Not read: Now a gentle wobble of the boat." in proved.stdout
    found = json.loads(told("prove", "--read", "-", "--json", given=notes).stdout)
    assert found["verdict"] == "as-far-as-read" and found["unread"] == ["Now a gentle wobble of the boat."]
    assert found["verdict_without"] == "proved"


def test_notes_are_read_and_proved() -> None:
    read = told("read", "-", given=NOTES)
    assert read.returncode == 0 and b"  Place queen of hearts 10th" in read.stdout and b"(not said)" in read.stdout
    proved = told("prove", "--read", "-", given=NOTES)
    assert proved.returncode == 0 and b"Spectator names a number n from 10 to 19" in proved.stderr
    assert proved.stdout.startswith(b"Proved: the last card dealt is queen of hearts")
    for verb in (["read", "-"], ["prove", "--read", "-"]):
        assert told(*verb, given=NOTES.replace("Deal that", "Count off ten. Deal that")).returncode == 2


def test_what_is_done_between_two_routines_and_what_must_be_known() -> None:
    done = told("between", "demo:watch_below", "demo:watch_below")
    assert (done.returncode, done.stdout) == (0, b"Ready as it lies.\n")
    known = told("drills", "demo:harbour_light", "--json")
    assert known.returncode == 0 and len(json.loads(known.stdout)[0]["questions"]) == 10
    assert b"n is 34: digit sum of n 7" in told("drills", "demo:harbour_light").stdout
    for verb in (("between", "demo:last_orders", "demo:watch_below"), ("drills", "demo:last_orders")):
        assert told(*verb).returncode == 2
