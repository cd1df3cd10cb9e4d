"""What was worked out from the records, with the records that led to it; and what the agent has said against it."""

from __future__ import annotations

from typing import Any

from ...core.facts.places.addresses import called_by_place
from ..db import Db, WritableDb, atomic
from .incoming import indexing
from .incoming.changed import new_state


def transfers(db: Db, what: str, limit: int) -> list[dict[str, Any]]:
    """Deeds by what was concluded of them: "matched" to a closing, "deed_sale", or "not_sale" with the reason."""
    condition = {
        "matched": "t.listing_id IS NOT NULL",
        "deed_sale": "t.listing_id IS NULL AND t.not_arms_length IS NULL",
        "not_sale": "t.not_arms_length IS NOT NULL",
    }[what]
    rows = db.execute(
        "SELECT t.transfer_key AS key, coalesce(p.unparsed_address, t.parcel_number) AS shown, "
        "coalesce(t.sale_date, t.recording_date) AS date, t.price, t.document_type, t.parcel_count, t.listing_id, "
        "t.not_arms_length, l.close_date AS listing_close_date, l.close_price AS listing_close_price "
        "FROM transfers t LEFT JOIN parcels p ON p.parcel_number = t.parcel_number "
        f"LEFT JOIN listings l ON l.listing_id = t.listing_id WHERE {condition} ORDER BY 3 DESC LIMIT :n",
        {"n": limit},
    )
    return [dict(r) for r in rows]


def listings(db: Db, what: str, limit: int) -> list[dict[str, Any]]:
    """Listings by what was concluded of them: "lease", "distressed", "not_arms_length"."""
    condition = "is_lease = 1" if what == "lease" else "manner = :what"
    rows = db.execute(
        "SELECT listing_id AS key, coalesce(unparsed_address, listing_id) AS shown, "
        "coalesce(close_date, off_market_date, on_market_date) AS date, coalesce(close_price, list_price) AS price, "
        f"property_type, special_listing_conditions FROM listings WHERE {condition} ORDER BY 3 DESC LIMIT :n",
        {"n": limit, "what": what},
    )
    return [{**r, "shown": called_by_place(r["shown"]) or r["shown"]} for r in map(dict, rows)]


def relisted(db: Db, limit: int) -> list[dict[str, Any]]:
    """Homes listed more than once, most often first: the listings one after another."""
    rows = db.execute(
        "SELECT home_key AS key, max(unparsed_address) AS shown, count(*) AS n, "
        "group_concat(listing_id || ' ' || standard_status || ' ' || coalesce(on_market_date, '?') || ' to ' || "
        "coalesce(close_date, off_market_date, 'now'), '; ') AS listings "
        "FROM listings WHERE is_lease = 0 AND same_as IS NULL GROUP BY home_key HAVING count(*) > 1 ORDER BY n DESC, key LIMIT :n",
        {"n": limit},
    )
    return [dict(r) for r in rows]


def counts(db: Db) -> dict[str, int]:
    """How many records each conclusion holds for."""
    t = db.execute(
        "SELECT sum(listing_id IS NOT NULL), sum(listing_id IS NULL AND not_arms_length IS NULL), "
        "sum(not_arms_length IS NOT NULL) FROM transfers"
    ).fetchone()
    x = db.execute(
        "SELECT sum(is_lease), sum(manner = 'distressed'), sum(manner = 'not_arms_length'), sum(suspect IS NOT NULL) "
        "FROM listings"
    ).fetchone()
    homes = db.execute(
        "SELECT count(*) FROM (SELECT 1 FROM listings WHERE is_lease = 0 AND same_as IS NULL GROUP BY home_key HAVING count(*) > 1)"
    ).fetchone()
    names = ("matched", "deed_sale", "not_sale", "lease", "distressed", "not_arms_length", "suspect", "relisted")
    return {name: int(n or 0) for name, n in zip(names, (*t, *x, *homes), strict=True)}


def rule(db: WritableDb, kind: str, key: str, about: str, says: str | None, now: str, columns: dict[str, Any]) -> None:
    """Keep what the agent says of a record, or take it back (`says` None); `columns` are the record's values with it.

    Names in `columns` come from the layouts.
    """
    table, key_column = {"listings": ("listings", "listing_id"), "transfers": ("transfers", "transfer_key")}[kind]
    with atomic(db):
        if says is None:
            db.execute(
                "DELETE FROM rulings WHERE kind = :kind AND record_key = :key AND about = :about",
                {"kind": kind, "key": key, "about": about},
            )
        else:
            db.execute(
                "INSERT INTO rulings VALUES (:kind, :key, :about, :says, :now) ON CONFLICT DO UPDATE SET "
                "says = excluded.says, ruled_at = excluded.ruled_at",
                {"kind": kind, "key": key, "about": about, "says": says, "now": now},
            )
        if columns:
            sets = ", ".join(f"{name} = :{name}" for name in columns)
            db.execute(f"UPDATE {table} SET {sets} WHERE {key_column} = :key_", {**columns, "key_": key})
        if kind in ("listings", "transfers"):
            indexing.match_transfers(db)
        new_state(db)


def all_rulings(db: Db) -> list[dict[str, Any]]:
    rows = db.execute("SELECT kind, record_key AS key, about, says, ruled_at FROM rulings ORDER BY ruled_at DESC")
    return [dict(r) for r in rows]
