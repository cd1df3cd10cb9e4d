"""What is kept beside the records so that they are found: bounds of areas, words of addresses, closings of transfers."""

from __future__ import annotations

import sqlite3

import shapely

from ...db import WritableDb
from . import placing, same_listings

# which rows are to be indexed anew; filled by whoever changes records, empty between transactions
TOUCHED = "CREATE TEMP TABLE IF NOT EXISTS touched (row_id INTEGER PRIMARY KEY)"


def touch(db: sqlite3.Connection, table: str, condition: str, values: dict[str, object]) -> None:
    """Name the rows whose entries `reindex` makes anew. Call before rows go, and after rows come or change."""
    db.execute(TOUCHED)
    db.execute(f"INSERT OR IGNORE INTO temp.touched SELECT row_id FROM {table} WHERE {condition}", values)


def reindex(db: sqlite3.Connection, table: str, went: bool = False, first: bool = False) -> None:
    """Make the entries of all touched rows of `table` anew, and forget the list. went: some rows are there no longer; first: there
    was none before, so that nothing is kept beside any."""
    db.execute(TOUCHED)
    if table in ("listings", "parcels"):
        placing.place(db, table, went)
        if table == "parcels":
            _parcel_addresses(db)
        elif first:
            _make_listing_entries(db, "1")
        else:
            _listing_addresses(db)
    if table == "areas":
        _area_places(db)
    if table == "listings":
        same_listings.settle(db)
    if table in ("listings", "transfers"):
        match_transfers(db)
    db.execute("DELETE FROM temp.touched")


def _area_places(db: sqlite3.Connection) -> None:
    db.execute("DELETE FROM area_places WHERE row_id IN (SELECT row_id FROM temp.touched)")
    placed = db.execute(
        "SELECT row_id, geometry FROM areas WHERE row_id IN (SELECT row_id FROM temp.touched)"
    ).fetchall()
    bounds = shapely.bounds(shapely.from_geojson([r["geometry"] for r in placed])) if placed else []
    db.executemany(
        "INSERT INTO area_places VALUES (?, ?, ?, ?, ?)",
        [(r["row_id"], b[1], b[3], b[0], b[2]) for r, b in zip(placed, bounds, strict=True)],
    )


# One entry a home: its parcel where there is one, else its newest listing. Entry 2r is parcel r, 2r + 1 listing r.
_SHOWN = "unparsed_address || coalesce(', unit ' || unit_number, '') || coalesce(', ' || city, '')"


# homes whose listings get their entry anew
STIRRED = "CREATE TEMP TABLE IF NOT EXISTS stirred_homes (key TEXT PRIMARY KEY)"


def stir_homes(db: sqlite3.Connection, table: str, condition: str, values: dict[str, object]) -> None:
    """Name the homes of rows that are about to go, so that an older listing of them gets their entry."""
    if table in ("listings", "parcels"):
        db.execute(STIRRED)
        db.execute(f"INSERT OR IGNORE INTO temp.stirred_homes SELECT home_key FROM {table} WHERE {condition}", values)


def forget(db: sqlite3.Connection, table: str, row_id: int, home_key: str | None) -> None:
    """Drop what is kept beside one record that is about to go; an older listing of its home may get its entry."""
    if table in ("listings", "parcels"):
        db.execute("DELETE FROM addresses WHERE rowid = ?", (row_id * 2 + (table == "listings"),))
        db.execute(STIRRED)
        db.execute("INSERT OR IGNORE INTO temp.stirred_homes VALUES (?)", (home_key,))
    elif table == "areas":
        db.execute("DELETE FROM area_places WHERE row_id = ?", (row_id,))


_IS_TOUCHED = "row_id IN (SELECT row_id FROM temp.touched)"


def _parcel_addresses(db: sqlite3.Connection) -> None:
    stir_homes(db, "parcels", _IS_TOUCHED, {})
    db.execute("DELETE FROM addresses WHERE rowid IN (SELECT row_id * 2 FROM temp.touched)")
    db.execute(
        "INSERT INTO addresses (rowid, words, kind, key, shown) "
        "SELECT row_id * 2, fold_address(unparsed_address, unit_number, city, postal_code), 'parcel', parcel_number, "
        f"{_SHOWN} FROM parcels WHERE {_IS_TOUCHED} AND unparsed_address IS NOT NULL"
    )
    _listing_entries(db, "1")


def _listing_addresses(db: sqlite3.Connection) -> None:
    stir_homes(db, "listings", _IS_TOUCHED, {})
    db.execute("DELETE FROM addresses WHERE rowid IN (SELECT row_id * 2 + 1 FROM temp.touched)")
    _listing_entries(db, f"NOT ({_IS_TOUCHED})")


def _listing_entries(db: sqlite3.Connection, have: str) -> None:
    """Entries of the stirred homes: none for listings of a home whose parcel is known, else the newest's.

    have: which listings can still have an entry.
    """
    homes = "home_key IN (SELECT key FROM temp.stirred_homes)"
    db.execute(f"DELETE FROM addresses WHERE rowid IN (SELECT row_id * 2 + 1 FROM listings WHERE {homes} AND {have})")
    _make_listing_entries(db, homes)
    db.execute("DELETE FROM temp.stirred_homes")


def _make_listing_entries(db: sqlite3.Connection, homes: str) -> None:
    """An entry for the newest listing of each of those homes, where its parcel is not known."""
    db.execute(
        "INSERT INTO addresses (rowid, words, kind, key, shown) "
        "SELECT row_id * 2 + 1, fold_address(unparsed_address, unit_number, city, postal_code), 'listing', "
        f"listing_id, {_SHOWN} FROM listings "
        f"WHERE row_id IN (SELECT max(row_id) FROM listings WHERE {homes} GROUP BY home_key) "
        "AND unparsed_address IS NOT NULL "
        "AND (parcel_number IS NULL OR parcel_number NOT IN (SELECT parcel_number FROM parcels))"
    )


def match_transfers(db: WritableDb) -> None:
    """A transfer is a listing's closing when the parcel is the same, the dates lie within 45 days and the prices within 1 %.

    Where the agent has ruled that a transfer is no listing's closing, it stays a sale of its own.
    """
    db.execute(
        """
        WITH pairs AS (
            SELECT t.row_id, l.listing_id,
                   abs(julianday(l.close_date) - julianday(coalesce(t.sale_date, t.recording_date))) AS gap
            FROM transfers t JOIN listings l ON l.home_key = 'parcel:' || t.parcel_number
            WHERE l.standard_status = 'Closed' AND l.same_as IS NULL
              AND (t.price IS NULL OR l.close_price IS NULL
                   OR abs(t.price - l.close_price) <= 0.01 * max(t.price, l.close_price))
              AND NOT EXISTS (SELECT 1 FROM rulings r WHERE r.kind = 'transfers' AND r.record_key = t.transfer_key
                              AND r.about = 'listing_id')
        ), ranked AS (
            SELECT row_id, listing_id, row_number() OVER (PARTITION BY row_id ORDER BY gap, listing_id) AS place
            FROM pairs WHERE gap <= 45
        ), best AS (SELECT row_id, listing_id FROM ranked WHERE place = 1)
        UPDATE transfers SET listing_id = (SELECT b.listing_id FROM best b WHERE b.row_id = transfers.row_id)
        WHERE listing_id IS NOT (SELECT b.listing_id FROM best b WHERE b.row_id = transfers.row_id)
        """
    )
