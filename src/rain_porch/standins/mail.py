"""A stand-in for a mail server: takes every message and lays it down as a standard .eml file. Nothing leaves the machine."""

from __future__ import annotations

import datetime as dt
import itertools
import socket
from pathlib import Path
from typing import Any

from aiosmtpd.controller import Controller


class Pigeonhole:
    """Writes each message into a folder. A recipient at `refused.example` is not taken, so that this can be tried."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        self._count = itertools.count(1)

    async def handle_RCPT(self, server: Any, session: Any, envelope: Any, address: str, options: Any) -> str:  # noqa: N802
        if address.endswith("@refused.example"):
            return "550 nobody of that name here"
        envelope.rcpt_tos.append(address)
        return "250 OK"

    async def handle_DATA(self, server: Any, session: Any, envelope: Any) -> str:  # noqa: N802
        self.folder.mkdir(parents=True, exist_ok=True)
        name = f"{dt.datetime.now():%Y-%m-%d-%H%M%S}-{next(self._count)}.eml"
        (self.folder / name).write_bytes(envelope.original_content)
        return "250 laid down"


def serve_mail(folder: Path, port: int) -> str | None:
    """Run the stand-in beside the application; its address, None where the port is taken."""
    with socket.socket() as s:
        if s.connect_ex(("127.0.0.1", port)) == 0:
            return None
    controller = Controller(Pigeonhole(folder), hostname="127.0.0.1", port=port)
    controller.start()
    return f"127.0.0.1:{port}"
