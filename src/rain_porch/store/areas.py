"""Areas and base map features as they are asked for."""

from __future__ import annotations

import json
import sqlite3
from typing import Any

import shapely

AREA_KINDS = ("neighbourhood", "subdivision", "district", "city", "area", "plat")


def named_areas(db: sqlite3.Connection) -> list[dict[str, str]]:
    """Polygons that name a place, by kind and name."""
    rows = db.execute("SELECT area_key, name, kind FROM areas ORDER BY kind, name")
    return [dict(r) for r in rows if r["kind"] in AREA_KINDS]


def area_shape(db: sqlite3.Connection, name: str) -> Any | None:
    """The union of the named polygons (names are compared without case), or None where there is none."""
    rows = db.execute("SELECT kind, geometry FROM areas WHERE lower(name) = lower(:name)", {"name": name}).fetchall()
    shapes = [shapely.from_geojson(r["geometry"]) for r in rows if r["kind"] in AREA_KINDS]
    polygons = [s for s in shapes if s.geom_type in ("Polygon", "MultiPolygon")]
    return shapely.union_all(polygons) if polygons else None


def base_map(db: sqlite3.Connection) -> dict[str, Any]:
    """Everything that can be drawn under the marks, as one GeoJSON feature collection."""
    rows = db.execute("SELECT row_id, name, kind, geometry FROM areas ORDER BY row_id")
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
