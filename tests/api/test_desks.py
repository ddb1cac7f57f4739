"""The desks over HTTP and on the command line."""

from __future__ import annotations

import csv
import json
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from typer.testing import CliRunner

from golden_pivot.cli import app
from golden_pivot.core.desks import DESKS


def test_every_desk_answers_and_gives_its_files(client: TestClient) -> None:
    listed = client.get("/api/desks").json()
    assert [desk["name"] for desk in listed] == ["spell", "pickup", "stack", "mix", "narrow", "odds"] == list(DESKS)
    for desk in listed:
        reply = client.post(f"/api/desks/{desk['name']}", json={"asks": desk["asks"]}).json()
        assert reply["trouble"] is None and reply["answer"] and reply["picture"].startswith("<svg")
        at = f"/api/desks/{desk['name']}"
        assert next(csv.reader(client.get(f"{at}/table.csv").text.splitlines())) == reply["tables"][0]["head"]
        assert client.get(f"{at}/picture.svg").headers["content-type"] == "image/svg+xml"
        assert client.get(f"{at}/answer.json").json() == reply["answer"]


def test_trouble_is_an_answer_of_its_own(client: TestClient) -> None:
    reply = client.post("/api/desks/pickup", json={"asks": {"piles": 9, "cards": 3, "rounds": 1, "dealt": "face up",
                                                            "told": "table", "wanted": 1}})  # fmt: skip
    assert reply.status_code == 200 and reply.json()["answer"] is None
    assert reply.json()["trouble"]["field"] == "piles"
    asks = json.dumps({"piles": 9, "cards": 3})
    for path, status in (
        (f"/api/desks/pickup/table.csv?asks={asks}", 422),
        ("/api/desks/pickup/table.csv?asks=[", 422),
        ("/api/desks/pickup/table.csv?table=7", 404),
        ("/api/desks/frog/table.csv", 404),
    ):
        refused = client.get(path)
        assert refused.status_code == status and refused.json()["message"], path
    assert client.post("/api/desks/mix", json={"asks": {"cards": "many"}}).status_code == 422


def test_a_result_is_written_into_a_text(client: TestClient) -> None:
    send = client.post("/api/desks/pickup", json={"asks": client.get("/api/desks").json()[1]["asks"]}).json()[
        "answer"
    ]["send"]
    text = client.post("/api/desks/send", json={"text": "Title: A\n", "send": send}).json()["text"]
    assert (
        client.post("/api/prove", json={"text": text, "job": "p", "lane": "long"}).json()["verdict"]["verdict"]
        == "proved"
    )


@pytest.mark.parametrize(
    ("words", "code", "says"),
    [
        (["spell", "--wanted", "12", "--json"], 0, '"unreached": []'),
        (["pickup", "--piles", "3", "--rounds", "3", "--cards", "21", "--wanted", "11"], 0, "middle, middle, middle"),
        (["pickup", "--piles", "30"], 2, "Piles cannot be 30"),
        (["stack", "--constraints", "card 1 is a king", "--constraints", "card 1 is red", "--json"], 0, "king of"),
        (["stack", "--constraints", "card 1 is a king", "--constraints", "card 1 is an ace"], 1, "card 1 is a king"),
        (["stack", "--constraints", "card 1 is frog"], 2, "“frog” does not fit here"),
        (["mix", "--cards", "52", "--chain", "Out faro", "--json"], 0, '"order": 8'),
        (["mix", "--cards", "9", "--moves", "Cut 1", "--wanted", "reversal"], 1, "none of up to 10 mixes"),
        (["narrow", "--objects", "7", "--patterns", "4"], 2, "no pointing is provided"),
        (["odds", "demo:fog_signals", "--rest", "evenly"], 0, "47.39 %"),
        (["odds", "demo:fog_signals"], 0, "between 0 % and 100 %"),
        (["odds", "demo:frog"], 2, "There is no demo routine"),
    ],
)
def test_a_verb_for_each_desk(words: list[str], code: int, says: str) -> None:
    result = CliRunner().invoke(app, words)
    assert says in result.output and result.exit_code == code


def test_names_from_a_file_and_files_from_the_command_line(tmp_path: Path) -> None:
    names, table, picture = (tmp_path / name for name in ("guests.csv", "out.csv", "out.svg"))
    names.write_text("Odile,cabin 4\nBo,cabin 5\n", encoding="utf-8")
    words = ["spell", "--names", f"@{names}", "--wanted", "5", "--csv", str(table), "--svg", str(picture), "--json"]
    result = CliRunner().invoke(app, words)
    assert [row["name"] for row in json.loads(result.output)["rows"]] == ["Odile", "Bo"]
    assert table.read_text(encoding="utf-8").startswith("name,spell") and picture.read_text(
        encoding="utf-8"
    ).startswith("<svg")
    assert CliRunner().invoke(app, ["spell", "--names", f"@{tmp_path / 'none'}"]).exit_code == 2
