"""Records without coordinates are given places from what else is known; which, is worked out anew as records change."""

from __future__ import annotations

from ....core.facts.places.finding_places import LISTING, PARCEL, Located, Neighbourhood
from ...db import WritableDb

FEW = 5_000
_FACTS = "row_id, unparsed_address, city, postal_code, subdivision_name"
_PLACED = "latitude IS NOT NULL AND longitude IS NOT NULL AND place_from IS NULL AND (suspect IS NULL OR suspect NOT LIKE '%itude%')"
_TOUCHED = "row_id IN (SELECT row_id FROM temp.touched)"


def place(db: WritableDb, table: str, whole: bool = False) -> None:
    """Find places for the rows of listings and parcels that have none of their own.

    All of them where they are few, or parcels changed, or records went (`whole`); else those touched, with temp.touched
    filled. Nothing is asked of the records where every row has a place of its own.
    """
    wanted: dict[str, list[Located]] = {}
    for kind in ("listings", "parcels"):
        every = whole or table == "parcels" or _few(db, kind)
        if not every and kind != table:
            continue
        which = "1" if every else _TOUCHED
        _forget(db, kind, which)
        (_from_parcels if kind == "listings" else _from_listings)(db, which)
        rows = db.execute(
            f"SELECT {_FACTS} FROM {kind} WHERE latitude IS NULL AND {which} "
            "AND (unparsed_address IS NOT NULL OR subdivision_name IS NOT NULL)"
        ).fetchall()
        if rows:
            wanted[kind] = [Located(*tuple(row)) for row in rows]
    if not wanted:
        return
    known = Neighbourhood(
        Located(r[0], r[1], r[2], r[3], r[4], (r[5], r[6]))
        for kind in ("parcels", "listings")
        for r in db.execute(f"SELECT {_FACTS}, latitude, longitude FROM {kind} WHERE {_PLACED}").fetchall()
    )
    for kind, records in wanted.items():
        found = [f for f in map(known.find, records) if f is not None]
        db.executemany(
            f"UPDATE {kind} SET latitude = ?, longitude = ?, place_from = ? WHERE row_id = ?",
            [(round(f.place[0], 7), round(f.place[1], 7), f.how, f.row) for f in found],
        )


def _few(db: WritableDb, kind: str) -> bool:
    """Whether so few rows have no place of their own that all of them can be looked at each time."""
    n = sum(
        len(db.execute(f"SELECT 1 FROM {kind} WHERE {which} LIMIT {FEW}").fetchall())
        for which in ("latitude IS NULL", "place_from IS NOT NULL")
    )
    return n < FEW


def _forget(db: WritableDb, kind: str, which: str) -> None:
    db.execute(
        f"UPDATE {kind} SET latitude = NULL, longitude = NULL, place_from = NULL WHERE place_from IS NOT NULL AND {which}"
    )


def _from_parcels(db: WritableDb, which: str) -> None:
    db.execute(
        f"""
        UPDATE listings SET latitude = p.latitude, longitude = p.longitude, place_from = '{PARCEL}'
        FROM parcels p
        WHERE listings.latitude IS NULL AND listings.parcel_number = p.parcel_number
          AND p.latitude IS NOT NULL AND p.longitude IS NOT NULL
          AND (p.suspect IS NULL OR p.suspect NOT LIKE '%itude%') AND {which.replace("row_id IN", "listings.row_id IN")}
        """
    )


def _from_listings(db: WritableDb, which: str) -> None:
    """A parcel's place as the newest of its listings that has one of its own tells it."""
    newest = (
        "SELECT l.{} FROM listings l WHERE l.home_key = 'parcel:' || parcels.parcel_number AND l.latitude IS NOT NULL "
        "AND l.longitude IS NOT NULL AND l.place_from IS NULL AND (l.suspect IS NULL OR l.suspect NOT LIKE '%itude%') "
        "ORDER BY l.row_id DESC LIMIT 1"
    )
    lat, lon = newest.format("latitude"), newest.format("longitude")
    db.execute(
        f"UPDATE parcels SET latitude = ({lat}), longitude = ({lon}), place_from = '{LISTING}' "
        f"WHERE latitude IS NULL AND {which} AND ({lat}) IS NOT NULL"
    )


def without_found(table: str, row: dict[str, object]) -> dict[str, object]:
    """A stored row as files told it: a place that was found is no place of its own."""
    if table in ("listings", "parcels") and row.get("place_from"):
        row["latitude"] = row["longitude"] = None
    return row
