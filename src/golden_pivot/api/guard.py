"""The outer wall: only this machine, only its own pages, only JSON and archives, nothing too large or too slow."""

from __future__ import annotations

import asyncio
import json
import logging
import re
from collections.abc import Iterable
from typing import Any

from starlette.types import ASGIApp, Message, Receive, Scope, Send

logger = logging.getLogger(__name__)
MAX_BODY = 1_000_000
MAX_ARCHIVE = 64_000_000
PATIENCE = 30.0
"""seconds in which a body must have arrived"""
UPLOADS = {"/api/keep/coming": "application/json", "/api/keep/coming/archive": "application/zip"}
"""where more than usual may come, and as what"""
_WRITES = {"POST", "PUT", "PATCH", "DELETE"}
_OURS = re.compile(r"(127\.0\.0\.1|localhost)(:[0-9]{1,5})?")
_OWN_PAGES = {"same-origin", "none"}
_HALF_PAIR = re.compile(rb"\\u[dD][89a-fA-F]")
_HEADERS = (
    (b"content-security-policy", b"default-src 'self'; style-src 'self' 'unsafe-inline'; frame-ancestors 'none'"),
    (b"x-content-type-options", b"nosniff"),
    (b"referrer-policy", b"no-referrer"),
    (b"cross-origin-resource-policy", b"same-origin"),
)


def error_body(message: str, where: str, expected: str, remedy: str) -> bytes:
    told = {"message": message, "where": where, "expected": expected, "remedy": remedy, "kind": "", "saved": ""}
    return json.dumps(told).encode()


class Guard:
    """Foreign Host → 400; a request of another page → 403. On writes: a body that is neither JSON nor, where one is
    expected, an archive → 415, too large → 413, too slow → 408, half a character → 422. What breaks → 500. HEAD is
    answered as GET without a body. Every reply carries the policy."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        bare = scope["method"] == "HEAD"
        if bare:
            scope = {**scope, "method": "GET"}
        begun = False

        async def send_guarded(message: Message) -> None:
            nonlocal begun
            if message["type"] == "http.response.start":
                begun = True
                message["headers"] = [*message.get("headers", []), *_HEADERS]
            elif bare:
                message = {**message, "body": b""}
            await send(message)

        headers = {name.decode("latin-1").lower(): value.decode("latin-1") for name, value in scope["headers"]}
        writes = scope["method"] in _WRITES
        refusal = _refusal(scope["method"], scope["path"], headers)
        body = b""
        if refusal is None and writes:
            body, refusal = await _read(receive, _most(scope["path"]))
            if refusal is None and _is_json(headers) and _has_half_a_character(body):
                refusal = _half_a_character()
        if refusal is not None:
            await _refuse(send_guarded, *refusal)
            return

        waiting: list[Message] = [{"type": "http.request", "body": body, "more_body": False}]

        async def receive_again() -> Message:
            return waiting.pop() if waiting else await receive()

        try:
            await self.app(scope, receive_again if writes else receive, send_guarded)
        except Exception:
            logger.exception("%s %s broke", scope["method"], scope["path"])
            if not begun:
                await _refuse(
                    send_guarded, 500, "The server broke here.", scope["path"], "no error",
                    "What you wrote is still in this window. Try again; report it if it stays.",
                )  # fmt: skip


Refusal = tuple[int, str, str, str, str]


def _refusal(method: str, path: str, headers: dict[str, str]) -> Refusal | None:
    host = headers.get("host", "")
    if not _OURS.fullmatch(host):
        return (
            400,
            f"This server does not answer to the name “{host}”.",
            "the Host header",
            "127.0.0.1 or localhost",
            "Open it at the address it printed.",
        )
    # Reading starts work too: no other page may ask for anything, not even with an image.
    site = headers.get("sec-fetch-site")
    if path.startswith("/api") and site is not None and site not in _OWN_PAGES:
        return 403, "Another page may not use this shelf.", "the Sec-Fetch-Site header", "same-origin", _OWN_WINDOW
    if method not in _WRITES:
        return None
    origin = headers.get("origin")
    if origin is not None and origin != f"http://{host}":
        return 403, "Another page may not change this shelf.", "the Origin header", f"http://{host}", _OWN_WINDOW
    has_body = headers.get("content-length", "0") != "0" or "transfer-encoding" in headers
    if has_body and not _is_json(headers) and not _is_archive(path, headers):
        return 415, "Only JSON is understood.", "the Content-Type header", "application/json", "Send JSON."
    length = headers.get("content-length", "0")
    if length.isascii() and length.isdigit() and int(length[:20]) > _most(path):
        return _too_large(_most(path))
    return None


_OWN_WINDOW = "Work in the application's own window."


def _kind(headers: dict[str, str]) -> str:
    return headers.get("content-type", "").partition(";")[0].strip().lower()


def _is_json(headers: dict[str, str]) -> bool:
    return _kind(headers) == "application/json"


def _is_archive(path: str, headers: dict[str, str]) -> bool:
    return _kind(headers) == UPLOADS.get(path)


def _most(path: str) -> int:
    return MAX_ARCHIVE if path in UPLOADS else MAX_BODY


def _too_large(most: int) -> Refusal:
    return 413, "That is too much at once.", "the body", f"at most {most:,} bytes", "Send less."


def _half_a_character() -> Refusal:
    return 422, "There is half a character in it.", "the body", "text that can be written as UTF-8", "Take it out."


def _has_half_a_character(body: bytes) -> bool:
    """Half a surrogate pair is legal in JSON but is no text."""
    if not _HALF_PAIR.search(body):
        return False
    try:
        _encodable(json.loads(body))
    except UnicodeEncodeError:
        return True
    except (ValueError, RecursionError):
        return False  # no JSON at all, which is told where it is read
    return False


def _encodable(value: Any) -> None:
    json.dumps(value, ensure_ascii=False).encode()


async def _read(receive: Receive, most: int) -> tuple[bytes, Refusal | None]:
    """The whole body, or why it is not read to its end."""
    parts: list[bytes] = []
    try:
        async with asyncio.timeout(PATIENCE):
            while True:
                message = await receive()
                if message["type"] == "http.disconnect":
                    return b"", (400, "The request broke off.", "the body", "a whole request", "Send it again.")
                parts.append(message.get("body", b""))
                if sum(map(len, parts)) > most:
                    return b"", _too_large(most)
                if not message.get("more_body", False):
                    return b"".join(parts), None
    except TimeoutError:
        return b"", (
            408,
            "The request takes too long.",
            "the body",
            f"a body within {PATIENCE:g} seconds",
            "Send it again.",
        )


async def _refuse(send: Send, status: int, *parts: str) -> None:
    headers: Iterable[tuple[bytes, bytes]] = [(b"content-type", b"application/json")]
    await send({"type": "http.response.start", "status": status, "headers": list(headers)})
    await send({"type": "http.response.body", "body": error_body(*parts)})
