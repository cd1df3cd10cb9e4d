"""Imports in the database: staging, comparing, taking effect, undoing. Identifiers come from the layouts alone."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Iterable, Mapping, Sequence
from pathlib import Path
from typing import Any

import shapely

from .db import atomic


def source_id(db: sqlite3.Connection, name: str) -> int:
    db.execute("INSERT OR IGNORE INTO sources (name) VALUES (:name)", {"name": name})
    return int(db.execute("SELECT source_id FROM sources WHERE name = :name", {"name": name}).fetchone()[0])


def open_staging(db: sqlite3.Connection, path: Path, columns: Sequence[str]) -> None:
    """Attach an empty staging file with one table of rows that are new or changed, and one of rows to report."""
    path.unlink(missing_ok=True)
    db.execute("ATTACH :path AS staging", {"path": str(path)})
    db.execute("PRAGMA staging.journal_mode = OFF")
    db.execute("PRAGMA staging.synchronous = OFF")
    names = ", ".join(columns)
    db.execute(f"CREATE TABLE staging.ready (key TEXT, outcome TEXT, before TEXT, suspect TEXT, {names})")
    db.execute("CREATE TABLE staging.reported (row_number INTEGER, outcome TEXT, reasons TEXT, original TEXT)")


def close_staging(db: sqlite3.Connection, path: Path) -> None:
    db.execute("DETACH staging")
    path.unlink(missing_ok=True)


def stage(db: sqlite3.Connection, columns: Sequence[str], rows: Iterable[Sequence[Any]]) -> None:
    """rows: (key, outcome, before, suspect, *columns)."""
    marks = ", ".join("?" * (len(columns) + 4))
    with atomic(db):
        db.executemany(f"INSERT INTO staging.ready VALUES ({marks})", rows)


def report_rows(db: sqlite3.Connection, rows: Iterable[tuple[int, str, str, str]]) -> None:
    with atomic(db):
        db.executemany("INSERT INTO staging.reported VALUES (?, ?, ?, ?)", rows)


def existing(
    db: sqlite3.Connection, table: str, key_column: str, columns: Sequence[str], keys: Sequence[str]
) -> dict[str, tuple[Any, ...]]:
    """What the table holds for these keys: key → (suspect, *columns)."""
    out: dict[str, tuple[Any, ...]] = {}
    names = ", ".join(columns)
    for first in range(0, len(keys), 900):
        part = keys[first : first + 900]
        marks = ", ".join("?" * len(part))
        query = f"SELECT {key_column}, suspect, {names} FROM {table} WHERE {key_column} IN ({marks})"
        for row in db.execute(query, part):
            out[row[0]] = tuple(row)[1:]
    return out


def is_empty(db: sqlite3.Connection, table: str) -> bool:
    return db.execute(f"SELECT 1 FROM {table} LIMIT 1").fetchone() is None


def apply(
    db: sqlite3.Connection,
    table: str,
    key_column: str,
    columns: Sequence[str],
    record: Mapping[str, Any],
) -> int:
    """Take a staged import into effect in one transaction; returns its number. `record`: the row of `imports`."""
    with atomic(db):
        number = _write_record(db, record)
        names = ", ".join(columns)
        staged = ", ".join(f"r.{c}" for c in columns)
        values = {"id": number, "source": record["source_id"]}
        db.execute(
            f"INSERT INTO {table} ({key_column}, suspect, {names}, source_id, first_import, last_import) "
            f"SELECT r.key, r.suspect, {staged}, :source, :id, :id FROM staging.ready r WHERE r.outcome = 'new'",
            values,
        )
        db.execute(
            "INSERT INTO import_changes (import_id, record_key, before) "
            "SELECT :id, key, before FROM staging.ready WHERE outcome = 'changed'",
            {"id": number},
        )
        sets = ", ".join(f"{c} = r.{c}" for c in columns)
        db.execute(
            f"UPDATE {table} SET {sets}, suspect = r.suspect, source_id = :source, last_import = :id "
            f"FROM staging.ready r WHERE r.outcome = 'changed' AND {table}.{key_column} = r.key",
            values,
        )
        db.execute(
            "INSERT INTO import_rows (import_id, row_number, outcome, reasons, original) "
            "SELECT :id, row_number, outcome, reasons, original FROM staging.reported",
            {"id": number},
        )
        if table in ("listings", "parcels"):
            _index_places(db, table, number)
            _index_addresses(db, table, number)
        if table in ("listings", "transfers"):
            match_transfers(db)
        bump_version(db)
    return number


def _write_record(db: sqlite3.Connection, record: Mapping[str, Any]) -> int:
    cursor = db.execute(
        "INSERT INTO imports (source_id, kind, file_name, finished_at, row_count, new_count, changed_count, same_count, "
        "suspect_count, rejected_count, reasons) VALUES (:source_id, :kind, :file_name, :finished_at, :rows, :new, "
        ":changed, :same, :suspect, :rejected, :reasons)",
        {**record, "reasons": json.dumps(record["reasons"])},
    )
    return int(cursor.lastrowid or 0)


def bump_version(db: sqlite3.Connection) -> None:
    db.execute("UPDATE meta SET value = CAST(value AS INTEGER) + 1 WHERE name = 'version'")


def records_version(db: sqlite3.Connection) -> int:
    return int(db.execute("SELECT value FROM meta WHERE name = 'version'").fetchone()[0])


def _index_places(db: sqlite3.Connection, table: str, number: int) -> None:
    places = "listing_places" if table == "listings" else "parcel_places"
    db.execute(
        f"DELETE FROM {places} WHERE row_id IN (SELECT row_id FROM {table} WHERE last_import = :id AND first_import < :id)",
        {"id": number},
    )
    db.execute(
        f"INSERT INTO {places} SELECT row_id, latitude, latitude, longitude, longitude FROM {table} "
        "WHERE last_import = :id AND latitude IS NOT NULL AND longitude IS NOT NULL",
        {"id": number},
    )


def _index_addresses(db: sqlite3.Connection, table: str, number: int) -> None:
    """One entry a home: its parcel where there is one, else its newest listing. Entry 2r is parcel r, 2r + 1 listing r."""
    if table == "parcels":
        db.execute(
            "DELETE FROM addresses WHERE rowid IN (SELECT row_id * 2 FROM parcels WHERE last_import = :id)",
            {"id": number},
        )
        db.execute(
            "INSERT INTO addresses (rowid, words, kind, key, shown) "
            "SELECT row_id * 2, fold_address(unparsed_address, unit_number, city, postal_code), 'parcel', parcel_number, "
            "unparsed_address || coalesce(', unit ' || unit_number, '') || coalesce(', ' || city, '') "
            "FROM parcels WHERE last_import = :id AND unparsed_address IS NOT NULL",
            {"id": number},
        )
        db.execute(
            "DELETE FROM addresses WHERE rowid IN (SELECT l.row_id * 2 + 1 FROM listings l JOIN parcels p "
            "ON l.home_key = 'parcel:' || p.parcel_number WHERE p.last_import = :id)",
            {"id": number},
        )
        return
    db.execute(
        "DELETE FROM addresses WHERE rowid IN (SELECT l.row_id * 2 + 1 FROM listings l WHERE l.home_key IN "
        "(SELECT home_key FROM listings WHERE last_import = :id))",
        {"id": number},
    )
    db.execute(
        "INSERT INTO addresses (rowid, words, kind, key, shown) "
        "SELECT l.row_id * 2 + 1, fold_address(l.unparsed_address, l.unit_number, l.city, l.postal_code), 'listing', "
        "l.listing_id, l.unparsed_address || coalesce(', unit ' || l.unit_number, '') || coalesce(', ' || l.city, '') "
        "FROM listings l WHERE l.row_id IN (SELECT max(row_id) FROM listings WHERE home_key IN "
        "(SELECT home_key FROM listings WHERE last_import = :id) GROUP BY home_key) "
        "AND l.unparsed_address IS NOT NULL "
        "AND (l.parcel_number IS NULL OR l.parcel_number NOT IN (SELECT parcel_number FROM parcels))",
        {"id": number},
    )


def match_transfers(db: sqlite3.Connection) -> None:
    """A transfer is a listing's closing when the parcel is the same, the dates lie within 45 days and the prices within 1 %."""
    db.execute("UPDATE transfers SET listing_id = NULL WHERE listing_id IS NOT NULL")
    db.execute(
        """
        WITH pairs AS (
            SELECT t.row_id, l.listing_id,
                   abs(julianday(l.close_date) - julianday(coalesce(t.sale_date, t.recording_date))) AS gap
            FROM transfers t JOIN listings l ON l.home_key = 'parcel:' || t.parcel_number
            WHERE l.standard_status = 'Closed'
              AND (t.price IS NULL OR l.close_price IS NULL
                   OR abs(t.price - l.close_price) <= 0.01 * max(t.price, l.close_price))
        ), ranked AS (
            SELECT row_id, listing_id, row_number() OVER (PARTITION BY row_id ORDER BY gap, listing_id) AS place
            FROM pairs WHERE gap <= 45
        )
        UPDATE transfers SET listing_id = ranked.listing_id
        FROM ranked WHERE ranked.place = 1 AND ranked.row_id = transfers.row_id
        """
    )


