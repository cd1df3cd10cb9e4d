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

from .many_clients import Client, begin, told
from .office import children, held_mb
from .serving import serving

PAUSE = 10.0  # seconds between an agent's acts


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--records", type=Path, required=True)
    parser.add_argument("--services", type=int, default=50)
    parser.add_argument("--seconds", type=float, default=120)
    args = parser.parse_args()
    work = args.records.parent / "services"
    shutil.rmtree(work, ignore_errors=True)
    with ExitStack() as open_:
        clients, processes, starts = [], [], []
        for n in range(args.services):
            folder = work / str(n)
            folder.mkdir(parents=True)
            for file in args.records.glob("records.*"):
                if not file.name.endswith(("-shm", "-wal")):
                    shutil.copy(file, folder / file.name)
            start = time.perf_counter()
            url, process = open_.enter_context(serving(folder))
            starts.append(time.perf_counter() - start)
            processes.append(process)
            port = int(url.rsplit(":", 1)[1])
            clients.append(Client(port, begin(port, 1)[0], n))
        print(f"{args.services} services: started in {np.median(starts):.1f} s each, the last in {starts[-1]:.1f} s")
        for c in clients:
            c.http.close()  # the first have waited longer than a connection stays open; the next act opens a new one
        idle = sum(held_mb(p) for p in processes)
        until = time.perf_counter() + args.seconds
        threads = [threading.Thread(target=c.work, args=(until, PAUSE)) for c in clients]
        for t in threads:
            t.start()
        for t in threads:
            t.join()
        busy = [held_mb(p) for p in processes]
        papers = [held_mb(c) for p in processes for c in children(p)]
        print(
            f"memory: {idle:,.0f} MB before, {sum(busy):,.0f} MB after ({np.median(busy):,.0f} each), {len(papers)} processes for papers with {sum(papers):,.0f} MB"
        )
        told(f"one agent in each, an act every {PAUSE:g} s", clients, args.seconds)
    shutil.rmtree(work, ignore_errors=True)


if __name__ == "__main__":
    main()
