"""An office at work: twenty agents, each an act every two seconds, while files come in one after the other.

usage: python -m bench.office --records FOLDER --file LISTINGS.csv [--minutes 10]

The mix is that of many_clients.py. The file is imported over and over on the command line, its prices moved each time, so that every
row is a change. Printed: waits by act, imports and their speed, and what the service's own process held in its first and last minutes.
"""

from __future__ import annotations

import argparse
import csv
import json
import shutil
import sqlite3
import subprocess
import sys
import threading
import time
import urllib.request
from collections.abc import Callable
from contextlib import closing
from dataclasses import dataclass, field
from pathlib import Path

import numpy as np

from .many_clients import CLIENTS, Client, acts, begin
from .memory import held_mb
from .serving import serving
from .timing import Result, table

PAUSE = 2.0


def moved(file: Path, out: Path, by: int) -> Path:
    """The same listings at prices that are so many dollars higher."""
    with file.open(newline="", encoding="utf-8") as f, out.open("w", newline="", encoding="utf-8") as g:
        reader = csv.DictReader(f)
        writer = csv.DictWriter(g, reader.fieldnames or [])
        writer.writeheader()
        for row in reader:
            writer.writerow({**row, "ListPrice": int(float(row["ListPrice"])) + by})
    return out


@dataclass
class Watch:
    """Megabytes of the service's own process, and of it with all that it started, with the second at which they were seen."""

    process: int
    port: int
    seen: list[tuple[float, float, float]] = field(default_factory=list)
    shown: list[tuple[float, int]] = field(default_factory=list)  # since when which version is answered from

    def look(self, until: float) -> None:
        start = time.perf_counter()
        while time.perf_counter() < until:
            self.look_at_records()
            if not self.seen or time.perf_counter() - start > self.seen[-1][0] + 5:
                ours = [self.process, *children(self.process)]
                each = [held_mb(p) for p in ours]
                self.seen.append((time.perf_counter() - start, each[0], sum(each)))
            time.sleep(1)

    def look_at_records(self) -> None:
        """Note a version of the records when it is first answered from."""
        with urllib.request.urlopen(f"http://127.0.0.1:{self.port}/api/records/standing", timeout=60) as answer:
            version = int(json.load(answer)["version"])
        if not self.shown or self.shown[-1][1] != version:
            self.shown.append((time.perf_counter(), version))

    def between(self, first: float, last: float, of: int) -> float:
        held = [x[of] for x in self.seen if first <= x[0] <= last]
        return float(np.median(held)) if held else float("nan")


def children(process: int) -> list[int]:
    """What any of its threads has started."""
    try:
        tasks = [*Path(f"/proc/{process}/task").iterdir()]
        return [int(x) for task in tasks for x in (task / "children").read_text().split()]
    except OSError:
        return []


def version_of(folder: Path) -> int:
    with closing(sqlite3.connect(folder / "records.db")) as db:
        return int(db.execute("SELECT value FROM meta WHERE name = 'version'").fetchone()[0])


def until_shown(watch: Watch, done: list[tuple[float, int]]) -> list[float]:
    """Seconds from the end of each import until an answer was made from it, or from a later one."""
    waits = ([at for at, version in watch.shown if version >= of][:1] for _, of in done)
    return [first[0] - ended for (ended, _), first in zip(done, waits, strict=True) if first]


def bring_in(files: list[Path], folder: Path, until: float, took: list[float], ended: list[tuple[float, int]]) -> None:
    turn = 0
    while time.perf_counter() < until:
        start = time.perf_counter()
        command = [
            sys.executable,
            "-m",
            "rain_porch.cli",
            "import",
            str(files[turn % 2]),
            "--data",
            str(folder),
            "--source",
            "More",
        ]
        done = subprocess.run(command, capture_output=True, text=True)
        if done.returncode:
            print("an import failed:", done.stderr[-300:])
            return
        took.append(time.perf_counter() - start)
        ended.append((time.perf_counter(), version_of(folder)))
        turn += 1


def at_work(
    url: str, process: int, seconds: float, beside: Callable[[float], None] | None = None
) -> tuple[list[Client], Watch]:
    """The agents and what the service held, after so many seconds of work. beside: what goes on meanwhile, until a moment."""
    port = int(url.rsplit(":", 1)[1])
    clients = [Client(port, n, seed) for seed, n in enumerate(begin(port))]
    until = time.perf_counter() + seconds
    watch = Watch(process, port)
    threads = [threading.Thread(target=c.work, args=(until, PAUSE)) for c in clients]
    threads += [threading.Thread(target=doing, args=(until,)) for doing in (watch.look, beside) if doing]
    for t in threads:
        t.start()
    for t in threads:
        t.join()
    return clients, watch


def started_anew(folder: Path, seconds: float = 120.0) -> float:
    """Megabytes of a service that has just begun on records that another took in, after the same agents have worked on it."""
    with serving(folder) as (url, process):
        _, watch = at_work(url, process, seconds)
    return watch.between(seconds - 60, seconds, 1)


BUDGETS = {"counts": 100, "table": None, "worth": 300, "ask": None, "page": 500, "lookup": None, "save price": None}


def results(records: Path, file: Path, work: Path, minutes: float = 5) -> list[Result]:
    """Twenty agents on the records while a file comes in over and over, its prices moved each time."""
    shutil.rmtree(work, ignore_errors=True)
    work.mkdir(parents=True)
    for name in ("records.db", "records.columns", "demo.txt"):
        if (records / name).exists():
            shutil.copy(records / name, work / name)
    files = [moved(file, work / f"more-{by}.csv", by) for by in (0, 1000)]
    rows = sum(1 for _ in files[0].open()) - 1
    end = minutes * 60
    with serving(work) as (url, process):
        took: list[float] = []
        ended: list[tuple[float, int]] = []
        clients, watch = at_work(url, process, end, lambda until: bring_in(files, work, until, took, ended))
    anew = started_anew(work)
    shutil.rmtree(work, ignore_errors=True)
    on = f"{CLIENTS} agents, an act every {PAUSE:g} s, imports of {rows:,} rows"
    failed = sum(c.failed for c in clients)
    speed = [rows / t for t in took]
    waits = until_shown(watch, ended)
    held = [watch.between(end - 60, end, of) for of in (1, 2)]
    return [
        *acts(clients, on, BUDGETS),
        Result("memory of the service, last minute", on, held[0], max(x[1] for x in watch.seen), 1500, unit="MB",
               note=f"second minute {watch.between(60, 120, 1):,.0f} MB; with all that it started {held[1]:,.0f} MB; {failed} acts failed"),
        Result("memory of one started anew on the same records", on, anew, anew, None, unit="MB",
               note="after two minutes of the same agents: what the other held above it, it did not give back"),
        Result("import beside them", on, float(np.median(speed)), float(np.percentile(speed, 5)), None, unit="rows/s", note=f"{len(took)} imports"),
        Result("an import, until it is shown", on, float(np.median(waits)), max(waits), None, unit="s",
               note="the records of before serve until those at work are priced on the new"),
    ]  # fmt: skip


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--records", type=Path, required=True)
    parser.add_argument("--file", type=Path, required=True)
    parser.add_argument("--minutes", type=float, default=10)
    args = parser.parse_args()
    print(table(results(args.records, args.file, args.records.parent / "office", args.minutes)))


if __name__ == "__main__":
    main()
