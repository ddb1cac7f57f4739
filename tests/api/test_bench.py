"""What the bench asks of the server, over HTTP."""

from __future__ import annotations

from itertools import groupby
from typing import Any

import pytest
from fastapi.testclient import TestClient

from golden_pivot.demo import demo_text

TOLD = """Pack: 9 cards, any order
Spectator thinks of a card in deck: their card
Repeat 2 times:
  Deal deck into 3 piles, face up
  Spectator tells which pile holds their card: p
  Gather the piles, pile p 2nd, the others in any order
  Turn deck over
"""


def post(client: TestClient, path: str, **body: Any) -> Any:
    reply = client.post(f"/api/{path}", json=body)
    assert reply.status_code == 200, reply.text
    return reply.json()


def test_strands_are_edges_between_columns_never_paths(client: TestClient) -> None:
    strands = post(client, "strands", text=TOLD, job="s")["strands"]
    assert (strands["card"], strands["beginning"]["line"], len(strands["beginning"]["where"])) == ("their card", 2, 9)
    assert [(c["line"], c["last"], c["turn"], len(c["edges"])) for c in strands["columns"]] == [
        (3, 7, 1, 9),
        (3, 7, 2, 3),
    ]
    edge = strands["columns"][1]["edges"][0]
    assert edge["to"] == {"place": "deck", "position": 5} and edge["can_succeed"] and not edge["can_fail"]
    assert post(client, "strands", text="Pack: 9 crads", job="t") == {"strands": None}


def test_the_ledger_has_an_entry_a_line_and_round(client: TestClient) -> None:
    rows = post(client, "ledger", text=TOLD, job="l")["ledger"]
    assert [(row["line"], row["round"], row["text"], row["sure"]) for row in rows if row["line"] in (2, 7)] == [
        (2, [], "q", True), (7, [1], "⌈q/3⌉ + 3", True), (7, [2], "5", True)
    ]  # fmt: skip
    assert post(client, "ledger", text="Pack: 9 crads", job="m") == {"card": None, "cards": [], "ledger": []}


def test_the_ledger_of_another_card(client: TestClient) -> None:
    text = "Pack: 9 cards\nPlace A 2nd\nPlace KEY 3rd\nDeal 4 cards from deck\nEnds with: the next card is A"
    about = post(client, "ledger", text=text, job="a")
    assert (about["card"], about["cards"], about["ledger"][-1]["text"]) == ("A", ["A", "KEY"], "dealt 3")
    other = post(client, "ledger", text=text, job="b", card="KEY")
    assert (other["card"], other["ledger"][-1]["text"]) == ("KEY", "dealt 2")


def test_questions_about_a_routine_that_is_none_yet(client: TestClient) -> None:
    for path, answer in (("explain", "explanation"), ("holds", "limits"), ("slips", "slips")):
        assert post(client, path, text="Pack: 9 crads", job=path) == {answer: None}
    for path in ("solve", "sweep"):
        assert "“crads” does not fit" in post(client, path, text="Pack: 9 crads", job=path)["trouble"]
        told = post(client, path, text="Pack: 9 cards\nPlace A 2nd\nEnds with: the top card of deck is A", job=path)
        assert "no blank" in told["trouble"]
    wrong = client.post("/api/solve", json={"text": "Pack: 9 cards", "job": "w", "domains": {"x": "1"}})
    assert wrong.status_code == 422 and wrong.json()["where"]


def test_a_sweep_over_two_numbers_of_the_text(client: TestClient) -> None:
    text = "Pack: 9 cards, any order\nPlace A 2nd\nDeal 3 cards from deck\nEnds with: the 2nd card of dealt is A\n"
    numbers = {
        one["value"]: {"line": one["line"], "start": one["start"]}
        for one in post(client, "read", text=text)["numbers"]
    }
    asked = {"varies": [numbers["3"]], "domains": {"1": "1 to 4"}}
    rows = post(client, "sweep", text=text, job="s", **asked)["sweep"]["rows"]
    assert [row["verdict"] for row in rows] == ["impossible", "refuted", "proved", "refuted"]
    # What is not tried is told, never left out.
    for words, trouble in (
        ("1 to 999999", "too much to try"),
        ("1 to 12345678901", "too much to try"),
        ("4 to 1", "write 1 to 4"),
    ):
        asked["domains"] = {"1": words}
        assert trouble in post(client, "sweep", text=text, job="s", **asked)["trouble"]
        assert (
            trouble
            in post(client, "solve", text=text.replace("3 cards", "? cards"), job="s", domains=asked["domains"])[
                "trouble"
            ]
        )


def test_a_path_is_played_with_its_decisions_in_words(client: TestClient) -> None:
    played = post(client, "play", text=TOLD, job="p", choices={"their card": 4})
    first, order, _ = played["decisions"]
    assert (first["value"], first["words"][3], first["secret"]) == (4, "4th in deck", True)
    assert (order["options"], order["words"]) == (
        [20103, 30102],
        ["2, 1 and 3 from the top", "3, 1 and 2 from the top"],
    )
    assert played["frames"][0]["names"] == {} and played["frames"][0]["at"] is None
    last = played["frames"][-1]
    assert last["at"] == {"place": "deck", "position": 5} and last["names"] == {"4": "their card"}
    assert played["failures"] == [] and played["stuck_at"] is None
    # The same seed gives the same path; a choice that cannot be is moved to the nearest that can.
    again = [post(client, "play", text=TOLD, job="q", seed=7)["decisions"] for _ in range(2)]
    assert again[0] == again[1]
    assert post(client, "play", text=TOLD, job="r", choices={"their card": 99})["decisions"][0]["value"] == 9


