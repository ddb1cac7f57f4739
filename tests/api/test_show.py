"""Sheets, costs and comparison over HTTP and on the command line."""

from __future__ import annotations

import json
from pathlib import Path

from fastapi.testclient import TestClient
from typer.testing import CliRunner

from golden_pivot.cli import app
from golden_pivot.demo import demo_text


def test_sheets_on_the_screen_and_as_files(client: TestClient) -> None:
    text = demo_text("pursers_count")
    routine = client.post("/api/routines", json={"text": text}).json()["id"]
    for kind in ("cues", "setup", "reset"):
        sheet = client.post("/api/sheet", json={"text": text, "kind": kind}).json()
        assert sheet["title"] == "The Purser’s Count" and sheet["warning"] is None and sheet["parts"]
        at = f"/api/routines/{routine}/sheets/{kind}"
        file = client.get(f"{at}.pdf")
        assert file.content.startswith(b"%PDF") and file.headers["content-type"] == "application/pdf"
        assert f"the_pursers_count.{kind}.pdf" in file.headers["content-disposition"]
        assert client.get(f"{at}.pdf?size=pocket").content != file.content == client.get(f"{at}.pdf").content
        assert client.get(f"{at}.md").text.startswith("# The Purser’s Count")
    assert client.get(f"/api/routines/{routine}/sheets/frog.pdf").status_code == 422
    assert client.get("/api/routines/999/sheets/cues.pdf").status_code == 404


def test_costs_go_by_the_paces_of_the_settings(client: TestClient) -> None:
    asked = {"text": demo_text("harbour_light"), "surface": {"table": 200}}
    first = client.post("/api/costs", json=asked).json()["costs"]
    assert first["effort"]["cards"] == 51 and first["room"]["fits"] and first["wording"] == []
    settings = client.get("/api/settings").json()
    settings["paces"]["card"] = 5
    assert client.put("/api/settings", json=settings).status_code == 200
    slower = client.post("/api/costs", json=asked).json()["costs"]
    assert slower["effort"]["seconds"] - first["effort"]["seconds"] == 51 * 4.2
    assert client.post("/api/costs", json={"text": "Pack: 9 crads"}).json() == {"costs": None}
    settings["paces"]["card"] = -1
    assert client.put("/api/settings", json=settings).status_code == 422


def test_lines_are_written_into_the_gaps(client: TestClient) -> None:
    text = client.post("/api/patter", json={"text": demo_text("watch_below")}).json()["text"]
    assert "“Turn over the 14th card of the pack.”" in text
    broken = "Pack: 9 crads\n"
    assert client.post("/api/patter", json={"text": broken}).json() == {"text": broken}


def test_two_texts_side_by_side(client: TestClient) -> None:
    found = client.post(
        "/api/compare", json={"text": demo_text("harbour_light"), "other": demo_text("forty_minutes")}
    ).json()
    assert found["left"]["verdict"] == "proved" and found["right"]["verdict"] == "refuted"
    assert {row["how"] for row in found["rows"]} >= {"same", "changed"}


def test_a_sheet_from_the_command_line(tmp_path: Path) -> None:
    printed = CliRunner().invoke(app, ["sheet", "demo:watch_below"])
    assert printed.exit_code == 0 and "Which watch does he stand?" in printed.output
    out = tmp_path / "cues.pdf"
    words = ["sheet", "demo:watch_below", "--kind", "setup", "--size", "pocket", "--out", str(out)]
    assert CliRunner().invoke(app, words).exit_code == 0
    assert out.read_bytes().startswith(b"%PDF") and [path.name for path in tmp_path.iterdir()] == ["cues.pdf"]
    assert CliRunner().invoke(app, ["sheet", "demo:watch_below", "--kind", "frog"]).exit_code == 2
    assert (
        CliRunner().invoke(app, ["sheet", "demo:watch_below", "--out", str(tmp_path / "none" / "x.pdf")]).exit_code
        == 2
    )


def test_costs_schools_and_versions_from_the_command_line(tmp_path: Path) -> None:
    told = CliRunner().invoke(app, ["costs", "demo:pursers_count"])
    assert told.exit_code == 0 and "hand holds 16 cards, which looks thick." in told.output
    schools = CliRunner().invoke(app, ["schools", "demo:lifeboat_drill", "--json"])
    assert {one["label"] for one in json.loads(schools.output)} >= {"a prediction on paper"}
    both = CliRunner().invoke(app, ["compare", "demo:harbour_light", "demo:forty_minutes"]).output
    assert "- Spectator names a number n from 30 to 39" in both and "demo:forty_minutes: Fails when n is 40" in both
    broken = tmp_path / "broken.pivot"
    broken.write_text("Pack: 9 crads\n", encoding="utf-8")
    for verb in ("costs", "schools"):
        refused = CliRunner().invoke(app, [verb, str(broken)])
        assert refused.exit_code == 2 and "line 1, column 9" in refused.stderr
