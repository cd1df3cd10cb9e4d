"""How large the body of a request may be, and how long it may take to come: nobody holds the service up by sending slowly."""

from __future__ import annotations

import asyncio
import time

from starlette.exceptions import HTTPException
from starlette.types import ASGIApp, Message, Receive, Scope, Send

BODY_BYTES = 4_000_000  # of a JSON body; files have limits of their own, where they are taken in
BODY_SECONDS = 20.0
PART_SECONDS = 30.0  # of a file: between one part and the next


class TooMuch(HTTPException):
    """An HTTPException, since anything else that ends the reading of a body is told as a body that cannot be parsed."""


class BodyLimits:
    """ASGI middleware: 413 for a body that is too large, 408 for one that comes too slowly."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        is_file = _is_file(scope)
        until = time.monotonic() + BODY_SECONDS
        size = 0
        whole = False

        async def limited() -> Message:
            nonlocal size, whole
            if whole:  # what comes now is the end of the connection
                return await receive()
            wait = PART_SECONDS if is_file else max(0.0, until - time.monotonic())
            try:
                message = await asyncio.wait_for(receive(), wait)
            except TimeoutError:
                raise TooMuch(408, "The request came too slowly: send it again.") from None
            size += len(message.get("body", b""))
            whole = message["type"] != "http.request" or not message.get("more_body", False)
            if not is_file and size > BODY_BYTES:
                raise TooMuch(413, f"The request has more than {BODY_BYTES // 1_000_000} MB: send less at once.")
            return message

        await self.app(scope, limited, send)


def _is_file(scope: Scope) -> bool:
    """Whether the body is a file: told by its type, since only those are read part by part."""
    kind = dict(scope["headers"]).get(b"content-type", b"").decode("latin-1")
    return not kind.startswith("application/json") and scope["method"] in ("POST", "PUT")
