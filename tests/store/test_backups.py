"""Back-ups: made, given up in turn, restored with nothing lost on the way."""

from __future__ import annotations

import threading
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest

from golden_pivot.store import Database, Shelf, ShelfFile, ShelfTrouble, open_shelf_file
from golden_pivot.store.backups import HAND, START, Backup, to_give_up
from tests.store.test_trouble import spoil


def opened(tmp_path: Path, even_damaged: bool = False) -> ShelfFile:
    return open_shelf_file(tmp_path / "shelf.sqlite3", even_damaged)


def test_a_backup_is_restored_and_what_was_there_is_kept(tmp_path: Path) -> None:
    file = opened(tmp_path)
    assert file.backups
    one = file.shelf.add("Title: first")
    kept = file.backups.make(HAND)
    for number in range(5):
        one = file.shelf.save(one.id, f"Title: {number}", one.revision)
    file.backups.restore(kept.name)
    back = file.shelf.routine(one.id)
    assert back.text == "Title: first"
    assert back.revision > one.revision  # a window that still holds the other text gets a conflict
    before = next(b for b in file.backups.all() if "another back-up" in b.why)
    file.backups.restore(before.name)
    assert file.shelf.routine(one.id).text == "Title: 4"
    with pytest.raises(LookupError):
        file.backups.restore("../shelf.sqlite3")
    file.close()
    file = opened(tmp_path)
    assert file.shelf.routine(one.id).text == "Title: 4"
    file.close()


def test_of_one_second_the_last_one_made_is_the_newest(tmp_path: Path) -> None:
    file = opened(tmp_path)
    assert file.backups
    now = datetime(2026, 11, 29, 12, tzinfo=UTC)
    made = [file.backups.make(why, now).name for why in (HAND, "import", HAND, "import", START)] + [
        file.backups.make(HAND, now).name for _ in range(6)
    ]
    assert [one.name for one in file.backups.all() if one.name in made] == made[::-1]
    file.close()


def test_a_save_meanwhile_waits_and_is_not_lost(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    file = opened(tmp_path)
    assert file.backups
    file.shelf.add("Title: first")
    kept = file.backups.make(HAND)
    real, saving = file.backups.make, threading.Thread(target=lambda: file.shelf.add("Title: meanwhile"))

    def make(why: str) -> Backup:
        made = real(why)
        saving.start()
        saving.join(0.3)  # it would have had the time
        return made

    monkeypatch.setattr(file.backups, "make", make)
    file.backups.restore(kept.name)
    saving.join()
    assert [one.text for one in file.shelf.routines()] == ["Title: first", "Title: meanwhile"]
    file.close()


def test_a_damaged_shelf_is_replaced_by_the_newest_sound_backup_and_kept_aside(tmp_path: Path) -> None:
    file = opened(tmp_path)
    assert file.backups
    file.shelf.add("Title: first\n" + "# x\n" * 3000)
    older = file.backups.make(HAND, datetime(2026, 1, 1, tzinfo=UTC))
    newer = file.backups.make(HAND, datetime(2026, 1, 2, tzinfo=UTC))
    file.close()
    spoil(file.backups.folder / newer.name)
    spoil(tmp_path / "shelf.sqlite3", 8192)
    damaged = (tmp_path / "shelf.sqlite3").read_bytes()
    file = opened(tmp_path, even_damaged=True)
    assert file.backups and file.database.trouble
    sound = file.backups.newest_sound()
    assert sound and sound.name == older.name
    with pytest.raises(ShelfTrouble):
        file.backups.restore(newer.name)
    file.backups.restore(older.name)
    assert file.shelf.routine(1).text.startswith("Title: first")
    (aside,) = tmp_path.glob("shelf.damaged-*.sqlite3")
    assert aside.read_bytes() == damaged
    file.close()


def test_a_file_taken_away_is_written_again_with_all_that_was_saved(tmp_path: Path) -> None:
    file = opened(tmp_path)
    one = file.shelf.add("Title: saved")
    (tmp_path / "shelf.sqlite3").unlink()
    with pytest.raises(ShelfTrouble):
        file.shelf.add("Title: not saved")
    assert file.backups
    file.backups.put_back()
    file.shelf.add("Title: more")
    file.close()
    assert [r.text for r in Shelf(Database(tmp_path / "shelf.sqlite3")).routines()] == [one.text, "Title: more"]


def test_one_a_day_is_made_by_itself(tmp_path: Path) -> None:
    file = opened(tmp_path)
    assert file.backups
    now = datetime(2026, 3, 1, 9, tzinfo=UTC)
    assert file.backups.make_if_due(now)
    assert not file.backups.make_if_due(now + timedelta(hours=23))
    assert file.backups.make_if_due(now + timedelta(hours=25))
    file.close()


def test_seven_days_and_eight_weeks_are_kept() -> None:
    first = datetime(2026, 1, 1, 12, tzinfo=UTC)
    copies = [Backup(str(n), (first + timedelta(hours=12 * n)).isoformat(), "", 0) for n in range(400)]
    gone = {one.name for one in to_give_up(copies)}
    kept = [datetime.fromisoformat(one.made_at) for one in copies if one.name not in gone]
    last = kept[-1]
    days = {at.date() for at in kept}
    weeks = {at.isocalendar()[:2] for at in kept}
    assert days >= {last.date() - timedelta(n) for n in range(7)} and len(weeks) == 8 and len(kept) <= 7 + 8
    # Every day for years: no more than that ever lies there.
    lying: list[Backup] = []
    for n in range(800):
        lying.append(Backup(str(n), (first + timedelta(days=n)).isoformat(), "", 0))
        out = {one.name for one in to_give_up(lying)}
        lying = [one for one in lying if one.name not in out]
    assert 13 <= len(lying) <= 15


def test_what_was_made_by_hand_is_never_given_up(tmp_path: Path) -> None:
    file = opened(tmp_path)
    assert file.backups
    first = datetime(2025, 1, 1, tzinfo=UTC)
    mine = file.backups.make(HAND, first)
    for n in range(1, 40):
        file.backups.make(START, first + timedelta(days=3 * n))
    names = [one.name for one in file.backups.all()]
    assert mine.name in names and len(names) < 20
    file.close()
