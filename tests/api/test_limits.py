"""The wall around the server, and the limits on what it reads."""

from __future__ import annotations

from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from golden_pivot.api.app import create_app
from golden_pivot.core.language.parser import read_routine
from golden_pivot.store import Database

NEW = {"text": "Pack: 9 cards"}
SHAPE = {"message", "where", "expected", "remedy", "kind", "saved"}


@pytest.mark.parametrize(
    ("headers", "status"),
    [
        ({}, 201),
        ({"origin": "http://127.0.0.1"}, 201),
        ({"host": "attacker.example"}, 400),
        ({"host": "127.0.0.1.attacker.example"}, 400),
        ({"host": ""}, 400),
        ({"origin": "http://attacker.example"}, 403),
        ({"origin": "null"}, 403),
        ({"origin": "http://127.0.0.1:9"}, 403),
        ({"content-type": "text/plain"}, 415),
        ({"content-type": "application/x-www-form-urlencoded"}, 415),
    ],
)
def test_limits_on_who_may_write(client: TestClient, headers: dict[str, str], status: int) -> None:
    reply = client.post("/api/routines", json=NEW, headers=headers)
    assert reply.status_code == status
    assert len(client.get("/api/routines").json()) == (status == 201)
    if status != 201:
        assert set(reply.json()) == SHAPE


def test_limits_foreign_host_may_not_even_read(client: TestClient) -> None:
    assert client.get("/api/routines", headers={"host": "attacker.example"}).status_code == 400


def test_limits_on_the_size_of_a_body(client: TestClient) -> None:
    body = '{"text": "' + "x" * 1_000_000 + '"}'
    as_json = {"content-type": "application/json"}
    assert client.post("/api/routines", content=body, headers=as_json).status_code == 413
    # Without a length announced, reading stops when it grows too large.
    assert client.post("/api/routines", content=iter([body.encode()]), headers=as_json).status_code == 413
    assert client.get("/api/routines").json() == []


def test_limits_every_reply_carries_the_policy(client: TestClient) -> None:
    for path in ("/", "/api/health", "/api/none"):
        policy = client.get(path).headers["content-security-policy"]
        assert "default-src 'self'" in policy and "script" not in policy


def test_limits_files_outside_the_front_end_are_not_served(tmp_path: Path) -> None:
    (tmp_path / "secret.txt").write_text("secret")
    web = tmp_path / "dist"
    web.mkdir()
    (web / "index.html").write_text("the page")
    with TestClient(create_app(Database(":memory:"), web), base_url="http://127.0.0.1") as client:
        for path in (
            "/../secret.txt",
            "/%2e%2e/secret.txt",
            "/..%2fsecret.txt",
            "/assets/none.js",
            "/%00",
            "/a%00.js",
        ):
            refused = client.get(path)
            assert refused.status_code == 404 and set(refused.json()) == SHAPE
        assert client.get("/bench/1").text == "the page"
        missing = client.get("/api/no/such")
        assert missing.status_code == 404 and set(missing.json()) == SHAPE


@pytest.mark.parametrize("broken", ['{"text": ', '{"txt": "a"}', '{"text": 3}', '{"text": "\\ud800"}', "[]"])
def test_limits_malformed_requests_have_the_one_error_shape(client: TestClient, broken: str) -> None:
    reply = client.post("/api/read", content=broken, headers={"content-type": "application/json"})
    assert reply.status_code == 422 and set(reply.json()) == SHAPE


@pytest.mark.parametrize(
    ("text", "line", "message"),
    [
        ("\n" * 500 + "Pack: 9 cards", 501, "501 lines"),
        ("# " + "x" * 499, 1, "501 characters"),
        ("Pack: 9 cards\n" + "".join("  " * i + "Repeat 1 times:\n" for i in range(9)) + "  " * 9 + "Turn deck over", 10, "nested too deeply"),
        ("Pack: " + "(" * 20 + "digit sum of " * 20 + "9" + ")" * 20 + " cards", 1, "too many steps"),
        ("Pack: 1000001 cards", 1, "too large"),
        ("\n".join(f"Deal {n} cards from deck" for n in range(501)), 501, "501 lines"),
    ],
)  # fmt: skip
def test_limits_on_a_routine_are_said_at_their_place(text: str, line: int, message: str) -> None:
    (fault,) = read_routine(text).faults[:1]
    assert fault.line == line and message in fault.message and fault.remedy


def test_limits_are_inclusive() -> None:
    deep = "Pack: 9 cards\nPlace A 1st\n" + "".join("  " * i + "Repeat 1 times:\n" for i in range(8)) + "  " * 8
    assert read_routine(deep + "Turn deck over").faults == ()
    assert read_routine("# " + "x" * 498 + "\n" * 499).faults == ()
