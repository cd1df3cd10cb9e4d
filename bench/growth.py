"""How each cost grows with the records, from ten thousand listings to ten million.

usage: python -m bench.growth --from RECORDS-1000000 [--sizes 10000 100000 1000000 10000000] [--out growth.json]
       python -m bench.growth --out growth.json --draw growth.png

Records of each size are rows of the folder given, taken or repeated: a repeated row is a listing of its own, of another home,
a degree further east. They are written with SQL, since it is not the import that is measured.
"""

from __future__ import annotations

import argparse
import json
import resource
import shutil
import sqlite3
import subprocess
import sys
import time
from pathlib import Path
from typing import Any

from rain_porch.store.records.incoming.changed import new_state

SIZES = (10_000, 100_000, 1_000_000, 10_000_000)


def records_of(source: Path, n: int, folder: Path) -> Path:
    """A folder with so many of the source's listings."""
    if (folder / "records.db").is_file():
        return folder
    folder.mkdir(parents=True, exist_ok=True)
    shutil.copy(source / "records.db", folder / "part.db")
    db = sqlite3.connect(folder / "part.db", isolation_level=None)
    db.execute("PRAGMA journal_mode = OFF")
    db.execute("PRAGMA synchronous = OFF")
    have = db.execute("SELECT count(*) FROM listings").fetchone()[0]
    if n < have:
        db.execute(
            "DELETE FROM listings WHERE row_id > (SELECT row_id FROM listings ORDER BY row_id LIMIT 1 OFFSET ?)",
            (n - 1,),
        )
        db.execute("VACUUM")
    else:
        names = [r[1] for r in db.execute("PRAGMA table_info(listings)")]
        indexes = db.execute(
            "SELECT name, sql FROM sqlite_master WHERE tbl_name = 'listings' AND type = 'index' AND sql IS NOT NULL"
        ).fetchall()
        for name, _ in indexes:
            db.execute(f"DROP INDEX {name}")
        for k in range(1, n // have):
            told = {
                "row_id": "NULL",
                "listing_id": f"listing_id || '/{k}'",
                "home_key": f"home_key || '/{k}'",
                "longitude": f"longitude + {k}",
            }
            columns = ", ".join(told.get(name, name) for name in names)
            db.execute(
                f"INSERT INTO listings ({', '.join(names)}) SELECT {columns} FROM listings WHERE row_id <= {have}"
            )
        for _, sql in indexes:
            db.execute(sql)
    new_state(db)
    db.execute("PRAGMA journal_mode = WAL")
    db.close()
    (folder / "part.db").rename(folder / "records.db")
    return folder


def measured(folder: Path) -> dict[str, Any]:
    """One size, in a process of its own so that its memory can be told: seconds and milliseconds of each."""
    from bench import market_rows, whole_market
    from bench.timing import times
    from rain_porch.app.records import Records
    from rain_porch.core.facts.dates import day_of
    from rain_porch.core.market import measures as mk
    from rain_porch.core.search import matching as mt

    def clock(start: float) -> float:
        return time.perf_counter() - start

    out: dict[str, Any] = {}
    start = time.perf_counter()
    first = Records(folder)
    first.snapshot()
    out["columns read from the database, s"] = clock(start)
    first.close()
    out["memory while they are read, MB"] = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    del first
    start = time.perf_counter()
    records = Records(folder)
    columns = records.snapshot().columns
    out["columns mapped, s"] = clock(start)
    out["listings"] = len(columns)
    start = time.perf_counter()
    view = columns.as_of(day_of(whole_market.LAST))
    out["the market as of a day, first time, s"] = clock(start)
    for name, near in (("counts by place, ms", True), ("counts, whole market, ms", False)):
        asked = market_rows.searches(columns, 60, near, seed=3)
        out[name] = times([lambda a=a: mt.run(a.search, columns, view, a.subject) for a in asked])[0]
    snapshot = records.snapshot()
    spans = mk.last_years("month", 5, whole_market.LAST, whole_market.LAST)
    import numpy as np

    rows = np.arange(len(columns))
    start = time.perf_counter()
    mk.series(mk.Market(columns, rows, day_of(whole_market.LAST), False), whole_market.MEASURES, spans)
    out["eight measures of everything, first time, s"] = clock(start)
    start = time.perf_counter()
    mk.series(mk.Market(columns, rows, day_of(whole_market.LAST), False), whole_market.MEASURES, spans)
    out["eight measures of everything, again, ms"] = 1000 * clock(start)
    out["memory in all, MB"] = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    for name in ("records.db", "records.columns"):
        out[f"{name}, MB"] = (folder / name).stat().st_size / 1e6
    del snapshot
    records.close()
    return out


def drawn(found: list[dict[str, Any]], to: Path) -> None:
    """Each cost against the number of listings, both by powers of ten: in seconds, and in megabytes."""
    from matplotlib.figure import Figure

    figure = Figure(figsize=(11, 4.4), layout="constrained")
    for ax, ends, unit in zip(
        figure.subplots(1, 2), ((", s", ", ms"), (", MB",)), ("seconds", "megabytes"), strict=True
    ):
        for name in found[0]:
            if name.endswith(ends):
                by = 1000.0 if name.endswith(", ms") else 1.0
                line = [f[name] / by for f in found]
                ax.loglog([f["listings"] for f in found], line, marker="o", markersize=4, label=name.rsplit(",", 1)[0])
        ax.set_xlabel("listings")
        ax.set_ylabel(unit)
        ax.legend(fontsize=7, frameon=False)
        for side in ("top", "right"):
            ax.spines[side].set_visible(False)
    figure.savefig(to, dpi=110)


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--draw", type=Path, help="a picture of what --out has kept")
    parser.add_argument("--from", dest="source", type=Path)
    parser.add_argument("--sizes", type=int, nargs="+", default=SIZES)
    parser.add_argument("--out", type=Path)
    parser.add_argument("--one", action="store_true", help="measure the folder itself and print it as JSON")
    args = parser.parse_args()
    if args.draw:
        drawn(json.loads(args.out.read_text()), args.draw)
        return
    if args.one:
        print(json.dumps(measured(args.source)))
        return
    found = []
    for n in args.sizes:
        folder = records_of(args.source, n, args.source.parent / f"grown-{n}")
        (folder / "records.columns").unlink(missing_ok=True)
        done = subprocess.run(
            [sys.executable, "-m", "bench.growth", "--from", str(folder), "--one"], capture_output=True, text=True
        )
        if done.returncode:
            print(f"{n:,}: {done.stderr[-800:]}")
            continue
        found.append(json.loads(done.stdout.splitlines()[-1]))
        print(f"{n:,}", json.dumps(found[-1], indent=1), flush=True)
    if args.out:
        args.out.write_text(json.dumps(found, indent=1))


if __name__ == "__main__":
    main()
