"""What `rain-porch find` and `price` take of a processor, each a process of its own from its start to its end."""

from __future__ import annotations

import os
import resource
import shutil
import sqlite3
import subprocess
import sys
from collections.abc import Sequence
from contextlib import closing
from pathlib import Path

import numpy as np

from bench.timing import Result, spread

TIMES, HOMES, BUDGET = 15, 8, 600
PEER = "NumPy, Pydantic, Shapely and SQLite read in"
MODULES = "import argparse, json, sqlite3, numpy, pydantic, shapely"


def measured(folder: Path, work: Path) -> list[Result]:
    """Of the home that sold last, over and over; and priced for the first time, of the homes that sold before it."""
    shutil.rmtree(work, ignore_errors=True)
    shutil.copytree(folder, work, ignore=shutil.ignore_patterns("records.model.*"))
    with closing(sqlite3.connect(f"file:{work}/records.db?mode=ro", uri=True)) as db:
        listings = db.execute("SELECT count(*) FROM listings").fetchone()[0]
        homes = [r[0] for r in db.execute(
            "SELECT listing_id FROM listings WHERE standard_status = 'Closed' AND home_kind = 'detached' "
            "ORDER BY close_date DESC, listing_id LIMIT :n", {"n": 20 * HOMES + 1}
        )]  # fmt: skip
    on, home = f"{listings:,} listings", homes[0]

    def command(name: str, of: str) -> float:
        return processor_ms(["-m", "rain_porch.cli", name, "--data", str(work), "--listing", of, "--json"])

    command("price", home)  # which writes down what it works out of the market
    firsts = [command("price", of) for of in homes[20::20]]
    took: dict[str, list[float]] = {"find": [], "price": [], PEER: []}
    for _ in range(TIMES):  # in turn, so that an hour that is noisy is so for all
        took["find"].append(command("find", home))
        took["price"].append(command("price", home))
        took[PEER].append(processor_ms(["-c", MODULES]))
    shutil.rmtree(work)
    peer = float(np.median(took[PEER]))
    return [
        Result(f"rain-porch {name}, processor time", on, *spread(ms), BUDGET, PEER, peer)
        for name, ms in (("find", took["find"]), ("price", took["price"]), ("price of a home not asked for before", firsts))
    ]  # fmt: skip


def processor_ms(arguments: Sequence[str]) -> float:
    """Processor time of a Python process, its own and the system's."""
    environment = {name: value for name, value in os.environ.items() if name != "PYTHONDONTWRITEBYTECODE"}
    before = _used()
    subprocess.run([sys.executable, *arguments], check=True, stdout=subprocess.DEVNULL, env=environment)
    return (_used() - before) * 1000


def _used() -> float:
    used = resource.getrusage(resource.RUSAGE_CHILDREN)
    return used.ru_utime + used.ru_stime
