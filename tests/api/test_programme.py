"""Programmes over HTTP: saved under revisions, worked out, printed, written into the book."""

from __future__ import annotations

from typing import Any

import pytest
from fastapi.testclient import TestClient
from icalendar import Calendar

from golden_pivot.demo import demo_text

SHOWN = ("watch_below", "two_gangways", "second_berth", "harbour_light")


@pytest.fixture
def uids(client: TestClient) -> list[str]:
    return [client.post("/api/routines", json={"text": demo_text(name)}).json()["uid"] for name in SHOWN]


@pytest.fixture
def made(client: TestClient, uids: list[str]) -> dict[str, Any]:
    occasion = {"title": "Supper", "held_on": "2026-11-05", "begins": "20:30", "minutes": 30, "routines": uids}
    found: dict[str, Any] = client.post("/api/programmes", json=occasion).json()
    return found


def test_a_programme_is_saved_under_revisions(client: TestClient, made: dict[str, Any]) -> None:
    at = f"/api/programmes/{made['uid']}"
    changed = {**made["occasion"], "place": "aft saloon"}
    saved = client.put(at, json={"occasion": changed, "revision": 1}).json()
    assert (saved["revision"], saved["occasion"]["place"]) == (2, "aft saloon")
    stale = client.put(at, json={"occasion": made["occasion"], "revision": 1})
    assert stale.status_code == 409 and "another window" in stale.json()["message"]
    assert client.get(at).json() == saved
    refused = client.put(at, json={"occasion": {**changed, "begins": "25:00"}, "revision": 2})
    assert (refused.status_code, refused.json()["where"]) == (422, "begins") and refused.json()["remedy"]
    gone = client.delete(at).json()
    for bad in (
        {"uid": "../x"},
        {"occasion": {**gone["occasion"], "packs": -3}},
        {"occasion": {**gone["occasion"], "title": ""}},
    ):
        assert client.post("/api/programmes/put-back", json={**gone, **bad}).status_code == 422
    assert client.get("/api/programmes").json() == [] and client.get(at).status_code == 404
    assert client.post("/api/programmes/put-back", json=gone).json() == {"done": True}
    assert client.get("/api/programmes").json() == [saved]


def test_it_is_worked_out_and_a_better_order_is_found(
    client: TestClient, made: dict[str, Any], uids: list[str]
) -> None:
    at = f"/api/programmes/{made['uid']}"
    found = client.post(f"{at}/running-order", json={}).json()
    assert [turn["uid"] for turn in found["running"]["turns"]] == uids and found["missing"] == []
    best = client.post(f"{at}/best-order", json={}).json()
    assert sorted(best["order"]) == [0, 1, 2, 3] and best["says"]
    # A routine that is taken off the shelf is told, and the others are worked out.
    number = client.get("/api/routines").json()[0]["id"]
    client.delete(f"/api/routines/{number}")
    found = client.post(f"{at}/running-order", json={}).json()
    assert found["missing"] == uids[:1] and len(found["running"]["turns"]) == 3
    empty = client.post("/api/programmes", json={"title": "Nothing"}).json()["uid"]
    assert client.post(f"/api/programmes/{empty}/running-order", json={}).json()["running"]["turns"] == []
    assert "at least two" in client.post(f"/api/programmes/{empty}/best-order", json={}).json()["says"]


def test_what_was_measured_goes_before_what_is_reckoned(
    client: TestClient, made: dict[str, Any], uids: list[str]
) -> None:
    for minutes in (9, 3, 4):
        client.post("/api/book", json={"routine_id": 1, "played_on": "2026-11-01", "minutes": minutes})
    turn = client.post(f"/api/programmes/{made['uid']}/running-order", json={}).json()["running"]["turns"][0]
    assert (turn["seconds"], turn["measured"]) == (240, 3)


def test_it_is_printed_and_comes_into_a_calendar(client: TestClient, made: dict[str, Any]) -> None:
    at = f"/api/programmes/{made['uid']}"
    small = {**made["occasion"], "routines": made["occasion"]["routines"][2:3]}
    client.put(at, json={"occasion": small, "revision": 1})
    pdf = client.get(f"{at}/programme.pdf")
    assert (
        pdf.status_code == 200
        and pdf.content.startswith(b"%PDF")
        and pdf.content == client.get(f"{at}/programme.pdf").content
    )
    (event,) = Calendar.from_ical(client.get(f"{at}/programme.ics").content).walk("VEVENT")
    assert (event["summary"], event["dtstart"].dt.isoformat()) == ("Supper", "2026-11-05T20:30:00")
    assert (event["dtend"].dt - event["dtstart"].dt).seconds == 30 * 60
    client.put(at, json={"occasion": {**small, "held_on": ""}, "revision": 2})
    refused = client.get(f"{at}/programme.ics")
    assert (refused.status_code, refused.json()["where"]) == (422, "held_on")


def test_what_was_shown_comes_into_the_book_in_one_go(
    client: TestClient, made: dict[str, Any], uids: list[str]
) -> None:
    at = f"/api/programmes/{made['uid']}/played"
    how = {"played_on": "2026-09-20", "entries": [{"minutes": 6}, {"ended": "failed", "chosen": {"n": 7}}]}
    entries = client.post(at, json=how).json()
    assert [one["routine"] for one in entries] == uids
    assert [(one["occasion"], one["ended"], one["minutes"]) for one in entries[:2]] == [
        ("Supper", "as planned", 6),
        ("Supper", "failed", None),
    ]
    assert len(client.get("/api/book").json()) == 4
    # All of it or nothing.
    bad = client.post(at, json={"played_on": "2026-09-20", "entries": [{}, {"went": 9}]})
    assert bad.status_code == 422 and len(client.get("/api/book").json()) == 4
