"""Twenty clients at once on the demo, with no pause and with a second between their acts: `python -m bench.many_clients`.

Each client has a workup of its own with twelve comps and goes through the mix below, over and over. `--before TREE`
measures another checkout of the project first, in the same run and on the same records.
"""

from __future__ import annotations

import argparse
import http.client
import json
import os
import shutil
import subprocess
import sys
import threading
import time
from collections import defaultdict
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from pathlib import Path
from typing import Any

import numpy as np

from .serving import free_port, wait_until_open
from .timing import Result

CLIENTS = 20
HOMES = 20  # detached homes of the demo, one a client
TREE = Path(__file__).parents[1]

# what is done in one round, in this order; of 16 acts 4 change the workup
MIX = (
    "counts", "counts", "save search", "table", "worth",
    "decide", "worth", "table", "ask", "ask",
    "decide", "worth", "lookup", "market", "page", "save price",
)  # fmt: skip


class Client:
    """One agent at work: a connection, a workup, and how long each kind of act took."""

    def __init__(self, port: int, number: int, seed: int) -> None:
        self.http = http.client.HTTPConnection("127.0.0.1", port, timeout=120)
        self.rng = np.random.default_rng(seed)
        self.took: dict[str, list[float]] = defaultdict(list)
        self.failed = 0
        self.number = number
        opened = self.plain(f"/api/workups/{number}")
        self.revision, self.search = opened["revision"], opened["state"]["search"]
        self.comps: list[str] = self.plain(f"/api/workups/{number}/candidates")["suggested"]
        self.list_price = 350_000

    def ask(self, method: str, path: str, body: Any = None) -> Any:
        data = None if body is None else json.dumps(body)
        self.http.request(method, path, data, {"Content-Type": "application/json", "Accept-Encoding": "gzip"})
        answer = self.http.getresponse()
        text = answer.read()
        if answer.status >= 400:
            raise RuntimeError(f"{method} {path}: {answer.status} {text[:200]!r}")
        packed = answer.getheader("Content-Encoding") == "gzip" or "json" not in answer.getheader("Content-Type", "")
        return None if packed else json.loads(text)

    def plain(self, path: str) -> Any:
        """An answer that is read, so not packed."""
        self.http.request("GET", path)
        return json.loads(self.http.getresponse().read())

    def change(self, **what: Any) -> None:
        made = self.ask("POST", f"/api/workups/{self.number}/changes", {"revision": self.revision, "change": what})
        self.revision = made["revision"]

    def act(self, what: str) -> None:
        at = f"/api/workups/{self.number}"
        if what in ("counts", "save search"):
            search = {**self.search, "radius_miles": round(float(self.rng.uniform(0.5, 2)), 2)}
            if what == "counts":
                self.ask("POST", f"{at}/counts", search)
            else:
                self.change(change="set_search", search=search)
        elif what == "table":
            self.ask("GET", f"{at}/candidates")
        elif what == "worth":
            self.ask("GET", f"{at}/worth")
        elif what == "decide":
            key = str(self.rng.choice(self.comps))
            self.change(
                change="decide", listing_ids=[key], choice=str(self.rng.choice(["kept", "undecided"])), reason=""
            )
        elif what == "ask":
            self.ask("GET", f"{at}/asking?list_price={self.list_price + int(self.rng.integers(-20, 20)) * 1000}")
        elif what == "save price":
            self.change(change="set_list_price", list_price=self.list_price, sure=True)
        elif what == "lookup":
            self.ask("GET", f"/api/lookup?text={int(self.rng.integers(100, 900))}%20hedgerow")
        elif what == "market":
            self.ask("POST", "/api/market/view", {"measures": ["median_price", "closings"], "by": "month"})
        elif what == "page":
            self.ask("GET", f"{at}/pages/{int(self.rng.integers(1, 4))}.png")

    def work(self, until: float, pause: float) -> None:
        turn = int(self.rng.integers(len(MIX)))
        while time.perf_counter() < until:
            what = MIX[turn % len(MIX)]
            start = time.perf_counter()
            try:
                self.act(what)
            except RuntimeError as error:
                self.failed += 1
                print(error, file=sys.stderr)
            self.took[what].append((time.perf_counter() - start) * 1000)
            turn += 1
            if pause:
                time.sleep(float(self.rng.uniform(0.5, 1.5)) * pause)