def test_the_worst_case_of_a_refuted_routine_is_its_counterexample(client: TestClient) -> None:
    text = demo_text("forty_minutes")
    played = post(client, "play", text=text, job="w", worst=True)
    assert played["decisions"][0]["value"] == 40
    assert played["failures"] == ["LANTERN is 13th but the count ends at 4"]
    # Of a proved one it is the path that handles most cards.
    assert post(client, "play", text=demo_text("harbour_light"), job="x", worst=True)["decisions"][0]["value"] == 39


def test_rounds_without_end_are_decisions_one_after_another(client: TestClient) -> None:
    text = "Pack: 6 cards\nPlace A 2nd\nAs often as the spectator likes, one of:\n  Turn deck over\n  Cut deck at 1 and complete the cut\n"
    choices = {"round 1 in line 3": 2, "round 2 in line 3": 1, "round 3 in line 3": 0}
    played = post(client, "play", text=text, job="c", choices=choices)
    assert [d["words"][d["value"]] for d in played["decisions"]] == [
        "cut deck at 1 and complete the cut", "turn deck over", "nothing more"
    ]  # fmt: skip
    assert played["frames"][-1]["at"] == {"place": "deck", "position": 6}


def test_a_page_is_read_line_by_line(client: TestClient) -> None:
    sheet = post(
        client, "read", text="Title: One\nSpectator secretly chooses a number n from 1 to 5\nDael\n  “Say.”\n# why\n"
    )
    assert sheet["title"] == "One"
    assert [(line["what"], line["step"], line["spectator"], line["knowledge"]) for line in sheet["lines"]] == [
        ("step", "title", False, None), ("step", "choose_number", True, "secret"), ("unread", None, False, None),
        ("patter", None, False, None), ("remark", None, False, None),
    ]  # fmt: skip
    assert [fault["line"] for fault in sheet["faults"]] == [3]
    slot = sheet["lines"][1]["slots"][-1]
    assert (slot["type"], slot["start"], slot["end"]) == ("range", 36, 49)


def test_suggestions_go_on_from_the_cursor(client: TestClient) -> None:
    text = "Pack: 9 cards\nPlace A 2nd\nDeal deck into 3 piles\nGather the"
    found = [one["text"] for one in post(client, "suggest", text=text, line=4, column=10)]
    assert "Gather the piles in any order" in found and all(one.startswith("Gather the") for one in found)


def test_what_is_exported_imports_back_to_the_same(client: TestClient) -> None:
    for name in ("fog_signals", "pursers_count", "last_orders"):
        made = client.post("/api/routines", json={"text": demo_text(name)}).json()
        at = f"/api/routines/{made['id']}/routine"
        assert client.get(f"{at}.pivot").text == demo_text(name)
        exported = client.get(f"{at}.json")
        assert 'fog_signals.json"' in exported.headers["content-disposition"] or name != "fog_signals"
        back = client.post("/api/routines/import", json={"document": exported.json()}).json()
        assert [row.strip() for row in back["text"].splitlines()] == [
            row.strip() for row in demo_text(name).splitlines()
        ]


@pytest.mark.parametrize("document", [{}, {"format": "golden-pivot routine 1", "lines": [{"step": "none"}]}])
def test_a_document_that_is_no_routine_is_refused_and_nothing_is_added(client: TestClient, document: Any) -> None:
    reply = client.post("/api/routines/import", json={"document": document})
    assert reply.status_code == 422 and {"message", "where", "expected", "remedy"} <= set(reply.json())
    assert client.get("/api/routines").json() == []


def test_principles_steps_and_schema_are_there_to_ask(client: TestClient) -> None:
    assert {one["name"] for one in client.get("/api/principles").json()} >= {"Told pile", "Digit sum"}
    asked = {"name": "Digit sum", "values": {"t": 3, "nothing": 5}}
    assert "Place FORCE 28th" in client.post("/api/principles/text", json=asked).json()["text"]
    assert client.post("/api/principles/text", json={"name": "None"}).status_code == 404
    steps = client.get("/api/language").json()
    by_family = [step["family"] for step in steps]
    assert [family for family, _ in groupby(by_family)] == list(dict.fromkeys(by_family))
    assert next(step["name"] for step in steps if step["family"] == "Counting") == "deal"  # the most used first
    assert next(step for step in steps if step["name"] == "deal")["spectator"]
    assert client.get("/api/routine.schema.json").json()["$defs"]["line"]


def test_notes_and_odds_of_a_text(client: TestClient) -> None:
    text = "Pack: 52 cards, any order\nRemember the top card of deck: P\nIf P is red:\n  Start again\nTurn deck over"
    found = post(client, "notes", text=text, job="n")["notes"]
    assert found["asks_odds"] and "borrowed pack" in found["badges"]
    chances = post(client, "odds", text=text, job="o")["odds"]["chances"]
    assert [(c["outcome"], c["text"]) for c in chances] == [("starts again", "1 in 2")]
    assert post(client, "notes", text="Pack: 9 crads", job="p") == {"notes": None}
    assert post(client, "odds", text="Pack: 9 crads", job="q") == {"odds": None}


def test_what_was_told_is_held_against_the_routine_played_by_hand(client: TestClient) -> None:
    text = demo_text("harbour_light")
    told = {
        "verdict": post(client, "prove", text=text, job="p")["verdict"],
        "ledger": post(client, "ledger", text=text, job="l"),
    }
    opinion = post(client, "by-hand", text=text, job="b", **told)["opinion"]
    assert opinion["agrees"] and (opinion["played"], opinion["of"]) == (10, 10)
    told["verdict"]["paths"] = 12
    opinion = post(client, "by-hand", text=text, job="c", **told)["opinion"]
    assert not opinion["agrees"] and "12 paths" in opinion["differs"]
    assert post(client, "by-hand", text="Pack: 9 crads", job="d", **told) == {"opinion": None}