def replace_areas(db: sqlite3.Connection, record: Mapping[str, Any], rows: Sequence[tuple[str, str, str, str]]) -> int:
    """Take areas into effect: rows of (key, name, kind, geometry as GeoJSON text)."""
    with atomic(db):
        number = _write_record(db, record)
        db.executemany(
            "INSERT INTO areas (area_key, name, kind, geometry, source_id, first_import, last_import) "
            "VALUES (?, ?, ?, ?, ?, ?, ?) ON CONFLICT (area_key) DO UPDATE SET "
            "name = excluded.name, kind = excluded.kind, geometry = excluded.geometry, last_import = excluded.last_import",
            [(*row, record["source_id"], number, number) for row in rows],
        )
        db.execute(
            "DELETE FROM area_places WHERE row_id IN (SELECT row_id FROM areas WHERE last_import = :id)", {"id": number}
        )
        placed = db.execute("SELECT row_id, geometry FROM areas WHERE last_import = :id", {"id": number}).fetchall()
        bounds = shapely.bounds(shapely.from_geojson([r["geometry"] for r in placed])) if placed else []
        db.executemany(
            "INSERT INTO area_places VALUES (?, ?, ?, ?, ?)",
            [(r["row_id"], b[1], b[3], b[0], b[2]) for r, b in zip(placed, bounds, strict=True)],
        )
        bump_version(db)
    return number


