"""A service on the records of a whole county: its start, fresh figures after a pull, an import taken back."""

from __future__ import annotations

import csv
import shutil
import sqlite3
import subprocess
import sys
import time
from collections.abc import Iterator, Sequence
from contextlib import closing, contextmanager
from pathlib import Path

import httpx

from bench.memory import held_mb, most_held
from bench.serving import serving
from bench.timing import Result, spread
from rain_porch.store.records.columns import load_columns

STARTS, PULLS, CHANGED, CLOSED, SETTLED_SECONDS = 3, 5, 1_000, 100, 3

# what is for sale nearest to the home, of its kind
_NEARBY = """
    SELECT l.listing_id, l.list_price FROM listings l, listings h
    WHERE h.listing_id = :home AND l.home_kind = h.home_kind AND l.standard_status = 'Active' AND l.living_area > 0
    ORDER BY abs(l.latitude - h.latitude) + abs(l.longitude - h.longitude) LIMIT :closed
"""


def measured(folder: Path, work: Path) -> list[Result]:
    """Of a copy of the records in `folder`."""
    shutil.rmtree(work, ignore_errors=True)
    work.mkdir(parents=True)
    for name in ("records.db", "demo.txt"):
        if (folder / name).exists():
            shutil.copy(folder / name, work / name)
    with started(work):
        pass  # this program's columns are kept from now on, and the schema is this program's
    with closing(sqlite3.connect(f"file:{work}/records.db?mode=ro", uri=True)) as db:
        listings = db.execute("SELECT count(*) FROM listings").fetchone()[0]
        source = db.execute("SELECT name FROM sources LIMIT 1").fetchone()[0]
        home, day = db.execute("SELECT listing_id, close_date FROM listings WHERE standard_status = 'Closed' AND home_kind = 'detached' ORDER BY close_date DESC LIMIT 1").fetchone()  # fmt: skip
        asked = db.execute("SELECT listing_id, list_price FROM listings WHERE standard_status = 'Active' ORDER BY listing_id LIMIT ?", (CHANGED,)).fetchall()  # fmt: skip
        nearby = db.execute(_NEARBY, {"home": home, "closed": CLOSED}).fetchall()
        start = time.perf_counter()
        load_columns(db)
        whole = (time.perf_counter() - start) * 1000
    on = f"{listings:,} listings"
    answers, worths = [], []
    for _ in range(STARTS):
        start = time.perf_counter()
        with started(work) as client:
            answers.append((time.perf_counter() - start) * 1000)
            first_worth(client, home)
            worths.append((time.perf_counter() - start) * 1000)
    out = [
        Result("start of the service, until it answers", on, *spread(answers), None),
        Result("… until the first price", on, *spread(worths), 3000, "columns read from the database", whole),
    ]
    with serving(work) as (url, process), httpx.Client(base_url=url, timeout=120) as client:
        number = first_worth(client, home)
        client.get(f"/api/workups/{number}/candidates").raise_for_status()
        client.get("/api/market", params={"measure": "median_price", "by": "month", "years": 5}).raise_for_status()
        time.sleep(SETTLED_SECONDS)
        before = held_mb(process)
        tables, fresh, waits = [], [], []
        with most_held(process) as most:
            for k in range(PULLS):
                version = client.get("/api/records/standing").json()["version"]
                closings = nearby[k * CLOSED // PULLS : (k + 1) * CLOSED // PULLS]
                pull(work, source, [(key, int(price) + 1000 * (k + 1)) for key, price in asked[len(closings) :]], closings, day)  # fmt: skip
                start = time.perf_counter()
                while (told := client.get("/api/records/standing").json())["version"] == version or told["is_behind"]:
                    asking = time.perf_counter()
                    client.get(f"/api/workups/{number}/candidates").raise_for_status()
                    waits.append((time.perf_counter() - asking) * 1000)
                    time.sleep(0.02)
                client.get(f"/api/workups/{number}/candidates").raise_for_status()
                tables.append((time.perf_counter() - start) * 1000)
                client.get(f"/api/workups/{number}/worth").raise_for_status()
                fresh.append((time.perf_counter() - start) * 1000)
                time.sleep(SETTLED_SECONDS)  # as long as the new columns take to be written down
        settled = held_mb(process)
    out += [
        Result(f"fresh table after a pull of {CHANGED:,} changed rows", on, *spread(tables), 1000, "columns read from the database", whole),
        Result("fresh worth after it", on, *spread(fresh), 1000, "columns read from the database", whole,
               note=f"of a home around which {CLOSED // PULLS} of them are closings"),
        Result("a table meanwhile", on, *spread(waits), 300),
        Result("memory of the service meanwhile and after it, of that before", on, settled / before, most() / before, 1.3, unit="×",
               note=f"p95 stands for the most that was seen: {most():.0f} of {before:.0f} MB, then {settled:.0f}"),
    ]  # fmt: skip
    taken = []
    for which in ("undo of a pull", "undo of the import of all"):
        start = time.perf_counter()
        with closing(sqlite3.connect(f"file:{work}/records.db?mode=ro", uri=True)) as db:
            number = db.execute(f"SELECT {'max' if which == 'undo of a pull' else 'min'}(import_id) FROM imports WHERE undone_at IS NULL AND kind = 'listings'").fetchone()[0]  # fmt: skip
        if which != "undo of a pull":
            for _ in range(PULLS - 1):
                undo(work, number + PULLS - 1 - _)
            start = time.perf_counter()
        undo(work, number)
        taken.append(Result(which, on, *spread([(time.perf_counter() - start) * 1000]), 60_000))
    shutil.rmtree(work)
    return out + taken


@contextmanager
def started(work: Path) -> Iterator[httpx.Client]:
    with serving(work) as (url, _), httpx.Client(base_url=url, timeout=300) as client:
        yield client


def first_worth(client: httpx.Client, home: str) -> int:
    """The workup that was begun."""
    made = client.post("/api/workups", json={"kind": "listing", "key": home}).raise_for_status().json()
    client.get(f"/api/workups/{made['workup_id']}/worth").raise_for_status()
    return int(made["workup_id"])


def pull(
    work: Path, source: str, prices: list[tuple[str, int]], closings: Sequence[tuple[str, float]] = (), day: str = ""
) -> None:
    """Bring in new prices of what is for sale, and what has been sold on a day at its price."""
    file = work / "pull.csv"
    with file.open("w", newline="") as f:
        told = csv.writer(f)
        told.writerow(["ListingId", "ListPrice", "StandardStatus", "PurchaseContractDate", "CloseDate", "ClosePrice"])
        told.writerows([key, price, "Active", "", "", ""] for key, price in prices)
        told.writerows([key, int(price), "Closed", day, day, int(price)] for key, price in closings)
    command = ["import", str(file), "--data", str(work), "--source", source]
    subprocess.run([sys.executable, "-m", "rain_porch.cli", *command], check=True, stdout=subprocess.DEVNULL)


def undo(work: Path, number: int) -> None:
    command = ["undo", str(number), "--data", str(work)]
    subprocess.run([sys.executable, "-m", "rain_porch.cli", *command], check=True, stdout=subprocess.DEVNULL)
