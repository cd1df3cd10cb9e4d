"""Records read out whole, in the order in which they came."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Iterator, Sequence
from typing import Any

from ...core.facts.fields import OWN, own_field


def records(db: sqlite3.Connection, table: str, columns: Sequence[str]) -> Iterator[tuple[Any, ...]]:
    """All rows of a table as tuples of `columns` (names from the layouts)."""
    own = table in ("listings", "parcels")  # places that were found are found again where these records are
    names = [
        f"json_extract(own, '$.{c}')"
        if own and c.startswith(OWN)
        else f"CASE WHEN place_from IS NULL THEN {c} END"
        if own and c in ("latitude", "longitude")
        else c
        for c in columns
    ]
    cursor = db.execute(f"SELECT {', '.join(names)} FROM {table} ORDER BY row_id")
    cursor.row_factory = None
    yield from cursor


def own_names(db: sqlite3.Connection, table: str) -> list[str]:
    """Names of the columns of the office's own that any row of the table has."""
    if table not in ("listings", "parcels"):
        return []
    rows = db.execute(f"SELECT DISTINCT j.key FROM {table} t, json_each(t.own) j WHERE t.own IS NOT NULL ORDER BY 1")
    return [str(r[0]) for r in rows.fetchall() if own_field(str(r[0])) is not None]


def areas(db: sqlite3.Connection) -> Iterator[dict[str, Any]]:
    """All areas as GeoJSON features; the id is the number at the end of their key."""
    for r in db.execute("SELECT area_key, name, kind, geometry FROM areas ORDER BY row_id"):
        number = r["area_key"].rsplit("|", 1)[1]
        yield {
            "type": "Feature",
            **({"id": number} if number else {}),
            "properties": {"name": r["name"], "kind": r["kind"]},
            "geometry": json.loads(r["geometry"]),
        }