def areas_by_key(db: sqlite3.Connection) -> dict[str, tuple[str, str, str]]:
    rows = db.execute("SELECT area_key, name, kind, geometry FROM areas")
    return {r["area_key"]: (r["name"], r["kind"], r["geometry"]) for r in rows}


def list_imports(db: sqlite3.Connection) -> list[dict[str, Any]]:
    """Newest first, with the source's name."""
    rows = db.execute(
        "SELECT i.import_id, s.name AS source, i.kind, i.file_name, i.finished_at, i.row_count AS rows, i.new_count AS new, "
        "i.changed_count AS changed, i.same_count AS same, i.suspect_count AS suspect, i.rejected_count AS rejected, "
        "i.reasons FROM imports i JOIN sources s USING (source_id) ORDER BY i.import_id DESC LIMIT 200"
    )
    return [{**dict(r), "reasons": json.loads(r["reasons"])} for r in rows]


def reported_rows(db: sqlite3.Connection, import_id: int, limit: int = 500) -> list[dict[str, Any]]:
    rows = db.execute(
        "SELECT row_number, outcome, reasons, original FROM import_rows WHERE import_id = :id ORDER BY row_number LIMIT :limit",
        {"id": import_id, "limit": limit},
    )
    return [{**dict(r), "reasons": json.loads(r["reasons"])} for r in rows]
