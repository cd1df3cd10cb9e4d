"""Which pictures a listing has, each in its place: a file of the photos folder, or the address at which it stands."""

from __future__ import annotations

import sqlite3
from collections.abc import Mapping

from ..db import Db

Key = tuple[str, int]  # a listing's number, the place among its photos
Kept = tuple[str, str | None, str | None]  # a file's name ("" where there is an address), the address, the caption


def of_listing(db: Db, listing_id: str) -> list[Kept]:
    """A listing's pictures, in their order."""
    rows = db.execute(
        "SELECT file_name, address, caption FROM photos WHERE listing_id = :n ORDER BY place", {"n": listing_id}
    )
    return [tuple(r) for r in rows]


def held(db: sqlite3.Connection) -> dict[Key, Kept]:
    """All that there are."""
    return {
        (r[0], r[1]): (r[2], r[3], r[4])
        for r in db.execute("SELECT listing_id, place, file_name, address, caption FROM photos")
    }


def write(db: sqlite3.Connection, import_id: int, fresh: Mapping[Key, Kept]) -> None:
    """Put pictures in their places; one that says no caption leaves the one that is there."""
    db.executemany(
        "INSERT INTO photos (listing_id, place, file_name, address, caption, first_import, last_import) "
        "VALUES (?, ?, ?, ?, ?, ?, ?) ON CONFLICT (listing_id, place) DO UPDATE SET file_name = excluded.file_name, "
        "address = excluded.address, caption = coalesce(excluded.caption, caption), last_import = excluded.last_import",
        [(*place, *kept, import_id, import_id) for place, kept in fresh.items()],
    )
