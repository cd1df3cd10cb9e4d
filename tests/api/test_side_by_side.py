"""Requests run side by side: whoever sends or reads slowly holds nobody up, and is cut off in the end."""

from __future__ import annotations

import json
import socket
import threading
import time
import weakref
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor

import httpx
import pytest

from rain_porch.api import limits
from rain_porch.records.importing import import_file
from tests.conftest import NOW
from tests.e2e.conftest import Server


@pytest.fixture
def server(town) -> Iterator[Server]:
    held = Server(town)
    held.start()
    yield held
    held.stop()


def begun(server: Server) -> tuple[str, dict]:
    hit = httpx.get(f"{server.url}/api/lookup", params={"text": "630 hedgerow terrace"}).json()["hits"][0]
    made = httpx.post(f"{server.url}/api/workups", json={"kind": hit["kind"], "key": hit["key"]}).json()
    url = f"{server.url}/api/workups/{made['workup_id']}"
    return url, httpx.get(url).json()


def sending(server: Server, length: int, kind: str = "application/json") -> socket.socket:
    """A request whose body is announced and has not come."""
    s = socket.create_connection(("127.0.0.1", server.port), 30)
    s.sendall(
        f"POST /api/around HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: {kind}\r\nContent-Length: {length}\r\n\r\n".encode()
    )
    return s


def test_slow_senders_and_readers_hold_nobody_up(server):
    url, opened = begun(server)
    slow = [sending(server, 1000) for _ in range(60)]  # more than there are threads
    for s in slow:
        s.sendall(b"{")
    lazy = socket.create_connection(("127.0.0.1", server.port), 30)
    lazy.setsockopt(socket.SOL_SOCKET, socket.SO_RCVBUF, 1024)
    lazy.sendall(b"GET /api/map HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n")  # and never reads a byte of the answer
    for _ in range(3):
        answer = httpx.post(f"{url}/counts", json=opened["state"]["search"], timeout=10)
        assert answer.status_code == 200 and sum(answer.json()["counts"].values()) > 10
    change = {"revision": opened["revision"], "change": {"change": "set_client", "client": "Orla Grayle"}}
    assert httpx.post(f"{url}/changes", json=change, timeout=10).status_code == 200
    for s in [*slow, lazy]:
        s.close()


def test_what_comes_too_slowly_or_is_too_large_is_cut_off_with_a_reason(server, monkeypatch):
    monkeypatch.setattr(limits, "BODY_SECONDS", 0.6)
    s = sending(server, 1000)
    said = b""
    start = time.monotonic()
    for _ in range(12):  # a byte now and then: it never stops, and is too slow all the same
        try:
            s.sendall(b" ")
            s.settimeout(0.2)
            said += s.recv(4000)
        except TimeoutError:
            continue
        except OSError:
            break
        if said.endswith(b"}"):  # head and body may come apart
            break
    assert b" 408 " in said.split(b"\r\n")[0] and b"too slowly" in said and time.monotonic() - start < 6
    s.close()
    large = json.dumps({"search": {"areas": ["x" * 4_100_000]}})
    for kind in ("application/json", "text/plain", "application/octet-stream"):
        told = httpx.post(f"{server.url}/api/around", content=large, headers={"Content-Type": kind})
        assert told.status_code == 413 and "4 MB" in told.json()["message"], kind
    file = httpx.post(
        f"{server.url}/api/records/incoming", params={"name": "big.csv"}, content=b"ListingId\n" + b"A\n" * 3_000_000
    )
    assert file.status_code == 200, "files have limits of their own"


def test_changes_of_many_at_once_all_arrive(server):
    """Each of twelve saves a view; two of a name are never kept; nothing fails for being at the same time."""
    barrier = threading.Barrier(12)

    def save(n: int) -> int:
        barrier.wait()
        body = {"name": f"View {n // 2}", "view": {"measures": ["closings"]}, "pinned": False}
        return httpx.post(f"{server.url}/api/views", json=body, timeout=30).status_code

    with ThreadPoolExecutor(12) as pool:
        told = sorted(pool.map(save, range(12)))
    names = [v["name"] for v in httpx.get(f"{server.url}/api/views").json() if v["name"].startswith("View ")]
    assert told == [201] * 6 + [422] * 6 and sorted(names) == [f"View {n}" for n in range(6)]


def test_an_open_connection_holds_no_records_of_before(server, tmp_path):
    records = server.app.state.porch.records
    with httpx.Client(base_url=server.url) as idle:  # a browser's window that asks for nothing more
        idle.get("/api/lookup", params={"text": "630 hedgerow terrace"}).raise_for_status()
        before = weakref.ref(records.snapshot())
        file = tmp_path / "more.csv"
        file.write_text("ListingId,StandardStatus,UnparsedAddress,City,ListPrice\nZZ1,Active,1 Test Lane,Town,250000\n")
        with records.connection() as own:
            import_file(own, file, folder=server.folder, now=NOW, source="More")
        until = time.monotonic() + 20
        while before() is not None:
            assert time.monotonic() < until
            httpx.get(f"{server.url}/api/lookup", params={"text": "1 test lane"}).raise_for_status()
            time.sleep(0.1)
        assert idle.get("/api/lookup", params={"text": "1 test lane"}).json()["hits"]
