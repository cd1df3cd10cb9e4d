"""A real server on a folder of its own, and a page in headless Chromium."""

from __future__ import annotations

import os
import signal
import socket
import subprocess
import sys
import time
from collections.abc import Iterator
from pathlib import Path

import httpx
import pytest
from playwright.sync_api import Browser, Page, expect, sync_playwright

FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--no-first-run",
]


expect.set_options(timeout=15_000)  # machines are shared: what is waited for comes, though not always at once


class Server:
    """`rain-porch serve` as a process of its own, that can be stopped and started again."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        with socket.socket() as s:
            s.bind(("127.0.0.1", 0))
            self.port = s.getsockname()[1]
        self.url = f"http://127.0.0.1:{self.port}"
        self.process: subprocess.Popen[bytes] | None = None

    def start(self) -> None:
        command = [
            sys.executable,
            "-m",
            "rain_porch.cli",
            "serve",
            "--data",
            str(self.folder),
            "--port",
            str(self.port),
        ]
        self.process = subprocess.Popen(command, env={**os.environ})
        for _ in range(300):
            try:
                if httpx.get(f"{self.url}/api/records", timeout=5).status_code == 200:
                    return
            except httpx.TransportError:
                time.sleep(0.1)
        raise RuntimeError("the server did not start")

    def stop(self) -> None:
        if self.process:
            self.process.send_signal(signal.SIGTERM)
            self.process.wait(20)


@pytest.fixture
def server(town: Path) -> Iterator[Server]:
    held = Server(town)
    held.start()
    yield held
    held.stop()


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as p:
        made = p.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        yield made
        made.close()


@pytest.fixture
def page(browser: Browser, server: Server) -> Iterator[Page]:
    """A page on the desk. Errors in the page's console fail the test."""
    context = browser.new_context(viewport={"width": 1280, "height": 800}, accept_downloads=True)
    made = context.new_page()
    made.set_default_timeout(15_000)
    faults: list[str] = []
    made.on("pageerror", lambda e: faults.append(str(e)))
    made.goto(server.url)
    yield made
    context.close()
    assert not faults, faults
