"""What other pages of the web may not do: ask under a borrowed name, change anything, frame the interface, run a script in it.

A name that points at this machine today may point elsewhere tomorrow, and back: requests are answered only to `localhost`, to
addresses in figures and to the names that the settings list. What changes anything must come from a page of this very service,
or from a program, which sends no Origin.
"""

from __future__ import annotations

import ipaddress
import json
import secrets
from collections.abc import Iterable, MutableSequence
from urllib.parse import urlsplit

from starlette.types import ASGIApp, Message, Receive, Scope, Send

TILES = "{tiles}"
NONCE = "{nonce}"  # stands in the built page where each answer's own nonce goes
READING = frozenset({"GET", "HEAD", "OPTIONS"})
_PAGE = (
    "default-src 'self'; script-src 'self'; style-src 'self' 'nonce-{nonce}'; img-src 'self' data: blob:{tiles}; font-src 'self'; "
    "connect-src 'self'{tiles}; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'"
)
# what is handed out may hold the agent's own pictures and words: it runs nothing and fetches nothing
_HANDED_OUT = "default-src 'none'; img-src data:; style-src 'unsafe-inline'; frame-ancestors 'none'; sandbox"
ALWAYS = (
    (b"x-content-type-options", b"nosniff"),
    (b"referrer-policy", b"same-origin"),
    (b"cross-origin-opener-policy", b"same-origin"),
    (b"cross-origin-resource-policy", b"same-origin"),
)


def page_policy(nonce: str, tiles: Iterable[str] = ()) -> str:
    """The Content-Security-Policy of the interface's page, whose own styles carry the nonce. tiles: from where else its map comes."""
    return _PAGE.replace(NONCE, nonce).replace(TILES, "".join(f" {host}" for host in tiles))


def new_nonce() -> str:
    return secrets.token_urlsafe(16)


class WebSafety:
    """ASGI middleware. hosts: names under which the service is also asked, without a port; "*.example.org" is none of them."""

    def __init__(self, app: ASGIApp, hosts: Iterable[str] = ()) -> None:
        self.app = app
        self.hosts = {"localhost", *(h.strip().lower() for h in hosts if h.strip())}

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        headers = {k: v.decode("latin-1") for k, v in scope["headers"]}
        if refusal := self._refusal(scope, headers):
            await _answer(send, *refusal)
            return
        private = scope["path"].startswith("/api/")

        async def guarded(message: Message) -> None:
            if message["type"] == "http.response.start":
                _guard(message.setdefault("headers", []), private)
            await send(message)

        await self.app(scope, receive, guarded)

    def _refusal(self, scope: Scope, headers: dict[bytes, str]) -> tuple[int, str] | None:
        host = headers.get(b"host", "")
        if not self._is_ours(host):
            return 421, (
                f"Rain Porch does not answer to the name “{host[:80]}”: open it by its address, or list the name in "
                "RAIN_PORCH_HOSTS."
            )
        if scope["method"] in READING:
            return None
        origin, site = headers.get(b"origin"), headers.get(b"sec-fetch-site")
        elsewhere = origin is not None and urlsplit(origin).netloc.lower() != host.lower()
        if elsewhere or (site is not None and site not in ("same-origin", "none")):
            return 403, "Another page of the web asked for this: open Rain Porch itself and do it there."
        return None

    def _is_ours(self, host: str) -> bool:
        """Addresses in figures cannot be made to point elsewhere; names only as listed."""
        name = urlsplit(f"//{host}").hostname if host and not any(c in host for c in "/@?# ") else None
        if name is None:
            return False
        try:
            ipaddress.ip_address(name)
        except ValueError:
            return name.lower() in self.hosts
        return True


def _guard(headers: MutableSequence[tuple[bytes, bytes]], private: bool) -> None:
    held = {name.lower(): value for name, value in headers}
    headers.extend(x for x in ALWAYS if x[0] not in held)
    if not private:
        return
    if b"cache-control" not in held:
        headers.append((b"cache-control", b"no-store"))
    if held.get(b"content-type", b"").startswith(b"text/html") and b"content-security-policy" not in held:
        headers.append((b"content-security-policy", _HANDED_OUT.encode()))


async def _answer(send: Send, status: int, message: str) -> None:
    body = json.dumps({"message": message, "field": None, "odd": False}).encode()
    headers = [(b"content-type", b"application/json"), (b"content-length", str(len(body)).encode()), *ALWAYS]
    await send({"type": "http.response.start", "status": status, "headers": headers})
    await send({"type": "http.response.body", "body": body})
