"""A real server on a folder of its own, and a page in headless Chromium."""

from __future__ import annotations

import signal
import socket
import subprocess
import sys
import threading
from collections.abc import Iterator
from pathlib import Path

import pytest
import uvicorn
from bench.serving import wait_until_open
from playwright.sync_api import Browser, Page, expect, sync_playwright

from rain_porch.api.app import create_app

# the one without windows of its own opens a page in half the time
BROWSERS = ("/usr/bin/chromium-headless-shell", "/usr/bin/chromium")
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
    """The application on a folder and a port of its own, in this process: nothing has to be read in again to start it."""

    is_open_here = True  # nobody has to sign in until there are accounts
    path = ""  # under which a proxy offers it

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        with socket.socket() as s:
            s.bind(("127.0.0.1", 0))
            self.port = s.getsockname()[1]
        self.url = f"http://127.0.0.1:{self.port}"

    def start(self) -> None:
        self.app = create_app(self.folder, is_open_here=self.is_open_here, path=self.path)
        self._server = uvicorn.Server(uvicorn.Config(self.app, host="127.0.0.1", port=self.port, log_level="warning"))
        self._thread = threading.Thread(target=self._server.run, daemon=True)
        self._thread.start()
        wait_until_open(self.url)

    def stop(self) -> None:
        self._server.should_exit = True
        self._server.force_exit = True
        self._thread.join(20)
        self.app.state.porch.close()
        del self.app, self._server  # with the columns that they hold


class ServerProcess(Server):
    """`rain-porch serve` as a process of its own, that can be stopped in the middle of something and started again."""

    def start(self) -> None:
        self.process = subprocess.Popen(
            [sys.executable, "-m", "rain_porch.cli", "serve", "--data", str(self.folder), "--port", str(self.port)]
        )
        wait_until_open(self.url)

    def stop(self) -> None:
        self.process.send_signal(signal.SIGTERM)
        self.process.wait(20)


@pytest.fixture
def server(town: Path, request: pytest.FixtureRequest) -> Iterator[Server]:
    """In this process; as one of its own where a test is marked with `own_process`."""
    held = (ServerProcess if request.node.get_closest_marker("own_process") else Server)(town)
    held.start()
    yield held
    held.stop()


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as p:
        made = p.chromium.launch(executable_path=next(b for b in BROWSERS if Path(b).exists()), args=FLAGS)
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


@pytest.fixture
def empty_desk(browser: Browser, tmp_path: Path) -> Iterator[Page]:
    """The desk of a folder in which nothing is yet."""
    held = Server(tmp_path / "porch")
    held.start()
    page = browser.new_page(viewport={"width": 1280, "height": 800})
    page.set_default_timeout(15_000)
    page.goto(held.url)
    yield page
    page.close()
    held.stop()
