"""What was asked of the service, one JSON line a request: when, which route, of what by its number, how it ended, how long it
took. No address, no text, no name: those stand in queries and bodies, of which nothing is written.
"""

from __future__ import annotations

import datetime as dt
import json
import logging
import time
from collections.abc import Callable
from logging.handlers import RotatingFileHandler
from pathlib import Path

from starlette.concurrency import run_in_threadpool
from starlette.requests import Request
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from .rights import path_of_route
from .web_safety import READING
from .who import note

LOGGER = logging.getLogger("rain_porch.requests")
BYTES, FILES = 5_000_000, 5


class Journal:
    """ASGI middleware. `now` is the clock."""

    def __init__(self, app: ASGIApp, now: Callable[[], dt.datetime]) -> None:
        self.app = app
        self.now = now

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http" or not scope["path"].startswith("/api/"):
            await self.app(scope, receive, send)
            return
        status = 500
        start = time.perf_counter()

        async def noted(message: Message) -> None:
            nonlocal status
            if message["type"] == "http.response.start":
                status = message["status"]
            await send(message)

        try:
            await self.app(scope, receive, noted)
        finally:
            if not (status == 200 and scope["path"].endswith("/revision")):  # asked by every window, every second or so
                LOGGER.info(self._line(scope, status, (time.perf_counter() - start) * 1000))
            if scope["method"] not in READING:
                await run_in_threadpool(note, Request(scope), status)
            # a connection that stays open holds its last request: not the records of then
            scope.get("state", {}).pop("agent", None)

    def _line(self, scope: Scope, status: int, ms: float) -> str:
        ids = {name: int(v) for name, v in scope.get("path_params", {}).items() if str(v).isdigit()}
        return json.dumps({
            "at": self.now().isoformat(timespec="milliseconds"), "method": scope["method"],
            "route": path_of_route(scope), **ids, "status": status, "ms": round(ms, 1),
        })  # fmt: skip


def keep_in(folder: Path) -> None:
    """Write the lines to log/requests.jsonl of the data folder, the oldest going when there are too many."""
    (folder / "log").mkdir(parents=True, exist_ok=True)
    handler = RotatingFileHandler(folder / "log/requests.jsonl", maxBytes=BYTES, backupCount=FILES, encoding="utf-8")
    handler.setFormatter(logging.Formatter("%(message)s"))
    LOGGER.handlers = [handler]
    LOGGER.propagate = False
    LOGGER.setLevel(logging.INFO)
