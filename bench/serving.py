"""The service on a data folder as a process of its own, for as long as something is measured."""

from __future__ import annotations

import shutil
import socket
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import httpx


def free_port() -> int:
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        return int(s.getsockname()[1])


@contextmanager
def serving(folder: Path) -> Iterator[tuple[str, int]]:
    """(address, process id)."""
    port = free_port()
    url = f"http://127.0.0.1:{port}"
    server = subprocess.Popen(
        [sys.executable, "-m", "rain_porch.cli", "serve", "--data", str(folder), "--port", str(port)],
        stdout=subprocess.DEVNULL,
        stderr=subprocess.DEVNULL,
    )
    try:
        wait_until_open(url)
        yield url, server.pid
    finally:
        server.terminate()
        server.wait(20)


@contextmanager
def serving_a_copy(records: Path) -> Iterator[tuple[str, int]]:
    """The same on a copy of the records of a folder, in which workups may be begun."""
    with tempfile.TemporaryDirectory(dir=records.parent) as folder:
        for file in [*records.glob("records.*"), *records.glob("demo.txt")]:
            if not file.name.endswith(("-shm", "-wal")):
                shutil.copy(file, folder)
        with serving(Path(folder)) as served:
            yield served


def begun_workup(url: str, text: str) -> int:
    """The number of a workup of the first home that a text finds."""
    hits = httpx.get(f"{url}/api/lookup", params={"text": text}, timeout=60).json()["hits"]
    home = next({"kind": hit["kind"], "key": hit["key"]} for hit in hits if hit["kind"] != "workup")
    return int(httpx.post(f"{url}/api/workups", json=home, timeout=60).json()["workup_id"])


def wait_until_open(url: str) -> None:
    until = time.monotonic() + 300
    while time.monotonic() < until:
        try:
            if httpx.get(f"{url}/api/health", timeout=300).status_code == 200:
                return
        except httpx.TransportError:
            pass
        time.sleep(0.1)
    raise SystemExit("The server did not start.")
