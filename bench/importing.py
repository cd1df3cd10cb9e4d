"""The import as a process of its own, so that its memory can be told; and its peer, a plain sqlite3 load."""

from __future__ import annotations

import csv
import datetime as dt
import json
import resource
import sqlite3
import sys
import time
from pathlib import Path

from rain_porch.app.records import Records
from rain_porch.records.importing import import_file


def ours(file: Path, folder: Path) -> int:
    records = Records(folder)
    with records.connection() as db:
        result = import_file(db, file, folder=folder, now=dt.datetime(2026, 11, 2), source="bench")
    assert result.rejected == 0
    return result.new


def plain(file: Path, folder: Path) -> int:
    """The same columns and indexes, nothing checked, parsed or matched."""
    folder.mkdir(parents=True, exist_ok=True)
    db = sqlite3.connect(folder / "plain.db")
    db.execute("PRAGMA journal_mode = WAL")
    with file.open(newline="", encoding="utf-8") as f:
        reader = csv.reader(f)
        head = next(reader)
        db.execute(f"CREATE TABLE listings (row_id INTEGER PRIMARY KEY, {', '.join(head)})")
        db.executemany(f"INSERT INTO listings ({', '.join(head)}) VALUES ({', '.join('?' * len(head))})", reader)
    db.execute("CREATE UNIQUE INDEX by_id ON listings (ListingId)")
    db.execute("CREATE INDEX by_home ON listings (ParcelNumber)")
    db.execute("CREATE INDEX by_import ON listings (MlsStatus)")
    db.execute("CREATE INDEX by_place ON listings (Latitude, Longitude)")
    db.execute("CREATE VIRTUAL TABLE addresses USING fts5 (words)")
    db.execute("INSERT INTO addresses (rowid, words) SELECT row_id, UnparsedAddress || ' ' || City FROM listings")
    db.commit()
    return int(db.execute("SELECT count(*) FROM listings").fetchone()[0])


if __name__ == "__main__":
    way, source, target = sys.argv[1], Path(sys.argv[2]), Path(sys.argv[3])
    start = time.perf_counter()
    n = {"ours": ours, "plain": plain}[way](source, target)
    seconds = time.perf_counter() - start
    # the largest of ours and the largest of those that it started, together
    memory = sum(resource.getrusage(who).ru_maxrss for who in (resource.RUSAGE_SELF, resource.RUSAGE_CHILDREN)) / 1024
    print(json.dumps({"rows": n, "seconds": seconds, "rows_per_second": n / seconds, "peak_mb": memory}))
