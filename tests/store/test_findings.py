"""What was found of a text is kept for this program only, and for texts that stand on the shelf."""

from __future__ import annotations

from pathlib import Path

from golden_pivot.store import Database, Findings


def test_a_finding_is_of_a_text_and_of_a_program(tmp_path: Path) -> None:
    with_it = Database(tmp_path / "shelf.sqlite3")
    Findings(with_it, "one").keep("proof", {"Title: A": {"says": "Proved"}, "Title: B \ud800": {"says": "Fails"}})
    with_it.close()
    again = Database(tmp_path / "shelf.sqlite3")
    found = Findings(again, "one").of("proof")
    assert found.get("Title: A") == {"says": "Proved"} and found.get("Title: B \ud800") == {"says": "Fails"}
    assert found.get("Title: C") is None and Findings(again, "one").of("glance").get("Title: A") is None
    assert Findings(again, "another").of("proof").get("Title: A") is None
    Findings(again, "one").keep_only(["Title: A"])
    left = Findings(again, "one").of("proof")
    assert left.get("Title: A") and left.get("Title: B \ud800") is None
    Findings(again, "another").keep_only(["Title: A"])
    assert Findings(again, "one").of("proof").get("Title: A") is None
    again.close()
