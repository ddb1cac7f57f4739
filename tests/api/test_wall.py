"""No page of another origin, no odd request and nobody slow gets further than the outer wall."""

from __future__ import annotations

import asyncio
import socket
import subprocess
import sys
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from starlette.types import Message

from golden_pivot.api import guard, serving
from golden_pivot.api.downloads import attachment, table_csv
from golden_pivot.sheets.document import Document, Paragraph
from golden_pivot.sheets.markdown import markdown_of


@pytest.mark.parametrize("site", ["cross-site", "same-site"])
@pytest.mark.parametrize("path", ["/api/routines", "/api/desks/odds/table.csv", "/api/keep/shelf.zip", "/api/health"])
def test_another_page_may_not_even_read(client: TestClient, site: str, path: str) -> None:
    assert client.get(path, headers={"sec-fetch-site": site}).status_code == 403
    assert client.get(path, headers={"sec-fetch-site": "same-origin"}).status_code == 200
    assert client.get(path, headers={"sec-fetch-site": "none"}).status_code == 200


@pytest.mark.parametrize(
    "host", ["localhost:80.example", "127.0.0.1:x", "localhost:", "localhost.example", "127.0.0.1:1@evil"]
)
def test_names_that_only_begin_like_ours_are_refused(client: TestClient, host: str) -> None:
    assert client.get("/api/health", headers={"host": host}).status_code == 400


@pytest.mark.parametrize(
    "path", ["/api/routines/9223372036854775808", "/api/routines/-1", "/api/routines/0", "/api/none"]
)
def test_numbers_that_no_row_has_are_not_found(client: TestClient, path: str) -> None:
    assert client.get(path).status_code == 404
    if "routines" in path:
        assert client.post(f"{path}/bring-back").status_code == 404
        assert client.post(f"{path}/versions/99999999999999999999/restore", json={"revision": 1}).status_code == 404


@pytest.mark.parametrize(
    ("path", "body"),
    [
        ("/api/desks/spell", r'{"asks": {"names": "\ud800"}}'),
        ("/api/desks/odds", r'{"asks": {"routine": "\udfff"}}'),
        ("/api/settings", r'{"scheme": "\ud800"}'),
        ("/api/keep/coming", r'{"files": [{"name": "\ud83d", "text": ""}]}'),
        ("/api/routines/import", r'{"document": {"format": "\ud800"}}'),
    ],
)
def test_half_a_character_is_refused_everywhere(client: TestClient, path: str, body: str) -> None:
    method = client.put if path == "/api/settings" else client.post
    reply = method(path, content=body, headers={"content-type": "application/json"})
    assert reply.status_code == 422, reply.text


def test_a_whole_pair_is_a_character(client: TestClient) -> None:
    reply = client.post(
        "/api/routines", content=r'{"text": "Title: \ud83c\udca1"}', headers={"content-type": "application/json"}
    )
    assert reply.json()["title"] == "🂡"


def test_what_breaks_says_so_under_the_same_policy(client: TestClient, monkeypatch: pytest.MonkeyPatch) -> None:
    def broken(*_: object) -> None:
        raise ZeroDivisionError

    monkeypatch.setattr(client.app.state.shelf, "routines", broken)  # type: ignore[attr-defined]
    reply = client.get("/api/routines")
    assert reply.status_code == 500 and "content-security-policy" in reply.headers
    assert "safe" not in reply.text


@pytest.mark.parametrize("path", ["/", "/api/health", "/api/routines"])
def test_head_is_get_without_a_body(client: TestClient, path: str) -> None:
    whole, head = client.get(path), client.head(path)
    assert (head.status_code, head.content, head.headers["content-type"]) == (200, b"", whole.headers["content-type"])


def test_nested_nonsense_is_refused(client: TestClient) -> None:
    for body in ("[" * 200_000, '{"text":' * 90_000, "9" * 10_000):
        reply = client.post("/api/read", content=body, headers={"content-type": "application/json"})
        assert 400 <= reply.status_code < 500


def test_a_slow_body_is_given_up(monkeypatch: pytest.MonkeyPatch) -> None:
    async def one_part() -> Message:
        if sent:
            await asyncio.Event().wait()
        sent.append(True)
        return {"type": "http.request", "body": b"{", "more_body": True}

    sent: list[bool] = []
    monkeypatch.setattr(guard, "PATIENCE", 0.05)
    body, refusal = asyncio.run(guard._read(one_part, 1000))
    assert body == b"" and refusal and refusal[0] == 408


SLOW_SERVER = """
import socket, sys, uvicorn
from golden_pivot.api import serving
serving.HEAD_SECONDS = 0.3
async def app(scope, receive, send):
    if scope["type"] == "http":
        await send({"type": "http.response.start", "status": 200, "headers": [(b"content-length", b"2")]})
        await send({"type": "http.response.body", "body": b"ok"})
listener = socket.socket(); listener.bind(("127.0.0.1", 0)); listener.listen()
print(listener.getsockname()[1], flush=True)
uvicorn.Server(serving.config_for(app)).run(sockets=[listener])
"""


def test_a_head_that_does_not_end_is_given_up(tmp_path: Path) -> None:
    process = subprocess.Popen([sys.executable, "-c", SLOW_SERVER], stdout=subprocess.PIPE, text=True)
    try:
        assert process.stdout
        port = int(process.stdout.readline())
        for begun in (b"", b"GET / HTTP/1.1\r\nHost: 127.0.0.1\r\nX: "):
            with socket.create_connection(("127.0.0.1", port), timeout=60) as connection:
                connection.sendall(begun)
                assert connection.recv(1000) == b""  # closed by the server, with no answer
        with socket.create_connection(("127.0.0.1", port), timeout=60) as connection:
            for _ in range(2):  # and an honest one is served, twice over one connection
                connection.sendall(b"GET / HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n")
                answer = b""
                while not answer.endswith(b"ok"):
                    answer += connection.recv(1000)
                assert answer.startswith(b"HTTP/1.1 200")
    finally:
        process.terminate()
        process.wait(60)
    assert serving.HEAD_SECONDS >= 5


def test_names_and_cells_of_downloads_do_no_harm() -> None:
    assert 'filename="drei_glocken.pivot"' in attachment("Drei Glocken", "pivot")["content-disposition"]
    said = attachment("Ночной\r\npaром/\u202e", "pivot")["content-disposition"]
    assert said.isascii() and "\n" not in said and "filename*=UTF-8''%D0%9D" in said
    rows = [["=1+1", "+1", "-x", "@SUM", -3, 2.5, "plain", "\t=1"]]
    assert table_csv({"head": ["=h"], "rows": rows}) == "'=h\r\n'=1+1,'+1,'-x,'@SUM,-3,2.5,plain,'\t=1\r\n"
    sheet = markdown_of(Document("A\x1b[31m", "b", None, (Paragraph("one\u2028two\x07\u202e three"),)))
    assert not any(ord(c) < 32 and c != "\n" for c in sheet) and "\u202e" not in sheet and "\u2028" not in sheet
