"""A mail server of the stand-ins, to which messages go."""

from __future__ import annotations

import socket
from collections.abc import Iterator
from pathlib import Path

import pytest
from aiosmtpd.controller import Controller

from rain_porch.standins.mail import Pigeonhole


@pytest.fixture
def mail_server(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Iterator[Path]:
    """The folder in which its messages lie, as .eml."""
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        port = s.getsockname()[1]
    controller = Controller(Pigeonhole(tmp_path / "mail"), hostname="127.0.0.1", port=port)
    controller.start()
    monkeypatch.setenv("RAIN_PORCH_SMTP", f"127.0.0.1:{port}")
    yield tmp_path / "mail"
    controller.stop()
