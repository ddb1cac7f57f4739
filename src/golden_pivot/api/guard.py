"""The outer wall: only this machine, only its own pages, only JSON, nothing too large."""

from __future__ import annotations

import json
from collections.abc import Iterable

from starlette.types import ASGIApp, Message, Receive, Scope, Send

MAX_BODY = 1_000_000
_WRITES = {"POST", "PUT", "PATCH", "DELETE"}
_OURS = {"127.0.0.1", "localhost"}
_HEADERS = (
    (b"content-security-policy", b"default-src 'self'; style-src 'self' 'unsafe-inline'; frame-ancestors 'none'"),
    (b"x-content-type-options", b"nosniff"),
    (b"referrer-policy", b"no-referrer"),
)


def error_body(message: str, where: str, expected: str, remedy: str) -> bytes:
    return json.dumps({"message": message, "where": where, "expected": expected, "remedy": remedy}).encode()


class Guard:
    """Foreign Host → 400. On writes: foreign Origin → 403, a body that is not JSON → 415, over 1 MB → 413."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return

        async def send_guarded(message: Message) -> None:
            if message["type"] == "http.response.start":
                message["headers"] = [*message.get("headers", []), *_HEADERS]
            await send(message)

        headers = {name.decode().lower(): value.decode("latin-1") for name, value in scope["headers"]}
        refusal = _refusal(scope["method"], headers)
        body = b""
        if refusal is None and scope["method"] in _WRITES:
            body, whole = await _read(receive)
            refusal = None if whole else _too_large()
        if refusal is not None:
            await _refuse(send_guarded, *refusal)
            return

        waiting: list[Message] = [{"type": "http.request", "body": body, "more_body": False}]

        async def receive_again() -> Message:
            return waiting.pop() if waiting else await receive()

        await self.app(scope, receive_again if scope["method"] in _WRITES else receive, send_guarded)


Refusal = tuple[int, str, str, str, str]


def _refusal(method: str, headers: dict[str, str]) -> Refusal | None:
    host = headers.get("host", "")
    if host.rsplit(":", 1)[0] not in _OURS:
        return (
            400,
            f"This server does not answer to the name “{host}”.",
            "the Host header",
            "127.0.0.1 or localhost",
            ("Open it at the address it printed."),
        )
    if method not in _WRITES:
        return None
    origin = headers.get("origin")
    if origin is not None and origin != f"http://{host}":
        return (
            403,
            "Another page may not change this shelf.",
            "the Origin header",
            f"http://{host}",
            ("Work in the application's own window."),
        )
    has_body = headers.get("content-length", "0") != "0" or "transfer-encoding" in headers
    if has_body and headers.get("content-type", "").partition(";")[0].strip() != "application/json":
        return 415, "Only JSON is understood.", "the Content-Type header", "application/json", "Send JSON."
    if headers.get("content-length", "0").isdigit() and int(headers.get("content-length", "0")) > MAX_BODY:
        return _too_large()
    return None


def _too_large() -> Refusal:
    return 413, "That is too much at once.", "the body", f"at most {MAX_BODY:,} bytes", "Send less."


async def _read(receive: Receive) -> tuple[bytes, bool]:
    """(the body, whether it is whole: reading stops when it grows too large)"""
    body = b""
    while True:
        message = await receive()
        body += message.get("body", b"")
        if len(body) > MAX_BODY:
            return b"", False
        if not message.get("more_body", False):
            return body, True


async def _refuse(send: Send, status: int, *parts: str) -> None:
    headers: Iterable[tuple[bytes, bytes]] = [(b"content-type", b"application/json")]
    await send({"type": "http.response.start", "status": status, "headers": list(headers)})
    await send({"type": "http.response.body", "body": error_body(*parts)})
