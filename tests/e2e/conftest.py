"""A real server on a folder of its own, and a page in headless Chromium."""

from __future__ import annotations

import shutil
import signal
import socket
import sqlite3
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
from rain_porch.app.pricing.wide_models import make_models_ahead
from rain_porch.app.records import Records
from tests.conftest import copy_demo
from tests.e2e.person import WATCH

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


expect.set_options(timeout=30_000)  # machines are shared: what is waited for comes, though not always at once


class Server:
    """The application on a folder and a port of its own, in this process: nothing has to be read in again to start it."""

    is_open_here = True  # nobody has to sign in until there are accounts
    path = ""  # under which a proxy offers it

    def __init__(self, folder: Path, records: Records | None = None) -> None:
        """records: those of the folder, where they are open already; else the server opens them, and closes them in the end."""
        self.folder, self._records = folder, records
        with socket.socket() as s:
            s.bind(("127.0.0.1", 0))
            self.port = s.getsockname()[1]
        self.url = f"http://127.0.0.1:{self.port}"

    def start(self) -> None:
        self.app = create_app(self.folder, is_open_here=self.is_open_here, path=self.path, records=self._records)
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


class SharedTown:
    """One folder with the demo's records for all the servers of a run that only read them: what one test had worked out from
    them, fits and tables, the next finds there. What agents keep goes after each test; where a test changed the records, the
    next has a folder anew."""

    KEPT = ("records.", "demo.txt")

    def __init__(self, demo: Path, made: Path) -> None:
        self._demo, self._made = demo, made
        self._number = 0
        self._begin()

    def _begin(self) -> None:
        self._number += 1
        self.folder = self._made / f"town-{self._number}"
        copy_demo(self._demo, self.folder)
        self.records = Records(self.folder, ahead=lambda now, before, _: make_models_ahead(now, before))
        self._watch = sqlite3.connect(self.folder / "records.db")
        self._seen = self._version()

    def _version(self) -> int:
        """Another number once any other connection has changed the records."""
        return int(self._watch.execute("PRAGMA data_version").fetchone()[0])

    def after(self) -> None:
        """Ready for the next test."""
        if self._version() != self._seen:
            self.close()
            self._begin()
            return
        for left in self.folder.iterdir():
            if not left.name.startswith(self.KEPT):
                shutil.rmtree(left) if left.is_dir() else left.unlink()

    def close(self) -> None:
        self._watch.close()
        self.records.close()
        shutil.rmtree(self.folder, ignore_errors=True)


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


@pytest.fixture(scope="session")
def shared_town(demo: Path, tmp_path_factory: pytest.TempPathFactory) -> Iterator[SharedTown]:
    held = SharedTown(demo, tmp_path_factory.mktemp("shared"))
    yield held
    held.close()


@pytest.fixture
def server(request: pytest.FixtureRequest) -> Iterator[Server]:
    """In this process, on the town that tests share; as a process on a folder of its own where a test is marked with `own_process`."""
    if request.node.get_closest_marker("own_process"):
        own = ServerProcess(request.getfixturevalue("town"))
        own.start()
        yield own
        own.stop()
        return
    town: SharedTown = request.getfixturevalue("shared_town")
    held = Server(town.folder, town.records)
    held.start()
    yield held
    held.stop()
    town.after()


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as p:
        made = p.chromium.launch(executable_path=next(b for b in BROWSERS if Path(b).exists()), args=FLAGS)
        yield made
        made.close()


@pytest.fixture
def page(browser: Browser, server: Server) -> Iterator[Page]:
    """A page on the desk, of somebody who asks for less motion. Errors in the page's console fail the test."""
    context = browser.new_context(
        viewport={"width": 1280, "height": 800}, accept_downloads=True, reduced_motion="reduce"
    )
    context.add_init_script(WATCH)
    made = context.new_page()
    made.set_default_timeout(30_000)
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
    page.set_default_timeout(30_000)
    page.goto(held.url)
    yield page
    page.close()
    held.stop()
