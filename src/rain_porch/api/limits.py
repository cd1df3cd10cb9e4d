"""How large the body of a request may be, and how long it may take to come: nobody holds the service up by sending slowly.

The framework has a limit of size too, but tells it in plain text, where every other refusal is a document.
"""

from __future__ import annotations

import asyncio
import time
from collections.abc import AsyncIterator

from fastapi import Request
from starlette.exceptions import HTTPException
from starlette.types import ASGIApp, Message, Receive, Scope, Send

BODY_BYTES = 4_000_000  # of any body but a file; the routes that take files in have limits of their own
BODY_SECONDS = 20.0  # of any body but a file, from its beginning to its end
PART_SECONDS = 30.0  # of a file: between one part and the next
_FILE = "rain_porch.file"


class CutOff(HTTPException):
    """An HTTPException, since anything else that ends the reading of a body is told as a body that cannot be parsed."""


class BodyLimits:
    """ASGI middleware: 413 for a body that is too large, 408 for one that comes too slowly."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        until = time.monotonic() + BODY_SECONDS
        size, whole = 0, False

        async def limited() -> Message:
            nonlocal size, whole
            if whole:  # what comes now is the end of the connection
                return await receive()
            file = scope.get(_FILE, False)
            try:
                wait = PART_SECONDS if file else max(0.0, until - time.monotonic())
                message = await asyncio.wait_for(receive(), wait)
            except TimeoutError:
                raise CutOff(408, "The request came too slowly: send it again.") from None
            size += len(message.get("body", b""))
            whole = message["type"] != "http.request" or not message.get("more_body", False)
            if not file and size > BODY_BYTES:
                raise CutOff(413, f"The request has more than {BODY_BYTES // 1_000_000} MB: send less at once.")
            return message

        await self.app(scope, limited, send)


async def parts_of_file(request: Request) -> AsyncIterator[bytes]:
    """The body of a route that takes a file in, part by part: as large as whoever reads it lets it be."""
    request.scope[_FILE] = True
    async for part in request.stream():
        yield part
