"""What an agent notices of a large import: counts and saves while it runs in a process of its own."""

from __future__ import annotations

import shutil
import subprocess
import sys
import time
from pathlib import Path

import numpy as np

from bench import market_rows
from bench.timing import Result
from bench.whole_market import LAST
from rain_porch.app.home.homes import HomeRef
from rain_porch.app.office.agent import folders_agent
from rain_porch.app.records import Records
from rain_porch.app.snapshot import Snapshot
from rain_porch.app.workup.changes import SetClient
from rain_porch.app.workup.workups import begin_workup, change_workup, open_workup
from rain_porch.core.facts.dates import day_of
from rain_porch.core.search import matching as mt


def measured(market: Snapshot, file: Path, demo: Path, work: Path, counted_alone: float) -> list[Result]:
    """Counts over the whole market and saves of a workup, while `file` comes into the folder of the workup.

    counted_alone: median of the same counts with nothing beside, in ms: what they are compared with.
    """
    shutil.rmtree(work, ignore_errors=True)
    work.mkdir(parents=True)
    for name in ("records.db", "demo.txt"):
        shutil.copy(demo / name, work / name)
    columns = market.columns
    view = columns.as_of(day_of(LAST))
    asked = market_rows.searches(columns, 200, True, seed=3)
    counting: list[float] = []
    saving: list[float] = []
    records = Records(work)
    home = records.live.execute("SELECT parcel_number FROM parcels WHERE home_kind = 'detached' LIMIT 1").fetchone()[0]
    with folders_agent(records.snapshot()) as agent:
        n = begin_workup(agent, HomeRef("parcel", home))
        revision = open_workup(agent, n).revision
        importing = subprocess.Popen([sys.executable, "-m", "rain_porch.cli", "import", str(file), "--data", str(work)],
                                     stdout=subprocess.DEVNULL)  # fmt: skip
        turn = 0
        while importing.poll() is None:
            a = asked[turn % len(asked)]
            start = time.perf_counter()
            mt.run(a.search, columns, view, a.subject)
            counting.append((time.perf_counter() - start) * 1000)
            if turn % 10 == 0:
                start = time.perf_counter()
                revision, _ = change_workup(agent, n, revision, SetClient(change="set_client", client=f"Client {turn}"))
                saving.append((time.perf_counter() - start) * 1000)
            turn += 1
            time.sleep(0.02)  # an agent who drags a handle, not a program that never rests
    if importing.returncode:
        raise SystemExit("The import beside the counts failed.")
    on = f"{len(columns):,} listings, importing {file.stem.rsplit('-', 1)[-1]} rows"
    return [
        Result("live counts while a file comes in", on, float(np.median(counting)), float(np.percentile(counting, 95)), 30,
               "the same, nothing beside", counted_alone),
        Result("saves while a file comes in", f"{len(saving)} saves", float(np.median(saving)), max(saving), 100,
               note="p95 stands for the longest"),
    ]  # fmt: skip
