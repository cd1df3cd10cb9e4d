"""Many small offices on one machine: so many services, each on a folder of its own, one agent at work in each.

usage: python -m bench.many_services --records FOLDER [--services 50] [--seconds 120]
"""

from __future__ import annotations

import argparse
import shutil
import threading
import time
from contextlib import ExitStack
from pathlib import Path

import numpy as np

from .many_clients import BUDGETS, Client, acts, begin
from .memory import held_mb
from .office import children
from .serving import serving
from .timing import Result, table

PAUSE = 10.0  # seconds between an agent's acts


def results(records: Path, work: Path, services: int = 50, seconds: float = 120) -> list[Result]:
    """So many services, each on a copy of the records, with one agent in each."""
    shutil.rmtree(work, ignore_errors=True)
    with ExitStack() as open_:
        clients, processes, starts = [], [], []
        for n in range(services):
            folder = work / str(n)
            folder.mkdir(parents=True)
            for file in records.glob("records.*"):
                if not file.name.endswith(("-shm", "-wal")):
                    shutil.copy(file, folder / file.name)
            start = time.perf_counter()
            url, process = open_.enter_context(serving(folder))
            starts.append((time.perf_counter() - start) * 1000)
            processes.append(process)
            port = int(url.rsplit(":", 1)[1])
            clients.append(Client(port, begin(port, 1)[0], n))
        for c in clients:
            c.http.close()  # the first have waited longer than a connection stays open; the next act opens a new one
        idle = [held_mb(p) for p in processes]
        until = time.perf_counter() + seconds
        threads = [threading.Thread(target=c.work, args=(until, PAUSE)) for c in clients]
        for t in threads:
            t.start()
        for t in threads:
            t.join()
        busy = [held_mb(p) for p in processes]
        papers = [held_mb(c) for p in processes for c in children(p)]
    shutil.rmtree(work, ignore_errors=True)
    on = f"{services} services, an act every {PAUSE:g} s in each"
    return [
        Result("start of one more service", on, float(np.median(starts)), float(np.percentile(starts, 95)), None),
        Result("memory of a service, idle", on, float(np.median(idle)), float(np.percentile(idle, 95)), None, unit="MB"),
        Result("memory of a service, at work", on, float(np.median(busy)), float(np.percentile(busy, 95)), None, unit="MB",
               note=f"{len(papers)} processes for papers with {sum(papers):,.0f} MB beside"),
        *acts(clients, on, dict.fromkeys(BUDGETS)),
    ]  # fmt: skip


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--records", type=Path, required=True)
    parser.add_argument("--services", type=int, default=50)
    parser.add_argument("--seconds", type=float, default=120)
    args = parser.parse_args()
    print(table(results(args.records, args.records.parent / "services", args.services, args.seconds)))


if __name__ == "__main__":
    main()