@contextmanager
def served(tree: Path, folder: Path) -> Iterator[int]:
    """The service of a checkout on a data folder."""
    port = free_port()
    env = {**os.environ, "PYTHONPATH": str(tree / "src")}
    command = [sys.executable, "-m", "rain_porch.cli", "serve", "--data", str(folder), "--port", str(port)]
    server = subprocess.Popen(command, env=env, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
    try:
        wait_until_open(f"http://127.0.0.1:{port}")
        yield port
    finally:
        server.terminate()
        server.wait(20)


def begin(port: int, clients: int = CLIENTS) -> list[int]:
    """A workup with twelve comps for each client."""
    http_ = http.client.HTTPConnection("127.0.0.1", port, timeout=120)

    def ask(method: str, path: str, body: Any = None) -> Any:
        http_.request(method, path, None if body is None else json.dumps(body), {"Content-Type": "application/json"})
        return json.loads(http_.getresponse().read())

    out = []
    hits = [h for h in ask("GET", "/api/lookup?text=terrace")["hits"] if h["kind"] in ("parcel", "listing")]
    for i in range(clients):
        hit = hits[i % len(hits)]
        n = ask("POST", "/api/workups", {"kind": hit["kind"], "key": hit["key"]})["workup_id"]
        found = ask("GET", f"/api/workups/{n}/candidates")
        keep = {"change": "decide", "listing_ids": found["suggested"], "choice": "kept", "reason": ""}
        ask("POST", f"/api/workups/{n}/changes", {"revision": 1, "change": keep})
        out.append(n)
    return out


def measured(tree: Path, folder: Path, seconds: float, pause: float) -> list[Client]:
    with served(tree, folder) as port:
        clients = [Client(port, n, seed) for seed, n in enumerate(begin(port))]
        until = time.perf_counter() + seconds
        threads = [threading.Thread(target=c.work, args=(until, pause)) for c in clients]
        for t in threads:
            t.start()
        for t in threads:
            t.join()
        return clients


def told(name: str, clients: list[Client], seconds: float) -> None:
    every = [ms for c in clients for took in c.took.values() for ms in took]
    failed = sum(c.failed for c in clients)
    print(
        f"{name}: {len(every) / seconds:.1f} requests/s, p50 {np.percentile(every, 50):,.0f} ms, "
        f"p95 {np.percentile(every, 95):,.0f} ms{f', {failed} failed' if failed else ''}"
    )
    for what in dict.fromkeys(MIX):
        took = [ms for c in clients for ms in c.took[what]]
        if took:
            print(
                f"   {what:<12} {len(took):>5} × p50 {np.percentile(took, 50):>8,.0f}  p95 {np.percentile(took, 95):>8,.0f} ms"
            )


BUDGETS = {"counts": 150, "table": 150, "worth": 150, "ask": 150, "page": 500}


def acts(clients: list[Client], on: str, budgets: Mapping[str, float]) -> list[Result]:
    """How long each kind of act with a budget took."""
    out = []
    for what, budget in budgets.items():
        ms = [x for c in clients for x in c.took[what]]
        out.append(Result(what, on, float(np.median(ms)), float(np.percentile(ms, 95)), budget, note=f"{len(ms)} acts"))
    return out


def results(demo: Path, work: Path, seconds: float = 60) -> list[Result]:
    """Twenty at once on the demo, without pause and with a second between their acts."""
    out = []
    for pause in (0.0, 1.0):
        clients = measured(TREE, _copy(demo, work), seconds, pause)
        every = sum(len(took) for c in clients for took in c.took.values()) / seconds
        failed = sum(c.failed for c in clients)
        on = f"demo, {CLIENTS} clients"
        if not pause:
            out.append(
                Result("requests without pause", on, every, every, 60, unit="requests/s", note=f"{failed} failed")
            )
        else:
            out += acts(clients, f"{on}, a second between acts", BUDGETS)
        shutil.rmtree(work)
    return out


def _copy(records: Path, folder: Path) -> Path:
    shutil.rmtree(folder, ignore_errors=True)
    folder.mkdir(parents=True)
    for name in ("records.db", "demo.txt"):
        if (records / name).exists():
            shutil.copy(records / name, folder / name)
    return folder


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--records", type=Path, required=True, help="a data folder with the demo's records")
    parser.add_argument("--seconds", type=float, default=60)
    parser.add_argument("--before", type=Path, help="another checkout, measured first")
    args = parser.parse_args()
    for pause in (0.0, 1.0):
        for tree in [t for t in (args.before, TREE) if t]:
            folder = args.records.parent / f"{args.records.name}-clients"
            _copy(args.records, folder)
            name = (
                f"{'before' if tree == args.before else 'now'}, {'no pause' if not pause else 'a second between acts'}"
            )
            told(name, measured(tree, folder, args.seconds, pause), args.seconds)
            shutil.rmtree(folder)


if __name__ == "__main__":
    main()
