"""Areas and base map features as they are asked for."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Iterable
from typing import Any

import shapely

FINE_KINDS = ("lot", "building")
FINE_LIMIT = 4000
AREA_KINDS = ("neighbourhood", "subdivision", "district", "city", "area", "plat")


def named_areas(db: sqlite3.Connection) -> list[dict[str, str]]:
    """Polygons that name a place, by kind and name."""
    marks = ", ".join("?" * len(AREA_KINDS))
    rows = db.execute(f"SELECT area_key, name, kind FROM areas WHERE kind IN ({marks}) ORDER BY kind, name", AREA_KINDS)
    return [dict(r) for r in rows]


def area_shape(db: sqlite3.Connection, name: str) -> Any | None:
    """The union of the named polygons (names are compared without case), or None where there is none."""
    rows = db.execute("SELECT kind, geometry FROM areas WHERE lower(name) = lower(:name)", {"name": name}).fetchall()
    shapes = [shapely.from_geojson(r["geometry"]) for r in rows if r["kind"] in AREA_KINDS]
    polygons = [s for s in shapes if s.geom_type in ("Polygon", "MultiPolygon")]
    return shapely.union_all(polygons) if polygons else None


def base_map(db: sqlite3.Connection) -> dict[str, Any]:
    """What is drawn under the marks at any scale, as one GeoJSON feature collection; lots and buildings apart."""
    marks = ", ".join("?" * len(FINE_KINDS))
    return _collection(
        db.execute(f"SELECT row_id, name, kind, geometry FROM areas WHERE kind NOT IN ({marks})", FINE_KINDS)
    )


def fine_map(db: sqlite3.Connection, west: float, south: float, east: float, north: float) -> dict[str, Any]:
    """Lots and buildings that touch a box, at most FINE_LIMIT of them."""
    rows = db.execute(
        "SELECT a.row_id, a.name, a.kind, a.geometry FROM area_places p JOIN areas a USING (row_id) "
        "WHERE p.north >= :s AND p.south <= :n AND p.east >= :w AND p.west <= :e AND a.kind IN ('lot', 'building') "
        "ORDER BY a.row_id LIMIT :limit",
        {"w": west, "s": south, "e": east, "n": north, "limit": FINE_LIMIT},
    )
    return _collection(rows)


def _collection(rows: Iterable[sqlite3.Row]) -> dict[str, Any]:
    return {
        "type": "FeatureCollection",
        "features": [
            {
                "type": "Feature",
                "id": r["row_id"],
                "properties": {"name": r["name"], "kind": r["kind"]},
                "geometry": json.loads(r["geometry"]),
            }
            for r in rows
        ],
    }
